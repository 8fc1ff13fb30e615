"""`obento simulate`: run a bench; what it prints is all that stands on standard output."""

from __future__ import annotations

import sys
import time
from pathlib import Path

from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.simulate import UNREADABLE, BadCall, Options, simulate

_RECURSION = 20_000


def run_simulate(
    files: list[Path], top: str | None, until: str | None, vcd: Path | None, folder: Path | None, seconds: float
) -> int:
    """Run the files; the exit status (docs/formats.md)."""
    sys.setrecursionlimit(_RECURSION)
    given: list[HandinFile] = []
    for path in _expanded(files):
        try:
            given.append(HandinFile(path.as_posix(), path.read_bytes()))
        except OSError as error:
            print(f"obento: {path}: {error.strerror}", file=sys.stderr)
            return UNREADABLE
    end = time.process_time() + seconds
    try:
        outcome = simulate(
            given,
            print_text,
            Options(top, until, vcd.name if vcd else None),
            for_simulation(),
            lambda: time.process_time() > end,
        )
    except BadCall as bad:
        print(f"obento: {bad}", file=sys.stderr)
        return UNREADABLE
    sys.stdout.flush()
    for message in outcome.messages:
        print(message, file=sys.stderr)
    if vcd is not None and vcd.name in outcome.written:
        vcd.write_text(outcome.written.pop(vcd.name), encoding="latin-1")
    _keep(outcome.written, folder)
    return outcome.status


def print_text(text: str) -> None:
    """What the bench prints, as it stands."""
    sys.stdout.write(text)


def _expanded(files: list[Path]) -> list[Path]:
    """Folders as the files in them."""
    found: list[Path] = []
    for path in files:
        found += sorted(p for p in path.rglob("*") if p.is_file()) if path.is_dir() else [path]
    return found


def _keep(written: dict[str, str], folder: Path | None) -> None:
    """The files that the bench wrote: into the folder asked for, under their own last names only."""
    if not written:
        return
    if folder is None:
        names = ", ".join(sorted(written)[:4])
        print(f"obento: the bench wrote {names}; --files FOLDER keeps what it writes", file=sys.stderr)
        return
    folder.mkdir(parents=True, exist_ok=True)
    for name, text in written.items():
        last = name.replace("\\", "/").rpartition("/")[2].lstrip(".") or "unnamed"
        (folder / last).write_text(text, encoding="latin-1")
