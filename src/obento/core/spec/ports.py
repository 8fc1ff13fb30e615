"""Ports of a spec, its clock and its reset."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from typing import Any, Literal

from obento.core.spec.model import (
    Clock,
    Reset,
    SpecPort,
)
from obento.core.spec.toml_reader import Reader, section_of

_RADIXES: dict[str, Literal["bin", "dec", "hex"]] = {"bin": "bin", "dec": "dec", "hex": "hex"}


_PORT = re.compile(r"(?P<name>[A-Za-z_]\w*)(?:\[(?P<a>\d+)(?:\.\.(?P<b>\d+))?\])?(?P<s>s)?(?::(?P<radix>\w+))?$")


def read_ports(data: Mapping[str, Any], side: str, reader: Reader) -> tuple[SpecPort, ...]:
    """The ports of one side of [ports]; what cannot be read is reported and left out."""
    text = data.get("ports", {}).get(side) if isinstance(data.get("ports"), dict) else None
    if side == "in" and "clock" in data and (text is None or text == ""):
        return ()
    if not isinstance(text, str) or not text.strip():
        what = "states" if side == "inner" else f"{side}puts"
        reader.error(
            "ports", side, "ports", f"`{side}` in [ports] must list the {what}", 'for instance in = "a b depth[4]"'
        )
        return ()
    base = reader.text("ports", side, text)
    ports: list[SpecPort] = []
    for m in re.finditer(r"[^\s,]+", text):
        start, end = base + m.start(), base + m.end()
        found = _PORT.match(m.group())
        if found is None:
            reader.collector.error(
                "port",
                f"`{m.group()}` cannot be read as a port",
                start,
                end,
                "name, name[4], name[0..3], name[8]s, name[8]:dec",
            )
            continue
        left, right = 0, 0
        if found["a"] is not None:
            left, right = (int(found["a"]), int(found["b"])) if found["b"] else (int(found["a"]) - 1, 0)
        width = abs(left - right) + 1
        radix = _RADIXES.get(found["radix"] or "bin")
        if left < 0 or width > 4096:
            reader.collector.error("port", f"`{m.group()}` cannot have {max(width, 0)} bits", start, end)
        elif radix is None:
            reader.collector.error("port", f"`{found['radix']}` is no radix", start, end, "bin, dec or hex")
        else:
            direction: Literal["in", "out"] = "in" if side == "in" else "out"
            ports.append(SpecPort(found["name"], direction, width, left, right, bool(found["s"]), radix))
    return tuple(ports)


def check_ports(inputs: tuple[SpecPort, ...], outputs: tuple[SpecPort, ...], reader: Reader) -> None:
    """Every port has a name of its own."""
    seen: set[str] = set()
    for port in (*inputs, *outputs):
        if port.name in seen:
            reader.error("ports", port.direction, "duplicate", f"port `{port.name}` is listed twice")
        seen.add(port.name)


def check_names(
    unit: str,
    ports: Sequence[SpecPort],
    data: Mapping[str, Any],
    reader: Reader,
    reserved: Mapping[str, frozenset[str]],
) -> None:
    """Names that a language reserves: nobody could hand in a unit or port that is called so."""
    rules = data.get("rules")
    allowed = rules.get("languages") if isinstance(rules, dict) else None
    languages = [name for name in reserved if not isinstance(allowed, list) or name in allowed]
    for section, key, name in (("", "unit", unit), *(("ports", p.direction, p.name) for p in ports)):
        kept = [n for n in languages if name in reserved[n] or (n == "vhdl" and name.lower() in reserved[n])]
        if kept:
            start, end = reader.key(section, key)
            text = f"`{name}` is a word of {_listed_words(kept)}: nothing can have this name there"
            reader.collector.warning(
                "reserved-name",
                text,
                start,
                end,
                "choose another name, or leave that language out of `languages` in [rules]",
            )


def _listed_words(languages: Sequence[str]) -> str:
    shown = [
        {"verilog": "Verilog", "systemverilog": "SystemVerilog", "vhdl": "VHDL", "wiring": "wiring lists"}[n]
        for n in languages
    ]
    return " and ".join(filter(None, [", ".join(shown[:-1]), shown[-1]]))


def read_clock(data: Mapping[str, Any], reader: Reader) -> Clock | None:
    """[clock], if there is one and it is right."""
    if "clock" not in data:
        return None
    section = section_of(data, "clock", reader)
    port, edge = section.get("port"), section.get("edge", "rise")
    if not isinstance(port, str) or not port.isidentifier():
        reader.error("clock", "port", "bad-value", "`port` in [clock] names the clock input", 'port = "clk"')
        return None
    if edge not in ("rise", "fall"):
        reader.error("clock", "edge", "bad-value", "`edge` is rise or fall: the one on which the design acts")
        return None
    return Clock(port, edge)


def read_reset(data: Mapping[str, Any], reader: Reader) -> Reset | None:
    """[reset], if there is one and it is right."""
    if "reset" not in data:
        return None
    section = section_of(data, "reset", reader)
    port, active, kind = section.get("port"), section.get("active", 1), section.get("kind", "async")
    if not isinstance(port, str) or not port.isidentifier():
        reader.error("reset", "port", "bad-value", "`port` in [reset] names the reset input", 'port = "clr_n"')
        return None
    if active not in (0, 1) or isinstance(active, bool):
        reader.error("reset", "active", "bad-value", "`active` is 0 or 1: the level that resets")
        return None
    if kind not in ("async", "sync"):
        reader.error("reset", "kind", "bad-value", "`kind` is async (at once) or sync (at the edge)")
        return None
    return Reset(port, active, kind)


def with_timing(
    inputs: tuple[SpecPort, ...], clock: Clock | None, reset: Reset | None, reader: Reader
) -> tuple[SpecPort, ...]:
    """The inputs, with clock and reset before them where [ports] leaves them out."""
    for section, timing in (("reset", reset), ("clock", clock)):
        if timing is None:
            continue
        known = next((p for p in inputs if p.name == timing.port), None)
        if known is None:
            inputs = (SpecPort(timing.port, "in", 1, 0, 0, False, "bin"), *inputs)
        elif known.width != 1:
            reader.error(section, "port", "port", f"`{timing.port}` must have one bit")
    return inputs
