"""Sentences on clocked hand-ins, each with what has to hold for it to be true."""

from __future__ import annotations

import itertools
import re
from collections.abc import Iterator
from dataclasses import dataclass, replace

from tests.second_reader.conditions import read_condition
from tests.second_reader.known import Known
from tests.second_reader.machines import Drive, DriveStep, Machine
from tests.second_reader.sentences import is_true
from tests.second_reader.truth import Case, Port, Truth


@dataclass(frozen=True)
class Way:
    """A clocked hand-in, how it is driven, and what is so in every step."""

    drive: Drive
    machine: Machine
    truth: Truth

    def sequences(self) -> Iterator[list[tuple[DriveStep, Case]]]:
        """Steps with their cases, sequence by sequence."""
        at = 0
        for sequence in self.drive.sequences:
            yield list(zip(sequence, self.truth.cases[at : at + len(sequence)], strict=True))
            at += len(sequence)

    def is_wrong(self, case: Case) -> bool:
        return any(case.is_wrong(p.name) for p in self.truth.outputs)

    def is_right_as(self, machine: Machine) -> bool:
        """Whether every step would be right if the hand-in were another one."""
        shown = self.drive.answers(machine)
        return all(s[n] == w for s, c in zip(shown, self.truth.cases, strict=True) for n, w in c.wanted.items())


_sentence: Known[Way] = Known()
_TURNED = {"rise": "fall", "fall": "rise"}
_EDGES = {"rising": "rise", "falling": "fall"}


def is_true_of(way: Way, text: str) -> bool:
    """Whether a sentence is true of a clocked hand-in.

    Raises
    ------
    Unread
        Where it is none of the sentences that are known here.
    """
    found = _sentence.is_true(way, text)
    return is_true(way.truth, text) if found is None else found


# Where it goes astray.


@_sentence(
    r"(\w+) is wrong in (\d+) of (\d+) steps, first in (.*?), step (\d+): (.*) it is (\S+) instead of (\S+?)"
    r"(?: \((?:(\d+) only follows?|(it only follows|all of them only follow))\))?"
)
def _wrong_in(way: Way, m: re.Match[str]) -> bool:
    name, cases = m[1], way.truth.cases
    port = next(p for p in way.truth.outputs if p.name == name)
    wrong = [c for c in cases if c.is_wrong(name)]
    sequence = next(s for i, s in enumerate(way.sequences(), 1) if f"way {i}" == m[4])
    step, case = sequence[int(m[5]) - 1]
    return (
        (len(wrong), len(cases)) == (int(m[2]), int(m[3]))
        and case.is_wrong(name)
        and _happens(way, [c for _, c in sequence], step, m[6])
        and (port.read(m[7]), port.read(m[8])) == (case.got[name], case.wanted[name])
        and int(m[9] or 0) < len(wrong)
        and not (m[10] and _leads(way, name))
    )


def _leads(way: Way, name: str) -> bool:
    """Whether an output is the only one that is wrong where some sequence first goes astray."""
    firsts = [next((c for _, c in s if way.is_wrong(c)), None) for s in way.sequences()]
    return any(c is not None and {n for n in c.got if c.is_wrong(n)} == {name} for c in firsts)


def _happens(way: Way, cases: list[Case], step: DriveStep, text: str) -> bool:
    """`at the rising edge with rst = 0 and en = 1`, `without an edge, en = 1:`."""
    case = cases[step.number - 1]
    at = re.fullmatch(r"at the (rising|falling) edge(?: with (.*))?", text)
    if at is not None:
        first = step.turns()[0]
        return (at[1] == "rising") == (first == 1) and (not at[2] or read_condition(at[2], way.truth.inputs)(case))
    without = re.fullmatch(r"without an edge, (.*):", text)
    if without is None or step.turns():
        return False
    turned = [n for n, v in case.given.items() if v != cases[step.number - 2].given[n]]
    if without[1] == "nothing changed":
        return not turned
    return read_condition(without[1], way.truth.inputs)(case) and len(turned) == without[1].count(" = ")


@_sentence(r"goes wrong whenever (.*): (once|twice|(\d+) times)")
def _goes_wrong(way: Way, m: re.Match[str]) -> bool:
    """Up to the first wrong step of each sequence there is no doubt what has gone astray before: nothing."""
    text = m[1]
    edge = re.search(
        r"(?: at the (rising|falling) edge| without an edge)$|^there is (?:a (rising|falling)|no) edge$", text
    )
    rest = (text[: edge.start()] if edge else text).strip()
    before = tuple(Port(p.name, p.width, p.signed, p.radix) for p in way.truth.outputs)
    holds = read_condition(rest, (*way.truth.inputs, *before)) if rest else None
    found = 0
    for sequence in way.sequences():
        for (_, earlier), (step, case) in itertools.pairwise(sequence):
            seen = replace(case, given=case.given | {n: v for n, v in earlier.wanted.items() if v is not None})
            has_edge = bool(step.turns()) and step.turns()[0] == 1 - step.idle
            fits = edge is None or has_edge == ("no edge" not in edge[0] and "without" not in edge[0])
            fits = fits and (holds is None or holds(seen))
            if way.is_wrong(earlier):
                break
            if fits != way.is_wrong(case):
                return False
            found += fits
    return found <= {"once": 1, "twice": 2}.get(m[2], int(m[3] or 0))


# How it is clocked and reset.


