"""Parsing of modules and their items (IEEE 1364-2005 clauses 4, 6, 7, 10 and 12, annex A.1 to A.5)."""

from __future__ import annotations

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.suggest import did_you_mean
from obento.core.syntax.stream import SyntaxProblem, Tokens
from obento.core.verilog import ast
from obento.core.verilog.lexer import KEYWORDS
from obento.core.verilog.statements import StatementParser

NET_TYPES = frozenset(["wire", "tri", "wand", "wor", "triand", "trior", "tri0", "tri1", "supply0", "supply1", "uwire", "trireg"])
VARIABLE_TYPES = frozenset(["reg", "integer", "time", "real", "realtime", "event", "genvar", "logic", "bit"])
GATES = frozenset(
    [
        "and",
        "nand",
        "or",
        "nor",
        "xor",
        "xnor",
        "buf",
        "not",
        "bufif0",
        "bufif1",
        "notif0",
        "notif1",
        "pullup",
        "pulldown",
        "cmos",
        "rcmos",
        "nmos",
        "pmos",
        "rnmos",
        "rpmos",
        "tran",
        "rtran",
        "tranif0",
        "tranif1",
        "rtranif0",
        "rtranif1",
    ]
)
_DIRECTIONS = frozenset(["input", "output", "inout"])
_DIRECTION_WORDS = {"input": "in", "output": "out", "inout": "inout"}
_STRENGTHS = frozenset(
    ["supply0", "supply1", "strong0", "strong1", "pull0", "pull1", "weak0", "weak1", "highz0", "highz1", "small", "medium", "large"]
)
_ITEM_STARTS = (
    _DIRECTIONS
    | NET_TYPES
    | VARIABLE_TYPES
    | GATES
    | frozenset(
        [
            "parameter",
            "localparam",
            "assign",
            "always",
            "initial",
            "function",
            "task",
            "generate",
            "endmodule",
            "module",
            "always_comb",
            "always_ff",
        ]
    )
)
_PROCESSES = frozenset(["always", "initial", "always_comb", "always_ff", "always_latch"])


