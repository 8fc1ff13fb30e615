"""Which operation an operator stands for (IEEE 1076 clause 9.2): declared ones, and those that come with every type."""

from __future__ import annotations

from collections.abc import Iterable

from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.meanings import Interp
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Subprogram
from obento.core.vhdl.model.types import (
    ArrayType,
    EnumType,
    FileType,
    Guess,
    IntType,
    PhysType,
    ProtectedType,
    RealType,
    Subtype,
    Type,
    is_discrete,
    is_scalar,
)
from obento.core.vhdl.packages.standard import (
    BIT,
    BOOLEAN,
    INTEGER,
    REAL,
    STRING,
    UNIVERSAL_INTEGER,
    compatible,
    concrete,
    is_universal,
)
from obento.core.vhdl.syntax import ast

_RELATIONAL = ("=", "/=", "<", "<=", ">", ">=")
_LOGICAL = ("and", "or", "nand", "nor", "xor", "xnor")
_SHIFTS = ("sll", "srl", "sla", "sra", "rol", "ror")


class Operators:
    """Interpretations of unary and binary operators."""

    def __init__(self, context: Context, names: Names) -> None:
        self.context = context
        self.names = names

    def binary_interps(self, e: ast.Binary) -> list[Interp]:
        """Everything that an operator between two operands can mean."""
        lefts = _types(self.context.expressions.interps(e.left))
        rights = _types(self.context.expressions.interps(e.right))
        found = self._declared(e.op, [e.left, e.right], [lefts, rights], e)
        explicit = {i.operands for i in found}
        for result, a, b in self._implicit(e.op, lefts, rights):
            if (a, b) not in explicit:
                found.append(self._implicit_interp(e, result, a, b))
        if not found and e.op == "&":
            return self._literals_joined(e, lefts, rights)
        return found

    def _literals_joined(self, e: ast.Binary, lefts: list[Type], rights: list[Type]) -> list[Interp]:
        """`"late" & " by "`: string literals are of whatever type is wanted of the whole."""
        parts = [
            next((x for x in side if isinstance(x, Guess) and x.kind == "string"), None) for side in (lefts, rights)
        ]
        if parts[0] is None or parts[1] is None:
            return []
        a, b = parts[0], parts[1]

        def make(wanted: Type, _: Subtype | None) -> t.Expr:
            out = STRING if isinstance(wanted, Guess) else wanted
            return self.context.expressions.folded(
                t.Op(
                    out,
                    e.pos,
                    "&",
                    [self.context.expressions.expr(e.left, out), self.context.expressions.expr(e.right, out)],
                )
            )

        return [Interp(Guess("a string", kind="string", letters=a.letters | b.letters, size=a.size + b.size), make)]

    def _declared(self, op: str, args: list[ast.Expr], given: list[list[Type]], e: ast.Node) -> list[Interp]:
        out: list[Interp] = []
        for f in self.context.scope.find(f'"{op}"'):
            if not isinstance(f, Subprogram) or len(f.params) != len(args) or f.result is None:
                continue
            if all(any(compatible(g, p.subtype.type) for g in types) for p, types in zip(f.params, given, strict=True)):
                out.append(self._declared_interp(f, args, e))
        return out

    def _declared_interp(self, f: Subprogram, args: list[ast.Expr], e: ast.Node) -> Interp:
        assert f.result is not None
        return Interp(
            f.result.type,
            lambda _t, _s: self.names.build_call(f, args, e),
            operands=tuple(p.subtype.type for p in f.params),
        )

    def _implicit_interp(self, e: ast.Binary, result: Type, a: Type, b: Type) -> Interp:
        def make(wanted: Type, _: Subtype | None) -> t.Expr:
            # An operation on universal numbers is one on the type that is wanted.
            left_type, right_type, out = a, b, result
            if is_universal(result) and isinstance(wanted, IntType | RealType):
                out = wanted
                left_type = wanted if a is result else a
                right_type = wanted if b is result else b
            left = self.context.expressions.expr(e.left, left_type)
            right = self.context.expressions.expr(e.right, right_type)
            return self.context.expressions.folded(t.Op(out, e.pos, e.op, [left, right]))

        return Interp(result, make, True, (a, b))

    def _implicit(self, op: str, lefts: list[Type], rights: list[Type]) -> Iterable[tuple[Type, Type, Type]]:
        if op in _RELATIONAL or op in ("?=", "?/=", "?<", "?<=", "?>", "?>="):
            for x in _common(lefts, rights):
                if op in _RELATIONAL and (
                    (op in ("=", "/=") and not isinstance(x, FileType | ProtectedType)) or _ordered(x)
                ):
                    yield BOOLEAN, x, x
                elif op.startswith("?") and (x is BIT or (_is_array_of(x, (BIT,)) and op in ("?=", "?/="))):
                    yield BIT, x, x
        elif op in _LOGICAL:
            yield from self._logical(lefts, rights)
        elif op == "&":
            yield from self._concatenations(lefts, rights)
        elif op in _SHIFTS:
            for x in lefts:
                if _is_array_of(x, (BIT, BOOLEAN)) and any(compatible(r, INTEGER) for r in rights):
                    yield x, x, INTEGER
        else:
            yield from _arithmetic(op, lefts, rights)

    @staticmethod
    def _logical(lefts: list[Type], rights: list[Type]) -> Iterable[tuple[Type, Type, Type]]:
        for x in _common(lefts, rights):
            if x in (BIT, BOOLEAN) or _is_array_of(x, (BIT, BOOLEAN)):
                yield x, x, x
        for x in lefts:
            if (
                isinstance(x, ArrayType)
                and _is_array_of(x, (BIT, BOOLEAN))
                and any(r is x.element.type for r in rights)
            ):
                yield x, x, x.element.type
        for x in rights:
            if isinstance(x, ArrayType) and _is_array_of(x, (BIT, BOOLEAN)) and any(a is x.element.type for a in lefts):
                yield x, x.element.type, x

    def _concatenations(self, lefts: list[Type], rights: list[Type]) -> Iterable[tuple[Type, Type, Type]]:
        arrays: list[ArrayType] = []

        def note(x: Type) -> None:
            if isinstance(x, ArrayType) and len(x.indices) == 1 and x not in arrays:
                arrays.append(x)

        for x in (*lefts, *rights):
            note(x)
        for x in (*lefts, *rights):
            if isinstance(x, EnumType):
                for a in self.context.arrays_of(x):
                    note(a)
        for a in arrays:
            element = a.element.type
            left_array = any(compatible(x, a) for x in lefts)
            right_array = any(compatible(x, a) for x in rights)
            left_element = any(compatible(x, element) for x in lefts)
            right_element = any(compatible(x, element) for x in rights)
            if left_array and right_array:
                yield a, a, a
            if left_array and right_element:
                yield a, a, element
            if left_element and right_array:
                yield a, element, a
            if left_element and right_element:
                yield a, element, element

    def unary_interps(self, e: ast.Unary) -> list[Interp]:
        """Everything that an operator before its operand can mean."""
        types = _types(self.context.expressions.interps(e.value))
        found = self._declared(e.op, [e.value], [types], e)
        explicit = {i.operands for i in found}
        for x in types:
            if (x,) in explicit:
                continue
            result: Type | None = None
            if (e.op in ("+", "-", "abs") and isinstance(x, IntType | RealType | PhysType)) or (
                e.op == "not" and (x in (BIT, BOOLEAN) or _is_array_of(x, (BIT, BOOLEAN)))
            ):
                result = x
            elif e.op in _LOGICAL and isinstance(x, ArrayType) and _is_array_of(x, (BIT, BOOLEAN)):
                result = x.element.type
            elif e.op == "??" and x is BIT:
                result = BOOLEAN
            if result is not None:
                found.append(self._unary_interp(e, result, x))
        return found

    def _unary_interp(self, e: ast.Unary, result: Type, operand: Type) -> Interp:
        def make(wanted: Type, _: Subtype | None) -> t.Expr:
            out, inner = result, operand
            if is_universal(result) and isinstance(wanted, IntType | RealType):
                out = inner = wanted
            return self.context.expressions.folded(
                t.Op(out, e.pos, e.op, [self.context.expressions.expr(e.value, inner)])
            )

        return Interp(result, make, True, (operand,))

    def everywhere_interps(self, name: str, e: ast.Paren, known: set[tuple[Type, ...]]) -> list[Interp]:
        """`to_string`, `minimum`, `maximum` and `endfile` of types that bring them along."""
        args = [a.value for a in e.args]
        given = [_types(self.context.expressions.interps(a)) for a in args]
        found: list[Interp] = []
        if len(args) == 1:
            for x in given[0]:
                result = _everywhere_result(name, x)
                if result is not None and (x,) not in known:
                    found.append(self._everywhere(name, args, result, x, e))
        elif len(args) == 2 and name in ("minimum", "maximum"):
            for x in _common(given[0], given[1]):
                if _ordered(x) and (x, x) not in known:
                    found.append(self._everywhere(name, args, x, x, e))
        return found

    def _everywhere(self, name: str, args: list[ast.Expr], result: Type, operand: Type, e: ast.Node) -> Interp:
        def make(wanted: Type, _: Subtype | None) -> t.Expr:
            inner = wanted if is_universal(operand) and result is operand else concrete(operand)
            out = inner if result is operand else result
            return self.context.expressions.folded(
                t.Op(out, e.pos, name, [self.context.expressions.expr(a, inner) for a in args])
            )

        return Interp(result, make, True, (operand,) * len(args))


