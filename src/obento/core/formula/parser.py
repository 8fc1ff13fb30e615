"""Text to formulas.

How the signs read (docs/formats.md has the table for people):

- NOT: `!a`, `~a`, `¬a`, `not a`, `a'`, or a combining overline on every letter of the name
- AND: `&`, `&&`, `·`, `∧`, `and`; OR: `|`, `||`, `∨`, `or`; XOR: `^`, `⊕`, `xor`; also `nand`, `nor`, `xnor`
- `*` and `+` are AND and OR in an equation in which every name is one bit wide; as soon as one is wider they are times
  and plus. The rule goes by equation, so that one equation never mixes the two.

Binding, loosest first: `? :`, OR, XOR, AND, comparisons, shifts, plus and minus, times, prefix NOT and minus, `'`.
"""

from __future__ import annotations

import re
from collections.abc import Callable

from obento.core.decimals import from_decimal, shown
from obento.core.diagnostics import Collector
from obento.core.formula.ast import Bits, Choice, Equation, Formula, Join, Minus, Name, Not, Number, Op
from obento.core.limits import Limits
from obento.core.syntax.stream import SyntaxProblem, Tokens, TokenStream

_TOKEN = re.compile(
    r"""(?P<space>[ \t\r]+)|(?P<newline>\n)|(?P<comment>//[^\n]*)
    |(?P<n>0x[0-9a-fA-F_]+|0b[01_]+|0d[0-9_]+|\d+'?[bdh][0-9a-fA-F_]+|\d[\d_]*)
    |(?P<i>(?:[^\W\d]|_)[\w$\u0305\u0304]*)
    |(?P<o>\.\.|&&|\|\||<<|>>|<=|>=|==|!=|~\^|<->|[!~¬&|^·∙∧∨⊕⊙+\-*/%()\[\]{},:?=;'<>≤≥≠])""",
    re.VERBOSE,
)
_OVERLINES = ("\u0305", "\u0304")
_WIDEST = 4096
_WORDS = frozenset(["and", "or", "xor", "nand", "nor", "xnor", "not", "mod"])

_AND = {"&": "and", "&&": "and", "·": "and", "∙": "and", "∧": "and", "and": "and", "nand": "nand"}
_OR = {"|": "or", "||": "or", "∨": "or", "or": "or", "nor": "nor"}
_XOR = {"^": "xor", "⊕": "xor", "xor": "xor", "xnor": "xnor", "⊙": "xnor", "~^": "xnor"}
_COMPARE = {"==": "==", "!=": "!=", "≠": "!=", "<": "<", "<=": "<=", "≤": "<=", ">": ">", ">=": ">=", "≥": ">="}
_WORD_LEVELS: list[dict[str, str]] = [
    _OR,
    _XOR,
    _AND,
    _COMPARE,
    {"<<": "<<", ">>": ">>"},
    {"+": "+", "-": "-"},
    {"*": "*", "/": "/", "%": "%", "mod": "%"},
]
_BOOLEAN_LEVELS: list[dict[str, str]] = [_OR | {"+": "or"}, _XOR, _AND | {"*": "and"}, _COMPARE]


def lex(text: str, base: int, collector: Collector) -> Tokens:
    """Tokens of a formula text; an overlined name comes out as `!` and the name."""
    tokens = Tokens()
    at, newline = 0, True
    while at < len(text):
        m = _TOKEN.match(text, at)
        if m is None:
            collector.error(
                "strange-character", f"the character {text[at]!r} means nothing here", base + at, base + at + 1
            )
            at += 1
            continue
        kind, word = m.lastgroup, m.group()
        if kind == "newline":
            newline = True
        elif kind in ("n", "i", "o"):
            start, end = base + at, base + m.end()
            if kind == "i" and any(o in word for o in _OVERLINES):
                plain = "".join(c for c in word if c not in _OVERLINES)
                if len(word) != 2 * len(plain):
                    collector.error(
                        "overline",
                        "the overline covers only part of this name",
                        start,
                        end,
                        f"write `!{plain}` instead",
                    )
                tokens.append("o", "!", start, start, newline)
                newline = False
                word = plain
            if kind == "i" and word.lower() in _WORDS:
                kind, word = "k", word.lower()
            tokens.append(kind, word, start, end, newline)
            newline = False
        at = m.end()
    last = tokens.ends[-1] if tokens.ends else base
    tokens.append("e", "", last, last, True)
    return tokens


