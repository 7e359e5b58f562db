"""A value of one of several kinds: read by its kind, its errors at their own place."""

from typing import Annotated, Any, Literal

import pytest
from pydantic import BaseModel, ConfigDict, TypeAdapter, ValidationError

from jamreel.core.tagged_union import Kinds, TaggedUnion, every_error, every_kind


class Round(BaseModel):
    model_config = ConfigDict(extra="forbid")
    kind: Literal["round"] = "round"
    across: float = 1.0


class Square(BaseModel):
    model_config = ConfigDict(extra="forbid")
    kind: Literal["square"] = "square"
    side: float


KINDS: Kinds[BaseModel] = Kinds()


class Frame(BaseModel):
    model_config = ConfigDict(extra="forbid")
    kind: Literal["frame"] = "frame"
    # A frame holds no other frame.
    holds: Annotated[Any, TaggedUnion(KINDS, BaseModel, but="frame")]


for model in (Round, Square, Frame):
    KINDS.add(model)
Shape = Annotated[Any, TaggedUnion(KINDS, BaseModel)]


class Sheet(BaseModel):
    shapes: list[Shape] = []


def wrong(raw: Any) -> list[tuple[tuple[Any, ...], str]]:
    with pytest.raises(ValidationError) as refused:
        Sheet.model_validate(raw)
    return [(error["loc"], error["type"]) for error in every_error(refused.value.errors())]


def test_each_kind_is_read_by_its_own_model() -> None:
    sheet = Sheet.model_validate({"shapes": [{"kind": "square", "side": 2}, {"kind": "round"}]})
    assert [one.kind for one in sheet.shapes] == ["square", "round"]
    assert sheet.shapes[0].side == 2.0


def test_what_is_read_already_passes_as_it_is() -> None:
    one = Round(across=3)
    assert Sheet(shapes=[one]).shapes[0] is one


def test_kinds_within_kinds_are_read_too() -> None:
    inner = {"kind": "frame", "holds": {"kind": "round", "across": 4}}
    (found,) = Sheet.model_validate({"shapes": [inner]}).shapes
    assert found.holds == Round(across=4)


@pytest.mark.parametrize(
    ("shape", "place"),
    [
        ({"kind": "square"}, ("shapes", 0, "side")),
        ({"kind": "square", "side": "x"}, ("shapes", 0, "side")),
        ({"kind": "round", "side": 1}, ("shapes", 0, "side")),
        (
            {"kind": "frame", "holds": {"kind": "round", "across": "wide"}},
            ("shapes", 0, "holds", "across"),
        ),
    ],
)
def test_an_error_within_stands_at_its_own_field(
    shape: dict[str, Any], place: tuple[Any, ...]
) -> None:
    assert place in [loc for loc, _ in wrong({"shapes": [shape]})]


@pytest.mark.parametrize(
    "shape",
    [{"kind": "oval"}, {}, {"kind": 3}, {"kind": ["round"]}, {"kind": None}, 7, None, "round"],
)
def test_what_is_of_no_kind_is_refused_at_its_place(shape: Any) -> None:
    ((loc, _),) = wrong({"shapes": [{"kind": "round"}, shape]})
    assert loc[:2] == ("shapes", 1)


def test_all_errors_come_at_once() -> None:
    both = [{"kind": "square", "side": "x"}, {"kind": "round", "across": "y"}]
    assert [loc for loc, _ in wrong({"shapes": both})] == [
        ("shapes", 0, "side"),
        ("shapes", 1, "across"),
    ]


def test_its_schema_names_every_kind() -> None:
    with every_kind():
        schema = TypeAdapter(Sheet).json_schema()
    items = schema["properties"]["shapes"]["items"]
    assert set(items["discriminator"]["mapping"]) == {"round", "square", "frame"}
    assert len(items["oneOf"]) == 3
