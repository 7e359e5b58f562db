"""The channel: rows of beads between two legs of a frame, a wire end through each row from either
side, turned round the legs."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, ClassVar, Literal

import numpy as np

from jamreel.core.advice.weaving import bar_shows, room_beside_beads, thin_bar
from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice, like
from jamreel.core.errors import Refusal
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import Interlaced, passes
from jamreel.core.interlace.body import Body, BodySize, BodyWires, Look, Takes, Work
from jamreel.core.interlace.cells import Ball, Cell, Strand, bars_of
from jamreel.core.interlace.crossed_wrap.part import Repeat
from jamreel.core.interlace.endings import eye_hold
from jamreel.core.interlace.face import face
from jamreel.core.interlace.frames import Frame
from jamreel.core.interlace.space import Array, joined, moved, round_bar, straight, turned_over
from jamreel.core.interlace.turns import crossed_belt
from jamreel.core.parts.base import BEAD_STEP_MM, part_step
from jamreel.core.parts.beads import Beaded, BeadRow
from jamreel.core.parts.drawn import drawn
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength, Stroke

# By how much a width that nobody chose is wider than a row needs [mm].
PLAY_MM = 0.1


@dataclass(frozen=True)
class Leg:
    """A leg with a row of beads beside it, lengths in mm: the width w between both legs, their
    thickness, the working wire, and its ``turns`` counted outside the leg between two rows."""

    width: float
    bar: float
    wire: float
    turns: int

    @property
    def apart(self) -> float:
        """S = w + D, between the middles of both legs [mm]."""
        return self.width + self.bar

    @property
    def radius(self) -> float:
        """r, of the working wire's middle round a leg [mm]."""
        return (self.bar + self.wire) / 2

    def leaves(self, beads: float) -> tuple[float, float]:
        """Return how a wire goes from the hole of a row to the leg.

            a = (S - sum l) / 2, h = d / 2, D = sqrt(a^2 + h^2)
            t = sqrt(D^2 - r^2), beta = acos(r / D) + atan(h / a)

        Args:
            beads: sum of l, of the row along its hole [mm].

        Returns:
            t [mm], straight to the leg, and beta [rad], where it meets it.

        Raises:
            ValueError: beads up to the leg: the wire can't leave the hole beside it.

        Source: tangent to a circle; plain geometry.
        """
        a, h = (self.apart - beads) / 2, self.wire / 2
        far = math.hypot(a, h)
        if a <= 0 or far < self.radius:
            raise ValueError("beads reach to the leg")
        to = math.sqrt(far**2 - self.radius**2)
        return to, math.acos(self.radius / far) + math.atan2(h, a)

    def row_takes(self, beads: float, pitch: float) -> float:
        """Return the wire of a row, both ends of it together.

            2 [sum l + sqrt((2 t + (2 pi n - 2 beta) r)^2 + p^2)]

        Args:
            beads: sum of l [mm].
            pitch: p, of rows [mm].

        Returns:
            Length [mm]; for a full row of very fine wire 2 (w + pi n D).

        Raises:
            ValueError: beads up to the leg.

        Example:
            >>> leg = Leg(12.5, 1.2, 0.3, 3)
            >>> round(leg.row_takes(8.0, 4.0), 2), round(leg.row_takes(12.0, 4.0), 2)
            (52.11, 53.03)

        Source: helix and tangents; published.
        """
        to, beta = self.leaves(beads)
        round_it = 2 * to + (2 * math.pi * self.turns - 2 * beta) * self.radius
        return 2 * (beads + math.hypot(round_it, pitch))

    def start_takes(self, wraps: int) -> float:
        """Return the wire of crossed wraps round both legs, with which the work begins.

            m sqrt(X^2 + (2 d)^2), X a crossed belt

        Args:
            wraps: m.

        Returns:
            Length [mm].

        Example:
            >>> round(Leg(12.5, 1.2, 0.3, 3).start_takes(3), 2)
            96.85

        Source: crossed belt, Machinery's Handbook; published.
        """
        return wraps * math.hypot(crossed_belt(self.apart, self.radius), 2 * self.wire)

    def _goes_on(self, line: Array, beta: float, pitch: float) -> Array:
        """Return a line from row to row with the way along the leg shared out over it.

        It goes on evenly where the turns have room, else while it is outside the leg: so strands
        lie side by side outside, and square to the leg within.
        """
        run = np.linalg.norm(np.diff(line, axis=0), axis=1)
        total = float(run.sum())
        middle = (line[1:] + line[:-1]) / 2
        out = middle[:, 1] >= self.apart / 2 - 1e-9
        on_leg = np.hypot(middle[:, 1] - self.apart / 2, middle[:, 2]) < self.radius * 1.001
        outside = np.where(out & on_leg, run, 0.0)
        even = run / total
        share = outside / outside.sum()
        turn = 2 * math.pi * self.radius / total
        # From row to row: once round, and from the back of one row to the back of the next.
        lead = (total - math.pi * self.radius * (2 * self.turns - 1)) / 2
        first = (math.pi * self.radius + 2 * lead) / total
        blend = 0.0
        for evenly in (turn, first):
            if evenly * pitch < self.wire and pitch / self.turns > evenly * pitch:
                need = (self.wire - evenly * pitch) / (pitch / self.turns - evenly * pitch)
                blend = max(blend, min(1.0, need))
        goes = (1 - blend) * even + blend * share
        x = np.concatenate([[0.0], np.cumsum(goes)]) * pitch
        return np.column_stack([x, line[:, 1:]])

    def from_row_to_row(self, beads: float, after: float, pitch: float) -> Array:
        """Return the line of a wire from the hole of a row round the leg into the next one.

        Args:
            beads: sum of l of the row [mm].
            after: of the next row [mm].
            pitch: of rows [mm].

        Source: plain geometry.
        """
        (_, beta), (_, beta_after) = self.leaves(beads), self.leaves(after)
        y, h = self.apart / 2, self.wire / 2
        turn = (beta - math.pi / 2, 3 * math.pi / 2 - beta_after + 2 * math.pi * (self.turns - 1))
        line = joined(
            straight((0, beads / 2, h)),
            round_bar((y, 0.0), self.radius, turn, (0, 0)),
            straight((0, after / 2, -h)),
        )
        return self._goes_on(line, beta, pitch)

    def cell(self, rows: Sequence[float], pitch: float, balls: Sequence[Ball] = ()) -> Cell:
        """Return what repeats: as many rows as differ by turns.

        Args:
            rows: sum of l of each [mm]; an odd number of them is laid twice, so that both wire
                ends lie in the next cell as they do in this one.
            pitch: of rows [mm].
            balls: the beads, at their places.
        """
        strands: list[Strand] = []
        for n, beads in enumerate(rows):
            x, half, h = n * pitch, beads / 2, self.wire / 2
            # By turns the wire that comes from the left lies over the other.
            through = straight((x, -half, h), (x, half, h))
            right = moved(self.from_row_to_row(beads, rows[(n + 1) % len(rows)], pitch), x)
            there = joined(through, right)
            strands += [
                Strand("working", self.wire, there, row=n),
                Strand("working", self.wire, turned_over(there), row=n),
            ]
        long = len(rows) * pitch
        places = [(-self.apart / 2, 0.0), (self.apart / 2, 0.0)]
        legs = bars_of(places, self.bar, long)
        return Cell(long, len(rows), (*legs, *strands), tuple(balls))


