"""A value of one of several kinds, told by its ``kind``: only the kinds that are met are built.

A union of every part inside every construction would be put together whenever the core is loaded,
which takes longer than any plan.
"""

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from typing import Any

from pydantic import BaseModel, GetCoreSchemaHandler, GetJsonSchemaHandler, ValidationError
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from jamreel.core.errors import Refusal
from jamreel.core.values import refused

_WITHIN = "within"
_whole: ContextVar[bool] = ContextVar("whole", default=False)


@contextmanager
def every_kind() -> Iterator[None]:
    """Have JSON Schemas made inside the block tell every kind with all its choices."""
    token = _whole.set(True)
    try:
        yield
    finally:
        _whole.reset(token)


class TaggedUnion:
    """Annotates a field that holds one of several kinds, given by name."""

    def __init__(self, kinds: Callable[[], Mapping[str, type[BaseModel]]]) -> None:
        self._kinds = kinds

    def __get_pydantic_core_schema__(
        self, source: Any, handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        """Return how a value is read: by the model of its kind, when it is met."""
        return core_schema.with_info_plain_validator_function(self._read)

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> JsonSchemaValue:
        """Return all kinds as alternatives, or typed data with a kind: see ``every_kind``."""
        if not _whole.get():
            told = {"type": "string", "description": "One of those that /api/facts tells of."}
            return {
                "type": "object",
                "properties": {"kind": told},
                "required": ["kind"],
                "additionalProperties": True,
            }
        choices = {}
        for kind, cls in self._kinds().items():
            cls.model_rebuild()
            choices[kind] = cls.__pydantic_core_schema__
        return handler(core_schema.tagged_union_schema(choices, "kind"))

    def _read(self, value: Any, info: core_schema.ValidationInfo) -> Any:
        kinds = self._kinds()
        if isinstance(value, tuple(kinds.values())):
            return value
        if not isinstance(value, Mapping):
            raise PydanticCustomError("no_object", "Input should be an object")
        kind = value.get("kind")
        if kind is None:
            raise refused(Refusal("missing", got=None, under="kind"))
        cls = kinds.get(kind) if isinstance(kind, str) else None
        if cls is None:
            raise refused(Refusal("kind_unknown", got=kind, known=", ".join(sorted(kinds))))
        try:
            return cls.model_validate(value, context=info.context)
        except ValidationError as error:
            raise PydanticCustomError(
                _WITHIN, _WITHIN, {"errors": error.errors(), "kind": kind}
            ) from None


def every_error(errors: Iterator[Any] | list[Any], under: tuple[Any, ...] = ()) -> Iterator[Any]:
    """Yield validation errors, those within a value of some kind at their own place, with the
    kind's name as ``of_kind``.

    Args:
        errors: as pydantic gives them.
        under: where the value stands.
    """
    for error in errors:
        loc = (*under, *error["loc"])
        if error["type"] == _WITHIN:
            for one in every_error(error["ctx"]["errors"], loc):
                yield {"of_kind": error["ctx"]["kind"], **one}
        else:
            yield {**error, "loc": loc}
