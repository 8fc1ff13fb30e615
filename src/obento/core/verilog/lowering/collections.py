"""Queues, dynamic arrays and maps: what is asked of them, what changes them, and values for them (IEEE 1800-2017
clauses 7.5, 7.8 to 7.12 and 10.10)."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.ir.collections import STEPS
from obento.core.values import word
from obento.core.verilog.lowering.lowered import Expressions, Method
from obento.core.verilog.model.scope import Scope, Vector
from obento.core.verilog.model.types import Collected, DataType, Shape, builtin, collection, count_of
from obento.core.verilog.syntax import ast

_COUNTS: dict[str, tuple[int, int]] = {
    "size": (0, 0), "num": (0, 0), "exists": (1, 1), "delete": (0, 1), "insert": (2, 2), "push_back": (1, 1),
    "push_front": (1, 1), "pop_back": (0, 0), "pop_front": (0, 0), "first": (1, 1), "last": (1, 1), "next": (1, 1),
    "prev": (1, 1), "sort": (0, 0), "rsort": (0, 0), "reverse": (0, 0), "shuffle": (0, 0),
}  # fmt: skip
"""The fewest and most arguments of methods that have some."""
_SEARCHES = frozenset(["find", "find_first", "find_last", "min", "max", "unique"])
_PLACES = frozenset(["find_index", "find_first_index", "find_last_index", "unique_index"])
_SUMS = frozenset(["sum", "product", "and", "or", "xor"])
_IN_ORDER = frozenset(["sort", "rsort", "reverse", "shuffle"])
METHODS = frozenset([*_COUNTS, *_SEARCHES, *_PLACES, *_SUMS])
"""What collections can be asked."""
OF_ARRAYS = _SEARCHES | _PLACES | _SUMS | _IN_ORDER
"""What arrays of a fixed size can be asked too (1800 clause 7.12)."""
VALUELESS = _IN_ORDER | {"insert", "delete", "push_back", "push_front"}
"""What gives no value."""
_MAPS_ONLY = STEPS | {"exists"}
_QUEUES_ONLY = frozenset(["insert", "push_back", "push_front", "pop_back", "pop_front"])


class CollectionLowering:
    """Collections in one scope."""

    def __init__(self, x: Expressions) -> None:
        self._x = x
        self._ends: list[ir.Expr] = []

    def of(self, e: ast.Expr) -> Collected | None:
        """Of what kind of collection this is the name."""
        if not isinstance(e, ast.Name | ast.Dotted | ast.Call):
            return None
        shape = self._x.shape_of(e)
        return shape.type.collected if shape is not None and not shape.dims else None

    def asked(self, m: Method) -> Collected:
        """What a method is asked of: a collection, or an array of fixed size as one."""
        shape = self._x.shape_of(m.base)
        assert shape is not None  # it has this method
        if not shape.dims:
            assert shape.type.collected is not None
            return shape.type.collected
        if m.name in _PLACES and shape.dims[0][0] != 0:
            raise self._x.error("not-yet", "places are told of arrays that begin at 0", m.node)
        return Collected("dynamic", Shape(shape.type, shape.dims[1:]))

    def elements_of(self, m: Method) -> ir.Expr:
        """All elements of what a method is asked of."""
        shape = self._x.shape_of(m.base)
        made = self._given(m.base, self.asked(m)) if shape is not None and shape.dims else None
        return made if made is not None else self._x.digits(m.base)

    # Elements.

    def element(self, whole: ir.Expr, of: Collected, index: ast.Expr) -> ir.Expr:
        """`q[index]`."""
        return ir.CollectionOp(of.element.width, "at", [whole, self.index(whole, of, index)])

    def index(self, whole: ir.Expr, of: Collected, e: ast.Expr) -> ir.Expr:
        """A place, or a key; `$` in it is the last place."""
        self._ends.append(whole)
        try:
            return self._x.to_shape(e, Shape(of.key or builtin("int")))
        finally:
            self._ends.pop()

    def part(self, whole: ir.Expr, of: Collected, e: ast.Part) -> ir.Expr:
        """`q[first:last]`."""
        if of.kind != "queue" or e.how != ":":
            raise self._x.error("bad-select", "parts are taken of queues, from one place to another", e)
        return ir.CollectionOp(64, "part", [whole, self.index(whole, of, e.left), self.index(whole, of, e.right)])

    def last(self, e: ast.Last) -> ir.Expr:
        """`$`: the last place of the queue that is indexed."""
        if not self._ends:
            raise self._x.error("stray-last", "`$` stands for the last place in an index of a queue", e)
        count = ir.CollectionOp(32, "size", [self._ends[-1]])
        return ir.Binary(32, "sub", count, ir.Const(32, *word(1, 32)))

    # Methods.

    def shape_of_method(self, of: Collected, m: Method) -> Shape:
        """What a method gives."""
        if m.name in _SEARCHES:
            return Shape(collection(Collected("queue", of.element)))
        if m.name in _PLACES:
            return Shape(collection(Collected("queue", Shape(of.key or builtin("int")))))
        if m.name in ("pop_back", "pop_front"):
            return of.element
        if m.name in _SUMS:
            if m.each is None:
                return of.element
            each = self._each(of, m)
            width = each.test.width
            return Shape(DataType("logic", width, each.signed, False, (width - 1, 0)))
        return Shape(builtin("int"))

    def lower_method(self, of: Collected, m: Method) -> ir.CollectionOp:
        """A method, as an expression."""
        self._check(of, m)
        x, whole = self._x, self.elements_of(m)
        each = self._each(of, m) if m.each is not None else None
        args, key = [whole], list[ir.Target]()
        for i, a in enumerate(m.args):
            if a is None:
                continue
            if m.name in STEPS:
                args.append(self._x.to_shape(a, Shape(of.key or builtin("int"))))
                key = x.places(a)
            elif m.name in ("exists", "delete") or (m.name == "insert" and i == 0):
                args.append(self.index(whole, of, a))
            else:
                args.append(x.to_shape(a, of.element))
        shape = self.shape_of_method(of, m)
        kind = shape.type.collected.runs_as() if shape.type.collected is not None else None
        return ir.CollectionOp(shape.width, m.name, args, kind, each, key)

    def _check(self, of: Collected, m: Method) -> None:
        x, count = self._x, len(m.args)
        least, most = _COUNTS.get(m.name, (0, 0))
        if not least <= count <= most:
            raise x.error("arguments", f"`{m.name}` takes {most} values, here are {count}", m.node)
        is_fitting = of.kind == "map" if m.name in _MAPS_ONLY else of.kind != "map"
        if m.name in _MAPS_ONLY | _IN_ORDER and not is_fitting:
            raise x.error("no-method", f"a {of.kind} has no `{m.name}`", m.node)
        if m.name in _QUEUES_ONLY and of.kind != "queue":
            raise x.error("no-method", f"only a queue has `{m.name}` (1800 clause 7.10.2)", m.node)
        if m.each is None and m.name.startswith("find"):
            raise x.error("no-with", f"`{m.name}` needs to know what is looked for", m.node, "write `with (item > 3)`")

    def _each(self, of: Collected, m: Method) -> ir.Each:
        """What is asked of each element, with variables that stand for the element and its place."""
        assert m.each is not None
        scope = Scope(f"{self._x.scope.path}.{m.each.item}", self._x.scope)
        item = self._variable(m, of.element)
        place = self._variable(m, Shape(of.key or builtin("int")))
        scope.entries[m.each.item] = item
        shape = self._x.shape_of(m.base)
        if shape is None or not shape.dims or shape.dims[0][0] == 0:
            scope.places[m.each.item] = place
        inside = self._x.inside(scope)
        test = inside.truth(m.each.test)
        return ir.Each(item.signal, place.signal, test, inside.size(m.each.test)[1])

    def _variable(self, m: Method, shape: Shape) -> Vector:
        if self._x.effects is None:
            raise self._x.error("effect-outside", "`with` is read in processes, functions and tasks", m.node)
        return self._x.effects.variable(f"{m.name}@{m.node.start}", shape, m.node.start)

    # Whole ones.

    def lower(self, e: ast.Expr, of: Collected) -> ir.Expr:
        """A value for a collection."""
        x, kind = self._x, of.runs_as()
        if isinstance(e, ast.New):
            old = [self.lower(e.old, of)] if e.old is not None else []
            return ir.CollectionOp(64, "sized", [x.to_width(e.size, 32), *old], kind)
        if isinstance(e, ast.Pattern) and any(i.key is not None for i in e.items):
            return self._by_key(e, of)
        if isinstance(e, ast.Pattern):
            count = x.integer(e.count, "how often this is repeated") if e.count is not None else 1
            return ir.CollectionOp(64, "made", [self._side(i.value, of) for i in e.items] * count, kind)
        if isinstance(e, ast.Concat):
            return ir.CollectionOp(64, "made", [self._side(part, of) for part in e.parts], kind)
        given = self._given(e, of)
        if given is None:
            raise x.error("collection-value", "a collection takes another one, or `'{...}` with its elements", e)
        return given

    def _side(self, e: ast.Expr, of: Collected) -> ir.Expr:
        """One of several values side by side: an element, or a collection of them."""
        given = self._given(e, of) if not isinstance(e, ast.Pattern) else None
        return given if given is not None else self._x.to_shape(e, of.element)

    def _given(self, e: ast.Expr, of: Collected) -> ir.Expr | None:
        """The elements of a collection or an array, as a collection of this kind; None where it is none."""
        x = self._x
        shape = x.shape_of(e)
        if shape is None or shape.fits(of.element):
            return None
        own = shape.type.collected if not shape.dims else None
        if own is not None:
            self._check_like(e, own.element, of)
            if (own.kind == "map") != (of.kind == "map"):
                raise x.error("array-differs", f"a {own.kind} is no {of.kind} (1800 clause 7.6)", e)
            return ir.CollectionOp(64, "copied", [x.digits(e)], of.runs_as())
        if not shape.dims:
            return None
        inner, whole = Shape(shape.type, shape.dims[1:]), x.digits(e)
        self._check_like(e, inner, of)
        lows = range(0, inner.width * count_of(shape.dims[:1]), inner.width)
        left, right = shape.dims[0]
        parts: list[ir.Expr] = [ir.Slice(inner.width, whole, at) for at in (lows if left <= right else lows[::-1])]
        return ir.CollectionOp(64, "made", parts, of.runs_as())

    def _check_like(self, e: ast.Expr, element: Shape, of: Collected) -> None:
        if not of.element.fits(element):
            raise self._x.error("array-differs", "the elements of these are of different types (1800 clause 7.6)", e)

    def _by_key(self, e: ast.Pattern, of: Collected) -> ir.Expr:
        """`'{"a": 1, default: 0}` (7.9.11)."""
        x, args = self._x, list[ir.Expr]()
        if of.kind != "map":
            raise x.error("collection-value", f"the elements of a {of.kind} have no names", e)
        default: ir.Expr | None = None
        for item in e.items:
            value = x.to_shape(item.value, of.element)
            if item.key == "default":
                default = value
            elif item.key is None or isinstance(item.key, str):
                raise x.error("pattern-key", "each value stands behind its key", item)
            else:
                args += [x.to_shape(item.key, Shape(of.key or builtin("int"))), value]
        made = ir.CollectionOp(64, "table", args, of.runs_as())
        return made if default is None else ir.CollectionOp(64, "otherwise", [made, default])

    def equal(self, e: ast.Binary) -> ir.Expr | None:
        """`==` of two collections; None where these are none."""
        a, b = self.of(e.a), self.of(e.b)
        of = a or b
        if of is None:
            return None
        sides = [
            self._x.digits(side) if own is not None else self.lower(side, of) for side, own in ((e.a, a), (e.b, b))
        ]
        made = ir.CollectionOp(1, "same", sides)
        return ir.Unary(1, "lnot", made) if e.op[0] == "!" else made
