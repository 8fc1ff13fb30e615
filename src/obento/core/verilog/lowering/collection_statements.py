"""Statements that change queues, dynamic arrays and maps, and loops over them (IEEE 1800-2017 clauses 7.5, 7.8, 7.10
and 12.7.3)."""

from __future__ import annotations

from dataclasses import replace

from obento.core.ir import nodes as ir
from obento.core.values import word
from obento.core.verilog.lowering.aggregates import left_to_right
from obento.core.verilog.lowering.effects import Doing
from obento.core.verilog.lowering.expressions import ExpressionLowering
from obento.core.verilog.model.scope import Vector
from obento.core.verilog.model.types import Collected, Shape, builtin, collection, count_of
from obento.core.verilog.syntax import ast


class CollectionStatements:
    """The statements of one process, function or task that are about collections."""

    def __init__(self, x: ExpressionLowering, doing: Doing) -> None:
        self._x = x
        self._doing = doing

    def called(self, s: ast.TaskCall) -> ir.Stmt | None:
        """A method that is called for what it does; None where this is none of a collection."""
        call = ast.Call(s.start, s.end, s.name, s.args, s.path, s.named, s.each)
        method = self._x.typed.method(call)
        is_other = method is None or method.name in ("index", "triggered")
        shape = None if method is None or is_other else self._x.shape_of(method.base)
        if method is None or shape is None or not (shape.dims or shape.type.collected):
            return None
        of = self._x.collections.asked(method)
        done = self._x.collections.lower_method(of, method)
        if not shape.dims:
            return ir.CollectionTask(s.start, done)
        return self._ordered(s, method.base, shape, of, done)

    def _ordered(self, s: ast.TaskCall, base: ast.Expr, shape: Shape, of: Collected, done: ir.CollectionOp) -> ir.Stmt:
        """An array of fixed size in another order: its elements go out, are put in order and come back."""
        kept = self._doing.kept(f"elements@{s.start}", collection(of), (), s.start)
        whole = ir.Ref(64, kept.signal)
        out = ir.Assign(s.start, [ir.Target(kept.signal, 0, 64)], done.args[0])
        done.args[0] = whole
        width, count = of.element.width, count_of(shape.dims[:1])
        parts: list[ir.Expr] = [ir.CollectionOp(width, "at", [whole, ir.Const(32, *word(i, 32))]) for i in range(count)]
        value = left_to_right(ir.Concat(shape.width, parts), shape)
        back = ir.Assign(s.start, self._x.targets(base), value)
        return ir.Block(s.start, [out, ir.CollectionTask(s.start, done), back])

    def put(self, s: ast.Assign, variable: Vector, chosen: ast.Index | ast.Part, parts: list[ast.Expr]) -> ir.Stmt:
        """`q[index] = value`, or of a part of the element: that is taken out, changed and put back."""
        x, of = self._x, variable.type.collected
        assert of is not None
        if not s.blocking or s.timing is not None:
            raise x.error(
                "collection-later", "an element of a collection is written at once: `=` (1800 clause 10.4.2)", s
            )
        if isinstance(chosen, ast.Part):
            raise x.error("bad-target", "a part of a queue cannot be written to", s.target)
        whole = ir.Ref(64, variable.signal)
        index = x.collections.index(whole, of, chosen.index)
        if not parts:
            return self._put(s, whole, index, x.to_shape(s.value, of.element))
        name = f"element@{s.start}"
        kept = self._doing.kept(name, of.element.type, of.element.dims, s.start)
        x.scope.entries[name] = kept
        target: ast.Expr = ast.Name(s.target.start, s.target.end, name)
        for part in parts:
            assert isinstance(part, ast.Member | ast.Part | ast.Index)
            target = replace(part, base=target)
        there = [ir.Target(kept.signal, 0, kept.signal.width)]
        taken = ir.Assign(s.start, there, ir.CollectionOp(of.element.width, "at", [whole, index]))
        changed = self._doing.assign(ast.Assign(s.start, s.end, target, s.value, True))
        return ir.Block(s.start, [taken, changed, self._put(s, whole, index, kept.whole())])

    def _put(self, s: ast.Assign, whole: ir.Expr, index: ir.Expr, value: ir.Expr) -> ir.Stmt:
        return ir.CollectionTask(s.start, ir.CollectionOp(64, "put", [whole, index, value]))

    # Loops.

    def declare_counter(self, s: ast.Foreach, of: Collected) -> None:
        """The name that counts is of the type of the keys."""
        name = s.names[0]
        if name is not None and of.key is not None:
            self._x.scope.entries[name] = self._doing.kept(name, of.key, (), s.start)

    def for_each(self, s: ast.Foreach, of: Collected, body: ir.Stmt) -> ir.Stmt:
        """`body` for each place or key that there is when its turn comes."""
        name = s.names[0]
        entry = self._x.scope.find(name) if name is not None else None
        counter = (
            entry if isinstance(entry, Vector) else self._doing.kept(f"key@{s.start}", builtin("int"), (), s.start)
        )
        whole = self._x.select(s.array)
        there = [ir.Target(counter.signal, 0, counter.signal.width)]
        if of.kind != "map":
            zero, one = (ir.Const(32, *word(n, 32)) for n in (0, 1))
            more = ir.Binary(1, "slt", counter.whole(), ir.CollectionOp(32, "size", [whole]))
            step = ir.Assign(s.start, there, ir.Binary(32, "add", counter.whole(), one))
            loop = ir.Loop(s.start, more, ir.Block(s.start, [body, step]))
            return ir.Block(s.start, [ir.Assign(s.start, there, zero), loop])
        found = self._doing.kept(f"found@{s.start}", builtin("int"), (), s.start)

        def go_to(which: str) -> ir.Stmt:
            op = ir.CollectionOp(32, which, [whole, counter.whole()], key=there)
            return ir.Assign(s.start, [ir.Target(found.signal, 0, 32)], op)

        loop = ir.Loop(s.start, found.whole(), ir.Block(s.start, [body, go_to("next")]))
        return ir.Block(s.start, [go_to("first"), loop])
