"""Sequences made from a function table: every row from every reachable state, and what must do nothing.

From each state that can be reached, for each choice of inputs, a walk takes

- a whole cycle of the clock;
- the inputs set without an edge: asynchronous rows act, all others must do nothing;
- the clock to its active level, other inputs there, and back: only the active edge may act.

Walks begin at power-up. They go on greedily to the nearest state that has something left to take. Runs hold the same inputs
for more cycles than there are states, so that whoever leaves the way is followed for a while.
"""

from __future__ import annotations

import random
from collections import deque
from collections.abc import Iterator
from dataclasses import dataclass, field

from obento.core import values
from obento.core.check.expectation import Coverage
from obento.core.check.function import FunctionTable, Inputs, State
from obento.core.spec.drive import CYCLE, FALL, QUIET, RISE, Planned, cell_of
from obento.core.spec.model import FunctionRow, Spec, SpecPort

MOST_STEPS = 6_000
"""Beyond this many steps the least telling things to take are left out, and it is said."""

_MOST_STATES = 4_096
_ALL_COMBINATIONS = 6
_FILLINGS = 3
_LONGEST = 120
_SHOWN = 6
_MOST_RUNS = 16
_WIDEST_GRID = 48

Moves = tuple[tuple[str, Inputs], ...]
"""Steps taken together: what the clock does and the inputs, of each."""


@dataclass(slots=True)
class Explored:
    """The walks, and what they cover; `uncovered` are active edges for which no row is there: state and inputs."""

    walks: list[tuple[str, list[Planned]]]
    coverage: Coverage
    uncovered: list[tuple[State, Inputs]]


@dataclass(slots=True)
class _Node:
    """A state with the clock at rest: where single moves lead, and what is left to take (most telling first)."""

    leads: dict[Moves, State] = field(default_factory=dict)
    open: deque[Moves] = field(default_factory=deque)


def explore(spec: Spec, table: FunctionTable, rows: tuple[FunctionRow, ...]) -> Explored:
    """All walks of a function table."""
    return _Explorer(spec, table, rows).explore()


