"""Sequences made from a function table: every row from every reachable state, and what must do nothing.

From each state that can be reached, for each choice of inputs, a walk takes

- a whole cycle of the clock;
- the inputs set without an edge: asynchronous rows act, all others must do nothing;
- the clock to its active level, other inputs there, and back: only the active edge may act.

Walks begin at power-up, with the reset where the spec declares one: a right design may need it (in the textbook
equation of a clocked part an unknown state stays unknown). What happens without it is asked in sequences of their own,
where the spec wants that.

First each row is taken once; then everything that does not lead back, going on to the nearest state that has something
left; then what leads back, since it costs the whole way again. Runs hold the same inputs for more cycles than there are
states, so that whoever leaves the way is followed for a while."""

from __future__ import annotations

import random
from collections import deque
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Literal

from obento.core import values
from obento.core.check.expectation.function_table import FunctionTable, Inputs, State
from obento.core.check.expectation.model import Coverage
from obento.core.spec.model import FunctionRow, Spec, SpecPort
from obento.core.spec.stimulus import CYCLE, FALL, QUIET, RISE, Planned, cell_of, clock_after

MOST_STEPS = 6_000
"""Walks have at most so many steps in all; what is left out then is said."""

_MOST_MOVES = 40_000
_FORWARD_SHARE = 0.6

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
    """A state with the clock at rest: how far from power-up, where single moves lead, and what is left to take from it:
    what stays or goes on, and what leads `back`."""

    depth: int = 0
    leads: dict[Moves, State] = field(default_factory=dict)
    open: dict[Moves, None] = field(default_factory=dict)
    back: dict[Moves, None] = field(default_factory=dict)


def explore(spec: Spec, table: FunctionTable, rows: tuple[FunctionRow, ...]) -> Explored:
    """All walks of a function table."""
    if spec.reset is None or spec.edition == 1:
        return _Explorer(spec, table, rows).explore()
    found = _Explorer(spec, table, rows, "begun").explore()
    if spec.without_reset:
        bare = _Explorer(spec, table, rows, "without").explore()
        found.walks += [(f"without reset {i + 1}", walk) for i, (_, walk) in enumerate(bare.walks)]
    return found


