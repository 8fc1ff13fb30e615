"""The private folder of a run: what a bench writes, and what it may read. It is all in memory; nobody's disk is
touched."""

from __future__ import annotations

from collections.abc import Callable, Mapping

_FIRST_DESCRIPTOR = 0x80000003
_STANDARD = 0x80000000
MOST_OPEN = 30


def _lost(what: object) -> None:
    """What is written goes nowhere, and costs nothing."""


def named(files: Mapping[str, str], name: str) -> str | None:
    """The text of a file by its path, or else by the last part of its name; None when there is none."""
    if name in files:
        return files[name]
    short = name.replace("\\", "/").rpartition("/")[2]
    return next((text for path, text in files.items() if path.rpartition("/")[2] == short), None)


class Folder:
    """Files by name. `given` can be read; `written` grows as the bench writes, where the folder `keeps` that."""

    def __init__(
        self,
        given: Mapping[str, str],
        put: Callable[[str], None] = _lost,
        spend: Callable[[int], None] = _lost,
        keeps: bool = True,
    ) -> None:
        self.given = given
        self.written: dict[str, list[str]] = {}
        self._keeps = keeps
        self._put = put
        self._spend = spend
        self._channels: dict[int, str] = {}
        self._descriptors: dict[int, _Open] = {}

    def text(self, name: str) -> str | None:
        """What a file holds now; None when there is none."""
        if name in self.written:
            return "".join(self.written[name])
        return named(self.given, name)

    @property
    def was_used(self) -> bool:
        """Whether anything was opened or written."""
        return bool(self.written or self._channels or self._descriptors)

    def open(self, name: str, mode: str | None) -> int:
        """A multichannel descriptor without a mode, a file descriptor with one (17.2.1); 0 when it cannot be had."""
        if mode is None:
            free = next((1 << i for i in range(1, 31) if 1 << i not in self._channels), 0)
            if free:
                self._channels[free] = name
                self.written[name] = []
            return free
        if len(self._descriptors) >= MOST_OPEN:
            return 0
        before = self.text(name)
        if mode[0] == "r" and before is None:
            return 0
        if mode[0] == "w":
            self.written[name] = []
        elif mode[0] == "a":
            self.written.setdefault(name, [])
        number = next(
            n for n in range(_FIRST_DESCRIPTOR, _FIRST_DESCRIPTOR + MOST_OPEN + 1) if n not in self._descriptors
        )
        self._descriptors[number] = _Open(name, before or "" if mode[0] == "r" else "", mode[0] == "r")
        return number

    def close(self, number: int) -> None:
        """Close a descriptor, or all channels in it."""
        self._descriptors.pop(number, None)
        if not number >> 31:
            for channel in [c for c in self._channels if c & number]:
                del self._channels[channel]

    def write(self, number: int, text: str) -> None:
        """Write to a descriptor, or to all channels in it (17.2.1)."""
        if number >> 31:
            if number in (_STANDARD + 1, _STANDARD + 2):
                self._put(text)
            elif number in self._descriptors:
                self.append(self._descriptors[number].name, text)
            return
        if number & 1:
            self._put(text)
        for channel, name in self._channels.items():
            if channel & number:
                self.append(name, text)

    def append(self, name: str, text: str) -> None:
        """Add to what a file holds; raises LimitReached when that is too much."""
        if not self._keeps:
            return
        self._spend(len(text))
        self.written.setdefault(name, []).append(text)

    def reader(self, number: int) -> _Open | None:
        """The file behind a descriptor that may be read, if it is one."""
        found = self._descriptors.get(number)
        return found if found is not None and found.readable else None


class _Open:
    """A file being read."""

    def __init__(self, name: str, text: str, readable: bool) -> None:
        self.name = name
        self.text = text
        self.at = 0
        self.readable = readable
        self.ended = False

    def character(self) -> int:
        """The next one; -1 at the end, which is only then known to be there (17.2.4.1)."""
        if self.at >= len(self.text):
            self.ended = True
            return -1
        self.at += 1
        return ord(self.text[self.at - 1]) & 255

    def bytes(self, most: int) -> bytes:
        """So many of them, or what is left."""
        found = self.text[self.at : self.at + most]
        self.ended = self.ended or len(found) < most
        self.at += len(found)
        return found.encode("latin-1", "replace")

    def line(self, most: int) -> str:
        """Up to the end of the line; a last line without one runs into the end of the file, which is known then."""
        end = self.text.find("\n", self.at)
        end = len(self.text) if end < 0 else end + 1
        end = min(end, self.at + most)
        found = self.text[self.at : end]
        self.ended = self.ended or (len(found) < most and not found.endswith("\n"))
        self.at = end
        return found
