"""What `obento check` shows on the terminal."""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager

from rich.console import Console
from rich.progress import Progress
from rich.table import Table

from obento.core.check.check import Checked
from obento.core.check.expect import Expectation

_WIDEST_STRIP = 32


@contextmanager
def progress_of(total: int) -> Iterator[Callable[[], None]]:
    """A progress bar on the terminal for more than a few; gives what to call for each that is done."""
    with Progress(transient=True, console=Console(stderr=True), disable=total < 8 or not sys.stderr.isatty()) as progress:
        bar = progress.add_task("checking", total=total)
        yield lambda: progress.advance(bar)


def show_table(expectation: Expectation, checked: list[tuple[str, Checked]], is_right: Callable[[Checked], bool]) -> None:
    """One line a hand-in: how it went and why."""
    console = Console(highlight=False)
    table = Table(box=None, pad_edge=False, header_style="bold")
    for head in ("hand-in", "status", "right", "cases" if expectation.cases.count <= _WIDEST_STRIP else "", "why"):
        table.add_column(head, overflow="fold")
    for name, c in checked:
        v = c.verdict
        right = f"{v.right.bit_count()}/{v.count}" if v else "-"
        strip = v.cells() if v and v.count <= _WIDEST_STRIP else ""
        first = next((str(m) for m in c.messages if m.severity == "error"), "")
        bound = ", ".join(f"{b.theirs} for {b.ours} ({b.how})" for b in c.binding if b.how != "exact")
        rules = "; ".join(r.text for r in c.rules if not r.ok)
        why = first or "; ".join(x for x in (c.findings[0].text if c.findings else "", rules, bound) if x)
        table.add_row(*(_plain(x) for x in (name, c.status, right, strip, why)))
    console.print(table)
    good = sum(is_right(c) for _, c in checked)
    console.print(f"{good} of {len(checked)} right on all {expectation.cases.count} cases")


def _plain(text: str) -> str:
    """Text for the terminal: no markup, no control characters."""
    return "".join(c if c.isprintable() else "?" for c in text).replace("[", "\\[")
