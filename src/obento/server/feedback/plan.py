"""What stands against a release, and who would get what: the list that is read before letters go out."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from obento.server.feedback.letters import letter_for
from obento.server.feedback.models import Against, Correction, Letter, Recipient, ReleasePlan
from obento.server.feedback.outcomes import LabOutcomes
from obento.server.feedback.overview import student_rows
from obento.server.feedback.release import is_same_letter
from obento.store import letters

_NAMED = 6


def release_plan(outcomes: LabOutcomes, is_running: bool, tell: Callable[[int, int], None]) -> ReleasePlan:
    """What stands against releasing the letters of a lab now, and what each student would get; `tell` hears before each
    how many are looked at, and of how many."""
    known = letters.letters_of(outcomes.c, outcomes.lab.id)
    plan = ReleasePlan(against=_against(outcomes, is_running), new=[], corrected=[], unchanged=0, without_address=[])
    for number, student in enumerate(outcomes.students):
        tell(number, len(outcomes.students))
        who = Recipient(student_id=student.id, name=student.name, number=student.number)
        if student.id not in outcomes.handin_of or outcomes.not_checked(student.id):
            continue
        old = known.get(student.id)
        if old is None or old.withdrawn_at is not None:
            plan.new.append(who)
        else:
            letter = letter_for(outcomes, student.id)
            if is_same_letter(old.frozen, letter):
                plan.unchanged += 1
                continue
            plan.corrected.append(Correction(**who.model_dump(), what=changes(old.frozen, letter)))
        if not student.email:
            plan.without_address.append(who)
    return plan


def changes(frozen: dict[str, Any], letter: Letter) -> list[str]:
    """What a corrected letter says that the one before did not, in a few words for each task."""
    found: list[str] = []
    before = {task["title"]: task for task in frozen["tasks"]}
    for task in letter.tasks:
        old = before.get(task.title)
        if old is None:
            found.append(f"{task.title}: new")
            continue
        said = []
        if old["mark"] != task.mark:
            said.append(f"mark {_mark(old['mark'])} becomes {_mark(task.mark)}")
        if (old["comment"], old["note"]) != (task.comment, task.note):
            said.append("another comment")
        if [r["inputs"] for r in old["rows"]] != [r.inputs for r in task.rows] or old["passed"] != task.passed:
            said.append("other cases")
        if said:
            found.append(f"{task.title}: {', '.join(said)}")
    return found or ["other words"]


def _mark(value: float | None) -> str:
    return "held" if value is None else f"{value:g}"


def _against(outcomes: LabOutcomes, is_running: bool) -> list[Against]:
    """What somebody should look at first, each with the place where it is settled."""
    found: list[Against] = []
    if is_running:
        found.append(Against(kind="running", text="a check is running", place="results", task_id=None))
    every = outcomes.tasks[0].every if outcomes.tasks else []
    nobodys = [r.label for r in every if r.student_id is None and r.team_id is None]
    if nobodys:
        found.append(_said("unsettled", "intake", None, nobodys, "hand-in is nobody's", "hand-ins are nobody's"))
    for t in outcomes.tasks:
        waiting = [t.name(i) for i in t.state.attempts if i not in t.state.by_handin]
        if waiting:
            one = f"hand-in was not checked by version {t.spec.number} of {t.task.title}"
            many = f"hand-ins were not checked by version {t.spec.number} of {t.task.title}"
            found.append(_said("not-checked", "results", t.task.id, waiting, one, many))
        held = [t.name(i) for i in t.state.by_handin if t.mark(i).held]
        if held:
            one, many = f"mark of {t.task.title} is held", f"marks of {t.task.title} are held"
            found.append(_said("held", "review", t.task.id, held, one, many))
    rows = student_rows(outcomes)
    unsaid = [r.name for r in rows if r.open_comments and r.handin_id is not None]
    if unsaid:
        found.append(_said("comments", "feedback", None, unsaid, "student would get no comment on a mistake",
                           "students would get no comment on a mistake"))  # fmt: skip
    unconfirmed = outcomes.unconfirmed_drops
    if unconfirmed:
        found.append(_said("times", "intake", None, unconfirmed, "drop has no time of receipt: nobody is late by it",
                           "drops have no time of receipt: nobody is late by them"))  # fmt: skip
    silent = [s.name for s in outcomes.students if not s.email and s.id in outcomes.handin_of]
    if silent:
        found.append(_said("address", "class-list", None, silent, "student has no address: the letter is not mailed",
                           "students have no address: their letters are not mailed"))  # fmt: skip
    return found


def _said(kind: str, place: str, task_id: int | None, names: list[str], one: str, many: str) -> Against:
    shown = ", ".join(names[:_NAMED]) + (f" and {len(names) - _NAMED} more" if len(names) > _NAMED else "")
    return Against(kind=kind, text=f"{len(names)} {one if len(names) == 1 else many}: {shown}", place=place,
                   task_id=task_id)  # fmt: skip
