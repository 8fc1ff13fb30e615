"""Signals whose digits have several sources."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from math import inf

from obento.core.ir import nodes as ir
from obento.core.ir.design import BUS, Process
from obento.core.ir.signal import Signal, Watch
from obento.core.values import ones
from obento.core.vhdl.lanes.values import NoLanes, is_logic, word_of
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.model.types import ArrayType, Subtype
from obento.core.vhdl.runtime.composites import Path, overlap


class Buses:
    """The signals of which some digit has several sources, and what each process puts on them."""

    def __init__(self, objects: Sequence[Object], processes: Sequence[t.Process]) -> None:
        """Find them.

        Raises
        ------
        NoLanes
            Where one of them is driven by anything but processes, or is not resolved as std_logic is.
        """
        self._objects: dict[str, Object] = {}
        self._drivers: dict[str, dict[int, Signal]] = {}
        known = {id(p) for p in processes}
        for o in objects:
            if o.py not in self._objects and _meet([(source, path) for source, _, path in o.sources]):
                if o.guard or not _is_logic(o.subtype) or any(source not in known for source, _, _ in o.sources):
                    raise NoLanes("signals that are not only assigned")
                self._objects[o.py] = o
                self._drivers[o.py] = {}

    def __contains__(self, o: Object) -> bool:
        return o.py in self._objects

    def begin(self, process: t.Process, o: Object, driver: Signal, here: int) -> None:
        """A process drives the digits `here` of a bus, from the beginning; on all others it has z for ever."""
        one, zero = word_of(o.value, o.subtype)
        away = ones(driver.width) & ~here
        driver.initial = (one & here | away, zero & here | away)
        self._drivers[o.py][id(process)] = driver

    def driver(self, process: t.Process | None, o: Object) -> Signal:
        """What a process puts on a bus."""
        found = self._drivers[o.py].get(id(process))
        if found is None:
            raise NoLanes("a bus that is joined to a port")
        return found

    def resolved(self, signal_of: Callable[[Object], Signal]) -> Iterator[Process]:
        """What makes each bus of its drivers (1164, `resolved`): z yields, what differs is x.

        On the timeline that is so in the very cycle in which a driver changes; here it comes after, which is the same
        once all has settled, and only then (see `EventDriven`)."""
        for name, o in self._objects.items():
            drivers = list(self._drivers[name].values())
            signal = signal_of(o)
            e: ir.Expr = ir.Ref(signal.width, drivers[0])
            for driver in drivers[1:]:
                e = ir.Binary(signal.width, "resolve", e, ir.Ref(signal.width, driver))
            body = ir.Assign(o.pos, [ir.Target(signal, 0, signal.width)], e)
            watches = [Watch(driver, "any", 0, driver.width) for driver in drivers]
            yield Process("continuous", body, watches, o.pos, BUS, shadow=True)


def _is_logic(s: Subtype) -> bool:
    """Whether each digit is resolved by what std_logic_1164 does."""
    if isinstance(s.type, ArrayType) and s.resolution is None:
        return _is_logic(s.element_subtype)
    f = s.resolution
    return is_logic(s.type) and f is not None and f.name == "resolved" and f.native is not None


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
