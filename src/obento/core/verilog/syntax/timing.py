"""Parsing of delays and event controls (IEEE 1364-2005 clause 9.7, annex A.6.5)."""

from __future__ import annotations

from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.types import TypeParser


class TimingParser(TypeParser):
    """What stands behind `#` and `@`."""

    def timing_inside(self) -> ast.Timing:
        """What stands between `=` and the value."""
        start = self.start
        count = None
        if self.accept("repeat"):
            self.expect("(")
            count = self.expression()
            self.expect(")")
        if self.is_at("#"):
            delay = self.delay()
            return ast.Timing(start, self.previous_end, None, delay)
        return ast.Timing(start, self.previous_end, self.event_control(), None, None, count)

    def delay(self) -> ast.Expr:
        """`#` and one value."""
        delays = self.delays()
        return delays[0]

    def delays(self) -> list[ast.Expr]:
        """`#` and one value, or up to three in parentheses."""
        self.expect("#")
        if self.accept("("):
            found = [self._min_typ_max()]
            while self.accept(","):
                found.append(self._min_typ_max())
            self.expect(")", "the delay")
            return found
        if self.kinds[self.at] in "ix":
            start, end, name = self.start, self.ends[self.at], self.text
            self.at += 1
            if self.is_at(".", "::"):
                self.at -= 1
                return [self.primary()]
            return [ast.Name(start, end, name)]
        if self.kinds[self.at] not in "nrt":
            raise self.fail(
                "expected-value", f"a delay is missing before {self.describe()}", "write for instance `#10`"
            )
        return [self.primary()]

    def _min_typ_max(self) -> ast.Expr:
        """The typical one of `min : typ : max`."""
        found = [self.expression()]
        while self.accept(":"):
            found.append(self.expression())
        return found[len(found) // 2]

    def event_control(self) -> ast.EventControl:
        """`@` with what is waited for."""
        start = self.start
        self.expect("@")
        if self.accept("*"):
            return ast.EventControl(start, self.previous_end, None)
        if self.is_at("(") and self.texts[self.at + 1] == "*" and self.texts[self.at + 2] == ")":
            self.at += 3
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
        if self.is_at("and", "&", "&&"):
            raise self.fail("events-joined", "events are joined by `or` or `,`", "any of them wakes it")
        self.expect(")", "the list of what to wait for")
        return ast.EventControl(start, self.previous_end, terms)

    def _event_term(self) -> ast.EventTerm:
        start = self.start
        edge = "any"
        if self.accept("posedge"):
            edge = "pos"
        elif self.accept("negedge"):
            edge = "neg"
        if edge != "any" and self.is_at(")"):
            raise self.fail("edge-of-nothing", "the edge of which signal?", "write for instance `@(posedge clk)`")
        expr = self.expression()
        only_if = self.expression() if self.is_at("iff") and self.accept("iff") else None
        return ast.EventTerm(start, self.previous_end, edge, expr, only_if)
