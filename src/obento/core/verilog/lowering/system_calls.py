"""System functions and tasks: what they are given, and what their values look like (IEEE 1364-2005 clause 17)."""

from __future__ import annotations

import re

from obento.core import values
from obento.core.ir import nodes as ir
from obento.core.ir.layout import Digits, Elements, InCollection, Kept, Layout, Members, Plain
from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.model.scope import FunctionEntry, Inside, TypeName, Vector
from obento.core.verilog.model.types import DataType, Shape, vector
from obento.core.verilog.syntax import ast

_FUNCTIONS: dict[str, tuple[int, bool]] = {
    "$time": (64, False),
    "$stime": (32, False),
    "$random": (32, True),
    "$urandom": (32, False),
    "$urandom_range": (32, False),
    "$rtoi": (32, True),
    "$realtobits": (64, False),
    "$fopen": (32, True),
    "$fgetc": (32, True),
    "$fgets": (32, True),
    "$feof": (32, True),
    "$ftell": (32, True),
    "$fseek": (32, True),
    "$rewind": (32, True),
    "$ungetc": (32, True),
    "$fscanf": (32, True),
    "$sscanf": (32, True),
    "$ferror": (32, True),
    "$fread": (32, True),
    "$test$plusargs": (32, True),
    "$value$plusargs": (32, True),
    "$dist_uniform": (32, True),
    "$dist_normal": (32, True),
    "$dist_exponential": (32, True),
    "$dist_poisson": (32, True),
    "$dist_chi_square": (32, True),
    "$dist_t": (32, True),
    "$dist_erlang": (32, True),
}
"""Size and sign of what system functions give; real ones are told by `real_numbers`."""

_BIT_COUNTS = frozenset(["$countones", "$onehot", "$onehot0", "$isunknown"])
_ENDS = frozenset(["$left", "$right", "$low", "$high", "$size", "$increment"])
_OF_TYPES = _ENDS | {"$bits", "$dimensions", "$unpacked_dimensions"}
"""What is asked of a type or of what has one (1800 clauses 20.6.2 and 20.7)."""
_ELABORATED = frozenset(["$signed", "$unsigned", "$clog2"]) | _BIT_COUNTS

TASKS = frozenset(
    """
    $display $displayb $displayo $displayh $write $writeb $writeo $writeh $strobe $strobeb $strobeo $strobeh
    $monitor $monitorb $monitoro $monitorh $monitoron $monitoroff $fdisplay $fdisplayb $fdisplayo $fdisplayh
    $fwrite $fwriteb $fwriteo $fwriteh $fstrobe $fstrobeb $fstrobeo $fstrobeh $fmonitor $fmonitorb $fmonitoro
    $fmonitorh $finish $stop $fatal $error $warning $info $timeformat $printtimescale $readmemb $readmemh
    $writememb $writememh $fclose $fflush $sformat $swrite $swriteb $swriteo $swriteh $dumpfile $dumpvars
    $dumpon $dumpoff $dumpall $dumplimit $dumpflush $fseek $rewind $ungetc $fgets $fscanf $sscanf $random
    $urandom $fgetc $fread $fopen $value$plusargs $test$plusargs $time $realtime $exit $dist_uniform
    """.split()
)
"""System tasks that are known; those without an effect here are passed over when they run."""

_WRITES_TO = {
    "$random": (0,),
    "$fgets": (0,),
    "$value$plusargs": (1,),
    "$sformat": (0,),
    "$swrite": (0,),
    "$swriteb": (0,),
    "$swriteo": (0,),
    "$swriteh": (0,),
    "$fread": (0,),
    "$dist_uniform": (0,),
    "$dist_normal": (0,),
    "$dist_exponential": (0,),
    "$dist_poisson": (0,),
    "$dist_chi_square": (0,),
    "$dist_t": (0,),
    "$dist_erlang": (0,),
    "$urandom": (0,),
}
"""Which arguments are written to; for scans it is all from the third on."""

