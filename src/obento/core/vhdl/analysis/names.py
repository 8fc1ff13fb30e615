"""What names denote, and what calls can mean (IEEE 1076 clauses 8 and 12.5)."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.ir.part import RunError
from obento.core.suggest import did_you_mean
from obento.core.vhdl.analysis.context import AnalysisError, Context
from obento.core.vhdl.analysis.meanings import Interp, Meaning, Overloads
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import (
    Alias,
    Declared,
    EnumLiteral,
    Labelled,
    LibraryName,
    Object,
    PackageName,
    Subprogram,
    TypeName,
)
from obento.core.vhdl.model.types import AccessType, ArrayType, ProtectedType, RangeX, RecordType, Subtype, Type
from obento.core.vhdl.packages.standard import BOOLEAN, compatible
from obento.core.vhdl.syntax import ast

WHERE = {
    "std_logic": "std_logic_1164",
    "std_logic_vector": "std_logic_1164",
    "std_ulogic": "std_logic_1164",
    "rising_edge": "std_logic_1164",
    "falling_edge": "std_logic_1164",
    "std_ulogic_vector": "std_logic_1164",
    "unsigned": "numeric_std",
    "signed": "numeric_std",
    "to_integer": "numeric_std",
    "to_unsigned": "numeric_std",
    "to_signed": "numeric_std",
    "resize": "numeric_std",
    "shift_left": "numeric_std",
    "shift_right": "numeric_std",
    "conv_integer": "std_logic_unsigned",
    "conv_std_logic_vector": "std_logic_arith",
    "math_pi": "math_real",
    "sqrt": "math_real",
    "ceil": "math_real",
    "log2": "math_real",
    "uniform": "math_real",
}
_ATTRIBUTES = frozenset(["event", "stable", "length", "range", "high", "low", "left", "right", "last_value"])
"""What beginners write behind a dot."""
_STD_WHERE = {
    "line": "textio",
    "text": "textio",
    "readline": "textio",
    "writeline": "textio",
    "finish": "env",
    "stop": "env",
}


EVERYWHERE = frozenset(["to_string", "minimum", "maximum", "endfile"])
"""Functions that come with every type they make sense for (5.2.6, 5.3.2.4, 5.5.2, 5.7)."""


def differs(a: bool | t.Expr, b: bool | t.Expr, pos: int) -> bool | t.Expr:
    """Whether two directions differ."""
    if isinstance(a, bool) and isinstance(b, bool):
        return a != b
    given = [t.Const(BOOLEAN, pos, x) if isinstance(x, bool) else x for x in (a, b)]
    return t.Op(BOOLEAN, pos, "/=", given)


class Names:
    """Looks names up in the scope where analysis stands."""

    def __init__(self, context: Context) -> None:
        self.context = context

    # Names.

    def denote(self, e: ast.Expr) -> Meaning:
        """What a name means, as far as that does not depend on what is wanted."""
        if isinstance(e, ast.Id):
            return self._simple(e)
        if isinstance(e, ast.Selected):
            return self._selected(e)
        if isinstance(e, ast.External):
            return self.external(e)
        if isinstance(e, ast.Paren):
            return self._bracketed(e)
        if isinstance(e, ast.Attribute) and e.name in ("base", "subtype"):
            prefix = self.denote(e.prefix)
            if isinstance(prefix, TypeName):
                return TypeName(prefix.name, Subtype(prefix.subtype.type))
            if isinstance(prefix, t.Expr):
                return TypeName("", prefix.sub or Subtype(prefix.type))
        return self.context.expressions.expr(e)

    def external(self, e: ast.External) -> t.Expr:
        """A signal, constant or shared variable by its place in the hierarchy (IEEE 1076-2008 8.7), which is built
        before it is named."""
        o = self.context.signals.by_path(e.path, e.up)
        if o is None or o.kind != e.kind:
            shown = ".".join(e.path)
            hint = "what it stands in is instantiated above this" if o is None else f"it is a {o.kind}"
            raise self.context.wrong("undeclared", f"there is no {e.kind} `{shown}` in the hierarchy", e, hint)
        wanted = self.context.subtypes.subtype(e.subtype)
        if wanted.type is not o.subtype.type:
            raise self.context.wrong("type", f"`{o.name}` is of type {o.subtype.shown}, not {wanted.shown}", e)
        return self.object(o, e)

    def _simple(self, e: ast.Id) -> Meaning:
        found = self.context.scope.find(e.name)
        if not found:
            if e.name in EVERYWHERE:
                return Overloads([], e.name)
            raise self._unknown(e)
        return self._meaning(found, e)

    def _unknown(self, e: ast.Id) -> AnalysisError:
        name = e.name
        if name in self.context.broken:
            return AnalysisError()
        if name in WHERE:
            hint = f"write before this unit: library ieee; use ieee.{WHERE[name]}.all;"
        elif name == "ieee":
            hint = "write before it: library ieee;"
        elif name in _STD_WHERE:
            hint = f"write before this unit: use std.{_STD_WHERE[name]}.all;"
        elif name.startswith("'"):
            return self.context.wrong(
                "undeclared",
                f"{name} is no value of any type that is visible here",
                e,
                "is a library or use clause missing?",
            )
        else:
            hint = (
                did_you_mean(name, (n for n in self.context.scope.all_names() if n[0] not in "\"'"))
                if self.context.collector.shows("error")
                else ""
            )
        return self.context.wrong("undeclared", f"`{name}` is not declared", e, hint)

    def _meaning(self, found: Sequence[Declared], e: ast.Node) -> Meaning:
        first = found[0]
        if isinstance(first, Subprogram | EnumLiteral):
            return Overloads([f for f in found if isinstance(f, Subprogram | EnumLiteral)], first.name)
        if len(found) > 1:
            raise self.context.wrong(
                "ambiguous",
                f"`{first.name}` comes from more than one package",
                e,
                "write its package before it: ieee.numeric_std.unsigned",
            )
        if isinstance(first, Object):
            return self.object(first, e)
        if isinstance(first, Alias):
            return first.target
        if isinstance(first, TypeName) and first.incomplete and first.subtype.type is None:
            raise self.context.wrong("incomplete", f"the type `{first.name}` is not complete here", e)
        return first

    def object(self, o: Object, e: ast.Node) -> t.Expr:
        """An object as a value; constants as what they are."""
        o.read_at = o.read_at or e.pos
        if o.known:
            return t.Const(o.subtype.type, e.pos, o.value, sub=o.subtype)
        return t.Read(o.subtype.type, e.pos, o, sub=o.subtype)

    def _selected(self, e: ast.Selected) -> Meaning:
        if isinstance(e.prefix, ast.Id) and not self.context.scope.find(e.prefix.name):
            for scope in self.context.scope.chain():  # a name with the region it is declared in before it
                if scope.name == e.prefix.name and e.suffix in scope.names:
                    return self._meaning(scope.names[e.suffix], e)
        prefix = self.denote(e.prefix)
        if isinstance(prefix, LibraryName):
            package = self.context.packages.package_named(prefix.name, e.suffix, e)
            if package is None:
                raise AnalysisError
            return package
        if isinstance(prefix, PackageName):
            found = prefix.scope.names.get(e.suffix)
            if not found:
                raise self.context.wrong(
                    "undeclared",
                    f"the package `{prefix.name}` has no `{e.suffix}`",
                    e,
                    did_you_mean(e.suffix, prefix.scope.names),
                )
            return self._meaning(found, e)
        if isinstance(prefix, Labelled):
            for scope in self.context.scope.chain():
                if scope.name == prefix.name and e.suffix in scope.names:
                    return self._meaning(scope.names[e.suffix], e)
        if isinstance(prefix, Overloads):
            prefix = self.context.expressions.expr(e.prefix)
        if isinstance(prefix, t.Expr):
            return self._part(prefix, e)
        raise self.context.wrong("no-part", f"nothing can be selected from this with `.{e.suffix}`", e)

    def _part(self, prefix: t.Expr, e: ast.Selected) -> Meaning:
        if e.suffix == "all":
            if not isinstance(prefix.type, AccessType):
                raise self.context.wrong("not-access", "`.all` follows an access value, which this is not", e)
            return t.Deref(prefix.type.designated.type, e.pos, prefix, sub=prefix.type.designated)
        if isinstance(prefix.type, AccessType):
            prefix = self.dereferenced(prefix)
        if isinstance(prefix.type, ProtectedType):
            found = [f for f in prefix.type.scope.names.get(e.suffix, ()) if isinstance(f, Subprogram)]
            if not found:
                raise self.context.wrong("undeclared", f"`{prefix.type.name}` has no method `{e.suffix}`", e)
            return Overloads(list(found), e.suffix, prefix)
        if isinstance(prefix.type, RecordType):
            number = prefix.type.number(e.suffix)
            if number is None:
                names = [n for n, _ in prefix.type.fields]
                raise self.context.wrong(
                    "no-field",
                    f"the record `{prefix.type.shown}` has no field `{e.suffix}`",
                    e,
                    did_you_mean(e.suffix, names) or ", ".join(names),
                )
            subtype = (prefix.sub or Subtype(prefix.type)).fields[number][1]
            if isinstance(prefix, t.Const):
                return t.Const(subtype.type, e.pos, prefix.value[number], sub=subtype)
            return t.Field(subtype.type, e.pos, prefix, number, sub=subtype)
        hint = f"an attribute stands behind a quote: `'{e.suffix}`" if e.suffix in _ATTRIBUTES else ""
        raise self.context.wrong("no-field", f"`.{e.suffix}` needs a record, but this is {prefix.type.shown}", e, hint)

    def dereferenced(self, x: t.Expr) -> t.Expr:
        """What a pointer points to."""
        assert isinstance(x.type, AccessType)
        return t.Deref(x.type.designated.type, x.pos, x, sub=x.type.designated)

    # Brackets: elements, slices, calls, conversions.

    def _bracketed(self, e: ast.Paren) -> Meaning:
        prefix = self.denote(e.prefix)
        if isinstance(prefix, t.Expr):
            return self.indexed(prefix, e)
        if isinstance(prefix, TypeName) and isinstance(prefix.subtype.type, ArrayType) and self._is_range(e):
            return TypeName("", self.context.subtypes.constrained(prefix.subtype, [a.value for a in e.args], e))
        return self.context.expressions.expr(e)

    def _is_range(self, e: ast.Paren) -> bool:
        return all(isinstance(a.value, ast.Range) and not a.choices for a in e.args)

    def indexed(self, prefix: t.Expr, e: ast.Paren) -> t.Expr:
        """An element or slice of an array."""
        if isinstance(prefix.type, AccessType):
            prefix = self.dereferenced(prefix)
        if not isinstance(prefix.type, ArrayType):
            what = f"`{prefix.object.name}` is" if isinstance(prefix, t.Read) else "this is"
            raise self.context.wrong(
                "not-array", f"{what} no array and no function: it is of type {prefix.type.shown}", e
            )
        args = [a.value for a in e.args]
        if any(a.choices for a in e.args):
            raise self.context.wrong("bad-index", "an index has no `=>`", e)
        if len(args) == 1:
            r = self.context.expressions.try_range(args[0], prefix.type.indices[0].type)
            if r is not None:
                return self._slice(prefix, r, e)
        if len(args) != len(prefix.type.indices):
            raise self.context.wrong(
                "bad-index",
                f"{len(args)} indices are given, but the array has {len(prefix.type.indices)} dimension(s)",
                e,
            )
        indices = [self.context.expressions.expr(a, i.type) for a, i in zip(args, prefix.type.indices, strict=True)]
        return self.element(prefix, indices, e)

    def element(self, prefix: t.Expr, indices: list[t.Expr], e: ast.Node) -> t.Expr:
        """An element of an array (8.4)."""
        assert isinstance(prefix.type, ArrayType)
        ranges = prefix.sub.ranges if prefix.sub is not None else None
        for i, index in enumerate(indices):
            bounds = ranges[i].bounds() if ranges is not None else None
            if bounds is not None and isinstance(index, t.Const) and not bounds[0] <= index.value <= bounds[1]:
                known = ranges[i].known() if ranges is not None else None
                assert known is not None
                shown = f"{known[0]} {'downto' if known[2] else 'to'} {known[1]}"
                raise self.context.wrong("out-of-range", f"index {index.value} is outside of the range {shown}", e)
        subtype = (prefix.sub.element if prefix.sub is not None else None) or prefix.type.element
        if isinstance(prefix, t.AliasOf):
            return self.element(prefix.prefix, [prefix.moved(indices[0])], e)
        if isinstance(prefix, t.Const) and all(isinstance(i, t.Const) for i in indices):
            value = prefix.value
            try:
                for index in indices:
                    value = value.at(index.value, e.pos)  # type: ignore[attr-defined]
            except RunError as error:
                raise self.context.wrong("out-of-range", error.text, e) from None
            return t.Const(subtype.type, e.pos, value, sub=subtype)
        return t.Index(subtype.type, e.pos, prefix, indices, sub=subtype)

    def _slice(self, prefix: t.Expr, r: RangeX, e: ast.Node) -> t.Expr:
        assert isinstance(prefix.type, ArrayType)
        own = prefix.sub.ranges[0] if prefix.sub is not None and prefix.sub.ranges else None
        known, whole = r.known(), own.known() if own is not None else None
        if known is not None and whole is not None and (r.length() or 0) > 0:
            if known[2] != whole[2]:
                ways = "to", "downto"
                hint = f"write {known[1]} {ways[whole[2]]} {known[0]}"
                if r.length() != 1:
                    raise self.context.wrong(
                        "slice-direction", f"this slice runs `{ways[known[2]]}`, its array `{ways[whole[2]]}`", e, hint
                    )
            low, high = (whole[1], whole[0]) if whole[2] else (whole[0], whole[1])
            if not (low <= min(known[0], known[1]) and max(known[0], known[1]) <= high):
                shown = f"{whole[0]} {'downto' if whole[2] else 'to'} {whole[1]}"
                raise self.context.wrong("out-of-range", f"the slice goes beyond the range {shown}", e)
        sub = Subtype(prefix.type, [r], None, prefix.sub.element if prefix.sub is not None else None)
        if isinstance(prefix, t.AliasOf):
            moved = RangeX(prefix.moved(r.left), prefix.moved(r.right), differs(r.down, prefix.turned, e.pos))
            part = self._slice(prefix.prefix, moved, e)
            return t.AliasOf(prefix.type, e.pos, part, moved, r, prefix.turned, sub=sub)
        return t.Slice(prefix.type, e.pos, prefix, r, sub=sub)

    # Calls.

    def call_interps(self, found: Overloads, args: list[ast.Assoc], e: ast.Node) -> list[Interp]:
        """The functions among these that the arguments fit."""
        out: list[Interp] = []
        for f in found.found:
            if isinstance(f, EnumLiteral):
                if not args:
                    out.append(literal_interp(f, e.pos))
                continue
            if f.result is None:
                continue
            order = self.match(f, args)
            if order is None:
                if (
                    not any(p.default is None for p in f.params)
                    and args
                    and isinstance(f.result.type, ArrayType)
                    and self._indexes(f, args)
                ):
                    out.append(self._index_of_call(f, args, e, found.receiver))
                continue
            out.append(self._call_interp(f, order, e, found.receiver))
        return out

    def _indexes(self, f: Subprogram, args: list[ast.Assoc]) -> bool:
        return not any(a.choices for a in args)

    def _index_of_call(self, f: Subprogram, args: list[ast.Assoc], e: ast.Node, receiver: t.Expr | None) -> Interp:
        assert f.result is not None and isinstance(f.result.type, ArrayType)

        def make(_: Type, __: Subtype | None) -> t.Expr:
            call = self.build_call(f, [None] * len(f.params), e, receiver)
            return self.indexed(call, ast.Paren(e.pos, e.end, ast.Open(e.pos, e.end), args))

        is_slice = len(args) == 1 and isinstance(args[0].value, ast.Range)
        return Interp(f.result.type if is_slice else f.result.type.element.type, make)

    def _call_interp(self, f: Subprogram, order: list[ast.Expr | None], e: ast.Node, receiver: t.Expr | None) -> Interp:
        assert f.result is not None
        operands = tuple(p.subtype.type for p in f.params)
        return Interp(f.result.type, lambda _t, _s: self.build_call(f, order, e, receiver), operands=operands)

    def match(self, f: Subprogram, args: list[ast.Assoc]) -> list[ast.Expr | None] | None:
        """The arguments in the order of the parameters, None where a default serves; None when they do not fit."""
        if len(args) > len(f.params):
            return None
        order: list[ast.Expr | None] = [None] * len(f.params)
        for i, a in enumerate(args):
            if a.choices:
                name = a.choices[0]
                place = next(
                    (j for j, p in enumerate(f.params) if isinstance(name, ast.Id) and p.name == name.name), None
                )
                if place is None or order[place] is not None:
                    return None
            elif i and args[i - 1].choices:
                return None  # positions come first (6.5.7.1)
            else:
                place = i
            order[place] = a.value
        for p, given in zip(f.params, order, strict=True):
            if given is None or isinstance(given, ast.Open):
                if p.default is None:
                    return None
            elif not self.fits(given, p.subtype.type):
                return None
        return [None if isinstance(g, ast.Open) else g for g in order]

    def fits(self, e: ast.Expr, wanted: Type) -> bool:
        """Whether an expression can be of a type."""
        return any(compatible(i.type, wanted) for i in self.context.expressions.interps(e))

    def build_call(
        self, f: Subprogram, order: Sequence[ast.Expr | None], e: ast.Node, receiver: t.Expr | None = None
    ) -> t.Expr:
        """A function call with its arguments in the order of the parameters."""
        assert f.result is not None
        args = [self.argument(p, g) for p, g in zip(f.params, order, strict=True)]
        self.note_call(f)
        sub = f.result if f.result.ranges is not None else None
        call = t.Call(f.result.type, e.pos, f, args, receiver, sub=sub)
        if (
            f.native is not None
            and f.pure
            and args
            and all(isinstance(a, t.Const) for a in args)
            and not any(p.kind == "signal" for p in f.params)
        ):
            return self.context.expressions.folded(call)
        return call

    def argument(self, p: Object, given: ast.Expr | None) -> t.Expr:
        """An actual argument, or the default of its parameter."""
        if given is None:
            assert p.default is not None
            return p.default
        x = self.context.expressions.expr(given, p.subtype.type, p.subtype)
        if p.kind == "signal" and not self.is_signal(x):
            raise self.context.wrong("not-signal", f"the parameter `{p.name}` needs a signal", given)
        if p.kind == "variable" and p.mode in ("out", "inout") and not self._is_variable(x):
            raise self.context.wrong(
                "not-variable", f"the parameter `{p.name}` gives a value back and needs a variable", given
            )
        return x

    @staticmethod
    def is_signal(x: t.Expr) -> bool:
        """Whether something is a signal or a part of one."""
        while isinstance(x, t.Index | t.Slice | t.Field):
            x = x.prefix
        return isinstance(x, t.Read) and x.object.kind == "signal"

    @staticmethod
    def _is_variable(x: t.Expr) -> bool:
        while isinstance(x, t.Index | t.Slice | t.Field):
            x = x.prefix
        return isinstance(x, t.Deref) or (isinstance(x, t.Read) and x.object.kind == "variable")

    def note_call(self, f: Subprogram) -> None:
        """A call, for what callers must know of whom they call."""
        if f.native is None:
            if self.context.subprogram is not None:
                self.context.subprogram.calls.append(f)
            elif self.context.process is not None:
                self.context.process.calls.append(f)


def literal_interp(f: EnumLiteral, pos: int) -> Interp:
    """An enumeration literal as something that an expression can mean."""
    return Interp(f.type, lambda _t, _s: t.Const(f.type, pos, f.value))
