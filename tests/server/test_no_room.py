"""The disk is full while a drop is unpacked: said, and nothing of it is kept."""

from __future__ import annotations

import errno
import os

import pytest

from obento.intake.dropped import DroppedFile, Spool
from tests.server.conftest import Client
from tests.server.small import WRONG, Small, zipped


@pytest.mark.parametrize("number", [errno.ENOSPC, errno.EDQUOT])
def test_a_drop_that_finds_no_room_is_not_taken(ta: Client, monkeypatch: pytest.MonkeyPatch, number: int) -> None:
    small = Small(ta)
    kept = Spool.keep

    def full(spool: Spool, path: str, data: bytes) -> DroppedFile:
        if path.startswith("b"):
            raise OSError(number, os.strerror(number))
        return kept(spool, path, data)

    monkeypatch.setattr(Spool, "keep", full)
    said = ta.drop(small.lab, "class.zip", zipped(a=WRONG, b=WRONG), 503)["detail"]
    assert "disk is full" in said and "nothing was changed" in said
    assert ta.get(f"/labs/{small.lab}/intake")["entries"] == []
    monkeypatch.undo()
    assert ta.drop(small.lab, "class.zip", zipped(a=WRONG, b=WRONG))["new_attempts"] == 2
