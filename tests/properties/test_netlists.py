"""Random netlists, written in every form that people hand them in, against a naive evaluation gate by gate.

The evaluator below knows nothing of ours: three values by the tables of IEEE 1364-2005 (7-3 and 7-4), in the order of a
worklist."""

from __future__ import annotations

import random
from collections.abc import Callable
from dataclasses import dataclass

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.handin import HandinFile

KINDS = ("and", "nand", "or", "nor", "xor", "xnor", "not", "buf")


@dataclass(frozen=True)
class Netlist:
    inputs: list[str]
    outputs: list[str]
    gates: list[tuple[str, str, list[str]]]
    """Kind, output wire, input wires."""


@st.composite
def netlists(draw: st.DrawFn) -> Netlist:
    source = random.Random(draw(st.integers(0, 1 << 30)))
    inputs = [f"i{n}" for n in range(source.randint(2, 7))]
    wires, gates = list(inputs), []
    for n in range(source.randint(3, 40)):
        kind = source.choice(KINDS)
        width = 1 if kind in ("not", "buf") else source.choice((2, 2, 2, 3, 4, 5))
        gates.append((kind, f"w{n}", [source.choice(wires) for _ in range(width)]))
        wires.append(f"w{n}")
    outputs = []
    for n in range(source.randint(1, 4)):
        gates.append(("buf", f"o{n}", [source.choice(wires)]))
        outputs.append(f"o{n}")
    source.shuffle(gates)
    return Netlist(inputs, outputs, gates)


def gate(kind: str, values: list[str]) -> str:
    """One gate on 0, 1 and x."""
    if kind in ("and", "nand"):
        result = "0" if "0" in values else "x" if "x" in values else "1"
    elif kind in ("or", "nor"):
        result = "1" if "1" in values else "x" if "x" in values else "0"
    elif kind in ("xor", "xnor"):
        result = "x" if "x" in values else str(values.count("1") % 2)
    else:
        result = values[0]
    inverted = kind in ("nand", "nor", "xnor", "not")
    return {"0": "1", "1": "0", "x": "x"}[result] if inverted else result


def evaluated(netlist: Netlist, case: str) -> dict[str, str]:
    """The outputs for one digit an input."""
    values = dict(zip(netlist.inputs, case, strict=True))
    waiting = list(netlist.gates)
    while waiting:
        rest = []
        for kind, out, ins in waiting:
            if all(i in values for i in ins):
                values[out] = gate(kind, [values[i] for i in ins])
            else:
                rest.append((kind, out, ins))
        assert len(rest) < len(waiting)
        waiting = rest
    return {o: values[o] for o in netlist.outputs}


# The forms.

SIGNS = {"and": "&", "nand": "&", "or": "|", "nor": "|", "xor": "^", "xnor": "^", "not": "&", "buf": "&"}


def as_gates(n: Netlist) -> str:
    """The form in which benchmark circuits are published: a port list, declarations, named primitives."""
    wires = [o for _, o, _ in n.gates if o not in n.outputs]
    lines = [
        f"module net ({','.join([*n.inputs, *n.outputs])});",
        f"input {','.join(n.inputs)};",
        f"output {','.join(n.outputs)};",
    ]
    lines += [f"wire {','.join(wires)};"] if wires else []
    lines += [
        f"{kind} {kind.upper()}{len(ins)}_{i} ({out}, {', '.join(ins)});" for i, (kind, out, ins) in enumerate(n.gates)
    ]
    return "\n".join([*lines, "endmodule"])


def as_gates_undeclared(n: Netlist) -> str:
    """Wires left to be declared by their use, gates without names, several in one statement."""
    body = "\n".join(f"  {kind} ({out}, {', '.join(ins)});" for kind, out, ins in n.gates)
    return f"module net(input {', '.join(n.inputs)}, output {', '.join(n.outputs)});\n{body}\nendmodule"


