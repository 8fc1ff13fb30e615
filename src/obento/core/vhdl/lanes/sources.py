"""How many sources the digits of signals have."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.runtime.composites import overlap


def no_drivers_meet(objects: Sequence[Object]) -> bool:
    """Whether every digit of every signal has one source at most: lanes know no resolution."""
    seen: set[str] = set()
    for o in objects:
        if o.py in seen:
            continue
        seen.add(o.py)
        for i, (source, _, path) in enumerate(o.sources):
            if any(other != source and overlap(path, other_path) for other, _, other_path in o.sources[:i]):
                return False
    return True
