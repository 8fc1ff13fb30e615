"""Specs of tasks, opened once and kept."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass

from obento.core.check.check import LoadedSpec
from obento.core.check.expectation.model import Expectation
from obento.core.diagnostics import Message
from obento.core.handin import HandinFile
from obento.runner.pool import BUSY
from obento.runner.worker import SpecFiles
from obento.server.errors import Trouble
from obento.server.specs.cases import case_labels
from obento.store import course, specs
from obento.store.connection import Connection, Store
from obento.store.specs import SpecVersion

_KEPT = 24


class CaseLabels:
    """The labels of a spec's cases, written once."""

    def __init__(self, expectation: Expectation) -> None:
        self._expectation = expectation
        self._known: list[str] = []

    def first(self, count: int) -> list[str]:
        """Those of the first cases."""
        start = len(self._known)
        if start < count:
            self._known = self._known + case_labels(self._expectation, range(start, count))
        return self._known[:count]


@dataclass(frozen=True, slots=True)
class _Kept:
    loaded: LoadedSpec
    labels: CaseLabels | None


@dataclass(frozen=True, slots=True)
class OpenSpec:
    version_id: int
    number: int
    files: SpecFiles
    provided: tuple[HandinFile, ...]
    files_digest: str
    expectation: Expectation
    case_labels: CaseLabels

    def labels(self, count: int) -> list[str]:
        """The labels of the first cases."""
        return self.case_labels.first(count)


Opener = Callable[[SpecFiles], LoadedSpec | str]
"""Opens a spec; a sentence where it could not be done."""


class OpenedSpecs:
    """Opened specs by what they are made of; the least used one is dropped. What somebody wrote is never run here:
    `how` has a worker do it."""

    def __init__(self, how: Opener = SpecFiles.open) -> None:
        self._how = how
        self._kept: OrderedDict[SpecFiles, _Kept] = OrderedDict()
        self._lock = threading.Lock()
        self._opening: dict[SpecFiles, threading.Lock] = {}

    def load(self, files: SpecFiles) -> LoadedSpec:
        """A spec as it was opened, right or not.

        Raises
        ------
        Trouble
            503 where the machine has no time to open it.
        """
        return self._load(files).loaded

    def known(self, files: SpecFiles) -> LoadedSpec | None:
        """A spec that was opened lately."""
        with self._lock:
            kept = self._kept.get(files)
        return kept.loaded if kept is not None else None

    def keep(self, files: SpecFiles, answer: LoadedSpec | str) -> LoadedSpec:
        """Keep what a worker made of a spec; one that it could not open is one with an error."""
        if answer == BUSY:
            raise Trouble(503, BUSY)
        return self._keep(files, answer).loaded

    def _load(self, files: SpecFiles) -> _Kept:
        with self._lock:
            if files in self._kept:
                self._kept.move_to_end(files)
                return self._kept[files]
            opening = self._opening.setdefault(files, threading.Lock())
        with opening:  # whoever else wants it waits for the one who opens it
            with self._lock:
                if files in self._kept:
                    return self._kept[files]
            answer = self._how(files)
            if answer == BUSY:
                raise Trouble(503, BUSY)
            kept = self._keep(files, answer)
        with self._lock:
            self._opening.pop(files, None)
        return kept

    def _keep(self, files: SpecFiles, answer: LoadedSpec | str) -> _Kept:
        loaded = _not_opened(files, answer) if isinstance(answer, str) else answer
        labels = CaseLabels(loaded.expectation) if loaded.expectation is not None else None
        kept = _Kept(loaded, labels)
        with self._lock:
            self._kept[files] = kept
            while len(self._kept) > _KEPT:
                self._kept.popitem(last=False)
        return kept

    def warm(self, store: Store, lab_id: int) -> None:
        """Open the specs of a lab, so that nobody who has begun a transaction waits for a worker in it."""
        with store.transaction() as c:
            rows = [specs.current_spec(c, task.id) for task in course.tasks_of(c, lab_id) if task.is_right]
            waiting = [version_spec(c, row) for row in rows if row is not None]
        for files in waiting:
            self.load(files)

    def current(self, c: Connection, task_id: int) -> OpenSpec:
        """The newest version of a task's spec.

        Raises
        ------
        Trouble
            If there is none, or it has errors.
        """
        row = specs.current_spec(c, task_id)
        if row is None:
            raise Trouble(409, "this task has no spec yet; write one first")
        files = version_spec(c, row)
        kept = self._load(files)
        if kept.loaded.expectation is None or kept.labels is None:
            raise Trouble(409, "the spec has errors; mend it before anything is checked")
        provided = tuple(HandinFile(name, data) for name, data in specs.version_files(c, row, provided=True))
        return OpenSpec(row.id, row.number, files, provided, row.files_digest, kept.loaded.expectation, kept.labels)


def spec_files(c: Connection, task_id: int, text: str) -> SpecFiles:
    """A text that may become the next version, with the files that lie beside it now."""
    return SpecFiles("spec.toml", text.encode(), tuple(specs.task_files(c, task_id, provided=False)))


def version_spec(c: Connection, version: SpecVersion) -> SpecFiles:
    """A version as it was saved or, once it was used, frozen."""
    return SpecFiles(
        "spec.toml", version.text.encode(), tuple(specs.version_files(c, version, provided=False)), version.edition
    )


def starter_spec(title: str) -> str:
    """The text a new task begins with."""
    return f"""obento = "spec/1"
title  = {_toml(title)}
unit   = "my_unit"               # the module, entity or wiring list to be handed in

[ports]
in  = "shut locked request"
out = "green hold"

[expect]
equations = \'\'\'
green = request & shut & locked
hold  = request & !green
\'\'\'

[marks]
total = 10
by = "cases"

[students]
see = "first-failing"
"""


def _toml(text: str) -> str:
    return '"' + text.replace("\\", "\\\\").replace('"', '\\"').replace("\n", " ") + '"'


def _not_opened(files: SpecFiles, why: str) -> LoadedSpec:
    message = Message("error", "limit", files.name, 1, 1, f"what is expected cannot be worked out: {why}")
    return LoadedSpec(None, None, [message])
