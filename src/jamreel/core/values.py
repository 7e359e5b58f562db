"""The values that briefs and plans are made of: frozen, checked once, when they are made."""

from functools import partial
from operator import eq
from typing import Annotated, Any, Literal

from pydantic import (
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    PlainSerializer,
    SkipValidation,
    ValidationInfo,
    WithJsonSchema,
    field_serializer,
)
from pydantic_core import PydanticCustomError

from jamreel.core.errors import Refusal
from jamreel.core.units import Unit, parse_length


class Frozen(BaseModel):
    """Base of all values. Unknown keys are refused: a misspelt field must not pass unseen."""

    model_config = ConfigDict(
        frozen=True,
        extra="forbid",
        allow_inf_nan=False,
        validate_by_name=True,
        validate_by_alias=True,
        serialize_by_alias=True,
        # Built when first met: of many kinds a plan meets few.
        defer_build=True,
    )


def _exact(value: float) -> float:
    return round(value, 3)


def _short(value: float) -> float:
    return float(f"{value:.6g}")


# Figures as they are written out: a length to a thousandth of a millimetre, all else to six digits.
Millimetres = Annotated[float, PlainSerializer(_exact, return_type=float, when_used="json")]
Quantity = Annotated[float, PlainSerializer(_short, return_type=float, when_used="json")]


class Written(Frozen):
    """Base of what is only ever written out: a field that stands at its usual value is left out."""

    @classmethod
    def __pydantic_init_subclass__(cls, **kwargs: Any) -> None:
        """Have each field with a default left out where it stands at that."""
        for field in cls.model_fields.values():
            if not field.is_required() and field.exclude_if is None:
                usual = field.get_default(call_default_factory=True)
                field.exclude_if = partial(eq, usual)


def refused(refusal: Refusal) -> PydanticCustomError:
    """Return a refusal in the shape in which it passes through model validation."""
    return PydanticCustomError(
        "refused", "refused", {"key": refusal.key, "got": refusal.got, "values": refusal.values}
    )


def setting(info: ValidationInfo, name: str, default: Any) -> Any:
    """Return one of the maker's defaults (unit, gauge system) that a brief is read with."""
    return (info.context or {}).get(name, default)


def _read_length(entered: object, info: ValidationInfo) -> float:
    unit: Unit = setting(info, "unit", "mm")
    try:
        return parse_length(entered, unit)
    except Refusal as refusal:
        raise refused(refusal) from None


def _blank_to_none(entered: object) -> object:
    return None if isinstance(entered, str) and not entered.strip() else entered


_AS_TYPED = WithJsonSchema(
    {
        "anyOf": [{"type": "string"}, {"type": "number", "minimum": 0}],
        "description": "A length: a number is mm; text is read as a maker writes it.",
    },
    mode="validation",
)
_AS_TYPED_OR_NOT = WithJsonSchema(
    {
        "anyOf": [{"type": "string"}, {"type": "number", "minimum": 0}, {"type": "null"}],
        "description": "A length as above; empty text or null when not given.",
    },
    mode="validation",
)

Length = Annotated[float, BeforeValidator(_read_length), _AS_TYPED]


def _read_optional(entered: object, info: ValidationInfo) -> float | None:
    blank = _blank_to_none(entered)
    return None if blank is None else _read_length(blank, info)


OptionalLength = Annotated[float | None, BeforeValidator(_read_optional), _AS_TYPED_OR_NOT]

# A whole number, or blank: then the plan counts.
OptionalCount = Annotated[
    int | None, BeforeValidator(_blank_to_none), Field(json_schema_extra={"asks": "whole"})
]

# Of briefs, shops and plans as they are kept and handed out. Nothing is promised before 1.0.
FORMAT: Literal["0.2"] = "0.2"


def _known_format(given: object) -> object:
    if given == FORMAT:
        return given
    key = "format_before" if given in (1, 2, 3) else "format_unknown"
    raise refused(Refusal(key, got=given, known=FORMAT))


Format = Annotated[Literal["0.2"], BeforeValidator(_known_format)]

Backing = Literal["published", "common practice", "geometry", "from memory", "measured", "chosen"]


class PlusMinus(Written):
    """A figure with its expanded uncertainty (coverage factor 2, about 95 %)."""

    value: Millimetres
    plus_minus: Millimetres


class LedgerLine(Written):
    """One line of the arithmetic: a signed term, or the total that terms add up to.

    ``adds_to`` names the total that this line is a term of. A total may itself be a term of
    another total. ``inputs`` are the figures that the rule used, by name.
    """

    id: str
    label: str
    value_mm: Millimetres
    rule: str
    reason: str
    backing: Backing
    inputs: dict[str, Quantity | str] = Field(default_factory=dict)
    adds_to: str | None = None
    total: bool = False


Point = tuple[Millimetres, Millimetres]


AS_STEPS = WithJsonSchema({"type": "array", "items": {"type": "integer"}}, mode="serialization")


def _in_steps(points: tuple[Point, ...], begins: Point = (0.0, 0.0)) -> list[int]:
    found, before = [], (0, 0)
    for x, y in points:
        here = (round(100 * (x - begins[0])), round(100 * (y - begins[1])))
        found += [here[0] - before[0], here[1] - before[1]]
        before = here
    return found


