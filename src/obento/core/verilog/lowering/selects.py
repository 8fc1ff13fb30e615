"""What stands behind a name: indices, parts and members (IEEE 1364-2005 clause 5.2, 1800-2017 clauses 7.2 to 7.4 and
11.5)."""

from __future__ import annotations

from dataclasses import dataclass

from obento.core import values
from obento.core.decimals import shown
from obento.core.ir import nodes as ir
from obento.core.ir.evaluate import NotConstant, evaluate
from obento.core.ir.signal import Signal
from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.model.scope import Entry, Inside, Parameter, Vector
from obento.core.verilog.model.types import (
    DIGIT,
    TWO_STATE_DIGIT,
    Collected,
    DataType,
    Dims,
    Shape,
    array_of,
    builtin,
    count_of,
    vector,
)
from obento.core.verilog.syntax import ast

ENUM_METHODS = frozenset(["first", "last", "next", "prev", "num", "name"])
"""What can be asked of an enumeration (1800 clause 6.19.5)."""


@dataclass(slots=True)
class _Step:
    """One selection: an index, a part, or a member by its name; `node` is where it stands."""

    node: ast.Expr
    index: ast.Expr | None = None
    part: ast.Part | None = None
    member: str = ""


class SelectLowering:
    """Selections in one scope."""

    def __init__(self, x: Expressions) -> None:
        self._x = x
        self._shapes: dict[int, Shape] = {}

    # What is selected from, and how.

    def along(self, e: ast.Dotted) -> tuple[Entry | None, int]:
        """What a path means, and how many of its names lead there; what follows are members. An index in the path is
        the number of a block or instance, one behind a variable is not."""
        numbered: list[str] = []
        for i, (part, index) in enumerate(zip(e.parts, e.indices, strict=True)):
            if index is not None:
                known, used = self._x.scope.find_along([*numbered, part])
                if isinstance(known, Vector | Parameter) and used == i + 1:
                    return known, used
                part = f"{part}[{self._x.integer(index, 'the number of a block or instance')}]"
            numbered.append(part)
        return self._x.scope.find_along(numbered)

    def _steps(self, e: ast.Expr) -> tuple[Vector | Parameter, list[_Step]]:
        steps: list[_Step] = []
        node = e
        while not isinstance(node, ast.Name):
            match node:
                case ast.Index():
                    steps.append(_Step(node, index=node.index))
                    node = node.base
                case ast.Part():
                    steps.append(_Step(node, part=node))
                    node = node.base
                case ast.Member():
                    steps.append(_Step(node, member=node.name))
                    node = node.base
                case ast.Dotted():
                    found, used = self.along(node)
                    if not isinstance(found, Vector | Parameter):
                        return self._x.entry(node), steps[::-1]
                    for i in range(len(node.parts) - 1, used - 2, -1):
                        index = node.indices[i]
                        if index is not None:
                            steps.append(_Step(node, index=index))
                        if i >= used:
                            steps.append(_Step(node, member=node.parts[i]))
                    return found, steps[::-1]
                case _:
                    raise self._x.error("bad-select", "only a name can be indexed", e)
        return self._x.entry(node), steps[::-1]

    def before_last(self, path: ast.Dotted) -> ast.Expr | None:
        """What the last name of a path is asked of, where that is a variable or parameter: `state` in `state.next`."""
        entry, used = self.along(path)
        if not isinstance(entry, Vector | Parameter) or used >= len(path.parts) or path.indices[-1] is not None:
            return None
        base: ast.Expr = ast.Dotted(path.start, path.end, path.parts[:-1], [*path.indices[:-2], None])
        if len(path.parts) == 2:
            base = ast.Name(path.start, path.end, path.parts[0])
        if path.indices[-2] is not None:
            base = ast.Index(path.start, path.end, base, path.indices[-2])
        return base

    def base(self, e: ast.Expr) -> Vector | Parameter:
        """The variable, net or parameter that a selection is of."""
        return self._steps(e)[0]

    # First: what it is.

    def shape(self, e: ast.Expr) -> Shape:
        """What a name, or a selection, is."""
        known = self._shapes.get(id(e))
        if known is None:
            known = self._shapes[id(e)] = self._shape(e)
            self._x.alive.append(e)
        return known

    def _shape(self, e: ast.Expr) -> Shape:
        entry, steps = self._steps(e)
        shape = _shape_of(entry)
        for i, step in enumerate(steps):
            if steps[i - 1].part is not None and i:
                raise self._x.error("too-many-indices", "one index too many", e)
            is_scalar = not i and shape.width == 1 and isinstance(entry, Vector) and shape.type.span == (0, 0)
            if is_scalar and not step.member and not shape.dims and not shape.type.element:
                self._x.collector.warning(
                    "select-of-bit",
                    "this selects from a signal of one bit",
                    e.start,
                    e.end,
                    "was it meant to be declared with a range?",
                )
            shape = self._after(shape, step, e)
        return shape

    def _after(self, shape: Shape, step: _Step, e: ast.Expr) -> Shape:
        x, of = self._x, shape.type
        if step.member:
            return self._member(shape, step).shape
        if shape.dims:
            if step.part is None:
                return Shape(of, shape.dims[1:])
            return Shape(of, (self._slice(shape.dims[0], step.part), *shape.dims[1:]))
        if of.collected is not None:
            return shape if step.part is not None else of.collected.element
        if of.is_real:
            raise x.error(
                "real-select", "a real number has no digits to be selected", e, "assign it to an `integer` first"
            )
        if of.is_text:
            if step.part is not None:
                raise x.error("string-part", "a string has no parts", e, "take `s.substr(first, last)`")
            return Shape(builtin("byte"))
        if of.is_unpacked:
            raise x.error("struct-index", f"a {of.word} has members, no digits", e, "write its name, a dot, a member")
        if of in (DIGIT, TWO_STATE_DIGIT):
            raise x.error("too-many-indices", "one index too many", e)
        if step.part is None:
            return Shape(of.element or (TWO_STATE_DIGIT if of.two_state else DIGIT))
        count = self._part_size(step.part, of.step)
        if of.element is not None:
            return Shape(array_of(of.element, count - 1, 0))
        return Shape(vector("bit" if of.two_state else "logic", False, count - 1, 0))

    def _member(self, shape: Shape, step: _Step) -> _Member:
        x, of = self._x, shape.type
        found = of.members.get(step.member) if not shape.dims else None
        if found is None:
            if shape.dims:
                raise x.error("whole-array", "this is a whole array: it needs an index before its members", step.node)
            if not of.members:
                raise x.error("no-member", f"this has no members: `.{step.member}` cannot follow it", step.node)
            near = did_you_mean(step.member, of.members) or f"its members are {', '.join(f'`{m}`' for m in of.members)}"
            raise x.error("no-member", f"there is no member `{step.member}` in this {of.word}", step.node, near)
        return _Member(found.low, found.shape)

    def _slice(self, dim: tuple[int, int], part: ast.Part) -> tuple[int, int]:
        """The ends of a part of an array (1800 clause 7.4.5)."""
        x, (left, right) = self._x, dim
        step = 1 if left >= right else -1
        count = self._part_size(part, step)
        if part.how == ":":
            ends = x.integer(part.left, "the ends of a part"), x.integer(part.right, "the ends of a part")
        else:
            low = x.integer(part.left, "where a part of an array begins")
            low = low if part.how == "+:" else low - count + 1
            ends = (low + count - 1, low) if step == 1 else (low, low + count - 1)
        if not all(min(left, right) <= end <= max(left, right) for end in ends):
            raise x.error("out-of-range", f"[{ends[0]}:{ends[1]}] reaches outside of [{left}:{right}]", part)
        return ends

    def _part_size(self, part: ast.Part, step: int) -> int:
        """How many elements or digits a part has."""
        x = self._x
        if part.how != ":":
            count = x.integer(part.right, "the width of a part select")
        else:
            left = x.integer(part.left, "the ends of a part select")
            right = x.integer(part.right, "the ends of a part select")
            if (left - right) * step < 0:
                raise x.error(
                    "reversed-part", f"[{left}:{right}] runs against the declaration", part, f"write [{right}:{left}]"
                )
            count = abs(left - right) + 1
        if not 1 <= count <= x.limits.vector_bits:
            raise x.error("part-width", f"a part select of {count} bits makes no sense", part)
        return count

    def value_type(self, e: ast.Expr) -> DataType:
        """The type of a name or selection that must be a number."""
        shape = self.shape(e)
        if shape.dims:
            indexed = isinstance(e, ast.Index | ast.Part)
            text = "this is a whole array: it needs one more index" if indexed else _whole(e)
            raise self._x.error("whole-array", text, e)
        if shape.type.is_unpacked:
            if shape.type.collected is not None:
                raise self._x.error("whole-array", _whole(e), e, "or ask it: `.size()`")
            text = f"this is a whole {shape.type.word}, which is no number unless it is `packed`"
            raise self._x.error("whole-struct", text, e, "name one of its members")
        return shape.type

    def is_kept(self, e: ast.Expr) -> bool:
        """Whether this is a string or a real number that is a member of a structure."""
        found, used = self.along(e) if isinstance(e, ast.Dotted) else (None, 0)
        if isinstance(e, ast.Dotted) and (not isinstance(found, Vector | Parameter) or used == len(e.parts)):
            return False
        if isinstance(found, Vector | Parameter) and not _shape_of(found).type.keeps_others:
            return False
        shape = self.shape(e)
        return shape.type.kept and not shape.dims

    # Then: its digits.

    def select(self, e: ast.Expr) -> ir.Expr:
        """A member, an element, a digit or a part of a signal."""
        selected, shape = self._selected(e), self.shape(e)
        if shape.type.kept and not shape.dims:
            return _taken_out(selected, shape.type)
        return ir.two_state(selected) if shape.type.two_state and _may_miss(selected) else selected

    def _selected(self, e: ast.Expr) -> ir.Expr:
        entry, steps = self._steps(e)
        self.shape(e)
        result: ir.Expr = entry.value if isinstance(entry, Parameter) else entry.whole()
        shape = _shape_of(entry)
        for step in steps:
            after = self._after(shape, step, e)
            if step.member:
                member = self._member(shape, step)
                result = ir.Slice(member.shape.width, result, member.low)
            elif shape.type.collected is not None and not shape.dims:
                result = self._of_collection(result, shape.type.collected, step)
            elif shape.dims:
                result = self._of_array(result, shape.dims, after, step, e)
            elif shape.type.is_text:
                assert step.index is not None
                result = _taken_out(result, shape.type) if shape.type.kept else result
                result = ir.TextValue(8, "getc", [result, self._x.to_width(step.index, 32)])
            elif step.part is not None:
                result = self._part(result, step.part, shape.type, after.width)
            else:
                assert step.index is not None
                unit = shape.type.element.width if shape.type.element is not None else 1
                result = self._pick(result, step.index, shape.type.span[1], shape.type.step * unit, unit, e)
            shape = after
        return result

    def _of_collection(self, whole: ir.Expr, of: Collected, step: _Step) -> ir.Expr:
        if step.part is not None:
            return self._x.collections.part(whole, of, step.part)
        assert step.index is not None
        return self._x.collections.element(whole, of, step.index)

    def _of_array(self, a: ir.Expr, dims: Dims, after: Shape, step: _Step, e: ast.Expr) -> ir.Expr:
        low = min(dims[0])
        if step.index is not None:
            return self._pick(a, step.index, low, after.width, after.width, e)
        unit = after.width // count_of(after.dims[:1])
        return ir.Slice(after.width, a, (min(after.dims[0]) - low) * unit)

    def _pick(self, a: ir.Expr, index: ast.Expr, base: int, step: int, width: int, e: ast.Expr) -> ir.Expr:
        x = self._x
        index_width, signed = x.size(index)
        lowered = x.lower(index, index_width, signed)
        try:
            one, zero = evaluate(lowered)
        except NotConstant:
            return ir.Pick(width, a, lowered, signed, base, step)
        if one ^ zero != values.ones(index_width):
            return ir.Const(width, 0, 0)
        at = values.signed_value(one, index_width) if signed else one
        low = (at - base) * step
        if not 0 <= low < a.width:
            x.collector.warning("out-of-range", f"index {shown(at)} lies outside of the declared range", e.start, e.end)
        return ir.Slice(width, a, max(-width, min(low, a.width)))  # wherever it is out there, nothing is there

    def _part(self, a: ir.Expr, part: ast.Part, of: DataType, width: int) -> ir.Expr:
        x, (msb, lsb) = self._x, of.span
        unit = of.element.width if of.element is not None else 1
        step = of.step * unit
        if part.how == ":":
            left = x.integer(part.left, "the ends of a part select")
            right = x.integer(part.right, "the ends of a part select")
            low = (right - lsb) * step
            if low < 0 or (left - lsb) * step >= a.width:
                x.collector.warning(
                    "out-of-range",
                    f"[{left}:{right}] reaches outside of the declared [{msb}:{lsb}]",
                    part.start,
                    part.end,
                )
            return ir.Slice(width, a, low)
        return self._pick(a, part.left, indexed_base(part.how, width // unit, lsb, of.step), step, width, part)

    # As the target of an assignment.

    def target(self, e: ast.Expr) -> ir.Target:
        """Where a selection is written to."""
        entry, steps = self._steps(e)
        if isinstance(entry, Parameter):
            raise self._x.error("bad-target", "a parameter is a constant and cannot be written to", e)
        width = self.shape(e).width
        if not steps:
            return ir.Target(entry.signal, entry.at, width)
        if entry.type.collected is not None:
            text = "an element of a collection is written by an assignment of its own"
            raise self._x.error("not-yet", text, e, "take a variable, and assign that to the element")
        selected = self._selected(e)
        if isinstance(selected, ir.TextValue):
            raise self._x.error("string-letter", "a letter is set by `s.putc(at, letter)`", e)
        return _place(selected, entry.signal)

    def in_collection(self, e: ast.Expr) -> tuple[Vector, ast.Index | ast.Part, list[ast.Expr]] | None:
        """The collection of which a left side is an element or a part of one: the variable, where the element is
        chosen, and what is chosen of it, outermost first."""
        if not isinstance(e, ast.Index | ast.Part | ast.Member | ast.Dotted):
            return None
        entry, steps = self._steps(e)
        if not isinstance(entry, Vector) or entry.type.collected is None or entry.dims or not steps:
            return None
        first = steps[0]
        chosen = first.part or ast.Index(e.start, e.end, e, first.index or e)
        return entry, chosen, [_bare(step) for step in steps[1:]]

    def check_view(self, e: ast.Name | ast.Dotted) -> None:
        """Of an interface's names a modport lets some be read only (1800 clause 25.5)."""
        if not isinstance(e, ast.Dotted):
            return
        inside = self._x.scope.find(e.parts[0])
        if isinstance(inside, Inside) and inside.view is not None and inside.view.get(e.parts[1]) == "in":
            raise self._x.error("modport-input", f"`{e.parts[1]}` is an input of this modport and cannot be written", e)


@dataclass(frozen=True, slots=True)
class _Member:
    low: int
    shape: Shape


def _shape_of(entry: Vector | Parameter) -> Shape:
    if isinstance(entry, Vector):
        return entry.shape
    return entry.shape or Shape(vector("logic", entry.signed, entry.value.width - 1, 0))


def _may_miss(selected: ir.Expr) -> bool:
    """Whether a selection may reach outside of what there is: that reads 0 in two states (1800 clauses 7.4.6 and
    11.5.1)."""
    node = selected
    while isinstance(node, ir.Slice):
        if not 0 <= node.low <= node.a.width - node.width:
            return True
        node = node.a
    return isinstance(node, ir.Pick) or (isinstance(node, ir.Const) and node.one | node.zero != values.ones(node.width))


def _taken_out(digits: ir.Expr, of: DataType) -> ir.Expr:
    """A string or real number of which a structure keeps the digits."""
    return ir.TextOp(64, "digits", [digits]) if of.is_text else ir.DigitsReal(64, digits)


def _bare(step: _Step) -> ast.Expr:
    """A selection by itself; what it is of is still to be put in."""
    node = step.node
    if step.member:
        return ast.Member(node.start, node.end, node, step.member)
    if step.part is not None:
        return step.part
    assert step.index is not None
    return ast.Index(node.start, node.end, node, step.index)


def _whole(e: ast.Expr) -> str:
    name = e.name if isinstance(e, ast.Name) else ".".join(e.parts) if isinstance(e, ast.Dotted) else "this"
    return f"`{name}` is an array: it needs an index"


def indexed_base(how: str, count: int, lsb: int, step: int) -> int:
    """The declared index that `[i +: n]` or `[i -: n]` must have to select from offset 0 (5.2.1)."""
    upwards = (how == "+:") == (step == 1)
    return lsb if upwards else lsb + (count - 1) * step


def _place(selected: ir.Expr, of: Signal) -> ir.Target:
    """A selection from a signal as a place to be written."""
    low = 0
    offsets: list[ir.Offset] = []
    node, is_outside = selected, False
    while not isinstance(node, ir.Ref):
        is_part = not isinstance(node, ir.Pick | ir.Slice) or not isinstance(node.a, ir.Ref)
        if isinstance(node, ir.Slice):
            is_outside = is_outside or (is_part and not 0 <= node.low <= node.a.width - node.width)
            low += node.low
            node = node.a
            continue
        if isinstance(node, ir.Const):  # a constant index with unknown digits: nothing is written (5.2.1)
            is_outside = True
            break
        assert isinstance(node, ir.Pick)
        # An element must lie inside its array; a part of a whole vector may reach over its ends.
        window = 0 if isinstance(node.a, ir.Ref) and not node.a.signal.element else node.a.width
        offsets.insert(0, ir.Offset(node.index, node.index_signed, node.base, node.step, node.width, window))
        node = node.a
    if is_outside:  # what stands beside a member or an element is none of its digits
        return ir.Target(of, of.width, selected.width)
    return ir.Target(of, low, selected.width, offsets)
