"""Names that stand for no value where one is needed: what is said of each."""

from __future__ import annotations

from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Entry, FunctionEntry, Genvar, Inside, TypeName
from obento.core.verilog.syntax import ast

_ELSEWHERE = {"true": "write `1'b1`", "false": "write `1'b0`", "null": "a value that is left out is `'x` or `'z`"}
"""Words of other languages."""


def no_value(x: Expressions, e: ast.Name | ast.Dotted, found: Entry | None) -> ElaborationError:
    """Report a name that is not known, or is something else; raise what is given back."""
    if found is None:
        return _no_path(x, e) if isinstance(e, ast.Dotted) else _undeclared(x, e)
    name = text_of(e)
    if isinstance(found, FunctionEntry) and not found.item.task and isinstance(e, ast.Name):
        text = f"`{name}` is a function: its arguments are missing"
        return x.error("not-a-value", text, e, f"write `{name}(...)`")
    what = {
        Inside: "a block or an instance",
        Genvar: "a genvar, which counts in generate loops only",
        TypeName: "a type",
    }.get(type(found), "a task")
    return x.error("not-a-value", f"`{name}` is {what}, not a signal", e)


def _no_path(x: Expressions, e: ast.Dotted) -> ElaborationError:
    first = e.parts[0]
    if isinstance(x.scope.find(first), TypeName):
        text = f"`{first}` is a type, and members are those of a variable"
        return x.error("type-as-value", text, e, f"declare one: `{first} x;`")
    if x.scope.package(first) is not None:
        return x.error("package-dot", f"`{first}` is a package", e, f"write `{first}::{e.parts[1]}`")
    text = f"there is nothing called `{text_of(e)}` in the hierarchy"
    return x.error("no-path", text, e, "names of instances, not of modules, make the path")


def _undeclared(x: Expressions, e: ast.Name) -> ElaborationError:
    package, colons, inner = e.name.partition("::")
    if colons:
        inside = x.scope.package(package or "$unit")
        if inside is None:
            return x.error("no-name", f"there is no package `{package}`", e, "hand in the file with it too")
        near = did_you_mean(inner, inside.entries)
        return x.error("no-name", f"the package `{package}` has no `{inner}`", e, near)
    hint = _meant(x, e.name) if x.collector.shows("error") else ""
    return x.error("undeclared", f"`{e.name}` is not declared", e, hint or "declare it with `wire` or `reg`")


def _meant(x: Expressions, name: str) -> str:
    """What may be meant by a name that is not known: one of a block or package that is not seen here, or a near one."""
    if name in _ELSEWHERE:
        return _ELSEWHERE[name]
    if x.scope.is_inside(name):
        return "one with this name lives inside of a block or loop only; declare it before that"
    package = x.scope.package_with(name)
    if package:
        return f"`{package}` has it: write `{package}::{name}`, or `import {package}::*;`"
    return did_you_mean(name, x.scope.all_names())


def text_of(e: ast.Name | ast.Dotted) -> str:
    """A name as written."""
    return e.name if isinstance(e, ast.Name) else ".".join(e.parts)
