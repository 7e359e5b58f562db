"""Wearers, log entries and tools can be put away; what is known of the hand leaves the settings."""

from typing import Any

from django.db import migrations, models

OF_HAND = ("hand", "woven", "measured")
# A table that gets a column is made anew, and its triggers are gone with the old one.
WORDS = """new.name || ' ' || new.wearer || ' ' || new.kind || ' ' || new.made_of || ' '
        || new.metals || ' ' || new.reels || ' ' || new.note || ' ' || new.finished_on
        || ' ' || substr(new.finished_on, 1, 4) || substr(new.finished_on, 6, 2)"""
ANEW = f"""
DROP TRIGGER IF EXISTS workshop_log_in;
DROP TRIGGER IF EXISTS workshop_log_out;
DROP TRIGGER IF EXISTS workshop_log_anew;
CREATE TRIGGER workshop_log_in AFTER INSERT ON workshop_logentry BEGIN
    INSERT INTO workshop_logwords (rowid, bench, words)
        VALUES (new.id, 'b' || new.workshop_id, {WORDS});
END;
CREATE TRIGGER workshop_log_out AFTER DELETE ON workshop_logentry BEGIN
    DELETE FROM workshop_logwords WHERE rowid = old.id;
END;
CREATE TRIGGER workshop_log_anew AFTER UPDATE ON workshop_logentry BEGIN
    DELETE FROM workshop_logwords WHERE rowid = old.id;
    INSERT INTO workshop_logwords (rowid, bench, words)
        SELECT new.id, 'b' || new.workshop_id, {WORDS}
        WHERE new.opened_at IS NULL AND new.put_away_at IS NULL;
END;
"""


def part(apps: Any, schema_editor: Any) -> None:
    for one in apps.get_model("workshop", "Workshop").objects.all():
        if isinstance(one.shop, dict) and any(key in one.shop for key in OF_HAND):
            one.hand = {key: one.shop[key] for key in OF_HAND if key in one.shop}
            one.shop = {key: value for key, value in one.shop.items() if key not in OF_HAND}
            one.save(update_fields=["hand", "shop"])


class Migration(migrations.Migration):
    dependencies = [("workshop", "0008_whole_readings")]

    operations = [
        migrations.AddField("workshop", "hand", models.JSONField(default=dict)),
        migrations.AddField("workshop", "hand_version", models.PositiveIntegerField(default=1)),
        migrations.AddField("workshop", "tools_away", models.JSONField(default=list)),
        migrations.AddField(
            "wearer", "put_away_at", models.DateTimeField(blank=True, null=True)
        ),
        migrations.AddField("logentry", "put_away_at", models.DateTimeField(null=True)),
        migrations.AddField(
            "logentry", "unpriced", models.CharField(blank=True, default="", max_length=400),
            preserve_default=False,
        ),
        migrations.RunPython(part, migrations.RunPython.noop),
        migrations.RunSQL(ANEW, migrations.RunSQL.noop),
    ]
