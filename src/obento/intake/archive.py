"""Reading zips and folders within bounds: size, count, depth, and paths that stay where they belong."""

from __future__ import annotations

import hashlib
import io
import lzma
import posixpath
import re
import stat
import struct
import time
import zipfile
import zlib
from collections import Counter
from collections.abc import Mapping
from contextlib import suppress
from dataclasses import dataclass, field, replace
from datetime import datetime
from pathlib import Path
from typing import BinaryIO

from obento.intake.dropped import DroppedFile, Spool, on_disk, refused


@dataclass(frozen=True, slots=True)
class ArchiveLimits:
    """Bounds of one drop with everything that is packed in it; `ratio` is how much larger than its packed form a file
    may become, `all_ratio` how much larger than what was uploaded all of it together may (`free_bytes` in any case)."""

    files: int = 20_000
    file_bytes: int = 8_000_000
    total_bytes: int = 400_000_000
    ratio: int = 400
    all_ratio: int = 100
    free_bytes: int = 30_000_000
    name_characters: int = 300
    seconds: float = 60.0


class Budget:
    """What one drop may still unpack: one for all zips in it."""

    def __init__(self, limits: ArchiveLimits, packed: int) -> None:
        self.limits = limits
        self._bytes = min(limits.total_bytes, max(limits.free_bytes, limits.all_ratio * packed))
        self._files = limits.files
        self._end = time.monotonic() + limits.seconds

    def trouble(self) -> str:
        """Why nothing more can be unpacked; empty while something can."""
        if self._bytes < 0:
            return "all of it together unpacks to more than can be taken"
        if self._files < 0:
            return f"there are more than the {self.limits.files} files that can be taken"
        return "unpacking takes too long" if time.monotonic() > self._end else ""

    def spend(self, size: int) -> str:
        """One more file; why it is one too many, if it is."""
        self._bytes -= size
        self._files -= 1
        return self.trouble()


class ArchiveError(Exception):
    """A zip that cannot be taken at all; the text is one sentence with what to do."""


@dataclass(slots=True)
class Drop:
    """Files by path, a sentence for each one that was left out, and when each was packed, in no zone: those of a zip
    inside when that was.

    What has a path that can be kept stays among the files, refused: whoever handed it in has handed in something.
    """

    files: list[DroppedFile] = field(default_factory=list)
    left_out: list[str] = field(default_factory=list)
    times: dict[str, datetime] = field(default_factory=dict)

    def refuse(self, path: str, why: str) -> None:
        self.left_out.append(f"{printable(path)}: {why}")
        self.files.append(refused(path, why))


_DRIVE = re.compile(r"^[A-Za-z]:")
_SKIPPED = re.compile(r"(^|/)(__MACOSX(/|$)|\.DS_Store$|Thumbs\.db$|desktop\.ini$)")


def safe_path(name: str) -> str | None:
    """A path inside a zip as a relative one, None when it tries to leave its folder. Blanks at the end of a name are
    made to be seen: two names that differ in nothing else are two names."""
    name = name.replace("\\", "/")
    if "\0" in name or name.startswith("/") or _DRIVE.match(name):
        return None
    parts = [_visible(p) for p in name.split("/") if p not in ("", ".")]
    if ".." in parts or not parts:
        return None
    return posixpath.join(*parts)


def _visible(part: str) -> str:
    bare = part.rstrip()
    return bare + "␣" * (len(part) - len(bare))


