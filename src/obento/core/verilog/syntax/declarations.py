"""Parsing of declarations: nets, variables, parameters, types, functions and tasks (IEEE 1364-2005 clauses 4 and
10)."""

from __future__ import annotations

from obento.core.syntax.stream import SyntaxProblem
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.lets import Let
from obento.core.verilog.syntax.statements import StatementParser
from obento.core.verilog.syntax.types import NAMED_TYPES

NET_TYPES = frozenset(
    ["wire", "tri", "wand", "wor", "triand", "trior", "tri0", "tri1", "supply0", "supply1", "uwire", "trireg"]
)
VARIABLE_TYPES = frozenset(
    [
        "reg",
        "integer",
        "time",
        "real",
        "realtime",
        "event",
        "genvar",
        "logic",
        "bit",
        "int",
        "byte",
        "shortint",
        "longint",
        "string",
    ]
)
DIRECTIONS = frozenset(["input", "output", "inout"])
DIRECTION_WORDS = {"input": "in", "output": "out", "inout": "inout"}
_STRENGTHS_0 = frozenset(["supply0", "strong0", "pull0", "weak0", "highz0"])
_STRENGTHS_1 = frozenset(["supply1", "strong1", "pull1", "weak1", "highz1"])
_CHARGES = frozenset(["small", "medium", "large"])


