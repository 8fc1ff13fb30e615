"""Who may see what, and a lab at a glance."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from obento.server.errors import not_found
from obento.server.models import Area, ClassCard, ExtensionView, LabCard, LabOverview, LabTerms, StudentName, TaskHead
from obento.store import feedback, handins, labs, people, results
from obento.store.connection import Connection


def may_see_class(c: Connection, class_id: int, person_id: int) -> None:
    """Raises `Trouble` (404) for those who have no role in the class: they need not know that it exists."""
    if not people.has_role(c, class_id, person_id):
        raise not_found("class")


def may_see_lab(c: Connection, lab_id: int, person_id: int) -> dict[str, Any]:
    lab = labs.lab(c, lab_id)
    if lab is None or not people.has_role(c, lab["class_id"], person_id):
        raise not_found("lab")
    return lab


def may_see_task(c: Connection, task_id: int, person_id: int) -> dict[str, Any]:
    task = labs.task(c, task_id)
    if task is None or not people.has_role(c, task["class_id"], person_id):
        raise not_found("task")
    return task


@dataclass(slots=True)
class TaskState:
    """Outcomes of a task under its current spec, by hand-in."""

    by_handin: dict[int, dict[str, Any]]
    waiting: int

    def kind(self, row: dict[str, Any]) -> str:
        """right, rules (right, but a rule is broken), wrong or unchecked."""
        if row["status"] != "checked":
            return "unchecked"
        if row["passed"] < row["total"]:
            return "wrong"
        return "right" if row["rules_ok"] else "rules"

    def counts(self) -> dict[str, int]:
        found = {"right": 0, "rules": 0, "wrong": 0, "unchecked": 0}
        for row in self.by_handin.values():
            found[self.kind(row)] += 1
        return found

    def cluster_key(self, row: dict[str, Any]) -> str:
        kind = self.kind(row)
        return f"{row['cluster']}:rules" if row["status"] == "checked" and not row["rules_ok"] and kind in ("rules", "wrong") else str(row["cluster"])


def task_state(c: Connection, task: dict[str, Any], rows: list[dict[str, Any]], which_attempt: str) -> TaskState:
    """Of each hand-in the outcome that counts."""
    if task["version_id"] is None:
        return TaskState({}, len(rows))
    by_attempt = {r["attempt_id"]: r for r in results.results_of(c, task["id"], task["version_id"])}
    chosen: dict[int, dict[str, Any]] = {}
    best: dict[int, dict[str, Any]] = {}
    for row in by_attempt.values():
        held = best.get(row["handin_id"])
        if held is None or (row["passed"], row["attempt"]) > (held["passed"], held["attempt"]):
            best[row["handin_id"]] = row
    for row in rows:
        found = best.get(row["id"]) if which_attempt == "best" else by_attempt.get(row["attempt_id"])
        if found is not None:
            chosen[row["id"]] = found
    return TaskState(chosen, sum(r["attempt_id"] is not None and r["id"] not in chosen for r in rows))


def open_clusters(c: Connection, task_id: int, state: TaskState) -> int:
    """Clusters that are not right and have no comment yet."""
    comments = feedback.comments_of(c, task_id)
    keys = {state.cluster_key(r) for r in state.by_handin.values() if state.kind(r) in ("wrong", "rules")}
    return sum(not (comments.get((key, 0)) or {"text": ""})["text"].strip() for key in keys)


def missing_students(c: Connection, lab: dict[str, Any], rows: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Students of the class who have handed in nothing, alone or in a team."""
    there = {r["student_id"] for r in rows if r["student_id"] is not None and r["attempt_id"] is not None}
    teams = handins.teams_of(c, lab["id"])
    for row in rows:
        if row["team_id"] is not None and row["attempt_id"] is not None:
            there |= {m["id"] for m in teams.get(row["team_id"], [])}
    return [s for s in people.students(c, lab["class_id"]) if s["id"] not in there]


