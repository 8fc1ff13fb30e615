"""Files that come with a request."""

from __future__ import annotations

from fastapi import UploadFile

from obento.server.errors import Trouble


def whole(file: UploadFile, most: int) -> bytes:
    """All of a file.

    Raises
    ------
    Trouble
        413 where it is larger than `most` bytes: a part of a file is never taken for the file.
    """
    data = file.file.read(most + 1)
    if len(data) > most:
        raise Trouble(413, f"this file is larger than {most / 1_000_000:g} MB; nothing of it was taken in")
    return data
