"""Coil mesh: coils of both hands side by side on rods that stay, flat or closed to a tube."""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar, Literal

import numpy as np

from jamreel.core.bench.steps import Step
from jamreel.core.choices import choice
from jamreel.core.errors import Refusal
from jamreel.core.forming.band import Lengthwise
from jamreel.core.forming.chosen import Wire
from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import Interlaced, at_height
from jamreel.core.interlace.body import Body, BodySize, BodyWires, Look, Takes, Work
from jamreel.core.interlace.cells import Cell, Strand
from jamreel.core.interlace.coil_mesh.geometry import LEAST_PITCH, Mesh
from jamreel.core.parts.base import WireUse, part_step
from jamreel.core.parts.drawn import drawn, laid
from jamreel.core.path.moves import Straight
from jamreel.core.units import Mm
from jamreel.core.values import Length, OptionalLength

# Coils are wound longer by so much at each end, and rods stand over [mm]; both go into the cap or
# are cut there. Common practice.
OVER_MM, ROD_MORE_MM = 8.0, 2.0
# Coils are pushed together to so many wires from turn to turn; common practice.
USUAL_PITCH = 2.25


@dataclass(frozen=True)
class Shaped:
    """A mesh as it is in the end: flat, or closed to a tube that is pressed, or that stays round
    and may be twisted once in so much length [mm], 0 for not at all."""

    mesh: Mesh
    closed: Literal["flat", "pressed", "round"]
    twist: float = 0.0

    @property
    def _apart(self) -> float:
        return self.mesh.wide - self.mesh.overlap

    @property
    def radius(self) -> float:
        """Of the circle on which the middles of a round tube's coils lie [mm]."""
        return self._apart / (2 * math.sin(math.pi / self.mesh.coils))

    @cached_property
    def width(self) -> float:
        """Over all [mm]: pressed, half the coils and one overlap wide."""
        m = self.mesh
        if self.closed == "flat":
            return m.width
        if self.closed == "pressed":
            half = (m.coils / 2 - 1) * self._apart + m.wide + m.wire
            return half + m.overlap
        return 2 * self.radius + m.thickness

    @property
    def thickness(self) -> float:
        """Over all [mm]: a tube that is pressed is two coils thick."""
        if self.closed == "pressed":
            return 2 * self.mesh.thickness
        return self.mesh.thickness if self.closed == "flat" else self.width

    @property
    def rods(self) -> int:
        """How many: one between every two coils, and one that closes a tube."""
        return self.mesh.coils - 1 + (self.closed != "flat")

    @property
    def pitch(self) -> float:
        """From turn to turn along the piece [mm]: twisted coils lean, and are longer than it."""
        if not self.twist or self.closed != "round":
            return self.mesh.pitch
        return self.mesh.pitch / math.hypot(1, 2 * math.pi * self.radius / self.twist)

    def cell(self) -> Cell:
        """Return one turn of every coil."""
        flat = self.mesh.cell()
        if self.closed == "flat":
            return flat
        placed = self._folded if self.closed == "pressed" else self._rolled
        return Cell(flat.advance, 1, tuple(map(placed, flat.strands)))

    def _folded(self, one: Strand) -> Strand:
        """Return a strand of the band where the pressed tube has it: in front, or behind."""
        y = float(one.line[:, 1].mean())
        half = self.mesh.coils / 2 * self._apart
        behind = y > 1e-9
        across = (half / 2 - y) if behind else (y + half / 2)
        shift = [0.0, across - y, (-0.5 if behind else 0.5) * self.mesh.thickness]
        return Strand(one.role, one.d, one.line + np.array(shift))

    def _rolled(self, one: Strand) -> Strand:
        """Return a strand of the band where the round tube has it."""
        y = float(one.line[:, 1].mean())
        angle = 2 * math.pi * (y / self._apart) / self.mesh.coils
        x, across, high = one.line.T
        across = across - y
        out = high + self.radius
        line = np.column_stack(
            [
                x,
                across * math.cos(angle) + out * math.sin(angle),
                out * math.cos(angle) - across * math.sin(angle),
            ]
        )
        return Strand(one.role, one.d, line)


