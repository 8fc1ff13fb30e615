"""Parsing of statements (IEEE 1364-2005 clause 9, annex A.6)."""

from __future__ import annotations

from obento.core.suggest import nearest
from obento.core.syntax.stream import SyntaxProblem
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.loops import LoopParser

_STOPS = frozenset(
    """
    end endmodule endcase endfunction endtask endgenerate join module always initial function task always_comb
    always_ff always_latch
    """.split()
)
_DECLARES = frozenset(
    [
        "reg",
        "integer",
        "real",
        "realtime",
        "time",
        "event",
        "parameter",
        "localparam",
        "logic",
        "bit",
        "int",
        "byte",
        "shortint",
        "longint",
        "string",
        "enum",
        "struct",
        "union",
        "typedef",
        "const",
        "var",
        "static",
        "automatic",
        "import",
    ]
)
_DECLARED_OUTSIDE = frozenset(["wire", "tri", "wand", "wor", "input", "output", "inout", "genvar"])
_STATEMENT_WORDS = frozenset("begin end if else case casez casex endcase for while repeat forever".split())


class StatementParser(LoopParser):
    """The procedural part of the grammar."""

    _branch_at = -1
    _open_begins = 0
    _label: str | None = None

    def declaration_in_block(self) -> list[ast.Item]:
        """A declaration at the head of a block; it is read by who reads declarations."""
        raise NotImplementedError

    def at_declaration(self) -> bool:
        """Whether a declaration stands here, inside of a block, function or task."""
        if self.kinds[self.at] == "k":
            return self.texts[self.at] in _DECLARES
        return self.at_let() or self.at_type_name()

    def at_let(self) -> bool:
        """Whether an expression gets a name here (.sv files)."""
        is_word = self.texts[self.at] == "let" and self.kinds[self.at] == "i"
        return is_word and self.system_verilog and self.kinds[self.at + 1] in "ix"

    def statement(self) -> ast.Stmt:
        """One statement."""
        self.enter()
        try:
            return self._statement()
        finally:
            self.leave()

    def _statement(self) -> ast.Stmt:
        kind, text = self.kinds[self.at], self.texts[self.at]
        if kind == "k":
            if text == "void" and self.texts[self.at + 1] == "'(":
                return self._void_cast()
            if text in ("unique", "unique0", "priority"):
                return self._checked(text)
            method = _BY_WORD.get(text)
            if method is not None:
                return method(self)
            if text == "else":
                raise self.fail(
                    "stray-else",
                    "this `else` belongs to no `if`",
                    "more than one statement under an `if` needs `begin` and `end`; also look for a `;` too many",
                )
            if text in _DECLARED_OUTSIDE:
                raise self.fail(
                    "declared-outside",
                    f"`{text}` is declared outside of a process",
                    "move it up to the module; inside of a process a `reg` or `integer` can be declared",
                )
            raise self.fail("expected-statement", f"a statement is missing before {self.describe()}")
        if text == "@" or text == "#":
            return self._timed()
        if text in ("->", "->>"):
            return self._trigger()
        if kind == "$" and text != "$unit":
            return self.task(text)
        if text == "{" and kind == "o" and self._groups_statements():
            raise self.fail("brace", "`{` does not group statements", "Verilog groups them with `begin` and `end`")
        if kind == "i" and text in _ASSERTIONS and self.system_verilog:
            return self.assertion()
        if kind == "i" and text == "wait_order" and self.system_verilog:
            return self._wait_order()
        if kind == "i":
            self._misspelt_statement(text)
            if self.kinds[self.at] == "k":
                return self._statement()
        if kind in "ix" or text in ("{", "++", "--", "'{") or text == "$unit":
            if kind == "i" and self.texts[self.at + 1] == ":" and self.is_label():
                return self._labelled()
            return self.assignment_or_call()
        raise self.fail("expected-statement", f"a statement is missing before {self.describe()}")

    def _checked(self, word: str) -> ast.Stmt:
        """`unique if`, `priority case` and their like (1800 clauses 12.4.2 and 12.5.3)."""
        self.at += 1
        if not self.is_at("if", "case", "casez", "casex"):
            raise self.fail("check-of-what", f"`{word}` stands before `if` or `case`", "take it out, or put it there")
        made = self._statement()
        if isinstance(made, ast.If | ast.Case):
            made.check = word
        return made

    def _void_cast(self) -> ast.Stmt:
        """`void'(f(x));`: a function whose value is not wanted (1800 clause 13.4.1)."""
        start = self.start
        self.at += 2
        call = self.expression()
        self.expect(")", "the cast")
        self.semicolon("statement")
        if not isinstance(call, ast.Call):
            raise self.fail("void-value", "`void'(...)` holds a call of a function", "", start, self.previous_end)
        each = call.each
        return ast.TaskCall(start, self.previous_end, call.name, call.args, call.path, call.named, True, each)

    def _groups_statements(self) -> bool:
        """Whether a brace opens a block as in C: a statement stands behind it, no list of names."""
        after = self.texts[self.at + 2]
        return self.kinds[self.at + 1] == "k" or (
            self.kinds[self.at + 1] == "i" and (after in ("=", "<=") or self.newline_before[self.at + 1])
        )

    def _misspelt_statement(self, text: str) -> None:
        """Words of other languages, and reserved words spelt wrong; read as what they were meant to be."""
        after, kind_after = self.texts[self.at + 1], self.kinds[self.at + 1]
        if text in ("elsif", "elseif", "elif") and after == "(":
            raise self.fail("else-if", f"`{text}` is not Verilog", "write `else if (...)`")
        if after in (";", "=", "<=", "[") or not (kind_after in "ixk" or after == "("):
            return  # as nearly always: nothing is looked up then
        near = nearest(text, _STATEMENT_WORDS)
        follows = kind_after in "ixk" or (
            near not in ("begin", "end") and after == "(" and near is not None and self._no_call()
        )
        if near is not None and follows:
            self.mend(near)

    def _no_call(self) -> bool:
        """Whether something else than `;` follows the parenthesis that is next: this is no call of a task."""
        at, depth = self.at + 1, 0
        while self.kinds[at] != "e":
            depth += (self.texts[at] == "(") - (self.texts[at] == ")")
            if depth == 0:
                return self.texts[at + 1] != ";"
            at += 1
        return False

    def mend(self, word: str) -> None:
        """Report a misspelt reserved word, and read it as what it was meant to be."""
        self.collector.error(
            "misspelt",
            f"`{self.text}` is no word of Verilog here",
            self.start,
            self.ends[self.at],
            f"did you mean `{word}`?",
        )
        self.texts[self.at] = word
        self.kinds[self.at] = "k"

    def is_label(self) -> bool:
        """Whether a name and a colon stand before a block here (.sv files)."""
        after = self.texts[self.at + 2]
        is_block = after in ("begin", "fork") and self.kinds[self.at + 2] == "k"
        return is_block or (self.system_verilog and after in _ASSERTIONS)

    def _labelled(self) -> ast.Stmt:
        name = self.text
        self.at += 2
        self._label = name
        block = self.statement()
        self._label = None
        if isinstance(block, ast.Block) and block.name is None:
            block.name = name
        return block

    def assertion(self) -> ast.Stmt:
        """An immediate assertion (1800 clause 16.3): as an `if` that reports where its condition is not true. What is
        only covered reports nothing."""
        start, word = self.start, self.text
        self.at += 1
        later = self._deferred()
        if not self.is_at("("):
            if self.text not in ("property", "sequence"):
                raise self.fail(
                    "missing", f"`(` is missing before {self.describe()}", f"what `{word}` asks stands in parentheses"
                )
            raise self.fail(
                "not-yet",
                f"`{word} {self.text}` is not read by this version",
                f"`{word} (...)` is, which asks at once",
            )
        self.at += 1
        cond = self.expression()
        self.expect(")")
        end = self.previous_end
        then = None if self.is_at("else") else self.statement_or_null()
        other: ast.Stmt | None = None
        if word != "cover":
            other = ast.TaskCall(start, end, "$error", [ast.String(start, end, f"`{word}` fails")])
            if self.accept("else"):
                other = self.statement_or_null()
        if later:
            then = ast.Deferred(start, end, then) if then is not None else None
            other = ast.Deferred(start, end, other) if other is not None else None
        return ast.If(start, self.previous_end, cond, then, other)

    def _deferred(self) -> bool:
        """Take `#0` or `final` behind `assert` (1800 clause 16.4): reported when the step of time is over."""
        if self.is_at("#") and self.texts[self.at + 1] == "0":
            self.at += 2
            return True
        return self.accept("final")

    def _wait_order(self) -> ast.Stmt:
        """`wait_order (a, b, c)` with what is done then, or else (1800 clause 15.5.4)."""
        start = self.start
        self.at += 1
        self.expect("(", "the events")
        events = [self._event_name()]
        while self.accept(","):
            events.append(self._event_name())
        self.expect(")", "the events")
        then = None if self.is_at("else") else self.statement_or_null()
        other = self.statement_or_null() if self.accept("else") else None
        return ast.WaitOrder(start, self.previous_end, events, then, other)

    def _trigger(self) -> ast.Stmt:
        start, later = self.start, self.text == "->>"
        self.at += 1
        timing = self.timing_inside() if later and self.is_at("#", "@", "repeat") else None
        event = self._event_name()
        self.semicolon("statement")
        return ast.Trigger(start, self.previous_end, event, later, timing)

    def _event_name(self) -> ast.Expr:
        if self.kinds[self.at] not in "ix":
            raise self.fail("expected-name", f"the name of an event is missing before {self.describe()}")
        return self.primary()

    def _timed(self) -> ast.Stmt:
        start = self.start
        if self.is_at("#"):
            timing = ast.Timing(start, start, None, self.delay())
        else:
            timing = ast.Timing(start, start, self.event_control(), None)
        timing.end = self.previous_end
        body = self.statement_or_null()
        return ast.Timed(start, self.previous_end, timing, body)

    def _wait(self) -> ast.Stmt:
        start = self.start
        self.at += 1
        if self.is_at("fork"):
            return self._of_forked("wait", start)
        self.expect("(")
        timing = ast.Timing(start, start, None, None, self.expression())
        self.expect(")")
        timing.end = self.previous_end
        body = self.statement_or_null()
        return ast.Timed(start, self.previous_end, timing, body)

    def _block(self) -> ast.Stmt:
        self._open_begins += 1
        try:
            return self._open_block()
        finally:
            self._open_begins -= 1

    def _open_block(self) -> ast.Stmt:
        start = self.start
        label, self._label = self._label, None
        opening = self.text
        closings = ("end",) if opening == "begin" else ("join", "join_any", "join_none")
        closes_branch = opening == "begin" and self._branch_at == self.at
        self.at += 1
        name = self.name("a block name") if self.accept(":") else None
        declarations: list[ast.Item] = []
        body: list[ast.Stmt] = []
        first_assign: int | None = None
        while not self.is_at(*closings) or self._foreign_end():
            if self.is_at("assign") and self.newline_before[self.at] and first_assign is None:
                first_assign = self.previous_end
            if self.kinds[self.at] == "e" or (self.kinds[self.at] == "k" and self.text in _STOPS):
                self._missing_end(opening, closings[0], first_assign or self.previous_end)
                return ast.Block(start, self.previous_end, name, declarations, body, opening == "fork")
            before = self.at
            try:
                if self.is_at("else") and closes_branch:
                    self._missing_end(opening, closings[0], self.previous_end)
                    return ast.Block(start, self.previous_end, name, declarations, body, False)
                if self.at_declaration():
                    if body and not self.system_verilog:
                        self.collector.error(
                            "late-declaration",
                            f"declarations stand before the first statement of a block: {self.describe()}",
                            self.start,
                            self.ends[self.at],
                            "move it up to `begin`",
                        )
                    declarations += self.declaration_in_block()
                elif not self.accept(";"):
                    body.append(self.statement())
            except SyntaxProblem:
                self.recover(before)
        join = self.text
        self.at += 1
        self.end_label(name or label)
        block = ast.Block(start, self.previous_end, name, declarations, body, opening == "fork")
        if opening == "fork":
            block.join = {"join": "all", "join_any": "any", "join_none": "none"}[join]
            if join != "join":
                self.at -= 1
                self.system_verilog_only(f"`{join}`", "write `join`")
                self.at += 1
        return block

    def end_label(self, name: str | None) -> None:
        """The name that may be repeated after an `end` (.sv files): it is that of the beginning (1800 clause 9.3.4)."""
        if not self.is_at(":") or self.kinds[self.at + 1] not in "ix":
            return
        word, label = self.texts[self.at - 1], self.texts[self.at + 1]
        if label != name:
            of = "what has no name" if name is None else f"`{name}`"
            hint = f"write `{word} : {name}`" if name is not None else "leave the name out, or give it to both"
            text = f"`{word} : {label}` closes {of} (1800 clause 9.3.4)"
            self.collector.error("end-name", text, self.starts[self.at + 1], self.ends[self.at + 1], hint)
        self.at += 2

    def _foreign_end(self) -> bool:
        """Whether `end if;` or its like stands here: VHDL, told and passed over."""
        word = self.texts[self.at + 1]
        if (
            self.text != "end"
            or word not in ("if", "case", "process", "loop")
            or self.texts[self.at + 2] != ";"
            or self.newline_before[self.at + 1]
        ):
            return False
        self.collector.error(
            "vhdl-end",
            f"`end {word}` is VHDL",
            self.start,
            self.ends[self.at + 1],
            "Verilog closes `begin` with `end`, and `case` with `endcase`",
        )
        self.at += 3
        return True

    def _missing_end(self, opening: str, closing: str, at: int) -> None:
        """Report that a block never ends. `assign` may stand in a block, but seldom does: with one in it that is where
        the end is missing."""
        before = self.describe() if at == self.previous_end else "`assign`"
        self.collector.error(
            "missing-end",
            f"`{closing}` is missing before {before}",
            at,
            at,
            f"it closes the `{opening}` opened before; count `begin` and `end`",
        )

    def recover(self, before: int) -> None:
        """Go on after the next `;`, or before a word that starts or closes something."""
        if self.at == before:
            self.at += 1
        while self.kinds[self.at] != "e":
            if self.kinds[self.at] == "o" and self.text == ";":
                self.at += 1
                return
            if self.kinds[self.at] == "k" and (self.text in _STOPS or self.text in ("begin", "if", "case", "for")):
                return
            self.at += 1

    def _if(self) -> ast.Stmt:
        """`if ... else if ... else`: a chain costs no depth while it is read (9.4)."""
        branches: list[tuple[int, ast.Expr, ast.Stmt | None]] = []
        other: ast.Stmt | None = None
        while True:
            branches.append(self._branch())
            if not self.accept("else"):
                break
            if not self.at_word("if"):
                other = self.statement_or_null()
                break
            self.in_chain(len(branches), "`else if`")
        for start, cond, then in reversed(branches):
            other = ast.If(start, self.previous_end, cond, then, other)
        assert other is not None
        return other

    def _branch(self) -> tuple[int, ast.Expr, ast.Stmt | None]:
        """From `if` to the end of its own statement: where it begins, its condition, the statement."""
        start = self.start
        self.at += 1
        if not self.is_at("(") and self._then_follows():
            self.collector.error(
                "vhdl-then",
                "`if ... then` is VHDL",
                start,
                self.previous_end,
                "write `if (condition)` and group with `begin` and `end`",
            )
            cond = self.expression()
            if self.is_at("="):
                self.at += 1
                self.expression()
        else:
            self._need_parenthesis("if")
            cond = self.expression()
            self._close_condition()
        if self.is_at("then"):
            self.collector.error(
                "vhdl-then", "`then` is VHDL", self.start, self.ends[self.at], "leave it out in Verilog"
            )
            self.at += 1
        self._branch_at = self.at
        self.no_empty_body("if")
        return start, cond, self.statement_or_null()

    def _then_follows(self) -> bool:
        """Whether `then` stands further on in this line."""
        at = self.at
        while self.kinds[at] != "e" and not self.newline_before[at]:
            if self.texts[at] == "then":
                return True
            at += 1
        return False

    def _case(self) -> ast.Stmt:
        start = self.start
        kind = self.text
        self.at += 1
        self._need_parenthesis(kind)
        subject = self.expression()
        self.expect(")", "what is looked at")
        if self.is_at("inside") and self.kinds[self.at] == "k":
            self.at += 1
            kind = "inside"
        items: list[ast.CaseItem] = []
        default: ast.Stmt | None = None
        while not self.is_at("endcase"):
            if self.kinds[self.at] == "e" or (self.kinds[self.at] == "k" and self.text in _STOPS):
                if self.is_at("end") and not self._open_begins:
                    self.collector.error(
                        "missing-endcase",
                        f"this `{kind}` is closed by `end`",
                        self.start,
                        self.ends[self.at],
                        "write `endcase`",
                    )
                    self.at += 1
                    return ast.Case(start, self.previous_end, kind, subject, items, default)
                self.collector.error(
                    "missing-endcase",
                    f"`endcase` is missing before {self.describe()}",
                    self.previous_end,
                    self.previous_end,
                    f"it closes the `{kind}` opened before",
                )
                return ast.Case(start, self.previous_end, kind, subject, items, default)
            before = self.at
            try:
                item_start = self.start
                if self.is_at("default"):
                    self.no_second_default(default is not None)
                    self.at += 1
                    self.accept(":")
                    default = self.statement_or_null() or ast.Block(item_start, self.previous_end, None, [], [])
                    continue
                labels = self._labels(kind == "inside")
                body = self.statement_or_null()
                items.append(ast.CaseItem(item_start, self.previous_end, labels, body))
            except SyntaxProblem:
                self.recover(before)
        self.at += 1
        return ast.Case(start, self.previous_end, kind, subject, items, default)

    def _labels(self, with_ranges: bool) -> list[ast.Expr | ast.Range]:
        if with_ranges:
            among = self.values_and_ranges(":")
            if self.kinds[self.at] == "n" and self.texts[self.at + 1] in (":", ","):
                raise self._bare_range(among[-1])
            return among
        if self.is_at("when") and self.texts[self.at + 1] not in (":", ","):
            raise self.fail("vhdl-when", "`when` is VHDL", "an arm begins with its value: `0: y = 1;`")
        labels: list[ast.Expr | ast.Range] = [*self._list()]
        if self.is_at("=", "<="):
            raise self.fail(
                "arm-of-two",
                "an arm has one statement, and this is a second one",
                "put them between `begin` and `end`",
                labels[0].start,
                labels[0].end,
            )
        self.expect(":", "between a case label and its statement")
        return labels

    def no_second_default(self, is_there: bool) -> None:
        """A case has one default at most (9.5, 12.4.3)."""
        if is_there:
            text = "this case has a default already"
            self.collector.error("default-twice", text, self.start, self.ends[self.at], "keep one of the two")

    def _disable(self) -> ast.Stmt:
        start = self.start
        self.at += 1
        if self.is_at("fork"):
            return self._of_forked("disable", start)
        path = [self.name("the name of a block or task")]
        while self.accept("."):
            path.append(self.name("a name after the dot"))
        self.semicolon("statement")
        return ast.Disable(start, self.previous_end, path)

    def _of_forked(self, what: str, start: int) -> ast.Stmt:
        """From `fork` in `wait fork` and `disable fork` (1800 clause 9.6)."""
        self.system_verilog_only(f"`{what} fork`", "name the blocks and disable those")
        self.at += 1
        self.semicolon("statement")
        return ast.OfForked(start, self.previous_end, what)

    def _hold(self) -> ast.Stmt:
        start, kind = self.start, self.text
        self.at += 1
        target = self.lvalue()
        self.expect("=", f"what to {kind}")
        value = self.expression()
        self.semicolon("statement")
        return ast.Hold(start, self.previous_end, kind, target, value)

    def _let_go(self) -> ast.Stmt:
        start, kind = self.start, self.text
        self.at += 1
        target = self.lvalue()
        self.semicolon("statement")
        return ast.LetGo(start, self.previous_end, kind, target)

    def _leave(self) -> ast.Stmt:
        start, what = self.start, self.text
        self.at += 1
        value = None if self.is_at(";") else self.expression()
        self.semicolon("statement")
        return ast.Leave(start, self.previous_end, what, value)


_ASSERTIONS = frozenset(["assert", "assume", "cover"])

_BY_WORD = {
    "begin": StatementParser._block,
    "fork": StatementParser._block,
    "if": StatementParser._if,
    "case": StatementParser._case,
    "casez": StatementParser._case,
    "casex": StatementParser._case,
    "for": StatementParser._for,
    "foreach": StatementParser._foreach,
    "while": StatementParser._while,
    "repeat": StatementParser._repeat,
    "forever": StatementParser._forever,
    "wait": StatementParser._wait,
    "disable": StatementParser._disable,
    "assign": StatementParser._hold,
    "deassign": StatementParser._let_go,
    "force": StatementParser._hold,
    "release": StatementParser._let_go,
    "do": StatementParser._do,
    "return": StatementParser._leave,
    "break": StatementParser._leave,
    "continue": StatementParser._leave,
}