def short_path(path: str, most: int) -> str:
    """A path of at most `most` characters: what is left out of a longer one is told apart by a print of all of it."""
    if len(path) <= most:
        return path
    mark = f"…{hashlib.sha256(path.encode('utf-8', 'replace')).hexdigest()[:10]}"
    head, _, rest = path.partition("/")
    if len(head) > most // 3:
        # Only what belongs to this name tells it apart, so that its other files stay with it.
        own = f"…{hashlib.sha256(head.encode('utf-8', 'replace')).hexdigest()[:10]}"
        head = head[: most // 3 - len(own)] + own
    if not rest:
        suffix = posixpath.splitext(path)[1][:12]
        return head + suffix if not head.endswith(suffix) else head
    last = rest.rpartition("/")[2]
    room = most - len(head) - len(mark) - 2
    return f"{head}/{mark}/{last[-room:]}" if len(rest) > room else f"{head}/{rest}"


def printable(name: str) -> str:
    """A name fit for a message: control characters shown, length bounded."""
    shown = "".join(c if c.isprintable() else f"\\x{ord(c):02x}" for c in name)
    return shown if len(shown) <= 120 else shown[:117] + "..."


_DAMAGED = (
    zipfile.BadZipFile, zlib.error, lzma.LZMAError, EOFError, OSError, NotImplementedError, RuntimeError, ValueError,
    LookupError, struct.error, OverflowError, MemoryError,
)  # fmt: skip
"""What reading a damaged zip, or an entry of one, can end in."""


def read_zip(
    data: bytes | BinaryIO,
    limits: ArchiveLimits | None = None,
    budget: Budget | None = None,
    spool: Spool | None = None,
) -> Drop:
    """All files of a zip, unpacked to disk. A zip inside becomes one more file, for `open_inner` to open once. What is
    wrong with one entry is said of that entry; of two that are called the same the later one is taken, as any program
    that unpacks would.

    Parameters
    ----------
    budget
        That of the drop which this zip is a part of; one of its own when left out.
    spool
        The same for the place of what is unpacked.

    Raises
    ------
    ArchiveError
        If it is no zip, or larger than can be taken.
    OSError
        If the disk is full.
    """
    source = io.BytesIO(data) if isinstance(data, bytes) else data
    budget = budget or Budget(limits or ArchiveLimits(), source.seek(0, io.SEEK_END))
    limits = budget.limits
    spool = spool or Spool()
    drop = Drop()
    try:
        archive = _opened(source)
        entries = archive.infolist()
    except _DAMAGED as error:
        raise ArchiveError("this is no zip file that can be read; pack it again") from error
    if len(entries) > limits.files:
        raise ArchiveError(
            f"this zip holds {len(entries)} files, more than the {limits.files} that can be taken; hand in fewer"
        )
    for entry in entries:
        _take(archive, entry, drop, budget, spool)
    for path, count in Counter(file.path for file in drop.files).items():
        if count > 1:
            drop.left_out.append(f"{printable(path)}: it is in the zip {count} times; the last one was taken")
    return drop


def _take(archive: zipfile.ZipFile, entry: zipfile.ZipInfo, drop: Drop, budget: Budget, spool: Spool) -> None:
    """One entry of a zip, or why it is not taken in.

    Raises
    ------
    ArchiveError
        If the whole has become more than can be taken.
    """
    limits = budget.limits
    name = _as_written(entry)
    if entry.is_dir() or _SKIPPED.search(name):
        return
    path = safe_path(name)
    if path is None:
        drop.left_out.append(f"{printable(name)}: its path leads out of the zip")
        return
    path = short_path(path, limits.name_characters)
    with suppress(ValueError):  # a date that does not exist
        drop.times[path] = datetime(*entry.date_time)
    if stat.S_ISLNK(entry.external_attr >> 16):
        drop.refuse(path, "a link, not a file")
        return
    if entry.flag_bits & 1:
        drop.refuse(path, "locked with a password")
        return
    if entry.file_size > limits.file_bytes or entry.file_size > limits.ratio * max(entry.compress_size, 1024):
        drop.refuse(path, f"unpacks to {entry.file_size} bytes, more than can be taken")
        return
    try:
        with archive.open(entry) as stream:
            content = stream.read(limits.file_bytes + 1)
    except _DAMAGED:
        drop.refuse(path, "damaged")
        return
    if len(content) > limits.file_bytes:
        drop.refuse(path, "larger than it says")
        return
    trouble = budget.spend(len(content))
    if trouble:
        raise ArchiveError(f"this zip cannot be taken: {trouble}; hand in less at once")
    drop.files.append(spool.keep(path, content))


def _opened(source: BinaryIO) -> zipfile.ZipFile:
    """A zip; one whose names are not what it says of them is read all the same."""
    try:
        return zipfile.ZipFile(source)
    except UnicodeDecodeError:
        source.seek(0)
        data = bytearray(source.read())
        at = data.find(_CENTRAL)
        while at >= 0:
            data[at + 9] &= ~0x08  # bit 11 of the flags: that the name is UTF-8
            at = data.find(_CENTRAL, at + 4)
        return zipfile.ZipFile(io.BytesIO(bytes(data)))


_CENTRAL = b"PK\x01\x02"
"""Where an entry of a zip's directory begins (APPNOTE 4.3.12)."""


def _as_written(entry: zipfile.ZipInfo) -> str:
    """The name of an entry. Many programs write UTF-8 without saying so, which is then read as the code page of old."""
    if entry.flag_bits & 0x800 or entry.filename.isascii():
        return entry.filename
    try:
        return entry.filename.encode("cp437").decode("utf-8")
    except UnicodeError:
        return entry.filename


def read_folder(folder: Path, limits: ArchiveLimits | None = None) -> Drop:
    """All files below a folder; links are not followed."""
    limits = limits or ArchiveLimits()
    drop = Drop()
    for path in sorted(folder.rglob("*")):
        relative = path.relative_to(folder).as_posix()
        if path.is_symlink() or not path.is_file() or _SKIPPED.search(relative):
            continue
        if len(drop.files) >= limits.files:
            raise ArchiveError(f"{folder} holds more than {limits.files} files")
        if path.stat().st_size > limits.file_bytes:
            drop.refuse(relative, "larger than can be taken")
            continue
        drop.files.append(on_disk(relative, path))
    return drop


def open_inner(
    files: list[DroppedFile],
    limits: ArchiveLimits | None = None,
    budget: Budget | None = None,
    spool: Spool | None = None,
    times: Mapping[str, datetime] | None = None,
) -> Drop:
    """Open zips among the files, one level deep; a zip in such a zip is left out. One that cannot be taken is the
    trouble of whoever handed it in, not of the others. What is in a zip takes the time at which that was packed."""
    budget = budget or Budget(limits or ArchiveLimits(), sum(f.size for f in files))
    spool = spool or Spool()
    drop = Drop(times=dict(times or {}))
    for file in files:
        if not file.is_zip or file.path.lower().endswith((".docx", ".xlsx", ".odt", ".jar")):
            drop.files.append(file)
            continue
        folder = file.path[: file.path.rfind(".")] if "." in posixpath.basename(file.path) else file.path
        before = budget.trouble()
        try:
            if before:
                raise ArchiveError(f"this was not unpacked: {before}; hand it in by itself")
            inner = read_zip(file.data, budget=budget, spool=spool)
        except ArchiveError as error:
            drop.refuse(file.path, str(error))
            continue
        for found in inner.files:
            path = short_path(f"{folder}/{found.path}", budget.limits.name_characters)
            if file.path in drop.times:
                drop.times[path] = drop.times[file.path]
            if found.is_zip:
                drop.refuse(path, "a zip in a zip in a zip")
            else:
                drop.files.append(replace(found, path=path))
        drop.left_out += inner.left_out
    return drop


def unpack(name: str, source: BinaryIO, folder: Path | None = None, limits: ArchiveLimits | None = None) -> Drop:
    """The files of one drop: a zip of hand-ins, with the zips in it opened, or a single file.

    Parameters
    ----------
    folder
        Where what is unpacked lies while somebody holds it.

    Raises
    ------
    ArchiveError
    OSError
        If the disk is full.
    """
    limits = limits or ArchiveLimits()
    spool = Spool(folder)
    size = source.seek(0, io.SEEK_END)
    budget = Budget(limits, size)
    source.seek(0)
    if source.read(2) == b"PK":
        drop = read_zip(source, budget=budget, spool=spool)
    elif name.lower().endswith(".zip"):
        raise ArchiveError(f"{printable(name)} is called a zip but is none; pack it again")
    elif size > limits.file_bytes:
        raise ArchiveError(f"{printable(name)} is larger than the {limits.file_bytes // 1_000_000} MB of one file")
    else:
        source.seek(0)
        path = safe_path(name.replace("\\", "/").rpartition("/")[2]) or "file"
        drop = Drop([spool.keep(short_path(path, limits.name_characters), source.read())])
    inner = open_inner(drop.files, budget=budget, spool=spool, times=drop.times)
    inner.left_out = drop.left_out + inner.left_out
    return inner
