"""Random Verilog expressions against a naive evaluator of its own: it knows the text's tree only, works on strings of
digits, and follows IEEE 1364-2005 clause 5.4 and 5.5 word by word. Nothing of the program is used but to run the
design."""

from __future__ import annotations

from dataclasses import dataclass

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.core.designs import agree, build, known_cases

INPUTS = {"a": (3, False), "b": (2, True), "c": (1, False)}


@dataclass(frozen=True)
class E:
    """op is a sign, or `name`, `num`, `?:`, `cat`, `rep`, `bit`, `signed`."""

    op: str
    parts: tuple[E, ...] = ()
    text: str = ""
    width: int = 0
    signed: bool = False
    digits: str = ""


def show(e: E) -> str:
    p = [show(x) for x in e.parts]
    match e.op:
        case "name" | "num":
            return e.text
        case "?:":
            return f"({p[0]} ? {p[1]} : {p[2]})"
        case "cat":
            return "{" + ", ".join(p) + "}"
        case "rep":
            return "{2{" + p[0] + "}}"
        case "bit":
            return f"{e.text}[{p[0]}]"
        case "signed":
            return f"$signed({p[0]})"
    return f"({e.op}{p[0]})" if len(p) == 1 else f"({p[0]} {e.op} {p[1]})"


def size(e: E) -> int:
    """Table 5-22."""
    match e.op:
        case "name" | "num":
            return e.width
        case "?:":
            return max(size(e.parts[1]), size(e.parts[2]))
        case "cat":
            return sum(size(p) for p in e.parts)
        case "rep":
            return 2 * size(e.parts[0])
        case "signed":
            return size(e.parts[0])
        case "bit" | "==" | "!=" | "===" | "<" | "<=" | ">" | ">=" | "&&" | "||" | "!":
            return 1
        case "<<" | ">>" | ">>>":
            return size(e.parts[0])
    if len(e.parts) == 1:
        return size(e.parts[0]) if e.op in "+-~" else 1
    return max(size(p) for p in e.parts)


def is_signed(e: E) -> bool:
    """Clause 5.5.1."""
    match e.op:
        case "name" | "num":
            return e.signed
        case "signed":
            return True
        case "?:":
            return is_signed(e.parts[1]) and is_signed(e.parts[2])
        case "<<" | ">>" | ">>>":
            return is_signed(e.parts[0])
        case "cat" | "rep" | "bit" | "==" | "!=" | "===" | "<" | "<=" | ">" | ">=" | "&&" | "||" | "!":
            return False
    if len(e.parts) == 1:
        return is_signed(e.parts[0]) if e.op in "+-~" else False
    return all(is_signed(p) for p in e.parts)


def number(digits: str, signed: bool) -> int | None:
    if set(digits) - {"0", "1"}:
        return None
    n = int(digits, 2)
    return n - (1 << len(digits)) if signed and digits[0] == "1" else n


def written(n: int, width: int) -> str:
    return format(n & ((1 << width) - 1), f"0{width}b")


def grown(digits: str, width: int, signed: bool) -> str:
    return (digits[0] if signed else "0") * (width - len(digits)) + digits


def truth(digits: str) -> str:
    return "1" if "1" in digits else "x" if "x" in digits else "0"


def alone(e: E, env: dict[str, str]) -> str:
    """Self-determined."""
    return value(e, env, size(e), is_signed(e))


def value(e: E, env: dict[str, str], width: int, signed: bool) -> str:
    """The digits of `e` in a context of this width and sign."""
    p = e.parts
    match e.op:
        case "name":
            return grown(env[e.text], width, signed)
        case "num":
            return grown(e.digits, width, signed)
        case "cat":
            return grown("".join(alone(x, env) for x in p), width, signed)
        case "rep":
            return grown(alone(p[0], env) * 2, width, signed)
        case "signed":
            return grown(alone(p[0], env), width, signed)
        case "bit":
            at = number(alone(p[0], env), is_signed(p[0]))
            word = env[e.text][::-1]
            return grown(word[at] if at is not None and 0 <= at < len(word) else "x", width, signed)
        case "?:":
            c = truth(alone(p[0], env))
            x, y = value(p[1], env, width, signed), value(p[2], env, width, signed)
            return (
                x if c == "1" else y if c == "0" else "".join(a if a == b else "x" for a, b in zip(x, y, strict=True))
            )
        case "&&" | "||" | "!":
            t = [truth(alone(x, env)) for x in p]
            if e.op == "!":
                r = {"0": "1", "1": "0", "x": "x"}[t[0]]
            elif e.op == "&&":
                r = "0" if "0" in t else "x" if "x" in t else "1"
            else:
                r = "1" if "1" in t else "x" if "x" in t else "0"
            return grown(r, width, signed)
        case "==" | "!=" | "===" | "<" | "<=" | ">" | ">=":
            return grown(relation(e, env), width, signed)
        case "<<" | ">>" | ">>>":
            n = number(alone(p[1], env), False)
            x = value(p[0], env, width, signed)
            if n is None:
                return "x" * width
            n = min(n, width)
            fill = x[0] if e.op == ">>>" and signed else "0"
            return x[n:] + "0" * n if e.op == "<<" else fill * n + x[: width - n]
    if len(p) == 1:
        return unary(e, env, width, signed)
    x, y = value(p[0], env, width, signed), value(p[1], env, width, signed)
    if e.op in "&|^":
        table = {
            "&": lambda s: "0" if "0" in s else "x" if "x" in s else "1",
            "|": lambda s: "1" if "1" in s else "x" if "x" in s else "0",
        }
        table["^"] = lambda s: "x" if "x" in s else str(int(s[0] != s[1]))
        return "".join(table[e.op](a + b) for a, b in zip(x, y, strict=True))
    m, n = number(x, signed), number(y, signed)
    if m is None or n is None or (e.op in "/%" and n == 0):
        return "x" * width
    if e.op in "/%":
        q = abs(m) // abs(n) * (1 if (m < 0) == (n < 0) else -1)
        return written(q if e.op == "/" else m - q * n, width)
    return written({"+": m + n, "-": m - n, "*": m * n}[e.op], width)


