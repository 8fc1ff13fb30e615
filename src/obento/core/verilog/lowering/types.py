"""Types as written to types as meant (IEEE 1800-2017 clauses 6.18, 6.19, 7.2 and 7.4)."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.ir.evaluate import NotConstant, evaluate
from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Broken, TypeName
from obento.core.verilog.model.types import (
    Collected,
    DataType,
    Member,
    Shape,
    array_of,
    builtin,
    collection,
    kept,
    vector,
)
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import TYPES_ELSEWHERE, WIDTHS
from obento.core.words import counted


class TypeLowering:
    """Types in one scope."""

    def __init__(self, x: Expressions) -> None:
        self._x = x

    def shape(self, t: ast.Type) -> Shape:
        """What a type means; a name may stand for an array."""
        if t.word in ("struct", "union"):
            base = self._structure(t)
        elif t.word == "enum":
            base = self._enumeration(t)
        elif t.of is not None:
            return self._of_expression(t.of)
        elif t.word in WIDTHS:
            base = builtin(t.word, t.signed)
            if t.ranges:
                raise self._x.error(
                    "word-range", f"`{t.word}` has its width already", t.ranges[0], "take the range out"
                )
        elif t.word in ("", "logic", "reg", "bit", "event", "genvar", "void"):
            return Shape(self._vector(t))
        else:
            named = self._named(t)
            if named.dims and t.ranges:
                raise self._x.error(
                    "array-of-array", f"`{t.word}` is an unpacked array", t, "write `[...]` behind the name"
                )
            if not t.ranges:
                return named
            base = named.type
        if t.ranges and (base.is_unpacked or not base.has_digits):
            raise self._x.error("packed-of-unpacked", "only packed types make packed arrays", t, "write `packed`")
        return Shape(self._arrays(base, t.ranges))

    def _of_expression(self, e: ast.Expr) -> Shape:
        """The type that an expression has by itself (6.23)."""
        x = self._x
        if isinstance(e, ast.TypeArgument):
            return self.shape(e.type)
        if x.reals.is_real(e) or x.texts.is_text(e):
            return Shape(builtin("real" if x.reals.is_real(e) else "string"))
        own = x.shape_of(e)
        if own is not None:
            return own
        width, signed = x.size(e)
        return Shape(vector("logic", signed, width - 1, 0))

    def _arrays(self, base: DataType, ranges: list[ast.Range]) -> DataType:
        for r in reversed(ranges):
            left, right = self.ends(r)
            base = array_of(base, left, right)
            self._bounded(base.width, r)
        return base

    def _vector(self, t: ast.Type) -> DataType:
        word = t.word or "logic"
        if not t.ranges:
            return builtin(word, t.signed)
        left, right = self.ends(t.ranges[-1])
        inner = vector(word, t.signed and len(t.ranges) == 1, left, right)
        self._bounded(inner.width, t.ranges[-1])
        made = self._arrays(inner, t.ranges[:-1])
        made.signed = t.signed
        return made

    def _bounded(self, width: int, r: ast.Range) -> None:
        most = self._x.limits.vector_bits
        if width > most:
            raise self._x.error("too-wide", f"this is {width} bits wide; at most {most} can be taken", r)

    def ends(self, r: ast.Range, most: int = 0) -> tuple[int, int]:
        """The ends of a range, which holds at most `most`, or what a vector may have."""
        x = self._x
        what, most = "the end of a range", most or x.limits.vector_bits
        left, right = x.integer(r.left, what), x.integer(r.right, what)
        if abs(left - right) + 1 > most:
            count = abs(left - right) + 1
            raise x.error("too-wide", f"[{left}:{right}] is a range of {count}; at most {most} can be taken", r)
        return left, right

    def dims(self, ranges: Sequence[ast.Range | ast.Varying]) -> tuple[tuple[int, int], ...]:
        """Unpacked dimensions where none of them may change."""
        fixed = [r for r in ranges if isinstance(r, ast.Range)]
        if len(fixed) < len(ranges):
            wrong = next(r for r in ranges if isinstance(r, ast.Varying))
            raise self._x.error("not-yet", "an array that changes its size is a variable by itself here", wrong)
        return tuple(self.ends(r, self._x.limits.memory_bits) for r in fixed)

    def declared(self, shape: Shape, dims: Sequence[ast.Range | ast.Varying]) -> Shape:
        """What a name is that has these dimensions behind it."""
        if not dims or not isinstance(dims[0], ast.Varying):
            return Shape(shape.type, self.dims(dims) + shape.dims)
        first = dims[0]
        element = Shape(shape.type, self.dims(dims[1:]) + shape.dims)
        if element.type.collected is not None or (element.dims and not element.type.has_digits):
            raise self._x.error("not-yet", "a collection of collections is not read by this version", first)
        key = self.shape(first.key).type if first.key is not None else None
        if key is not None and (key.is_unpacked or key.is_real):
            raise self._x.error("map-key", "keys are numbers or strings (1800 clause 7.8)", first)
        most = self._x.integer(first.most, "the last index of a queue") if first.most is not None else None
        if most is not None and most < 0:
            raise self._x.error("out-of-range", "the last index of a queue is 0 or more", first)
        return Shape(collection(Collected(first.kind, element, key, most)))

    def _named(self, t: ast.Type) -> Shape:
        x = self._x
        found = x.scope.find(t.word)
        if isinstance(found, TypeName):
            return found.shape
        if isinstance(found, Broken):
            raise ElaborationError
        package, colons, _ = t.word.partition("::")
        if colons and x.scope.package(package) is None:
            raise x.error("no-package", f"there is no package `{package}`", t, "hand in the file with it too")
        types = [n for n in x.scope.all_names() if isinstance(x.scope.find(n), TypeName)]
        near = TYPES_ELSEWHERE.get(t.word) or did_you_mean(t.word, types)
        raise x.error("no-type", f"there is no type `{t.word}`", t, near)

    # Structures and unions (7.2 and 7.3).

    def _structure(self, t: ast.Type) -> DataType:
        x = self._x
        found: list[Member] = []
        for declaration in t.members:
            shape = self.shape(declaration.type)
            for d in declaration.names:
                dims = self.dims(d.dims) + shape.dims
                if t.packed and (dims or shape.type.is_unpacked or not shape.type.has_digits):
                    raise x.error("packed-of-unpacked", f"a packed {t.word} has packed members only", d)
                if shape.type.collected is not None or (t.word == "union" and not shape.type.has_digits):
                    raise x.error("not-yet", f"such a member of a {t.word} is not read by this version", d)
                if any(m.name == d.name for m in found):
                    raise x.error("duplicate", f"the member `{d.name}` is there already", d, "give it another name")
                of = shape.type if shape.type.has_digits else kept(shape.type)
                member = Member(d.name, 0, of, dims)
                if d.value is not None:
                    member.start = self._start(d.value, Shape(of, dims))
                found.append(member)
        if not found:
            raise x.error("no-members", f"this {t.word} has no members", t)
        if t.word == "union":
            if t.packed and len({m.width for m in found}) > 1:
                widths = ", ".join(f"`{m.name}` {m.width}" for m in found)
                text = f"members of a packed union are equally wide (7.3.1): {widths}"
                raise x.error("union-widths", text, t, "make the narrower ones wider")
            width = max(m.width for m in found)
        else:
            width = 0
            for member in reversed(found):
                member.low = width
                width += member.width
        self._too_wide(width, t)
        two_state = all(m.type.two_state for m in found)
        members = {m.name: m for m in found}
        return DataType(t.word, width, t.signed, two_state, (width - 1, 0), None, members, t.packed)

    def _too_wide(self, width: int, t: ast.Type) -> None:
        if width > self._x.limits.memory_bits:
            raise self._x.error("too-wide", f"this has {width} bits, more than can be taken", t)

    def _start(self, value: ast.Expr, shape: Shape) -> tuple[int, int]:
        try:
            return evaluate(self._x.to_shape(value, shape))
        except NotConstant:
            raise self._x.error("not-constant", "what a member begins with must be a constant", value) from None

    # Enumerations (6.19).

    def _enumeration(self, t: ast.Type) -> DataType:
        x = self._x
        base = self.shape(t.members[0].type).type
        if base.element is not None or base.members or base.is_real:
            raise x.error("enum-base", "the values of an enumeration are numbers or vectors", t)
        made = DataType("enum", base.width, base.signed, base.two_state, base.span)
        number = 0
        for d in t.constants:
            if d.value is not None:
                number = x.integer(d.value, "a value of the enumeration")
            for name in self.constant_names(d):
                low, high = (-(1 << made.width - 1), 1 << made.width - 1) if made.signed else (0, 1 << made.width)
                if not low <= number < high:
                    text = f"`{name}` would be {number}, which {counted(made.width, 'bit')} cannot hold (6.19)"
                    raise x.error("enum-value", text, d, "give the enumeration more bits")
                same = next((n for n, v in made.values.items() if v == number), None)
                if same is not None:
                    raise x.error("enum-value", f"`{name}` and `{same}` are both {number} (6.19)", d, "give it another")
                made.values[name] = number
                number += 1
        return made

    def constant_names(self, d: ast.Declarator) -> list[str]:
        """The names that one entry of an enumeration declares (6.19.2)."""
        if not d.dims:
            return [d.name]
        first = d.dims[0]
        if not isinstance(first, ast.Range):
            raise self._x.error("enum-value", "constants are counted from one number to another", first)
        left, right = self.ends(first, 1 << 10)
        is_count = isinstance(first.right, ast.Binary) and first.left.end == first.right.end
        ends = (0, right) if is_count else (left, right)
        step = 1 if ends[0] <= ends[1] else -1
        return [f"{d.name}{i}" for i in range(ends[0], ends[1] + step, step)]
