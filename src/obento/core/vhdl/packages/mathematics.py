"""What the functions of math_real do (IEEE 1076.2)."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

from obento.core.ir.part import RunError
from obento.core.vhdl.packages.numbers import wants_run

_ONE: dict[str, Callable[[float], float]] = {
    "ceil": lambda x: float(math.ceil(x)),
    "floor": lambda x: float(math.floor(x)),
    "trunc": lambda x: float(math.trunc(x)),
    "round": lambda x: math.floor(x + 0.5) if x >= 0 else -math.floor(-x + 0.5),
    "sign": lambda x: float((x > 0) - (x < 0)),
    "sqrt": math.sqrt,
    "cbrt": math.cbrt,
    "exp": math.exp,
    "log": math.log,
    "log2": math.log2,
    "log10": math.log10,
    "sin": math.sin,
    "cos": math.cos,
    "tan": math.tan,
    "arcsin": math.asin,
    "arccos": math.acos,
    "arctan": math.atan,
    "sinh": math.sinh,
    "cosh": math.cosh,
    "tanh": math.tanh,
    "arcsinh": math.asinh,
    "arccosh": math.acosh,
    "arctanh": math.atanh,
}
_TWO: dict[str, Callable[[float, float], float]] = {
    "arctan": math.atan2,
    "log": lambda x, base: math.log(x) / math.log(base),
    "mod": lambda x, y: x - y * math.floor(x / y),
    "realmax": max,
    "realmin": min,
    "**": lambda x, y: float(x) ** y,
}


def find(name: str, parameters: int) -> Callable[..., Any] | None:
    """What computes a function of math_real, by its name and the number of its parameters."""
    op = name.strip('"')
    if op == "uniform":
        return _uniform
    compute: Callable[..., float] | None = _ONE.get(op) if parameters == 1 else _TWO.get(op)
    if compute is None:
        return None

    @wants_run
    def guarded(run: Any, position: int, *given: float) -> float:
        try:
            return float(compute(*given))
        except (ValueError, ZeroDivisionError, OverflowError):
            raise RunError(f"`{op}` has no value for {', '.join(map(str, given))}", position) from None

    return guarded


def _uniform(seed1: int, seed2: int, x: float) -> tuple[int, int, float]:
    """The generator that the standard's package body gives (clause 4.2 of 1076.2)."""
    k = seed1 // 53668
    seed1 = 40014 * (seed1 - k * 53668) - k * 12211
    if seed1 < 0:
        seed1 += 2147483563
    k = seed2 // 52774
    seed2 = 40692 * (seed2 - k * 52774) - k * 3791
    if seed2 < 0:
        seed2 += 2147483399
    z = seed1 - seed2
    if z < 1:
        z += 2147483562
    return seed1, seed2, z * 4.656613e-10
