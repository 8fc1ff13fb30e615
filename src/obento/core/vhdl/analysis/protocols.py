"""What rooms of analysis ask of those above them: expressions stand in names, bodies in declarations, packages in use
clauses.

Each protocol is the narrow part that is asked for; `Context` carries who answers.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Protocol

from obento.core.vhdl.analysis.meanings import Interp
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object, PackageName
from obento.core.vhdl.model.types import RangeX, Subtype, Type
from obento.core.vhdl.syntax import ast


class ExpressionAnalysis(Protocol):
    """Expressions, settled."""

    def expr(self, e: ast.Expr, wanted: Type | None = None, sub: Subtype | None = None) -> t.Expr:
        """An expression of the wanted type, or of the one type that it can have."""

    def interps(self, e: ast.Expr) -> list[Interp]:
        """Everything that an expression can mean."""

    def folded(self, x: t.Expr) -> t.Expr:
        """The constant that an expression is, where it is one."""

    def try_range(self, e: ast.Expr, index: Type | None) -> RangeX | None:
        """A range, if that is what `e` is."""

    def subtype_range(self, s: Subtype) -> RangeX:
        """The range of a scalar subtype."""


class SubtypeAnalysis(Protocol):
    """Subtype indications, settled."""

    def subtype(self, e: ast.SubtypeInd) -> Subtype:
        """The subtype that is indicated."""

    def constrained(self, s: Subtype, ranges: Sequence[Any], node: ast.Node) -> Subtype:
        """An array subtype with these ranges."""


class DeclarationAnalysis(Protocol):
    """Declarations that belong to types, and values known in elaboration."""

    def worked_out(self, value: t.Expr, subtype: Subtype) -> Any:
        """The value of an expression, computed now."""

    def protected(self, d: ast.TypeDecl, definition: ast.ProtectedDef) -> None:
        """Declare a protected type."""


class BodyAnalysis(Protocol):
    """Bodies of subprograms."""

    def sequence(self, body: Sequence[ast.Stmt]) -> list[t.Stmt]:
        """Sequential statements, settled."""


class PackageSource(Protocol):
    """Packages by name."""

    def package_named(self, library: str, name: str, node: ast.Node) -> PackageName | None:
        """The package, opened if need be; reported and raised as `AnalysisError` where there is none."""


class SignalMaker(Protocol):
    """Signals as the design knows them."""

    def note_signal(self, o: Object) -> None:
        """A signal was declared."""

    def note_place(self, o: Object) -> None:
        """A constant or shared variable was declared in a unit of the hierarchy."""

    def implicit_signal(self, prefix: t.Expr, e: ast.Attribute) -> t.Expr:
        """The signal that an attribute is: 'delayed, 'stable, 'quiet or 'transaction."""

    def place_of(self, name: str, with_units: bool = False) -> str:
        """Where something is in the hierarchy, as `'path_name` writes it, or `'instance_name` with the units."""

    def by_path(self, levels: list[str], up: int | None) -> Object | None:
        """An object by its place: below the top where `up` is None, else below so many levels above this one."""


class ProcessTaker(Protocol):
    """Whoever takes processes when they are complete."""

    def finish_process(self, p: t.Process) -> None:
        """A process with everything in it settled."""


class Configurations(Protocol):
    """Whoever keeps configuration specifications."""

    def configure(self, d: ast.ConfigSpec) -> None:
        """Note which entity instances of a component are bound to."""
