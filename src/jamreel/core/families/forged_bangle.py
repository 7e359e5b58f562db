"""The forged bangle: a bar rolled to a strip, its ends hammered to paddles or domed to cups."""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import ClassVar, Literal

from jamreel.core.advice import Advice, advise
from jamreel.core.bench.steps import Step, step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.families.base import Job, usually
from jamreel.core.families.one_wire import OnBench, Sized
from jamreel.core.families.plain_ring import OpenRing, Round
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.heat import solderable
from jamreel.core.forming.temper import Work, flattened_strain, track
from jamreel.core.forming.volume import (
    cup_blank,
    length_to_work,
    paddle_stock,
    passes_of,
    widest,
    worked_strain,
)
from jamreel.core.parts.base import Bought, size_of
from jamreel.core.parts.beads import bead_mass
from jamreel.core.path.moves import Bend, Straight, developed_length
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength
from jamreel.core.wire.sections import Flat
from jamreel.core.words import say
from jamreel.core.workpiece.ledger import Book
from jamreel.core.workpiece.straight import Stretch

# True strain that one pass through a mill gives: a tenth; common practice, no source.
PASS_STRAIN = 0.1
# A cup reaches up a pearl by so much of its diameter, and is as wide as the pearl is there; common
# practice, no source.
CUP_DEPTH = 0.2
# The peg of a half-drilled pearl: its wire and how much of it stands in the pearl, as a share of
# the pearl; common practice, no source.
PEG_WIRE_MM, PEG_SHARE = 0.9, 0.5
# What a peg weighs [g]; from memory.
PEG_G = 0.02


@dataclass(frozen=True)
class Forged:
    """What the bar is made into [mm]: the strip, and at each end so much finished length from so
    much bar, hammered to so wide and thick."""

    strip: Flat
    end: float
    end_bar: float
    wide: float
    thick: float


