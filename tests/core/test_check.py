"""Whole hand-ins against a spec: verdicts, clusters, conditions, bindings, and what cannot be checked."""

from __future__ import annotations

from pathlib import Path

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Checked
from obento.core.check.report import handin_report, report_head
from obento.core.check.running.binding import is_near
from obento.core.handin import HandinFile


@pytest.fixture(scope="module")
def interlock(root: Path) -> Expectation:
    loaded = open_spec("interlock.toml", (root / "demo/lab1/interlock.toml").read_bytes(), {})
    assert loaded.expectation is not None
    return loaded.expectation


@pytest.fixture(scope="module")
def root() -> Path:
    return Path(__file__).resolve().parents[2]


def spec(text: str, **others: bytes) -> Expectation:
    loaded = open_spec("s.toml", text.encode(), {k.replace("_", "."): v for k, v in others.items()})
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    return loaded.expectation


def two(expectation_text: str = "y = a & b", i: str = "a b", o: str = "y", rest: str = "") -> Expectation:
    return spec(
        f"obento = 'spec/1'\nunit = 'm'\n[ports]\nin = '{i}'\nout = '{o}'\n[expect]\nequations ="
        f" '''\n{expectation_text}\n'''\n{rest}"
    )


def check(expectation: Expectation, text: str | bytes, name: str = "a.v", **more: str) -> Checked:
    data = text if isinstance(text, bytes) else text.encode()
    files = [HandinFile(name, data)] + [HandinFile(k.replace("_", "."), v.encode()) for k, v in more.items()]
    return check_handin(expectation, files)


GOOD = "module m(input a, b, output y); assign y = a & b; endmodule"


def cells(c: Checked) -> str:
    assert c.verdict is not None, [str(m) for m in c.messages]
    return c.verdict.cells()


def test_each_kind_of_cell() -> None:
    expectation = spec(
        "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'a b'\nout = 'y'\n[expect]\ntable = '''\na b | y\n0 0 | 0\n0 1 |"
        " 0\n1 0 | -\n1 1 | 1\n'''\n"
    )
    text = "module m(input a, b, output y); assign y = a ? 1'bx : b; endmodule"
    assert cells(check(expectation, text)) == "pfnu"
    # Fresh, t stays x with b = 1; reached from b = 0 it swings for ever.
    loop = "module m(input a, b, output y); wire t; assign t = b & ~t; assign y = (a & b) | (t & ~a); endmodule"
    assert cells(check(expectation, loop)) == "puns"
    swings = "module m(input a, b, output y); assign y = (b === 1'b1) ? (y !== 1'b1) : 1'b0; endmodule"
    assert cells(check(expectation, swings)) == "psns"


def test_a_hand_in_that_remembers_is_caught_from_its_neighbours() -> None:
    """Right fresh in every case, wrong after some change: a start value hides a latch."""
    hidden = "module m(input a, b, output reg y); initial y = 0; always @* if (a & b) y = 1; endmodule"
    c = check(two(), hidden)
    assert c.verdict is not None and c.engine == "event-driven"
    assert (
        cells(c) == "pfff"[:1] + cells(c)[1:]
        and c.verdict.run_of(1) == "after a[0]"
        and c.verdict.run_of(2) == "after b[0]"
    )
    assert c.verdict.digits() == "1001"
    assert [f.kind for f in c.findings][:2] == ["latch", "remembers"]  # the cause first
    stale = "module m(input a, b, output reg y); always @(a) y = a & b; endmodule"
    assert check(two(), stale).verdict.digits() == "1100"  # type: ignore[union-attr]
    deaf = "library ieee; use ieee.std_logic_1164.all; entity m is port (a, b : in std_logic; y : out std_logic); end;"
    deaf += " architecture r of m is begin process (a) begin y <= a and b; end process; end;"
    assert check(two(), deaf, "m.vhd").verdict.digits() == "1100"  # type: ignore[union-attr]
    assert check(two(), GOOD).engine == "levelized"


ADVICE = [
    ("always @* if (a) y = b;", ["latch"]),
    ("always @* case ({a, b}) 0: y = 0; 1: y = 0; 2: y = 0; endcase", ["latch"]),
    ("always @* case ({a, b}) 0: y = 0; 1: y = 0; 2: y = 0; 3: y = 1; endcase", []),
    ("always @(a) y = a & b;", ["sensitivity"]),
    ("always @(a or b) begin y = 0; if (a) y = b; end", []),
    ("integer i; always @* begin y = 1; for (i = 0; i < 2; i = i + 1) y = y & (i ? a : b); end", []),
    ("always @(posedge a) if (b) y <= b;", []),
]


@pytest.mark.parametrize(("body", "codes"), ADVICE)
def test_advice_on_what_is_forgotten(body: str, codes: list[str]) -> None:
    c = check(two(), f"module m(input a, b, output reg y);\n  {body}\nendmodule")
    assert [m.code for m in c.messages if m.severity == "warning"] == codes
    assert all(m.line == 2 for m in c.messages)


