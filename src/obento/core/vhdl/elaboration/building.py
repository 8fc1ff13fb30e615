"""What is being built, and where in its hierarchy elaboration stands."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from typing import Any, Protocol

from obento.core.ir.design import Design, Instance, ScopeOfNames, Variable
from obento.core.ir.signal import Signal
from obento.core.vhdl.design_units import DesignUnits
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.syntax import ast

Foreign = Callable[[str, ast.Node], "Design | None"]
"""Gives a fresh Design of the unit in another language that an instance means, None when there is none."""

Join = tuple[Object, tuple[Any, ...], t.Expr, "t.Expr | None", int, bool]
"""A port, the path of its part, what is connected, a conversion, the position, and whether the port follows it."""


class UnitBuilder(Protocol):
    """Whoever builds entities: instances, generate statements and blocks hold more of what they stand in."""

    def architecture_of(self, entity: ast.Entity, wanted: str, node: ast.Node) -> ast.Architecture:
        """The architecture of that name, or the last one."""

    def build(
        self,
        entity: ast.Entity,
        architecture: ast.Architecture,
        label: str,
        generics: Mapping[str, t.Expr],
        connect: Callable[[list[Object]], None] | None,
    ) -> list[Object]:
        """One entity with its architecture, below whatever is being built. Gives its ports."""

    def build_body(self, decls: Sequence[ast.Decl], body: Sequence[ast.Concurrent]) -> None:
        """Declarations and concurrent statements."""

    def declare_generics(self, generics: Sequence[ast.Interface], given: Mapping[str, t.Expr]) -> None:
        """Generics with their values."""

    def declare_ports(self, ports: Sequence[ast.Interface], outermost: bool) -> list[Object]:
        """Ports as signals; outermost ones are ports of the design."""


class Building:
    """One design while it is built. `levels` is the path in its hierarchy; `configured` the configurations around
    it."""

    units: UnitBuilder

    def __init__(self, design_units: DesignUnits, foreign: Foreign | None) -> None:
        self.design_units = design_units
        self.foreign = foreign
        self.design = Design("", "vhdl", precision=-15)
        self.instance = Instance("", "", 0)
        self.names: list[ScopeOfNames] = []
        self.variables: list[Variable] = []
        self.levels: list[str] = []
        self.places: list[str] = []
        self.by_path: dict[str, Object] = {}
        """Signals, by where they stand in the hierarchy."""
        self.configured: list[dict[str, ast.ConfigSpec]] = [{}]
        self.instances = 0
        self.objects: list[Object] = []
        self.processes: list[t.Process] = []
        self.joins: list[Join] = []
        self.joined: list[tuple[Object, Object, int]] = []
        self.implicit_signals: dict[str, Object] = {}
        self.outside: list[Signal] = []
        self.silent_ports = False

    @contextmanager
    def level(self, label: str, kind: str | None, unit: str = "") -> Iterator[None]:
        """One level further down; with a `kind` it is one that waveforms show, with names of its own. `unit` is what
        stands there, as `'instance_name` writes it."""
        self.levels.append(label)
        self.places.append(f"{label}@{unit}" if unit and self.places else unit or label)
        names, variables = self.names, self.variables
        if kind is not None:
            inner = ScopeOfNames(label, kind, ".".join(self.levels))
            names.append(inner)
            self.names, self.variables = inner.children, inner.variables
        try:
            yield
        finally:
            self.levels.pop()
            self.places.pop()
            self.names, self.variables = names, variables

    @contextmanager
    def instance_below(self, instance: Instance) -> Iterator[None]:
        """In an instance of what is being built."""
        outer = self.instance
        outer.children.append(instance)
        self.instance = instance
        try:
            yield
        finally:
            self.instance = outer

    @contextmanager
    def configuration(self, specs: dict[str, ast.ConfigSpec]) -> Iterator[None]:
        """Inside of what these configuration specifications hold for."""
        self.configured.append(specs)
        try:
            yield
        finally:
            self.configured.pop()
