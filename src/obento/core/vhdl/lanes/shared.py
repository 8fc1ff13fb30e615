"""Shared variables: those that one process alone uses are its own."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

from obento.core.vhdl.analysis.reads import named_by
from obento.core.vhdl.analysis.subexpressions import parts_of
from obento.core.vhdl.code.bodies import walk
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object, Subprogram


def private(processes: Sequence[t.Process]) -> set[Object]:
    """The shared variables that are used by one process of a design."""
    users: dict[Object, set[int]] = {}
    for p in processes:
        for o in _shared_in([*p.decls, *p.body], set()):
            users.setdefault(o, set()).add(id(p))
    return {o for o, those in users.items() if len(those) == 1}


def _shared_in(body: Iterable[t.Stmt], seen: set[int]) -> Iterator[Object]:
    """The shared variables in statements and in the subprograms that they call."""
    for s in walk(body):
        expressions = [y for x in named_by(s) for y in parts_of(x)]
        called: list[Subprogram] = [x.function for x in expressions if isinstance(x, t.Call)]
        if isinstance(s, t.CallProcedure):
            called.append(s.procedure)
        yield from (x.object for x in expressions if isinstance(x, t.Read) and x.object.shared)
        for f in called:
            if f.body is not None and id(f) not in seen:
                seen.add(id(f))
                yield from _shared_in([*f.decls, *f.body], seen)
