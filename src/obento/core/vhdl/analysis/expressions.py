"""Expressions with every name and type settled (IEEE 1076 clause 9)."""

from __future__ import annotations

from typing import Any

from obento.core.decimals import shown
from obento.core.ir.part import RunError
from obento.core.limits import LimitReached
from obento.core.vhdl.analysis.aggregates import Aggregates
from obento.core.vhdl.analysis.attributes import Attributes
from obento.core.vhdl.analysis.context import AnalysisError, Context
from obento.core.vhdl.analysis.meanings import Interp, Overloads
from obento.core.vhdl.analysis.names import EVERYWHERE, Names
from obento.core.vhdl.analysis.operators import Operators, static_length
from obento.core.vhdl.analysis.subexpressions import parts_of
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import EnumLiteral, PhysUnit, TypeName
from obento.core.vhdl.model.types import (
    AccessType,
    ArrayType,
    EnumType,
    Guess,
    IntType,
    RangeX,
    RealType,
    Subtype,
    Type,
    is_discrete,
    is_scalar,
    same_array_kind,
    scalar_bounds,
)
from obento.core.vhdl.model.values import Arr
from obento.core.vhdl.packages.standard import (
    BOOLEAN,
    INTEGER,
    UNIVERSAL_INTEGER,
    UNIVERSAL_REAL,
    compatible,
    concrete,
    is_universal,
)
from obento.core.vhdl.syntax import ast

_SIMPLE = {"+": lambda a, b: a + b, "-": lambda a, b: a - b, "*": lambda a, b: a * b}


