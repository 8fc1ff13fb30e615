"""Concurrent statements as processes (IEEE 1076 clause 11)."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.vhdl.analysis.context import AnalysisError, Context
from obento.core.vhdl.analysis.declarations import Declarations
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.analysis.reads import everything_read, reads_edge, signals_read, static_prefix, target_indices
from obento.core.vhdl.analysis.statements import Statements
from obento.core.vhdl.analysis.type_declarations import TypeDeclarations
from obento.core.vhdl.code.bodies import walk
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Labelled, Object, Scope, Subprogram
from obento.core.vhdl.packages.standard import TIME
from obento.core.vhdl.syntax import ast


class Concurrent:
    """Makes processes; `finish_process` takes each one."""

    def __init__(
        self,
        context: Context,
        names: Names,
        types: TypeDeclarations,
        declarations: Declarations,
        statements: Statements,
    ) -> None:
        self.context = context
        self.names = names
        self.types = types
        self.declarations = declarations
        self.statements = statements

    def label(self, name: str, node: ast.Node) -> None:
        """Declare a label."""
        if name:
            self.types.add(name, Labelled(name, node.pos), ast.Node(node.pos, node.pos + len(name)))

    # Processes.

    def process_statement(self, s: ast.Process) -> None:
        """A process (11.3)."""
        self.label(s.label, s)
        p = t.Process(
            s.label or f"process at line {self.context.line(s.pos)}", s.pos, None, [], [], postponed=s.postponed
        )
        errors = self.context.collector.errors
        with self.context.aside(scope=Scope(self.context.scope, s.label), process=p):
            if s.sensitivity is not None:
                p.sensitivity = []
                for e in s.sensitivity:
                    try:
                        p.sensitivity.append(self.statements.waited(e))
                    except AnalysisError:
                        p.clean = False
            p.decls = self.declarations.declare_all(s.decls)
            p.body = self.statements.sequence(s.body)
        if s.all_signals:
            p.sensitivity = self._all_read(p)
        elif p.sensitivity is not None and p.clean and self.context.collector.errors == errors:
            self._check_sensitivity(p)
        elif s.sensitivity is None and self.context.collector.errors == errors and not self._can_wait(p):
            text = "this process never waits: it would run for ever without time passing"
            self.context.collector.warning(
                "never-waits", text, s.pos, s.pos + 7, "give it a sensitivity list, or end it with `wait;`"
            )
        self._merge_drives(p)
        if self.context.collector.errors == errors:
            self.context.processes.finish_process(p)

    def _can_wait(self, p: t.Process) -> bool:
        return any(
            isinstance(s, t.Wait) or (isinstance(s, t.CallProcedure) and self.declarations.settle_waits(s.procedure))
            for s in walk(p.body)
        )

    def _merge_drives(self, p: t.Process) -> None:
        """Signals that subprograms of the process assign are driven by it."""
        seen: set[int] = set()
        stack = [d.subprogram for d in p.decls if isinstance(d, t.DeclareSub)]
        while stack:
            f = stack.pop()
            if id(f) in seen:
                continue
            seen.add(id(f))
            for target, pos in f.drives:
                root, path = static_prefix(target)
                if root is not None and not root.is_param:
                    self.statements.drive(p, root, path, pos)
            stack += [d.subprogram for d in f.decls if isinstance(d, t.DeclareSub)]

    def _all_read(self, p: t.Process) -> list[t.Expr]:
        """`process (all)`: everything read, in called subprograms too (11.3 of -2008)."""
        out: list[t.Expr] = []
        for x in everything_read([*p.decls, *p.body]):
            out += signals_read(x)
        seen: set[int] = set()
        stack: list[Subprogram] = list(p.calls)
        while stack:
            f = stack.pop()
            if id(f) in seen or f.body is None:
                continue
            seen.add(id(f))
            for x in everything_read([*f.decls, *f.body]):
                out += [s for s in signals_read(x) if not _is_parameter(s)]
            stack += f.calls
        return _once(out)

    def _check_sensitivity(self, p: t.Process) -> None:
        """A signal that is read but wakes nobody, in a process without clock, is nearly always forgotten."""
        if reads_edge(p.body) or p.sensitivity is None:
            return
        listed = {root for root, _ in map(static_prefix, p.sensitivity) if root is not None}
        missing: dict[str, t.Expr] = {}
        for x in everything_read(p.body):
            for s in signals_read(x):
                root, _ = static_prefix(s)
                if root is not None and root not in listed and not root.is_param:
                    missing.setdefault(root.name, s)
        for name, x in list(missing.items())[:4]:
            text = f"`{name}` is read here but missing in the sensitivity list"
            self.context.collector.warning(
                "sensitivity", text, x.pos, x.pos + len(name), f"add `{name}`, or write process (all)"
            )

    # Assignments, assertions and calls.

    def assignment(self, s: ast.SignalAssign) -> None:
        """A concurrent assignment as a process (11.6)."""
        self.label(s.label, s)
        p = t.Process(s.label or "assignment", s.pos, [], [], [], concurrent=True)
        with self.context.aside(process=p):
            p.body = self.statements.signal_assign(s)
            if s.guarded:
                p.body = self._guarded(s, p)
        reads: list[t.Expr] = []
        for x in everything_read(p.body):
            reads += signals_read(x)
        p.sensitivity = _once(reads)
        self.context.processes.finish_process(p)

    def _guarded(self, s: ast.SignalAssign, p: t.Process) -> list[t.Stmt]:
        """Only while the guard of the block holds (11.6); a guarded signal lets go otherwise."""
        found = self.context.scope.find("guard")
        if not found or not isinstance(found[0], Object):
            raise self.context.wrong("guarded", "`guarded` needs a block with a guard around it", s)
        guard = self.names.object(found[0], s)
        off: list[t.Stmt] = []
        for inner in walk(p.body):
            if isinstance(inner, t.SetSignal):
                root, _ = static_prefix(inner.target)
                if root is not None and root.guard:
                    after = t.Const(TIME, s.pos, root.disconnect) if root.disconnect else None
                    off = [t.SetSignal(s.pos, inner.target, [(None, after)])]
        return [t.If(s.pos, [(guard, p.body), *([(None, off)] if off else [])])]

    def concurrent_assertion(self, s: ast.Assert) -> None:
        """A concurrent assertion as a process (11.5)."""
        self.label(s.label, s)
        p = t.Process(s.label or "assertion", s.pos, [], [], [], concurrent=True)
        with self.context.aside(process=p):
            p.body = [self.statements.assertion(s)]
        reads: list[t.Expr] = []
        for x in everything_read(p.body):
            reads += signals_read(x)
        p.sensitivity = _once(reads)
        p.postponed = s.postponed
        self.context.processes.finish_process(p)

    def concurrent_call(self, s: ast.Call) -> None:
        """A process that calls, then waits for the signals among the actuals (11.4)."""
        self.label(s.label, s)
        p = t.Process(s.label or "call", s.pos, [], [], [], concurrent=True)
        p.sensitivity = None
        with self.context.aside(process=p):
            call = self.statements.procedure_call(s)
        reads: list[t.Expr] = []
        for param, a in zip(call.procedure.params, call.args, strict=True):
            if param.mode != "out":
                reads += signals_read(a)
            reads += [y for x in target_indices(a) for y in signals_read(x)]
        reads = _once(reads)
        p.body = [call, t.Wait(s.pos, reads, None, None, forever=not reads)]
        p.postponed = s.postponed
        self.context.processes.finish_process(p)


def _is_parameter(x: t.Expr) -> bool:
    root, _ = static_prefix(x)
    return root is not None and root.is_param


def _once(signals: Sequence[t.Expr]) -> list[t.Expr]:
    """Each signal or part once; parts go where the whole is there."""
    whole = {root for root, path in map(static_prefix, signals) if root is not None and not path}
    out: list[t.Expr] = []
    seen: set[object] = set()
    for x in signals:
        root, path = static_prefix(x)
        if root is None:
            continue
        key = (root, path) if root not in whole else (root, ())
        if key in seen or (root in whole and path):
            continue
        seen.add(key)
        out.append(x)
    return out
