"""Whose hand-in a file or folder is, by its name: numbers and names of the class list, whatever stands around them.

A person is settled only where nothing speaks against it. A number that belongs to one student beside the name of
another, a name that two students have, two people in one name: all these are asked."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache

_KEPT = 8192
_MOST_PROPOSED = 6
_SHORT = 3
"""A number of fewer digits and no letter is as likely that of a lab or an attempt."""


@dataclass(frozen=True, slots=True)
class RosterName:
    id: int
    number: str
    name: str


@dataclass(frozen=True, slots=True)
class Match:
    """`sure` are the students that a name says outright (several: a team that is known), `likely` those whom a person
    has to choose among, and `why` says what is in the way. `is_team` if the likely are all named, together;
    `are_namesakes` if they share the name."""

    sure: tuple[int, ...] = ()
    likely: tuple[int, ...] = ()
    why: str = ""
    is_team: bool = False
    are_namesakes: bool = False


_LETTERS = str.maketrans(
    {"ø": "o", "ł": "l", "đ": "d", "ð": "d", "æ": "ae", "œ": "oe", "þ": "th", "ı": "i", "ħ": "h", "ŋ": "n"}
)
"""Letters that are no letter with a mark, to Unicode."""

_SPELT_OUT = str.maketrans({"ä": "ae", "ö": "oe", "ü": "ue", "ø": "oe", "å": "aa"})
"""How marks are written where a keyboard has none."""


@lru_cache(maxsize=_KEPT)
def plain(text: str) -> str:
    """Small letters without accents."""
    decomposed = unicodedata.normalize("NFKD", text.casefold().translate(_LETTERS))
    return "".join(c for c in decomposed if not unicodedata.combining(c)).casefold()


@lru_cache(maxsize=_KEPT)
def words_of(text: str) -> tuple[str, ...]:
    """Words and numbers of a name; `IlseVarga` is two words. Words of any script."""
    text = unicodedata.normalize("NFC", text)
    apart = "".join(
        f" {c}" if i and c.isupper() and text[i - 1].islower() else c for i, c in enumerate(text) if c not in "'’`ʼ"
    )
    return tuple(re.findall(r"[^\W\d_]+|[0-9]+", plain(apart)))


@dataclass(frozen=True, slots=True)
class _Reading:
    """One way to read a student's name: its words, the family name last."""

    words: tuple[str, ...]

    @property
    def family(self) -> str:
        return self.words[-1]