def _everywhere_result(name: str, x: Type) -> Type | None:
    if name == "endfile":
        return BOOLEAN if isinstance(x, FileType) else None
    if name == "to_string":
        return (
            STRING
            if is_scalar(x)
            or (isinstance(x, ArrayType) and isinstance(x.element.type, EnumType) and x.element.type.is_character)
            else None
        )
    return x.element.type if isinstance(x, ArrayType) and len(x.indices) == 1 and is_scalar(x.element.type) else None


def _types(interps: list[Interp]) -> list[Type]:
    out: list[Type] = []
    for i in interps:
        if i.type not in out:
            out.append(i.type)
    return out


def _common(lefts: list[Type], rights: list[Type]) -> list[Type]:
    """Types that both sides can have."""
    found: list[Type] = []
    for x in (*lefts, *rights):
        if isinstance(x, Guess) or is_universal(x) or x in found:
            continue
        if any(compatible(a, x) for a in lefts) and any(compatible(b, x) for b in rights):
            found.append(x)
    if not found:
        for x in lefts:
            if is_universal(x) and any(x is y for y in rights):
                found.append(x)
    if not found and any(isinstance(x, Guess) and x.kind == "string" for x in lefts):
        if all(any(compatible(x, STRING) for x in side) for side in (lefts, rights)):
            found.append(STRING)  # two literals: what else would they be
    return found


