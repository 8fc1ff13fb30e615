"""All kinds of parts by their names."""

from __future__ import annotations

from obento.core.wiring.kinds import arithmetic, logic, memory, storage
from obento.core.wiring.kinds.kind import Kind

KINDS: dict[str, Kind] = {kind.name: kind for kind in [*logic.KINDS, *arithmetic.KINDS, *storage.KINDS, *memory.KINDS]}
