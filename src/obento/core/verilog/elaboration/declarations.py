"""What nets, variables, types and named blocks add to a module (IEEE 1364-2005 clauses 3, 4 and 9.8)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from obento.core import values
from obento.core.ir import nodes as ir
from obento.core.ir.design import Process, ScopeOfNames, Variable
from obento.core.ir.evaluate import NotConstant, evaluate, evaluate_real
from obento.core.ir.signal import Signal
from obento.core.values import Word
from obento.core.verilog.elaboration.module_context import ModuleContext
from obento.core.verilog.lowering.statements import VARIABLES
from obento.core.verilog.model.scope import Broken, Genvar, Inside, Parameter, Scope, TypeName, Vector
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import TWO_STATE, WIDTHS
from obento.core.verilog.syntax.declarations import NET_TYPES


def type_definition(body: ModuleContext, item: ast.TypeDefinition, scope: Scope) -> None:
    """A `typedef`, with the constants of an enumeration."""
    if item.name in scope.entries:
        return  # known since the parameters were looked at
    kind, signed, base = item.kind, item.signed, scope.find(item.kind)
    if isinstance(base, TypeName):
        if item.range is not None:
            raise body.error(
                "not-yet", "an array of a named type is not read by this version", item.range, "write the type out"
            )
        kind, signed, msb, lsb = base.kind, base.signed, base.msb, base.lsb
    elif item.range is not None:
        msb, lsb, _ = body.range(item.range, scope)
    else:
        msb, lsb = WIDTHS.get(kind, 1) - 1, 0
    made = scope.entries[item.name] = TypeName(item.name, kind, signed, msb, lsb, [c.name for c in item.constants])
    made.enum = made if item.is_enum else base.enum if isinstance(base, TypeName) else None
    number, width = 0, made.width
    for constant in item.constants:
        if constant.value is not None:
            number = body.x(scope).integer(constant.value, "a value of the enumeration")
        if constant.name in scope.entries:
            raise body.error("duplicate", f"the name `{constant.name}` is taken already", constant)
        scope.entries[constant.name] = Parameter(
            ir.Const(width, *values.word(number, width)), signed, constant.start, enum=made
        )
        number += 1


def declare_names(body: ModuleContext, item: ast.Item, scope: Scope) -> None:
    """What an item adds to a scope, if it declares types, nets or variables."""
    match item:
        case ast.TypeDefinition():
            type_definition(body, item, scope)
        case ast.Declaration() if item.kind == "genvar":
            for d in item.names:
                scope.entries.setdefault(d.name, Genvar(d.start))
        case ast.Declaration():
            declare_variables(body, item, scope)
        case _:
            pass


def declare_variables(body: ModuleContext, item: ast.Declaration, scope: Scope) -> None:
    """Nets or variables."""
    try:
        _declared(body, item, scope)
    finally:
        for d in item.names:
            scope.entries.setdefault(d.name, Broken(d.start))


def _declared(body: ModuleContext, item: ast.Declaration, scope: Scope) -> None:
    kind, signed = item.kind, item.signed
    named = scope.find(kind) if kind and kind not in NET_TYPES | VARIABLES | {"event"} else None
    enum = named.enum if isinstance(named, TypeName) else None
    if isinstance(named, TypeName):
        kind, signed, msb, lsb, width = named.kind, named.signed, named.msb, named.lsb, named.width
    elif item.range is not None:
        msb, lsb, width = body.range(item.range, scope)
    else:
        width = WIDTHS.get(kind, 1)
        msb, lsb = width - 1, 0
    for d in item.names:
        body.b.guarded(lambda d=d: _declarator(body, item, d, kind, signed, (msb, lsb, width), scope, enum))  # type: ignore[misc]


def _declarator(
    body: ModuleContext,
    item: ast.Declaration,
    d: ast.Declarator,
    kind: str,
    signed: bool,
    span: tuple[int, int, int],
    scope: Scope,
    enum: TypeName | None,
) -> None:
    msb, lsb, width = span
    known = scope.entries.get(d.name)
    if known is not None:
        if isinstance(known, Vector) and _completes(body, known, item, d):
            _complete(body, known, item, d, width, scope)
            return
        raise body.error("duplicate", f"`{d.name}` is declared twice", d, "keep one of the two declarations")
    dims = [body.range(r, scope, most=body.b.limits.memory_bits)[:2] for r in d.dims]
    total = width
    for left, right in dims:
        total *= abs(left - right) + 1
    if total > (body.b.limits.memory_bits if dims else body.b.limits.vector_bits):
        raise body.error("too-wide", f"`{d.name}` has {total} bits, more than can be taken", d)
    wanted = _Wanted(item, d, kind or "wire", signed, span, dims, scope)
    vector = _join(body, wanted) or _make(body, wanted)
    vector.signal.position = vector.signal.position or d.start
    scope.entries[d.name] = vector
    vector.enum = enum
    if scope.shown is not None:
        scope.shown.variables.append(Variable(d.name, vector.signal, vector.kind, msb, lsb, vector.at))
    if kind in ("supply0", "supply1"):
        full = values.ones(total)
        value = ir.Const(total, full, 0) if kind == "supply1" else ir.Const(total, 0, full)
        target = [ir.Target(vector.signal, vector.at, total)]
        body.b.later(lambda: body.b.drive(target, value, d.start, "supply", scope.path, None, (7, 7)))
    _start_value(body, vector, d, scope)


@dataclass(frozen=True, slots=True)
class _Wanted:
    """One name of a declaration with its type settled; `span` is its left and right bound and its width."""

    item: ast.Declaration
    d: ast.Declarator
    kind: str
    signed: bool
    span: tuple[int, int, int]
    dims: list[tuple[int, int]]
    scope: Scope


def _join(body: ModuleContext, wanted: _Wanted) -> Vector | None:
    """A port as part of the wire outside, where it is nothing more than that."""
    d, kind, span = wanted.d, wanted.kind, wanted.span
    is_port = wanted.scope is body.scope and wanted.item.direction and not wanted.dims
    outside = body.outside.get(d.name) if is_port else None
    place = outside.place(span[2]) if outside is not None and kind in NET_TYPES | {"logic"} else None
    if outside is None or place is None:
        return None
    if kind not in ("wire", "logic") and outside.signal.net == "wire":
        outside.signal.net = kind
    body.joined.add(d.name)
    return Vector(outside.signal, span[0], span[1], wanted.signed, kind, [], d.start, place)


def _make(body: ModuleContext, wanted: _Wanted) -> Vector:
    """A net or variable of its own."""
    item, d, kind, signed, dims, scope = wanted.item, wanted.d, wanted.kind, wanted.signed, wanted.dims, wanted.scope
    msb, lsb, width = wanted.span
    total = Vector(Signal(0, "", 0, "net"), msb, lsb, signed, kind, dims).total
    flavour: Literal["net", "variable"] = "net" if kind in NET_TYPES else "variable"
    if scope.automatic and dims:
        raise body.error(
            "automatic-array",
            f"`{d.name}` is an array in an automatic task, which cannot be run",
            d,
            "declare it in the module",
        )
    signal = body.b.signal(f"{scope.path}.{d.name}", total, flavour, d.start, element=width if dims else 0)
    signal.real = kind in ("real", "realtime")
    signal.automatic = scope.automatic
    if flavour == "net":
        signal.net = kind
        if d.value is None:
            signal.delay = body.delays(item.delays, scope)
    if kind in TWO_STATE:
        signal.two_state, signal.initial = True, values.word(0, total)
    if flavour == "variable" and body.m.system_verilog:
        body.b.variables.add(signal.id)
    if item.direction == "in" and kind == "logic":
        signal.kind = "net"
    return Vector(signal, msb, lsb, signed, kind, list(dims), d.start)


def _completes(body: ModuleContext, known: Vector, item: ast.Declaration, d: ast.Declarator) -> bool:
    is_port = d.name in body.directions
    return is_port and not item.direction and known.kind == "wire" and not d.dims


def _complete(
    body: ModuleContext, known: Vector, item: ast.Declaration, d: ast.Declarator, width: int, scope: Scope
) -> None:
    """`output y; reg y;`: two halves of one declaration."""
    if item.range is not None and known.width != width and known.width != 1:
        raise body.error("range-differs", f"`{d.name}` is declared with two different ranges", d)
    if item.range is not None and known.width == 1 and width != 1:
        raise body.error(
            "range-differs",
            f"`{d.name}` has a range here but none in its port declaration",
            d,
            "write the same range in both",
        )
    if item.kind not in NET_TYPES:
        if body.directions[d.name][0] == "in" and item.kind != "logic":
            raise body.error("input-reg", f"input `{d.name}` cannot be `{item.kind}`", d, "an input is a wire")
        if item.kind in ("integer", "time", "real") and known.width != width:
            raise body.error(
                "range-differs",
                f"`{d.name}` is one bit as a port and `{item.kind}` here",
                d,
                "declare the port `output integer`",
            )
        known.kind = item.kind
        known.signal.kind = "variable"
        if item.kind in TWO_STATE:
            known.signal.two_state, known.signal.initial = True, values.word(0, known.signal.width)
    else:
        known.signal.net = item.kind
    known.signed = known.signed or item.signed
    _start_value(body, known, d, scope)


def _start_value(body: ModuleContext, vector: Vector, d: ast.Declarator, scope: Scope) -> None:
    if d.value is None or vector.signal.kind == "net" or scope.automatic:
        return  # a net's value is a continuous assignment, built later
    x = body.x(scope)
    if vector.dims:
        raise body.error(
            "array-value",
            f"`{d.name}` is an array and cannot be given a value here",
            d.value,
            "set its elements in an `initial` block",
        )
    try:
        if vector.is_real:
            vector.signal.number = evaluate_real(x.reals.lower(d.value))
        else:
            x.check_enum(vector, d.value)
            word = evaluate(
                ir.settled([ir.Target(vector.signal, 0, vector.signal.width)], x.to_width(d.value, vector.signal.width))
            )
            if body.m.system_verilog:
                vector.signal.initial = word  # 1800 clause 6.8: there before anything runs
            else:
                _as_initial(body, vector.signal, word, d.start, scope)
    except NotConstant:
        raise body.error(
            "start-value",
            f"the start value of `{d.name}` must be a constant",
            d.value,
            "use `assign` for a value that follows others",
        ) from None


def _as_initial(body: ModuleContext, signal: Signal, word: Word, position: int, scope: Scope) -> None:
    """A start value as if an `initial` gave it (1364-2005 clause 6.2.1): whoever waits for the signal sees it
    change."""
    start = ir.Assign(position, [ir.Target(signal, 0, signal.width)], ir.Const(signal.width, *word))
    body.b.process(Process("initial", start, [], position, "start", scope.path))


def named_blocks(body: ModuleContext, s: ast.Stmt | None, scope: Scope) -> None:
    """Declare the blocks with names or declarations inside a statement, so that they can be named from anywhere."""
    stack: list[tuple[ast.Stmt | None, Scope]] = [(s, scope)]
    while stack:
        s, inside = stack.pop()
        match s:
            case ast.Block():
                if s.name or s.declarations:
                    inside = _named_block(body, s, inside)
                stack += [(inner, inside) for inner in reversed(s.body)]
            case ast.If():
                stack += [(s.then, inside), (s.other, inside)]
            case ast.Case():
                stack += [(arm.body, inside) for arm in s.items]
                stack.append((s.default, inside))
            case ast.For() | ast.While() | ast.RepeatTimes() | ast.Timed():
                stack.append((s.body, inside))
            case _:
                pass


def _named_block(body: ModuleContext, block: ast.Block, scope: Scope) -> Scope:
    name = block.name or f"block{block.start}"
    path = f"{scope.path}.{name}"
    shown = ScopeOfNames(name, "fork" if block.parallel else "begin", path)
    inner = Scope(path, scope, None, shown if block.name else None)
    if block.name:
        if block.name in scope.entries:
            raise body.error(
                "duplicate", f"the name `{block.name}` is taken already", block, "give the block another name"
            )
        scope.entries[block.name] = Inside(inner, block.start, ir.Label(name))
        if scope.shown is not None:
            scope.shown.children.append(shown)
    body.b.blocks[id(block), id(scope)] = inner
    for item in block.declarations:
        if isinstance(item, ast.Parameter):
            body.declare_parameter(item, inner)
        else:
            declare_names(body, item, inner)
    return inner
