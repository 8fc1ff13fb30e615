"""Letters: written from comments and outcomes, frozen when released, sent as a link."""

from __future__ import annotations

import json
from typing import Any

from obento.core.check.expectation.model import Expectation, inputs_text
from obento.runner.engine import engine_version
from obento.server.accounts.security import new_token, token_hash
from obento.server.errors import Trouble, not_found
from obento.server.feedback.models import FeedbackStudent, FeedbackTask, FeedbackView, Letter, LetterTask, Released
from obento.server.feedback.placeholders import fill, own_words
from obento.server.feedback.students_see import hidden_cases
from obento.server.results.models import CaseRow
from obento.server.results.rows import case_rows, first_wrong, wrong_cases
from obento.server.results.views import TaskPicture
from obento.server.review.waves import around
from obento.server.specs.shelf import SpecShelf
from obento.store import feedback, handins, labs, people, results
from obento.store.connection import Connection

_MOST_ROWS = 64
_MOST_STEPS = 10


class LabPicture:
    """A lab with all tasks whose spec is right, for feedback."""

    def __init__(self, c: Connection, lab: dict[str, Any], shelf: SpecShelf) -> None:
        self.c = c
        self.lab = lab
        self.tasks = [TaskPicture(c, lab, t, shelf.current(c, t["id"])) for t in labs.tasks_of(c, lab["id"]) if t["is_right"]]
        self.students = people.students(c, lab["class_id"])
        self.teams = handins.teams_of(c, lab["id"])
        rows = self.tasks[0].rows if self.tasks else []
        self.handin_of: dict[int, dict[str, Any]] = {}
        for row in rows:
            if row["student_id"] is not None:
                self.handin_of[row["student_id"]] = row
            for member in self.teams.get(row["team_id"], []):
                self.handin_of.setdefault(member["id"], row)

    def letter(self, student_id: int) -> Letter:
        """A student's letter as it would be released now."""
        student = next((s for s in self.students if s["id"] == student_id), None)
        if student is None:
            raise not_found("student")
        row = self.handin_of.get(student_id)
        parts = [self._task(t, row, student["name"]) for t in self.tasks]
        marks = [p.mark for p in parts]
        others = [m["name"] for m in self.teams.get(row["team_id"], []) if m["id"] != student_id] if row and row["team_id"] else []
        return Letter(
            school=self.lab["school"], class_name=self.lab["class_name"], lab=self.lab["title"], student=student["name"], team=others,
            attempt=row["attempt"] or 0 if row else 0, received_at=row["received_at"] if row else None, late=bool(row and row["late"]),
            tasks=parts, mark=None if any(m is None for m in marks) else round(sum(m or 0 for m in marks), 2),
            total=sum(p.total for p in parts),
        )  # fmt: skip

    def _task(self, t: TaskPicture, row: dict[str, Any] | None, student: str) -> LetterTask:
        spec = t.expectation.spec
        compared = t.expectation.cases.full
        for_nothing = LetterTask(
            title=t.task["title"], status="missing", passed=0, compared=0, mark=None, total=spec.marks.total, held="nothing was handed in",
            late="", comment="", note="", inputs=[p.name for p in spec.inputs], outputs=[p.name for p in spec.outputs], rows=[], more=0,
            messages=[], bound=[], again="", spec_version=t.spec.number, engine=engine_version(),
        )  # fmt: skip
        result = t.state.by_handin.get(row["id"]) if row else None
        if row is None or result is None:
            return for_nothing
        mark = t.mark(row["id"])
        detail = json.loads(result["detail"])
        letter = for_nothing.model_copy(update={"status": result["status"], "mark": mark.value, "held": mark.reason if mark.held else ""})
        letter.late = "" if mark.held or mark.by_hand else mark.reason
        letter.messages = [
            f"{m['file']}:{m['line']}: {m['text']}" + (f" ({m['hint']})" if m["hint"] else "") if m["line"] else m["text"]
            for m in detail["messages"] if m["severity"] == "error"
        ]  # fmt: skip
        letter.bound = [f"your {b['theirs']} was read as {b['ours']}" for b in t.bindings.get(result["id"], []) if b["how"] != "case"]
        if result["status"] == "checked":
            verdict = results.load_verdict(self.c, result, t.expectation)
            compared &= ~verdict.not_compared
            letter.passed, letter.compared = verdict.passed.bit_count(), compared.bit_count()
            own = [i for i in first_wrong(t.expectation, verdict) if not self._hidden(t, i)]
            shown = {"all": own[: _MOST_ROWS if t.expectation.cases.drive is None else _MOST_STEPS], "first-failing": own[:1]}.get(spec.see, [])
            letter.rows = case_rows(t.expectation, verdict, shown)
            letter.more = len(wrong_cases(verdict)) - len(shown) if spec.see != "nothing" else 0
            letter.again = _again(t.expectation, letter.rows, letter.inputs, letter.outputs)
            if shown:
                letter.waves = around(t.expectation, verdict, shown[0], lambda step: self._hidden(t, step))
            if spec.see == "nothing":
                letter.passed = letter.compared = 0
        key = t.state.cluster_key(result)
        comment, note = t.comments.get((key, 0)), t.comments.get(("", row["id"]))
        values = own_words(t, result, detail) | {
            "name": student.split(" ")[0], "right": str(letter.passed), "total": str(letter.compared),
            "mark": "" if mark.value is None else f"{mark.value:g}",
        }  # fmt: skip
        letter.comment = fill(comment["text"] if comment else "", values)
        letter.note = fill(note["text"] if note else "", values)
        return letter

    def _hidden(self, t: TaskPicture, case: int) -> bool:
        return bool(hidden_cases(t.expectation) >> case & 1)

    def view(self) -> FeedbackView:
        letters = feedback.letters_of(self.c, self.lab["id"])
        rows = [self._student(s, letters.get(s["id"])) for s in self.students]
        tasks = [
            FeedbackTask(id=t.task["id"], title=t.task["title"], total=t.expectation.spec.marks.total, clusters=t.clusters()) for t in self.tasks
        ]
        return FeedbackView(tasks=tasks, students=rows, sent=sum(r.letter in ("released", "read") for r in rows))

    def _student(self, s: dict[str, Any], letter: dict[str, Any] | None) -> FeedbackStudent:
        row = self.handin_of.get(s["id"])
        marks = [t.mark(row["id"]) if row else None for t in self.tasks]
        values = [m.value if m else None for m in marks]
        open_comments = 0
        for t in self.tasks:
            result = t.state.by_handin.get(row["id"]) if row else None
            if result is not None and t.state.kind(result) in ("wrong", "rules", "unchecked"):
                comment = t.comments.get((t.state.cluster_key(result), 0))
                open_comments += not (comment and comment["text"].strip())
        state = "none"
        outdated = False
        if letter is not None:
            state = "withdrawn" if letter["withdrawn_at"] else "read" if letter["read_at"] else "released"
            outdated = state != "withdrawn" and not _same_letter(json.loads(letter["frozen"]), self.letter(s["id"]))
        return FeedbackStudent(
            student_id=s["id"], handin_id=row["id"] if row else None, name=s["name"], number=s["number"], team=bool(row and row["team_id"]),
            marks=values, held=[bool(m and m.held) for m in marks], by_hand=[bool(m and m.by_hand) for m in marks],
            late=bool(row and row["late"]), sum=None if None in values else round(sum(v or 0 for v in values), 2), letter=state,
            outdated=outdated, open_comments=open_comments,
        )  # fmt: skip

    def release(self, student_ids: list[int] | None, person_id: int, days: int) -> Released:
        """Freeze and queue the letters of those who have something; one that says the same as before is not sent again."""
        known = {s["id"]: s for s in self.students}
        wanted = student_ids if student_ids is not None else [s for s in known if s in self.handin_of]
        before = feedback.letters_of(self.c, self.lab["id"])
        done = Released(letters=0, unchanged=0, without_address=0)
        for student_id in wanted:
            if student_id not in known:
                raise not_found("student")
            letter = self.letter(student_id)
            old = before.get(student_id)
            if old is not None and old["withdrawn_at"] is None and _same_letter(json.loads(old["frozen"]), letter):
                done.unchanged += 1
                continue
            letter.corrects = old is not None and old["withdrawn_at"] is None
            letter_id = feedback.add_letter(self.c, self.lab["id"], student_id, json.loads(letter.model_dump_json()), person_id)
            token = new_token()
            feedback.add_link(self.c, letter_id, token_hash(token), days)
            address = known[student_id]["email"]
            if address:
                feedback.queue_delivery(self.c, letter_id, address, token)
            else:
                done.without_address += 1
            done.letters += 1
        people.audit(self.c, person_id, "release", f"lab {self.lab['id']}", done.model_dump())
        return done


