"""Accounts: names that are one, tries that are counted, leaving with all that is one's own."""

import json
from typing import Any

import pytest
from django.conf import settings
from django.contrib.auth.models import User
from django.contrib.sessions.models import Session
from django.core.cache import cache
from django.test import Client
from django.utils.module_loading import import_string

from jamreel.site import settings as deployed
from jamreel.workshop import accounts, quotas
from jamreel.workshop.models import Owned, Piece, Stock, Wearer, Workshop
from jamreel.workshop.naming import clean_text, user_name
from tests.core.families import example

Row = dict[str, Any]
PASSWORD = "willow-and-wire-7"


def send(client: Client, path: str, body: Row, **more: Any) -> Any:
    return client.post(path, json.dumps(body), content_type="application/json", **more)


def sign_in(user: str, password: str = PASSWORD, address: str = "10.0.0.1") -> Any:
    given = {"user": user, "password": password}
    return send(Client(), "/api/session/sign-in", given, REMOTE_ADDR=address)


@pytest.mark.parametrize("typed", ["reed", "REED", "ＲＥＥＤ", "  Reed "])
def test_a_name_is_the_same_however_it_is_typed(bench: Workshop, typed: str) -> None:
    assert sign_in(typed).json()["user"] == "reed"
    taken = {"user": typed, "password": "osier-and-brass-8", "workshop": "Another"}
    assert send(Client(), "/api/session/sign-up", taken).json()["field"] == "user"
    assert User.objects.count() == 1


@pytest.mark.parametrize("typed", ["re\u202eed", "re\x00ed", "re\u200bed", "\ud800", "re\ned"])
def test_a_name_that_reads_otherwise_than_it_is_is_refused(db: None, typed: str) -> None:
    given = {"user": typed, "password": "osier-and-brass-8", "workshop": "Bench"}
    answer = send(Client(), "/api/session/sign-up", given)
    assert answer.status_code == 422
    assert answer.json()["field"] == "user"
    assert User.objects.count() == 0


def test_names_are_one_line_and_joiners_of_scripts_stay() -> None:
    assert clean_text(" a \u00a0 b ") == "a b"
    assert clean_text("e\u0301") == "é"
    assert clean_text("نی\u200cلوفر") == "نی\u200cلوفر"
    assert user_name("Straße") == user_name("STRASSE") == "strasse"


def test_a_stranger_locks_out_himself_and_not_the_maker(bench: Workshop) -> None:
    for _ in range(settings.AXES_FAILURE_LIMIT):
        sign_in("reed", "a guess", "10.0.0.66")
    locked = sign_in("reed", PASSWORD, "10.0.0.66")
    assert locked.status_code == 429
    assert int(locked["Retry-After"]) > 60
    assert sign_in("reed", PASSWORD, "10.0.0.1").status_code == 200


def test_guesses_from_many_addresses_are_slowed_and_a_known_address_is_not(bench: Workshop) -> None:
    assert sign_in("reed", PASSWORD, "10.0.0.1").status_code == 200
    for i in range(accounts.MANY_GUESSES):
        assert sign_in("reed", "a guess", f"10.1.0.{i}").status_code == 403
    # One try in so many seconds, whoever asks …
    assert sign_in("reed", "a guess", "10.2.0.1").status_code == 403
    slowed = sign_in("reed", PASSWORD, "10.2.0.2")
    assert slowed.status_code == 429
    assert slowed["Retry-After"] == str(accounts.WAIT_S)
    # … but for the address that the maker has come from before.
    assert sign_in("reed", PASSWORD, "10.0.0.1").status_code == 200


def test_one_address_signs_in_and_up_so_often_and_no_more(db: None) -> None:
    answers = [sign_in(f"nobody{i}", "a guess", "10.0.0.9").status_code for i in range(42)]
    assert answers[:40].count(429) == 0
    assert answers[40:] == [429, 429]
    given = {"password": "osier-and-brass-8", "workshop": "Bench"}
    made = [
        send(Client(), "/api/session/sign-up", {**given, "user": f"u{i}"}).status_code
        for i in range(21)
    ]
    assert made[:20] == [200] * 20
    assert made[20] == 429