class _Explorer:
    """`reset` says how walks use the one that is declared: as any other input, `begun` by it, or `without` it."""

    def __init__(
        self,
        spec: Spec,
        table: FunctionTable,
        rows: tuple[FunctionRow, ...],
        reset: Literal["free", "begun", "without"] = "free",
    ) -> None:
        self._spec = spec
        self._table = table
        self._rows = rows
        self._idle = spec.clock.idle if spec.clock else 0
        self._stimuli = list(self._choices())
        if reset == "without":
            self._stimuli = [inputs for inputs in self._stimuli if not self._resets(inputs)]
        self._nodes: dict[State, _Node] = {}
        self._pairs: set[tuple[State, int]] = set()
        self._taken: set[tuple[State, int]] = set()
        self._uncovered: dict[tuple[State, Inputs], None] = {}
        self._is_whole = True
        self._prefix, self._first = self._reset_first() if reset == "begun" else ((), table.start())
        self._walks: list[list[Planned]] = []
        self._here = self._first
        self._steps = 0
        self._begin()

    def explore(self) -> Explored:
        self._find_states()
        self._list_what_to_take()
        self._take_every_row()
        self._take_forward()
        self._take_back()
        runs = self._runs() if self._spec.clock else []
        sequences = [(f"run {i + 1}", run) for i, run in enumerate(runs)]
        sequences += [
            (f"walk {i + 1}", walk) for i, walk in enumerate(w for w in self._walks if len(w) > len(self._prefix))
        ]
        return Explored(sequences, self._coverage(), list(self._uncovered))

    # The reset.

    def _resets(self, inputs: Inputs) -> bool:
        """Whether these inputs have the reset at its active level."""
        reset = self._spec.reset
        assert reset is not None
        return any(
            p.name == reset.port and word[0] == reset.active for p, word in zip(self._spec.inputs, inputs, strict=True)
        )

    def _reset_first(self) -> tuple[Moves, State]:
        """What every walk begins with, and the state after it: the reset with all other inputs 0, with a cycle of the
        clock where it needs one."""
        assert self._spec.reset is not None
        inputs = tuple(
            (
                values.word(self._spec.reset.active if p.name == self._spec.reset.port else 0, p.width)
                if self._is_free(p)
                else (0, 0)
            )
            for p in self._spec.inputs
        )
        ways: list[Moves] = [((QUIET, inputs),), ((CYCLE, inputs),)]
        if self._spec.reset.kind == "sync" or self._spec.clock is None:
            ways = ways[1:] if self._spec.clock is not None else ways[:1]
        for moves in ways:
            state = self._follow(self._table.start(), moves, set())
            if self._table.known(state):
                return moves, state
        return ways[0], self._follow(self._table.start(), ways[0], set())

    def _is_free(self, port: SpecPort) -> bool:
        """Whether it is set like any input: all but the clock."""
        return self._spec.clock is None or port.name != self._spec.clock.port

    # What can be set, and where it leads.

    def _choices(self) -> Iterator[Inputs]:
        """Inputs to try: all combinations of a few bits, else every row with its open digits filled in several ways."""
        free = [p for p in self._spec.inputs if self._is_free(p)]
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
        """Breadth first from where walks begin, by cycles and by inputs alone."""
        actions = (CYCLE, QUIET) if self._spec.clock else (QUIET,)
        todo = deque([self._first])
        self._nodes[todo[0]] = _Node()
        moved = 0
        while todo:
            state = todo.popleft()
            node = self._nodes[state]
            for action in actions:
                for inputs in self._stimuli:
                    moves = ((action, inputs),)
                    after = self._follow(state, moves, self._pairs)
                    moved += 1
                    if after not in self._nodes:
                        if len(self._nodes) >= _MOST_STATES or moved > _MOST_MOVES:
                            self._is_whole = False
                            continue
                        self._nodes[after] = _Node(node.depth + 1)
                        todo.append(after)
                    node.leads[moves] = after

    def _follow(self, state: State, moves: Moves, pairs: set[tuple[State, int]]) -> State:
        level = self._idle
        for action, inputs in moves:
            moved = self._table.step(state, inputs, action, level)
            pairs.update((s, row) for s, row in moved.rows if self._table.known(s))
            if moved.uncovered and self._table.known(state):
                self._uncovered[state, inputs] = None
            state, level = moved.after, clock_after(action, level, self._idle)
        return state

    # What to take.

    def _list_what_to_take(self) -> None:
        for state, node in self._nodes.items():
            for moves, after in self._tasks(state, node):
                is_back = after != state and (after not in self._nodes or self._nodes[after].depth <= node.depth)
                (node.back if is_back else node.open)[moves] = None

    def _tasks(self, state: State, node: _Node) -> Iterator[tuple[Moves, State]]:
        """Everything to take from a state, and where it leads."""
        if not self._table.known(state):
            # From power-up only what is expected to lead somewhere says anything.
            yield from ((moves, after) for moves, after in node.leads.items() if after != state)
            return
        yield from node.leads.items()
        if self._spec.clock is None:
            return
        up, down = (RISE, FALL) if self._spec.clock.edge == "rise" else (FALL, RISE)
        quiet = [moves[0][1] for moves, after in node.leads.items() if moves[0][0] == QUIET and after == state]
        for i, inputs in enumerate(quiet):
            moves = ((up, inputs), (QUIET, quiet[(i + 1) % len(quiet)]), (down, quiet[(i + 1) % len(quiet)]))
            yield moves, self._follow(state, moves, set())

    # Walking.

    def _take_every_row(self) -> None:
        """Each row once, where it is nearest to power-up."""
        nearest: dict[int, tuple[State, Moves]] = {}
        for state, node in self._nodes.items():
            for moves in node.leads:
                if len(nearest) == len(self._rows):
                    break
                own: set[tuple[State, int]] = set()
                self._follow(state, moves, own)
                for _, row in own:
                    nearest.setdefault(row, (state, moves))
        for state, moves in nearest.values():
            self._take_at(state, moves)

    def _take_forward(self) -> None:
        """What is open here, else on to the nearest state with something open."""
        while self._steps < MOST_STEPS * _FORWARD_SHARE:
            if self._is_long():
                self._begin()
            node = self._nodes.get(self._here)
            if node is not None and node.open:
                self._go(next(iter(node.open)))
                continue
            way = self._way(self._here, lambda n: bool(n.open))
            if way is None and len(self._walks[-1]) > len(self._prefix):
                self._begin()
                continue
            if way is None:
                return
            self._go(way)
        self._is_whole = self._is_whole and not any(n.open for n in self._nodes.values())

    def _take_back(self) -> None:
        """What leads back: near states first where there is room for all of it, else spread over all states."""
        left = [(node.depth, state, moves) for state, node in self._nodes.items() for moves in node.back]
        if self._steps + sum(depth + len(moves) for depth, _, moves in left) > MOST_STEPS:
            random.Random(1).shuffle(left)
        for depth, state, moves in left:
            if self._steps + depth + len(moves) > MOST_STEPS:
                self._is_whole = False
            elif moves in self._nodes[state].back:
                self._take_at(state, moves)

    def _take_at(self, state: State, moves: Moves) -> None:
        """Go to a state and take something there; from power-up where there is no way from here."""
        if self._is_long():
            self._begin()
        way = self._way_to(state)
        if way is None:
            self._begin()
            way = self._way_to(state)
        if way is not None:
            self._go(way)
            self._go(moves)

    def _way_to(self, state: State) -> Moves | None:
        return () if self._here == state else self._way(self._here, lambda n: n is self._nodes[state])

    def _begin(self) -> None:
        """A new walk, from power-up and through the reset where there is one."""
        self._walks.append([self._planned(action, inputs) for action, inputs in self._prefix])
        self._here = self._first
        self._steps += len(self._prefix)

    def _go(self, moves: Moves) -> None:
        """Append steps to the walk, and strike out whatever they take on the way."""
        is_one = any(action in (RISE, FALL) for action, _ in moves)
        for part in (moves,) if is_one else tuple((move,) for move in moves):
            node = self._nodes.get(self._here)
            if node is not None:
                node.open.pop(part, None)
                node.back.pop(part, None)
            self._here = self._follow(self._here, part, self._taken)
        self._steps += len(moves)
        self._walks[-1] += [self._planned(action, inputs) for action, inputs in moves]

    def _is_long(self) -> bool:
        return len(self._walks[-1]) >= max(_LONGEST, 2 * len(self._nodes))

    def _way(self, start: State, wanted: Callable[[_Node], bool]) -> Moves | None:
        """The shortest way to a node that is wanted; None when there is none."""
        came: dict[State, tuple[State, Moves]] = {}
        todo = deque([start])
        seen = {start}
        while todo:
            state = todo.popleft()
            node = self._nodes.get(state)
            if node is None:
                continue
            if state != start and wanted(node):
                way: list[tuple[str, Inputs]] = []
                while state != start:
                    state, moves = came[state]
                    way[:0] = moves
                return tuple(way)
            for moves, after in node.leads.items():
                if after not in seen:
                    seen.add(after)
                    came[after] = state, moves
                    todo.append(after)
        return None

    def _planned(self, action: str, inputs: Inputs) -> Planned:
        return Planned(action, tuple(cell_of(w, p.width) for w, p in zip(inputs, self._spec.inputs, strict=True)))

    def _runs(self) -> list[list[Planned]]:
        """For each choice of inputs that leads through several states: from the nearest known state on, for long."""
        way = self._way_to_known()
        start = self._follow(self._first, way, self._taken)
        if not self._table.known(start):
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
                found.append([self._planned(action, words) for action, words in (*self._prefix, *way, *again)])
            if len(found) == _MOST_RUNS:
                break
        return found

    def _way_to_known(self) -> Moves:
        """The shortest way from where walks begin to a state that is known."""
        came: dict[State, Moves] = {self._first: ()}
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
            rows=len(self._rows),
            states=len({self._number(s) for s in known}),
            taken=len(self._pairs & self._taken),
            possible=len(self._pairs),
            possible_states=possible,
            unreached=self._unreached(known, possible),
            idle_rows=idle,
            is_whole=self._is_whole,
            grid=self._grid(known),
        )

    def _grid(self, known: list[State]) -> tuple[str, ...]:
        if len(known) > _WIDEST_GRID:
            return ()
        known = sorted(known)
        return tuple(
            "".join("t" if (s, row) in self._taken else "o" if (s, row) in self._pairs else "." for s in known)
            for row in range(len(self._rows))
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
