"""Painting waves (features/waves/paint.ts): what is asked of a canvas, and what stands on it."""

from __future__ import annotations

from typing import Any

import pytest

from tests.web.logic.conftest import Logic


def line(name: str, kind: str, width: int, values: list[str], **more: Any) -> dict[str, Any]:
    at = [10 * i for i in range(len(values))]
    blank = {
        "radix": "bin",
        "signed": False,
        "at": at,
        "values": values,
        "expected_at": at,
        "expected": values,
        "bad": [],
    }
    return {"name": name, "kind": kind, "width": width} | blank | more


def waves(*lines: dict[str, Any], cells: str = "ppp") -> dict[str, Any]:
    return {
        "sequences": [{"name": "s", "first": 0, "length": len(cells), "wrong": 0}], "sequence": 0, "offset": 0,
        "step_time": 10, "actions": "." * len(cells), "cells": cells, "clock": "", "waves": list(lines), "inner": [],
        "ended": -1, "trouble": "",
    }  # fmt: skip


RECORD = """
const calls = []
const p = new Proxy({ measureText: (t) => ({ width: 7 * t.length }) }, {
  get: (own, name) => (name in own ? own[name] : (...args) => calls.push([name, ...args])),
  set: (own, name, value) => ((own[name] = value), true),
})
const tracks = logic.paint.tracksOf(a[0], () => a[2] ?? 'bin')
const view = { start: 0, scale: 4, width: 200, end: 10 * a[0].cells.length, ...a[1] }
"""
PAINT = RECORD + "logic.paint.paintTracks(p, a[0], tracks, view, 0, 500); return calls"


def texts(calls: list[list[Any]]) -> list[str]:
    return [c[1] for c in calls if c[0] == "fillText"]


def test_an_output_has_two_tracks_and_what_is_expected_stands_above(logic: Logic) -> None:
    w = waves(line("a", "in", 1, ["0"]), line("y", "out", 1, ["0"]), line("s", "inner", 4, ["0000"]))
    got = logic.run("return logic.paint.tracksOf(a[0], () => 'bin').map((t) => [t.line.name, t.what, t.top])", w)
    assert [g[:2] for g in got] == [["a", "only"], ["y", "want"], ["y", "got"], ["s", "only"]]
    tops = [g[2] for g in got]
    assert tops == sorted(tops) and len(set(tops)) == 4


def test_the_height_holds_the_last_track(logic: Logic) -> None:
    w = waves(line("a", "in", 1, ["0"]), line("y", "out", 1, ["0"]))
    body = """
    const t = logic.paint.tracksOf(a[0], () => 'bin')
    return [logic.paint.heightOf(t), t.at(-1).top + t.at(-1).high]
    """
    height, end = logic.run(body, w)
    assert end < height < end + 20
    assert logic.run("return logic.paint.heightOf([])") == 40


@pytest.mark.parametrize(
    ("radix", "value", "read"),
    [
        ("bin", "1011", "1011"),
        ("hex", "1011", "b"),
        ("signed", "1011", "-5"),
        ("dec", "1011", "11"),
        ("dec", "1x11", "1x11"),
    ],
)
def test_a_bus_carries_its_value(logic: Logic, radix: str, value: str, read: str) -> None:
    assert texts(logic.run(PAINT, waves(line("s", "inner", 4, [value, value, value])), {}, radix))[0] == read


def test_a_value_without_room_is_an_ellipsis_and_without_any_is_none(logic: Logic) -> None:
    wide = waves(line("s", "inner", 64, ["1" * 64, "0" * 64, "10" * 32]))
    assert set(texts(logic.run(PAINT, wide, {"scale": 3}))) == {"…"}
    assert texts(logic.run(PAINT, wide, {"scale": 0.9})) == []


def test_what_is_not_seen_is_not_painted(logic: Logic) -> None:
    values = [f"{i % 16:04b}" for i in range(1000)]
    w = waves(line("s", "inner", 4, values), cells="p" * 1000)
    seen = texts(logic.run(PAINT, w, {"start": 5000, "scale": 5}))
    assert seen[:4] == [f"{i % 16:04b}" for i in range(500, 504)] and len(seen) <= 6
    body = RECORD + "logic.paint.paintTracks(p, a[0], tracks, view, 400, 500); return calls.length"
    assert logic.run(body, w, {}) < 30, "the grid alone: the track lies above the stretch"


def test_changes_too_dense_to_be_told_apart_are_one_block(logic: Logic) -> None:
    dense = waves(line("a", "in", 1, ["0", "1"] * 5000), cells="p" * 10000)
    calls = logic.run(PAINT, dense, {"scale": 0.001, "width": 100})
    assert len(calls) < 400, "ten thousand changes on a hundred pixels"


def test_a_wrong_stretch_is_shaded_where_it_is(logic: Logic) -> None:
    right = logic.run(PAINT, waves(line("y", "out", 1, ["0", "1", "0"])), {})
    wrong = logic.run(PAINT, waves(line("y", "out", 1, ["0", "1", "0"], bad=[[1, 1]])), {})
    more = [c for c in wrong if c not in right]
    assert [c[0] for c in more] == ["fillRect", "fillRect"]
    assert {(c[1], c[3]) for c in more} == {(40, 40)}, "from 10 to 20 at 4 pixels per unit of time"


def test_each_level_of_a_bit_is_drawn_otherwise(logic: Logic) -> None:
    def lines_of(value: str) -> list[Any]:
        calls = logic.run(PAINT, waves(line("a", "in", 1, [value] * 3)), {})
        return [c for c in calls if c[0] in ("lineTo", "moveTo", "setLineDash")]

    drawn = [lines_of(v) for v in "01xz-"]
    assert all(drawn[i] != drawn[k] for i in range(5) for k in range(i))


def test_the_axis_tells_where_it_goes_astray_from_where_it_follows(logic: Logic) -> None:
    body = RECORD + "logic.paint.paintAxis(p, a[0], view); return calls"
    astray = logic.run(body, waves(cells="pfp"), {})
    follows = logic.run(body, waves(cells="pFp"), {})
    assert "strokeRect" not in [c[0] for c in astray]
    assert "strokeRect" in [c[0] for c in follows]


def test_a_canvas_is_as_sharp_as_the_screen(logic: Logic) -> None:
    body = """
    const c = document.createElement('canvas')
    logic.canvas.prepare(c, 300, 40)
    return [c.width, c.height, window.devicePixelRatio]
    """
    width, height, ratio = logic.run(body)
    assert (width, height) == (round(300 * ratio), round(40 * ratio))
