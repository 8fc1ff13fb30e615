"""Reading names, expressions and subtypes (IEEE 1076 clauses 5, 8 and 9)."""

from __future__ import annotations

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.suggest import did_you_mean, nearest
from obento.core.syntax.stream import SyntaxProblem, Tokens
from obento.core.vhdl.syntax import ast
from obento.core.vhdl.syntax.lexer import KEYWORDS
from obento.core.vhdl.syntax.literals import Literals

LOGICAL = ("and", "or", "nand", "nor", "xor", "xnor")
RELATIONAL = ("=", "/=", "<", "<=", ">", ">=", "?=", "?/=", "?<", "?<=", "?>", "?>=")
SHIFTS = ("sll", "srl", "sla", "sra", "rol", "ror")


class Expressions(Literals):
    """The part of the parser that reads values."""

    def __init__(self, tokens: Tokens, collector: Collector, limits: Limits) -> None:
        super().__init__(tokens, collector, limits)
        self.pending_signature: list[ast.Expr] | None = None

    # Small things.

    def expect(self, text: str, where: str, hint: str = "") -> None:
        """The sign or word that must come now; missing ones are reported where they are missing."""
        if self.accept(text):
            return
        if text == ";":
            raise self.missing_semicolon(where, hint)
        at = self.previous_end
        raise self.fail("missing", f"`{text}` is missing {where}, before {self.describe()}", hint, at, at)

    def missing_semicolon(self, where: str, hint: str = "") -> SyntaxProblem:
        """The error of a semicolon that is missing, at the end of what stands before."""
        at = self.previous_end
        if self.is_at("not") and not self.newline_before[self.at]:
            return self.fail("unexpected", "an operator is missing before `not`", "write for instance `a and not b`")
        if self.is_at(")"):
            return self.fail("extra-bracket", "this `)` closes nothing", "one too many, or its `(` is missing")
        if self.is_at("/") and self.texts[self.at + 1] == "/":
            return self.fail("foreign", "`//` begins no comment in VHDL", "write `--`")
        if self.is_at("'") and self.kinds[self.at - 1] == "n":
            return self.fail("foreign", "a number in the manner of Verilog", 'write x"A" or "1010"')
        if self.is_at("=", "==", ":=", "<=") or (self.kind in "is" and not self.newline_before[self.at]):
            return self.fail("unexpected", f"{self.describe()} does not fit here, {where}", hint)
        if self.kind == "o" and self.text not in (")", ":") and not self.newline_before[self.at]:
            return self.fail("unexpected", f"{self.describe()} does not fit here, {where}", hint)
        return self.fail("missing-semicolon", f"`;` is missing {where}", hint, at, at)

    def name_here(self, what: str) -> str:
        """A plain name that is being declared or referred to."""
        if self.kind in "ix":
            self.at += 1
            return self.texts[self.at - 1]
        if self.kind == "k":
            word = self.text
            raise self.fail("reserved", f"`{word}` is a reserved word and cannot be {what}", "choose another name")
        raise self.fail("missing", f"{what} is missing before {self.describe()}")

    # Expressions.

    def expression(self) -> ast.Expr:
        """An expression with all operators (9.1)."""
        self.enter()
        start = self.start
        if self.kind == "o" and self.accept("??"):
            value: ast.Expr = ast.Unary(start, self.previous_end, "??", self._primary())
        else:
            value = self._logical()
        self.leave()
        return value

    def _logical(self) -> ast.Expr:
        left = self._relation()
        first = ""
        while self.kind == "k" and self.text in LOGICAL:
            op = self.text
            if first and op != first:
                hint = "put brackets around one of them"
                self.collector.error(
                    "mixed-logic",
                    f"`{first}` and `{op}` cannot follow each other without brackets",
                    self.start,
                    None,
                    hint,
                )
            elif first and op in ("nand", "nor"):
                self.collector.error(
                    "mixed-logic", f"`{op}` cannot be chained", self.start, None, "put brackets around one pair"
                )
            first = op
            self.at += 1
            left = ast.Binary(left.pos, self.previous_end, op, left, self._relation())
            left.end = self.previous_end
        return left

    def _relation(self) -> ast.Expr:
        left = self._shift()
        if self.kind == "o" and self.text in RELATIONAL:
            op = self.text
            pair = op + self.texts[self.at + 1]
            if pair == "==" and self.starts[self.at + 1] == self.ends[self.at]:
                raise self.fail("foreign", "`==` is written `=` in VHDL", "", self.start, self.ends[self.at + 1])
            if pair == "=>" and self.starts[self.at + 1] == self.ends[self.at]:
                raise self.fail("foreign", "`=>` does not compare", "write >= for greater or equal")
            self.at += 1
            left = ast.Binary(left.pos, self.previous_end, op, left, self._shift())
            left.end = self.previous_end
            if self.kind == "o" and self.text in RELATIONAL:
                raise self.fail(
                    "chained", f"comparisons cannot be chained with {self.describe()}", "join them with `and`"
                )
        return left

    def _shift(self) -> ast.Expr:
        left = self._adding()
        if (self.kind == "k" and self.text in SHIFTS) or (self.kind == "o" and self.text in ("<<", ">>")):
            op = self.text
            if op in ("<<", ">>"):
                raise self.fail(
                    "foreign", f"`{op}` does not exist in VHDL", "use shift_left or shift_right of ieee.numeric_std"
                )
            self.at += 1
            left = ast.Binary(left.pos, self.previous_end, op, left, self._adding())
            left.end = self.previous_end
        return left

    def _adding(self) -> ast.Expr:
        start = self.start
        if self.kind == "o" and self.text in ("+", "-"):
            op = self.text
            self.at += 1
            left: ast.Expr = ast.Unary(start, self.previous_end, op, self._term())
            left.end = self.previous_end
        else:
            left = self._term()
        while self.kind == "o" and self.text in ("+", "-", "&"):
            if self.text == "&" and self.texts[self.at + 1] == "&":
                raise self.fail("foreign", "`&&` is written `and` in VHDL")
            op = self.text
            self.at += 1
            left = ast.Binary(left.pos, self.previous_end, op, left, self._term())
            left.end = self.previous_end
        return left

    def _term(self) -> ast.Expr:
        left = self._factor()
        while (self.kind == "o" and self.text in ("*", "/")) or (self.kind == "k" and self.text in ("mod", "rem")):
            op = self.text
            self.at += 1
            left = ast.Binary(left.pos, self.previous_end, op, left, self._factor())
            left.end = self.previous_end
        return left

    def _factor(self) -> ast.Expr:
        start = self.start
        if self.kind == "k" and (self.text in ("abs", "not") or self.text in LOGICAL):
            op = self.text
            self.at += 1
            value: ast.Expr = ast.Unary(start, self.previous_end, op, self._primary())
            value.end = self.previous_end
            return value
        left = self._primary()
        if self.kind == "o" and self.accept("**"):
            left = ast.Binary(left.pos, self.previous_end, "**", left, self._primary())
            left.end = self.previous_end
        return left

    def _primary(self) -> ast.Expr:
        kind, text, start = self.kind, self.text, self.start
        if kind == "n":
            return self._number()
        if kind == "b":
            self.at += 1
            return ast.String(start, self.previous_end, self.bit_string(text, start), True)
        if kind == "s":
            if self.texts[self.at + 1] == "(" and text[1:-1].lower() in (
                *LOGICAL,
                *RELATIONAL,
                *SHIFTS,
                "+",
                "-",
                "*",
                "/",
                "&",
                "mod",
                "rem",
                "abs",
                "not",
                "**",
                "??",
            ):
                return self.name()
            self.at += 1
            return ast.String(start, self.previous_end, text[1:-1].replace('""', '"'))
        if kind == "k" and text == "new":
            return self._new()
        if kind == "k" and text == "null":
            self.at += 1
            return ast.Null(start, self.previous_end)
        if kind == "k" and text == "open":
            self.at += 1
            return ast.Open(start, self.previous_end)
        if kind == "o" and text == "(":
            return self._bracketed()
        if kind in "ixc" or (text == "<<" and self.texts[self.at + 1] in ("signal", "constant", "variable")):
            return self.name()
        if kind == "k" and text in ("not", "abs"):
            return self._factor()
        if kind == "o" and text == "-":
            raise self.fail("sign", "a sign cannot stand here without brackets", "write (-1)")
        if kind == "o" and text in ("<", ">") and self.texts[self.at + 1] in ("<", ">"):
            raise self.fail(
                "foreign",
                f"`{text}{self.texts[self.at + 1]}` does not exist in VHDL",
                "use shift_left or shift_right of ieee.numeric_std",
            )
        if kind == "o" and text in ("=", "|", "&"):
            raise self.fail("foreign", f"{self.describe()} does not fit here", "VHDL writes =, or, and")
        if kind == "o" and text == "'":
            raise self.fail(
                "quotes",
                "single quotes hold one digit",
                'several digits stand in double quotes: "10"',
                start,
                start + 1,
            )
        if kind == "o" and text == "~":
            raise self.fail("foreign", "`~` is written `not` in VHDL")
        if kind == "k":
            raise self.fail(
                "missing-value",
                f"a value is missing before the word `{text}`",
                "",
                self.previous_end,
                self.previous_end,
            )
        raise self.fail("missing-value", f"a value is missing before {self.describe()}")

    def _number(self) -> ast.Expr:
        start, text = self.start, self.text
        self.at += 1
        value = self.number_value(text, start)
        if self.kind == "i" and (self.texts[self.at + 1] not in ("'", "(") or self.text in _TIME_UNITS):
            if not (self.newline_before[self.at]) or self.text in _TIME_UNITS:
                unit = ast.Id(self.start, self.ends[self.at], self.text)
                self.at += 1
                return ast.Physical(start, self.previous_end, value, unit)
        return ast.Number(start, self.previous_end, value)

    def _new(self) -> ast.Expr:
        start = self.start
        self.at += 1
        subtype = self.subtype()
        if self.is_at("'"):
            self.at += 1
            value = self._bracketed()
            qualified = ast.Qualified(subtype.pos, self.previous_end, subtype.mark, value)
            return ast.New(start, self.previous_end, None, qualified)
        if isinstance(subtype.mark, ast.Qualified):
            return ast.New(start, self.previous_end, None, subtype.mark)
        return ast.New(start, self.previous_end, subtype, None)

    def _bracketed(self) -> ast.Expr:
        """A value in brackets, or an aggregate."""
        start = self.start
        self.expect("(", "here")
        items = [self._item()]
        while self.accept(","):
            items.append(self._item())
        self.close_bracket(start)
        if len(items) == 1 and not items[0].choices:
            return items[0].value
        return ast.Aggregate(start, self.previous_end, items)

    def close_bracket(self, start: int) -> None:
        """The bracket that closes one opened at `start`."""
        if self.accept(")"):
            return
        if self.is_at("=") and self.texts[self.at + 1] == "=":
            raise self.fail("foreign", "`==` is written `=` in VHDL")
        if self.is_at("!"):
            raise self.fail("foreign", "`!=` is written `/=` in VHDL")
        at = self.previous_end
        if self.is_at(";", "then", "is", "loop", "generate", "else") or self.newline_before[self.at]:
            raise self.fail("missing", "`)` is missing: this bracket is never closed", "", start, start + 1)
        word = self.texts[self.at - 1]
        if self.kinds[self.at - 1] == "i" and word.startswith("do") and nearest(word, ["downto"]) is not None:
            start, end = self.starts[self.at - 1], self.ends[self.at - 1]
            raise self.fail("unknown-word", f"`{word}` is no word of VHDL here", "did you mean `downto`?", start, end)
        raise self.fail("missing", f"`)` or `,` is missing before {self.describe()}", "", at, at)

    def _item(self) -> ast.Assoc:
        """`value`, or `choice | choice => value`; choices may be ranges or `others`."""
        start = self.start
        choices = [self.choice()]
        while self.is_at("|"):
            self.at += 1
            choices.append(self.choice())
        if self.accept("=>"):
            value = self.expression()
            return ast.Assoc(start, self.previous_end, choices, value)
        if len(choices) > 1:
            raise self.fail("missing", f"`=>` is missing before {self.describe()}")
        return ast.Assoc(start, self.previous_end, [], choices[0])

    def choice(self) -> ast.Expr:
        """One choice of a case, aggregate or selection."""
        start = self.start
        if self.kind == "k" and self.accept("others"):
            return ast.Others(start, self.previous_end)
        return self.range_or_value()

    def range_or_value(self) -> ast.Expr:
        """A value, `a to b`, `mark range a to b`, or a name that means a range."""
        value = self.expression()
        if self.kind == "k" and self.text in ("to", "downto"):
            down = self.text == "downto"
            self.at += 1
            return ast.Range(value.pos, self.previous_end, value, self.expression(), down)
        if self.kind == "k" and self.accept("range"):
            if self.accept("<>"):
                return ast.SubtypeInd(value.pos, self.previous_end, value, None, [ast.Box(self.start, self.start)])
            inner = self.range_or_value()
            return ast.SubtypeInd(value.pos, self.previous_end, value, None, [inner], True)
        return value

    # Names.

    def _external(self) -> ast.Expr:
        """From `<<` to `>>` (IEEE 1076-2008 8.7)."""
        start = self.start
        self.at += 1
        kind, up = self.text, None if self.texts[self.at + 1] == "." else 0
        self.at += 1
        if up is None:
            self.at += 1
        while self.is_at("^"):
            self.at += 1
            self.expect(".", "behind `^`")
            up = (up or 0) + 1
        if self.is_at("@"):
            raise self.fail("unsupported", "external names of packages are not read here", "name the object itself")
        path: list[str] = []
        while True:
            part = self.name_here("a part of the path")
            if self.accept("("):
                part = f"{part}({self.text})"
                self.at += 1
                self.expect(")", "behind the number")
            path.append(part)
            if not self.accept("."):
                break
        self.expect(":", "before the subtype")
        subtype = self.subtype()
        self.expect(">>", "at the end of this name")
        return ast.External(start, self.previous_end, kind, up, path, subtype)

    def name(self) -> ast.Expr:
        """A name with everything that may follow it: selections, brackets, attributes, qualification."""
        start = self.start
        if self.kind in "ix":
            self.at += 1
            value: ast.Expr = ast.Id(start, self.previous_end, self.texts[self.at - 1])
        elif self.kind == "c":
            self.at += 1
            value = ast.Id(start, self.previous_end, self.texts[self.at - 1])
        elif self.kind == "s":
            self.at += 1
            value = ast.Id(start, self.previous_end, self.texts[self.at - 1].lower())
        elif self.is_at("<<"):
            value = self._external()
        elif self.kind == "k":
            raise self.fail(
                "reserved", f"`{self.text}` is a reserved word and cannot be used as a name", "choose another name"
            )
        elif self.is_at("/") and self.texts[self.at + 1] == "/":
            raise self.fail("foreign", "`//` begins no comment in VHDL", "write `--`")
        else:
            raise self.fail("missing", f"a name is missing before {self.describe()}")
        while True:
            if self.is_at("."):
                self.at += 1
                value = ast.Selected(start, self.ends[self.at], value, self._suffix())
            elif self.is_at("("):
                open_at = self.start
                self.at += 1
                items = [self._item()]
                while self.accept(","):
                    items.append(self._item())
                self.close_bracket(open_at)
                value = ast.Paren(start, self.previous_end, value, items)
            elif self.is_at("["):
                if self.kinds[self.at + 1] not in "ix":
                    raise self.fail("brackets", "an index stands in round brackets in VHDL", "write for instance a(0)")
                signature = self.signature()
                if self.is_at("'"):
                    self.at += 1
                    value = ast.Attribute(start, self.ends[self.at], value, self._attribute_name(), None, signature)
                else:
                    self.pending_signature = signature
                    return value
            elif self.is_at("'"):
                self.at += 1
                if self.is_at("("):
                    value = ast.Qualified(start, self.previous_end, value, self._bracketed())
                    value.end = self.previous_end
                    continue
                word = self._attribute_name()
                value = ast.Attribute(start, self.previous_end, value, word)
                if self.is_at("(") and word in _ATTRIBUTES_WITH_ARGUMENT:
                    open_at = self.start
                    self.at += 1
                    value.arg = self.expression()
                    self.close_bracket(open_at)
                    value.end = self.previous_end
            else:
                return value

    def _suffix(self) -> str:
        if self.kind in "ixc" or (self.kind == "k" and self.text == "all") or self.kind == "s":
            self.at += 1
            return self.texts[self.at - 1].lower() if self.kinds[self.at - 1] != "c" else self.texts[self.at - 1]
        raise self.fail("missing", f"a name is missing after `.`, before {self.describe()}")

    def _attribute_name(self) -> str:
        if self.kind == "i" or (self.kind == "k" and self.text in ("range", "subtype")):
            self.at += 1
            return self.texts[self.at - 1]
        raise self.fail("missing", f"the name of an attribute is missing after ', before {self.describe()}")

    def signature(self) -> list[ast.Expr]:
        """`[mark, mark return mark]`; the returned mark comes last, after None where there is none."""
        self.expect("[", "before the signature")
        marks: list[ast.Expr] = []
        while not self.is_at("]", "return"):
            marks.append(self.type_mark())
            if not self.accept(","):
                break
        if self.accept("return"):
            marks.append(self.type_mark())
        self.expect("]", "after the signature")
        return marks

    # Subtypes.

    def type_mark(self) -> ast.Expr:
        """A type mark (6.3)."""
        start = self.start
        if self.kind == "k":
            raise self.fail("reserved", f"a type is missing: `{self.text}` is a reserved word")
        if self.kind not in "ix":
            raise self.fail("missing-type", f"a type is missing before {self.describe()}", "for instance std_logic")
        self.at += 1
        value: ast.Expr = ast.Id(start, self.previous_end, self.texts[self.at - 1])
        while self.is_at("."):
            self.at += 1
            value = ast.Selected(start, self.ends[self.at], value, self._suffix())
        if self.is_at("'") and self.texts[self.at + 1] in ("base", "subtype", "element"):
            self.at += 2
            value = ast.Attribute(start, self.previous_end, value, self.texts[self.at - 1])
        return value

    def subtype(self) -> ast.SubtypeInd:
        """`[resolution] mark [constraint]`."""
        start = self.start
        resolution: ast.Expr | None = None
        if self.is_at("("):  # a resolution for the elements
            self.at += 1
            resolution = self.type_mark()
            self.close_bracket(start)
        mark = self.type_mark()
        if self.kind in "ix" and not self.newline_before[self.at]:
            resolution, mark = mark, self.type_mark()
        found = ast.SubtypeInd(start, self.previous_end, mark, resolution)
        if self.kind == "k" and self.accept("range"):
            found.scalar = True
            if self.accept("<>"):
                raise self.fail("box", "`<>` can only stand where an array type is declared")
            found.ranges = [self._range()]
        elif self.is_at("["):
            hint = "write (7 downto 0)"
            raise self.fail("foreign", "ranges stand in round brackets in VHDL", hint)
        elif self.is_at("("):
            found.ranges = self._index_ranges()
            while self.is_at("("):
                found.element_ranges.append(self._index_ranges())
        found.end = self.previous_end
        return found

    def _index_ranges(self) -> list[ast.Expr | ast.SubtypeInd]:
        open_at = self.start
        self.expect("(", "before the range")
        ranges: list[ast.Expr | ast.SubtypeInd] = []
        while True:
            start = self.start
            if self.kind == "k" and self.text == "open":
                self.at += 1
                ranges.append(ast.Open(start, self.previous_end))
            else:
                ranges.append(self._index_range())
            if not self.accept(","):
                break
        self.close_bracket(open_at)
        return ranges

    def _index_range(self) -> ast.Expr:
        found = self.range_or_value()
        if self.is_at(":") and isinstance(found, ast.Number):
            hint = f"write ({found.value:g} downto 0)"
            raise self.fail("foreign", "a range is written with `to` or `downto` in VHDL", hint)
        return found

    def _range(self) -> ast.Expr:
        found = self.range_or_value()
        if isinstance(found, ast.Range | ast.Attribute):
            return found
        raise self.fail(
            "missing", f"a range such as 0 to 7 is missing before {self.describe()}", "", found.pos, found.end
        )

    def keyword_hint(self, word: str) -> str:
        """A near reserved word."""
        return did_you_mean(word, KEYWORDS)


_ATTRIBUTES_WITH_ARGUMENT = frozenset(
    [
        "left",
        "right",
        "low",
        "high",
        "length",
        "range",
        "reverse_range",
        "ascending",
        "image",
        "value",
        "pos",
        "val",
        "succ",
        "pred",
        "leftof",
        "rightof",
        "delayed",
        "stable",
        "quiet",
    ]
)
_TIME_UNITS = frozenset(["fs", "ps", "ns", "us", "ms", "sec", "min", "hr"])
