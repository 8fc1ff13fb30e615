"""Rules on how a hand-in is built, counted on the student's own structure before anything is simplified.

All languages are counted alike (the table in docs/formats.md): an operator as it is written is one gate of all the
operands that it joins, a negation directly around one AND, OR or XOR makes it a NAND, NOR or XNOR; a gate is one gate
however wide its wires are; what stands in a cell counts for every use of the cell; wires count nothing."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass

from obento.core.circuit.operands import joined_operands
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Instance, Process
from obento.core.ir.drivers import expressions, statements, stretches_read, written_bits
from obento.core.ir.walks import children
from obento.core.spec.model import Rules
from obento.core.wiring.kinds.registry import KINDS

_GATES = KINDS.keys() | frozenset(
    """and or nand nor xor xnor not buf select bufif0 bufif1 notif0 notif1 tristate pull""".split()
)
_STORES = frozenset(name for name, kind in KINDS.items() if kind.stores)
_PASSIVE = frozenset(["port", "wire", "resolution", "supply", "event", "start", "override"])
_INVERTED = {"and": "nand", "or": "nor", "xor": "xnor"}
_OPERATORS = {
    "and": "and",
    "or": "or",
    "xor": "xor",
    "not": "not",
    "lnot": "not",
    "rand": "and",
    "ror": "or",
    "rxor": "xor",
}


@dataclass(frozen=True, slots=True)
class RuleResult:
    """Whether a rule of the spec is kept, and a sentence on how it is broken."""

    rule: str
    ok: bool
    text: str


def check_rules(rules: Rules, design: Design) -> list[RuleResult]:
    """One result for each rule of the spec."""
    results: list[RuleResult] = []
    if rules.languages:
        ok = design.language in rules.languages
        results.append(
            RuleResult(
                "languages",
                ok,
                f"written in {design.language}" + ("" if ok else f", not in {' or '.join(rules.languages)}"),
            )
        )
    if not rules.only_gates and rules.max_gates is None and rules.max_levels is None and rules.behaviour:
        return results
    counts = count_gates(design)
    if not rules.behaviour:
        found = counts["behaviour"]
        told = "describes behaviour: processes, arithmetic or computed places" if found else "gates and wires only"
        results.append(RuleResult("behaviour", not found, told))
    if rules.only_gates:
        others = {k: n for k, n in counts.items() if k not in rules.only_gates}
        told = ", ".join(f"{k} ({n})" for k, n in sorted(others.items()))
        text = (
            f"uses {told}, not among {', '.join(rules.only_gates)}"
            if others
            else f"uses {', '.join(rules.only_gates)} only"
        )
        results.append(RuleResult("only_gates", not others, text))
    if rules.max_gates is not None:
        total = sum(counts.values())
        results.append(
            RuleResult("max_gates", total <= rules.max_gates, f"{total} gates, allowed are {rules.max_gates}")
        )
    if rules.max_levels is not None:
        levels = count_levels(design)
        results.append(
            RuleResult(
                "max_levels",
                levels <= rules.max_levels,
                f"{levels} gates one after the other, allowed are {rules.max_levels}",
            )
        )
    return results


def count_gates(design: Design) -> Counter[str]:
    """Gates by kind: instances of gates, operators in assignments, and `behaviour` for each process."""
    counts: Counter[str] = Counter()
    unseen = sum(bool(part.unfit) for part in design.parts)  # run step by step only: nothing of it can be counted
    if unseen:
        counts["behaviour"] += unseen
    if design.language == "wiring" and design.root is not None:
        counts += _instances(design.root)  # gates may stand inside each other on one line
    for process in design.processes:
        if process.origin in _GATES:
            counts[process.origin] += design.language != "wiring"
        elif process.origin in _PASSIVE:
            continue
        elif process.kind == "continuous" and isinstance(process.body, ir.Assign):
            counts += _operators(process, design.language)
        else:
            counts["behaviour"] += 1
    return +counts


def _instances(instance: Instance) -> Counter[str]:
    counts: Counter[str] = Counter()
    queue = [instance]
    for one in queue:  # grows while it is walked
        counts[one.unit] += one.unit in _GATES
        queue += one.children
    return +counts


def _operators(process: Process, language: str) -> Counter[str]:
    counts: Counter[str] = Counter()
    queue = [e for s in statements(process.body) for e in expressions(s)]
    for e in queue:  # grows while it is walked
        gate, operands = _gate_of(e, language)
        counts[gate] += gate != ""
        queue += operands
    return +counts


def _gate_of(e: ir.Expr, language: str) -> tuple[str, list[ir.Expr]]:
    """The gate that an expression is at its outermost, and what that joins; no gate where it only takes wires apart or
    together."""
    match e:
        case ir.Unary(op="not", a=ir.Unary(op="not") as turned) if language == "wiring":
            return "buf", [turned.a]
        case ir.Unary(op="not" | "lnot") if (inner := _negated(e)) is not None:
            kind, operands = _gate_of(inner, language)
            return _INVERTED[kind], operands
        case ir.Unary(op="lnot") if e.a.width > 1:
            return "nor", [e.a]
        case ir.Unary(op="two"):
            return "", [e.a]
        case ir.Unary():
            return _OPERATORS.get(e.op, "behaviour"), [e.a]
        case ir.Binary(op="and" | "or" | "xor"):
            return e.op, joined_operands(e)
        case ir.Mux():
            return "select", children(e)
        case ir.Binary() | ir.Shift() | ir.Power() | ir.Pick() | ir.Call():
            return "behaviour", children(e)
    return "", children(e)


def _negated(e: ir.Unary) -> ir.Expr | None:
    """The AND, OR or XOR that a negation stands directly around; of several digits as one condition it must be one
    digit wide."""
    a = e.a
    if e.op == "lnot" and a.width > 1:
        return None
    is_gate = (isinstance(a, ir.Binary) and a.op in ("and", "or", "xor")) or (
        isinstance(a, ir.Unary) and a.op in ("rand", "ror", "rxor")
    )
    return a if is_gate else None


def count_levels(design: Design) -> int:
    """The most gates that follow each other on any way, as written. After what remembers it begins anew; a circle
    counts once."""
    makers: dict[int, list[Process]] = {}
    for process in design.processes:
        for bit in written_bits(process):
            makers.setdefault(bit, []).append(process)
    arriving: dict[int, int] = {}
    leaving: dict[int, int] = {}
    stack: list[tuple[Process, list[Process] | None]] = [(p, None) for p in design.processes]
    while stack:
        process, before = stack.pop()
        key = id(process)
        if before is not None:
            arriving[key] = _levels(
                process,
                lambda bit: max((leaving.get(id(m), 0) for m in makers.get(bit, ())), default=0),
                design.language,
            )
            leaving[key] = 0 if _remembers(process) else arriving[key]
        elif key not in leaving:
            leaving[key] = 0  # until it is known; a circle finds this
            before = _before(process, makers)
            stack.append((process, before))
            stack += [(m, None) for m in before if id(m) not in leaving]
    return max(arriving.values(), default=0)


def _remembers(process: Process) -> bool:
    return process.origin in _STORES or any(w.edge != "any" for w in process.watches)


def _before(process: Process, makers: dict[int, list[Process]]) -> list[Process]:
    """The processes that make what a process reads."""
    found: dict[int, Process] = {}
    for s in statements(process.body):
        for e in expressions(s):
            for signal, low, width in stretches_read(e):
                for bit in range(signal.offset + low, signal.offset + low + width):
                    found |= {id(m): m for m in makers.get(bit, ()) if m is not process}
    return list(found.values())


def _levels(process: Process, before: Callable[[int], int], language: str) -> int:
    """Gates on the longest way to what a process makes; `before` gives those up to a bit. Behaviour counts as one."""
    read = [e for s in statements(process.body) for e in expressions(s)]

    def levels(e: ir.Expr) -> int:
        match e:
            case ir.Ref():
                return max(before(e.signal.offset + i) for i in range(e.width))
            case ir.Slice(a=ir.Ref() as whole):
                inside = range(max(0, e.low), min(whole.width, e.low + e.width))
                return max((before(whole.signal.offset + i) for i in inside), default=0)
        gate, operands = _gate_of(e, language)
        return (gate != "") + max(map(levels, operands), default=0)

    if process.origin == "override":
        return 0  # it belongs to a flip-flop, whose own process has what arrives
    if process.origin in _STORES:
        return max((levels(e) for e in _at_its_pins(read)), default=0)
    if process.origin in _PASSIVE:
        return max(map(levels, read), default=0)
    if process.kind == "continuous" and isinstance(process.body, ir.Assign):
        found = levels(process.body.value)
        return found - 1 if process.origin == "buf" and language != "wiring" else found  # made of two inversions
    bits = (
        b
        for e in read
        for signal, low, width in stretches_read(e)
        for b in range(signal.offset + low, signal.offset + low + width)
    )
    return 1 + max(map(before, bits), default=0)


def _at_its_pins(read: list[ir.Expr]) -> list[ir.Expr]:
    """What arrives at a flip-flop or latch: how its pins choose among it is no gate of its own."""
    queue, found = list(read), []
    for e in queue:  # grows while it is walked
        if isinstance(e, ir.Mux):
            queue += children(e)
        else:
            found.append(e)
    return found
