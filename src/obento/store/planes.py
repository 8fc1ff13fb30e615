"""Packed planes of outcomes and of what they were held against, each kept once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from obento.core.check.expectation.model import Expectation, Key, Planes
from obento.store.connection import Connection
from obento.store.kept import Kept
from obento.store.packing import Blob, CasePlanes, pack_expected, unpack_cases, unpack_expected

_MOST_KEPT = 64_000_000
_MOST_EXPECTED = 24


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
    """Planes that were read lately, by what they are kept by."""

    def __init__(self, most_bytes: int = _MOST_KEPT) -> None:
        self._cases: Kept[str, CasePlanes] = Kept(most_bytes, lambda planes: 4 * len(planes.failed))
        self._expected: Kept[str, dict[Key, Planes]] = Kept(_MOST_EXPECTED)

    def cases(self, c: Connection, count_of: Mapping[str, int]) -> dict[str, CasePlanes]:
        """The cases of many outcomes, given how many each has."""

        def fetch(digests: list[str]) -> dict[str, CasePlanes]:
            marks = ", ".join(["%s"] * len(digests))
            rows = c.rows(f"SELECT digest, data FROM planes WHERE digest IN ({marks})", *digests)
            return {row["digest"]: unpack_cases(row["data"], count_of[row["digest"]]) for row in rows}

        return self._cases.read(count_of, fetch)

    def expected(self, c: Connection, digest: str, count: int) -> dict[Key, Planes]:
        """What outcomes were held against."""
        return self._expected.read([digest], lambda _: {digest: unpack_expected(read(c, digest), count)})[digest]


def read(c: Connection, digest: str) -> bytes:
    """Planes as they were packed."""
    data: bytes = c.value("SELECT data FROM planes WHERE digest = %s", digest)
    return data
