"""X in the tables of a spec: assignment sheets print it where any value will do, Verilog where a value is unknown.

What is meant is asked, since the two give other verdicts: `x = "any"` or `x = "unknown"` in [expect] answers for the
whole spec."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace

from obento.core.spec.model import Cell, FunctionRow, Row, StepList, StepRow

MEANINGS = ("any", "unknown")


def unknown_digits(cell: Cell) -> int:
    """The digits of a cell that are a literal x."""
    return cell.care & ~cell.word[0] & ~cell.word[1]


def first_expected(rows: Iterable[Row | StepRow], function: Iterable[FunctionRow]) -> int | None:
    """Where x is expected first although everything given is known; an unknown input has unknown outputs, which nobody
    need ask about."""
    for row in rows:
        given = any(cell.care & ~(cell.word[0] ^ cell.word[1]) for cell in row.inputs)
        if not given and row.outputs is not None and any(map(unknown_digits, row.outputs)):
            return row.position
    for line in function:
        if any(isinstance(then, Cell) and unknown_digits(then) for _, then in line.then):
            return line.position
    return None


def first_applied(rows: Iterable[Row | StepRow]) -> int | None:
    """Where x stands among inputs first."""
    return next((row.position for row in rows if any(map(unknown_digits, row.inputs))), None)


def all_rows(
    table: tuple[Row, ...] | None, listed: tuple[Row, ...], steps: tuple[StepList, ...]
) -> Iterator[Row | StepRow]:
    """Every row that gives inputs and expects outputs."""
    yield from table or ()
    yield from listed
    for sequence in steps:
        yield from sequence.rows


def row_as_any(row: Row) -> Row:
    """The same row with `-` for x, on both sides."""
    return replace(row, inputs=_as_any(row.inputs), outputs=None if row.outputs is None else _as_any(row.outputs))


def steps_as_any(steps: tuple[StepList, ...]) -> tuple[StepList, ...]:
    """The same sequences with `-` for x, on both sides."""
    return tuple(
        replace(
            s,
            rows=tuple(
                replace(r, inputs=_as_any(r.inputs), outputs=None if r.outputs is None else _as_any(r.outputs))
                for r in s.rows
            ),
        )
        for s in steps
    )


def function_as_any(rows: tuple[FunctionRow, ...]) -> tuple[FunctionRow, ...]:
    """The same function table with `-` for x as the value after."""
    return tuple(
        replace(r, then=tuple((name, _any(then) if isinstance(then, Cell) else then) for name, then in r.then))
        for r in rows
    )


def _as_any(cells: tuple[Cell, ...]) -> tuple[Cell, ...]:
    return tuple(map(_any, cells))


def _any(cell: Cell) -> Cell:
    return replace(cell, care=cell.care & ~unknown_digits(cell))
