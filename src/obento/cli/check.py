"""The command `obento check`."""

from __future__ import annotations

import json
import os
import sys
import threading
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from rich.console import Console
from rich.progress import Progress
from rich.table import Table

from obento.core.check.check import Checked
from obento.core.check.expect import Expectation
from obento.core.check.report import Shown, report
from obento.core.handin import HandinFile
from obento.export.tables import csv_text, junit_text, tap_text
from obento.intake.archive import ArchiveError, open_inner, read_folder, read_zip
from obento.intake.batch import split_children
from obento.runner.pool import CheckPool
from obento.runner.worker import SpecFiles, Task, opened

_WIDEST_STRIP = 32


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
    errors = Console(stderr=True, highlight=False, soft_wrap=True)
    try:
        files = spec_files(spec)
        loaded = opened(files)
        for message in loaded.messages:
            errors.print(str(message), markup=False)
        if loaded.expectation is None:
            return 2
        found = _gather(handins, batch, errors)
        checked = _run_all(files, found, jobs)
        _write(loaded.expectation, checked, outputs, cases)
    except CallError as error:
        errors.print(f"error: {error}", markup=False)
        return 2
    _show(loaded.expectation, checked)
    return 0 if all(c.verdict is not None and not _failing(c) for _, c in checked) else 1


def _failing(checked: Checked) -> bool:
    assert checked.verdict is not None
    return checked.verdict.right.bit_count() != checked.verdict.count or checked.status != "checked" or not all(r.ok for r in checked.rules)


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
            if p.is_file() and p != spec and p.suffix.lower() in (".v", ".vh", ".sv", ".wiring", ".csv") and p.stat().st_size < 4_000_000
        ]
    except OSError as error:
        raise CallError(f"{spec}: {error.strerror or error}") from error
    mentioned = [(name, content) for name, content in others if name.encode() in data]
    return SpecFiles(spec.name, data, tuple(mentioned))


def _gather(paths: Sequence[Path], batch: bool, errors: Console) -> dict[str, list[HandinFile]]:
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
            errors.print(f"{path}: left out {text}", markup=False)
        if batch:
            children = split_children(inner.files)
            if path.is_dir():  # a student's empty folder is a hand-in with nothing in it
                for child in path.iterdir():
                    if child.is_dir() and not child.name.startswith(".") and len(list(path.iterdir())) > 1:
                        children.setdefault(child.name, [])
        else:
            children = {path.name if path.is_dir() else path.stem: inner.files}
        for name, files in sorted(children.items()):
            found[name if name not in found else f"{path.name}/{name}"] = files
    if not found:
        raise CallError("there is nothing to check")
    return found


def _run_all(spec: SpecFiles, handins: dict[str, list[HandinFile]], jobs: int) -> list[tuple[str, Checked]]:
    workers = min(jobs or os.cpu_count() or 1, len(handins))
    outcomes: dict[str, Checked] = {}
    finished = threading.Semaphore(0)

    def note(name: str, outcome: Checked | None) -> None:
        if outcome is not None:
            outcomes[name] = outcome
        finished.release()

    with CheckPool(workers, start="fork") as pool:
        for name, files in handins.items():
            task = Task(spec, tuple(files))
            pool.submit(task, lambda outcome, name=name: note(name, outcome))  # type: ignore[misc]
        with Progress(transient=True, console=Console(stderr=True), disable=len(handins) < 8 or not sys.stderr.isatty()) as progress:
            bar = progress.add_task("checking", total=len(handins))
            for _ in handins:
                finished.acquire()
                progress.advance(bar)
    return [(name, outcomes[name]) for name in handins]


def _write(expectation: Expectation, checked: list[tuple[str, Checked]], outputs: Outputs, cases: Shown) -> None:
    data = report(expectation, checked, cases)
    texts = [
        (outputs.json, lambda: json.dumps(data, ensure_ascii=False, indent=1) + "\n"),
        (outputs.csv, lambda: csv_text(data)),
        (outputs.junit, lambda: junit_text(expectation, checked, cases)),
        (outputs.tap, lambda: tap_text(expectation, checked)),
    ]
    for path, make in texts:
        if path is None:
            continue
        try:
            path.write_text(make(), encoding="utf-8", newline="")
        except OSError as error:
            raise CallError(f"{path}: {error.strerror or error}") from error


def _show(expectation: Expectation, checked: list[tuple[str, Checked]]) -> None:
    console = Console(highlight=False)
    table = Table(box=None, pad_edge=False, header_style="bold")
    for head in ("hand-in", "status", "right", "cases" if expectation.cases.count <= _WIDEST_STRIP else "", "why"):
        table.add_column(head, overflow="fold")
    for name, c in checked:
        v = c.verdict
        right = f"{v.right.bit_count()}/{v.count}" if v else "-"
        strip = v.cells() if v and v.count <= _WIDEST_STRIP else ""
        first = next((str(m) for m in c.messages if m.severity == "error"), "")
        bound = ", ".join(f"{b.theirs} for {b.ours} ({b.how})" for b in c.binding if b.how != "exact")
        rules = "; ".join(r.text for r in c.rules if not r.ok)
        why = first or "; ".join(x for x in (c.findings[0].text if c.findings else "", rules, bound) if x)
        table.add_row(*(_plain(x) for x in (name, c.status, right, strip, why)))
    console.print(table)
    good = sum(c.verdict is not None and not _failing(c) for _, c in checked)
    console.print(f"{good} of {len(checked)} right on all {expectation.cases.count} cases")


def _plain(text: str) -> str:
    """Text for the terminal: no markup, no control characters."""
    return "".join(c if c.isprintable() else "?" for c in text).replace("[", "\\[")
