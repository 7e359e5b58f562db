"""The log: a line of JSON for each entry, with the id of its request."""

import json
import logging
from datetime import UTC, datetime


class JsonLines(logging.Formatter):
    """A line of JSON for each entry. Never a body: what was typed is the maker's."""

    def format(self, record: logging.LogRecord) -> str:
        """Return the line of an entry."""
        line = {
            "at": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(),
            "logger": record.name,
            "says": record.getMessage(),
        }
        for key in ("request_id", "method", "path", "status", "ms"):
            if hasattr(record, key):
                line[key] = getattr(record, key)
        request = getattr(record, "request", None)
        if request is not None and hasattr(request, "META"):
            line["request_id"] = request.META.get("jamreel.request_id", "")
        if record.exc_info:
            line["trace"] = self.formatException(record.exc_info)
        return json.dumps(line, ensure_ascii=False, default=str)
