"""Cases as data for files against the planes they come from, read one by one."""

from __future__ import annotations

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.check.judging.verdict import Verdict, shown_word
from obento.core.check.report import case_reports
from obento.core.handin import HandinFile
from tests.core.clocked import COUNTER, VERILOG, clocked, ready

WIDE = """obento = "spec/1"
unit = "m"
[ports]
in = "a[9]:hex b[3]"
out = "y[9]:hex s[70] z"
[expect]
equations = '''
y = a + b
s = {70d0, b}
z = a == b
'''
"""
WIDE_UNIT = """module m(input [8:0] a, input [2:0] b, output [8:0] y, output [69:0] s, output z);
  assign y = a[0] ? a - b : a + b;
  assign s = {b, 64'd0, b};
  assign z = b[2] ? 1'bx : a == b;
endmodule
"""


def checked(expectation: Expectation, text: str) -> Verdict:
    verdict = check_handin(expectation, [HandinFile("m.v", text.encode())]).verdict
    assert verdict is not None
    return verdict


@pytest.fixture(scope="module", params=["words", "steps"])
def outcome(request: pytest.FixtureRequest) -> tuple[Expectation, Verdict]:
    if request.param == "words":
        expectation = open_spec("s.toml", WIDE.encode(), {}).expectation
        assert expectation is not None
        return expectation, checked(expectation, WIDE_UNIT)
    expectation = ready(clocked(COUNTER))
    return expectation, checked(expectation, VERILOG.replace("q + 1", "q + 2"))


@pytest.mark.parametrize("some", [slice(0, 3), slice(0, None), slice(40, 5, -2), slice(7, 60, 3)])
def test_each_case_is_what_its_planes_say(outcome: tuple[Expectation, Verdict], some: slice) -> None:
    expectation, verdict = outcome
    cases = range(verdict.count)[some]
    found = list(case_reports(expectation, verdict, cases))
    assert [row["index"] for row in found] == list(cases)
    for case, row in zip(cases, found, strict=True):
        for port in expectation.spec.outputs:
            word, care = expected_word(expectation, port.name, port.width, case, verdict.expected)
            assert row["expected"][port.name] == port.show(word, care)
            assert row["actual"][port.name] == port.show(shown_word(verdict, port, case))
            output = verdict.outputs[port.name]
            wrong = (output.failed | output.undefined | output.stopped) >> case & 1
            assert (port.name in row["wrong"]) == bool(wrong)
        first = 0
        for port in expectation.spec.inputs:
            if port.name != "clk":
                assert row["in"][port.name] == port.show(expectation.cases.word(case, first, port.width))
            first += port.width
        assert row["pass"] == bool(verdict.right >> case & 1)
