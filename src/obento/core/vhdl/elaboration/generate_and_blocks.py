"""Regions inside an architecture: generate statements and blocks (IEEE 1076-1993 clauses 9.1 and 9.7)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from obento.core.ir.design import ScopeOfNames, Variable
from obento.core.vhdl.analysis.statements import signals_read
from obento.core.vhdl.elaboration.instances import Instances
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object, Scope
from obento.core.vhdl.model.types import Subtype
from obento.core.vhdl.packages.standard import BOOLEAN
from obento.core.vhdl.syntax import ast


class Regions(Instances):
    """Opens the scopes of generate statements and blocks; what stands in them is built by whoever builds architectures."""

    names: list[ScopeOfNames]
    _levels: list[str]
    _variables: list[Variable]

    def _body(self, decls: Sequence[ast.Decl], body: Sequence[ast.Concurrent]) -> None:
        raise NotImplementedError

    def _generics(self, generics: Sequence[ast.Interface], given: Mapping[str, t.Expr]) -> None:
        raise NotImplementedError

    def _ports(self, ports: Sequence[ast.Interface], outermost: bool) -> list[Object]:
        raise NotImplementedError

    def _generate(self, s: ast.Generate) -> None:
        self.label(s.label, s)
        if s.parameter:
            self._for_generate(s)
            return
        selector = self.expr(s.selector) if s.selector is not None else None
        if selector is not None and not isinstance(selector, t.Const):
            raise self.wrong("constant", "a generate chooses by a constant", s)
        for arm in s.arms:
            if selector is not None:
                chosen = self.choices(arm.choices, selector, False)
                taken = chosen is None or any(c[0] <= selector.value <= c[1] if isinstance(c, tuple) else c == selector.value for c in chosen)
            elif arm.condition is None:
                taken = True
            else:
                condition = self.condition(arm.condition)
                self.emit_called(condition)
                if not isinstance(condition, t.Const):
                    condition = self.constant_now(condition, arm.condition)
                taken = bool(condition.value)
            if taken:
                self._region(s.label, arm)
                return

    def constant_now(self, x: t.Expr, e: ast.Expr) -> t.Const:
        if any(signals_read(x)):
            raise self.wrong("constant", "the condition of a generate must be constant", e, "a signal is looked at in a process: if ... then")
        return t.Const(x.type, x.pos, self.worked_out(x, Subtype(x.type)))

    def _for_generate(self, s: ast.Generate) -> None:
        r = self.discrete(s.range)  # type: ignore[arg-type]
        left, right = (v.value if isinstance(v, t.Const) else self.constant_now(v, s.range).value for v in (r.left, r.right))  # type: ignore[arg-type]
        rounds = range(left, right - 1, -1) if r.down is True else range(left, right + 1)
        if len(rounds) > self.limits.generate_rounds:
            raise self.wrong("limit", f"this generate has more than {self.limits.generate_rounds} rounds", s)
        for value in rounds:
            outer = self.scope
            self.scope = Scope(outer, s.label)
            o = Object(s.parameter, "constant", Subtype(r.left.type, [r]), s.pos, "", value=value, known=True, loop=True)
            self.scope.add(s.parameter, o)
            try:
                self._region(f"{s.label}({value})", s.arms[0])
            finally:
                self.scope = outer

    def _region(self, label: str, arm: ast.GenerateArm) -> None:
        outer, pending = self.scope, self.pending
        self.scope, self.pending = Scope(outer, label), []
        self._levels.append(label)
        names, variables = self.names, self._variables
        inner = ScopeOfNames(label, "begin", ".".join(self._levels))
        names.append(inner)
        self.names, self._variables = inner.children, inner.variables
        self._configured.append({})
        try:
            self._body(arm.decls, arm.body)
        finally:
            self._configured.pop()
            self.scope, self.pending = outer, pending
            self._levels.pop()
            self.names, self._variables = names, variables

    def _block(self, s: ast.Block) -> None:
        self.label(s.label, s)
        outer, pending = self.scope, self.pending
        self.scope, self.pending = Scope(outer, s.label), []
        self._levels.append(s.label)
        self._configured.append({})
        try:
            if s.generics:
                given = {g.name: self.expr(a.value, self.subtype(g.subtype).type) for g, a in zip(s.generics, s.generic_map, strict=False)}
                self._generics(s.generics, given)
            if s.ports:
                ports = self._ports(s.ports, False)
                self._connect(ports, s.port_map, s, outer)
            if s.guard is not None:
                self._guard(s)
            self._body(s.decls, s.body)
        finally:
            self._configured.pop()
            self.scope, self.pending = outer, pending
            self._levels.pop()

    def _guard(self, s: ast.Block) -> None:
        """The implicit signal GUARD follows its expression in the same cycle, as a port follows what is connected (1076-1993 clause 12.6.2)."""
        assert s.guard is not None
        node = ast.Node(s.guard.pos, s.guard.end)
        guard = self.new_signal("guard", Subtype(BOOLEAN), None, node)
        guard.mode = "in"
        guard.sources.append((id(guard), node.pos, ()))
        self.join_value(guard, (), self.expr(s.guard, BOOLEAN), None, node)
