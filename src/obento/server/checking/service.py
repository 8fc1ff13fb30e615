"""Check runs: what has to be checked goes to worker processes, what comes back goes to the database."""

from __future__ import annotations

import logging
import queue
import threading
import time
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import CancelledError
from dataclasses import dataclass, field
from functools import partial
from typing import Any

from obento.core.check.judging.outcome import Checked
from obento.core.check.mutation.smallest_change import Repair
from obento.core.handin import HandinFile
from obento.runner.engine import engine_version
from obento.runner.pool import CheckPool
from obento.runner.worker import RepairTask, Task
from obento.server.cases.summary import OutcomeSummary, kept_summary, summary_of
from obento.server.course.task_state import task_state
from obento.server.marks.ledger import Ledger
from obento.server.specs.opened import OpenedSpecs, OpenSpec
from obento.store import audit, course, handins, repairs, results, specs
from obento.store.connection import Connection, Store
from obento.store.planes import Against
from obento.store.results import KeptOutcomes, NewResult

log = logging.getLogger(__name__)

_REPAIR_SECONDS = 20.0
_MOST_AT_ONCE = 16
"""Outcomes that are entered in one transaction."""
_MOST_RESTARTS = 2
"""So often workers that came to a stand are replaced in one run."""
_MOST_REASONS = 3
_QUIET = 30.0
"""Seconds on top of what a hand-in that is tried twice may take on the clock: after them nothing comes any more."""
_GATHERING = 0.05
"""Seconds in which more outcomes are waited for before some are entered."""


@dataclass(slots=True)
class Job:
    """One attempt against one spec version."""

    handin_id: int
    attempt_id: int
    task_id: int
    spec: OpenSpec
    against: Against
    choices: tuple[tuple[str, str], ...]


Finished = tuple[Job, Checked | None]
"""A job with its outcome; None where it was cancelled."""


@dataclass(frozen=True, slots=True)
class Wrong:
    """An outcome that is not right in every case, with what it is of."""

    result_id: int
    cluster: str
    task: Task


@dataclass(slots=True)
class Run:
    """A run in progress; `state` is running, done, cancelled or failed. `not_checked` counts the hand-ins that had no
    outcome through no fault of theirs, with a few `reasons`: they wait for the next run."""

    id: int
    lab_id: int
    total: int
    done: int = 0
    not_checked: int = 0
    reasons: set[str] = field(default_factory=set)
    state: str = "running"
    futures: list[Any] = field(default_factory=list)
    cancelled: bool = False
    asked_again: bool = False
    """Somebody asked while this went on: what has come since is checked when it is done."""


