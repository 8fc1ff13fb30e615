"""Reading concurrent statements and design units (IEEE 1076 clauses 11 and 13)."""

from __future__ import annotations

from bisect import bisect_right
from typing import Literal

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.source import SourceFile
from obento.core.syntax.stream import SyntaxProblem
from obento.core.vhdl.syntax import ast
from obento.core.vhdl.syntax.declarations import Declarations
from obento.core.vhdl.syntax.lexer import tokenize

_VERILOG_WORDS = frozenset(["module", "endmodule", "always", "assign", "wire", "reg", "initial"])
_UNITS = frozenset(["entity", "architecture", "package", "configuration", "library", "use", "context"])


_STANDARD_CONTEXTS = {
    "ieee_std_context": ("std_logic_1164", "numeric_std"),
    "ieee_bit_context": ("numeric_bit",),
}
"""Contexts of the library ieee (IEEE 1076-2008 16.1), with the packages that they use."""


def _all_of(library: str, package: str) -> ast.UseClause:
    name = ast.Selected(0, 0, ast.Selected(0, 0, ast.Id(0, 0, library), package), "all")
    return ast.UseClause(0, 0, [name])


class Units(Declarations):
    """The whole parser."""

    def __init__(self, file: SourceFile, collector: Collector, limits: Limits) -> None:
        super().__init__(tokenize(file, collector, limits), collector, limits)
        self._file = file
        self._contexts = {
            name: (["ieee"], [_all_of("ieee", package) for package in packages])
            for name, packages in _STANDARD_CONTEXTS.items()
        }

    def line_of(self, position: int) -> int:
        """The line of a position."""
        return bisect_right(self._file.line_starts, position - self._file.base)

    # Concurrent statements.

    def concurrent(self, *ends: str) -> list[ast.Concurrent]:
        """Concurrent statements up to a word that ends them."""
        return self.until(ends, self._concurrent)

    def _concurrent(self) -> ast.Concurrent:
        start = self.start
        label = self.label()
        postponed = self.accept("postponed")
        word = self.text if self.kind == "k" else ""
        match word:
            case "process":
                return self._process(start, label, postponed)
            case "block":
                return self._block(start, label)
            case "component" | "entity" | "configuration":
                if not label:
                    raise self.fail("label", f"an instance needs a label before `{word}`", f"write: u1 : {word} ...")
                self.at += 1
                kind: Literal["component", "entity", "configuration"] = word
                return self._instance(start, label, kind, self.type_mark())
            case "for":
                return self._for_generate(start, label)
            case "if":
                return self._if_generate(start, label)
            case "case":
                return self._case_generate(start, label)
            case "with":
                found = self.selected_assignment(start, label)
                if isinstance(found, ast.VariableAssign):
                    raise self.fail("variable-sign", "a concurrent assignment is written with `<=`", "", start, start)
                return found
            case "assert":
                return self.assertion(start, label, postponed)
            case "signal" | "constant" | "type" | "variable" | "function" | "procedure" | "subtype":
                raise self.fail(
                    "misplaced",
                    f"`{word}` must stand before `begin`",
                    "declarations come first, then `begin`, then statements",
                )
            case "wait" | "while" | "loop" | "return" | "report" | "null" | "exit" | "next":
                raise self.fail(
                    "misplaced",
                    f"`{word}` can only stand inside a process or subprogram",
                    "is a `process` missing around it?",
                )
            case "else" | "elsif" | "when":
                raise self.fail("misplaced", f"`{word}` belongs to nothing here", "is an `if` outside of a process?")
        if label and self.kind in "ix":
            mark_at = self.at
            what = self.type_mark()
            if self.is_at("port", "generic"):
                return self._instance(start, label, "component", what)
            if self.is_at("(") and self.texts[self.at + 1] != ")" and self._looks_like_map():
                raise self.fail(
                    "port-map", "`port map` is missing before the connections", f"write: {label} : name port map (...)"
                )
            self.at = mark_at
        found2 = self.assignment_or_call(start, label, concurrent=True)
        assert not isinstance(found2, ast.VariableAssign)
        if isinstance(found2, ast.Call):
            found2.postponed = postponed
        return found2

    def _looks_like_map(self) -> bool:
        return self.kinds[self.at + 1] in "ix" and self.texts[self.at + 2] == "=>"

    def _process(self, start: int, label: str, postponed: bool) -> ast.Process:
        self.at += 1
        sensitivity: list[ast.Expr] | None = None
        all_signals = False
        if self.is_at("("):
            open_at = self.start
            self.at += 1
            sensitivity = []
            if self.accept("all"):
                all_signals = True
            elif self.is_at(")"):
                raise self.fail(
                    "empty-list",
                    "the sensitivity list is empty",
                    "name the signals that wake the process, or leave out the brackets",
                )
            elif self.text in ("posedge", "negedge"):
                edge = "rising_edge" if self.text == "posedge" else "falling_edge"
                self.fail(
                    "foreign", f"`{self.text}` is Verilog", f"write: process (clk), and inside if {edge}(clk) then"
                )
                self.at += 1
                sensitivity.append(self.name())
            else:
                sensitivity.append(self.name())
                while self.accept(","):
                    sensitivity.append(self.name())
                if self.is_at(";"):
                    raise self.fail("comma", "signals in a sensitivity list are parted by `,`")
            self.close_bracket(open_at)
        self.accept("is")
        decls = self.declarations("begin", "end")
        if not self.begin():
            at = self.previous_end
            raise self.fail(
                "missing-begin",
                f"`begin` is missing before {self.describe()}",
                "a process has `begin` before its statements",
                at,
                at,
            )
        body = self.sequence("end")
        if self.is_at("end") and self.texts[self.at + 1] == "postponed":
            self.texts[self.at + 1] = "process"
            del (
                self.texts[self.at + 2],
                self.kinds[self.at + 2],
                self.starts[self.at + 2],
                self.ends[self.at + 2],
                self.newline_before[self.at + 2],
            )
        self._end_of("process", label, start, needs_word=True)
        return ast.Process(start, self.previous_end, label, sensitivity, all_signals, decls, body, postponed)

    def _instance(
        self, start: int, label: str, kind: Literal["component", "entity", "configuration"], what: ast.Expr
    ) -> ast.Instance:
        architecture = ""
        if kind == "entity" and self.is_at("("):
            self.at += 1
            architecture = self.name_here("the architecture's name")
            self.expect(")", "after the architecture's name")
        if self.is_at("(") and self._looks_like_map():
            raise self.fail(
                "port-map", "`port map` is missing before the connections", f"write: {label} : name port map (...)"
            )
        generics, ports = self.maps()
        self.expect(";", "after this instance")
        return ast.Instance(start, self.previous_end, label, kind, what, architecture, generics, ports)

    def _generate_label(self, label: str, word: str) -> None:
        if not label:
            hint = (
                "write: name : for i in ... generate"
                if word == "for"
                else f"an {word} outside of a process is a generate and needs a label"
            )
            problem = self.fail("label", f"`{word}` needs a label here, outside of a process", hint)
            if not self._generates():
                raise problem

    def _generates(self) -> bool:
        """Whether `generate` comes before anything that begins the inside of a statement or ends it."""
        for at in range(self.at, len(self.texts)):
            if self.kinds[at] == "e" or self.texts[at] in (";", "then", "loop"):
                return False
            if self.texts[at] == "generate":
                return True
        return False

    def _for_generate(self, start: int, label: str) -> ast.Generate:
        self._generate_label(label, "for")
        self.at += 1
        parameter = self.name_here("the generate's parameter")
        self.expect("in", "after the parameter")
        discrete = self.range_or_value()
        if self.is_at("loop"):
            raise self.fail("misplaced", "a `loop` can only stand inside a process", "outside write generate")
        self.expect("generate", "after the range")
        arm = self._arm(start, "", None, [])
        self._end_of("generate", label, start, needs_word=True)
        return ast.Generate(start, self.previous_end, label, parameter, discrete, None, [arm])

    def _arm(self, start: int, label: str, condition: ast.Expr | None, choices: list[ast.Expr]) -> ast.GenerateArm:
        decls: list[ast.Decl] = []
        if self.is_at("begin") or self._at_declaration():
            decls = self.declarations("begin", "end")
            self.expect("begin", "before the statements")
        body = self.concurrent("end", "elsif", "else", "when")
        if self.is_at("end") and (
            self.texts[self.at + 1] == ";" or (self.kinds[self.at + 1] in "ix" and self.texts[self.at + 2] == ";")
        ):
            self.at += 1
            if self.kind in "ix":
                self.at += 1
            self.expect(";", "after `end`")
        return ast.GenerateArm(start, self.previous_end, label, condition, choices, decls, body)

    def _at_declaration(self) -> bool:
        words = (
            "signal",
            "constant",
            "type",
            "subtype",
            "function",
            "procedure",
            "component",
            "attribute",
            "alias",
            "shared",
            "file",
            "use",
        )
        return self.kind == "k" and self.text in words

    def _alternative_label(self) -> str:
        if self.kind in "ix" and self.texts[self.at + 1] == ":":
            self.at += 2
            return self.texts[self.at - 2]
        return ""

    def _misplaced_compound(self, word: str, hint: str) -> SyntaxProblem:
        """An `if` or `case` among concurrent statements: said once, and passed over as a whole."""
        article = "an" if word == "if" else "a"
        problem = self.fail("misplaced", f"{article} `{word}` can only stand inside a process", hint)
        self.skip_compound()
        return problem

    def _if_generate(self, start: int, label: str) -> ast.Generate:
        if not label:
            raise self._misplaced_compound("if", "put it into a process, or write: y <= a when c else b;")
        self.at += 1
        arms: list[ast.GenerateArm] = []
        inner = self._alternative_label()
        condition: ast.Expr | None = self.expression()
        if self.is_at("then"):
            raise self._misplaced_compound("if", "put it into a process, or write generate instead of then")
        self.expect("generate", "after the condition")
        arms.append(self._arm(start, inner, condition, []))
        while self.is_at("elsif", "else"):
            at = self.start
            is_else = self.text == "else"
            self.at += 1
            inner = self._alternative_label()
            condition = None if is_else else self.expression()
            self.expect("generate", "after the condition" if not is_else else "after `else`")
            arms.append(self._arm(at, inner, condition, []))
        self._end_of("generate", label, start, needs_word=True)
        return ast.Generate(start, self.previous_end, label, "", None, None, arms)

    def _case_generate(self, start: int, label: str) -> ast.Generate:
        if not label:
            raise self._misplaced_compound("case", "put it into a process, or write: with s select ...")
        self.at += 1
        selector = self.expression()
        if self.is_at("is"):
            raise self._misplaced_compound("case", "put it into a process")
        self.expect("generate", "after the selector")
        arms: list[ast.GenerateArm] = []
        while self.accept("when"):
            at = self.start
            inner = self._alternative_label()
            choices = self.choices()
            self.expect("=>", "after the choice")
            arms.append(self._arm(at, inner, None, choices))
        self._end_of("generate", label, start, needs_word=True)
        return ast.Generate(start, self.previous_end, label, "", None, selector, arms)

    def _block(self, start: int, label: str) -> ast.Block:
        if not label:
            raise self.fail("label", "a block needs a label", "write: name : block")
        self.at += 1
        guard = None
        if self.is_at("("):
            guard = self._bracketed()
        self.accept("is")
        generics: list[ast.Interface] = []
        ports: list[ast.Interface] = []
        generic_map: list[ast.Assoc] = []
        port_map: list[ast.Assoc] = []
        if self.is_at("generic"):
            self.at += 1
            generics = self.interface_list("constant", "a generic")
            self.expect(";", "after the generics")
            if self.is_at("generic"):
                generic_map, _ = self.maps()
                self.expect(";", "after the generic map")
        if self.is_at("port"):
            self.at += 1
            ports = self.interface_list("signal", "a port")
            self.expect(";", "after the ports")
            if self.is_at("port"):
                _, port_map = self.maps()
                self.expect(";", "after the port map")
        decls = self.declarations("begin", "end")
        self.expect("begin", "before the block's statements")
        body = self.concurrent("end")
        self._end_of("block", label, start, needs_word=True)
        return ast.Block(start, self.previous_end, label, guard, generics, ports, generic_map, port_map, decls, body)

    # Units.

    def design_file(self) -> list[ast.Unit]:
        """Every unit of the text; goes on at the next one after mistakes."""
        found: list[ast.Unit] = []
        libraries: list[str] = []
        context: list[ast.UseClause] = []
        while self.kind != "e":
            before = self.at
            try:
                if not self._context_item(libraries, context):
                    unit = self._unit(libraries, context)
                    libraries, context = [], []
                    found.append(unit)
            except SyntaxProblem:
                libraries, context = self._recover_unit(before, libraries, context)
        return found

    def _context_item(self, libraries: list[str], context: list[ast.UseClause]) -> bool:
        """A library, use or context clause, if one stands here."""
        if self.accept("library"):
            libraries += [name for name, _ in self._names("the library's name")]
            self.expect(";", "after this library clause")
        elif self.is_at("use"):
            context.append(self.use_clause())
        elif self.is_at("context"):
            self._context(libraries, context)
        else:
            return False
        return True

    def _context(self, libraries: list[str], context: list[ast.UseClause]) -> None:
        """A context clause takes in what a context declaration holds (IEEE 1076-2008 13.3 and 13.4)."""
        start = self.start
        self.at += 1
        names = [self.name()]
        if self.is_at("is") and isinstance(names[0], ast.Id):
            self._context_declaration(names[0].name)
            return
        while self.accept(","):
            names.append(self.name())
        self.expect(";", "after this context clause")
        for name in names:
            inner = name.suffix if isinstance(name, ast.Selected) else ""
            known = self._contexts.get(inner)
            if known is None:
                raise self.fail(
                    "no-context",
                    f"there is no context `{inner or 'of that name'}` before this in the file",
                    "write its library and use clauses here",
                    start,
                    self.previous_end,
                )
            libraries += known[0]
            context += known[1]

    def _context_declaration(self, name: str) -> None:
        """`context name is ... end context name;`"""
        start = self.start
        self.at += 1
        libraries: list[str] = []
        uses: list[ast.UseClause] = []
        while not self.is_at("end") and self.kind != "e":
            if not self._context_item(libraries, uses):
                raise self.fail("unexpected", f"{self.describe()} cannot stand in a context", "library, use or context")
        self._end_of("context", name, start, needs_word=False)
        self._contexts[name] = libraries, uses

    def _recover_unit(
        self, before: int, libraries: list[str], context: list[ast.UseClause]
    ) -> tuple[list[str], list[ast.UseClause]]:
        first = self.texts[before]
        if self.at == before:
            self.at += 1
        while self.kind != "e":
            if first in ("library", "use") and self.texts[self.at - 1] == ";":
                return libraries, context
            if (
                self.kind == "k"
                and self.newline_before[self.at]
                and self.text in _UNITS
                and self.texts[self.at - 1] != ":"
            ):
                break
            self.at += 1
        return (libraries, context) if first in ("library", "use") else ([], [])

    def _unit(self, libraries: list[str], context: list[ast.UseClause]) -> ast.Unit:
        start = self.start
        if self.accept("entity"):
            return self._entity(start, libraries, context)
        if self.accept("architecture"):
            return self._architecture(start, libraries, context)
        if self.accept("package"):
            return self._package(start, libraries, context)
        if self.accept("configuration"):
            return self._configuration(start, libraries, context)
        if self.kind == "i" and self.text in _VERILOG_WORDS:
            raise self.fail("verilog-text", "this is Verilog text, not VHDL", "hand it in with the ending .v")
        hint = self.keyword_hint(self.text) if self.kind == "i" else ""
        if self.is_at("signal", "process", "end", "begin", "if", "port"):
            hint = f"`{self.text}` belongs inside an architecture or entity; was one ended too early?"
        raise self.fail(
            "unexpected",
            f"{self.describe()} begins no design unit",
            hint or "units begin with entity, architecture, package or configuration",
        )

    def _entity(self, start: int, libraries: list[str], context: list[ast.UseClause]) -> ast.Entity:
        at = self.start
        name = self.name_here("the entity's name")
        self.expect("is", "after the entity's name")
        found = ast.Entity(start, start, name, at, libraries, context, [], [], [], [])
        try:
            found.generics, found.ports = self.generics_and_ports()
            if self.is_at("generic"):
                raise self.fail("misplaced", "generics come before ports")
            found.decls = self.declarations("begin", "end")
            if self.accept("begin"):
                found.body = self.concurrent("end")
            self._end_of("entity", name, start)
        except SyntaxProblem:
            self._skip_unit()
        found.end = self.previous_end
        return found

    def _skip_unit(self) -> None:
        """To the next word that begins a unit at the start of a line."""
        while self.kind != "e":
            if (
                self.kind == "k"
                and self.newline_before[self.at]
                and self.text in _UNITS
                and self.texts[self.at - 1] not in (":", "end")
            ):
                if self.text != "use" or self.texts[self.at - 1] == ";":
                    return
            self.at += 1

    def _architecture(self, start: int, libraries: list[str], context: list[ast.UseClause]) -> ast.Architecture:
        at = self.start
        name = self.name_here("the architecture's name")
        if not self.accept("of"):
            here = self.previous_end
            raise self.fail(
                "missing", "`of` and the entity's name are missing", "write: architecture name of entity is", here, here
            )
        entity = self.name_here("the entity's name")
        self.expect("is", "after the entity's name")
        found = ast.Architecture(start, start, name, at, libraries, context, entity, [], [])
        try:
            found.decls = self.declarations("begin", "end")
            if not self.begin():
                here = self.previous_end
                raise self.fail(
                    "missing-begin",
                    f"`begin` is missing before {self.describe()}",
                    "an architecture has `begin` before its statements",
                    here,
                    here,
                )
            found.body = self.concurrent("end")
            self._end_of("architecture", name, start)
        except SyntaxProblem:
            self._skip_unit()
        found.end = self.previous_end
        return found

    def _package(self, start: int, libraries: list[str], context: list[ast.UseClause]) -> ast.Package | ast.PackageBody:
        is_body = self.accept("body")
        at = self.start
        name = self.name_here("the package's name")
        self.expect("is", "after the package's name")
        if self.is_at("new", "generic"):
            raise self.fail("unsupported", "packages with generics are not read here")
        decls: list[ast.Decl] = []
        found: ast.Package | ast.PackageBody
        found = (ast.PackageBody if is_body else ast.Package)(start, start, name, at, libraries, context, decls)
        try:
            decls += self.declarations("end")
            self._end_of("package", name, start)
        except SyntaxProblem:
            self._skip_unit()
        found.end = self.previous_end
        return found

    def _configuration(self, start: int, libraries: list[str], context: list[ast.UseClause]) -> ast.Configuration:
        at = self.start
        name = self.name_here("the configuration's name")
        self.expect("of", "after the configuration's name")
        entity = self.name_here("the entity's name")
        self.expect("is", "after the entity's name")
        while self.is_at("use", "attribute"):
            if self.is_at("use"):
                self.use_clause()
            else:
                self._attribute()
        block = self.config_item()
        if not isinstance(block, ast.BlockConfig):
            raise self.fail("unexpected", "a configuration begins with `for` and the architecture's name")
        self._end_of("configuration", name, start)
        return ast.Configuration(start, self.previous_end, name, at, libraries, context, entity, block)


def parse(file: SourceFile, collector: Collector, limits: Limits) -> list[ast.Unit]:
    """All design units of a text. What is wrong stands in the collector."""
    stream = Units(file, collector, limits)
    try:
        return stream.design_file()
    except SyntaxProblem:
        return []
    except RecursionError:
        stream.fail("too-deep", "this is nested too deep to be read", "split it into smaller parts")
        return []
