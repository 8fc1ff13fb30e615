"""Joining ports with what is connected to them (IEEE 1076 clauses 6.5.7 and 14.3)."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any, TypeVar

from obento.core.ir.design import Variable
from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.declarations import Declarations
from obento.core.vhdl.analysis.expressions import Expressions
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.analysis.operators import static_length
from obento.core.vhdl.analysis.reads import signals_read, static_prefix
from obento.core.vhdl.elaboration.building import Building
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object, Scope
from obento.core.vhdl.model.types import ArrayType, RangeX, Subtype
from obento.core.vhdl.packages.standard import INTEGER
from obento.core.vhdl.runtime import four_state
from obento.core.vhdl.syntax import ast

R = TypeVar("R")


class Ports:
    """A port is the same signal as what is connected where both are alike; else two that follow each other."""

    def __init__(
        self, context: Context, building: Building, names: Names, expressions: Expressions, declarations: Declarations
    ) -> None:
        self.context = context
        self.building = building
        self.names = names
        self.expressions = expressions
        self.declarations = declarations

    def connect(self, ports: list[Object], port_map: Sequence[ast.Assoc], s: ast.Node, actual_scope: Scope) -> None:
        """Join ports and actuals: the same signal where both are alike, else two that follow each other."""
        by_name = {p.name: p for p in ports}
        parts: dict[str, list[tuple[ast.Expr | None, ast.Assoc]]] = {p.name: [] for p in ports}
        for i, a in enumerate(port_map):
            formal = a.choices[0] if a.choices else None
            if formal is None:
                if i >= len(ports):
                    raise self.context.wrong("port", f"only {len(ports)} ports are there to connect", a)
                if any(b.choices for b in port_map[:i]):
                    raise self.context.wrong("port", "connections by position come before those by name", a)
                if parts[ports[i].name]:
                    raise self.context.wrong("port", f"the port `{ports[i].name}` is connected twice", a)
                parts[ports[i].name].append((None, a))
                continue
            name = self._formal_name(formal, by_name)
            if name is None:
                raise self.context.wrong("port", "this names no port", formal)
            if any(f is None or isinstance(f, ast.Id) for f, _ in parts[name]):
                raise self.context.wrong("port", f"the port `{name}` is connected twice", formal)
            parts[name].append((formal, a))
        inner_scope = self.context.scope
        for p in ports:
            self._connect_port(p, parts[p.name], s, actual_scope, inner_scope)

    def _formal_name(self, e: ast.Expr, ports: Mapping[str, Object]) -> str | None:
        while True:
            if isinstance(e, ast.Id):
                return e.name if e.name in ports else None
            if isinstance(e, ast.Paren):
                if isinstance(e.prefix, ast.Id) and e.prefix.name not in ports and len(e.args) == 1:
                    e = e.args[0].value
                else:
                    e = e.prefix
            elif isinstance(e, ast.Selected):
                e = e.prefix
            else:
                return None

    def _connect_port(
        self, p: Object, given: list[tuple[ast.Expr | None, ast.Assoc]], s: ast.Node, outer: Scope, inner: Scope
    ) -> None:
        if not given or isinstance(given[0][1].value, ast.Open):
            if p.mode == "in" and p.default is None:
                at = given[0][1] if given else s
                text = f"the input `{p.name}` is left open" if given else f"the input `{p.name}` is not connected"
                raise self.context.wrong(
                    "open-input", text, ast.Node(at.pos, at.pos + 1), "connect it, or give it a default value"
                )
            if not p.subtype.static():
                raise self.context.wrong(
                    "unconstrained", f"the port `{p.name}` needs its range when it is left open", s
                )
            self.declarations.set_up_signal(p)
            return
        if len(given) == 1 and (given[0][0] is None or isinstance(given[0][0], ast.Id)):
            self._connect_whole(p, given[0][1], outer, inner)
            return
        self._constrain_by_parts(p, given, outer, inner)
        if not p.subtype.static():
            raise self.context.wrong("unconstrained", f"the port `{p.name}` needs its range", s)
        p.value = self.declarations.first_value(p.default, p.subtype)
        self.declarations.set_up_signal(p)
        for formal, a in given:
            assert formal is not None
            self._join(p, formal, a, outer, inner)

    def _constrain_by_parts(
        self, p: Object, given: list[tuple[ast.Expr | None, ast.Assoc]], outer: Scope, inner: Scope
    ) -> None:
        """A port of open range takes it from the elements that are connected."""
        if not isinstance(p.subtype.type, ArrayType):
            return
        if p.subtype.ranges is not None:
            return
        first = given[0][0]
        if isinstance(first, ast.Paren) and isinstance(first.prefix, ast.Id) and first.prefix.name != p.name:
            x = self._in_scope(outer, lambda: self.expressions.expr(given[0][1].value))
            if x.sub is not None and x.sub.ranges is not None:
                p.subtype = Subtype(p.subtype.type, x.sub.ranges)
            return
        indices: list[int] = []
        for formal, _ in given:
            if isinstance(formal, ast.Paren):
                for item in formal.args:
                    r = self.expressions.try_range(item.value, INTEGER)
                    if r is not None and r.bounds() is not None:
                        indices += r.bounds()  # type: ignore[arg-type]
                    elif r is None:
                        x = self.expressions.expr(item.value, INTEGER)
                        if isinstance(x, t.Const):
                            indices.append(x.value)
        if indices:
            low, high = (t.Const(INTEGER, p.pos, v) for v in (min(indices), max(indices)))
            p.subtype = Subtype(p.subtype.type, [RangeX(low, high, False)])

    def _in_scope(self, scope: Scope, work: Callable[[], R]) -> R:
        with self.context.aside(scope=scope):
            return work()

    def _connect_whole(self, p: Object, a: ast.Assoc, outer: Scope, inner: Scope) -> None:
        x = self._in_scope(outer, lambda: self._actual(p, a.value))
        if isinstance(p.subtype.type, ArrayType) and p.subtype.ranges is None:
            p.subtype = (
                self.declarations.from_value(p.subtype, x, a)
                if not isinstance(x, t.Read)
                else Subtype(p.subtype.type, x.sub.ranges if x.sub else None)
            )
            if not p.subtype.static():
                raise self.context.wrong(
                    "unconstrained", f"the range of the port `{p.name}` cannot be told from what is connected", a
                )
            if not p.known:
                p.value = self.declarations.first_value(p.default, p.subtype)
        self._check_port_width(p, x, a)
        if (
            isinstance(x, t.Read)
            and x.object.kind == "signal"
            and x.type is p.subtype.type
            and _same_bounds(x.sub, p.subtype)
        ):
            self._check_mode(p, x.object, a)
            p.py = x.object.py
            p.design_signal = x.object.design_signal
            p.guard, p.disconnect = x.object.guard, x.object.disconnect
            p.sources = x.object.sources
            self.building.objects.append(p)
            if p.mode in ("out", "inout", "buffer"):
                self.building.joined.append((p, x.object, len(p.sources)))
            if p.design_signal is not None:
                self.building.variables.append(Variable(p.name, p.design_signal, "wire", *_shown(p)))
            return
        if p.value is None and p.subtype.static():
            p.value = self.declarations.first_value(p.default, p.subtype)
        self.declarations.set_up_signal(p)
        self.join_value(p, (), x, None, a)

    def _check_port_width(self, p: Object, x: t.Expr, a: ast.Assoc) -> None:
        if not isinstance(p.subtype.type, ArrayType) or not isinstance(x.type, ArrayType):
            return
        size, wanted = static_length(x), p.subtype.length()
        if size is not None and wanted is not None and size != wanted:
            raise self.context.wrong(
                "width", f"the port `{p.name}` is {wanted} wide, what is connected {size}", a.value
            )

    def _check_mode(self, p: Object, actual: Object, a: ast.Assoc) -> None:
        if p.mode in ("out", "inout", "buffer") and actual.is_port and actual.mode == "in":
            raise self.context.wrong(
                "input", f"the output `{p.name}` drives `{actual.name}`, which is an input", a.value
            )

    def _actual(self, p: Object, e: ast.Expr) -> t.Expr:
        """What is connected to a port: a signal or part of one, or for inputs any value."""
        if p.mode in ("out", "inout", "buffer"):
            x = self.names.denote(e)
            if not isinstance(x, t.Expr) or not self.names.is_signal(x):
                raise self.context.wrong("port", f"the output `{p.name}` must be connected to a signal", e)
            if x.type is not p.subtype.type:
                shown = f"`{p.name}` is of type {p.subtype.shown}, what is connected {x.type.shown}"
                hint = f"convert on the left: {x.type.shown}({p.name}) => ..." if isinstance(x.type, ArrayType) else ""
                raise self.context.wrong("type", shown, e, hint)
            return x
        return self.expressions.expr(e, p.subtype.type, p.subtype)

    def _join(self, p: Object, formal: ast.Expr, a: ast.Assoc, outer: Scope, inner: Scope) -> None:
        """Connect part of a port, or a port through a conversion."""
        conversion: ast.Paren | None = None
        if (
            isinstance(formal, ast.Paren)
            and isinstance(formal.prefix, ast.Id)
            and formal.prefix.name != p.name
            and len(formal.args) == 1
        ):
            conversion, formal = formal, formal.args[0].value
        place = self.names.denote(formal)
        assert isinstance(place, t.Expr)
        _, path = static_prefix(place)
        if conversion is not None:
            made = self._in_scope(inner, lambda: self.expressions.expr(conversion))
            x = self._in_scope(outer, lambda: self.expressions.expr(a.value, made.type))
            if not self.names.is_signal(x):
                raise self.context.wrong("port", f"the output `{p.name}` must be connected to a signal", a.value)
            self.join_value(p, path, x, made, a)
            return
        part = Object(p.name, "signal", place.sub or Subtype(place.type), p.pos, p.py, p.mode, is_port=True)
        x = self._in_scope(outer, lambda: self._actual(part, a.value))
        self._check_port_width(part, x, a)
        self.join_value(p, path, x, None, a, place.sub)

    def join_value(
        self,
        p: Object,
        path: tuple[Any, ...],
        x: t.Expr,
        converted: t.Expr | None,
        a: ast.Node,
        sub: Subtype | None = None,
    ) -> None:
        """Let a port follow what is connected, or what is connected the port, or both."""
        subtype = sub or p.subtype
        path_text = self.context.emitter.keep(path)
        if p.mode in ("in", "inout", "linkage") and converted is None:
            roots = [r for r in (static_prefix(s)[0] for s in signals_read(x)) if r is not None]
            self.declarations.emit_called(x)
            self.context.flush()
            text = self.context.emitter.fitted(x, subtype)
            names = "".join(f"{r.py}, " for r in dict.fromkeys(roots))
            self.building.joins.append((p, path, x, None, a.pos, True))
            self.context.setup.append(f"R.join_in({p.py}, {path_text}, ({names}), lambda: {text})")
        if p.mode in ("out", "inout", "buffer"):
            root, target = static_prefix(x)
            if root is None:
                raise self.context.wrong("port", f"the output `{p.name}` must be connected to a signal", a)
            if root.is_port and root.mode == "in":
                raise self.context.wrong("input", f"the output `{p.name}` drives `{root.name}`, which is an input", a)
            root.sources.append((id(p), a.pos, target))
            self.context.flush()
            self.context.emitter.names[f"j_{p.py}"] = None
            text = f"R.part({p.py}.driving, {path_text})"
            if converted is not None:
                self.declarations.emit_called(converted)
                text = self.context.emitter.value(converted).replace(f"{p.py}.value", f"{p.py}.driving")
            wanted = x.sub or Subtype(x.type)
            if isinstance(wanted.type, ArrayType) and wanted.ranges is not None:
                text = f"fit_range({text}, {self.context.emitter.bounds(wanted.ranges[0])}, {a.pos})"
            paths = "None" if not target else self.context.emitter.keep([target])
            self.building.joins.append((p, path, x, converted, a.pos, False))
            first = self.context.emitter.constant(root.value)
            self.context.setup.append(
                f"R.join_out({p.py}, R.driver({root.py}, {first}, {paths}), {self.context.emitter.keep(target)},"
                f" lambda: {text})"
            )


def _same_bounds(a: Subtype | None, b: Subtype) -> bool:
    if not isinstance(b.type, ArrayType):
        return True
    if a is None or a.ranges is None or b.ranges is None:
        return False
    return [r.known() for r in a.ranges] == [r.known() for r in b.ranges]


def _shown(o: Object) -> tuple[int, int]:
    width = four_state.width_of(o.subtype)
    ranges = o.subtype.ranges
    return four_state.bounds_shown(ranges[0] if ranges and isinstance(o.subtype.type, ArrayType) else None, width)