class Expressions:
    """Settles expressions; `interps` gives everything one can mean, `expr` the one that is meant."""

    def __init__(
        self, context: Context, names: Names, operators: Operators, attributes: Attributes, aggregates: Aggregates
    ) -> None:
        self.context = context
        self.names = names
        self.operators = operators
        self.attributes = attributes
        self.aggregates = aggregates

    # The choice.

    def expr(self, e: ast.Expr, wanted: Type | None = None, sub: Subtype | None = None) -> t.Expr:
        """The one meaning of an expression that fits."""
        self.context.depth += 1
        try:
            return self._chosen(e, wanted, sub)
        finally:
            self.context.depth -= 1
            if not self.context.depth:
                self.context.memo.clear()

    def _chosen(self, e: ast.Expr, wanted: Type | None, sub: Subtype | None) -> t.Expr:
        interps = self.interps(e)
        fitting = [i for i in interps if wanted is None or compatible(i.type, wanted)]
        if not fitting:
            assert wanted is not None
            raise self.mismatch(e, interps, wanted)
        chosen = fitting[0] if len(fitting) == 1 else self._preferred(e, fitting, wanted)
        made = chosen.make(wanted or concrete(chosen.type), sub)
        if is_universal(made.type):
            made.type = (
                wanted
                if wanted is not None and not is_universal(wanted)
                else concrete(made.type)
                if wanted is None
                else made.type
            )
            if isinstance(made, t.Const) and isinstance(made.type, RealType) and isinstance(made.value, int):
                made.value = float(made.value)
        return made

    def _preferred(self, e: ast.Expr, fitting: list[Interp], wanted: Type | None) -> Interp:
        """Of several things that fit, the one that is meant: what is declared hides what comes with a type (12.3)."""
        exact = [i for i in fitting if i.type is wanted] or fitting
        declared = [i for i in exact if not i.implicit] or exact
        best = [i for i in declared if not any(isinstance(o, Guess) or is_universal(o) for o in i.operands)] or declared
        if wanted is None:
            best = _usual(best)
        if len(best) == 1 or all(i.operands == best[0].operands and i.type is best[0].type for i in best):
            return best[0]
        by_text = [i for i in best if _takes(i, "string", "std_logic_vector")]
        if by_text:
            return by_text[0]
        if all(i.type is best[0].type and i.implicit for i in best):  # two literals compared
            return next((i for i in best if _takes(i, "std_ulogic")), best[0])
        shown = " or ".join(sorted({i.type.shown for i in best})[:3])
        hint = "say which with type'(value)"
        raise self.context.wrong("ambiguous", f"this can mean several things ({shown})", e, hint)

    def mismatch(self, e: ast.Expr, interps: list[Interp], wanted: Type) -> AnalysisError:
        """A value of another type than wanted, said with both."""
        types = list(dict.fromkeys(i.type for i in interps))
        given = types[0]
        if isinstance(given, Guess) and given.kind == "string" and isinstance(wanted, EnumType) and wanted.is_character:
            return self.context.wrong(
                "type",
                f"a string in double quotes cannot be {_a(wanted)}",
                e,
                "write a single character in single quotes: '1'",
            )
        if (
            isinstance(given, Guess)
            and given.kind == "string"
            and isinstance(wanted, ArrayType)
            and isinstance(wanted.element.type, EnumType)
        ):
            bad = sorted(c for c in given.letters if c not in wanted.element.type.positions)
            if bad:
                return self.context.wrong(
                    "type", f"{bad[0]} is no value of {wanted.element.type.shown}, so this cannot be {_a(wanted)}", e
                )
        shown = " or ".join(_given(g) for g in types[:2])
        return self.context.wrong(
            "type",
            f"this is {shown}, but {_a(wanted)} is needed here",
            e,
            _without_quotes(e, wanted) or _conversion_hint(given, wanted),
        )

    # Everything an expression can mean.

    def interps(self, e: ast.Expr) -> list[Interp]:
        """Everything that an expression can mean; kept while one complete expression is settled."""
        known = self.context.memo.get(id(e))
        if known is None:
            known = self.context.memo[id(e)] = e, self._interps(e)  # with it, since its identity must stay its own
        return known[1]

    def _interps(self, e: ast.Expr) -> list[Interp]:
        match e:
            case ast.Number():
                universal = UNIVERSAL_REAL if isinstance(e.value, float) else UNIVERSAL_INTEGER
                return [Interp(universal, lambda wanted, _s: self._number(e, wanted))]
            case ast.Physical():
                return [self._physical(e)]
            case ast.String():
                return [self._string(e)]
            case ast.Aggregate():
                return [
                    Interp(
                        Guess("an aggregate", kind="aggregate"),
                        lambda wanted, sub: self.aggregates.aggregate(e, wanted, sub),
                    )
                ]
            case ast.Null():
                return [Interp(Guess("null", kind="null"), lambda wanted, _s: t.Const(wanted, e.pos, None))]
            case ast.New():
                return [self._new(e)]
            case ast.Binary():
                found = self.operators.binary_interps(e)
                if not found:
                    raise self._no_operator(e)
                return found
            case ast.Unary():
                found = self.operators.unary_interps(e)
                if not found:
                    shown = " or ".join(_given(i.type) for i in self.interps(e.value)[:2])
                    raise self.context.wrong("operator", f"`{e.op}` is not defined for {shown}", e)
                return found
            case ast.External():
                read = self.names.external(e)
                return [Interp(read.type, lambda _w, _s: read)]
            case ast.Qualified():
                return [self._qualified(e)]
            case ast.Attribute():
                x = self.attributes.attribute(e)
                return [Interp(x.type, lambda _t, _s: x)]
            case ast.Open():
                return [Interp(Guess("open", kind="wrong"), lambda wanted, _s: t.Open(wanted, e.pos))]
            case ast.Others():
                raise self.context.wrong(
                    "misplaced", "`others` stands only in aggregates and as a choice", e, "write (others => '0')"
                )
            case ast.Range() | ast.SubtypeInd() | ast.Box():
                raise self.context.wrong("misplaced", "a range cannot stand here", e)
        return self._name_interps(e)

    def _name_interps(self, e: ast.Id | ast.Selected | ast.Paren) -> list[Interp]:
        if isinstance(e, ast.Paren):
            prefix = self.names.denote(e.prefix)
            if isinstance(prefix, TypeName):
                return [self._conversion(prefix, e)]
            if isinstance(prefix, Overloads):
                found = self.names.call_interps(prefix, e.args, e)
                if prefix.name in EVERYWHERE:
                    found += self.operators.everywhere_interps(prefix.name, e, {i.operands for i in found})
                if not found:
                    raise self._no_call(prefix, e)
                return found
            if isinstance(prefix, t.Expr):
                x = self.names.indexed(prefix, e)
                return [Interp(x.type, lambda _t, _s: x)]
            raise self.context.wrong("not-value", "this is no function, array or type", e)
        meaning = self.names.denote(e)
        if isinstance(meaning, t.Expr):
            return [Interp(meaning.type, lambda _t, _s: meaning)]
        if isinstance(meaning, Overloads):
            found = self.names.call_interps(meaning, [], e)
            if not found:
                raise self._no_call(meaning, e)
            return found
        if isinstance(meaning, PhysUnit):
            return [Interp(meaning.type, lambda _t, _s: t.Const(meaning.type, e.pos, meaning.value))]
        what = "a type" if isinstance(meaning, TypeName) else "no value"
        name = getattr(meaning, "name", "this")
        raise self.context.wrong("not-value", f"`{name}` is {what}; a value is needed here", e)

    def _no_operator(self, e: ast.Binary) -> AnalysisError:
        a = " or ".join(_given(i.type) for i in self.interps(e.left)[:2])
        b = " or ".join(_given(i.type) for i in self.interps(e.right)[:2])
        lefts = {concrete(i.type).name for i in self.interps(e.left)}
        rights = {concrete(i.type).name for i in self.interps(e.right)}
        hint = ""
        if (
            e.op in ("+", "-", "*", "/", "mod", "rem", "<", ">", "<=", ">=", "=", "/=")
            and "std_logic_vector" in lefts | rights
        ):
            hint = (
                "std_logic_vector is no number: use unsigned or signed of ieee.numeric_std, for instance"
                " unsigned(a) + 1"
            )
        elif (
            e.op in ("and", "or", "xor", "nand", "nor")
            and "boolean" in lefts | rights
            and "std_ulogic" in lefts | rights
        ):
            hint = "compare the bit first: a = '1'"
        elif e.op in ("=", "/=") and ("std_ulogic" in lefts and "integer" in rights):
            hint = "a single bit is compared with '0' or '1'"
        elif e.op in ("=", "/=") and "std_ulogic" in lefts and isinstance(e.right, ast.String):
            hint = "a single bit stands in single quotes: '1'"
        elif {"unsigned", "signed"} & (lefts | rights) and not self.context.scope.find('"+"'):
            hint = "is `use ieee.numeric_std.all;` missing?"
        return self.context.wrong("operator", f"`{e.op}` is not defined between {a} and {b}", e, hint)

    def _no_call(self, found: Overloads, e: ast.Node) -> AnalysisError:
        functions = [f for f in found.found if not isinstance(f, EnumLiteral)]
        if functions and all(f.result is None for f in functions):
            return self.context.wrong("procedure", f"`{found.name}` is a procedure and gives no value", e)
        if not functions:
            return self.context.wrong("not-function", f"`{found.name}` is no function", e)
        given = ""
        if isinstance(e, ast.Paren):
            given = ", ".join(" or ".join(_given(i.type) for i in self.interps(a.value)[:2]) for a in e.args)
        wanted = functions[0]
        hint = (
            f"it wants {', '.join(_a(p.subtype.type) for p in wanted.params)}"
            if len({len(f.params) for f in functions}) == 1
            else ""
        )
        if found.name in ("to_integer", "conv_integer") and "std_logic_vector" in given:
            hint = "say whether it is a number without or with sign: to_integer(unsigned(a))"
        return self.context.wrong("no-call", f"no `{found.name}` fits the arguments ({given})", e, hint)

    # Literals.

    def _number(self, e: ast.Number, wanted: Type) -> t.Expr:
        value: Any = e.value
        if isinstance(wanted, RealType) and isinstance(value, int):
            if value.bit_length() > 1000:
                raise self.context.wrong("too-large", f"{shown(value)} is larger than a real number can be", e)
            value = float(value)
        if isinstance(wanted, IntType) and not wanted.universal and not wanted.low <= value <= wanted.high:
            if isinstance(value, int) and value > 2**31 - 1 and value != 2**31:
                raise self.context.wrong(
                    "too-large",
                    f"{shown(value)} is larger than an integer can be (2147483647)",
                    e,
                    'write it as a bit string: X"..."',
                )
        return t.Const(wanted if isinstance(wanted, IntType | RealType) else UNIVERSAL_INTEGER, e.pos, value)

    def _physical(self, e: ast.Physical) -> Interp:
        unit = self.names.denote(e.unit)
        if not isinstance(unit, PhysUnit):
            name = e.unit.name if isinstance(e.unit, ast.Id) else ""
            if name and isinstance(unit, t.Expr):
                text = f"`{name}` is a {_kind_of(unit)} here, and hides the unit of this name"
                raise self.context.wrong("unit", text, e, f"give the {_kind_of(unit)} another name")
            raise self.context.wrong(
                "unit", "this number is followed by something that is no unit", e, "10 ns, for instance"
            )
        return Interp(unit.type, lambda _t, _s: t.Const(unit.type, e.pos, int(e.value * unit.value)))

    def _string(self, e: ast.String) -> Interp:
        letters = frozenset(f"'{c}'" for c in e.value)

        def make(wanted: Type, _: Subtype | None) -> t.Expr:
            if not isinstance(wanted, ArrayType):
                raise self.context.wrong(
                    "ambiguous", "the type of this string is not clear here", e, "say it with string'(...)"
                )
            element = wanted.element.type
            assert isinstance(element, EnumType)
            bounds = scalar_bounds(wanted.indices[0])
            left = bounds[0] if bounds is not None else 0
            return t.Const(wanted, e.pos, Arr(left, 1, bytes(element.positions[f"'{c}'"] for c in e.value)))

        return Interp(Guess("a string", kind="string", letters=letters, size=len(e.value)), make)

    def _new(self, e: ast.New) -> Interp:
        if e.value is not None:
            value = self.expr(e.value)
            designated = value.type
            sub = Subtype(designated)
            return Interp(
                Guess("an access value", kind="new", designated=designated),
                lambda wanted, _s: t.New(wanted, e.pos, sub, value),
            )
        assert e.subtype is not None
        subtype = self.context.subtypes.subtype(e.subtype)
        if isinstance(subtype.type, ArrayType) and subtype.ranges is None:
            raise self.context.wrong("unconstrained", "an array needs its range here", e, "new string(1 to 10)")
        return Interp(
            Guess("an access value", kind="new", designated=subtype.type),
            lambda wanted, _s: t.New(wanted, e.pos, subtype, None),
        )

    # Conversions and qualification.

    def _conversion(self, target: TypeName, e: ast.Paren) -> Interp:
        if len(e.args) != 1 or e.args[0].choices:
            raise self.context.wrong("conversion", f"a conversion to {target.name} takes one value", e)
        wanted = target.subtype
        return Interp(wanted.type, lambda _type, _subtype: self._converted(wanted, e))

    def _converted(self, wanted: Subtype, e: ast.Paren) -> t.Expr:
        """A type conversion (9.3.6)."""
        inner = e.args[0].value
        interps = self.interps(inner)
        same = [i for i in interps if compatible(i.type, wanted.type) and not isinstance(i.type, Guess)]
        near = same or [i for i in interps if _convertible(i.type, wanted.type)]
        if not near:
            if any(isinstance(i.type, Guess) and compatible(i.type, wanted.type) for i in interps):
                return self.expr(inner, wanted.type, wanted)
            shown = " or ".join(_given(i.type) for i in interps[:2])
            hint = _way_to(wanted.type, [i.type for i in interps])
            raise self.context.wrong("conversion", f"{shown} cannot be converted to {wanted.shown}", e, hint)
        chosen = near[0].type
        arg = self.expr(inner, concrete(chosen) if is_universal(chosen) else chosen)
        if arg.type is wanted.type and wanted.ranges is None:
            return arg
        size = static_length(arg) if isinstance(arg.type, ArrayType) else None
        if size is not None and wanted.length() is not None and wanted.length() != size:
            text = f"{size} elements do not fit into {wanted.shown} of {wanted.length()}"
            raise self.context.wrong("width", text, e)
        sub = wanted if wanted.ranges is not None else None
        if sub is None and isinstance(arg.type, ArrayType) and arg.sub is not None:
            sub = Subtype(wanted.type, arg.sub.ranges)
        return self.folded(t.Convert(wanted.type, e.pos, arg, wanted, sub=sub))

    def _qualified(self, e: ast.Qualified) -> Interp:
        mark = self.names.denote(e.mark)
        if not isinstance(mark, TypeName):
            raise self.context.wrong("not-type", "a type is needed before '", e.mark)
        subtype = mark.subtype

        def make(_: Type, __: Subtype | None) -> t.Expr:
            x = self.expr(e.value, subtype.type, subtype)
            if subtype.ranges is None:
                return x
            return self.folded(t.Qual(subtype.type, e.pos, x, subtype, sub=subtype))

        return Interp(subtype.type, make)

    # Aggregates.

    def try_range(self, e: ast.Expr, index: Type | None) -> RangeX | None:
        """A range, if the expression is one."""
        if isinstance(e, ast.Range):
            return self._explicit_range(e, index)
        if isinstance(e, ast.Attribute) and e.name in ("range", "reverse_range"):
            return self.attributes.range_attribute(e)
        if isinstance(e, ast.SubtypeInd):
            s = self.context.subtypes.subtype(e)
            return self.subtype_range(s)
        if isinstance(e, ast.Id | ast.Selected):
            found = self.names.denote(e)
            if isinstance(found, TypeName) and is_discrete(found.subtype.type):
                return self.subtype_range(found.subtype)
        return None

    def _explicit_range(self, e: ast.Range, index: Type | None) -> RangeX:
        if index is None:
            types = [i.type for i in self.interps(e.left)]
            others = [i.type for i in self.interps(e.right)]
            both = [a for a in types if any(a is b or compatible(b, a) or compatible(a, b) for b in others)]
            plain = [a for a in both if not is_universal(a)] or [
                b for b in others if not is_universal(b) and any(compatible(a, b) for a in types)
            ]
            index = plain[0] if plain else concrete(both[0]) if both else INTEGER
        return RangeX(self._bound_now(self.expr(e.left, index)), self._bound_now(self.expr(e.right, index)), e.down)

    def _bound_now(self, x: t.Expr) -> t.Expr:
        """An end of a range that calls functions of constants, as the constant that they give: `0 to log2(size) -
        1`."""
        parts = parts_of(x)
        calls = [p.function for p in parts if isinstance(p, t.Call)]
        if not calls or not all(f.native is not None or (f.body is not None and f.pure and not f.local) for f in calls):
            return x
        if not all(
            isinstance(p, t.Const | t.Op | t.Call | t.Convert | t.Qual) or (isinstance(p, t.Read) and p.object.known)
            for p in parts
        ):
            return x
        return t.Const(x.type, x.pos, self.context.declarations.worked_out(x, Subtype(x.type)))

    def discrete(self, e: ast.Expr) -> RangeX:
        """The range of a loop, a generate or an index."""
        found = self.try_range(e, None)
        if found is None or not is_discrete(found.left.type):
            raise self.context.wrong("range", "a range is needed here", e, "for instance 0 to 7, or a'range")
        return found

    def subtype_range(self, s: Subtype) -> RangeX:
        """The range of a scalar subtype."""
        if s.ranges is not None:
            return s.ranges[0]
        assert is_scalar(s.type)
        return RangeX(t.Const(s.type, 0, s.type.low), t.Const(s.type, 0, s.type.high), False)  # type: ignore[attr-defined]

    def condition(self, e: ast.Expr) -> t.Expr:
        """A boolean, or since -2008 something that `??` makes one."""
        interps = self.interps(e)
        if any(i.type is BOOLEAN for i in interps):
            return self.expr(e, BOOLEAN)
        unary = ast.Unary(e.pos, e.end, "??", e)
        if self.operators.unary_interps(unary):
            return self.expr(unary, BOOLEAN)
        shown = " or ".join(_given(i.type) for i in interps[:2])
        hint = (
            "compare it: a = '1'"
            if any(i.type.name in ("std_ulogic", "bit") for i in interps)
            else "a condition is true or false, such as a = b"
        )
        raise self.context.wrong("condition", f"a condition is needed here, but this is {shown}", e, hint)

    # Constants.

    def folded(self, x: t.Expr) -> t.Expr:
        """The value itself where everything is constant."""
        if isinstance(x, t.Op) and len(x.args) == 2 and x.op in _SIMPLE and isinstance(x.type, IntType):
            a, b = x.args
            if isinstance(a, t.Const) and isinstance(b, t.Const):
                return t.Const(x.type, x.pos, _SIMPLE[x.op](a.value, b.value))
        if not self._all_constant(x):
            return x
        try:
            value = self.context.emitter.evaluate(x)
        except RunError as error:
            self.context.collector.error("value", error.text, error.position or x.pos)
            raise AnalysisError from None
        except LimitReached as limit:
            self.context.collector.error("limit", limit.text, x.pos)
            raise AnalysisError from None
        return t.Const(x.type, x.pos, value, sub=x.sub)

    @staticmethod
    def _all_constant(x: t.Expr) -> bool:
        match x:
            case t.Op() | t.Call():
                return all(isinstance(a, t.Const) for a in x.args) and not (
                    isinstance(x, t.Op) and x.op in ("endfile", "deallocate")
                )
            case t.Convert():
                return isinstance(x.arg, t.Const) and (x.target.ranges is None or x.target.static())
            case t.Qual():
                return isinstance(x.arg, t.Const) and x.target.static()
            case t.ScalarAttr():
                return isinstance(x.arg, t.Const)
            case t.RecordAgg():
                return all(isinstance(v, t.Const) for v in x.values)
            case t.ArrayAgg():
                known = x.ranges is None or x.ranges[0].known() is not None
                places = all(
                    p is None or isinstance(p, t.Const) or (isinstance(p, RangeX) and p.known() is not None)
                    for p, _, _ in x.items
                )
                values = all(isinstance(v, t.Const) for _, v, _ in x.items) and (
                    x.others is None or isinstance(x.others, t.Const)
                )
                return known and places and values
        return False


