"""Pieces count their turns; a name is one wearer's and one user's; what can't be read is told so."""

import json
import unicodedata
from typing import Any

from django.conf import settings
from django.db import migrations, models

# Nested deeper than this, a brief can't be parsed on every machine.
DEEPEST = 400


def one_wearer_a_name(apps: Any, schema_editor: Any) -> None:
    """Number those who share a name on one bench: the first keeps it."""
    wearer = apps.get_model("workshop", "Wearer")
    taken = set(wearer.objects.values_list("workshop_id", "name"))
    seen: set[tuple[int, str]] = set()
    for one in wearer.objects.order_by("id"):
        if (one.workshop_id, one.name) in seen:
            numbers = (f"{one.name[:70]} ({n})" for n in range(2, 100_000))
            one.name = next(n for n in numbers if (one.workshop_id, n) not in taken)
            one.save(update_fields=["name"])
            taken.add((one.workshop_id, one.name))
        seen.add((one.workshop_id, one.name))


def one_user_a_name(apps: Any, schema_editor: Any) -> None:
    """Keep names of users the way they are looked up; of two that come to one, the first has it."""
    user = apps.get_model(*settings.AUTH_USER_MODEL.split("."))
    names = set(user.objects.values_list("username", flat=True))
    for one in user.objects.order_by("id"):
        name = unicodedata.normalize("NFKC", unicodedata.normalize("NFKC", one.username).casefold())
        name = " ".join(name.split())
        if name and name != one.username and name not in names:
            names.discard(one.username)
            names.add(name)
            one.username = name
            one.save(update_fields=["username"])


def as_text_where_too_deep(apps: Any, schema_editor: Any) -> None:
    """Keep what is nested beyond all reading as text: it opens, and says that it is no brief."""
    with schema_editor.connection.cursor() as cursor:
        cursor.execute("SELECT id, brief FROM workshop_revision WHERE length(brief) > %s", [DEEPEST])
        rows = [(pk, text) for pk, text in cursor if _depth(text) > DEEPEST]
        for pk, text in rows:
            cursor.execute(
                "UPDATE workshop_revision SET brief = %s WHERE id = %s", [json.dumps(text), pk]
            )


def _depth(text: str) -> int:
    """Return how deep JSON text is nested; brackets within texts count for nothing."""
    if text.count("[") + text.count("{") <= DEEPEST:
        return 0
    deepest = depth = 0
    quoted = escaped = False
    for sign in text:
        if escaped:
            escaped = False
        elif quoted:
            escaped, quoted = sign == "\\", sign != '"'
        elif sign == '"':
            quoted = True
        elif sign in "[{":
            depth += 1
            deepest = max(deepest, depth)
        elif sign in "]}":
            depth -= 1
    return deepest


class Migration(migrations.Migration):
    dependencies = [
        ("workshop", "0004_records"),
        migrations.swappable_dependency(settings.AUTH_USER_MODEL),
    ]

    operations = [
        migrations.AlterModelOptions("movement", {"ordering": ["id"]}),
        migrations.AlterModelOptions("reading", {"ordering": ["id"]}),
        migrations.AlterModelOptions("tick", {"ordering": ["id"]}),
        migrations.AlterModelOptions("tryonrecord", {"ordering": ["id"]}),
        migrations.AddField("piece", "turn", models.PositiveIntegerField(default=0)),
        migrations.AddField("piece", "worked_by", models.CharField(blank=True, max_length=60)),
        migrations.AddField("workshop", "closed_at", models.DateTimeField(blank=True, null=True)),
        migrations.RunPython(one_wearer_a_name, migrations.RunPython.noop),
        migrations.RunPython(one_user_a_name, migrations.RunPython.noop),
        migrations.RunPython(as_text_where_too_deep, migrations.RunPython.noop),
        migrations.AddConstraint(
            "wearer",
            models.UniqueConstraint(fields=("workshop", "name"), name="one_of_a_name"),
        ),
    ]
