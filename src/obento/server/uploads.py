"""Files that come with a request."""

from __future__ import annotations

import io

from fastapi import UploadFile

from obento.server.errors import Trouble


def within(file: UploadFile, most: int) -> None:
    """Raises `Trouble` (413) where a file is larger than `most` bytes: a part of a file is never taken for the file."""
    size = file.file.seek(0, io.SEEK_END)
    file.file.seek(0)
    if size > most:
        raise Trouble(413, f"this file is larger than {most / 1_000_000:g} MB; nothing of it was taken in")


def whole(file: UploadFile, most: int) -> bytes:
    """All of a file; raises `Trouble` as `within` does."""
    within(file, most)
    return file.file.read()
