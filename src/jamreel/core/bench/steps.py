"""Steps and cautions, worded from the catalogue."""

import tomllib
from collections.abc import Iterable, Iterator, Sequence
from functools import cache
from pathlib import Path
from typing import Any, Literal

from pydantic import Field

from jamreel.core.values import Frozen, Quantity, Written
from jamreel.core.words import say

Station = Literal["cut", "form", "fit"]
# What a step takes of the bench while it runs, or holds while it waits.
Resource = Literal["hands", "torch", "pickle", "tumbler", "glue"]
# What is asked when a step is done, because it is known then.
Asked = Literal["cut", "left", "came_off", "rows", "finished", "inside"]
# What a step does to the metal through and through.
Works = Literal["straightened", "malleted", "tumbled", "hammered", "softened"]

# What else it does: puts beads on; heats what is cooled in steps of its own; makes a cap, or begins
# to finish the ends of a body; lets the size be tried while it can be changed, or settles it for
# good; marks the wire, or changes how long it is; trims what was a handle; looks at every end.
Does = Literal[
    "beads", "cooled", "caps", "finishes", "tries", "settles",
    "marks", "lengthens", "trims", "ends",
]  # fmt: skip

# An opening of a part: a loop on one side, a ring that holds on both, the middle link of a chain,
# a closure's to the body.
Opening = Literal["left", "right", "ring", "middle", "body"]

# Where kinds stand, and beside them what is known of their own steps.
_BESIDE = ("parts", "closures", "interlace", "families")


class Caution(Written):
    """How work at the bench can hurt, why, and the steps at which it stands."""

    id: str
    says: str
    because: str
    steps: tuple[str, ...]


class Step(Written):
    """One thing to do, at a station; ``check`` is what to look at before going on.

    Its ``id`` is the name of the entry that it is for and its own. A step that does for several
    entries at once is ``of`` all their steps, with the ``counts`` of each. ``figures`` are the
    numbers that it speaks of (pin, former, count, places on the wire): when one of them moves, what
    was done no longer is as planned. ``sort`` is the sort of part that it makes, ``bends`` are the
    bends of it, by their key, ``shapes`` all that it shapes, ``works`` what it does to the metal
    through and through, and ``wants`` what of the bench's outfit it takes.

    ``work`` is the kind of work, the same wherever it is done; it is repeated for so many ``times``
    parts. Steps of one ``round`` are done one part after the other: all for one, then all for the
    next; it ``skips`` some parts, counted from one. All of them take so
    many ``minutes`` of hands, which ``takes`` those resources; then it is left alone for ``waits``
    [min], ``waits_in`` one of them. ``asks`` is what is known when it is done.

    What it does to openings: it ``makes`` some, which stand open until closed; it ``takes_in`` what
    hangs in them; it ``shuts`` some for good. What it ``does`` besides, and the stuffs that it
    ``spoils`` where they are on already. ``thing`` names what of the piece it is done to, '' for
    the piece as a whole; ``way`` the entry of which it may be told how far it is.
    """

    id: str
    station: Station
    title: str
    says: str
    check: str | None = None
    cautions: tuple[str, ...] = ()
    figures: dict[str, Quantity] = Field(default_factory=dict)
    of: tuple[str, ...] = ()
    counts: tuple[int, ...] = Field(default=(), exclude=True)
    sort: str = ""
    bends: tuple[str, ...] = Field(default=(), exclude=True)
    shapes: tuple[str, ...] = Field(default=(), exclude=True)
    works: Works | None = Field(default=None, exclude=True)
    wants: tuple[str, ...] = Field(default=(), exclude=True)
    work: str = ""
    times: int = 1
    round: str = ""
    skips: tuple[int, ...] = ()
    minutes: Quantity = 0.0
    takes: tuple[Resource, ...] = ("hands",)
    waits: Quantity = 0.0
    waits_in: Resource | None = None
    asks: tuple[Asked, ...] = ()
    makes: tuple[Opening, ...] = Field(default=(), exclude=True)
    takes_in: tuple[Opening, ...] = Field(default=(), exclude=True)
    shuts: tuple[Opening, ...] = Field(default=(), exclude=True)
    does: tuple[Does, ...] = Field(default=(), exclude=True)
    spoils: tuple[str, ...] = Field(default=(), exclude=True)
    thing: str = Field(default="", exclude=True)
    way: str = ""

    @property
    def stands_for(self) -> tuple[str, ...]:
        """The ids of all the steps that it does at once, its own among them."""
        return self.of or (self.id,)

    def figures_for(self, key: str) -> dict[str, float]:
        """Return the numbers that it speaks of for one of the steps that it does at once."""
        if key not in self.of:
            return self.figures
        return {**self.figures, "count": self.counts[self.of.index(key)]}


