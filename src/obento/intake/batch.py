"""One drop of many hand-ins taken apart: each child of the folder or zip is one."""

from __future__ import annotations

import posixpath
from dataclasses import replace

from obento.core.handin import HandinFile


def split_children(files: list[HandinFile]) -> dict[str, list[HandinFile]]:
    """Hand-ins by name. A lone folder around everything is looked through when it holds folders itself.

    A child that is a file takes its name without the suffix, unless two would then be called the same.
    """
    files = _unwrapped(files)
    children: dict[str, list[HandinFile]] = {}
    for file in files:
        head, _, rest = file.path.partition("/")
        children.setdefault(head, []).append(replace(file, path=rest or head))
    stems: dict[str, list[str]] = {}
    for head in children:
        stems.setdefault(_stem(head, children[head]), []).append(head)
    named: dict[str, list[HandinFile]] = {}
    for stem, heads in stems.items():
        for head in heads:
            named[stem if len(heads) == 1 else head] = children[head]
    return dict(sorted(named.items()))


def _stem(head: str, files: list[HandinFile]) -> str:
    is_file = len(files) == 1 and files[0].path == head
    return posixpath.splitext(head)[0] or head if is_file else head


def _unwrapped(files: list[HandinFile]) -> list[HandinFile]:
    while files:
        heads = {f.path.partition("/")[0] for f in files}
        inner = [f.path.partition("/")[2] for f in files]
        if len(heads) != 1 or not any("/" in path for path in inner) or "" in inner:
            return files
        files = [replace(f, path=path) for path, f in zip(inner, files, strict=True)]
    return files
