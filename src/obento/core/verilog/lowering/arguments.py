"""What the arguments of a function or task are given (IEEE 1364-2005 clause 10, 1800-2017 clause 13.5)."""

from __future__ import annotations

from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.model.scope import Formal, FunctionEntry, Scope, Vector
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


def gives_back(item: ast.FunctionItem) -> bool:
    """Whether a function or task writes to some of its arguments."""
    return any(isinstance(d, ast.Declaration) and d.direction in ("out", "inout", "ref") for d in item.declarations)


def for_variables(x: Expressions, s: ast.TaskCall, entry: FunctionEntry) -> FunctionEntry:
    """A task as it is for the variables that it is given by reference, where they are whole and stay (1800 clause
    13.5.2): while it waits, it sees and changes them as anybody does."""
    names = [
        (d.name, i)
        for i, (declaration, d) in enumerate(
            (declaration, d)
            for declaration in entry.item.declarations
            if isinstance(declaration, ast.Declaration) and declaration.direction
            for d in declaration.names
        )
        if declaration.direction in ("ref", "const ref")
    ]
    given: dict[str, Vector] = {}
    for name, i in names:
        arg = s.args[i] if i < len(s.args) else s.named.get(name)
        found = x.find(arg) if isinstance(arg, ast.Name | ast.Dotted) else None
        if not isinstance(found, Vector) or found.signal.automatic or found.signal.kind == "net":
            return entry
        given[name] = found
    if not given:
        return entry
    key = tuple(n for v in given.values() for n in (v.signal.id, v.at))
    known = entry.by_reference.get(key)
    if known is None:
        inner = Scope(f"{entry.inner.path}@{len(entry.by_reference) + 1}", entry.scope)
        inner.automatic = entry.item.automatic
        known = entry.by_reference[key] = FunctionEntry(entry.item, entry.scope, inner, same_as=given, asked_at=s)
        known.by_reference = entry.by_reference
    return known


def has_references(entry: FunctionEntry) -> bool:
    """Whether a task gets variables by reference, and goes by their values instead."""
    declarations = [d for d in entry.item.declarations if isinstance(d, ast.Declaration)]
    return not entry.same_as and any(d.direction in ("ref", "const ref") for d in declarations)
