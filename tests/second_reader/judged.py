"""A hand-in checked by the program, and what it says held against the truth."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from random import Random
from typing import TypeVar

from obento.core.check.check import check_handin, open_spec
from obento.core.handin import HandinFile
from tests.second_reader.machines import mistaken_machine, random_drive, random_machine, spec_of, truth_of_steps
from tests.second_reader.sentences import is_true
from tests.second_reader.trees import mistaken, random_tree, truth_of
from tests.second_reader.truth import Truth, Unread
from tests.second_reader.way_sentences import Way, is_true_of

_TWO_MISTAKES = 0.3
Design = TypeVar("Design")


@dataclass(frozen=True)
class Judged:
    """How many sentences were said of one design, and what is not so among them, or about its verdict."""

    said: int
    untrue: list[str]


def judged_tree(seed: int) -> Judged:
    """One random combinational design with a mistake or two."""
    r = Random(seed)
    right = random_tree(r)
    wrong = _mistaken(r, right, mistaken)
    truth = truth_of(r, right, wrong)
    return _judged(truth, truth.spec(), wrong.verilog(), lambda text: is_true(truth, text))


def judged_machine(seed: int) -> Judged:
    """One random machine with a mistake or two."""
    r = Random(seed)
    right = random_machine(r)
    wrong = _mistaken(r, right, mistaken_machine)
    drive = random_drive(r, right)
    if not wrong.is_settled_by(drive):
        return Judged(0, [])
    truth = truth_of_steps(drive, wrong)
    way = Way(drive, wrong, truth)
    return _judged(truth, spec_of(drive, truth), wrong.verilog(), lambda text: is_true_of(way, text))


def _mistaken(r: Random, right: Design, change: Callable[[Random, Design], Design]) -> Design:
    wrong = change(r, right)
    return change(r, wrong) if r.random() < _TWO_MISTAKES else wrong


def _judged(truth: Truth, spec: str, verilog: str, is_so: Callable[[str], bool]) -> Judged:
    loaded = open_spec("s.toml", spec.encode(), {})
    if loaded.expectation is None:  # every output of a row may be left open, a whole table not
        return Judged(0, [str(m) for m in loaded.messages] if truth.wrong() else [])
    outcome = check_handin(loaded.expectation, [HandinFile("m.v", verilog.encode())])
    if outcome.verdict is None:
        return Judged(0, [f"not judged: {outcome.status} {[str(m) for m in outcome.messages]}"])
    judged = [not outcome.verdict.right >> i & 1 for i in range(len(truth.cases))]
    if judged != [any(c.is_wrong(p.name) for p in truth.outputs) for c in truth.cases]:
        return Judged(0, [f"the verdict: {outcome.verdict.digits()}"])
    untrue = []
    for finding in outcome.findings:
        try:
            if not is_so(finding.text):
                untrue.append(f"{finding.kind}: {finding.text}")
        except Unread as error:
            untrue.append(f"{finding.kind}, not read: {error}")
    return Judged(len(outcome.findings), untrue)
