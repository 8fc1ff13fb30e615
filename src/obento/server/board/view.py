"""A circuit on the board as the screen gets it."""

from __future__ import annotations

from dataclasses import asdict

from obento.core.board.heading import heading
from obento.core.board.trying import Beside, Tried
from obento.core.check.expectation.model import Expectation
from obento.core.wiring.elaborate import GATE_NAMES
from obento.server.board.models import (
    BesideView,
    BoardStart,
    BoardView,
    LearnerRow,
    LearnerStart,
    LearnerView,
    RuleView,
    Tells,
)
from obento.server.cases.rows import case_rows
from obento.server.models import MessageView
from obento.server.review.circuit import circuit_view
from obento.server.review.waves import sequences_of
from obento.server.specs.cases import port_views

FILE = "board.wiring"
"""The name under which a board's text is read."""


def board_start(expectation: Expectation, blocks: list[str]) -> BoardStart:
    """An empty board for a task."""
    spec, rules = expectation.spec, expectation.spec.rules
    return BoardStart(
        unit=spec.unit,
        text="\n".join([*heading(spec), "end", ""]),
        only_gates=list(rules.only_gates),
        max_gates=rules.max_gates,
        max_levels=rules.max_levels,
        ports=port_views(spec),
        cases=expectation.cases.count,
        clocked=spec.clock is not None,
        blocks=blocks,
        parts=sorted(GATE_NAMES & set(rules.only_gates) if rules.only_gates else GATE_NAMES),
    )


def learner_start(expectation: Expectation, blocks: list[str], tells: Tells) -> LearnerStart:
    """An empty board for a student: what everybody knows of the task, and nothing else."""
    start = board_start(expectation, blocks).model_dump(exclude={"cases"})
    return LearnerStart(**start, title=expectation.spec.title, tells=tells)


def learner_view(expectation: Expectation, tried: Tried, tells: Tells) -> LearnerView:
    """What a student is told: what their own circuit does, and of right and wrong what the task tells. `expectation` is
    that without hidden cases."""
    verdict = tried.checked.verdict
    shown = case_rows(expectation, verdict, tried.cases) if verdict is not None else []
    return LearnerView(
        status=tried.checked.status,
        passed=verdict.right.bit_count() if verdict is not None and tells != "nothing" else None,
        total=expectation.cases.count if tells != "nothing" else None,
        rows=[
            LearnerRow(
                index=r.index, inputs=r.inputs, outputs=r.actual, right=r.cell == "p" if tells == "rows" else None
            )
            for r in shown
        ],
        cases=expectation.cases.count,
        messages=[MessageView(**asdict(m)) for m in tried.checked.messages],
        rules=[RuleView(**asdict(r)) for r in tried.checked.rules],
        gates=sum(tried.gates.values()),
        levels=tried.levels,
        circuit=circuit_view(tried.inside),
        waves=sequences_of(expectation, verdict, tried.cases, is_told=False) if verdict is not None else [],
    )


def board_view(expectation: Expectation, tried: Tried) -> BoardView:
    checked, verdict = tried.checked, tried.checked.verdict
    return BoardView(
        status=checked.status,
        passed=verdict.right.bit_count() if verdict is not None else 0,
        total=expectation.cases.count,
        rows=case_rows(expectation, verdict, tried.cases) if verdict is not None else [],
        messages=[MessageView(**asdict(m)) for m in checked.messages],
        findings=[f.text for f in checked.findings],
        rules=[RuleView(**asdict(r)) for r in checked.rules],
        gates=sum(tried.gates.values()),
        by_kind=dict(tried.gates),
        levels=tried.levels,
        circuit=circuit_view(tried.inside),
        waves=sequences_of(expectation, verdict, tried.cases) if verdict is not None else [],
    )


def beside_view(expectation: Expectation, found: Beside) -> BesideView:
    differs = found.differs
    return BesideView(
        one=board_view(expectation, found.one),
        other=board_view(expectation, found.other),
        differs=None if differs is None else differs.bit_count(),
        total=expectation.cases.count,
        outputs=found.outputs,
        parts_in=[case for case in found.one.cases if (differs or 0) >> case & 1],
    )