def as_assignments(n: Netlist) -> str:
    """The form that synthesis writes: `assign` with operators, names in backslashes."""

    def name(wire: str) -> str:
        return wire if wire in n.inputs or wire in n.outputs else f"\\{wire}$ "

    lines = [
        f"module net({', '.join([*n.inputs, *n.outputs])});",
        f"  input {', '.join(n.inputs)};",
        f"  output {', '.join(n.outputs)};",
    ]
    lines += [f"  wire {name(o)};" for _, o, _ in n.gates if o not in n.outputs]
    for kind, out, ins in n.gates:
        value = f" {SIGNS[kind]} ".join(name(i) for i in ins)
        lines.append(f"  assign {name(out)} = {'~' if kind in ('nand', 'nor', 'xnor', 'not') else ''}({value});")
    return "\n".join([*lines, "endmodule"])


def as_cells(n: Netlist) -> str:
    """The form that mapping writes: instances of cells by pin names, with delays and timing that are to be passed
    over."""
    cells: dict[str, str] = {}
    lines = []
    for i, (kind, out, ins) in enumerate(n.gates):
        cell = f"{kind.upper()}{len(ins)}X1"
        pins = [f"A{p}" for p in range(len(ins))]
        cells[cell] = (
            f"`celldefine\nmodule {cell} (Y, {', '.join(pins)});\n output Y;\n input {', '.join(pins)};\n {kind} #(0.1,"
            f" 0.2) (Y, {', '.join(pins)});\n specify (A0 => Y) = (0.1:0.2:0.3, 0.2);"
            " endspecify\nendmodule\n`endcelldefine\n"
        )
        lines.append(f"  {cell} U{i} ( .Y({out}), {', '.join(f'.{p}({w})' for p, w in zip(pins, ins, strict=True))} );")
    wires = [o for _, o, _ in n.gates if o not in n.outputs]
    head = (
        f"module net ( {', '.join([*n.inputs, *n.outputs])} );\n  input {', '.join(n.inputs)};\n  output"
        f" {', '.join(n.outputs)};\n"
    )
    head += f"  wire   {', '.join(wires)};\n" if wires else ""
    return "`timescale 1ns / 10ps\n" + "".join(cells.values()) + head + "\n".join(lines) + "\nendmodule\n"


def as_processes(n: Netlist) -> str:
    """A process for each gate."""
    lines = [f"module net(input {', '.join(n.inputs)}, output reg {', '.join(n.outputs)});"]
    lines += [f"  reg {o};" for _, o, _ in n.gates if o not in n.outputs]
    for kind, out, ins in n.gates:
        value = f" {SIGNS[kind]} ".join(ins)
        lines.append(f"  always @* {out} = {'~' if kind in ('nand', 'nor', 'xnor', 'not') else ''}({value});")
    return "\n".join([*lines, "endmodule"])


def as_wiring(n: Netlist) -> str:
    body = "\n".join(f"  {out} <- {kind}({', '.join(ins)})" for kind, out, ins in n.gates)
    return f"wiring net\n  takes {', '.join(n.inputs)}\n  gives {', '.join(n.outputs)}\n{body}\nend\n"


def as_vhdl(n: Netlist) -> str:
    """Concurrent assignments; outputs are not read, so that any edition takes it."""
    ports = "; ".join([f"{', '.join(n.inputs)} : in std_logic", f"{', '.join(n.outputs)} : out std_logic"])
    wires = [o for _, o, _ in n.gates if o not in n.outputs]
    lines = [
        "library ieee;",
        "use ieee.std_logic_1164.all;",
        f"entity net is port ({ports}); end entity;",
        "architecture wires of net is",
    ]
    lines += [f"  signal {', '.join(wires)} : std_logic;"] if wires else []
    lines.append("begin")
    for kind, out, ins in n.gates:
        if kind in ("nand", "nor", "xnor"):
            plain = {"nand": " and ", "nor": " or ", "xnor": " xor "}[kind]
            value = f"not ({plain.join(ins)})"
        else:
            value = f"not {ins[0]}" if kind == "not" else ins[0] if kind == "buf" else f" {kind} ".join(ins)
        lines.append(f"  {out} <= {value};")
    return "\n".join([*lines, "end architecture;"])


