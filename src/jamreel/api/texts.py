"""Texts and numbers of requests, as the document declares them and the rows can keep them."""

from typing import Annotated, Any

from pydantic import AfterValidator, Field, WithJsonSchema

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


def meant_as(name: str) -> WithJsonSchema:
    """Return the schema of any JSON object, which is meant to be what a schema of that name says.

    What is typed may be anything; the screen's types are made as if it were right.
    """
    return WithJsonSchema({"type": "object", "additionalProperties": True, "x-meant-as": name})


BriefTyped = Annotated[dict[str, Any], meant_as("Brief_as_typed")]
ReadingTyped = Annotated[dict[str, Any], meant_as("Reading_as_typed")]
MeasureTyped = Annotated[dict[str, Any], meant_as("Measure_as_typed")]
TryOnTyped = Annotated[dict[str, Any], meant_as("TryOn_as_typed")]
WireTyped = Annotated[dict[str, Any], meant_as("WireChoice_as_typed")]
ShopTyped = Annotated[dict[str, Any], meant_as("Shop_as_typed")]
# As typed: read by whoever it is for, only never half a character.
Typed = Annotated[str, AfterValidator(_whole)]
