"""Rules on how a hand-in is built: counted as written, weighed in the marks."""

from __future__ import annotations

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.judging.marking import Earned, mark_of
from obento.core.check.judging.rules import RuleResult
from obento.core.handin import HandinFile

HEAD = "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'a b c'\nout = 'y'\n[expect]\nequations = 'y = a & b | !c'\n"


def checked(text: str, rules: str, name: str = "a.v", marks: str = "") -> tuple[dict[str, RuleResult], Earned]:
    loaded = open_spec("s.toml", f"{HEAD}[rules]\n{rules}\n[marks]\ntotal = 10\n{marks}".encode(), {})
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    outcome = check_handin(loaded.expectation, [HandinFile(name, text.encode())])
    assert outcome.verdict is not None, outcome.messages
    return {r.rule: r for r in outcome.rules}, mark_of(loaded.expectation, outcome.verdict, outcome.rules)


NESTED = "wiring m\n  takes a, b, c\n  gives y\n  y <- or(and(a, b), not(c))\nend\n"
APART = "wiring m\n  takes a, b, c\n  gives y\n  t <- and(a, b)\n  n <- not(c)\n  y <- or(t, n)\nend\n"


@pytest.mark.parametrize(
    ("name", "text", "gates", "levels"),
    [
        ("a.wiring", NESTED, 3, 2),  # gates on one line are gates all the same
        ("a.wiring", APART, 3, 2),
        ("a.v", "module m(input a, b, c, output y); wire n, t; not(n, c); and(t, a, b); or(y, t, n); endmodule", 3, 2),
        ("a.v", "module m(input a, b, c, output y); assign y = a & b | ~c; endmodule", 3, 2),
        ("a.v", "module m(input a, b, c, output y); assign y = a & b | ~(~(~c)); endmodule", 5, 4),
        ("a.v", "module m(input a, b, c, output y); wire t, n; nand(t, a, b); nand(y, t, c); endmodule", 2, 2),
        (
            "a.v",
            (
                "module i(input p, output q); not(q, p); endmodule module m(input a, b, c, output y); wire n; i u(c,"
                " n); assign y = a & b | n; endmodule"
            ),
            3,
            2,
        ),
    ],
)
def test_gates_and_levels_are_counted_as_written(name: str, text: str, gates: int, levels: int) -> None:
    rules, _ = checked(text, f"max_gates = {gates}\nmax_levels = {levels}", name)
    assert all(r.ok for r in rules.values()), rules
    tight, _ = checked(text, f"max_gates = {gates - 1}\nmax_levels = {levels - 1}", name)
    assert not any(r.ok for r in tight.values()), tight


@pytest.mark.parametrize(
    ("body", "ok"),
    [
        ("assign y = a & b | ~c;", True),
        ("reg r; always @* r = a & b | ~c; assign y = r;", False),
        ("assign y = ({1'b0, a} + {1'b0, b} > 1) | ~c;", False),
        ("assign y = c ? a & b : 1'b1;", True),
    ],
)
def test_no_behaviour(body: str, ok: bool) -> None:
    rules, _ = checked(f"module m(input a, b, c, output y); {body} endmodule", "behaviour = false")
    assert rules["behaviour"].ok is ok


def test_levels_begin_anew_after_what_remembers() -> None:
    text = (
        "module m(input a, b, c, output y); reg q; wire t = a & b; always @(posedge a) q <= t; assign y = t | ~c;"
        " endmodule"
    )
    rules, _ = checked(text, "max_levels = 2")
    assert rules["max_levels"].ok


def test_broken_rules_cost_what_the_spec_says() -> None:
    rules = "only_gates = ['nand']\nmax_gates = 2"
    wrong = "module m(input a, b, c, output y); assign y = a & b | ~c; endmodule"
    assert checked(wrong, rules)[1] == Earned(10.0)
    earned = checked(wrong, rules, marks="rules = { only_gates = 3, max_gates = 0.5 }")[1]
    assert (
        earned.value == 6.5
        and "3.5 off: uses and (1), not (1), or (1), not among nand; 3 gates, allowed are 2" in earned.reason
    )
    assert checked(wrong, rules, marks="rules = { only_gates = 30 }")[1].value == 0.0
    assert (
        checked(
            "module m(input a, b, c, output y); assign y = a & b; endmodule",
            "max_gates = 0",
            marks="rules = { max_gates = 1 }",
        )[1].value
        == 5.25  # five of eight, less one
    )


@pytest.mark.parametrize(
    ("rules", "marks", "told"),
    [
        ("max_gates = 2", "rules = { only_gate = 1 }", "there is no rule `only_gate`"),
        ("max_gates = 2", "rules = { max_levels = 1 }", "the rule `max_levels` is not set"),
        ("max_gates = 2", "rules = { max_gates = -1 }", "points that breaking them costs"),
        ("max_gates = 2", "rules = 3", "points that breaking them costs"),
        ("max_levels = true", "", "`max_levels` is a whole number"),
        ("behaviour = 'no'", "", "`behaviour` is true or false"),
    ],
)
def test_mistakes_in_rules_are_told(rules: str, marks: str, told: str) -> None:
    loaded = open_spec("s.toml", f"{HEAD}[rules]\n{rules}\n[marks]\n{marks}\n".encode(), {})
    assert loaded.expectation is None and any(told in m.text and m.line > 6 for m in loaded.messages), [
        str(m) for m in loaded.messages
    ]
