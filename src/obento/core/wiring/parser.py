"""Text of wiring lists to trees. Lines matter: a line is one port list, one gate, one block or one look."""

from __future__ import annotations

import re

from obento.core.decimals import from_decimal, shown
from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.source import SourceFile
from obento.core.suggest import did_you_mean
from obento.core.syntax.stream import SyntaxProblem, Tokens
from obento.core.wiring.ast import Bus, Constant, Count, Join, Line, Open, Operand, Use, Wire, Wiring
from obento.core.wiring.looks import Look, LookParser, strangers

_TOKEN = re.compile(
    r"""(?P<space>[ \t\r]+)|(?P<newline>\n)|(?P<comment>//[^\n]*)
    |(?P<n>\d+[bdh][0-9a-fA-F_]+|\d+)|(?P<i>[A-Za-z_][\w$]*)|(?P<o><-|\.\.|[\[\](){},:!.])|(?P<s>"[^"\n]*")""",
    re.VERBOSE,
)
_SIZED = re.compile(r"(\d+)([bdh])([0-9a-fA-F_]+)")
_HEADS = ("wiring", "takes", "gives", "place", "end")
KEYWORDS = frozenset(_HEADS)
"""Words that begin a line."""


def lex(file: SourceFile, collector: Collector, limits: Limits) -> Tokens:
    """Text to tokens; what is no token is reported."""
    tokens = Tokens()
    text, base = file.text, file.base
    at, newline = 0, True
    while at < len(text):
        m = _TOKEN.match(text, at)
        if m is None:
            hint = "values are written `name <- gate(a, b)`" if text[at] == "=" else ""
            collector.error(
                "strange-character",
                f"the character {text[at]!r} means nothing in a wiring list",
                base + at,
                base + at + 1,
                hint,
            )
            at += 1
            continue
        kind = m.lastgroup
        if kind == "newline":
            newline = True
        elif kind in ("n", "i", "o", "s"):
            tokens.append(kind, m.group(), base + at, base + m.end(), newline)
            newline = False
            if len(tokens.kinds) > limits.tokens:
                collector.error("limit", "this file has too many words to be read", base + at)
                break
        at = m.end()
    last = tokens.ends[-1] if tokens.ends else base
    tokens.append("e", "", last, last, True)
    return tokens


