"""Traces, the dumps made of them, dumps read as evidence; another library reads ours, and we read its."""

from __future__ import annotations

import io
from pathlib import Path

import pytest
from vcd import VCDWriter
from vcd.reader import TokenKind, tokenize

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.inspecting.trace import BACK, EDGE, STEP, Trace, to_vcd, trace_handin
from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.sim.bench.vcd_read import BadDump, read_dump
from obento.core.simulate import Options, simulate
from obento.core.values import to_digits
from tests.core.clocked import COUNTER, LANGUAGES, VERILOG, cells, clocked, ready, steps

ROWS = steps("clk rst en | q\n. 1 0 | 0\nc 0 1 | 1\nc 0 1 | 2\nr 0 1 | 3\n. 0 0 | 3\nf 0 0 | 3")
INNER = (
    VERILOG.replace("output reg [1:0] q);", "output [1:0] q);\n  reg [1:0] n; assign q = n;")
    .replace("q <= 0", "n <= 0")
    .replace("q <= q + 1", "n <= n + 1")
)


def trace(text: str, name: str = "a.v", expect: str = ROWS, wanted: tuple[str, ...] = (), sequence: int = 0) -> Trace:
    found = trace_handin(ready(clocked(expect)), [HandinFile(name, text.encode())], (), {}, sequence, wanted)
    assert found is not None
    return found


def test_every_change_at_its_moment() -> None:
    waves = {w.name: w for w in trace(VERILOG).waves}
    assert (waves["clk"].at, waves["clk"].values) == (
        [0, STEP + EDGE, STEP + BACK, 2 * STEP + EDGE, 2 * STEP + BACK, 3 * STEP + EDGE, 5 * STEP + EDGE],
        list("0101010"),
    )
    assert (waves["q"].at, waves["q"].values) == (
        [0, STEP + EDGE, 2 * STEP + EDGE, 3 * STEP + EDGE],
        ["00", "01", "10", "11"],
    )
    assert (waves["en"].at, waves["en"].values) == ([0, STEP, 4 * STEP], list("010"))


@pytest.mark.parametrize("name", LANGUAGES)
def test_inner_signals_by_name(name: str) -> None:
    text, inner = {"a.v": (INNER, "n"), "a.vhd": (LANGUAGES["a.vhd"], "n"), "a.wiring": (LANGUAGES["a.wiring"], "n1")}[
        name
    ]
    assert inner in trace(text, name).inner
    wave = next(w for w in trace(text, name, wanted=(inner,)).waves if w.name == inner)
    assert wave.kind == "inner" and len(wave.at) >= 2


def test_a_run_that_ends_says_where() -> None:
    found = trace(VERILOG.replace("endmodule", "wire a; assign a = q == 1 ? ~a : 1'b0;\nendmodule"))
    assert found.ended == 1 and "does not settle" in found.trouble


def changes_by_the_library(text: str) -> dict[str, list[tuple[int, str]]]:
    """Name -> changes, as the other library reads a dump."""
    names: dict[str, str] = {}
    found: dict[str, list[tuple[int, str]]] = {}
    now = 0
    for token in tokenize(io.BytesIO(text.encode())):
        if token.kind is TokenKind.VAR:
            names[token.var.id_code] = token.var.reference
            found[token.var.reference] = []
        elif token.kind is TokenKind.CHANGE_TIME:
            now = token.time_change
        elif token.kind is TokenKind.CHANGE_SCALAR:
            found[names[token.scalar_change.id_code]].append((now, token.scalar_change.value))
        elif token.kind is TokenKind.CHANGE_VECTOR:
            value = token.vector_change.value
            found[names[token.vector_change.id_code]].append((now, value if isinstance(value, str) else bin(value)[2:]))
    return found


def test_our_dump_read_by_another_library() -> None:
    found = trace(INNER, wanted=("n",))
    theirs = changes_by_the_library(to_vcd(found, "m", 6))
    for wave in found.waves:
        widened = [(t, v.rjust(wave.width, "0" if v[0] in "01" else v[0])) for t, v in theirs[wave.name]]
        assert widened == list(zip(wave.at, wave.values, strict=True)), wave.name


def test_a_bench_run_read_by_another_library_and_by_us() -> None:
    bench = (
        'module t; reg [3:0] a; wire b = a[0]; initial begin $dumpfile("d.vcd"); $dumpvars; a = 4\'bxz10; #5 a = 3; #5'
        " a = 4'bz; #5 $finish; end endmodule"
    )
    outcome = simulate([HandinFile("t.v", bench.encode())], lambda text: None, Options(), for_simulation())
    text = outcome.written["d.vcd"]
    theirs = changes_by_the_library(text)
    ours = {v.name: v for v in read_dump(text).variables}
    for name, variable in ours.items():
        times = dict(theirs[name])
        assert [
            to_digits(w, variable.width).lstrip("0") or "0"
            for t, w in zip(variable.at, variable.words, strict=True)
            if t in times
        ][-1] in (
            "zzzz",
            "z",
        )
    assert [to_digits(w, 4) for w in ours["a"].words][-2:] == ["0011", "zzzz"] and ours["a"].at[-2:] == [5, 10]


