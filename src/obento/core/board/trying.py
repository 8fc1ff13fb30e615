"""A circuit on the board tried at once: what it does in every case, its drawing with values, its size."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from obento.core.board.forms import Form, Formed, NoForm, form_of
from obento.core.check.check import check_handin, check_ready
from obento.core.check.expectation.model import Expectation, with_cases
from obento.core.check.inspecting.wires import Inside, drawn, values_inside
from obento.core.check.judging.outcome import Checked
from obento.core.check.judging.ready import Ready, make_ready
from obento.core.check.judging.rules import count_gates, count_levels
from obento.core.handin import HandinFile
from obento.core.limits import Limits
from obento.core.planes import set_bits

MOST_SHOWN = 64
"""Cases that are shown with all their values."""


@dataclass(frozen=True, slots=True)
class Tried:
    """`cases` are those that are shown; `gates` are counted by kind, `levels` is the longest way."""

    checked: Checked
    inside: Inside | str | None
    cases: list[int]
    gates: dict[str, int]
    levels: int


def try_out(
    expectation: Expectation,
    files: Sequence[HandinFile],
    provided: Sequence[HandinFile],
    others: Mapping[str, bytes],
    limits: Limits | None = None,
    in_order: bool = False,
) -> Tried:
    """Check a circuit and look inside; `others` are the files beside the spec. The cases that are shown are the first
    ones where they are wanted in order, else the wrong ones first."""
    limits = limits or Limits()
    ready = _checked(expectation, files, provided, limits)
    if isinstance(ready, Tried):
        return ready
    cases = list(range(min(expectation.cases.count, MOST_SHOWN))) if in_order else _shown(expectation, ready.outcome)
    return _looked_into(expectation, ready, cases, others, limits)


def _checked(
    expectation: Expectation, files: Sequence[HandinFile], provided: Sequence[HandinFile], limits: Limits
) -> Ready | Tried:
    """A circuit that was run over all cases; what came of it where that is all there is."""
    if expectation.spec.bench is not None:
        checked = check_handin(expectation, files, provided, limits)
        return Tried(checked, "with a bench there is no drawing here", _shown(expectation, checked), {}, 0)
    ready = make_ready(expectation.spec, files, provided, limits, {})
    if not isinstance(ready, Ready):
        return Tried(ready, None, [], {}, 0)
    check_ready(ready, expectation, limits)
    return ready


def _looked_into(
    expectation: Expectation, ready: Ready, cases: list[int], others: Mapping[str, bytes], limits: Limits
) -> Tried:
    """Its drawing with the values of these cases, and its size."""
    gates, levels = count_gates(ready.design), count_levels(ready.design)
    opened = drawn(ready)  # once it was checked and counted: a drawing adds to a design
    inside = opened if isinstance(opened, str) else values_inside(expectation, opened, cases, others, limits)
    return Tried(ready.outcome, inside, cases, dict(gates), levels)


@dataclass(frozen=True, slots=True)
class Beside:
    """Two circuits over the same cases. `differs` has a one for each case in which some output is not the same, None
    where one of the two cannot be run; `outputs` are the names of outputs that ever differ."""

    one: Tried
    other: Tried
    differs: int | None
    outputs: list[str]


def beside(
    expectation: Expectation,
    one: Sequence[HandinFile],
    other: Sequence[HandinFile],
    provided: Sequence[HandinFile],
    others: Mapping[str, bytes],
    limits: Limits | None = None,
) -> Beside:
    """Run two circuits, in whatever languages, over all cases, and look into both in the same ones: the first in which
    they part, and some in which they do not."""
    limits = limits or Limits()
    made = [_checked(expectation, files, provided, limits) for files in (one, other)]
    verdicts = [ready.outcome.verdict if isinstance(ready, Ready) else None for ready in made]
    first, second = verdicts
    if first is None or second is None:
        tried = [
            t if isinstance(t, Tried) else _looked_into(expectation, t, _shown(expectation, t.outcome), others, limits)
            for t in made
        ]
        return Beside(tried[0], tried[1], None, [])
    parted = {
        key: (first.shown[key][0] ^ second.shown[key][0]) | (first.shown[key][1] ^ second.shown[key][1])
        for key in first.shown
    }
    differs = 0
    for plane in parted.values():
        differs |= plane
    cases = _some_of(differs, expectation.cases.count)
    looked = [_looked_into(expectation, t, cases, others, limits) for t in made if isinstance(t, Ready)]
    return Beside(looked[0], looked[1], differs, sorted({name for (name, _), plane in parted.items() if plane}))


def _some_of(wanted: int, total: int) -> list[int]:
    """All cases where they are few; else the first that are wanted, and others after them."""
    if total <= MOST_SHOWN:
        return list(range(total))
    first = set_bits(wanted)[: MOST_SHOWN - 16]
    others = (case for case in range(total) if not wanted >> case & 1)
    return sorted([*first, *(case for case, _ in zip(others, range(MOST_SHOWN - len(first)), strict=False))])


def for_learners(expectation: Expectation) -> Expectation | None:
    """The same without the cases that are never shown: they are not even run. None where they cannot be left out."""
    hidden = expectation.hidden
    if not hidden:
        return expectation
    if expectation.cases.stimulus is not None:
        return None
    return with_cases(expectation, set_bits(expectation.cases.full & ~hidden))


def try_as_learner(
    expectation: Expectation, files: Sequence[HandinFile], provided: Sequence[HandinFile], limits: Limits | None = None
) -> Tried:
    """What somebody's own circuit does, in the first cases, whether they are right or not; nothing in it comes from a
    reference."""
    tried = try_out(expectation, files, provided, {}, limits, in_order=True)
    if isinstance(tried.inside, Inside):
        tried.inside.likeness, tried.inside.explains = [], []
    return tried


def _shown(expectation: Expectation, checked: Checked) -> list[int]:
    """All cases where they are few; else the first wrong ones, and right ones after them."""
    total = expectation.cases.count
    if total <= MOST_SHOWN or checked.verdict is None:
        return list(range(min(total, MOST_SHOWN)))
    return _some_of(expectation.cases.full & ~checked.verdict.right, total)


def proven_form(expectation: Expectation, form: Form) -> Formed:
    """A form of the expected function that was run over all cases.

    Raises
    ------
    NoForm
        There is none, or it is not right: then it is not given out.
    """
    made = form_of(expectation, form)
    checked = check_handin(expectation, [HandinFile("form.wiring", made.text.encode())], (), Limits())
    right = checked.verdict.right if checked.verdict is not None else 0
    if right != expectation.cases.full:
        raise NoForm("this form came out wrong and is not shown: a fault of ours")
    return Formed(made.text, [*made.steps, f"run over all {expectation.cases.count} cases: right in each"])
