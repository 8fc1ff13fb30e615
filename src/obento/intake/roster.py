"""Class lists from CSV: any headings, every column and number kept as given, what is wrong told line by line."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from obento.core.texts import decode
from obento.intake.addresses import is_address
from obento.intake.names import plain

FIELDS = ("number", "name", "first", "family", "email", "group", "team", "remarks")
"""What a column may be; `first` and `family` together are a name."""

_HEADINGS: dict[str, tuple[str, ...]] = {
    "number": ("number", "id", "student id", "student number", "matriculation", "matriculation number", "student no",
               "no", "id number", "registration number", "matrikelnummer", "matricola", "matricule", "numero"),
    "name": ("name", "full name", "student", "student name", "nom complet", "nombre completo"),
    "first": ("first name", "given name", "first", "forename", "vorname", "prenom", "nombre", "nome"),
    "family": ("family name", "last name", "surname", "last", "nachname", "nom", "apellidos", "apellido", "cognome"),
    "email": ("email", "e mail", "mail", "email address", "e mail address", "address"),
    "group": ("group", "groups", "section", "class", "gruppe", "groupe", "grupo", "tutorial"),
    "team": ("team", "pair", "partner group"),
    "remarks": ("remarks", "remark", "note", "notes", "comment", "bemerkung", "remarque"),
}  # fmt: skip
_WORTH = 0.6
"""The share of a column's cells that have to look like something for it to be taken for that."""
_MOST = {"number": 100, "name": 200, "group": 100, "team": 200, "remarks": 2000}
_DELIMITERS = ",;\t|"


class RosterError(Exception):
    """The list cannot be read; one sentence with the line and what to do."""


@dataclass(frozen=True, slots=True)
class RosterRow:
    """One student. `email` is empty where the list has none, or none that mail can be sent to."""

    number: str
    name: str
    email: str
    given: dict[str, str]
    group: str = ""
    team: str = ""
    remarks: str = ""
    line: int = 0


@dataclass(frozen=True, slots=True)
class RosterProblem:
    """What is wrong in one line, and whether the line is left out for it."""

    line: int
    text: str
    is_left_out: bool


@dataclass(frozen=True, slots=True)
class ListFile:
    """A class list as it stands in its file: the headings, the lines with their numbers, and what the columns seem to
    be (field to index)."""

    header: list[str]
    lines: list[tuple[int, list[str]]]
    columns: dict[str, int]
    problems: list[RosterProblem] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Roster:
    rows: list[RosterRow]
    problems: list[RosterProblem]


def read_list(data: bytes) -> ListFile:
    """A class list with its headings.

    Raises
    ------
    RosterError
        If it is no text, or has no lines.
    """
    text = decode(data)
    if text is None:
        raise RosterError("this is no text file; save the list as CSV")
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    head = text.split("\n", 1)[0]
    delimiter = max(_DELIMITERS, key=head.count)
    problems: list[RosterProblem] = []
    found = list(_lines(text, delimiter, csv.QUOTE_MINIMAL))
    torn = next((n for n, cells in found if any(_is_torn(c, delimiter) for c in cells)), None)
    if torn is not None:
        problems.append(RosterProblem(torn, "a quotation mark is not closed; all were taken as they stand", False))
        found = list(_lines(text, delimiter, csv.QUOTE_NONE))
    rows = [(n, cells) for n, cells in found if any(c.strip() for c in cells)]
    if not rows:
        raise RosterError("the list has no rows")
    header = [h.strip() or f"column {i + 1}" for i, h in enumerate(rows[0][1])]
    lines = [(n, cells + [""] * (len(header) - len(cells))) for n, cells in rows[1:]]
    if not lines:
        raise RosterError("the list has no rows")
    return ListFile(header, lines, guess_columns(header, [cells for _, cells in lines]), problems)


def _is_torn(cell: str, delimiter: str) -> bool:
    """Whether a cell has swallowed lines: what stands between its line ends has as many delimiters as a row."""
    return sum(delimiter in line for line in cell.split("\n")[1:]) > 0


def guess_columns(header: Sequence[str], lines: Sequence[Sequence[str]]) -> dict[str, int]:
    """What columns seem to be, by their headings, else by what stands in them."""
    plainly = [" ".join(re.findall(r"\w+", plain(h).replace("_", " "))) for h in header]
    found: dict[str, int] = {}
    for what in FIELDS:
        for heading in _HEADINGS[what]:
            if what not in found and heading in plainly and plainly.index(heading) not in found.values():
                found[what] = plainly.index(heading)
    if "first" in found and "family" in found:
        found.pop("name", None)
    elif "name" not in found and ("first" in found or "family" in found):
        found["name"] = found.pop("family", found.pop("first", 0))
    free = [i for i in range(len(header)) if i not in found.values()]
    cells = {i: [line[i].strip() for line in lines if i < len(line)] for i in free}
    if "email" not in found:
        _take(found, "email", free, cells, lambda c: "@" in c)
    if "number" not in found:
        _take(found, "number", free, cells, lambda c: bool(re.fullmatch(r"\w{0,3}[\d\s./-]{3,}\w?", c)))
    if "name" not in found and "family" not in found:
        _take(found, "name", free, cells, lambda c: bool(re.fullmatch(r"[^\d@]{2,}[ ,][^\d@]+", c)))
    return found