def _same_letter(frozen: dict[str, Any], letter: Letter) -> bool:
    fresh = json.loads(letter.model_dump_json())
    for one in (frozen, fresh):
        one.pop("corrects", None)
        for task in one["tasks"]:
            task.pop("engine", None)  # another engine that finds the same is no reason to write again
    return bool(frozen == fresh)


def _again(expectation: Expectation, rows: list[CaseRow], inputs: list[str], outputs: list[str]) -> str:
    """How to see the first failing case again."""
    if not rows:
        return ""
    row = rows[0]
    looks = [f"{n} should be {e} and is {a}" for n, e, a, w in zip(outputs, row.expected, row.actual, row.wrong, strict=True) if w]
    if row.step is not None:
        return f"From power-up go through the steps of {row.step.sequence} to number {row.step.number}: {'; '.join(looks)}."
    before = f", coming from the case in which {row.run.removeprefix('after ')} was the other value" if row.run != "fresh" else ""
    return f"Set {inputs_text(inputs, row.inputs)}{before}: {'; '.join(looks)}."


def override_mark(c: Connection, handin_id: int, task_id: int, value: float | None, reason: str, person_id: int) -> None:
    """A human's mark with its reason; None lifts it again."""
    if value is not None and not reason.strip():
        raise Trouble(422, "say why: an override needs a reason")
    feedback.add_mark(c, handin_id, task_id, "override" if value is not None else "lifted", value, reason, None, person_id)
    people.audit(c, person_id, "mark", f"hand-in {handin_id}", {"task": task_id, "value": value, "reason": reason})
