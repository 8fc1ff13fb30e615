"""In which order changes are looked for after a run: once for each text, one of each cluster first."""

from __future__ import annotations

from obento.core.handin import HandinFile
from obento.runner.worker import SpecFiles, Task
from obento.server.checking.service import Wrong, _by_text


def task(text: str, path: str = "m.v") -> Task:
    return Task(SpecFiles("s.toml", b""), (HandinFile(path, text.encode()),))


def order(*wrong: Wrong) -> list[list[int]]:
    """The outcomes that are searched together, in the order of the searches."""
    return [[w.result_id for w in alike] for _, alike in _by_text(list(wrong))]


def test_one_text_is_searched_once() -> None:
    same = task("assign y = a | b;")
    assert order(Wrong(1, "k", same), Wrong(2, "k", task("assign y = a | b;")), Wrong(3, "k", same)) == [[1, 2, 3]]


def test_a_text_in_another_file_is_another_one() -> None:
    """A change is said with its file and line."""
    assert order(Wrong(1, "k", task("x", "a.v")), Wrong(2, "k", task("x", "b.v"))) == [[1], [2]]


def test_one_of_each_cluster_comes_first_that_of_the_largest_before_all() -> None:
    small = [Wrong(1, "small", task("s1"))]
    large = [Wrong(n, "large", task(f"l{n}")) for n in (2, 3, 4)]
    middle = [Wrong(n, "middle", task(f"m{n}")) for n in (5, 6)]
    assert order(*small, *middle, *large) == [[2], [5], [1], [3], [6], [4]]
    assert order() == []
