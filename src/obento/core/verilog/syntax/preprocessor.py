"""Compiler directives (IEEE 1364-2005 clause 19), carried out on tokens.

Tokens that come out of a macro keep the position where the macro was used, so that messages point into the student's
own text."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass, field, replace

from obento.core.diagnostics import Collector
from obento.core.limits import LimitReached, Limits
from obento.core.suggest import did_you_mean
from obento.core.syntax.stream import Tokens
from obento.core.verilog.syntax.lexer import KEYWORDS, SYSTEM_VERILOG_KEYWORDS

_LINE_DIRECTIVES = {"line", "pragma"}
_BARE_DIRECTIVES = {"celldefine", "endcelldefine"}
_IS_NAME = re.compile(r"[A-Za-z_][A-Za-z0-9_$]*")
_UNITS = {"s": 0, "ms": -3, "us": -6, "ns": -9, "ps": -12, "fs": -15}


@dataclass(frozen=True, slots=True)
class Settings:
    """What directives say about the modules that follow (19.2, 19.8): the kind of implicit nets, `none` for no such
    nets; time unit and precision as powers of ten of a second, None while nothing was said; the digit that inputs have
    to which nothing is connected (22.9)."""

    nettype: str = "wire"
    timescale: tuple[int, int] | None = None
    open_inputs: str = ""


@dataclass(slots=True)
class _Macro:
    params: list[str] | None
    body: list[int]
    source: Tokens
    defaults: dict[str, list[int]] = field(default_factory=dict)


class Preprocessor:
    """One for all files of a hand-in: a `define` is seen by the files that come after it."""

    def __init__(
        self,
        collector: Collector,
        limits: Limits,
        find: Callable[[str], Tokens | None],
        place: Callable[[int], tuple[str, int]] = lambda position: ("", 0),
    ) -> None:
        self._place = place
        self._collector = collector
        self._limits = limits
        self._find = find
        self._macros: dict[str, _Macro] = {}
        self._including: list[str] = []
        self._uses_inside = 0
        self._settings = Settings()
        self._years: list[str] = []
        self.marks: list[tuple[int, Settings]] = []

    def run(self, tokens: Tokens) -> Tokens:
        """The tokens with all directives carried out. `marks` then tells from which token on which settings hold."""
        self.marks = [(0, self._settings)]
        if "d" not in tokens.kinds:
            return tokens
        out = Tokens(cut=tokens.cut)
        self._copy(tokens, out)
        out.append("e", "", tokens.starts[-1], tokens.ends[-1], True)
        return out

    def _copy(self, t: Tokens, out: Tokens) -> None:
        at, size = 0, t.kinds.index("e")
        for _ in range(3):  # a directive may be the last word of a file: there is always something to look at behind it
            t.append("e", "", t.starts[-1], t.ends[-1], True)
        conditions: list[tuple[bool, bool, int]] = []  # (this branch is read, some branch was read, where)
        while at < size:
            reading = all(c[0] for c in conditions)
            if t.kinds[at] != "d":
                if reading:
                    kind = t.kinds[at]
                    if kind == "k" and self._years and self._is_name_then(t.texts[at]):
                        kind = "i"
                    out.append(kind, t.texts[at], t.starts[at], t.ends[at], t.newline_before[at])
                at += 1
                continue
            name = t.texts[at][1:]
            here = t.starts[at]
            if name in ("ifdef", "ifndef", "elsif"):
                known = t.texts[at + 1] in self._macros
                holds = known if name != "ifndef" else not known
                if name != "elsif":
                    conditions.append((holds, holds, here))
                elif conditions:
                    _, before, where = conditions[-1]
                    conditions[-1] = (holds and not before, before or holds, where)
                at += 2
            elif name == "else":
                if conditions:
                    _, before, where = conditions[-1]
                    conditions[-1] = (not before, True, where)
                at += 1
            elif name == "endif":
                if conditions:
                    conditions.pop()
                else:
                    self._collector.error("stray-endif", "this `endif closes nothing", here, t.ends[at])
                at += 1
            elif not reading:
                at += 1
            else:
                at = self._directive(name, t, at, out)
        for _, _, where in conditions:
            self._collector.error("open-ifdef", "this condition is never closed", where, where, "add `endif")

    def _directive(self, name: str, t: Tokens, at: int, out: Tokens) -> int:
        if name == "define":
            return self._define(t, at)
        if name == "undef":
            self._macros.pop(t.texts[at + 1], None)
            return at + 2
        if name == "undefineall":
            self._macros.clear()
            return at + 1
        if name == "begin_keywords":
            self._years.append(t.texts[at + 1])
            return at + 2
        if name == "end_keywords":
            del self._years[-1:]
            return at + 1
        if name in ("unconnected_drive", "nounconnected_drive"):
            pull = t.texts[at + 1] if name == "unconnected_drive" else ""
            self._set(replace(self._settings, open_inputs=pull[-1:]), out)
            return at + (2 if pull else 1)
        if name == "include":
            return self._include(t, at, out)
        if name == "default_nettype":
            self._set(replace(self._settings, nettype=t.texts[at + 1]), out)
            return at + 2
        if name == "timescale":
            return self._timescale(t, at, out)
        if name == "resetall":
            self._set(Settings(), out)
            return at + 1
        if name in _LINE_DIRECTIVES:
            return self._line_end(t, at + 1)
        if name in _BARE_DIRECTIVES:
            return at + 1
        if name in ("__FILE__", "__LINE__"):
            file, line = self._place(t.starts[at])
            kind, text = ("s", file) if name == "__FILE__" else ("n", str(line))
            out.append(kind, text, t.starts[at], t.ends[at], t.newline_before[at])
            return at + 1
        return self._use(name, t, at, out)

    def _is_name_then(self, word: str) -> bool:
        """Whether a word was no keyword in the year that `begin_keywords` names (22.14)."""
        return self._years[-1].startswith("1364") and word in SYSTEM_VERILOG_KEYWORDS

    def _set(self, settings: Settings, out: Tokens) -> None:
        self._settings = settings
        self.marks.append((len(out.kinds), settings))

    def _timescale(self, t: Tokens, at: int, out: Tokens) -> int:
        end = self._line_end(t, at + 1)
        m = re.fullmatch(r"(10{0,2})(s|ms|us|ns|ps|fs)/(10{0,2})(s|ms|us|ns|ps|fs)", "".join(t.texts[at + 1 : end]))
        if m is None:
            self._collector.error(
                "bad-timescale",
                "this time scale cannot be read",
                t.starts[at],
                t.ends[end - 1],
                "write `timescale 1ns/1ps",
            )
            return end
        unit, precision = len(m[1]) - 1 + _UNITS[m[2]], len(m[3]) - 1 + _UNITS[m[4]]
        if precision > unit:
            self._collector.error(
                "bad-timescale",
                "the precision is coarser than the unit",
                t.starts[at],
                t.ends[end - 1],
                "the unit comes first",
            )
            return end
        self._set(replace(self._settings, timescale=(unit, precision)), out)
        return end

    def _line_end(self, t: Tokens, at: int) -> int:
        while t.kinds[at] != "e" and not t.newline_before[at]:
            at += 1
        return at

    def _define(self, t: Tokens, at: int) -> int:
        name = t.texts[at + 1]
        end = at + 2
        params: list[str] | None = None
        defaults: dict[str, list[int]] = {}
        if t.texts[end] == "(" and t.starts[end] == t.ends[at + 1] and not t.newline_before[end]:
            end, parts = self._arguments(t, end)
            params = [t.texts[part[0]] for part in parts if part]
            defaults = {t.texts[p[0]]: p[2:] for p in parts if len(p) > 1 and t.texts[p[1]] == "="}
        body: list[int] = []
        while t.kinds[end] != "e" and not t.newline_before[end]:
            body.append(end)
            end += 1
        self._macros[name] = _Macro(params, body, t, defaults)
        return end

    def _include(self, t: Tokens, at: int, out: Tokens) -> int:
        name = t.texts[at + 1]
        found = self._find(name) if t.kinds[at + 1] == "s" else None
        if name in self._including:
            self._collector.error("include-loop", f"`{name}` includes itself", t.starts[at], t.ends[at + 1])
        elif found is None:
            self._collector.error(
                "no-include",
                f"`{name}` is not among the handed-in files",
                t.starts[at],
                t.ends[at + 1],
                "hand it in too",
            )
        else:
            self._including.append(name)
            self._copy(found, out)
            self._including.pop()
        return at + 2

    def _use(self, name: str, t: Tokens, at: int, out: Tokens, depth: int = 0) -> int:
        macro = self._macros.get(name)
        if macro is None:
            self._collector.error(
                "no-macro", f"`{name} is not defined", t.starts[at], t.ends[at], did_you_mean(name, self._macros)
            )
            return at + 1
        if depth > self._limits.call_depth:
            raise LimitReached(f"the macro `{name} uses itself", t.starts[at])
        self._uses_inside += depth > 0
        if self._uses_inside > self._limits.macro_uses:
            raise LimitReached(f"the macro `{name} grows without end", t.starts[at])
        end = at + 1
        arguments: dict[str, tuple[Tokens, list[int]]] = {}
        if macro.params is not None:
            end, values = self._arguments(t, at + 1)
            given = values[: len(macro.params)] if len(values) > 1 or values != [[]] else []
            values += [[]] * (len(macro.params) - len(values))
            missing = [p for p in macro.params[len(given) :] if p not in macro.defaults]
            if missing or (len(values) > len(macro.params) and values != [[]]):
                self._collector.error(
                    "macro-arguments",
                    f"`{name} takes {len(macro.params)} arguments, here are {len(given)}",
                    t.starts[at],
                    t.ends[at],
                )
            for p, v in zip(macro.params, values, strict=False):
                arguments[p] = (t, v) if v or p not in macro.defaults else (macro.source, macro.defaults[p])
        place = (t.starts[at], t.ends[at])
        expanded = Tokens()
        for index in macro.body:
            word = macro.source.texts[index]
            if macro.source.kinds[index] == "i" and word in arguments:
                source, indices = arguments[word]
            else:
                source, indices = macro.source, [index]
            for n, i in enumerate(indices):
                where, j = (source, i) if n else (macro.source, index)
                expanded.append(source.kinds[i], source.texts[i], *place, where.ends[j - 1] < where.starts[j])
        if "``" in expanded.texts or '`"' in expanded.texts:
            expanded = self._joined(expanded, place)
        last = len(expanded.kinds)
        for _ in range(3):
            expanded.append("e", "", *place, False)
        i = 0
        while i < last:
            if expanded.kinds[i] == "d":
                i = self._use(expanded.texts[i][1:], expanded, i, out, depth + 1)
            else:
                out.append(expanded.kinds[i], expanded.texts[i], *place, False)
                i += 1
            if len(out.kinds) > self._limits.tokens:
                raise LimitReached(f"the macro `{name} grows without end", place[0])
        return end

    @staticmethod
    def _joined(t: Tokens, place: tuple[int, int]) -> Tokens:
        """What a macro makes, with the words on both sides of `` joined to one, and what stands between `" made a
        string (1800 clause 22.5.1). Here `newline_before` says that there is a gap before a word."""
        made = Tokens()
        inside: list[str] | None = None
        joins = False
        for kind, text, gap in zip(t.kinds, t.texts, t.newline_before, strict=True):
            if text == "``":
                joins = True
            elif text == '`"' and inside is None:
                inside = []
            elif text == '`"' and inside is not None:
                made.append("s", "".join(inside), *place, False)
                inside = None
            elif inside is not None:
                inside.append(text if joins or not gap or not inside else f" {text}")
                joins = False
            elif joins and made.texts:
                made.texts[-1] += text
                if _IS_NAME.fullmatch(made.texts[-1]):
                    made.kinds[-1] = "k" if made.texts[-1] in KEYWORDS else "i"
                joins = False
            else:
                made.append(kind, text, *place, gap)
        return made

    def _arguments(self, t: Tokens, at: int) -> tuple[int, list[list[int]]]:
        if t.texts[at] != "(":
            self._collector.error(
                "macro-arguments", "this macro needs arguments in parentheses", t.starts[at], t.ends[at]
            )
            return at, []
        values: list[list[int]] = [[]]
        depth = 1
        at += 1
        while t.kinds[at] != "e":
            word = t.texts[at] if t.kinds[at] == "o" else ""
            if word in ("(", "[", "{"):
                depth += 1
            elif word in (")", "]", "}"):
                depth -= 1
                if depth == 0:
                    return at + 1, values
            if word == "," and depth == 1:
                values.append([])
            else:
                values[-1].append(at)
            at += 1
        return at, values
