"""The command `obento check`."""

from __future__ import annotations

import os
import queue
import sys
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import TextIO

from obento.cli.reported import Reported, ReportTask, reported, run_reported
from obento.core.check.check import LoadedSpec
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Checked
from obento.core.check.report import Shown
from obento.core.handin import HandinFile
from obento.export.result_files import CsvResult, JsonResult, JunitResult, ResultFile, TapResult
from obento.intake.archive import ArchiveError, open_inner, read_folder, read_zip
from obento.intake.batch import split_children
from obento.runner.pool import CheckPool
from obento.runner.worker import SpecFiles, Task, opened, stopped


class CallError(Exception):
    """The call is wrong; the text says what and what to do."""


@dataclass(frozen=True, slots=True)
class Outputs:
    json: Path | None
    csv: Path | None
    junit: Path | None
    tap: Path | None


def run_check(spec: Path, handins: Sequence[Path], batch: bool, outputs: Outputs, jobs: int, cases: Shown) -> int:
    """Returns the exit status."""
    try:
        files, loaded = told_spec(spec)
        if loaded.expectation is None:
            return 2
        found = _gather(handins, batch)
        checked: list[tuple[str, Checked]] = []
        with _Written(loaded.expectation, outputs, cases) as written:
            for name, outcome in _run_all(files, found, jobs, outputs, cases):
                written.add(name, outcome)
                checked.append((name, outcome.checked))
    except CallError as error:
        print(f"error: {error}", file=sys.stderr)
        return 2
    from obento.cli.show import show_table  # the terminal's library is only needed from here on

    show_table(loaded.expectation, checked, is_right)
    if any(c.status == "busy" for _, c in checked):
        print("error: the machine was too busy to check all of these; check them again", file=sys.stderr)
        return 3
    return 0 if all(is_right(c) for _, c in checked) else 1


def is_right(checked: Checked) -> bool:
    """Right on all cases, and by the rules."""
    v = checked.verdict
    return (
        v is not None
        and checked.status == "checked"
        and v.right.bit_count() == v.count
        and all(r.ok for r in checked.rules)
    )


def told_spec(spec: Path) -> tuple[SpecFiles, LoadedSpec]:
    """A spec, opened; what there is to say of it is said.

    Raises
    ------
    CallError
        If it cannot be read.
    """
    files = spec_files(spec)
    loaded = opened(files)
    for message in loaded.messages:
        print(message, file=sys.stderr)
    return files, loaded


def spec_files(spec: Path) -> SpecFiles:
    """A spec file and what stands beside it.

    Raises
    ------
    CallError
        If it cannot be read.
    """
    try:
        data = spec.read_bytes()
        others = [
            (p.name, p.read_bytes())
            for p in sorted(spec.parent.iterdir())
            if p.is_file()
            and p != spec
            and p.suffix.lower() in (".v", ".vh", ".sv", ".vhd", ".vhdl", ".wiring", ".csv")
            and p.stat().st_size < 4_000_000
        ]
    except OSError as error:
        raise CallError(f"{spec}: {error.strerror or error}") from error
    mentioned = [(name, content) for name, content in others if name.encode() in data]
    return SpecFiles(spec.name, data, tuple(mentioned))


def _gather(paths: Sequence[Path], batch: bool) -> dict[str, list[HandinFile]]:
    found: dict[str, list[HandinFile]] = {}
    for path in paths:
        try:
            if path.is_dir():
                drop = read_folder(path)
            elif path.suffix.lower() == ".zip":
                drop = read_zip(path.read_bytes())
            elif batch:
                raise CallError(f"{path}: --batch takes a folder or a zip")
            else:
                drop = open_inner([])
                drop.files = [HandinFile(path.name, path.read_bytes())]
            inner = open_inner(drop.files)
        except (OSError, ArchiveError) as error:
            raise CallError(f"{path}: {error.strerror if isinstance(error, OSError) else error}") from error
        for text in [*drop.left_out, *inner.left_out]:
            print(f"{path}: left out {text}", file=sys.stderr)
        if batch:
            children = split_children(inner.files)
            if path.is_dir():  # a student's empty folder is a hand-in with nothing in it
                beside = list(path.iterdir())
                for child in beside if len(beside) > 1 else ():
                    if child.is_dir() and not child.name.startswith("."):
                        children.setdefault(child.name, [])
        else:
            children = {path.name if path.is_dir() else path.stem: inner.files}
        for name, files in sorted(children.items()):
            found[name if name not in found else f"{path.name}/{name}"] = files
    if not found:
        raise CallError("there is nothing to check")
    return found


