"""How many sources the digits of signals have."""

from __future__ import annotations

from collections.abc import Sequence
from math import inf

from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.runtime.composites import Path, overlap


def no_drivers_meet(objects: Sequence[Object]) -> bool:
    """Whether every digit of every signal has one source at most: lanes know no resolution."""
    seen: set[str] = set()
    for o in objects:
        if o.py in seen:
            continue
        seen.add(o.py)
        if _meet([(source, path) for source, _, path in o.sources]):
            return False
    return True


def _meet(sources: Sequence[tuple[object, Path]]) -> bool:
    """Whether two sources drive something in common. They are gone through in the order of their places, each beside
    those that reach as far as where it begins."""
    reaching: list[tuple[float, object, Path]] = []
    for low, high, source, path in sorted(((*_reach(p), s, p) for s, p in sources), key=lambda each: each[0]):
        reaching = [other for other in reaching if other[0] >= low]
        if any(other != source and overlap(path, other_path) for _, other, other_path in reaching):
            return True
        reaching.append((high, source, path))
    return False


def _reach(path: Path) -> tuple[float, float]:
    """The first and the last place on the first way of a path; a path without ways is the whole."""
    if not path:
        return -inf, inf
    ends = path[0][1:3] if path[0][0] == "s" else (path[0][1],)
    return min(ends), max(ends)
