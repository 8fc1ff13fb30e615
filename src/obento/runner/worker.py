"""What runs inside a worker process."""

from __future__ import annotations

import gc
import os
import resource
import signal
import sys
import threading
import time
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from obento.core.board.blocks import from_block, to_block
from obento.core.board.forms import Form, Formed, NoForm
from obento.core.board.pasting import paste
from obento.core.board.stating import Stated, state
from obento.core.board.trying import Beside, Tried, beside, for_learners, proven_form, try_as_learner, try_out
from obento.core.check.check import LoadedSpec, check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.inspecting.by_hand import ByHand, Move, drive_by_hand
from obento.core.check.inspecting.trace import Trace, trace_handin
from obento.core.check.inspecting.wires import Inside, look_inside
from obento.core.check.judging.outcome import Checked
from obento.core.check.mutation.catch_rate import CatchRate, NoReference, catch_rate
from obento.core.check.mutation.smallest_change import Repair, find_repair
from obento.core.diagnostics import Message
from obento.core.handin import HandinFile
from obento.core.limits import Limits
from obento.core.spec.model import EDITION


@dataclass(frozen=True, slots=True)
class SpecFiles:
    """A spec and the files beside it, as a worker needs them; `edition` says by which rules its text is read."""

    name: str
    data: bytes
    others: tuple[tuple[str, bytes], ...] = ()
    edition: int = EDITION

    def open(self) -> LoadedSpec:
        return open_spec(self.name, self.data, dict(self.others), edition=self.edition)


@dataclass(frozen=True, slots=True)
class Task:
    """One hand-in to be checked."""

    spec: SpecFiles
    files: tuple[HandinFile, ...]
    provided: tuple[HandinFile, ...] = ()
    choices: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True, slots=True)
class TraceTask:
    """One sequence of one hand-in to be traced, with the inner signals `wanted`."""

    task: Task
    sequence: int
    wanted: tuple[str, ...]
    open_as_one: bool


@dataclass(frozen=True, slots=True)
class InsideTask:
    """One hand-in to be drawn, with the values on its wires in these cases."""

    task: Task
    cases: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class BesideTask:
    """A circuit of the board, and another to be run beside it."""

    task: Task
    other: tuple[HandinFile, ...]


@dataclass(frozen=True, slots=True)
class StateTask:
    """A sentence to be put into the wiring list of a text (`say`); or lines that become a block of the name that is
    said (`block`), a block that is put back where the first of the lines uses it (`open`), or lines that were copied
    and are put in (`paste`)."""

    text: str
    unit: str
    said: str
    only: tuple[str, ...]
    how: Literal["say", "block", "open", "paste"] = "say"
    lines: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True)
class FormTask:
    """A form of what a spec expects."""

    spec: SpecFiles
    form: Form


@dataclass(frozen=True, slots=True)
class HandTask:
    """One hand-in whose inputs are set by hand, move by move."""

    task: Task
    moves: tuple[Move, ...]


@dataclass(frozen=True, slots=True)
class RepairTask:
    """One hand-in that is wrong; `hints` are texts of changes that mended others who are wrong alike."""

    task: Task
    hints: tuple[str, ...] = ()


NEEDS_MEMORY = "this needs more memory than one hand-in may take"

_DEEPEST = 12_000
"""Calls of calls that a worker takes; deeper texts are told to be too deep."""
_allowed = 0.0
"""Seconds of processor time that one hand-in may take in this process; 0 for no limit."""


def start_worker(memory_bytes: int, seconds: float) -> None:
    """Called once in each worker: bounded memory and processor time, and gone when the parent is gone."""
    global _allowed
    _allowed = seconds
    sys.setrecursionlimit(_DEEPEST)  # a sum of a thousand terms is a tree a thousand deep
    resource.setrlimit(resource.RLIMIT_AS, (memory_bytes, memory_bytes))
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    gc.freeze()  # what is loaded stays; trees and designs of one hand-in are dropped together
    gc.set_threshold(100_000, 20, 50)
    threading.Thread(target=_leave_with, args=(os.getppid(),), daemon=True).start()


def _leave_with(parent: int) -> None:
    """End this worker when its parent is gone, however that went. (The kernel's own signal for this is tied to the
    thread that started the worker, not to the process.)"""
    while os.getppid() == parent:
        time.sleep(0.5)
    os._exit(1)


@contextmanager
def _timed() -> Iterator[None]:
    """Count the processor time of what is done here, and end this process where it is more than allowed.

    The signal is the kernel's own, sent after so much time on a processor however long that took (POSIX `setitimer`),
    and nothing handles it: an exception in the middle of anything would leave behind what the next hand-in is judged
    with."""
    signal.setitimer(signal.ITIMER_PROF, _allowed)
    try:
        yield
    finally:
        signal.setitimer(signal.ITIMER_PROF, 0)


_LEFT_FOR_THE_REST = 0.25
"""The share of a hand-in's time that is kept for what is said of the cases that were judged."""


