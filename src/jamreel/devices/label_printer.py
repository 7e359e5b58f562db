"""A simulated label printer: each label is a picture in an outbox folder."""

import os
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from PIL import Image, ImageDraw, ImageFont

# A 50 x 25 mm label at 12 dots a millimetre.
WIDTH, HEIGHT = 600, 300
MARGIN = 24


# Nothing is written smaller than this [dots].
SMALLEST = 14


@dataclass(frozen=True)
class LabelPrinter:
    """Prints labels of a heading and some lines into ``outbox``, in the faces given."""

    outbox: Path
    bold: Path
    text: Path

    def prints(self, name: str, heading: str, lines: Sequence[str]) -> Path:
        """Return the picture of a label that was printed.

        Args:
            name: of the file, without its ending.
            heading: written large.
            lines: up to four.
        """
        self.outbox.mkdir(parents=True, exist_ok=True, mode=0o700)
        # A label's lines are one line each, whatever was typed.
        heading, lines = _one_line(heading), [_one_line(line) for line in lines]
        label = Image.new("1", (WIDTH, HEIGHT), 1)
        draw = ImageDraw.Draw(label)
        room = WIDTH - 2 * MARGIN
        font, heading = _fitting(self.bold, heading, 64, room)
        draw.text((MARGIN, 16), heading, font=font, fill=0)
        for i, line in enumerate(lines[:4]):
            font, line = _fitting(self.text, line, 38, room)
            draw.text((MARGIN, 106 + 44 * i), line, font=font, fill=0)
        path = self.outbox / f"{name}.png"
        with os.fdopen(os.open(path, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as file:
            label.save(file, "PNG")
        return path


def _one_line(text: str) -> str:
    return " ".join("".join(c if c.isprintable() else " " for c in text).split())


def _fitting(face: Path, words: str, size: int, room: int) -> tuple[ImageFont.FreeTypeFont, str]:
    """Return a face in the largest size up to ``size`` in which words fit the room, and the words,
    cut where even the smallest is too large."""
    font = ImageFont.truetype(str(face), size)
    while font.getlength(words) > room and size > SMALLEST:
        size -= 2
        font = ImageFont.truetype(str(face), size)
    while words and font.getlength(words) > room:
        words = f"{words[:-2]}…"
    return font, words
