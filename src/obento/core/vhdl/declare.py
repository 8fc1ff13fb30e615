"""Declarations: what they add to a scope, and what a run has to set up for them (IEEE 1076 clauses 4 to 6)."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from obento.core.ir.part import RunError
from obento.core.limits import LimitReached
from obento.core.suggest import did_you_mean
from obento.core.vhdl import ast, logic
from obento.core.vhdl import typed as t
from obento.core.vhdl.analyse import Analyser
from obento.core.vhdl.emit import walk
from obento.core.vhdl.library.natives import find_native
from obento.core.vhdl.names import Overloads, Wrong
from obento.core.vhdl.operators import static_length
from obento.core.vhdl.scope import (
    Alias,
    AttributeName,
    Component,
    Declared,
    LibraryName,
    Object,
    PackageName,
    Scope,
    Subprogram,
    TypeName,
)
from obento.core.vhdl.standard import FILE_KIND, STRING, declare_values, enum, file_subprograms, is_universal
from obento.core.vhdl.types import (
    AccessType,
    ArrayType,
    EnumType,
    FileType,
    IntType,
    PhysType,
    ProtectedType,
    RangeX,
    RealType,
    RecordType,
    Subtype,
    Type,
    default_value,
)
from obento.core.vhdl.values import Arr, elements


class Declarations(Analyser):
    """Declares; `setup` collects what a run does before its processes begin."""

    setup: list[str]
    package: str
    in_body: bool
    pending: list[Subprogram]
    bits: int

    def sequence(self, body: Sequence[ast.Stmt]) -> list[t.Stmt]:
        raise NotImplementedError

    @property
    def owner(self) -> Any:
        """What variables declared here belong to; None outside of processes and subprograms."""
        return self.subprogram or self.process

    # The region.

    def declare_all(self, decls: Sequence[ast.Decl]) -> list[t.Stmt]:
        """Declare everything; gives what happens in a run where this stands in a process or subprogram."""
        out: list[t.Stmt] = []
        for d in decls:
            try:
                out += self._declare(d)
            except Wrong:
                self._placeholders(d)
        return out

    def _placeholders(self, d: ast.Decl) -> None:
        """Names of a declaration that is wrong are known all the same, so that one mistake is said once."""
        names = (
            [n for n, _ in d.names]
            if isinstance(d, ast.ObjectDecl)
            else [d.name]
            if isinstance(d, ast.TypeDecl | ast.SubtypeDecl | ast.AliasDecl)
            else []
        )
        for name in names:
            self.broken.add(name)

    broken: set[str]

    def _declare(self, d: ast.Decl) -> list[t.Stmt]:
        match d:
            case ast.ObjectDecl():
                return self._objects(d)
            case ast.TypeDecl():
                self._type(d)
            case ast.SubtypeDecl():
                subtype = self.subtype(d.subtype)
                named = Subtype(subtype.type, subtype.ranges, subtype.resolution, subtype.element, d.name)
                self.add(d.name, TypeName(d.name, named, d.pos), d)
            case ast.AliasDecl():
                self._alias(d)
            case ast.AttributeDecl():
                self.add(d.name, AttributeName(d.name, self._marked(d.mark)), d)
            case ast.AttributeSpec():
                self._attribute_spec(d)
            case ast.SubprogramDecl():
                return self._subprogram(d)
            case ast.ComponentDecl():
                self.add(d.name, Component(d.name, d, self.scope), d)
            case ast.UseClause():
                self.use(d)
            case ast.ConfigSpec():
                self.configure(d)
        return []

    def configure(self, d: ast.ConfigSpec) -> None:
        raise NotImplementedError

    def add(self, name: str, declared: Declared, node: ast.Node) -> None:
        before = self.scope.add(name, declared)
        if before is not None:
            if isinstance(before, TypeName) and before.incomplete:
                self.scope.names[name] = [declared]
                return
            self.collector.error("redeclared", f"`{name}` is declared a second time here", node.pos, node.end, "choose another name")

    # Use clauses.

    def use(self, d: ast.UseClause) -> None:
        for name in d.names:
            try:
                self._use(name)
            except Wrong:
                continue

    def _use(self, name: ast.Expr) -> None:
        if not isinstance(name, ast.Selected):
            raise self.wrong("use", "a use clause names a package and what of it: ieee.std_logic_1164.all", name)
        prefix = self.denote(name.prefix)
        if isinstance(prefix, LibraryName) and name.suffix == "all":
            return  # units of a library are found by their names anyway
        if isinstance(prefix, LibraryName):
            package = self.package_named(prefix.name, name.suffix, name)
            if package is not None:
                self.scope.names.setdefault(package.name, [package])
            return
        if not isinstance(prefix, PackageName):
            raise self.wrong("use", "this is no package", name.prefix)
        if name.suffix == "all":
            self.scope.uses.append((prefix.scope, None))
            return
        if name.suffix not in prefix.scope.names:
            hint = did_you_mean(name.suffix, prefix.scope.names)
            raise self.wrong("undeclared", f"the package `{prefix.name}` has no `{name.suffix}`", name, hint)
        self.scope.uses.append((prefix.scope, name.suffix))

    # Subtypes.

    def subtype(self, e: ast.SubtypeInd) -> Subtype:
        base = self._marked(e.mark)
        resolution = base.resolution
        if e.resolution is not None:
            found = self.denote(e.resolution)
            if not isinstance(found, Overloads):
                raise self.wrong("resolution", "this is no resolution function", e.resolution)
            functions = [f for f in found.found if isinstance(f, Subprogram) and f.result is not None and f.result.type is base.type]
            if not functions and isinstance(base.type, ArrayType):
                return base
            if not functions:
                raise self.wrong("resolution", "this function does not resolve the type", e.resolution)
            resolution = functions[0]
        if e.ranges is None:
            return base if resolution is base.resolution else Subtype(base.type, base.ranges, resolution, base.element)
        if isinstance(base.type, ArrayType):
            if e.scalar:
                raise self.wrong("range", f"{base.shown} is an array: write its range in brackets", e)
            made = self.constrained(base, e.ranges, e)
            made.resolution = resolution
            if e.element_ranges:
                made.element = self.constrained(made.element_subtype, e.element_ranges[0], e)
            element = made.element_subtype
            if isinstance(element.type, ArrayType) and element.ranges is None:
                hint = "write its range after that of the array: (0 to 3)(7 downto 0)"
                raise self.wrong("unconstrained", f"the elements of {base.shown} need their range here", e, hint)
            return made
        if not e.scalar:
            hint = "use std_logic_vector for several bits" if base.type.name in ("std_ulogic", "bit") else "write: range 0 to 7"
            raise self.wrong("range", f"{base.shown} is no array and takes no range in brackets", e, hint)
        r = self.try_range(e.ranges[0], base.type)
        if r is None:
            raise self.wrong("range", "a range is needed here", e)
        if r.left.type is not base.type and not (isinstance(base.type, PhysType)):
            raise self.wrong("type", f"the range is of type {r.left.type.shown}, not {base.type.shown}", e)
        return Subtype(base.type, [r], resolution)

    def _marked(self, e: ast.Expr) -> Subtype:
        found = self.denote(e)
        if isinstance(found, TypeName):
            return found.subtype
        name = e.name if isinstance(e, ast.Id) else "this"
        raise self.wrong("not-type", f"`{name}` is no type", e)

    def constrained(self, s: Subtype, ranges: Sequence[Any], node: ast.Node) -> Subtype:
        """An array subtype with ranges."""
        assert isinstance(s.type, ArrayType)
        if s.ranges is not None:
            raise self.wrong("range", f"{s.shown} already has its range", node)
        if len(ranges) != len(s.type.indices):
            raise self.wrong("range", f"{s.shown} has {len(s.type.indices)} dimension(s)", node)
        if len(ranges) == 1 and isinstance(ranges[0], ast.Open):
            return s
        made: list[RangeX] = []
        for e, index in zip(ranges, s.type.indices, strict=True):
            r = self.try_range(e, index.type)
            if r is None:
                hint = ""
                if isinstance(e, ast.Number) and isinstance(e.value, int):
                    hint = f"write ({e.value - 1} downto 0) for {e.value} elements"
                raise self.wrong("range", "a range is needed here, not a single value", node, hint)
            if r.left.type is not index.type and not is_universal(r.left.type):
                raise self.wrong("type", f"the range is of type {r.left.type.shown}, but {index.type.shown} is needed", node)
            self._check_size(r, index, node)
            made.append(r)
        return Subtype(s.type, made, s.resolution)

    def _check_size(self, r: RangeX, index: Subtype, node: ast.Node) -> None:
        size, known, bounds = r.length(), r.known(), index.ranges[0].bounds() if index.ranges else None
        if size is None or known is None:
            return
        if size > self.limits.memory_bits:
            raise self.wrong("too-large", f"an array of {size} elements is more than can be held", node)
        if size and bounds is not None and not (bounds[0] <= min(known[:2]) and max(known[:2]) <= bounds[1]):
            raise self.wrong("range", f"the index {min(known[:2])} is outside of {index.shown}", node)
        if size == 0 and known[0] != known[1] and abs(known[0] - known[1]) > 1:
            way = "downto" if known[2] else "to"
            other = "to" if known[2] else "downto"
            text = f"the range {known[0]} {way} {known[1]} is empty"
            self.collector.warning("null-range", text, node.pos, node.end, f"did you mean {known[0]} {other} {known[1]}?")

    # Types.

    def _type(self, d: ast.TypeDecl) -> None:
        definition = d.definition
        if definition is None:
            incomplete = Type(d.name)
            self.add(d.name, TypeName(d.name, Subtype(incomplete), d.pos, True), d)
            return
        if isinstance(definition, ast.ProtectedDef):
            self.protected(d, definition)
            return
        known = self.scope.names.get(d.name)
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
        for names in self.scope.names.values():
            for declared in names:
                if (
                    isinstance(declared, TypeName)
                    and isinstance(declared.subtype.type, AccessType)
                    and declared.subtype.type.designated.type is before
                ):
                    declared.subtype.type.designated = subtype

    def _declare_with(self, made: Type) -> None:
        declare_values(self.scope, made)
        if isinstance(made, ArrayType) and isinstance(made.element.type, EnumType):
            made.element.type.arrays.append(made)
        if isinstance(made, FileType):
            for f in file_subprograms(made):
                self.scope.add(f.name, f)
        if isinstance(made, AccessType):
            param = Object("p", "variable", Subtype(made), 0, "p", "inout", is_param=True)
            self.scope.add("deallocate", Subprogram("deallocate", [param], None, 0, "deallocate", foreign=True))

    def _defined(self, name: str, d: Any) -> Type | Subtype:
        match d:
            case ast.EnumDef():
                literals = [literal for literal, _ in d.literals]
                for i, literal in enumerate(literals):
                    if literal in literals[:i]:
                        raise self.wrong("redeclared", f"{literal} stands twice in this type", d)
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
                        self.collector.error("redeclared", f"the field `{field}` stands twice in this record", pos)
                    fields.append((field, self._field_subtype(e)))
                return RecordType(name, fields)
            case ast.AccessDef():
                return AccessType(name, self.subtype(d.subtype))
            case ast.FileDef():
                return FileType(name, self._marked(d.mark))
        raise AssertionError(name)

    def _field_subtype(self, e: ast.SubtypeInd) -> Subtype:
        s = self.subtype(e)
        if isinstance(s.type, ArrayType) and s.ranges is None:
            raise self.wrong("unconstrained", f"{s.shown} needs its range here", e, "write for instance (7 downto 0)")
        return s

    def _numeric(self, name: str, e: ast.Expr) -> Subtype:
        r = self.try_range(e, None)
        if r is None:
            raise self.wrong("range", "a range is needed here", e)
        known = r.known()
        if known is None:
            raise self.wrong("constant", "the range of a type must be constant", e)
        if isinstance(known[0], float):
            real = RealType(name)
            return Subtype(real, [RangeX(t.Const(real, e.pos, known[0]), t.Const(real, e.pos, known[1]), known[2])])
        made = IntType(name)
        return Subtype(made, [RangeX(t.Const(made, e.pos, known[0]), t.Const(made, e.pos, known[1]), known[2])])

    def _physical_type(self, name: str, d: ast.PhysicalDef) -> PhysType:
        units = {d.primary: 1}
        for unit, factor, base, pos in d.units:
            if base not in units:
                self.collector.error("undeclared", f"the unit `{base}` is not declared", pos)
                continue
            units[unit] = int(factor * units[base])
        return PhysType(name, units=units)

    def _array_type(self, name: str, d: ast.ArrayDef) -> Type | Subtype:
        element = self.subtype(d.element)
        indices: list[Subtype] = []
        ranges: list[RangeX] = []
        for e in d.indices:
            if isinstance(e, ast.SubtypeInd) and e.ranges and isinstance(e.ranges[0], ast.Box):
                indices.append(self._marked(e.mark))
                continue
            r = self.discrete(e)
            indices.append(Subtype(r.left.type))
            self._check_size(r, indices[-1], d)
            ranges.append(r)
        made = ArrayType(name, indices, element)
        return made if d.unconstrained else Subtype(made, ranges)

    def protected(self, d: ast.TypeDecl, definition: ast.ProtectedDef) -> None:
        """A protected type: its methods work on variables of an object of its own."""
        if not definition.is_body:
            made = ProtectedType(d.name, scope=Scope(self.scope, d.name))
            self.add(d.name, TypeName(d.name, Subtype(made), d.pos), d)
            outer, self.scope = self.scope, made.scope
            for item in definition.items:
                if isinstance(item, ast.SubprogramDecl):
                    f = self.head(item)
                    f.local = True
                    self.scope.add(item.name, f)
            self.scope = outer
            return
        known = [k for k in self.scope.find(d.name) if isinstance(k, TypeName) and isinstance(k.subtype.type, ProtectedType)]
        if not known:
            raise self.wrong("undeclared", f"the protected type `{d.name}` is not declared before its body", d)
        own = known[0].subtype.type
        assert isinstance(own, ProtectedType)
        keeper = Subprogram(d.name, [], None, d.pos, self.emitter.fresh("f"), analysed=True)
        outer, outer_sub = self.scope, self.subprogram
        self.scope = Scope(outer, d.name)
        self.scope.names = dict(own.scope.names)
        self.subprogram = keeper
        try:
            keeper.decls = self.declare_all(definition.items)
        finally:
            self.scope, self.subprogram = outer, outer_sub
        for inner in walk_declared(keeper):
            self.settle_waits(inner)
            for called in inner.calls:
                self.emit_subprogram(called)
        bodiless = [f for names in own.scope.names.values() for f in names if isinstance(f, Subprogram) and not f.analysed]
        if bodiless:
            raise self.wrong("no-body", f"the method `{bodiless[0].name}` of `{d.name}` has no body here", d)
        own.make = keeper.py
        methods = [f for names in own.scope.names.values() for f in names if isinstance(f, Subprogram)]
        self.emitter.protected(keeper, [f.py for f in methods])

    # Objects.

    def _objects(self, d: ast.ObjectDecl) -> list[t.Stmt]:
        subtype = self.subtype(d.subtype)
        if d.kind == "signal" and self.owner is not None:
            raise self.wrong(
                "misplaced", "a signal cannot be declared in a process or subprogram", d, "declare it in the architecture, or use a variable"
            )
        if d.kind == "variable" and self.owner is None:
            hint = "declare it inside the process, or use a signal"
            raise self.wrong("misplaced", "a variable cannot be declared outside of processes and subprograms", d, hint)
        if isinstance(subtype.type, ProtectedType) and not subtype.type.make:
            raise self.wrong("no-body", f"the protected type `{subtype.shown}` has no body before this", d)
        if d.kind == "constant" and d.default is None and (not self.package or self.in_body or self.owner is not None):
            raise self.wrong("constant", "a constant needs its value", d, "write := and the value")
        if d.kind == "file":
            return self._files(d, subtype)
        value = self.expr(d.default, subtype.type, subtype) if d.default is not None else None
        if isinstance(subtype.type, ArrayType) and subtype.ranges is None:
            subtype = self._from_value(subtype, value, d)
        self.check_width(value, subtype)
        out: list[t.Stmt] = []
        for name, pos in d.names:
            node = ast.Node(pos, pos + len(name))
            if d.kind == "signal":
                self.new_signal(name, subtype, value, node, d.guard)
            elif d.kind == "constant":
                out += self._constant(name, subtype, value, node)
            else:
                o = Object(name, "variable", subtype, pos, self.emitter.fresh("v"), of_process=self.owner, shared=d.kind == "shared")
                self.add(name, o, node)
                if self.owner is not None:
                    out.append(t.Declare(pos, o, value))
                else:
                    self._global(o, value)
        return out

    def _from_value(self, s: Subtype, value: t.X | None, d: ast.Node) -> Subtype:
        """An unconstrained array takes its bounds from its value, where it is constant."""
        if value is None:
            raise self.wrong("unconstrained", f"{s.shown} needs its range here", d, "write for instance (7 downto 0)")
        if isinstance(value, t.Const):
            return Subtype(s.type, [range_of(value.value, s.type)], s.resolution)
        if value.sub is not None and value.sub.ranges is not None:
            return Subtype(s.type, value.sub.ranges, s.resolution)
        return s

    def check_width(self, value: t.X | None, s: Subtype) -> None:
        """Lengths that cannot agree are said before anything runs."""
        if value is None or not isinstance(s.type, ArrayType) or len(s.type.indices) > 1:
            return
        size, wanted = static_length(value), s.length()
        if size is not None and wanted is not None and size != wanted:
            self.collector.error("width", f"this is {size} elements wide, but {wanted} are needed", value.pos, None, _width_hint(size, wanted, s))

    def new_signal(self, name: str, subtype: Subtype, value: t.X | None, node: ast.Node, guard: str = "") -> Object:
        if not subtype.static():
            raise self.wrong("constant", "the range of a signal must be constant", node)
        o = Object(name, "signal", subtype, node.pos, self.emitter.fresh("s"), guard=guard)
        o.value = self.first_value(value, subtype)
        o.default = value
        self.add(name, o, node)
        self.set_up_signal(o)
        return o

    def first_value(self, value: t.X | None, subtype: Subtype) -> Any:
        if value is None:
            return default_value(subtype)
        return self.worked_out(value, subtype)

    def set_up_signal(self, o: Object) -> None:
        self.setup.append(f"{o.py} = R.signal({o.name!r}, {self.emitter.constant(o.value)}, {self.emitter.keep(self.resolution(o.subtype))})")
        self.note_signal(o)

    def note_signal(self, o: Object) -> None:
        raise NotImplementedError

    def worked_out(self, value: t.X, subtype: Subtype) -> Any:
        """The value of a constant expression, fitted."""
        self.emit_called(value)
        try:
            return self.emitter.evaluate_fitted(value, subtype)
        except RunError as error:
            self.collector.error("value", error.text, error.position or value.pos)
        except LimitReached as limit:
            self.collector.error("limit", limit.text, limit.position or value.pos, None, limit.hint)
        except RecursionError:
            self.collector.error("limit", "this calls itself too deep", value.pos)
        except NameError:
            self.collector.error("constant", "this value is not known before the run", value.pos)
        raise Wrong

    def _constant(self, name: str, subtype: Subtype, value: t.X | None, node: ast.Node) -> list[t.Stmt]:
        known = self.scope.names.get(name)
        if known and isinstance(known[0], Object) and known[0].implicit and value is not None:
            o = known[0]  # the full declaration of a deferred constant
            o.implicit = False
            del self.scope.names[name]
        else:
            o = Object(name, "constant", subtype, node.pos, self.emitter.fresh("c"), of_process=self.owner)
        if value is None:
            o.implicit = True
            self.add(name, o, node)
            return []
        if isinstance(value, t.Const) or self.owner is None:
            o.value = self.worked_out(value, subtype)
            o.known = True
            if isinstance(subtype.type, ArrayType) and subtype.ranges is None:
                o.subtype = Subtype(subtype.type, [range_of(o.value, subtype.type)])
            self.emitter.live[o.py] = o.value
            self.add(name, o, node)
            return []
        self.add(name, o, node)
        return [t.Declare(node.pos, o, value)]

    def _global(self, o: Object, value: t.X | None) -> None:
        """A variable outside of all processes."""
        self._execute_live(f"{o.py} = {self.emitter.fitted(value, o.subtype) if value is not None else self.emitter.default(o.subtype)}", o.name)

    def _execute_live(self, text: str, name: str) -> None:
        try:
            self.emitter.execute(text + "\n", name, True)
        except RunError as error:
            self.collector.error("value", error.text, error.position)
        except NameError:
            self.collector.error("constant", f"`{name}` begins with a value that is not known before the run")

    def _files(self, d: ast.ObjectDecl, subtype: Subtype) -> list[t.Stmt]:
        if not isinstance(subtype.type, FileType):
            raise self.wrong("type", f"{subtype.shown} is no file type", d, "for instance text, of std.textio")
        name_x = self.expr(d.default, STRING) if d.default is not None else None
        mode = self.expr(d.mode, FILE_KIND) if d.mode is not None else None
        out: list[t.Stmt] = []
        for name, pos in d.names:
            o = Object(name, "file", subtype, pos, self.emitter.fresh("h"), of_process=self.owner, default=mode)
            self.add(name, o, ast.Node(pos, pos + len(name)))
            if self.owner is not None:
                out.append(t.Declare(pos, o, name_x))
                continue
            text = f"{o.py} = File()\n"
            if name_x is not None:
                text += f"R.open({o.py}, {self.emitter.value(name_x)}, {self.emitter.value(mode) if mode is not None else 0}, {pos})\n"
            self._execute_live(text, name)
        return out

    def _alias(self, d: ast.AliasDecl) -> None:
        found: Any = self.denote(d.target)
        if isinstance(found, Overloads):
            for f in found.found:
                self.scope.add(d.name, f)
            return
        if not isinstance(found, t.X):
            self.add(d.name, found, d)
            return
        target = found
        if d.subtype is not None:
            subtype = self.subtype(d.subtype)
            if isinstance(subtype.type, ArrayType) and subtype.ranges is not None:
                target = self._rebased(found, subtype, d)
        self.add(d.name, Alias(d.name, target, d.pos), d)

    def _rebased(self, found: t.X, subtype: Subtype, d: ast.AliasDecl) -> t.X:
        own = found.sub.ranges[0].known() if found.sub is not None and found.sub.ranges else None
        new = subtype.ranges[0].known() if subtype.ranges else None
        if new is None or own is None:
            return t.Qual(found.type, d.pos, found, subtype, sub=subtype) if new is not None and own is None else found
        if own == new:
            return found
        size = subtype.length()
        if size != static_length(found):
            raise self.wrong("width", f"the alias has {size} elements, what it names {static_length(found)}", d)
        sign = 1 if own[2] == new[2] else -1
        return t.AliasX(found.type, d.pos, found, new[0], own[0], sign, sub=subtype)

    def _attribute_spec(self, d: ast.AttributeSpec) -> None:
        found = [a for a in self.scope.find(d.name) if isinstance(a, AttributeName)]
        if not found:
            raise self.wrong("undeclared", f"the attribute `{d.name}` is not declared", d)
        value = self.expr(d.value, found[0].subtype.type, found[0].subtype)
        for entity in d.entities:
            found[0].values[entity] = value

    # Subprograms.

    def head(self, d: ast.SubprogramDecl) -> Subprogram:
        """A subprogram by its declaration alone."""
        params: list[Object] = []
        for p in d.params:
            subtype = self.subtype(p.subtype)
            kind: Any = p.kind or ("file" if isinstance(subtype.type, FileType) else "variable" if p.mode in ("out", "inout") else "constant")
            if isinstance(subtype.type, FileType):
                kind = "file"
            mode = p.mode or "in"
            default = None
            if p.default is not None:
                default = self.expr(p.default, subtype.type, subtype)
            if d.returns is not None and mode != "in":
                self.collector.error(
                    "mode", f"a function's parameter can only be `in`, not `{mode}`", p.pos, p.end, "use a procedure to give several values back"
                )
            params.append(Object(p.name, kind, subtype, p.pos, self.emitter.fresh("a"), mode, default=default, is_param=True))
        result = self._marked(d.returns) if d.returns is not None else None
        f = Subprogram(d.name, params, result, d.pos, self.emitter.fresh("f"), pure=d.pure, node=d, package=self.package, outer=self.subprogram)
        f.local = self.owner is not None
        return f

    def _subprogram(self, d: ast.SubprogramDecl) -> list[t.Stmt]:
        f = self.head(d)
        same = [k for k in self.scope.names.get(d.name, ()) if isinstance(k, Subprogram) and k.profile() == f.profile()]
        if d.body is None:
            f.native = self._native(f)
            if same:
                self.collector.error("redeclared", f"`{d.name}` with these parameters is declared a second time", d.pos, d.end)
                return []
            self.add(d.name, f, d)
            return []
        if same:
            if same[0].body is not None or same[0].analysed:
                self.collector.error("redeclared", f"`{d.name}` with these parameters is declared a second time", d.pos, d.end)
                return []
            declared = same[0]
            declared.params, declared.pure, declared.node = f.params, f.pure, f.node
            for new, old in zip(f.params, same[0].params, strict=True):
                new.default = new.default or old.default
            f = declared
        else:
            self.add(d.name, f, d)
        self._subprogram_body(f, d)
        if self.owner is not None:
            return [t.DeclareSub(d.pos, f)]
        self.pending.append(f)
        return []

    def _native(self, f: Subprogram) -> Callable[..., Any] | None:
        if not self.in_library:
            return None
        native = find_native(self.package, f.name, [p.subtype.type.name for p in f.params], f.result.type.name if f.result else "")
        if native is not None:
            f.foreign = False
        return native

    in_library: bool

    def _subprogram_body(self, f: Subprogram, d: ast.SubprogramDecl) -> None:
        outer_scope, outer_sub = self.scope, self.subprogram
        self.scope = Scope(outer_scope, d.name)
        self.subprogram = f
        f.analysed = True
        f.outer = outer_sub
        for p in f.params:
            p.of_process = f
            p.read_at = 0
            self.scope.add(p.name, p)
        try:
            f.decls = self.declare_all(d.decls)
            assert d.body is not None
            f.body = self.sequence(d.body)
        finally:
            self.scope, self.subprogram = outer_scope, outer_sub
        if f.is_function and not any(isinstance(s, t.ReturnS) for s in walk(f.body)):
            last = d.end - 1
            self.collector.error(
                "no-return", f"the function `{f.name}` never returns a value", d.pos, d.pos + 8 if last else d.end, "add a return statement"
            )

    def settle_waits(self, f: Subprogram, seen: set[int] | None = None) -> bool:
        """Whether calling a procedure can wait."""
        seen = seen if seen is not None else set()
        if f.waits or id(f) in seen or f.body is None:
            return f.waits
        seen.add(id(f))
        own = any(isinstance(s, t.WaitS) for s in walk(f.body))
        called = [s.procedure for s in walk(f.body) if isinstance(s, t.CallS)]
        f.waits = own or any(self.settle_waits(c, seen) for c in called)
        return f.waits

    def emit_pending(self) -> None:
        """Emit the subprograms of the region that ends here."""
        pending, self.pending = self.pending, []
        for f in pending:
            self.settle_waits(f)
        for f in pending:
            self.emit_subprogram(f)

    def emit_subprogram(self, f: Subprogram) -> None:
        if f.emitted or f.native is not None or f.body is None or f.local:
            return
        for d in walk_declared(f):
            self.settle_waits(d)
        self.emitter.subprogram(f)
        for c in f.calls:
            self.emit_subprogram(c)

    def emit_called(self, x: t.X) -> None:
        """Emit the user's functions that an expression needs."""
        for call in calls_in(x):
            self.settle_waits(call.function)
            self.emit_subprogram(call.function)

    # Resolution.

    def resolution(self, s: Subtype) -> Any:
        """How values of several drivers become one; in the form that `run.resolver` takes."""
        if s.resolution is not None:
            return "with", self._resolver_function(s.resolution, s.type)
        if isinstance(s.type, ArrayType):
            inner = self.resolution(s.element_subtype)
            return None if inner is None else ("each", inner)
        if isinstance(s.type, RecordType):
            specs = [self.resolution(field) for _, field in s.type.fields]
            return ("fields", specs) if any(spec is not None for spec in specs) else None
        return None

    def _resolver_function(self, f: Subprogram, resolved: Type) -> Callable[[list[Any]], Any]:
        if f.native is logic.resolve_array:
            return logic.resolve
        self.emit_subprogram(f)
        live, name = self.emitter.live, f.py
        array = f.params[0].subtype.type
        packed = isinstance(array, ArrayType) and array.packed
        del resolved

        def resolve(values: list[Any]) -> Any:
            return live[name](Arr(0, 1, elements(values, packed)))

        resolve.always = True  # type: ignore[attr-defined]
        return resolve


