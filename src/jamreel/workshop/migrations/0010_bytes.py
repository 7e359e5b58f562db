"""What a bench keeps is counted in bytes; ticks, try-ons and log entries name their revision."""

import django.db.models.deletion
from django.db import migrations, models

COUNTED = """
UPDATE workshop_revision SET size = length(brief);
UPDATE workshop_workshop SET kept_bytes =
    (SELECT coalesce(sum(size), 0) FROM workshop_revision r
        WHERE r.workshop_id = workshop_workshop.id)
    + (SELECT coalesce(sum(length(picture)), 0) FROM workshop_photo p
        WHERE p.workshop_id = workshop_workshop.id)
    + (SELECT coalesce(sum(length(chosen) + length(found) + length(worked_for)), 0)
        FROM workshop_dayplan d WHERE d.workshop_id = workshop_workshop.id);
"""


def names(model: str) -> migrations.AddField:
    to = models.ForeignKey(
        null=True,
        on_delete=django.db.models.deletion.SET_NULL,
        related_name="+",
        to="workshop.revision",
    )
    return migrations.AddField(model, "revision", to)


class Migration(migrations.Migration):
    dependencies = [("workshop", "0009_archive_and_hand")]

    operations = [
        names("tick"),
        names("tryonrecord"),
        names("logentry"),
        migrations.AddField("revision", "size", models.PositiveIntegerField(default=0)),
        migrations.AddField("workshop", "kept_bytes", models.BigIntegerField(default=0)),
        migrations.RunSQL(COUNTED, migrations.RunSQL.noop),
    ]
