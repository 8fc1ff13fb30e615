"""Titles and sentences of clusters: what all of its hand-ins have in common, in few words."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.check.explaining.findings import CAUSES, KEEPERS
from obento.core.check.explaining.slips import SLIPS
from obento.core.check.explaining.timing_slips import TIMING_SLIPS
from obento.core.check.judging.outcome import Finding
from obento.core.check.mutation.smallest_change import Repair
from obento.store.results import Detail

_TITLES = SLIPS | TIMING_SLIPS | {"ripple-clock", "race"}
_BUILD = CAUSES | KEEPERS
_TITLE_LENGTH = 72


def broken_rules(detail: Detail) -> str:
    """The rules that are not kept, in one sentence."""
    return "; ".join(r.text for r in detail.rules if not r.ok)


def title_of_rules(details: Sequence[Detail]) -> str:
    """A title for those who are right but break rules."""
    broken = {broken_rules(d) for d in details}
    return f"right, but {broken.pop()}" if len(broken) == 1 else "right, but against the rules, each in its own way"


def title_of_wrong(detail: Detail, shared: set[str]) -> str:
    """A title for those who are wrong; `shared` are the codes of messages that every one of them got."""
    findings = _of_behaviour(detail.findings)
    if _slip_first(findings):
        return findings[0].text
    if "sensitivity" in shared:
        return "does not wake for every input"
    if "latch" in shared or (findings and findings[0].kind == "remembers"):
        return "keeps its last value"
    about = [f for f in findings if f.output]
    if len(about) == 1 and " whenever " in about[0].text and len(about[0].text) <= _TITLE_LENGTH:
        return about[0].text.partition(":")[0]
    outputs = list(dict.fromkeys(f.output for f in about))
    undefined = all(f.kind == "undefined" for f in about)
    return (
        f"{' and '.join(outputs[:3])}{' and more' if len(outputs) > 3 else ''} {'undefined' if undefined else 'wrong'}"
    )


def title_of_checks(detail: Detail, shared: set[str], failed: Sequence[str]) -> str:
    """A title where the cases are the checks of a bench: those that fail, by name, unless a slip says more."""
    findings = _of_behaviour(detail.findings)
    if _slip_first(findings) or shared & {"sensitivity", "latch"} or (findings[:1] and findings[0].kind == "remembers"):
        return title_of_wrong(detail, shared)
    return f"fails {', '.join(failed[:3])}" + (f" and {len(failed) - 3} more checks" if len(failed) > 3 else "")


def sentences(detail: Detail, is_wrong: bool) -> list[str]:
    """The findings under the title, without what the title says already; of wrong ones the broken rules too."""
    findings = _of_behaviour(detail.findings)
    texts = [f.text for f in detail.findings if f.kind in _BUILD] + [f.text for f in _beside_the_title(findings)]
    if is_wrong:
        texts += [r.text for r in detail.rules if not r.ok]
    return texts


def _of_behaviour(findings: Sequence[Finding]) -> list[Finding]:
    """What all hand-ins of a cluster have in common; how it comes about is each one's own."""
    return [f for f in findings if f.kind not in _BUILD]


def _slip_first(findings: Sequence[Finding]) -> bool:
    return bool(findings) and findings[0].kind in _TITLES


def _beside_the_title(findings: list[Finding]) -> list[Finding]:
    if not _slip_first(findings):
        return findings
    slip, *others = findings  # it is the title, and says more than a condition would
    if slip.kind.startswith("exchanged"):
        return []
    if slip.kind in TIMING_SLIPS:
        return [f for f in others if f.kind != "diverges" and f.output in ("", slip.output)]
    if slip.kind != "ignores":
        return [f for f in others if f.output != slip.output]
    return others


def change_for_all(repairs: Sequence[Repair | None]) -> list[str]:
    """The smallest change, where the same words mend them all."""
    words = {r.changes[0].text if r is not None and r.changes else "" for r in repairs}
    text = words.pop() if len(words) == 1 else ""
    return [f"{text} would make every case right"] if text else []
