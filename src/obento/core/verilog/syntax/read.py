"""Verilog files to syntax trees: the whole front half for one hand-in."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence

from obento.core.diagnostics import Collector
from obento.core.limits import LimitReached, Limits
from obento.core.pause import collector_held
from obento.core.source import SourceFile
from obento.core.suggest import did_you_mean
from obento.core.syntax.stream import SyntaxProblem, Tokens
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.lexer import as_system_verilog, lex
from obento.core.verilog.syntax.not_read import behind
from obento.core.verilog.syntax.parser import Parser
from obento.core.verilog.syntax.preprocessor import Preprocessor, Settings

Unit = ast.Module | ast.Primitive | ast.Package


def read_modules(files: Sequence[SourceFile], collector: Collector, limits: Limits) -> list[Unit]:
    """All modules, primitives and packages of the files, in order. Files that others include are not read by
    themselves."""
    tokens: dict[str, Tokens] = {}
    modules: list[Unit] = []
    binds: list[tuple[str, int, ast.Item]] = []
    with collector_held():
        for file in files:
            try:
                tokens[file.name] = lex(file, collector, limits, file.name.lower().endswith((".sv", ".svh")))
            except LimitReached as limit:
                collector.error("limit", limit.text, limit.position, None, limit.hint)
        included = {
            t.texts[i + 1]
            for t in tokens.values()
            if "`include" in t.texts
            for i, k in enumerate(t.kinds)
            if k == "d" and t.texts[i] == "`include"
        }
        short = {name.rpartition("/")[2]: t for name, t in tokens.items()}

        def find(name: str) -> Tokens | None:
            return tokens.get(name) or short.get(name.rpartition("/")[2])

        types = {name for t in tokens.values() for name in _types_for_all(t)}

        def place(position: int) -> tuple[str, int]:
            file = next(f for f in reversed(files) if f.base <= position)
            return file.name, bisect_right(file.line_starts, position - file.base)

        preprocessor = Preprocessor(collector, limits, find, place)
        for name, own in tokens.items():
            if name in included or name.rpartition("/")[2] in included:
                continue
            try:
                flat = preprocessor.run(own)
                if name.lower().endswith((".sv", ".svh")):
                    modules += _system_verilog_modules(flat, preprocessor.marks, collector, limits, types, binds)
                else:
                    modules += _verilog_modules(flat, preprocessor.marks, collector, limits)
            except LimitReached as limit:
                collector.error("limit", limit.text, limit.position, None, limit.hint)
            except SyntaxProblem:
                continue
    _bind(modules, binds, collector)
    return modules


def _bind(modules: list[Unit], binds: list[tuple[str, int, ast.Item]], collector: Collector) -> None:
    """Put the instances that `bind` names into their modules (1800 clause 23.11)."""
    for target, position, item in binds:
        found = [m for m in modules if isinstance(m, ast.Module) and m.name == target]
        if not found:
            text, near = f"there is no module `{target}`", did_you_mean(target, [m.name for m in modules])
            collector.error("no-module", text, position, position + len(target), near)
        for module in found:
            module.items.append(item)


def _types_for_all(tokens: Tokens) -> set[str]:
    """Names of the types that a file declares in packages and outside of modules: others may use them, and need to
    know that they are types before they know anything else of them."""
    found: set[str] = set()
    inside = 0
    for at in [i for i, text in enumerate(tokens.texts) if text in _MARKS]:
        if tokens.kinds[at] in "sx":
            continue
        if tokens.texts[at] != "typedef":
            inside += -1 if tokens.texts[at] == "endmodule" else 1
        elif inside <= 0:
            found |= _names_of_definition(tokens, at + 1)
    return found


_MARKS = frozenset(["module", "macromodule", "endmodule", "typedef"])


def _names_of_definition(tokens: Tokens, at: int) -> set[str]:
    """The names that a `typedef` gives, from what stands behind its word."""
    found: set[str] = set()
    braces = 0
    while tokens.kinds[at] != "e":
        text, kind = tokens.texts[at], tokens.kinds[at]
        if kind == "o":
            braces += (text == "{") - (text == "}")
            if text == ";" and not braces:
                break
        elif not braces and kind == "i" and tokens.texts[at + 1] in (";", "["):
            found.add(text)
        at += 1
    return found


def _system_verilog_modules(
    flat: Tokens,
    marks: list[tuple[int, Settings]],
    collector: Collector,
    limits: Limits,
    types: set[str],
    binds: list[tuple[str, int, ast.Item]],
) -> list[Unit]:
    """The modules of a .sv file. Where it stumbles over a word that is not read, that is told, and nothing that follows
    from it."""
    messages = Collector()
    parser = Parser(flat, messages, limits, marks, True, types)
    try:
        return parser.modules()
    finally:
        binds += parser.binds
        first = min((d.start for d in messages.items() if d.severity == "error" and d.start), default=0)
        word = behind(flat, first) if first else None
        if word is None:
            collector.take(messages)
        else:
            word.tell(collector)


def _verilog_modules(
    flat: Tokens, marks: list[tuple[int, Settings]], collector: Collector, limits: Limits
) -> list[Unit]:
    """The modules of a .v file. One written in SystemVerilog is parsed as that too, so that only its words are told,
    and what would be wrong with it anyway, not what comes of reading them as Verilog."""
    messages = Collector()
    try:
        modules = Parser(flat, messages, limits, marks, False).modules()
        if messages.has("system-verilog"):
            messages = messages.only("system-verilog")
            modules = Parser(as_system_verilog(flat), messages, limits, marks, True).modules()
    finally:
        collector.take(messages)
    return modules
