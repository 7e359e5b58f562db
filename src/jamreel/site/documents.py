"""Writes what describes the formats and the API: nothing of it is kept, only a digest of each.

``python -m jamreel.site.documents FOLDER`` writes the files and prints their digests. The build
puts them where the bench serves them, under ``/docs``; the front end's types are made of one.
"""

import hashlib
import json
import os
import sys
from pathlib import Path
from typing import Any


def documents() -> dict[str, Any]:
    """Return the OpenAPI document, and the JSON Schemas of brief, shop and plan, by name.

    Source: OpenAPI 3.1; JSON Schema 2020-12.
    """
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jamreel.site.settings")
    import django

    django.setup()
    from jamreel.api import api
    from jamreel.core.formats import schemas

    return {"api": api.get_openapi_schema(), **schemas()}


def main(folder: Path) -> None:
    """Write the documents into a folder, and print a digest of each."""
    folder.mkdir(parents=True, exist_ok=True)
    for name, document in documents().items():
        text = json.dumps(document, indent=1, sort_keys=True, ensure_ascii=False)
        (folder / f"{name}.json").write_text(text + "\n", encoding="utf-8")
        print(f"{hashlib.sha256(text.encode()).hexdigest()}  {name}.json")
        if name == "api":
            types = folder / "types"
            types.mkdir(exist_ok=True)
            (types / "api.json").write_text(json.dumps(json.loads(text, object_hook=_as_meant)))


def _as_meant(schema: dict[str, Any]) -> dict[str, Any]:
    """Return a schema for the screen's types: what is typed as it is meant to be."""
    meant = schema.get("x-meant-as")
    return {"$ref": f"#/components/schemas/{meant}"} if meant else schema


if __name__ == "__main__":
    main(Path(sys.argv[1]))
