"""What was read lately and never changes, in memory: the least used goes when there is too much."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterable, Mapping
from typing import Generic, TypeVar

K = TypeVar("K", bound=Hashable)
V = TypeVar("V")

_AT_ONCE = 256


class Kept(Generic[K, V]):
    """Values by their keys; what all of them weigh stays at `most`, but for the one put last."""

    def __init__(self, most: int, weight: Callable[[V], int] = lambda value: 1) -> None:
        self._most = most
        self._weight = weight
        self._values: OrderedDict[K, V] = OrderedDict()
        self._size = 0
        self._lock = threading.Lock()

    def read(self, keys: Iterable[K], fetch: Callable[[list[K]], Mapping[K, V]]) -> dict[K, V]:
        """The values of some keys; what is not here is fetched, many at once."""
        wanted = list(keys)
        with self._lock:
            found = {key: self._values[key] for key in wanted if key in self._values}
            for key in found:
                self._values.move_to_end(key)
        missing = [key for key in dict.fromkeys(wanted) if key not in found]
        for start in range(0, len(missing), _AT_ONCE):
            for key, value in fetch(missing[start : start + _AT_ONCE]).items():
                found[key] = value
                self._put(key, value)
        return found

    def _put(self, key: K, value: V) -> None:
        with self._lock:
            if key not in self._values:
                self._values[key] = value
                self._size += self._weight(value)
            while self._size > self._most and len(self._values) > 1:
                self._size -= self._weight(self._values.popitem(last=False)[1])