class Stroke(Written):
    """A line of a drawing, in mm, y upwards. ``width_mm`` is the true thickness of the wire.

    ``tone`` names what it is filled with where that is not the wire's own metal: a bead's colour,
    the colour of another metal, or the grey of what is bought. With ``times`` over 1 it is drawn
    again and again, each a ``step`` further.

    Its points are written out in hundredths of a millimetre, x and y by turns: the first as it is,
    each of the others as the step to it.
    """

    part: str
    # Worked out, never typed: to look at each number again costs more than to find it.
    points: Annotated[tuple[Point, ...], SkipValidation(), AS_STEPS]
    closed: bool = False
    width_mm: Millimetres = 0.0
    tone: str = ""
    times: int = 1
    step: Point = (0.0, 0.0)

    @field_serializer("points", when_used="json")
    def _steps(self, points: tuple[Point, ...]) -> list[int]:
        return _in_steps(points)

    @property
    def copies(self) -> "tuple[Stroke, ...]":
        """The stroke as often as it is drawn, one by one."""
        dx, dy = self.step
        return tuple(
            self.model_copy(
                update={
                    "points": tuple((x + n * dx, y + n * dy) for x, y in self.points),
                    "times": 1,
                    "step": (0.0, 0.0),
                }
            )
            for n in range(self.times)
        )


class Shapes(Written):
    """Shapes as they are written out: what many of them have in common stands there once.

    Each of the ``strokes`` begins at nought. A shape is made of so many of them: the number of the
    stroke, then x and y of where it begins in hundredths of a millimetre, and so on.
    """

    strokes: tuple[Stroke, ...]
    made: dict[str, list[int]]


def _shared(shapes: dict[str, tuple[Stroke, ...]]) -> Shapes:
    strokes: dict[object, tuple[int, Stroke]] = {}
    made: dict[str, list[int]] = {}
    for name, every in shapes.items():
        made[name] = row = []
        for one in every:
            x, y = one.points[0] if one.points else (0.0, 0.0)
            steps = _in_steps(one.points, (x, y))
            drawn = (round(one.width_mm, 3), one.times, *map(_exact, one.step))
            like = (one.part, one.tone, one.closed, *drawn, *steps)
            if like not in strokes:
                begun = tuple((px - x, py - y) for px, py in one.points)
                strokes[like] = (len(strokes), one.model_copy(update={"points": begun}))
            row += [strokes[like][0], round(100 * x), round(100 * y)]
    return Shapes(strokes=tuple(one for _, one in strokes.values()), made=made)


class Dimension(Written):
    """A dimension line between two points, standing off by ``offset_mm``, with its figure."""

    a: Point
    b: Point
    value_mm: Millimetres
    label: str
    offset_mm: Millimetres = 0.0


class Label(Written):
    """Words at a place of a drawing."""

    at: Point
    text: str
    anchor: Literal["middle", "start"] = "middle"


StationName = Literal["measure", "make_up", "cut", "form", "fit"]


class Placed(Written):
    """A shape of a drawing set down at a place, turned [rad] and perhaps mirrored end for end.

    ``entry`` names what of the make-up it stands for. With ``times`` over 1 it is set down again
    and again, each ``pitch_mm`` further to the right.
    """

    shape: str
    at: Point
    turn: Quantity = 0.0
    mirrored: bool = False
    entry: str = ""
    length_mm: Millimetres = 0.0
    times: int = 1
    pitch_mm: Millimetres = 0.0


class Sheet(Written):
    """A drawing: strokes and dimensions in one coordinate frame [mm], and where it is looked at.

    ``shapes`` are drawn once and ``placed`` as often as they occur.
    """

    id: str
    title: str
    stations: tuple[StationName, ...]
    strokes: tuple[Stroke, ...] = ()
    shapes: Annotated[
        dict[str, tuple[Stroke, ...]],
        PlainSerializer(_shared, return_type=Shapes, when_used="json"),
    ] = Field(default_factory=dict)
    placed: tuple[Placed, ...] = ()
    dimensions: tuple[Dimension, ...] = ()
    labels: tuple[Label, ...] = ()


class SpanRows(Written):
    """Rows within a span: where the first one begins, how far each goes on [mm], how many."""

    from_mm: Millimetres
    pitch_mm: Millimetres
    count: int


class Span(Written):
    """A stretch of the straight wire on the Rule, with the ledger lines that explain it.

    ``width_mm`` and ``tone`` are its own where it is not simply the piece's wire. With ``times``
    over 1 it holds so many alike, side by side. What is woven has ``rows``.
    """

    id: str
    label: str
    from_mm: Millimetres
    to_mm: Millimetres
    kind: Literal["trim", "part", "body"]
    ledger: tuple[str, ...] = ()
    width_mm: Millimetres | None = None
    tone: str = ""
    times: int = 1
    rows: SpanRows | None = None


class RuleDrawing(Written):
    """The Rule: the piece laid out straight, and the band in which its end may rightly lie.

    ``groups`` are what is written below where the spans are too many to name one by one. It is
    mirrored about ``mirror_mm``, the whole is ``made`` so many times, and so many ``strands`` of
    the string go through what is strung from ``strung_mm`` to the second figure of it.
    """

    length_mm: Millimetres
    spans: tuple[Span, ...]
    groups: tuple[Span, ...] = ()
    ticks_mm: tuple[Millimetres, ...]
    band: PlusMinus
    width_mm: Millimetres
    mirror_mm: Millimetres | None = None
    made: int = 1
    strands: int = 1
    strung_mm: tuple[Point, ...] = ()


class Drawings(Written):
    """Everything that is drawn of one plan, as geometry."""

    rule: RuleDrawing
    sheets: tuple[Sheet, ...]
