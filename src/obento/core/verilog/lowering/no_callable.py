"""What is called and is no function or task: what is said of each."""

from __future__ import annotations

from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.collections import METHODS
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.lowering.selects import ENUM_METHODS
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import FunctionEntry, Vector
from obento.core.verilog.syntax import ast

_MEANT = {"push": "push_back", "pop": "pop_front", "append": "push_back", "len": "size", "length": "size"}
"""Methods of collections by their names elsewhere."""
_SIZES = frozenset(["size", "len", "length", "num"])


def no_callable(x: Expressions, e: ast.Call | ast.TaskCall, entry: object, what: str) -> ElaborationError:
    """Report a name that is called and is no `what` (function or task); raise what is given back."""
    base, dot, method = e.name.rpartition(".")
    of = x.find(_path(e, base)) if dot else None
    if isinstance(of, Vector):
        return _no_method(x, e, of, base, method)
    if isinstance(entry, Vector):
        text = f"`{e.name}` is a signal, no {what}"
        return x.error("index-in-parentheses", text, e, f"an index stands in brackets: `{e.name}[...]`")
    if e.name == "new":
        return x.error("no-function", "`new` makes a dynamic array", e, "its size stands in brackets: `new[4]`")
    hint = did_you_mean(e.name, [n for n in x.scope.all_names() if isinstance(x.scope.find(n), FunctionEntry)])
    return x.error(f"no-{what}", f"there is no {what} `{e.name}`", e, hint)


def _path(e: ast.Call | ast.TaskCall, base: str) -> ast.Name | ast.Dotted:
    parts = base.split(".")
    return ast.Name(e.start, e.end, base) if len(parts) == 1 else ast.Dotted(e.start, e.end, parts, [None] * len(parts))


def _no_method(x: Expressions, e: ast.Call | ast.TaskCall, of: Vector, base: str, method: str) -> ElaborationError:
    """Report a method that a variable does not have."""
    if of.shape.type.collected is not None or of.dims:
        meant = _MEANT.get(method)
        hint = f"did you mean `{meant}`?" if meant and of.shape.type.collected else did_you_mean(method, METHODS)
        kind = of.shape.type.collected.kind if of.shape.type.collected is not None else "fixed"
        said = {"dynamic": "a dynamic array", "queue": "a queue", "map": "an associative array"}.get(kind, "an array")
        if kind == "fixed" and method in _SIZES:
            hint = f"`$size({base})` tells how many elements it has"
        return x.error("no-method", f"`{base}` is {said} and has no method `{method}`", e, hint)
    if of.type.is_enum:
        there = ", ".join(f"`{m}`" for m in ("first", "last", "next", "prev", "num", "name"))
        hint = did_you_mean(method, ENUM_METHODS) or f"enumerations have {there}"
        return x.error("no-method", f"`{base}` is an enumeration and has no method `{method}`", e, hint)
    if of.type.is_text:
        return x.error("no-method", f"`{base}` is a string and has no method `{method}`", e)
    hint = f"`$bits({base})` tells how many digits it has" if method in _SIZES else ""
    return x.error("no-method", f"`{base}` is a number and has no methods", e, hint)
