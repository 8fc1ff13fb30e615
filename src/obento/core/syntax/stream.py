"""A stream of tokens with the habits every parser here has: match, expect, report, recover.

Tokens are four parallel lists (kind, text, start, end), which is markedly faster to make and read than objects.
"""

from __future__ import annotations

from dataclasses import dataclass, field

from obento.core.diagnostics import Collector
from obento.core.limits import LimitReached, Limits


@dataclass(slots=True)
class Tokens:
    """`kinds` are single letters that the lexer of each language documents; positions are those of `Sources`.

    `cut` is set when reading had to stop before the end.
    """

    kinds: list[str] = field(default_factory=list)
    texts: list[str] = field(default_factory=list)
    starts: list[int] = field(default_factory=list)
    ends: list[int] = field(default_factory=list)
    newline_before: list[bool] = field(default_factory=list)
    cut: bool = False

    def take_back(self, at: int) -> int:
        """Forget the last token when it ends at `at`; where reading then goes on."""
        if not self.ends or self.ends[-1] != at or self.kinds[-1] not in "inr":
            return at
        start = self.starts[-1]
        for column in (self.kinds, self.texts, self.starts, self.ends, self.newline_before):
            column.pop()
        return start

    def append(self, kind: str, text: str, start: int, end: int, newline: bool) -> None:
        """Add a token; `newline` when a line ends before it."""
        self.kinds.append(kind)
        self.texts.append(text)
        self.starts.append(start)
        self.ends.append(end)
        self.newline_before.append(newline)


class SyntaxProblem(Exception):
    """The text does not go on as the grammar wants; already reported when raised. Caught where parsing can go on."""


class TokenStream:
    """Position in `Tokens`, with the end of input as a last token of kind `e`."""

    def __init__(self, tokens: Tokens, collector: Collector, limits: Limits) -> None:
        self.kinds = tokens.kinds
        self.texts = tokens.texts
        self.starts = tokens.starts
        self.ends = tokens.ends
        self.newline_before = tokens.newline_before
        self.at = 0
        self.collector = collector
        self._depth = 0
        self._nesting = limits.nesting
        self._chain = limits.chain

    @property
    def text(self) -> str:
        """The token that is next."""
        return self.texts[self.at]

    @property
    def kind(self) -> str:
        """The kind of the token that is next."""
        return self.kinds[self.at]

    @property
    def start(self) -> int:
        """Where the token that is next begins."""
        return self.starts[self.at]

    @property
    def previous_end(self) -> int:
        """Where the token before ends."""
        return self.ends[self.at - 1] if self.at else self.start

    def is_at(self, *texts: str) -> bool:
        """Whether the current token is one of these words or signs (never a string or escaped name that looks
        alike)."""
        return self.texts[self.at] in texts and self.kinds[self.at] not in "sx"

    def accept(self, text: str) -> bool:
        """Take the next token if it is this one."""
        if self.texts[self.at] == text and self.kinds[self.at] not in "sx":
            self.at += 1
            return True
        return False

    def describe(self) -> str:
        """The current token in a person's words."""
        if self.kinds[self.at] == "e":
            return "the end of the file"
        text = self.texts[self.at]
        return f"`{text if len(text) <= 30 else text[:27] + '...'}`"

    def fail(
        self, code: str, text: str, hint: str = "", start: int | None = None, end: int | None = None
    ) -> SyntaxProblem:
        """Report an error here and give the exception to raise."""
        if start is None:
            start, end = self.start, self.ends[self.at]
        self.collector.error(code, text, start, end, hint)
        return SyntaxProblem()

    def enter(self) -> None:
        """Going one level deeper; bounded, so that no hand-in can exhaust the stack."""
        self._depth += 1
        if self._depth > self._nesting:
            raise self.fail("too-deep", "this is nested too deep to be read", "split it into smaller parts")

    def in_chain(self, links: int, of: str) -> None:
        """One link more of a chain that becomes as deep a tree as it is long.

        Raises
        ------
        LimitReached
            If it has too many.
        """
        if links > self._chain:
            text = f"this chain of {of} is longer than {self._chain}: more than can be run"
            raise LimitReached(text, self.start, "split it into smaller parts, or write a `case`")

    def leave(self) -> None:
        """One level of nesting up."""
        self._depth -= 1
