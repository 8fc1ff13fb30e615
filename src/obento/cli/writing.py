"""The result files of `obento check`."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import TextIO

from obento.cli.reported import Reported
from obento.core.check.expectation.model import Expectation
from obento.core.check.report import Shown
from obento.export.result_files import CsvResult, JsonResult, JunitResult, ResultFile, TapResult


class CallError(Exception):
    """The call is wrong; the text says what and what to do."""


@dataclass(frozen=True, slots=True)
class Outputs:
    json: Path | None
    csv: Path | None
    junit: Path | None
    tap: Path | None


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
        with told(path):
            is_plain = not path.is_symlink() and (path.is_file() or not path.exists())
            place = path.with_name(f".{path.name}.part") if is_plain else path
            return cls(path, form, place, place.open("w", encoding="utf-8", newline=""))

    def put(self, text: str) -> None:
        with told(self.path):
            self.out.write(text)

    def finish(self, is_whole: bool) -> None:
        with told(self.path):
            self.out.close()
            if self.place == self.path:
                return
            if is_whole:
                self.place.replace(self.path)
            else:
                self.place.unlink()


class ResultFiles:
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

    def __enter__(self) -> ResultFiles:
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
def told(path: Path) -> Iterator[None]:
    """Say of which file it was that it could not be written."""
    try:
        yield
    except OSError as error:
        raise CallError(f"{path}: {error.strerror or error}") from error
