"""Reading declarations (IEEE 1076 clauses 4 to 7)."""

from __future__ import annotations

from typing import Literal

from obento.core.syntax.stream import SyntaxProblem
from obento.core.vhdl.syntax import ast
from obento.core.vhdl.syntax.statements import Statements

_DECLARE = frozenset(
    [
        "signal",
        "variable",
        "constant",
        "shared",
        "file",
        "type",
        "subtype",
        "alias",
        "attribute",
        "function",
        "procedure",
        "pure",
        "impure",
        "component",
        "use",
        "for",
        "disconnect",
        "group",
        "package",
    ]
)


_UNIT_WORDS = frozenset(["architecture", "entity", "package", "configuration"])


class MissingBegin(SyntaxProblem):
    """Statements follow declarations without `begin`; reported, to be read on as if it were there."""


class Declarations(Statements):
    """The part of the parser that reads what is declared."""

    begin_forgiven = False

    def begin(self) -> bool:
        """`begin`, or the place where its lack has been reported."""
        forgiven, self.begin_forgiven = self.begin_forgiven, False
        return forgiven or self.accept("begin")

    def declarations(self, *ends: str) -> list[ast.Decl]:
        """Declarations up to one of the words `ends`; goes on after mistakes."""
        found: list[ast.Decl] = []
        while not self.is_at(*ends) and self.kind != "e":
            before = self.at
            try:
                found += self._declaration()
            except MissingBegin:
                self.begin_forgiven = True
                break
            except SyntaxProblem:
                self._recover_declaration(before)
                if self._is_lost():
                    break
        return found

    def _recover_declaration(self, before: int) -> None:
        if self.at == before:
            self.at += self.kind != "e"
        while self.kind != "e":
            if self.kinds[self.at - 1] == "o" and self.texts[self.at - 1] == ";":
                return
            if (
                self.kind == "k"
                and self.newline_before[self.at]
                and (self.text in _DECLARE or self.text in ("begin", "end"))
            ):
                return
            if self._is_lost():
                return
            self.at += 1

    def _declaration(self) -> list[ast.Decl]:
        start = self.start
        word = self.text if self.kind == "k" else ""
        match word:
            case "signal" | "variable" | "constant" | "file":
                self.at += 1
                return [self._object(start, word)]
            case "shared":
                self.at += 1
                self.expect("variable", "after `shared`")
                return [self._object(start, "shared")]
            case "type":
                return [self._type()]
            case "subtype":
                self.at += 1
                name = self.name_here("the subtype's name")
                self.expect("is", "after the subtype's name")
                subtype = self.subtype()
                self.expect(";", "after this subtype")
                return [ast.SubtypeDecl(start, self.previous_end, name, subtype)]
            case "alias":
                return [self._alias()]
            case "attribute":
                return [self._attribute()]
            case "function" | "procedure" | "pure" | "impure":
                return [self._subprogram()]
            case "component":
                return [self._component()]
            case "use":
                return [self.use_clause()]
            case "for":
                return [self._config_spec()]
            case "package":
                return [self._inner_package()]
            case "disconnect":
                return [self._disconnect()]
            case "group":
                while not self.accept(";") and self.kind != "e":
                    self.at += 1
                return []
            case "process" | "if" | "case" | "with" | "generate":
                self.fail(
                    "missing-begin", f"`begin` is missing before `{word}`", "statements stand between `begin` and `end`"
                )
                raise MissingBegin
        if self.kind in "ix" and self.texts[self.at + 1] in ("<=", ":="):
            at = self.previous_end
            self.collector.error(
                "missing-begin",
                "`begin` is missing before the first statement",
                at,
                at,
                "statements stand between `begin` and `end`",
            )
            raise MissingBegin
        if self.kind in "ix" and self.texts[self.at + 1] in (":", ","):
            raise self.fail(
                "missing-kind",
                f"`{self.text}` is declared as what?",
                "write signal, variable or constant before the name",
            )
        if self.text == "view" and self.kind == "i":
            problem = self.later_edition("view")
            while self.kind != "e" and not (self.texts[self.at - 1] == "end" and self.text == "view"):
                self.at += 1
            raise problem
        if self.kind == "i":
            self._check_foreign_word()
            raise self.fail("unexpected", f"{self.describe()} begins no declaration", self.keyword_hint(self.text))
        raise self.fail("unexpected", f"{self.describe()} begins no declaration")

    def _object(self, start: int, kind: str) -> ast.ObjectDecl:
        names = self._names(f"the {'variable' if kind == 'shared' else kind}'s name")
        self.expect(":", "between name and type")
        subtype = self.subtype()
        guard, mode, default = "", None, None
        if kind == "signal" and self.is_at("bus", "register"):
            guard = self.text
            self.at += 1
        if kind == "file":
            if self.accept("open"):
                mode = self.expression()
            if self.accept("is"):
                if self.is_at("in", "out"):  # the form of 1987
                    way = "read_mode" if self.text == "in" else "write_mode"
                    mode = ast.Id(self.start, self.ends[self.at], way)
                    self.at += 1
                default = self.expression()
        elif self.accept(":="):
            default = self.expression()
        elif self.is_at("<=", "="):
            raise self.fail("initial-sign", f"an initial value is given with `:=`, not `{self.text}`")
        self.expect(";", "after this declaration")
        which: Literal["signal", "variable", "shared", "constant", "file"] = kind  # type: ignore[assignment]
        return ast.ObjectDecl(start, self.previous_end, which, names, subtype, default, mode, guard)

    def _names(self, what: str) -> list[tuple[str, int]]:
        names = [(self.name_here(what), self.starts[self.at - 1])]
        while self.accept(","):
            names.append((self.name_here(what), self.starts[self.at - 1]))
        return names

    # Types.

    def _type(self) -> ast.TypeDecl:
        start = self.start
        self.at += 1
        name = self.name_here("the type's name")
        if self.accept(";"):
            return ast.TypeDecl(start, self.previous_end, name, None)
        self.expect("is", "after the type's name")
        definition = self._definition()
        self.expect(";", "after this type")
        return ast.TypeDecl(start, self.previous_end, name, definition)

    def _definition(
        self,
    ) -> (
        ast.EnumDef
        | ast.RangeDef
        | ast.PhysicalDef
        | ast.ArrayDef
        | ast.RecordDef
        | ast.AccessDef
        | ast.FileDef
        | ast.ProtectedDef
    ):
        start = self.start
        if self.is_at("("):
            return self._enumeration()
        if self.accept("range"):
            found = self._range()
            if self.accept("units"):
                return self._physical(start, found)
            return ast.RangeDef(start, self.previous_end, found)
        if self.accept("array"):
            return self._array(start)
        if self.accept("record"):
            return self._record(start)
        if self.accept("access"):
            return ast.AccessDef(start, self.previous_end, self.subtype())
        if self.accept("file"):
            self.expect("of", "after `file`")
            return ast.FileDef(start, self.previous_end, self.type_mark())
        if self.accept("protected"):
            is_body = self.accept("body")
            items = self.declarations("end")
            self.expect("end", "after the protected type")
            self.expect("protected", "after `end`")
            if is_body:
                self.accept("body")
            if self.kind in "ix":
                self.at += 1
            return ast.ProtectedDef(start, self.previous_end, items, is_body)
        hint = "use `subtype` for a part of an existing type" if self.kind == "i" else ""
        raise self.fail("type-form", f"{self.describe()} begins no type", hint)

    def _enumeration(self) -> ast.EnumDef:
        start = self.start
        self.at += 1
        literals: list[tuple[str, int]] = []
        while True:
            if self.kind == "c":
                literals.append((self.text, self.start))
                self.at += 1
            else:
                literals.append((self.name_here("a value of the enumeration"), self.starts[self.at - 1]))
            if not self.accept(","):
                break
        self.close_bracket(start)
        return ast.EnumDef(start, self.previous_end, literals)

    def _physical(self, start: int, found: ast.Expr) -> ast.PhysicalDef:
        primary = self.name_here("the first unit")
        self.expect(";", "after the first unit")
        units: list[tuple[str, int | float, str, int]] = []
        while not self.is_at("end"):
            at = self.start
            name = self.name_here("a unit")
            self.expect("=", "between the unit and what it is")
            value: int | float = 1
            if self.kind == "n":
                value = self.number_value(self.text, self.start)
                self.at += 1
            units.append((name, value, self.name_here("a unit"), at))
            self.expect(";", "after this unit")
        self.expect("end", "after the units")
        self.expect("units", "after `end`")
        if self.kind in "ix":
            self.at += 1
        return ast.PhysicalDef(start, self.previous_end, found, primary, units)

    def _array(self, start: int) -> ast.ArrayDef:
        open_at = self.start
        self.expect("(", "after `array`", "for instance: array (0 to 7) of std_logic")
        indices: list[ast.Expr | ast.SubtypeInd] = []
        unconstrained = False
        while True:
            found = self._index_range()
            if isinstance(found, ast.SubtypeInd) and found.ranges and isinstance(found.ranges[0], ast.Box):
                unconstrained = True
            indices.append(found)
            if not self.accept(","):
                break
        self.close_bracket(open_at)
        self.expect("of", "after the index range")
        return ast.ArrayDef(start, self.previous_end, indices, unconstrained, self.subtype())

    def _record(self, start: int) -> ast.RecordDef:
        fields: list[tuple[str, int, ast.SubtypeInd]] = []
        while not self.is_at("end") and self.kind != "e":
            names = self._names("a field's name")
            self.expect(":", "between the field and its type")
            subtype = self.subtype()
            self.expect(";", "after this field")
            fields += [(name, at, subtype) for name, at in names]
        self.expect("end", "after the fields")
        self.expect("record", "after `end`")
        if self.kind in "ix":
            self.at += 1
        return ast.RecordDef(start, self.previous_end, fields)

    # Others.

    def _disconnect(self) -> ast.Disconnect:
        start = self.start
        self.at += 1
        names: list[tuple[str, int]] = []
        if not self.accept("others") and not self.accept("all"):
            while True:
                at = self.start
                names.append((self.name_here("the signal"), at))
                if not self.accept(","):
                    break
        self.expect(":", "between the signals and their type")
        mark = self.subtype()
        self.expect("after", "before the time")
        after = self.expression()
        self.expect(";", "after this disconnection")
        return ast.Disconnect(start, self.previous_end, names, mark, after)

    def later_edition(self, word: str) -> SyntaxProblem:
        """Something of VHDL-2019, by its word."""
        return self.fail("unsupported", f"`{word}` here is VHDL-2019, which is not read", "write it as in VHDL-2008")

    def _inner_package(self) -> ast.InnerPackage:
        """A package inside of another unit, or the body of one."""
        start = self.start
        self.at += 1
        is_body = self.accept("body")
        name = self.name_here("the package's name")
        self.expect("is", "after the package's name")
        if self.is_at("new", "generic"):
            raise self.fail("unsupported", "packages with generics are not read here")
        decls = self.declarations("end")
        self.expect("end", "at the end of this package")
        if self.accept("package"):
            self.accept("body")
        if self.kind in "ix":
            self.name_here("the package's name")
        self.expect(";", "after this package")
        return ast.InnerPackage(start, self.previous_end, name, decls, is_body)

    def _alias(self) -> ast.AliasDecl:
        start = self.start
        self.at += 1
        if self.kind == "s" or self.kind == "c":
            name = self.text.lower() if self.kind == "s" else self.text
            self.at += 1
        else:
            name = self.name_here("the alias")
        subtype = self.subtype() if self.accept(":") else None
        self.expect("is", "in this alias")
        self.pending_signature = None
        target = self.name()
        signature, self.pending_signature = self.pending_signature, None
        self.expect(";", "after this alias")
        return ast.AliasDecl(start, self.previous_end, name, subtype, target, signature)

    def _attribute(self) -> ast.AttributeDecl | ast.AttributeSpec:
        start = self.start
        self.at += 1
        name = self.name_here("the attribute's name")
        if self.accept(":"):
            mark = self.type_mark()
            self.expect(";", "after this attribute")
            return ast.AttributeDecl(start, self.previous_end, name, mark)
        self.expect("of", "after the attribute's name")
        entities: list[str] = []
        while True:
            entities.append(self.text.lower())
            self.at += 1
            if self.is_at("["):
                self.signature()
            if not self.accept(","):
                break
        self.expect(":", "after the names")
        entity_class = self.text
        self.at += 1
        self.expect("is", "after the kind of thing")
        value = self.expression()
        self.expect(";", "after this attribute")
        return ast.AttributeSpec(start, self.previous_end, name, entities, entity_class, value)

    def _subprogram(self) -> ast.SubprogramDecl:
        start = self.start
        pure = not self.is_at("impure")
        if self.is_at("pure", "impure"):
            self.at += 1
        is_function = self.is_at("function")
        if not is_function and not self.is_at("procedure"):
            raise self.fail("missing", f"`function` or `procedure` is missing before {self.describe()}")
        self.at += 1
        if self.kind == "s":
            name = self.text.lower()
            self.at += 1
        else:
            name = self.name_here("the subprogram's name")
        if self.accept("generic"):
            raise self.fail("unsupported", "subprograms with generics are not read here")
        self.accept("parameter")
        params = self.interface_list("constant" if is_function else "", "a parameter") if self.is_at("(") else []
        returns = None
        if is_function:
            self.expect("return", "after the function's parameters", "a function says its type: return integer")
            returns = self.type_mark()
        elif self.is_at("return"):
            raise self.fail(
                "procedure-return", "a procedure returns nothing", "write function, or use an out parameter"
            )
        found = ast.SubprogramDecl(start, self.previous_end, name, params, returns, pure)
        if self.accept(";"):
            return found
        self.expect("is", "after the subprogram's head")
        if self.is_at("new"):
            raise self.fail("unsupported", "subprograms with generics are not read here")
        found.decls = self.declarations("begin", "end")
        self.expect("begin", "before the subprogram's statements")
        found.body = self.sequence("end")
        self._end_of("function" if is_function else "procedure", name, start)
        return found

    def _end_of(self, word: str, name: str, start: int, needs_word: bool = False) -> None:
        """`end [word] [name];`."""
        if self.is_at("end") and word not in _UNIT_WORDS and self.texts[self.at + 1] in _UNIT_WORDS:
            at = self.previous_end
            text = f"`end {word};` is missing before `end {self.texts[self.at + 1]}`"
            self.collector.error("missing-end", text, at, at, f"the {word} began at line {self.line_of(start)}")
            return
        if not self.accept("end"):
            text = f"`end {word};` is missing before {self.describe()}"
            at = self.previous_end
            raise self.fail("missing-end", text, f"the {word} began at line {self.line_of(start)}", at, at)
        if not self.accept(word) and (needs_word or self.kind == "k"):
            at = self.previous_end
            text = (
                f"`end {word};` is expected here, not `end {self.text}`"
                if not self.is_at(";")
                else f"`{word}` is missing: write `end {word};`"
            )
            self.collector.error("bare-end", text, at, self.ends[self.at])
            if self.kind == "k":
                self.at += 1
        if self.accept("body"):
            pass
        if self.kind in "ixs":
            if self.text.lower() != name:
                self.collector.error(
                    "end-name",
                    f"this ends `{self.text}`, but the {word} here is called `{name or 'nothing'}`",
                    self.start,
                    self.ends[self.at],
                )
            self.at += 1
        self.expect(";", f"after `end {word}`")

    def interface_list(self, kind: str, what: str) -> list[ast.Interface]:
        """`(name, name : mode subtype := default; ...)`."""
        open_at = self.start
        self.expect("(", "before the list")
        found: list[ast.Interface] = []
        if self.is_at(")"):
            raise self.fail("empty-list", "this list is empty", "leave it out altogether")
        while True:
            found += self._interface(kind, what)
            if self.accept(";"):
                if self.is_at(")"):
                    at = self.starts[self.at - 1]
                    self.collector.error(
                        "extra-semicolon", "no `;` after the last one before `)`", at, at + 1, "take this `;` out"
                    )
                    break
                if self.is_at("end", "begin", "architecture") and self.kind == "k":
                    text = "`)` is missing: this list is never closed"
                    raise self.fail("missing", text, "the last one is followed by `);`", open_at, open_at + 1)
                continue
            break
        if self.is_at(","):
            raise self.fail("comma", f"{what.removeprefix('a ')}s are parted by `;`, not `,`")
        if not self.is_at(")"):
            at = self.previous_end
            if self.kind in "ix" or self.is_at("signal", "constant", "variable", "file"):
                raise self.fail("missing-semicolon", f"`;` is missing after this {what.removeprefix('a ')}", "", at, at)
            if self.is_at("end", "is", "begin", "port", "generic") or self.kind == "e":
                raise self.fail("missing", "`)` is missing: this list is never closed", "", open_at, open_at + 1)
        self.close_bracket(open_at)
        return found

    def _interface(self, kind: str, what: str) -> list[ast.Interface]:
        given = ""
        if self.is_at("signal", "variable", "constant", "file"):
            given = self.text
            self.at += 1
        elif self.is_at("type", "function", "procedure", "package"):
            raise self.fail("unsupported", f"generics of kind `{self.text}` are not read here")
        names = self._names(f"{what}'s name")
        self.expect(":", "between name and type")
        mode = ""
        if self.text == "view" and self.kind == "i" and self.kinds[self.at + 1] in "ix":
            raise self.later_edition("view")
        if self.is_at("in", "out", "inout", "buffer", "linkage"):
            mode = self.text
            self.at += 1
        elif self.kind == "i" and self.text in ("input", "output"):
            raise self.fail(
                "foreign", f"`{self.text}` is no word of VHDL", "write in" if self.text == "input" else "write out"
            )
        subtype = self.subtype()
        if self.accept("bus"):
            pass
        default = self.expression() if self.accept(":=") else None
        if self.is_at("<="):
            raise self.fail("initial-sign", "a default value is given with `:=`, not `<=`")
        return [ast.Interface(at, at + len(name), name, given or kind, mode, subtype, default) for name, at in names]

    def _component(self) -> ast.ComponentDecl:
        start = self.start
        self.at += 1
        name = self.name_here("the component's name")
        self.accept("is")
        generics, ports = self.generics_and_ports()
        self._end_of("component", name, start, needs_word=True)
        return ast.ComponentDecl(start, self.previous_end, name, generics, ports)

    def generics_and_ports(self) -> tuple[list[ast.Interface], list[ast.Interface]]:
        """The generic and port clauses that stand here."""
        generics: list[ast.Interface] = []
        ports: list[ast.Interface] = []
        if self.accept("generic"):
            generics = self.interface_list("constant", "a generic")
            self.expect(";", "after the generics")
        if self.accept("port"):
            if not self.is_at("("):
                raise self.fail("missing", f"`(` is missing after `port`, before {self.describe()}")
            ports = self.interface_list("signal", "a port")
            self.expect(";", "after the ports")
        elif self.kind == "i" and self.text in ("ports", "prot", "por"):
            raise self.fail("unknown-word", f"`{self.text}` is no word of VHDL", "did you mean `port`?")
        return generics, ports

    def use_clause(self) -> ast.UseClause:
        """A use clause (12.4)."""
        start = self.start
        self.at += 1
        names = [self.name()]
        while self.accept(","):
            names.append(self.name())
        self.expect(";", "after this use clause")
        return ast.UseClause(start, self.previous_end, names)

    # Configurations.

    def _config_spec(self) -> ast.ConfigSpec:
        spec = self.config_item(nested=False)
        if isinstance(spec, ast.BlockConfig):
            raise self.fail(
                "unexpected",
                "a component is missing in this configuration",
                "write: for all : name use entity work.name;",
            )
        return spec

    def config_item(self, nested: bool = True) -> ast.ConfigSpec | ast.BlockConfig:
        """`for labels : component ... end for;` or `for block ... end for;`."""
        start = self.start
        self.expect("for", "here")
        labels: list[str] = []
        while True:
            if self.is_at("all", "others"):
                labels.append(self.text)
                self.at += 1
            else:
                labels.append(self.name_here("a label"))
            if not self.accept(","):
                break
        if self.is_at("(") and len(labels) == 1:  # a generate with an index
            self._bracketed()
        if not self.accept(":"):
            items: list[ast.ConfigSpec | ast.BlockConfig] = []
            while self.is_at("for", "use"):
                if self.is_at("use"):
                    self.use_clause()
                else:
                    items.append(self.config_item())
            self._end_for()
            return ast.BlockConfig(start, self.previous_end, labels[0], items)
        component = self.type_mark()
        binding: ast.Binding | None = None
        if self.is_at("use"):
            binding = self._binding()
            self.expect(";", "after this binding")
        inner: ast.BlockConfig | None = None
        while nested and self.is_at("for"):
            found = self.config_item()
            if isinstance(found, ast.BlockConfig):
                inner = found
        if self.is_at("end"):
            self._end_for()
        return ast.ConfigSpec(start, self.previous_end, labels, component, binding, inner)

    def _end_for(self) -> None:
        self.expect("end", "after this configuration")
        self.expect("for", "after `end`")
        self.expect(";", "after `end for`")

    def _binding(self) -> ast.Binding:
        start = self.start
        self.expect("use", "here")
        entity = configuration = None
        architecture = ""
        if self.accept("entity"):
            entity = self.type_mark()
            if self.accept("("):
                architecture = self.name_here("the architecture's name")
                self.expect(")", "after the architecture's name")
        elif self.accept("configuration"):
            configuration = self.type_mark()
        else:
            self.expect("open", "in this binding")
        generics, ports = self.maps()
        return ast.Binding(start, self.previous_end, entity, architecture, configuration, generics, ports)

    def maps(self) -> tuple[list[ast.Assoc], list[ast.Assoc]]:
        """`generic map (...)` and `port map (...)`, both optional."""
        generics: list[ast.Assoc] = []
        ports: list[ast.Assoc] = []
        if self.accept("generic"):
            self.expect("map", "after `generic`")
            generics = self._map()
            if self.is_at(";") and self.texts[self.at + 1] == "port":
                raise self.fail("extra-semicolon", "no `;` between generic map and port map")
        if self.accept("port"):
            self.expect("map", "after `port`")
            ports = self._map()
        return generics, ports

    def _map(self) -> list[ast.Assoc]:
        start = self.start
        self.expect("(", "after `map`")
        if self.is_at("."):
            raise self.fail("arrow", "a port is connected without a dot: theirs => ours", "write `p => a`")
        found = [self._item()]
        while True:
            if self.accept(","):
                found.append(self._item())
            elif self.is_at(";") and self.kinds[self.at + 1] in "ix" and self.texts[self.at + 2] == "=>":
                raise self.fail("comma", "the items of a map are parted by `,`, not `;`")
            elif self.is_at("<=", "="):
                raise self.fail("arrow", "ports are connected with `=>`: theirs => ours")
            else:
                break
        self.close_bracket(start)
        if all(isinstance(i.value, ast.Binary) and i.value.op == "=" and not i.choices for i in found):
            first = found[0].value
            raise self.fail("arrow", "ports are connected with `=>`: theirs => ours", "", first.pos, first.end)
        return found
