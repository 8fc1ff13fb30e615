"""Sentences that know how they were made, so that they can be said in another language as well.

A sentence is a `str` in English. It keeps the key of its template and the values that were put in, which may be
sentences themselves. The templates of a language stand in one file beside this one. In a template

- `{name}` is a value,
- `{name|one|many}` is one word or the other, by a number,
- `{name*}` is a number of times,
- `{name;}` is one after the other, parted by semicolons,
- `{name&}` and `{name/}` are lists as people write them, with "and" or "or" before the last,
- `{name+}` and `{name~}` are parts of a condition, each joined to the next by "and" or "or".

What no value is given for stays as it stands: drafts of comments keep their placeholders."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Mapping, Sequence
from functools import cache
from pathlib import Path
from typing import Any

ENGLISH = "en"
_HERE = Path(__file__).parent
_PLACE = re.compile(r"\{(\w+)([*;&/+~]|\|([^|{}]*)\|([^|{}]*))?\}")


@cache
def languages() -> tuple[str, ...]:
    """The languages that there is a file for, English first."""
    names = sorted(p.stem for p in _HERE.glob("*.toml"))
    return (ENGLISH, *(n for n in names if n != ENGLISH))


@cache
def templates(language: str) -> Mapping[str, str]:
    """The templates of a language by their key.

    Raises
    ------
    KeyError
        If there is no such language.
    """
    if language not in languages():
        raise KeyError(language)
    data = tomllib.loads((_HERE / f"{language}.toml").read_text("utf-8"))
    return {key: text for table in data.values() if isinstance(table, dict) for key, text in table.items()}


@cache
def table(name: str, language: str) -> Mapping[str, str]:
    """One table of a language's templates: what a page or a mail is put together of."""
    data = tomllib.loads((_HERE / f"{language}.toml").read_text("utf-8"))
    return dict(data[name])


def places(template: str) -> set[str]:
    """The names of the values that a template takes."""
    return {m[1] for m in _PLACE.finditer(template)}


class Said(str):
    """A sentence, or a part of one: its text is English."""

    key: str
    values: Mapping[str, Any]

    def __new__(cls, key: str, values: Mapping[str, Any]) -> Said:
        said = super().__new__(cls, _rendered(key, values, ENGLISH))
        said.key, said.values = key, values
        return said

    def __reduce__(self) -> tuple[type[Said], tuple[str, Mapping[str, Any]]]:
        return Said, (self.key, self.values)

    def as_data(self) -> list[Any]:
        """As data that JSON holds."""
        return [self.key, {name: _as_data(value) for name, value in self.values.items()}]


def say(key: str, **values: str | int | Sequence[str]) -> Said:
    """A sentence by its template."""
    return Said(key, values)


def every(parts: Sequence[str]) -> str:
    """Parts of a condition that all have to hold."""
    return parts[0] if len(parts) == 1 else say("every", parts=list(parts))


def any_of(parts: Sequence[str]) -> str:
    """Parts of a condition one of which has to hold."""
    return parts[0] if len(parts) == 1 else say("any", parts=list(parts))


def one_after_another(sentences: Sequence[str]) -> str:
    """Sentences parted by semicolons."""
    return sentences[0] if len(sentences) == 1 else say("one-after-another", sentences=list(sentences))


def in_language(text: str, language: str) -> str:
    """A sentence in another language; what is no sentence of ours, and what has no template there, as it stands."""
    if not isinstance(text, Said) or language == ENGLISH or text.key not in templates(language):
        return text
    return _rendered(text.key, text.values, language)


def as_data(text: str) -> list[Any] | None:
    """How a sentence was made, as data; None of any other text."""
    return text.as_data() if isinstance(text, Said) else None


def from_data(text: str, data: object) -> str:
    """A sentence as it was kept. One whose template has changed since, or is gone, stays the text that it was."""
    try:
        said = _from_data({"said": data}) if data is not None else text
    except (KeyError, TypeError, ValueError, AttributeError):
        return text
    return said if said == text else text


def _as_data(value: Any) -> Any:
    if isinstance(value, Said):
        return {"said": value.as_data()}
    if isinstance(value, list | tuple):
        return [_as_data(v) for v in value]
    return value


def _from_data(value: Any) -> Any:
    if isinstance(value, dict):
        key, values = value["said"]
        return Said(key, {name: _from_data(v) for name, v in values.items()})
    return [_from_data(v) for v in value] if isinstance(value, list) else value


def _rendered(key: str, values: Mapping[str, Any], language: str) -> str:
    known = templates(language)

    def word(value: Any) -> str:
        return in_language(value, language) if isinstance(value, str) else str(value)

    def put(m: re.Match[str]) -> str:
        if m[1] not in values:
            return m[0]
        value, how = values[m[1]], m[2] or ""
        if how.startswith("|"):
            return m[3] if value == 1 else m[4]
        if how == "*":
            return known.get(f"times-{value}") or known["times-many"].replace("{n}", str(value))
        if how == ";":
            return "; ".join(word(v) for v in value)
        if how:
            return _listed([word(v) for v in value], known["and" if how in "&+" else "or"], how in "+~")
        return word(value)

    return _PLACE.sub(put, known[key])


def _listed(words: Sequence[str], joint: str, between_all: bool) -> str:
    """`a`, `a and b`, `a, b and c`; with the joint between all of them if so."""
    if between_all or len(words) < 2:
        return f" {joint} ".join(words)
    return f" {joint} ".join([", ".join(words[:-1]), words[-1]])
