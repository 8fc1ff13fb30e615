"""Class lists: every column and number as given, whatever program wrote them, and every trouble with its line."""

from __future__ import annotations

import pytest

from obento.intake.roster import Roster, RosterError, read_list, read_roster, students_of


def taken(text: str, columns: dict[str, int] | None = None) -> Roster:
    return students_of(read_list(text.encode()), columns)


def test_class_lists_keep_what_is_given() -> None:
    rows = read_roster(
        "Number;First name;Last name;E-mail;Note\r\n007;Åse;Lind;a@x.example;=1+1\r\n".encode("utf-8-sig")
    )
    assert (rows[0].number, rows[0].name, rows[0].email) == ("007", "Åse Lind", "a@x.example")
    assert rows[0].given["Note"] == "=1+1" == rows[0].remarks


@pytest.mark.parametrize(
    ("bad", "match"),
    [(b"a,b\n1,2\n", "line 1"), (b"number,name\n", "no rows"), (b"\0\1", "no text"), (b"", "no rows"),
     (b"number,name\n,A\n", "line 2: there is no number")],
)  # fmt: skip
def test_what_cannot_be_read_at_all(bad: bytes, match: str) -> None:
    with pytest.raises(RosterError, match=match):
        read_roster(bad)


@pytest.mark.parametrize("delimiter", [",", ";", "\t"])
@pytest.mark.parametrize("end", ["\n", "\r\n", "\r"])
@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_whatever_wrote_it(delimiter: str, end: str, encoding: str) -> None:
    lines = [
        ["Student No", "Full name", "Mail"],
        ["0042", "Žofie Müller" if "utf" in encoding else "Zoë Müller", "z@x"],
    ]
    text = end.join(delimiter.join(line) for line in lines) + end
    (row,) = read_roster(text.encode(encoding))
    assert (row.number, row.email) == ("0042", "z@x")
    assert row.name == lines[1][1]


@pytest.mark.parametrize(
    "header",
    ["number,name", "ID,Student", "Matriculation,Full Name", "student id,student name", "no,surname,forename",
     "Student_ID,Last-Name,First.Name", "Matrikelnummer,Nachname,Vorname", "ID number,Surname,First name"],
)  # fmt: skip
def test_columns_by_their_usual_names(header: str) -> None:
    names = "Berg,Ada" if header.count(",") == 2 else "Ada Berg"
    (row,) = read_roster(f"{header}\n7,{names}\n".encode())
    assert (row.number, row.name, row.email) == ("7", "Ada Berg", "")


def test_columns_by_what_stands_in_them() -> None:
    file = read_list(b"A,B,C,D\n1001,Ada Berg,x,ada@x.example\n1002,Bo Dahl,x,bo@x.example\n")
    assert file.columns == {"number": 0, "name": 1, "email": 3}
    assert read_list(b"who,where\nAda,here\n").columns == {}


def test_columns_by_choice() -> None:
    found = taken("a,b,c\nBerg,1,Ada\n", {"number": 1, "first": 2, "family": 0, "group": 0})
    assert (found.rows[0].number, found.rows[0].name, found.rows[0].group) == ("1", "Ada Berg", "Berg")
    with pytest.raises(RosterError, match="not in the list"):
        taken("a,b\n1,2\n", {"number": 0, "name": 7})


def test_quoted_fields_short_rows_and_empty_lines() -> None:
    text = 'number,name,note\n\n1,"Berg, Ada","two\nlines"\n , ,\n2,Bo\n'
    rows = read_roster(text.encode())
    assert [(r.number, r.name, r.given["note"]) for r in rows] == [("1", "Berg, Ada", "two\nlines"), ("2", "Bo", "")]


@pytest.mark.parametrize(
    ("lines", "numbers", "problem"),
    [
        ("1,A\n,B", ["1"], (3, "there is no number", True)),
        ("1,A\n1,B", ["1"], (3, "stands in line 2 already", True)),
        ("12 3,A\n 123 ,B", ["12 3"], (3, "stands in line 2 already", True)),
        ("1,A\n2, ", ["1"], (3, "there is no name", True)),
        ("1,A,nowhere", ["1"], (2, "no mail can be sent to nowhere", False)),
        ('1,A,"a@x.example; b@x.example"', ["1"], (2, "of 2 addresses a@x.example is taken", False)),
        ('1,"A,a@x.example\n2,B,b@x.example', ["1", "2"], (2, "a quotation mark is not closed", False)),
        ("1," + "A" * 300, ["1"], (2, "the name is longer than 200 characters and was cut", False)),
    ],
)
def test_troubles_are_told_by_line_and_keep_nobody_else_out(
    lines: str, numbers: list[str], problem: tuple[int, str, bool]
) -> None:
    found = taken(f"number,name,email\n{lines}\n")
    assert [r.number for r in found.rows] == numbers
    ((line, text, is_left_out),) = [(p.line, p.text, p.is_left_out) for p in found.problems]
    assert line == problem[0] and problem[1] in text and is_left_out == problem[2]


def test_an_empty_first_name_is_no_trouble() -> None:
    found = taken("number,first name,last name\n1,,Plato\n2,Ada,Berg\n")
    assert [r.name for r in found.rows] == ["Plato", "Ada Berg"] and not found.problems


def test_groups_teams_and_remarks() -> None:
    (row,) = read_roster(b"id,name,section,team,remarks\n1,Ada Berg,B,canal,ill\n")
    assert (row.group, row.team, row.remarks) == ("B", "canal", "ill")
