"""Whose hand-in a file or folder is, by its name: numbers and names of the roster, whatever stands around them."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

_KEPT = 8192
"""Names and numbers whose reading is kept: those of a large class are read once for every hand-in of a drop."""


@dataclass(frozen=True, slots=True)
class RosterName:
    id: int
    number: str
    name: str


@dataclass(frozen=True, slots=True)
class Match:
    """`sure` are the students that the name says outright (several: a team), `likely` are proposals for a person to
    settle."""

    sure: tuple[int, ...]
    likely: tuple[int, ...]


@lru_cache(maxsize=_KEPT)
def plain(text: str) -> str:
    """Small letters without accents."""
    decomposed = unicodedata.normalize("NFKD", text.casefold())
    return "".join(c for c in decomposed if not unicodedata.combining(c))


@lru_cache(maxsize=_KEPT)
def words_of(text: str) -> tuple[str, ...]:
    """Words and numbers of a name; `IlseVarga` is two words."""
    text = re.sub(r"(?<=[a-z])(?=[A-Z])", " ", text)
    return tuple(re.findall(r"[a-z]+|[0-9]+", plain(text)))


def match_students(label: str, roster: Sequence[RosterName]) -> Match:
    """Find students in a label such as `s1007_lab1`, `Varga_Ilse` or `brenn-okafor`."""
    words = words_of(label)
    label = plain(label)
    joined = " " + " ".join(words) + " "
    family: dict[str, list[RosterName]] = {}
    first: dict[str, list[RosterName]] = {}
    by_number: list[int] = []
    by_full_name: list[int] = []
    for student in roster:
        parts = words_of(student.name)
        pattern = _number_pattern(student.number)
        if pattern is not None and pattern.search(label):
            by_number.append(student.id)
        if len(parts) > 1 and all(f" {p} " in joined for p in parts):
            by_full_name.append(student.id)
        if parts:
            family.setdefault(parts[-1], []).append(student)
            first.setdefault(parts[0], []).append(student)
    sure = tuple(dict.fromkeys(by_number + by_full_name))
    if sure:
        return Match(sure, ())
    named = [family[w] for w in words if w in family]
    if named and all(len(group) == 1 for group in named):
        ids = tuple(dict.fromkeys(group[0].id for group in named))
        return Match(ids, ()) if len(ids) > 1 or len(named) == 1 else Match((), ids)
    likely = [s.id for group in named for s in group] + [s.id for w in words if w in first for s in first[w]]
    return Match((), tuple(dict.fromkeys(likely))[:6])


@lru_cache(maxsize=_KEPT)
def _number_pattern(number: str) -> re.Pattern[str] | None:
    """What finds a number where it stands as a whole, not as part of a longer one or of a word; None where it has no
    digit."""
    parts = re.findall(r"[a-z0-9]+", plain(number))
    if not any(c.isdigit() for c in number) or not parts:
        return None
    before = r"(?<![0-9])" if parts[0][0].isdigit() else r"(?<![a-z])"
    after = r"(?![0-9])" if parts[-1][-1].isdigit() else r"(?![a-z])"
    return re.compile(before + "[^a-z0-9]*".join(parts) + after)
