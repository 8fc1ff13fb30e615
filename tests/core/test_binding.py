"""Which name of a hand-in is which of the spec's (core/check/running/binding)."""

from __future__ import annotations

import itertools
from dataclasses import replace

import pytest

from obento.core.check.check import open_spec
from obento.core.check.running.binding import Binding, bind_ports, choose_name, chosen_files, is_near
from obento.core.spec.model import Clock, Spec
from tests.core.designs import build


def spec(i: str, o: str = "y", rest: str = "") -> Spec:
    equations = "; ".join(f"{name.split('[')[0]} = 0" for name in o.split())
    text = f'obento = "spec/1"\nunit = "m"\n[ports]\nin = "{i}"\nout = "{o}"\n[expect]\nequations = "{equations}"\n'
    loaded = open_spec("s.toml", (text + rest).encode(), {})
    assert loaded.spec is not None, [m.text for m in loaded.messages]
    return loaded.spec


def bound(wanted: Spec, ports: str) -> tuple[dict[str, str], Binding]:
    binding = bind_ports(wanted, build(f"module m({ports}); endmodule"))
    return {b.ours: f"{b.theirs} ({b.how})" for b in binding.ports}, binding


def distance_at_most_one(a: str, b: str) -> bool:
    """One letter more, less, other, or two neighbours exchanged: by trying all."""
    letters = set(a + b)
    tried = {a}
    for i in range(len(a) + 1):
        tried |= {a[:i] + c + a[i:] for c in letters}
        if i < len(a):
            tried |= {a[:i] + a[i + 1 :]} | {a[:i] + c + a[i + 1 :] for c in letters}
        if i + 1 < len(a):
            tried.add(a[:i] + a[i + 1] + a[i] + a[i + 2 :])
    return b in tried


def test_a_slip_of_typing_is_one_edit() -> None:
    words = ["".join(w) for n in (4, 5) for w in itertools.product("ab", repeat=n)]
    for a, b in itertools.product(words, words):
        assert is_near(a, b) == distance_at_most_one(a, b), (a, b)


@pytest.mark.parametrize(
    ("a", "b", "near"),
    [
        ("level_eq", "LevelEq", True),
        ("key", "key_i", True),
        ("key", "i_key", True),
        ("out_alarm", "alarm_o", True),
        ("gate_shut", "gate_shutt", True),
        ("alarm", "alram", True),
        ("alarm", "alert", False),
        ("key", "kay", False),  # three letters: too short for a guess
        ("data1", "data2", False),  # another number is another port
        ("data1", "dat1", True),
        ("data1", "data", False),
    ],
)
def test_near_misses(a: str, b: str, near: bool) -> None:
    assert is_near(a, b) is near
    assert is_near(b, a) is near


@pytest.mark.parametrize(
    ("names", "only", "chosen"),
    [
        (["m", "M"], [], ("m", "exact")),
        (["M"], [], ("M", "case")),
        (["M", "_m"], [], None),
        (["motor", "other"], [], None),
        (["other"], ["other"], ("other", "only")),
        (["other", "another"], ["other", "another"], None),
    ],
)
def test_the_unit_that_is_meant(names: list[str], only: list[str], chosen: tuple[str, str] | None) -> None:
    found = choose_name("m", names, spec("a"), only)
    assert (found and (found.theirs, found.how)) == chosen


def test_by_alias_before_by_likeness() -> None:
    wanted = spec("gate", rest='[match]\naliases = { gate = ["shutter"] }\n')
    found = choose_name("gate", ["shutter", "gates"], wanted)
    assert found is not None and (found.theirs, found.how) == ("shutter", "alias")


def test_strict_names_take_nothing_but_themselves() -> None:
    strict = spec("a b", rest='[match]\nnames = "exact"\n')
    assert choose_name("m", ["M"], strict) is None
    names, binding = bound(strict, "input A, b, output y")
    assert names == {"b": "b (exact)", "y": "y (exact)"}
    assert binding.problems == ["input `a` (1 bit) is missing; did you mean `A`?"]


def test_every_way_of_being_the_same_port() -> None:
    wanted = spec("level gate[4] key", rest='[match]\naliases = { key = ["lock"] }\n')
    names, binding = bound(wanted, "input LEVEL, input [3:0] gaet, input lock, output q")
    assert names == {"level": "LEVEL (case)", "gate": "gaet (near)", "key": "lock (alias)", "y": "q (only)"}
    assert not binding.problems and not binding.floating


def test_what_two_could_mean_is_bound_to_neither() -> None:
    names, binding = bound(spec("alarm"), "input alarms, alarmx, output y")
    assert names == {"y": "y (exact)"}
    assert binding.problems[0].startswith("input `alarm` (1 bit) is missing")


def test_direction_and_width_have_to_fit() -> None:
    _, binding = bound(spec("a b[4]", "y z[2]"), "output a, input [2:0] b, output [1:0] z, inout y")
    assert sorted(binding.problems) == [
        "`a` must be an input, but is an output",
        "`b` must be 4 bits wide, but is 3 bits",
        "`y` must be an output, but is an inout",
    ]


def test_a_bus_in_single_bits_and_single_bits_in_a_bus() -> None:
    names, binding = bound(spec("q[3]", "y0 y1"), "input q2, q1, q0, output [1:0] y")
    assert names == {"q": "q2 q1 q0 (bits)", "y0": "y[0] (bits)", "y1": "y[1] (bits)"}
    assert {k: (p.name, i) for k, (p, i) in binding.bits.items()} == {
        ("q", 0): ("q0", 0),
        ("q", 1): ("q1", 0),
        ("q", 2): ("q2", 0),
        ("y0", 0): ("y", 0),
        ("y1", 0): ("y", 1),
    }


def test_a_bus_whose_bits_are_not_all_there_is_missing() -> None:
    names, binding = bound(spec("q[3]"), "input q2, q0, output y")
    assert "q" not in names
    assert binding.problems == ["input `q` (3 bits) is missing; not used so far: q2, q0"]


def test_ports_that_nobody_drives_are_told() -> None:
    _, binding = bound(spec("a"), "input a, spare, output y, extra")
    assert [p.name for p in binding.floating] == ["spare"]


def test_the_clock_by_any_usual_name() -> None:
    clocked = replace(spec("a ticks"), clock=Clock("ticks", "rise"))
    names, _ = bound(clocked, "input a, clk, other, output y")
    assert names["ticks"] == "clk (near)"
    names, _ = bound(clocked, "input a, tick, clk, output y")
    assert "ticks" not in names, "two that could be meant"


def test_chosen_files_are_told_from_chosen_names() -> None:
    assert chosen_files({"@file:adder": "new/adder.v", "key": "k"}) == {"adder": "new/adder.v"}
