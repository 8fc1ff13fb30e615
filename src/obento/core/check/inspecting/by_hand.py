"""A hand-in whose inputs are set by hand, one move after the other, beside what is expected then."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from obento.core import values
from obento.core.check.expectation.cases import expect_for
from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.check.inspecting.wires import Opened, open_circuit
from obento.core.check.running.steps import Wiring, play, settings
from obento.core.handin import HandinFile
from obento.core.ir.part import Finished, RunError
from obento.core.limits import LimitReached, Limits
from obento.core.sim.timeline.kernel import DidNotSettle, Timeline
from obento.core.spec.cases import Cases
from obento.core.spec.model import Spec
from obento.core.spec.stimulus import QUIET, Planned, cell_of, pack_steps
from obento.core.values import Word

MOST_MOVES = 500


@dataclass(frozen=True, slots=True)
class Move:
    """All inputs in the spec's order (the clock's own is passed over), and what the clock does then."""

    inputs: tuple[Word, ...]
    action: str = QUIET


@dataclass(slots=True)
class ByHand:
    """After the last move: each output as (got, expected, which of its digits are expected), in the spec's order.

    `digits` are those of all bits that the drawing's pins carry. `trouble` says why a run came to an end before that.
    """

    outputs: list[tuple[Word, Word, int]]
    digits: dict[int, str] = field(default_factory=dict)
    trouble: str = ""


def drive_by_hand(
    expectation: Expectation,
    files: Sequence[HandinFile],
    provided: Sequence[HandinFile],
    choices: Mapping[str, str],
    moves: Sequence[Move],
    others: Mapping[str, bytes],
    limits: Limits | None = None,
) -> ByHand | str | None:
    """Power up a hand-in and make all moves on it.

    A sentence where it cannot be drawn or is too large to be run; None where it cannot be run.

    Parameters
    ----------
    provided
        The lab's own files that every hand-in may use.
    choices
        Settled by a person: our port (or the unit's name) -> theirs.
    moves
        What is set and what the clock does, one after the other, from power-up.
    others
        Files beside the spec, by name.
    """
    limits = limits or Limits()
    opened = open_circuit(expectation, files, provided, choices, limits)
    if not isinstance(opened, Opened):
        return opened
    spec = expectation.spec
    steps = _as_steps(spec, moves)
    try:
        timeline = Timeline(opened.ready.design, limits)
    except LimitReached as limit:
        return limit.text
    words, trouble = _run(spec, opened, steps, timeline)
    wanted = expect_for(spec, steps if spec.is_clocked else replace(steps, stimulus=None), others, limits)
    result = ByHand([], {}, trouble)
    wiring = Wiring.of(opened.ready.binding, spec.inputs)
    for port in spec.outputs:
        one = zero = 0
        for i in range(port.width):
            signal, offset = wiring.outputs[port.name, i]
            one |= (words[signal][0] >> offset & 1) << i
            zero |= (words[signal][1] >> offset & 1) << i
        word, care = expected_word(wanted, port.name, port.width, len(moves) - 1) if wanted is not None else ((0, 0), 0)
        result.outputs.append(((one, zero), word, care & (word[0] ^ word[1])))
    wanted_bits = {b for pin in opened.drawing.circuit.pins() for b in pin.bits if b >= 0}
    for s in opened.ready.design.signals:
        for i in range(s.width):
            if s.offset + i in wanted_bits:
                one, zero = words[s.id]
                result.digits[s.offset + i] = values.to_digits((one >> i & 1, zero >> i & 1), 1)
    return result


def _as_steps(spec: Spec, moves: Sequence[Move]) -> Cases:
    """The moves as the steps of one sequence."""
    planned = [
        Planned(m.action, tuple(cell_of(w, p.width) for w, p in zip(m.inputs, spec.inputs, strict=True))) for m in moves
    ]
    return Cases(*pack_steps(spec.inputs, spec.clock, [("by hand", planned)]))


def _run(spec: Spec, opened: Opened, cases: Cases, timeline: Timeline) -> tuple[list[Word], str]:
    """The words of all signals after the last step, or where the run ended, and why it did."""
    stimulus = cases.stimulus
    assert stimulus is not None
    wiring = Wiring.of(opened.ready.binding, spec.inputs)
    place = wiring.inputs[stimulus.clock] if stimulus.clock is not None else None
    words: list[Word] = []
    try:
        for _ in play(timeline, stimulus, place, settings(wiring, cases, stimulus.sequences[0])):
            words = list(timeline.words)
    except Finished:
        return list(timeline.words), "the design ends the run itself"
    except DidNotSettle as error:
        return list(timeline.words), f"does not settle: {', '.join(error.signals)}"
    except (RunError, LimitReached) as error:
        return list(timeline.words), error.text
    return words, ""
