"""`return` where a function ends anyway: nothing is left out there."""

from __future__ import annotations

from obento.core.ir.nodes import Block, Case, Disable, If, Label, Stmt


def ends_by_itself(body: Stmt | None, label: Label) -> None:
    """Take what leaves a block out of it, where the block would end at that place by itself."""
    stack: list[Stmt | None] = [body]
    while stack:
        s = stack.pop()
        if isinstance(s, Block) and s.body:
            last = s.body[-1]
            if isinstance(last, Disable) and last.label is label:
                s.body.pop()
                stack.append(s)
            else:
                stack.append(last)
        elif isinstance(s, If):
            stack += [s.then, s.other]
        elif isinstance(s, Case):
            stack += [*(arm.body for arm in s.arms), s.default]
