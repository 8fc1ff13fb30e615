"""Benches as the source of verdicts, and students' benches tried on designs."""

from __future__ import annotations

import pytest

from obento.core.check.check import LoadedSpec, check_handin, open_spec
from obento.core.check.expectation.bench import assertions_of
from obento.core.handin import HandinFile
from tests.core.clocked import LANGUAGES, VERILOG, VHDL, cells, judge, ready

PRINTING = """module tb; reg clk = 0, rst = 1, en = 0; wire [1:0] q; m dut(.clk(clk), .rst(rst), .en(en), .q(q));
  task try(input ok, input [8*8:1] what); if (ok) $display("ok %0s", what); else $display("bad %0s", what); endtask
  initial begin
    #1 try(q === 0, "reset"); rst = 0; en = 1;
    #1 clk = 1; #1 try(q === 1, "count"); clk = 0; en = 0;
    #1 clk = 1; #1 try(q === 1, "hold");
    $finish;
  end
endmodule
"""
ASSERTING = """library ieee; use ieee.std_logic_1164.all;
entity tb is end;
architecture t of tb is signal clk, en : std_logic := '0'; signal rst : std_logic := '1';
signal q : std_logic_vector(1 downto 0); begin
  dut: entity work.m port map (clk, rst, en, q);
  process begin
    wait for 1 ns;
    assert q = "00" report "no reset" severity error;
    rst <= '0'; en <= '1'; wait for 1 ns; clk <= '1'; wait for 1 ns;
    assert q = "01" report "no count" severity error;
    report "half way";
    en <= '0'; clk <= '0'; wait for 1 ns; clk <= '1'; wait for 1 ns;
    assert q = "01" report "no hold" severity failure;
    wait;
  end process;
end;
"""
SPEC = 'obento = "spec/1"\nunit = "m"\n[ports]\nin = "clk rst en"\nout = "q[2]"\n[expect]\nbench = "{bench}"\n{rest}'
PATTERNS = "[bench]\npass = 'ok (?P<check>.*)'\nfail = 'bad (?P<check>.*)'\n"


def by(bench: str, text: str, rest: str = "", **others: str) -> LoadedSpec:
    beside = {bench: text.encode()} | {k.replace("_", "."): v.encode() for k, v in others.items()}
    return open_spec("s.toml", SPEC.format(bench=bench, rest=rest).encode(), beside)


def patterned() -> LoadedSpec:
    return by("tb.v", PRINTING, 'model = "ref.v"\n' + PATTERNS, ref_v=VERILOG)


@pytest.mark.parametrize("name", LANGUAGES)
def test_checks_by_patterns_are_those_that_the_reference_passes(name: str) -> None:
    expectation = ready(patterned())
    assert expectation.cases.labels == ("reset", "count", "hold")
    checked = judge(expectation, LANGUAGES[name], name)
    assert cells(checked) == "ppp" and checked.output == "ok reset\nok count\nok hold\n"


def test_what_a_bench_says_is_wrong_or_never_comes_to() -> None:
    expectation = ready(patterned())
    deaf = judge(expectation, VERILOG.replace("else if (en)", "else"))
    assert cells(deaf) == "ppf" and deaf.findings[0].text == "bad hold"
    ends = judge(expectation, VERILOG.replace("endmodule", "always @(q) if (q === 1) $finish;\nendmodule"))
    assert cells(ends) == "pss"
    loops = judge(expectation, VERILOG.replace("endmodule", "wire a; assign a = q === 1 ? ~a : 0;\nendmodule"))
    assert cells(loops) == "pss"
    assert "does not come to its end" in loops.findings[0].text


@pytest.mark.parametrize("name", LANGUAGES)
def test_assertions_are_checks_by_their_lines(name: str) -> None:
    expectation = ready(by("tb.vhd", ASSERTING))
    assert expectation.cases.labels == ("tb.vhd:8", "tb.vhd:10", "tb.vhd:11", "tb.vhd:13")
    assert cells(judge(expectation, LANGUAGES[name], name)) == "pppp"


def test_severities_decide() -> None:
    expectation = ready(by("tb.vhd", ASSERTING))
    deaf = judge(expectation, VHDL.replace("if en = '1' then n <= n + 1; end if;", "n <= n + 1;"), "a.vhd")
    # the failure ends the run: what came before it is not known to be right to the end, and says so
    assert cells(deaf)[3] == "f" and deaf.findings[0].text == "tb.vhd:13: no hold"
    silent = judge(expectation, VERILOG.replace("q <= 0", "q <= 2"))
    assert cells(silent)[0] == "f"
    fatal = assertions_of(
        HandinFile(
            "t.v",
            b'module t; // $error\n initial begin $error("a"); // $fatal\n $display("$fatal"); $fatal; end endmodule',
        )
    )
    assert fatal == ["t.v:2", "t.v:3"]


def test_ports_must_have_the_names_that_the_bench_uses() -> None:
    checked = judge(ready(patterned()), VERILOG.replace("clk", "clock"))
    assert checked.status == "ports" and "must be called `clk` for the bench" in checked.messages[-1].text


