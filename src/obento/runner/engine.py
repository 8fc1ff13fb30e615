"""Which engine gave a verdict: the version, and a print of the core's own text, so that no change goes unnoticed."""

from __future__ import annotations

import hashlib
from functools import lru_cache
from pathlib import Path

import obento.core
from obento import __version__


def engine_files(folder: Path) -> list[Path]:
    """Everything that a verdict comes from: all files of the core, whatever their kind, but for what Python makes of
    them."""
    return sorted(f for f in folder.rglob("*") if f.is_file() and "__pycache__" not in f.parts)


@lru_cache(maxsize=1)
def engine_version() -> str:
    """The version and the print of the core; it stands with every outcome."""
    folder = Path(obento.core.__file__).parent
    digest = hashlib.sha256()
    for file in engine_files(folder):
        digest.update(file.relative_to(folder).as_posix().encode() + b"\0" + file.read_bytes())
    return f"{__version__}+{digest.hexdigest()[:10]}"
