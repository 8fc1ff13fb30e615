"""Power-up, before anything is known of the inputs, and what is done where that ends the run.

VHDL inputs are U until the first case. A hand-in that is right for every real value may end there all the same: it
takes U for an index, or divides by it. A bench that sets its inputs from the start would never see that, so such a
design is begun again with the first values given to it (IEEE 1076-1993 clause 12.6.4: at initialisation a port already
has the value of what is connected to it)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from obento.core.ir.design import Design
from obento.core.ir.part import Finished, RunError
from obento.core.limits import LimitReached, Limits, TimeIsUp
from obento.core.sim.timeline.kernel import DidNotSettle, Timeline
from obento.core.values import Word


@dataclass(slots=True)
class Ended:
    """An error of the run, and the cases in which it ends there. `text` is that of the first one at this place."""

    text: str
    position: int
    cases: int = 0


def as_error(ended: RunError | Finished | LimitReached) -> RunError:
    """Why a run came to an end of its own, or had to be ended."""
    if isinstance(ended, RunError):
        return ended
    if isinstance(ended, LimitReached):
        return RunError(ended.text, ended.position)
    return RunError(
        "an assertion of severity failure ends the run" if ended.failed else "the design ends the run itself",
        ended.position,
    )


def note_end(ends: list[Ended], error: RunError | Finished | LimitReached, cases: int) -> None:
    """Add cases that end in an error to those that end at the same place."""
    error = as_error(error)
    for known in ends:
        if known.position == error.position:
            known.cases |= cases
            return
    ends.append(Ended(error.text, error.position, cases))


class Start:
    """Powers up one timeline again and again. `refused` is the error in which it ended with unknown inputs, if it
    did."""

    def __init__(self, timeline: Timeline) -> None:
        self._timeline = timeline
        self.refused: RunError | None = None

    def begin(self, given: Mapping[int, Word]) -> None:
        """Everything at its start value and idle; `given` (signal numbers to words) are the inputs to begin with, where
        unknown ones will not do.

        Raises
        ------
        RunError, Finished
            Where real values end the run too.
        DidNotSettle, LimitReached
        """
        if self.refused is None:
            try:
                self._timeline.power_up()
                return
            except TimeIsUp:
                raise
            except (RunError, Finished, LimitReached) as error:
                self.refused = as_error(error)
        self._timeline.start(given)
        self._timeline.settle()


def apply_words(timeline: Timeline, given: Mapping[int, Word]) -> None:
    """Set input signals (by number) together, then settle."""
    for signal, word in given.items():
        if timeline.words[signal] != word:
            timeline.change(signal, word)
    timeline.settle()


def refused_unknown(design: Design, limits: Limits) -> RunError | None:
    """The error in which a design ends while its inputs are unknown; None where it does not."""
    try:
        timeline = Timeline(design, limits.alone())
    except LimitReached:  # too large to be run by itself, which says nothing about unknown inputs
        return None
    try:
        timeline.power_up()
    except (RunError, Finished, LimitReached) as error:
        return as_error(error)
    except DidNotSettle:
        return None
    return None
