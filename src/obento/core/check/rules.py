"""Rules on how a hand-in is built, counted on the student's own structure before anything is simplified."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass

from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import expressions, statements
from obento.core.spec.model import Rules

_GATES = frozenset(["and", "or", "nand", "nor", "xor", "xnor", "not", "buf", "select", "bufif0", "bufif1", "notif0", "notif1", "flipflop", "latch"])
_PASSIVE = frozenset(["port", "wire", "resolution", "supply", "event", "start"])
_OPERATORS = {"and": "and", "or": "or", "xor": "xor", "not": "not", "lnot": "not", "rand": "and", "ror": "or", "rxor": "xor"}


@dataclass(frozen=True, slots=True)
class RuleResult:
    rule: str
    ok: bool
    text: str


def check_rules(rules: Rules, design: Design) -> list[RuleResult]:
    """One result for each rule of the spec."""
    results: list[RuleResult] = []
    if rules.languages:
        ok = design.language in rules.languages
        results.append(RuleResult("languages", ok, f"written in {design.language}" + ("" if ok else f", not in {' or '.join(rules.languages)}")))
    if not rules.only_gates and rules.max_gates is None:
        return results
    counts = count_gates(design)
    if rules.only_gates:
        others = {k: n for k, n in counts.items() if k not in rules.only_gates}
        told = ", ".join(f"{k} ({n})" for k, n in sorted(others.items()))
        text = f"uses {told}, not among {', '.join(rules.only_gates)}" if others else f"uses {', '.join(rules.only_gates)} only"
        results.append(RuleResult("only_gates", not others, text))
    if rules.max_gates is not None:
        total = sum(counts.values())
        results.append(RuleResult("max_gates", total <= rules.max_gates, f"{total} gates, allowed are {rules.max_gates}"))
    return results


def count_gates(design: Design) -> Counter[str]:
    """Gates by kind: instances of gates, operators in assignments, and `behaviour` for each process."""
    counts: Counter[str] = Counter()
    unseen = sum(bool(part.unfit) for part in design.parts)  # run step by step only: nothing of it can be counted
    if unseen:
        counts["behaviour"] += unseen
    for process in design.processes:
        if process.origin in _GATES:
            counts[process.origin] += 1
        elif process.origin in _PASSIVE:
            continue
        elif process.kind == "continuous" and isinstance(process.body, ir.Assign):
            counts += _operators(process)
        else:
            counts["behaviour"] += 1
    return counts


def _operators(process: Process) -> Counter[str]:
    counts: Counter[str] = Counter()
    for s in statements(process.body):
        for e in expressions(s):
            for node in ir.walk(e):
                match node:
                    case ir.Unary() | ir.Binary():
                        counts[_OPERATORS.get(node.op, "behaviour")] += 1
                    case ir.Mux():
                        counts["select"] += 1
                    case ir.Shift() | ir.Power() | ir.Pick() | ir.Call():
                        counts["behaviour"] += 1
                    case _:
                        pass
    return counts
