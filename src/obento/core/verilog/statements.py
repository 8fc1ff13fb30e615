"""Parsing of statements (IEEE 1364-2005 clause 9, annex A.6)."""

from __future__ import annotations

from obento.core.syntax.stream import SyntaxProblem
from obento.core.verilog import ast
from obento.core.verilog.expressions import ExpressionParser

_STOPS = frozenset(
    [
        "end",
        "endmodule",
        "endcase",
        "endfunction",
        "endtask",
        "endgenerate",
        "join",
        "module",
        "always",
        "initial",
        "assign",
        "function",
        "task",
        "always_comb",
        "always_ff",
        "always_latch",
    ]
)
_DECLARES = frozenset(["reg", "integer", "real", "realtime", "time", "event", "parameter", "localparam", "logic", "bit"])


class StatementParser(ExpressionParser):
    """The procedural part of the grammar."""

    def declaration_in_block(self) -> list[ast.Item]:
        raise NotImplementedError

    def statement_or_null(self) -> ast.Stmt | None:
        """A statement; None for a lone `;`."""
        if self.accept(";"):
            return None
        return self.statement()

    def statement(self) -> ast.Stmt:
        self.enter()
        try:
            return self._statement()
        finally:
            self.leave()

    def _statement(self) -> ast.Stmt:
        kind, text, start = self.kinds[self.at], self.texts[self.at], self.start
        if kind == "k":
            if text in ("unique", "priority"):
                self.at += 1
                return self._statement()
            method = _BY_WORD.get(text)
            if method is not None:
                return method(self)
            if text == "else":
                raise self.fail(
                    "stray-else",
                    "this `else` belongs to no `if`",
                    "more than one statement under an `if` needs `begin` and `end`; also look for a `;` too many",
                )
            raise self.fail("expected-statement", f"a statement is missing before {self.describe()}")
        if text == "@" or text == "#":
            return self._timed()
        if text == "->":
            self.at += 1
            self.name("the name of an event")
            self.semicolon("statement")
            return ast.Other(start, self.previous_end, "event trigger")
        if kind == "$":
            return self._task(text)
        if kind in "ix" or text == "{":
            return self._assignment_or_call()
        raise self.fail("expected-statement", f"a statement is missing before {self.describe()}")

    def _task(self, name: str) -> ast.Stmt:
        start = self.start
        self.at += 1
        args: list[ast.Expr | None] = []
        if self.accept("("):
            while not self.is_at(")"):
                args.append(None if self.is_at(",") else self.expression())
                if not self.accept(","):
                    break
            self.expect(")", "the arguments")
        self.semicolon("statement")
        return ast.TaskCall(start, self.previous_end, name, args)

    def lvalue(self) -> ast.Expr:
        """What may stand left of an assignment."""
        if self.is_at("{") or self.kinds[self.at] in "ix":
            return self.primary()
        if self.kinds[self.at] == "k":
            raise self.fail("reserved-word", f"`{self.text}` is a reserved word and cannot be written to", "choose another name")
        raise self.fail("expected-target", f"the name to be written to is missing before {self.describe()}")

    def _assignment_or_call(self) -> ast.Stmt:
        start = self.start
        if self.kinds[self.at] in "ix" and self.texts[self.at + 1] in (";", "("):
            return self._task(self.text)
        assignment = self.assignment()
        self.semicolon("statement")
        return ast.Assign(start, self.previous_end, assignment.target, assignment.value, assignment.blocking)

    def assignment(self) -> ast.Assign:
        """`target = value` or `target <= value`, without the semicolon; `i++` and `i += 1` where the language has them."""
        start = self.start
        target = self.lvalue()
        op = self.text
        if op in ("++", "--"):
            self.at += 1
            one = ast.Number(start, self.previous_end, None, True, 1, (1 << 32) - 2, 32)
            value: ast.Expr = ast.Binary(start, self.previous_end, op[0], target, one)
            return ast.Assign(start, self.previous_end, target, value, True)
        if op == ":" and self.texts[self.at + 1] == "=":
            raise self.fail("vhdl-assign", "`:=` is VHDL", "Verilog assigns with `=` or `<=`", start, self.ends[self.at + 1])
        if op == "==":
            raise self.fail("compare-for-assign", "`==` compares, it does not assign", "to assign write `=` or `<=`")
        if op not in ("=", "<="):
            raise self.fail("expected-assignment", f"`=` or `<=` is missing before {self.describe()}")
        self.at += 1
        if self.is_at("#") or self.is_at("@") or self.is_at("repeat"):
            self._skip_intra_assignment()
        value = self.expression()
        return ast.Assign(start, self.previous_end, target, value, op == "=")

    def _skip_intra_assignment(self) -> None:
        if self.accept("repeat"):
            self.expect("(")
            self.expression()
            self.expect(")")
        if self.is_at("#"):
            self.delay()
        else:
            self.event_control()

    def delay(self) -> ast.Expr:
        """`#` and what follows; of several values in parentheses the first."""
        self.expect("#")
        if self.accept("("):
            first = self._min_typ_max()
            while self.accept(","):
                self._min_typ_max()
            self.expect(")", "the delay")
            return first
        return self.primary()

    def _min_typ_max(self) -> ast.Expr:
        first = self.expression()
        while self.accept(":"):
            self.expression()
        return first

    def event_control(self) -> ast.EventControl:
        start = self.start
        self.expect("@")
        if self.accept("*"):
            return ast.EventControl(start, self.previous_end, None)
        if self.kinds[self.at] in "ix":
            term_start = self.start
            name = self.primary()
            return ast.EventControl(start, self.previous_end, [ast.EventTerm(term_start, name.end, "any", name)])
        self.expect("(", "the list of what to wait for")
        if self.accept("*"):
            self.expect(")")
            return ast.EventControl(start, self.previous_end, None)
        terms = [self._event_term()]
        while self.is_at("or") or self.is_at(","):
            self.at += 1
            terms.append(self._event_term())
        self.expect(")", "the list of what to wait for")
        return ast.EventControl(start, self.previous_end, terms)

    def _event_term(self) -> ast.EventTerm:
        start = self.start
        edge = "any"
        if self.accept("posedge"):
            edge = "pos"
        elif self.accept("negedge"):
            edge = "neg"
        expr = self.expression()
        return ast.EventTerm(start, expr.end, edge, expr)

    def _timed(self) -> ast.Stmt:
        start = self.start
        if self.is_at("#"):
            delay = self.delay()
            body = self.statement_or_null()
            return ast.Timed(start, self.previous_end, None, delay, None, body)
        control = self.event_control()
        body = self.statement_or_null()
        return ast.Timed(start, self.previous_end, control, None, None, body)

    def _wait(self) -> ast.Stmt:
        start = self.start
        self.at += 1
        self.expect("(")
        cond = self.expression()
        self.expect(")")
        body = self.statement_or_null()
        return ast.Timed(start, self.previous_end, None, None, cond, body)

    def _block(self) -> ast.Stmt:
        start = self.start
        opening = self.text
        closing = "end" if opening == "begin" else "join"
        self.at += 1
        name = self.name("a block name") if self.accept(":") else None
        declarations: list[ast.Item] = []
        body: list[ast.Stmt] = []
        while self.is_at(*_DECLARES):
            declarations += self.declaration_in_block()
        while not self.is_at(closing):
            if self.kinds[self.at] == "e" or (self.kinds[self.at] == "k" and self.text in _STOPS):
                self._missing_end(opening, closing, start)
                return ast.Block(start, self.previous_end, name, declarations, body, opening == "fork")
            if self.accept(";"):
                continue
            before = self.at
            try:
                body.append(self.statement())
            except SyntaxProblem:
                self.recover(before)
        self.at += 1
        if self.is_at(":") and self.kinds[self.at + 1] in "ix":
            self.at += 2
        return ast.Block(start, self.previous_end, name, declarations, body, opening == "fork")

    def _missing_end(self, opening: str, closing: str, start: int) -> None:
        self.collector.error(
            "missing-end",
            f"`{closing}` is missing before {self.describe()}",
            self.previous_end,
            self.previous_end,
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
        start = self.start
        self.at += 1
        self._need_parenthesis("if")
        cond = self.expression()
        self._close_condition()
        if self.is_at("then"):
            self.collector.error("vhdl-then", "`then` is VHDL", self.start, self.ends[self.at], "leave it out in Verilog")
            self.at += 1
        then = self.statement_or_null()
        other = self.statement_or_null() if self.accept("else") else None
        return ast.If(start, self.previous_end, cond, then, other)

    def _need_parenthesis(self, word: str) -> None:
        if not self.is_at("("):
            raise self.fail("missing", f"`(` is missing before {self.describe()}", f"the condition of `{word}` stands in parentheses")
        self.at += 1

    def _close_condition(self) -> None:
        if self.is_at("="):
            raise self.fail("assign-for-compare", "`=` does not compare", "to compare write `==`")
        self.expect(")", "the condition")

    def _case(self) -> ast.Stmt:
        start = self.start
        kind = self.text
        self.at += 1
        self._need_parenthesis(kind)
        subject = self.expression()
        self.expect(")", "what is looked at")
        items: list[ast.CaseItem] = []
        default: ast.Stmt | None = None
        while not self.is_at("endcase"):
            if self.kinds[self.at] == "e" or (self.kinds[self.at] == "k" and self.text in _STOPS):
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
                if self.accept("default"):
                    self.accept(":")
                    default = self.statement_or_null() or ast.Block(item_start, self.previous_end, None, [], [])
                    continue
                labels = self._list()
                self.expect(":", "between a case label and its statement")
                body = self.statement_or_null()
                items.append(ast.CaseItem(item_start, self.previous_end, labels, body))
            except SyntaxProblem:
                self.recover(before)
        self.at += 1
        return ast.Case(start, self.previous_end, kind, subject, items, default)

    def _for(self) -> ast.Stmt:
        start = self.start
        self.at += 1
        self._need_parenthesis("for")
        variable = None
        if self.is_at("integer") or self.is_at("int") or self.is_at("genvar"):
            self.at += 1
            variable = self.text
        init = self.assignment()
        self.expect(";", "between the parts of `for`")
        cond = self.expression()
        self.expect(";", "between the parts of `for`")
        step = self.assignment()
        self.expect(")", "the parts of `for`")
        body = self.statement_or_null()
        loop = ast.For(start, self.previous_end, init, cond, step, body)
        if variable is None:
            return loop
        counter = ast.Declarator(init.start, init.start + len(variable), variable, [], None)
        declaration = ast.Declaration(init.start, init.start, "integer", "", True, None, [counter])
        return ast.Block(start, self.previous_end, None, [declaration], [loop])

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

    def _named_other(self) -> ast.Stmt:
        """disable, assign, deassign, force, release inside a process."""
        start = self.start
        what = self.text
        self.at += 1
        if what in ("assign", "force"):
            self.assignment()
        else:
            self.lvalue()
        self.semicolon("statement")
        return ast.Other(start, self.previous_end, "procedural assign" if what == "assign" else what)


_BY_WORD = {
    "begin": StatementParser._block,
    "fork": StatementParser._block,
    "if": StatementParser._if,
    "case": StatementParser._case,
    "casez": StatementParser._case,
    "casex": StatementParser._case,
    "for": StatementParser._for,
    "while": StatementParser._while,
    "repeat": StatementParser._repeat,
    "forever": StatementParser._forever,
    "wait": StatementParser._wait,
    "disable": StatementParser._named_other,
    "assign": StatementParser._named_other,
    "deassign": StatementParser._named_other,
    "force": StatementParser._named_other,
    "release": StatementParser._named_other,
}
