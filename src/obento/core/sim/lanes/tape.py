"""A tape: a straight list of AND, OR and XOR on whole numbers, each digit of a number one lane.

Made from a `Graph`. A node is kept in whichever polarity is cheaper, and a slot is used again after its last reader.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

from obento.core.sim.lanes.graph import LEAF, Graph

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
        left, right = graph.left, graph.right
        readers = graph.cone(outputs)
        # Where the value of a node stands: twice its slot, plus 1 if it stands there inverted. Slot 0 holds no lane,
        # slot 1 all
        # lanes; then one slot for each input.
        place = {0: 0}
        self._input_slots = list(range(2, 2 + len(inputs)))
        place |= {literal >> 1: 2 * at for at, literal in zip(self._input_slots, inputs, strict=True)}
        used = 2 + len(inputs)
        free: list[int] = []
        ops: list[tuple[int, int, int, int]] = []
        turned: dict[int, int] = {}  # node -> slot of its other polarity, where that was needed too
        for n in sorted(readers):
            la, lb = left[n], right[n]
            if la == LEAF:
                if n not in place:
                    raise AssertionError("an input of the tape was not given")
                continue
            is_xor = la < LEAF
            if is_xor:
                la, lb = ~la, ~lb
            a, b = la >> 1, lb >> 1
            at_a, at_b = place[a] ^ la & 1, place[b] ^ lb & 1
            if (at_a ^ at_b) & 1 and not is_xor:
                # One operand stands in the wrong polarity: take its other one, made now unless it is there already.
                if a in turned:
                    at_a = 2 * turned[a] + (at_b & 1)
                elif b in turned:
                    at_b = 2 * turned[b] + (at_a & 1)
                else:
                    made = free.pop() if free else used
                    used += made == used
                    if readers[a] > readers[b]:
                        ops.append((_XOR, made, at_a >> 1, 1))
                        turned[a] = made
                        at_a = 2 * made + (at_b & 1)
                    else:
                        ops.append((_XOR, made, at_b >> 1, 1))
                        turned[b] = made
                        at_b = 2 * made + (at_a & 1)
            left_a, left_b = readers[a] - 1, readers[b] - 1
            readers[a], readers[b] = left_a, left_b
            if not left_a:
                free.append(place[a] >> 1)
                if a in turned:
                    free.append(turned[a])
            if not left_b:
                free.append(place[b] >> 1)
                if b in turned:
                    free.append(turned[b])
            d = free.pop() if free else used
            used += d == used
            if is_xor:
                ops.append((_XOR, d, at_a >> 1, at_b >> 1))
                place[n] = 2 * d + ((at_a ^ at_b) & 1)
            else:
                ops.append((_OR if at_a & 1 else _AND, d, at_a >> 1, at_b >> 1))
                place[n] = 2 * d + (at_a & 1)
        self._outputs: list[tuple[int, bool]] = [(place[o >> 1] >> 1, bool((place[o >> 1] ^ o) & 1)) for o in outputs]
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