class DeclarationParser(StatementParser):
    """The part of the grammar that gives things names."""

    _lifetime = False
    """Whether functions and tasks are automatic where they do not say (1800 clause 13.3.1)."""

    # Strengths and delays.

    def strengths(self) -> tuple[str, str] | None:
        """`(strong1, pull0)` and its like, as the words for 0 and for 1 (7.1.2); one alone for a pull or a charge."""
        if not self.is_at("(") or self.texts[self.at + 1] not in _STRENGTHS_0 | _STRENGTHS_1 | _CHARGES:
            return None
        self.at += 1
        words, charge = {"0": "strong", "1": "strong"}, ""
        while True:
            word = self.text
            if word in _STRENGTHS_0 | _STRENGTHS_1:
                words[word[-1]] = word[:-1]
            elif word in _CHARGES:
                charge = word
            else:
                raise self.fail(
                    "bad-strength", f"{self.describe()} is no strength", "write for instance `(strong0, pull1)`"
                )
            self.at += 1
            if not self.accept(","):
                break
        self.expect(")", "the strengths")
        return (charge, charge) if charge else (words["0"], words["1"])

    def delays_or_none(self) -> list[ast.Expr]:
        """Delays, if some stand here."""
        return self.delays() if self.is_at("#") else []

    # Declarations.

    def declaration_in_block(self) -> list[ast.Item]:
        """A declaration at the head of a block."""
        if self.is_at("parameter", "localparam"):
            local = self.text == "localparam"
            self.at += 1
            items = self.parameters(local)
            self.semicolon("declaration")
            return items
        if self.is_at("typedef"):
            return self.type_definition()
        if self.is_at("import"):
            return self.imports()
        if self.at_let():
            return self.let_item()
        lifetime = self.text if self.is_at("static", "automatic") else ""
        if lifetime:
            self.system_verilog_only(f"`{lifetime}` here", "leave it out")
            self.at += 1
        items = self.declaration()
        for item in items:
            if isinstance(item, ast.Declaration):
                item.lifetime = lifetime
        return items

    def let_item(self) -> list[ast.Item]:
        """`let name(a, b = 1) = expression;` (1800 clause 11.12): known from here on."""
        self.at += 1
        name = self.name("the name of the expression")
        formals: dict[str, ast.Expr | None] = {}
        if self.accept("("):
            while not self.is_at(")"):
                if self.at_word(*VARIABLE_TYPES) or self.at_type_name() or self.is_at("untyped"):
                    raise self.fail(
                        "not-yet", "arguments of `let` with a type are not read by this version", "leave it out"
                    )
                argument = self.name("an argument's name")
                formals[argument] = self.expression() if self.accept("=") else None
                if not self.accept(","):
                    break
            self.expect(")", "the arguments")
        self.expect("=", "what the name stands for")
        let = Let(name, formals, self.expression())
        self.semicolon("declaration")
        self.lets = {**self.lets, name: let}
        return []

    def imports(self) -> list[ast.Item]:
        """`import p::x, q::*;` (1800 clause 26.3), and `export` of the same form."""
        is_export = self.text == "export"
        self.at += 1
        if self.kinds[self.at] == "s":
            raise self.fail("not-yet", f'functions of other languages (`"{self.text}"`) are not read by this version')
        items: list[ast.Item] = []
        while True:
            start = self.start
            package = "*" if is_export and self.accept("*") else self.name("a package")
            self.expect("::", "between a package and a name of it")
            name = "*" if self.accept("*") else self.name("a name of the package")
            items.append(ast.Import(start, self.previous_end, package, name, is_export))
            if not self.accept(","):
                break
        self.semicolon("import")
        return items

    def declaration(self) -> list[ast.Item]:
        """Nets or variables of one type."""
        if self.accept("const"):
            made = self._declared()
            for item in made:
                if isinstance(item, ast.Declaration):
                    item.is_constant = True
            return made
        return self._declared()

    def _declared(self) -> list[ast.Item]:
        start = self.start
        if self.is_at("var"):
            return self.declarators(self._variable_type(start))
        if self.at_made_type():
            return self.of_made_type("", start)
        kind = self.type_word()
        strengths = self.strengths()
        if not self.accept("vectored"):
            self.accept("scalared")
        made = self.net_type() if kind in NET_TYPES else self.vector_type(kind)
        if kind == "event" and not made.ranges and self.is_at("="):
            raise self.fail("event-written", "an event holds no value", "leave the value out")
        delays = self.delays_or_none()
        return self.declarators(ast.Declaration(start, self.previous_end, kind, "", made, [], delays, strengths))

    def net_type(self) -> ast.Type:
        """The type behind the kind of a net; a vector of `logic` where none is written."""
        if self.at_word("logic") or self.at_type_name() or self.at_made_type():
            return self.data_type()
        return self.vector_type()

    def _variable_type(self, start: int) -> ast.Declaration:
        """What stands behind `var` (1800 clause 6.8)."""
        self.at += 1
        made = self.data_type() if self.at_type() or self.at_type_name() else self.vector_type("logic")
        return ast.Declaration(start, self.previous_end, made.word, "", made, [])

    def of_made_type(self, direction: str, start: int) -> list[ast.Item]:
        """`enum {...} state;`, `struct {...} s;`: a type without a name, and what is declared with it."""
        hidden = self.hidden_type()
        made = ast.Type(start, self.previous_end, hidden.name)
        return [hidden, *self.declarators(ast.Declaration(start, self.previous_end, hidden.name, direction, made, []))]

    def hidden_type(self) -> ast.TypeDefinition:
        """A type that is written out where its name could stand."""
        start = self.start
        made = self.data_type()
        return ast.TypeDefinition(start, self.previous_end, f"{made.word}@{start}", made, [])

    def declarators(self, declaration: ast.Declaration) -> list[ast.Item]:
        """The names of a declaration, up to its semicolon."""
        while True:
            declaration.names.append(self.declarator("the name to be declared"))
            if not self.accept(","):
                break
            if self.is_at(*DIRECTIONS):
                raise self.fail(
                    "semicolon-for-comma", "`;` is missing between these declarations", "", self.previous_end
                )
        self.semicolon("declaration")
        declaration.end = self.previous_end
        return [declaration]

    def parameters(self, local: bool, header: bool = False) -> list[ast.Item]:
        """What stands behind `parameter`; in a module header a single one."""
        if self.is_at("type") and self.system_verilog:
            return self._type_parameters(local, header)
        start = self.start
        if self.at_made_type():
            raise self.fail("not-yet", f"a parameter of {self.describe()} needs a name for its type", "use `typedef`")
        word = self.type_word() if self.at_word(*NAMED_TYPES) or self.at_type_name() else ""
        made = self.vector_type(word)
        made.start = start
        typed = bool(made.ranges) or word not in ("", "real", "realtime")
        items: list[ast.Item] = []
        while True:
            start = self.start
            name = self.name("the parameter's name")
            dims = self.dimensions()
            value = None
            if not (header and self.system_verilog and self.is_at(",", ")")):
                if self.is_at(";"):
                    raise self.fail("parameter-value", f"the parameter `{name}` has no value", f"write `{name} = 4`")
                self.expect("=", "the parameter's value")
                value = self.expression()
            items.append(ast.Parameter(start, self.previous_end, local, made, typed, name, value, dims))
            if header or not self.is_at(","):
                return items
            self.at += 1

    def _type_parameters(self, local: bool, header: bool) -> list[ast.Item]:
        """`parameter type T = logic` (1800 clause 6.20.3)."""
        self.at += 1
        items: list[ast.Item] = []
        while True:
            start = self.start
            name = self.name("the name of the type")
            made = self.data_type() if self.accept("=") else None
            self.types.add(name)
            items.append(ast.TypeParameter(start, self.previous_end, local, name, made))
            if header or not self.is_at(","):
                return items
            self.at += 1

    def port_head(self) -> ast.Declaration:
        """The direction and type in front of port names."""
        start = self.start
        direction = DIRECTION_WORDS[self.text]
        self.at += 1
        kind = ""
        self.accept("var")
        if self.at_word(*NET_TYPES):
            kind = self.text
            self.at += 1
            made = self.net_type()
        elif self.at_word(*VARIABLE_TYPES - {"event", "genvar"}) or self.at_type_name():
            kind = self.type_word()
            made = self.vector_type(kind)
        else:
            self._no_logic_in_verilog()
            made = self.vector_type()
        made.start = start
        return ast.Declaration(start, self.previous_end, kind, direction, made, [])

    def _no_logic_in_verilog(self) -> None:
        is_word = self.text == "logic" and self.kinds[self.at] == "i"
        if is_word and (self.kinds[self.at + 1] in "ik" or self.texts[self.at + 1] == "["):
            raise self.fail(
                "system-verilog",
                "`logic` is SystemVerilog",
                "write `reg` or `wire`, or name the file .sv if the course allows it",
            )

    # Functions and tasks.

    def function(self) -> ast.Item:
        """A function or task, up to its end."""
        start = self.start
        task = self.text == "task"
        closing = "endtask" if task else "endfunction"
        self.at += 1
        automatic = self.accept("automatic")
        if not automatic and not self.accept("static"):
            automatic = self._lifetime
        made = self._result_type()
        name = self.name(f"the {'task' if task else 'function'}'s name")
        declarations: list[ast.Item] = []
        if self.accept("("):
            self._arguments_of_header(declarations)
        self.semicolon("function header")
        body: list[ast.Stmt] = []
        while not self.is_at(closing):
            if self.kinds[self.at] == "e" or self.is_at("endmodule", "endfunction", "endtask"):
                raise self.fail(
                    "missing-end",
                    f"`{closing}` is missing before {self.describe()}",
                    "",
                    self.previous_end,
                    self.previous_end,
                )
            before = self.at
            try:
                if self.is_at(*DIRECTIONS):
                    declarations += self.declarators(self.port_head())
                elif self.at_declaration():
                    declarations += self.declaration_in_block()
                elif not self.accept(";"):
                    body.append(self.statement())
            except SyntaxProblem:
                self.recover(before)
        self.at += 1
        self.end_label(name)
        return ast.FunctionItem(start, self.previous_end, name, automatic, made, declarations, body, task)

    def _result_type(self) -> ast.Type:
        """The type of what a function gives."""
        start = self.start
        signed = self.signed()
        if self.at_word(*VARIABLE_TYPES - {"event", "genvar"}) or self.at_word("void") or self.at_type_name():
            word = self.type_word()
            made = self.vector_type(word)
            made.signed = made.signed or signed
        else:
            made = ast.Type(start, self.previous_end, "", signed, self.packed_ranges())
        made.start = start
        return made

    def _arguments_of_header(self, declarations: list[ast.Item]) -> None:
        head: ast.Declaration | None = None
        while not self.is_at(")"):
            is_constant = self.accept("const")
            if self.is_at("ref") and self.kinds[self.at + 1] in "ik":
                head = self._reference("const ref" if is_constant else "ref")
            elif self.is_at(*DIRECTIONS):
                head = self.port_head()
            elif head is None or self.at_word(*VARIABLE_TYPES) or self.is_at("[") or self.at_type_name():
                head = self._argument_without_direction(head)
            else:
                head = ast.Declaration(self.start, self.start, head.kind, head.direction, head.type, [])
            declarations.append(head)
            head.names.append(self.declarator("an argument's name"))
            if not self.accept(","):
                break
        self.expect(")", "the arguments")

    def _reference(self, direction: str) -> ast.Declaration:
        """`ref`: the argument is the variable that it is given (1800 clause 13.5.2)."""
        self.system_verilog_only("`ref`", "write `inout`")
        start = self.start
        self.at += 1
        kind = self.type_word() if self.at_word(*VARIABLE_TYPES) or self.at_type_name() else "logic"
        made = self.vector_type(kind)
        made.start = start
        return ast.Declaration(start, self.previous_end, kind, direction, made, [])

    def _argument_without_direction(self, before: ast.Declaration | None) -> ast.Declaration:
        """An argument of .sv files that leaves out its direction: an input, or as the one before."""
        if before is None:
            self.system_verilog_only("an argument without a direction", "write `input` before it")
        start, kind = self.start, ""
        if self.at_word(*VARIABLE_TYPES) or self.at_type_name():
            kind = self.type_word()
        made = self.vector_type(kind)
        made.start = start
        return ast.Declaration(start, self.previous_end, kind, before.direction if before else "in", made, [])