def test_x_and_z_may_be_set_and_expected() -> None:
    expectation = spec(
        "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'e d'\nout = 'y'\n[expect]\n[cases]\nlisted = '''\ne d | y\n0 1 |"
        " z\n1 1 | 1\n1 x | x\n'''\n"
    )
    assert check(expectation, "module m(input e, d, output y); bufif1 (y, d, e); endmodule").verdict.digits() == "111"  # type: ignore[union-attr]
    assert check(expectation, "module m(input e, d, output y); assign y = e & d; endmodule").verdict.digits() == "011"  # type: ignore[union-attr]


def test_clusters_go_by_behaviour_whatever_the_language(interlock: Expectation, root: Path) -> None:
    by_name = {}
    for path in sorted((root / "demo/lab1/drop-1").glob("*")):
        if path.is_dir():
            files = [HandinFile(p.name, p.read_bytes()) for p in path.iterdir() if p.is_file()]
            c = check_handin(interlock, files)
            by_name[path.name] = c.verdict.cluster if c.verdict else c.status
    wrong = {by_name[n] for n in ("04302", "greta.lund", "Diaz_Amaro_04328", "04341", "lina.abdal")}
    assert len(wrong) == 1  # three in Verilog, one a wiring list
    right = {by_name[n] for n in ("Varga_Ilse_04107", "04120", "brenn_okafor", "ola.frey", "04458")}
    assert len(right) == 1 and right != wrong  # one of them is VHDL, though its file is called .v
    assert by_name["Sund_Ravi_04445"] == "unreadable"


def test_the_failing_cases_as_the_shortest_condition(interlock: Expectation) -> None:
    text = (
        "module lock_interlock(input level_eq, gate_shut, boat_clear, key, output open_ok, alarm); assign open_ok ="
        " level_eq & gate_shut & boat_clear & key; assign alarm = key & ~open_ok & level_eq; endmodule"
    )
    c = check(interlock, text)
    assert [f.text for f in c.findings] == [
        "alarm lacks a product term: it should be 1 whenever level_eq = 0 and key = 1",
        "alarm is wrong whenever level_eq = 0 and key = 1: 4 of 16",
    ]
    assert c.findings[0].line == 1
    by_value = spec(
        "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'n[4]:dec'\nout = 'y'\n[expect]\nequations = 'y = n[0]'\n"
    )
    c = check(by_value, "module m(input [3:0] n, output y); assign y = n[0] ^ (n > 4 && n < 9); endmodule")
    assert c.findings[0].text == "y is wrong whenever n = 5 to 8: 4 of 16"


BINDINGS = [
    ("module m(input A, b, output y); assign y = A & b; endmodule", "a", "A", "case"),
    ("module m(input first, b, output y); assign y = first & b; endmodule", "a", "first", "alias"),
    ("module m(input i_a, b, output y); assign y = i_a & b; endmodule", "a", "i_a", "near"),
    ("module m(input q, b, output y); assign y = q & b; endmodule", "a", "q", "only"),
    ("module M(input a, b, output y); assign y = a & b; endmodule", "m", "M", "case"),
    ("module other(input a, b, output y); assign y = a & b; endmodule", "m", "other", "only"),
]


@pytest.mark.parametrize(("text", "ours", "theirs", "how"), BINDINGS)
def test_names_are_bound_and_recorded(text: str, ours: str, theirs: str, how: str) -> None:
    lenient = two(rest="[match]\naliases = { a = ['first'] }\n")
    c = check(lenient, text)
    assert c.status == "checked" and c.verdict is not None and c.verdict.digits() == "1111"
    assert (ours, theirs, how) in [(b.ours, b.theirs, b.how) for b in c.binding]
    exact = check(two(rest="[match]\nnames = 'exact'\n"), text)
    assert exact.status in ("ports", "no_unit")


def test_near_misses_need_four_letters_and_one_candidate() -> None:
    assert is_near("boat_clear", "boat_claer") and is_near("level", "levl") and is_near("key", "key_i")
    assert not is_near("key", "kei") and not is_near("data1", "data2") and not is_near("open_ok", "alarm")
    c = check(
        two("y = dataa & datab", "dataa datab"),
        "module m(input datac, datad, output y); assign y = datac & datad; endmodule",
    )
    assert c.status == "ports"


def digits(checked: Checked) -> str:
    """The digits of a verdict."""
    assert checked.verdict is not None
    return checked.verdict.digits()


def test_buses_bind_to_single_bits_and_back() -> None:
    bus = two("y = q[2] & !q[0]", "q[3]")
    assert digits(check(bus, "module m(input q2, q1, q0, output y); assign y = q2 & ~q0; endmodule")) == "1" * 8
    singles = two("y = q2 & !q0", "q2 q1 q0")
    text = "module m(input [2:0] q, output y); assign y = q[2] & ~q[0]; endmodule"
    assert digits(check(singles, text)) == "1" * 8
    ascending = two("y = q[2] & !q[0]", "q[3]")
    text = "module m(input [0:2] q, output y); assign y = q[0] & ~q[2]; endmodule"  # leftmost is the most significant
    assert check(ascending, text).verdict.digits() == "1" * 8  # type: ignore[union-attr]