class CoilMesh(Interlaced):
    """Coils wound to both hands by turns, laid into each other on rods.

    Rows are the turns of each coil. ``pressed_to`` is the thickness of one layer, blank for as thin
    as wires and rods let it; a ``turn_pitch`` that is left blank is as near as coils mesh.
    """

    kind: Literal["coil_mesh"] = "coil_mesh"
    first: ClassVar[tuple[str, ...]] = ("rows", "coils", "mandrel", "turn_pitch", "wire")
    coils: int = choice(6, 2, 24)
    mandrel: Length = choice(5.0, 1.5, 30)
    rod_wire: Length = choice(0.8, 0.3, 6)
    turn_pitch: OptionalLength = choice(None, 0.5, 20)
    closed: Literal["flat", "pressed", "round"] = "flat"
    pressed: bool = choice(True, when=("closed", "flat"))
    pressed_to: OptionalLength = choice(None, 0.6, 30, when=("closed", "flat", "pressed"))
    twist: Length = choice(0.0, 0, 1000, when=("closed", "round"))

    def working(self, wires: Palette) -> Wire:
        """Return the wire of its coils: its own, else the body's."""
        return wires.of("body", self.wire)

    @property
    def _is_pressed(self) -> bool:
        return self.closed == "pressed" or (self.closed == "flat" and self.pressed)

    def shaped(self, wires: Palette) -> Shaped:
        """Return the mesh as it is in the end.

        Raises:
            Refusal: turns too near to mesh, coils pressed thinner than their wire and rods are, and
                rods that don't go into the lens between two coils.
        """
        d = self.working(wires).d
        pitch = self.pitched(self.turn_pitch or USUAL_PITCH * d, wires)
        if pitch < LEAST_PITCH * d - 1e-9:
            field = "sample_rows" if self.sample else "turn_pitch"
            raise Refusal("coils_near", got=Mm(pitch), field=field, least=LEAST_PITCH * d)
        least = 2 * d + self.rod_wire
        pressed = (self.pressed_to or least) if self._is_pressed else None
        if pressed is not None and pressed < least - 1e-9:
            raise Refusal("pressed_thin", got=Mm(pressed), field="pressed_to", least=least)
        if pressed is not None and pressed > self.mandrel + 2 * d:
            most = self.mandrel + 2 * d
            raise Refusal("pressed_thick", got=Mm(pressed), field="pressed_to", most=most)
        mesh = Mesh(self.coils, d, self.mandrel, pitch, self.rod_wire, pressed)
        if mesh.overlap > mesh.wide / 2:
            most = mesh.wide / 2 - d
            raise Refusal("rods_thick", got=Mm(self.rod_wire), field="rod_wire", most=most)
        if self.closed != "flat" and (self.coils < 4 or self.coils % 2):
            raise Refusal("coils_even", got=self.coils, field="coils")
        return Shaped(mesh, self.closed, self.twist)

    def body(self, wires: Palette) -> Body:
        """Return the mesh. Raises Refusal like ``shaped``."""
        w, shaped = self.working(wires), self.shaped(wires)
        mesh, rod = shaped.mesh, wires.of("body").of_diameter(self.rod_wire)
        turned = math.pi * mesh.mean / mesh.pitch
        in_cap = wires.in_cap_or(OVER_MM)
        over, bare = in_cap * math.hypot(1, turned), in_cap + ROD_MORE_MM
        long = self.rows * shaped.pitch
        use = laid(
            WireUse(
                "mesh_rod",
                rod,
                (
                    ("tail_left", (Straight(length=bare),)),
                    # Twisted with the tube they lean, too, and are longer than it.
                    ("body", (Straight(length=self.rows * mesh.pitch),)),
                    ("tail_right", (Straight(length=bare),)),
                ),
                quantity=shaped.rods,
            ),
            middle=long / 2,
        )
        rods = sorted(
            {round(float(one.line[0, 1]), 3) for one in shaped.cell().strands if one.role == "bar"}
        )
        return Body(
            size=BodySize(
                pitch=shaped.pitch,
                width=shaped.width,
                thickness=shaped.thickness,
                before=0.0,
                behind=0.0,
                ends=None,
            ),
            wires=BodyWires(
                working=w,
                worked=(
                    Takes(
                        "mesh_coil",
                        (mesh.turn,),
                        mesh.coils,
                        whole=True,
                        fore=(("tail_start", over),),
                        aft=(("tail_finish", over),),
                    ),
                ),
                core=self.mandrel,
                # Pressed, it was annealed with its rods in.
                lengthwise=(Lengthwise(rod.softened if self._is_pressed else rod, shaped.rods),),
                frame=(use,),
            ),
            look=Look(
                cell=shaped.cell,
                frame_strokes=tuple(stroke for y in rods for stroke in drawn(at_height(use, y))),
            ),
            work=self._work(shaped, long),
        )

    def _work(self, shaped: Shaped, long: float) -> Work:
        """Return its steps."""
        mesh, tube = shaped.mesh, shaped.closed != "flat"
        return Work(
            begin=(
                part_step(
                    "mesh_coils",
                    cautions=("whip", "eyes"),
                    check=True,
                    coils=mesh.coils,
                    mandrel=self.mandrel,
                    turns=self.rows,
                    pitch=mesh.pitch,
                    right=mesh.coils - mesh.coils // 2,
                    left=mesh.coils // 2,
                ),
                part_step("mesh_anneal", cautions=("torch",)),
            ),
            row_steps=(
                part_step(
                    "mesh_rods", check=True, rods=mesh.coils - 1, coils=mesh.coils, width=mesh.width
                ),
            ),
            finish=(
                *((part_step("mesh_close", check=True),) if tube else ()),
                part_step("mesh_pack", check=True, pitch=shaped.pitch, finished=long),
                *self._pressing(shaped),
                part_step("mesh_cut", cautions=("eyes", "ends"), check=True),
            ),
            row_minutes=0.15 * mesh.coils,
        )

    def _pressing(self, shaped: Shaped) -> tuple[Step, ...]:
        if shaped.closed == "round":
            if not shaped.twist:
                return ()
            return (part_step("mesh_twist", check=True, twist=shaped.twist),)
        if not self._is_pressed:
            return ()
        return (
            part_step("mesh_anneal", name="mesh_anneal_again", cautions=("torch",)),
            part_step("mesh_press", check=True, thick=shaped.thickness, width=shaped.width),
        )
