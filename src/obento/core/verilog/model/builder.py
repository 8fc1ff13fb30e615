"""What all parts of an elaboration share: the Design that grows, the modules, and the work still to be done."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from contextlib import suppress
from typing import Literal

from obento.core.diagnostics import Collector
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import stretches_read, watches_of
from obento.core.ir.signal import STRONG, Delays, Signal
from obento.core.limits import LimitReached, Limits
from obento.core.values import Word
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Parameter, Scope
from obento.core.verilog.syntax import ast

Overrides = dict[str, Parameter]

Foreign = Callable[[str, int], "Design | None"]
"""Gives a fresh Design of the unit in another language that a name (used at that position) means, None when there is
none."""

DEFAULT_UNIT = -9
"""The time unit, as a power of ten of a second, of modules without `timescale` (19.8 leaves it open)."""


class Builder:
    """Builds one Design out of many modules.

    Names are declared over the whole hierarchy first; what uses them waits in `work`, in order of elaboration.
    """

    def __init__(
        self,
        modules: Mapping[str, ast.Module | ast.Primitive],
        packages: Mapping[str, ast.Package],
        design: Design,
        collector: Collector,
        limits: Limits,
        foreign: Foreign | None = None,
    ) -> None:
        self.modules = modules
        self.packages = packages
        self.elaborated: dict[str, Scope] = {}
        """The names of each package that was asked for."""
        self.package: Callable[[str], Scope | None] = self.elaborated.get
        """Gives the names of a package, which are declared when the first one asks for them."""
        self.foreign = foreign
        self.design = design
        self.collector = collector
        self.implied: list[tuple[Signal, Scope]] = []
        """Wires that nobody declared, with the scope in which they were met."""
        self.limits = limits
        self.instances = 0
        self.memory = 0
        self.work: list[Callable[[], None]] = []
        self.defparams: dict[str, Parameter] = {}
        self.blocks: dict[tuple[int, int], Scope] = {}
        self.variables: set[int] = set()
        """Numbers of the variables that .sv files declare, for which stricter rules hold."""
        texts = [m for m in (*modules.values(), *packages.values()) if isinstance(m, ast.Module | ast.Package)]
        scales = [m.timescale for m in texts if m.timescale is not None]
        design.precision = min((precision for _, precision in scales), default=DEFAULT_UNIT)
        self._default = (max(DEFAULT_UNIT, design.precision), max(DEFAULT_UNIT, design.precision))

    def times(self, module: ast.Module | ast.Package) -> tuple[int, int]:
        """A module's time unit and precision in ticks."""
        unit, precision = module.timescale or self._default
        return 10 ** (unit - self.design.precision), 10 ** (precision - self.design.precision)

    def guarded(self, action: Callable[[], None]) -> None:
        """Do something; when it is wrong that has been reported, and the rest is still looked at."""
        with suppress(ElaborationError):
            action()

    def later(self, action: Callable[[], None]) -> None:
        """Leave something to be done when all names are known."""
        self.work.append(action)

    def finish(self) -> None:
        """Do all the work, and what it makes more of."""
        for action in self.work:  # may grow while it is walked
            self.guarded(action)

    def signal(
        self,
        name: str,
        width: int,
        kind: Literal["net", "variable"],
        position: int,
        initial: Word | None = None,
        element: int = 0,
    ) -> Signal:
        """A new signal; raises LimitReached when arrays take too much."""
        if element:
            self.memory += width
            if self.memory > self.limits.memory_bits:
                raise LimitReached(f"`{name}` makes the memories larger than can be run", position)
        elif self.design.bits - self.memory + width > self.limits.signal_bits:
            raise LimitReached(f"`{name}` makes the design larger than can be run", position)
        signal = self.design.add_signal(name, width, kind, position, initial)
        signal.element = element
        return signal

    def process(self, process: Process) -> None:
        """Add a process; raises LimitReached when there are too many."""
        if len(self.design.processes) >= self.limits.processes:
            raise LimitReached("the design has more parts than can be run", process.position)
        self.design.processes.append(process)

    def drive(
        self,
        target: list[ir.Target],
        value: ir.Expr,
        position: int,
        origin: str,
        path: str,
        delay: Delays | None = None,
        strengths: tuple[int, int] = STRONG,
    ) -> None:
        """A continuous assignment."""
        watches = watches_of(stretches_read(value))
        self.process(
            Process("continuous", ir.Assign(position, target, value), watches, position, origin, path, delay, strengths)
        )
