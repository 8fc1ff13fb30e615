"""Whose hand-in it is, by numbers and names of the class list."""

from __future__ import annotations

import pytest

from obento.intake.names import RosterName, match_students, plain, words_of

ROSTER = [
    RosterName(1, "04107", "Ilse Varga"),
    RosterName(2, "04120", "Tomo Arakida"),
    RosterName(3, "s77", "Nadia Brenn"),
    RosterName(4, "4", "Bram Okafor"),
    RosterName(5, "5", "Ilse Roy"),
]


@pytest.mark.parametrize(
    ("label", "sure"),
    [
        ("04107", (1,)), ("lab1-04120-final", (2,)), ("Varga_Ilse", (1,)), ("IlseVarga_lock", (1,)),
        ("arakida", (2,)), ("S77 (2)", (3,)),
        ("brenn_okafor", (3, 4)), ("04107 04120", (1, 2)), ("104107", ()), ("ilse", ()), ("lock stuff", ()),
    ],
)  # fmt: skip
def test_labels_find_their_students(label: str, sure: tuple[int, ...]) -> None:
    assert match_students(label, ROSTER).sure == sure


def test_a_doubtful_label_is_proposed_not_settled() -> None:
    assert set(match_students("ilse", ROSTER).likely) == {1, 5}


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("IlseVarga_lab1", ["ilse", "varga", "lab", "1"]),
        ("Zoë Ó Dálaigh", ["zoe", "o", "dalaigh"]),
        ("STRASSE-straße", ["strasse", "strasse"]),
        ("a.b-c_d", ["a", "b", "c", "d"]),
        ("", []),
        ("___", []),
    ],
)
def test_words_of_a_label(text: str, words: list[str]) -> None:
    assert list(words_of(text)) == words


def test_letters_without_accents() -> None:
    assert plain("ÀÉÎõü Ç ß ﬁ") == "aeiou c ss fi"


@pytest.mark.parametrize(
    ("label", "number", "is_found"),
    [
        ("s1007_lab", "s1007", True),
        ("s10071", "s1007", False),
        ("xs1007", "s1007", False),
        ("12-345", "12/345", True),  # whatever stands between the parts of a number
        ("12345", "12-345", True),
        ("912345", "12-345", False),
        ("0007", "007", False),  # another number, however alike
        ("7", "007", False),
        ("S77", "s77", True),
        ("lab_4_final", "4", True),
        ("nobody", "abc", False),  # a number without a digit is none
    ],
)
def test_a_number_stands_as_a_whole(label: str, number: str, is_found: bool) -> None:
    found = match_students(label, [RosterName(1, number, "Nobody Else")])
    assert (found.sure == (1,)) is is_found


def test_namesakes_are_never_guessed() -> None:
    twins = [RosterName(1, "1001", "Ada Berg"), RosterName(2, "1002", "Ada Berg"), RosterName(3, "1003", "Olaf Berg")]
    assert match_students("ada_berg", twins).sure == (1, 2), "both are named outright: a person says which"
    assert match_students("berg", twins).sure == ()
    assert set(match_students("berg", twins).likely) == {1, 2, 3}
    assert match_students("berg_1002", twins).sure == (2,)


def test_proposals_are_few() -> None:
    many = [RosterName(i, f"9{i:03}", f"Ann Name{chr(97 + i)}") for i in range(20)]
    assert len(match_students("ann", many).likely) == 6
