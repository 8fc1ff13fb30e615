"""Painting the rows of a class (features/results/paintRows.ts): what is in sight, and where a point of it is."""

from __future__ import annotations

from typing import Any

import pytest

from tests.web.logic.conftest import Logic

PAINT = """
const calls = []
const p = new Proxy({}, {
  get: (own, name) => (name in own ? own[name] : (...args) => calls.push([name, ...args])),
  set: (own, name, value) => ((own[name] = value), true),
})
const [cases, rows, more] = a
const data = { planes: '', data: [], status: 'checked', mark: 7.5 }
const picture = {
  grid: { cases, labels: [], rows: [], groups: {} }, rows: rows.map((r) => ({ ...data, ...r })),
  failures: new Uint16Array(cases), chosen: null, cursor: null, cell: 18, x: 0, y: 0, width: 600, height: 400, ...more,
}
logic.paintRows.paintRows(p, picture)
return calls
"""


def rows(count: int) -> list[dict[str, Any]]:
    return [{"id": n, "name": f"Person {n}"} for n in range(count)]


def texts(calls: list[list[Any]]) -> list[str]:
    return [c[1] for c in calls if c[0] == "fillText"]


def test_every_row_has_its_name_and_mark(logic: Logic) -> None:
    shown = texts(logic.run(PAINT, 4, rows(2), {}))
    assert shown == ["failing each case", "mark", "Person 0", "7.5", "Person 1", "7.5"]


def test_a_mark_that_cannot_be_given_is_held_and_a_long_name_is_cut(logic: Logic) -> None:
    shown = texts(logic.run(PAINT, 4, [{"id": 1, "name": "x" * 40, "status": "unreadable"}], {}))
    assert shown[2:] == ["x" * 26 + "…", "held"]


def test_only_what_is_in_sight_is_painted(logic: Logic) -> None:
    calls = logic.run(PAINT, 65536, rows(300), {"cell": 2, "x": 40000, "y": 2200})
    shown = texts(calls)[2::2]
    assert shown[0] == "Person 100" and len(shown) <= 16
    assert len(calls) < 16 * 200 + 400, "a few hundred cells across, not 65,536"


def test_labels_stand_only_over_cells_large_enough(logic: Logic) -> None:
    grid = {"cases": 3, "labels": ["0 0", "0 1", "1 0"], "rows": [], "groups": {}}
    assert {"00", "01", "10"} <= set(texts(logic.run(PAINT, 3, rows(1), {"grid": grid})))
    assert not {"00", "01", "10"} & set(texts(logic.run(PAINT, 3, rows(1), {"grid": grid, "cell": 8})))


def test_half_a_million_cases_are_no_trouble(logic: Logic) -> None:
    assert texts(logic.run(PAINT, 500_000, rows(1), {"cell": 2}))[2] == "Person 0"


@pytest.mark.parametrize(("x", "y", "scroll_x", "scroll_y"), [(0, 0, 0, 0), (7, 33, 0, 0), (7, 33, 540, 330)])
def test_a_point_is_in_the_row_and_case_that_is_painted_there(
    logic: Logic, x: int, y: int, scroll_x: int, scroll_y: int
) -> None:
    whole = logic.run("return logic.paintRows.sizeOf(0, 0, 18)")
    names, heads = whole["width"] - 56, whole["height"] - 8
    at = {"cell": 18, "x": scroll_x, "y": scroll_y}
    found = logic.run("return logic.paintRows.placeAt(a[0], a[1], a[2])", names + x, heads + y, at)
    assert found == {"row": (y + scroll_y) // 22, "index": (x + scroll_x) // 18}


def test_left_of_the_cells_is_no_case(logic: Logic) -> None:
    assert logic.run("return logic.paintRows.placeAt(20, 200, { cell: 18, x: 0, y: 0 }).index") < 0
