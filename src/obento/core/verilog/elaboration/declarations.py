"""What nets, variables, types and named blocks add to a module (IEEE 1364-2005 clauses 3, 4 and 9.8)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from obento.core import values
from obento.core.ir import nodes as ir
from obento.core.ir.design import Process, ScopeOfNames, Variable
from obento.core.ir.evaluate import NotConstant, evaluate, evaluate_collection, evaluate_real, evaluate_text
from obento.core.ir.signal import Signal
from obento.core.values import Word
from obento.core.verilog.elaboration.module_context import ModuleContext
from obento.core.verilog.elaboration.processes import build
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Broken, Genvar, Inside, Parameter, Scope, TypeName, Vector
from obento.core.verilog.model.types import DataType, Shape
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import TWO_STATE
from obento.core.verilog.syntax.declarations import NET_TYPES

_CHARGES = {"small": 1, "medium": 2, "large": 4}
"""What a trireg keeps its value with (1364-2005 table 7-7)."""


def type_definition(body: ModuleContext, item: ast.TypeDefinition, scope: Scope) -> None:
    """A `typedef`, with the constants of an enumeration."""
    if item.name in scope.entries:
        return  # known since the parameters were looked at
    types = body.x(scope).types
    try:
        made = types.shape(item.type)
    except ElaborationError:
        for name in (item.name, *(c.name for c in item.type.constants)):
            scope.entries.setdefault(name, Broken(item.start))
        raise
    if item.type.word in ("struct", "union", "enum"):
        made.type.name = item.name
    scope.entries[item.name] = TypeName(types.declared(made, item.dims), item.start)
    enum_constants(body, item.type, made.type, scope)


def enum_constants(body: ModuleContext, written: ast.Type, made: DataType, scope: Scope) -> None:
    """The constants that an enumeration declares beside itself, those of members of a structure too."""
    for declaration in written.members if written.word != "enum" else []:
        inner = made.members[declaration.names[0].name].type
        enum_constants(body, declaration.type, inner, scope)
    of = made
    while of.element is not None and not of.is_enum:
        of = of.element
    for constant in written.constants:
        for name in body.x(scope).types.constant_names(constant):
            if name in scope.entries:
                raise body.error("duplicate", f"the name `{name}` is taken already", constant)
            value = ir.Const(of.width, *values.word(of.values[name], of.width))
            scope.entries[name] = Parameter(value, of.signed, constant.start, shape=Shape(of))


def type_parameter(body: ModuleContext, item: ast.TypeParameter, scope: Scope) -> None:
    """`parameter type`: what this use of the module says, or else what stands there (1800 clause 6.20.3)."""
    given = body.types.get(item.name) if not item.local and scope is body.scope else None
    if given is None and item.type is None:
        raise body.error("no-value", f"the type `{item.name}` is given by nobody", item, "give it where it is used")
    if item.name in scope.entries:
        return
    scope.entries[item.name] = TypeName(given or body.x(scope).types.shape(item.type or ast.Type(0, 0, "")), item.start)


def declare_names(body: ModuleContext, item: ast.Item, scope: Scope) -> None:
    """What an item adds to a scope, if it declares types, nets or variables."""
    match item:
        case ast.TypeDefinition():
            type_definition(body, item, scope)
        case ast.TypeParameter():
            type_parameter(body, item, scope)
        case ast.Import():
            body.take_in(item, scope)
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
    shape = body.x(scope).types.shape(item.type)
    for d in item.names:
        body.b.guarded(lambda d=d: _declarator(body, item, d, shape, scope))  # type: ignore[misc]


def _declarator(body: ModuleContext, item: ast.Declaration, d: ast.Declarator, shape: Shape, scope: Scope) -> None:
    known = scope.entries.get(d.name)
    if known is not None:
        if isinstance(known, Vector) and _completes(body, known, item, d):
            _complete(body, known, item, d, shape, scope)
            return
        raise body.error("duplicate", f"`{d.name}` is declared twice", d, "keep one of the two declarations")
    whole = body.x(scope).types.declared(shape, d.dims)
    dims = whole.dims
    if whole.width > (body.b.limits.memory_bits if dims else body.b.limits.vector_bits):
        raise body.error("too-wide", f"`{d.name}` has {whole.width} bits, more than can be taken", d)
    kind = item.kind if item.kind in NET_TYPES | {"event"} else whole.type.variable_kind if item.kind else "wire"
    if item.direction == "inout" and kind not in NET_TYPES:
        raise _two_way_variable(body, d, kind)
    wanted = _Wanted(item, d, kind, whole, scope)
    vector = _join(body, wanted) or _make(body, wanted)
    vector.signal.position = vector.signal.position or d.start
    scope.entries[d.name] = vector
    vector.is_constant = item.is_constant
    if scope.shown is not None and not whole.type.keeps_others:
        scope.shown.variables.append(shown_variable(d.name, vector))
    if kind in ("supply0", "supply1"):
        total = whole.width
        full = values.ones(total)
        value = ir.Const(total, full, 0) if kind == "supply1" else ir.Const(total, 0, full)
        target = [ir.Target(vector.signal, vector.at, total)]
        body.b.later(lambda: body.b.drive(target, value, d.start, "supply", scope.path, None, (7, 7)))
    if item.direction != "in":
        _start_value(body, vector, d, scope)


def _two_way_variable(body: ModuleContext, d: ast.Declarator, kind: str) -> ElaborationError:
    text = f"`{d.name}` goes both ways and cannot be `{kind}`: it is a net (1364-2005 clause 12.3.3)"
    return body.error("inout-reg", text, d, f"write `inout wire {d.name}` and drive it by `assign`")


def shown_variable(name: str, vector: Vector, kind: str = "") -> Variable:
    """A variable or net as waves and drawings see it: a vector of digits, whatever it is made of."""
    of = vector.type
    left, right = of.span if of.element is None and not of.members else (of.width - 1, 0)
    members = () if vector.dims else tuple(_members(of, 0, ""))
    return Variable(name, vector.signal, kind or vector.kind, left, right, vector.at, members)


def _members(of: DataType, low: int, path: str) -> Iterator[tuple[str, int, int]]:
    """The members of a structure, those of members too."""
    for m in of.members.values():
        yield f"{path}{m.name}", low + m.low, m.width
        if not m.dims:
            yield from _members(m.type, low + m.low, f"{path}{m.name}.")


@dataclass(frozen=True, slots=True)
class _Wanted:
    """One name of a declaration with its type settled."""

    item: ast.Declaration
    d: ast.Declarator
    kind: str
    shape: Shape
    scope: Scope


def _join(body: ModuleContext, wanted: _Wanted) -> Vector | None:
    """A port as part of the wire outside, where it is nothing more than that."""
    d, kind, shape = wanted.d, wanted.kind, wanted.shape
    is_port = wanted.scope is body.scope and wanted.item.direction and not shape.dims
    outside = body.outside.get(d.name) if is_port else None
    place = outside.place(shape.width) if outside is not None and kind in NET_TYPES | {"logic"} else None
    if outside is None or place is None:
        return None
    if kind not in ("wire", "logic") and outside.signal.net == "wire":
        outside.signal.net = kind
    body.joined.add(d.name)
    return Vector(outside.signal, shape.type, kind, (), d.start, place)


def _make(body: ModuleContext, wanted: _Wanted) -> Vector:
    """A net or variable of its own."""
    item, d, kind, scope = wanted.item, wanted.d, wanted.kind, wanted.scope
    of, dims, total = wanted.shape.type, wanted.shape.dims, wanted.shape.width
    flavour: Literal["net", "variable"] = "net" if kind in NET_TYPES else "variable"
    is_automatic = item.lifetime == "automatic" if item.lifetime else scope.automatic
    element = of.width if dims and not is_automatic else 0  # of a call that has fresh storage it is one vector
    signal = body.b.signal(f"{scope.path}.{d.name}", total, flavour, d.start, element=element)
    signal.real, signal.text = of.is_real, of.is_text
    signal.collection = of.collected.runs_as() if of.collected is not None else None
    signal.automatic = is_automatic
    if flavour == "net":
        signal.net = kind
        if kind == "trireg" and item.strengths is not None:
            signal.charge = _CHARGES.get(item.strengths[0], 2)
        if d.value is None:
            signal.delay = body.delays(item.delays, scope)
    if flavour == "variable" and of.two_state:
        signal.two_state, signal.initial = True, values.word(0, total)
    elif flavour == "variable" and of.is_unpacked and of.has_digits:
        signal.initial = wanted.shape.start_value()
    if flavour == "variable" and body.m.system_verilog:
        body.b.variables.add(signal.id)
    if item.direction == "in" and kind == "logic":
        signal.kind = "net"
    return Vector(signal, of, kind, dims, d.start)


def _completes(body: ModuleContext, known: Vector, item: ast.Declaration, d: ast.Declarator) -> bool:
    is_port = d.name in body.directions
    return is_port and not item.direction and known.kind == "wire" and not d.dims


def _complete(
    body: ModuleContext, known: Vector, item: ast.Declaration, d: ast.Declarator, shape: Shape, scope: Scope
) -> None:
    """`output y; reg y;`: two halves of one declaration."""
    width = shape.width
    has_range = bool(item.type.ranges)
    if has_range and known.width != width and known.width != 1:
        raise body.error("range-differs", f"`{d.name}` is declared with two different ranges", d)
    if has_range and known.width == 1 and width != 1:
        raise body.error(
            "range-differs",
            f"`{d.name}` has a range here but none in its port declaration",
            d,
            "write the same range in both",
        )
    if item.kind not in NET_TYPES:
        if body.directions[d.name][0] == "in" and item.kind != "logic":
            raise body.error("input-reg", f"input `{d.name}` cannot be `{item.kind}`", d, "an input is a wire")
        if body.directions[d.name][0] == "inout":
            raise _two_way_variable(body, d, item.kind)
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
    if item.type.signed and not known.signed:
        known.type = replace(known.type, signed=True)
    _start_value(body, known, d, scope)


def _start_value(body: ModuleContext, vector: Vector, d: ast.Declarator, scope: Scope) -> None:
    if d.value is None or vector.signal.kind == "net" or vector.signal.automatic:
        return  # a net's value is a continuous assignment, built later
    x = body.x(scope)
    if vector.dims and body.m.system_verilog and not vector.signal.has_digits and vector.type.collected is None:
        written = ast.Assign(d.start, d.end, ast.Name(d.start, d.end, d.name), d.value, True)
        body.b.later(lambda: build(body, ast.Process(d.start, d.end, "initial", written), scope))
        return
    if vector.dims and not (body.m.system_verilog and vector.signal.has_digits):
        raise body.error(
            "array-value",
            f"`{d.name}` is an array and cannot be given a value here",
            d.value,
            "set its elements in an `initial` block",
        )
    try:
        if vector.type.collected is not None:
            made = x.collections.lower(d.value, vector.type.collected)
            vector.signal.first = evaluate_collection(made)
        elif vector.type.is_text and not vector.dims:
            vector.signal.letters = evaluate_text(x.texts.lower(d.value))
        elif vector.is_real:
            vector.signal.number = evaluate_real(x.reals.lower(d.value))
        else:
            word = evaluate(x.to_shape(d.value, vector.shape))
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
            case ast.For() | ast.Foreach() | ast.While() | ast.RepeatTimes() | ast.Timed():
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
    else:
        scope.nameless.append(inner)
    body.b.blocks[id(block), id(scope)] = inner
    for item in block.declarations:
        if isinstance(item, ast.Import):
            body.take_in(item, inner)
    for item in block.declarations:
        if isinstance(item, ast.Parameter):
            body.declare_parameter(item, inner)
        else:
            declare_names(body, item, inner)
    return inner
