"""Prints the OpenAPI document, from which the front end's types are made."""

import json
import os


def main() -> None:
    """Print the document."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jamreel.site.settings")
    import django

    django.setup()
    from jamreel.api import api

    print(json.dumps(api.get_openapi_schema(path_prefix="/api/"), indent=1, sort_keys=True))


if __name__ == "__main__":
    main()
