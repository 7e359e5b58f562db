"""A picture drawn anew: read with care, upright, small, and nothing kept beside its dots.

Without Django: it runs in a process of its own (``apart``).
"""

import io
import warnings

from PIL import Image, ImageOps

# The longer side as it is kept.
MOST_SIDE = 1600
# A JPEG is read at a half, a quarter or an eighth, so that its dots may be many; anything else is
# unpacked whole, so many bytes of it at most.
MOST_DOTS, MOST_UNPACKED = 200_000_000, 24_000_000
READ = ("JPEG", "PNG", "WEBP")
QUALITY = 82
# Modes that can be made smaller smoothly as they are.
_SMOOTH = ("L", "LA", "RGB", "RGBA", "CMYK", "YCbCr")
# Modes of which a dot takes more than a byte for each of its bands.
_WIDE = {"I": 4, "F": 4, "I;16": 2, "I;16B": 2, "I;16L": 2}


class Unreadable(Exception):
    """No picture, or none that is read here."""


class TooLarge(Exception):
    """More than is unpacked; says how large."""


def drawn_anew(file: bytes) -> tuple[bytes, tuple[int, int]]:
    """Return a picture as JPEG without anything beside its dots, turned upright, and its size.

    Args:
        file: as it was sent.

    Raises:
        Unreadable: no picture, or none that is read here.
        TooLarge: a JPEG of more than ``MOST_DOTS``, or another that takes more than
            ``MOST_UNPACKED`` bytes.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            # How large a picture may be is looked at here, and by what it takes.
            Image.MAX_IMAGE_PIXELS = None
            found = Image.open(io.BytesIO(file), formats=READ)
            _measured(found)
            # A large JPEG is read small from the start.
            found.draft("RGB", (MOST_SIDE, MOST_SIDE))
            # Small before anything else is done to it: every other step copies it.
            small = found if found.mode in _SMOOTH else _on_white(found)
            small.thumbnail((MOST_SIDE, MOST_SIDE), Image.Resampling.LANCZOS)
            flat = _on_white(ImageOps.exif_transpose(small))
    except (OSError, ValueError, SyntaxError):
        raise Unreadable from None
    # A new picture has nothing beside its dots.
    bare = Image.new("RGB", flat.size)
    bare.paste(flat)
    out = io.BytesIO()
    bare.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue(), bare.size


def _measured(found: Image.Image) -> None:
    """Refuse what would take too much to unpack. Raises TooLarge."""
    dots = found.width * found.height
    if found.format == "JPEG":
        if dots > MOST_DOTS:
            raise TooLarge(f"{found.width} × {found.height}")
    elif dots * len(found.getbands()) * _WIDE.get(found.mode, 1) > MOST_UNPACKED:
        raise TooLarge(f"{found.width} × {found.height}")


def _on_white(found: Image.Image) -> Image.Image:
    if found.mode in ("RGBA", "LA", "PA") or "transparency" in found.info:
        ground = Image.new("RGB", found.size, "white")
        clear = found.convert("RGBA")
        ground.paste(clear, mask=clear.getchannel("A"))
        return ground
    return found.convert("RGB")