def nested_pitch(across: float, along: float) -> float:
    """Return the pitch of rows of round beads that lie in each other's gaps, sqrt(b^2 - l^2 / 4).

    Args:
        across: b [mm].
        along: l [mm].

    Returns:
        Pitch [mm].

    Example:
        >>> round(nested_pitch(4.0, 4.0), 2)
        3.46

    Source: plain geometry.
    """
    return math.sqrt(across**2 - along**2 / 4)


class Channel(Interlaced, Beaded):
    """Rows of beads between the legs of a bowed frame; each row on both wire ends crossing.

    ``across`` beads in a row, ``by_turns`` in every other one (0 for all alike), or a list of beads
    for every row. ``nested`` rows lie in each other's gaps. A width that is left blank is as wide
    as the beads need; turns that are left at 0 are as many as cover the leg.
    """

    kind: Literal["channel"] = "channel"
    first: ClassVar[tuple[str, ...]] = ("bead", "rows", "across", "row_turns", "wire")
    bead: Length = like(Beaded, "bead", 4.0)
    across: int = choice(3, 1, 20)
    by_turns: int = choice(0, 0, 20)
    nested: bool = choice(False, when=("by_turns",))
    between_legs: OptionalLength = choice(None, 1, 150)
    row_turns: int = choice(0, 0, 60)
    bow: Literal["round", "square"] = "round"
    corner: Length = choice(1.0, 0.3, 20, when=("bow", "square"))
    bow_turns: int = choice(0, 0, 6)
    start_wraps: int = choice(3, 0, 12)
    end_wraps: int = choice(0, 0, 12)

    def _rows(self) -> tuple[BeadRow, ...]:
        """Return the rows that differ, by turns."""
        first = self.beads_of(self.across)
        if not self.by_turns or self.row:
            return (first,)
        return (first, self.beads_of(self.by_turns))

    def _wide(self, rows: Sequence[BeadRow], wire: float) -> float:
        """Return the width between the legs. Raises Refusal where a row does not fit between
        them."""
        longest = max(row.length for row in rows)
        least = longest + wire
        if self.between_legs is None:
            return least + PLAY_MM
        if self.between_legs < least - 1e-9:
            each = min(one.along for row in rows for one in row.beads)
            count = math.floor((self.between_legs - wire) / each + 1e-9)
            beads = max(row.count for row in rows)
            told: dict[str, Any] = {
                "got": Mm(longest),
                "field": "between_legs",
                "least": least,
                "count": count,
            }
            # As beads are sold, in half millimetres.
            steps = math.floor((self.between_legs - wire) / beads / BEAD_STEP_MM + 1e-9)
            if steps < 1:
                raise Refusal("row_far_too_wide", **told)
            raise Refusal("row_wide", **told, beads=beads, each=steps * BEAD_STEP_MM)
        return self.between_legs

    def _pitch(self, rows: Sequence[BeadRow], wires: Palette) -> tuple[float, int]:
        """Return the pitch of rows [mm], and the turns between two of them."""
        wire = self.working(wires).d
        across = max(row.widest for row in rows)
        if self.nested and len(rows) > 1:
            along = max(one.along for row in rows for one in row.beads)
            across = nested_pitch(across, min(along, 1.9 * across))
        turns = self.row_turns or max(1, round(across / wire) - 1)
        return self.pitched(max((turns + 1) * wire, across), wires), turns

    def _balls(self, rows: Sequence[BeadRow], pitch: float) -> tuple[Ball, ...]:
        found = []
        for n, row in enumerate(rows):
            y = -row.length / 2
            for one in row.each:
                at = (n * pitch, y + one.along / 2, 0.0)
                found.append(Ball(at, one.bead, one.along, colour=one.colour, row=n))
                y += one.along
        return tuple(found)

    def body(self, wires: Palette) -> Body:
        """Return the channel. Raises Refusal for rows that don't fit between the legs, and for a
        square bow narrower than its corners."""
        bar, working = wires.of("body"), self.working(wires)
        rows = self._rows()
        every = (one for row in rows for one in row.beads)
        passes(every, working.d, 2, "row" if self.row else "hole")
        width = self._wide(rows, working.d)
        if self.bow == "square" and width < 2 * self.corner:
            raise Refusal("corner_wide", got=Mm(self.corner), field="corner", most=width / 2)
        pitch, turns = self._pitch(rows, wires)
        leg = Leg(width, bar.d, working.d, turns)
        started = 2 * self.start_wraps * working.d
        bound = 2 * self.end_wraps * working.d
        long = bound + self.rows * pitch + started
        corner = self.corner if self.bow == "square" else None
        frame = Frame(bar, self.pin, width, corner, self.bow_turns)
        use, loop = frame.use("channel_frame", long), frame.loop
        start_at = loop.reach + bound + self.rows * pitch
        wraps = self._wraps(Repeat(2, leg.apart, bar.d, working.d), working, loop.reach, start_at)
        lengths = [row.length for row in rows]
        worked = Takes(
            "channel_working",
            tuple(leg.row_takes(beads, pitch) for beads in lengths),
            start=leg.start_takes(self.start_wraps),
            end=leg.start_takes(self.end_wraps),
        )
        return Body(
            size=BodySize(
                pitch=pitch,
                width=width + 2 * bar.d + 2 * working.d,
                thickness=max(max(row.widest for row in rows), bar.d + 2 * working.d),
                before=loop.reach + bound,
                first=pitch / 2,
                behind=started + frame.behind,
                pegs=(-leg.apart / 2, leg.apart / 2),
                ends=frame.ends,
            ),
            wires=BodyWires(
                working=working,
                worked=(worked,),
                core=bar.d,
                frame=(use,),
                lengthwise=(Lengthwise(bar, 2),),
                beads=tuple(row.beads for row in rows),
            ),
            look=Look(
                cell=lambda: leg.cell(lengths, pitch, self._balls(rows, pitch)),
                frame_strokes=_between(wraps, drawn(use)),
            ),
            work=self._work(frame, max(lengths), turns),
            holds=(eye_hold(bar, self.pin),),
            advice=(
                room_beside_beads(width - working.d - max(lengths), _shortest(rows)),
                bar_shows(pitch - (turns + 1) * working.d),
                thin_bar(bar.d, working.d),
            ),
        )

    def _wraps(
        self, belts: Repeat, working: Wire, end_at: float, start_at: float
    ) -> list[tuple[tuple[Stroke, ...], tuple[Stroke, ...]]]:
        """Return how the wraps that bind the legs look, behind and before them."""
        crossed = face(belts.cell(), working.metal.colour)
        places = ((self.end_wraps, end_at), (self.start_wraps, start_at))
        return [crossed.along(count, at) for count, at in places]

    def _work(self, frame: Frame, longest: float, turns: float) -> Work:
        """Return its steps."""
        return Work(
            begin=self._begin(frame, longest),
            row_steps=(
                part_step("channel_row", check=True, rows=self.rows, turns=turns),
                part_step("channel_turns", check=True, turns=turns),
            ),
            finish=self._finish(),
            row_minutes=2.0 + 0.2 * turns,
        )

    def _begin(self, frame: Frame, longest: float) -> tuple[Step, ...]:
        """Return the steps before its rows: the bow, a row laid in for a try, the first wraps."""
        wraps = part_step("channel_start", check=True, wraps=self.start_wraps)
        return (
            frame.step,
            part_step("channel_width", check=True, width=frame.width, beads=longest),
            *((wraps,) if self.start_wraps else ()),
        )

    def _finish(self) -> tuple[Step, ...]:
        """Return the steps behind its rows."""
        bind = part_step("channel_bind", check=True, wraps=self.end_wraps)
        return (
            *((bind,) if self.end_wraps else ()),
            part_step("channel_end", cautions=("eyes", "ends")),
            part_step("channel_eyes", cautions=("ends",), check=True, pin=self.pin),
        )


def _between(
    wraps: Sequence[tuple[Sequence[Stroke], Sequence[Stroke]]], frame: Sequence[Stroke]
) -> tuple[Stroke, ...]:
    """Return a frame as it is drawn between the halves of its wraps that lie behind and before."""
    return (
        *(stroke for behind, _ in wraps for stroke in behind),
        *frame,
        *(stroke for _, before in wraps for stroke in before),
    )


def _shortest(rows: Sequence[BeadRow]) -> float:
    """Return the length of the shortest bead along its row [mm]."""
    return min(one.along for row in rows for one in row.beads)
