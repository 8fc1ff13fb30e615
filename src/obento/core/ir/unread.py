"""Processes that nothing shows: what they write reaches no output and no process that does anything else.

They may be left out of a run where they cannot be noticed in any other way either: they print nothing, stop nothing,
end in no error, draw no random number, and certainly settle. Whether they do all that is told by their form, and in
doubt they stay."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import all_targets, expressions, statements
from obento.core.ir.nodes import Assign, Block, Call, Case, If, Ref, SystemCall
from obento.core.ir.walks import walk

_NOBODY: frozenset[int] = frozenset()


def without_unread(design: Design) -> Design:
    """The same design without the processes that nothing shows; itself where there are none."""
    nets = [_Net(p) for p in design.processes]
    shown = {port.signal.id for port in design.ports} | {signal.id for signal in design.escapes}
    shown |= {signal.id for part in design.parts for signal in part.inputs}
    shown |= {s.id for switch in design.switches for s in (switch.a[0], switch.b[0])}
    writers: dict[int, list[int]] = {}
    for index, net in enumerate(nets):
        for signal in net.writes:
            writers.setdefault(signal, []).append(index)
    live = bytearray(len(nets))
    _reach(nets, writers, live, (i for i, n in enumerate(nets) if not n.is_quiet or not n.writes.isdisjoint(shown)))
    _reach(nets, writers, live, _in_circles(nets, live))
    if all(live):
        return design
    return replace(design, processes=[p for p, is_live in zip(design.processes, live, strict=True) if is_live])


class _Net:
    """A process as what it writes, reads and waits for, by the numbers of signals."""

    def __init__(self, process: Process) -> None:
        self.writes = {t.signal.id for t in all_targets(process.body)}
        self.watches = {w.signal.id for w in process.watches}
        self.reads = set(self.watches)
        self.is_quiet = process.kind != "forever"
        self.by_itself: set[int] = set()
        """What it watches, writes, and may be woken by through its own writing."""
        later: set[int] = set()
        for s in statements(process.body):
            if not isinstance(s, Block | If | Case | Assign) or (isinstance(s, Assign) and s.timing is not None):
                self.is_quiet = False
            if isinstance(s, Assign) and not s.blocking:
                later |= {t.signal.id for t in s.targets}
            for e in expressions(s):
                for node in walk(e):
                    if isinstance(node, Call | SystemCall):
                        self.is_quiet = False
                    elif isinstance(node, Ref):
                        self.reads.add(node.signal.id)
        # An `always` process does not wait while it writes at once (1364 clause 11.2), what it writes later finds it
        # waiting.
        self.by_itself = self.watches & (later if process.kind == "always" else self.writes)


def _reach(nets: list[_Net], writers: dict[int, list[int]], live: bytearray, first: Iterable[int]) -> None:
    """Have these processes stay, with all whose results they read."""
    todo = list(first)
    followed: set[int] = set()
    while todo:
        index = todo.pop()
        if not live[index]:
            live[index] = 1
            for signal in nets[index].reads - followed:
                followed.add(signal)
                todo += writers.get(signal, ())


def _in_circles(nets: list[_Net], live: bytearray) -> list[int]:
    """Of the processes that nothing shows those that might wake each other for ever, or are woken by such."""
    idle = [i for i in range(len(nets)) if not live[i]]
    woken_by: dict[int, list[int]] = {}
    writers: dict[int, set[int]] = {}
    for index in idle:
        for signal in nets[index].watches:
            woken_by.setdefault(signal, []).append(index)
        for signal in nets[index].writes:
            writers.setdefault(signal, set()).add(index)

    def comes_to_rest(index: int) -> bool:
        """Whether all who wake it, beside itself, are known to come to rest."""
        net = nets[index]
        return not net.by_itself and all(writers.get(s, _NOBODY) <= {index} for s in net.watches)

    at_rest = {i for i in idle if comes_to_rest(i)}
    todo = list(at_rest)
    while todo:
        index = todo.pop()
        for signal in nets[index].writes:
            left = writers[signal]
            left.discard(index)
            # With one writer left it alone can be woken by nobody else; with none, whoever waits for the signal.
            for woken in woken_by.get(signal, ()) if not left else left if len(left) == 1 else ():
                if woken not in at_rest and comes_to_rest(woken):
                    at_rest.add(woken)
                    todo.append(woken)
    return [i for i in idle if i not in at_rest]
