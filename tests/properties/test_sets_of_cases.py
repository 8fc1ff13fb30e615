"""Planes, tables, verdicts and conditions against the same things done case by case."""

from __future__ import annotations

import itertools

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.check.explaining.condition import products_of
from obento.core.check.report import case_reports
from obento.core.handin import HandinFile
from obento.core.planes import count_plane
from obento.core.sim.lanes.graph import Graph
from obento.core.sim.lanes.tape import Tape
from obento.core.spec.cases import match_plane
from obento.core.spec.model import Row
from obento.core.values import to_digits

QUIET = list(HealthCheck)


def expectation(text: str) -> Expectation:
    loaded = open_spec("s.toml", text.encode(), {})
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    return loaded.expectation


def inputs_of(e: Expectation, case: int) -> dict[str, str]:
    found = {}
    bit = 0
    for port in e.spec.inputs:
        found[port.name] = to_digits(e.cases.word(case, bit, port.width), port.width)
        bit += port.width
    return found


HEAD = "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = '{i}'\nout = '{o}'\n"
digit = st.sampled_from("01-")
rows = st.lists(st.tuples(st.tuples(digit, digit, digit), st.sampled_from("01-")), min_size=1, max_size=6)


@settings(max_examples=120, deadline=None, suppress_health_check=QUIET)
@given(rows)
def test_tables_row_by_row(table: list[tuple[tuple[str, str, str], str]]) -> None:
    """Every case has the value of the rows that match it; rows that disagree make the spec wrong; `-` wins."""
    text = "\n".join(f"{' '.join(left)} | {right}" for left, right in table)
    loaded = open_spec(
        "s.toml", (HEAD.format(i="a b c", o="y") + f"[expect]\ntable = '''\na b c | y\n{text}\n'''\n").encode(), {}
    )
    wanted: dict[tuple[str, ...], str | None] = {}
    clash = False
    for point in itertools.product("01", repeat=3):
        hits = [right for left, right in table if all(x in ("-", p) for x, p in zip(left, point, strict=True))]
        clash |= {"0", "1"} <= set(hits)
        wanted[point] = None if not hits else "-" if "-" in hits else hits[0]
    nothing = all(w in (None, "-") for w in wanted.values())
    assert (loaded.expectation is None) == (clash or nothing), [str(m) for m in loaded.messages]
    if loaded.expectation is None:
        return
    e = loaded.expectation
    for case in range(8):
        word, care = expected_word(e, "y", 1, case)
        want = wanted[tuple(inputs_of(e, case).values())]
        assert (to_digits(word, 1) if care else "-") == (want or "-")
    assert e.uncovered == sum(w is None for w in wanted.values())
    for row, plane in e.sources[0].rows:
        assert isinstance(row, Row) and plane == match_plane(row, e.spec, e.cases)


listed = st.lists(st.tuples(st.sampled_from(["00", "01", "1-", "--", "11", "x1", "z0"]), digit), min_size=1, max_size=5)


@settings(max_examples=80, deadline=None, suppress_health_check=QUIET)
@given(listed)
def test_listed_cases_stand_once_each_in_order(vectors: list[tuple[str, str]]) -> None:
    body = "\n".join(f"{a} {b}" for a, b in vectors)
    e = (
        expectation(
            HEAD.format(i="a[2] b", o="y") + f"[expect]\nequations = 'y = b'\n[cases]\nlisted = '''\na b\n{body}\n'''\n"
        )
        if not any(c in a for a, _ in vectors for c in "xz")
        else None
    )
    if e is None:
        return
    wanted: list[tuple[str, str]] = []
    for a, b in vectors:
        free = [i for i, d in enumerate(a + b) if d == "-"]
        found = []
        for values in itertools.product("01", repeat=len(free)):
            word = list(a + b)
            for i, value in zip(free, values, strict=True):
                word[i] = value
            found.append(("".join(word[:2]), word[2]))
        wanted += [w for w in sorted(found) if w not in wanted]
    got = [tuple(inputs_of(e, i).values()) for i in range(e.cases.count)]
    assert sorted(got) == sorted(wanted) and len(set(got)) == len(got)