class WiringParser(LookParser):
    """One file's tokens to wiring lists."""

    def __init__(self, tokens: Tokens, collector: Collector, limits: Limits) -> None:
        super().__init__(tokens, collector, limits)
        self._limits = limits
        self._looks: list[Look] = []

    def wirings(self) -> list[Wiring]:
        """All wiring lists of a file."""
        found: list[Wiring] = []
        while self.kind != "e":
            try:
                if not self.is_at("wiring"):
                    raise self.fail(
                        "expected-wiring", f"a wiring list begins with `wiring NAME`, not with {self.describe()}",
                        did_you_mean(self.text, ["wiring"]),
                    )  # fmt: skip
                found.append(self._wiring())
            except SyntaxProblem:
                while self.kind != "e":
                    self.at += 1
                    if self.is_at("wiring"):
                        break
        return found

    def is_one_operand(self) -> bool:
        """Whether the whole text is one operand; what is wrong with it is told."""
        try:
            self._operand()
        except SyntaxProblem:
            return False
        return self.kind == "e"

    def one_line(self) -> Line | None:
        """The whole text as one line of a wiring list that drives something; None where it is none.

        Raises
        ------
        SyntaxProblem
            If it cannot be read.
        """
        if self.kind == "e" or self.is_look():
            return None
        line = self._gate_line()
        return line if self.kind == "e" else None

    def _wiring(self) -> Wiring:
        start = self.start
        self.at += 1
        name_start = self.start
        wiring = Wiring(start, start, self._name("the wiring list's name"), name_start)
        self._line_ends()
        while not self.is_at("end"):
            if self.kind == "e" or self.is_at("wiring"):
                self.collector.error(
                    "missing-end",
                    f"`end` is missing after the last line of `{wiring.name}`",
                    self.previous_end,
                    self.previous_end,
                )
                return wiring
            before = self.at
            try:
                self._line(wiring)
                self._line_ends()
            except SyntaxProblem:
                self.at = max(self.at, before + 1) if self.kinds[before] != "e" else before
                while self.kind != "e" and not self.newline_before[self.at]:
                    self.at += 1
        self.at += 1
        wiring.end = self.previous_end
        self._check_labels(wiring)
        return wiring

    def _check_labels(self, wiring: Wiring) -> None:
        """A label names one line, and what is said of how something looks is said of something that is there."""
        labels: set[str] = set()
        for line in wiring.lines:
            if line.label is not None and line.label in labels:
                text = f"the label `{line.label}` stands at two lines"
                self.collector.warning("duplicate", text, line.start, line.start + len(line.label), "give each its own")
            labels.add(line.label or line.targets[0].name)
        for text, start, near in strangers(wiring, self._looks):
            self.collector.warning("no-label", text, start, start + 1, near)
        self._looks.clear()

    def _line_ends(self) -> None:
        if not self.newline_before[self.at]:
            raise self.fail("extra", f"{self.describe()} is too much on this line", "one line, one gate")

    def _name(self, what: str) -> str:
        if self.kind != "i" or self.text in _HEADS:
            raise self.fail("expected-name", f"{what} is missing before {self.describe()}")
        self.at += 1
        return self.texts[self.at - 1]

    def _sign(self, sign: str) -> None:
        if self.newline_before[self.at] and self.at:
            raise self.fail("missing", f"`{sign}` is missing here", "", self.previous_end, self.previous_end)
        if not self.accept(sign):
            raise self.fail("missing", f"`{sign}` is missing before {self.describe()}")

    def _number(self) -> int:
        if self.kind != "n" or not self.text.isdigit():
            raise self.fail("expected-number", f"a number is missing before {self.describe()}")
        self.at += 1
        return from_decimal(self.texts[self.at - 1])

    def _line(self, wiring: Wiring) -> None:
        if self.accept("takes"):
            wiring.takes += self._buses()
        elif self.accept("gives"):
            wiring.gives += self._buses()
        elif self.is_look():
            self._looks.append(self.look())
        else:
            wiring.lines.append(self._gate_line())

    def _buses(self) -> list[Bus]:
        buses = [self._bus()]
        while self.accept(","):
            buses.append(self._bus())
        return buses

    def _bus(self) -> Bus:
        start = self.start
        name = self._name("a port name")
        if not self.accept("["):
            return Bus(start, self.previous_end, name, 1, 0, 0)
        first = self._number()
        left, right = first - 1, 0
        if self.accept(".."):
            left, right = first, self._number()
        self._sign("]")
        width = abs(left - right) + 1
        if left < 0 or width > self._limits.vector_bits:
            raise self.fail("too-wide", f"a bus of {width} bits cannot be taken", "", start, self.previous_end)
        return Bus(start, self.previous_end, name, width, left, right)

    def _gate_line(self) -> Line:
        start = self.start
        label = None
        if self.kind == "i" and self.texts[self.at + 1] == ":":
            label = self.text
            self.at += 2
        targets = [self._wire()]
        while self.accept(","):
            targets.append(self._wire())
        if not self.accept("<-"):
            raise self.fail("missing", f"`<-` is missing before {self.describe()}", "a line reads `name <- gate(a, b)`")
        value = self._operand()
        return Line(start, self.previous_end, label, targets, value)

    def _wire(self) -> Wire:
        start = self.start
        name = self._name("a wire's name")
        left: int | None = None
        right: int | None = None
        if self.accept("["):
            left = right = self._number()
            if self.accept(".."):
                right = self._number()
            self._sign("]")
        return Wire(start, self.previous_end, name, left, right)

    def _operand(self) -> Operand:
        self.enter()
        try:
            return self._operand_inside()
        finally:
            self.leave()

    def _operand_inside(self) -> Operand:
        start = self.start
        if self.kind == "n":
            return self._constant()
        if self.accept("!"):
            inner = self._operand()
            return Use(start, self.previous_end, "not", [inner], [None])
        if self.is_at("_") and self.kind == "i" and not self.newline_before[self.at]:
            self.at += 1
            return Open(start, self.previous_end)
        if self.accept("{"):
            parts = [self._operand()]
            while self.accept(","):
                parts.append(self._operand())
            self._sign("}")
            return Join(start, self.previous_end, parts)
        if self.kind == "i" and self.texts[self.at + 1] == "(":
            return self._use()
        if self.kind != "i" or self.newline_before[self.at]:
            raise self.fail(
                "expected-value", f"a wire or gate is missing before {self.describe()}", "", self.previous_end
            )
        return self._wire()

    def _use(self) -> Use:
        start = self.start
        what = self.text
        self.at += 2
        args: list[Operand] = []
        pins: list[str | None] = []
        while not self.is_at(")"):
            pin = None
            if self.kind == "i" and self.texts[self.at + 1] == ":":
                pin = self.text
                self.at += 2
            args.append(self._count() if pin == "bits" and self.text.isdigit() else self._operand())
            pins.append(pin)
            if not self.accept(","):
                break
        self._sign(")")
        return Use(start, self.previous_end, what, args, pins)

    def _count(self) -> Count:
        """The plain number behind `bits:`."""
        start = self.start
        return Count(start, self.ends[self.at], self._number())

    def _constant(self) -> Constant:
        start, text = self.start, self.text
        self.at += 1
        m = _SIZED.fullmatch(text)
        if m is None:
            if text not in ("0", "1"):
                raise self.fail(
                    "bad-number", f"`{text}` needs a width", f"write for instance 4d{text}", start, self.previous_end
                )
            return Constant(start, self.previous_end, from_decimal(text), 1)
        try:
            digits, base = m[3].replace("_", ""), {"b": 2, "d": 10, "h": 16}[m[2]]
            width, value = from_decimal(m[1]), from_decimal(digits) if base == 10 else int(digits, base)
        except ValueError:
            raise self.fail("bad-number", f"`{text}` is no number", "", start, self.previous_end) from None
        if not 1 <= width <= self._limits.vector_bits or value >> width:
            raise self.fail(
                "number-cut", f"`{text}` does not fit into {shown(width)} bits", "", start, self.previous_end
            )
        return Constant(start, self.previous_end, value, width)


def read_wirings(file: SourceFile, collector: Collector, limits: Limits) -> list[Wiring]:
    """All wiring lists of a file."""
    return WiringParser(lex(file, collector, limits), collector, limits).wirings()
