"""Parsing of modules with their headers, and of user-defined primitives (IEEE 1364-2005 clauses 8 and 12, annex
A.1)."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterable

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.suggest import did_you_mean, nearest
from obento.core.syntax.stream import SyntaxProblem, Tokens
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import REAL_WORDS, TEXT_WORDS
from obento.core.verilog.syntax.declarations import DIRECTION_WORDS, DIRECTIONS, NET_TYPES, VARIABLE_TYPES
from obento.core.verilog.syntax.items import GATES, PROCESSES, ItemParser
from obento.core.verilog.syntax.preprocessor import Settings

_ITEM_STARTS = (
    DIRECTIONS
    | NET_TYPES
    | VARIABLE_TYPES
    | GATES
    | PROCESSES
    | frozenset(["parameter", "localparam", "assign", "function", "task", "generate", "endmodule", "module"])
    | frozenset(["endpackage", "endinterface", "package", "typedef", "modport", "import"])
)


_SHARED = frozenset(
    """
    function task parameter localparam typedef import enum struct union var const timeunit timeprecision
    """.split()
)
"""Words of what SystemVerilog lets stand outside of modules (1800 clause 3.12.1)."""


class Parser(ItemParser):
    """One file's tokens to modules. `marks` tells from which token on which directives hold; `types` are names of
    types that other files declare for all."""

    def __init__(
        self,
        tokens: Tokens,
        collector: Collector,
        limits: Limits,
        marks: list[tuple[int, Settings]],
        system_verilog: bool,
        types: Iterable[str] = (),
    ) -> None:
        super().__init__(tokens, collector, limits)
        self.types |= set(types)
        self._marks = marks
        self._cut = tokens.cut
        self._has_reals = "r" in tokens.kinds or "t" in tokens.kinds or not REAL_WORDS.isdisjoint(tokens.texts)
        self._has_texts = system_verilog and not TEXT_WORDS.isdisjoint(tokens.texts)
        self._unit_times: tuple[int, int] | None = None
        self._outer_items: list[ast.Item] = []
        self.system_verilog = system_verilog

    def modules(self) -> list[ast.Module | ast.Primitive | ast.Package]:
        """All modules, primitives and packages of the file; last a package `$unit` of what is declared outside of
        them. What stands there and is nothing of these is reported once."""
        found: list[ast.Module | ast.Primitive | ast.Package] = []
        told = False
        begin, errors = self.start, self.collector.errors
        while self.kinds[self.at] != "e":
            if self.is_at("module", "macromodule") or (self.is_at("interface") and self.kind == "k"):
                found.append(self._module())
                told = False
            elif self.is_at("package") and self.kind == "k":
                found.append(self._package())
            elif self.accept(";"):
                continue
            elif self.is_at("primitive"):
                primitive = self._primitive()
                if primitive is not None:
                    found.append(primitive)
            elif self.is_at("config"):
                self.collector.error("not-yet", "`config` is not read by this version", self.start, self.ends[self.at])
                while self.kinds[self.at] != "e" and not self.accept("endconfig"):
                    self.at += 1
            elif self._at_outer_declaration() or (self.system_verilog and self.is_at("bind", "let")):
                self._outer_item()
            else:
                if not told:
                    self._outside()
                told = True
                self.at += 1
        if self._outer_items:
            unit = ast.Package(begin, self.previous_end, "$unit", begin, begin, self._outer_items, self._unit_times)
            unit.reals, unit.texts, unit.broken = self._has_reals, self._has_texts, self.collector.errors > errors
            found.append(unit)
        return found

    def _outside(self) -> None:
        text = self.text
        hint = did_you_mean(text, ["module", "endmodule"]) if self.kinds[self.at] == "i" else ""
        if text in ("end", "endmodule"):
            hint = f"one `{text}` too many?"
        if text == "#" and self.texts[self.at + 1] in ("include", "define", "ifdef", "ifndef"):
            hint = f"write `{self.texts[self.at + 1]} with a back-tick instead of `#`"
        self.collector.error(
            "outside-module", f"{self.describe()} stands outside of any module", self.start, self.ends[self.at], hint
        )

    def _at_outer_declaration(self) -> bool:
        is_word = self.kinds[self.at] == "k" and (self.text in _SHARED | VARIABLE_TYPES | NET_TYPES)
        return self.system_verilog and (is_word or self.at_type_name())

    def _outer_item(self) -> None:
        before = self.at
        self.times = self._unit_times
        try:
            self._outer_items += self.item()
        except SyntaxProblem:
            self._recover_item(before)
        self._unit_times = self.times

    def _package(self) -> ast.Package:
        """A package, up to its end (1800 clause 26.2)."""
        start = self.start
        self.at += 1
        package = ast.Package(start, start, "", start, start, [])
        self.times = self._settings().timescale or self._unit_times
        errors = self.collector.errors
        automatic = self._automatic_by_default()
        try:
            package.name_start = self.start
            package.name = self.name("the package's name")
            package.name_end = self.previous_end
            self.semicolon("header")
        except SyntaxProblem:
            self._recover_header()
        self._items(package.items, "package", "endpackage", package.name)
        self._lifetime = automatic
        package.end, package.timescale, package.reals = self.previous_end, self.times, self._has_reals
        package.texts = self._has_texts
        package.broken = self.collector.errors > errors
        return package

    def _automatic_by_default(self) -> bool:
        """Take `automatic` or `static` behind `module` and its like; what held before."""
        before = self._lifetime
        self._lifetime = self.accept("automatic")
        if not self._lifetime:
            self.accept("static")
        return before

    def _settings(self) -> Settings:
        return self._marks[bisect_right(self._marks, self.at, key=lambda mark: mark[0]) - 1][1]

    def _module(self) -> ast.Module:
        start, word = self.start, self.text
        self.at += 1
        settings = self._settings()
        module = ast.Module(start, start, "", start, start, nettype=settings.nettype)
        module.open_inputs = settings.open_inputs
        module.system_verilog = self.system_verilog
        module.is_interface = word == "interface"
        self.times = settings.timescale or self._unit_times
        errors, lets = self.collector.errors, self.lets
        automatic = self._automatic_by_default()
        try:
            module.name_start = self.start
            module.name = self.name("the module's name")
            module.name_end = self.previous_end
            self._header(module)
        except SyntaxProblem:
            self._recover_header()
        self._items(module.items, word, "endinterface" if module.is_interface else "endmodule", module.name)
        self._lifetime, self.lets = automatic, lets
        module.end, module.timescale = self.previous_end, self.times
        module.reals, module.texts = self._has_reals, self._has_texts
        module.broken = self.collector.errors > errors
        return module

    def _items(self, items: list[ast.Item], word: str, closing: str, name: str) -> None:
        """Everything up to and including the word that closes it."""
        while not self.is_at(closing):
            if self.kinds[self.at] == "e" or (self.is_at("module", "package") and self.kind == "k"):
                if self._cut and self.kinds[self.at] == "e":
                    return
                if word == "module" and self._passes_inner_module():
                    continue
                self.collector.error(
                    f"missing-{closing}",
                    f"`{closing}` is missing at the end of `{name}`",
                    self.previous_end,
                    self.previous_end,
                    f"every `{word}` needs its `{closing}`",
                )
                return
            before = self.at
            try:
                items += self.item()
            except SyntaxProblem:
                self._recover_item(before)
        self.at += 1
        self.end_label(name)

    def _passes_inner_module(self) -> bool:
        """A module inside of a module (1800 clause 23.4), where every `module` has its end: that is told, and passed
        over."""
        words = [text for text, kind in zip(self.texts, self.kinds, strict=True) if kind == "k"]
        if not self.system_verilog or not self.is_at("module") or words.count("module") != words.count("endmodule"):
            return False
        text = "a module inside of a module is not read by this version"
        self.collector.error("not-yet", text, self.start, self.ends[self.at], "write it outside of this one")
        depth, name = 0, self.texts[self.at + 1]
        while self.kinds[self.at] != "e":
            depth += self.is_at("module") - self.is_at("endmodule")
            self.at += 1
            if not depth:
                break
        self.end_label(name)
        return True

    def _recover_header(self) -> None:
        while self.kinds[self.at] != "e":
            if self.accept(";"):
                return
            if self.newline_before[self.at] and self.is_at(*_ITEM_STARTS - DIRECTIONS):
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
        while self.is_at("import") and self.kind == "k":
            module.items += self.imports()
        if self.accept("#"):
            self.expect("(", "the parameters")
            local = False
            while not self.is_at(")"):
                if self.is_at("parameter", "localparam"):
                    local = self.text == "localparam"
                    self.at += 1
                module.items += self.parameters(local, header=True)
                if not self.accept(","):
                    break
            self.expect(")", "the parameters")
        if self.accept("("):
            if not self.is_at(")"):
                self._misspelt_direction()
                if self.is_at(*DIRECTIONS) or self._at_port_without_direction():
                    self._ansi_ports(module)
                else:
                    self._plain_ports(module)
            self.expect(")", "the list of ports")
        self.semicolon("module header")

    def _at_port_without_direction(self) -> bool:
        """Whether a port of a .sv file begins here with its type or its interface instead of a direction."""
        if not self.system_verilog:
            return False
        if self.kinds[self.at] == "k":
            return self.text in VARIABLE_TYPES | NET_TYPES or self.is_at("interface", "var", "struct", "enum", "union")
        return self.at_type_name() or self._at_interface_port()

    def _at_interface_port(self) -> bool:
        """`bus b`, `bus.view b` or `interface b`: a port that is an interface (1800 clause 25.3)."""
        if self.is_at("interface") and self.kind == "k":
            return True
        at = self.at
        if self.kinds[at] != "i" or not self.system_verilog:
            return False
        if self.texts[at + 1] == "." and self.kinds[at + 2] == "i":
            at += 2
        return self.kinds[at + 1] in "ix"

    def _plain_ports(self, module: ast.Module) -> None:
        while True:
            if self.is_at(")"):
                self._extra_comma()
                return
            start = self.start
            if self.accept("."):
                name = self.name("a port name")
                self.expect("(")
                module.port_values[name] = self.expression()
                self.expect(")")
            elif self.is_at("{"):
                value = self.primary()
                name = f"port {len(module.ports) + 1}"  # it has no name outside (12.3.2)
                module.port_values[name] = value
            else:
                name = self.name("a port name")
            if self.is_at("["):
                raise self.fail(
                    "port-range",
                    "a range does not belong into this list of names",
                    "write it in the `input` or `output` line",
                )
            module.ports.append(name)
            module.port_spans.append((start, self.previous_end))
            if not self.accept(","):
                if self.kinds[self.at] in "ix":
                    self._missing_comma()
                    continue
                return

    def _misspelt_direction(self) -> None:
        near = nearest(self.text, DIRECTIONS) if self.kinds[self.at] == "i" else None
        if near is not None and (self.kinds[self.at + 1] in "ik" or self.texts[self.at + 1] == "["):
            self.mend(near)

    def _extra_comma(self) -> None:
        self.collector.error(
            "extra-comma",
            "there is one `,` too many here",
            self.starts[self.at - 1],
            self.previous_end,
            "no comma after the last port",
        )

    def _missing_comma(self) -> None:
        self.collector.error(
            "missing-comma", "`,` is missing here", self.previous_end, self.previous_end, "ports are parted by commas"
        )

    def _ansi_ports(self, module: ast.Module) -> None:
        declaration: ast.Declaration | None = None
        while True:
            if self.is_at(")"):
                self._extra_comma()
                return
            self._misspelt_direction()
            if self.is_at(*DIRECTIONS):
                self._no_type_behind()
                declaration = self._port_declaration(module)
            elif self._at_interface_port() and not self.at_type_name():
                self._interface_port(module)
                declaration = None
            elif self._at_port_without_direction() or declaration is None:
                declaration = self._port_without_direction(module, declaration)
            if declaration is not None:
                self._port_name(module, declaration)
            if self.accept(","):
                continue
            if self.is_at(";") and self.texts[self.at + 1] in DIRECTIONS:
                self.collector.error(
                    "semicolon-for-comma", "ports are parted by `,` here, not by `;`", self.start, self.ends[self.at]
                )
                self.at += 1
                continue
            if self.is_at(*DIRECTIONS) or self.kinds[self.at] in "ix":
                self._missing_comma()
                continue
            return

    def _no_type_behind(self) -> None:
        """An interface, or a type that is declared further down, behind the direction of a port."""
        at = self.at + 1
        if not (self.system_verilog and self.kinds[at] == "i" and self.kinds[at + 1] in "ix"):
            return
        word = self.texts[at]
        if word in self.interfaces():
            text = f"`{word}` is an interface, and a port that is one has no direction"
            raise self.fail("interface-direction", text, f"take `{self.text}` out; a modport gives directions")
        if word not in self.types and self.is_declared_below(word):
            text = f"there is no type `{word}` yet"
            raise self.fail("no-type", text, "its `typedef` stands further down: put it before the module")

    def interfaces(self) -> set[str]:
        """The names of all interfaces of the file."""
        heads = (at for at, text in enumerate(self.texts[:-1]) if text == "interface" and self.kinds[at] == "k")
        return {self.texts[at + 1] for at in heads}

    def _port_declaration(self, module: ast.Module) -> ast.Declaration:
        start = self.start
        if self.texts[self.at + 1] in ("struct", "union", "enum") and self.kinds[self.at + 1] == "k":
            direction = DIRECTION_WORDS[self.text]
            self.at += 1
            hidden = self.hidden_type()
            module.items.append(hidden)
            made = ast.Type(hidden.start, hidden.end, hidden.name)
            declaration = ast.Declaration(start, self.previous_end, hidden.name, direction, made, [])
        else:
            declaration = self.port_head()
        module.items.append(declaration)
        return declaration

    def _port_without_direction(self, module: ast.Module, before: ast.Declaration | None) -> ast.Declaration:
        """A port that goes as the one before it, or both ways where it is the first (1800 clause 23.2.2.3)."""
        start = self.start
        direction = before.direction if before is not None else "inout"
        if self.at_word(*NET_TYPES):
            kind = self.text
            self.at += 1
            made = self.net_type()
        else:
            self.accept("var")
            made = self.data_type()
            kind = made.word
        declaration = ast.Declaration(start, self.previous_end, kind, direction, made, [])
        module.items.append(declaration)
        return declaration

    def _interface_port(self, module: ast.Module) -> None:
        start, interface, modport = self.start, "", ""
        self.at += 1
        if self.texts[self.at - 1] != "interface":
            interface = self.texts[self.at - 1]
        if self.accept("."):
            modport = self.name("the name of a modport")
        name_start = self.start
        name = self.name("a port name")
        dims = self.ranges()
        module.items.append(ast.InterfacePort(start, self.previous_end, interface, modport, name, dims))
        module.ports.append(name)
        module.port_spans.append((name_start, self.previous_end))

    def _port_name(self, module: ast.Module, declaration: ast.Declaration) -> None:
        port = self.declarator("a port name")
        if port.dims and not self.system_verilog:
            self.collector.error(
                "range-after-name", "the range stands before the name", port.dims[0].start, port.dims[0].end,
                f"write `[msb:lsb] {port.name}`",
            )  # fmt: skip
            port.dims = []
        declaration.names.append(port)
        declaration.end = self.previous_end
        module.ports.append(port.name)
        module.port_spans.append((port.start, port.end))

    # User-defined primitives (clause 8).

    def _primitive(self) -> ast.Primitive | None:
        start = self.start
        before = self.at
        try:
            self.at += 1
            return self._primitive_text(start)
        except SyntaxProblem:
            self.at = max(self.at, before + 1)
            while self.kinds[self.at] != "e" and not self.accept("endprimitive"):
                self.at += 1
            return None

    def _primitive_text(self, start: int) -> ast.Primitive:
        name_start = self.start
        name = self.name("the primitive's name")
        ports: list[str] = []
        self.expect("(", "the ports")
        sequential = False
        initial: str | None = None
        direction = ""
        while True:
            while self.is_at("input", "output", "reg"):
                sequential = sequential or self.is_at("reg")
                direction = self.text if self.is_at("input", "output") else direction
                self.at += 1
            self._check_output(direction, not ports)
            ports.append(self.name("a port name"))
            if self.accept("="):
                initial = self._start_symbol()
            if not self.accept(","):
                break
        self.expect(")", "the ports")
        self.semicolon("header")
        while not self.is_at("table"):
            if self.accept("initial"):
                self.lvalue()
                self.expect("=")
                initial = self._start_symbol()
                self.semicolon("statement")
            elif self.is_at("input", "output", "reg"):
                sequential = sequential or self.is_at("reg") or self.texts[self.at + 1] == "reg"
                direction = self.text
                while not self.accept(";"):
                    if self.kinds[self.at] == "e":
                        raise self.fail("missing", "`table` is missing")
                    if self.kinds[self.at] == "i":
                        self._check_output(direction, self.text == ports[0])
                    self.at += 1
            else:
                raise self.fail(
                    "expected-item",
                    f"{self.describe()} cannot stand in a primitive",
                    "ports, then `table ... endtable`",
                )
        self.at += 1
        rows: list[ast.Row] = []
        while not self.accept("endtable"):
            rows.append(self._row(sequential, len(ports) - 1))
        self.expect("endprimitive")
        self.primitives.add(name)
        return ast.Primitive(start, self.previous_end, name, name_start, ports, sequential, initial, rows)

    def _check_output(self, direction: str, is_first: bool) -> None:
        """A primitive has one output, and it is its first port (8.1.1)."""
        if direction == "output" and not is_first:
            self.collector.error(
                "udp-output",
                "a primitive has one output, and that is its first port (8.1.1)",
                self.start,
                self.ends[self.at],
                "make a primitive for each output",
            )

    def _start_symbol(self) -> str:
        """The value that a sequential primitive starts with (8.5)."""
        value = self.expression()
        known = isinstance(value, ast.Number) and (value.one & 1) != (value.zero & 1)
        return ("1" if value.one & 1 else "0") if known else "x"  # type: ignore[attr-defined]

    def _row(self, sequential: bool, inputs: int) -> ast.Row:
        start = self.start
        fields: list[list[str]] = [[]]
        while not self.is_at(";"):
            if self.kinds[self.at] == "e" or self.is_at("endtable", "endprimitive"):
                raise self.fail(
                    "missing-semicolon",
                    "`;` is missing at the end of this row",
                    "",
                    self.previous_end,
                    self.previous_end,
                )
            if self.accept(":"):
                fields.append([])
            elif self.accept("("):
                edge = ""
                while not self.accept(")"):
                    edge += self.text
                    self.at += 1
                    if len(edge) > 2 or self.kinds[self.at] == "e":
                        raise self.fail(
                            "bad-row", "an edge has two values", "write for instance `(01)`", start, self.previous_end
                        )
                fields[-1].append(edge)
            else:
                fields[-1] += list(self.text)
                self.at += 1
        self.at += 1
        if len(fields) != 2 + sequential or len(fields[0]) != inputs or any(len(f) != 1 for f in fields[1:]):
            shape = "inputs : state : next" if sequential else "inputs : output"
            raise self.fail(
                "bad-row",
                f"this row does not fit {inputs} inputs",
                f"a row is written `{shape};`",
                start,
                self.previous_end,
            )
        state = fields[1][0].lower() if sequential else None
        symbols = [s.lower() for s in fields[0]]
        if not _row_fits(symbols, state, fields[-1][0].lower()):
            hint = "inputs are 0 1 x ? b, and one edge r f p n * or (01)"
            raise self.fail("bad-row", "this row has a symbol that cannot stand there", hint, start, self.previous_end)
        return ast.Row(start, self.previous_end, symbols, state, fields[-1][0].lower())


def _row_fits(symbols: list[str], state: str | None, output: str) -> bool:
    """Whether the symbols of a row may stand where they do (tables 8-1 and 8.1.4)."""
    levels = "01x?b"
    edges = [s for s in symbols if s in "rfpn*" or len(s) == 2]
    if state is None:
        return not edges and all(s in levels for s in symbols) and output in "01x"
    known = all(s in levels or s in "rfpn*" or (len(s) == 2 and s[0] in levels and s[1] in levels) for s in symbols)
    return known and len(edges) <= 1 and state in levels and output in "01x-"
