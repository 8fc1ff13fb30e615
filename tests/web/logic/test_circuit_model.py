"""What the drawing looks up in a circuit (features/circuit/model.ts, lines.ts, symbols.ts)."""

from __future__ import annotations

from typing import Any

import pytest

from tests.web.logic.conftest import Logic


def pin(number: int, side: str, name: str, bits: list[int]) -> dict[str, Any]:
    return {"id": number, "side": side, "name": name, "bits": bits, "inverted": False, "edge": ""}


def part(number: int, kind: str, pins: list[dict[str, Any]], within: int = 0, line: int = 3) -> dict[str, Any]:
    return {
        "id": number, "kind": kind, "label": "", "unit": "", "within": within, "file": "a.v", "line": line,
        "end_line": line, "pins": pins,
    }  # fmt: skip


# a and b go into an AND inside a box; it and c into an OR; that to y. d is an input nobody uses.
CIRCUIT = {
    "trouble": "",
    "parts": [
        part(1, "input", [pin(10, "out", "a", [0])]),
        part(2, "input", [pin(20, "out", "b", [1])]),
        part(3, "input", [pin(30, "out", "c", [2])]),
        part(4, "input", [pin(40, "out", "d", [3])]),
        part(5, "unit", [pin(50, "in", "p", [0])]),
        part(6, "and", [pin(60, "in", "", [0]), pin(61, "in", "", [1]), pin(62, "out", "", [4])], within=5),
        part(7, "or", [pin(70, "in", "", [4]), pin(71, "in", "", [2]), pin(72, "out", "", [5])], line=9),
        part(8, "output", [pin(80, "in", "y", [5])]),
    ],
    "wires": [
        {"start": 10, "end": 60, "label": ""},
        {"start": 20, "end": 61, "label": ""},
        {"start": 62, "end": 70, "label": ""},
        {"start": 30, "end": 71, "label": ""},
        {"start": 72, "end": 80, "label": ""},
    ],
    "names": {"0": "a", "1": "b", "2": "c", "3": "d", "4": "box.both", "5": "y"},
    "cases": [0, 3, 7],
    "digits": {"0": "01x", "1": "011", "4": "01x"},
    "explains": [],
    "likeness": [],
}
AT = "const at = logic.model.index(a[0]);"


def test_the_fan_in_of_an_output_is_what_it_depends_on_and_the_boxes_around(logic: Logic) -> None:
    got = logic.run(AT + "return [...logic.model.fanIn(at, 80)].sort()", CIRCUIT)
    assert got == [1, 2, 3, 5, 6, 7, 8]


def test_a_loop_ends_the_walk(logic: Logic) -> None:
    loop = CIRCUIT | {"wires": [*CIRCUIT["wires"], {"start": 72, "end": 61, "label": ""}]}
    assert 7 in logic.run(AT + "return [...logic.model.fanIn(at, 62)]", loop)


def test_digits_of_a_pin_leftmost_first_with_constants(logic: Logic) -> None:
    bus = pin(1, "out", "", [0, -1, -2, -3, -4, 4])
    read = "return [0, 1, 2].map((i) => logic.model.digitsOf(a[1], a[0].digits, i))"
    assert logic.run(read, CIRCUIT, bus) == ["0zx100", "1zx101", "xzx10x"]


def test_a_digit_nobody_recorded_is_unknown(logic: Logic) -> None:
    assert logic.run("return logic.model.digitsOf(a[1], a[0].digits, 1)", CIRCUIT, pin(1, "out", "", [99])) == "x"


@pytest.mark.parametrize(
    ("bits", "names", "read"),
    [
        ([0, 1, 2, 3], {"0": "s[0]", "1": "s[1]", "2": "s[2]", "3": "s[3]"}, "s"),
        ([1, 2], {"1": "s[1]", "2": "s[2]"}, "s[2..1]"),
        ([0, 1], {"0": "a", "1": "b"}, "2 wires"),
        ([0], {"0": "carry"}, "carry"),
        ([0, 1], {"0": "a"}, "and in line 3"),
    ],
)
def test_a_wire_has_a_name(logic: Logic, bits: list[int], names: dict[str, str], read: str) -> None:
    circuit = CIRCUIT | {"parts": [part(6, "and", [pin(62, "out", "", bits)])], "wires": [], "names": names}
    assert logic.run(AT + "return logic.model.wireName(at, at.pin.get(62))", circuit) == read


def test_only_inner_wires_have_given_names_without_their_box(logic: Logic) -> None:
    read = AT + "return [62, 10].map((p) => logic.model.givenName(at, at.pin.get(p)))"
    assert logic.run(read, CIRCUIT) == ["both", ""]


def test_a_level_is_told_from_digits(logic: Logic) -> None:
    got = logic.run("return ['0', '1', 'x', 'z', '0101', '01x1', 'zz'].map(logic.lines.levelOf)")
    assert got == ["0", "1", "x", "z", "bus", "bus-x", "bus-x"]


def test_an_unknown_wire_runs_in_zigzag_to_the_same_end(logic: Logic) -> None:
    points = [{"x": 0, "y": 0}, {"x": 40, "y": 0}, {"x": 40, "y": 20}]
    plain, zigzag = logic.run("return ['1', 'x'].map((l) => logic.lines.path(a[0], l))", points)
    assert plain == "M0 0L40 0L40 20"
    assert zigzag.startswith("M0 0L") and zigzag.endswith("L40 20") and zigzag.count("L") > 10
    assert logic.run("return logic.lines.path([], 'x')") == ""


def test_a_bus_writes_its_value_where_there_is_most_room(logic: Logic) -> None:
    points = [{"x": 0, "y": 0}, {"x": 10, "y": 0}, {"x": 10, "y": 50}, {"x": 70, "y": 50}]
    assert logic.run("return logic.lines.roomiest(a[0])", points) == {"x": 40, "y": 50, "length": 60}


def test_inverted_gates_are_spoken_by_their_own_name(logic: Logic) -> None:
    said = "return [['and', true], ['or', true], ['xor', false], ['not', false], ['buf', true]].map(([k, i]) => "
    assert logic.run(said + "logic.symbols.spoken(k, '', i))") == ["NAND", "NOR", "XOR", "NOT", "buffer"]


@pytest.mark.parametrize("kind", ["and", "or", "xor", "not", "buf"])
def test_an_outline_fills_its_box_up_to_the_wire(logic: Logic, kind: str) -> None:
    box = """
    const svg = document.body.appendChild(document.createElementNS('http://www.w3.org/2000/svg', 'svg'))
    const path = svg.appendChild(document.createElementNS('http://www.w3.org/2000/svg', 'path'))
    path.setAttribute('d', logic.symbols.outline(a[0], 8, 60, 40))
    const b = path.getBBox()
    svg.remove()
    return [b.x, b.y, b.x + b.width, b.y + b.height]
    """
    left, top, right, bottom = logic.run(box, kind)
    assert (left, top, bottom) == pytest.approx((8, 0, 40), abs=7)
    assert right == pytest.approx(60, abs=0.01), "the wire begins at the tip"