def _most_of_it_is_used() -> Callable[[], bool]:
    """Tells when the running of cases should end, so that what was judged is not lost with this process."""
    if not _allowed:
        return lambda: False
    end = time.process_time() + _allowed * (1 - _LEFT_FOR_THE_REST)
    return lambda: time.process_time() > end


@lru_cache(maxsize=16)
def opened(spec: SpecFiles) -> LoadedSpec:
    """A spec, worked out once a process; forked workers inherit what their parent has opened."""
    return spec.open()


def expected(task: Task) -> Expectation:
    """What a task's spec expects.

    Raises
    ------
    ValueError
        If it is wrong; then nobody should have asked.
    """
    loaded = opened(task.spec)
    if loaded.expectation is None:
        raise ValueError("the spec cannot be used")
    return loaded.expectation


def run_task(task: Task) -> Checked:
    """Check one hand-in; running out of memory is an outcome like others."""
    expectation = expected(task)
    choices: Mapping[str, str] = dict(task.choices)
    files: Sequence[HandinFile] = task.files
    try:
        with _timed():
            return check_handin(expectation, files, task.provided, Limits(expired=_most_of_it_is_used()), choices)
    except MemoryError:
        return stopped(NEEDS_MEMORY)
    except RecursionError:
        return stopped("this is nested too deep to be run")


def run_open(spec: SpecFiles) -> LoadedSpec:
    """Open a spec: its tables, models and benches are worked out here, and nowhere else."""
    with _timed():
        return spec.open()


def run_trace(asked: TraceTask) -> Trace | None:
    """Trace one sequence."""
    task = asked.task
    expectation = expected(task)
    with _timed():
        return trace_handin(
            expectation, task.files, task.provided, dict(task.choices), asked.sequence, asked.wanted, asked.open_as_one
        )


def run_inside(asked: InsideTask) -> Inside | str | None:
    """Draw a hand-in and look at its wires."""
    task = asked.task
    expectation = expected(task)
    with _timed():
        return look_inside(
            expectation, task.files, task.provided, dict(task.choices), asked.cases, dict(task.spec.others)
        )


def run_board(task: Task) -> Tried:
    """Try a circuit that is being drawn."""
    expectation = expected(task)
    with _timed():
        return try_out(expectation, task.files, task.provided, dict(task.spec.others))


def run_beside(asked: BesideTask) -> Beside:
    """Hold two circuits against each other."""
    task = asked.task
    expectation = expected(task)
    with _timed():
        return beside(expectation, task.files, asked.other, task.provided, dict(task.spec.others))


def run_for_learner(task: Task) -> Tried | str:
    """Try a circuit of somebody who is to see nothing of the reference, and nothing of hidden cases."""
    expectation = for_learners(expected(task))
    if expectation is None:
        return "this task has hidden sequences of steps and cannot be tried here"
    with _timed():
        return try_as_learner(expectation, task.files, task.provided)


def run_state(asked: StateTask) -> Stated:
    """Put a sentence into a wiring list, or change what is a block in it."""
    with _timed():
        if asked.how == "block":
            return to_block(asked.text, asked.unit, asked.lines, asked.said)
        if asked.how == "open":
            return from_block(asked.text, asked.unit, min(asked.lines, default=0))
        if asked.how == "paste":
            return paste(asked.text, asked.unit, asked.said)
        return state(asked.text, asked.unit, asked.said, asked.only)


def run_form(asked: FormTask) -> Formed | str:
    """Make a form of what is expected; a sentence where there is none."""
    loaded = opened(asked.spec)
    if loaded.expectation is None:
        return "the spec has errors"
    try:
        with _timed():
            return proven_form(loaded.expectation, asked.form)
    except NoForm as none:
        return str(none)


def run_by_hand(asked: HandTask) -> ByHand | str | None:
    """Set the inputs of a hand-in by hand."""
    task = asked.task
    expectation = expected(task)
    with _timed():
        return drive_by_hand(
            expectation, task.files, task.provided, dict(task.choices), asked.moves, dict(task.spec.others)
        )


def run_repair(asked: RepairTask) -> Repair | None:
    """Look for the smallest change that makes a hand-in right."""
    task = asked.task
    expectation = expected(task)
    with _timed():
        return find_repair(expectation, task.files, task.provided, dict(task.choices), hints=asked.hints)


def run_catch_rate(spec: SpecFiles) -> CatchRate | str:
    """Work out the catch rate of a spec; a sentence where it has none."""
    try:
        loaded = opened(spec)
        with _timed():
            return catch_rate(loaded, dict(spec.others))
    except NoReference as none:
        return str(none)


def ready_to_work(nothing: None) -> None:
    """Does nothing; a worker that has done it has been started."""


def not_checked(text: str) -> Checked:
    """No outcome, twice, and no fault of the hand-in: nothing may rest on it."""
    hint = "no fault of the hand-in; check it again"
    return Checked("not_checked", messages=[Message("error", "not-checked", "", 0, 0, text, hint)])


def stopped(text: str) -> Checked:
    """The outcome of a hand-in that a limit ended from outside."""
    return Checked("stopped", messages=[Message("error", "limit", "", 0, 0, text)])