class _Explorer:
    def __init__(self, spec: Spec, table: FunctionTable, rows: tuple[FunctionRow, ...]) -> None:
        self._spec = spec
        self._table = table
        self._rows = rows
        self._stimuli = list(self._choices())
        self._nodes: dict[State, _Node] = {}
        self._pairs: set[tuple[State, int]] = set()
        self._taken: set[tuple[State, int]] = set()
        self._uncovered: dict[tuple[State, Inputs], None] = {}
        self._is_whole = True

    def explore(self) -> Explored:
        self._find_states()
        self._choose_what_to_take()
        walks: list[tuple[str, list[Planned]]] = []
        while any(node.open for node in self._nodes.values()):
            walk = self._walk()
            if not walk:
                break
            walks.append((f"walk {len(walks) + 1}", walk))
        runs = self._runs() if self._spec.clock else []
        walks = [(f"run {i + 1}", run) for i, run in enumerate(runs)] + walks
        return Explored(walks, self._coverage(), list(self._uncovered))

    # What can be set, and where it leads.

    def _choices(self) -> Iterator[Inputs]:
        """Inputs to try: all combinations of a few bits, else every row with its open digits filled in several ways."""
        free = [p for p in self._spec.inputs if self._spec.clock is None or p.name != self._spec.clock.port]
        bits = sum(p.width for p in free)
        seen: set[int] = set()
        if bits <= _ALL_COMBINATIONS:
            order = list(range(1 << bits))
        else:
            source = random.Random(1)
            order = []
            for row in self._rows:
                care = value = 0
                for port, cell in zip(self._spec.inputs, row.inputs, strict=True):
                    if port in free:
                        care, value = care << port.width | cell.care, value << port.width | cell.word[0] & cell.care
                rest = values.ones(bits) & ~care
                order += [value, value | rest, *(value | source.getrandbits(bits) & rest for _ in range(_FILLINGS))]
        for number in order:
            if number in seen:
                continue
            seen.add(number)
            words = []
            low = bits
            for port in self._spec.inputs:
                if port not in free:
                    words.append((0, 0))
                    continue
                low -= port.width
                words.append(values.word(number >> low, port.width))
            yield tuple(words)

    def _find_states(self) -> None:
        """Breadth first from power-up, by cycles and by inputs alone."""
        actions = (CYCLE, QUIET) if self._spec.clock else (QUIET,)
        todo = deque([self._table.start()])
        self._nodes[todo[0]] = _Node()
        while todo:
            state = todo.popleft()
            node = self._nodes[state]
            for action in actions:
                for inputs in self._stimuli:
                    moves = ((action, inputs),)
                    after = self._follow(state, moves, self._pairs)
                    if after not in self._nodes:
                        if len(self._nodes) >= _MOST_STATES:
                            self._is_whole = False
                            continue
                        self._nodes[after] = _Node()
                        todo.append(after)
                    node.leads[moves] = after

    def _follow(self, state: State, moves: Moves, pairs: set[tuple[State, int]]) -> State:
        level = self._spec.clock.idle if self._spec.clock else 0
        for action, inputs in moves:
            moved = self._table.step(state, inputs, action, level)
            pairs.update((s, row) for s, row in moved.rows if self._table.known(s))
            if moved.uncovered and self._table.known(state):
                self._uncovered[state, inputs] = None
            state, level = moved.after, self._table.level_after(action, level)
        return state

    # What to take.

    def _choose_what_to_take(self) -> None:
        wanted: list[tuple[int, int, State, Moves]] = []
        for state, node in self._nodes.items():
            for weight, moves in self._tasks(state, node):
                wanted.append((weight, len(wanted), state, moves))
        wanted.sort(key=lambda w: w[:2])
        steps = 0
        for _, _, state, moves in wanted:
            steps += len(moves)
            if steps > MOST_STEPS:
                self._is_whole = False
                break
            self._nodes[state].open.append(moves)

    def _tasks(self, state: State, node: _Node) -> Iterator[tuple[int, Moves]]:
        """Everything to take from a state, with how much it may be left out (0: the first case of a row)."""
        if not self._table.known(state):
            # From power-up only what is expected to lead somewhere says anything.
            yield from ((0, moves) for moves, after in node.leads.items() if after != state)
            return
        seen: set[int] = set()
        for moves, after in node.leads.items():
            own: set[tuple[State, int]] = set()
            self._follow(state, moves, own)
            fresh = {row for _, row in own} - seen
            seen |= fresh
            action = moves[0][0]
            yield (0 if fresh else 1 if action == CYCLE or after != state else 2), moves
        if self._spec.clock is None:
            return
        up, down = (RISE, FALL) if self._spec.clock.edge == "rise" else (FALL, RISE)
        quiet = [moves[0][1] for moves, after in node.leads.items() if moves[0][0] == QUIET and after == state]
        for i, inputs in enumerate(quiet):
            other = quiet[(i + 1) % len(quiet)]
            yield (1 if i == 0 else 3), ((up, inputs), (QUIET, other), (down, other))

    # Walking.

    def _walk(self) -> list[Planned]:
        """One walk from power-up: what is open here, else the way to the nearest state with something open."""
        state = self._table.start()
        steps: list[Planned] = []
        longest = max(_LONGEST, 2 * len(self._nodes))
        while len(steps) < longest:
            node = self._nodes.get(state)
            moves = node.open.popleft() if node is not None and node.open else None
            if moves is None:
                way = self._way(state)
                if not way:
                    break
                moves = way
            state = self._follow(state, moves, self._taken)
            steps += [self._planned(action, inputs) for action, inputs in moves]
        return steps

    def _way(self, start: State) -> Moves:
        """The shortest way to a state with something open; empty when there is none."""
        came: dict[State, tuple[State, Moves]] = {}
        todo = deque([start])
        seen = {start}
        while todo:
            state = todo.popleft()
            if state != start and self._nodes[state].open:
                way: Moves = ()
                while state != start:
                    state, moves = came[state]
                    way = moves + way
                return way
            for moves, after in self._nodes[state].leads.items() if state in self._nodes else ():
                if after not in seen and after in self._nodes:
                    seen.add(after)
                    came[after] = state, moves
                    todo.append(after)
        return ()

    def _planned(self, action: str, inputs: Inputs) -> Planned:
        return Planned(action, tuple(cell_of(w, p.width) for w, p in zip(inputs, self._spec.inputs, strict=True)))

    def _runs(self) -> list[list[Planned]]:
        """For each choice of inputs that leads through several states: from the nearest known state on, for long."""
        way = self._way_to_known()
        start = self._follow(self._table.start(), way, self._taken) if way else None
        if start is None:
            return []
        length = min(2 * len(self._nodes) + 4, _LONGEST)
        found: list[list[Planned]] = []
        for inputs in self._stimuli:
            again: Moves = ((CYCLE, inputs),) * length
            seen = {start}
            state = start
            for moves in again[:4]:
                state = self._follow(state, (moves,), set())
                seen.add(state)
            if len(seen) > 2:
                found.append([self._planned(action, words) for action, words in (*way, *again)])
            if len(found) == _MOST_RUNS:
                break
        return found

    def _way_to_known(self) -> Moves:
        """The shortest way from power-up to a state that is known."""
        came: dict[State, Moves] = {self._table.start(): ()}
        todo = deque(came)
        while todo:
            state = todo.popleft()
            if self._table.known(state):
                return came[state]
            for moves, after in self._nodes[state].leads.items():
                if after not in came and after in self._nodes:
                    came[after] = came[state] + moves
                    todo.append(after)
        return ()

    # What is covered.

    def _coverage(self) -> Coverage:
        known = [s for s in self._nodes if self._table.known(s)]
        possible = 1 << min(sum(p.width for _, p in self._named()), 64)
        taken_rows = {row for _, row in self._pairs}
        idle = tuple(row.line for i, row in enumerate(self._rows) if i not in taken_rows)
        return Coverage(
            rows=len(self._rows), states=len({self._number(s) for s in known}), taken=len(self._pairs & self._taken), possible=len(self._pairs),
            possible_states=possible, unreached=self._unreached(known, possible), idle_rows=idle, is_whole=self._is_whole, grid=self._grid(known),
        )  # fmt: skip

    def _grid(self, known: list[State]) -> tuple[str, ...]:
        if len(known) > _WIDEST_GRID:
            return ()
        known = sorted(known)
        return tuple(
            "".join("t" if (s, row) in self._taken else "o" if (s, row) in self._pairs else "." for s in known) for row in range(len(self._rows))
        )

    def _unreached(self, known: list[State], possible: int) -> tuple[str, ...]:
        """Some values of the states that cannot be reached, as they are written."""
        numbers = {self._number(s) for s in known}
        if possible > 1 << 16 or len(numbers) == possible or not self._is_whole:
            return ()
        found = []
        for number in range(possible):
            if number not in numbers:
                found.append(self._text(number))
                if len(found) == _SHOWN:
                    break
        return tuple(found)

    def _named(self) -> list[tuple[int, SpecPort]]:
        """The states by which people count: the inner ones, where there are any."""
        inner = {p.name for p in self._spec.inner}
        return [(i, p) for i, p in enumerate(self._table.states) if not inner or p.name in inner]

    def _number(self, state: State) -> int:
        number = 0
        for i, port in self._named():
            number = number << port.width | state[i][0]
        return number

    def _text(self, number: int) -> str:
        parts = []
        for _, port in reversed(self._named()):
            parts.append(f"{port.name} = {port.show(values.word(number, port.width))}")
            number >>= port.width
        return ", ".join(reversed(parts))