class CheckService:
    """Starts, follows and cancels runs. One run a lab at a time: a second request joins the first."""

    def __init__(self, store: Store, opened: OpenedSpecs, kept: KeptOutcomes, workers: int, seconds: float) -> None:
        self._store = store
        self._opened = opened
        self._kept = kept
        self.pool = CheckPool(workers, seconds)
        self._helper = CheckPool(1, min(seconds, _REPAIR_SECONDS))
        self.pool.warm_up()
        self._is_closing = False
        self._runs: dict[int, Run] = {}
        self._lock = threading.Lock()

    def close(self) -> None:
        self._is_closing = True
        self.pool.close()
        self._helper.close()

    def known_repair(self, result_id: int) -> Repair | None:
        """The smallest change that was found for an outcome, if it was looked for."""
        with self._store.transaction() as c:
            return repairs.repairs_of(c, [result_id]).get(result_id)

    def keep_repair(self, result_ids: list[int], found: Repair | str | None) -> Repair:
        """Keep a change that was looked for, for all these outcomes, which are of one text; a search that had to be
        stopped is kept as one without result."""
        repair = Repair([], 0, False) if found is None or isinstance(found, str) else found

        def put(c: Connection) -> None:
            for result_id in result_ids:
                repairs.put_repair(c, result_id, repair)

        self._store.retrying(put, seconds=10)
        return repair

    def _mend(self, wrong: list[Wrong]) -> None:
        """After a run: what could be changed in the wrong hand-ins, so that letters can say so. Ends with the
        service."""
        hints: dict[str, tuple[str, ...]] = {}
        for task, alike in _by_text(wrong):
            if self._is_closing:
                return
            with self._store.transaction() as c:
                known = repairs.repairs_of(c, [w.result_id for w in alike])
            ids = [w.result_id for w in alike if w.result_id not in known]
            if not ids:
                continue
            cluster = alike[0].cluster
            try:
                found = self._helper.repair(RepairTask(task, hints.get(cluster, ())))
                repair = self.keep_repair(ids, found)
            except (Exception, CancelledError):
                if not self._is_closing:
                    log.exception("looking for changes ended early")
                return
            hints[cluster] = (*hints.get(cluster, ()), *(change.text for change in repair.changes))

    def run_of(self, lab_id: int) -> Run | None:
        return self._runs.get(lab_id)

    def start(self, lab_id: int, person_id: int | None) -> Run:
        """Check whatever of a lab has no outcome yet under the current specs and engine."""
        return self._opened.meanwhile(lambda: self._started(lab_id, person_id))

    def _started(self, lab_id: int, person_id: int | None) -> Run:
        with self._lock:
            known = self._runs.get(lab_id)
            if known is not None and known.state == "running":
                known.asked_again = True
                return known
            jobs, run_id = self._store.retrying(lambda c: self._plan(c, lab_id, person_id), seconds=10)
            run = self._runs[lab_id] = Run(run_id, lab_id, len(jobs))
        threading.Thread(target=self._work, args=(run, jobs), daemon=True, name=f"check-{run_id}").start()
        return run

    def cancel(self, lab_id: int) -> None:
        run = self._runs.get(lab_id)
        if run is not None and run.state == "running":
            run.cancelled = True
            for future in run.futures:
                future.cancel()

    def resume(self) -> None:
        """Take up runs that a stop of the server cut off."""
        with self._store.transaction() as c:
            open_runs = results.unfinished_runs(c)
            for row in open_runs:
                results.end_runs(c, row.lab_id, "failed", 0)
        for lab_id in {row.lab_id for row in open_runs}:
            self.start(lab_id, None)

    def _plan(self, c: Connection, lab_id: int, person_id: int | None) -> tuple[list[Job], int]:
        jobs: list[Job] = []
        attempts = handins.lab_attempts(c, lab_id)
        for task in course.tasks_of(c, lab_id):
            if not task.is_right:
                continue
            spec = self._opened.current(c, task.id)
            if specs.mark_used(c, spec.version_id):
                spec = self._opened.current(c, task.id)
            against = Against.of(spec.expectation)
            chosen_by = handins.choices_of_task(c, task.id)
            known = results.known_results(c, task.id, spec.version_id, spec.files_digest, engine_version())
            for handin_id, every in attempts.by_handin.items():
                chosen = chosen_by.get(handin_id, ())
                digest = results.choices_digest(chosen)
                for attempt in every:
                    if attempt.task_id not in (None, task.id) or (attempt.id, digest) in known:
                        continue
                    jobs.append(Job(handin_id, attempt.id, task.id, spec, against, chosen))
        run_id = results.start_run(c, lab_id, person_id, len(jobs))
        audit.note(c, person_id, "check", f"lab {lab_id}", {"run": run_id, "to do": len(jobs)})
        return jobs, run_id

    def _work(self, run: Run, jobs: list[Job]) -> None:
        wrong: list[Wrong] = []
        try:
            files = self._files_of(jobs)
            waiting = dict(enumerate(jobs))
            for restarts in range(_MOST_RESTARTS + 1):
                for ended in self._outcomes(run, waiting, files):
                    self._keep(run, ended, files, wrong)
                if not waiting:
                    break
                log.error("run %s came to a stand with %s hand-ins to do; restart %s", run.id, len(waiting), restarts)
                self.pool.renew()
            run.not_checked += len(waiting)
            run.done += len(waiting)
            if waiting:
                run.reasons.add("the workers came to a stand, again and again")
            state = "cancelled" if run.cancelled else "done"
        except Exception:
            log.exception("check run %s failed", run.id)
            state = "failed"
        try:
            # A run that left something unchecked is taken up by the next start of the server, as one cut off is.
            if not run.not_checked or state == "cancelled":
                self._store.retrying(lambda c: results.end_runs(c, run.lab_id, state, run.done), seconds=3600)
        finally:
            run.state = state
        if state == "done" and run.asked_again and not self._is_closing:
            self.start(run.lab_id, None)
        if state == "done":
            self._mend(wrong)

    def _files_of(self, jobs: list[Job]) -> dict[int, tuple[HandinFile, ...]]:
        files: dict[int, tuple[HandinFile, ...]] = {}
        for job in jobs:
            if job.attempt_id not in files:
                read = partial(handins.attempt_files, attempt_id=job.attempt_id)
                files[job.attempt_id] = tuple(self._store.retrying(read, seconds=3600))
        return files

    def _outcomes(
        self, run: Run, waiting: dict[int, Job], files: dict[int, tuple[HandinFile, ...]]
    ) -> Iterator[list[Finished]]:
        """Give jobs to the workers, and what comes of them as it comes; those that have an outcome wait no longer. Ends
        when none waits, or when nothing has come for so long that the workers must be at a stand."""
        finished: queue.SimpleQueue[tuple[int, Checked | None]] = queue.SimpleQueue()
        for number, job in waiting.items():
            run.futures.append(self.pool.submit(_task(job, files), partial(_hand_over, finished, number)))
            if run.cancelled:
                run.futures[-1].cancel()
        while waiting:
            ended = _taken(finished, len(waiting), 2 * self.pool.longest + _QUIET)
            if not ended:
                return
            yield [(waiting.pop(number), checked) for number, checked in ended]

    def _keep(
        self, run: Run, ended: list[Finished], files: dict[int, tuple[HandinFile, ...]], wrong: list[Wrong]
    ) -> None:
        """Enter outcomes, and note what was none."""
        outcomes: list[tuple[Job, Checked]] = []
        for job, checked in ended:
            if checked is not None and checked.status == "not_checked":
                run.not_checked += 1
                if len(run.reasons) < _MOST_REASONS:
                    run.reasons.add(checked.messages[0].text)
            elif checked is not None:
                outcomes.append((job, checked))
        ids = self._store.retrying(partial(self._enter, lab_id=run.lab_id, outcomes=outcomes), seconds=3600)
        run.done += len(ended)
        if ids is None:
            self.cancel(run.lab_id)
            return
        for (job, checked), result_id in zip(outcomes, ids, strict=True):
            if checked.verdict is not None and _is_wrong(job, checked):
                wrong.append(Wrong(result_id, checked.verdict.cluster, _task(job, files)))

    def _enter(self, c: Connection, lab_id: int, outcomes: list[tuple[Job, Checked]]) -> list[int] | None:
        """Keep outcomes, and the marks that come of those that count, in one transaction; gives the outcomes' ids. None
        where the lab was taken away meanwhile: then nothing is kept, and whoever takes it back has it checked anew."""
        if not outcomes:
            return []
        lab = course.lab(c, lab_id)  # as it is now: somebody may have changed it while this was checked
        if lab is None:
            return None
        summaries = [_summary(job, checked) for job, checked in outcomes]
        ids = results.add_results(
            c,
            [_new_result(job, checked, summary) for (job, checked), summary in zip(outcomes, summaries, strict=True)],
        )
        ledger = Ledger(c, lab, [job.handin_id for job, _ in outcomes])
        attempts = handins.lab_attempts(c, lab_id)
        fresh = dict(zip(ids, summaries, strict=True))
        for task in course.tasks_of(c, lab_id):
            mine = {job.handin_id: job for job, _ in outcomes if job.task_id == task.id}
            state = task_state(c, task, attempts, self._kept) if mine else None
            for handin_id, job in mine.items():
                # What came last may turn out to be for another task: then an outcome of before is the one that counts.
                result = state.by_handin.get(handin_id) if state is not None else None
                if state is None or result is None:
                    continue
                summary = fresh.get(result.id) if result.status == "checked" else None
                if summary is None and result.status == "checked":
                    summary = kept_summary(c, result, job.spec.expectation, self._kept)
                earned = summary.earned if summary is not None else None
                attempt = state.counting[handin_id]
                ledger.enter(handin_id, task.id, result.id, result.status, earned, attempt)
        ledger.write()
        return ids


