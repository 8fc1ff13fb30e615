"""Parsing of assignments and of tasks that are enabled (IEEE 1364-2005 clauses 9.2 and 10.2.2, annexes A.6.2 and
A.6.9)."""

from __future__ import annotations

from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.expressions import UPDATES
from obento.core.verilog.syntax.timing import TimingParser


class AssignmentParser(TimingParser):
    """What a statement that begins with a name does."""

    def lvalue(self) -> ast.Expr:
        """What may stand left of an assignment."""
        if (
            self.is_at("{", "'{")
            or self.kinds[self.at] in "ix"
            or (self.kinds[self.at] == "$" and self.text == "$unit")
        ):
            return self.primary()
        if self.kinds[self.at] == "k":
            raise self.fail(
                "reserved-word", f"`{self.text}` is a reserved word and cannot be written to", "choose another name"
            )
        raise self.fail("expected-target", f"the name to be written to is missing before {self.describe()}")

    def assignment_or_call(self) -> ast.Stmt:
        """An assignment, or a task enabled by its name, with the semicolon."""
        if self.kinds[self.at] in "ix":
            if self.texts[self.at + 1] in (";", "(") and self.kinds[self.at + 1] == "o":
                return self.task(self.text)
            if self.texts[self.at + 1] == "::" and self.texts[self.at + 3] in (";", "("):
                start, name = self.start, f"{self.text}::{self.texts[self.at + 2]}"
                self.at += 2
                call = self.task(name)
                call.start = start
                return call
            if self._calls_elsewhere():
                return self._task_elsewhere()
        assignment = self.assignment()
        self.semicolon("statement")
        assignment.end = self.previous_end
        return assignment

    def _calls_elsewhere(self) -> bool:
        """Whether a path of names, some with an index, stands here with nothing but arguments behind it:
        `m1.part[0].show;`."""
        end, has_dot = self.at + 1, False
        while self.kinds[end] == "o" and self.texts[end] in (".", "["):
            if self.texts[end] == ".":
                if self.kinds[end + 1] == "e":
                    break
                has_dot, end = True, end + 2
                continue
            depth = 0
            while self.kinds[end] != "e":
                depth += (self.texts[end] == "[") - (self.texts[end] == "]")
                end += 1
                if not depth:
                    break
        is_with = self.texts[end] == "with" and self.system_verilog
        return has_dot and (is_with or (self.kinds[end] == "o" and self.texts[end] in (";", "(")))

    def _task_elsewhere(self) -> ast.Stmt:
        start = self.start
        parts, indices = [self.name("a name")], list[ast.Expr | None]([None])
        while self.is_at(".", "["):
            if self.accept("."):
                parts.append(self.name_behind_dot())
                indices.append(None)
            else:
                self.at += 1
                indices[-1] = self.expression()
                self.expect("]", "the bracket opened here")
        path = ast.Dotted(start, self.previous_end, parts, indices)
        self.at -= 1
        call = self.task(".".join(parts))
        call.start, call.path = start, path
        return call

    def assignment(self) -> ast.Assign:
        """`target = value` or `target <= value`, without the semicolon; `i++` and `i += 1` where the language has
        them."""
        start = self.start
        if self.text in ("++", "--") and self.kinds[self.at] == "o":
            op = self.text
            self.at += 1
            return self.step(start, self.lvalue(), op)
        target = self.lvalue()
        op = self.text
        if self.kinds[self.at] in "ix" and self.texts[self.at + 1] in ("(", "#") and isinstance(target, ast.Name):
            raise self.fail(
                "instance-in-process",
                f"`{target.name} {op} (...)` places a module, which a process cannot",
                "an instance stands outside of `always`; a process only uses its wires",
                start,
            )
        if op in ("++", "--"):
            self.at += 1
            return self.step(start, target, op)
        if op in UPDATES and self.kinds[self.at] == "o":
            self.system_verilog_only(f"`{op}`", f"write `a = a {UPDATES[op]} b`")
            self.at += 1
            right = self.expression()
            updated = ast.Binary(start, self.previous_end, UPDATES[op], target, right)
            return ast.Assign(start, self.previous_end, target, updated, True)
        if op == ":" and self.texts[self.at + 1] == "=":
            raise self.fail(
                "vhdl-assign", "`:=` is VHDL", "Verilog assigns with `=` or `<=`", start, self.ends[self.at + 1]
            )
        if op == "==":
            raise self.fail("compare-for-assign", "`==` compares, it does not assign", "to assign write `=` or `<=`")
        if op not in ("=", "<="):
            raise self.fail("expected-assignment", f"`=` or `<=` is missing before {self.describe()}")
        self.at += 1
        timing = self.timing_inside() if self.is_at("#", "@", "repeat") else None
        value = self.expression()
        return ast.Assign(start, self.previous_end, target, value, op == "=", timing)

    def task(self, name: str) -> ast.TaskCall:
        """A task that is enabled: the word that stands here, and its arguments."""
        start = self.start
        self.at += 1
        args, named = self.arguments() if self.is_at("(") else ([], {})
        each = self.each(args)
        self.semicolon("statement")
        return ast.TaskCall(start, self.previous_end, name, args, None, named, False, each)