@_sentence(r"it acts on the (rising|falling) edge of clk, and should on the (rising|falling) one")
def _wrong_edge(way: Way, m: re.Match[str]) -> bool:
    machine = way.machine
    return machine.edge == _EDGES[m[1]] and way.is_right_as(replace(machine, edge=_EDGES[m[2]])) and m[1] != m[2]


@_sentence(r"rst acts at ([01]), and should at ([01])")
def _reset_level(way: Way, m: re.Match[str]) -> bool:
    is_so = way.machine.active == int(m[1]) != int(m[2])
    return is_so and way.is_right_as(replace(way.machine, active=int(m[2])))


@_sentence(r"it acts on the (rising|falling) edge, and rst at ([01]): both are the wrong way round")
def _both_turned(way: Way, m: re.Match[str]) -> bool:
    machine = way.machine
    is_so = (machine.edge, machine.active) == (_EDGES[m[1]], int(m[2]))
    return is_so and way.is_right_as(replace(machine, edge=_TURNED[machine.edge], active=1 - machine.active))


@_sentence(r"rst waits for the clock, and should act at once")
def _reset_waits(way: Way, m: re.Match[str]) -> bool:
    return way.machine.kind == "sync" and way.is_right_as(replace(way.machine, kind="async"))


@_sentence(r"rst acts at once, and should wait for the (?:rising|falling) edge")
def _reset_at_once(way: Way, m: re.Match[str]) -> bool:
    return way.machine.kind == "async" and way.is_right_as(replace(way.machine, kind="sync"))


@_sentence(r"([\w ]+) (?:is|are) one cycle (late|early)")
def _shifted(way: Way, m: re.Match[str]) -> bool:
    """At every edge what is expected at the one before, or after, where no reset comes between."""
    names = m[1].split(" and ")
    for sequence in way.sequences():
        edges = [(s, c) for s, c in sequence if s.turns() and s.turns()[0] == 1 - s.idle]
        for (s, earlier), (t, later) in itertools.pairwise(edges):
            between = sequence[s.number - 1 : t.number]
            if any(x.given["rst"] == way.drive.right.active for x, _ in between):
                continue
            here, there = (later, earlier) if m[2] == "late" else (earlier, later)
            if any(here.got[n] != there.wanted[n] for n in names):
                return False
    return all(any(c.is_wrong(n) for c in way.truth.cases) for n in names)


@_sentence(r"(\w+) is (\S+) at every reset, and should be (\S+)")
def _reset_value(way: Way, m: re.Match[str]) -> bool:
    right = way.drive.right
    port = next(p for p in way.truth.outputs if p.name == m[1])
    at_resets = [
        c
        for sequence in way.sequences()
        for s, c in sequence
        if s.given["rst"] == right.active and (right.kind == "async" or s.turns()[:1] == [1 - s.idle])
    ]
    return {(c.got[port.name], c.wanted[port.name]) for c in at_resets} == {(port.read(m[2]), port.read(m[3]))}


# What it does.


@_sentence(r"it does not react to (\w+)")
def _does_not_react(way: Way, m: re.Match[str]) -> bool:
    width = next(p.width for p in way.truth.inputs if p.name == m[1])
    turned = way.drive.turned(**{m[1]: (1 << width) - 1})
    expected = way.drive.answers(way.drive.right) != turned.answers(way.drive.right)
    return way.drive.answers(way.machine) == turned.answers(way.machine) and expected


@_sentence(r"(\w+) counts on to (\S+) where it should go back to (\S+)")
def _counts_too_far(way: Way, m: re.Match[str]) -> bool:
    return _first_wrong_are(way, m[1], int(m[2]), int(m[3]))


@_sentence(r"(\w+) goes back to (\S+) after (\S+), too early")
def _wraps_too_early(way: Way, m: re.Match[str]) -> bool:
    return _first_wrong_are(way, m[1], int(m[2]), int(m[3]) + 1)


def _first_wrong_are(way: Way, name: str, got: int, wanted: int) -> bool:
    """Whether the first step of every sequence in which an output is wrong goes wrong like this."""
    firsts = [next((c for _, c in s if c.is_wrong(name)), None) for s in way.sequences()]
    return all(c is None or (c.got[name], c.wanted[name]) == (got, wanted) for c in firsts)


@_sentence(r"(\w+) stays at (\S+) once it is there, whatever the clock does")
def _stuck(way: Way, m: re.Match[str]) -> bool:
    value = int(m[2])
    for sequence in way.sequences():
        for (_, earlier), (step, case) in itertools.pairwise(sequence):
            is_reset = step.given["rst"] == way.drive.right.active
            if earlier.got[m[1]] == value and not is_reset and case.got[m[1]] != value:
                return False
    return True


@_sentence(r"(\d+) steps? (?:is|are) right only because registers have initial values")
def _start_values(way: Way, m: re.Match[str]) -> bool:
    """These are right with some start values and wrong with others, or at least come before any reset."""
    machine, shown = way.machine, way.drive.answers(way.machine)
    others = [way.drive.answers(machine, q) for q in range(1 << machine.logic.inputs[-1].width)]
    right = [i for i, c in enumerate(way.truth.cases) if not way.is_wrong(c)]
    fewest = sum(any(o[i] != shown[i] for o in others) for i in right)
    before = 0
    for sequence in way.sequences():
        is_reset = False
        for step, case in sequence:
            resets = step.given["rst"] == machine.active
            is_reset = is_reset or (resets and (machine.kind == "async" or bool(step.turns())))
            before += not is_reset and not way.is_wrong(case)
    return fewest <= int(m[1]) <= before
