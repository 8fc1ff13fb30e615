"""A unit in another language as an instance: its ports become signals that cross the four_state."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from obento.core.ir.design import Port
from obento.core.ir.drivers import waits
from obento.core.ir.embed import embed, instance_of
from obento.core.suggest import did_you_mean
from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.declarations import Declarations
from obento.core.vhdl.analysis.expressions import Expressions
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.analysis.type_declarations import TypeDeclarations
from obento.core.vhdl.elaboration.building import Building
from obento.core.vhdl.elaboration.design_signals import DesignSignals
from obento.core.vhdl.elaboration.ports import Ports
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Component, Object, TypeName
from obento.core.vhdl.model.types import ArrayType, EnumType, Subtype
from obento.core.vhdl.packages.standard import BIT, INTEGER, int_range
from obento.core.vhdl.runtime import four_state
from obento.core.vhdl.syntax import ast


class ForeignUnits:
    """Places units of other languages."""

    def __init__(
        self,
        context: Context,
        building: Building,
        names: Names,
        expressions: Expressions,
        types: TypeDeclarations,
        declarations: Declarations,
        signals: DesignSignals,
        ports: Ports,
    ) -> None:
        self.context = context
        self.building = building
        self.names = names
        self.expressions = expressions
        self.types = types
        self.declarations = declarations
        self.signals = signals
        self.ports = ports

    def place_foreign(
        self, s: ast.Instance, name: str, port_map: Sequence[ast.Assoc], component: Component | None = None
    ) -> None:
        """Put a module or wiring list of the same hand-in where an entity is wanted.

        Raises
        ------
        AnalysisError
            If there is none, or its ports do not fit; reported.
        """
        inner = self.building.foreign(name, s) if self.building.foreign is not None else None
        if inner is None:
            hint = did_you_mean(name, self.building.design_units.entities) or "hand in the file that has it"
            raise self.context.wrong("unbound", f"there is no entity `{name}` among these files", s.what, hint)
        if s.generics:
            raise self.context.wrong("unsupported", "a unit of another language takes no generics here", s)
        if any(p.delay is not None or waits(p.body) for p in inner.processes):
            self.building.design.precision = max(self.building.design.precision, inner.precision)
        self.building.instance.children.append(instance_of(inner, s.label, name, s.pos))
        ports = embed(self.building.design, inner, self.signals.path_below(s.label))
        for port, actual in self._pairs(ports, port_map, component, s):
            self._join(port, actual, component)

    def _pairs(
        self, ports: list[Port], port_map: Sequence[ast.Assoc], component: Component | None, s: ast.Instance
    ) -> list[tuple[Port, ast.Assoc]]:
        by_name = {p.name.lower(): p for p in ports}
        order = [p.name for p in component.node.ports] if component is not None else [p.name.lower() for p in ports]
        pairs: list[tuple[Port, ast.Assoc]] = []
        for i, a in enumerate(port_map):
            formal = a.choices[0] if a.choices else None
            if formal is not None and not isinstance(formal, ast.Id):
                raise self.context.wrong(
                    "unsupported", "ports of a unit in another language are connected as a whole", formal
                )
            name = formal.name if isinstance(formal, ast.Id) else order[i] if i < len(order) else ""
            if name not in by_name:
                raise self.context.wrong("port", f"`{s.label}` has no port `{name}`", a, did_you_mean(name, by_name))
            if not isinstance(a.value, ast.Open):
                pairs.append((by_name[name], a))
        return pairs

    def _join(self, port: Port, a: ast.Assoc, component: Component | None) -> None:
        width = port.signal.width
        subtype = self._subtype(port, a, component)
        if four_state.width_of(subtype) != width:
            raise self.context.wrong(
                "width",
                f"the port `{port.name}` is {width} wide, what is connected {four_state.width_of(subtype)}",
                a.value,
            )
        mode = {"in": "in", "out": "out", "inout": "inout"}[port.direction]
        o = Object(port.name, "signal", subtype, a.pos, self.context.emitter.fresh("s"), mode, is_port=True)
        o.value = self.declarations.first_value(None, subtype)
        self.context.setup.append(
            f"{o.py} = R.signal({o.name!r}, {self.context.emitter.constant(o.value)},"
            f" {self.context.emitter.keep(self.declarations.resolution(subtype))})"
        )
        self.building.objects.append(o)
        x = self._actual(o, a.value)
        self.ports.join_value(o, (), x, None, a)
        names = self.context.emitter.names
        names[f"n_{o.py}"] = port.signal
        if mode != "out":
            names[f"m_{o.py}"] = four_state.to_word(subtype)
            self.context.setup.append(f"R.show({o.py}, n_{o.py}, m_{o.py})")
        if mode != "in":
            names[f"w_{o.py}"] = four_state.from_word(subtype)
            self.context.setup.append(f"R.outside({o.py}, n_{o.py}, w_{o.py}, True)")
            self.building.outside.append(port.signal)

    def _actual(self, o: Object, e: ast.Expr) -> t.Expr:
        if o.mode == "in":
            return self.expressions.expr(e, o.subtype.type, o.subtype)
        x: Any = self.names.denote(e)
        if not isinstance(x, t.Expr):
            raise self.context.wrong("port", f"the output `{o.name}` must be connected to a signal", e)
        return x

    def _subtype(self, port: Port, a: ast.Assoc, component: Component | None) -> Subtype:
        """The type of a port on this side: as its component says, else that of what is connected, else a plain
        vector."""
        if component is not None:
            declared = next((p for p in component.node.ports if p.name == port.name.lower()), None)
            if declared is not None:
                return self.types.subtype(declared.subtype)
        width = port.signal.width
        types = [i.type for i in self.expressions.interps(a.value)]
        logic = next((x for x in types if x.name == "std_ulogic"), None)
        if width == 1 and logic is not None:
            return Subtype(logic)
        x = self.expressions.expr(a.value)
        if x.sub is not None and four_state.width_of(x.sub) == width:
            return x.sub
        if isinstance(x.type, EnumType) and four_state.width_of(Subtype(x.type)) == width:
            return Subtype(x.type)
        found = self.context.scope.find("std_logic_vector")
        vector = found[0].subtype.type if found and isinstance(found[0], TypeName) else None
        if isinstance(vector, ArrayType):
            return Subtype(vector, [int_range(INTEGER, width - 1, 0, True)])
        return Subtype(BIT)
