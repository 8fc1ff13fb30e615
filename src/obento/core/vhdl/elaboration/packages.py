"""Packages of the libraries and of the hand-in, opened when they are used (IEEE 1076 clauses 4.7 to 4.10)."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from types import CodeType
from typing import Any

from obento.core.suggest import did_you_mean
from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.declarations import Declarations
from obento.core.vhdl.code.pieces import Piece, compiled
from obento.core.vhdl.design_units import LIBRARIES, TAUGHT
from obento.core.vhdl.elaboration.building import Building
from obento.core.vhdl.model.scope import LibraryName, Object, PackageName, Scope, Subprogram
from obento.core.vhdl.syntax import ast


@dataclass(slots=True)
class LibraryPart:
    """One of our packages, analysed once for all: its scope, and what its subprograms are in a run."""

    scope: Scope
    pieces: list[CodeType | Piece]
    names: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Library:
    """The libraries std and ieee: package STANDARD, and how the others are had."""

    standard: Scope
    part: Callable[[str], LibraryPart]


class _BodyNames(dict[str, list[Any]]):
    """The names of a package body are those of its package and its own."""

    def __init__(self, outer: Scope) -> None:
        super().__init__(outer.names)
        for name, declared in outer.names.items():
            self[name] = declared


class Packages:
    """Opens packages; each is analysed once."""

    def __init__(self, context: Context, building: Building, declarations: Declarations, library: Library) -> None:
        self.context = context
        self.building = building
        self.declarations = declarations
        self._library_part = library.part
        self._standard = library.standard
        self._packages: dict[str, PackageName] = {}
        self._opening: list[str] = []
        self._taught_said = False

    def package_named(self, library: str, name: str, node: ast.Node) -> PackageName | None:
        """A package by name, opened if need be; reported where there is none."""
        known = LIBRARIES.get(library)
        if known is not None:
            if name not in known:
                raise self.context.wrong(
                    "undeclared", f"the library `{library}` has no package `{name}`", node, did_you_mean(name, known)
                )
            return self._library(name, node)
        if name in self._packages:
            return self._packages[name]
        unit = self.building.design_units.packages.get(name)
        if unit is None:
            if name in self.building.design_units.entities:
                raise self.context.wrong("use", f"`{name}` is an entity, not a package", node)
            hint = did_you_mean(name, self.building.design_units.packages)
            raise self.context.wrong(
                "undeclared",
                f"there is no package `{name}` among these files",
                node,
                hint or "hand in the file that has it",
            )
        if name in self._opening:
            raise self.context.wrong("recursion", f"the package `{name}` uses itself", node)
        self._opening.append(name)
        try:
            return self._user_package(unit)
        finally:
            self._opening.pop()

    def _library(self, name: str, node: ast.Node) -> PackageName:
        if name in self._packages:
            return self._packages[name]
        if name in TAUGHT and not self._taught_said:
            self._taught_said = True
            text = f"`{name}` is no standard package, though it often stands in ieee"
            self.context.collector.note(
                "taught-package", text, node.pos, node.end, "numeric_std with unsigned and signed is the standard way"
            )
        if name == "standard":
            found = PackageName(name, self._standard)
        else:
            part = self._library_part(name)
            found = PackageName(name, part.scope)
            for needed in _needs(name):
                self._library(needed, node)
            self.context.emitter.names.update(part.names)
            for piece in part.pieces:
                self.context.emitter.pieces.append(piece)
                exec(compiled(piece), self.context.emitter.live)  # our own text
        self._packages[name] = found
        return found

    def _user_package(self, unit: ast.Package) -> PackageName:
        scope = Scope(self.unit_scope(unit), unit.name)
        made = PackageName(unit.name, scope)
        self._packages[unit.name] = made
        with self.context.anew(scope, unit.name):
            self.declarations.declare_all(unit.decls)
            body = self.building.design_units.bodies.get(unit.name)
            if body is not None:
                inner = Scope(self.context.scope, unit.name)
                inner.names = _BodyNames(self.context.scope)
                self.use_context(inner, body)
                self.context.scope = inner
                self.context.in_body = True
                self.declarations.declare_all(body.decls)
            self._check_bodies(made, unit, body)
            self.declarations.emit_pending()
        return made

    def _check_bodies(self, made: PackageName, unit: ast.Package, body: ast.PackageBody | None) -> None:
        for names in made.scope.names.values():
            for f in names:
                if (
                    isinstance(f, Subprogram)
                    and f.native is None
                    and not f.analysed
                    and not f.foreign
                    and f.node is not None
                    and f.package == unit.name
                ):
                    where = "has no body" if body is not None else "has no body: the package body is missing"
                    self.context.collector.error("no-body", f"`{f.name}` {where}", f.pos, f.pos + 8)
                if isinstance(f, Object) and f.kind == "constant" and f.implicit:
                    self.context.collector.error("no-value", f"the constant `{f.name}` is never given a value", f.pos)

    def unit_scope(self, unit: ast.Unit) -> Scope:
        """The outermost scope of a unit, with what its context makes visible."""
        scope = Scope(self._standard)
        for library in ("std", "work", *unit.libraries):
            scope.names.setdefault(library, [LibraryName(library)])
        self.use_context(scope, unit)
        return scope

    def use_context(self, scope: Scope, unit: ast.Unit) -> None:
        """What a context clause makes visible in a scope (13.4)."""
        for library in unit.libraries:
            scope.names.setdefault(library, [LibraryName(library)])
        with self.context.aside(scope=scope):
            for clause in unit.context:
                self.declarations.use(clause)


def _needs(name: str) -> tuple[str, ...]:
    """The packages that a package of ours uses."""
    if name in ("textio", "env", "math_real", "numeric_bit", "std_logic_textio"):
        return ()
    return ("textio",) if name == "std_logic_1164" else ("std_logic_1164",)
