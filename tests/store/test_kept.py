"""What is kept in memory: the same as what is fetched, never more than it may weigh."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from obento.store.kept import Kept


@given(st.lists(st.lists(st.integers(0, 30), max_size=8)), st.integers(1, 40))
def test_values_are_those_that_would_be_fetched(asked: list[list[int]], most: int) -> None:
    kept: Kept[int, str] = Kept(most, len)
    for keys in asked:
        assert kept.read(keys, lambda missing: {key: "x" * key for key in missing}) == {k: "x" * k for k in keys}


def test_nothing_is_fetched_twice_while_it_is_there() -> None:
    kept: Kept[int, int] = Kept(3)
    fetched: list[list[int]] = []

    def fetch(missing: list[int]) -> dict[int, int]:
        fetched.append(missing)
        return {key: -key for key in missing}

    for keys in ([1, 2], [2, 1, 1], [3], [1], [4], [1, 3, 4], [2]):
        kept.read(keys, fetch)
    assert fetched == [[1, 2], [3], [4], [2]]  # 2 was the least used when 4 came


def test_many_are_fetched_some_at_a_time() -> None:
    sizes: list[int] = []

    def fetch(missing: list[int]) -> dict[int, int]:
        sizes.append(len(missing))
        return dict.fromkeys(missing, 0)

    assert len(Kept[int, int](10_000).read(range(600), fetch)) == 600 and sizes == [256, 256, 88]
