"""Regions inside an architecture: generate statements and blocks (IEEE 1076-1993 clauses 9.1 and 9.7)."""

from __future__ import annotations

from obento.core.vhdl.analysis.concurrent import Concurrent
from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.declarations import Declarations
from obento.core.vhdl.analysis.expressions import Expressions
from obento.core.vhdl.analysis.statements import Statements
from obento.core.vhdl.analysis.type_declarations import TypeDeclarations
from obento.core.vhdl.elaboration.building import Building
from obento.core.vhdl.elaboration.instances import Instances
from obento.core.vhdl.elaboration.ports import Ports
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object, Scope
from obento.core.vhdl.model.types import Subtype
from obento.core.vhdl.packages.standard import BOOLEAN
from obento.core.vhdl.syntax import ast


class Regions:
    """Opens the scopes of generate statements and blocks; what stands in them is built by whoever builds
    architectures."""

    def __init__(
        self,
        context: Context,
        building: Building,
        expressions: Expressions,
        types: TypeDeclarations,
        declarations: Declarations,
        statements: Statements,
        concurrent: Concurrent,
        ports: Ports,
        instances: Instances,
    ) -> None:
        self.context = context
        self.building = building
        self.expressions = expressions
        self.types = types
        self.declarations = declarations
        self.statements = statements
        self.concurrent = concurrent
        self.ports = ports
        self.instances = instances

    def generate(self, s: ast.Generate) -> None:
        """A generate statement (11.9)."""
        self.concurrent.label(s.label, s)
        if s.parameter:
            self._for_generate(s)
            return
        selector = self.expressions.expr(s.selector) if s.selector is not None else None
        if selector is not None and not isinstance(selector, t.Const):
            raise self.context.wrong("constant", "a generate chooses by a constant", s)
        for arm in s.arms:
            if selector is not None:
                chosen = self.statements.choices(arm.choices, selector, False)
                taken = chosen is None or any(
                    c[0] <= selector.value <= c[1] if isinstance(c, tuple) else c == selector.value for c in chosen
                )
            elif arm.condition is None:
                taken = True
            else:
                condition = self.expressions.condition(arm.condition)
                self.declarations.emit_called(condition)
                if not isinstance(condition, t.Const):
                    condition = self.instances.constant_now(condition, arm.condition)
                taken = bool(condition.value)
            if taken:
                self._region(s.label, arm)
                return

    def _for_generate(self, s: ast.Generate) -> None:
        assert s.range is not None
        r = self.expressions.discrete(s.range)
        left, right = (
            v.value if isinstance(v, t.Const) else self.instances.constant_now(v, s.range).value
            for v in (r.left, r.right)
        )
        rounds = range(left, right - 1, -1) if r.down is True else range(left, right + 1)
        if len(rounds) > self.context.limits.generate_rounds:
            raise self.context.wrong(
                "limit", f"this generate has more than {self.context.limits.generate_rounds} rounds", s
            )
        for value in rounds:
            scope = Scope(self.context.scope, s.label)
            o = Object(
                s.parameter, "constant", Subtype(r.left.type, [r]), s.pos, "", value=value, known=True, loop=True
            )
            scope.add(s.parameter, o)
            with self.context.aside(scope=scope):
                self._region(f"{s.label}({value})", s.arms[0])

    def _region(self, label: str, arm: ast.GenerateArm) -> None:
        with (
            self.context.aside(scope=Scope(self.context.scope, label), pending=[]),
            self.building.level(label, "begin"),
            self.building.configuration({}),
        ):
            self.building.units.build_body(arm.decls, arm.body)

    def block(self, s: ast.Block) -> None:
        """A block with its generics, ports and guard (9.1)."""
        self.concurrent.label(s.label, s)
        outer = self.context.scope
        units = self.building.units
        with (
            self.context.aside(scope=Scope(outer, s.label), pending=[]),
            self.building.level(s.label, None),
            self.building.configuration({}),
        ):
            if s.generics:
                given = {
                    g.name: self.expressions.expr(a.value, self.types.subtype(g.subtype).type)
                    for g, a in zip(s.generics, s.generic_map, strict=False)
                }
                units.declare_generics(s.generics, given)
            if s.ports:
                self.ports.connect(units.declare_ports(s.ports, False), s.port_map, s, outer)
            if s.guard is not None:
                self._guard(s)
            units.build_body(s.decls, s.body)

    def _guard(self, s: ast.Block) -> None:
        """The implicit signal GUARD follows its expression in the same cycle, as a port follows what is connected
        (1076-1993 clause 12.6.2)."""
        assert s.guard is not None
        node = ast.Node(s.guard.pos, s.guard.end)
        guard = self.declarations.new_signal("guard", Subtype(BOOLEAN), None, node)
        guard.mode = "in"
        guard.sources.append((id(guard), node.pos, ()))
        self.ports.join_value(guard, (), self.expressions.expr(s.guard, BOOLEAN), None, node)
