"""Declarations: what they add to a scope, and what a run has to set up for them (IEEE 1076 clauses 4 to 6)."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from obento.core.ir.part import RunError
from obento.core.limits import LimitReached
from obento.core.suggest import did_you_mean
from obento.core.vhdl.analysis.context import AnalysisError, Context
from obento.core.vhdl.analysis.expressions import Expressions
from obento.core.vhdl.analysis.inner_regions import InnerRegions, walk_declared
from obento.core.vhdl.analysis.meanings import Overloads
from obento.core.vhdl.analysis.names import Names, differs
from obento.core.vhdl.analysis.operators import static_length
from obento.core.vhdl.analysis.subexpressions import calls_in
from obento.core.vhdl.analysis.type_declarations import TypeDeclarations
from obento.core.vhdl.code.bodies import walk
from obento.core.vhdl.code.pieces import Piece
from obento.core.vhdl.model import nine_values as logic
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import (
    Alias,
    AttributeName,
    Component,
    LibraryName,
    Object,
    PackageName,
    Scope,
    Subprogram,
    TypeName,
)
from obento.core.vhdl.model.types import (
    ArrayType,
    FileType,
    ProtectedType,
    RangeX,
    RecordType,
    Subtype,
    Type,
    default_value,
)
from obento.core.vhdl.model.values import Arr, elements
from obento.core.vhdl.packages.natives import find_native
from obento.core.vhdl.packages.standard import BOOLEAN, FILE_KIND, STRING, TIME
from obento.core.vhdl.syntax import ast

_OBJECT_CLASSES = frozenset(["signal", "variable", "constant", "file"])


class Declarations:
    """Declares; `setup` collects what a run does before its processes begin."""

    def __init__(self, context: Context, names: Names, expressions: Expressions, types: TypeDeclarations) -> None:
        self.context = context
        self.names = names
        self.expressions = expressions
        self.types = types
        self.regions = InnerRegions(context, types, self)

    @property
    def owner(self) -> Any:
        """What variables declared here belong to; None outside of processes and subprograms."""
        return self.context.subprogram or self.context.process

    # The region.

    def declare_all(self, decls: Sequence[ast.Decl]) -> list[t.Stmt]:
        """Declare everything; gives what happens in a run where this stands in a process or subprogram."""
        out: list[t.Stmt] = []
        for d in decls:
            try:
                out += self._declare(d)
            except AnalysisError:
                self._placeholders(d)
        self.regions.bodies_given(decls)
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
            self.context.broken.add(name)

    def _declare(self, d: ast.Decl) -> list[t.Stmt]:
        match d:
            case ast.ObjectDecl():
                return self._objects(d)
            case ast.TypeDecl():
                self.types.type_of(d)
            case ast.SubtypeDecl():
                subtype = self.types.subtype(d.subtype)
                named = Subtype(subtype.type, subtype.ranges, subtype.resolution, subtype.element, d.name)
                self.types.add(d.name, TypeName(d.name, named, d.pos), d)
            case ast.AliasDecl():
                self._alias(d)
            case ast.Disconnect():
                self._disconnect(d)
            case ast.AttributeDecl():
                self.types.add(d.name, AttributeName(d.name, self.types.marked(d.mark)), d)
            case ast.AttributeSpec():
                self._attribute_spec(d)
            case ast.SubprogramDecl():
                return self._subprogram(d)
            case ast.ComponentDecl():
                self.types.add(d.name, Component(d.name, d, self.context.scope), d)
            case ast.UseClause():
                self.use(d)
            case ast.InnerPackage():
                return self.regions.package(d)
            case ast.ConfigSpec():
                self.context.instances.configure(d)
        return []

    # Use clauses.

    def use(self, d: ast.UseClause) -> None:
        """A use clause (12.4)."""
        for name in d.names:
            try:
                self._use(name)
            except AnalysisError:
                continue

    def _use(self, name: ast.Expr) -> None:
        if not isinstance(name, ast.Selected):
            raise self.context.wrong(
                "use", "a use clause names a package and what of it: ieee.std_logic_1164.all", name
            )
        prefix = self.names.denote(name.prefix)
        if isinstance(prefix, LibraryName) and name.suffix == "all":
            return  # units of a library are found by their names anyway
        if isinstance(prefix, LibraryName):
            package = self.context.packages.package_named(prefix.name, name.suffix, name)
            if package is not None:
                self.context.scope.names.setdefault(package.name, [package])
            return
        if not isinstance(prefix, PackageName):
            raise self.context.wrong("use", "this is no package", name.prefix)
        if name.suffix == "all":
            self.context.scope.uses.append((prefix.scope, None))
            return
        if name.suffix not in prefix.scope.names:
            hint = did_you_mean(name.suffix, prefix.scope.names)
            raise self.context.wrong("undeclared", f"the package `{prefix.name}` has no `{name.suffix}`", name, hint)
        self.context.scope.uses.append((prefix.scope, name.suffix))

    # Objects.

    def _objects(self, d: ast.ObjectDecl) -> list[t.Stmt]:
        subtype = self.types.subtype(d.subtype)
        if d.kind == "signal" and self.owner is not None:
            raise self.context.wrong(
                "misplaced",
                "a signal cannot be declared in a process or subprogram",
                d,
                "declare it in the architecture, or use a variable",
            )
        if d.kind == "variable" and self.owner is None:
            hint = "declare it inside the process, or use a signal"
            raise self.context.wrong(
                "misplaced", "a variable cannot be declared outside of processes and subprograms", d, hint
            )
        if isinstance(subtype.type, ProtectedType) and not subtype.type.make:
            raise self.context.wrong("no-body", f"the protected type `{subtype.shown}` has no body before this", d)
        if (
            d.kind == "constant"
            and d.default is None
            and (not self.context.package or self.context.in_body or self.owner is not None)
        ):
            raise self.context.wrong("constant", "a constant needs its value", d, "write := and the value")
        if d.kind == "file":
            return self._files(d, subtype)
        value = self.expressions.expr(d.default, subtype.type, subtype) if d.default is not None else None
        if isinstance(subtype.type, ArrayType) and subtype.ranges is None:
            subtype = self.from_value(subtype, value, d)
        self.check_width(value, subtype)
        out: list[t.Stmt] = []
        for name, pos in d.names:
            node = ast.Node(pos, pos + len(name))
            if d.kind == "signal":
                self.new_signal(name, subtype, value, node, d.guard)
            elif d.kind == "constant":
                out += self._constant(name, subtype, value, node)
                self._note_place(name)
            else:
                fresh, is_shared = self.context.emitter.fresh("v"), d.kind == "shared"
                o = Object(
                    name, "variable", subtype, pos, fresh, of_process=self.owner, shared=is_shared, default=value
                )
                self.types.add(name, o, node)
                if self.owner is not None:
                    out.append(t.Declare(pos, o, value))
                else:
                    self._global(o, value)
                    self._note_place(name)
        return out

    def _note_place(self, name: str) -> None:
        """What is declared in a unit of the hierarchy can be named from elsewhere (8.7)."""
        o = self.context.scope.names[name][0]
        if self.owner is None and not self.context.package and isinstance(o, Object):
            self.context.signals.note_place(o)

    def from_value(self, s: Subtype, value: t.Expr | None, d: ast.Node) -> Subtype:
        """An unconstrained array takes its bounds from its value, where it is constant."""
        if value is None:
            raise self.context.wrong(
                "unconstrained", f"{s.shown} needs its range here", d, "write for instance (7 downto 0)"
            )
        if isinstance(value, t.Const):
            return Subtype(s.type, [range_of(value.value, s.type)], s.resolution)
        if value.sub is not None and value.sub.ranges is not None:
            return Subtype(s.type, value.sub.ranges, s.resolution)
        return s

    def check_width(self, value: t.Expr | None, s: Subtype) -> None:
        """Lengths that cannot agree are said before anything runs."""
        if value is None or not isinstance(s.type, ArrayType) or len(s.type.indices) > 1:
            return
        size, wanted = static_length(value), s.length()
        if size is not None and wanted is not None and size != wanted:
            self.context.collector.error(
                "width",
                f"this is {size} elements wide, but {wanted} are needed",
                value.pos,
                None,
                _width_hint(size, wanted, s),
            )

    def protected(self, d: ast.TypeDecl, definition: ast.ProtectedDef) -> None:
        """A protected type."""
        self.regions.protected(d, definition)

    def new_signal(self, name: str, subtype: Subtype, value: t.Expr | None, node: ast.Node, guard: str = "") -> Object:
        """Declare a signal, and have the run set it up."""
        if not subtype.static():
            raise self.context.wrong("constant", "the range of a signal must be constant", node)
        o = Object(name, "signal", subtype, node.pos, self.context.emitter.fresh("s"), guard=guard)
        o.value = self.first_value(value, subtype)
        o.default = value
        self.types.add(name, o, node)
        self.set_up_signal(o)
        return o

    def first_value(self, value: t.Expr | None, subtype: Subtype) -> Any:
        """The value that a signal begins with."""
        if value is None:
            return default_value(subtype)
        return self.worked_out(value, subtype)

    def set_up_signal(self, o: Object) -> None:
        """Have the run make a signal before anything uses it."""
        self.context.setup.append(
            f"{o.py} = R.signal({o.name!r}, {self.context.emitter.constant(o.value)},"
            f" {self.context.emitter.keep(self.resolution(o.subtype))})"
        )
        self.context.signals.note_signal(o)

    def computed(self, x: t.Expr) -> Any:
        """The value of an expression without signals and variables, computed now."""
        self.emit_called(x)
        return self.context.emitter.evaluate(x)

    def worked_out(self, value: t.Expr, subtype: Subtype) -> Any:
        """The value of a constant expression, fitted."""
        self.emit_called(value)
        try:
            return self.context.emitter.evaluate_fitted(value, subtype)
        except RunError as error:
            self.context.collector.error("value", error.text, error.position or value.pos)
        except LimitReached as limit:
            self.context.collector.error("limit", limit.text, limit.position or value.pos, None, limit.hint)
        except RecursionError:
            self.context.collector.error("limit", "this calls itself too deep", value.pos)
        except NameError:
            self.context.collector.error("constant", "this value is not known before the run", value.pos)
        raise AnalysisError

    def _constant(self, name: str, subtype: Subtype, value: t.Expr | None, node: ast.Node) -> list[t.Stmt]:
        known = self.context.scope.names.get(name)
        if known and isinstance(known[0], Object) and known[0].implicit and value is not None:
            o = known[0]  # the full declaration of a deferred constant
            o.implicit = False
            del self.context.scope.names[name]
        else:
            o = Object(name, "constant", subtype, node.pos, self.context.emitter.fresh("c"), of_process=self.owner)
        if value is None:
            o.implicit = True
            self.types.add(name, o, node)
            return []
        if isinstance(value, t.Const) or self.owner is None:
            o.value = self.worked_out(value, subtype)
            o.known = True
            if isinstance(subtype.type, ArrayType) and subtype.ranges is None:
                o.subtype = Subtype(subtype.type, [range_of(o.value, subtype.type)])
            self.context.emitter.live[o.py] = o.value
            self.types.add(name, o, node)
            return []
        self.types.add(name, o, node)
        return [t.Declare(node.pos, o, value)]

    def _global(self, o: Object, value: t.Expr | None) -> None:
        """A variable outside of all processes."""
        emitter = self.context.emitter
        emitter.keeps_state = True
        given = emitter.fitted(value, o.subtype) if value is not None else emitter.default(o.subtype)
        self._execute_live(f"{o.py} = {given}", o.name)

    def _execute_live(self, text: str, name: str) -> None:
        try:
            self.context.emitter.execute(Piece(text + "\n", name), True)
        except RunError as error:
            self.context.collector.error("value", error.text, error.position)
        except NameError:
            self.context.collector.error("constant", f"`{name}` begins with a value that is not known before the run")

    def _files(self, d: ast.ObjectDecl, subtype: Subtype) -> list[t.Stmt]:
        if not isinstance(subtype.type, FileType):
            raise self.context.wrong("type", f"{subtype.shown} is no file type", d, "for instance text, of std.textio")
        name_x = self.expressions.expr(d.default, STRING) if d.default is not None else None
        mode = self.expressions.expr(d.mode, FILE_KIND) if d.mode is not None else None
        out: list[t.Stmt] = []
        for name, pos in d.names:
            o = Object(name, "file", subtype, pos, self.context.emitter.fresh("h"), of_process=self.owner, default=mode)
            self.types.add(name, o, ast.Node(pos, pos + len(name)))
            if self.owner is not None:
                out.append(t.Declare(pos, o, name_x))
                continue
            self.context.emitter.keeps_state = True
            text = f"{o.py} = File()\n"
            if name_x is not None:
                text += (
                    f"R.open({o.py}, {self.context.emitter.value(name_x)},"
                    f" {self.context.emitter.value(mode) if mode is not None else 0}, {pos})\n"
                )
            self._execute_live(text, name)
        return out

    def _alias(self, d: ast.AliasDecl) -> None:
        found: Any = self.names.denote(d.target)
        if isinstance(found, Overloads):
            for f in found.found:
                self.context.scope.add(d.name, f)
            return
        if not isinstance(found, t.Expr):
            self.types.add(d.name, found, d)
            return
        target = found
        if d.subtype is not None:
            subtype = self.types.subtype(d.subtype)
            if isinstance(subtype.type, ArrayType) and subtype.ranges is not None:
                target = self._rebased(found, subtype, d)
        self.types.add(d.name, Alias(d.name, target, d.pos), d)

    def _disconnect(self, d: ast.Disconnect) -> None:
        """How long guarded signals go on holding what their guard no longer lets through (5.3); in femtoseconds."""
        subtype, after = self.types.subtype(d.mark), self.expressions.expr(d.after, TIME)
        if not isinstance(after, t.Const):
            raise self.context.wrong("constant", "the time of a disconnection must be constant", d.after)
        signals = [
            o
            for declared in self.context.scope.names.values()
            for o in declared
            if isinstance(o, Object) and o.guard and not o.disconnect
        ]
        if d.names:
            signals = []
            for name, pos in d.names:
                found = next((o for o in self.context.scope.find(name) if isinstance(o, Object) and o.guard), None)
                if found is None:
                    hint = "only signals that are declared `bus` or `register` are guarded"
                    raise self.context.wrong(
                        "disconnect", f"`{name}` is no guarded signal", ast.Node(pos, pos + len(name)), hint
                    )
                signals.append(found)
        for o in signals:
            if o.subtype.type is subtype.type:
                o.disconnect = after.value

    def _rebased(self, found: t.Expr, subtype: Subtype, d: ast.AliasDecl) -> t.Expr:
        """An array under the bounds that an alias gives it (4.3.3.1)."""
        assert isinstance(found.type, ArrayType) and subtype.ranges
        own = found.sub.ranges[0] if found.sub is not None and found.sub.ranges else self._range_in_the_run(found)
        new = subtype.ranges[0]
        if own.known() is not None and own.known() == new.known():
            return found
        size, wanted = subtype.length(), static_length(found)
        if size is not None and wanted is not None and size != wanted:
            raise self.context.wrong("width", f"the alias has {size} elements, what it names {wanted}", d)
        return t.AliasOf(found.type, d.pos, found, own, new, differs(own.down, new.down, d.pos), sub=subtype)

    @staticmethod
    def _range_in_the_run(x: t.Expr) -> RangeX:
        """The range of an array whose bounds are only known in the run."""
        assert isinstance(x.type, ArrayType)
        index = x.type.indices[0].type
        left, right = (t.ArrayAttr(index, x.pos, name, x, 0) for name in ("left", "right"))
        return RangeX(left, right, t.ArrayAttr(BOOLEAN, x.pos, "descending", x, 0))

    def _attribute_spec(self, d: ast.AttributeSpec) -> None:
        found = [a for a in self.context.scope.find(d.name) if isinstance(a, AttributeName)]
        if not found:
            raise self.context.wrong("undeclared", f"the attribute `{d.name}` is not declared", d)
        value = self.expressions.expr(d.value, found[0].subtype.type, found[0].subtype)
        for entity in d.entities:
            named = next((o for o in self.context.scope.find(entity) if isinstance(o, Object)), None)
            if named is not None and d.entity_class in _OBJECT_CLASSES and named.kind != d.entity_class:
                raise self.context.wrong("attribute", f"`{entity}` is a {named.kind}, not a {d.entity_class}", d)
            found[0].values[entity] = value

    # Subprograms.

    def head(self, d: ast.SubprogramDecl) -> Subprogram:
        """A subprogram by its declaration alone."""
        params: list[Object] = []
        for p in d.params:
            subtype = self.types.subtype(p.subtype)
            kind: Any = p.kind or (
                "file"
                if isinstance(subtype.type, FileType)
                else "variable"
                if p.mode in ("out", "inout")
                else "constant"
            )
            if isinstance(subtype.type, FileType):
                kind = "file"
            mode = p.mode or "in"
            default = None
            if p.default is not None:
                default = self.expressions.expr(p.default, subtype.type, subtype)
            if d.returns is not None and mode != "in":
                self.context.collector.error(
                    "mode",
                    f"a function's parameter can only be `in`, not `{mode}`",
                    p.pos,
                    p.end,
                    "use a procedure to give several values back",
                )
            params.append(
                Object(
                    p.name, kind, subtype, p.pos, self.context.emitter.fresh("a"), mode, default=default, is_param=True
                )
            )
        result = self.types.marked(d.returns) if d.returns is not None else None
        f = Subprogram(
            d.name,
            params,
            result,
            d.pos,
            self.context.emitter.fresh("f"),
            pure=d.pure,
            node=d,
            package=self.context.package,
            outer=self.context.subprogram,
        )
        f.local = self.owner is not None
        return f

    def _subprogram(self, d: ast.SubprogramDecl) -> list[t.Stmt]:
        f = self.head(d)
        same = [
            k
            for k in self.context.scope.names.get(d.name, ())
            if isinstance(k, Subprogram) and k.profile() == f.profile()
        ]
        if d.body is None:
            f.native = self._native(f)
            if same:
                self.context.collector.error(
                    "redeclared", f"`{d.name}` with these parameters is declared a second time", d.pos, d.end
                )
                return []
            self.types.add(d.name, f, d)
            return []
        if same:
            if same[0].body is not None or same[0].analysed:
                self.context.collector.error(
                    "redeclared", f"`{d.name}` with these parameters is declared a second time", d.pos, d.end
                )
                return []
            declared = same[0]
            declared.params, declared.pure, declared.node = f.params, f.pure, f.node
            for new, old in zip(f.params, same[0].params, strict=True):
                new.default = new.default or old.default
            f = declared
        else:
            self.types.add(d.name, f, d)
        self._subprogram_body(f, d)
        if self.owner is not None:
            return [t.DeclareSub(d.pos, f)]
        self.context.pending.append(f)
        return []

    def _native(self, f: Subprogram) -> Callable[..., Any] | None:
        if not self.context.in_library:
            return None
        native = find_native(
            self.context.package,
            f.name,
            [p.subtype.type.name for p in f.params],
            f.result.type.name if f.result else "",
        )
        if native is not None:
            f.foreign = False
        return native

    def _subprogram_body(self, f: Subprogram, d: ast.SubprogramDecl) -> None:
        f.analysed = True
        f.outer = self.context.subprogram
        inside = Scope(self.context.scope, d.name)
        for p in f.params:
            p.of_process = f
            p.read_at = 0
            inside.add(p.name, p)
        with self.context.aside(scope=inside, subprogram=f):
            f.decls = self.declare_all(d.decls)
            assert d.body is not None
            f.body = self.context.bodies.sequence(d.body)
        if f.is_function and not any(isinstance(s, t.Return) for s in walk(f.body)):
            last = d.end - 1
            self.context.collector.error(
                "no-return",
                f"the function `{f.name}` never returns a value",
                d.pos,
                d.pos + 8 if last else d.end,
                "add a return statement",
            )

    def settle_waits(self, f: Subprogram, seen: set[int] | None = None) -> bool:
        """Whether calling a procedure can wait."""
        seen = seen if seen is not None else set()
        if f.waits or id(f) in seen or f.body is None:
            return f.waits
        seen.add(id(f))
        own = any(isinstance(s, t.Wait) for s in walk(f.body))
        called = [s.procedure for s in walk(f.body) if isinstance(s, t.CallProcedure)]
        f.waits = own or any(self.settle_waits(c, seen) for c in called)
        return f.waits

    def emit_pending(self) -> None:
        """Emit the subprograms of the region that ends here."""
        pending, self.context.pending = self.context.pending, []
        for f in pending:
            self.settle_waits(f)
        for f in pending:
            self.emit_subprogram(f)

    def emit_subprogram(self, f: Subprogram) -> None:
        """Emit a subprogram of the user with all that it calls, once."""
        if f.emitted or f.native is not None or f.body is None or f.local:
            return
        for d in walk_declared(f):
            self.settle_waits(d)
        self.context.emitter.subprogram(f)
        for c in f.calls:
            self.emit_subprogram(c)

    def emit_called(self, x: t.Expr) -> None:
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
            spec = self.resolution(s.element_subtype)
            if spec is not None:
                for _ in s.type.indices:
                    spec = ("each", spec)
            return spec
        if isinstance(s.type, RecordType):
            specs = [self.resolution(field) for _, field in s.fields]
            return ("fields", specs) if any(spec is not None for spec in specs) else None
        return None

    def _resolver_function(self, f: Subprogram, resolved: Type) -> Callable[[list[Any]], Any]:
        if f.native is logic.resolve_array:
            return logic.resolve
        self.emit_subprogram(f)
        live, name = self.context.emitter.live, f.py
        array = f.params[0].subtype.type
        packed = isinstance(array, ArrayType) and array.packed
        del resolved

        def resolve(values: list[Any]) -> Any:
            return live[name](Arr(0, 1, elements(values, packed)))

        resolve.always = True  # type: ignore[attr-defined]
        return resolve


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
