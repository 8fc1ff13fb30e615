"""Classes and labs at a glance."""

from __future__ import annotations

from collections import Counter

from obento.core.sentences.said import languages, templates
from obento.server.course.models import (
    Area,
    ClassCard,
    ExcusedView,
    ExtensionView,
    LabCard,
    LabOverview,
    LabTerms,
    TaskHead,
    TaskTray,
    Whose,
)
from obento.server.course.task_state import TaskState, handed_in, open_clusters, task_state
from obento.server.people.models import StudentName
from obento.server.standing import rights_of
from obento.server.starter_spec import STARTER_BODY
from obento.server.versions import version_of
from obento.store import course, handins, letters, owners, people, specs
from obento.store.connection import Connection
from obento.store.course import CurrentTask, Lab, Standing
from obento.store.results import KeptOutcomes

_MOST_AREAS = 8
"""So many clusters of a task stand side by side in its miniature."""


def home(c: Connection, person_id: int, kept: KeptOutcomes) -> list[ClassCard]:
    cards: list[ClassCard] = []
    for k in course.classes_of(c, person_id):
        lab_cards = [_lab_card(c, row.id, k.students, kept) for row in course.labs_of(c, k.id)]
        cards.append(
            ClassCard(
                id=k.id, name=k.name, school=k.school, role=k.role, students=k.students, labs=lab_cards,
                rights=sorted(rights_of(Standing(k.role, k.tas_release, k.tas_manage))), tas_release=k.tas_release,
                tas_manage=k.tas_manage, language=k.language, languages=letter_languages(),
            )
        )  # fmt: skip
    return cards


def letter_languages() -> dict[str, str]:
    """The languages that letters can be in, with their names."""
    return {language: templates(language)["language"] for language in languages()}


def _lab_card(c: Connection, lab_id: int, students: int, kept: KeptOutcomes) -> LabCard:
    lab = course.lab(c, lab_id)
    assert lab is not None
    tasks = course.tasks_of(c, lab_id)
    rows = handins.heads_of(c, lab_id)
    attempts = handins.lab_attempts(c, lab_id)
    missing = students - len(handed_in(c, lab, rows))
    trays = [TaskTray(title=t.title, areas=_areas(task_state(c, t, attempts, kept), missing)) for t in tasks]
    sent = sum(r.withdrawn_at is None for r in letters.letters_of(c, lab_id).values())
    return LabCard(
        id=lab_id, is_begun=bool(rows) or _is_begun(c, tasks),
        title=lab.title, due_at=lab.due_at, tasks=trays,
        handed_in=students - missing, students=students, sent=sent,
    )  # fmt: skip


def _areas(state: TaskState, missing: int) -> list[Area]:
    """Clusters of wrong hand-ins by size, of many the largest and the others as one; then those that are right, and the
    rest."""
    sizes = Counter(state.cluster_key(row) for row in state.by_handin.values() if state.kind(row) == "wrong")
    ordered = sorted(sizes.values(), reverse=True)
    shown = ordered if len(ordered) <= _MOST_AREAS else ordered[: _MOST_AREAS - 1]
    rest = ordered[len(shown) :]
    counts = state.counts()
    areas = [
        *(Area(kind="wrong", count=n) for n in shown),
        Area(kind="wrong", count=sum(rest), ways=len(rest)),
        Area(kind="rules", count=counts["rules"]),
        Area(kind="right", count=counts["right"]),
        Area(kind="unchecked", count=counts["unchecked"]),
        Area(kind="waiting", count=state.waiting),
        Area(kind="missing", count=missing),
    ]
    return [a for a in areas if a.count]


def _is_begun(c: Connection, tasks: list[CurrentTask]) -> bool:
    """Whether a task has another spec than the text that every new one begins with."""
    return any(
        version is not None and STARTER_BODY not in version.text
        for version in (specs.current_spec(c, t.id) for t in tasks)
    )


def lab_view(c: Connection, lab: Lab, person_id: int, running: bool, kept: KeptOutcomes) -> LabOverview:
    standing = course.standing(c, lab.class_id, person_id)
    rows = handins.heads_of(c, lab.id)
    attempts = handins.lab_attempts(c, lab.id)
    heads: list[TaskHead] = []
    for task in course.tasks_of(c, lab.id):
        state = task_state(c, task, attempts, kept)
        counts = state.counts()
        heads.append(
            TaskHead(
                id=task.id, title=task.title, version=task.version, is_right=bool(task.is_right),
                right=counts["right"], wrong=counts["wrong"], against_rules=counts["rules"],
                unchecked=counts["unchecked"],
                clusters_open=open_clusters(c, task.id, state),
            )
        )  # fmt: skip
    there = len(handed_in(c, lab, rows))
    sent = sum(r.withdrawn_at is None for r in letters.letters_of(c, lab.id).values())
    unsettled = sum(r.student_id is None and r.team_id is None for r in rows)
    return LabOverview(
        id=lab.id, class_id=lab.class_id, title=lab.title, class_name=lab.class_name, school=lab.school,
        due_at=lab.due_at, which_attempt=lab.which_attempt, late_share=float(lab.late_share), tasks=heads,
        handed_in=there, unsettled=unsettled, students=people.count_students(c, lab.class_id), sent=sent,
        running=running, rights=sorted(rights_of(standing)) if standing is not None else [],
    )  # fmt: skip


def terms_version(lab: Lab) -> str:
    """A print of what a lab says, by which two people who change it at once notice each other."""
    return version_of(
        lab.title, lab.due_at, lab.which_attempt, lab.late_share, lab.late_step, lab.late_grace, lab.late_cap
    )


def who_view(c: Connection, lab: Lab) -> list[Whose]:
    """Everybody of the class, and which hand-in is whose."""
    teams = owners.teams_of(c, lab.id)
    handin_of: dict[int, int] = {}
    for row in handins.heads_of(c, lab.id):
        if row.student_id is not None:
            handin_of[row.student_id] = row.id
        for member in teams.get(row.team_id or 0, []):
            handin_of.setdefault(member.id, row.id)
    return [
        Whose(student_id=s.id, name=s.name, number=s.number, group=s.group_name, handin_id=handin_of.get(s.id))
        for s in people.students(c, lab.class_id)
    ]


def terms_view(c: Connection, lab: Lab) -> LabTerms:
    students = people.students(c, lab.class_id)
    extended = course.extensions(c, lab.id)
    excused = course.excused(c, lab.id)
    return LabTerms(
        title=lab.title, due_at=lab.due_at, which_attempt=lab.which_attempt, late_share=float(lab.late_share),
        late_step=lab.late_step, late_grace=lab.late_grace, late_cap=float(lab.late_cap), version=terms_version(lab),
        excused=[
            ExcusedView(student_id=s.id, name=s.name, reason=excused[s.id]) for s in students if s.id in excused
        ],
        extensions=[
            ExtensionView(student_id=s.id, name=s.name, due_at=extended[s.id].due_at, reason=extended[s.id].reason)
            for s in students if s.id in extended
        ],
        students=[StudentName(id=s.id, name=s.name, number=s.number) for s in students],
        late=sum(bool(r.late) for r in handins.handins_of(c, lab.id)),
    )  # fmt: skip
