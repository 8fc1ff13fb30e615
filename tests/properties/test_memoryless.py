"""Small designs, most of them without memory: what is taken for a function of its inputs must be one.

The designs of `test_engines` are large, and nearly all of them remember something;
the rules by which a design is taken for
memoryless are tried here, on designs which keep or break them by one word.
"""

from __future__ import annotations

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.core.designs import agree, build, known_cases, levelized, on_timeline

NETS = ["t", "u", "y", "z"]


@st.composite
def values(draw: st.DrawFn, nets: list[str], depth: int = 1) -> str:
    """An expression of two bits over inputs and these nets, or a constant."""
    leaf = draw(st.sampled_from(["a", "b", "{2{c}}", "{c, a[0]}", "2'd1", "2'd2", "2'bx0", *nets, *nets]))
    if not depth or draw(st.booleans()):
        return leaf
    return f"({leaf} {draw(st.sampled_from(['&', '|', '^', '~^', '+', '==']))} {draw(values(nets, depth - 1))})"


@st.composite
def drivers(draw: st.DrawFn, target: str, nets: list[str]) -> tuple[str, bool]:
    """What gives a net its value out of inputs and `nets`, and whether that is a variable."""
    kind = draw(st.sampled_from(["assign", "gates", "always", "always", "always", "always"]))
    if kind == "assign":
        return f"assign {target} = {draw(values(nets, 2))};", False
    if kind == "gates":
        gate = draw(st.sampled_from(["and", "nor", "xor", "nand", "buf"]))
        pin = st.sampled_from(["a[0]", "b[1]", "c", "1'bx", *(f"{name}[{i}]" for name in nets for i in range(2))])
        pins = [", ".join(draw(pin) for _ in range(1 if gate == "buf" else 2)) for _ in range(2)]
        return " ".join(f"{gate} ({target}[{i}], {pins[i]});" for i in range(2)), False
    op = draw(st.sampled_from(["=", "=", "<="]))
    value, other, condition = draw(values(nets)), draw(values(nets, 0)), draw(values(nets))
    body = draw(
        st.sampled_from(
            [
                f"{target} {op} {value};",
                f"begin {target} {op} {other}; if ({condition}) {target} {op} {value}; end",
                f"if ({condition}) {target} {op} {value}; else {target} {op} {other};",
                f"if ({condition}) {target} {op} {value};",
                f"case ({condition}) 0: {target} {op} {value}; 1: {target} {op} {other}; default: {target} {op} 3; endcase",  # noqa: E501
                f"case ({condition}) 0: {target} {op} {value}; 1: {target} {op} {other}; 2, 3: {target} {op} a; endcase",  # noqa: E501
                f"begin {target}[0] {op} c; {target}[1] {op} {value}; end",
            ]
        )
    )
    read = [name for name in ("a", "b", "c", *nets) if name in body.replace("begin", "").replace("case", "")]
    lists = ["*", "*", "*", " or ".join(read) or "a", " or ".join(read[:1]) or "c", "a or b or c"]
    return f"always @({draw(st.sampled_from(lists))}) {body}", True


@st.composite
def modules(draw: st.DrawFn) -> str:
    lines: list[str] = []
    variables: list[str] = []
    order = draw(st.permutations(NETS))
    for i, target in enumerate(order):
        text, is_variable = draw(drivers(target, order if draw(st.integers(0, 11)) == 11 else order[:i]))
        lines.insert(draw(st.integers(0, i)), "  " + text)
        variables += [target] if is_variable else []
    kinds = [f"{'reg' if n in variables else 'wire'} [1:0] {n}" for n in NETS]
    start = draw(st.sampled_from(["", "", "", "initial t = 1;"])) if "t" in variables else ""
    return "\n".join(
        [
            f"module m(input [1:0] a, b, input c, output {kinds[2]}, output {kinds[3]});",
            f"  {kinds[0]}; {kinds[1]}; {start}",
            *lines,
            "endmodule",
        ]
    )


@settings(max_examples=200, deadline=None, suppress_health_check=list(HealthCheck))
@given(modules(), st.lists(st.tuples(st.integers(0, 31), st.integers(0, 31)), min_size=12, max_size=12))
def test_what_counts_as_memoryless_is(text: str, steps: list[tuple[int, int]]) -> None:
    """All engines agree on every case, and a levelized design does not care what came before."""
    design = build(text)
    agree(design)
    cases = known_cases(design)
    fresh = levelized(design, cases)
    if fresh is not None:
        for before, after in steps:
            assert on_timeline(design, [cases[before], cases[after]]) == fresh[after]
