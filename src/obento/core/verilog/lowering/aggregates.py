"""Whole arrays and structures, and what is written out in their place (IEEE 1800-2017 clauses 7.6, 10.9, 10.10 and
11.4.14)."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from obento.core import values
from obento.core.ir import nodes as ir
from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.model.scope import TypeName
from obento.core.verilog.model.types import DIGIT, TWO_STATE_DIGIT, DataType, Shape, builtin
from obento.core.verilog.syntax import ast

_MOST_ITEMS = 1 << 16


@dataclass(frozen=True, slots=True)
class _Part:
    """One part of an aggregate: its name or index, where it lies, what it is."""

    key: str | int
    low: int
    shape: Shape


class AggregateLowering:
    """Values that are more than a number, in one scope."""

    def __init__(self, x: Expressions) -> None:
        self._x = x

    def lower(self, e: ast.Expr, shape: Shape) -> ir.Expr:
        """A value for something of this shape, which is an aggregate or takes a pattern."""
        x = self._x
        if isinstance(e, ast.Pattern):
            return self._pattern(e, shape)
        if isinstance(e, ast.Conditional):
            return ir.Mux(shape.width, x.truth(e.cond), self.lower(e.a, shape), self.lower(e.b, shape))
        if isinstance(e, ast.Concat) and shape.dims:
            items = [ast.PatternItem(p.start, p.end, None, p) for p in e.parts]
            return self._pattern(ast.Pattern(e.start, e.end, "", items), shape)
        own = x.shape_of(e)
        if own is None or not own.is_aggregate:
            what = "an array" if shape.dims else f"a {shape.type.word}"
            raise x.error(
                "not-an-aggregate", f"{what} as a whole takes another one, or `'{{...}}`", e, "write `'{default: ...}`"
            )
        if not shape.fits(own):
            raise x.error("array-differs", "this has another type or another number of elements (1800 clause 7.6)", e)
        value = x.digits(e)
        return aligned(value, own, shape)

    # Patterns.

    def _pattern(self, e: ast.Pattern, shape: Shape) -> ir.Expr:
        x = self._x
        if e.to:
            named = x.scope.find(e.to)
            own = named.shape if isinstance(named, TypeName) else None
            if own is None or not shape.fits(own):
                raise x.error("array-differs", f"this is a value of the type `{e.to}`, which does not fit here", e)
        parts = self._parts(shape, e)
        chosen = self._chosen(e, parts)
        lowered = {
            part.low: self._element(value, part.shape, shape.type) for part, value in zip(parts, chosen, strict=True)
        }
        return _joined([lowered[low] for low in sorted(lowered, reverse=True)])

    def values_by_index(self, e: ast.Pattern | ast.Concat, shape: Shape) -> list[tuple[int, ast.Expr]]:
        """What each element of an array is given, by its index."""
        if isinstance(e, ast.Concat):
            e = ast.Pattern(e.start, e.end, "", [ast.PatternItem(p.start, p.end, None, p) for p in e.parts])
        parts = self._parts(shape, e)
        return [(int(part.key), value) for part, value in zip(parts, self._chosen(e, parts), strict=True)]

    def _chosen(self, e: ast.Pattern, parts: list[_Part]) -> list[ast.Expr]:
        """The value of each part of a pattern."""
        x, items = self._x, e.items
        if e.count is not None:
            count = x.integer(e.count, "the count of a repetition")
            if not 1 <= count * max(1, len(items)) <= _MOST_ITEMS:
                raise x.error("repeat-count", f"a repetition of {count} times makes no sense", e.count)
            items = items * count
        if any(item.key is not None for item in items):
            return self._by_key(items, parts, e)
        if len(items) != len(parts):
            text = f"here are {len(items)} values, wanted are {len(parts)}"
            raise x.error("pattern-count", text, e, "one for each element or member; `default: ...` gives the rest")
        return [item.value for item in items]

    def _parts(self, shape: Shape, e: ast.Expr) -> list[_Part]:
        """What an aggregate consists of, leftmost first."""
        of = shape.type
        if shape.dims:
            (left, right), inner = shape.dims[0], Shape(of, shape.dims[1:])
            step, low = (1 if left <= right else -1), min(left, right)
            return [_Part(i, (i - low) * inner.width, inner) for i in range(left, right + step, step)]
        if of.members:
            if of.word == "union":
                raise self._x.error("union-pattern", "a union takes no `'{...}`", e, "assign one of its members")
            return [_Part(m.name, m.low, m.shape) for m in of.members.values()]
        left, right = of.span
        step = 1 if left <= right else -1
        inner = Shape(of.element or (TWO_STATE_DIGIT if of.two_state else DIGIT))
        return [_Part(i, (i - right) * of.step * inner.width, inner) for i in range(left, right + step, step)]

    def _by_key(self, items: list[ast.PatternItem], parts: list[_Part], e: ast.Pattern) -> list[ast.Expr]:
        """The value of each part: by its own key, by its type, by `default` (10.9.2)."""
        x = self._x
        known: dict[str | int, ast.Expr] = {}
        by_type: list[tuple[DataType, ast.Expr]] = []
        default: ast.Expr | None = None
        keys = {p.key for p in parts}
        for item in items:
            key = item.key
            if key is None:
                raise x.error("pattern-mixed", "values with and without keys cannot be mixed", item)
            if key == "default":
                default = item.value
            elif isinstance(key, ast.TypeArgument):
                by_type.append((builtin(key.type.word), item.value))
            elif isinstance(key, ast.Name) and key.name in keys:
                known[key.name] = item.value
            elif isinstance(key, ast.Name) and isinstance(found := x.scope.find(key.name), TypeName):
                by_type.append((found.type, item.value))
            elif isinstance(key, ast.Name) and parts and isinstance(parts[0].key, str):
                names = [str(p.key) for p in parts]
                near = did_you_mean(key.name, names) or "there are " + ", ".join(f"`{n}`" for n in names)
                raise x.error("no-member", f"there is no member `{key.name}` here", key, near)
            else:
                assert isinstance(key, ast.Expr)
                at = x.integer(key, "an index")
                if at not in keys:
                    raise x.error("out-of-range", f"index {at} lies outside of the declared range", key)
                known[at] = item.value
        chosen: list[ast.Expr] = []
        for part in parts:
            fitting = [v for of, v in by_type if part.shape.type.is_like(of) and not part.shape.dims]
            value = known.get(part.key) or (fitting[-1] if fitting else default)
            if value is None:
                raise x.error("pattern-count", f"`{part.key}` gets no value here", e, "add it, or `default: ...`")
            chosen.append(value)
        return chosen

    def _element(self, e: ast.Expr, shape: Shape, of: DataType) -> ir.Expr:
        """One part of a pattern. What is no aggregate itself stands for every part of one that is (10.9.2)."""
        x = self._x
        own = x.shape_of(e)
        if shape.is_aggregate and not isinstance(e, ast.Pattern | ast.Concat) and not (own and own.is_aggregate):
            return _joined(
                [
                    self._element(e, part.shape, of)
                    for part in sorted(self._parts(shape, e), key=lambda p: p.low, reverse=True)
                ]
            )
        value = x.to_shape(e, shape)
        return ir.two_state(value) if shape.type.two_state and not of.two_state and not shape.is_aggregate else value

    # Streams.

    def streamed(self, e: ast.Stream) -> ir.Expr:
        """The digits of a stream, leftmost first, in its order (11.4.14)."""
        return self.in_pieces(_joined([self._in_order(part) for part in e.parts]), e)

    def in_pieces(self, whole: ir.Expr, e: ast.Stream) -> ir.Expr:
        """Digits in the order of a stream: as they are, or piece by piece from the right (11.4.14.2)."""
        x = self._x
        if e.op == ">>":
            return whole
        size = 1
        if isinstance(e.slice, ast.TypeArgument):
            size = x.type_shape(e.slice).width
        elif isinstance(e.slice, ast.Name) and isinstance(named := x.scope.find(e.slice.name), TypeName):
            size = named.type.width
        elif e.slice is not None:
            size = x.integer(e.slice, "the size of a piece")
        if size < 1:
            raise x.error("bad-slice", f"pieces of {size} digits make no sense", e)
        pieces: list[ir.Expr] = [
            ir.Slice(min(size, whole.width - low), whole, low) for low in range(0, whole.width, size)
        ]
        return _joined(pieces)

    def _in_order(self, e: ast.Expr) -> ir.Expr:
        shape = self._x.shape_of(e)
        if shape is not None and not shape.type.has_digits:
            raise self._x.error("not-yet", "a stream of this is not read by this version", e, "take its elements")
        if shape is None or not shape.dims:
            return self._x.digits(e) if shape is not None else self._x.self_determined(e)
        return left_to_right(self._x.digits(e), shape)


def same(a: ir.Expr, a_shape: Shape, b: ir.Expr, b_shape: Shape, op: str) -> ir.Expr:
    """Whether two aggregates that fit each other are equal, part by part (1800 clause 7.6)."""
    return ir.Binary(1, op, aligned(a, a_shape, b_shape), b)


def aligned(value: ir.Expr, own: Shape, wanted: Shape) -> ir.Expr:
    """An array with its elements where the other has them: the leftmost goes to the leftmost."""
    if not wanted.dims:
        return value
    inner, there = Shape(own.type, own.dims[1:]), Shape(wanted.type, wanted.dims[1:])
    turned = (own.dims[0][0] < own.dims[0][1]) != (wanted.dims[0][0] < wanted.dims[0][1])
    if not turned and all((a[0] < a[1]) == (b[0] < b[1]) for a, b in zip(own.dims[1:], wanted.dims[1:], strict=True)):
        return value
    parts = [aligned(part, inner, there) for part in _elements(value, inner.width)]
    return _joined(parts if turned else parts[::-1])


def left_to_right(value: ir.Expr, shape: Shape) -> ir.Expr:
    """An array as a vector with its leftmost element on the left, from how it is kept (the lowest index on the right);
    the way back is the same."""
    if not shape.dims:
        return value
    inner = Shape(shape.type, shape.dims[1:])
    parts = [left_to_right(part, inner) for part in _elements(value, inner.width)]
    left, right = shape.dims[0]
    return _joined(parts if left <= right else parts[::-1])


def _elements(value: ir.Expr, width: int) -> list[ir.Expr]:
    """The elements of an array, the one with the lowest index first."""
    return [ir.Slice(width, value, low) for low in range(0, value.width, width)]


def _joined(parts: list[ir.Expr]) -> ir.Expr:
    if len(parts) == 1:
        return parts[0]
    width = sum(p.width for p in parts)
    consts = [p for p in parts if isinstance(p, ir.Const)]
    if len(consts) == len(parts):
        one = zero = 0
        for p in consts:
            one, zero = one << p.width | p.one, zero << p.width | p.zero
        return ir.Const(width, one, zero)
    return ir.Concat(width, parts)


# Enumerations (1800 clause 6.19.5).


def enum_method(method: str, of: DataType, value: ir.Expr, count: int) -> ir.Expr:
    """What a method of an enumeration gives, for a value of it."""
    numbers = list(of.values.values())
    if method in ("first", "last"):
        return ir.Const(of.width, *values.word(numbers[0 if method == "first" else -1], of.width))
    if method == "num":
        return ir.Const(32, *values.word(len(numbers), 32))
    step = count if method == "next" else -count
    blank = ir.Const(of.width, *of.start_value())
    return _chosen(
        of,
        value,
        lambda i: ir.Const(of.width, *values.word(numbers[(i + step) % len(numbers)], of.width)),
        blank,
    )


def name_of_constant(of: DataType, value: ir.Expr) -> ir.Expr:
    """The name of a value of an enumeration, an empty string for what is none (6.19.5.6)."""
    result: ir.Expr = ir.TextConst(64, "")
    for name, number in reversed(list(of.values.items())):
        is_it = ir.Binary(1, "ceq", value, ir.Const(of.width, *values.word(number, of.width)))
        result = ir.TextOp(64, "choose", [is_it, ir.TextConst(64, name), result])
    return result


def _chosen(of: DataType, value: ir.Expr, then: Callable[[int], ir.Expr], otherwise: ir.Expr) -> ir.Expr:
    """One of several values, by which constant of the enumeration this is."""
    result = otherwise
    for i, number in reversed(list(enumerate(of.values.values()))):
        is_it = ir.Binary(1, "ceq", value, ir.Const(of.width, *values.word(number, of.width)))
        result = ir.Mux(result.width, is_it, then(i), result)
    return result
