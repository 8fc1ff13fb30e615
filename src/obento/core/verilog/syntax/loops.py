"""Parsing of loops (IEEE 1364-2005 clause 9.6, 1800-2017 clause 12.7)."""

from __future__ import annotations

from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.assignments import AssignmentParser
from obento.core.verilog.syntax.expressions import UPDATES


class LoopParser(AssignmentParser):
    """Statements that are done again and again."""

    def at_word(self, *words: str) -> bool:
        """Whether one of these reserved words stands here."""
        return self.kinds[self.at] == "k" and self.texts[self.at] in words

    def statement_or_null(self) -> ast.Stmt | None:
        """A statement; None for a lone `;`."""
        if self.accept(";"):
            return None
        return self.statement()

    def statement(self) -> ast.Stmt:
        """One statement; it is read by who knows all of them."""
        raise NotImplementedError

    def _need_parenthesis(self, word: str) -> None:
        if not self.is_at("("):
            raise self.fail(
                "missing",
                f"`(` is missing before {self.describe()}",
                f"the condition of `{word}` stands in parentheses",
            )
        self.at += 1

    def _close_condition(self) -> None:
        if self.is_at("="):
            self.collector.error(
                "assign-for-compare", "`=` does not compare", self.start, self.ends[self.at], "to compare write `==`"
            )
            self.at += 1
            self.expression()
        self.expect(")", "the condition")

    def no_empty_body(self, word: str) -> None:
        """A `;` right behind the condition ends the statement before it does anything: told, where what follows looks
        as if it were meant to belong to it."""
        if self.is_at(";") and self.texts[self.at + 1] != "else" and self.newline_before[self.at + 1]:
            self.collector.warning(
                "empty-statement",
                f"this `;` ends the `{word}`: it does nothing",
                self.start,
                self.ends[self.at],
                "take it out, if what follows belongs to it",
            )

    def _for(self) -> ast.Stmt:
        start = self.start
        self.at += 1
        self._need_parenthesis("for")
        declared: list[ast.Item] = []
        if self.at_word("integer", "int", "genvar", "reg", "logic", "byte", "bit", "var", "shortint", "longint") or (
            self.at_type_name() or (self.text == "int" and self.kinds[self.at + 1] == "i")
        ):
            self.system_verilog_only("a variable declared inside `for`", "declare it as `integer` before the loop")
            self.accept("var")
            init = self._loop_variables(declared)
        else:
            init = [] if self.is_at(";") and self.system_verilog else self._assignments()
        if self.is_at(","):
            raise self._no_commas()
        self.expect(";", "between the parts of `for`")
        cond = self.expression()
        self.expect(";", "between the parts of `for`")
        step = [] if self.is_at(")") and self.system_verilog else self._assignments()
        self.expect(")", "the parts of `for`")
        self.no_empty_body("for")
        body = self.statement_or_null()
        loop = ast.For(start, self.previous_end, init, cond, step, body)
        if not declared:
            return loop
        return ast.Block(start, self.previous_end, None, declared, [loop])

    def _no_commas(self) -> Exception:
        return self.fail("for-commas", "the parts of `for` are parted by `;`", "write `for (i = 0; i < 8; i = i + 1)`")

    def _assignments(self) -> list[ast.Assign]:
        """Assignments with commas between them, which .sv files may have (1800 clause 12.7.1)."""
        found = [self.assignment()]
        while self.is_at(",") and self._assignment_follows():
            self.system_verilog_only("more than one assignment here", "do the others inside of the loop")
            self.at += 1
            found.append(self.assignment())
        return found

    def _assignment_follows(self) -> bool:
        """Whether an assignment stands behind the comma, and no condition."""
        at = self.at + 1
        while self.kinds[at] != "e" and self.texts[at] not in (",", ";", ")"):
            if self.texts[at] in ("=", "++", "--") or self.texts[at] in UPDATES:
                return True
            at += 1
        return False

    def _loop_variables(self, declared: list[ast.Item]) -> list[ast.Assign]:
        """The variables that the head of a loop declares, with what they begin with."""
        found: list[ast.Assign] = []
        declaration: ast.Declaration | None = None
        while True:
            start = self.start
            if declaration is None or not (self.kinds[self.at] in "ix" and self.texts[self.at + 1] == "="):
                kind = "integer" if self.text in ("int", "genvar") else self.text
                self.at += 1
                made = self.vector_type(kind)
                made.start = start
                declaration = ast.Declaration(start, self.previous_end, kind, "", made, [])
                declared.append(declaration)
            if self.is_at(";", ",") or self.texts[self.at + 1] in (";", ","):
                name = self.name("the variable of the loop")
                raise self.fail("for-start", f"the loop does not say where `{name}` begins", f"write `{name} = 0`")
            init = self.assignment()
            if not isinstance(init.target, ast.Name):
                text = "a loop declares single variables"
                raise self.fail("for-variable", text, "write `int i = 0`", init.target.start, init.target.end)
            declaration.names.append(ast.Declarator(init.start, init.target.end, init.target.name, [], None))
            found.append(init)
            if not self.accept(","):
                return found
            if self.texts[self.at + 1] in ("<", "<=", ">", ">=", "!="):
                raise self._no_commas()

    def _foreach(self) -> ast.Stmt:
        """`foreach (array[i, j])` (1800 clause 12.7.3)."""
        start = self.start
        self.at += 1
        self._need_parenthesis("foreach")
        at = self.start
        array: ast.Expr = ast.Name(at, self.ends[self.at], self.name("the name of an array"))
        while self.accept("."):
            array = self._member(array, self.name("a name after the dot"))
        self.expect("[", "the names that count")
        names: list[str | None] = []
        counters: list[ast.Item] = []
        while True:
            name_at = self.start
            name = None if self.is_at(",", "]") else self.name("a name that counts")
            names.append(name)
            if name is not None:
                whole = ast.Type(name_at, name_at, "int", True)
                counter = ast.Declarator(name_at, self.previous_end, name, [], None)
                counters.append(ast.Declaration(name_at, self.previous_end, "int", "", whole, [counter]))
            if not self.accept(","):
                break
        self.expect("]", "the names that count")
        self.expect(")", "the head of `foreach`")
        body = self.statement_or_null()
        loop = ast.Foreach(start, self.previous_end, array, names, body)
        return ast.Block(start, self.previous_end, None, counters, [loop])

    def _while(self) -> ast.Stmt:
        start = self.start
        self.at += 1
        self._need_parenthesis("while")
        cond = self.expression()
        self._close_condition()
        body = self.statement_or_null()
        return ast.While(start, self.previous_end, cond, body)

    def _repeat(self) -> ast.Stmt:
        start = self.start
        self.at += 1
        self._need_parenthesis("repeat")
        count = self.expression()
        self.expect(")")
        body = self.statement_or_null()
        return ast.RepeatTimes(start, self.previous_end, count, body)

    def _forever(self) -> ast.Stmt:
        start = self.start
        self.at += 1
        body = self.statement_or_null()
        return ast.While(start, self.previous_end, None, body)

    def _do(self) -> ast.Stmt:
        start = self.start
        self.at += 1
        body = self.statement_or_null()
        self.expect("while")
        self._need_parenthesis("while")
        cond = self.expression()
        self.expect(")")
        self.semicolon("statement")
        return ast.While(start, self.previous_end, cond, body, True)
