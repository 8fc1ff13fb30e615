"""Typed expressions on digits."""

from __future__ import annotations

from math import prod
from typing import Any

from obento.core.ir import nodes as ir
from obento.core.vhdl.lanes.aggregates import array
from obento.core.vhdl.lanes.integers import ORDER, integers
from obento.core.vhdl.lanes.natives import SHIFTS, bitwise, native, shifted, truth
from obento.core.vhdl.lanes.values import (
    Digits,
    NoLanes,
    bit,
    bits_of,
    both,
    either,
    exact,
    is_known,
    is_logic,
    joined,
    not_,
    number,
    number_width,
    same,
    sizes_of,
    widened,
)
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object, Subprogram
from obento.core.vhdl.model.types import (
    ArrayType,
    EnumType,
    IntType,
    RangeX,
    RecordType,
    Subtype,
    is_scalar,
    scalar_bounds,
)
from obento.core.vhdl.model.values import Arr, elements
from obento.core.vhdl.packages.standard import INTEGER, int_range

_SHORT_CIRCUIT = frozenset(["and", "or", "nand", "nor"])


class LaneExpressions:
    """Lowers expressions; `escape` marks lanes that must be run step by step. `is_certain` unless what is lowered may
    be passed over in the run though nothing around it says so."""

    bound: dict[Object, Digits]
    edges: dict[Object, ir.Expr]
    is_certain: bool
    _fixed: dict[int, Digits]
    """Expressions that have a known value in what is being written out, by their identity."""

    def escape(self, when: ir.Expr) -> None:
        """The cases in which a condition holds are told by the timeline."""
        raise NotImplementedError

    def error(self, when: ir.Expr) -> None:
        """The cases in which a condition holds end in an error."""
        raise NotImplementedError

    def doubt(self, when: ir.Expr) -> None:
        """Marks lanes in which the digits do not tell what VHDL's values would."""
        raise NotImplementedError

    def call_user(self, f: Subprogram, args: list[Digits]) -> Digits:
        """A call of a function of the user, put in place."""
        raise NotImplementedError

    def place(self, o: Object) -> Digits:
        """The digits of an object."""
        raise NotImplementedError

    def value(self, x: t.Expr) -> Digits:
        """The digits, or the constant, that an expression gives.

        Raises
        ------
        NoLanes
        """
        if self._fixed and id(x) in self._fixed:
            return self._fixed[id(x)]
        match x:
            case t.Const():
                return self.constant(x.value, x.sub or Subtype(x.type))
            case t.Read():
                return self._read(x.object)
            case t.Index():
                return self._index(x)
            case t.Slice():
                return self._slice(x)
            case t.Field():
                return self._field(x)
            case t.Op():
                return self._operation(x)
            case t.Call():
                return self._call(x)
            case t.Convert():
                return self._convert(x)
            case t.Qual():
                return self.fitted(self.value(x.arg), x.target)
            case t.AliasOf():
                return self._retagged(self.value(x.prefix), self.alias_subtype(x))
            case t.ArrayAgg():
                return array(x, self)
            case t.RecordAgg():
                assert isinstance(x.type, RecordType)
                of = x.sub or Subtype(x.type)
                parts = [exact(self.fitted(self.value(v), f), f) for v, (_, f) in zip(x.values, of.fields, strict=True)]
                return Digits(of, e=joined(parts))
            case t.ArrayAttr():
                return self._array_attribute(x)
            case t.ScalarAttr():
                return self._scalar_attribute(x)
            case t.SignalAttr():
                return self._signal_attribute(x)
        raise NoLanes("values that have no digits")

    def alias_subtype(self, x: t.AliasOf) -> Subtype:
        """The bounds that an alias gives its array."""
        left, right, down = self.range(x.new)
        element = x.prefix.sub.element if x.prefix.sub is not None else None
        return Subtype(x.type, [int_range(INTEGER, left, right, down)], None, element)

    def constant(self, value: Any, sub: Subtype) -> Digits:
        """A constant as digits; raises NoLanes where it has none."""
        if isinstance(value, float) or value is None:
            raise NoLanes("real numbers and pointers")
        if isinstance(value, Arr) and isinstance(sub.type, ArrayType):
            ranges: list[RangeX] = []
            row: Any = value
            for index in sub.type.indices:
                right = row.left + row.step * (len(row.v) - 1)
                ranges.append(int_range(index.type, row.left, right, row.step < 0))
                row = row.v[0] if len(row.v) and len(ranges) < len(sub.type.indices) else Arr(0, 1, ())
            sub = Subtype(sub.type, ranges, None, sub.element)
        return Digits(sub, value, True)

    def _read(self, o: Object) -> Digits:
        if o.known:
            return self.constant(o.value, o.subtype)
        found = self.bound.get(o)
        return found if found is not None else self.place(o)

    # Parts.

    def range(self, r: RangeX) -> tuple[int, int, bool]:
        """Bounds that must be known here."""
        left, right = self.value(r.left), self.value(r.right)
        down = r.down if isinstance(r.down, bool) else self.value(r.down).value
        if not left.known or not right.known or down is None:
            raise NoLanes("a range that is only known in the run")
        return left.value, right.value, bool(down)

    def _bounds(self, v: Digits, dimension: int = 0) -> tuple[int, int, bool]:
        if v.sub.ranges is None:
            raise NoLanes("an array whose size is only known in the run")
        return self.range(v.sub.ranges[dimension])

    def _index(self, x: t.Index) -> Digits:
        v = self.value(x.prefix)
        indices = [self.value(i) for i in x.indices]
        element = v.sub.element_subtype
        if v.known and all(i.known for i in indices):
            part = v.value
            for index in indices:
                part = part.at(index.value, x.pos)
            return self.constant(part, element)
        e = v.digits
        for dimension, index in enumerate(indices):
            width = self.row_width(v.sub, dimension)
            left, right, down = self._bounds(v, dimension)
            low, high = (right, left) if down else (left, right)
            if index.known:
                if not low <= index.value <= high:
                    self.error(bit(True))
                    return self._of(number(0, bits_of(element)), element)
                e = ir.Slice(width, e, abs(right - index.value) * width)
            else:
                self.inside(index, low, high)
                e = ir.Pick(width, e, index.digits, index.bounds[0] < 0, right, width if down else -width)
        return self._of(e, element)

    def row_width(self, array: Subtype, dimension: int) -> int:
        """The digits of what lies at one place of a dimension of an array: an element, or all of later dimensions."""
        return prod(sizes_of(array)[dimension + 1 :]) * bits_of(array.element_subtype)

    def inside(self, v: Digits, low: int, high: int) -> None:
        """Lanes in which a number leaves its range are run step by step."""
        a, b = v.bounds
        if low <= a and b <= high:
            return
        width = number_width(min(a, low, -1), max(b, high))
        e = widened(v, width)
        inside = both(
            ir.Binary(1, "sle", number(low, width), e),
            ir.Binary(1, "sle", e, number(high, width)),
        )
        self.error(same(inside, bit(False)))
        self.escape(not_(either(same(inside, bit(True)), same(inside, bit(False)))))

    def _slice(self, x: t.Slice) -> Digits:
        v = self.value(x.prefix)
        left, right, down = self.range(x.range)
        own_left, own_right, own_down = self._bounds(v)
        size = (left - right if down else right - left) + 1
        sub = Subtype(v.sub.type, [int_range(INTEGER, left, right, down)], None, v.sub.element)
        if size <= 0:
            return self.constant(Arr(left, -1 if down else 1, ()), sub)
        low, high = (own_right, own_left) if own_down else (own_left, own_right)
        if not (low <= min(left, right) and max(left, right) <= high) or (down != own_down and size > 1):
            self.error(bit(True))
            return Digits(sub, e=number(0, size * bits_of(v.sub.element_subtype)))
        if v.known:
            return self.constant(v.value.part(left, right, -1 if down else 1, x.pos), sub)
        width = bits_of(v.sub.element_subtype)
        return Digits(sub, e=ir.Slice(size * width, v.digits, abs(own_right - right) * width))

    def _field(self, x: t.Field) -> Digits:
        v = self.value(x.prefix)
        assert isinstance(v.sub.type, RecordType)
        field = v.sub.fields[x.number][1]
        if v.known:
            return self.constant(v.value[x.number], field)
        offset = sum(bits_of(f) for _, f in v.sub.fields[x.number + 1 :])
        return self._of(ir.Slice(bits_of(field), v.digits, offset), field)

    def _of(self, e: ir.Expr, sub: Subtype) -> Digits:
        """Digits as a value of a subtype."""
        if isinstance(sub.type, IntType):
            bounds = scalar_bounds(sub)
            assert bounds is not None
            return Digits(sub, e=e, low=bounds[0], high=bounds[1])
        return Digits(sub, e=e)

    # Fitting.

    def fitted(self, v: Digits, s: Subtype) -> Digits:
        """A value for an object of a subtype: numbers in their range and width, arrays with the object's bounds."""
        if isinstance(s.type, IntType):
            bounds = scalar_bounds(s)
            if bounds is None:
                raise NoLanes("a range that is only known in the run")
            self.inside(v, *bounds)
            if v.known:
                return Digits(s, v.value, True)
            return Digits(s, e=widened(v, bits_of(s)), low=bounds[0], high=bounds[1])
        if isinstance(s.type, EnumType):
            if s.ranges is not None:
                bounds = scalar_bounds(s)
                assert bounds is not None
                if not v.known or not bounds[0] <= v.value <= bounds[1]:
                    raise NoLanes("a part of an enumeration")
            return Digits(s, v.value, v.known, v.e)
        if isinstance(s.type, ArrayType) and s.ranges is not None:
            return self._retagged(v, s)
        return v

    def _retagged(self, v: Digits, s: Subtype) -> Digits:
        assert s.ranges is not None
        if len(s.ranges) > 1:
            if v.sub.ranges is None or sizes_of(v.sub) != sizes_of(s):
                raise NoLanes("arrays of several dimensions with other sizes")
            if v.known and [self.range(r) for r in v.sub.ranges] == [self.range(r) for r in s.ranges]:
                return v
            return Digits(Subtype(s.type, s.ranges, None, s.element or v.sub.element), e=v.digits)
        left, right, down = self.range(s.ranges[0])
        size = max(0, (left - right if down else right - left) + 1)
        have = len(v.value.v) if v.known else v.digits.width // max(1, bits_of(v.sub.element_subtype))
        sub = Subtype(s.type, [int_range(INTEGER, left, right, down)], None, s.element or v.sub.element)
        if have != size:
            self.error(bit(True))
            return Digits(sub, e=number(0, bits_of(sub))) if size else self.constant(Arr(left, 1, ()), sub)
        return Digits(sub, Arr(left, -1 if down else 1, v.value.v) if v.known else None, v.known, v.e)

    # Operations.

    def _operands(self, x: t.Op) -> list[Digits]:
        """The operands of an operation. Of a logical one on Booleans or bits the right one may not be evaluated
        (7.2)."""
        if x.op not in _SHORT_CIRCUIT or not isinstance(x.args[0].type, EnumType) or is_logic(x.args[0].type):
            return [self.value(a) for a in x.args]
        left = self.value(x.args[0])
        before, self.is_certain = self.is_certain, False
        try:
            return [left, *(self.value(a) for a in x.args[1:])]
        finally:
            self.is_certain = before

    def _operation(self, x: t.Op) -> Digits:
        args = self._operands(x)
        if x.op == "&":
            return self._concatenation(x, args)
        first = args[0]
        if isinstance(first.sub.type, IntType):
            return integers(x, args, self)
        if len(args) == 1:
            return self._unary(x, first)
        if x.op in ("=", "/=") and (is_scalar(first.sub.type) or isinstance(first.sub.type, ArrayType | RecordType)):
            if is_scalar(first.sub.type) and args[0].known and args[1].known:
                return Digits(Subtype(x.type), (args[0].value == args[1].value) == (x.op == "="), True)
            holds = self.equal(args[0], args[1])
            return truth(not_(holds) if x.op == "/=" else holds)
        if x.op in ("and", "or", "nand", "nor", "xor", "xnor") and not isinstance(first.sub.type, RecordType):
            a, b = args[0].digits, args[1].digits
            if a.width == b.width:
                return Digits(
                    args[0].sub if isinstance(first.sub.type, ArrayType) else Subtype(x.type), e=bitwise(x.op, a, b)
                )
        if x.op in ORDER and isinstance(first.sub.type, EnumType) and first.sub.type.name != "std_ulogic":
            name, swap = ORDER[x.op]
            a, b = (args[1].digits, args[0].digits) if swap else (args[0].digits, args[1].digits)
            return truth(ir.Binary(1, name[1:], a, b))
        if x.op in ORDER and isinstance(first.sub.type, ArrayType):
            return self._in_order(x.op, args[0], args[1])
        if x.op in SHIFTS and bits_of(first.sub.element_subtype) == 1:
            return Digits(first.sub, e=shifted(x.op, first.digits, args[1]))
        raise NoLanes(f"`{x.op}` of {first.sub.type.shown}")

    def _in_order(self, op: str, a: Digits, b: Digits) -> Digits:
        """The order of vectors of the same length (9.2.3): that of the numbers they look like, where all digits are
        known."""
        p, q = a.digits, b.digits
        if bits_of(a.sub.element_subtype) != 1:
            raise NoLanes(f"`{op}` of {a.sub.type.shown}")
        name, swap = ORDER[op]
        self.doubt(not_(both(is_known(p), is_known(q))))
        if p.width != q.width:
            # From the left; where one is the beginning of the other, it is the smaller.
            common = min(p.width, q.width)
            if common < 1:
                raise NoLanes("vectors without elements compared")
            shorter = p.width < q.width
            p, q = (e if e.width == common else ir.Slice(common, e, e.width - common) for e in (p, q))
            if shorter is not swap:
                name = "sle"
            else:
                name = "slt"
        return truth(same(ir.Binary(1, name[1:], q, p) if swap else ir.Binary(1, name[1:], p, q), bit(True)))

    def equal(self, a: Digits, b: Digits) -> ir.Expr:
        """Literal equality (9.2.3). Where unknown digits agree, U, X and the like may differ: those lanes are run step
        by step."""
        p, q = a.digits, b.digits
        if p.width != q.width:
            return bit(False)
        holds = same(p, q)
        for v, e in ((a, p), (b, q)):
            if v.known and isinstance(e, ir.Const) and (e.one ^ e.zero).bit_count() == e.width:
                return holds
            if not _may_be_unknown(v.sub):
                return holds
        self.doubt(both(holds, not_(is_known(p))))
        return holds

    def _unary(self, x: t.Op, v: Digits) -> Digits:
        e = v.digits
        if x.op == "not":
            return Digits(v.sub, e=ir.Unary(e.width, "not", e))
        if x.op == "??":
            return truth(same(e, bit(True)))
        if x.op in ("and", "or", "xor"):
            return Digits(Subtype(x.type), e=ir.Unary(1, f"r{x.op}", e))
        raise NoLanes(f"`{x.op}`")

    def _concatenation(self, x: t.Op, args: list[Digits]) -> Digits:
        assert isinstance(x.type, ArrayType)
        if all(a.known for a in args):
            parts = [
                a.value.v if y.type is x.type else elements([a.value], x.type.packed)
                for a, y in zip(args, x.args, strict=True)
            ]
            whole = parts[0] + parts[1]
            return self.constant(Arr(len(whole) - 1, -1, whole), Subtype(x.type))
        element = x.type.element
        parts = [
            a.digits if isinstance(a.sub.type, ArrayType) else exact(self.fitted(a, element), element) for a in args
        ]
        e = joined([p for p in parts if p.width])
        width = max(1, bits_of(x.type.element))
        return Digits(Subtype(x.type, [int_range(INTEGER, e.width // width - 1, 0, True)]), e=e)

    # Calls, conversions, aggregates.

    def _call(self, x: t.Call) -> Digits:
        f = x.function
        if f.native is not None and f.name in ("rising_edge", "falling_edge"):
            return truth(self._edge(x.args[0], f.name == "rising_edge"))
        if f.native is None and (x.receiver is not None or f.outs()):
            raise NoLanes("a function that gives values back")
        args: list[Digits] = []
        for p, a in zip(f.params, x.args, strict=True):
            if p.kind == "signal" and f.native is None:
                raise NoLanes("a function of signals")
            v = self.value(a)
            args.append(self.fitted(v, p.subtype) if is_scalar(p.subtype.type) else v)
        if f.native is None:
            return self.call_user(f, args)
        assert f.result is not None
        return native(f.package, f.name, args, f.result, self)

    def _edge(self, x: t.Expr, rising: bool) -> ir.Expr:
        """An edge since the process ran last, which it does at every event of the signal."""
        if not isinstance(x, t.Read) or x.object not in self.edges:
            raise NoLanes("an edge of a signal that the process does not wake for")
        now, before = self.place(x.object).digits, self.edges[x.object]
        return both(same(now, bit(rising)), same(before, bit(not rising)))

    def _signal_attribute(self, x: t.SignalAttr) -> Digits:
        if (
            x.name not in ("event", "stable")
            or x.arg is not None
            or not isinstance(x.target, t.Read)
            or x.target.object not in self.edges
        ):
            raise NoLanes(f"`'{x.name}`")
        o = x.target.object
        unchanged = same(self.place(o).digits, self.edges[o])
        if _may_be_unknown(o.subtype):
            # U and X are one here; an event between them alone would be missed.
            self.escape(both(unchanged, not_(is_known(self.edges[o]))) if x.name == "stable" else bit(False))
        return truth(not_(unchanged) if x.name == "event" else unchanged)

    def _convert(self, x: t.Convert) -> Digits:
        v = self.value(x.arg)
        target = x.target
        if isinstance(target.type, IntType) and isinstance(v.sub.type, IntType):
            return (
                self.fitted(v, target)
                if target.ranges is not None
                else Digits(Subtype(target.type), v.value, v.known, v.e, v.low, v.high)
            )
        if isinstance(target.type, ArrayType) and isinstance(v.sub.type, ArrayType):
            if bits_of(v.sub.element_subtype) != bits_of(target.type.element):
                raise NoLanes("a conversion of elements")
            if target.ranges is not None:
                return self._retagged(v, target)
            return Digits(Subtype(target.type, v.sub.ranges), v.value, v.known, v.e)
        raise NoLanes("a conversion of real numbers")

    def _array_attribute(self, x: t.ArrayAttr) -> Digits:
        v = self.value(x.prefix)
        left, right, down = self._bounds(v, x.dimension)
        size = max(0, (left - right if down else right - left) + 1)
        found = {
            "left": left,
            "right": right,
            "low": right if down else left,
            "high": left if down else right,
            "length": size,
            "ascending": int(not down),
            "descending": int(down),
        }[x.name]
        return Digits(Subtype(x.type), found, True)

    def _scalar_attribute(self, x: t.ScalarAttr) -> Digits:
        v = self.value(x.arg)
        base = x.subtype.type
        if x.name == "pos":
            if v.known:
                return Digits(Subtype(INTEGER), int(v.value), True)
            high = len(base.literals) - 1 if isinstance(base, EnumType) else v.high
            return Digits(Subtype(INTEGER), e=v.digits, low=min(0, v.low), high=high)
        if x.name == "val" and isinstance(base, EnumType):
            self.inside(v, 0, len(base.literals) - 1)
            return Digits(Subtype(base), v.value, v.known, None if v.known else widened(v, bits_of(Subtype(base))))
        if (
            x.name in ("succ", "pred", "leftof", "rightof")
            and isinstance(base, EnumType)
            and not v.known
            and base.name != "std_ulogic"
        ):
            up = x.name in ("succ", "rightof")
            width = v.digits.width
            last = len(base.literals) - 1 if up else 0
            self.escape(same(v.digits, number(last, width)))
            return Digits(Subtype(base), e=ir.Binary(width, "add" if up else "sub", v.digits, number(1, width)))
        raise NoLanes(f"`'{x.name}`")


def _may_be_unknown(s: Subtype) -> bool:
    """Whether digits of this type can be anything but 0 and 1."""
    if isinstance(s.type, EnumType):
        return s.type.name == "std_ulogic"
    if isinstance(s.type, ArrayType):
        return _may_be_unknown(s.element_subtype)
    return isinstance(s.type, RecordType) and any(_may_be_unknown(f) for _, f in s.fields)
