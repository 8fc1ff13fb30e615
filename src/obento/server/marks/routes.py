"""Marks by hand, and tables of marks."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query, Response

from obento.export.tables import rows_to_csv
from obento.export.workbook import rows_to_xlsx
from obento.server.deps import Db, OpeningRoute, Person, ServicesDep
from obento.server.errors import Trouble
from obento.server.feedback.lookup import lab_outcomes
from obento.server.feedback.marks_table import MarksTable
from obento.server.marks.ledger import override_mark
from obento.server.marks.models import MarksColumns, Override
from obento.server.models import Done

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["marks"])


@router.put("/handins/{handin_id}/tasks/{task_id}/mark")
def put_mark(handin_id: int, task_id: int, body: Override, c: Db, person: Person, services: ServicesDep) -> Done:
    """A mark by hand with its reason, or (without a value) back to the computed one. More than the task gives is taken
    only when that is said to be meant (`beyond`)."""
    if body.value is not None and not body.beyond:
        most = services.opened.current(c, task_id).expectation.spec.marks.total
        if body.value > most:
            raise Trouble(422, f"{body.value:g} is more than the {most:g} that this task gives")
    override_mark(c, handin_id, task_id, body.value, body.reason, person.id, body.over)
    return Done()


_COLUMNS = Query(max_length=200, description="which columns, in this order; the usual ones when left out")


Group = Annotated[str, Query(max_length=100, description="one group of the class list alone")]
Columns = Annotated[list[str] | None, _COLUMNS]


def _wanted(table: MarksTable, column: list[str] | None) -> list[str]:
    unknown = [name for name in column or () if name not in table.columns]
    if unknown:
        raise Trouble(422, f"there is no column `{unknown[0]}`")
    return column or table.usual


@router.get("/labs/{lab_id}/marks/columns")
def marks_columns(lab_id: int, c: Db, person: Person, services: ServicesDep) -> MarksColumns:
    """The columns that a table of marks can have."""
    table = MarksTable(lab_outcomes(c, lab_id, services))
    return MarksColumns(columns=table.columns, usual=table.usual)


@router.get("/labs/{lab_id}/marks.csv", response_class=Response)
def marks_csv(
    lab_id: int, c: Db, person: Person, services: ServicesDep, column: Columns = None, group: Group = ""
) -> Response:
    """Marks of the class, the roster's own columns first."""
    table = MarksTable(lab_outcomes(c, lab_id, services).of_group(group))
    wanted = _wanted(table, column)
    return Response(
        "\ufeff" + rows_to_csv(wanted, table.rows(wanted)), media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="marks-lab-{lab_id}.csv"'},
    )  # fmt: skip


@router.get("/labs/{lab_id}/marks.xlsx", response_class=Response)
def marks_xlsx(
    lab_id: int, c: Db, person: Person, services: ServicesDep, column: Columns = None, group: Group = ""
) -> Response:
    """The same as a workbook."""
    outcomes = lab_outcomes(c, lab_id, services).of_group(group)
    table = MarksTable(outcomes)
    wanted = _wanted(table, column)
    return Response(
        rows_to_xlsx(outcomes.lab.title, wanted, table.rows(wanted)),
        media_type="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
        headers={"Content-Disposition": f'attachment; filename="marks-lab-{lab_id}.xlsx"'},
    )  # fmt: skip
