"""The archive: what was put away, brought back, deleted for good."""

from datetime import datetime

from django.http import HttpRequest
from ninja import Router, Schema, Status
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.workshop import archive
from jamreel.workshop.archive import What

router = Router(tags=["archive"])


class Thing(Schema):
    """Something of a bench, by its kind and number."""

    what: What
    id: int = Field(strict=True, ge=1, le=2**31)


class AwayView(Schema):
    """Something in the archive, and what goes with it when it is deleted for good."""

    what: What
    id: int
    name: str
    put_away_at: datetime
    goes: str


class Archive(Schema):
    """All that was put away, the last first."""

    things: list[AwayView]


def _view(request: HttpRequest) -> Archive:
    return Archive(things=[AwayView(**vars(one)) for one in archive.listed(bench_of(request))])


@router.get("/archive", response={200: Archive, **EVERY_ERROR})
def read(request: HttpRequest) -> Archive:
    """Return what is in the archive."""
    return _view(request)


@router.post("/archive", response={204: None, **EVERY_ERROR})
def put_away(request: HttpRequest, payload: Thing) -> Status[None]:
    """Put something away: it is out of sight, nothing of it is deleted."""
    archive.put_away(bench_of(request), payload.what, payload.id)
    return Status(204, None)


@router.post("/archive/back", response={200: Archive, **EVERY_ERROR})
def bring_back(request: HttpRequest, payload: Thing) -> Archive:
    """Bring something back."""
    archive.bring_back(bench_of(request), payload.what, payload.id)
    return _view(request)


@router.post("/archive/delete", response={200: Archive, **EVERY_ERROR})
def delete(request: HttpRequest, payload: Thing) -> Archive:
    """Delete something for good that is in the archive."""
    archive.delete_for_good(bench_of(request), payload.what, payload.id)
    return _view(request)
