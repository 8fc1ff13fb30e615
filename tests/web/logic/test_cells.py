"""The packed cells of a class, as the canvas takes them apart (features/results/cells.ts)."""

from __future__ import annotations

import base64
import json
import random
import struct

import pytest

from tests.web.logic.conftest import Logic

UNPACK = "const grid = logic.cells.unpackCells(Uint8Array.from(atob(a[0]), (c) => c.charCodeAt(0)).buffer);"


def packed(cases: int, rows: list[dict[str, str]]) -> str:
    """Rows of cells by letter, in the layout that `packed_cells` of the server documents."""
    head_rows, body = [], bytearray()
    for row in rows:
        names = ""
        for letter in "funs":
            plane = bytearray(-(-cases // 8))
            for i, cell in enumerate(row["cells"]):
                if cell == letter:
                    plane[i >> 3] |= 1 << (i & 7)
            if any(plane):
                names += letter
                body += plane
        head_rows.append({"id": int(row["id"]), "name": row["name"], "planes": names})
    head = json.dumps({"cases": cases, "rows": head_rows, "labels": [], "groups": {}}).encode()
    return base64.b64encode(struct.pack("<I", len(head)) + head + body).decode()


@pytest.mark.parametrize("cases", [1, 7, 8, 9, 16, 63, 256, 1000])
def test_every_cell_comes_out_as_it_went_in(logic: Logic, cases: int) -> None:
    source = random.Random(cases)
    rows = [
        {"id": str(n), "name": f"Ömer {n} 😀", "cells": "".join(source.choice("pppfuns") for _ in range(cases))}
        for n in range(12)
    ]
    body = "return grid.rows.map((r) => [...Array(grid.cases).keys()].map((i) => logic.cells.cellOf(r, i)).join(''))"
    assert logic.run(UNPACK + body, packed(cases, rows)) == [r["cells"] for r in rows]


def test_failures_count_whatever_is_not_right_but_was_compared(logic: Logic) -> None:
    cells = ["pfun", "sfpn", "ppps", "uuuu"]
    rows = [{"id": str(n), "name": "", "cells": text} for n, text in enumerate(cells)]
    got = logic.run(UNPACK + "return [...logic.cells.failuresOf(grid)]", packed(4, rows))
    assert got == [sum(text[i] in "fus" for text in cells) for i in range(4)]


def test_a_row_without_planes_is_right_everywhere(logic: Logic) -> None:
    rows = [{"id": "4", "name": "all right", "cells": "p" * 20}]
    got = logic.run(
        UNPACK + "return [grid.rows[0].data.length, logic.cells.cellOf(grid.rows[0], 19)]", packed(20, rows)
    )
    assert got == [0, "p"]


def test_names_survive_in_any_script(logic: Logic) -> None:
    names = ["Zoë Ó Dálaigh", "陳大文", "ا ب", "a" * 300]
    rows = [{"id": str(n), "name": name, "cells": "p"} for n, name in enumerate(names)]
    assert logic.run(UNPACK + "return grid.rows.map((r) => r.name)", packed(1, rows)) == names
