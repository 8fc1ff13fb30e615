"""What the drawing shows is what the design does: every symbol's output follows from what stands at its inputs."""

from __future__ import annotations

from functools import reduce

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from obento.core.check.check import check_handin, open_spec
from obento.core.check.inspecting.wires import Inside, look_inside
from obento.core.circuit.model import CONSTANTS, Part, Pin
from obento.core.handin import HandinFile
from tests.core.clocked import ready

SPEC = (
    "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'a[2] b[2] c'\nout = 'y[2] z'\n[expect]\nequations = '''\ny = a ^"
    " b\nz = c\n'''\n"
)
EXPECTATION = ready(open_spec("s.toml", SPEC.encode(), {}))
LEAVES = ["a", "b", "t", "{c, a[1]}", "2'b10", "{2{c}}"]


def words(depth: int) -> st.SearchStrategy[str]:
    leaf = st.sampled_from(LEAVES)
    if depth == 0:
        return leaf
    inner = words(depth - 1)
    return st.one_of(
        leaf,
        st.builds(lambda a, op, b: f"({a} {op} {b})", inner, st.sampled_from(["&", "|", "^", "~^", "+", "-"]), inner),
        st.builds(lambda a: f"(~{a})", inner),
        st.builds(lambda s, a, b: f"({s} ? {a} : {b})", st.sampled_from(["c", "a[0]", "b[1]"]), inner, inner),
    )


@st.composite
def designs(draw: st.DrawFn) -> str:
    t, y, z = (
        draw(words(2).filter(lambda e: "t" not in e)),
        draw(words(3)),
        draw(st.sampled_from(["a[0] & ~t[1]", "^t", "c | &b", "!(t[0] | c)", "t == b"])),
    )
    unit = "module part(input [1:0] p, output [1:0] q); assign q = ~p; endmodule "
    inner = "wire [1:0] n; part u(t, n); " if draw(st.booleans()) else "wire [1:0] n = t; "
    body = f"wire [1:0] t; assign t = {t}; {inner}assign y = {y} ^ n; assign z = {z};"
    return f"{unit}module m(input [1:0] a, b, input c, output [1:0] y, output z); {body} endmodule"


def digits(found: Inside, pin: Pin, at: int) -> list[str]:
    return [found.digits[b][at] if b >= 0 else CONSTANTS[b] for b in pin.bits]


def computed(part: Part, ins: list[list[str]]) -> list[str] | None:
    """What a symbol makes of known inputs; None where it has no rule here."""
    width = len(part.pins[-1].bits)
    numbers = [[int(d) for d in x] for x in ins]
    match part.kind:
        case "and" | "or" | "xor":
            of = {"and": lambda p, q: p & q, "or": lambda p, q: p | q, "xor": lambda p, q: p ^ q}[part.kind]
            return [str(reduce(of, column)) for column in zip(*numbers, strict=True)]
        case "not" | "buf":
            return [str(d) for d in numbers[0]]
        case "select":
            return [str(d) for d in (numbers[1] if any(numbers[0]) else numbers[2])]
        case "operator" if part.label in ("+", "-"):
            a, b = (sum(d << i for i, d in enumerate(x)) for x in numbers)
            total = a + b if part.label == "+" else a - b
            return [str(total >> i & 1) for i in range(width)]
    return None


@settings(max_examples=120, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(designs())
def test_symbols_do_what_they_say(text: str) -> None:
    found = look_inside(EXPECTATION, [HandinFile("m.v", text.encode())], (), {}, list(range(32)), {})
    assert isinstance(found, Inside), (text, found)
    seen = 0
    for at in range(32):
        for part in found.circuit.parts:
            if part.kind in ("unit", "input", "output", "process"):
                continue
            ins = [
                ["10"[int(d)] if n.inverted and d in "01" else d for d in digits(found, n, at)]
                for n in part.pins
                if n.side == "in"
            ]
            if any(d not in "01" for x in ins for d in x):
                continue
            expected = computed(part, ins)
            if expected is None:
                continue
            out = part.pins[-1]
            if out.inverted:
                expected = ["10"[int(d)] for d in expected]
            seen += 1
            assert digits(found, out, at) == expected, (text, part)
    assert seen


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(designs())
def test_looking_changes_nothing(text: str) -> None:
    """Taps and watched wires leave what the design does as it is, and outputs on the drawing are those of the check."""
    files = [HandinFile("m.v", text.encode())]
    verdict = check_handin(EXPECTATION, files).verdict
    found = look_inside(EXPECTATION, files, (), {}, list(range(32)), {})
    assert verdict is not None and isinstance(found, Inside)
    for part in found.circuit.parts:
        if part.kind == "output":
            for i, bit in enumerate(part.pins[0].bits):
                one, zero = verdict.shown[part.label, i]
                for at in range(32):
                    d = found.digits[bit][at] if bit >= 0 else CONSTANTS[bit]
                    assert (d == "1") == bool(one >> at & 1 and not zero >> at & 1)


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(designs())
def test_wires_that_explain_are_never_claimed_of_right_ones(text: str) -> None:
    files = [HandinFile("m.v", text.encode())]
    verdict = check_handin(EXPECTATION, files).verdict
    found = look_inside(EXPECTATION, files, (), {}, [0], {})
    assert verdict is not None and isinstance(found, Inside)
    if verdict.right == EXPECTATION.cases.full:
        assert found.explains == []
