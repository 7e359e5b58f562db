"""A choice is declared once: what is asked, refused and published follows from its field."""

from typing import ClassVar, Literal

import pytest
from pydantic import ValidationError

from jamreel.core.choices import Asking, Choice, choice, like
from jamreel.core.parts import registered_parts
from jamreel.core.values import Length


class Wound(Asking):
    """A base with choices of its own."""

    turns: int = choice(6, 1, 40)
    way: Literal["left", "right"] = "right"
    lead: Length = choice(4.0, 0.5, 20, when=("way", "left"))


class Close(Wound):
    """One that begins otherwise, and hangs a choice of its base on one of its own."""

    only_if: ClassVar[dict[str, tuple[str, ...]]] = {"turns": ("ends", "cut")}

    turns: int = like(Wound, "turns", 12)
    ends: Literal["cut", "bare"] = "cut"
    lead: Length = like(Wound, "lead", 2.0)


def asked(of: type[Asking]) -> dict[str, Choice]:
    return {one.name: one for one in of.choices()}


def test_what_is_asked_follows_from_the_field() -> None:
    turns, lead = asked(Wound)["turns"], asked(Wound)["lead"]
    assert (turns.type, turns.default, turns.low, turns.high, turns.if_field) == (
        "whole",
        6,
        1,
        40,
        "",
    )
    assert (lead.type, lead.if_field, lead.if_values) == ("length", "way", ("left",))


def test_a_base_s_choice_keeps_its_limits_under_another_default() -> None:
    turns, lead = asked(Close)["turns"], asked(Close)["lead"]
    assert (turns.default, turns.low, turns.high) == (12, 1, 40)
    assert (lead.default, lead.low, lead.high) == (2.0, 0.5, 20)
    # One hangs on what the base said, the other on what is said here.
    assert (lead.if_field, turns.if_field) == ("way", "ends")
    assert Wound.limits() == Close.limits() == {"turns": (1, 40), "lead": (0.5, 20)}


@pytest.mark.parametrize("typed", [{"turns": 0}, {"turns": 41}, {"lead": "0.4"}, {"lead": "21 mm"}])
def test_what_is_out_of_its_limits_is_refused(typed: dict[str, object]) -> None:
    for of in (Wound, Close):
        of.model_validate({name: of.limits()[name][0] for name in typed})
        with pytest.raises(ValidationError, match="refused"):
            of.model_validate(typed)


def test_limits_are_published() -> None:
    told = Wound.model_json_schema()["properties"]
    assert (told["turns"]["minimum"], told["turns"]["maximum"]) == (1, 40)
    for part in registered_parts().values():
        fields = part.model_json_schema(mode="validation")["properties"]
        for name, (low, high) in part.limits().items():
            assert (fields[name]["minimum"], fields[name]["maximum"]) == (low, high)
            # What a part begins with can be.
            default = part.model_fields[name].default
            assert default is None or low <= default <= high, name
