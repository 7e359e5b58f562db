"""Photographs of finished pieces: read with care, drawn anew, and nothing kept of the file."""

from typing import NoReturn

from django.db import transaction

from jamreel.core.errors import Refusal
from jamreel.workshop import clock
from jamreel.workshop.apart import Spent, apart
from jamreel.workshop.models import LogEntry, Photo, Workshop
from jamreel.workshop.ownership import row, rows
from jamreel.workshop.pictures import TooLarge, Unreadable, drawn_anew
from jamreel.workshop.planning import refuse
from jamreel.workshop.quotas import count_bytes, room_for_bytes
from jamreel.workshop.slots import alone
from jamreel.workshop.turns import Busy

MOST_PHOTOS = 6
MOST_BYTES = 8 * 1024 * 1024
# What drawing one anew may take in its own process [s of processor, MB].
SECONDS, MEGABYTES = 8.0, 400


def add_photo(workshop: Workshop, entry_id: int, file: bytes) -> Photo:
    """Keep a photograph with an entry of the log.

    Args:
        workshop: whose log.
        entry_id: of which piece.
        file: JPEG, PNG or WebP, up to 8 MB.

    Raises:
        BriefRefused: no such picture, one too large, one too many, or no room for it.
        Busy: another one is being drawn anew for this bench.
    """
    entry = row(LogEntry, workshop, entry_id)
    if len(file) > MOST_BYTES:
        got = f"{len(file) / 1024 / 1024:.1f} MB"
        refuse(workshop, Refusal("photo_large", got=got, field="photo"))
    _not_too_many(entry)
    picture, (width, height) = _drawn(workshop, file)
    with transaction.atomic():
        # Others may have added theirs meanwhile: counted again where nobody else writes.
        _not_too_many(entry)
        room_for_bytes(workshop, len(picture))
        count_bytes(workshop, len(picture))
        return Photo.objects.create(
            workshop=workshop,
            entry=entry,
            picture=picture,
            width=width,
            height=height,
            at=clock.now(),
        )


def _not_too_many(entry: LogEntry) -> None:
    if entry.photos.count() >= MOST_PHOTOS:
        many = Refusal("photo_many", got=MOST_PHOTOS + 1, field="photo", most=MOST_PHOTOS)
        refuse(entry.workshop, many)


def _drawn(workshop: Workshop, file: bytes) -> tuple[bytes, tuple[int, int]]:
    """Return a picture drawn anew, one at a time for a bench."""

    def no(key: str, got: str) -> NoReturn:
        refuse(workshop, Refusal(key, got=got, field="photo"))

    with alone("photo", workshop.pk) as mine:
        if not mine:
            raise Busy
        try:
            return apart(drawn_anew, file, seconds=SECONDS, megabytes=MEGABYTES)
        except Unreadable:
            no("photo_none", f"{len(file)} bytes")
        except TooLarge as large:
            no("photo_dots", str(large))
        except Spent:
            no("photo_dots", f"{len(file)} bytes")


def picture_of(workshop: Workshop, photo_id: int) -> bytes:
    """Return a photograph as JPEG. Raises Http404 for another bench's."""
    return bytes(row(Photo, workshop, photo_id).picture)


def drop_photo(workshop: Workshop, photo_id: int) -> None:
    """Take a photograph out of the log."""
    photo = row(Photo, workshop, photo_id)
    with transaction.atomic():
        if rows(Photo, workshop).filter(pk=photo_id).delete()[0]:
            count_bytes(workshop, -len(photo.picture))
