"""Whose hand-in it is, by numbers and names of the class list: settled only where nothing speaks against it."""

from __future__ import annotations

import pytest

from obento.intake.names import ClassNames, Match, RosterName, drop_is_numbered, numbers_in, plain, words_of

ROSTER = [
    RosterName(1, "04107", "Ilse Varga"),
    RosterName(2, "04120", "Tomo Arakida"),
    RosterName(3, "s77", "Nadia Brenn"),
    RosterName(4, "4", "Bram Okafor"),
    RosterName(5, "5", "Ilse Roy"),
]


def match(label: str, roster: list[RosterName] = ROSTER, **more: bool) -> Match:
    return ClassNames(roster).match(label, **more)


def named(*names: str) -> list[RosterName]:
    return [RosterName(i, f"{9000 + i}", name) for i, name in enumerate(names, 1)]


@pytest.mark.parametrize(
    ("label", "sure"),
    [
        ("04107", (1,)), ("lab1-04120-final", (2,)), ("Varga_Ilse", (1,)), ("IlseVarga_lock", (1,)),
        ("arakida", (2,)), ("S77 (2)", (3,)), ("4", (4,)), ("okafor 4", (4,)),
        ("104107", ()), ("ilse", ()), ("lock stuff", ()),
    ],
)  # fmt: skip
def test_labels_find_their_students(label: str, sure: tuple[int, ...]) -> None:
    assert match(label).sure == sure


@pytest.mark.parametrize(
    ("label", "likely", "why"),
    [
        ("Varga_Ilse_04120", (2, 1), "04120 is the number of Tomo Arakida"),
        ("04107 arakida", (1, 2), "the name is more like Tomo Arakida"),
        ("04107_tomo", (1, 2), "the name is more like Tomo Arakida"),
        ("04107 04120", (1, 2), "a team?"),
        ("brenn_okafor", (3, 4), "Nadia Brenn and Bram Okafor: a team?"),
        ("lab_4_final", (4,), "may be the number of a lab or an attempt"),
        ("ilse", (1, 5), "fits several"),
        ("tomo varga", (1, 2), "fits several"),
        ("o. varga", (1,), "fits only in part"),
        ("lock stuff", (), "no student of the class"),
    ],
)
def test_what_speaks_against_it_is_asked(label: str, likely: tuple[int, ...], why: str) -> None:
    found = match(label)
    assert found.sure == () and found.likely == likely and why in found.why


def test_namesakes_are_never_guessed_and_never_a_team() -> None:
    twins = [RosterName(1, "1001", "Ada Berg"), RosterName(2, "1002", "Ada Berg"), RosterName(3, "1003", "Olaf Berg")]
    found = match("ada_berg", twins)
    assert found == Match((), (1, 2), "2 students are called Ada Berg", are_namesakes=True)
    assert match("Berg Ada", twins).sure == ()
    assert set(match("berg", twins).likely) == {1, 2, 3}
    assert match("berg_1002", twins).sure == (2,)
    assert match("Ada Berg 1002", twins).sure == (2,), "their number tells them apart"
    assert match("o berg", twins).sure == (3,) and match("a berg", twins).sure == ()


def test_a_name_inside_a_longer_one_is_not_meant() -> None:
    roster = named("Ana Silva", "Ana Silva Costa", "Rui Costa")
    assert match("Ana Silva Costa", roster).sure == (2,)
    assert match("ana_silva", roster).sure == (1,)


@pytest.mark.parametrize(
    ("label", "name"),
    [
        ("oneill_maeve", "Maeve O'Neill"), ("O’Neill Maeve", "Maeve O'Neill"), ("annalena.meyer", "Anna-Lena Meyer"),
        ("Meyer, Anna Lena", "Anna-Lena Meyer"), ("mueller_joerg", "Jörg Müller"), ("muller jorg", "Jörg Müller"),
        ("lukasz_slowik", "Łukasz Słowik"), ("ilsevarga", "Ilse Varga"), ("vargailse-lab2", "Ilse Varga"),
        ("i.varga", "Ilse Varga"), ("Анна_Петрова", "Анна Петрова"), ("王伟", "王 伟"), ("Søren Ås", "Soren As"),
        ("Varga Ilse", "Varga, Ilse"),
    ],
)  # fmt: skip
def test_names_in_any_spelling(label: str, name: str) -> None:
    assert match(label, named("Someone Else", name)).sure == (2,)


def test_teams_are_what_the_list_or_a_person_says() -> None:
    teams = [("canal", frozenset({3, 4}))]
    names = ClassNames(ROSTER, teams)
    assert names.match("brenn_okafor").sure == (3, 4)
    assert names.match("Canal").sure == (3, 4)
    assert names.match("varga arakida").is_team and not names.match("varga arakida").sure


def test_whose_the_numbers_of_a_drop_are_is_learned_from_all_of_them() -> None:
    names = ClassNames(ROSTER)
    ours = ["04107_a", "04120_b", "lab 2"]
    platform = ["Varga Ilse_88121_x", "Tomo Arakida_88122_x", "Nadia Brenn_04107_x"]
    assert drop_is_numbered(ours, names) and not drop_is_numbered(platform, names)
    assert names.match("Ilse Varga 88121", numbers_are_ours=False).sure == (1,)
    strange = names.match("Ilse Varga 88121", numbers_are_ours=True)
    assert strange.sure == () and "nobody's in this class" in strange.why
    assert names.match("Nadia Brenn_04107_x", numbers_are_ours=False).sure == (), "number and name disagree"
    assert names.match("final 04107", numbers_are_ours=False).sure == ()
    assert names.match("04107", numbers_are_ours=False).sure == (1,)


def test_numbers_in_a_label() -> None:
    assert numbers_in("Ilse Varga_88121_assignsubmission_file_") == ["88121"]
    assert numbers_in("s1007-lab1 2026x") == ["s1007", "2026x"]


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
        ("12 345", "12-345", True),
        ("12345", "12-345", True),
        ("912345", "12-345", False),
        ("0007", "007", False),  # another number, however alike
        ("7", "007", False),
        ("S77", "s77", True),
        ("nobody", "abc", False),  # a number without a digit is none
    ],
)
def test_a_number_stands_as_a_whole(label: str, number: str, is_found: bool) -> None:
    found = match(label, [RosterName(1, number, "Else Person")])
    assert (found.sure == (1,)) is is_found


def test_proposals_are_few() -> None:
    many = [RosterName(i, f"9{i:03}", f"Ann Name{chr(97 + i)}") for i in range(20)]
    assert len(match("ann", many).likely) == 6