_ASSOCIATIVE = frozenset(["and", "or", "xor"])
_LONG = 32


def _joined(op: str, operands: list[Formula]) -> Formula:
    """Operands of one operator as a tree: from the left, but a long sum or product of bits as flat as it can be, so
    that no walk over it goes deep."""
    if len(operands) > _LONG and op in _ASSOCIATIVE:
        half = len(operands) // 2
        operands = [_joined(op, operands[:half]), _joined(op, operands[half:])]
    value = operands[0]
    for right in operands[1:]:
        value = Op(value.start, right.end, op, value, right)
    return value


class FormulaParser(TokenStream):
    """`width_of` gives the width of a name, None when it is unknown (then reported by whoever lowers it)."""

    def __init__(self, text: str, base: int, collector: Collector, width_of: Callable[[str], int | None]) -> None:
        super().__init__(lex(text, base, collector), collector, Limits(nesting=100))
        self._width_of = width_of
        self._levels = _WORD_LEVELS

    def equations(self, declare: Callable[[Name], None]) -> list[Equation]:
        """All `name = formula`, one a line (or parted by `;`); `declare` hears of each target before its formula."""
        found: list[Equation] = []
        while self.kind != "e":
            if self.accept(";"):
                continue
            try:
                start = self.start
                if self.kind != "i":
                    raise self.fail("expected-name", f"an equation begins with a name, not with {self.describe()}")
                target = Name(self.start, self.ends[self.at], self.text)
                self.at += 1
                if not self.accept("="):
                    raise self.fail("expected-equals", f"`=` is missing before {self.describe()}")
                declare(target)
                self._choose_levels(target)
                value = self._formula()
                found.append(Equation(target, value, start, self.previous_end))
                if not (self.is_at(";") or self.newline_before[self.at]):
                    raise self.fail(
                        "expected-operator",
                        f"an operator is missing before {self.describe()}",
                        "write products with `&` or `·`",
                    )
            except SyntaxProblem:
                if self.kind != "e":
                    self.at += 1
                while self.kind != "e" and not self.newline_before[self.at] and not self.is_at(";"):
                    self.at += 1
                self._depth = 0
        return found

    def single(self) -> Formula:
        """One formula that fills the whole text.

        Raises
        ------
        SyntaxProblem
            After reporting what is wrong.
        """
        self._choose_levels(None)
        value = self._formula()
        if self.kind != "e":
            raise self.fail("expected-operator", f"an operator is missing before {self.describe()}")
        return value

    def _choose_levels(self, target: Name | None) -> None:
        names = [target.name] if target else []
        i = self.at
        while self.kinds[i] != "e" and not (target and self.newline_before[i] and i > self.at and not self._goes_on(i)):
            if self.kinds[i] == "i":
                names.append(self.texts[i])
            i += 1
        boolean = all(self._width_of(n) in (1, None) for n in names)
        self._levels = _BOOLEAN_LEVELS if boolean else _WORD_LEVELS

    def _goes_on(self, index: int) -> bool:
        """Whether a new line continues the formula: it does unless `name =` starts there."""
        return not (self.kinds[index] == "i" and self.texts[index + 1] == "=")

    def _formula(self) -> Formula:
        self.enter()
        cond = self._binary(0)
        if self.accept("?"):
            a = self._formula()
            if not self.accept(":"):
                raise self.fail("expected-colon", f"`:` is missing before {self.describe()}")
            b = self._formula()
            cond = Choice(cond.start, b.end, cond, a, b)
        self.leave()
        return cond

    def _binary(self, loosest: int) -> Formula:
        """Operators that bind at least as tight as a level, by precedence climbing: nesting costs few frames, chains
        none."""
        run, run_op = [self._prefix()], ""
        while (level := self._level_here()) >= loosest:
            op = self._levels[level][self.text]
            if op == run_op and op in ("nand", "nor"):
                raise self.fail(
                    "nand-chain", f"`a {op} b {op} c` is ambiguous", f"write {op}(a, b, c) with parentheses"
                )
            self.at += 1
            right = self._binary(level + 1)
            if op != run_op:
                run, run_op = [_joined(run_op, run)], op
            run.append(right)
        return _joined(run_op, run)

    def _level_here(self) -> int:
        """The level of the operator that stands here, -1 when none does."""
        if self.kind not in "ok":
            return -1
        return next((level for level, table in enumerate(self._levels) if self.text in table), -1)

    def _prefix(self) -> Formula:
        start = self.start
        if self.is_at("!", "~", "¬", "not"):
            self.at += 1
            self.enter()
            a = self._prefix()
            self.leave()
            return Not(start, a.end, a)
        if self.is_at("-"):
            self.at += 1
            self.enter()
            a = self._prefix()
            self.leave()
            return Minus(start, a.end, a)
        a = self._primary()
        depth = self._depth
        while self.accept("'"):
            self.enter()
            a = Not(a.start, self.previous_end, a)
        self._depth = depth
        return a

    def _primary(self) -> Formula:
        kind, text, start, end = self.kind, self.text, self.start, self.ends[self.at]
        if kind == "n":
            self.at += 1
            return self._number(text, start, end)
        if kind == "k" and text in ("and", "or", "xor", "nand", "nor", "xnor") and self.texts[self.at + 1] == "(":
            self.at += 1
            return self._called(text, start)
        if kind == "i":
            self.at += 1
            return self._selected(text, start, end) if self.is_at("[") else Name(start, end, text)
        if self.accept("("):
            inner = self._formula()
            if not self.accept(")"):
                raise self.fail("expected-parenthesis", f"`)` is missing before {self.describe()}")
            return inner
        if self.accept("{"):
            parts = [self._formula()]
            while self.accept(","):
                parts.append(self._formula())
            if not self.accept("}"):
                raise self.fail("expected-brace", f"`}}` is missing before {self.describe()}")
            return Join(start, self.previous_end, parts)
        hint = "to compare write `==`" if text == "=" else ""
        raise self.fail("expected-value", f"a name or number is missing before {self.describe()}", hint)

    def _called(self, op: str, start: int) -> Formula:
        """`nand(a, b, c)`: any number of operands, inverted once at the end."""
        self.at += 1
        base = {"nand": "and", "nor": "or", "xnor": "xor"}.get(op, op)
        value = self._formula()
        while self.accept(","):
            right = self._formula()
            value = Op(value.start, right.end, base, value, right)
        if not self.accept(")"):
            raise self.fail("expected-parenthesis", f"`)` is missing before {self.describe()}")
        return Not(start, self.previous_end, value) if base != op else value

    def _selected(self, name: str, start: int, end: int) -> Formula:
        self.at += 1
        high = self._whole()
        low = high
        if self.accept("..") or self.accept(":"):
            low = self._whole()
        if not self.accept("]"):
            raise self.fail("expected-bracket", f"`]` is missing before {self.describe()}")
        return Bits(start, self.previous_end, name, high, low)

    def _whole(self) -> int:
        if self.kind != "n" or not self.text.isdigit():
            raise self.fail("expected-number", f"a bit number is missing before {self.describe()}")
        self.at += 1
        return from_decimal(self.texts[self.at - 1])

    def _number(self, text: str, start: int, end: int) -> Formula:
        text = text.replace("_", "").replace("'", "")
        m = re.fullmatch(r"(\d+)([bdh])([0-9a-fA-F]+)", text)
        prefix = {"0x": 16, "0b": 2, "0d": 10}.get(text[:2])
        try:
            if prefix:
                return Number(
                    start,
                    end,
                    int(text[2:], prefix),
                    4 * len(text[2:]) if prefix == 16 else len(text[2:]) if prefix == 2 else None,
                )
            if m:
                base = {"b": 2, "d": 10, "h": 16}[m[2]]
                value, width = from_decimal(m[3]) if base == 10 else int(m[3], base), from_decimal(m[1])
                if not 1 <= width <= _WIDEST or value >> width:
                    raise self.fail("number-cut", f"{text} does not fit into {shown(width)} bits", "", start, end)
                return Number(start, end, value, width)
            return Number(start, end, from_decimal(text), None)
        except ValueError:
            raise self.fail("bad-number", f"`{text}` is no number", "", start, end) from None
