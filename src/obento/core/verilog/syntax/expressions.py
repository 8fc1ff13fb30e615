"""Parsing of expressions and literals (IEEE 1364-2005 clauses 3.5 and 5, annex A.8)."""

from __future__ import annotations

import re
from collections.abc import Mapping
from types import MappingProxyType

from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.braces import BraceParser
from obento.core.verilog.syntax.lets import Let, given, written_out
from obento.core.verilog.syntax.numbers import NumberParser
from obento.core.verilog.syntax.strings import unescaped

_LEVELS: list[tuple[str, ...]] = [
    ("||",), ("&&",), ("|",), ("^", "~^", "^~"), ("&",), ("==", "!=", "===", "!==", "==?", "!=?"),
    ("<", "<=", ">", ">=", "inside"),
    ("<<", ">>", "<<<", ">>>"), ("+", "-"), ("*", "/", "%"), ("**",),
]  # fmt: skip
"""Binary operators from the loosest to the tightest (table 5-4; 1800-2017 table 11-2)."""

_LEVEL = {op: level for level, ops in enumerate(_LEVELS) for op in ops}
_UNARY = frozenset(["+", "-", "!", "~", "&", "~&", "|", "~|", "^", "~^", "^~"])
CASTS = frozenset(
    [
        "signed",
        "unsigned",
        "logic",
        "bit",
        "reg",
        "integer",
        "int",
        "byte",
        "shortint",
        "longint",
        "time",
        "real",
        "string",
    ]
)
"""Words that may head a cast."""

UPDATES = {
    "+=": "+",
    "-=": "-",
    "*=": "*",
    "/=": "/",
    "%=": "%",
    "&=": "&",
    "|=": "|",
    "^=": "^",
    "<<=": "<<",
    ">>=": ">>",
    "<<<=": "<<<",
    ">>>=": ">>>",
}
"""Assignments that .sv files may write shorter."""

_UNSIZED = re.compile(r"'[sS]?[bBoOdDhH]")
TIME_UNITS = {"s": 0, "ms": -3, "us": -6, "ns": -9, "ps": -12, "fs": -15}
"""Units of time as powers of ten of a second."""
_BASE_WITHOUT_QUOTE = re.compile(r"[bBoOdDhH][0-9a-fA-FxXzZ_]+")
_OTHER_SIGNS = {"/=": "!=", "=>": ">=", "=<": "<="}
"""Signs that compare elsewhere, with ours."""

_BEHIND = frozenset(["'(", "++", "--"])
"""What may stand behind an operand and belongs to it."""


