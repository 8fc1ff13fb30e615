"""Parsing of what stands in braces: values side by side, repeated, streams, assignment patterns (IEEE 1364-2005 clause
5.1.14, 1800-2017 clauses 10.9 and 11.4.14)."""

from __future__ import annotations

from obento.core.syntax.stream import TokenStream
from obento.core.verilog.syntax import ast


class BraceParser(TokenStream):
    """The part of the grammar of expressions that stands in braces."""

    system_verilog = False

    def expression(self) -> ast.Expr:
        """An expression with all operators."""
        raise NotImplementedError

    def primary(self) -> ast.Expr:
        """An operand."""
        raise NotImplementedError

    def expect(self, sign: str, what: str = "") -> None:
        """The given sign or word, or a message."""
        raise NotImplementedError

    def system_verilog_only(self, what: str, instead: str) -> None:
        """Tell that this is SystemVerilog, in a file that is not."""
        raise NotImplementedError

    def streamed(self) -> ast.Expr:
        """`{<<8{a, b}}` (1800 clause 11.4.14)."""
        start = self.start
        self.system_verilog_only("this", "write out the digits in their order")
        self.at += 1
        op = self.text
        self.at += 1
        piece = None if self.is_at("{") else self.primary()
        self.expect("{", "what is streamed")
        parts = self._list()
        self.expect("}", "the inner brace")
        self.expect("}", "the brace opened here")
        return ast.Stream(start, self.previous_end, op, piece, parts)

    def pattern(self, start: int, to: str) -> ast.Expr:
        """From `'{` to its closing brace (1800 clause 10.9)."""
        self.system_verilog_only("`'{`", "write `{ }`, or set the elements one by one")
        self.at += 1
        items: list[ast.PatternItem] = []
        count = None
        while not self.is_at("}"):
            at = self.start
            key: ast.Expr | str
            if self.is_at("default") and self.texts[self.at + 1] == ":":
                key = "default"
                self.at += 1
            else:
                key = self.expression()
            if self.accept(":"):
                items.append(ast.PatternItem(at, self.previous_end, key, self.expression()))
            elif self.is_at("{") and not items and not isinstance(key, str):
                count = key
                self.at += 1
                items = [ast.PatternItem(e.start, e.end, None, e) for e in self._list()]
                self.expect("}", "the inner brace")
                break
            elif isinstance(key, str):
                raise self.fail("missing", "`:` is missing behind `default`")
            else:
                items.append(ast.PatternItem(at, self.previous_end, None, key))
            if not self.accept(","):
                break
        self.expect("}", "the brace opened here")
        return ast.Pattern(start, self.previous_end, to, items, count)

    def braces(self) -> ast.Expr:
        """`{a, b}` or `{4{a}}` (5.1.14)."""
        start = self.start
        self.at += 1
        if self.system_verilog and self.accept("}"):
            return ast.Concat(start, self.previous_end, [])  # an empty queue (1800 clause 10.10)
        first = self.expression()
        if self.is_at("{"):
            self.at += 1
            parts = self._list()
            self.expect("}", "the inner brace")
            self.expect("}", "the brace opened here")
            return ast.Repeat(start, self.previous_end, first, parts)
        parts = [first]
        if isinstance(first, ast.Number) and self.kinds[self.at] in "ix":
            raise self.fail(
                "repetition-form", "what is repeated stands in braces of its own", f"write `{{4{{{self.text}}}}}`"
            )
        if self.is_at(":") and self.system_verilog:
            raise self.fail(
                "pattern-quote", "`{` joins values side by side", "with names it is written `'{name: value}`"
            )
        while self.accept(","):
            parts.append(self.expression())
        self.expect("}", "the brace opened here")
        return ast.Concat(start, self.previous_end, parts)

    def _list(self) -> list[ast.Expr]:
        parts = [self.expression()]
        while self.accept(","):
            parts.append(self.expression())
        return parts

    # Names and punctuation.