class ForgedBangle(OpenRing):
    """Open, of a bar rolled to a strip; metal keeps its volume, so the bar is shorter.

    ``strip_width`` by ``strip_thickness`` is the strip with round edges. Its ends stay plain, are
    hammered to paddles, or to round blanks that are domed to cups with a peg for a half-drilled
    pearl. Source of 5 to 15 overlap: common practice.
    """

    usual_wire: ClassVar[Mapping[str, str]] = usually("3 mm", temper="dead_soft")
    cut_role: ClassVar[str] = "bar"
    any_section: ClassVar[bool] = True

    kind: Literal["forged_bangle"] = "forged_bangle"
    overlap: Length = choice(10.0, 1, 60)
    strip_width: Length = choice(3.5, 1, 30)
    strip_thickness: Length = choice(1.9, 0.5, 10)
    ends: Literal["plain", "paddles", "cups"] = "paddles"
    paddle_length: Length = choice(8.0, 2, 40, when=("ends", "paddles"))
    paddle_thickness: Length = choice(1.0, 0.4, 6, when=("ends", "paddles", "cups"))
    paddle_width: OptionalLength = choice(None, 1, 40, when=("ends", "paddles"))
    paddle_taper: Length = choice(0.0, 0, 40, when=("ends", "paddles"))
    pearl: Length = choice(6.0, 3, 20, when=("ends", "cups"))

    def formed(self, job: Job, wire: Wire) -> Wire:
        """Return the strip, as hard as rolling leaves it; with cups it is annealed."""
        strip = self._strip
        if self.ends == "cups":
            hard = wire.metal.yields["dead_soft"]
        else:
            worked = track(wire, self._forging(wire), torch=job.shop.outfit.torch)
            hard = worked.ends.get("", wire.yield_mpa)
        return replace(wire, d=strip.thickness, label=strip.label, section=strip, yield_mpa=hard)

    @property
    def _strip(self) -> Flat:
        return Flat(width=self.strip_width, thickness=self.strip_thickness)

    def _passes(self, wire: Wire) -> int:
        return passes_of(worked_strain(wire.area, self._strip.area), PASS_STRAIN)

    def _rolling(self, wire: Wire) -> list[Work]:
        """Return the passes through the mill, each with its share of the strain."""
        count = self._passes(wire)
        each = worked_strain(wire.area, self._strip.area) / max(1, count)
        return [Work(f"roll_{n}", each) for n in range(1, count + 1)]

    def forged(self, wire: Wire) -> Forged:
        """Return what the bar is made into.

        Args:
            wire: the bar.

        Raises:
            Refusal: a strip that there is not metal enough for, or ends thicker than the strip.
        """
        strip = self._strip
        if strip.area >= wire.area:
            raise Refusal(
                "strip_over_bar",
                got=(Mm(strip.width), Mm(strip.thickness)),
                field="piece.strip_width",
                bar=wire.label,
            )
        if self.ends == "plain":
            return Forged(strip, 0.0, 0.0, strip.width, strip.thickness)
        if self.paddle_thickness >= strip.thickness:
            raise Refusal(
                "paddle_thick",
                got=Mm(self.paddle_thickness),
                field="piece.paddle_thickness",
                strip=strip.thickness,
            )
        thick = self.paddle_thickness
        if self.ends == "paddles":
            wide, long = self._paddle_width(wire), self.paddle_length
            # A bar of any section counts as a round one of its area.
            round_bar = 2 * math.sqrt(wire.area / math.pi)
            bar = paddle_stock(round_bar, wide, thick, long, self.paddle_taper, strip)
            return Forged(strip, long + self.paddle_taper, bar, wide, thick)
        across = 2 * self.pearl * math.sqrt(CUP_DEPTH - CUP_DEPTH**2)
        blank = cup_blank(self.pearl, CUP_DEPTH * self.pearl)
        bar = math.pi / 4 * blank**2 * thick / wire.area
        return Forged(strip, across, bar, blank, thick)

    def _paddle_width(self, wire: Wire) -> float:
        """Return how wide the paddles are: as measured, else half of what is hammered thinner goes
        to each way.

        Raises:
            Refusal: narrower than the bar, or wider than its metal goes.
        """
        thick, strip = self.paddle_thickness, self._strip
        if self.paddle_width is None:
            return strip.width * math.sqrt(strip.thickness / thick)
        most = widest(wire.area, thick)
        if not wire.d <= self.paddle_width <= most:
            got = Mm(self.paddle_width)
            raise Refusal(
                "paddle_width", got=got, field="piece.paddle_width", least=wire.d, most=most
            )
        return self.paddle_width

    def ring(self, job: Job, book: Book) -> Round:
        """Return the ring: wrist and ease, and the ends over each other.

        Raises:
            Refusal: as ``forged``; cups of a metal that can't be soldered.
        """
        solderable(job.wires.body, self.ends == "cups", "wire.metal")
        return super().ring(job, book)

    def stretches_of(self, bow: Bend, body: float, job: Job, book: Book) -> tuple[Stretch, ...]:
        """Return the bar: what the strip and each end take of it.

        Args:
            bow: the bend of the strip.
            body: centre-line of the finished bangle [mm].
            job: gives the bar.
            book: that the terms are written into.

        Raises:
            Refusal: as ``forged``; ends that leave no strip between them.
        """
        wire, made = job.wires.body, self.forged(job.wires.body)
        rolled = body - 2 * made.end
        if rolled <= body / 3:
            raise Refusal("ends_take_all", got=Mm(made.end), field="piece.paddle_length", body=body)
        bar = length_to_work(rolled, wire.area, made.strip.area)
        rule = "forming.volume.length_to_work"
        less = {"before": wire.area, "after": made.strip.area}
        book.term("less_rolled", bar - rolled, rule, "published", "cut", **less)
        if made.end:
            ends = 2 * (made.end_bar - made.end)
            book.term(f"less_{self.ends}", ends, rule, "published", "cut", wide=made.wide)
        middle = Stretch("body", (Straight(length=bar),), "body", ("body", "less_rolled"))
        if not made.end:
            return (middle,)
        end = (Straight(length=made.end_bar),)
        line = (f"less_{self.ends}",)
        return (
            Stretch("paddle_left", end, "part", line),
            middle,
            Stretch("paddle_right", end, "part", line),
        )

    def sized(self, job: Job, wire: Wire, book: Book) -> Sized:
        """Return the sizes, with the bar to start from and the strip that it is rolled to."""
        found = super().sized(job, self.formed(job, wire), book)
        bar = sum(developed_length(one.moves, wire.bend_adds) for one in found.stretches)
        rows = [*found.rows, ("bar", bar, None), ("strip", found.finished.value, None)]
        answers = {**found.answers, "make_up": "strip", "cut": "cut"}
        return replace(found, rows=rows, answers=answers)

    def forming(self, bench: OnBench) -> Iterator[Step]:
        """Yield rolling, hammering, cups, filing, then the shape."""
        yield from self._rolled(bench)
        yield from self._ended(bench)
        yield step("forged.file", "form", cautions=("ends",), check=True)
        assert bench.former is not None  # it has a target
        yield from super().forming(bench)

    def _rolled(self, bench: OnBench) -> Iterator[Step]:
        wire, strip = bench.wire, self._strip
        count = self._passes(wire)
        first = wire.shape.thickness
        for n in range(1, count + 1):
            gap = first * (strip.thickness / first) ** (n / count)
            name = f"roll_{n}"
            yield step(
                "forged.roll", "form", name=name, cautions=("mill",), n=n, of=count, rollers=gap
            )
        yield step(
            "forged.rolled",
            "form",
            check=True,
            length=bench.sized.finished.value,
            width=strip.width,
            thickness=strip.thickness,
        )

    def _ended(self, bench: OnBench) -> Iterator[Step]:
        if self.ends == "plain":
            return
        made, outfit = self.forged(bench.wire), bench.job.shop.outfit
        yield step(
            f"forged.{self.ends}",
            "form",
            cautions=("hammer",),
            check=True,
            length=made.end,
            width=made.wide,
            thickness=made.thick,
        )
        if self.ends == "cups":
            punch = outfit.nearest_punch(self.pearl) or self.pearl
            # Hammered thin, its ends would crack in the dome.
            yield step("forged.soft", "form", cautions=("torch", "pickle"), check=True)
            yield step("forged.dome", "form", cautions=("hammer",), check=True, punch=punch)
            yield step("forged.drill", "form", cautions=("drill",), peg=PEG_WIRE_MM)

    def finishing(self, made: Round) -> Iterator[Step]:
        """Yield pegs on the shaped piece, trying on bare, and at the very end the pearls."""
        if self.ends == "cups":
            peg, cautions = PEG_SHARE * self.pearl, ("torch", "pickle")
            yield step("forged.peg", "form", cautions=cautions, check=True, peg=peg)
        on = f"overlap.try_on_{made.over}"
        yield step(on, "fit", name="try_on", check=True, overlap=self.overlap, parted=made.parted)
        if self.ends == "cups":
            yield step("forged.pearls", "fit", cautions=("glue",), check=True, pearl=self.pearl)

    def works(self, bench: OnBench) -> Sequence[Work]:
        """Return rolling and hammering, which are no bends."""
        return self._forging(bench.wire)

    def _forging(self, wire: Wire) -> list[Work]:
        found = self._rolling(wire)
        if self.ends != "plain":
            strain = flattened_strain(self._strip.thickness, self.paddle_thickness)
            found.append(Work(self.ends, strain, "paddle"))
        return found

    def own_advice(self, bench: OnBench) -> Iterator[Advice | None]:
        """Yield how it goes on, and what the bench lacks."""
        yield self.going_on(bench)
        outfit = bench.job.shop.outfit
        if self.ends == "cups" and outfit.nearest_punch(self.pearl) is None:
            yield advise("no_punch", "check", "tools", pearl=self.pearl)
        if bench.formed.yield_mpa <= bench.wire.metal.yields["dead_soft"]:
            yield advise("forged_soft", "note", "making.hammer")

    def bought(self) -> tuple[Bought, ...]:
        """Return pearls, pegs and glue."""
        if self.ends != "cups":
            return ()
        pearl = size_of(self.pearl, words=say("need_size.half_drilled", size="{}"))
        mass = bead_mass(self.pearl, self.pearl, PEG_WIRE_MM, "pearl")
        return (
            Bought("pearl", pearl, 2, mass, self.pearl),
            Bought("peg", size_of(PEG_WIRE_MM, PEG_SHARE * self.pearl), 2, PEG_G),
        )
