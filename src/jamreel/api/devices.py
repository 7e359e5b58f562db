"""What the bench's instruments read, and what a size is called."""

from typing import Literal

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from jamreel.api.auth import bench_of
from jamreel.api.errors import EVERY_ERROR
from jamreel.api.texts import RowId, Typed
from jamreel.core.wire.sense import GaugeRow, Near, Through, gauge_chart, nearest_gauges, passes
from jamreel.devices.calliper import Calliper
from jamreel.devices.scale import Scale
from jamreel.workshop import stock as racks
from jamreel.workshop.models import Stock
from jamreel.workshop.ownership import row
from jamreel.workshop.planning import shop_of

router = Router(tags=["devices"])


class ReadingLine(Schema):
    """What a device sent: plain text as it comes off the cable."""

    text: str


class Sense(Schema):
    """What a diameter is called, and how often it passes a hole."""

    diameter_mm: float
    awg: Near
    swg: Near
    through: Through | None


class SenseIn(Schema):
    """A size, and perhaps a hole, as typed."""

    size: Typed = Field(min_length=1, max_length=40)
    hole: Typed = Field(default="", max_length=40)


def _moment(stock: Stock) -> str:
    """Return what a reading's jitter is drawn from: it strays anew when the stock has changed."""
    return f"{stock.pk}/{stock.movements.count()}"


@router.get("/devices/scale", response={200: ReadingLine, **EVERY_ERROR})
def scale(request: HttpRequest, stock_id: RowId, unit: Literal["g", "oz"] = "g") -> ReadingLine:
    """Return what the scale on the bench reads with a reel on it."""
    stock = row(Stock, bench_of(request), stock_id)
    wire, _ = racks.wire_or_why(stock)
    on_it = stock.tare_g + (wire.mass(racks.amount_of(stock)) if wire else 0.0)
    return ReadingLine(text=Scale(_moment(stock), unit=unit).reads(on_it))


@router.get("/devices/calliper", response={200: ReadingLine, **EVERY_ERROR})
def calliper(
    request: HttpRequest, stock_id: RowId, unit: Literal["mm", "in"] = "mm"
) -> ReadingLine:
    """Return what the calliper on the bench reads across a wire."""
    stock = row(Stock, bench_of(request), stock_id)
    wire, _ = racks.wire_or_why(stock)
    across = wire.d if wire else stock.size_mm or 0.0
    return ReadingLine(text=Calliper(_moment(stock), unit=unit).reads(across))


@router.get("/gauges", response={200: list[GaugeRow], **EVERY_ERROR})
def gauges(request: HttpRequest) -> list[GaugeRow]:
    """Return both gauge systems side by side."""
    bench_of(request)
    return list(gauge_chart())


@router.post("/gauges/sense", response={200: Sense, **EVERY_ERROR})
def sense(request: HttpRequest, payload: SenseIn) -> Sense:
    """Return what a size is called, and what of it passes a hole."""
    shop = shop_of(bench_of(request))
    wire = racks.wire_of({"size": payload.size}, shop)
    hole = racks.length_typed({"hole": payload.hole}, "hole", shop)
    awg, swg = nearest_gauges(wire.d)
    through = passes(hole, wire.d) if hole is not None else None
    return Sense(diameter_mm=wire.d, awg=awg, swg=swg, through=through)
