"""A tape: a straight list of AND, OR and XOR on whole numbers, each digit of a number one lane.

Made from a `Graph`. A node is kept in whichever polarity is cheaper, and a slot is used again after its last reader.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

from obento.core.sim.graph import Graph

_AND, _OR, _XOR = range(3)

COMPILE_AFTER = 60
"""A tape run more often than this is turned into generated Python, which runs faster but takes time to compile."""


class Tape:
    """Computes `outputs` (literals of the graph) from the planes of `inputs` (leaf literals, in the order given)."""

    def __init__(self, graph: Graph, inputs: Sequence[int], outputs: Sequence[int]) -> None:
        self._runs = 0
        self._compiled: Callable[[list[int]], None] | None = None
        self._build(graph, inputs, outputs)

    def _build(self, graph: Graph, inputs: Sequence[int], outputs: Sequence[int]) -> None:
        left, right, is_xor = graph.left, graph.right, graph.is_xor
        nodes = graph.cone(outputs)
        # Lists are quicker than dictionaries, but as long as the whole graph: for the cones that are most of it.
        is_most = 4 * len(nodes) > len(left)
        readers: dict[int, int] | list[int] = [0] * len(left) if is_most else dict.fromkeys((0, *nodes), 0)
        for n in nodes:
            if left[n] >= 0:
                readers[left[n] >> 1] += 1
                readers[right[n] >> 1] += 1
        for literal in outputs:
            readers[literal >> 1] += 1
        # Slot 0 holds no lane, slot 1 all lanes; then one slot for each input.
        slot: dict[int, int] | list[int] = [-1] * len(left) if is_most else dict.fromkeys((0, *nodes), -1)
        inverted: dict[int, int] | list[int] = [0] * len(left) if is_most else dict.fromkeys((0, *nodes), 0)
        slot[0] = 0
        self._input_slots: list[int] = []
        used = 2
        for literal in inputs:
            slot[literal >> 1] = used
            inverted[literal >> 1] = 0
            self._input_slots.append(used)
            used += 1
        free: list[int] = []
        ops: list[tuple[int, int, int, int]] = []
        turned: dict[int, int] = {}  # node -> slot of its other polarity, where that was needed too
        for n in nodes:
            la = left[n]
            if la < 0:
                if slot[n] < 0:
                    raise AssertionError("an input of the tape was not given")
                continue
            lb = right[n]
            a, b = la >> 1, lb >> 1
            sa, sb = slot[a], slot[b]
            flip_a, flip_b = inverted[a] ^ la & 1, inverted[b] ^ lb & 1
            xor = is_xor[n]
            if flip_a != flip_b and not xor:
                # One operand stands in the wrong polarity: take its other one, made now unless it is there already.
                if a in turned:
                    sa, flip_a = turned[a], flip_b
                elif b in turned:
                    sb, flip_b = turned[b], flip_a
                else:
                    turn = a if readers[a] > readers[b] else b
                    made = free.pop() if free else used
                    used += made == used
                    ops.append((_XOR, made, slot[turn], 1))
                    turned[turn] = made
                    if turn == a:
                        sa, flip_a = made, flip_b
                    else:
                        sb, flip_b = made, flip_a
            readers[a] -= 1
            if not readers[a] and a:
                free.append(slot[a])
                if a in turned:
                    free.append(turned[a])
            readers[b] -= 1
            if not readers[b] and b:
                free.append(slot[b])
                if b in turned:
                    free.append(turned[b])
            d = free.pop() if free else used
            used += d == used
            if xor:
                ops.append((_XOR, d, sa, sb))
                inverted[n] = flip_a ^ flip_b
            else:
                ops.append((_OR if flip_a else _AND, d, sa, sb))
                inverted[n] = flip_a
            slot[n] = d
        self._outputs: list[tuple[int, bool]] = [(slot[o >> 1], bool(inverted[o >> 1] ^ o & 1)) for o in outputs]
        self.ops = ops
        self.slots = used

    def run(self, inputs: Sequence[int], full: int) -> list[int]:
        """The planes of the outputs; `full` has a one for each lane."""
        s = [0] * self.slots
        s[1] = full
        for at, plane in zip(self._input_slots, inputs, strict=True):
            s[at] = plane
        self._runs += 1
        if self._compiled is None and self._runs > COMPILE_AFTER:
            self._compiled = self._generate()
        if self._compiled is not None:
            self._compiled(s)
        else:
            for op, d, a, b in self.ops:
                if op == _AND:
                    s[d] = s[a] & s[b]
                elif op == _OR:
                    s[d] = s[a] | s[b]
                else:
                    s[d] = s[a] ^ s[b]
        return [s[at] ^ full if flip else s[at] for at, flip in self._outputs]

    def _generate(self) -> Callable[[list[int]], None]:
        form = ("{d} = {a} & {b}", "{d} = {a} | {b}", "{d} = {a} ^ {b}")
        lines = ["def tape(s):"]
        lines += [f"    s{i} = s[{i}]" for i in [0, 1, *self._input_slots]]
        lines += ["    " + form[op].format(d=f"s{d}", a=f"s{a}", b=f"s{b}") for op, d, a, b in self.ops]
        lines += [f"    s[{at}] = s{at}" for at, _ in self._outputs]
        names: dict[str, Callable[[list[int]], None]] = {}
        exec("\n".join(lines), names)  # our own text, made above
        return names["tape"]
