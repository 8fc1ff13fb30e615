"""Packed planes of outcomes and of what they were held against, each kept once."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from obento.core.check.expectation.model import Expectation, Key, Planes
from obento.store.connection import Connection
from obento.store.packing import Blob, CasePlanes, pack_expected, unpack_cases, unpack_expected

_MOST_KEPT = 64_000_000
_MOST_EXPECTED = 24
_AT_ONCE = 256


@dataclass(frozen=True, slots=True)
class Against:
    """What outcomes of a spec version are held against, and the same packed."""

    bits: dict[Key, Planes]
    blob: Blob

    @classmethod
    def of(cls, expectation: Expectation) -> Against:
        return cls(expectation.bits, pack_expected(expectation.bits, expectation.cases.count))


def keep(c: Connection, blobs: Sequence[Blob]) -> None:
    """Keep planes unless they are there already. They are looked for first, so that nothing is sent twice, and held
    until the transaction ends, so that nobody removes them before an outcome refers to them."""
    data_of = {blob.digest: blob.data for blob in blobs}
    if not data_of:
        return
    marks = ", ".join(["%s"] * len(data_of))
    rows = c.rows(f"SELECT digest FROM planes WHERE digest IN ({marks}) LOCK IN SHARE MODE", *data_of)
    known = {row["digest"] for row in rows}
    c.many(
        "INSERT IGNORE INTO planes (digest, data) VALUES (%s, %s)",
        [(digest, data) for digest, data in data_of.items() if digest not in known],
    )


def planes_of_handin(c: Connection, handin_id: int) -> list[str]:
    """What the outcomes of all attempts of a hand-in are kept by."""
    rows = c.rows(
        "SELECT DISTINCT r.planes FROM result r JOIN attempt a ON a.id = r.attempt_id WHERE a.handin_id = %s"
        " AND r.planes IS NOT NULL",
        handin_id,
    )
    return [row["planes"] for row in rows]


def drop_unused(c: Connection, digest: str) -> None:
    """Remove planes that no outcome refers to any more."""
    c.run(
        "DELETE FROM planes WHERE digest = %s AND NOT EXISTS (SELECT 1 FROM result r WHERE r.planes = %s)",
        digest,
        digest,
    )


class KeptPlanes:
    """Planes that were read lately, by what they are kept by. They never change, so that they are never read again
    while they are here; the least used go when there are too many."""

    def __init__(self, most_bytes: int = _MOST_KEPT) -> None:
        self._most = most_bytes
        self._cases: OrderedDict[str, CasePlanes] = OrderedDict()
        self._expected: OrderedDict[str, dict[Key, Planes]] = OrderedDict()
        self._size = 0
        self._lock = threading.Lock()

    def cases(self, c: Connection, count_of: Mapping[str, int]) -> dict[str, CasePlanes]:
        """The cases of many outcomes, given how many each has; what is not here is read at once."""
        with self._lock:
            found = {digest: self._cases[digest] for digest in count_of if digest in self._cases}
            for digest in found:
                self._cases.move_to_end(digest)
        missing = [digest for digest in count_of if digest not in found]
        for start in range(0, len(missing), _AT_ONCE):
            part = missing[start : start + _AT_ONCE]
            marks = ", ".join(["%s"] * len(part))
            for row in c.rows(f"SELECT digest, data FROM planes WHERE digest IN ({marks})", *part):
                planes = found[row["digest"]] = unpack_cases(row["data"], count_of[row["digest"]])
                self._put(row["digest"], planes)
        return found

    def expected(self, c: Connection, digest: str, count: int) -> dict[Key, Planes]:
        """What outcomes were held against."""
        with self._lock:
            if digest in self._expected:
                self._expected.move_to_end(digest)
                return self._expected[digest]
        bits = unpack_expected(read(c, digest), count)
        with self._lock:
            self._expected[digest] = bits
            while len(self._expected) > _MOST_EXPECTED:
                self._expected.popitem(last=False)
        return bits

    def _put(self, digest: str, planes: CasePlanes) -> None:
        with self._lock:
            if digest not in self._cases:
                self._cases[digest] = planes
                self._size += 4 * len(planes.failed)
            while self._size > self._most and len(self._cases) > 1:
                self._size -= 4 * len(self._cases.popitem(last=False)[1].failed)


def read(c: Connection, digest: str) -> bytes:
    """Planes as they were packed."""
    data: bytes = c.value("SELECT data FROM planes WHERE digest = %s", digest)
    return data
