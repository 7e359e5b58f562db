"""What runs through strung parts: how it is threaded, and how both of its ends are closed."""

from typing import Any

from jamreel.core.bench.steps import Step, step
from jamreel.core.makeup.sequence import MakeUp
from jamreel.core.words import say

STRUNG = {"wrapped": "string", "plain": "core", "through": "string_through"}
STRINGING = frozenset(f"composed.{key}" for key in (*STRUNG.values(), "core_hard"))
# The step that closes the second end of what is strung: the length is tried before it.
LAST_END = "string_last"


def strung_steps(makeup: MakeUp, *, hard: bool = False) -> tuple[Step, ...]:
    """Return the steps of what runs through the strung parts: stringing, and closing both ends.

    Args:
        makeup: gives how it ends.
        hard: whether it is tempered wire, which wants heavy pliers and is never drawn straight.
    """
    tail, pin = makeup.string_tail, makeup.string_pin
    if makeup.string_ends == "plain":
        key = "composed.core_hard" if hard else "composed.core"
        own: dict[str, Any] = {"cautions": ("hard",) if hard else (), "check": True, "pin": pin}
        return (
            step(key, "form", name="core", **own),
            step(f"{key}_last", "form", name=LAST_END, **own),
        )
    if makeup.string_ends == "through":
        return (
            step("composed.string_through", "form", check=True, tail=tail),
            step("composed.string_through_last", "form", name=LAST_END, check=True, tail=tail),
        )
    what = say("join.neighbour")
    return (
        step("composed.string", "form", check=True, tail=tail),
        step("composed.string_first", "form", check=True, what=what),
        step("composed.string_last", "form", name=LAST_END, check=True, what=what),
    )
