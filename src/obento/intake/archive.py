"""Reading zips and folders within bounds: size, count, depth, and paths that stay where they belong."""

from __future__ import annotations

import io
import posixpath
import re
import stat
import zipfile
import zlib
from dataclasses import dataclass, field, replace
from pathlib import Path

from obento.core.handin import HandinFile


@dataclass(frozen=True, slots=True)
class ArchiveLimits:
    """Bounds of one drop; `ratio` is how much larger than its packed form a file may become."""

    files: int = 20_000
    file_bytes: int = 8_000_000
    total_bytes: int = 400_000_000
    ratio: int = 400
    name_characters: int = 300


class ArchiveError(Exception):
    """A zip that cannot be taken at all; the text is one sentence with what to do."""


@dataclass(slots=True)
class Drop:
    """Files by path, and a sentence for each one that was left out.

    What has a path that can be kept stays among the files, refused: whoever handed it in has handed in something.
    """

    files: list[HandinFile] = field(default_factory=list)
    left_out: list[str] = field(default_factory=list)

    def refuse(self, path: str, why: str) -> None:
        self.left_out.append(f"{printable(path)}: {why}")
        self.files.append(HandinFile(path, b"", why))


_DRIVE = re.compile(r"^[A-Za-z]:")
_SKIPPED = re.compile(r"(^|/)(__MACOSX(/|$)|\.DS_Store$|Thumbs\.db$|desktop\.ini$)")


def safe_path(name: str) -> str | None:
    """A path inside a zip as a relative one, None when it tries to leave its folder."""
    name = name.replace("\\", "/")
    if "\0" in name or name.startswith("/") or _DRIVE.match(name):
        return None
    parts = [p for p in name.split("/") if p not in ("", ".")]
    if ".." in parts or not parts:
        return None
    return posixpath.join(*parts)


def printable(name: str) -> str:
    """A name fit for a message: control characters shown, length bounded."""
    shown = "".join(c if c.isprintable() else f"\\x{ord(c):02x}" for c in name)
    return shown if len(shown) <= 120 else shown[:117] + "..."


def read_zip(data: bytes, limits: ArchiveLimits | None = None) -> Drop:
    """All files of a zip. A zip inside becomes one more file, for `open_inner` to open once.

    Raises
    ------
    ArchiveError
        If it is no zip, or larger than can be taken.
    """
    limits = limits or ArchiveLimits()
    drop = Drop()
    try:
        archive = zipfile.ZipFile(io.BytesIO(data))
        entries = archive.infolist()
    except (zipfile.BadZipFile, NotImplementedError, ValueError, EOFError) as error:
        raise ArchiveError("this is no zip file that can be read; pack it again") from error
    if len(entries) > limits.files:
        raise ArchiveError(
            f"this zip holds {len(entries)} files, more than the {limits.files} that can be taken; hand in fewer"
        )
    total = 0
    for entry in entries:
        if entry.is_dir() or _SKIPPED.search(entry.filename):
            continue
        path = safe_path(entry.filename)
        if path is None or len(path) > limits.name_characters:
            drop.left_out.append(f"{printable(entry.filename)}: its path leads out of the zip or is too long")
            continue
        if stat.S_ISLNK(entry.external_attr >> 16):
            drop.refuse(path, "a link, not a file")
            continue
        if entry.flag_bits & 1:
            drop.refuse(path, "locked with a password")
            continue
        if entry.file_size > limits.file_bytes or entry.file_size > limits.ratio * max(entry.compress_size, 1024):
            drop.refuse(path, f"unpacks to {entry.file_size} bytes, more than can be taken")
            continue
        try:
            with archive.open(entry) as stream:
                content = stream.read(limits.file_bytes + 1)
        except (zipfile.BadZipFile, zlib.error, EOFError, OSError, NotImplementedError, RuntimeError):
            drop.refuse(path, "damaged")
            continue
        if len(content) > limits.file_bytes:
            drop.refuse(path, "larger than it says")
            continue
        total += len(content)
        if total > limits.total_bytes:
            raise ArchiveError(
                f"this zip unpacks to more than {limits.total_bytes // 1_000_000} MB; hand in less at once"
            )
        drop.files.append(HandinFile(path, content))
    return drop


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
        drop.files.append(HandinFile(relative, path.read_bytes()))
    return drop


def is_zip(file: HandinFile) -> bool:
    return file.data[:4] in (b"PK\x03\x04", b"PK\x05\x06")


def open_inner(files: list[HandinFile], limits: ArchiveLimits | None = None) -> Drop:
    """Open zips among the files, one level deep; a zip in such a zip is left out."""
    drop = Drop()
    for file in files:
        if not is_zip(file) or file.path.lower().endswith((".docx", ".xlsx", ".odt", ".jar")):
            drop.files.append(file)
            continue
        folder = file.path[: file.path.rfind(".")] if "." in posixpath.basename(file.path) else file.path
        try:
            inner = read_zip(file.data, limits)
        except ArchiveError as error:
            drop.refuse(file.path, str(error))
            continue
        for found in inner.files:
            if is_zip(found):
                drop.refuse(f"{folder}/{found.path}", "a zip in a zip in a zip")
            else:
                drop.files.append(replace(found, path=f"{folder}/{found.path}"))
        drop.left_out += inner.left_out
    return drop
