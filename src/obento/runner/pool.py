"""A pool of worker processes with bounds of processor time, of time on the clock and of memory around each hand-in."""

from __future__ import annotations

import logging
import multiprocessing
import secrets
import signal
import threading
from collections import deque
from collections.abc import Callable
from concurrent.futures import CancelledError, InvalidStateError, TimeoutError, wait
from contextlib import suppress
from dataclasses import dataclass
from types import TracebackType
from typing import Any, Literal, TypeVar

from pebble import CONSTS, ProcessExpired, ProcessFuture, ProcessPool

from obento.core.check.check import LoadedSpec
from obento.core.check.judging.outcome import Checked
from obento.core.check.mutation.smallest_change import Repair
from obento.runner.worker import (
    NEEDS_MEMORY,
    RepairTask,
    SpecFiles,
    not_checked,
    ready_to_work,
    run_open,
    run_repair,
    run_task,
    start_worker,
    stopped,
)

log = logging.getLogger(__name__)

CONSTS.sleep_unit = (
    0.02  # seconds between two looks of the pool at its workers: a whole tenth shows at the end of a short check
)

T = TypeVar("T")
Done = Callable[[Any], None]
"""Hears of what the work gave, or of an outcome that says why it gave nothing; of None when the task was cancelled."""


@dataclass(frozen=True, slots=True)
class _Submitted:
    work: Callable[[Any], Any]
    given: Any
    done: Done


BUSY = "the machine is too busy for this; try it again later"

_WALL = 6.0
"""How much more time on the clock than of a processor a task may take: a machine that does other things too is none of
its faults."""


