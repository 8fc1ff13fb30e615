"""`let`: an expression that has a name (IEEE 1800-2017 clause 11.12). It is written out where it is used, while text is
read."""

from __future__ import annotations

from dataclasses import dataclass, fields, is_dataclass
from typing import TypeVar

from obento.core.verilog.syntax import ast

_T = TypeVar("_T")


@dataclass(frozen=True, slots=True)
class Let:
    """A named expression, with its arguments and what they are where nothing is given."""

    name: str
    formals: dict[str, ast.Expr | None]
    body: ast.Expr


def given(let: Let, args: list[ast.Expr | None], named: dict[str, ast.Expr | None]) -> dict[str, ast.Expr] | str:
    """Each argument with what stands for it; a sentence where they do not fit."""
    count = len(args) + len(named)
    if count > len(let.formals) or any(name not in let.formals for name in named):
        return f"`{let.name}` takes {len(let.formals)} values, here are {count}"
    found: dict[str, ast.Expr] = {}
    for i, (name, default) in enumerate(let.formals.items()):
        value = (args[i] if i < len(args) else named.get(name)) or default
        if value is None:
            return f"`{let.name}` takes {len(let.formals)} values, here are {count}"
        found[name] = value
    return found


def written_out(node: _T, values: dict[str, ast.Expr]) -> _T:
    """A copy of a tree with these names replaced."""
    if isinstance(node, ast.Name) and node.name in values:
        return written_out(values[node.name], {})  # type: ignore[return-value]
    if isinstance(node, list):
        return [written_out(item, values) for item in node]  # type: ignore[return-value]
    if isinstance(node, dict):
        return {key: written_out(value, values) for key, value in node.items()}  # type: ignore[return-value]
    if is_dataclass(node) and not isinstance(node, type):
        return type(node)(*(written_out(getattr(node, f.name), values) for f in fields(node)))
    return node
