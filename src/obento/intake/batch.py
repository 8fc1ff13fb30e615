"""One drop of many hand-ins taken apart: each child of the folder or zip is one."""

from __future__ import annotations

import posixpath
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime

from obento.core.handin import HandinFile


@dataclass(frozen=True, slots=True)
class Child:
    """One hand-in of a drop: its name, its files, and when the newest of them was packed, as far as the archive says so
    (in no zone)."""

    label: str
    files: list[HandinFile]
    entry_time: datetime | None


def children_of(files: list[HandinFile], times: Mapping[str, datetime]) -> list[Child]:
    """Hand-ins by name. A lone folder around everything is looked through when it holds folders itself.

    A child that is a file takes its name without the suffix, unless two would then be called the same.

    Parameters
    ----------
    times
        When files were packed, by path.
    """
    depth = _wrapping(files)
    children: dict[str, list[tuple[HandinFile, datetime | None]]] = {}
    for file in files:
        head, _, rest = file.path.split("/", depth)[depth].partition("/")
        children.setdefault(head, []).append((replace(file, path=rest or head), times.get(file.path)))
    stems: dict[str, list[str]] = {}
    for head, found in children.items():
        stems.setdefault(_stem(head, [f for f, _ in found]), []).append(head)
    named = [
        Child(
            stem if len(heads) == 1 else head,
            [f for f, _ in children[head]],
            max((t for _, t in children[head] if t is not None), default=None),
        )
        for stem, heads in stems.items()
        for head in heads
    ]
    return sorted(named, key=lambda child: child.label)


def split_children(files: list[HandinFile]) -> dict[str, list[HandinFile]]:
    """The files of each hand-in, by name (see `children_of`)."""
    return {child.label: child.files for child in children_of(files, {})}


def _stem(head: str, files: list[HandinFile]) -> str:
    is_file = len(files) == 1 and files[0].path == head
    return posixpath.splitext(head)[0] or head if is_file else head


def _wrapping(files: list[HandinFile]) -> int:
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
