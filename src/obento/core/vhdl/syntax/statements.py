"""Reading sequential statements (IEEE 1076 clause 10) and the assignments that may stand among concurrent ones too."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from obento.core.suggest import nearest
from obento.core.syntax.stream import SyntaxProblem
from obento.core.vhdl.syntax import ast
from obento.core.vhdl.syntax.expressions import Expressions

S = TypeVar("S")

_STARTS = frozenset(
    ["if", "case", "for", "while", "loop", "wait", "assert", "report", "return", "null", "exit", "next", "with"]
)
_ENDS = frozenset(["end", "elsif", "else", "when", "begin"])


class Statements(Expressions):
    """The part of the parser that reads what happens one after the other."""

    def sequence(self, *ends: str) -> list[ast.Stmt]:
        """Statements up to one of the words `ends`; goes on after mistakes."""
        return self.until(ends, self.statement)

    def until(self, ends: tuple[str, ...], read: Callable[[], S]) -> list[S]:
        """Read one thing after the other up to one of the words `ends`; goes on after mistakes."""
        found: list[S] = []
        self.enter()
        while not self.is_at(*ends) and self.kind != "e":
            before = self.at
            try:
                found.append(read())
            except SyntaxProblem:
                self._recover(before)
                if self._is_lost():
                    break
        self.leave()
        return found

    def skip_compound(self) -> None:
        """Past the end of the `if`, `case` or `loop` that begins or began here."""
        depth = 1 if not self.is_at("if", "case", "loop") else 0
        while self.kind != "e" and not self._is_lost():
            if self.kind == "k" and self.text in ("if", "case", "loop"):
                depth += -1 if self.texts[self.at - 1] == "end" else 1
                if depth <= 0:
                    break
            self.at += 1
        while self.kind != "e" and not self.accept(";"):
            self.at += 1

    def _is_lost(self) -> bool:
        return self.kind == "e" or (
            self.kind == "k" and self.text in ("entity", "architecture", "package", "library", "configuration")
        )

    def _recover(self, before: int) -> None:
        """Go on behind the next semicolon, or at a word that begins or ends a statement."""
        if self.at == before:
            self.at += self.kind != "e"
        while self.kind != "e":
            if self.kinds[self.at - 1] == "o" and self.texts[self.at - 1] == ";":
                return
            if self.kind == "k" and (self.text in _ENDS or (self.text in _STARTS and self.newline_before[self.at])):
                return
            if self._is_lost():
                return
            if (
                self.newline_before[self.at]
                and self.kind in "ix"
                and self.at > before + 1
                and self.texts[self.at + 1] in ("<=", ":=")
            ):
                return
            self.at += 1

    def label(self) -> str:
        """A label, if one stands here."""
        if self.kind in "ix" and self.texts[self.at + 1] == ":" and self.kinds[self.at + 1] == "o":
            self.at += 2
            return self.texts[self.at - 2]
        return ""

    def statement(self) -> ast.Stmt:
        """One sequential statement."""
        start = self.start
        label = self.label()
        word = self.text if self.kind == "k" else ""
        match word:
            case "if":
                return self._if(start, label)
            case "case":
                return self._case(start, label)
            case "for" | "while" | "loop":
                return self._loop(start, label)
            case "wait":
                return self._wait(start)
            case "assert" | "report":
                return self.assertion(start, label, False)
            case "exit" | "next":
                return self._jump(start)
            case "return":
                self.at += 1
                value = None if self.is_at(";") else self.expression()
                self.expect(";", "after `return`")
                return ast.Return(start, self.previous_end, value)
            case "null":
                self.at += 1
                self.expect(";", "after `null`")
                return ast.NullStmt(start, self.previous_end)
            case "with":
                return self.selected_assignment(start, label)
            case "block":
                text = "`block` among statements is VHDL-2019, which is not read"
                raise self.fail("unsupported", text, "is an `end process;` missing before it?")
            case "process" | "component" | "signal" | "variable" | "constant" | "function" | "procedure":
                text = f"`{word}` cannot stand here, among the statements of a process or subprogram"
                raise self.fail("misplaced", text, "is an `end process;` or `begin` missing before it?")
            case "entity":
                text = "an instance cannot stand inside a process or subprogram"
                self.fail("misplaced", text, "it stands beside processes; a process uses its signals")
                while self.kind != "e" and not self.accept(";"):
                    self.at += 1
                return ast.NullStmt(start, self.previous_end)
            case "elsif" | "else" | "when":
                raise self.fail("misplaced", f"`{word}` belongs to nothing here")
        return self.assignment_or_call(start, label)

    # Assignments and calls.

    def assignment_or_call(
        self, start: int, label: str, concurrent: bool = False
    ) -> ast.SignalAssign | ast.VariableAssign | ast.Call:
        """An assignment, or a procedure call, which begins alike."""
        if self.kind == "o" and self.text == "(":
            target = self._bracketed()
        else:
            self._check_foreign_word()
            target = self.name()
        if self.accept("<="):
            return self.signal_assignment(start, label, target)
        if self.accept(":="):
            if concurrent:
                self.collector.error(
                    "variable-sign",
                    "a concurrent assignment is written with `<=`",
                    self.starts[self.at - 1],
                    self.previous_end,
                    "`:=` is for variables inside processes",
                )
                return self.signal_assignment(start, label, target)
            value = self._conditional_value()
            self.expect(";", "after this assignment")
            return ast.VariableAssign(start, self.previous_end, label, target, value)
        if self.is_at("+", "-") and self.texts[self.at + 1] == self.text:
            raise self.fail("foreign", f"`{self.text * 2}` is no sign of VHDL", f"write: n := n {self.text} 1;")
        if self.is_at("="):
            hint = "`<=` for signals, `:=` for variables"
            raise self.fail("equal-sign", "`=` compares, it does not assign", hint)
        if self.is_at(";"):
            self.at += 1
            return ast.Call(start, self.previous_end, label, target)
        if self.kind in "ix" and isinstance(target, ast.Id):
            near = nearest(target.name, _STARTS | {"elsif", "else", "end", "process", "signal", "component"})
            if near is not None and near != target.name:
                raise self._unknown_word(target, near)
        if isinstance(target, ast.Paren) and isinstance(target.prefix, ast.Id) and self.kind == "k":
            near = nearest(target.prefix.name, ("process", "if", "while", "case"))
            if near is not None:
                raise self._unknown_word(target.prefix, near)
        raise self.missing_semicolon(
            "after this statement"
            if isinstance(target, ast.Paren)
            else f"after `{self._shown(target)}`, or `<=` or `:=`"
        )

    def _unknown_word(self, word: ast.Id, near: str) -> SyntaxProblem:
        """A reserved word typed wrong; what it would have begun is passed over."""
        problem = self.fail(
            "unknown-word", f"`{word.name}` is no word of VHDL", f"did you mean `{near}`?", word.pos, word.end
        )
        if near == "process":
            while (
                self.kind != "e"
                and not (self.text == "process" and self.texts[self.at - 1] == "end")
                and not self._is_lost()
            ):
                self.at += 1
            while self.kind != "e" and not self.accept(";"):
                self.at += 1
        return problem

    @staticmethod
    def _shown(target: ast.Expr) -> str:
        return target.name if isinstance(target, ast.Id) else "this name"

    def _check_foreign_word(self) -> None:
        if self.kind == "i" and self.text in (
            "else_if",
            "elseif",
            "elif",
            "endif",
            "assign",
            "always",
            "reg",
            "wire",
            "module",
            "endmodule",
            "switch",
            "initial",
            "default",
        ):
            hints = {
                "elseif": "write elsif",
                "else_if": "write elsif",
                "elif": "write elsif",
                "endif": "write end if;",
                "assign": "VHDL needs no word before an assignment: y <= a;",
                "always": "VHDL has processes: process (clk)",
                "switch": "VHDL writes case",
                "default": "write: when others =>",
            }
            followed = self.texts[self.at + 1]
            if followed not in ("<=", ":=", ".", ":"):
                raise self.fail(
                    "foreign", f"`{self.text}` is no word of VHDL", hints.get(self.text, "is this Verilog?")
                )

    def signal_assignment(self, start: int, label: str, target: ast.Expr) -> ast.SignalAssign:
        """Behind `<=`."""
        guarded = self.is_at("guarded")
        self.at += guarded
        transport, reject = self._delay_mechanism()
        waveform = self._waveform()
        value: ast.Waveform | ast.Conditional = waveform
        if self.kind == "k" and self.accept("when"):
            arms: list[tuple[ast.Waveform | ast.Expr, ast.Expr | None]] = [(waveform, self.expression())]
            while self.accept("else"):
                waveform = self._waveform()
                if self.accept("when"):
                    arms.append((waveform, self.expression()))
                else:
                    arms.append((waveform, None))
                    break
            value = ast.Conditional(start, self.previous_end, arms)
        elif self.is_at(":="):
            raise self.fail("unexpected", "`:=` does not fit here")
        self.expect(";", "after this assignment")
        return ast.SignalAssign(start, self.previous_end, label, target, value, transport, reject, guarded)

    def _delay_mechanism(self) -> tuple[bool, ast.Expr | None]:
        if self.accept("transport"):
            return True, None
        reject = None
        if self.accept("reject"):
            reject = self.expression()
            self.expect("inertial", "after the reject limit")
        else:
            self.accept("inertial")
        return False, reject

    def _waveform(self) -> ast.Waveform:
        start = self.start
        if self.accept("unaffected"):
            return ast.Waveform(start, self.previous_end, [])
        waves = [self._wave()]
        while self.accept(","):
            waves.append(self._wave())
        return ast.Waveform(start, self.previous_end, waves)

    def _wave(self) -> ast.Wave:
        value = self.expression()
        after = self.expression() if self.accept("after") else None
        return ast.Wave(value.pos, self.previous_end, value, after)

    def _conditional_value(self) -> ast.Expr | ast.Conditional:
        value = self.expression()
        if not (self.kind == "k" and self.text == "when"):
            return value
        self.at += 1
        arms: list[tuple[ast.Waveform | ast.Expr, ast.Expr | None]] = [(value, self.expression())]
        while self.accept("else"):
            value = self.expression()
            if self.accept("when"):
                arms.append((value, self.expression()))
            else:
                arms.append((value, None))
                break
        return ast.Conditional(arms[0][0].pos, self.previous_end, arms)

    def selected_assignment(self, start: int, label: str) -> ast.SignalAssign | ast.VariableAssign:
        """`with s select t <= v when c, ...;`."""
        self.expect("with", "here")
        selector = self.expression()
        self.expect("select", "after the selector")
        matching = self.accept("?")
        target = self._bracketed() if self.is_at("(") else self.name()
        is_variable = self.is_at(":=")
        if not self.accept(":="):
            self.expect("<=", "after the target")
        transport, reject = (False, None) if is_variable else self._delay_mechanism()
        arms: list[tuple[ast.Waveform | ast.Expr, list[ast.Expr]]] = []
        while True:
            value: ast.Waveform | ast.Expr = self.expression() if is_variable else self._waveform()
            self.expect("when", "after the value", "each choice is written: value when choice")
            arms.append((value, self.choices()))
            if not self.accept(","):
                break
        self.expect(";", "after this assignment")
        selection = ast.Selection(start, self.previous_end, selector, arms, matching)
        if is_variable:
            return ast.VariableAssign(start, self.previous_end, label, target, selection)
        return ast.SignalAssign(start, self.previous_end, label, target, selection, transport, reject)

    def choices(self) -> list[ast.Expr]:
        """Choices between bars."""
        found = [self.choice()]
        while self.is_at("|"):
            self.at += 1
            found.append(self.choice())
        return found

    # Control.

    def _if(self, start: int, label: str) -> ast.If:
        self.expect("if", "here")
        arms: list[tuple[ast.Expr | None, list[ast.Stmt]]] = [(self._head(), [])]
        arms[0] = arms[0][0], self.sequence("elsif", "else", "end", "when")
        while True:
            if self.accept("elsif"):
                condition = self._head()
                arms.append((condition, self.sequence("elsif", "else", "end", "when")))
            elif self.accept("else"):
                if self.is_at("if") and not self.newline_before[self.at]:
                    at, end = self.starts[self.at - 1], self.ends[self.at]
                    arms.append((None, self._else_if(at, end)))
                    break
                arms.append((None, self.sequence("elsif", "else", "end", "when")))
                if self.is_at("elsif", "else"):
                    raise self.fail("misplaced", f"`{self.text}` cannot come after `else`")
                break
            else:
                break
        self._end("if", start, label)
        return ast.If(start, self.previous_end, label, arms)

    def _head(self) -> ast.Expr:
        """Condition and `then`; after a mistake there, reading goes on behind the `then`."""
        start = self.start
        try:
            condition = self._condition()
            self._then()
        except SyntaxProblem:
            while not self.is_at("then", ";", "end", "elsif", "else") and self.kind != "e":
                self.at += 1
            self.accept("then")
            return ast.Open(start, start)
        return condition

    def _else_if(self, at: int, end: int) -> list[ast.Stmt]:
        """`else if` is an if of its own, with an end of its own; mostly `elsif` was meant."""
        body = self.sequence("elsif", "else", "end")
        if not self.is_at("end") or (self.texts[self.at + 1] != "if"):
            raise self.fail("else-if", "`else if` begins a new if that needs its own `end if`", "write elsif", at, end)
        return body

    def _condition(self) -> ast.Expr:
        condition = self.expression()
        if self.is_at("=") and self.texts[self.at + 1] == "=":
            raise self.fail("foreign", "`==` is written `=` in VHDL")
        if self.is_at(":="):
            raise self.fail("foreign", "`:=` assigns; a comparison is written `=`")
        return condition

    def _then(self) -> None:
        if self.accept("then"):
            return
        at = self.previous_end
        self.collector.error(
            "missing-then", "`then` is missing after the condition", at, at, "write: if condition then"
        )
        self.accept(";")

    def _end(self, word: str, start: int, label: str) -> None:
        """`end WORD [label];`, with the mistakes people make there."""
        if self.accept("end"):
            if self.accept(word):
                self.accept("?")
                self._end_label(label)
                self.expect(";", f"after `end {word}`")
                return
            if self.is_at(";") or self.kind in "ix":
                at = self.previous_end
                self.collector.error("bare-end", f"`{word}` is missing: write `end {word};`", at, at)
                if self.kind in "ix":
                    self.at += 1
                self.accept(";")
                return
            here = self.at - 1
            at = self.ends[here - 1]
            line = f"`end {word};` is missing before `end {self.text}`"
            self.at = here
            raise self._unclosed(word, start, line, at)
        raise self._unclosed(word, start, f"`end {word};` is missing before {self.describe()}", self.previous_end)

    def _unclosed(self, word: str, start: int, text: str, at: int) -> SyntaxProblem:
        begun = f"the `{word}` without end began at line {self._line(start)}"
        return self.fail("missing-end", text, begun, at, at)

    def _line(self, start: int) -> int:
        """The line of a position, counted in this text."""
        return self.line_of(start)

    def line_of(self, position: int) -> int:
        """The line of a position; told by who knows the file."""
        raise NotImplementedError

    def _end_label(self, label: str) -> None:
        if self.kind in "ix":
            if label and self.text != label:
                self.collector.error(
                    "end-name", f"this ends `{self.text}`, but `{label}` is open here", self.start, self.ends[self.at]
                )
            elif not label:
                self.collector.error(
                    "end-name", f"nothing here has the label `{self.text}`", self.start, self.ends[self.at]
                )
            self.at += 1

    def _case(self, start: int, label: str) -> ast.Case:
        self.expect("case", "here")
        matching = self._question()
        selector = self.expression()
        self.expect("is", "after the selector of `case`")
        arms: list[tuple[list[ast.Expr], list[ast.Stmt], int]] = []
        while self.kind == "k" and self.text == "when":
            at = self.start
            self.at += 1
            choices = self.choices()
            if not self.accept("=>"):
                wrong = self.describe()
                hint = "each arm is written: when choice => statements"
                if self.is_at("<=", "=", ":", ":="):
                    self.collector.error(
                        "arrow", f"`=>` is expected after the choice, not {wrong}", self.start, self.ends[self.at], hint
                    )
                    self.at += 1
                    self.accept(">")
                else:
                    at_end = self.previous_end
                    self.collector.error(
                        "arrow", f"`=>` is missing after the choice, before {wrong}", at_end, at_end, hint
                    )
            arms.append((choices, self.sequence("when", "end"), at))
            if (self.kind == "k" and self.text not in ("when", "end")) or self.kind in "ixcsbn":
                break
        if not self.is_at("end"):
            self.fail(
                "missing", f"`when` is missing before {self.describe()}", "a case has arms: when choice => statements"
            )
            self.skip_compound()
            raise SyntaxProblem
        self._end("case", start, label)
        return ast.Case(start, self.previous_end, label, selector, arms, matching)

    def _question(self) -> bool:
        if self.is_at("?"):
            self.at += 1
            return True
        return False

    def _loop(self, start: int, label: str) -> ast.Loop:
        parameter, discrete, condition = "", None, None
        if self.accept("for"):
            if self.is_at("("):
                problem = self.fail("foreign", "a loop in the manner of Verilog", "write: for i in 0 to 7 loop")
                while self.kind != "e" and not self.accept("loop"):
                    self.at += 1
                self.sequence("end")
                self._end("loop", start, label)
                self.at -= 1  # what is wrong has been said; its `;` ends it
                raise problem
            parameter = self.name_here("the loop's parameter")
            self.expect("in", "after the loop's parameter")
            discrete = self.range_or_value()
        elif self.accept("while"):
            condition = self._condition()
        self.expect("loop", "before the loop's statements")
        body = self.sequence("end")
        self._end("loop", start, label)
        return ast.Loop(start, self.previous_end, label, parameter, discrete, condition, body)

    def _jump(self, start: int) -> ast.Jump:
        kind = self.text
        self.at += 1
        target = ""
        if self.kind in "ix":
            target = self.text
            self.at += 1
        condition = self.expression() if self.accept("when") else None
        self.expect(";", f"after `{kind}`")
        return ast.Jump(start, self.previous_end, "exit" if kind == "exit" else "next", target, condition)

    def _wait(self, start: int) -> ast.Wait:
        self.expect("wait", "here")
        on: list[ast.Expr] = []
        until = time = None
        if self.accept("on"):
            on.append(self.name())
            while self.accept(","):
                on.append(self.name())
        if self.accept("until"):
            until = self._condition()
        if self.accept("for"):
            time = self.expression()
        if not self.is_at(";") and self.kind in "in":
            raise self.fail(
                "unexpected",
                f"{self.describe()} does not fit after `wait`",
                "write: wait for 10 ns; wait until ...; wait on ...;",
            )
        self.expect(";", "after `wait`")
        return ast.Wait(start, self.previous_end, on, until, time)

    def assertion(self, start: int, label: str, postponed: bool) -> ast.Assert:
        """An assertion or report."""
        condition = report = severity = None
        if self.accept("assert"):
            condition = self.expression()
        if self.accept("report"):
            report = self.expression()
        if self.accept("severity"):
            severity = self.expression()
        if self.is_at("report") and report is None:
            raise self.fail("misplaced", "`report` comes before `severity`")
        self.expect(";", "after this assertion" if condition is not None else "after this report")
        return ast.Assert(start, self.previous_end, label, condition, report, severity, postponed)