def library_dump(changes: dict[str, list[tuple[int, str]]], widths: dict[str, int], scope: str = "bench.dut") -> str:
    """A dump written by the other library, as a lab instrument might."""
    out = io.StringIO()
    with VCDWriter(out, timescale="1 ns", date="today") as writer:
        registered = {n: writer.register_var(scope, n, "wire", size=w, init="x") for n, w in widths.items()}
        events = sorted((t, n, v) for n, found in changes.items() for t, v in found)
        for t, n, v in events:
            writer.change(registered[n], t, v if widths[n] == 1 or not v.isdigit() else int(v, 2))
        writer.close(200)
    return out.getvalue()


@pytest.fixture(scope="module")
def interlock() -> Expectation:
    text = (Path(__file__).resolve().parents[2] / "demo/lab1/interlock.toml").read_text(encoding="utf-8")
    loaded = open_spec("s.toml", f'{text}\n[rules]\nlanguages = ["vcd"]\n'.encode(), {})
    return ready(loaded)


def test_a_dump_against_a_truth_table(interlock: Expectation) -> None:
    inputs = [p.name for p in interlock.spec.inputs]
    changes: dict[str, list[tuple[int, str]]] = {n: [] for n in [*inputs, *(p.name for p in interlock.spec.outputs)]}
    for case in range(
        0, interlock.cases.count, 2
    ):  # every second case is shown, outputs a little later, one of them wrong
        for i, name in enumerate(inputs):
            changes[name].append((10 * case, str(interlock.cases.one[i] >> case & 1)))
        for port in interlock.spec.outputs:
            good = interlock.bits[port.name, 0].one >> case & 1
            changes[port.name].append((10 * case + 3, str(good ^ (case == 6 and port.name == "alarm"))))
    dump = library_dump(changes, dict.fromkeys(changes, 1))
    checked = check_handin(interlock, [HandinFile("bench/scope.vcd", dump.encode())])
    assert checked.language == "vcd"
    assert cells(checked) == "".join("s" if i % 2 else "f" if i == 6 else "p" for i in range(16))
    assert checked.findings[0].text == "the dump does not show 8 of 16 cases"


def test_a_dump_against_steps() -> None:
    expectation = ready(clocked(ROWS, rest='[rules]\nlanguages = ["vcd", "verilog"]\n'))
    good = to_vcd(trace(VERILOG), "m", 6)
    assert cells(check_handin(expectation, [HandinFile("x.vcd", good.encode())])) == "pppppp"
    deaf = to_vcd(trace(VERILOG.replace("q + 1", "q + 2")), "m", 6)
    assert cells(check_handin(expectation, [HandinFile("x.vcd", deaf.encode())])) == "pfffff"
    # an instrument's: inputs change with the edge itself, then only half of the steps
    edges = {
        "clk": [(0, "0"), (20, "1"), (30, "0"), (40, "1"), (50, "0")],
        "rst": [(0, "1"), (10, "0")],
        "en": [(0, "0"), (10, "1"), (40, "0")],
        "q": [(0, "00"), (21, "01"), (41, "10")],
    }
    half = library_dump(edges, {"clk": 1, "rst": 1, "en": 1, "q": 2})
    assert cells(check_handin(expectation, [HandinFile("x.vcd", half.encode())])) == "pppsss"


def test_a_dump_is_no_design_unless_the_task_says_so() -> None:
    checked = check_handin(ready(clocked(COUNTER)), [HandinFile("x.vcd", to_vcd(trace(VERILOG), "m", 6).encode())])
    assert checked.status == "no_unit" and checked.messages[0].code == "no-evidence"


BAD_DUMPS = [
    ("hello", 1, "no value change dump"),
    ("$var wire 0 ! a $end\n$enddefinitions $end", 1, "cannot be read"),
    ("$var wire 1 ! a $end\n$enddefinitions $end\n#0\n1?", 4, "code of no variable"),
    ("$var wire 1 ! a $end\n$enddefinitions $end\n#5\n1!\n#3", 5, "time goes back"),
    ("$var wire 4 ! a [x:0] $end\n$enddefinitions $end", 1, "no range"),
    ("$var wire 4 ! a $end\n$enddefinitions $end\n#0\nb12 !", 4, "is no value"),
    ("$var wire 4 ! a $end\n$enddefinitions $end\n#0\nb1", 4, "ends in the middle"),
    ("$enddefinitions $end\n#0\nwhat", 3, "neither a time nor a value"),
]


@pytest.mark.parametrize(("text", "line", "what"), BAD_DUMPS)
def test_a_bad_dump_says_where(text: str, line: int, what: str) -> None:
    with pytest.raises(BadDump) as bad:
        read_dump(text)
    assert what in bad.value.text and bad.value.line == line
