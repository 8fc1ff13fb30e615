"""One drop of many hand-ins taken apart."""

from __future__ import annotations

import pytest

from obento.intake.batch import split_children
from obento.intake.dropped import Spool

SPOOL = Spool()


def test_children_of_a_drop() -> None:
    files = [SPOOL.keep(p, b"") for p in ("all/a/x.v", "all/b.v", "all/c.v", "all/c.wiring")]
    assert sorted(split_children(files)) == ["a", "b", "c.v", "c.wiring"]


@pytest.mark.parametrize(
    ("paths", "children"),
    [
        (["a/x.v", "b/x.v"], {"a": ["x.v"], "b": ["x.v"]}),
        (["drop/lab/a/x.v", "drop/lab/b/x.v"], {"a": ["x.v"], "b": ["x.v"]}),  # lone folders are looked through
        (["a/src/x.v", "a/src/y.v"], {"src": ["x.v", "y.v"]}),
        (["a/x.v", "a/y.v"], {"a": ["x.v", "y.v"]}),  # a lone folder of files is one hand-in
        (["a.v"], {"a": ["a.v"]}),
        (["a.v", "a/x.v"], {"a": ["x.v"], "a.v": ["a.v"]}),  # called the same without the suffix
        ([".v"], {".v": [".v"]}),
        ([], {}),
    ],
)
def test_children(paths: list[str], children: dict[str, list[str]]) -> None:
    found = split_children([SPOOL.keep(p, p.encode()) for p in paths])
    assert {name: [f.path for f in files] for name, files in found.items()} == children


def test_nothing_is_lost_and_nothing_is_mixed() -> None:
    paths = [f"w{i % 7}/s{i % 3}/f{i}.v" for i in range(60)] + [f"x{i}.v" for i in range(10)]
    found = split_children([SPOOL.keep(p, p.encode()) for p in paths])
    assert sorted(f.data.decode() for files in found.values() for f in files) == sorted(paths)
    assert all(f.data.decode().startswith(name) for name, files in found.items() for f in files)
