"""Signals of VHDL in the design: for what stands around it, waveforms and messages; attributes that are signals of
their own."""

from __future__ import annotations

from typing import Any

from obento.core.ir.design import Port, Variable
from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.expressions import Expressions
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.analysis.reads import static_prefix
from obento.core.vhdl.code.pieces import Piece
from obento.core.vhdl.elaboration.building import Building
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.model.types import ArrayType, Subtype, default_value
from obento.core.vhdl.packages.standard import BIT, TIME
from obento.core.vhdl.runtime import four_state
from obento.core.vhdl.runtime.composites import part_of
from obento.core.vhdl.syntax import ast


class DesignSignals:
    """Makes signals of the design."""

    def __init__(self, context: Context, building: Building, names: Names, expressions: Expressions) -> None:
        self.context = context
        self.building = building
        self.names = names
        self.expressions = expressions

    def note_place(self, o: Object) -> None:
        """A constant or shared variable was declared in a unit of the hierarchy: it can be named by its place."""
        self.building.by_path[".".join([*self.building.levels, o.name])] = o

    def note_signal(self, o: Object) -> None:
        """A signal was declared: it becomes one of the design where it has a form as digits."""
        self.building.objects.append(o)
        self.note_place(o)
        width = four_state.width_of(o.subtype)
        if not width or width > self.context.limits.vector_bits:
            return
        signal = self.building.design.add_signal(self.path_below(o.name), width, "variable", o.pos)
        signal.initial = four_state.to_word(o.subtype)(o.value)
        o.design_signal = signal
        self.context.emitter.names[f"m_{o.py}"] = four_state.to_word(o.subtype)
        self.context.emitter.names[f"n_{o.py}"] = signal
        self.context.setup.append(f"R.mirror({o.py}, n_{o.py}, m_{o.py})")
        ranges = o.subtype.ranges
        left, right = four_state.bounds_shown(
            ranges[0] if ranges and isinstance(o.subtype.type, ArrayType) else None, width
        )
        self.building.variables.append(Variable(o.name, signal, "reg", left, right))

    def design_port(self, o: Object) -> None:
        """A port of the outermost entity becomes one of the design."""
        if o.design_signal is None:
            if self.building.design.ports is not None:
                self.context.collector.note(
                    "port-type", f"the port `{o.name}` is of type {o.subtype.shown}, which has no form as digits", o.pos
                )
            return
        direction: Any = {"in": "in", "out": "out", "buffer": "out", "inout": "inout", "linkage": "inout"}[o.mode]
        self.building.design.ports.append(
            Port(o.name, direction, o.design_signal, four_state.is_signed(o.subtype), o.pos)
        )
        if direction in ("in", "inout"):
            self.context.emitter.names[f"w_{o.py}"] = four_state.from_word(o.subtype)
            self.context.setup.append(f"R.outside({o.py}, n_{o.py}, w_{o.py}, {direction == 'inout'})")
        if direction in ("out", "inout"):
            self.context.setup.append(f"R.show({o.py}, n_{o.py}, m_{o.py})")

    def implicit_signal(self, prefix: t.Expr, e: ast.Attribute) -> t.Expr:
        """The signal that an attribute is: 'delayed, 'stable, 'quiet or 'transaction (16.2.4)."""
        if not self.names.is_signal(prefix):
            raise self.context.wrong("attribute", f"`'{e.name}` belongs to signals, and this is none", e)
        root, path = static_prefix(prefix)
        assert root is not None
        delay = self.expressions.expr(e.arg, TIME) if e.arg is not None else t.Const(TIME, e.pos, 0)
        if not isinstance(delay, t.Const):
            raise self.context.wrong("constant", "the time of this attribute must be constant", e)
        key = f"{root.py}'{e.name}{path}{delay.value}"
        if key not in self.building.implicit_signals:
            sub = Subtype(BIT) if e.name == "transaction" else prefix.sub or Subtype(prefix.type)
            if not sub.static():
                raise self.context.wrong("constant", "the range of this signal must be constant", e)
            o = Object(f"{root.name}'{e.name}", "signal", sub, e.pos, self.context.emitter.fresh("s"))
            o.value = default_value(sub) if e.name == "transaction" else self._part_value(root.value, path)
            spec = self.context.emitter.constant(o.value)
            lines = [f"{o.py} = R.signal({o.name!r}, {spec}, None)"]
            source = self.context.emitter.signal(prefix)
            if e.name == "transaction":
                lines.append(f"R.transaction({o.py}, {source})")
            else:
                lines.append(f"R.delayed({o.py}, {source}, {delay.value})")
            self.context.flush()
            self.context.emitter.execute(Piece("\n".join(lines) + "\n", o.name), False)
            self.building.implicit_signals[key] = o
        found = self.building.implicit_signals[key]
        return t.Read(found.subtype.type, e.pos, found, sub=found.subtype)

    @staticmethod
    def _part_value(value: Any, path: tuple[Any, ...]) -> Any:
        return part_of(value, path)

    def path_below(self, name: str) -> str:
        """A name with the levels of the hierarchy that it stands in, the top left out."""
        return ".".join([*self.building.levels[1:], name])

    def by_path(self, levels: list[str], up: int | None) -> Object | None:
        """An object by its place: below the top where `up` is None, else below so many levels above this one."""
        here = [] if up is None else self.building.levels[: len(self.building.levels) - up]
        return self.building.by_path.get(".".join([*here, *levels]))

    def place_of(self, name: str, with_units: bool = False) -> str:
        """Where something is in the hierarchy, as `'path_name` writes it, or `'instance_name` with the units
        (16.2.5)."""
        levels = ":".join(self.building.places if with_units else self.building.levels)
        scopes = {scope.name for scope in self.context.scope.chain() if scope.outer is not None}
        region = name in scopes and not any(name in scope.names for scope in self.context.scope.chain())
        return f":{levels}:" if region else f":{levels}:{name}"
