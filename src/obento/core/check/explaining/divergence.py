"""Where a clocked hand-in goes astray: the steps that are wrong of themselves, and those that only follow from them.

After a wrong step the hand-in's state is taken to be astray, so that what is wrong next is a consequence. It is back on
its way at a reset that is right, or when it has been right for `_BACK_AFTER` compared steps with an active edge among
them."""

from __future__ import annotations

from dataclasses import dataclass, replace

from obento.core import values
from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.check.explaining.condition import ALWAYS, failing_condition
from obento.core.check.judging.verdict import Verdict, shown_word
from obento.core.planes import set_bits
from obento.core.sentences.said import Said, every, say
from obento.core.spec.cases import Cases
from obento.core.spec.model import Spec, SpecPort
from obento.core.spec.stimulus import Sequence, Stimulus

_BACK_AFTER = 4
_MOST_POINTS = 4_000
_EDGE = "edge"


@dataclass(frozen=True, slots=True)
class Stretch:
    """Astray from step `start` to before `end`; `is_back` unless the sequence ended before it came back."""

    sequence: Sequence
    start: int
    end: int
    is_back: bool


@dataclass(slots=True)
class Divergence:
    """`first` and `follows` are planes over the steps: together they are all steps that are not right."""

    first: int
    follows: int
    stretches: list[Stretch]
    sane: int


def diverge(expectation: Expectation, verdict: Verdict) -> Divergence:
    """Tell the steps that are wrong of themselves from those that follow."""
    stimulus = expectation.cases.stimulus
    assert stimulus is not None
    result = Divergence(0, 0, [], 0)
    bad = expectation.cases.full & ~verdict.right
    for sequence in stimulus.sequences:
        if not bad >> sequence.first & values.ones(sequence.length):
            result.sane |= values.ones(sequence.length) << sequence.first
            continue
        _of_sequence(expectation, verdict, stimulus, sequence, bad, result)
    return result


def _of_sequence(
    expectation: Expectation, verdict: Verdict, stimulus: Stimulus, sequence: Sequence, bad: int, result: Divergence
) -> None:
    start = -1
    right_from, right_steps, has_edge = -1, 0, False
    end = sequence.first + sequence.length
    for step in range(sequence.first, end):
        if bad >> step & 1:
            if start < 0:
                start = step
                result.first |= 1 << step
            else:
                result.follows |= 1 << step
            right_steps, has_edge = 0, False
        elif start >= 0 and verdict.passed >> step & 1:
            right_from = right_from if right_steps else step
            right_steps += 1
            has_edge = has_edge or stimulus.active(step)
            if _resets(expectation, stimulus, step) or (right_steps >= _BACK_AFTER and has_edge):
                result.stretches.append(Stretch(sequence, start, right_from, True))
                start, right_steps, has_edge = -1, 0, False
        if start < 0:
            result.sane |= 1 << step
    if start >= 0:
        result.stretches.append(Stretch(sequence, start, end, False))


def _resets(expectation: Expectation, stimulus: Stimulus, step: int) -> bool:
    """Whether a step certainly resets."""
    reset = expectation.spec.reset
    if reset is None or not (reset.kind == "async" or stimulus.active(step)):
        return False
    bit = 0
    for port in expectation.spec.inputs:
        if port.name == reset.port:
            plane = expectation.cases.one[bit] if reset.active else expectation.cases.zero[bit]
            return bool(plane >> step & 1)
        bit += port.width
    return False


# In words.


def describe(expectation: Expectation, verdict: Verdict, found: Divergence, output: str) -> str:
    """`ticket is wrong in 14 of 120 steps, first in walk 2, step 3: at the falling edge with take = 1 it is 12 instead
    of 0 (13 only follow)`."""
    of_output = verdict.outputs[output]
    bad = of_output.failed | of_output.undefined | of_output.stopped
    steps = set_bits(bad & found.first) or set_bits(bad)
    step = steps[0]
    cases = expectation.cases
    assert cases.stimulus is not None
    count = bad.bit_count()
    port = next(p for p in expectation.spec.outputs if p.name == output)
    word, care = expected_word(expectation, port.name, port.width, step, verdict.expected)
    text = say(
        "wrong-in-steps" if of_output.failed else "undefined-in-steps",
        output=output,
        count=count,
        total=verdict.count,
        step=cases.stimulus.name(step),
        event=happening(expectation, step),
        got=port.show(shown_word(verdict, port, step)),
        wanted=port.show(word, care),
    )
    follows = (bad & found.follows).bit_count()
    if not follows:
        return text
    return say("all-follow" if follows == count else "some-follow", what=text, count=follows)