@settings(max_examples=150, deadline=None, suppress_health_check=QUIET)
@given(st.integers(2, 10), st.integers(0, 2**1024 - 1), st.integers(0, 2**1024 - 1), st.booleans())
def test_conditions_hold_in_exactly_the_failing_cases(bits: int, failing: int, free: int, sparse: bool) -> None:
    names = " ".join(f"i{n}" for n in range(bits))
    e = expectation(HEAD.format(i=names, o="y") + "[expect]\nequations = 'y = i0'\n")
    full = e.cases.full
    failing &= full
    if sparse:
        failing &= count_plane(0, 1 << bits) & count_plane(bits - 1, 1 << bits)
    free &= full & ~failing
    products = products_of(e.spec, e.cases, failing, free)
    if not products:
        return
    for case in range(1 << bits):
        covered = any(p.covers(case) for p in products)  # with every combination run, the case is its own input word
        if failing >> case & 1:
            assert covered
        elif not free >> case & 1:
            assert not covered


literals = st.lists(
    st.tuples(st.sampled_from(["and", "or", "xor", "mux"]), *([st.integers(0, 60)] * 3)), min_size=1, max_size=60
)


@settings(max_examples=200, deadline=None, suppress_health_check=QUIET)
@given(literals)
def test_graphs_and_tapes_keep_the_function(steps: list[tuple[str, int, int, int]]) -> None:
    """Random circuits of five inputs: every literal computed by a tape is what the steps say, whatever was
    simplified."""
    g = Graph()
    inputs = [g.leaf() for _ in range(5)]
    full = (1 << 32) - 1
    truth = [count_plane(i, 32) for i in range(5)]
    known = [*list(zip(inputs, truth, strict=True)), (0, 0), (1, full)]

    def pick(n: int) -> tuple[int, int]:
        literal, table = known[(n >> 1) % len(known)]
        return (literal ^ 1, table ^ full) if n & 1 else (literal, table)

    for op, x, y, z in steps:
        (a, ta), (b, tb), (c, tc) = pick(x), pick(y), pick(z)
        if op == "and":
            known.append((g.and_(a, b), ta & tb))
        elif op == "or":
            known.append((g.or_(a, b), ta | tb))
        elif op == "xor":
            known.append((g.xor(a, b), ta ^ tb))
        else:
            known.append((g.mux(a, b, c), ta & tb | (ta ^ full) & tc))
    tape = Tape(g, inputs, [literal for literal, _ in known])
    assert tape.run(truth, full) == [table for _, table in known]
    for _ in range(70):  # often enough for the generated code to take over
        last = tape.run(truth, full)
    assert last == [table for _, table in known]
    for literal, table in known:
        assert g.is_tautology(literal) == (table == full)


@settings(max_examples=60, deadline=None, suppress_health_check=QUIET)
@given(
    st.lists(st.sampled_from("01xz"), min_size=8, max_size=8), st.lists(st.sampled_from("01-"), min_size=8, max_size=8)
)
def test_verdicts_case_by_case(actual: list[str], wanted: list[str]) -> None:
    """A table of values handed in against a table of values expected."""
    if set(wanted) == {"-"}:
        return
    arms = " ".join(f"3'd{i}: y = 1'b{d};" for i, d in enumerate(actual))
    text = f"module m(input [2:0] n, output reg y); always @* case (n) {arms} endcase endmodule"
    table = "\n".join(f"{i:03b} | {d}" for i, d in enumerate(wanted))
    e = expectation(HEAD.format(i="n[3]", o="y") + f"[expect]\ntable = '''\nn | y\n{table}\n'''\n")
    checked = check_handin(e, [HandinFile("m.v", text.encode())])
    assert checked.verdict is not None
    cells = "".join(
        "n" if w == "-" else "p" if a == w else "f" if a in "01" else "u" for a, w in zip(actual, wanted, strict=True)
    )
    assert checked.verdict.cells() == cells
    assert checked.verdict.digits() == "".join("1" if c in "pn" else "0" for c in cells)
    for case in range(8):
        (report,) = case_reports(e, checked.verdict, [case])
        assert report["actual"]["y"] == actual[case] and report["expected"]["y"] == wanted[case]
        assert report["pass"] == (cells[case] in "pn") and report["wrong"] == ([] if cells[case] in "pn" else ["y"])


