"""Every tick keeps its own record; the one frozen plan of a piece goes."""

from typing import Any

from django.db import migrations, models


def keep_what(apps: Any, schema_editor: Any) -> None:
    """Copy into each tick what the frozen plan of its piece says of it."""
    tick = apps.get_model("workshop", "Tick")
    piece = apps.get_model("workshop", "Piece")
    plans = dict(piece.objects.values_list("pk", "frozen_plan"))
    for one in tick.objects.iterator():
        plan = plans.get(one.piece_id) or {}
        one.named_by = 1
        one.what = _what(one, plan)
        one.save(update_fields=["named_by", "what"])


def _what(tick: Any, plan: dict[str, Any]) -> dict[str, Any]:
    name = tick.key.partition("#")[0]
    if tick.kind == "cut":
        cut: dict[str, Any] = next((c for c in plan.get("cuts", []) if c["id"] == name), {})
        return {"says": cut.get("label", name), "stock": cut.get("stock", "")}
    if tick.kind == "step":
        step: dict[str, Any] = next((s for s in plan.get("steps", []) if s["id"] == name), {})
        former = next((f.get("tool_mm") for f in plan.get("formers", [])), None)
        shaped = former is not None and name == "shape"
        figures = {"former": former} if shaped else {}
        return {"says": step.get("title", name), "figures": figures}
    need: dict[str, Any] = next((n for n in plan.get("needs", []) if n["id"] == name), {})
    return {"says": need.get("size", name)}


class Migration(migrations.Migration):
    dependencies = [("workshop", "0003_needs_fetched")]

    operations = [
        migrations.RenameField("tick", "planned_mm", "planned"),
        migrations.RenameField("tick", "actual_mm", "actual"),
        migrations.AlterField("tick", "key", models.CharField(max_length=140)),
        migrations.AddField("tick", "what", models.JSONField(default=dict)),
        migrations.AddField("tick", "named_by", models.PositiveSmallIntegerField(default=2)),
        migrations.RunPython(keep_what, migrations.RunPython.noop),
        migrations.RemoveField("piece", "frozen_plan"),
    ]
