"""Planes against the same said case by case."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from obento.core.planes import case_flags, count_plane, picked, plane_digits, set_bits, spelled

COUNT = 70
PLANE = st.integers(0, (1 << COUNT) - 1)


def of(plane: int) -> list[int]:
    return [plane >> case & 1 for case in range(COUNT)]


@given(PLANE)
def test_the_cases_of_a_plane(plane: int) -> None:
    assert set_bits(plane) == [case for case, digit in enumerate(of(plane)) if digit]
    assert list(case_flags(plane, COUNT)) == of(plane)
    assert plane_digits(plane, COUNT) == "".join(map(str, of(plane)))


@given(PLANE, st.one_of(st.lists(st.integers(0, COUNT - 1)), st.just(range(COUNT))))
def test_some_cases_are_picked_in_their_order(plane: int, chosen: list[int]) -> None:
    found = picked(plane, COUNT, chosen)
    assert [found >> n & 1 for n in range(len(chosen))] == [of(plane)[case] for case in chosen]
    assert found.bit_length() <= len(chosen)


@given(st.lists(PLANE, max_size=140))
def test_planes_spell_a_number_in_each_case(planes: list[int]) -> None:
    wanted = [int("".join(str(p >> case & 1) for p in planes) or "0", 2) for case in range(COUNT)]
    assert list(spelled(planes, COUNT)) == wanted


def test_counting_planes_spell_the_case() -> None:
    assert list(spelled([count_plane(i, COUNT) for i in range(6, -1, -1)], COUNT)) == list(range(COUNT))
    assert list(spelled([], 3)) == [0, 0, 0] and set_bits(0) == [] and picked(0, 0, []) == 0
