"""Marks, letters, release, the student's page and the mailbox."""

from __future__ import annotations

import re
from typing import Annotated

from fastapi import APIRouter, Cookie, Query, Request, Response

from obento.export.tables import rows_to_csv
from obento.mail.standin import Mail
from obento.server.accounts.invitations import WELCOME
from obento.server.accounts.security import token_hash
from obento.server.deps import Db, OpeningRoute, Person, ServicesDep, WorkDep
from obento.server.errors import not_found
from obento.server.feedback.drafts import draft, from_bank
from obento.server.feedback.letters import letter_for
from obento.server.feedback.lookup import lab_outcomes
from obento.server.feedback.models import (
    ClassReport,
    ClusterKey,
    Drafted,
    DraftView,
    EarlierLetter,
    FeedbackView,
    Letter,
    MailView,
    PageHead,
    PageView,
    Release,
    Released,
    ReleasePlan,
)
from obento.server.feedback.overview import feedback_view
from obento.server.feedback.plan import release_plan
from obento.server.feedback.release import release
from obento.server.feedback.report import class_report, report_rows
from obento.server.results.clusters import clusters_of
from obento.server.results.lookup import outcomes_of
from obento.store import accounts, audit, comments, letters
from obento.store.connection import Connection
from obento.store.letters import Page

_PAGE = re.compile(r"/page/([\w-]+)")
"""Whose letter a mail is about: the link in it."""


Group = Annotated[str, Query(max_length=100, description="one group of the class list alone")]

open_router = APIRouter(prefix="/api", tags=["feedback"])
"""What needs no sign-in."""

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["feedback"])


@router.get("/labs/{lab_id}/feedback", response_model=FeedbackView)
def get_feedback(lab_id: int, c: Db, person: Person, request: Request, services: ServicesDep) -> Response:
    """Comments by cluster, marks and letters by student."""
    return services.answers.of(c, request, lambda: feedback_view(lab_outcomes(c, lab_id, services)))


@router.get("/labs/{lab_id}/letters/{student_id}")
def get_letter(lab_id: int, student_id: int, c: Db, person: Person, services: ServicesDep) -> Letter:
    """A letter as it would be released now."""
    return letter_for(lab_outcomes(c, lab_id, services), student_id)


@router.get("/tasks/{task_id}/drafts/{cluster}")
def get_draft(task_id: int, cluster: ClusterKey, c: Db, person: Person, services: ServicesDep) -> DraftView:
    """A comment for a cluster, made from its findings, and comments that were written on others."""
    outcomes = outcomes_of(c, task_id, services)
    return DraftView(text=draft(outcomes, cluster), bank=from_bank(outcomes, cluster, person.id))


@router.post("/labs/{lab_id}/drafts")
def draft_all(lab_id: int, c: Db, person: Person, services: ServicesDep, work: WorkDep) -> Drafted:
    """Draft a comment for every cluster that has none."""
    unsaid = [
        (task, cluster)
        for task in lab_outcomes(c, lab_id, services).tasks
        for cluster in clusters_of(task)
        if not cluster.comment.strip()
    ]
    done = 0
    for number, (task, cluster) in enumerate(unsaid):
        work.step(number, len(unsaid))
        text = draft(task, cluster.key)
        if text:
            comments.put_comment(c, task.task.id, cluster.key, 0, text, cluster.comment_version, person.id)
            done += 1
    audit.note(c, person.id, "drafts", f"lab {lab_id}", {"comments": done})
    return Drafted(drafted=done)


@router.get("/labs/{lab_id}/release")
def get_release(lab_id: int, c: Db, person: Person, services: ServicesDep, work: WorkDep) -> ReleasePlan:
    """What stands against a release, and who would get what."""
    run = services.checks.run_of(lab_id)
    is_running = run is not None and run.state == "running"
    return release_plan(lab_outcomes(c, lab_id, services), is_running, work.step)


