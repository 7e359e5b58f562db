"""Draws every part and closure as the product draws it, into docs/parts.

``python tools/part_pictures.py [--out FOLDER]``
"""

import argparse
from collections.abc import Iterator, Sequence
from pathlib import Path

from jamreel.core.closures import registered_closures
from jamreel.core.forming.chosen import chosen
from jamreel.core.forming.palette import Palette
from jamreel.core.parts import registered_parts
from jamreel.core.parts.pictures import shifted
from jamreel.core.values import Stroke
from jamreel.core.wire.gauges import WireSize
from jamreel.core.wire.metals import WireChoice
from jamreel.core.words import say
from jamreel.workshop.papers.making_card import TONES

ROOT = Path(__file__).resolve().parents[1]
SAMPLE = chosen(WireChoice(size=WireSize(diameter_mm=0.9)))
# Ten times full size, with a little air.
SCALE, AIR = 10.0, 1.2


def pictures() -> Iterator[tuple[str, str, str, Sequence[Stroke]]]:
    """Yield file name, name, help and strokes of every part, then of every closure fastened."""
    for kind, part in registered_parts().items():
        made = part.model_validate({}).make(Palette(SAMPLE))
        yield f"part-{kind}", say(f"shelf.{kind}.name"), say(f"shelf.{kind}.help"), made.strokes
    for kind, closure in registered_closures().items():
        fastened = closure.model_validate({}).make(Palette(SAMPLE))
        left = shifted(fastened.holding.strokes, -fastened.holding.length)
        strokes = [*fastened.receiving.strokes, *left]
        if strokes:
            yield (
                f"closure-{kind}",
                say(f"closure.{kind}.name"),
                say(f"closure.{kind}.help"),
                strokes,
            )


def as_svg(strokes: Sequence[Stroke], title: str) -> str:
    """Return strokes as an SVG picture."""
    strokes = [one for stroke in strokes for one in stroke.copies]
    xs = [x + side * s.width_mm / 2 for s in strokes for x, _ in s.points for side in (-1, 1)]
    ys = [y + side * s.width_mm / 2 for s in strokes for _, y in s.points for side in (-1, 1)]
    left, top = min(xs) - AIR, max(ys) + AIR
    wide, high = max(xs) - min(xs) + 2 * AIR, max(ys) - min(ys) + 2 * AIR
    rows = [line for s in strokes for line in _paths(s, left, top)]
    return "\n".join(
        [
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide * SCALE:.0f}" '
            f'height="{high * SCALE:.0f}" viewBox="0 0 {wide:.2f} {high:.2f}">',
            f"<title>{title}</title>",
            *rows,
            "</svg>",
            "",
        ]
    )


def _paths(stroke: Stroke, left: float, top: float) -> Iterator[str]:
    points = "L".join(f"{x - left:.2f} {top - y:.2f}" for x, y in stroke.points)
    path = f"M{points}{'Z' if stroke.closed else ''}"
    tone = TONES.get(stroke.tone, SAMPLE.metal.colour)
    if stroke.width_mm == 0:
        yield f'<path d="{path}" fill="{tone}" stroke="#0F222B" stroke-width="0.1"/>'
        return
    for colour, width in (("#0F222B", stroke.width_mm + 0.2), (tone, stroke.width_mm)):
        yield f'<path d="{path}" fill="none" stroke="{colour}" stroke-width="{width:.2f}"/>'


def main() -> None:
    """Write all pictures and the page that shows them."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--out", type=Path, default=ROOT / "docs" / "parts")
    out = parser.parse_args().out
    out.mkdir(parents=True, exist_ok=True)
    page = [
        "# Parts and closures",
        "",
        "Drawn by `tools/part_pictures.py` from their geometry.",
        "",
    ]
    for name, title, text, strokes in pictures():
        (out / f"{name}.svg").write_text(as_svg(strokes, title))
        page += [f"## {title}", "", text, "", f"![{title}]({name}.svg)", ""]
    (out / "README.md").write_text("\n".join(page))


if __name__ == "__main__":
    main()