def happening(expectation: Expectation, step: int) -> str:
    """What a step does: `at the falling edge with take = 1`, `when clr_n turns 0`."""
    spec, cases = expectation.spec, expectation.cases
    stimulus = cases.stimulus
    assert stimulus is not None
    number = stimulus.place(step)[1]
    given, turned = [], []
    bit = 0
    for port in spec.inputs:
        if spec.clock is None or port.name != spec.clock.port:
            word = cases.word(step, bit, port.width)
            text = say("is", name=port.name, value=port.show(word))
            given.append(text)
            if number > 1 and cases.word(step - 1, bit, port.width) != word:
                turned.append(text)
        bit += port.width
    action = stimulus.actions[step]
    if action == "." and (turned or number > 1):
        return say("without-an-edge", turned=turned) if turned else say("nothing-changed")
    if action == ".":
        return say("at-power-up-with", inputs=given) if given else say("at-power-up")
    falls = action == "f" or (action == "c" and stimulus.idle == 1)
    key = "falling-edge" if falls else "edge"
    return say(f"{key}-with", inputs=given) if given else say(f"with-{key}")


def when_it_diverges(expectation: Expectation, verdict: Verdict, found: Divergence) -> str:
    """What all steps that are wrong of themselves have in common, and no sane step has: inputs, an edge, the state
    before.

    Empty when nothing short tells them apart.
    """
    spec, cases = expectation.spec, expectation.cases
    stimulus = cases.stimulus
    assert stimulus is not None
    if not found.first:
        return ""
    states = [p for p in spec.outputs if p.width <= 8]
    points = []
    for step in set_bits((found.first | found.sane) & ~verdict.not_compared)[:_MOST_POINTS]:
        if step == stimulus.place(step)[0].first:
            continue
        words = _point(expectation, verdict, states, step)
        if words is not None:
            points.append((words, found.first >> step & 1))
    is_wrong = {words for words, wrong in points if wrong}
    if not is_wrong or is_wrong & {words for words, wrong in points if not wrong}:
        return ""
    inputs = [p for p in spec.inputs if spec.clock is None or p.name != spec.clock.port]
    names = [SpecPort(_EDGE, "in", 1, 0, 0, False, "bin"), *inputs, *states]
    if sum(p.width for p in names) > 16:
        return ""
    return _in_words(replace(spec, inputs=tuple(names)), points, stimulus)


def _point(expectation: Expectation, verdict: Verdict, states: list[SpecPort], step: int) -> tuple[int, ...] | None:
    """Edge, inputs and expected outputs before a step, as numbers; None where one is unknown."""
    cases = expectation.cases
    assert cases.stimulus is not None
    numbers = [int(cases.stimulus.active(step))]
    bit = 0
    for port in expectation.spec.inputs:
        word = cases.word(step, bit, port.width)
        bit += port.width
        if expectation.spec.clock is not None and port.name == expectation.spec.clock.port:
            continue
        if not values.is_known(word, port.width):
            return None
        numbers.append(word[0])
    for port in states:
        word, care = expected_word(expectation, port.name, port.width, step - 1, verdict.expected)
        if care != values.ones(port.width):
            return None
        numbers.append(word[0])
    return tuple(numbers)


def _in_words(spec: Spec, points: list[tuple[tuple[int, ...], int]], stimulus: Stimulus) -> str:
    unique = list(dict.fromkeys(points))
    planes: list[int] = []
    for i, port in enumerate(spec.inputs):
        for b in range(port.width):
            planes.append(sum((words[i] >> b & 1) << n for n, (words, _) in enumerate(unique)))
    full = values.ones(len(unique))
    cases = Cases(len(unique), tuple(planes), tuple(full ^ p for p in planes))
    text = failing_condition(spec, cases, sum(wrong << n for n, (_, wrong) in enumerate(unique)))
    if not text or text == ALWAYS or " or " in text:
        return ""
    parts = text.values["parts"] if isinstance(text, Said) and text.key == "every" else [text]
    at, without = f"{_EDGE} = 1", f"{_EDGE} = 0"
    others = [part for part in parts if part not in (at, without)]
    if any(_EDGE in part for part in others):
        return ""  # an edge is nothing that differs from inputs
    falls = "falling-" if stimulus.idle else ""
    if at in parts:
        return say(f"at-{falls}edge", when=every(others)) if others else say(f"a-{falls}edge" if falls else "an-edge")
    if without in parts:
        return say("without-edge", when=every(others)) if others else say("no-edge")
    return text