_LEAST_ARGUMENTS = {
    "$fopen": 1,
    "$fclose": 1,
    "$fgetc": 1,
    "$feof": 1,
    "$ftell": 1,
    "$rewind": 1,
    "$fgets": 2,
    "$ungetc": 2,
    "$fseek": 3,
    "$fscanf": 2,
    "$sscanf": 2,
    "$readmemb": 2,
    "$readmemh": 2,
    "$writememb": 2,
    "$writememh": 2,
    "$rtoi": 1,
    "$itor": 1,
    "$realtobits": 1,
    "$bitstoreal": 1,
    "$signed": 1,
    "$unsigned": 1,
    "$clog2": 1,
    "$bits": 1,
    "$left": 1,
    "$right": 1,
    "$low": 1,
    "$high": 1,
    "$size": 1,
    "$increment": 1,
    "$dimensions": 1,
    "$unpacked_dimensions": 1,
    "$countones": 1,
    "$onehot": 1,
    "$onehot0": 1,
    "$isunknown": 1,
    "$urandom_range": 1,
    "$dist_uniform": 3,
    "$dist_normal": 3,
    "$dist_exponential": 2,
    "$dist_poisson": 2,
    "$dist_chi_square": 2,
    "$dist_t": 2,
    "$dist_erlang": 3,
    "$sformat": 2,
    "$sformatf": 1,
    "$swrite": 1,
    "$swriteb": 1,
    "$swriteo": 1,
    "$swriteh": 1,
    "$dumpfile": 1,
    "$fdisplay": 1,
    "$fwrite": 1,
    "$fstrobe": 1,
    "$fmonitor": 1,
    "$value$plusargs": 2,
    "$test$plusargs": 1,
    "$fread": 2,
    "$ferror": 1,
    "$ln": 1,
    "$log10": 1,
    "$exp": 1,
    "$sqrt": 1,
    "$floor": 1,
    "$ceil": 1,
    "$sin": 1,
    "$cos": 1,
    "$tan": 1,
    "$asin": 1,
    "$acos": 1,
    "$atan": 1,
    "$sinh": 1,
    "$cosh": 1,
    "$tanh": 1,
    "$asinh": 1,
    "$acosh": 1,
    "$atanh": 1,
    "$pow": 2,
    "$atan2": 2,
    "$hypot": 2,
}
"""How many arguments a call needs at least."""

_PATTERN = re.compile(r"%-?0?\d*p", re.IGNORECASE)
_SCANS = frozenset(["$fscanf", "$sscanf"])
_MEMORY = frozenset(["$readmemb", "$readmemh", "$writememb", "$writememh"])


def _rounded_logarithm(a: ir.Expr) -> ir.Expr:
    """$clog2 (17.11.1), of a word without sign: how many powers of two are less than it."""
    total: ir.Expr = ir.Const(32, *values.word(0, 32))
    for i in range(a.width):
        exceeds = ir.Binary(1, "lt", ir.Const(a.width, *values.word(1 << i, a.width)), a)
        total = ir.Binary(32, "add", total, ir.Extend(32, exceeds, False))
    return total


def _first(e: ast.Call) -> ast.Expr:
    first = e.args[0]
    assert first is not None  # `_count` has asked for it
    return first


def dimensions_of(shape: Shape) -> list[tuple[int, int]]:
    """The ends of all dimensions of an array or vector, outermost first (1800 clause 20.7)."""
    found = list(shape.dims)
    of: DataType | None = shape.type
    while of is not None and not of.members and (of.element is not None or of.width > 1):
        found.append(of.span)
        of = of.element
    return found


def _time(ticks: int, precision: int) -> str:
    """So many ticks of this power of ten of a second, as `timescale` writes them."""
    power = precision + len(str(ticks)) - 1
    units = {0: "s", -3: "ms", -6: "us", -9: "ns", -12: "ps", -15: "fs"}
    base = max(p for p in units if p <= power) if power >= -15 else -15
    return f"{10 ** (power - base)}{units[base]}"


