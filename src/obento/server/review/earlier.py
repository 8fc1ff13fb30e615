"""What was said of hand-ins that behave alike: under another version of the spec, or in another year."""

from __future__ import annotations

from obento.core.check.expectation.model import Expectation
from obento.core.check.expectation.shared import SharedCases, behave_alike, shared_cases
from obento.core.check.judging.verdict import Verdict
from obento.server.results.outcomes import TaskOutcomes
from obento.server.review.models import CommentBefore
from obento.server.specs.opened import OpenedSpecs, version_spec
from obento.store import comments, results, specs
from obento.store.comments import EarlierComment
from obento.store.planes import KeptPlanes

_MOST_VERSIONS = 4
"""Versions that are opened to look for what was said of a cluster."""
_RULES = ":rules"


class EarlierComments:
    """The comments of a task that are no more than proposals, and of which clusters they can be said again."""

    def __init__(self, outcomes: TaskOutcomes, opened: OpenedSpecs, planes: KeptPlanes) -> None:
        self._outcomes = outcomes
        self._opened = opened
        self._planes = planes
        self._expectations: dict[int, Expectation | None] = {}
        self._shared: dict[int, SharedCases] = {}

    def of(self, key: str) -> CommentBefore | None:
        """The newest that was said of a cluster which behaves alike in every case that both versions share and expect
        the same of, and is wrong in one of them.

        Raises
        ------
        NotOpened
            If another version has to be opened first.
        """
        verdict = self._example(key)
        for said in comments.earlier_comments(self._outcomes.c, self._outcomes.task.id):
            if said.cluster == key or self._is_alike(said, key, verdict):
                return CommentBefore(text=said.text, version=said.number or 0, lab=said.lab)
        return None

    def _example(self, key: str) -> Verdict | None:
        state = self._outcomes.state
        result = next((r for r in state.by_handin.values() if state.cluster_key(r) == key), None)
        return self._outcomes.verdict_if_run(result) if result is not None else None

    def _is_alike(self, said: EarlierComment, key: str, verdict: Verdict | None) -> bool:
        version = said.spec_version_id
        if verdict is None or version is None or said.cluster.endswith(_RULES) != key.endswith(_RULES):
            return False
        expectation = self._expectation(version)
        if expectation is None:
            return False
        if version not in self._shared:  # it walks all cases: once for each version
            self._shared[version] = shared_cases(expectation, self._outcomes.expectation)
        shared = self._shared[version]
        if not any(verdict.right >> case & 1 ^ 1 for _, case in shared.alike):
            return False  # what both versions still expect, it does right: there is nothing to be said of that
        cluster = said.cluster.removesuffix(_RULES)
        row = results.of_cluster(self._outcomes.c, said.task_id, version, cluster)
        before = results.load_verdict(self._outcomes.c, row, expectation, self._planes) if row is not None else None
        return before is not None and behave_alike(shared, before.shown, verdict.shown)

    def _expectation(self, version_id: int) -> Expectation | None:
        if version_id not in self._expectations:
            row = specs.spec_version(self._outcomes.c, version_id) if len(self._expectations) < _MOST_VERSIONS else None
            loaded = self._opened.inside(version_spec(self._outcomes.c, row)) if row is not None else None
            self._expectations[version_id] = loaded.expectation if loaded is not None else None
        return self._expectations[version_id]