FORMS: dict[str, tuple[str, Callable[[Netlist], str]]] = {
    "gates": ("net.v", as_gates),
    "undeclared": ("net.v", as_gates_undeclared),
    "assignments": ("net.v", as_assignments),
    "cells": ("net.v", as_cells),
    "processes": ("net.v", as_processes),
    "wiring": ("net.wiring", as_wiring),
    "vhdl": ("net.vhd", as_vhdl),
}


def expectation_of(netlist: Netlist, cases: list[str]) -> Expectation:
    """A spec that lists what the evaluator says."""
    rows = [f"{' '.join(netlist.inputs)} | {' '.join(netlist.outputs)}"]
    rows += [f"{' '.join(case)} | {' '.join(evaluated(netlist, case).values())}" for case in cases]
    listed = "\n".join(rows)
    ports = f"[ports]\nin = '{' '.join(netlist.inputs)}'\nout = '{' '.join(netlist.outputs)}'\n"
    loaded = open_spec(
        "s.toml",
        f"obento = 'spec/1'\nunit = 'net'\n{ports}[expect]\n[cases]\nlisted = '''\n{listed}\n'''\n".encode(),
        {},
    )
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    return loaded.expectation


def digits(expectation: Expectation, netlist: Netlist, form: str) -> str:
    """The verdicts of a netlist written in some form."""
    name, write = FORMS[form]
    found = check_handin(expectation, [HandinFile(name, write(netlist).encode())])
    assert found.status == "checked" and found.verdict is not None, [str(m) for m in found.messages]
    assert not any(m.code == "implicit-wire" for m in found.messages)  # nothing is misspelt in them
    return found.verdict.digits()


def all_cases(netlist: Netlist) -> list[str]:
    width = len(netlist.inputs)
    return [format(n, f"0{width}b") for n in range(1 << width)]


@pytest.mark.parametrize("form", FORMS)
@settings(max_examples=25, deadline=None)
@given(netlist=netlists())
def test_every_form_gives_what_the_gates_give(form: str, netlist: Netlist) -> None:
    cases = all_cases(netlist)
    assert digits(expectation_of(netlist, cases), netlist, form) == "1" * len(cases)


@pytest.mark.parametrize("form", FORMS)
@settings(max_examples=25, deadline=None)
@given(netlist=netlists(), seed=st.integers(0, 1 << 30))
def test_with_unknown_inputs_too(form: str, netlist: Netlist, seed: int) -> None:
    source = random.Random(seed)
    cases = sorted({"".join(source.choice("01x") for _ in netlist.inputs) for _ in range(20)})
    assert digits(expectation_of(netlist, cases), netlist, form) == "1" * len(cases)


@pytest.mark.parametrize("form", FORMS)
@settings(max_examples=25, deadline=None)
@given(netlist=netlists(), seed=st.integers(0, 1 << 30))
def test_a_gate_exchanged_fails_just_where_it_shows(form: str, netlist: Netlist, seed: int) -> None:
    source = random.Random(seed)
    at = source.randrange(len(netlist.gates))
    kind, out, ins = netlist.gates[at]
    other = source.choice([k for k in (KINDS[6:] if len(ins) == 1 else KINDS[:6]) if k != kind])
    wrong = Netlist(netlist.inputs, netlist.outputs, [*netlist.gates[:at], (other, out, ins), *netlist.gates[at + 1 :]])
    cases = all_cases(netlist)
    expected = "".join(str(int(evaluated(netlist, case) == evaluated(wrong, case))) for case in cases)
    assert digits(expectation_of(netlist, cases), wrong, form) == expected
