"""Regions inside of a declarative part: packages of their own, and protected types (IEEE 1076-2008 clauses 4.7 and
5.6)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Protocol

from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.type_declarations import TypeDeclarations
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import PackageName, Scope, Subprogram, TypeName
from obento.core.vhdl.model.types import ProtectedType, Subtype
from obento.core.vhdl.syntax import ast


class Declaring(Protocol):
    """Declarations, as far as the regions inside of them need them."""

    def declare_all(self, decls: Sequence[ast.Decl]) -> list[t.Stmt]:
        """Declare everything; gives what happens in a run."""

    def head(self, d: ast.SubprogramDecl) -> Subprogram:
        """A subprogram by its declaration alone."""

    def settle_waits(self, f: Subprogram, seen: set[int] | None = None) -> bool:
        """Whether calling a procedure can wait."""

    def emit_subprogram(self, f: Subprogram) -> None:
        """Emit a subprogram with all that it calls, once."""


class InnerRegions:
    """Declares packages and protected types that stand inside of something else."""

    def __init__(self, context: Context, types: TypeDeclarations, declaring: Declaring) -> None:
        self.context = context
        self._types = types
        self._declaring = declaring

    def package(self, d: ast.InnerPackage) -> list[t.Stmt]:
        """A package inside of another unit; what it declares happens where that stands (IEEE 1076-2008 4.7)."""
        if not d.is_body:
            made = PackageName(d.name, Scope(self.context.scope, d.name))
            self._types.add(d.name, made, d)
            with self.context.aside(scope=made.scope, package=d.name, in_body=False):
                out = self._declaring.declare_all(d.decls)
            made.needs_body = [f for f in _subprograms(made.scope) if not f.analysed and f.node is not None]
            return out
        known = [p for p in self.context.scope.names.get(d.name, ()) if isinstance(p, PackageName)]
        if not known:
            raise self.context.wrong("undeclared", f"there is no package `{d.name}` here", d)
        inner = Scope(known[0].scope, d.name)
        inner.names.update(known[0].scope.names)
        with self.context.aside(scope=inner, package=d.name, in_body=True):
            return self._declaring.declare_all(d.decls)

    def bodies_given(self, decls: Sequence[ast.Decl]) -> None:
        """Every subprogram of the packages of a region has its body."""
        for d in decls:
            found = self.context.scope.names.get(d.name, []) if isinstance(d, ast.InnerPackage) else []
            for f in [f for p in found if isinstance(p, PackageName) for f in p.needs_body if not f.analysed]:
                self.context.collector.error("no-body", f"`{f.name}` has no body", f.pos, f.pos + 8)

    def protected(self, d: ast.TypeDecl, definition: ast.ProtectedDef) -> None:
        """A protected type: its methods work on variables of an object of its own."""
        if not definition.is_body:
            made = ProtectedType(d.name, scope=Scope(self.context.scope, d.name))
            self._types.add(d.name, TypeName(d.name, Subtype(made), d.pos), d)
            with self.context.aside(scope=made.scope):
                for item in definition.items:
                    if isinstance(item, ast.SubprogramDecl):
                        f = self._declaring.head(item)
                        f.local = True
                        self.context.scope.add(item.name, f)
            return
        known = [
            k
            for k in self.context.scope.find(d.name)
            if isinstance(k, TypeName) and isinstance(k.subtype.type, ProtectedType)
        ]
        if not known:
            raise self.context.wrong("undeclared", f"the protected type `{d.name}` is not declared before its body", d)
        own = known[0].subtype.type
        assert isinstance(own, ProtectedType)
        keeper = Subprogram(d.name, [], None, d.pos, self.context.emitter.fresh("f"), analysed=True)
        inside = Scope(self.context.scope, d.name)
        inside.names = dict(own.scope.names)
        with self.context.aside(scope=inside, subprogram=keeper):
            keeper.decls = self._declaring.declare_all(definition.items)
        for inner in walk_declared(keeper):
            self._declaring.settle_waits(inner)
            for called in inner.calls:
                self._declaring.emit_subprogram(called)
        bodiless = [
            f for names in own.scope.names.values() for f in names if isinstance(f, Subprogram) and not f.analysed
        ]
        if bodiless:
            raise self.context.wrong("no-body", f"the method `{bodiless[0].name}` of `{d.name}` has no body here", d)
        own.make = keeper.py
        methods = [f for names in own.scope.names.values() for f in names if isinstance(f, Subprogram)]
        self.context.emitter.protected(keeper, [f.py for f in methods])


def _subprograms(scope: Scope) -> list[Subprogram]:
    return [f for names in scope.names.values() for f in names if isinstance(f, Subprogram)]


def walk_declared(f: Subprogram) -> list[Subprogram]:
    """Subprograms declared inside another."""
    found: list[Subprogram] = []
    for d in f.decls:
        if isinstance(d, t.DeclareSub):
            found.append(d.subprogram)
            found += walk_declared(d.subprogram)
    return found