def home(c: Connection, person_id: int) -> list[ClassCard]:
    cards: list[ClassCard] = []
    for k in people.classes_of(c, person_id):
        lab_cards = [_lab_card(c, row["id"], k["students"]) for row in labs.labs_of(c, k["id"])]
        cards.append(ClassCard(id=k["id"], name=k["name"], school=k["school"], role=k["role"], students=k["students"], labs=lab_cards))
    return cards


def _lab_card(c: Connection, lab_id: int, students: int) -> LabCard:
    lab = labs.lab(c, lab_id)
    assert lab is not None
    tasks = labs.tasks_of(c, lab_id)
    rows = handins.handins_of(c, lab_id)
    areas: list[Area] = []
    for task in tasks[:1]:
        state = task_state(c, task, rows, lab["which_attempt"])
        sizes: dict[str, int] = {}
        for row in state.by_handin.values():
            if state.kind(row) == "wrong":
                key = state.cluster_key(row)
                sizes[key] = sizes.get(key, 0) + 1
        counts = state.counts()
        areas += [Area(kind="wrong", count=n) for n in sorted(sizes.values(), reverse=True)]
        areas += [Area(kind="rules", count=counts["rules"]), Area(kind="right", count=counts["right"])]
        areas += [Area(kind="unchecked", count=counts["unchecked"])]
    missing = len(missing_students(c, lab, rows))
    areas = [a for a in [*areas, Area(kind="missing", count=missing)] if a.count]
    sent = sum(r["withdrawn_at"] is None for r in feedback.letters_of(c, lab_id).values())
    return LabCard(
        id=lab_id, title=lab["title"], due_at=lab["due_at"], tasks=[t["title"] for t in tasks], areas=areas,
        handed_in=students - missing, students=students, sent=sent,
    )  # fmt: skip


def lab_view(c: Connection, lab: dict[str, Any], running: bool) -> LabOverview:
    rows = handins.handins_of(c, lab["id"])
    heads: list[TaskHead] = []
    for task in labs.tasks_of(c, lab["id"]):
        state = task_state(c, task, rows, lab["which_attempt"])
        counts = state.counts()
        heads.append(
            TaskHead(
                id=task["id"], title=task["title"], version=task["version"], is_right=bool(task["is_right"]),
                right=counts["right"], wrong=counts["wrong"] + counts["rules"], unchecked=counts["unchecked"],
                clusters_open=open_clusters(c, task["id"], state),
            )
        )  # fmt: skip
    students = people.students(c, lab["class_id"])
    missing = missing_students(c, lab, rows)
    sent = sum(r["withdrawn_at"] is None for r in feedback.letters_of(c, lab["id"]).values())
    unsettled = sum(r["student_id"] is None and r["team_id"] is None for r in rows)
    return LabOverview(
        id=lab["id"], class_id=lab["class_id"], title=lab["title"], class_name=lab["class_name"], school=lab["school"],
        due_at=lab["due_at"], which_attempt=lab["which_attempt"], late_share=float(lab["late_share"]), tasks=heads,
        handed_in=len(students) - len(missing), unsettled=unsettled, students=len(students), sent=sent, running=running,
    )  # fmt: skip


def terms_view(c: Connection, lab: dict[str, Any]) -> LabTerms:
    students = people.students(c, lab["class_id"])
    extended = labs.extensions(c, lab["id"])
    return LabTerms(
        title=lab["title"], due_at=lab["due_at"], which_attempt=lab["which_attempt"], late_share=float(lab["late_share"]),
        extensions=[
            ExtensionView(student_id=s["id"], name=s["name"], due_at=extended[s["id"]]["due_at"], reason=extended[s["id"]]["reason"])
            for s in students if s["id"] in extended
        ],
        students=[StudentName(id=s["id"], name=s["name"], number=s["number"]) for s in students],
        late=sum(bool(r["late"]) for r in handins.handins_of(c, lab["id"])),
    )  # fmt: skip
