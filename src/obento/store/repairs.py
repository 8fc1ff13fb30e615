"""Smallest changes that were found, kept with the outcomes that they belong to."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

from obento.core.check.mutation.smallest_change import Change, Repair
from obento.core.sentences.said import as_data, from_data
from obento.store.connection import Connection


def put_repair(c: Connection, result_id: int, repair: Repair) -> None:
    """Keep what was found; the newest search counts."""
    changes = json.dumps([asdict(x) | {"said": as_data(x.text)} for x in repair.changes], ensure_ascii=False)
    c.run(
        "REPLACE INTO repair (result_id, changes, tried, is_whole, at) VALUES (%s, %s, %s, %s, UTC_TIMESTAMP(6))",
        result_id, changes, repair.tried, repair.is_whole,
    )  # fmt: skip


def repairs_of(c: Connection, result_ids: Sequence[int]) -> dict[int, Repair]:
    """What is known of these outcomes."""
    if not result_ids:
        return {}
    marks = ", ".join(["%s"] * len(result_ids))
    rows = c.rows(f"SELECT result_id, changes, tried, is_whole FROM repair WHERE result_id IN ({marks})", *result_ids)
    return {
        r["result_id"]: Repair([_change(**x) for x in json.loads(r["changes"])], r["tried"], bool(r["is_whole"]))
        for r in rows
    }


def _change(text: str, said: object = None, **rest: Any) -> Change:
    return Change(text=from_data(text, said), **rest)
