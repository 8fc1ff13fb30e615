"""How a circuit looks when it is drawn, said in its text: lines that mean nothing for what it does.

    place g3 40 12             put there by hand, in tens of the drawing's points
    turn g3 left               its output points `left`, `up`, `down` or (as without it) `right`
    unfold total               a block drawn with what is inside
    side total.carry below     a pin of a block stands on another side: `left`, `right`, `above`, `below`
    group g1, g2 "safe way"    a frame around some parts, with a name
    remark 4 30 "ask for it"   words that stand beside the circuit
    named shut                 a wire drawn as its name at both ends

A part is called by its line's label, or by the first wire that the line drives.
"""

from __future__ import annotations

from dataclasses import dataclass

from obento.core.suggest import did_you_mean
from obento.core.syntax.stream import TokenStream
from obento.core.wiring.ast import Node, Wiring

WORDS = frozenset({"place", "turn", "unfold", "side", "group", "remark", "named"})
"""Words that begin such a line, where a name or a number follows."""

_FACES = ("left", "right", "up", "down")
_SIDES = ("left", "right", "above", "below")
_CALLS_A_WIRE = frozenset({"named"})


@dataclass(slots=True)
class Look(Node):
    """One such line: the word, what it is said of, with where each name stands."""

    word: str
    names: list[tuple[str, int]]


class LookParser(TokenStream):
    """The part of the grammar that reads how a circuit looks."""

    def is_look(self) -> bool:
        """Whether a line says how something looks; a wire may be called like one of the words."""
        if self.text not in WORDS or self.newline_before[self.at + 1]:
            return False
        return self.kinds[self.at + 1] == ("n" if self.text == "remark" else "i")

    def look(self) -> Look:
        """One line, whose word is next."""
        start, word = self.start, self.text
        self.at += 1
        names: list[tuple[str, int]] = []
        if word == "remark":
            self._whole()
            self._whole()
            self._quoted()
        else:
            names.append(self._called())
        if word == "place":
            self._whole()
            self._whole()
        elif word == "turn":
            self._one_of(_FACES)
        elif word == "side":
            self._named_pin()
            self._one_of(_SIDES)
        elif word == "group":
            while self.accept(","):
                names.append(self._called())
            self._quoted()
        return Look(start, self.previous_end, word, names)

    def _called(self) -> tuple[str, int]:
        if self.kind != "i":
            raise self.fail("expected-name", f"a name is missing before {self.describe()}")
        self.at += 1
        return self.texts[self.at - 1], self.starts[self.at - 1]

    def _whole(self) -> None:
        if self.kind != "n" or not self.text.isdigit():
            raise self.fail("expected-number", f"a number is missing before {self.describe()}")
        self.at += 1

    def _quoted(self) -> None:
        if self.kind != "s":
            raise self.fail("missing", f"words in quotes are missing before {self.describe()}", 'write them as "…"')
        self.at += 1

    def _one_of(self, words: tuple[str, ...]) -> None:
        if self.text not in words or self.newline_before[self.at]:
            hint = did_you_mean(self.text, words) or f"it is one of {', '.join(words)}"
            raise self.fail("expected-name", f"a side is missing before {self.describe()}", hint)
        self.at += 1

    def _named_pin(self) -> None:
        if not self.accept("."):
            raise self.fail(
                "missing", f"`.` is missing before {self.describe()}", "name a pin: `side total.carry below`"
            )
        self._called()


def strangers(wiring: Wiring, looks: list[Look]) -> list[tuple[str, int, str]]:
    """What is said of something that is not there: the message, where, and a near name."""
    lines = {line.label or line.targets[0].name for line in wiring.lines}
    wires = {t.name for line in wiring.lines for t in line.targets} | {b.name for b in wiring.takes}
    found = []
    for look in looks:
        known = wires if look.word in _CALLS_A_WIRE else lines
        what = "wire" if look.word in _CALLS_A_WIRE else "line"
        for name, start in look.names:
            if name not in known:
                found.append((f"there is no {what} `{name}` here", start, did_you_mean(name, known)))
    return found
