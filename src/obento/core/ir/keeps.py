"""Whether a body keeps anything from one run of it to the next, as its text shows.

This proves: whatever it does not know keeps something. `check/explaining/latches` asks a looser question of the same
kind, where a process that was seen to remember leaves a variable out."""

from __future__ import annotations

from collections.abc import Container

from obento.core.ir.drivers import expressions, stretch_bits, stretches_read, targets
from obento.core.ir.nodes import Assign, Block, Case, If, Stmt


def keeps_nothing(body: Stmt, woken_by: Container[int]) -> bool:
    """Whether a body reads only what wakes it and what it has certainly written before, and gives every bit that it
    drives by non-blocking assignments a value on every way.

    Only assignments without delays, blocks, `if` and `case` are looked into; whatever else stands there may keep
    something.

    Parameters
    ----------
    woken_by
        Numbers of the bits at whose events the body runs.
    """
    ways = _Ways(woken_by)
    ways.go(body)
    driven = {bit for t in targets(body) for bit in stretch_bits(t)} - ways.blocking
    return ways.is_plain and driven <= ways.given


class _Ways:
    """`written` are the bits certainly written so far by blocking assignments, `given` those by others."""

    def __init__(self, woken_by: Container[int]) -> None:
        self._woken_by = woken_by
        self.written: set[int] = set()
        self.given: set[int] = set()
        self.blocking: set[int] = set()
        self.is_plain = True

    def go(self, s: Stmt | None) -> None:
        """Follow a statement."""
        if s is None or not self.is_plain:
            return
        for e in expressions(s):
            for signal, low, width in stretches_read(e):
                first = signal.offset + low
                for bit in range(first, first + width):
                    if bit not in self.written and bit not in self._woken_by:
                        self.is_plain = False
                        return
        match s:
            case Assign(timing=None):
                self._assign(s)
            case Block(label=None):
                for inner in s.body:
                    self.go(inner)
            case If():
                self._branch([s.then, s.other])
            case Case():
                self._branch([arm.body for arm in s.arms] + [s.default])
            case _:
                self.is_plain = False

    def _assign(self, s: Assign) -> None:
        for t in s.targets:
            bits = stretch_bits(t)
            if s.blocking:
                self.blocking.update(bits)
            if not t.offsets:
                (self.written if s.blocking else self.given).update(bits)

    def _branch(self, branches: list[Stmt | None]) -> None:
        """Certain is what every branch writes; a branch that is not there writes nothing."""
        written, given = self.written, self.given
        ends = []
        for branch in branches:
            self.written, self.given = set(written), set(given)
            self.go(branch)
            ends.append((self.written, self.given))
        self.written = set.intersection(*(w for w, _ in ends))
        self.given = set.intersection(*(g for _, g in ends))
