"""What `obento check` shows on the terminal: a table of outcomes, a bar while it works."""

from __future__ import annotations

import shutil
import sys
import textwrap
from collections.abc import Callable, Iterator
from contextlib import contextmanager

from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Checked

_WIDEST_STRIP = 32
_NARROWEST_REASON = 24


@contextmanager
def progress_of(total: int) -> Iterator[Callable[[], None]]:
    """A progress bar on the terminal for more than a few; gives what to call for each that is done."""
    if total < 8 or not sys.stderr.isatty():
        yield lambda: None
        return
    from rich.console import Console  # a fifth of a second to load, which a class in a pipe need not wait for
    from rich.progress import Progress

    with Progress(transient=True, console=Console(stderr=True)) as progress:
        bar = progress.add_task("checking", total=total)
        yield lambda: progress.advance(bar)


def show_table(
    expectation: Expectation, checked: list[tuple[str, Checked]], is_right: Callable[[Checked], bool]
) -> None:
    """One line a hand-in: how it went and why."""
    rows = [["hand-in", "status", "right", "cases" if expectation.cases.count <= _WIDEST_STRIP else "", "why"]]
    for name, c in checked:
        v = c.verdict
        right = f"{v.right.bit_count()}/{v.count}" if v else "-"
        strip = v.cells() if v and v.count <= _WIDEST_STRIP else ""
        rows.append([_plain(x) for x in (name, c.status, right, strip, _why(c))])
    widths = [max(len(row[i]) for row in rows) for i in range(4)]
    room = max(_NARROWEST_REASON, shutil.get_terminal_size().columns - sum(w + 2 for w in widths if w))
    for row in rows:
        front = "".join(f"{cell:<{w}}  " for cell, w in zip(row, widths, strict=False) if w)
        reason = textwrap.wrap(row[4], room) or [""]
        print((front + reason[0]).rstrip())
        for line in reason[1:]:
            print(" " * len(front) + line)
    good = sum(is_right(c) for _, c in checked)
    print(f"{good} of {len(checked)} right on all {expectation.cases.count} cases")
    for name, c in checked:
        for m in c.messages:
            if m.code in _REMARKS and m.severity != "error":
                print(_plain(f"{name}: {m.text}"))


_REMARKS = frozenset(["power-up", "left-out", "copy-read"])
"""Messages on what was done with a hand-in that its writer may not expect, whatever the verdict."""


def _why(c: Checked) -> str:
    """The first thing to know about an outcome."""
    first = next((str(m) for m in c.messages if m.severity == "error"), "")
    bound = ", ".join(f"{b.theirs} for {b.ours} ({b.how})" for b in c.binding if b.how != "exact")
    rules = "; ".join(r.text for r in c.rules if not r.ok)
    return first or "; ".join(x for x in (c.findings[0].text if c.findings else "", rules, bound) if x)


def _plain(text: str) -> str:
    """Text for the terminal: no control characters."""
    return "".join(c if c.isprintable() else "?" for c in text)