class ExpressionParser(BraceParser, NumberParser):
    """The expression part of the grammar. `lets` are the expressions that have a name here."""

    lets: Mapping[str, Let] = MappingProxyType({})

    def expression(self) -> ast.Expr:
        """An expression with all operators (annex A.8.3)."""
        self.enter()
        result = self._binary(0)
        if self.texts[self.at] == "?" and self.kinds[self.at] == "o":
            result = self._conditional(result)
        if self.texts[self.at] in ("->", "<->") and self.kinds[self.at] == "o" and self.system_verilog:
            result = self._implied(result)
        self.leave()
        return result

    def _implied(self, left: ast.Expr) -> ast.Expr:
        """`a -> b` is `!a || b`, and `a <-> b` that both ways; they stand to the right (1800 clause 11.4.7)."""
        op = self.texts[self.at]
        self.at += 1
        right = self.expression()
        start, end = left.start, right.end
        turned = ast.Unary(start, left.end, "!", left)
        if op == "->":
            return ast.Binary(start, end, "||", turned, right)
        return ast.Binary(start, end, "==", turned, ast.Unary(right.start, end, "!", right))

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
                if op == "inside" and kinds[self.at] == "k" and level >= lowest:
                    left = self._inside(left)
                    continue
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
        if op in ("++", "--") and self.kinds[self.at] == "o":
            start = self.start
            self.at += 1
            return self._counted(start, self.primary(), op, False)
        value = self.primary()
        if self.texts[self.at] not in _BEHIND:
            return value
        while self.texts[self.at] == "'(" and self.kinds[self.at] == "o":
            value = self._cast(value.start, value.name if isinstance(value, ast.Name) else value)
        if self.texts[self.at] in ("++", "--") and self.kinds[self.at] == "o":
            op = self.text
            self.at += 1
            return self._counted(value.start, value, op, True)
        return value

    def _counted(self, start: int, target: ast.Expr, op: str, before: bool) -> ast.Expr:
        """`i++` or `--i` as a value (1800 clause 11.4.2)."""
        return ast.Effect(start, self.previous_end, self.step(start, target, op), before)

    def step(self, start: int, target: ast.Expr, op: str) -> ast.Assign:
        """What `++` or `--` does."""
        self.system_verilog_only(f"`{op}`", f"write `i = i {op[0]} 1`")
        end = self.previous_end
        one = ast.Number(start, end, None, True, 1, (1 << 32) - 2, 32)
        return ast.Assign(start, end, target, ast.Binary(start, end, op[0], target, one), True)

    def _assigned(self, target: ast.Expr) -> ast.Expr:
        """`(a = b)` or `(a += b)` as a value (1800 clause 11.3.6), from its sign to the end of its value."""
        op = UPDATES.get(self.text)
        self.at += 1
        value = self.expression()
        if op is not None:
            value = ast.Binary(target.start, value.end, op, target, value)
        done = ast.Assign(target.start, value.end, target, value, True)
        return ast.Effect(target.start, value.end, done, False)

    def _inside(self, value: ast.Expr) -> ast.Expr:
        """From `inside` to its closing brace (1800 clause 11.4.13)."""
        self.at += 1
        self.expect("{", "the values")
        among = self.values_and_ranges("}")
        return ast.Inside(value.start, self.previous_end, value, among)

    def values_and_ranges(self, closing: str) -> list[ast.Expr | ast.Range]:
        """Values and `[low:high]`, up to and including the closing sign; a colon closes nothing."""
        found: list[ast.Expr | ast.Range] = []
        while True:
            start = self.start
            if self.accept("["):
                low = self._end_of_range()
                self.expect(":", "between the two ends of a range")
                high = self._end_of_range()
                self.expect("]", "the range")
                found.append(ast.Range(start, self.previous_end, low, high))
            else:
                found.append(self.expression())
            if not self.accept(","):
                break
        if closing == "}" and self.is_at(":"):
            raise self._bare_range(found[-1])
        self.expect(closing, "the values")
        return found

    def _bare_range(self, low: ast.Node) -> Exception:
        text = "a range of values stands in brackets"
        return self.fail("bare-range", text, "write `[1:3]`", low.start, low.end)

    def _end_of_range(self) -> ast.Expr:
        """An end of a range of values; `$` is the least or greatest there is (an `ast.Last`)."""
        return self.expression()

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
            return self.number(text, start, end)
        if kind == "o":
            if text == "(":
                self.at += 1
                inner = self._behind_value(self.expression())
                self.expect(")", "the parenthesis opened here")
                return inner
            if text == "{":
                return self.streamed() if self.texts[self.at + 1] in ("<<", ">>") else self.braces()
            if text == "'{":
                return self.pattern(start, "")
        if kind == "$":
            self.at += 1
            if text == "$unit" and self.accept("::"):
                return self._after_name("::" + self.name("a name"), start, self.previous_end)
            args, named = self.arguments() if self.is_at("(") else ([], {})
            return ast.Call(start, self.previous_end, text, args, None, named)
        if kind == "s":
            self.at += 1
            return ast.String(start, end, unescaped(text, self.system_verilog))
        if text == "$" and self.system_verilog:
            self.at += 1
            return ast.Last(start, end)
        if kind == "r":
            self.at += 1
            return ast.Real(start, end, text)
        if kind == "t":
            return self._time(text, start, end)
        if kind == "k":
            return self._worded_operand(text, start)
        raise self._no_operand()

    def _behind_value(self, value: ast.Expr) -> ast.Expr:
        """What stands behind a value in parentheses: an assignment in .sv files (1800 clause 11.3.6), or a slip."""
        if self.kinds[self.at] != "o" or self.text == ")":
            return value
        if self.system_verilog and (self.is_at("=") or self.text in UPDATES):
            return self._assigned(value)
        if self.text == "=":
            self.collector.error(
                "assign-for-compare", "`=` does not compare", self.start, self.ends[self.at], "to compare write `==`"
            )
            self.at += 1
            self.expression()
        if self.is_at(","):
            raise self.fail("list-in-parentheses", "`( , )` joins nothing", "values are joined by `{a, b}`")
        return value

    def _worded_operand(self, text: str, start: int) -> ast.Expr:
        """An operand that begins with a reserved word: a cast or a type."""
        if text in CASTS and self.texts[self.at + 1] == "'(":
            self.at += 1
            return self._cast(start, text)
        if text == "void" and self.texts[self.at + 1] == "'(":
            raise self.fail("void-value", "`void'(...)` has no value", "it is a statement of its own")
        if self.system_verilog and self.at_type():
            return self._type_argument()
        raise self._no_operand()

    def _time(self, text: str, start: int, end: int) -> ast.Expr:
        """A number with a unit of time (1800 clause 5.8)."""
        number = text.rstrip("fpnums")
        if not self.system_verilog:
            raise self.fail("bad-number", f"`{text}` is no number", "leave out the unit: `timescale` says it")
        self.at += 1
        return ast.TimeLiteral(start, end, number, TIME_UNITS[text[len(number) :]])

    def _type_argument(self) -> ast.Expr:
        """A type where a value could stand."""
        start = self.start
        made = self.data_type()
        if self.is_at("'{"):
            return self.pattern(start, made.word)
        if self.is_at("'("):
            raise self.fail("not-yet", "a cast to a type with ranges is not read by this version", "name it: `typedef`")
        return ast.TypeArgument(start, self.previous_end, made)

    def at_type(self) -> bool:
        """Whether a type stands here; the parser of types knows."""
        return False

    def data_type(self) -> ast.Type:
        """A type; it is read by who reads types."""
        raise NotImplementedError

    def _no_operand(self) -> Exception:
        if self.texts[self.at] in ("signed", "unsigned") and self.texts[self.at + 1] == "(":
            word = self.text
            hint = f"write `{word}'(...)` or `${word}(...)`" if self.system_verilog else f"write `${word}(...)`"
            return self.fail("cast-form", f"`{word}` is no function", hint)
        if self.texts[self.at] in ("posedge", "negedge") and self.kinds[self.at] == "k":
            return self.fail(
                "edge-as-value",
                f"`{self.text}` is no value: it belongs behind `@`",
                f"write `always @({self.text} clk)` and ask nothing here",
            )
        if self.at and self.texts[self.at - 1] + self.texts[self.at] == "<>":
            start = self.starts[self.at - 1]
            return self.fail("other-sign", "`<>` does not compare here", "write `!=`", start, self.ends[self.at])
        if self.texts[self.at] == "not" and self.kinds[self.at] == "k":
            return self.fail(
                "word-operator", "`not` is a gate, no operator", "write `~a` for digits or `!a` for conditions"
            )
        if self.is_at("default") and self.texts[self.at - 1] == "{" and self.system_verilog:
            return self.fail("pattern-quote", "`default:` stands in a pattern", "a pattern begins with `'{`")
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
        if name == "new" and self.system_verilog and self.is_at("["):
            return self._new(start)
        if self.is_at("::") and self.kinds[self.at + 1] in "ix":
            self.at += 2
            name, end = f"{name}::{self.texts[self.at - 1]}", self.previous_end
        let = self.lets.get(name)
        if let is not None:
            return self._behind(self._let_used(let, start))
        if self.is_at("("):
            args, named = self.arguments()
            return self._behind(ast.Call(start, self.previous_end, name, args, None, named))
        if self.is_at("'{"):
            return self.pattern(start, name)
        return self._behind(ast.Name(start, end, name))

    def _new(self, start: int) -> ast.Expr:
        """`new[size]` or `new[size](old)` (1800 clause 7.5.1)."""
        self.at += 1
        size = self.expression()
        self.expect("]", "the size")
        old = None
        if self.accept("("):
            old = self.expression()
            self.expect(")", "what it begins with")
        return ast.New(start, self.previous_end, size, old)

    def _let_used(self, let: Let, start: int) -> ast.Expr:
        args, named = self.arguments() if self.is_at("(") else ([], {})
        values = given(let, args, named)
        if isinstance(values, str):
            raise self.fail("arguments", values, "", start, self.previous_end)
        return written_out(let.body, values)

    def _behind(self, result: ast.Expr) -> ast.Expr:
        """What stands behind a name: members, indices, arguments. Names and single indices make one path, whose
        meaning its first name decides."""
        while True:
            if self.is_at("."):
                self.at += 1
                result = self._member(result, self.name_behind_dot())
                is_chained = isinstance(result, ast.Member) and isinstance(result.base, ast.Call)
                if is_chained or self.is_at("(") or self._at_with():
                    result = self._method_called(result)
            elif self.texts[self.at] == "[" and self.kinds[self.at] == "o" and not isinstance(result, ast.Call):
                result = self._selected(result)
            else:
                return result

    def _method_called(self, path: ast.Expr) -> ast.Call:
        """`q.size()`, `hierarchy.f(x)`, and a method of what a call gave: `l.next().name()`."""
        if not isinstance(path, ast.Dotted) and not (isinstance(path, ast.Member) and isinstance(path.base, ast.Call)):
            raise self.fail("not-yet", "a call behind this is not read by this version")
        args, named = self.arguments() if self.is_at("(") else ([], {})
        each = self.each(args)
        name = ".".join(path.parts) if isinstance(path, ast.Dotted) else path.name
        return ast.Call(path.start, self.previous_end, name, args, path, named, each)

    def name_behind_dot(self) -> str:
        """A name behind a dot; methods of collections may be called as an operator (1800 clause 7.12.3)."""
        if self.system_verilog and self.is_at("and", "or", "xor", "unique"):
            self.at += 1
            return self.texts[self.at - 1]
        return self.name("a name after the dot")

    def _at_with(self) -> bool:
        return self.system_verilog and self.text == "with" and self.texts[self.at + 1] == "("

    def each(self, args: list[ast.Expr | None]) -> ast.With | None:
        """`with (test)` behind a method, whose one argument names an element (1800 clause 7.12.4)."""
        if not self._at_with():
            return None
        start = self.start
        item = args.pop() if args and isinstance(args[0], ast.Name) else None
        self.at += 2
        test = self.expression()
        self.expect(")", "what is asked of each element")
        return ast.With(start, self.previous_end, item.name if isinstance(item, ast.Name) else "item", test)

    def _member(self, base: ast.Expr, name: str) -> ast.Expr:
        indexed = isinstance(base, ast.Index)
        path = base.base if isinstance(base, ast.Index) else base
        if isinstance(path, ast.Name):
            path = ast.Dotted(path.start, path.end, [path.name], [None])
        if not isinstance(path, ast.Dotted) or (indexed and path.indices[-1] is not None):
            return ast.Member(base.start, self.previous_end, base, name)
        indices = [*path.indices[:-1], base.index] if isinstance(base, ast.Index) else path.indices
        return ast.Dotted(base.start, self.previous_end, [*path.parts, name], [*indices, None])

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

    def arguments(self) -> tuple[list[ast.Expr | None], dict[str, ast.Expr | None]]:
        """What stands in parentheses behind a name: by order, and in .sv files by names (1800 clause 13.5.4)."""
        self.expect("(", "the arguments")
        args: list[ast.Expr | None] = []
        named: dict[str, ast.Expr | None] = {}
        while not self.is_at(")"):
            if self.is_at(".") and self.system_verilog:
                self.at += 1
                name = self.name("an argument's name")
                self.expect("(", "the argument's value")
                named[name] = None if self.is_at(")") else self.expression()
                self.expect(")", "the argument's value")
            else:
                args.append(None if self.is_at(",") else self.expression())
            if not self.accept(","):
                break
        self.expect(")", "the arguments")
        return args, named

    def name(self, what: str) -> str:
        """An identifier, or an error that says what was to be named."""
        if self.kinds[self.at] in "ix":
            self.at += 1
            return self.texts[self.at - 1]
        if self.kinds[self.at] == "k":
            raise self.fail(
                "reserved-word", f"`{self.text}` is a reserved word and cannot be {what}", "choose another name"
            )
        if self.kinds[self.at] == "n":
            raise self.fail("bad-name", "a name does not begin with a digit", "begin it with a letter or `_`")
        raise self.fail("expected-name", f"{what} is missing before {self.describe()}")

    def expect(self, sign: str, what: str = "") -> None:
        """The given sign or word; where it is missing at a line's end, the error points there."""
        if self.texts[self.at] == sign and self.kinds[self.at] in "ok":
            self.at += 1
            return
        self._no_value_goes_on()
        tail = f" ({what})" if what and sign not in ";" else ""
        if self.newline_before[self.at] and self.at:
            raise self.fail("missing", f"`{sign}` is missing here{tail}", "", self.previous_end, self.previous_end)
        raise self.fail("missing", f"`{sign}` is missing before {self.describe()}{tail}")

    def _no_value_goes_on(self) -> None:
        """What often stands behind a value and cannot go on with it: a number without its quote, an operator that is a
        word or a sign of another language, a parenthesis too many."""
        at, text = self.at, self.texts[self.at]
        before = self.texts[at - 1] if at else ""
        touches = at > 0 and self.ends[at - 1] == self.starts[at]
        if self.kinds[at] == "i" and self.kinds[at - 1] == "n" and before.isdecimal() and touches:
            if _BASE_WITHOUT_QUOTE.fullmatch(text):
                hint = f"write `{before}'{text}`"
            else:
                hint = f"write `'h{text[1:]}`" if before == "0" and text[:1] in "xX" else "leave a blank before a name"
            raise self.fail("bad-number", f"`{before}{text}` is no number", hint, self.starts[at - 1], self.ends[at])
        if text == "(" and self.kinds[at - 1] == "n" and touches and self.system_verilog:
            raise self.fail("cast-form", "a cast has a quote", f"write `{before}'(...)`")
        if text in _OTHER_SIGNS and self.kinds[at] == "o":
            raise self.fail("other-sign", f"`{text}` does not compare here", f"write `{_OTHER_SIGNS[text]}`")
        if text == "--" and self.kinds[at] == "o":
            raise self.fail("other-sign", "`--` begins no comment in Verilog", "write `//`")
        self._no_word_operator()

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
        word = self.texts[self.at].lower()
        if word in instead and self.kinds[self.at] in "ki" and not self.newline_before[self.at]:
            raise self.fail("word-operator", f"`{word}` is no operator", f"write `{instead[word]}`")

    def semicolon(self, after: str) -> None:
        """A semicolon. When it is missing before something that can follow one, go on as if it were there."""
        if self.accept(";"):
            return
        self._no_value_goes_on()
        if self.is_at(")"):
            raise self.fail("extra-parenthesis", "this `)` closes nothing", "one too many, or its `(` is missing")
        hint = f"every {after} ends with `;`"
        if self.is_at("[") and self.texts[self.at - 1].startswith("$"):
            shown = self.texts[self.at - 1]
            raise self.fail(
                "brackets", f"`{shown}` is a function", f"its arguments stand in parentheses: `{shown}(...)`"
            )
        starts_anew = self.newline_before[self.at] or self.kinds[self.at] in "ke"
        if self.is_at("=") or self.is_at("<="):
            starts_anew = False
        if starts_anew:
            self.collector.error("missing-semicolon", "`;` is missing here", self.previous_end, self.previous_end, hint)
            return
        raise self.fail("missing-semicolon", f"`;` is missing before {self.describe()}", hint)
