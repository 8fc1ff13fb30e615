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
from obento.core.vhdl.model.scope import Scope, Subprogram
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
        self._arrays: list[tuple[EnumType, int]] = []

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
        """An array type is about to be added to those of its element type, which all designs may share."""
        if isinstance(made.element.type, EnumType):
            self._arrays.append((made.element.type, len(made.element.type.arrays)))

    def forget_arrays(self) -> None:
        """Take the array types of this design out of the element types that all designs share."""
        for enum_type, count in reversed(self._arrays):
            del enum_type.arrays[count:]
        self._arrays.clear()
