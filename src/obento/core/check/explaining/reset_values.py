"""Registers that a reset sets to something else than they should be."""

from __future__ import annotations

from obento.core import values
from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.check.explaining.slips import Slip
from obento.core.check.judging.verdict import Verdict, shown_word
from obento.core.planes import set_bits
from obento.core.sentences.said import say
from obento.core.spec.model import SpecPort

_FEWEST = 2


def wrong_reset_values(expectation: Expectation, verdict: Verdict) -> list[Slip]:
    """Outputs that show one and the same value in every step that resets, where another one is expected in all of
    these. Only of a reset that does something: an output came from another value in some such step."""
    resets = _reset_steps(expectation)
    found = []
    for port in expectation.spec.outputs if len(resets) >= _FEWEST else ():
        words = {_seen(expectation, verdict, port, step) for step in resets}
        if len(words) != 1:
            continue
        got, wanted = words.pop()
        if got is not None and wanted is not None and got != wanted and _moves(expectation, verdict, port, resets, got):
            x, y = (port.show(values.word(number, port.width)) for number in (got, wanted))
            found.append(Slip("reset-value", say("reset-value", output=port.name, value=x, wanted=y), port.name))
    return found


def _reset_steps(expectation: Expectation) -> list[int]:
    """The steps in which a reset acts by the spec."""
    spec, cases = expectation.spec, expectation.cases
    stimulus = cases.stimulus
    if spec.reset is None or stimulus is None:
        return []
    bit = sum(p.width for p in spec.inputs[: [p.name for p in spec.inputs].index(spec.reset.port)])
    plane = cases.one[bit] if spec.reset.active else cases.zero[bit]
    return [s for s in set_bits(plane) if spec.reset.kind == "async" or stimulus.active(s)]


def _seen(expectation: Expectation, verdict: Verdict, port: SpecPort, step: int) -> tuple[int | None, int | None]:
    """What a step shows and what it should, as numbers; None where that is not known, or not compared."""
    word = shown_word(verdict, port, step)
    wanted, care = expected_word(expectation, port.name, port.width, step, verdict.expected)
    full = values.ones(port.width)
    return (
        word[0] if values.is_known(word, port.width) else None,
        wanted[0] if care == full and values.is_known(wanted, port.width) else None,
    )


def _moves(expectation: Expectation, verdict: Verdict, port: SpecPort, resets: list[int], got: int) -> bool:
    stimulus = expectation.cases.stimulus
    assert stimulus is not None
    before = [s - 1 for s in resets if stimulus.place(s)[1] > 1]
    return any(shown_word(verdict, port, s) != values.word(got, port.width) for s in before)