def _summary(job: Job, checked: Checked) -> OutcomeSummary | None:
    """What is kept of an outcome for the class's pages; None where it was not checked."""
    if checked.verdict is None or checked.status != "checked":
        return None
    return summary_of(job.spec.expectation, checked.verdict, checked.rules)


def _new_result(job: Job, checked: Checked, summary: OutcomeSummary | None) -> NewResult:
    basis = results.Basis(
        job.spec.version_id, job.spec.files_digest, engine_version(), results.choices_digest(job.choices)
    )
    count = job.spec.expectation.cases.count
    text = summary.model_dump_json() if summary is not None else None
    return NewResult(job.attempt_id, job.task_id, basis, checked, count, job.against, text)


def _task(job: Job, files: dict[int, tuple[HandinFile, ...]]) -> Task:
    return Task(job.spec.files, files[job.attempt_id], job.spec.provided, job.choices)


def _is_wrong(job: Job, checked: Checked) -> bool:
    """Whether a hand-in was checked and some case is not right."""
    return (
        checked.status == "checked"
        and checked.verdict is not None
        and checked.verdict.right != job.spec.expectation.cases.full
    )


def _by_text(wrong: list[Wrong]) -> list[tuple[Task, list[Wrong]]]:
    """Wrong outcomes of one text together; first one of each cluster, those of large clusters before others."""
    texts: dict[Task, list[Wrong]] = {}
    for w in wrong:
        texts.setdefault(w.task, []).append(w)
    size = Counter(w.cluster for w in wrong)
    seen: Counter[str] = Counter()
    ordered: list[tuple[int, int, Task]] = []
    for task, alike in texts.items():
        cluster = alike[0].cluster
        ordered.append((seen[cluster], -size[cluster], task))
        seen[cluster] += 1
    return [(task, texts[task]) for _, _, task in sorted(ordered, key=lambda each: each[:2])]


def _hand_over(finished: queue.SimpleQueue[tuple[int, Checked | None]], number: int, checked: Checked | None) -> None:
    finished.put((number, checked))


def _taken(
    finished: queue.SimpleQueue[tuple[int, Checked | None]], most: int, seconds: float
) -> list[tuple[int, Checked | None]]:
    """What has finished: at least one, with those that follow at once; nothing where none comes for so long."""
    try:
        ended = [finished.get(timeout=seconds)]
    except queue.Empty:
        return []
    end = time.monotonic() + _GATHERING
    while len(ended) < min(most, _MOST_AT_ONCE):
        try:
            ended.append(finished.get(timeout=max(0.0, end - time.monotonic())))
        except queue.Empty:
            break
    return ended