MISTAKES = [
    (by("tb.v", PRINTING), "no-checks"),
    (by("tb.v", PRINTING, 'model = "ref.v"\n' + PATTERNS, ref_v=VERILOG.replace("q + 1", "q + 2")), "bad-model"),
    (by("tb.v", PRINTING.replace("m dut", "other dut"), PATTERNS), "bad-bench"),
    (by("tb.v", "module tb; initial begin endmodule"), "bad-bench"),
    (by("tb.v", PRINTING, "[bench]\npass = '('\n"), "bad-pattern"),
    (by("tb.v", PRINTING, "[bench]\nright = 'tb.v'\n"), "bench-kind"),
    (by("nix.v", "", "equations = 'q = 0'\n"), "bench-alone"),
]


@pytest.mark.parametrize(("loaded", "code"), MISTAKES)
def test_every_mistake_is_told(loaded: LoadedSpec, code: str) -> None:
    assert loaded.expectation is None and code in [m.code for m in loaded.messages], [str(m) for m in loaded.messages]


HANDED_IN = 'obento = "spec/1"\nunit = "tb"\n[bench]\nright = ["ref.v"]\nwrong = ["deaf.v", "late.v"]\nfail = "bad"\n'


def test_a_students_bench_accepts_the_right_and_rejects_the_wrong() -> None:
    beside = {
        "ref.v": VERILOG,
        "deaf.v": VERILOG.replace("else if (en)", "else"),
        "late.v": VERILOG.replace("posedge clk", "negedge clk"),
    }
    expectation = ready(open_spec("s.toml", HANDED_IN.encode(), {k: v.encode() for k, v in beside.items()}))
    assert expectation.cases.labels == ("accepts ref.v", "rejects deaf.v", "rejects late.v")
    assert cells(judge(expectation, PRINTING)) == "ppp"
    assert cells(judge(expectation, ASSERTING, "tb.vhd")) == "ppp"
    lazy = judge(expectation, PRINTING.replace('#1 try(q === 1, "hold");', ""))
    assert cells(lazy) == "pfp" and lazy.findings[0].text == "it accepts the wrong design deaf.v"
    strict = judge(expectation, PRINTING.replace("q === 0", "q === 3"))
    assert cells(strict) == "fpp" and "rejects the right design ref.v" in strict.findings[0].text
    endless = judge(expectation, PRINTING.replace("$finish;", "forever #1 en = ~en;").replace("bad", "worse"))
    assert set(cells(endless)) == {"s"}
    assert judge(expectation, "module other(input a); endmodule").status == "no_unit"


def test_the_students_own_copy_of_the_design_gives_way() -> None:
    beside = {
        "ref.v": VERILOG,
        "deaf.v": VERILOG.replace("else if (en)", "else"),
        "late.v": VERILOG.replace("posedge clk", "negedge clk"),
    }
    expectation = ready(open_spec("s.toml", HANDED_IN.encode(), {k: v.encode() for k, v in beside.items()}))
    checked = check_handin(expectation, [HandinFile("tb.v", PRINTING.encode()), HandinFile("m.v", VERILOG.encode())])
    assert cells(checked) == "ppp"


def test_what_a_hand_in_prints_is_no_evidence() -> None:
    expectation = ready(patterned())
    liar = VERILOG.replace("else if (en)", "else").replace(
        "endmodule", 'initial $display("ok hold");\nalways @(q) $display("ok hold");\nendmodule'
    )
    checked = judge(expectation, liar)
    assert cells(checked) == "ppf" and "ok hold" in checked.output
    slanderer = VERILOG.replace("endmodule", 'initial begin $display("bad reset"); $error("bad count"); end\nendmodule')
    assert cells(judge(expectation, slanderer)) == "ppp"


def test_a_hand_in_that_ends_the_run_passes_nothing_by_that() -> None:
    expectation = ready(by("tb.vhd", ASSERTING))
    early = judge(expectation, VERILOG.replace("endmodule", "initial $finish;\nendmodule"))
    assert set(cells(early)) == {"s"} and early.findings[0].text == "the run is ended by a.v:5, not by the bench"


def test_a_bench_that_waits_for_ever_has_checked_nothing_more() -> None:
    waiting = ASSERTING.replace("    report", '    wait until q = "11";\n    report')
    expectation = ready(by("tb.vhd", waiting))
    assert cells(judge(expectation, VERILOG)) == "ppss"
    verilog = (
        "module tb; reg clk = 0, rst = 1, en = 0; wire [1:0] q; m dut(clk, rst, en, q);\n initial begin #1 if (q !== 0)"
        ' $error("a");\n wait (q == 3); if (q !== 3) $error("b"); end\nendmodule\n'
    )
    stuck = judge(ready(by("tb.v", verilog)), VERILOG)
    assert set(cells(stuck)) == {"s"} and "waits for ever" in stuck.findings[0].text
