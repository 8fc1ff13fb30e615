"""Where a computed offset may point in lanes, against arithmetic offset by offset."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from obento.core.limits import Limits
from obento.core.sim.lanes.bits import Bit, BitOps
from obento.core.sim.lanes.graph import FALSE, TRUE, Graph
from obento.core.sim.lanes.symbolic import Symbolic

STEPS = st.sampled_from([-8, -3, -1, 1, 2, 5])


def symbolic(graph: Graph) -> Symbolic:
    """What runs bodies; nothing here reads from outside."""
    return Symbolic(BitOps(graph, False), None, Limits())  # type: ignore[arg-type]


def truth(graph: Graph, literal: int, leaves: dict[int, int]) -> int:
    """The value of a literal for given values of the leaves."""
    node = literal >> 1
    if node == 0:
        value = 0
    elif node in leaves:
        value = leaves[node]
    elif graph.left[node] < -1:
        value = truth(graph, ~graph.left[node], leaves) ^ truth(graph, ~graph.right[node], leaves)
    else:
        value = truth(graph, graph.left[node], leaves) & truth(graph, graph.right[node], leaves)
    return value ^ (literal & 1)


@given(
    st.lists(st.sampled_from(["0", "1", "leaf", "x leaf"]), min_size=1, max_size=4),
    st.booleans(), st.integers(-6, 6), STEPS, st.integers(-20, 5), st.integers(0, 30),
)  # fmt: skip
def test_an_offset_points_where_arithmetic_says(
    kinds: list[str], signed: bool, base: int, step: int, first: int, size: int
) -> None:
    graph = Graph()
    index: list[Bit] = []
    leaves: list[int] = []
    for kind in kinds:
        one = graph.leaf() if "leaf" in kind else int(kind)
        zero = graph.leaf() if kind == "x leaf" else one ^ 1
        leaves += [x >> 1 for x in (one, zero) if x > 1 and not x & 1]
        index.append((one, zero))
    places = symbolic(graph)._places(index, signed, base, step, range(first, first + size))
    offsets = [offset for offset, _ in places]
    assert len(set(offsets)) == len(offsets) and all(here != FALSE for _, here in places)
    for number in range(1 << len(leaves)):
        values = {leaf: number >> i & 1 for i, leaf in enumerate(leaves)}
        digits = [(truth(graph, one, values), truth(graph, zero, values)) for one, zero in index]
        wanted = None
        if all(one ^ zero for one, zero in digits):
            value = sum(one << i for i, (one, _) in enumerate(digits))
            value -= (1 << len(index)) * (signed and digits[-1][0])
            wanted = (value - base) * step
        pointed = [offset for offset, here in places if truth(graph, here, values)]
        assert pointed == ([wanted] if wanted in range(first, first + size) else [])


def test_a_constant_index_is_one_place() -> None:
    graph = Graph()
    index: list[Bit] = [(FALSE, TRUE), (TRUE, FALSE)]
    places = symbolic(graph)._places(index, False, 0, 4, range(100))
    assert places == [(8, TRUE)] and len(graph.left) == 1
