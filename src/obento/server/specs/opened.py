"""Specs of tasks, opened once and kept."""

from __future__ import annotations

import threading
from collections import OrderedDict
from dataclasses import dataclass

from obento.core.check.check import LoadedSpec
from obento.core.check.expectation.model import Expectation
from obento.core.handin import HandinFile
from obento.runner.worker import SpecFiles
from obento.server.errors import Trouble
from obento.server.specs.cases import case_labels
from obento.store import specs
from obento.store.connection import Connection
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


class OpenedSpecs:
    """Opened specs by what they are made of; the least used one is dropped."""

    def __init__(self) -> None:
        self._kept: OrderedDict[SpecFiles, _Kept] = OrderedDict()
        self._lock = threading.Lock()

    def load(self, files: SpecFiles) -> LoadedSpec:
        """A spec as it was opened, right or not."""
        return self._load(files).loaded

    def _load(self, files: SpecFiles) -> _Kept:
        with self._lock:
            if files in self._kept:
                self._kept.move_to_end(files)
                return self._kept[files]
        loaded = files.open()
        labels = CaseLabels(loaded.expectation) if loaded.expectation is not None else None
        kept = _Kept(loaded, labels)
        with self._lock:
            self._kept[files] = kept
            while len(self._kept) > _KEPT:
                self._kept.popitem(last=False)
        return kept

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
