"""Pages by what they are about: ``/pieces/{Moon bangle}/measure``."""

import re

from jamreel.workshop.models import Piece, Wearer

_NAMED = re.compile(r"/(pieces|wearers)/\{([^}]+)\}")


def path(named: str) -> str:
    """Return the path of a page that names its piece or wearer in braces."""

    def numbered(found: re.Match[str]) -> str:
        what, name = found.groups()
        model = Piece if what == "pieces" else Wearer
        return f"/{what}/{model._default_manager.get(name=name).pk}"

    return _NAMED.sub(numbered, named)
