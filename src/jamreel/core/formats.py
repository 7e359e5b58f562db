"""JSON Schemas of what goes in and out of the core."""

from typing import Any

from jamreel.core.brief import Brief
from jamreel.core.result import Plan
from jamreel.core.shop import Shop
from jamreel.core.tagged_union import every_kind

DIALECT = "https://json-schema.org/draft/2020-12/schema"


def schemas() -> dict[str, dict[str, Any]]:
    """Return the JSON Schemas of brief and shop (as entered) and of the plan (as handed out)."""
    with every_kind():
        return {
            "brief": {"$schema": DIALECT, **Brief.model_json_schema(mode="validation")},
            "shop": {"$schema": DIALECT, **Shop.model_json_schema(mode="validation")},
            "plan": {"$schema": DIALECT, **Plan.model_json_schema(mode="serialization")},
        }
