"""Where a subprogram of the standard packages finds what it does."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from obento.core.vhdl.packages import logicals, mathematics, numbers, text
from obento.core.vhdl.packages.numbers import digits_text
from obento.core.vhdl.runtime import operations as ops

_KINDS = {
    "unsigned": "u",
    "signed": "s",
    "integer": "i",
    "std_ulogic": "l",
    "std_logic_vector": "v",
    "std_ulogic_vector": "v",
    "bit": "b",
    "bit_vector": "B",
    "boolean": "z",
    "string": "S",
    "character": "c",
    "real": "r",
    "line": "L",
    "text": "F",
    "time": "T",
}
_VECTOR_OPS = frozenset(
    [
        "and",
        "or",
        "nand",
        "nor",
        "xor",
        "xnor",
        "not",
        "std_match",
        "to_01",
        "is_x",
        "to_string",
        "to_bstring",
        "to_hstring",
        "to_ostring",
    ]
)


def find_native(package: str, name: str, parameters: list[str], result: str) -> Callable[..., Any] | None:
    """The function behind a declaration in one of our packages, by the names of its parameters' types."""
    kinds = "".join(_KINDS.get(p, "?") for p in parameters)
    op = name.strip('"')
    match package:
        case "std_logic_1164":
            if kinds[:1] == "L":
                return text.find(op, kinds)
            return logicals.find(op, kinds, result)
        case "numeric_std" | "numeric_bit":
            return _numeric(package, op, kinds, result)
        case "numeric_std_unsigned":
            if op in ("to_stdlogicvector", "to_std_logic_vector", "to_slv"):
                return numbers.find(numbers.STD, "to_unsigned", "ii")
            return numbers.find(numbers.STD, op, kinds.replace("v", "u"))
        case "std_logic_arith":
            return numbers.find_taught(op, kinds.replace("v", "u") if op in ("ext", "sxt") else kinds, result, None)
        case "std_logic_unsigned" | "std_logic_signed":
            return numbers.find_taught(op, kinds, result, package == "std_logic_signed")
        case "std_logic_misc":
            return logicals.find(op.removesuffix("_reduce"), "v", result)
        case "textio":
            return text.find(op, kinds)
        case "math_real":
            return mathematics.find(op, len(parameters))
        case "env":
            return _env(op)
    return None


def _numeric(package: str, op: str, kinds: str, result: str) -> Callable[..., Any] | None:
    if package == "numeric_std":
        if op in _VECTOR_OPS:
            signed = kinds == "s" and op.startswith("to_") and op.endswith("string")
            return logicals.find(
                op, "s" if signed else kinds.replace("u", "v").replace("s", "v"), result, renumber=True
            )
        return numbers.find(numbers.STD, op, kinds)
    if op in ("rising_edge", "falling_edge"):
        wanted = op == "rising_edge"
        return lambda s: s.event == s.run.cycle and s.value == wanted
    return numbers.find(numbers.BIT, op, kinds.replace("b", "l")) or _bit_vectors(op, kinds)


def _bit_vectors(op: str, kinds: str) -> Callable[..., Any] | None:
    sizes = {"to_string": 1, "to_bstring": 1, "to_hstring": 4, "to_ostring": 3}
    if op in sizes:
        return lambda a: digits_text(a.v, "01", sizes[op], kinds == "s")
    if op == "not":
        return ops.array_not
    if len(kinds) == 1:
        return lambda a: ops.reduce_bits(op, a)
    if "b" in kinds:
        return lambda a, b: ops.array_scalar_logic(op, a, b)
    return lambda a, b: ops.array_logic(op, a, b, 0)


def _env(op: str) -> Callable[..., Any] | None:
    if op in ("stop", "finish"):

        @numbers.wants_run
        def end(run: Any, position: int, status: int = 0) -> tuple[Any, ...]:
            run.host.bench.ended(position)
            run.finish()
            return ()

        return end
    if op == "resolution_limit":
        return lambda: 1
    return None
