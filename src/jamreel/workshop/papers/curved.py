"""Lines of a drawing on paper: smooth curves through their points, as on the screen."""

from collections.abc import Callable

from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.pdfgen.pathobject import PDFPathObject

from jamreel.core.path.lines import curves
from jamreel.core.values import Point, Stroke

# What lies so little off a line is straight [mm2].
STRAIGHT = 1e-9


def drawn_through(
    canvas: Canvas, stroke: Stroke, place: Callable[[float, float], tuple[float, float]]
) -> PDFPathObject:
    """Return the path of a line on a page.

    Args:
        canvas: of the page.
        stroke: the line, in mm of its drawing.
        place: where a point of the drawing comes to lie on the page [mm].
    """

    def at(point: tuple[float, float]) -> tuple[float, float]:
        x, y = place(*point)
        return x * mm, y * mm

    path = canvas.beginPath()
    if not stroke.points:
        return path
    path.moveTo(*at(stroke.points[0]))
    begin = stroke.points[0]
    for out, into, end in curves(stroke.points, stroke.closed):
        if _off(begin, out, end) < STRAIGHT and _off(begin, into, end) < STRAIGHT:
            path.lineTo(*at(end))
        else:
            path.curveTo(*at(out), *at(into), *at(end))
        begin = end
    if stroke.closed:
        path.close()
    return path


def _off(a: Point, one: Point, b: Point) -> float:
    """Return twice the triangle of two points and one beside the line through them [mm2]."""
    return abs((b[0] - a[0]) * (one[1] - a[1]) - (b[1] - a[1]) * (one[0] - a[0]))
