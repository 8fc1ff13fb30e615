"""What `$readmemb` and `$readmemh` put into a memory (IEEE 1364-2005 clause 17.2.9), whoever runs them."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field

from obento.core import values
from obento.core.ir.design import Design
from obento.core.ir.drivers import statements
from obento.core.ir.nodes import Argument, Const, SystemCall, SystemTask
from obento.core.sim.bench.display import characters
from obento.core.sim.bench.files import named
from obento.core.sim.bench.scan import BadMemoryFile, memory_words
from obento.core.values import Word

TASKS = frozenset(["$readmemb", "$readmemh"])


@dataclass(slots=True)
class Loaded:
    """Elements in the order in which they are written: (lowest digit in the memory's signal, word). `problem` says what
    is wrong with the file, if anything; what stands before that is written all the same."""

    elements: list[tuple[int, Word]] = field(default_factory=list)
    problem: str = ""


def load(call: SystemCall, name: str, text: str | None, bounds: list[int]) -> Loaded:
    """What a call writes.

    Parameters
    ----------
    name, text
        The file, and what stands in it: None where there is no such file.
    bounds
        The start and end addresses that the call gives; it may give one of them or none.
    """
    loaded = Loaded()
    memory = call.args[1].memory
    if memory is None:
        return loaded
    if text is None:
        loaded.problem = f"{call.name} finds no file `{name}` among those given"
        return loaded
    signal, left, right = memory
    low, high = min(left, right), max(left, right)
    at = bounds[0] if bounds else low
    end = bounds[1] if len(bounds) > 1 else high if at <= high else at
    step = 1 if end >= at else -1
    try:
        for jump, word, width in memory_words(text, call.name[-1]):
            at = at if jump is None else jump
            if not low <= at <= high:
                loaded.problem = f"`{name}` holds more than fits: address {at} is outside of [{left}:{right}]"
                break
            loaded.elements.append(((at - low) * signal.element, _fitted(word, width, signal.element)))
            at += step
    except BadMemoryFile as bad:
        loaded.problem = f"`{name}` line {bad.line}: `{bad.text}` is no number for {call.name}"
    return loaded


def _fitted(word: Word, width: int, wanted: int) -> Word:
    if width < wanted:
        return values.extend(word, width, wanted, False)
    return values.select(word, width, 0, wanted)


def known_load(call: SystemCall, given: Mapping[str, str]) -> Loaded | None:
    """What a call writes whatever has happened before; None where that cannot be told.

    Parameters
    ----------
    given
        The files that came with the design, by path.
    """
    name = _name(call.args[0])
    bounds = [_constant(a) for a in call.args[2:4]]
    if name is None or any(b is None for b in bounds):
        return None
    return load(call, name, named(given, name), [b for b in bounds if b is not None])


def _name(argument: Argument) -> str | None:
    if argument.text is not None:
        return argument.text
    value = argument.value
    return characters((value.one, value.zero), value.width) if isinstance(value, Const) else None


def _constant(argument: Argument) -> int | None:
    value = argument.value
    if not isinstance(value, Const) or argument.real:
        return None
    known = value.one & ~value.zero
    return values.signed_value(known, value.width) if argument.signed else known


def problems(design: Design) -> Iterator[tuple[str, int]]:
    """What is wrong with the memory files that a design names, with the position of each call."""
    for process in design.processes:
        for s in statements(process.body):
            if isinstance(s, SystemTask) and s.call.name in TASKS:
                loaded = known_load(s.call, design.given)
                if loaded is not None and loaded.problem:
                    yield loaded.problem, s.call.position
