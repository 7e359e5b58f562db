"""Texts and numbers of requests, as the document declares them and the rows can keep them."""

from typing import Annotated

from pydantic import AfterValidator, Field

from jamreel.workshop.naming import clean_text

# Numbers of rows; SQLite keeps no greater one.
RowId = Annotated[int, Field(ge=1, le=2**63 - 1)]


def _whole(text: str) -> str:
    text.encode("utf-8")  # UnicodeEncodeError is a ValueError
    return text


def _lines(text: str) -> str:
    return "\n".join(clean_text(line) for line in text.splitlines())


# One line: a name, a part.
Line = Annotated[str, AfterValidator(clean_text)]
# Several lines, each as one is.
Lines = Annotated[str, AfterValidator(_lines)]
# As typed: read by whoever it is for, only never half a character.
Typed = Annotated[str, AfterValidator(_whole)]
