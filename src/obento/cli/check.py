"""The command `obento check`."""

from __future__ import annotations

import os
import queue
import sys
from collections.abc import Iterator, Sequence
from functools import partial
from pathlib import Path

from obento.cli.reported import Reported, ReportTask, reported, run_reported
from obento.cli.writing import CallError, Outputs, ResultFiles
from obento.core.check.check import LoadedSpec
from obento.core.check.judging.outcome import Checked
from obento.core.check.report import Shown
from obento.core.handin import HandinFile
from obento.intake.archive import ArchiveError, open_inner, read_folder, unpack
from obento.intake.batch import split_children
from obento.runner.pool import CheckPool
from obento.runner.worker import SpecFiles, Task, opened, stopped


def run_check(spec: Path, handins: Sequence[Path], batch: bool, outputs: Outputs, jobs: int, cases: Shown) -> int:
    """Returns the exit status."""
    try:
        files, loaded = told_spec(spec)
        if loaded.expectation is None:
            return 2
        found = _gather(handins, batch)
        checked: list[tuple[str, Checked]] = []
        with ResultFiles(loaded.expectation, outputs, cases) as written:
            for name, outcome in _run_all(files, found, jobs, outputs, cases):
                written.add(name, outcome)
                checked.append((name, outcome.checked))
    except CallError as error:
        print(f"error: {error}", file=sys.stderr)
        return 2
    from obento.cli.show import show_table  # the terminal's library is only needed from here on

    show_table(loaded.expectation, checked, is_right)
    if any(c.status == "not_checked" for _, c in checked):
        print(
            "error: some of these could not be checked, through no fault of theirs; check them again", file=sys.stderr
        )
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
                inner = open_inner(drop.files)
                inner.left_out = drop.left_out + inner.left_out
            elif batch and path.suffix.lower() != ".zip":
                raise CallError(f"{path}: --batch takes a folder or a zip")
            else:
                with path.open("rb") as source:
                    inner = unpack(path.name, source)
        except (OSError, ArchiveError) as error:
            raise CallError(f"{path}: {error.strerror if isinstance(error, OSError) else error}") from error
        for text in inner.left_out:
            print(f"{path}: left out {text}", file=sys.stderr)
        if batch:
            children = split_children(inner.files)
            if path.is_dir():  # a student's empty folder is a hand-in with nothing in it
                beside = list(path.iterdir())
                for child in beside if len(beside) > 1 else ():
                    if child.is_dir() and not child.name.startswith("."):
                        children.setdefault(child.name, [])
        else:
            children = {path.name if path.is_dir() else path.stem: [f.as_handin(f.path) for f in inner.files]}
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
