"""Where analysis stands, and what all of its rooms share."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import AbstractContextManager, contextmanager
from typing import Any

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.source import Sources
from obento.core.vhdl.analysis.protocols import (
    BodyAnalysis,
    Configurations,
    DeclarationAnalysis,
    ExpressionAnalysis,
    PackageSource,
    ProcessTaker,
    SignalMaker,
    SubtypeAnalysis,
)
from obento.core.vhdl.code.pieces import Piece
from obento.core.vhdl.code.statements import Emitter
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Scope, Subprogram, TypeName
from obento.core.vhdl.model.types import ArrayType, EnumType
from obento.core.vhdl.syntax import ast


class AnalysisError(Exception):
    """Something is wrong and has been reported; go on at the next statement or declaration."""


class Context:
    """One record for a whole elaboration.

    `scope`, `process`, `subprogram`, `package` and `in_body` say where analysis stands; `aside` sets them for a while.
    `setup` are lines of the run that wait to be executed, `pending` subprograms that wait to be emitted, `broken` names
    whose declaration was wrong and reported. `expressions` and those that follow are the way up: rooms that the rooms
    below them ask."""

    expressions: ExpressionAnalysis
    subtypes: SubtypeAnalysis
    declarations: DeclarationAnalysis
    bodies: BodyAnalysis
    packages: PackageSource
    signals: SignalMaker
    processes: ProcessTaker
    instances: Configurations

    def __init__(self, collector: Collector, limits: Limits, sources: Sources | None, emitter: Emitter) -> None:
        self.collector = collector
        self.limits = limits
        self.sources = sources
        self.emitter = emitter
        self.scope = Scope(None)
        self.process: t.Process | None = None
        self.subprogram: Subprogram | None = None
        self.package = ""
        self.in_library = False
        self.in_body = False
        self.broken: set[str] = set()
        self.setup: list[str] = []
        self.pending: list[Subprogram] = []
        self.open_loops: list[Any] = []
        self.memo: dict[Any, Any] = {}
        self.depth = 0
        self._arrays: list[ArrayType] = []

    @contextmanager
    def aside(self, **changes: Any) -> Iterator[None]:
        """With these fields set for a while; everything is as it was afterwards, whatever happens."""
        saved = {name: getattr(self, name) for name in changes}
        for name, value in changes.items():
            setattr(self, name, value)
        try:
            yield
        finally:
            for name, value in saved.items():
                setattr(self, name, value)

    def anew(self, scope: Scope, package: str) -> AbstractContextManager[None]:
        """In a package of its own: what surrounds whoever uses it means nothing inside."""
        return self.aside(
            scope=scope,
            package=package,
            process=None,
            subprogram=None,
            pending=[],
            open_loops=[],
            depth=0,
            memo={},
            in_body=False,
        )

    def wrong(self, code: str, text: str, node: ast.Node, hint: str = "") -> AnalysisError:
        """Report an error at a node; raise what is given back to leave off there."""
        self.collector.error(code, text, node.pos, node.end, hint)
        return AnalysisError()

    def line(self, position: int) -> int:
        """The line of a position, 0 where no text is known."""
        return self.sources.place(position).line if self.sources is not None else 0

    def flush(self) -> None:
        """Signals set up so far come before what uses them."""
        if self.setup:
            self.emitter.execute(Piece("\n".join(self.setup) + "\n", "signals"), False)
            self.setup = []

    def note_array(self, made: ArrayType) -> None:
        """Add an array type to those of its element type, which all designs may share."""
        if isinstance(made.element.type, EnumType):
            made.element.type.arrays.append(made)
            if not self.in_library:
                self._arrays.append(made)

    def forget_arrays(self) -> None:
        """Take the array types of this design, and those alone, out of the element types that all designs share: a
        package of a library may have been read, once for all, in the meantime."""
        for made in self._arrays:
            if isinstance(made.element.type, EnumType):
                made.element.type.arrays.remove(made)
        self._arrays.clear()

    def arrays_of(self, element: EnumType) -> list[ArrayType]:
        """The array types with such elements that this design declares or sees, in an order that does not depend on
        which packages others have used before."""
        return sorted((a for a in element.arrays if self._sees(a)), key=lambda a: a.name)

    def _sees(self, a: ArrayType) -> bool:
        if a in self._arrays:
            return True
        scopes = [s for scope in self.scope.chain() for s in (scope, *(used for used, _ in scope.uses))]
        known = (d for s in scopes for d in s.names.get(a.name, ()))
        return any(isinstance(d, TypeName) and d.subtype.type is a for d in known)