def _convertible(a: Type, b: Type) -> bool:
    a = concrete(a)
    if isinstance(a, IntType | RealType) and isinstance(b, IntType | RealType):
        return True
    return isinstance(a, ArrayType) and isinstance(b, ArrayType) and same_array_kind(a, b)


def _given(x: Type) -> str:
    return x.name if isinstance(x, Guess) else _a(concrete(x))


def _a(x: Type) -> str:
    name = "std_logic" if x.name == "std_ulogic" else x.shown
    return f"{'an' if name[:1] in 'aeiou' and not name.startswith('uni') else 'a'} {name}"


def _kind_of(x: t.Expr) -> str:
    return x.object.kind if isinstance(x, t.Read) else "name"


def _without_quotes(e: ast.Expr, wanted: Type) -> str:
    is_literal = isinstance(e, ast.String) and isinstance(wanted, EnumType) and e.value.lower() in wanted.literals
    return f"a name stands without quotes: {e.value}" if is_literal and isinstance(e, ast.String) else ""


def _conversion_hint(given: Type, wanted: Type) -> str:
    given = concrete(given)
    a, b = given.name, wanted.name
    if a in ("unsigned", "signed") and b == "std_logic_vector":
        return "convert it: std_logic_vector(...)"
    if a == "std_logic_vector" and b in ("unsigned", "signed"):
        return f"convert it: {b}(...)"
    if a in ("unsigned", "signed") and isinstance(wanted, IntType):
        return "convert it: to_integer(...)"
    if a == "std_logic_vector" and isinstance(wanted, IntType):
        return "convert it: to_integer(unsigned(...))"
    if isinstance(given, IntType) and b in ("unsigned", "signed"):
        return f"convert it: to_{b}(value, width)"
    if isinstance(given, IntType) and b == "std_logic_vector":
        return "convert it: std_logic_vector(to_unsigned(value, width)), or write it in double quotes"
    if isinstance(given, IntType) and b in ("std_ulogic", "bit"):
        return "a single bit is written '0' or '1'"
    if a == "boolean" and b in ("std_ulogic", "bit"):
        return "write: '1' when condition else '0'"
    if isinstance(given, ArrayType) and given.element.type is wanted:
        return "take one element of it: (0)"
    if isinstance(given, EnumType) and isinstance(wanted, ArrayType):
        return "a vector is written in double quotes"
    if isinstance(given, AccessType):
        return "`.all` follows an access value"
    return ""


_OFTEN_MEANT = ("std_logic_vector", "bit_vector", "string", "std_ulogic", "character")


def _usual(found: list[Interp]) -> list[Interp]:
    """Where nothing is wanted: a known type before a guess, INTEGER and BOOLEAN before others, then what is often
    meant."""
    plain = [i for i in found if not isinstance(i.type, Guess)] or found
    best = [i for i in plain if i.type in (INTEGER, BOOLEAN)] or plain
    named = [i for i in best if i.type.name in _OFTEN_MEANT]
    if len(best) > 1 and named:
        return sorted(named, key=lambda i: i.type.name != "std_logic_vector")[:1]
    return best


def _takes(i: Interp, *names: str) -> bool:
    """Whether an operand is of a type with one of these names."""
    return any(o.name in names for o in i.operands)


def _way_to(wanted: Type, given: list[Type]) -> str:
    """How numbers and vectors become each other."""
    if isinstance(wanted, ArrayType) and any(isinstance(g, IntType) for g in given):
        return "use to_unsigned(value, width) of ieee.numeric_std"
    if isinstance(wanted, IntType) and any(isinstance(g, ArrayType) for g in given):
        return "use to_integer(unsigned(value)) of ieee.numeric_std"
    return ""
