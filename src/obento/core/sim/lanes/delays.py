"""Delays that cannot matter in the end: those at the head of a process, before it looks at anything."""

from __future__ import annotations

from dataclasses import replace

from obento.core.ir.design import Process
from obento.core.ir.drivers import waits
from obento.core.ir.nodes import Await, Block, Const, Delay, RealConst, Stmt
from obento.core.values import ones


def undelayed(process: Process) -> Process:
    """A process that waits for events, then for some time, and then runs through, as one that runs through at once.

    Settled, both have given out the same wherever the process computes a function of what it waits for: after the last
    change the process either waits, and wakes, or it sleeps, and looks only when it gets up. (A delay behind what it
    looks at is something else: what changes while it sleeps is missed.) Any other process is given back as it is."""
    body = process.body
    if process.kind != "forever" or not isinstance(body, Block) or len(body.body) != 2:
        return process
    wait, inner = body.body
    if not isinstance(wait, Await) or wait.count is not None or not isinstance(inner, Block):
        return process
    rest = _without_head(inner)
    return process if waits(rest) else replace(process, kind="always", body=rest, watches=wait.watches)


def _without_head(block: Block) -> Block:
    """A block without the constant delays that it begins with, also inside a block at its head."""
    body: list[Stmt] = list(block.body)
    while body:
        head = body[0]
        if isinstance(head, Block):
            head = body[0] = _without_head(head)
        if not (isinstance(head, Delay) and _is_constant(head)) and not (
            isinstance(head, Block) and not head.body and head.label is None
        ):
            break
        del body[0]
    return replace(block, body=body)


def _is_constant(delay: Delay) -> bool:
    amount = delay.amount
    return isinstance(amount, RealConst) or (
        isinstance(amount, Const) and amount.one ^ amount.zero == ones(amount.width)
    )