class ClassNames:
    """The names and numbers of one class, read once; `teams` are those that the class list or a person made, by
    name."""

    def __init__(self, roster: Sequence[RosterName], teams: Iterable[tuple[str, frozenset[int]]] = ()) -> None:
        self._roster = {s.id: s for s in roster}
        self._readings = {s.id: _readings(s.name) for s in roster}
        self._patterns = {s.id: _number_pattern(s.number) for s in roster}
        self._shapes = {_shape(s.number) for s in roster if any(c.isdigit() for c in s.number)}
        self._teams = list(teams)

    def is_of_class_shape(self, number: str) -> bool:
        """Whether a number looks like one of this class: as long, with letters and digits where they have theirs."""
        return _shape(number) in self._shapes

    def match(self, label: str, numbers_are_ours: bool = True) -> Match:
        """Find students in a label such as `s1007_lab1`, `Varga_Ilse` or `brenn-okafor`.

        Parameters
        ----------
        numbers_are_ours
            Whether numbers in labels of this drop are mostly those of the class (`drop_is_numbered`): then one that
            looks like them and is nobody's is asked about, else a number that somebody has may be a coincidence.
        """
        words = words_of(label)
        team = self._team_called(words)
        if team is not None:
            return Match(sure=tuple(sorted(team)))
        numbered = self.numbered(label)
        named = self._named(words)
        if len(numbered) == 1:
            return self._by_number(numbered[0], named, words, label, numbers_are_ours)
        if len(numbered) > 1:
            return self._several(numbered + [i for i in named if i not in numbered], "numbers of several students")
        if len(named) > 1:
            return self._several(named, "")
        if len(named) == 1:
            if numbers_are_ours and self._foreign_numbers(label):
                return Match((), tuple(named), "the number in its name is nobody's in this class")
            return Match(sure=tuple(named))
        return self._by_part(words)

    def numbered(self, label: str) -> list[int]:
        """The students whose numbers stand in a label."""
        text = plain(label)
        return [i for i, pattern in self._patterns.items() if pattern is not None and pattern.search(text)]

    def _named(self, words: tuple[str, ...]) -> list[int]:
        """Students whose whole name stands in the words, but for those whose name is only a part of another's there."""
        there = set(words)
        runs = _runs(words)
        found = {
            i: reading
            for i, readings in self._readings.items()
            for reading in readings
            if len(reading.words) > 1 and (set(reading.words) <= there or not _joined(reading.words).isdisjoint(runs))
        }
        return [
            i for i, r in found.items() if not any(set(r.words) < set(o.words) for o in found.values())
        ]  # fmt: skip

    def _by_number(
        self, student: int, named: list[int], words: tuple[str, ...], label: str, numbers_are_ours: bool
    ) -> Match:
        name = _key(self._roster[student].name)
        others = [i for i in named if i != student and (student not in named or _key(self._roster[i].name) != name)]
        own = {w for r in self._readings[student] for w in r.words}
        if not named and own.isdisjoint(words):
            others = [i for i in self._by_part(words).likely or self._by_part(words).sure if i != student]
        if others and student in named:
            return self._several([student, *others], "")
        if others:
            return Match((), (student, *others)[:_MOST_PROPOSED], self._disagreement(student, others))
        if student in named or not own.isdisjoint(words):
            return Match(sure=(student,))
        number = self._roster[student].number
        digits = sum(c.isalnum() for c in number)
        if digits < _SHORT and plain(label).strip() != plain(number).strip():
            return Match((), (student,), f"{number} may be the number of a lab or an attempt")
        if not numbers_are_ours and any(c.isalpha() for w in words for c in w):
            return Match((), (student,), "most numbers in this drop are not those of the class")
        return Match(sure=(student,))

    def _disagreement(self, student: int, others: list[int]) -> str:
        own, other = self._roster[student], self._roster[others[0]]
        return f"{own.number} is the number of {own.name}, the name is more like {other.name}"

    def _several(self, ids: list[int], why: str) -> Match:
        """More than one student is named: namesakes, or people who may be a team."""
        team = frozenset(ids)
        if any(members == team for _, members in self._teams):
            return Match(sure=tuple(sorted(team)))
        names = {_key(self._roster[i].name) for i in ids}
        if len(names) == 1:
            return Match(
                (),
                tuple(ids)[:_MOST_PROPOSED],
                f"{len(ids)} students are called {self._roster[ids[0]].name}",
                are_namesakes=True,
            )
        is_team = len(names) == len(ids)
        said = why or " and ".join(self._roster[i].name for i in ids[:3])
        return Match((), tuple(ids)[:_MOST_PROPOSED], f"{said}: a team?", is_team)

    def _by_part(self, words: tuple[str, ...]) -> Match:
        """By family names, with given names or initials where they stand; never where two may be meant."""
        family: dict[str, list[int]] = {}
        first: dict[str, list[int]] = {}
        for i, readings in self._readings.items():
            for r in readings:
                family.setdefault(r.family, []).append(i)
                first.setdefault(r.words[0], []).append(i)
        named = [list(dict.fromkeys(family[w])) for w in words if w in family and len(w) > 1]
        by_first = [i for w in words if w in first for i in first[w]]
        if len(named) == 1 and len(fitting := [i for i in named[0] if self._fits(i, words, by_first)]) == 1:
            return Match(sure=(fitting[0],))
        ids = list(dict.fromkeys(i for group in named for i in group))
        if len(named) > 1 and all(len(group) == 1 for group in named) and len(ids) > 1:
            return self._several(ids, "")
        likely = tuple(dict.fromkeys([*ids, *by_first]))[:_MOST_PROPOSED]
        whys = ("no student of the class is named in it", "the name fits only in part")
        return Match((), likely, whys[len(likely)] if len(likely) < 2 else "the name fits several students")

    def _fits(self, student: int, words: tuple[str, ...], by_first: list[int]) -> bool:
        """Whether nothing beside a family name speaks for somebody else: no given name of others, no wrong initial."""
        given = {w for r in self._readings[student] for w in r.words[:-1]}
        if given & set(words):
            return True
        initials = {w for w in words if len(w) == 1 and w.isalpha()}
        if initials and initials.isdisjoint({g[0] for g in given}):
            return False
        return not by_first

    def _foreign_numbers(self, label: str) -> list[str]:
        return [n for n in numbers_in(label) if self.is_of_class_shape(n)]

    def _team_called(self, words: tuple[str, ...]) -> frozenset[int] | None:
        called = [members for name, members in self._teams if name and words_of(name) == words]
        return called[0] if len(called) == 1 else None


