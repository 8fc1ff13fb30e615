"""The TOML of a spec: its keys, and where each stands in the text."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from obento.core.diagnostics import Collector
from obento.core.source import SourceFile
from obento.core.suggest import did_you_mean

FORMAT = "spec/1"


RULES = ("languages", "only_gates", "max_gates", "max_levels", "behaviour")


_KEYS: dict[str, tuple[str, ...]] = {
    "": (
        "obento",
        "title",
        "unit",
        "ports",
        "expect",
        "cases",
        "clock",
        "reset",
        "match",
        "rules",
        "marks",
        "students",
        "bench",
    ),
    "ports": ("in", "out", "inner"),
    "expect": ("equations", "table", "model", "steps", "function", "bench", "x"),
    "cases": ("all", "listed", "corners", "random", "groups", "without_reset"),
    "clock": ("port", "edge"),
    "reset": ("port", "active", "kind"),
    "bench": ("top", "pass", "fail", "checks", "right", "wrong"),
    "match": ("names", "aliases"),
    "rules": RULES,
    "marks": ("total", "by", "weights", "rules"),
    "students": ("see", "hidden", "change"),
}


class Reader:
    """Finds places of keys and texts in the file, which the TOML reader does not tell."""

    def __init__(self, file: SourceFile, collector: Collector, edition: int) -> None:
        self.file = file
        self.collector = collector
        self.edition = edition
        self._sections: dict[str, tuple[int, int]] = {"": (0, len(file.text))}
        heads = list(re.finditer(r"^[ \t]*\[([\w.]+)\][ \t]*(?:#.*)?$", file.text, re.MULTILINE))
        if heads:
            self._sections[""] = (0, heads[0].start())
        for i, head in enumerate(heads):
            end = heads[i + 1].start() if i + 1 < len(heads) else len(file.text)
            self._sections[head[1]] = (head.start(), end)

    def key(self, section: str, key: str) -> tuple[int, int]:
        """Positions of a key, or of its section's head, or of the file's beginning."""
        if not section and key in self._sections:  # a section named by its own head
            at = self.file.text.index("[", self._sections[key][0])
            return self.file.base + at, self.file.base + at + len(key) + 2
        start, end = self._sections.get(section, (0, len(self.file.text)))
        m = re.compile(rf"^[ \t]*(?:{re.escape(key)}|\"{re.escape(key)}\")[ \t]*[.=]", re.MULTILINE).search(
            self.file.text, start, end
        )
        if m is None:
            return self.file.base + start, self.file.base + start
        first = m.start() + len(m.group()) - len(m.group().lstrip())
        return self.file.base + first, self.file.base + m.end()

    def text(self, section: str, key: str, value: str) -> int:
        """Position of the first character of a text value."""
        _, after = self.key(section, key)
        at = self.file.text.find(value, after - self.file.base) if value else -1
        return self.file.base + at if at >= 0 else after

    def error(self, section: str, key: str, code: str, text: str, hint: str = "") -> None:
        """Report an error at a key."""
        start, end = self.key(section, key)
        self.collector.error(code, text, start, end, hint)


def check_keys(data: Mapping[str, Any], reader: Reader) -> None:
    """Report keys that mean nothing in a spec."""
    for key, value in data.items():
        if key not in _KEYS[""]:
            reader.error("", key, "unknown-key", f"`{key}` means nothing in a spec", did_you_mean(key, _KEYS[""]))
        elif isinstance(value, dict):
            known = _KEYS.get(key)
            for inner in value if known else ():
                if inner not in (known or ()):
                    reader.error(
                        key,
                        inner,
                        "unknown-key",
                        f"`{inner}` means nothing in [{key}]",
                        did_you_mean(inner, known or ()),
                    )


def section_of(data: Mapping[str, Any], name: str, reader: Reader) -> Mapping[str, Any]:
    """A table of keys, empty when there is none; reported when it is something else."""
    value = data.get(name, {})
    if not isinstance(value, dict):
        reader.error("", name, "bad-value", f"[{name}] must be a table of keys", f"write a line [{name}]")
        return {}
    return value


def string_of(section: Mapping[str, Any], name: str, key: str, reader: Reader) -> str | None:
    """A text of a section, None when there is none; reported when it is something else."""
    value = section.get(key)
    if value is not None and not isinstance(value, str):
        reader.error(name, key, "bad-value", f"`{key}` must be a text")
        return None
    return value


def strings_of(section: Mapping[str, Any], name: str, key: str, reader: Reader) -> tuple[str, ...]:
    """A text or list of texts of a section; reported when it is something else."""
    value = section.get(key, [])
    items = [value] if isinstance(value, str) else value
    if not isinstance(items, list) or not all(isinstance(i, str) for i in items):
        reader.error(name, key, "bad-value", f"`{key}` must be a text or a list of texts")
        return ()
    return tuple(items)
