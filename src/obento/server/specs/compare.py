"""Two versions of a spec, case by case."""

from __future__ import annotations

from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.check.expectation.shared import shared_cases
from obento.server.specs.cases import case_label
from obento.server.specs.models import ChangedCase, ChangedOutput, VersionCases

_MOST_CASES = 200


def compare(then: Expectation, now: Expectation) -> VersionCases:
    """The cases that both have and of which they expect something else, and how many stand in one alone."""
    shared = shared_cases(then, now)
    alike = {b for _, b in shared.alike}
    changed = [(a, b) for a, b in shared.pairs if b not in alike]
    return VersionCases(
        shared=len(shared.pairs),
        only_then=then.cases.count - len(shared.pairs),
        only_now=now.cases.count - len(shared.pairs),
        changed=[
            ChangedCase(label=case_label(now, b), outputs=_outputs(then, now, a, b)) for a, b in changed[:_MOST_CASES]
        ],
        more=max(0, len(changed) - _MOST_CASES),
    )


def _outputs(then: Expectation, now: Expectation, a: int, b: int) -> list[ChangedOutput]:
    """What is expected of each output in a case that has two numbers; of one that stands in one version alone,
    nothing."""
    was, new = _values(then, a), _values(now, b)
    names = list(dict.fromkeys([*was, *new]))
    return [
        ChangedOutput(name=name, was=was.get(name, ""), now=new.get(name, ""))
        for name in names
        if was.get(name) != new.get(name)
    ]


def _values(of: Expectation, case: int) -> dict[str, str]:
    return {p.name: p.show(*expected_word(of, p.name, p.width, case)) for p in of.spec.outputs}
