"""Parsing of types: words, vectors, enumerations, structures and unions, and names for them (IEEE 1800-2017 clauses 6
and 7.2)."""

from __future__ import annotations

from typing import Literal

from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import SIGNED_TYPES
from obento.core.verilog.syntax.expressions import ExpressionParser

NAMED_TYPES = frozenset(
    ["logic", "reg", "bit", "int", "integer", "byte", "shortint", "longint", "time", "real", "realtime", "string"]
)
"""Types that are words."""
_MADE_TYPES = frozenset(["enum", "struct", "union"])


class TypeParser(ExpressionParser):
    """What may stand before the names of a declaration. `types` are the names of types that are known so far."""

    def __init__(self, *args: object) -> None:
        super().__init__(*args)  # type: ignore[arg-type]
        self.types: set[str] = set()

    # Where a type begins.

    def at_type_name(self) -> bool:
        """Whether a name of a type begins a declaration here."""
        at = self.at
        if self.kinds[at] != "i":
            return False
        if self.texts[at + 1] == "::" and self.kinds[at + 2] == "i":
            at += 2
        elif self.texts[at] not in self.types:
            return False
        at += 1
        while self.texts[at] == "[" and self.kinds[at] == "o":
            at = self._behind_bracket(at)
        return self.kinds[at] in "ix"

    def _behind_bracket(self, at: int) -> int:
        depth = 0
        while self.kinds[at] != "e":
            depth += (self.texts[at] == "[") - (self.texts[at] == "]")
            at += 1
            if not depth:
                break
        return at

    def at_type(self) -> bool:
        """Whether a type stands here where a value could stand as well."""
        if self.kinds[self.at] == "k":
            return self.texts[self.at] in NAMED_TYPES | _MADE_TYPES or self.at_type_of()
        return self.kinds[self.at] == "i" and self.texts[self.at] in self.types

    def at_type_of(self) -> bool:
        """Whether `type(x)` stands here (.sv files)."""
        return self.texts[self.at] == "type" and self.kinds[self.at] == "k" and self.texts[self.at + 1] == "("

    def at_made_type(self) -> bool:
        """Whether `enum`, `struct` or `union` stands here."""
        return self.kinds[self.at] == "k" and self.texts[self.at] in _MADE_TYPES

    # Ranges.

    def range(self) -> ast.Range:
        """A range in brackets."""
        start = self.start
        self.expect("[")
        if self.is_at("]", "$"):
            raise self.fail("varying-range", "a range that changes stands behind the name only", "give it two ends")
        left = self.expression()
        if self.is_at("]"):
            if self.system_verilog:
                self.at += 1  # `[n]` means `[0:n-1]`
                minus = ast.Binary(
                    left.start, left.end, "-", left, ast.Number(left.start, left.end, None, True, 1, (1 << 32) - 2, 32)
                )
                zero = ast.Number(left.start, left.end, None, True, 0, (1 << 32) - 1, 32)
                return ast.Range(start, self.previous_end, zero, minus)
            raise self.fail("range", "a range has two ends", "write `[msb:lsb]`, for instance `[3:0]`")
        self.expect(":", "between the two ends of a range")
        right = self.expression()
        self.expect("]", "the range")
        return ast.Range(start, self.previous_end, left, right)

    def ranges(self) -> list[ast.Range]:
        """All ranges that stand here."""
        found: list[ast.Range] = []
        while self.is_at("["):
            found.append(self.range())
        return found

    def dimensions(self) -> list[ast.Range | ast.Varying]:
        """All dimensions that stand behind a name."""
        found: list[ast.Range | ast.Varying] = []
        while self.is_at("["):
            found.append(self._varying() if self._at_varying() else self.range())
        return found

    def _at_varying(self) -> bool:
        kind, text = self.kinds[self.at + 1], self.texts[self.at + 1]
        if not self.system_verilog:
            return False
        is_type = (kind == "k" and text in NAMED_TYPES) or (kind == "i" and text in self.types)
        return (kind == "o" and text in ("]", "$", "*")) or is_type

    def _varying(self) -> ast.Varying:
        """`[$]`, `[$:7]`, `[]`, `[*]` or `[string]` (1800 clauses 7.5, 7.8 and 7.10)."""
        start = self.start
        self.at += 1
        kind: Literal["queue", "dynamic", "map"] = "dynamic"
        most, key = None, None
        if self.accept("$"):
            kind = "queue"
            most = self.expression() if self.accept(":") else None
        elif self.accept("*"):
            kind = "map"
        elif not self.is_at("]"):
            kind, key = "map", self.data_type()
        self.expect("]", "the dimension")
        return ast.Varying(start, self.previous_end, kind, most, key)

    def declarator(self, what: str) -> ast.Declarator:
        """A name that is declared, with its dimensions and its value."""
        start = self.start
        name = self.name(what)
        dims = self.dimensions()
        value = self.expression() if self.accept("=") else None
        return ast.Declarator(start, self.previous_end, name, dims, value)

    def signed(self, by_type: bool = False) -> bool:
        """Whether a type is signed: by its word, unless `signed` or `unsigned` says otherwise (1800 clause 6.9)."""
        if self.accept("signed"):
            return True
        return not self.accept("unsigned") and by_type

    # Types.

    def vector_type(self, word: str = "") -> ast.Type:
        """What stands behind the word of a type, or without any: the sign and the ranges."""
        start = self.start
        signed = self.signed(word in SIGNED_TYPES)
        return ast.Type(start, self.previous_end, word, signed, self.packed_ranges())

    def packed_ranges(self) -> list[ast.Range]:
        """The ranges of a vector: one, or in .sv files any number."""
        found = self.ranges()
        if len(found) > 1 and not self.system_verilog:
            self.collector.error(
                "system-verilog",
                "a vector of vectors is SystemVerilog",
                found[1].start,
                found[1].end,
                "write the second range behind the name, or name the file .sv if the course allows it",
            )
        return found

    def data_type(self) -> ast.Type:
        """A type with everything that belongs to it."""
        start = self.start
        if self.accept("enum"):
            made = self._enumeration(start)
        elif self.is_at("struct", "union"):
            made = self._structure()
        elif self.at_type_of():
            made = self._type_of()
        else:
            made = self.vector_type(self.type_word())
        made.start, made.end = start, self.previous_end
        return made

    def _type_of(self) -> ast.Type:
        """`type(x)`: the type of an expression, which is not worked out (1800 clause 6.23)."""
        start = self.start
        self.at += 2
        of = self.expression()
        self.expect(")", "what has the type")
        return ast.Type(start, self.previous_end, "type", of=of)

    def type_word(self) -> str:
        """The word or name of a type, behind its package where one stands."""
        if self.kinds[self.at] not in "ixk":
            raise self.fail("expected-type", f"a type is missing before {self.describe()}", "for instance `logic`")
        word = self.text
        self.at += 1
        if self.is_at("::"):
            self.at += 1
            word = f"{word}::{self.name('the name of a type')}"
        return word

    def _enumeration(self, start: int) -> ast.Type:
        """From behind `enum`: the type of the values, their names, further ranges (1800 clause 6.19)."""
        if self.is_at("{"):
            base = ast.Type(start, start, "int", True)
        elif self.is_at("[", "signed", "unsigned"):
            base = self.vector_type("logic")
        else:
            base = self.vector_type(self.type_word())
        constants = self._constants()
        values = ast.Declaration(start, self.previous_end, base.word, "", base, [])
        return ast.Type(start, start, "enum", base.signed, self.ranges(), [values], constants, True)

    def _constants(self) -> list[ast.Declarator]:
        """The names in braces, some with values; `name[3]` stands for name0, name1, name2 (1800 clause 6.19.2)."""
        constants: list[ast.Declarator] = []
        self.expect("{", "the names of the enumeration")
        while True:
            constants.append(self.declarator("a name of the enumeration"))
            if not self.accept(","):
                break
        if self.is_at(";"):
            raise self.fail("names-parted", "the names of an enumeration are parted by `,`", "and `}` closes them")
        self.expect("}", "the names of the enumeration")
        return constants

    def _structure(self) -> ast.Type:
        """`struct` or `union`, with its members (1800 clause 7.2)."""
        word, start = self.text, self.start
        self.at += 1
        packed = self.accept("packed")
        signed = self.signed()
        self.expect("{", f"the members of the {word}")
        self.enter()
        members: list[ast.Declaration] = []
        while not self.accept("}"):
            member_start = self.start
            if not self.at_type():
                raise self.fail(
                    "bad-member",
                    f"a member begins with its type, not with {self.describe()}",
                    "write for instance `logic [3:0] count;`",
                )
            made = self.data_type()
            member = ast.Declaration(member_start, self.previous_end, made.word, "", made, [])
            while True:
                member.names.append(self.declarator("the name of a member"))
                if not self.accept(","):
                    break
                if self.at_type():
                    at = self.starts[self.at - 1]
                    raise self.fail("members-parted", "members are parted by `;`, not by `,`", "", at, at + 1)
            self.semicolon("member")
            member.end = self.previous_end
            members.append(member)
        self.leave()
        return ast.Type(start, start, word, signed, self.packed_ranges(), members, [], packed)

    def type_definition(self) -> list[ast.Item]:
        """`typedef` (.sv files): a name for a type (1800 clause 6.18)."""
        start = self.start
        self.at += 1
        if self.kinds[self.at] == "i" and self.texts[self.at + 1] == ";":
            self.types.add(self.name("the name of the type"))  # `typedef name;` says that it comes later
            self.semicolon("declaration")
            return []
        if not self.at_type() and not self.at_type_name():
            raise self.fail(
                "not-yet",
                f"a `typedef` of {self.describe()} is not read by this version",
                "enumerations, structures, numbers and vectors are",
            )
        made = self.data_type()
        if self.is_at(";") and made.word == "enum" and made.members[0].kind not in NAMED_TYPES:
            word = made.members[0].kind
            raise self.fail(
                "type-name-last", f"`{word}` stands before the braces", f"a type's name comes last: `}} {word};`"
            )
        if self.is_at(";"):
            behind = self.previous_end
            raise self.fail("type-name", "the type has no name", "it stands last: `} name_t;`", behind - 1, behind)
        name = self.name("the name of the type")
        dims = self.dimensions()
        self.types.add(name)
        self.semicolon("declaration")
        return [ast.TypeDefinition(start, self.previous_end, name, made, dims)]
