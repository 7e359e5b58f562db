"""Keep the figures of every example, part and closure anew, where they are meant to have moved."""

import json
import os
import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).resolve().parents[1]))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jamreel.site.settings")

from tests.core.summary import KEPT, everything


def rounded(value: object) -> object:
    """Return a summary with its figures to a thousandth: finer is rounding."""
    if isinstance(value, dict):
        return {key: rounded(one) for key, one in value.items()}
    if isinstance(value, list | tuple):
        return [rounded(one) for one in value]
    return round(value, 4) if isinstance(value, float) else value


def main() -> None:
    """Write the kept file, a line for each thing."""
    rows = [f"{json.dumps(k)}: {json.dumps(rounded(v))}" for k, v in everything().items()]
    KEPT.write_text("{\n" + ",\n".join(rows) + "\n}\n")


if __name__ == "__main__":
    main()
