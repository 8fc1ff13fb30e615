"""What an expression does beside giving a value: `i++`, `(a = b)`, functions that write to their arguments (IEEE
1800-2017 clauses 11.3.6, 11.4.2 and 13.4).

It is done before the statement that the expression stands in, in the order of the text; its value goes by way of a
variable. What `&&`, `||` and `? :` do not come to is not done (clause 11.3.5)."""

from __future__ import annotations

from typing import Protocol

from obento.core.ir import nodes as ir
from obento.core.values import word
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.model.scope import FunctionEntry, Vector
from obento.core.verilog.model.types import DataType, Dims, Shape, builtin
from obento.core.verilog.syntax import ast


class Doing(Protocol):
    """Statements, as far as expressions need them."""

    def assign(self, s: ast.Assign) -> ir.Stmt:
        """A blocking assignment."""

    def called_for(self, e: ast.Call, entry: FunctionEntry, result: list[ir.Target]) -> ir.Stmt:
        """A call whose value goes to a place."""

    def kept(self, name: str, of: DataType, dims: Dims, position: int) -> Vector:
        """A variable without a name."""


class Effects:
    """What the expressions of one process, function or task do. `before` has what the statement at hand does first."""

    def __init__(self, doing: Doing) -> None:
        self._doing = doing
        self.before: list[ir.Stmt] = []
        self._values: dict[int, Vector] = {}

    def begin(self) -> tuple[list[ir.Stmt], dict[int, Vector]]:
        """A statement of its own begins; what is given back goes to `end`."""
        outside = self.before, self._values
        self.before, self._values = [], {}
        return outside

    def end(self, outside: tuple[list[ir.Stmt], dict[int, Vector]]) -> list[ir.Stmt]:
        """What the statement does first."""
        made = self.before
        self.before, self._values = outside
        return made

    def value_of(self, x: Expressions, e: ast.Effect) -> ir.Expr:
        """The value of something that is done meanwhile; it is done once however often it is asked for."""
        known = self._values.get(id(e))
        if known is None:
            x.alive.append(e)
            shape = x.target_shape(e.done.target)
            known = self._values[id(e)] = self._doing.kept(f"value@{e.start}", shape.type, shape.dims, e.start)
            keep = ir.Assign(e.start, [_whole(known)], x.digits(e.done.target))
            done = self._doing.assign(e.done)
            self.before += [keep, done] if e.before else [done, keep]
        return known.whole()

    def cast(self, x: Expressions, e: ast.Call) -> ir.Expr:
        """`$cast(target, value)`: whether the value is one of the target, which then takes it (1800 clause 6.24.2)."""
        known = self._values.get(id(e))
        target, value = (*e.args, None, None)[:2]
        if len(e.args) != 2 or target is None or value is None:
            raise x.error("arguments", "`$cast` takes a variable and a value", e)
        if known is None:
            x.alive.append(e)
            of = x.target_shape(target).type
            known = self._values[id(e)] = self._doing.kept(f"cast@{e.start}", builtin("bit"), (), e.start)
            width = max(of.width, x.size(value)[0])
            given = x.lower(value, width, x.size(value)[1])
            fits: ir.Expr = ir.Const(1, 1, 0)
            if of.is_enum:
                fits = ir.Const(1, 0, 1)
                for number in of.values.values():
                    same = ir.Binary(1, "ceq", given, ir.Const(width, *word(number, width)))
                    fits = ir.Binary(1, "or", fits, same)
            taken = ir.Assign(e.start, x.targets(target), ir.Slice(of.width, given, 0))
            self.before += [
                ir.Assign(e.start, [_whole(known)], fits),
                ir.If(e.start, known.whole(), taken, None),
            ]
        return ir.Extend(32, known.whole(), False)

    def called(self, x: Expressions, e: ast.Call, entry: FunctionEntry) -> ir.Expr:
        """What a function gives that writes to its arguments too."""
        known = self._values.get(id(e))
        if known is None:
            x.alive.append(e)
            x.lowered_function(entry)
            assert entry.shape is not None
            known = self._values[id(e)] = self._doing.kept(
                f"{e.name}@{e.start}", entry.shape.type, entry.shape.dims, e.start
            )
            self.before.append(self._doing.called_for(e, entry, [_whole(known)]))
        return known.whole()

    def variable(self, name: str, shape: Shape, position: int) -> Vector:
        """A variable without a name, one for all calls."""
        made = self._doing.kept(name, shape.type, shape.dims, position)
        made.signal.automatic = False
        return made

    def only_where(self, since: int, cond: ir.Expr, unless: int, position: int) -> ir.Expr:
        """What has been done since then is done only where a condition is not `unless`; the condition, as it was."""
        later = self.before[since:]
        if not later:
            return cond
        name = f"condition@{position}@{since}"
        was = self._doing.kept(name, DataType("logic", 1, False, False, (0, 0)), (), position)
        decided = ir.Binary(1, "ceq", was.whole(), ir.Const(1, unless, 1 - unless))
        self.before[since:] = [
            ir.Assign(position, [_whole(was)], cond),
            ir.If(position, ir.Unary(1, "lnot", decided), ir.Block(position, later), None),
        ]
        return was.whole()


def _whole(vector: Vector) -> ir.Target:
    return ir.Target(vector.signal, 0, vector.signal.width)


def chosen(x: Expressions, e: ast.Conditional, width: int, signed: bool) -> ir.Expr:
    """`? :`, which does what stands in a branch where it comes to it."""
    cond, done = x.truth(e.cond), _done(x)
    a = x.lower(e.a, width, signed)
    if x.effects is not None and _done(x) > done:
        cond = x.effects.only_where(done, ir.Unary(1, "ror", cond), 0, e.start)
    done = _done(x)
    b = x.lower(e.b, width, signed)
    if x.effects is not None and _done(x) > done:
        cond = x.effects.only_where(done, ir.Unary(1, "ror", cond), 1, e.start)
    return ir.Mux(width, cond, a, b)


def both_or_either(x: Expressions, e: ast.Binary) -> ir.Expr:
    """`&&` or `||`, which does what stands on its right where the left has not decided."""
    a, done = _bit(x.truth(e.a)), _done(x)
    b = _bit(x.truth(e.b))
    if x.effects is not None and _done(x) > done:
        a = x.effects.only_where(done, a, 0 if e.op == "&&" else 1, e.start)
    return ir.Binary(1, "and" if e.op == "&&" else "or", a, b)


def _bit(e: ir.Expr) -> ir.Expr:
    return e if e.width == 1 else ir.Unary(1, "ror", e)


def _done(x: Expressions) -> int:
    """How much the statement at hand does before its own."""
    return len(x.effects.before) if x.effects is not None else 0
