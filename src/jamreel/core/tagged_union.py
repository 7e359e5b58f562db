"""A value of one of several kinds, told by its ``kind``: only the kinds that are met are built.

A union of every part inside every construction would be put together whenever the core is loaded,
which takes longer than any plan.
"""

import importlib
import pkgutil
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from importlib.util import find_spec
from typing import Any, Generic, TypeVar

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


Model = TypeVar("Model", bound=BaseModel)


class Kinds(Generic[Model]):
    """Kinds that register themselves when their module is loaded: only those that are met are.

    A module that is called as its kind is found by that; for a kind that none is called after, all
    of them are loaded.
    """

    def __init__(self, order: Callable[[tuple[str, type[Model]]], Any] | None = None) -> None:
        self._known: dict[str, type[Model]] = {}
        self._places: list[tuple[str, str]] = []
        self._order = order
        self._every: Mapping[str, type[Model]] = {}

    def add(self, cls: type[Model]) -> None:
        """Know a kind by what its model says; a model that says none is a base of others."""
        kind = cls.model_fields["kind"]
        if not kind.is_required():
            self._known[kind.default] = cls
            self._every = {}

    def stand_in(self, package: str, module: str = "") -> None:
        """Look for kinds in the modules of a package, or in a module of each of its folders."""
        self._places.append((package, f".{module}" if module else ""))
        self._every = {}

    def get(self, kind: str) -> type[Model] | None:
        """Return the model of a kind, None where there is no such."""
        if kind not in self._known and kind.isidentifier() and not kind.startswith("_"):
            for package, module in self._places:
                spec = find_spec(f"{package}.{kind}")
                if spec is not None and (not module or spec.submodule_search_locations):
                    importlib.import_module(f"{package}.{kind}{module}")
        return self._known.get(kind) or self.every().get(kind)

    def every(self) -> Mapping[str, type[Model]]:
        """Return all kinds by name, all of their modules loaded."""
        if self._every:
            return self._every
        for package, module in self._places:
            for found in pkgutil.iter_modules(importlib.import_module(package).__path__):
                if found.ispkg or not module:
                    importlib.import_module(f"{package}.{found.name}{module}")
        self._every = dict(sorted(self._known.items(), key=self._order))
        return self._every


class TaggedUnion:
    """Annotates a field that holds one of several kinds, given by name."""

    def __init__(self, kinds: Kinds[Any], base: type[BaseModel], but: str = "") -> None:
        self._kinds, self._base, self._but = kinds, base, but

    def _every(self) -> dict[str, type[BaseModel]]:
        return {kind: cls for kind, cls in self._kinds.every().items() if kind != self._but}

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
        for kind, cls in self._every().items():
            cls.model_rebuild()
            choices[kind] = cls.__pydantic_core_schema__
        return handler(core_schema.tagged_union_schema(choices, "kind"))

    def _read(self, value: Any, info: core_schema.ValidationInfo) -> Any:
        if isinstance(value, self._base) and getattr(value, "kind", "") != self._but:
            return value
        if not isinstance(value, Mapping):
            raise PydanticCustomError("no_object", "Input should be an object")
        kind = value.get("kind")
        if kind is None:
            raise refused(Refusal("missing", got=None, under="kind"))
        able = isinstance(kind, str) and kind != self._but
        cls = self._kinds.get(kind) if able else None
        if cls is None:
            known = ", ".join(sorted(self._every()))
            raise refused(Refusal("kind_unknown", got=kind, known=known))
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
