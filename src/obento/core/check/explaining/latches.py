"""Where a combinational process leaves a variable out: the branching to point to when it is found to remember."""

from __future__ import annotations

from dataclasses import dataclass

from obento.core.ir.nodes import Assign, Block, Case, CaseArm, Const, If, Loop, Repeat, Stmt, Target
from obento.core.ir.signal import Signal
from obento.core.sentences.said import say

_MOST_SUBJECT_BITS = 12


@dataclass(frozen=True, slots=True)
class Latch:
    """`why` says where nothing is assigned; `position` is the branching that leaves it out."""

    signal: Signal
    why: str
    position: int


Masks = dict[int, int]
"""Signal number -> digits certainly written."""


def find_latches(body: Stmt) -> list[Latch]:
    """All of one process, in order of place."""
    search = _Search()
    sure = search.statement(body)
    found = []
    for number, signal in search.written.items():
        if (
            search.maybe.get(number, 0) & ~sure.get(number, 0)
            and number in search.left_out
            and number not in search.computed
        ):
            why, position = search.left_out[number]
            found.append(Latch(signal, why, position))
    return sorted(found, key=lambda latch: latch.position)


class _Search:
    """What is written for certain, and the last branching that left something out."""

    def __init__(self) -> None:
        self.written: dict[int, Signal] = {}
        self.maybe: Masks = {}
        self.computed: set[int] = set()
        self.left_out: dict[int, tuple[str, int]] = {}

    def statement(self, s: Stmt | None) -> Masks:
        """The digits that a statement writes whichever way it takes."""
        match s:
            case Block():
                sure: Masks = {}
                for inner in s.body:
                    for number, mask in self.statement(inner).items():
                        sure[number] = sure.get(number, 0) | mask
                return sure
            case Assign():
                return self._assign(s.targets)
            case If():
                then, other = self.statement(s.then), self.statement(s.other)
                missing = say("latch-no-else" if s.other is None else "latch-one-side")
                return self._meet([then, other], missing, s.position)
            case Case():
                return self._case(s)
            case Loop() | Repeat():
                return self.statement(s.body)
        return {}

    def _assign(self, targets: list[Target]) -> Masks:
        sure: Masks = {}
        for t in targets:
            number = t.signal.id
            self.written[number] = t.signal
            if t.offsets:
                self.computed.add(number)
                continue
            mask = ((1 << t.width) - 1) << max(0, t.low)
            sure[number] = sure.get(number, 0) | mask
            self.maybe[number] = self.maybe.get(number, 0) | mask
        return sure

    def _case(self, s: Case) -> Masks:
        ways = [self.statement(arm.body) for arm in s.arms]
        why = say("latch-one-arm")
        if s.default is not None:
            ways.append(self.statement(s.default))
        elif not _covers_all(s):
            ways.append({})
            why = say("latch-no-arm")
        return self._meet(ways, why, s.position)

    def _meet(self, ways: list[Masks], why: str, position: int) -> Masks:
        sure: Masks = dict(ways[0]) if ways else {}
        for way in ways[1:]:
            for number in sure.keys() | way.keys():
                sure[number] = sure.get(number, 0) & way.get(number, 0)
        for number in {n for way in ways for n in way}:
            if any(way.get(number, 0) & ~sure.get(number, 0) for way in ways):
                self.left_out[number] = (why, position)
        return sure


def _covers_all(s: Case) -> bool:
    """Whether the labels of a case without `default` name every known value."""
    width = s.subject.width
    if width > _MOST_SUBJECT_BITS:
        return False
    values: set[int] = set()
    for arm in s.arms:
        values |= _values(arm, s.match, width)
    return len(values) == 1 << width


def _values(arm: CaseArm, match: str, width: int) -> set[int]:
    """Known values that an arm's constant labels match."""
    full = (1 << width) - 1
    found: set[int] = set()
    for label in arm.labels:
        if not isinstance(label, Const):
            continue
        floating = label.one & label.zero
        unknown = full & ~(label.one | label.zero)
        free = {"ceq": 0, "casez": floating, "casex": floating | unknown}[match]
        if (unknown | floating) & ~free:
            continue
        fixed = label.one & ~free
        part = free
        while True:  # every subset of the free digits
            found.add(fixed | part)
            if part == 0:
                break
            part = (part - 1) & free
    return found
