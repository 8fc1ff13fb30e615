"""Parsing of declarations: nets, variables, parameters, types, functions and tasks (IEEE 1364-2005 clauses 4 and
10)."""

from __future__ import annotations

from obento.core.syntax.stream import SyntaxProblem
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import SIGNED_TYPES
from obento.core.verilog.syntax.statements import StatementParser

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
    ]
)
DIRECTIONS = frozenset(["input", "output", "inout"])
_DIRECTION_WORDS = {"input": "in", "output": "out", "inout": "inout"}
_STRENGTHS_0 = frozenset(["supply0", "strong0", "pull0", "weak0", "highz0"])
_STRENGTHS_1 = frozenset(["supply1", "strong1", "pull1", "weak1", "highz1"])
_CHARGES = frozenset(["small", "medium", "large"])
_NAMED_TYPES = frozenset(
    ["logic", "reg", "bit", "int", "integer", "byte", "shortint", "longint", "time", "real", "realtime"]
)
"""Types that a `typedef` may give another name."""


class DeclarationParser(StatementParser):
    """The part of the grammar that gives things names."""

    def __init__(self, *args: object) -> None:
        super().__init__(*args)  # type: ignore[arg-type]
        self.types: set[str] = set()

    def at_type_name(self) -> bool:
        """Whether a name of a type begins a declaration here."""
        return self.kinds[self.at] == "i" and self.texts[self.at] in self.types and self.kinds[self.at + 1] in "ix"

    # Ranges, strengths and delays.

    def range(self) -> ast.Range:
        """A range in brackets."""
        start = self.start
        self.expect("[")
        left = self.expression()
        if self.is_at("]"):
            if self.system_verilog and isinstance(left, ast.Number):
                self.at += 1  # `[n]` means `[0:n-1]`
                minus = ast.Binary(
                    left.start, left.end, "-", left, ast.Number(left.start, left.end, None, True, 1, (1 << 32) - 2, 32)
                )
                zero = ast.Number(left.start, left.end, None, True, 0, (1 << 32) - 1, 32)
                return ast.Range(start, self.previous_end, zero, minus)
            raise self.fail("range", "a range has two ends", "write `[msb:lsb]`, for instance `[3:0]`")
        self.expect(":", "between the two ends of a range")
        right = self.expression()
        self.expect("]", "the range")
        return ast.Range(start, self.previous_end, left, right)

    def strengths(self) -> tuple[str, str] | None:
        """`(strong1, pull0)` and its like, as the words for 0 and for 1 (7.1.2); one alone for a pull or a charge."""
        if not self.is_at("(") or self.texts[self.at + 1] not in _STRENGTHS_0 | _STRENGTHS_1 | _CHARGES:
            return None
        self.at += 1
        words = {"0": "strong", "1": "strong"}
        while True:
            word = self.text
            if word in _STRENGTHS_0 | _STRENGTHS_1:
                words[word[-1]] = word[:-1]
            elif word not in _CHARGES:
                raise self.fail(
                    "bad-strength", f"{self.describe()} is no strength", "write for instance `(strong0, pull1)`"
                )
            self.at += 1
            if not self.accept(","):
                break
        self.expect(")", "the strengths")
        return words["0"], words["1"]

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
        return self.declaration()

    def declaration(self) -> list[ast.Item]:
        """Nets or variables of one type."""
        start = self.start
        kind = self.text
        self.at += 1
        strengths = self.strengths()
        if not self.accept("vectored"):
            self.accept("scalared")
        if kind in NET_TYPES and self.is_at("logic"):
            self.at += 1
        signed = self.signed(kind in SIGNED_TYPES)
        range_ = self.range() if self.is_at("[") else None
        delays = self.delays_or_none()
        return self.declarators(
            ast.Declaration(start, self.previous_end, kind, "", signed, range_, [], delays, strengths)
        )

    def declarators(self, declaration: ast.Declaration) -> list[ast.Item]:
        """The names of a declaration, up to its semicolon."""
        while True:
            name_start = self.start
            name = self.name("the name to be declared")
            dims = []
            while self.is_at("["):
                dims.append(self.range())
            value = self.expression() if self.accept("=") else None
            declaration.names.append(ast.Declarator(name_start, self.previous_end, name, dims, value))
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
        kind = self.text if self.at_word(*_NAMED_TYPES) else ""
        if kind:
            self.at += 1
        signed = self.signed(kind in SIGNED_TYPES)
        range_ = self.range() if self.is_at("[") else None
        typed = range_ is not None or kind not in ("", "real", "realtime")
        real = kind in ("real", "realtime")
        items: list[ast.Item] = []
        while True:
            start = self.start
            name = self.name("the parameter's name")
            self.expect("=", "the parameter's value")
            value = self.expression()
            items.append(ast.Parameter(start, self.previous_end, local, kind, signed, range_, typed, name, value, real))
            if header or not self.is_at(","):
                return items
            self.at += 1

    def port_head(self) -> ast.Declaration:
        """The direction and type in front of port names."""
        start = self.start
        direction = _DIRECTION_WORDS[self.text]
        self.at += 1
        kind = ""
        if self.at_word(*NET_TYPES) or self.at_word(*VARIABLE_TYPES - {"event", "genvar"}) or self.at_type_name():
            kind = self.text
            self.at += 1
            if kind in NET_TYPES and self.is_at("logic"):
                self.at += 1
        elif (
            self.text == "logic"
            and self.kinds[self.at] == "i"
            and (self.kinds[self.at + 1] in "ik" or self.texts[self.at + 1] == "[")
        ):
            raise self.fail(
                "system-verilog",
                "`logic` is SystemVerilog",
                "write `reg` or `wire`, or name the file .sv if the course allows it",
            )
        signed = self.signed(kind in SIGNED_TYPES)
        range_ = self.range() if self.is_at("[") else None
        return ast.Declaration(start, self.previous_end, kind, direction, signed, range_, [])

    def signed(self, by_type: bool = False) -> bool:
        """Whether a type is signed: by its word, unless `signed` or `unsigned` says otherwise (1800 clause 6.9)."""
        if self.accept("signed"):
            return True
        return not self.accept("unsigned") and by_type

    def type_definition(self) -> list[ast.Item]:
        """`typedef` (.sv files): an enumeration or another name for a type (1800 clause 6.18)."""
        start = self.start
        self.at += 1
        is_enum = self.accept("enum")
        if not is_enum and not self.is_at(*_NAMED_TYPES) and not self.at_type_name():
            raise self.fail(
                "not-yet",
                f"a `typedef` of {self.describe()} is not read by this version",
                "enumerations, numbers and vectors are",
            )
        kind, signed, range_ = self._base_type(is_enum)
        constants = self._enumeration() if is_enum else []
        name = self.name("the name of the type")
        self.types.add(name)
        self.semicolon("declaration")
        return [ast.TypeDefinition(start, self.previous_end, name, kind, signed, range_, constants, is_enum)]

    def _base_type(self, is_enum: bool) -> tuple[str, bool, ast.Range | None]:
        """A type's word, sign and range; an enumeration without one is an `int` (1800 clause 6.19)."""
        kind = ""
        if self.is_at(*_NAMED_TYPES) or (self.kinds[self.at] == "i" and self.text in self.types):
            kind = self.text
            self.at += 1
        signed = self.signed(kind in SIGNED_TYPES)
        range_ = self.range() if self.is_at("[") else None
        if not kind:
            kind = "int" if is_enum and range_ is None else "logic"
            signed = signed or kind == "int"
        return kind, signed, range_

    def _enumeration(self) -> list[ast.Declarator]:
        """The names in braces, some with values."""
        constants: list[ast.Declarator] = []
        self.expect("{", "the names of the enumeration")
        while True:
            at = self.start
            name = self.name("a name of the enumeration")
            value = self.expression() if self.accept("=") else None
            constants.append(ast.Declarator(at, self.previous_end, name, [], value))
            if not self.accept(","):
                break
        self.expect("}", "the names of the enumeration")
        return constants

    def enum_variables(self) -> list[ast.Item]:
        """`enum {...} state;`: a type without a name, and what is declared with it."""
        start = self.start
        self.at += 1
        kind, signed, range_ = self._base_type(True)
        hidden = f"enum@{start}"
        constants = self._enumeration()
        definition = ast.TypeDefinition(start, self.previous_end, hidden, kind, signed, range_, constants, True)
        return [definition, *self.declarators(ast.Declaration(start, self.previous_end, hidden, "", False, None, []))]

    # Functions and tasks.

    def function(self) -> ast.Item:
        """A function or task, up to its end."""
        start = self.start
        task = self.text == "task"
        closing = "endtask" if task else "endfunction"
        self.at += 1
        automatic = self.accept("automatic")
        if not automatic:
            self.accept("static")
        kind = ""
        signed = self.signed()
        if self.at_word(*VARIABLE_TYPES - {"event", "genvar"}) or self.at_word("void") or self.at_type_name():
            kind = self.text
            self.at += 1
            signed = self.signed(signed or kind in SIGNED_TYPES)
        range_ = self.range() if self.is_at("[") else None
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
                elif self.at_word(*VARIABLE_TYPES) or self.is_at("parameter", "localparam") or self.at_type_name():
                    declarations += self.declaration_in_block()
                elif not self.accept(";"):
                    body.append(self.statement())
            except SyntaxProblem:
                self.recover(before)
        self.at += 1
        self.end_label()
        return ast.FunctionItem(
            start, self.previous_end, name, automatic, signed, range_, kind, declarations, body, task
        )

    def _arguments_of_header(self, declarations: list[ast.Item]) -> None:
        head: ast.Declaration | None = None
        while not self.is_at(")"):
            if self.is_at(*DIRECTIONS):
                head = self.port_head()
            elif head is None or self.at_word(*VARIABLE_TYPES) or self.is_at("[") or self.at_type_name():
                head = self._argument_without_direction(head)
            else:
                head = ast.Declaration(self.start, self.start, head.kind, head.direction, head.signed, head.range, [])
            declarations.append(head)
            at = self.start
            name = self.name("an argument's name")
            dims = []
            while self.is_at("["):
                dims.append(self.range())
            head.names.append(ast.Declarator(at, self.previous_end, name, dims, None))
            if not self.accept(","):
                break
        self.expect(")", "the arguments")

    def _argument_without_direction(self, before: ast.Declaration | None) -> ast.Declaration:
        """An argument of .sv files that leaves out its direction: an input, or as the one before."""
        if before is None:
            self.system_verilog_only("an argument without a direction", "write `input` before it")
        start, kind = self.start, ""
        if self.at_word(*VARIABLE_TYPES) or self.at_type_name():
            kind = self.text
            self.at += 1
        signed = self.signed(kind in SIGNED_TYPES)
        range_ = self.range() if self.is_at("[") else None
        return ast.Declaration(start, self.previous_end, kind, before.direction if before else "in", signed, range_, [])
