"""Parsing of expressions and literals (IEEE 1364-2005 clauses 3.5 and 5, annex A.8)."""

from __future__ import annotations

import re

from obento.core.decimals import from_decimal, shown
from obento.core.syntax.stream import TokenStream
from obento.core.verilog.syntax import ast
from obento.core.words import counted

_LEVELS: list[tuple[str, ...]] = [
    ("||",), ("&&",), ("|",), ("^", "~^", "^~"), ("&",), ("==", "!=", "===", "!=="), ("<", "<=", ">", ">="),
    ("<<", ">>", "<<<", ">>>"), ("+", "-"), ("*", "/", "%"), ("**",),
]  # fmt: skip
"""Binary operators from the loosest to the tightest (table 5-4)."""

_LEVEL = {op: level for level, ops in enumerate(_LEVELS) for op in ops}
_UNARY = frozenset(["+", "-", "!", "~", "&", "~&", "|", "~|", "^", "~^", "^~"])
CASTS = frozenset(
    ["signed", "unsigned", "logic", "bit", "reg", "integer", "int", "byte", "shortint", "longint", "time", "real"]
)
"""Words that may head a cast."""

_BASED = re.compile(r"([0-9_]*)\s*'([sS]?)([bBoOdDhH])\s*([0-9a-fA-FxXzZ?_]+)")
_UNSIZED = re.compile(r"'[sS]?[bBoOdDhH]")
_BITS = {"b": 1, "o": 3, "h": 4}
_MOST_WIDTH = 1 << 16


