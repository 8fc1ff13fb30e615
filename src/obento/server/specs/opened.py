"""Specs of tasks, opened once and kept."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from typing import TypeVar

from obento.core.check.check import LoadedSpec
from obento.core.check.expectation.model import Expectation
from obento.core.diagnostics import Message
from obento.core.handin import HandinFile
from obento.runner.pool import BUSY
from obento.runner.worker import SpecFiles
from obento.server.errors import Trouble
from obento.server.specs.cases import case_labels
from obento.store import specs
from obento.store.connection import Connection
from obento.store.specs import SpecVersion

T = TypeVar("T")

_KEPT = 96
MOST_OPENED = _KEPT
"""Specs opened for one piece of work; a lab of more tasks than are kept would otherwise go round for ever."""


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


class NotOpened(Exception):
    """What a transaction needs is a spec that nobody has opened lately: it ends, the spec is opened (`meanwhile`), and
    it begins again. So nothing is held while a worker has it."""

    def __init__(self, files: SpecFiles) -> None:
        super().__init__(files.name)
        self.files = files


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

    def inside(self, files: SpecFiles) -> LoadedSpec:
        """A spec that a transaction needs.

        Raises
        ------
        NotOpened
            If it has to be opened first.
        """
        return self._inside(files).loaded

    def _inside(self, files: SpecFiles) -> _Kept:
        with self._lock:
            if files not in self._kept:
                raise NotOpened(files)
            self._kept.move_to_end(files)
            return self._kept[files]

    def meanwhile(self, work: Callable[[], T]) -> T:
        """Do `work`, from the beginning after each spec that it needs and that has to be opened first."""
        for _ in range(MOST_OPENED):
            try:
                return work()
            except NotOpened as missing:
                self.load(missing.files)
        raise too_many_specs()

    def current(self, c: Connection, task_id: int) -> OpenSpec:
        """The newest version of a task's spec.

        Raises
        ------
        Trouble
            If there is none, or it has errors.
        NotOpened
            If it has to be opened first.
        """
        row = specs.current_spec(c, task_id)
        if row is None:
            raise Trouble(409, "this task has no spec yet; write one first")
        files = version_spec(c, row)
        kept = self._inside(files)
        if kept.loaded.expectation is None or kept.labels is None:
            raise Trouble(409, "the spec has errors; mend it before anything is checked")
        provided = tuple(HandinFile(name, data) for name, data in specs.version_files(c, row, provided=True))
        return OpenSpec(row.id, row.number, files, provided, row.files_digest, kept.loaded.expectation, kept.labels)


def too_many_specs() -> Trouble:
    """A lab of more tasks than are kept open at once."""
    return Trouble(503, "this lab has more tasks than can be kept open at once")


def spec_files(c: Connection, task_id: int, text: str) -> SpecFiles:
    """A text that may become the next version, with the files that lie beside it now."""
    return SpecFiles("spec.toml", text.encode(), tuple(specs.task_files(c, task_id, provided=False)))


def version_spec(c: Connection, version: SpecVersion) -> SpecFiles:
    """A version as it was saved or, once it was used, frozen."""
    return SpecFiles(
        "spec.toml", version.text.encode(), tuple(specs.version_files(c, version, provided=False)), version.edition
    )


def _not_opened(files: SpecFiles, why: str) -> LoadedSpec:
    message = Message("error", "limit", files.name, 1, 1, f"what is expected cannot be worked out: {why}")
    return LoadedSpec(None, None, [message])
