"""Class lists: every column and number as given, whatever program wrote them."""

from __future__ import annotations

import pytest

from obento.intake.roster import RosterError, read_roster


def test_class_lists_keep_what_is_given() -> None:
    rows = read_roster(
        "Number;First name;Last name;E-mail;Note\r\n007;Åse;Lind;a@x.example;=1+1\r\n".encode("utf-8-sig")
    )
    assert (rows[0].number, rows[0].name, rows[0].email, rows[0].given["Note"]) == (
        "007",
        "Åse Lind",
        "a@x.example",
        "=1+1",
    )
    for bad, match in (
        (b"a,b\n1,2\n", "line 1"),
        (b"number,name\n1,A\n1,B\n", "line 3"),
        (b"number,name\n", "no rows"),
        (b"\0\1", "no text"),
    ):
        with pytest.raises(RosterError, match=match):
            read_roster(bad)


@pytest.mark.parametrize("delimiter", [",", ";", "\t"])
@pytest.mark.parametrize("end", ["\n", "\r\n"])
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
    ["number,name", "ID,Student", "Matriculation,Full Name", "student id,student name", "no,surname,forename"],
)
def test_columns_by_their_usual_names(header: str) -> None:
    names = "Berg,Ada" if "surname" in header else "Ada Berg"
    (row,) = read_roster(f"{header}\n7,{names}\n".encode())
    assert (row.number, row.name, row.email) == ("7", "Ada Berg", "")


def test_quoted_fields_short_rows_and_empty_lines() -> None:
    text = 'number,name,note\n\n1,"Berg, Ada","two\nlines"\n , ,\n2,Bo\n'
    rows = read_roster(text.encode())
    assert [(r.number, r.name, r.given["note"]) for r in rows] == [("1", "Berg, Ada", "two\nlines"), ("2", "Bo", "")]


def test_a_row_without_a_number_is_told_with_its_line() -> None:
    with pytest.raises(RosterError, match="line 3 has no number"):
        read_roster(b"number,name\n1,A\n,B\n")
