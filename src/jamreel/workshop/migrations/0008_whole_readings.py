"""Readings are kept whole: all that one has beside its value in one place."""

from typing import Any

from django.db import migrations, models


def gather(apps: Any, schema_editor: Any) -> None:
    reading = apps.get_model("workshop", "Reading")
    changed = []
    for one in reading.objects.all().iterator():
        beside = {
            "method": one.method,
            "thickness": one.thickness,
            "ease": one.ease,
            "taken": one.taken_at.isoformat(timespec="minutes"),
        }
        one.beside = {name: text for name, text in beside.items() if text}
        changed.append(one)
    reading.objects.bulk_update(changed, ["beside"], batch_size=400)


class Migration(migrations.Migration):
    dependencies = [("workshop", "0007_at_the_bench")]

    operations = [
        migrations.AddField("reading", "beside", models.JSONField(default=dict)),
        migrations.RunPython(gather, migrations.RunPython.noop),
        migrations.RemoveField("reading", "method"),
        migrations.RemoveField("reading", "thickness"),
        migrations.RemoveField("reading", "ease"),
        migrations.RemoveField("reading", "taken_at"),
    ]
