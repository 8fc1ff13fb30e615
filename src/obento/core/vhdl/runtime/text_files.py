"""Files as a VHDL bench sees them: text in the private folder of the run, and the console."""

from __future__ import annotations

from typing import Any

from obento.core.ir.part import RunError

READ, WRITE, APPEND = 0, 1, 2
OPEN_OK, STATUS_ERROR, NAME_ERROR, MODE_ERROR = 0, 1, 2, 3


class File:
    """An opened or closed file; `text` is what is to be read, `items` what a file of values holds."""

    __slots__ = ("at", "items", "mode", "name", "text")

    def __init__(self) -> None:
        self.name = ""
        self.mode = -1
        self.text = ""
        self.at = 0
        self.items: list[Any] = []


class Files:
    """Opens and writes; `bench` keeps the folder, None where there is nothing to read or write."""

    def __init__(self, bench: Any) -> None:
        self._bench = bench
        self.values: dict[str, list[Any]] = {}

    def open(self, file: File, name: str, mode: int) -> int:
        """Open by name; the status as FILE_OPEN_STATUS counts."""
        if file.mode >= 0:
            return STATUS_ERROR
        file.name = name
        if name in ("STD_OUTPUT", "STD_INPUT"):
            file.mode, file.text = mode, ""
            return OPEN_OK
        folder = getattr(self._bench, "folder", None)
        if mode == READ:
            file.items = self.values.get(name, [])
            text = folder.text(name) if folder is not None else None
            if text is None and name not in self.values:
                return NAME_ERROR
            file.text, file.at = text or "", 0
        elif mode == WRITE:
            self.values[name] = []
            if folder is not None:
                folder.written[name] = []
        elif folder is not None:
            folder.written.setdefault(name, [folder.text(name) or ""])
        file.mode = mode
        return OPEN_OK

    def close(self, file: File) -> None:
        """Close a file."""
        file.mode = -1

    def put(self, file: File, text: str, position: int) -> None:
        """Write text to a file that is open for it."""
        if file.mode not in (WRITE, APPEND):
            raise RunError("this file is not open for writing", position)
        if file.name == "STD_OUTPUT":
            self._bench.say(text, position)
        elif getattr(self._bench, "folder", None) is not None:
            self._bench.folder.append(file.name, text)

    def line(self, file: File, position: int) -> str:
        """The next line without its end."""
        if file.mode != READ:
            raise RunError("this file is not open for reading", position)
        if file.at >= len(file.text):
            raise RunError(
                f"read past the end of `{file.name}`" if file.name else "read past the end of a file", position
            )
        end = file.text.find("\n", file.at)
        end = len(file.text) if end < 0 else end
        found = file.text[file.at : end]
        file.at = end + 1
        return found.rstrip("\r")

    def ended(self, file: File) -> bool:
        """Whether nothing is left to read."""
        if file.mode != READ:
            return True
        return file.at >= len(file.text) and not (file.items and file.at < len(file.items))
