"""Marks: what the machine computes, and how the ledger adds up. A human's entry always stands above a machine's."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from obento.core.diagnostics import Message
from obento.core.sentences.said import say
from obento.store.marks import MarkEntry

_HELD = frozenset(["unreadable", "no_unit", "ports", "stopped", "empty"])


def held_reason(status: str) -> str:
    """What keeps an outcome from having a mark, in few words."""
    return say(f"held-{status}") if status in _HELD else status


def why_held(status: str, messages: Sequence[Message]) -> str:
    """What keeps a hand-in from being checked: its first error with the line, else in a few words; empty when it was
    checked."""
    if status == "checked":
        return ""
    first = next((m for m in messages if m.severity == "error"), None)
    if first is None:
        return held_reason(status)
    return f"line {first.line}: {first.text}" if first.line else str(first.text)


@dataclass(frozen=True, slots=True)
class Mark:
    """What a ledger comes to; `held` means that no mark can be given yet, which is not zero."""

    value: float | None
    held: bool
    reason: str
    by_hand: bool


def settle(entries: Sequence[MarkEntry]) -> Mark:
    """The mark of one hand-in in one task: an override, else a manual mark, else the newest computed one less
    lateness."""
    newest: dict[str, MarkEntry] = {}
    order: dict[str, int] = {}
    for number, entry in enumerate(entries):
        newest[entry.kind] = entry
        order[entry.kind] = number
    lifted = order.get("lifted", -1)
    for kind in ("override", "manual"):
        if kind in newest and order[kind] > lifted:
            return Mark(newest[kind].value, False, newest[kind].reason, True)
    if "held" in newest and order["held"] > order.get("computed", -1):
        return Mark(None, True, newest["held"].reason, False)
    if "computed" not in newest:
        return Mark(None, True, say("held-not-checked"), False)
    computed = newest["computed"]
    late = newest.get("late")
    if late is not None and order["late"] > order["computed"] - 1 and late.result_id == computed.result_id:
        value = round((computed.value or 0.0) + (late.value or 0.0), 2)
        return Mark(value, False, _joined(late.reason, computed.reason), False)
    return Mark(computed.value, False, computed.reason, False)


def _joined(*reasons: str) -> str:
    return "; ".join(r for r in reasons if r)
