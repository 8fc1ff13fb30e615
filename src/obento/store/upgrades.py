"""What a migration does that SQL cannot: work on every row of an older database."""

from __future__ import annotations

import json
import tomllib

from obento.store.connection import Connection, Row, Store
from obento.store.packing import Blob, pack_parts, unpack

_AT_ONCE = 20


def pack_outcomes(store: Store) -> None:
    """Pack the planes of all outcomes that are not packed yet, some at a time, so that it can be broken off."""
    while True:
        with store.transaction() as c:
            if c.row("SHOW TABLES LIKE 'result_output'") is None:
                return
            rows = c.rows(
                "SELECT id, total, plane_failed, plane_undefined, plane_not_compared, plane_stopped, detail FROM"
                f" result WHERE planes IS NULL LIMIT {_AT_ONCE}"
            )
            for row in rows:
                detail = json.loads(row["detail"])
                blob = _packed(c, row, [(name, unpack(bytes.fromhex(mask))) for name, mask in detail.pop("runs")])
                c.run("INSERT IGNORE INTO planes (digest, data) VALUES (%s, %s)", blob.digest, blob.data)
                c.run(
                    "UPDATE result SET planes = %s, detail = %s WHERE id = %s",
                    blob.digest,
                    json.dumps(detail, ensure_ascii=False),
                    row["id"],
                )
        if not rows:
            return


def _packed(c: Connection, row: Row, runs: list[tuple[str, int]]) -> Blob:
    count = row["total"]
    size = (count + 7) // 8
    head: list[tuple[str, int]] = []
    planes: list[int] = []
    for output in c.rows("SELECT * FROM result_output WHERE result_id = %s", row["id"]):
        observed = output["observed"]
        width = len(observed) // (2 * size) if size else 0
        head.append((output["output"], width))
        planes += _planes(output)
        planes += [unpack(observed[i * size : (i + 1) * size]) for i in range(2 * width)]
    return pack_parts(_planes(row), head, planes, runs, count)


def _planes(row: Row) -> list[int]:
    return [unpack(row[f"plane_{name}"]) for name in ("failed", "undefined", "not_compared", "stopped")]


def name_units(store: Store) -> None:
    """Write beside each spec version the unit that its text asks for; a text that cannot be read asks for none."""
    with store.transaction() as c:
        rows = c.rows("SELECT id, text FROM spec_version WHERE unit = ''")
        for row in rows:
            try:
                unit = tomllib.loads(row["text"]).get("unit", "")
            except tomllib.TOMLDecodeError:
                continue
            if isinstance(unit, str) and unit:
                c.run("UPDATE spec_version SET unit = %s WHERE id = %s", unit[:200], row["id"])