def _take(found: dict[str, int], what: str, free: list[int], cells: dict[int, list[str]], looks: object) -> None:
    assert callable(looks)
    for i in free:
        filled = [c for c in cells[i] if c]
        unique = what != "number" or len(set(filled)) == len(filled)
        if i not in found.values() and filled and unique and sum(map(looks, filled)) >= _WORTH * len(filled):
            found[what] = i
            return


def students_of(file: ListFile, columns: Mapping[str, int] | None = None) -> Roster:
    """The students of a list, by the columns that somebody chose (or those recognised). What cannot be used is told
    with its line, and never keeps the others out.

    Raises
    ------
    RosterError
        If no column is the number, or none the name.
    """
    chosen = dict(file.columns if columns is None else columns)
    if "number" not in chosen or not ("name" in chosen or ("first" in chosen and "family" in chosen)):
        raise RosterError(
            "line 1 must name the columns, among them `number` and `name` (or `first name` and `last name`); or choose"
            " them"
        )
    if any(not 0 <= i < len(file.header) for i in chosen.values()):
        raise RosterError("a column was chosen that is not in the list")
    rows: list[RosterRow] = []
    problems = list(file.problems)
    seen: dict[str, int] = {}
    for line, cells in file.lines:
        value = {what: " ".join(cells[i].split()) for what, i in chosen.items()}
        name = value.get("name") or f"{value.get('first', '')} {value.get('family', '')}".strip()
        trouble = _trouble(value["number"], name, seen)
        if trouble:
            problems.append(RosterProblem(line, f"{trouble}; the line is left out", True))
            continue
        seen[bare_number(value["number"])] = line
        email, said = _address(value.get("email", ""))
        problems += [RosterProblem(line, text, False) for text in said]
        values = value | {"name": name}
        for what, most in _MOST.items():
            if len(values.get(what, "")) > most:
                problems.append(RosterProblem(line, f"the {what} is longer than {most} characters and was cut", False))
        given = dict(zip(file.header, cells, strict=False))
        rows.append(
            RosterRow(
                values["number"][:100], name[:200], email, given, value.get("group", "")[:100],
                value.get("team", "")[:200], value.get("remarks", "")[:2000], line,
            )
        )  # fmt: skip
    if not rows:
        raise RosterError(f"no line can be used; line {problems[0].line}: {problems[0].text}")
    return Roster(rows, problems)


def read_roster(data: bytes) -> list[RosterRow]:
    """The students of a list whose columns are recognised.

    Raises
    ------
    RosterError
    """
    return students_of(read_list(data)).rows


def _trouble(number: str, name: str, seen: Mapping[str, int]) -> str:
    if not number:
        return "there is no number"
    if len(number) > _MOST["number"]:
        return f"the number is longer than {_MOST['number']} characters"
    if bare_number(number) in seen:
        return f"the number {number} stands in line {seen[bare_number(number)]} already"
    return "" if name else "there is no name"


def bare_number(number: str) -> str:
    """A number as it is told from others: without blanks, capitals or not."""
    return "".join(number.split()).casefold()


def _address(cell: str) -> tuple[str, list[str]]:
    """The address in a cell, and what is to be said of it. Of several the first that mail can be sent to is taken."""
    parts = [p.strip(" <>") for p in re.split(r"[;,\s]+", cell) if p.strip(" <>")]
    right = [p for p in parts if is_address(p)]
    if not parts:
        return "", []
    if not right:
        return "", [f"no mail can be sent to {cell[:80]}"]
    if len(parts) > 1:
        return right[0], [f"of {len(parts)} addresses {right[0]} is taken"]
    return right[0], []


def _lines(text: str, delimiter: str, quoting: int) -> Iterator[tuple[int, list[str]]]:
    """Rows with the numbers of the lines they begin in."""
    reader = csv.reader(io.StringIO(text), delimiter=delimiter, quoting=quoting)  # type: ignore[arg-type]
    begins = 1
    try:
        for cells in reader:
            yield begins, cells
            begins = reader.line_num + 1
    except csv.Error as error:
        raise RosterError(f"line {begins} cannot be read as CSV: {error}") from error
