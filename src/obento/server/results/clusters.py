"""A class by clusters: hand-ins that go wrong in the same cases together."""

from __future__ import annotations

from obento.core.planes import set_bits
from obento.server.cases.summary import OutcomeSummary
from obento.server.marks.mark import held_reason, why_held
from obento.server.results.models import ClusterView, Member
from obento.server.results.outcomes import TaskOutcomes
from obento.server.results.wording import change_for_all, sentences, title_of_checks, title_of_rules, title_of_wrong
from obento.store.results import Result

_ORDER = {"wrong": 0, "rules": 1, "unchecked": 2, "right": 3}
_NOTHING = OutcomeSummary(strip="", shares=[], rows=[])


def member_of(outcomes: TaskOutcomes, handin_id: int) -> Member:
    """One hand-in as a member of its cluster."""
    result = outcomes.state.by_handin[handin_id]
    mark = outcomes.mark(handin_id)
    note = outcomes.comments.get(("", handin_id))
    return Member(
        handin_id=handin_id,
        name=outcomes.name(handin_id),
        language=result.language,
        attempt=result.attempt,
        late=outcomes.state.counting[handin_id].late,
        bound=[f"{b.theirs} to {b.ours}" for b in outcomes.bindings.get(result.id, [])],
        mark=mark.value,
        held=mark.held,
        noted=bool(note and note.text.strip()),
        trouble="" if result.status == "checked" else why_held(result.status, result.detail.messages),
    )


def clusters_of(outcomes: TaskOutcomes) -> list[ClusterView]:
    """Wrong ones first (the more people the sooner), then rule-breakers, the uncheckable, the right ones."""
    groups: dict[str, list[int]] = {}
    for handin_id in outcomes.by_handin:
        result = outcomes.state.by_handin.get(handin_id)
        if result is not None:
            groups.setdefault(outcomes.state.cluster_key(result), []).append(handin_id)
    views = [_cluster(outcomes, key, ids) for key, ids in groups.items()]
    return sorted(views, key=lambda v: (_ORDER[v.kind], -len(v.members), v.key))


def _cluster(outcomes: TaskOutcomes, key: str, ids: list[int]) -> ClusterView:
    result = outcomes.state.by_handin[ids[0]]
    kind = outcomes.state.kind(result)
    comment = outcomes.comments.get((key, 0))
    members = [member_of(outcomes, i) for i in ids]
    shown = outcomes.summary(result) if result.status == "checked" else _NOTHING
    marks = {m.mark for m in members}
    said = sentences(result.detail, kind == "wrong") if kind != "unchecked" else []
    known = [outcomes.repairs.get(outcomes.state.by_handin[i].id) for i in ids]
    return ClusterView(
        key=key,
        kind=kind,
        title=_title(outcomes, kind, result, ids),
        sentences=said + change_for_all(known),
        strip=shown.strip,
        strip_shares=shown.shares,
        rows=shown.rows,
        passed=result.passed,
        total=result.total,
        members=members,
        mark=marks.pop() if len(marks) == 1 else None,
        comment=comment.text if comment else "",
        comment_version=comment.version if comment else 0,
    )


def _title(outcomes: TaskOutcomes, kind: str, result: Result, ids: list[int]) -> str:
    """What they have in common in a few words."""
    if kind == "right":
        return "right on every case"
    if kind == "unchecked":
        return f"not checked: {held_reason(result.status)}"
    details = [outcomes.state.by_handin[i].detail for i in ids]
    if kind == "rules":
        return title_of_rules(details)
    shared = set.intersection(*(d.codes for d in details))
    labels = outcomes.expectation.cases.labels
    if labels:
        return title_of_checks(result.detail, shared, [labels[i] for i in set_bits(outcomes.astray(result))])
    return title_of_wrong(result.detail, shared)
