"""The log's full text keeps words in one normal form, the same as what is asked."""

from typing import Any

from django.db import migrations, models

from jamreel.workshop.log import entry_words
from jamreel.workshop.searching import as_ascii

ANEW = """
DROP TRIGGER IF EXISTS workshop_log_in;
DROP TRIGGER IF EXISTS workshop_log_out;
DROP TRIGGER IF EXISTS workshop_log_anew;
DROP TABLE IF EXISTS workshop_logwords;
CREATE VIRTUAL TABLE workshop_logwords USING fts5(
    bench, words, tokenize="unicode61 remove_diacritics 0", prefix='2 3'
);
CREATE TRIGGER workshop_log_in AFTER INSERT ON workshop_logentry BEGIN
    INSERT INTO workshop_logwords (rowid, bench, words)
        VALUES (new.id, 'b' || new.workshop_id, new.words);
END;
CREATE TRIGGER workshop_log_out AFTER DELETE ON workshop_logentry BEGIN
    DELETE FROM workshop_logwords WHERE rowid = old.id;
END;
CREATE TRIGGER workshop_log_anew AFTER UPDATE ON workshop_logentry BEGIN
    DELETE FROM workshop_logwords WHERE rowid = old.id;
    INSERT INTO workshop_logwords (rowid, bench, words)
        SELECT new.id, 'b' || new.workshop_id, new.words
        WHERE new.opened_at IS NULL AND new.put_away_at IS NULL;
END;
"""


def know(apps: Any, schema_editor: Any) -> None:
    """Put down the words of every entry; full text follows by its triggers."""
    entry, word = (apps.get_model("workshop", name) for name in ("LogEntry", "LogWord"))
    word.objects.all().delete()
    for one in entry.objects.all().iterator(400):
        found = entry_words(one)
        one.words = " ".join(map(as_ascii, found))
        one.save(update_fields=["words"])
        word.objects.bulk_create(
            [word(workshop_id=one.workshop_id, word=each) for each in found], ignore_conflicts=True
        )


class Migration(migrations.Migration):
    dependencies = [("workshop", "0010_bytes")]

    operations = [
        migrations.AddField("logentry", "words", models.TextField(blank=True, default="")),
        migrations.AlterField("logentry", "words", models.TextField(blank=True)),
        migrations.RunSQL(ANEW, migrations.RunSQL.noop),
        migrations.RunPython(know, migrations.RunPython.noop),
    ]