def _ordered(x: Type) -> bool:
    return is_scalar(x) or (isinstance(x, ArrayType) and len(x.indices) == 1 and is_discrete(x.element.type))


def _is_array_of(x: Type, elements: tuple[Type, ...]) -> bool:
    return isinstance(x, ArrayType) and len(x.indices) == 1 and x.element.type in elements


def _arithmetic(op: str, lefts: list[Type], rights: list[Type]) -> Iterable[tuple[Type, Type, Type]]:
    for x in _common(lefts, rights):
        if (
            (op in ("+", "-") and isinstance(x, IntType | RealType | PhysType))
            or (op in ("*", "/") and isinstance(x, IntType | RealType))
            or (op in ("mod", "rem") and isinstance(x, IntType | PhysType))
        ):
            yield x, x, x
        elif op == "/" and isinstance(x, PhysType):
            yield UNIVERSAL_INTEGER, x, x
    if op == "**":
        if any(compatible(b, INTEGER) for b in rights):
            for x in lefts:
                if isinstance(x, IntType | RealType):
                    yield x, x, INTEGER
        return
    if op in ("*", "/"):
        for x in lefts:
            if isinstance(x, PhysType):
                for scale in (INTEGER, REAL):
                    if any(compatible(b, scale) for b in rights):
                        yield x, x, scale
            elif (
                isinstance(x, RealType) and x.universal and any(isinstance(b, IntType) and b.universal for b in rights)
            ):
                yield x, x, UNIVERSAL_INTEGER
    if op == "*":
        for x in rights:
            if isinstance(x, PhysType):
                for scale in (INTEGER, REAL):
                    if any(compatible(a, scale) for a in lefts):
                        yield x, scale, x


def static_length(x: t.Expr) -> int | None:
    """How long an array value is, when that is known before it runs."""
    if isinstance(x, t.Const):
        return len(x.value.v)
    if x.sub is not None and x.sub.ranges:
        return x.sub.length()
    if isinstance(x, t.Op) and isinstance(x.type, ArrayType):
        if x.op == "&":
            sizes = [static_length(a) if a.type is x.type else 1 for a in x.args]
            return None if None in sizes else sum(s for s in sizes if s is not None)
        return static_length(x.args[0]) if isinstance(x.args[0].type, ArrayType) else static_length(x.args[-1])
    if isinstance(x, t.Convert | t.Qual):
        return static_length(x.arg) if isinstance(x.arg.type, ArrayType) else None
    if isinstance(x, t.Call):
        return _call_length(x)
    return None


def _call_length(x: t.Call) -> int | None:
    f = x.function
    if f.native is None:
        return None
    arrays = [static_length(a) for a in x.args if isinstance(a.type, ArrayType)]
    if f.name in (
        "resize",
        "to_unsigned",
        "to_signed",
        "conv_std_logic_vector",
        "conv_unsigned",
        "conv_signed",
        "to_slv",
        "to_stdlogicvector",
    ):
        size = x.args[-1]
        if isinstance(size.type, ArrayType):
            return static_length(size) if len(x.args) > 1 else (arrays[0] if arrays else None)
        return size.value if isinstance(size, t.Const) and len(x.args) > 1 else None
    if not arrays or None in arrays:
        return None
    sizes = [a for a in arrays if a is not None]
    op = f.name.strip('"')
    if op in (
        "+",
        "-",
        "and",
        "or",
        "xor",
        "nand",
        "nor",
        "xnor",
        "not",
        "abs",
        "shift_left",
        "shift_right",
        "rotate_left",
        "rotate_right",
        *_SHIFTS,
    ):
        if f.package == "std_logic_arith":
            return None
        return max(sizes) if isinstance(x.type, ArrayType) else None
    if op == "*" and f.package in (
        "numeric_std",
        "numeric_bit",
        "std_logic_unsigned",
        "std_logic_signed",
        "numeric_std_unsigned",
    ):
        return sum(sizes) if len(sizes) == 2 else 2 * sizes[0]
    return None
