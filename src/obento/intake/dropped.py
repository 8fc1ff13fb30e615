"""A file of a drop before it is anybody's: known by path, size and kind, its content on disk until it is wanted."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path

from obento.core.handin import HandinFile

_ZIP = (b"PK\x03\x04", b"PK\x05\x06")
"""How a zip begins (APPNOTE 4.3.7, 4.3.16)."""


@dataclass(frozen=True, slots=True)
class DroppedFile:
    """`refused` says why it could not be taken in; it has no content then."""

    path: str
    size: int
    refused: str = ""
    is_zip: bool = False
    _read: Callable[[], bytes] = field(default=bytes, repr=False, compare=False)

    @property
    def data(self) -> bytes:
        """Its content, read anew each time."""
        return self._read()

    def as_handin(self, path: str) -> HandinFile:
        """With its content, under the path that it has in its hand-in."""
        return HandinFile(path, self.data, self.refused)


def refused(path: str, why: str) -> DroppedFile:
    """A file that is there but could not be taken in."""
    return DroppedFile(path, 0, why)


def on_disk(path: str, place: Path) -> DroppedFile:
    """A file of a folder, read when it is wanted.

    Raises
    ------
    OSError
        If it cannot be read.
    """
    with place.open("rb") as stream:
        head = stream.read(4)
    return DroppedFile(path, place.stat().st_size, "", head in _ZIP, place.read_bytes)


class Spool:
    """Contents of one drop, one after the other in a file without a name: it goes with whoever holds the last of them.
    Not for several threads at once.

    Parameters
    ----------
    folder
        Where there is room; the system's place for temporary files when left out.
    """

    def __init__(self, folder: Path | None = None) -> None:
        self._file = tempfile.TemporaryFile(dir=folder)  # noqa: SIM115 - closed with its last holder
        self._end = 0

    def keep(self, path: str, data: bytes) -> DroppedFile:
        """Write a content away.

        Raises
        ------
        OSError
            If the disk is full.
        """
        self._file.seek(self._end)
        self._file.write(data)
        at, self._end = self._end, self._end + len(data)
        return DroppedFile(path, len(data), "", data[:4] in _ZIP, partial(self._read, at, len(data)))

    def _read(self, at: int, size: int) -> bytes:
        self._file.flush()
        return os.pread(self._file.fileno(), size, at)