def relation(e: E, env: dict[str, str]) -> str:
    width = max(size(p) for p in e.parts)
    signed = all(is_signed(p) for p in e.parts)
    x, y = (value(p, env, width, signed) for p in e.parts)
    if e.op == "===":
        return str(int(x == y))
    if e.op in ("==", "!="):
        different = any({a, b} == {"0", "1"} for a, b in zip(x, y, strict=True))
        if different or "x" not in x + y:
            return str(int(different == (e.op == "!=")))
        return "x"
    m, n = number(x, signed), number(y, signed)
    if m is None or n is None:
        return "x"
    return str(int({"<": m < n, "<=": m <= n, ">": m > n, ">=": m >= n}[e.op]))


def unary(e: E, env: dict[str, str], width: int, signed: bool) -> str:
    if e.op == "~":
        return "".join({"0": "1", "1": "0"}.get(d, "x") for d in value(e.parts[0], env, width, signed))
    if e.op in "+-":
        x = value(e.parts[0], env, width, signed)
        n = number(x, signed)
        return x if e.op == "+" else "x" * width if n is None else written(-n, width)
    x = alone(e.parts[0], env)
    base = {
        "&": "0" if "0" in x else "x" if "x" in x else "1",
        "|": truth(x),
        "^": "x" if "x" in x else str(x.count("1") % 2),
    }[e.op[-1]]
    return grown({"0": "1", "1": "0", "x": "x"}[base] if e.op[0] == "~" else base, width, signed)


NAMES = [E("name", text=n, width=w, signed=s) for n, (w, s) in INPUTS.items()]
NUMBERS = [
    E("num", text="2'b10", width=2, digits="10"), E("num", text="3'sb110", width=3, signed=True, digits="110"),
    E("num", text="5", width=32, signed=True, digits=written(5, 32)), E("num", text="4'b1x01", width=4, digits="1x01"),
    E("num", text="'h3", width=32, digits=written(3, 32)), E("num", text="1'b1", width=1, digits="1"),
]  # fmt: skip
LEAVES = st.sampled_from(NAMES * 3 + NUMBERS)
SIZED = st.sampled_from([*NAMES, *(n for n in NUMBERS if n.text[0].isdigit() and "'" in n.text)])


def trees(depth: int) -> st.SearchStrategy[E]:
    if depth == 0:
        return LEAVES
    t = trees(depth - 1)
    binary = [
        "+",
        "-",
        "*",
        "/",
        "%",
        "&",
        "|",
        "^",
        "==",
        "!=",
        "===",
        "<",
        "<=",
        ">",
        ">=",
        "&&",
        "||",
        "<<",
        ">>",
        ">>>",
    ]
    return st.one_of(
        LEAVES,
        st.builds(lambda op, x, y: E(op, (x, y)), st.sampled_from(binary), t, t),
        st.builds(lambda op, x: E(op, (x,)), st.sampled_from(["~", "-", "+", "!", "&", "|", "^", "~&", "~|", "~^"]), t),
        st.builds(lambda c, x, y: E("?:", (c, x, y)), t, t, t),
        st.builds(lambda x, y: E("cat", (x, y)), SIZED, SIZED),
        st.builds(lambda x: E("rep", (x,)), SIZED),
        st.builds(lambda x: E("signed", (x,)), t),
        st.builds(lambda n, x: E("bit", (x,), text=n), st.sampled_from(["a", "b"]), t),
    )


@settings(max_examples=250, deadline=None, suppress_health_check=list(HealthCheck))
@given(trees(3), st.sampled_from([1, 3, 5, 8]))
def test_expressions_mean_what_the_standard_says(e: E, width: int) -> None:
    ports = "input [2:0] a, input signed [1:0] b, input c"
    design = build(f"module m({ports}, output [{width - 1}:0] y); assign y = {show(e)}; endmodule")
    got = agree(design)
    context = max(width, size(e))
    for case, outputs in zip(known_cases(design), got, strict=True):
        env = {n: written(case[n][0], w) for n, (w, _) in INPUTS.items()}
        want = value(e, env, context, is_signed(e))[-width:]
        assert outputs == [want], (show(e), env)
