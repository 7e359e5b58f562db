"""The oval former as a file to cut or to print from: SVG and DXF, true to scale in millimetres."""

from __future__ import annotations

import io
from typing import TYPE_CHECKING
from xml.etree import ElementTree

from jamreel.core.forming.oval import OvalFormer
from jamreel.core.late import late
from jamreel.core.shop import Shop
from jamreel.core.values import Point
from jamreel.core.words import say, speaking

if TYPE_CHECKING:
    import ezdxf
    from ezdxf.document import Drawing
else:
    ezdxf = late("ezdxf")

FORMER_TYPES = {"svg": "image/svg+xml", "dxf": "image/vnd.dxf"}
# Beside the former lies a bar to check the scale by, so long and so far below it [mm].
BAR_MM, BELOW_MM, EDGE_MM = 100.0, 12.0, 5.0
# DXF counts its units: 4 is millimetres.
MILLIMETRES = 4
CUT, WIRE, TARGET, BAR = "CUT", "WIRE", "TARGET", "CHECK_BAR"


def _bar(oval: OvalFormer) -> tuple[Point, Point]:
    """Return the ends of the check bar, below all that is drawn."""
    low = min(y for line in (oval.block, oval.bent, oval.target) for _, y in line) - BELOW_MM
    return (-BAR_MM / 2, low), (BAR_MM / 2, low)


def former_svg(oval: OvalFormer, shop: Shop) -> bytes:
    """Return a former as SVG: the edge to cut, the wire on it, what it springs to, a check bar.

    Args:
        oval: the former.
        shop: gives the language of its words.

    Source: SVG 2, W3C; a user unit is a millimetre, by width, height and viewBox.
    """
    bar = _bar(oval)
    every = [point for line in (oval.block, oval.bent, oval.target, bar) for point in line]
    edge = oval.wire_mm + EDGE_MM
    left, right = min(x for x, _ in every) - edge, max(x for x, _ in every) + edge
    low, top = min(y for _, y in every) - edge, max(y for _, y in every) + edge
    wide, high = right - left, top - low
    svg = ElementTree.Element(
        "svg",
        xmlns="http://www.w3.org/2000/svg",
        width=f"{wide:.3f}mm",
        height=f"{high:.3f}mm",
        viewBox=f"{left:.3f} {-top:.3f} {wide:.3f} {high:.3f}",
    )
    with speaking(shop.language, shop.unit):
        ElementTree.SubElement(svg, "title").text = say("paper.former")
    lines: list[tuple[str, tuple[Point, ...], bool, dict[str, str]]] = [
        (WIRE, oval.bent, False, {"stroke": "#c9d3ce", "stroke-width": f"{oval.wire_mm:.3f}"}),
        (TARGET, oval.target, False, {"stroke": "#8a9a94", "stroke-dasharray": "2 1.5"}),
        (CUT, oval.block, True, {"stroke": "#0f222b"}),
        (BAR, bar, False, {"stroke": "#0f222b"}),
    ]
    for name, points, closed, look in lines:
        path = "M" + "L".join(f"{x:.3f} {-y:.3f}" for x, y in points) + ("Z" if closed else "")
        style = {"fill": "none", "stroke-width": "0.2", **look}
        ElementTree.SubElement(svg, "path", {"id": name.lower(), "d": path, **style})
    return bytes(ElementTree.tostring(svg, encoding="utf-8", xml_declaration=True))


def former_dxf(oval: OvalFormer) -> bytes:
    """Return a former as DXF, each kind of line on a layer of its own.

    Args:
        oval: the former.

    Source: written by ezdxf; units are millimetres.
    """
    drawing: Drawing = ezdxf.new("R2010")  # type: ignore[attr-defined]
    drawing.units = MILLIMETRES
    space = drawing.modelspace()
    for name, points, closed in (
        (CUT, oval.block, True),
        (WIRE, oval.bent, False),
        (TARGET, oval.target, False),
    ):
        drawing.layers.add(name)
        space.add_lwpolyline(list(points), close=closed, dxfattribs={"layer": name})
    drawing.layers.add(BAR)
    start, end = _bar(oval)
    space.add_line(start, end, dxfattribs={"layer": BAR})
    out = io.StringIO()
    drawing.write(out)
    return out.getvalue().encode("utf-8")
