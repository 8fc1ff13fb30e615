"""Parsing of what a module is made of: assignments, gates, instances, processes, generate (IEEE 1364-2005 clauses 6, 7,
12)."""

from __future__ import annotations

from obento.core.suggest import did_you_mean, nearest
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import TYPES_ELSEWHERE
from obento.core.verilog.syntax.declarations import DIRECTIONS, NET_TYPES, VARIABLE_TYPES, DeclarationParser
from obento.core.verilog.syntax.lexer import KEYWORDS

GATES = frozenset(
    """
    and nand or nor xor xnor buf not bufif0 bufif1 notif0 notif1 pullup pulldown cmos rcmos nmos pmos rnmos
    rpmos tran rtran tranif0 tranif1 rtranif0 rtranif1
    """.split()
)
_ITEM_WORDS = frozenset(
    """
    assign always initial wire reg input output inout integer parameter localparam endmodule function task generate
    """.split()
)
PROCESSES = frozenset(["always", "initial", "always_comb", "always_ff", "always_latch", "final"])


def _is_empty(body: ast.Stmt | None) -> bool:
    return isinstance(body, ast.Timed) and body.body is None


class ItemParser(DeclarationParser):
    """The items of a module. `primitives` are the names of user-defined ones read so far, which need no instance
    name."""

    def __init__(self, *args: object) -> None:
        super().__init__(*args)
        self.primitives: set[str] = set()
        self.binds: list[tuple[str, int, ast.Item]] = []
        """Instances that stand in other modules: the module's name, where it stands, the instance."""
        self.times: tuple[int, int] | None = None
        self._process_ends = -1, False

    def item(self) -> list[ast.Item]:
        """One item of a module, or several that one declaration makes."""
        kind, text, start = self.kinds[self.at], self.texts[self.at], self.start
        if self.accept(";"):
            return []
        if kind == "k":
            return self._worded(text, start)
        if self.at_type_name():
            return self.declaration()
        if self.at_let():
            return self.let_item()
        if kind == "i" and self.texts[self.at + 1] == ":" and self.is_label():
            if self.texts[self.at + 2] == "begin":
                return self._bare_block()
            self.at += 2
            return self.item()
        if kind == "i" and text in ("assert", "assume", "cover") and self.system_verilog:
            if self.texts[self.at + 1] in ("#", "final"):
                return [ast.Process(start, self.previous_end, "always_comb", self.assertion())]
            raise self.fail(
                "not-yet", f"`{text}` outside of a process is not read by this version", "put it into `always_comb`"
            )
        if kind == "i" and text == "bind" and self.system_verilog and self.kinds[self.at + 1] in "ix":
            return self._bound()
        if kind in "ix":
            if (
                text in ("logic", "always_comb", "always_ff", "always_latch", "typedef", "enum", "int")
                and not self.system_verilog
            ):
                return self._foreign(text)
            near = nearest(text, _ITEM_WORDS) if self._looks_misspelt() else None
            if near is not None:
                self.mend(near)
                return self.item() if near != "endmodule" else []
            return self._instances()
        if text in ("$error", "$fatal", "$warning", "$info") and self.system_verilog:
            return [ast.ElaborationTask(start, self.previous_end, self.task(text))]
        if kind == "$":
            raise self.fail(
                "outside-process",
                f"{self.describe()} stands outside of a process",
                "put it into an `initial` or `always` block",
            )
        if kind == "o" and text == "}":
            raise self.fail("brace", "`}` closes nothing here", "Verilog groups statements with `begin` and `end`")
        raise self.fail("expected-item", f"{self.describe()} cannot stand here")

    def _behind_process(self, start: int) -> None:
        """An assignment right behind a process that ended too early: by a `;` behind its event, or after one statement
        where two were meant."""
        end, is_empty = self._process_ends
        if end != self.at - 1:
            return
        if is_empty:
            at = self.ends[end - 1]
            raise self.fail(
                "empty-process", "this `;` ends the process before it does anything", "take it out", at - 1, at
            )
        raise self.fail(
            "process-of-two",
            "this stands behind the process, which has one statement",
            "put both between `begin` and `end`",
            start,
            self.ends[self.at],
        )

    def _bound(self) -> list[ast.Item]:
        """`bind module checker c1 (...);`: an instance that stands in another module (1800 clause 23.11)."""
        self.at += 1
        start, target = self.start, self.name("the module that gets it")
        if self.is_at(":", "."):
            raise self.fail("not-yet", "`bind` to single instances is not read by this version", "bind the module")
        self.binds += [(target, start, item) for item in self._instances()]
        return []

    def _looks_misspelt(self) -> bool:
        """Whether what follows a name at the start of an item can follow no module's name."""
        after, kind = self.texts[self.at + 1], self.kinds[self.at + 1]
        if kind in "ek" or after in ("[", "@"):
            return True
        return kind in "ix" and self.texts[self.at + 2] in ("=", ";", ",") and self.text not in self.types

    def _worded(self, text: str, start: int) -> list[ast.Item]:
        if text in DIRECTIONS:
            return self.declarators(self.port_head())
        if text in NET_TYPES or text in VARIABLE_TYPES or text in ("var", "const", "enum", "struct", "union"):
            return self.declaration()
        if text in GATES:
            return self._gates()
        if text in PROCESSES:
            self.at += 1
            if self.is_at("(") and text == "always":
                raise self.fail("missing-at", "`@` is missing before `(`", "write `always @(...)`")
            body = self.statement_or_null()
            self._process_ends = self.at, _is_empty(body)
            return [ast.Process(start, self.previous_end, text, body)]
        rule = _BY_WORD.get(text)
        if rule is not None:
            return rule(self)
        if text == "end":
            raise self.fail("extra-end", "this `end` closes nothing", "one `end` too many, or its `begin` is missing")
        raise self._misplaced(text)

    def _foreign(self, text: str) -> list[ast.Item]:
        """A word of SystemVerilog in a .v file."""
        instead = {"logic": "write `reg` or `wire`", "int": "write `integer`", "always_comb": "write `always @*`"}.get(
            text, "write `always`"
        )
        raise self.fail(
            "system-verilog", f"`{text}` is SystemVerilog", f"{instead}, or name the file .sv if the course allows it"
        )

    def _misplaced(self, text: str) -> Exception:
        if text in ("else", "while", "repeat", "forever", "wait", "casez", "casex"):
            return self.fail(
                "outside-process", f"`{text}` stands outside of an `always` or `initial` block",
                "put it into `always @* begin ... end`; also look for an `end` too many before",
            )  # fmt: skip
        if text in ("signed", "unsigned"):
            return self.fail("sign-first", f"`{text}` stands before its type", f"write `logic {text} [3:0] x;`")
        return self.fail("expected-item", f"{self.describe()} cannot stand here")

    def _parameter_item(self) -> list[ast.Item]:
        local = self.text == "localparam"
        self.at += 1
        items = self.parameters(local)
        self.semicolon("declaration")
        return items

    def _one_function(self) -> list[ast.Item]:
        return [self.function()]

    def _specify(self) -> list[ast.Item]:
        """Path delays belong to timing, which is not looked at."""
        while self.kinds[self.at] != "e" and not self.accept("endspecify"):
            self.at += 1
        return []

    def _specparam(self) -> list[ast.Item]:
        while self.kinds[self.at] != "e" and not self.accept(";"):
            self.at += 1
        return []

    def _assigns(self) -> list[ast.Item]:
        self.at += 1
        strengths = self.strengths()
        delays = self.delays_or_none()
        items: list[ast.Item] = []
        while True:
            start = self.start
            if self.kinds[self.at] == "k" and self.text in GATES and self.texts[self.at + 1] != "=":
                raise self.fail(
                    "assign-gate",
                    f"`{self.text}` is a gate, which is no assignment",
                    f"write `{self.text} (out, a, b);`",
                )
            target = self.lvalue()
            if self.is_at("<="):
                raise self.fail(
                    "assign-arrow", "`assign` is written with `=`", "`<=` belongs into clocked `always` blocks"
                )
            if self.is_at("=="):
                raise self.fail("compare-for-assign", "`==` compares, it does not assign", "write `=`")
            if self.is_at(":") and self.texts[self.at + 1] == "=":
                raise self.fail(
                    "vhdl-assign", "`:=` is VHDL", "Verilog assigns with `=`", self.start, self.ends[self.at + 1]
                )
            self.expect("=", "between the name and its value")
            value = self.expression()
            items.append(ast.ContinuousAssign(start, self.previous_end, target, value, delays, strengths))
            if not self.accept(","):
                break
        self.semicolon("assign")
        return items

    def _gates(self) -> list[ast.Item]:
        gate = self.text
        self.at += 1
        strengths = self.strengths()
        delays = self.delays_or_none()
        items: list[ast.Item] = []
        while True:
            start = self.start
            name = None
            range_ = None
            if self.kinds[self.at] in "ix":
                name = self.name("the gate's name")
                range_ = self.range() if self.is_at("[") else None
            if not self.is_at("("):
                raise self.fail(
                    "gate-form",
                    f"`(` is missing before {self.describe()}",
                    f"a gate is written `{gate} g1 (out, a, b);`",
                )
            self.at += 1
            terminals = self._list()
            self.expect(")", "the gate's connections")
            items.append(ast.GateInstance(start, self.previous_end, gate, name, terminals, delays, strengths, range_))
            if not self.accept(","):
                break
        self.semicolon("gate")
        return items

    def _instances(self) -> list[ast.Item]:
        start = self.start
        module = self.name("a module name")
        if self.is_at("=", "<=", "["):
            self._behind_process(start)
            raise self.fail(
                "outside-process", f"this assignment to `{module}` stands alone",
                "write `assign` before it, or put it into an `always` block", start, self.ends[self.at],
            )  # fmt: skip
        if self.kinds[self.at] not in "ix" and not self.is_at("#", "("):
            near = did_you_mean(module, KEYWORDS)
            raise self.fail("expected-item", f"`{module}` cannot stand here", near, start, self.previous_end)
        strengths = self.strengths()
        parameters: list[ast.Connection] = []
        if self.accept("#"):
            if self.is_at("("):
                self.at += 1
                parameters = self._connections()
            else:
                value = self.primary()
                parameters = [ast.Connection(value.start, value.end, None, value)]
        items: list[ast.Item] = []
        while True:
            item_start = self.start
            if self.is_at("(") and module in self.primitives:
                self.at += 1
                connections = self._connections()
                items.append(
                    ast.Instance(
                        item_start, self.previous_end, module, "", parameters, connections, None, [], strengths
                    )
                )
                if not self.accept(","):
                    break
                continue
            if self.is_at("("):
                raise self.fail(
                    "instance-name", f"this use of `{module}` needs a name of its own",
                    did_you_mean(module, GATES) or f"write `{module} u1 (...)`", start, self.previous_end,
                )  # fmt: skip
            name = self.name("the instance's name")
            range_ = self.range() if self.is_at("[") else None
            if self.is_at(";", ",", "=") and not parameters and self.system_verilog:
                near = self._meant_type(module) or f"an instance has parentheses: `{module} {name} ();`"
                raise self.fail("no-type", f"there is no type `{module}`", near, start, start + len(module))
            if not self.is_at("("):
                near = did_you_mean(module, KEYWORDS)
                raise self.fail("expected-item", f"`(` is missing before {self.describe()}", near)
            self.at += 1
            connections = self._connections()
            items.append(
                ast.Instance(
                    item_start, self.previous_end, module, name, parameters, connections, range_, [], strengths
                )
            )
            if not self.accept(","):
                break
        self.semicolon("instance")
        return items

    def _meant_type(self, word: str) -> str:
        """What may be meant by a word that is no type: one that is declared further down, another language's, or a near
        one."""
        if self.is_declared_below(word):
            return "its `typedef` stands further down: move that before this"
        return TYPES_ELSEWHERE.get(word) or did_you_mean(word, self.types)

    def is_declared_below(self, word: str, before: str = "}", after: str = ";") -> bool:
        """Whether a word stands between these two further down, as a structure's name does."""
        for at in range(self.at + 1, len(self.kinds) - 1):
            if self.texts[at] == word and self.texts[at - 1] == before and self.texts[at + 1] == after:
                return True
        return False

    def _connections(self) -> list[ast.Connection]:
        """Up to and including the closing parenthesis."""
        found: list[ast.Connection] = []
        if self.accept(")"):
            return found
        while True:
            start = self.start
            if self.accept("."):
                if self.accept("*"):
                    found.append(ast.Connection(start, self.previous_end, None, None, True))
                else:
                    name = self.name("a port name")
                    value: ast.Expr | None = ast.Name(start + 1, self.previous_end, name)
                    implied = not self.is_at("(")
                    if not implied:
                        self.at += 1
                        value = None if self.is_at(")") else self.expression()
                        self.expect(")", "the connection")
                    elif self.is_at("="):
                        raise self.fail("connection-form", "`=` connects nothing here", f"write `.{name}(...)`")
                    found.append(ast.Connection(start, self.previous_end, name, value, False, implied))
            elif self.is_at(",") or self.is_at(")"):
                found.append(ast.Connection(start, start, None, None))
            else:
                value = self.expression()
                found.append(ast.Connection(start, self.previous_end, None, value))
                if self.is_at("=") or (self.is_at("=>") and isinstance(value, ast.Name)):
                    shown = value.name if isinstance(value, ast.Name) else "port"
                    raise self.fail("connection-form", f"`{self.text}` connects nothing here", f"write `.{shown}(...)`")
            if not self.accept(","):
                break
        self.expect(")", "the connections")
        return found

    # Interfaces and time (1800 clauses 3.14.2 and 25.5).

    def _modports(self) -> list[ast.Item]:
        self.at += 1
        items: list[ast.Item] = []
        while True:
            start = self.start
            name = self.name("the name of a modport")
            self.expect("(", "the names of the modport")
            directions: dict[str, str] = {}
            direction = ""
            while not self.accept(")"):
                if self.is_at(*DIRECTIONS):
                    direction = self.port_head().direction
                elif self.is_at("import", "export"):
                    direction = "import"
                    self.at += 1
                if not direction:
                    raise self.fail("modport-direction", "a name of a modport needs its direction", "write `input x`")
                is_header = direction == "import" and self.is_at("function", "task")
                name_of = self._imported_header if is_header else lambda: self.name("a name of the interface")
                directions[name_of()] = direction
                if not self.accept(",") and not self.is_at(")"):
                    raise self.fail("missing-comma", f"`,` is missing before {self.describe()}")
            items.append(ast.Modport(start, self.previous_end, name, directions))
            if not self.accept(","):
                break
        self.semicolon("modport")
        return items

    def _imported_header(self) -> str:
        """`function int f(int a)` in a modport (1800 clause 25.7): what is said here is said in the interface too."""
        is_function = self.text == "function"
        self.at += 1
        if is_function:
            self._result_type()
        name = self.name("the name of a function or task")
        if self.accept("("):
            self._arguments_of_header([])
        return name

    def time_unit(self) -> list[ast.Item]:
        """`timeunit 1ns / 1ps;`, `timeprecision 1ps;`: noted for what is being read."""
        is_unit = self.text == "timeunit"
        self.at += 1
        unit, precision = self.times or (-9, -9)
        first = self._power_of_ten()
        if is_unit:
            unit, precision = first, self._power_of_ten() if self.accept("/") else min(first, precision)
        else:
            precision = first
        self.times = unit, precision
        self.semicolon("declaration")
        return []

    def _power_of_ten(self) -> int:
        value = self.primary()
        if not isinstance(value, ast.TimeLiteral) or value.text not in ("1", "10", "100"):
            raise self.fail("bad-time", "a unit of time is 1, 10 or 100 of `s` to `fs`", "write for instance `1ns`")
        return value.unit + len(value.text) - 1

    # Generate.

    def _generate(self) -> list[ast.Item]:
        self.at += 1
        items: list[ast.Item] = []
        while not self.is_at("endgenerate"):
            if self.kinds[self.at] == "e" or self.is_at("endmodule"):
                raise self.fail(
                    "missing-end", f"`endgenerate` is missing before {self.describe()}", "", self.previous_end
                )
            items += self.item()
        self.at += 1
        return items

    def _generate_block(self) -> ast.GenerateBlock:
        start = self.start
        label = None
        if self.kinds[self.at] == "i" and self.texts[self.at + 1] == ":" and self.is_label():
            label = self.text
            self.at += 2
        if not self.is_at("begin"):
            items = self.item()
            return ast.GenerateBlock(start, self.previous_end, None, items)
        self.at += 1
        name = self.name("the block's name") if self.accept(":") else label
        items = []
        while not self.is_at("end"):
            if self.kinds[self.at] == "e" or self.is_at("endmodule", "endgenerate"):
                raise self.fail("missing-end", f"`end` is missing before {self.describe()}", "", self.previous_end)
            items += self.item()
        self.at += 1
        self.end_label(name)
        return ast.GenerateBlock(start, self.previous_end, name, items)

    def _generate_item(self) -> list[ast.Item]:
        return [self._generate_construct()]

    def _bare_block(self) -> list[ast.Item]:
        return [self._generate_block()]

    def _generate_construct(self) -> ast.Item:
        self.enter()
        start = self.start
        word = self.text
        self.at += 1
        self._need_parenthesis(word)
        item: ast.Item
        if word == "for":
            declares = self.accept("genvar")
            if self.at_word("int", "integer") and self.kinds[self.at + 1] == "i":
                shown = self.texts[self.at + 1]
                text = f"a loop that makes items counts with a `genvar`, not with `{self.text}`"
                raise self.fail("genvar-missing", text, f"write `for (genvar {shown} = ...`")
            init = self.assignment()
            self.expect(";")
            cond = self.expression()
            self.expect(";")
            step = self.assignment()
            self.expect(")")
            item = ast.GenerateFor(start, self.previous_end, init, cond, step, self._generate_block(), declares)
        elif word == "if":
            cond = self.expression()
            self.expect(")")
            then = None if self.accept(";") else self._generate_block()
            other = None
            if self.accept("else"):
                other = None if self.accept(";") else self._generate_block()
            item = ast.GenerateIf(start, self.previous_end, cond, then, other)
        else:
            subject = self.expression()
            self.expect(")")
            arms: list[tuple[list[ast.Expr], ast.GenerateBlock | None]] = []
            default = None
            has_default = False
            while not self.accept("endcase"):
                if self.is_at("default"):
                    self.no_second_default(has_default)
                    has_default = True
                    self.at += 1
                    self.accept(":")
                    default = None if self.accept(";") else self._generate_block()
                    continue
                labels = self._list()
                self.expect(":")
                arms.append((labels, None if self.accept(";") else self._generate_block()))
            item = ast.GenerateCase(start, self.previous_end, subject, arms, default)
        self.leave()
        return item

    def _defparam(self) -> list[ast.Item]:
        self.at += 1
        items: list[ast.Item] = []
        while True:
            start = self.start
            path, indices = [self.name("an instance's name")], list[ast.Expr | None]([None])
            while self.is_at(".", "["):
                if self.accept("."):
                    path.append(self.name("a name after the dot"))
                    indices.append(None)
                    continue
                self.at += 1
                indices[-1] = self.expression()
                self.expect("]", "the bracket opened here")
            self.expect("=")
            items.append(ast.DefParam(start, self.previous_end, path, indices, self.expression()))
            if not self.accept(","):
                break
        self.semicolon("declaration")
        return items


_BY_WORD = {
    "parameter": ItemParser._parameter_item,
    "localparam": ItemParser._parameter_item,
    "assign": ItemParser._assigns,
    "function": ItemParser._one_function,
    "task": ItemParser._one_function,
    "generate": ItemParser._generate,
    "for": ItemParser._generate_item,
    "if": ItemParser._generate_item,
    "case": ItemParser._generate_item,
    "begin": ItemParser._bare_block,
    "defparam": ItemParser._defparam,
    "specify": ItemParser._specify,
    "specparam": ItemParser._specparam,
    "typedef": ItemParser.type_definition,
    "import": ItemParser.imports,
    "export": ItemParser.imports,
    "modport": ItemParser._modports,
    "timeunit": ItemParser.time_unit,
    "timeprecision": ItemParser.time_unit,
}
