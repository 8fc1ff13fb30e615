"""Warnings about what is declared and then forgotten: signals nobody assigns, variables read before they have a
value."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence

from obento.core.vhdl.analysis.reads import everything_read, reads_edge
from obento.core.vhdl.analysis.subexpressions import parts_of
from obento.core.vhdl.code.bodies import assigned_variables
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.nine_values import H, L, Z, resolve_array
from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.model.types import ArrayType, Subtype
from obento.core.vhdl.model.values import Arr
from obento.core.vhdl.runtime.composites import overlap

_WEAK = (Z, H, L)

Tell = Callable[[str, str, int, int, str], None]
"""Hears of a warning: code, text, position, end, hint."""


def never_assigned(objects: Iterable[Object], tell: Tell) -> None:
    """Signals that are read, and outputs, that nothing in the whole hierarchy gives a value."""
    sources = {o.py for o in objects if o.sources}
    for o in objects:
        if o.py in sources or o.default is not None or "'" in o.name:
            continue
        if o.is_port and o.mode in ("out", "buffer"):
            tell(
                "never-assigned",
                f"the output `{o.name}` is never given a value",
                o.pos,
                o.pos + len(o.name),
                "assign it in the architecture",
            )
        elif not o.is_port and o.read_at:
            tell(
                "never-assigned",
                f"`{o.name}` is read but never given a value",
                o.pos,
                o.pos + len(o.name),
                "assign it, or give it a start value",
            )


def read_too_early(p: t.Process, tell: Tell) -> None:
    """Variables of a process without clock that are read before the process has given them a value: they remember."""
    own = {d.object for d in p.decls if isinstance(d, t.Declare) and d.object.kind == "variable" and d.value is None}
    if not own or p.sensitivity is None or reads_edge(p.body):
        return
    _walk(p.body, own, set(), set(), tell)


def driven_twice(objects: Iterable[Object], processes: Iterable[t.Process], tell: Tell) -> None:
    """Resolved signals that two processes drive, neither of which ever lets go: where they differ there is X."""
    known = {id(p): p for p in processes}
    told: set[str] = set()
    for o in objects:
        if len({s[0] for s in o.sources}) < 2 or not _is_standard(o.subtype):
            continue
        sources = [s for s in o.sources if s[0] in known and not _lets_go(known[s[0]])]
        for i, (source, pos, path) in enumerate(sources):
            if o.py in told or not any(other != source and overlap(path, there) for other, _, there in sources[:i]):
                continue
            told.add(o.py)
            text = f"`{o.name}` is driven by two processes, and neither lets go of it: where they differ it is X"
            tell("two-drivers", text, pos, pos + len(o.name), "assign it in one process only")


def _is_standard(s: Subtype) -> bool:
    """Whether std_logic_1164 resolves this, and nobody else."""
    if s.resolution is not None:
        return s.resolution.native is resolve_array
    return isinstance(s.type, ArrayType) and _is_standard(s.element_subtype)


def _lets_go(p: t.Process) -> bool:
    """Whether a process has a `Z`, or a weak value, anywhere."""
    for x in everything_read(p.body):
        for part in parts_of(x):
            if not isinstance(part, t.Const):
                continue
            value = part.value
            digits = value.v if isinstance(value, Arr) else [value] if part.type.name == "std_ulogic" else []
            if any(isinstance(d, int) and d in _WEAK for d in digits):
                return True
    return False


def _walk(body: Sequence[t.Stmt], own: set[Object], given: set[Object], told: set[Object], tell: Tell) -> None:
    """Go through statements in order; `given` grows by what has a value for certain."""
    for s in body:
        for x in _evaluated_first(s):
            for y in parts_of(x):
                if isinstance(y, t.Read) and y.object in own and y.object not in given and y.object not in told:
                    told.add(y.object)
                    name = y.object.name
                    text = f"`{name}` is read here before it is given a value, so it keeps that of the last time"
                    tell("read-early", text, y.pos, y.pos + len(name), f"assign `{name}` at the top of the process")
        if isinstance(s, t.If | t.Case):
            ways = [set(given) for _ in s.arms]
            for way, (_, inner) in zip(ways, s.arms, strict=True):
                _walk(inner, own, way, told, tell)
            complete = any(c is None for c, _ in s.arms) or isinstance(s, t.Case)
            if complete and ways:
                given |= set.intersection(*ways)
        elif isinstance(s, t.Loop):
            _walk(s.body, own, set(given), told, tell)
            given |= set(assigned_variables(s.body)) & own  # a loop that fills an array element by element
        else:
            given |= set(assigned_variables([s])) & own


def _evaluated_first(s: t.Stmt) -> list[t.Expr]:
    """What a statement itself reads, without the statements inside it."""
    match s:
        case t.If():
            return [c for c, _ in s.arms[:1] if c is not None]
        case t.Case():
            return [s.selector]
        case t.Loop():
            return [s.condition] if s.condition is not None else []
    return everything_read([s])