UNCHECKABLE = [
    ("", "a.v", "empty"),
    ("   \n", "a.v", "empty"),
    (b"\x7fELF\x00\x01\x02\x00\x00", "a.v", "unreadable"),
    (b"%PDF-1.4\n\x00\x01", "a.pdf", "unreadable"),
    ("module m(input a, b, output y) assign y = a endmodule", "a.v", "unreadable"),
    ("entity m is\n port (a : in bit);\nend m;\narchitecture r of m is begin end r;", "a.v", "ports"),
    ("module zzz(input p, output q, r, s); assign q = p; endmodule", "a.v", "no_unit"),
    ("module m; wire t; endmodule", "a.v", "ports"),
    ("module m(input a, output y); assign y = a; endmodule", "a.v", "ports"),
    ("module m(input [1:0] a, input b, output y); assign y = b; endmodule", "a.v", "ports"),
    ("module m(input a, output b, y); assign y = a; assign b = a; endmodule", "a.v", "ports"),
]


@pytest.mark.parametrize(("text", "name", "status"), UNCHECKABLE)
def test_what_cannot_be_checked_is_said(text: str | bytes, name: str, status: str) -> None:
    c = check(two(), text, name)
    assert c.status == status, [str(m) for m in c.messages]
    assert any(m.severity == "error" for m in c.messages)


def test_texts_in_odd_encodings_and_with_odd_suffixes() -> None:
    for data in (
        GOOD.encode("utf-16"),
        b"\xef\xbb\xbf" + GOOD.encode(),
        GOOD.replace("\n", "\r\n").encode(),
        ("// caf\xe9\n" + GOOD).encode("latin-1"),
    ):
        assert check(two(), data).status == "checked"
    renamed = check(two(), GOOD, "a.txt")
    assert renamed.status == "checked" and renamed.messages[0].code == "wrong-suffix"
    long_line = check(two(), GOOD + " // " + "x" * 3_000_000)
    assert long_line.status == "checked"


def test_two_versions_of_a_unit_are_not_chosen_between() -> None:
    c = check(two(), GOOD, b_v=GOOD.replace("&", "|"))
    assert c.status == "no_unit" and any(m.code == "unit-twice" for m in c.messages)
    assert check(two(), GOOD, b_v=GOOD).status == "checked"  # the same text twice


def test_escaped_names_of_single_bits() -> None:
    text = (
        "module m(\\q[2] , \\q[1] , \\q[0] , y); input \\q[2] , \\q[1] , \\q[0] ; output y; assign y = \\q[2]  & ~"
        " \\q[0] ; endmodule"
    )
    assert check(two("y = q[2] & !q[0]", "q[3]"), text).verdict.digits() == "1" * 8  # type: ignore[union-attr]


def test_a_bench_beside_the_design_does_no_harm() -> None:
    bench = (
        'module tb; reg a, b; wire y; m dut(a, b, y); initial begin a = 0; #10 b = 1; $display("%b", y); $finish; end'
        " endmodule"
    )
    assert check(two(), GOOD + "\n" + bench).status == "checked"
    broken = check(two(), GOOD, tb_v="module tb; reg a initial a = ; endmodule")
    assert broken.status == "checked" and any(m.severity == "warning" for m in broken.messages)


def test_rules_are_counted_on_their_own_structure() -> None:
    expectation = two(rest="[rules]\nonly_gates = ['nand']\nmax_gates = 1\nlanguages = ['verilog']\n")
    good = "module m(input a, b, output y); wire n; nand (n, a, b); nand (y, n, n); endmodule"
    c = check(expectation, good)
    assert [(r.rule, r.ok) for r in c.rules] == [("languages", True), ("only_gates", True), ("max_gates", False)]
    assert [r.ok for r in check(expectation, GOOD).rules] == [True, False, True]


def test_the_result_in_json() -> None:
    expectation = two()
    wrong = check(expectation, "module m(input A, b, output y); assign y = A | b; endmodule")
    data = report_head(expectation) | {"handins": [handin_report(expectation, "s07", wrong, "failing")]}
    handin = data["handins"][0]
    assert data["obento"] == "result/1" and data["spec"]["cases"] == 4 and data["spec"]["digest"].startswith("sha256:")
    assert (handin["status"], handin["passed"], handin["total"], handin["verdict"], handin["cells"]) == (
        "checked",
        2,
        4,
        "1001",
        "pffp",
    )
    assert handin["cases"][0] == {
        "index": 1,
        "group": None,
        "run": "fresh",
        "in": {"a": "0", "b": "1"},
        "expected": {"y": "0"},
        "actual": {"y": "1"},
        "pass": False,
        "wrong": ["y"],
    }
    assert handin["binding"][0] == {"ours": "a", "theirs": "A", "how": "case"}
    assert len(handin_report(expectation, "s", wrong, "all")["cases"]) == 4