@router.post("/labs/{lab_id}/release")
def release_letters(
    lab_id: int, body: Release, c: Db, person: Person, services: ServicesDep, work: WorkDep
) -> Released:
    """Freeze letters and send their links; of all students when none are named."""
    outcomes = lab_outcomes(c, lab_id, services)
    return release(outcomes, body.student_ids, person.id, services.settings.link_days, work.step)


@router.post("/labs/{lab_id}/withdraw")
def withdraw(lab_id: int, c: Db, person: Person) -> Released:
    """Take back the letters that nobody has opened."""
    count = letters.withdraw_unread(c, lab_id)
    audit.note(c, person.id, "withdraw", f"lab {lab_id}", {"letters": count})
    return Released(letters=count, unchanged=0, without_address=0)


@router.get("/labs/{lab_id}/report", response_model=ClassReport)
def get_report(
    lab_id: int, c: Db, person: Person, request: Request, services: ServicesDep, group: Group = ""
) -> Response:
    """What the class as a whole (or one group of it) got wrong, without names."""
    return services.answers.of(c, request, lambda: class_report(lab_outcomes(c, lab_id, services).of_group(group)))


@router.get("/labs/{lab_id}/report.csv", response_class=Response)
def report_csv(lab_id: int, c: Db, person: Person, services: ServicesDep, group: Group = "") -> Response:
    """The same as a table."""
    report = class_report(lab_outcomes(c, lab_id, services).of_group(group))
    text = rows_to_csv(["task", "what", "text", "hand-ins", "of"], report_rows(report))
    return Response(
        "\ufeff" + text,
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="report-lab-{lab_id}.csv"'},
    )


@open_router.get("/page/{token}")
def page(token: str, c: Db, response: Response) -> PageHead:
    """What is behind a student's link. Asking for it is not reading: programs that look at mail ask, too."""
    row = _page(c, token, response)
    letter = Letter.model_validate_json(row.frozen)
    return PageHead(
        school=letter.school, class_name=letter.class_name, lab=letter.lab, student=letter.student,
        corrects=letter.corrects, language=letter.language, words=letter.words, released_at=row.released_at,
        expires_at=row.expires_at,
    )  # fmt: skip


@open_router.post("/letter/{token}")
def open_letter(token: str, c: Db, response: Response, obento_session: Annotated[str, Cookie()] = "") -> PageView:
    """A student's newest letter with those it corrects, as somebody opens it; whoever works on the class may look
    without that being taken for reading."""
    row = _page(c, token, response)
    person = accounts.session(c, token_hash(obento_session)) if obento_session else None
    if person is None or not letters.is_colleague(c, row.id, person.id):
        letters.note_read(c, row.id, token_hash(token))
    earlier = [
        EarlierLetter(letter=Letter.model_validate_json(e.frozen), number=e.number, released_at=e.released_at)
        for e in letters.earlier_than(c, row.id)
    ]
    return PageView(
        letter=Letter.model_validate_json(row.frozen), number=row.number, released_at=row.released_at,
        expires_at=row.expires_at, earlier=earlier,
    )  # fmt: skip


def _page(c: Connection, token: str, response: Response) -> Page:
    row = letters.page_behind(c, token_hash(token))
    if row is None:
        raise not_found("page, or the link no longer holds; ask your teaching assistant for a new one")
    response.headers["Cache-Control"] = "no-store"
    return row


@router.get("/mailbox")
def mailbox(c: Db, person: Person, services: ServicesDep) -> list[MailView]:
    """What the stand-in mailbox has taken in for the classes of this person: what would have been sent."""
    if services.mailbox is None:
        return []
    own = letters.links_seen_by(c, person.id)
    mails = [m for m in services.mailbox.mails() if _may_be_seen(m, own, person.email)]
    return [MailView(id=m.id, to=m.to, subject=m.subject, date=m.date, text=m.text) for m in mails]


def _may_be_seen(mail: Mail, own: set[str], address: str) -> bool:
    """A letter's mail by those who may release it; a way into an account by nobody but whom it is for."""
    if WELCOME in mail.text:
        return mail.to.strip().lower() == address
    return any(token_hash(token) in own for token in _PAGE.findall(mail.text))
