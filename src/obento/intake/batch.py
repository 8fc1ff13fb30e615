"""One drop of many hand-ins taken apart: each child of the folder or zip is one."""

from __future__ import annotations

import posixpath
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from datetime import datetime

from obento.core.handin import HandinFile
from obento.intake.dropped import DroppedFile


@dataclass(frozen=True, slots=True)
class Child:
    """One hand-in of a drop: its name, its files by the path that they have in it, and when the newest of them was
    packed, as far as the archive says so (in no zone)."""

    label: str
    files: dict[str, DroppedFile]
    entry_time: datetime | None


def children_of(files: list[DroppedFile], times: Mapping[str, datetime]) -> list[Child]:
    """Hand-ins by name. A lone folder around everything is looked through when it holds folders itself.

    A child that is a file takes its name without the suffix, unless two would then be called the same.

    Parameters
    ----------
    times
        When files were packed, by path.
    """
    depth = _wrapping(files)
    children: dict[str, dict[str, DroppedFile]] = {}
    packed: dict[str, datetime] = {}
    for file in files:
        head, _, rest = file.path.split("/", depth)[depth].partition("/")
        children.setdefault(head, {})[rest or head] = file
        if file.path in times:
            packed[head] = max(times[file.path], packed.get(head, times[file.path]))
    stems: dict[str, list[str]] = {}
    for head, found in children.items():
        stems.setdefault(_stem(head, found), []).append(head)
    named = [
        Child(stem if len(heads) == 1 else head, children[head], packed.get(head))
        for stem, heads in stems.items()
        for head in heads
    ]
    return sorted(named, key=lambda child: child.label)


def split_children(files: list[DroppedFile]) -> dict[str, list[HandinFile]]:
    """The files of each hand-in, by name (see `children_of`)."""
    return {child.label: [f.as_handin(path) for path, f in child.files.items()] for child in children_of(files, {})}


def _stem(head: str, files: Collection[str]) -> str:
    is_file = len(files) == 1 and head in files
    return posixpath.splitext(head)[0] or head if is_file else head


def _wrapping(files: list[DroppedFile]) -> int:
    """How many lone folders stand around everything."""
    paths = [f.path for f in files]
    depth = 0
    while paths:
        heads = {path.partition("/")[0] for path in paths}
        inner = [path.partition("/")[2] for path in paths]
        if len(heads) != 1 or not any("/" in path for path in inner) or "" in inner:
            return depth
        paths = inner
        depth += 1
    return 0
