"""Answers to reads, kept as they were sent until anything in the records changes."""

from __future__ import annotations

import gzip
import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from dataclasses import dataclass
from typing import Any

from fastapi import Request, Response
from pydantic import TypeAdapter

from obento.store.connection import Connection

_MOST_BYTES = 48_000_000
_LEAST_COMPRESSED = 500
_LEVEL = 5
_JSON = "application/json"
_ANY: TypeAdapter[Any] = TypeAdapter(Any)


@dataclass(frozen=True, slots=True)
class _Kept:
    generation: int
    plain: bytes
    small: bytes

    @property
    def size(self) -> int:
        return len(self.plain) + len(self.small)


class Answers:
    """What was answered lately, by address. An answer holds for one state of the records: it is sent again only to
    somebody who reads in a transaction that sees the very same state. Whether they may see it is asked before."""

    def __init__(self, most_bytes: int = _MOST_BYTES) -> None:
        self._most = most_bytes
        self._kept: OrderedDict[Hashable, _Kept] = OrderedDict()
        self._size = 0
        self._lock = threading.Lock()

    def of(
        self, c: Connection, request: Request, make: Callable[[], object], *beside: Hashable, media_type: str = _JSON
    ) -> Response:
        """The answer to a request, made by `make` (models for JSON, bytes for all else) unless it is kept. `beside` is
        what it depends on that is neither in the records nor in the address."""
        key = (request.url.path, request.url.query, *beside)
        generation = c.generation()
        with self._lock:
            kept = self._kept.get(key)
            if kept is not None:
                self._kept.move_to_end(key)
        if kept is None or kept.generation != generation:
            made = make()
            plain = made if isinstance(made, bytes) else _ANY.dump_json(made)
            small = gzip.compress(plain, _LEVEL, mtime=0) if len(plain) >= _LEAST_COMPRESSED else b""
            kept = _Kept(generation, plain, small)
            self._put(key, kept)
        headers = {"Vary": "Accept-Encoding"}
        if kept.small and "gzip" in request.headers.get("accept-encoding", ""):
            return Response(kept.small, media_type=media_type, headers=headers | {"Content-Encoding": "gzip"})
        return Response(kept.plain, media_type=media_type, headers=headers)

    def _put(self, key: Hashable, kept: _Kept) -> None:
        with self._lock:
            old = self._kept.pop(key, None)
            self._kept[key] = kept
            self._size += kept.size - (old.size if old is not None else 0)
            while self._size > self._most and len(self._kept) > 1:
                self._size -= self._kept.popitem(last=False)[1].size
