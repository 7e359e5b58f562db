"""What the core raises when an input can't give an honest number.

A refusal carries *keys and values*, not sentences: ``words`` renders it in the maker's language
and unit. Nothing else in the core is raised on account of input.
"""

from collections.abc import Iterable
from typing import Any


class Refusal(ValueError):
    """One input that can't be used.

    ``key`` names the entry ``refused.<key>`` of the word catalogue, ``got`` is what was entered,
    ``field`` the dotted path in the brief (empty while the value does not know where it stands),
    and ``values`` whatever the sentence needs besides.
    """

    def __init__(self, key: str, *, got: object, field: str = "", **values: Any) -> None:
        super().__init__(key)
        self.key = key
        self.got = got
        self.field = field
        self.values = values

    def __reduce__(self) -> tuple[Any, ...]:
        return _again, (self.key, self.got, self.field, self.values)

    def at(self, field: str) -> "Refusal":
        """Return the same refusal, placed at ``field``."""
        return Refusal(self.key, got=self.got, field=field, **self.values)


def _again(key: str, got: object, field: str, values: dict[str, Any]) -> Refusal:
    """Return a refusal that was handed over by another process."""
    return Refusal(key, got=got, field=field, **values)


class Refusals(ValueError):
    """Several refusals of one brief, so that a maker sees all of them at once."""

    def __init__(self, refusals: Iterable[Refusal]) -> None:
        self.refusals = tuple(refusals)
        super().__init__(", ".join(r.key for r in self.refusals))
