"""Words of SystemVerilog that this version does not read: told by their names, in one message."""

from __future__ import annotations

from dataclasses import dataclass

from obento.core.diagnostics import Collector
from obento.core.syntax.stream import Tokens

_HINTS = {
    "property": "leave it out: nothing of it is checked here",
    "sequence": "leave it out: nothing of it is checked here",
    "covergroup": "leave it out: nothing of it is checked here",
    "new": "give the array its size where it is declared",
}
_OTHERS = """
    accept_on alias before bins binsof chandle checker class clocking constraint context coverpoint cross
    dist endchecker endclass endclocking endgroup endprogram endproperty endsequence eventually expect
    extends extern first_match forkjoin global ignore_bins illegal_bins implements implies interconnect
    intersect local matches nettype nexttime null program protected pure rand randc randcase randomize
    randsequence reject_on restrict s_always s_eventually s_nexttime s_until s_until_with shortreal soft
    solve super sync_accept_on sync_reject_on tagged this throughout until until_with untyped virtual
    weak wildcard with within
""".split()
_NOT_READ = frozenset([*_HINTS, *_OTHERS])
"""Reserved words of IEEE 1800-2017 (annex B) that are no words for us yet."""


@dataclass(frozen=True, slots=True)
class NotRead:
    """A word, and where it stands (half-open)."""

    word: str
    start: int
    end: int

    def tell(self, collector: Collector) -> None:
        """Say that it is not read."""
        hint = _HINTS.get(self.word, "docs/conformance.md says what is read")
        collector.error("not-yet", f"`{self.word}` is not read by this version", self.start, self.end, hint)


def behind(tokens: Tokens, problem: int) -> NotRead | None:
    """The word that a problem with a text comes of: the first of those that are not read, in the statement or item in
    which the problem was found; None where there is none."""
    at = next((i for i, start in enumerate(tokens.starts) if start >= problem), len(tokens.starts) - 1)
    first = at
    while first and tokens.texts[first - 1] not in (";", "endmodule") and not _closes_statement(tokens, first - 1):
        first -= 1
    for i in range(first, len(tokens.texts)):
        if tokens.kinds[i] == "i" and tokens.texts[i] in _NOT_READ:
            return NotRead(tokens.texts[i], tokens.starts[i], tokens.ends[i])
        if i > at and tokens.texts[i] == ";":
            return None
    return None


def _closes_statement(tokens: Tokens, at: int) -> bool:
    return tokens.kinds[at] == "k" and tokens.texts[at] in ("begin", "end", "endcase", "endfunction", "endtask")
