"""Types and subtypes as they are declared (IEEE 1076-1993 clauses 3 and 4.2), and the operations that come with
them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.expressions import Expressions
from obento.core.vhdl.analysis.meanings import Overloads
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Declared, Object, Subprogram, TypeName
from obento.core.vhdl.model.types import (
    AccessType,
    ArrayType,
    EnumType,
    FileType,
    IntType,
    PhysType,
    RangeX,
    RealType,
    RecordType,
    Subtype,
    Type,
)
from obento.core.vhdl.packages.standard import declare_values, enum, file_subprograms, is_universal
from obento.core.vhdl.syntax import ast


class TypeDeclarations:
    """Declares types; what else may stand in a declarative part is declared on top of it."""

    def __init__(self, context: Context, names: Names, expressions: Expressions) -> None:
        self.context = context
        self.names = names
        self.expressions = expressions

    def add(self, name: str, declared: Declared, node: ast.Node) -> None:
        """Declare a name; reported when it is taken."""
        before = self.context.scope.add(name, declared)
        if before is not None:
            if isinstance(before, TypeName) and before.incomplete:
                self.context.scope.names[name] = [declared]
                return
            self.context.collector.error(
                "redeclared", f"`{name}` is declared a second time here", node.pos, node.end, "choose another name"
            )

    # Subtypes.

    def subtype(self, e: ast.SubtypeInd) -> Subtype:
        """A subtype indication (6.3)."""
        base = self.marked(e.mark)
        resolution = base.resolution
        if e.resolution is not None:
            found = self.names.denote(e.resolution)
            if not isinstance(found, Overloads):
                raise self.context.wrong("resolution", "this is no resolution function", e.resolution)
            functions = [
                f
                for f in found.found
                if isinstance(f, Subprogram) and f.result is not None and f.result.type is base.type
            ]
            if not functions and isinstance(base.type, ArrayType):
                return base
            if not functions:
                raise self.context.wrong("resolution", "this function does not resolve the type", e.resolution)
            resolution = functions[0]
        if e.ranges is None:
            return base if resolution is base.resolution else Subtype(base.type, base.ranges, resolution, base.element)
        if isinstance(base.type, ArrayType):
            if e.scalar:
                raise self.context.wrong("range", f"{base.shown} is an array: write its range in brackets", e)
            made = self.constrained(base, e.ranges, e)
            made.resolution = resolution
            if e.element_ranges:
                made.element = self._constrained_inside(made.element_subtype, e.element_ranges, e)
            element = made.element_subtype
            while isinstance(element.type, ArrayType):
                if element.ranges is None:
                    hint = "write its range after that of the array: (0 to 3)(7 downto 0)"
                    text = f"the elements of {base.shown} need their range here"
                    raise self.context.wrong("unconstrained", text, e, hint)
                element = element.element_subtype
            return made
        if isinstance(base.type, RecordType) and not e.scalar:
            return self._constrained_record(base, e.ranges, e)
        if not e.scalar:
            hint = (
                "use std_logic_vector for several bits"
                if base.type.name in ("std_ulogic", "bit")
                else "write: range 0 to 7"
            )
            raise self.context.wrong("range", f"{base.shown} is no array and takes no range in brackets", e, hint)
        r = self.expressions.try_range(e.ranges[0], base.type)
        if r is None:
            raise self.context.wrong("range", "a range is needed here", e)
        if r.left.type is not base.type and not (isinstance(base.type, PhysType)):
            raise self.context.wrong("type", f"the range is of type {r.left.type.shown}, not {base.type.shown}", e)
        return Subtype(base.type, [r], resolution)

    def marked(self, e: ast.Expr) -> Subtype:
        """The subtype that a type mark names."""
        found = self.names.denote(e)
        if isinstance(found, TypeName):
            return found.subtype
        name = e.name if isinstance(e, ast.Id) else "this"
        raise self.context.wrong("not-type", f"`{name}` is no type", e)

    def constrained(self, s: Subtype, ranges: Sequence[Any], node: ast.Node) -> Subtype:
        """An array subtype with ranges."""
        assert isinstance(s.type, ArrayType)
        if s.ranges is not None:
            raise self.context.wrong("range", f"{s.shown} already has its range", node)
        if len(ranges) != len(s.type.indices):
            raise self.context.wrong("range", f"{s.shown} has {len(s.type.indices)} dimension(s)", node)
        if len(ranges) == 1 and isinstance(ranges[0], ast.Open):
            return Subtype(s.type, None, s.resolution, s.element)  # one of its own: its elements may get their ranges
        made: list[RangeX] = []
        for e, index in zip(ranges, s.type.indices, strict=True):
            r = self.expressions.try_range(e, index.type)
            if r is None:
                hint = ""
                if isinstance(e, ast.Number) and isinstance(e.value, int):
                    hint = f"write ({e.value - 1} downto 0) for {e.value} elements"
                raise self.context.wrong("range", "a range is needed here, not a single value", node, hint)
            if r.left.type is not index.type and not is_universal(r.left.type):
                raise self.context.wrong(
                    "type", f"the range is of type {r.left.type.shown}, but {index.type.shown} is needed", node
                )
            self._check_size(r, index, node)
            made.append(r)
        return Subtype(s.type, made, s.resolution, s.element)

    def _check_size(self, r: RangeX, index: Subtype, node: ast.Node) -> None:
        size, known, bounds = r.length(), r.known(), index.ranges[0].bounds() if index.ranges else None
        if size is None or known is None:
            return
        if size > self.context.limits.memory_bits:
            raise self.context.wrong("too-large", f"an array of {size} elements is more than can be held", node)
        if size and bounds is not None and not (bounds[0] <= min(known[:2]) and max(known[:2]) <= bounds[1]):
            raise self.context.wrong("range", f"the index {min(known[:2])} is outside of {index.shown}", node)
        if size == 0 and known[0] != known[1] and abs(known[0] - known[1]) > 1:
            way = "downto" if known[2] else "to"
            other = "to" if known[2] else "downto"
            text = f"the range {known[0]} {way} {known[1]} is empty"
            self.context.collector.warning(
                "null-range", text, node.pos, node.end, f"did you mean {known[0]} {other} {known[1]}?"
            )

    # Types.

    def type_of(self, d: ast.TypeDecl) -> None:
        """A type declaration (6.2)."""
        definition = d.definition
        if definition is None:
            incomplete = Type(d.name)
            self.add(d.name, TypeName(d.name, Subtype(incomplete), d.pos, True), d)
            return
        if isinstance(definition, ast.ProtectedDef):
            self.context.declarations.protected(d, definition)
            return
        known = self.context.scope.names.get(d.name)
        made = self._defined(d.name, definition)
        subtype = made if isinstance(made, Subtype) else Subtype(made)
        subtype.name = d.name
        if known is not None and isinstance(known[0], TypeName) and known[0].incomplete:
            self._complete(known[0], subtype)
        self.add(d.name, TypeName(d.name, subtype, d.pos), d)
        self._declare_with(subtype.type)

    def _complete(self, name: TypeName, subtype: Subtype) -> None:
        """Access types that were declared with the incomplete type mean the complete one from now on."""
        before = name.subtype.type
        for names in self.context.scope.names.values():
            for declared in names:
                if (
                    isinstance(declared, TypeName)
                    and isinstance(declared.subtype.type, AccessType)
                    and declared.subtype.type.designated.type is before
                ):
                    declared.subtype.type.designated = subtype

    def _declare_with(self, made: Type) -> None:
        declare_values(self.context.scope, made)
        if isinstance(made, ArrayType) and isinstance(made.element.type, EnumType):
            self.context.note_array(made)
        if isinstance(made, FileType):
            for f in file_subprograms(made):
                self.context.scope.add(f.name, f)
        if isinstance(made, AccessType):
            param = Object("p", "variable", Subtype(made), 0, "p", "inout", is_param=True)
            self.context.scope.add("deallocate", Subprogram("deallocate", [param], None, 0, "deallocate", foreign=True))

    def _defined(self, name: str, d: Any) -> Type | Subtype:
        match d:
            case ast.EnumDef():
                literals = [literal for literal, _ in d.literals]
                for i, literal in enumerate(literals):
                    if literal in literals[:i]:
                        raise self.context.wrong("redeclared", f"{literal} stands twice in this type", d)
                return enum(name, literals)
            case ast.RangeDef():
                return self._numeric(name, d.range)
            case ast.PhysicalDef():
                return self._physical_type(name, d)
            case ast.ArrayDef():
                return self._array_type(name, d)
            case ast.RecordDef():
                fields: list[tuple[str, Subtype]] = []
                for field, pos, e in d.fields:
                    if any(field == f for f, _ in fields):
                        self.context.collector.error(
                            "redeclared", f"the field `{field}` stands twice in this record", pos
                        )
                    fields.append((field, self.subtype(e)))
                return RecordType(name, fields)
            case ast.AccessDef():
                return AccessType(name, self.subtype(d.subtype))
            case ast.FileDef():
                return FileType(name, self.marked(d.mark))
        raise AssertionError(name)

    def _constrained_inside(self, element: Subtype, ranges: Sequence[Sequence[Any]], e: ast.Node) -> Subtype:
        """Elements with the constraints that follow that of the array around them, the outermost first (1076-2008
        5.3.2.1)."""
        if isinstance(element.type, RecordType) and len(ranges) == 1:
            return self._constrained_record(element, ranges[0], e)
        if not isinstance(element.type, ArrayType):
            text = f"the elements are of type {element.shown}, which takes no range in brackets here"
            raise self.context.wrong("range", text, e, "a first value stands behind `:=`")
        made = self.constrained(element, ranges[0], e)
        if len(ranges) > 1:
            made.element = self._constrained_inside(made.element_subtype, ranges[1:], e)
        return made

    def _constrained_record(self, base: Subtype, ranges: Sequence[Any], e: ast.Node) -> Subtype:
        """`rec(a(7 downto 0))`: a record whose arrays get their ranges (1076-2008 5.3.3)."""
        fields = list(base.fields)
        for r in ranges:
            prefix, inside = r, list[list[Any]]()
            while isinstance(prefix, ast.Paren):
                inside.insert(0, [a.value for a in prefix.args])
                prefix = prefix.prefix
            name = prefix.name if inside and isinstance(prefix, ast.Id) else ""
            number = next((i for i, (n, _) in enumerate(fields) if n == name), None)
            if number is None:
                hint = f"write for instance {base.shown}({fields[0][0]}(7 downto 0))"
                raise self.context.wrong("range", f"a field of {base.shown} with its range is needed here", e, hint)
            field = fields[number][1]
            if not isinstance(field.type, ArrayType):
                raise self.context.wrong("range", f"the field `{name}` is no array and takes no range", r)
            fields[number] = name, self._constrained_inside(field, inside, r)
        made = Subtype(base.type, None, base.resolution)
        made.own_fields = fields
        return made

    def _numeric(self, name: str, e: ast.Expr) -> Subtype:
        r = self.expressions.try_range(e, None)
        if r is None:
            raise self.context.wrong("range", "a range is needed here", e)
        known = r.known()
        if known is None:
            raise self.context.wrong("constant", "the range of a type must be constant", e)
        if isinstance(known[0], float):
            real = RealType(name)
            return Subtype(real, [RangeX(t.Const(real, e.pos, known[0]), t.Const(real, e.pos, known[1]), known[2])])
        made = IntType(name)
        return Subtype(made, [RangeX(t.Const(made, e.pos, known[0]), t.Const(made, e.pos, known[1]), known[2])])

    def _physical_type(self, name: str, d: ast.PhysicalDef) -> PhysType:
        units = {d.primary: 1}
        for unit, factor, base, pos in d.units:
            if base not in units:
                self.context.collector.error("undeclared", f"the unit `{base}` is not declared", pos)
                continue
            units[unit] = int(factor * units[base])
        return PhysType(name, units=units)

    def _array_type(self, name: str, d: ast.ArrayDef) -> Type | Subtype:
        element = self.subtype(d.element)
        indices: list[Subtype] = []
        ranges: list[RangeX] = []
        for e in d.indices:
            if isinstance(e, ast.SubtypeInd) and e.ranges and isinstance(e.ranges[0], ast.Box):
                indices.append(self.marked(e.mark))
                continue
            r = self.expressions.discrete(e)
            indices.append(Subtype(r.left.type))
            self._check_size(r, indices[-1], d)
            ranges.append(r)
        made = ArrayType(name, indices, element)
        return made if d.unconstrained else Subtype(made, ranges)