def walk_declared(f: Subprogram) -> list[Subprogram]:
    """Subprograms declared inside another."""
    found: list[Subprogram] = []
    for d in f.decls:
        if isinstance(d, t.DeclareSub):
            found.append(d.subprogram)
            found += walk_declared(d.subprogram)
    return found


def calls_in(x: t.X) -> list[t.Call]:
    """Every call inside an expression."""
    found: list[t.Call] = []
    for y in parts_of(x):
        if isinstance(y, t.Call):
            found.append(y)
    return found


def parts_of(x: t.X) -> list[t.X]:
    """An expression and all expressions inside it."""
    out: list[t.X] = [x]
    stack: list[t.X] = [x]
    while stack:
        for inner in children(stack.pop()):
            out.append(inner)
            stack.append(inner)
    return out


def children(x: t.X) -> list[t.X]:
    match x:
        case t.Index():
            return [x.prefix, *x.indices]
        case t.Slice():
            return [x.prefix, *_range_parts(x.range)]
        case t.Field() | t.Deref() | t.AliasX() | t.ArrayAttr():
            return [x.prefix]
        case t.Call():
            return [*x.args, *([x.receiver] if x.receiver is not None else [])]
        case t.Op():
            return list(x.args)
        case t.ArrayAgg():
            inner = [v for _, v, _ in x.items]
            for place, _, _ in x.items:
                inner += _range_parts(place) if isinstance(place, RangeX) else [place] if place is not None else []
            return inner + ([x.others] if x.others is not None else [])
        case t.RecordAgg():
            return list(x.values)
        case t.Convert() | t.Qual() | t.ScalarAttr():
            return [x.arg]
        case t.SignalAttr():
            return [x.target, *([x.arg] if x.arg is not None else [])]
        case t.NewX():
            return [x.value] if x.value is not None else []
    return []


def _range_parts(r: RangeX) -> list[t.X]:
    return [r.left, r.right, *([] if isinstance(r.down, bool) else [r.down])]


def range_of(value: Arr, array: Type) -> RangeX:
    """The bounds that an array value has."""
    assert isinstance(array, ArrayType)
    index = array.indices[0].type
    right = value.left + value.step * (len(value.v) - 1)
    return RangeX(t.Const(index, 0, value.left), t.Const(index, 0, right), value.step < 0)


def _width_hint(size: int, wanted: int, s: Subtype) -> str:
    if s.type.name in ("unsigned", "signed"):
        return f"resize(value, {wanted}) makes it fit"
    return 'add digits in front: "0" & value' if size < wanted else "take a slice of it"
