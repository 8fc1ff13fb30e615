"""Class lists from CSV, every column and id kept as given."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterator
from dataclasses import dataclass

from obento.core.texts import decode
from obento.intake.addresses import is_address
from obento.intake.names import plain

_NUMBER = ("number", "id", "student id", "student number", "matriculation", "student no", "no")
_NAME = ("name", "full name", "student", "student name")
_FIRST = ("first name", "given name", "first", "forename")
_FAMILY = ("family name", "last name", "surname", "last")
_EMAIL = ("email", "e-mail", "mail", "email address")


class RosterError(Exception):
    """The list cannot be read; one sentence with the line and what to do."""


@dataclass(frozen=True, slots=True)
class RosterRow:
    """One student. `email` is empty where the list has none, or none that mail can be sent to; `refused` is that one,
    with its line."""

    number: str
    name: str
    email: str
    given: dict[str, str]
    refused: str = ""


def read_roster(data: bytes) -> list[RosterRow]:
    """Rows of a class list.

    Raises
    ------
    RosterError
    """
    text = decode(data)
    if text is None:
        raise RosterError("this is no text file; save the list as CSV")
    text = text.replace("\r\n", "\n").replace("\r", "\n")
    head = text.split("\n", 1)[0]
    delimiter = max(",;\t", key=head.count)
    reader = _lines(csv.reader(io.StringIO(text), delimiter=delimiter))
    header = [h.strip() for h in next(reader, (1, []))[1]]
    columns = {plain(h): i for i, h in enumerate(header)}

    def column(names: tuple[str, ...]) -> int | None:
        return next((columns[n] for n in names if n in columns), None)

    number, name, email = column(_NUMBER), column(_NAME), column(_EMAIL)
    first, family = column(_FIRST), column(_FAMILY)
    if number is None or (name is None and (first is None or family is None)):
        raise RosterError(
            "line 1 must name the columns, among them `number` and `name` (or `first name` and `last name`)"
        )
    rows: list[RosterRow] = []
    seen: dict[str, int] = {}
    for line, cells in reader:
        if not any(c.strip() for c in cells):
            continue
        cells += [""] * (len(header) - len(cells))
        own = cells[number]
        if not own.strip():
            raise RosterError(f"line {line} has no number")
        if own in seen:
            raise RosterError(f"line {line}: the number {own} stands in line {seen[own]} already")
        seen[own] = line
        full = cells[name] if name is not None else f"{cells[first or 0].strip()} {cells[family or 0].strip()}"
        address = cells[email].strip() if email is not None else ""
        for what, cell, most in (("number", own, 100), ("name", full, 200)):
            if len(cell) > most:
                raise RosterError(f"line {line}: the {what} is longer than {most} characters")
        is_right = not address or is_address(address)
        rows.append(
            RosterRow(
                own,
                full.strip(),
                address if is_right else "",
                dict(zip(header, cells, strict=False)),
                "" if is_right else f"line {line}: {address[:80]}",
            )
        )
    if not rows:
        raise RosterError("the list has no rows")
    return rows


def _lines(reader: Iterator[list[str]]) -> Iterator[tuple[int, list[str]]]:
    """Rows with their numbers."""
    line = 0
    try:
        for line, cells in enumerate(reader, 1):
            yield line, cells
    except csv.Error as error:
        raise RosterError(f"line {line + 1} cannot be read as CSV: {error}") from error
