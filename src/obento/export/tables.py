"""CSV (RFC 4180)."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Sequence

_FORMULA = re.compile(r"^[=+\-@\t\r]")


def neutral(value: object) -> str:
    """A cell that no spreadsheet takes for a formula; plain numbers stay as they are."""
    text = "" if value is None else str(value)
    if _FORMULA.match(text) and not re.fullmatch(r"[+-]?\d+(\.\d+)?", text):
        return "'" + text
    return text


def rows_to_csv(header: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """A CSV text with every cell made harmless."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow([neutral(h) for h in header])
    for row in rows:
        writer.writerow([neutral(cell) for cell in row])
    return out.getvalue()