def test_imports_are_counted_by_bench(client: Client, stranger: Client) -> None:
    text = {"text": "name,site,value [mm]\nWren,wrist_girth,158\n"}
    answers = [send(client, "/api/measures", text).status_code for _ in range(41)]
    assert answers == [200] * 40 + [429]
    assert send(stranger, "/api/measures", text).status_code == 200


def test_behind_a_proxy_the_address_is_the_one_that_the_proxy_saw(
    bench: Workshop, monkeypatch: pytest.MonkeyPatch
) -> None:
    def guess(told: str) -> int:
        given = {"user": "reed", "password": "a guess"}
        answer = send(Client(), "/api/session/sign-in", given, HTTP_X_REAL_IP=told)
        return int(answer.status_code)

    monkeypatch.setattr(settings, "BEHIND_PROXY", True)
    for i in range(settings.AXES_FAILURE_LIMIT + 1):
        assert guess(f"10.3.0.{i}") == 403
    # Without a proxy, what a stranger says of his address counts for nothing.
    monkeypatch.setattr(settings, "BEHIND_PROXY", False)
    found = [guess(f"10.4.0.{i}") for i in range(settings.AXES_FAILURE_LIMIT)]
    assert found[-1] == 429


def test_sign_up_can_be_closed(db: None, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(settings, "SIGN_UP_OPEN", False)
    assert Client().get("/api/session").json()["sign_up"] is False
    given = {"user": "reed", "password": PASSWORD, "workshop": "Bench"}
    answer = send(Client(), "/api/session/sign-up", given)
    assert answer.status_code == 403
    assert not User.objects.exists()


def test_a_new_password_ends_the_sessions_of_the_old_one(bench: Workshop) -> None:
    here, there = Client(), Client()
    for one in (here, there):
        send(one, "/api/session/sign-in", {"user": "reed", "password": PASSWORD})
    new = "sedge-and-silver-9"
    wrong = send(here, "/api/account/password", {"password": "a guess", "new": new})
    assert wrong.json()["field"] == "password"
    easy = send(here, "/api/account/password", {"password": PASSWORD, "new": "reed"})
    assert easy.json()["field"] == "new"
    done = send(here, "/api/account/password", {"password": PASSWORD, "new": new})
    assert done.json() == {"ended": 1}
    assert here.get("/api/bench").status_code == 200
    assert there.get("/api/bench").status_code == 401
    assert sign_in("reed", PASSWORD).status_code == 403
    assert sign_in("reed", new).status_code == 200


def test_every_session_can_be_ended_and_no_one_elses(bench: Workshop, stranger: Client) -> None:
    here, there = Client(), Client()
    for one in (here, there):
        send(one, "/api/session/sign-in", {"user": "reed", "password": PASSWORD})
    assert send(here, "/api/account/sign-out-everywhere", {}).json() == {"ended": 1}
    assert [c.get("/api/bench").status_code for c in (here, there, stranger)] == [401, 401, 200]


def everything_of(workshop: int) -> dict[str, int]:
    return {
        model.__name__: model._default_manager.filter(workshop=workshop).count()
        for model in Owned.__subclasses__()
    }


def test_leaving_takes_all_that_is_ones_own_and_nothing_else(
    bench: Workshop, client: Client, stranger: Client, brief: Row, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(accounts, "AT_ONCE", 2)
    reel = {"kind": "reel", "wire": brief["wire"], "amount": "10 m"}
    for one in (client, stranger):
        wearer = send(one, "/api/wearers", {"name": "Wren"}).json()["id"]
        given = {"name": "Bangle", "brief": brief, "wearer_id": wearer}
        piece = send(one, "/api/pieces", given).json()
        path = f"/api/pieces/{piece['id']}"
        for trim in ("2", "3", "4"):
            changed = {**brief, "cutting": {"trim": trim}}
            body = {"version": piece["version"], "brief": changed}
            piece = one.put(path + "/brief", json.dumps(body), "application/json").json()
        stock = send(one, "/api/stock", {"stock": reel}).json()["stock"][0]["id"]
        tick = {"kind": "cut", "key": "bangle", "stock_id": stock}
        send(one, path + "/ticks", tick)
        send(one, path + "/ticks", {**tick, "ticked": False})
    theirs = Workshop.objects.exclude(pk=bench.pk).get().pk
    before = everything_of(theirs)
    assert min(everything_of(bench.pk)[name] for name in ("Piece", "Revision", "Movement")) >= 1
    assert send(client, "/api/account/delete", {"password": "a guess"}).status_code == 422
    assert send(client, "/api/account/delete", {"password": PASSWORD}).status_code == 204
    assert set(everything_of(bench.pk).values()) == {0}
    assert not Workshop.objects.filter(pk=bench.pk).exists()
    assert not User.objects.filter(username="reed").exists()
    assert client.get("/api/bench").status_code == 401
    assert everything_of(theirs) == before
    assert Session.objects.count() == 1


def test_every_kind_of_row_goes_with_its_bench() -> None:
    gone = {model for model, _ in accounts._IN_ORDER}
    assert gone == set(Owned.__subclasses__())


def test_a_bench_with_another_maker_on_it_stays(bench: Workshop, client: Client) -> None:
    other = User.objects.create_user("osier", password=PASSWORD)
    bench.members.add(other)
    reed = User.objects.get(username="reed")
    accounts.delete_account(reed, PASSWORD)
    assert list(bench.members.values_list("username", flat=True)) == ["osier"]


def test_the_demo_is_everybodys(db: None, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(settings, "DEMO", True)
    user = User.objects.create_user(settings.DEMO_USER, password=PASSWORD)
    with pytest.raises(accounts.NotAllowed):
        accounts.change_password(user, PASSWORD, "another-and-brass-9")
    with pytest.raises(accounts.NotAllowed):
        accounts.delete_account(user, PASSWORD)
    assert User.objects.get(pk=user.pk).check_password(PASSWORD)


@pytest.mark.parametrize(
    ("model", "path", "body"),
    [
        (Wearer, "/api/wearers", {"name": "Sedge"}),
        (Piece, "/api/pieces", {"name": "Second", "brief": example("linked-bracelet")}),
        (Stock, "/api/stock", {"stock": {"kind": "reel", "wire": {"size": "1 mm"}}}),
    ],
)
def test_a_bench_keeps_so_much_and_says_so(
    client: Client, monkeypatch: pytest.MonkeyPatch, model: Any, path: str, body: Row
) -> None:
    monkeypatch.setitem(quotas.MOST, model, 1)
    assert send(client, path, body).status_code == 201
    more = {**body, "name": "Another"}
    answer = send(client, path, more)
    assert answer.status_code == 422
    assert "keeps 1 at most" in answer.json()["detail"]
    assert model.objects.count() == 1


def test_tries_are_forgotten_in_time(monkeypatch: pytest.MonkeyPatch) -> None:
    cache.clear()
    for _ in range(accounts.MANY_GUESSES):
        accounts.guessed("reed")
    assert accounts.must_wait("reed", "10.0.0.1") is False  # the one try of these seconds
    assert accounts.must_wait("reed", "10.0.0.1") is True
    cache.clear()
    assert accounts.must_wait("reed", "10.0.0.1") is False


def test_wrong_passwords_at_a_change_count_as_tries_at_the_door(db: None) -> None:
    user = User.objects.create_user("reed", password="willow-and-wire-7")
    Workshop.objects.create(name="Reed Bench").members.add(user)
    inside = Client()
    inside.force_login(user, backend=settings.AUTHENTICATION_BACKENDS[1])
    answers = []
    for n in range(9):
        body = {"password": f"guess-{n}", "new": "long-legged-heron-9"}
        answer = inside.post("/api/account/password", body, content_type="application/json")
        answers.append(answer.status_code)
    assert answers[0] == 422
    assert answers[-1] == 429
    # Nor does the door open now to whoever guesses there, right or wrong.
    outside = Client()
    outside.get("/")
    right = {"user": "reed", "password": "willow-and-wire-7"}
    at_door = outside.post("/api/session/sign-in", right, content_type="application/json")
    assert at_door.status_code == 429
    assert User.objects.get().check_password("willow-and-wire-7")


def test_a_bench_that_is_served_hashes_as_slowly_as_it_should() -> None:
    """Tests hash quickly; what is deployed does not."""
    slow = import_string(deployed.PASSWORD_HASHERS[0])()
    kept = slow.encode("willow-and-wire-7", slow.salt())
    assert kept.startswith("argon2$argon2id$")
    assert slow.verify("willow-and-wire-7", kept)
    assert not slow.verify("willow-and-wire-8", kept)
