"""What a construction, part or closure asks the maker: its own fields, for a screen to draw."""

import typing
from collections.abc import Mapping, Sequence
from typing import Any, ClassVar, Literal

from pydantic import BeforeValidator, Field, model_validator
from pydantic.fields import FieldInfo

from jamreel.core.errors import Refusal
from jamreel.core.units import Mm
from jamreel.core.values import Frozen, refused
from jamreel.core.words import catalogue, choice_says, say, voice

Limits = Mapping[str, tuple[float, float]]


def _shown(value: float) -> str:
    # A whole number may be longer than any float.
    return f"{value:g}" if abs(value) < 1e18 else str(value)


class Choice(Frozen):
    """One choice to ask: its type, default, range or options, and what it is called.

    It is only of matter while the choice ``if_field`` has one of ``if_values``, or anything at all
    where none is named. What is ``first`` is shown before the others are asked for.
    """

    name: str
    type: Literal["length", "number", "whole", "option", "flag", "size"]
    default: float | str | bool
    low: float | None = None
    high: float | None = None
    options: tuple[str, ...] = ()
    labels: tuple[str, ...] = ()
    says: str
    help: str = ""
    if_field: str = ""
    if_values: tuple[str, ...] = ()
    first: bool = False


# So many choices of a kind are shown at first; the others when they are wanted.
FIRST = 5


def choice(
    default: Any, low: float | None = None, high: float | None = None, *, when: Sequence[str] = ()
) -> Any:
    """Return a field that is asked for, with all that is known of the choice.

    Args:
        default: as long as nobody says otherwise.
        low: least value [mm where a length].
        high: greatest value.
        when: the choice that it hangs on, then the values with which it matters; any at all where
            none is named.
    """
    said: dict[str, Any] = {}
    if low is not None and high is not None:
        said |= {"minimum": low, "maximum": high}
    if when:
        said |= {"when": list(when)}
    return Field(default=default, json_schema_extra=said)


def like(base: type["Asking"], name: str, default: Any, *, when: Sequence[str] = ()) -> Any:
    """Return a choice as a base declares it, with another default, and perhaps hanging on another
    choice.

    Args:
        base: that declares it.
        name: of the choice.
        default: here.
        when: as for ``choice``.
    """
    limits = base.limits().get(name, (None, None))
    known = _said(base.model_fields[name]).get("when", ())
    return choice(default, *limits, when=when or known)


def _said(field: FieldInfo) -> Mapping[str, Any]:
    return field.json_schema_extra if isinstance(field.json_schema_extra, dict) else {}


class Asking(Frozen):
    """A value whose fields are asked for, each declared once by ``choice``.

    ``only_if`` says of choices that a base declares what they hang on here; ``first`` names those
    that are shown first, up to five: all of few, else the first that are declared, where it names
    none.
    """

    only_if: ClassVar[Mapping[str, tuple[str, ...]]] = {}
    first: ClassVar[tuple[str, ...]] = ()

    @model_validator(mode="after")
    def _in_range(self) -> typing.Self:
        for name, (low, high) in self.limits().items():
            value = getattr(self, name)
            if value is not None and not low <= value <= high:
                got: object = _shown(value)
                if is_length(type(self).model_fields[name]):
                    got, low, high = Mm(value), Mm(low), Mm(high)
                raise refused(Refusal("out_of_range", got=got, under=name, low=low, high=high))
        return self

    @classmethod
    def limits(cls) -> Limits:
        """Return the least and greatest value of each choice that has such [mm where a length]."""
        found = vars(cls).get("_limits")
        if found is None:
            said = {name: _said(field) for name, field in cls.model_fields.items()}
            found = {k: (v["minimum"], v["maximum"]) for k, v in said.items() if "minimum" in v}
            cls._limits = found
        return found

    _limits: ClassVar[Limits]

    @classmethod
    def choices(cls) -> tuple[Choice, ...]:
        """Return the simple choices, in the order in which they are declared."""
        own = cls.model_fields.get("kind")
        kind = "" if own is None or own.is_required() else str(own.default)
        limits = cls.limits()
        found = (
            _choice(kind, name, field, limits.get(name, (None, None)))
            for name, field in cls.model_fields.items()
            if name != "kind"
        )
        every = tuple(cls._asked_if(one) for one in found if one is not None)
        free = [one.name for one in every if not one.if_field]
        few = len(every) <= FIRST
        first = cls.first or ([one.name for one in every] if few else free[:FIRST])
        return tuple(one.model_copy(update={"first": one.name in first}) for one in every)

    @classmethod
    def _asked_if(cls, one: Choice) -> Choice:
        inherited = {k: v for base in reversed(cls.__mro__) for k, v in _only_if(base).items()}
        on = _said(cls.model_fields[one.name]).get("when", ())
        field, *values = inherited.get(one.name) or on or ("",)
        return one.model_copy(update={"if_field": field, "if_values": tuple(values)})


def _only_if(base: type) -> Mapping[str, tuple[str, ...]]:
    found: Mapping[str, tuple[str, ...]] = vars(base).get("only_if", {})
    return found


def is_length(field: FieldInfo) -> bool:
    """Return whether a field is typed as a length."""
    return any(isinstance(one, BeforeValidator) for one in field.metadata)


def _choice(
    of: str, name: str, field: FieldInfo, limits: tuple[float | None, float | None]
) -> Choice | None:
    annotation, default = field.annotation, field.default
    low, high = limits
    words = {"says": choice_says(of, name), "help": choice_says(of, name, "help")}
    if typing.get_origin(annotation) is Literal:
        options = tuple(str(o) for o in typing.get_args(annotation))
        labels = tuple(_option(of, name, option) for option in options)
        return Choice(
            name=name, type="option", default=str(default), options=options, labels=labels, **words
        )
    if isinstance(default, bool):
        return Choice(name=name, type="flag", default=default, **words)
    if _said(field).get("asks") == "whole":
        return Choice(name=name, type="whole", default="", low=low, high=high, **words)
    typed = is_length(field)
    if default is None and typed:
        size = _said(field).get("asks") == "size"
        return Choice(name=name, type="size" if size else "length", default="", **words)
    if not isinstance(default, (int, float)):
        return None  # built of parts: no simple choice
    kind: Literal["length", "number", "whole"] = (
        "whole" if annotation is int else "length" if typed else "number"
    )
    return Choice(name=name, type=kind, default=default, low=low, high=high, **words)


def _option(kind: str, name: str, option: str) -> str:
    known = catalogue(voice()[0])
    keys = (f"choice_option.{kind}.{name}.{option}", f"choice_option.{name}.{option}")
    return next((say(key) for key in keys if key in known), option)
