"""Marks, letters, release, the student's page and the mailbox."""

from __future__ import annotations

import json

from fastapi import APIRouter, Response

from obento.export.tables import rows_to_csv
from obento.server import course
from obento.server.deps import Db, Person, ServicesDep
from obento.server.errors import not_found
from obento.server.letters import LabPicture, override_mark
from obento.server.models import ClassReport, Done, FeedbackView, Letter, MailView, Override, PageView, Release, Released
from obento.server.report import class_report, report_rows
from obento.server.security import token_hash
from obento.store import feedback, handins, people

router = APIRouter(prefix="/api", tags=["feedback"])


def _picture(c: Db, lab_id: int, person: Person, found: ServicesDep) -> LabPicture:
    return LabPicture(c, course.may_see_lab(c, lab_id, person["id"]), found.shelf)


@router.get("/labs/{lab_id}/feedback")
def get_feedback(lab_id: int, c: Db, person: Person, found: ServicesDep) -> FeedbackView:
    """Comments by cluster, marks and letters by student."""
    return _picture(c, lab_id, person, found).view()


@router.get("/labs/{lab_id}/letters/{student_id}")
def get_letter(lab_id: int, student_id: int, c: Db, person: Person, found: ServicesDep) -> Letter:
    """A letter as it would be released now."""
    return _picture(c, lab_id, person, found).letter(student_id)


@router.post("/labs/{lab_id}/release")
def release(lab_id: int, body: Release, c: Db, person: Person, found: ServicesDep) -> Released:
    """Freeze letters and send their links; of all students when none are named."""
    return _picture(c, lab_id, person, found).release(body.student_ids, person["id"], found.settings.link_days)


@router.post("/labs/{lab_id}/withdraw")
def withdraw(lab_id: int, c: Db, person: Person) -> Released:
    """Take back the letters that nobody has opened."""
    course.may_see_lab(c, lab_id, person["id"])
    count = feedback.withdraw_unread(c, lab_id)
    people.audit(c, person["id"], "withdraw", f"lab {lab_id}", {"letters": count})
    return Released(letters=count, unchanged=0, without_address=0)


@router.put("/handins/{handin_id}/tasks/{task_id}/mark")
def put_mark(handin_id: int, task_id: int, body: Override, c: Db, person: Person) -> Done:
    """A mark by hand with its reason, or (without a value) back to the computed one."""
    row = handins.handin(c, handin_id)
    if row is None:
        raise not_found("hand-in")
    course.may_see_lab(c, row["lab_id"], person["id"])
    course.may_see_task(c, task_id, person["id"])
    override_mark(c, handin_id, task_id, body.value, body.reason, person["id"])
    return Done()


@router.get("/labs/{lab_id}/report")
def get_report(lab_id: int, c: Db, person: Person, found: ServicesDep) -> ClassReport:
    """What the class as a whole got wrong, without names."""
    return class_report(_picture(c, lab_id, person, found))


@router.get("/labs/{lab_id}/report.csv", response_class=Response)
def report_csv(lab_id: int, c: Db, person: Person, found: ServicesDep) -> Response:
    """The same as a table."""
    text = rows_to_csv(["task", "what", "text", "hand-ins", "of"], report_rows(class_report(_picture(c, lab_id, person, found))))
    return Response(
        "\ufeff" + text, media_type="text/csv; charset=utf-8", headers={"Content-Disposition": f'attachment; filename="report-lab-{lab_id}.csv"'}
    )


@router.get("/labs/{lab_id}/marks.csv", response_class=Response)
def marks_csv(lab_id: int, c: Db, person: Person, found: ServicesDep) -> Response:
    """Marks of the class, the roster's own columns first."""
    picture = _picture(c, lab_id, person, found)
    view = picture.view()
    given = {r["id"]: json.loads(r["given"]) for r in c.rows("SELECT id, given FROM student WHERE class_id = %s", picture.lab["class_id"])}
    columns = list(dict.fromkeys(k for g in given.values() for k in g)) or ["number", "name"]
    header = [*columns, *(t.title for t in view.tasks), "sum", "late", "remark"]
    rows = []
    for s in view.students:
        own = given.get(s.student_id) or {"number": s.number, "name": s.name}
        remark = "nothing handed in" if s.handin_id is None else "held" if any(s.held) else ""
        marks = ["" if m is None else f"{m:g}" for m in s.marks]
        rows.append([*(own.get(k, "") for k in columns), *marks, "" if s.sum is None else f"{s.sum:g}", "late" if s.late else "", remark])
    return Response(
        "\ufeff" + rows_to_csv(header, rows), media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="marks-lab-{lab_id}.csv"'},
    )  # fmt: skip


@router.get("/page/{token}")
def page(token: str, c: Db, response: Response) -> PageView:
    """A student's own letter, behind a link that nobody guesses."""
    row = feedback.open_page(c, token_hash(token))
    if row is None:
        raise not_found("page, or the link no longer holds; ask your teaching assistant for a new one")
    response.headers["Cache-Control"] = "no-store"
    return PageView(
        letter=Letter.model_validate_json(row["frozen"]), number=row["number"], released_at=row["released_at"], expires_at=row["expires_at"]
    )


@router.get("/mailbox")
def mailbox(person: Person, found: ServicesDep) -> list[MailView]:
    """What the stand-in mailbox has taken in: what would have been sent."""
    del person
    if found.mailbox is None:
        return []
    return [MailView(id=m.id, to=m.to, subject=m.subject, date=m.date, text=m.text) for m in found.mailbox.mails()]