class Parser(StatementParser):
    """One file's tokens to modules."""

    def __init__(self, tokens: Tokens, collector: Collector, limits: Limits, implicit_nets: bool, system_verilog: bool):
        super().__init__(tokens, collector, limits.nesting)
        self._implicit_nets = implicit_nets
        self._system_verilog = system_verilog

    def modules(self) -> list[ast.Module]:
        """All modules of the file. What stands outside of any is reported once."""
        found: list[ast.Module] = []
        told = False
        while self.kinds[self.at] != "e":
            if self.is_at("module", "macromodule"):
                found.append(self._module())
                told = False
            elif self.accept(";"):
                continue
            elif self.is_at("primitive", "config"):
                self.collector.error("not-yet", f"`{self.text}` is not read by this version", self.start, self.ends[self.at])
                closing = "end" + self.text
                while self.kinds[self.at] != "e" and not self.accept(closing):
                    self.at += 1
            else:
                if not told:
                    self._outside()
                told = True
                self.at += 1
        return found

    def _outside(self) -> None:
        text = self.text
        hint = did_you_mean(text, ["module", "endmodule"]) if self.kinds[self.at] == "i" else ""
        if text in ("end", "endmodule"):
            hint = f"one `{text}` too many?"
        self.collector.error("outside-module", f"{self.describe()} stands outside of any module", self.start, self.ends[self.at], hint)

    def _module(self) -> ast.Module:
        start = self.start
        self.at += 1
        module = ast.Module(start, start, "", start, start, implicit_nets=self._implicit_nets)
        module.system_verilog = self._system_verilog
        errors = self.collector.errors
        try:
            module.name_start = self.start
            module.name = self.name("the module's name")
            module.name_end = self.previous_end
            self._header(module)
        except SyntaxProblem:
            self._recover_header()
        while not self.is_at("endmodule"):
            if self.kinds[self.at] == "e" or self.is_at("module"):
                self.collector.error(
                    "missing-endmodule",
                    f"`endmodule` is missing at the end of `{module.name}`",
                    self.previous_end,
                    self.previous_end,
                    "every `module` needs its `endmodule`",
                )
                break
            before = self.at
            try:
                module.items += self._item()
            except SyntaxProblem:
                self._recover_item(before)
        else:
            self.at += 1
            if self.is_at(":") and self.kinds[self.at + 1] in "ix":
                self.at += 2
        module.end = self.previous_end
        module.broken = self.collector.errors > errors
        return module

    def _recover_header(self) -> None:
        while self.kinds[self.at] != "e":
            if self.accept(";"):
                return
            if self.newline_before[self.at] and self.is_at(*_ITEM_STARTS - _DIRECTIONS):
                return
            self.at += 1

    def _recover_item(self, before: int) -> None:
        if self.at == before:
            self.at += 1
        while self.kinds[self.at] != "e":
            if self.accept(";"):
                return
            if self.is_at("end") and self.kinds[self.at] == "k":
                self.at += 1
                continue
            if self.kinds[self.at] == "k" and self.text in _ITEM_STARTS and self.newline_before[self.at]:
                return
            self.at += 1

    # Module header.

    def _header(self, module: ast.Module) -> None:
        if self.accept("#"):
            self.expect("(", "the parameters")
            while not self.is_at(")"):
                self.accept("parameter")
                module.items += self._parameter(False, header=True)
                if not self.accept(","):
                    break
            self.expect(")", "the parameters")
        if self.accept("("):
            if not self.is_at(")"):
                if self.is_at(*_DIRECTIONS):
                    self._ansi_ports(module)
                else:
                    self._plain_ports(module)
            self.expect(")", "the list of ports")
        self.semicolon("module header")

    def _plain_ports(self, module: ast.Module) -> None:
        while True:
            if self.is_at(")"):
                self._extra_comma()
                return
            start = self.start
            name = self.name("a port name")
            if self.is_at("["):
                raise self.fail("port-range", "a range does not belong into this list of names", "write it in the `input` or `output` line")
            module.ports.append(name)
            module.port_spans.append((start, self.previous_end))
            if not self.accept(","):
                if self.kinds[self.at] in "ix":
                    self._missing_comma()
                    continue
                return

    def _extra_comma(self) -> None:
        self.collector.error(
            "extra-comma",
            "there is one `,` too many here",
            self.starts[self.at - 1],
            self.previous_end,
            "no comma after the last port",
        )

    def _missing_comma(self) -> None:
        self.collector.error("missing-comma", "`,` is missing here", self.previous_end, self.previous_end, "ports are parted by commas")

    def _ansi_ports(self, module: ast.Module) -> None:
        declaration: ast.Declaration | None = None
        while True:
            if self.is_at(")"):
                self._extra_comma()
                return
            if self.is_at(*_DIRECTIONS):
                declaration = self._port_head()
                module.items.append(declaration)
            assert declaration is not None
            name_start = self.start
            name = self.name("a port name")
            dims = [self._range()] if self.is_at("[") else []
            if dims:
                self.collector.error(
                    "range-after-name", "the range stands before the name", dims[0].start, dims[0].end,
                    f"write `[msb:lsb] {name}`",
                )  # fmt: skip
            value = self.expression() if self.accept("=") else None
            declaration.names.append(ast.Declarator(name_start, self.previous_end, name, [], value))
            declaration.end = self.previous_end
            module.ports.append(name)
            module.port_spans.append((name_start, self.previous_end))
            if self.accept(","):
                continue
            if self.is_at(";") and self.texts[self.at + 1] in _DIRECTIONS:
                self.collector.error("semicolon-for-comma", "ports are parted by `,` here, not by `;`", self.start, self.ends[self.at])
                self.at += 1
                continue
            if self.is_at(*_DIRECTIONS) or self.kinds[self.at] in "ix":
                self._missing_comma()
                continue
            return

    def _port_head(self) -> ast.Declaration:
        start = self.start
        direction = _DIRECTION_WORDS[self.text]
        self.at += 1
        kind = ""
        if self.is_at(*NET_TYPES) or self.is_at("reg", "logic", "bit", "integer", "time"):
            kind = self.text
            self.at += 1
        elif self.kinds[self.at] == "i" and self.text == "logic":
            raise self._logic_word()
        signed = self._signed()
        range_ = self._range() if self.is_at("[") else None
        return ast.Declaration(start, self.previous_end, kind, direction, signed, range_, [])

    def _logic_word(self) -> Exception:
        return self.fail("system-verilog", "`logic` is SystemVerilog", "write `reg` or `wire`, or name the file .sv if the course allows it")

    def _signed(self) -> bool:
        if self.accept("signed"):
            return True
        self.accept("unsigned")
        return False

    def _range(self) -> ast.Range:
        start = self.start
        self.expect("[")
        left = self.expression()
        if self.is_at("]"):
            raise self.fail("range", "a range has two ends", "write `[msb:lsb]`, for instance `[3:0]`")
        self.expect(":", "between the two ends of a range")
        right = self.expression()
        self.expect("]", "the range")
        return ast.Range(start, self.previous_end, left, right)

    # Items.

    def _item(self) -> list[ast.Item]:
        kind, text, start = self.kinds[self.at], self.texts[self.at], self.start
        if self.accept(";"):
            return []
        if kind == "k":
            if text in _DIRECTIONS:
                declaration = self._port_head()
                return self._declarators(declaration)
            if text in NET_TYPES or text in VARIABLE_TYPES:
                return self._declaration()
            if text in GATES:
                return self._gates()
            if text in ("parameter", "localparam"):
                self.at += 1
                items = self._parameter(text == "localparam")
                self.semicolon("declaration")
                return items
            if text == "assign":
                return self._assigns()
            if text in _PROCESSES:
                self.at += 1
                body = self.statement_or_null()
                return [ast.Process(start, self.previous_end, text, body)]
            if text in ("function", "task"):
                return [self._function()]
            if text == "generate":
                return self._generate()
            if text in ("for", "if", "case"):
                return [self._generate_construct()]
            if text == "begin":
                return [self._generate_block()]
            if text == "defparam":
                return self._defparam()
            if text == "specify":
                while self.kinds[self.at] != "e" and not self.accept("endspecify"):
                    self.at += 1
                return []
            if text == "end":
                raise self.fail("extra-end", "this `end` closes nothing", "one `end` too many, or its `begin` is missing")
            raise self._misplaced(text)
        if kind in "ix":
            return self._instances()
        if kind == "o" and text == "}":
            raise self.fail("brace", "`}` closes nothing here", "Verilog groups statements with `begin` and `end`")
        raise self.fail("expected-item", f"{self.describe()} cannot stand here")

    def _misplaced(self, text: str) -> Exception:
        if text in ("else", "case", "while", "repeat", "forever", "wait", "casez", "casex"):
            return self.fail(
                "outside-process", f"`{text}` stands outside of an `always` or `initial` block",
                "put it into `always @* begin ... end`; also look for an `end` too many before",
            )  # fmt: skip
        return self.fail("expected-item", f"{self.describe()} cannot stand here")

    def declaration_in_block(self) -> list[ast.Item]:
        if self.is_at("parameter", "localparam"):
            local = self.text == "localparam"
            self.at += 1
            items = self._parameter(local)
            self.semicolon("declaration")
            return items
        return self._declaration()

    def _declaration(self) -> list[ast.Item]:
        start = self.start
        kind = self.text
        self.at += 1
        if self.is_at("(") and self.texts[self.at + 1] in _STRENGTHS:
            self._skip_parentheses()
        self.accept("vectored") or self.accept("scalared")
        signed = self._signed() or kind == "integer"
        range_ = self._range() if self.is_at("[") else None
        if self.is_at("#"):
            self.delay()
        return self._declarators(ast.Declaration(start, self.previous_end, kind, "", signed, range_, []))

    def _declarators(self, declaration: ast.Declaration) -> list[ast.Item]:
        while True:
            name_start = self.start
            name = self.name("the name to be declared")
            dims = []
            while self.is_at("["):
                dims.append(self._range())
            value = self.expression() if self.accept("=") else None
            declaration.names.append(ast.Declarator(name_start, self.previous_end, name, dims, value))
            if not self.accept(","):
                break
            if self.is_at(*_DIRECTIONS):
                raise self.fail("semicolon-for-comma", "`;` is missing between these declarations", "", self.previous_end)
        self.semicolon("declaration")
        declaration.end = self.previous_end
        return [declaration]

    def _parameter(self, local: bool, header: bool = False) -> list[ast.Item]:
        typed = self.is_at("integer")
        if typed:
            self.at += 1
        signed = self._signed() or typed
        range_ = self._range() if self.is_at("[") else None
        items: list[ast.Item] = []
        while True:
            start = self.start
            name = self.name("the parameter's name")
            self.expect("=", "the parameter's value")
            value = self.expression()
            items.append(ast.Parameter(start, self.previous_end, local, signed, range_, typed or range_ is not None, name, value))
            if header or not self.is_at(","):
                return items
            self.at += 1

    def _skip_parentheses(self) -> None:
        self.expect("(")
        while self.kinds[self.at] != "e" and not self.accept(")"):
            self.at += 1

    def _strength_and_delay(self) -> bool:
        if self.is_at("(") and self.texts[self.at + 1] in _STRENGTHS:
            self._skip_parentheses()
        if self.is_at("#"):
            self.delay()
            return True
        return False

    def _assigns(self) -> list[ast.Item]:
        self.at += 1
        delayed = self._strength_and_delay()
        items: list[ast.Item] = []
        while True:
            start = self.start
            target = self.lvalue()
            if self.is_at("<="):
                raise self.fail("assign-arrow", "`assign` is written with `=`", "`<=` belongs into clocked `always` blocks")
            if self.is_at("=="):
                raise self.fail("compare-for-assign", "`==` compares, it does not assign", "write `=`")
            self.expect("=", "between the name and its value")
            value = self.expression()
            items.append(ast.ContinuousAssign(start, self.previous_end, target, value, delayed))
            if not self.accept(","):
                break
        self.semicolon("assign")
        return items

    def _gates(self) -> list[ast.Item]:
        gate = self.text
        self.at += 1
        delayed = self._strength_and_delay()
        items: list[ast.Item] = []
        while True:
            start = self.start
            name = None
            range_ = None
            if self.kinds[self.at] in "ix":
                name = self.name("the gate's name")
                range_ = self._range() if self.is_at("[") else None
            if not self.is_at("("):
                raise self.fail("gate-form", f"`(` is missing before {self.describe()}", f"a gate is written `{gate} g1 (out, a, b);`")
            self.at += 1
            terminals = self._list()
            self.expect(")", "the gate's connections")
            items.append(ast.GateInstance(start, self.previous_end, gate, name, terminals, delayed, range_))
            if not self.accept(","):
                break
        self.semicolon("gate")
        return items

    def _instances(self) -> list[ast.Item]:
        start = self.start
        module = self.name("a module name")
        if self.is_at("=", "<=", "["):
            raise self.fail(
                "outside-process", f"this assignment to `{module}` stands alone",
                "write `assign` before it, or put it into an `always` block", start, self.ends[self.at],
            )  # fmt: skip
        if self.kinds[self.at] not in "ix" and not self.is_at("#", "("):
            near = did_you_mean(module, KEYWORDS)
            raise self.fail("expected-item", f"`{module}` cannot stand here", near, start, self.previous_end)
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
            if self.is_at("("):
                raise self.fail(
                    "instance-name", f"this use of `{module}` needs a name of its own",
                    f"write `{module} u1 (...)`; " + (did_you_mean(module, GATES) or ""), start, self.previous_end,
                )  # fmt: skip
            name = self.name("the instance's name")
            range_ = self._range() if self.is_at("[") else None
            if not self.is_at("("):
                near = did_you_mean(module, KEYWORDS)
                raise self.fail("expected-item", f"`(` is missing before {self.describe()}", near)
            self.at += 1
            connections = self._connections()
            items.append(ast.Instance(item_start, self.previous_end, module, name, parameters, connections, range_))
            if not self.accept(","):
                break
        self.semicolon("instance")
        return items

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
                    if self.is_at("("):
                        self.at += 1
                        value = None if self.is_at(")") else self.expression()
                        self.expect(")", "the connection")
                    found.append(ast.Connection(start, self.previous_end, name, value))
            elif self.is_at(",") or self.is_at(")"):
                found.append(ast.Connection(start, start, None, None))
            else:
                value = self.expression()
                found.append(ast.Connection(start, self.previous_end, None, value))
            if not self.accept(","):
                break
        self.expect(")", "the connections")
        return found

    def _function(self) -> ast.Item:
        start = self.start
        task = self.text == "task"
        closing = "endtask" if task else "endfunction"
        self.at += 1
        automatic = self.accept("automatic")
        signed = self._signed()
        integer = self.is_at("integer")
        if integer:
            self.at += 1
        elif self.is_at("reg", "logic"):
            self.at += 1
            signed = signed or self._signed()
        range_ = self._range() if self.is_at("[") else None
        name = self.name("the function's name")
        declarations: list[ast.Item] = []
        if self.accept("("):
            while not self.is_at(")"):
                head = self._port_head()
                declarations.append(head)
                while True:
                    at = self.start
                    head.names.append(ast.Declarator(at, self.ends[self.at], self.name("an argument's name"), [], None))
                    if not self.is_at(",") or self.texts[self.at + 1] in _DIRECTIONS:
                        break
                    self.at += 1
                if not self.accept(","):
                    break
            self.expect(")", "the arguments")
        self.semicolon("function header")
        body: list[ast.Stmt] = []
        while not self.is_at(closing):
            if self.kinds[self.at] == "e" or self.is_at("endmodule"):
                raise self.fail("missing-end", f"`{closing}` is missing before {self.describe()}", "", self.previous_end)
            before = self.at
            try:
                if self.is_at(*_DIRECTIONS):
                    declarations += self._declarators(self._port_head())
                elif self.is_at(*VARIABLE_TYPES) or self.is_at("parameter", "localparam"):
                    declarations += self.declaration_in_block()
                elif not self.accept(";"):
                    body.append(self.statement())
            except SyntaxProblem:
                self.recover(before)
        self.at += 1
        return ast.FunctionItem(start, self.previous_end, name, automatic, signed, range_, integer, declarations, body, task)

    # Generate.

    def _generate(self) -> list[ast.Item]:
        self.at += 1
        items: list[ast.Item] = []
        while not self.is_at("endgenerate"):
            if self.kinds[self.at] == "e" or self.is_at("endmodule"):
                raise self.fail("missing-end", f"`endgenerate` is missing before {self.describe()}", "", self.previous_end)
            items += self._item()
        self.at += 1
        return items

    def _generate_block(self) -> ast.GenerateBlock:
        start = self.start
        if not self.is_at("begin"):
            items = self._item()
            return ast.GenerateBlock(start, self.previous_end, None, items)
        self.at += 1
        name = self.name("the block's name") if self.accept(":") else None
        items = []
        while not self.is_at("end"):
            if self.kinds[self.at] == "e" or self.is_at("endmodule", "endgenerate"):
                raise self.fail("missing-end", f"`end` is missing before {self.describe()}", "", self.previous_end)
            items += self._item()
        self.at += 1
        if self.is_at(":") and self.kinds[self.at + 1] in "ix":
            self.at += 2
        return ast.GenerateBlock(start, self.previous_end, name, items)

    def _generate_construct(self) -> ast.Item:
        self.enter()
        start = self.start
        word = self.text
        self.at += 1
        self._need_parenthesis(word)
        item: ast.Item
        if word == "for":
            self.accept("genvar")
            init = self.assignment()
            self.expect(";")
            cond = self.expression()
            self.expect(";")
            step = self.assignment()
            self.expect(")")
            item = ast.GenerateFor(start, self.previous_end, init, cond, step, self._generate_block())
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
            while not self.accept("endcase"):
                if self.accept("default"):
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
            path = [self.name("an instance's name")]
            while self.accept("."):
                path.append(self.name("a name after the dot"))
            self.expect("=")
            items.append(ast.DefParam(start, self.previous_end, path, self.expression()))
            if not self.accept(","):
                break
        self.semicolon("declaration")
        return items
