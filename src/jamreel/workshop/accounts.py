"""Who may come in: names, passwords, tries, and leaving for good."""

import hashlib
import shutil
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.cache import cache
from django.core.exceptions import ValidationError
from django.db import IntegrityError, connection, transaction
from django.utils import timezone

from jamreel.core.words import say
from jamreel.workshop.models import (
    DayPlan,
    HandRecord,
    LogEntry,
    LogWord,
    Movement,
    Owned,
    Photo,
    Piece,
    Reading,
    Revision,
    StepClock,
    Stock,
    Tick,
    TryOnRecord,
    Wait,
    Wearer,
    Workshop,
)
from jamreel.workshop.naming import user_name
from jamreel.workshop.ownership import rows

# From so many wrong guesses at one user, within a time [s], an address that is not known has to
# wait between two tries [s]. One that got in before is never held up by strangers.
MANY_GUESSES, GUESSES_LAST_S, WAIT_S = 20, 900, 5
KNOWN_FOR_S = 90 * 24 * 3600
# Rows that are deleted under one lock.
AT_ONCE = 500
LONGEST_NAME = 150


class NotAllowed(Exception):
    """Something about an account that can't be done: the field, what is expected, and why."""

    def __init__(self, key: str, field: str, says: str = "", **values: Any) -> None:
        super().__init__(key)
        self.field = field
        self.expected = say(f"account.{key}.expected", **values)
        self.says = says or say(f"account.{key}.says", **values)


def sign_up(name: str, password: str, workshop: str) -> User:
    """Return a new user with a bench of their own.

    Raises:
        NotAllowed: a name that is taken or none, a password that is too easy.
    """
    try:
        name = user_name(name)
    except ValueError as error:
        raise NotAllowed("name_unreadable", "user", why=str(error)) from None
    if not 0 < len(name) <= LONGEST_NAME:
        raise NotAllowed("name_long", "user", most=LONGEST_NAME)
    _hard_enough(password, User(username=name))
    user = User(username=name)
    user.set_password(password)
    try:
        with transaction.atomic():
            user.save(force_insert=True)
            Workshop.objects.create(name=workshop).members.add(user)
    except IntegrityError:
        raise NotAllowed("name_taken", "user") from None
    return user


def _hard_enough(password: str, user: User, field: str = "password") -> None:
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise NotAllowed("too_easy", field, " ".join(error.messages)) from None


def known_as(typed: str) -> str:
    """Return the name under which a user is kept, for a name as typed; '' for none."""
    try:
        name = user_name(typed)
    except ValueError:
        return ""
    # Of two that were alike before names were made one, each is found as it is written.
    return typed if User.objects.filter(username=typed).exists() else name


def must_wait(name: str, address: str) -> bool:
    """Return whether a try has to wait, because strangers are guessing at this user."""
    guesses = cache.get(_key("guesses", name), 0)
    if guesses < MANY_GUESSES or cache.get(_key("known", name, address)):
        return False
    return not cache.add(_key("try", name), True, WAIT_S)


def guessed(name: str) -> None:
    """Count a wrong guess at a user."""
    key = _key("guesses", name)
    cache.add(key, 0, GUESSES_LAST_S)
    try:
        cache.incr(key)
    except ValueError:
        cache.set(key, 1, GUESSES_LAST_S)


def got_in(name: str, address: str) -> None:
    """Remember that a user got in from an address."""
    cache.set(_key("known", name, address), True, KNOWN_FOR_S)


def _key(*parts: str) -> str:
    # Names may be of any characters, and long; keys may not.
    return hashlib.blake2b("\n".join(parts).encode(), digest_size=20).hexdigest()


def change_password(user: User, old: str, new: str) -> None:
    """Change a password; other sessions of the user end with the old one.

    Raises:
        NotAllowed: the old one is wrong, or the new one too easy.
    """
    _own(user, old)
    _hard_enough(new, user, "new")
    user.set_password(new)
    user.save(update_fields=["password"])


def _own(user: User, password: str) -> None:
    if settings.DEMO and user.username == settings.DEMO_USER:
        raise NotAllowed("of_all", "")
    if not user.check_password(password):
        raise NotAllowed("wrong_password", "password")


def end_sessions(user: User, but: str | None = None) -> int:
    """End all sessions of a user but one. Returns how many were ended."""
    ended = [
        session.pk
        for session in Session.objects.filter(expire_date__gt=timezone.now()).iterator()
        if session.pk != but and session.get_decoded().get("_auth_user_id") == str(user.pk)
    ]
    for start in range(0, len(ended), AT_ONCE):
        Session.objects.filter(pk__in=ended[start : start + AT_ONCE]).delete()
    return len(ended)


def delete_account(user: User, password: str) -> None:
    """Delete a user, and every bench that is nobody else's with all that is on it.

    Raises:
        NotAllowed: the password is wrong.
    """
    _own(user, password)
    end_sessions(user)
    own = [w for w in Workshop.objects.filter(members=user) if w.members.count() == 1]
    with transaction.atomic():
        for workshop in own:
            workshop.closed_at = timezone.now()
            workshop.save(update_fields=["closed_at"])
        user.delete()
    clear_closed()


def clear_closed() -> None:
    """Delete benches whose maker has left, a few rows at a time; what was begun is gone on with."""
    for workshop in Workshop.objects.filter(closed_at__isnull=False):
        rows(Piece, workshop).update(head=None)
        for model, only in _IN_ORDER:
            _delete(model, workshop, only)
        workshop.delete()
        shutil.rmtree(outbox_of(workshop), ignore_errors=True)


# Nothing goes before what refers to it.
_IN_ORDER: tuple[tuple[type[Owned], dict[str, Any]], ...] = (
    (Movement, {"undoes__isnull": False}),
    (Movement, {}),
    (Photo, {}),
    (LogEntry, {}),
    (LogWord, {}),
    (HandRecord, {}),
    (DayPlan, {}),
    (Wait, {}),
    (StepClock, {}),
    (Stock, {}),
    (Tick, {}),
    (TryOnRecord, {}),
    (Revision, {}),
    (Piece, {}),
    (Reading, {}),
    (Wearer, {}),
)


def _delete(model: type[Owned], workshop: Workshop, only: dict[str, Any]) -> None:
    # The newest first: a revision goes before the one that it came from.
    found = rows(model, workshop).filter(**only).order_by("-pk").values_list("pk", flat=True)
    while keys := list(found[:AT_ONCE]):
        with transaction.atomic():
            rows(model, workshop).filter(pk__in=keys)._raw_delete(connection.alias)


def outbox_of(workshop: Workshop) -> Path:
    """Return the folder in which a bench's labels are laid."""
    return Path(settings.DATA) / "outbox" / f"bench-{workshop.pk}"