def _run_all(
    spec: SpecFiles, handins: dict[str, list[HandinFile]], jobs: int, outputs: Outputs, cases: Shown
) -> Iterator[tuple[str, Reported]]:
    """Check all side by side; outcomes come in the order of the hand-ins, each as soon as it may."""
    workers = min(jobs or os.cpu_count() or 1, len(handins))
    finished: queue.SimpleQueue[tuple[str, Reported]] = queue.SimpleQueue()

    def note(asked: ReportTask, outcome: Reported | Checked | None) -> None:
        if not isinstance(outcome, Reported):
            outcome = reported(asked, outcome or stopped("this was cancelled"))
        finished.put((asked.name, outcome))

    with CheckPool(workers, start="fork") as pool:
        for name, files in handins.items():
            asked = ReportTask(
                Task(spec, tuple(files)), name, outputs.json is not None, outputs.junit is not None, cases
            )
            pool.submit(asked, partial(note, asked), run_reported)
        from obento.cli.show import progress_of  # loaded while the workers work

        early: dict[str, Reported] = {}
        with progress_of(len(handins)) as advance:
            for name in handins:
                while name not in early:
                    other, outcome = finished.get()
                    early[other] = outcome
                    advance()
                yield name, early.pop(name)


@dataclass(frozen=True, slots=True)
class _OpenFile:
    """A result file while it is written: beside its place, so that what was there stays until this is whole. A link, a
    device or a pipe is written at once."""

    path: Path
    form: ResultFile
    place: Path
    out: TextIO

    @classmethod
    def begin(cls, path: Path, form: ResultFile) -> _OpenFile:
        with _told(path):
            is_plain = not path.is_symlink() and (path.is_file() or not path.exists())
            place = path.with_name(f".{path.name}.part") if is_plain else path
            return cls(path, form, place, place.open("w", encoding="utf-8", newline=""))

    def put(self, text: str) -> None:
        with _told(self.path):
            self.out.write(text)

    def finish(self, is_whole: bool) -> None:
        with _told(self.path):
            self.out.close()
            if self.place == self.path:
                return
            if is_whole:
                self.place.replace(self.path)
            else:
                self.place.unlink()


class _Written:
    """The result files of one call, written hand-in by hand-in."""

    def __init__(self, expectation: Expectation, outputs: Outputs, cases: Shown) -> None:
        wanted: list[tuple[Path | None, ResultFile]] = [
            (outputs.json, JsonResult(expectation, cases)),
            (outputs.csv, CsvResult(expectation)),
            (outputs.junit, JunitResult(expectation, cases)),
            (outputs.tap, TapResult(expectation)),
        ]
        self._wanted = [(path, form) for path, form in wanted if path is not None]
        self._files: list[_OpenFile] = []
        self._is_first = True

    def __enter__(self) -> _Written:
        try:
            for path, form in self._wanted:
                self._files.append(_OpenFile.begin(path, form))
                self._files[-1].put(form.head)
        except CallError:
            self._finish(False)
            raise
        return self

    def add(self, name: str, outcome: Reported) -> None:
        """Write the parts of one hand-in."""
        for file in self._files:
            form = file.form
            part = (
                outcome.json
                if isinstance(form, JsonResult)
                else outcome.junit
                if isinstance(form, JunitResult)
                else form.part(name, outcome.checked)
            )
            file.put(("" if self._is_first else form.between) + (part or ""))
        self._is_first = False

    def _finish(self, is_whole: bool) -> None:
        for file in self._files:
            file.finish(is_whole)

    def __exit__(self, kind: object, error: object, trace: object) -> None:
        if kind is None:
            for file in self._files:
                file.put(file.form.tail)
        self._finish(kind is None)


@contextmanager
def _told(path: Path) -> Iterator[None]:
    """Say of which file it was that it could not be written."""
    try:
        yield
    except OSError as error:
        raise CallError(f"{path}: {error.strerror or error}") from error