def numbers_in(label: str) -> list[str]:
    """Everything in a label that may be somebody's number: digits with the letters that stand at them."""
    return re.findall(r"(?<![^\W_])[^\W\d_]{0,3}[0-9]{3,}[^\W\d_]{0,2}(?![^\W_])", plain(label))


def drop_is_numbered(labels: Iterable[str], names: ClassNames) -> bool:
    """Whether numbers in the names of a drop are mostly those of the class. A platform writes its own into them, which
    may look alike; so this is learned from all of them."""
    known = unknown = 0
    for label in labels:
        numbers = [n for n in numbers_in(label) if names.is_of_class_shape(n)]
        if numbers:
            if names.numbered(label):
                known += 1
            else:
                unknown += 1
    return known >= unknown


def _readings(name: str) -> tuple[_Reading, ...]:
    """A name as it is written, and with its marks spelt out; a name with a comma has the family name first."""
    if "," in name:
        last, _, rest = name.partition(",")
        name = f"{rest} {last}"
    ways = dict.fromkeys((words_of(name), words_of(name.casefold().translate(_SPELT_OUT))))
    return tuple(_Reading(words) for words in ways if words)


@lru_cache(maxsize=_KEPT)
def _joined(words: tuple[str, ...]) -> frozenset[str]:
    """A name written without anything between its words, in either order."""
    return frozenset(("".join(words), "".join((words[-1], *words[:-1]))))


def _runs(words: tuple[str, ...]) -> set[str]:
    """Neighbouring words of a label written as one, up to six of them."""
    return {"".join(words[i:j]) for i in range(len(words)) for j in range(i + 1, min(i + 7, len(words) + 1))}


def _key(name: str) -> frozenset[str]:
    return frozenset(words_of(name))


def _shape(number: str) -> str:
    return re.sub(r"[^\W\d_]", "a", re.sub(r"[0-9]", "9", re.sub(r"[\W_]", "", plain(number))))


@lru_cache(maxsize=_KEPT)
def _number_pattern(number: str) -> re.Pattern[str] | None:
    """What finds a number where it stands as a whole, not as part of a longer one or of a word; None where it has no
    digit."""
    parts = re.findall(r"[^\W_]+", plain(number))
    if not any(c.isdigit() for c in number) or not parts:
        return None
    before = r"(?<![0-9])" if parts[0][0].isdigit() else r"(?<![^\W\d_])"
    after = r"(?![0-9])" if parts[-1][-1].isdigit() else r"(?![^\W\d_])"
    return re.compile(before + r"[\W_]*".join(map(re.escape, parts)) + after)
