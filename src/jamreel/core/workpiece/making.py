"""How a piece is worked, whatever it is: straightened, shaped, hammered, finished."""

from collections.abc import Iterator, Sequence
from typing import Literal

from pydantic import Field

from jamreel.core.advice import Advice, Severity, advise
from jamreel.core.bench.steps import Step, step, step_facts
from jamreel.core.forming.chosen import Wire
from jamreel.core.values import Frozen
from jamreel.core.words import say

WhoseHand = Literal["own", "usual"]
Finish = Literal["hallmark", "file", "patina", "tumble", "polish"]
# Stamping and filing come before what colours or brightens; common practice.
ORDER: tuple[Finish, ...] = ("hallmark", "file", "patina", "tumble", "polish")
CAUTIONS: dict[Finish, tuple[str, ...]] = {
    "hallmark": ("hammer",),
    "file": ("ends",),
    "patina": ("patina",),
    "tumble": (),
    "polish": (),
}
COATED = frozenset({"enamelled_copper", "gold_filled"})
PATTERNED = frozenset({"twisted", "fancy"})


class Making(Frozen):
    """How the maker works a piece.

    ``straighten`` draws the wire straight, or leaves it in the reel's curve; it is ``shaped_by`` a
    former or by hands on a printed outline. ``hammer``: no more than to set the curve; a mallet
    stiffens and leaves the thickness, steel flattens, widens and hardens. ``finish`` is what is
    done at the end. ``springback`` counts with a yield that holds (``even``), or with the metal's
    published hardening: the second opens a little wider, the first is what most tables go by. It
    goes by what is known of the maker's own ``hand``, or by the usual one.
    """

    straighten: Literal["draw", "as_reeled"] = "draw"
    shaped_by: Literal["former", "hands"] = "former"
    hammer: Literal["set", "mallet", "steel", "both"] = "set"
    springback: Literal["even", "hardening"] = "even"
    finish: tuple[Finish, ...] = Field(default=(), max_length=len(ORDER))
    hand: WhoseHand = "own"


# Steps that put on a finished piece what no finish may touch.
HANGS_ON = frozenset({"charms"})


def drawn_straight(wire: Wire, making: Making) -> bool:
    """Return whether a wire is drawn straight before it is cut.

    Args:
        wire: tempered wire would be drawn out of its curve, patterned wire out of its pattern.
        making: how the maker works.

    Source: common practice.
    """
    tempered = wire.metal.hard or wire.temper == "spring"
    patterned = wire.section is not None and wire.section.shape in PATTERNED
    return making.straighten == "draw" and not tempered and not patterned


def worked(
    steps: Sequence[Step], wire: Wire, making: Making, stuffs: frozenset[str] = frozenset()
) -> tuple[Step, ...]:
    """Return the steps of a piece as its maker works it.

    Args:
        steps: of the construction.
        wire: of the body.
        making: how the maker works.
        stuffs: what its beads are made of.

    Source: the law of finishing: before glue, and before the beads that it would spoil.
    """
    found = list(_shaped(steps, making))
    if any(one.station == "cut" for one in steps) and drawn_straight(wire, making):
        found.insert(0, step("wire.straighten", "cut", check=True))
    last = len(found) - 1 if found and found[-1].station == "fit" else len(found)
    # Nothing is filed, tumbled or polished beside glue, nor with what hangs on it.
    glued = (n for n, one in enumerate(found) if "glue" in one.cautions or one.id in HANGS_ON)
    end = min(next(glued, last), last)
    beaded = min(_first_beads(found), end)
    early: list[Step] = []
    rest: list[Step] = []
    for one in ORDER:
        if one in making.finish:
            done = step(f"finish.{one}", "form", cautions=CAUTIONS[one], check=True)
            (early if stuffs & set(done.spoils) else rest).append(done)
    if early:
        says = say("step.finish_first", says=early[0].says)
        early[0] = early[0].model_copy(update={"says": says})
    return (*found[:beaded], *early, *found[beaded:end], *rest, *found[end:])


def _first_beads(steps: Sequence[Step]) -> int:
    """Return the place before the first step that puts beads on, or before its round."""
    at = next((n for n, one in enumerate(steps) if "beads" in one.does), len(steps))
    while 0 < at < len(steps) and steps[at].round and steps[at - 1].round == steps[at].round:
        at -= 1
    return at


def _shaped(steps: Sequence[Step], making: Making) -> Iterator[Step]:
    for one in steps:
        if one.id == "shape" and making.shaped_by == "hands":
            yield step("wire.shape_hands", "form", name="shape", check=True)
        elif one.work == "closed.round" and making.shaped_by == "hands":
            yield step("closed.round_hands", "form", name="round", check=True)
        elif one.id == "shape" and making.hammer != "set":
            # Set with a step of its own.
            yield one.model_copy(update={"says": say("step.wire.shape_only.says")})
        else:
            yield one
        if one.id == "shape":
            if making.hammer in ("mallet", "both"):
                yield step("wire.mallet", "form", cautions=("hammer",), check=True)
            if making.hammer in ("steel", "both"):
                yield step("wire.steel", "form", cautions=("hammer",), check=True)


def spoilt(making: Making, stuffs: frozenset[str], wire: Wire, *, glued: bool) -> Iterator[Advice]:
    """Yield which finish spoils what of the piece.

    Args:
        making: how the maker works.
        stuffs: what its beads are made of.
        wire: of the body.
        glued: whether anything of it is glued.

    Source: common practice.
    """
    there = stuffs | ({"glue"} if glued else set()) | ({"coating"} if _coated(wire) else set())
    for one in ORDER:
        for what in (
            sorted(there & set(step_facts()[f"finish.{one}"].spoils))
            if one in making.finish
            else ()
        ):
            severity: Severity = "fix" if what == "coating" else "check"
            yield advise(f"spoils_{what}", severity, "making.finish", finish=finish_named(one))


def finish_named(finish: Finish) -> str:
    """Return what a finish is called."""
    return step(f"finish.{finish}", "form").title


def _coated(wire: Wire) -> bool:
    return wire.metal.id in COATED
