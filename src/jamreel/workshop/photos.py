"""Photographs of finished pieces: read with care, drawn anew, and nothing kept of the file."""

import io
import warnings

from PIL import Image, ImageOps

from jamreel.core.errors import Refusal
from jamreel.workshop import clock
from jamreel.workshop.models import LogEntry, Photo, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.planning import refuse

MOST_PHOTOS = 6
MOST_BYTES = 8 * 1024 * 1024
# The longer side as it is kept.
MOST_SIDE = 1600
# More of a picture than this is not unpacked: 50 million dots take 200 MB.
MOST_DOTS = 50_000_000
READ = ("JPEG", "PNG", "WEBP")
QUALITY = 82


def add_photo(workshop: Workshop, entry_id: int, file: bytes) -> Photo:
    """Keep a photograph with an entry of the log.

    Args:
        workshop: whose log.
        entry_id: of which piece.
        file: JPEG, PNG or WebP, up to 8 MB.

    Raises:
        BriefRefused: no such picture, one too large, or one too many.
    """
    entry = row(LogEntry, workshop, entry_id)
    if len(file) > MOST_BYTES:
        got = f"{len(file) / 1024 / 1024:.1f} MB"
        refuse(workshop, Refusal("photo_large", got=got, field="photo"))
    if entry.photos.count() >= MOST_PHOTOS:
        refuse(
            workshop, Refusal("photo_many", got=MOST_PHOTOS + 1, field="photo", most=MOST_PHOTOS)
        )
    try:
        picture, (width, height) = drawn_anew(file)
    except _Unreadable:
        refuse(workshop, Refusal("photo_none", got=f"{len(file)} bytes", field="photo"))
    except _TooMany as many:
        refuse(workshop, Refusal("photo_dots", got=str(many), field="photo"))
    return Photo.objects.create(
        workshop=workshop,
        entry=entry,
        picture=picture,
        width=width,
        height=height,
        at=clock.now(),
    )


class _Unreadable(Exception):
    """No picture, or none that is read here."""


class _TooMany(Exception):
    """More dots than are unpacked."""


def drawn_anew(file: bytes) -> tuple[bytes, tuple[int, int]]:
    """Return a picture as JPEG without anything beside its dots, turned upright, and its size.

    Args:
        file: as it was sent.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            found = Image.open(io.BytesIO(file), formats=READ)
            if found.width * found.height > MOST_DOTS:
                raise _TooMany(f"{found.width} × {found.height}")
            # A large JPEG is read small from the start.
            found.draft("RGB", (2 * MOST_SIDE, 2 * MOST_SIDE))
            upright = ImageOps.exif_transpose(found)
            flat = _on_white(upright)
            flat.thumbnail((MOST_SIDE, MOST_SIDE), Image.Resampling.LANCZOS)
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        raise _Unreadable from None
    # A new picture has nothing beside its dots.
    bare = Image.new("RGB", flat.size)
    bare.paste(flat)
    out = io.BytesIO()
    bare.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue(), bare.size


def _on_white(found: Image.Image) -> Image.Image:
    if found.mode in ("RGBA", "LA", "PA") or "transparency" in found.info:
        ground = Image.new("RGB", found.size, "white")
        clear = found.convert("RGBA")
        ground.paste(clear, mask=clear.getchannel("A"))
        return ground
    return found.convert("RGB")


def picture_of(workshop: Workshop, photo_id: int) -> bytes:
    """Return a photograph as JPEG. Raises Http404 for another bench's."""
    return bytes(row(Photo, workshop, photo_id).picture)


def drop_photo(workshop: Workshop, photo_id: int) -> None:
    """Take a photograph out of the log."""
    row(Photo, workshop, photo_id)
    rows(Photo, workshop).filter(pk=photo_id).delete()
