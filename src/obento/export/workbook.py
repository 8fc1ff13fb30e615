"""Tables as a workbook (Office Open XML, ECMA-376)."""

from __future__ import annotations

import io
from collections.abc import Iterable, Sequence

from openpyxl import Workbook
from openpyxl.cell.cell import ILLEGAL_CHARACTERS_RE
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter

_MOST_WIDE = 40


def rows_to_xlsx(title: str, header: Sequence[str], rows: Iterable[Sequence[object]]) -> bytes:
    """One sheet with a head that stays in sight. Numbers are numbers, everything else is text, never a formula."""
    book = Workbook()
    sheet = book.active
    assert sheet is not None
    sheet.title = "".join(c for c in title if c not in "[]:*?/\\")[:31] or "marks"
    widths = [0] * len(header)
    for number, row in enumerate([header, *rows], 1):
        for column, value in enumerate(row, 1):
            cell = sheet.cell(number, column)
            if isinstance(value, int | float) and not isinstance(value, bool):
                cell.value = value
            else:
                cell.value = ILLEGAL_CHARACTERS_RE.sub("?", str(value))
                cell.data_type = "s"  # whatever it begins with, it is no formula
            if number == 1:
                cell.font = Font(bold=True)
            widths[column - 1] = max(widths[column - 1], len(str(value)))
    for column, width in enumerate(widths, 1):
        sheet.column_dimensions[get_column_letter(column)].width = min(_MOST_WIDE, width + 2)
    sheet.freeze_panes = "A2"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