numbers = st.sampled_from(["a", "b", "s", "3", "1", "a[1]", "b[2..1]", "{a, b[0]}"])


def formulas(depth: int) -> st.SearchStrategy[str]:
    if depth == 0:
        return numbers
    inner = formulas(depth - 1)
    return st.one_of(
        numbers,
        st.builds(
            lambda x, op, y: f"({x} {op} {y})",
            inner,
            st.sampled_from(["+", "-", "*", "==", "!=", "<", "<=", ">", ">="]),
            inner,
        ),
        st.builds(lambda x, y, z: f"({x} ? {y} : {z})", inner, inner, inner),
        st.builds(lambda x: f"(-{x})", inner),
        st.builds(lambda x, n: f"({x} << {n})", inner, st.sampled_from(["1", "2"])),
    )


def exact(text: str, a: int, b: int, s: int) -> int:
    """The formula in whole numbers, by Python itself."""
    words = {"{a, b[0]}": a << 1 | b & 1, "b[2..1]": b >> 1 & 3, "a[1]": a >> 1 & 1}
    for word, number in words.items():
        text = text.replace(word, str(number))
    while "?" in text:  # innermost choice first
        at = text.index("?")
        start, depth = at, 1
        while depth:
            start -= 1
            depth += {")": 1, "(": -1}.get(text[start], 0)
        end, depth = at, 1
        while depth:
            end += 1
            depth += {"(": 1, ")": -1}.get(text[end], 0)
        inside = text[start + 1 : end]
        if "?" in inside[inside.index("?") + 1 :] and inside.index("?") < inside.rindex("?"):
            return exact_choice(text, a, b, s)
        cond, rest = inside.split("?")
        yes, no = rest.split(":")
        text = f"{text[:start]}(({yes}) if ({cond}) != 0 else ({no})){text[end + 1 :]}"
    return int(eval(text, {"a": a, "b": b, "s": s}))  # the test's own text


def exact_choice(text: str, a: int, b: int, s: int) -> int:
    """Nested choices, rewritten from the outside by matching parentheses."""

    def rewrite(t: str) -> str:
        depth = 0
        for i, c in enumerate(t):
            depth += {"(": 1, ")": -1}.get(c, 0)
            if c == "?" and depth == 0:
                level = 0
                for j in range(i + 1, len(t)):
                    level += {"(": 1, ")": -1}.get(t[j], 0)
                    if t[j] == ":" and level == 0:
                        return f"(({rewrite(t[i + 1 : j])}) if ({rewrite(t[:i])}) != 0 else ({rewrite(t[j + 1 :])}))"
        out, i = "", 0
        while i < len(t):
            if t[i] == "(":
                level, j = 1, i
                while level:
                    j += 1
                    level += {"(": 1, ")": -1}.get(t[j], 0)
                out += f"({rewrite(t[i + 1 : j])})"
                i = j + 1
            else:
                out += t[i]
                i += 1
        return out

    return int(eval(rewrite(text), {"a": a, "b": b, "s": s}))  # the test's own text


@settings(max_examples=150, deadline=None, suppress_health_check=QUIET)
@given(formulas(3))
def test_word_arithmetic_of_specs_is_exact(formula: str) -> None:
    e = expectation(HEAD.format(i="a[2] b[3] s[2]s", o="y[12]") + f"[expect]\nequations = 'y = {formula}'\n")
    for case in range(e.cases.count):
        env = inputs_of(e, case)
        s = int(env["s"], 2) - (4 if env["s"][0] == "1" else 0)
        word, _ = expected_word(e, "y", 12, case)
        assert word[0] == exact(formula, int(env["a"], 2), int(env["b"], 2), s) & 0xFFF, (formula, env)
