"""What system functions give (IEEE 1364-2005 clause 17): time, random numbers, mathematics, conversions."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Protocol

from obento.core import values as v
from obento.core.ir.design import Design
from obento.core.ir.doubles import from_bits, to_bits
from obento.core.ir.evaluate import round_half_away, to_real
from obento.core.ir.nodes import SystemCall
from obento.core.limits import Limits
from obento.core.sim.bench.display import Value
from obento.core.sim.bench.random import DISTRIBUTIONS, Generator
from obento.core.values import Word

TIMES = frozenset(["$time", "$stime", "$realtime"])
_MATH: dict[str, Callable[..., float]] = {
    "$ln": math.log,
    "$log10": math.log10,
    "$exp": math.exp,
    "$sqrt": math.sqrt,
    "$pow": math.pow,
    "$floor": math.floor,
    "$ceil": math.ceil,
    "$sin": math.sin,
    "$cos": math.cos,
    "$tan": math.tan,
    "$asin": math.asin,
    "$acos": math.acos,
    "$atan": math.atan,
    "$atan2": math.atan2,
    "$hypot": math.hypot,
    "$sinh": math.sinh,
    "$cosh": math.cosh,
    "$tanh": math.tanh,
    "$asinh": math.asinh,
    "$acosh": math.acosh,
    "$atanh": math.atanh,
}


class Kernel(Protocol):
    """What system tasks need of the kernel that runs them."""

    design: Design
    limits: Limits
    words: list[Word]
    now: int
    changed: set[int] | None
    triggered: dict[int, int]

    def write(self, signal: int, low: int, width: int, word: Word) -> None:
        """A variable takes a value from outside of all processes."""


class Bench:
    """System tasks without a terminal: what is printed is lost, nothing ends. For circuits that are only checked."""

    def __init__(self) -> None:
        self._calls: list[SystemCall] = []
        self._random = Generator()

    def prepare(self, kernel: Kernel, calls: list[SystemCall]) -> None:
        """Learn of the kernel, and of all calls of the design by number."""
        self.kernel = kernel
        self._calls = calls

    def power_up(self) -> None:
        """Begin anew."""
        self._random = Generator()

    def is_idle(self) -> bool:
        """Whether the seed of the random numbers is all that is to be known of what was done so far."""
        return True

    @property
    def seed(self) -> int:
        """What the next random number comes from."""
        return self._random.seed

    @seed.setter
    def seed(self, seed: int) -> None:
        """Draw from another seed."""
        self._random.seed = seed

    def say(self, text: str, position: int) -> None:
        """A part of the design has something to say."""

    def report(self, severity: str, text: str, position: int) -> None:
        """A report or a failed assertion."""

    def came_to(self, position: int) -> None:
        """An assertion is looked at, whatever comes of it."""

    def ended(self, position: int) -> None:
        """The statement that ends the run."""

    def end_of_step(self) -> None:
        """Everything of this step of time has happened."""

    def task(self, number: int, given: list[Value]) -> None:
        """A system task that gives nothing back."""

    def postpone(self, number: int, arguments: Callable[[], list[Value]]) -> None:
        """A task that prints when the step ends."""

    def draw(self, most: int) -> int:
        """A random number from 0 to `most`."""
        return self._random.between(0, most)

    def defer(self, process: int, number: int, given: list[Value]) -> None:
        """A task of a deferred assertion (1800 clause 16.4)."""

    def withdraw(self, process: int) -> None:
        """A process goes on: what its deferred assertions have said in this step of time does not count (16.4.2)."""

    def value(self, number: int, given: list[Value]) -> object:
        """A system function's value; with the words for its arguments beside it where it writes to some."""
        call = self._calls[number]
        name = call.name
        results: list[Value] = [None] * len(call.args)
        value: Word | str
        if name == "$triggered":
            event = call.args[0].memory
            return v.bit(event is not None and self.kernel.triggered.get(event[0].id) == self.kernel.now)
        if name in TIMES:
            return self._time(call)
        if name in ("$random", "$urandom"):
            value = self._drawn(call, given, results, lambda g: g.number(), 0)
        elif name == "$urandom_range":
            a, b = self._number(call, given, 0), self._number(call, given, 1) if len(given) > 1 else 0
            value = v.word(self._random.between(min(a, b) - (1 << 31), max(a, b) - (1 << 31)) + (1 << 31), 32)
        elif name in DISTRIBUTIONS:
            rest = [self._number(call, given, i) for i in range(1, len(given))]
            value = self._drawn(call, given, results, lambda g: DISTRIBUTIONS[name](g, *rest), 0)
        elif name in _MATH:
            return self._math(call, given)
        elif name == "$rtoi":
            real = self._real(call, given, 0)
            value = v.word(int(real) if math.isfinite(real) else 0, 32)
        elif name == "$realtobits":
            value = v.word(to_bits(self._real(call, given, 0)), 64)
        elif name == "$itor":
            return given[0]
        elif name == "$bitstoreal":
            return from_bits(v.word(self._number(call, given, 0), 64))
        else:
            value = self._other(call, given, results)
        return (value, results) if any(a.targets for a in call.args) else value

    def _other(self, call: SystemCall, given: list[Value], results: list[Value]) -> Word | str:
        return v.word(0, 32)

    def _time(self, call: SystemCall) -> Word | float:
        if call.name == "$realtime":
            return self.kernel.now / call.tick
        now = (2 * self.kernel.now + call.tick) // (2 * call.tick)
        return v.word(now, 64 if call.name == "$time" else 32)

    def _number(self, call: SystemCall, given: list[Value], index: int) -> int:
        if index >= len(given):
            return 0
        value, argument = given[index], call.args[index]
        if isinstance(value, float):
            return round_half_away(value)
        if value is None or argument.value is None or isinstance(value, str):
            return 0
        known = value[0] & ~value[1]
        return v.signed_value(known, argument.value.width) if argument.signed else known

    def _real(self, call: SystemCall, given: list[Value], index: int) -> float:
        """An argument as a real number."""
        value, argument = given[index], call.args[index]
        if isinstance(value, float):
            return value
        if value is None or argument.value is None or isinstance(value, str):
            return 0.0
        return to_real(value, argument.value.width, argument.signed)

    def _drawn(
        self, call: SystemCall, given: list[Value], results: list[Value], draw: Callable[[Generator], int], seed: int
    ) -> Word:
        if not call.args or not call.args[seed].targets:
            generator = self._random
        else:
            generator = Generator(self._number(call, given, seed))
        value = v.word(draw(generator), 32)
        if generator is not self._random:
            results[seed] = v.word(generator.seed, sum(t.width for t in call.args[seed].targets))
        return value

    def _math(self, call: SystemCall, given: list[Value]) -> float:
        args = [self._real(call, given, i) for i in range(len(given))]
        try:
            return float(_MATH[call.name](*args))
        except (ValueError, ZeroDivisionError):
            return math.nan
        except OverflowError:
            return math.inf