def layout_of(shape: Shape) -> Layout:
    """What a value of this shape is made of."""
    of = shape.type
    if shape.dims:
        inner = Shape(of, shape.dims[1:])
        left, right = shape.dims[0]
        lows = range(0, inner.width * (abs(left - right) + 1), inner.width)
        return Elements(tuple(lows if left <= right else lows[::-1]), inner.width, layout_of(inner))
    if of.collected is not None:
        return InCollection(layout_of(of.collected.element))
    if of.kept:
        return Kept(of.is_text)
    if not of.has_digits:
        return Plain()
    if of.members:
        members = list(of.members.values())[: 1 if of.word == "union" else None]
        return Members(tuple((m.name, m.low, m.width, layout_of(m.shape)) for m in members))
    return Digits(of.width, of.signed, {n & (1 << of.width) - 1: name for name, n in of.values.items()})


class SystemLowering:
    """Calls of system functions and tasks in one scope."""

    def __init__(self, x: Expressions) -> None:
        self._x = x

    def size(self, e: ast.Call) -> tuple[int, bool]:
        """Size and sign of a system function's value."""
        x = self._x
        self._count(e.name, list(e.args), e)
        if e.name in _OF_TYPES:
            return 32, True
        if e.name in _ELABORATED and len(e.args) != 1:
            raise x.error("arguments", f"`{e.name}` takes one value", e)
        if e.name in ("$signed", "$unsigned"):
            return x.size(_first(e))[0], e.name == "$signed"
        if e.name in ("$clog2", "$countones"):
            return 32, True
        if e.name in _BIT_COUNTS:
            return 1, False
        known = _FUNCTIONS.get(e.name)
        if known is None:
            if e.name in TASKS:
                raise x.error("task-in-expression", f"`{e.name}` has no value", e, "it is a statement of its own")
            hint = did_you_mean(e.name, [*_FUNCTIONS, *_ELABORATED, *_OF_TYPES])
            raise x.error("no-system-function", f"the system function `{e.name}` is not known here", e, hint)
        return known

    def lower(self, e: ast.Call) -> ir.Expr:
        """A call whose value is a vector."""
        x = self._x
        width, _ = x.size(e)
        if e.name in ("$signed", "$unsigned"):
            return x.self_determined(_first(e))
        if e.name == "$clog2":
            return _rounded_logarithm(x.self_determined(_first(e)))
        if e.name in _OF_TYPES:
            return self._of_collection(e) or ir.Const(32, *values.word(self._of_type(e), 32))
        if e.name in _BIT_COUNTS:
            return self._counted(e)
        return ir.SystemCall(
            width, e.name, self.arguments(e.name, list(e.args)), x.scope.path, x.scope.times[0], e.start
        )

    def lower_real(self, e: ast.Call) -> ir.Expr:
        """A call whose value is a real number, or a string."""
        x = self._x
        self._count(e.name, list(e.args), e)
        if e.name == "$itor":
            return x.reals.lower(_first(e))
        return ir.SystemCall(64, e.name, self.arguments(e.name, list(e.args)), x.scope.path, x.scope.times[0], e.start)

    def _count(self, name: str, args: list[ast.Expr | None], node: ast.Node) -> None:
        least = _LEAST_ARGUMENTS.get(name, 0)
        if len(args) < least or any(a is None for a in args[:least]):
            raise self._x.error("arguments", f"`{name}` takes {least} or more arguments, here are {len(args)}", node)
        if name in _MEMORY and isinstance(args[1], ast.Expr) and not isinstance(args[1], ast.Name | ast.Dotted):
            raise self._x.error("arguments", f"the second argument of `{name}` is the name of a memory", node)

    def _counted(self, e: ast.Call) -> ir.Expr:
        x = self._x
        a = x.self_determined(_first(e))
        if e.name == "$isunknown":
            return ir.Binary(1, "ceq", ir.Unary(1, "rxor", a), ir.Const(1, 0, 0))
        total: ir.Expr = ir.Const(32, *values.word(0, 32))
        for i in range(a.width):
            is_one = ir.Binary(1, "ceq", ir.Slice(1, a, i), ir.Const(1, 1, 0))
            total = ir.Binary(32, "add", total, ir.Extend(32, is_one, False))
        if e.name == "$countones":
            return total
        one = ir.Const(32, *values.word(1, 32))
        return ir.Binary(1, "eq", total, one) if e.name == "$onehot" else ir.Binary(1, "le", total, one)

    def _of_collection(self, e: ast.Call) -> ir.Expr | None:
        """What is asked of the one dimension of a collection, which the run knows (1800 clause 20.7)."""
        x, what = self._x, _first(e)
        shape = None if isinstance(what, ast.TypeArgument) else x.shape_of(what)
        if shape is None or shape.dims or shape.type.collected is None:
            return None
        zero, one = ir.Const(32, *values.word(0, 32)), ir.Const(32, *values.word(1, 32))
        size = ir.CollectionOp(32, "size", [x.digits(what)])
        if len(e.args) > 1 or e.name not in _ENDS or shape.type.collected.kind == "map":
            if e.name == "$size" and len(e.args) == 1:
                return size
            raise x.error("not-yet", f"`{e.name}` of this is not read by this version", e, "take `.size()`")
        last = ir.Binary(32, "sub", size, one)
        minus = ir.Const(32, *values.word(-1, 32))
        return {"$size": size, "$left": zero, "$low": zero, "$increment": minus}.get(e.name, last)

    def _of_type(self, e: ast.Call) -> int:
        """Digits, dimensions or ends of a type, or of what has one."""
        x = self._x
        what = _first(e)
        shape = x.type_shape(what) if isinstance(what, ast.TypeArgument) else None
        if isinstance(what, ast.Name) and isinstance(named := x.scope.find(what.name), TypeName):
            shape = named.shape
        shape = shape or x.shape_of(what)
        if shape is None:
            width, signed = x.size(what)
            shape = Shape(vector("logic", signed, width - 1, 0))
        if e.name == "$bits" and shape.type.keeps_others:
            raise x.error("not-yet", "the bits of strings are not counted by this version", e)
        if e.name == "$bits":
            return shape.width
        ends = dimensions_of(shape)
        if e.name == "$unpacked_dimensions":
            return len(shape.dims)
        if e.name == "$dimensions":
            return len(ends)
        number = 1
        if len(e.args) > 1 and e.args[1] is not None:
            number = x.integer(e.args[1], "the number of a dimension")
        if not 1 <= number <= len(ends):
            raise x.error("no-dimension", f"there is no dimension {number} here", e)
        left, right = ends[number - 1]
        return {
            "$left": left, "$right": right, "$low": min(left, right), "$high": max(left, right),
            "$size": abs(left - right) + 1, "$increment": 1 if left >= right else -1,
        }[e.name]  # fmt: skip

    # Arguments.

    def task(self, s: ast.TaskCall) -> ir.SystemTask:
        """A system task as a statement."""
        x = self._x
        if s.name not in TASKS:
            hint = did_you_mean(s.name, TASKS)
            raise x.error("no-system-task", f"the system task `{s.name}` is not known here", s, hint)
        self._count(s.name, s.args, s)
        if s.name == "$printtimescale":
            return self._timescale(s)
        call = ir.SystemCall(32, s.name, self.arguments(s.name, s.args), x.scope.path, x.scope.times[0], s.start)
        return ir.SystemTask(s.start, call)

    def _timescale(self, s: ast.TaskCall) -> ir.SystemTask:
        """`$printtimescale` (17.3.1): a line that is known before anything runs."""
        x, scope, name = self._x, self._x.scope, self._x.scope.path
        where = s.args[0] if s.args else None
        if isinstance(where, ast.Name | ast.Dotted):
            parts = where.parts if isinstance(where, ast.Dotted) else [where.name]
            found = x.find(where) or scope.find_path(parts)
            if not isinstance(found, Inside) or found.scope is None:
                raise x.error("no-scope", "`$printtimescale` takes the name of a module in use", where)
            scope, name = found.scope, found.scope.path
        unit, step = (_time(ticks, scope.precision) for ticks in scope.times)
        line = ir.Argument(text=f"Time scale of ({name}) is {unit} / {step}")
        return ir.SystemTask(s.start, ir.SystemCall(32, "$display", [line], scope.path, scope.times[0], s.start))

    def arguments(self, name: str, args: list[ast.Expr | None]) -> list[ir.Argument]:
        """The arguments of a call, with the places that it writes to."""
        found = []
        patterns = any(isinstance(a, ast.String) and _PATTERN.search(a.text) for a in args)
        for i, a in enumerate(args):
            if patterns and a is not None and not isinstance(a, ast.String):
                found.append(self._as_pattern(a))
                continue
            writes = i in _WRITES_TO.get(name, ()) or (name in _SCANS and i >= 2)
            found.append(self._argument(name, a, writes))
        return found

    def _as_pattern(self, a: ast.Expr) -> ir.Argument:
        """An argument that %p may print."""
        x = self._x
        shape = x.shape_of(a)
        if shape is None:
            made = self._argument("", a, False)
            made.layout = self._plain_layout(a, made)
            return made
        value = x.digits(a) if shape.is_aggregate else self._argument("", a, False).value
        return ir.Argument(value, None, shape.type.signed, shape.type.is_real, layout=layout_of(shape))

    def _plain_layout(self, a: ast.Expr, made: ir.Argument) -> Layout:
        if made.real or made.value is None or self._x.texts.is_text(a):
            return Plain()
        return Digits(made.value.width, made.signed, {})

    def _argument(self, name: str, a: ast.Expr | None, writes: bool) -> ir.Argument:
        x = self._x
        if a is None:
            return ir.Argument()
        if isinstance(a, ast.String) and not writes:
            return ir.Argument(text=a.text)
        if name in _MEMORY and isinstance(a, ast.Name | ast.Dotted):
            entry = x.entry(a)
            if isinstance(entry, Vector) and entry.dims:
                return ir.Argument(memory=(entry.signal, *entry.dims[0]))
        if name == "$fread" and writes and isinstance(a, ast.Name | ast.Dotted):
            entry = x.entry(a)
            if isinstance(entry, Vector) and len(entry.dims) == 1:
                return ir.Argument(memory=(entry.signal, *entry.dims[0]))
        if name == "$dumpvars" and isinstance(a, ast.Name | ast.Dotted):
            return self._dumped(a)
        if x.texts.is_text(a):
            return ir.Argument(x.texts.lower(a), None, False, False, x.places(a) if writes else [])
        real = x.reals.is_real(a)
        value = x.reals.lower(a) if real else x.self_determined(a)
        signed = x.size(a)[1]
        return ir.Argument(value, None, signed, real, x.places(a) if writes else [])

    def _dumped(self, a: ast.Name | ast.Dotted) -> ir.Argument:
        """A scope or a variable to be dumped."""
        x = self._x
        parts = a.parts if isinstance(a, ast.Dotted) else [a.name]
        found = x.find(a) or x.scope.find_path(parts)
        if isinstance(found, Inside) and found.scope is not None:
            return ir.Argument(scope=found.scope.path)
        if isinstance(found, FunctionEntry):
            return ir.Argument(scope=found.inner.path)
        entry = x.entry(a)
        if not isinstance(entry, Vector):
            raise x.error("bad-dump", "only variables, nets and scopes can be dumped", a)
        return ir.Argument(memory=(entry.signal, 0, 0))
