"""Logs: lines to be read, or JSON for a program that gathers them. Nothing of what was handed in stands in them, nor
any link."""

from __future__ import annotations

import json
import logging
import traceback
from datetime import UTC, datetime
from typing import Literal


class JsonLines(logging.Formatter):
    """One object a line. Of an exception its kind and where it came from: its words may hold what somebody wrote."""

    def format(self, record: logging.LogRecord) -> str:
        said: dict[str, object] = {
            "time": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(),
            "from": record.name,
            "text": record.getMessage(),
        }
        said |= getattr(record, "fields", {})
        if record.exc_info and record.exc_info[0] is not None:
            frames = traceback.extract_tb(record.exc_info[2])
            said["error"] = record.exc_info[0].__name__
            said["at"] = [f"{frame.filename.rpartition('/src/')[2]}:{frame.lineno}" for frame in frames[-8:]]
        return json.dumps(said, ensure_ascii=False)


def set_up_logs(form: Literal["text", "json"]) -> None:
    """Have everything logged on standard error; requests too where a program reads it."""
    handler = logging.StreamHandler()
    handler.setFormatter(JsonLines() if form == "json" else logging.Formatter("%(levelname)s %(name)s: %(message)s"))
    logging.basicConfig(level=logging.WARNING, handlers=[handler], force=True)
    logging.getLogger("obento.requests").setLevel(logging.INFO if form == "json" else logging.WARNING)