class ExpressionParser(TokenStream):
    """The expression part of the grammar."""

    system_verilog = False

    def expression(self) -> ast.Expr:
        """An expression with all operators (annex A.8.3)."""
        self.enter()
        result = self._binary(0)
        if self.texts[self.at] == "?" and self.kinds[self.at] == "o":
            result = self._conditional(result)
        self.leave()
        return result

    def _conditional(self, condition: ast.Expr) -> ast.Expr:
        """`condition ? a : condition ? b : c`: a chain costs no depth while it is read (11.4.11)."""
        arms: list[tuple[ast.Expr, ast.Expr]] = []
        result = condition
        while self.texts[self.at] == "?" and self.kinds[self.at] == "o":
            self.at += 1
            value = self.expression()
            self.expect(":", "the two sides of `? :`")
            arms.append((result, value))
            self.in_chain(len(arms), "`? :`")
            result = self._binary(0)
        for condition, value in reversed(arms):
            result = ast.Conditional(condition.start, result.end, condition, value, result)
        return result

    def _binary(self, lowest: int) -> ast.Expr:
        left = self._unary()
        texts, kinds = self.texts, self.kinds
        while True:
            op = texts[self.at]
            level = _LEVEL.get(op, -1)
            if level < lowest or kinds[self.at] != "o":
                return left
            self.at += 1
            self.enter()
            right = self._binary(level + 1)
            self.leave()
            left = ast.Binary(left.start, right.end, op, left, right)

    def _unary(self) -> ast.Expr:
        op = self.texts[self.at]
        if op in _UNARY and self.kinds[self.at] == "o":
            start = self.start
            self.at += 1
            self.enter()
            operand = self._unary()
            self.leave()
            return ast.Unary(start, operand.end, op, operand)
        value = self.primary()
        while self.texts[self.at] == "'(" and self.kinds[self.at] == "o":
            value = self._cast(value.start, value.name if isinstance(value, ast.Name) else value)
        return value

    def _cast(self, start: int, to: str | ast.Expr) -> ast.Expr:
        self.system_verilog_only("a cast", "assign to a variable of that type")
        self.at += 1
        value = self.expression()
        self.expect(")", "the cast")
        return ast.Cast(start, self.previous_end, to, value)

    def system_verilog_only(self, what: str, instead: str) -> None:
        """Report something of SystemVerilog in a .v file, and read on."""
        if not self.system_verilog:
            self.collector.error(
                "system-verilog", f"{what} is SystemVerilog", self.start, self.ends[self.at],
                f"{instead}, or name the file .sv if the course allows it",
            )  # fmt: skip

    def primary(self) -> ast.Expr:
        """An operand (annex A.8.4)."""
        kind, text, start, end = self.kinds[self.at], self.texts[self.at], self.start, self.ends[self.at]
        if kind in "ix":
            self.at += 1
            return self._after_name(text, start, end)
        if kind == "n":
            self.at += 1
            if self.kinds[self.at] == "n" and text.isdecimal() and _UNSIZED.match(self.texts[self.at]):
                text, end = text + self.texts[self.at], self.ends[self.at]  # the size comes out of a macro: `WIDTH'hFF
                self.at += 1
            return self._number(text, start, end)
        if kind == "o":
            if text == "(":
                self.at += 1
                inner = self.expression()
                if self.texts[self.at] == "=" and self.kinds[self.at] == "o":
                    self.collector.error(
                        "assign-for-compare",
                        "`=` does not compare",
                        self.start,
                        self.ends[self.at],
                        "to compare write `==`",
                    )
                    self.at += 1
                    self.expression()
                self.expect(")", "the parenthesis opened here")
                return inner
            if text == "{":
                return self._braces()
        if kind == "$":
            self.at += 1
            args = self._arguments() if self.is_at("(") else []
            return ast.Call(start, self.previous_end, text, args)
        if kind == "s":
            self.at += 1
            return ast.String(start, end, text)
        if kind == "r":
            self.at += 1
            return ast.Real(start, end, text)
        if kind == "k" and text in CASTS and self.texts[self.at + 1] == "'(":
            self.at += 1
            return self._cast(start, text)
        raise self._no_operand()

    def _no_operand(self) -> Exception:
        if self.texts[self.at] == "not" and self.kinds[self.at] == "k":
            return self.fail(
                "word-operator", "`not` is a gate, no operator", "write `~a` for digits or `!a` for conditions"
            )
        if self.kinds[self.at] == "k":
            return self.fail(
                "expected-value",
                f"a value is missing here: {self.describe()} is a reserved word",
                "is something missing before it, or is it meant as a name? then rename it",
            )
        if self.at and self.newline_before[self.at]:
            return self.fail(
                "expected-value",
                f"something is missing after `{self.texts[self.at - 1]}`",
                "a name, a number or an expression",
                self.previous_end,
                self.previous_end,
            )
        return self.fail("expected-value", f"a name, number or expression is missing before {self.describe()}")

    def _after_name(self, name: str, start: int, end: int) -> ast.Expr:
        parts: list[str]
        indices: list[ast.Expr | None]
        if self.is_at("("):
            args = self._arguments()
            return ast.Call(start, self.previous_end, name, args)
        result: ast.Expr = ast.Name(start, end, name)
        parts, indices = [name], [None]
        while True:
            if self.is_at("."):
                self.at += 1
                parts.append(self.name("a name after the dot"))
                indices.append(None)
                result = ast.Dotted(start, self.previous_end, list(parts), list(indices))
                if self.is_at("("):
                    args = self._arguments()
                    return ast.Call(start, self.previous_end, ".".join(parts), args, result)
            elif self.texts[self.at] == "[" and self.kinds[self.at] == "o":
                result = self._selected(result)
                if self.is_at(".") and isinstance(result, ast.Index) and indices[-1] is None:
                    indices[-1] = result.index
            else:
                return result

    def _selected(self, base: ast.Expr) -> ast.Expr:
        self.at += 1
        left = self.expression()
        how = self.text
        if how in (":", "+:", "-:"):
            self.at += 1
            right = self.expression()
            self.expect("]", "the bracket opened here")
            return ast.Part(base.start, self.previous_end, base, left, right, how)
        self.expect("]", "the bracket opened here")
        return ast.Index(base.start, self.previous_end, base, left)

    def _arguments(self) -> list[ast.Expr]:
        self.expect("(", "the arguments")
        args: list[ast.Expr] = []
        if not self.is_at(")"):
            args.append(self.expression())
            while self.accept(","):
                args.append(self.expression())
        self.expect(")", "the arguments")
        return args

    def _braces(self) -> ast.Expr:
        start = self.start
        self.at += 1
        first = self.expression()
        if self.is_at("{"):
            self.at += 1
            parts = self._list()
            self.expect("}", "the inner brace")
            self.expect("}", "the brace opened here")
            return ast.Repeat(start, self.previous_end, first, parts)
        parts = [first]
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

    def name(self, what: str) -> str:
        """An identifier, or an error that says what was to be named."""
        if self.kinds[self.at] in "ix":
            self.at += 1
            return self.texts[self.at - 1]
        if self.kinds[self.at] == "k":
            raise self.fail(
                "reserved-word", f"`{self.text}` is a reserved word and cannot be {what}", "choose another name"
            )
        raise self.fail("expected-name", f"{what} is missing before {self.describe()}")

    def expect(self, sign: str, what: str = "") -> None:
        """The given sign or word; where it is missing at a line's end, the error points there."""
        if self.texts[self.at] == sign and self.kinds[self.at] in "ok":
            self.at += 1
            return
        self._no_word_operator()
        tail = f" ({what})" if what and sign not in ";" else ""
        if self.newline_before[self.at] and self.at:
            raise self.fail("missing", f"`{sign}` is missing here{tail}", "", self.previous_end, self.previous_end)
        raise self.fail("missing", f"`{sign}` is missing before {self.describe()}{tail}")

    def _no_word_operator(self) -> None:
        """`a and b`: operators are signs."""
        instead = {
            "and": "&` or `&&",
            "or": "|` or `||",
            "xor": "^",
            "xnor": "~^",
            "mod": "%",
            "nand": "~(a & b)",
            "nor": "~(a | b)",
        }
        word = self.texts[self.at]
        if word in instead and self.kinds[self.at] in "ki" and not self.newline_before[self.at]:
            raise self.fail("word-operator", f"`{word}` is no operator", f"write `{instead[word]}`")

    def semicolon(self, after: str) -> None:
        """A semicolon. When it is missing before something that can follow one, go on as if it were there."""
        if self.accept(";"):
            return
        self._no_word_operator()
        hint = f"every {after} ends with `;`"
        starts_anew = self.newline_before[self.at] or self.kinds[self.at] in "ke"
        if self.is_at("=") or self.is_at("<="):
            starts_anew = False
        if starts_anew:
            self.collector.error("missing-semicolon", "`;` is missing here", self.previous_end, self.previous_end, hint)
            return
        raise self.fail("missing-semicolon", f"`;` is missing before {self.describe()}", hint)

    # Literals.

    def _number(self, text: str, start: int, end: int) -> ast.Expr:
        if text[0] == "'" and len(text) == 2:
            return ast.Fill(start, end, text[1].lower())
        m = _BASED.fullmatch(text)
        if m is None:
            value = from_decimal(text.replace("_", ""))
            bits = max(32, value.bit_length() + 1)
            return ast.Number(start, end, None, True, value, ~value & (1 << bits) - 1, bits)
        size, sign, base, digits = m[1].replace("_", ""), m[2], m[3].lower(), m[4].replace("_", "").lower()
        width = from_decimal(size) if size else None
        if width == 0 or (width or 0) > _MOST_WIDTH:
            raise self.fail("bad-number", f"a number cannot be {shown(width or 0)} bits wide", "", start, end)
        one, zero, have = self._digits(digits, base, start, end)
        if width is not None:
            if have > width and one >> width:
                self.collector.warning(
                    "number-cut",
                    f"{text} does not fit into {counted(width, 'bit')}: its upper digits are lost",
                    start,
                    end,
                )
            one, zero = self._fit(one, zero, have, width)
            return ast.Number(start, end, width, bool(sign), one, zero, width)
        bits = max(32, have)
        one, zero = self._fit(one, zero, have, bits)
        return ast.Number(start, end, None, bool(sign), one, zero, bits)

    def _digits(self, digits: str, base: str, start: int, end: int) -> tuple[int, int, int]:
        """The digits as (one, zero, how many bits they stand for)."""
        if base == "d":
            if digits in ("x", "z", "?"):
                return (0, 0, 1) if digits == "x" else (1, 1, 1)
            if not digits.isdigit():
                raise self.fail("bad-number", f"`{digits}` is no decimal number", "", start, end)
            value = from_decimal(digits)
            bits = max(1, value.bit_length())
            return value, ~value & (1 << bits) - 1, bits
        step = _BITS[base]
        full = (1 << step) - 1
        one = zero = 0
        for d in digits:
            if d == "x":
                a, b = 0, 0
            elif d in "z?":
                a, b = full, full
            else:
                a = int(d, 16)
                if a > full:
                    name = {"b": "binary", "o": "octal"}[base]
                    raise self.fail("bad-number", f"`{d}` is no {name} digit", "", start, end)
                b = a ^ full
            one, zero = one << step | a, zero << step | b
        return one, zero, step * len(digits)

    @staticmethod
    def _fit(one: int, zero: int, have: int, width: int) -> tuple[int, int]:
        """Cut to a width, or fill up: with x or z where that is the leftmost digit, else with zeros (3.5.1)."""
        full = (1 << width) - 1
        if have >= width:
            return one & full, zero & full
        fill = full ^ ((1 << have) - 1)
        top1, top0 = one >> (have - 1) & 1, zero >> (have - 1) & 1
        if top1 == top0:
            return one | (fill if top1 else 0), zero | (fill if top0 else 0)
        return one, zero | fill