class CheckPool:
    """Runs tasks; `seconds` of processor time, `_WALL` times as many on the clock, and `memory_bytes` bound each of
    them.

    Workers come from a process that has loaded what they need and nothing else, so that one stands ready in a few
    hundredths of a second; with `fork` they come from this one, as only a program with a single thread may do."""

    def __init__(
        self,
        workers: int,
        seconds: float = 60.0,
        memory_bytes: int = 3 << 30,
        start: Literal["forkserver", "fork"] = "forkserver",
    ) -> None:
        self.seconds = seconds
        context = multiprocessing.get_context(start)
        if start == "forkserver":
            context.set_forkserver_preload([start_worker.__module__])
        self._make = lambda: ProcessPool(
            max_workers=workers,
            context=context,
            initializer=start_worker,
            initargs=[memory_bytes, seconds],
        )
        self._pool = self._make()
        self._lock = threading.Lock()
        self._under_way = 0
        self._again: deque[_Submitted] = deque()
        self._open: set[ProcessFuture[Any]] = set()
        self._is_closed = False

    def _schedule(self, work: Callable[[Any], T], given: Any) -> ProcessFuture[T]:
        with self._lock:
            try:
                future = self._pool.schedule(work, args=[given], timeout=self.seconds * _WALL)
            except RuntimeError:  # the pool itself broke down: go on with a new one
                log.exception("the pool of workers broke down and is replaced")
                self._pool.stop()
                self._pool = self._make()
                future = self._pool.schedule(work, args=[given], timeout=self.seconds * _WALL)
            self._open.add(future)
        future.add_done_callback(lambda ended: self._open.discard(ended))
        return future

    @property
    def longest(self) -> float:
        """Seconds on the clock after which any work has ended, one way or another, once it was begun."""
        return self.seconds * _WALL

    def renew(self) -> None:
        """Go on with new workers, whatever became of those there are; what they were given is cancelled."""
        with self._lock:
            old, self._pool = self._pool, self._make()
            cut_off, self._open = self._open, set()
            self._under_way = 0
            self._again.clear()
        old.stop()
        for future in cut_off:
            with suppress(InvalidStateError):
                future.set_exception(CancelledError())

    def warm_up(self) -> None:
        """Have the workers started before anybody waits for them."""
        self._schedule(ready_to_work, None)

    def open_spec(self, spec: SpecFiles) -> LoadedSpec | str:
        """Open a spec and wait for it; a sentence where it could not be done."""
        return self._waited(run_open, spec)

    def repair(self, asked: RepairTask) -> Repair | str | None:
        """Look for the smallest change of a hand-in and wait for it; a sentence where it could not be done."""
        return self._waited(run_repair, asked)

    def _waited(self, work: Callable[[Any], T], given: Any) -> T | str:
        future = self._schedule(work, given)
        wait([future])
        return self.answer_of(future)

    def begin(self, work: Callable[[Any], T], given: Any) -> ProcessFuture[T]:
        """Queue some work for whoever waits for it; `answer_of` says what came of it, cancelling ends it."""
        return self._schedule(work, given)

    @staticmethod
    def end(future: ProcessFuture[Any]) -> None:
        """Nobody waits for some work any more: its worker ends with it. Nothing happens where it is done."""
        future.cancel()

    def answer_of(self, future: ProcessFuture[T]) -> T | str:
        """What finished work gave; a sentence where it could not be done."""
        try:
            return future.result()
        except TimeoutError:
            return BUSY
        except ProcessExpired as error:
            if _took_its_time(error):
                return _too_long(self.seconds)
            return "this needs more than one hand-in may take"
        except (MemoryError, RecursionError):
            return "this needs more than one hand-in may take"

    def submit(self, task: Any, done: Done, work: Callable[[Any], Any] = run_task) -> ProcessFuture[Any]:
        """Queue a task for some work, checking it unless told otherwise; `done` is called in a thread of the pool,
        once. A task that had no outcome is run again, on another worker, when nothing else is under way here."""
        future = self._schedule(work, task)
        submitted = _Submitted(work, task, done)
        with self._lock:
            self._under_way += 1
        future.add_done_callback(lambda _: self._finish(future, submitted))
        return future

    def _finish(self, future: ProcessFuture[Any], submitted: _Submitted) -> None:
        outcome = self._outcome(future)
        is_first = isinstance(outcome, Checked) and _may_be_another_time(outcome)
        with self._lock:
            self._under_way = max(0, self._under_way - 1)
            if is_first:
                self._again.append(submitted)
        try:
            if not is_first:
                submitted.done(outcome)
        finally:
            self._next_again()

    def _next_again(self) -> None:
        """Start one of those that are to be run again, by itself."""
        with self._lock:
            if self._under_way or not self._again:
                return
            submitted = self._again.popleft()
            self._under_way += 1
            closed = self._is_closed
        if closed:
            self._end_again(None, submitted.done)
            return
        future = self._schedule(submitted.work, submitted.given)
        future.add_done_callback(lambda _: self._end_again(self._outcome(future), submitted.done))

    def _outcome(self, future: ProcessFuture[Any]) -> Any:
        """What came of a task; of one that the end of this pool cut off nothing."""
        return None if self._is_closed and not _has_result(future) else outcome_of(future, self.seconds)

    def _end_again(self, outcome: Any, done: Done) -> None:
        with self._lock:
            self._under_way = max(0, self._under_way - 1)
        try:
            done(outcome)
        finally:
            self._next_again()

    def close(self) -> None:
        """Stop at once; running tasks end with their workers, and whoever waits for one hears that it was
        cancelled."""
        self._is_closed = True
        self._pool.stop()
        self._pool.join()
        for future in list(self._open):
            with suppress(InvalidStateError):  # it ended just now
                future.set_exception(CancelledError())

    def __enter__(self) -> CheckPool:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None
    ) -> None:
        self.close()


def outcome_of(future: ProcessFuture[Any], seconds: float) -> Any:
    """A finished future as an outcome. What the hand-in's own bounds ended is one too; what the machine or we ourselves
    ended is `not_checked`."""
    try:
        return future.result()
    except CancelledError:
        return None
    except TimeoutError:
        return not_checked(
            f"the machine was too busy: in {seconds * _WALL:g} seconds this did not get the processor time it may take"
        )
    except ProcessExpired as error:
        if _took_its_time(error):
            return stopped(_too_long(seconds))
        log.warning("a worker ended in the middle of a hand-in (exit code %s)", error.exitcode)
        return not_checked(f"the process that checked this was ended (exit code {error.exitcode})")
    except Exception:
        number = secrets.token_hex(4)
        log.exception("our own mistake %s while checking a hand-in", number)
        return not_checked(f"this could not be checked through a mistake of ours (number {number} in the log)")


def _may_be_another_time(outcome: Checked) -> bool:
    """Whether a hand-in is tried once more, alone: what ended it may have come from what ran beside it."""
    return outcome.status == "not_checked" or any(m.text == NEEDS_MEMORY for m in outcome.messages)


def _has_result(future: ProcessFuture[Any]) -> bool:
    return not future.cancelled() and future.exception() is None


def _took_its_time(error: ProcessExpired) -> bool:
    """Whether a worker was ended since its task took more processor time than allowed."""
    return bool(error.exitcode == -signal.SIGPROF)


def _too_long(seconds: float) -> str:
    return f"this did not end within {seconds:g} seconds of processor time"
