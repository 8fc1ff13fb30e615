"""What the arguments of a function or task are given (IEEE 1364-2005 clause 10, 1800-2017 clause 13.5)."""

from __future__ import annotations

from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.model.scope import Formal, FunctionEntry, Scope
from obento.core.verilog.syntax import ast


def bound(x: Expressions, e: ast.Call | ast.TaskCall, entry: FunctionEntry) -> list[tuple[Formal, ast.Expr, Scope]]:
    """Each argument of a function or task with what it is given: by order, by name, by default (1800 clauses 13.5.3
    and 13.5.4). Its default stands in the function's own scope."""
    x.lowered_function(entry)
    count = len(e.args) + len(e.named)
    if count > len(entry.formals):
        raise x.error("arguments", f"`{e.name}` takes {len(entry.formals)} values, here are {count}", e)
    names = [f.name for f in entry.formals]
    for name in e.named:
        if name not in names:
            raise x.error("no-argument", f"`{e.name}` has no argument `{name}`", e, did_you_mean(name, names))
        if names.index(name) < len(e.args):
            raise x.error("arguments", f"the argument `{name}` of `{e.name}` is given twice", e)
    found: list[tuple[Formal, ast.Expr, Scope]] = []
    for i, formal in enumerate(entry.formals):
        value = e.args[i] if i < len(e.args) else e.named.get(formal.name)
        if value is not None:
            found.append((formal, value, x.scope))
        elif formal.default is not None:
            found.append((formal, formal.default, entry.inner))
        else:
            raise x.error(
                "arguments", f"`{e.name}` takes {len(entry.formals)} values, here are {count}", e,
                f"`{formal.name}` gets none",
            )  # fmt: skip
    return found
