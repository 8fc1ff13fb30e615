"""What is said of the times of a drop, as one print: two who say it at once notice each other."""

from __future__ import annotations

from obento.server.versions import version_of
from obento.store import drops
from obento.store.connection import Connection
from obento.store.drops import Drop


def times_version(c: Connection, drop: Drop) -> str:
    """Of how its times are known, and of each of them."""
    received = [(a.id, a.received_at) for a in drops.attempts_of_drop(c, drop.id)]
    return version_of(drop.times, drop.zone, drop.is_confirmed, received)