class StepFacts(Frozen):
    """What is known of a step by its key: minutes in most hands, of the whole and of ``each`` that
    it counts; minutes that it is left alone, and in what; what it asks; the bends that it makes at
    places of the wire, what else it shapes, and what it does to the metal; the openings that it
    makes, takes something into, and shuts; what else it does, and what it spoils."""

    minutes: float = 0.0
    each: float = 0.0
    waits: float = 0.0
    waits_in: Resource | None = None
    asks: tuple[Asked, ...] = ()
    bends: tuple[str, ...] = ()
    also: tuple[str, ...] = ()
    works: Works | None = None
    wants: tuple[str, ...] = ()
    makes: tuple[Opening, ...] = ()
    takes_in: tuple[Opening, ...] = ()
    shuts: tuple[Opening, ...] = ()
    does: tuple[Does, ...] = ()
    spoils: tuple[str, ...] = ()


@cache
def step_facts() -> dict[str, StepFacts]:
    """Return what is known of steps by key: of those that all share, and of each kind's own, which
    stand beside the kind.

    Raises:
        ValueError: one step stands in two files.

    Source: data/steps.toml, and the files beside parts, closures, bodies and constructions.
    """
    core = Path(__file__).parents[1]
    beside = (file for folder in _BESIDE for file in sorted((core / folder).rglob("*.toml")))
    found: dict[str, StepFacts] = {}
    for file in (core / "bench/data/steps.toml", *beside):
        for key, facts in tomllib.loads(file.read_text(encoding="utf-8")).items():
            if key in found:
                raise ValueError(f"the step {key} stands in {file.name} and in another file")
            found[key] = StepFacts(**facts)
    return found


def step(
    key: str,
    station: Station,
    *,
    name: str = "",
    cautions: Iterable[str] = (),
    check: bool = False,
    opening: Opening | None = None,
    **values: Any,
) -> Step:
    """Return the step that the catalogue words under ``step.<key>``.

    It goes by the last word of its key, or by a ``name``: one step worded in several ways is still
    the same step. What it does to an opening it does to the given ``opening`` instead.
    """
    facts = step_facts().get(key, StepFacts())
    own = (opening,) if opening else ()
    return Step(
        id=name or key.rpartition(".")[2],
        station=station,
        title=say(f"step.{key}.title", **values),
        says=say(f"step.{key}.says", **values),
        check=say(f"step.{key}.check", **values) if check else None,
        cautions=tuple(cautions),
        figures={k: round(float(v), 4) for k, v in values.items() if isinstance(v, (int, float))},
        bends=facts.bends,
        shapes=(*facts.bends, *facts.also),
        works=facts.works,
        wants=facts.wants,
        work=key,
        times=max(1, int(values.get("count", 1))),
        minutes=facts.minutes + facts.each * float(values.get("count", 1)),
        takes=("hands", "torch") if "torch" in facts.wants else ("hands",),
        waits=facts.waits,
        waits_in=facts.waits_in,
        asks=facts.asks,
        makes=facts.makes and (own or facts.makes),
        takes_in=facts.takes_in and (own or facts.takes_in),
        shuts=facts.shuts and (own or facts.shuts),
        does=facts.does,
        spoils=facts.spoils,
    )


def once_each(steps: Sequence[Step]) -> Iterator[Step]:
    """Yield steps, those of two halves that are alike as one: both caps are glued at once."""
    found: dict[str, Step] = {}
    for one in steps:
        twin = found.get(one.id)
        if twin is None or twin.says != one.says:
            found[one.id if twin is None else f"{one.id}_other"] = one
            continue
        both = {"times": twin.times + one.times, "minutes": twin.minutes + one.minutes}
        figures = {**twin.figures, "count": float(twin.times + one.times)}
        found[one.id] = twin.model_copy(update={**both, "figures": figures})
    for key, one in found.items():
        yield one if key == one.id else one.model_copy(update={"id": key})


def cautions_of(steps: Iterable[Step]) -> tuple[Caution, ...]:
    """Return the cautions that a run of steps names, in the order of first need."""
    at: dict[str, list[str]] = {}
    for one in steps:
        for caution in one.cautions:
            at.setdefault(caution, []).append(one.id)
    return tuple(
        Caution(
            id=key,
            says=say(f"caution.{key}.says"),
            because=say(f"caution.{key}.because"),
            steps=tuple(where),
        )
        for key, where in at.items()
    )
