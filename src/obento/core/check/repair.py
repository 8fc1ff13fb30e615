"""The smallest change that makes every case right: one operator, gate, inversion, constant, wire or edge, found by trying.

Each change is made in the built design, run over a few telling cases, and, where those come out right, over all of them. Only
what is then right everywhere is said. The likeliest changes are tried first; several of one kind may be found.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from obento.core.check.expectation import Expectation, with_cases
from obento.core.check.observe import Observation, observe
from obento.core.check.observe_steps import observe_steps
from obento.core.check.ready import Ready, make_ready
from obento.core.check.verdict import judge, set_bits
from obento.core.handin import HandinFile
from obento.core.ir import nodes as ir
from obento.core.ir.design import Process, Signal
from obento.core.ir.drivers import statements
from obento.core.limits import LimitReached, Limits
from obento.core.spec.cases import Cases
from obento.core.values import ones

MOST_TRIED = 400
_FEW = 48
_MOST_FOUND = 3
_MOST_WIRES = 10
_GATES = {"and": ("and", 0), "or": ("or", 0), "xor": ("xor", 0), "nand": ("and", 1), "nor": ("or", 1), "xnor": ("xor", 1)}
_SIGNS = {
    "verilog": {
        "and": "&", "or": "|", "xor": "^", "eq": "==", "ne": "!=", "lt": "<", "le": "<=", "slt": "<", "sle": "<=", "add": "+", "sub": "-", "not": "~",
    },
    "vhdl": {"and": "and", "or": "or", "xor": "xor", "eq": "=", "ne": "/=", "lt": "<", "le": "<=", "add": "+", "sub": "-", "not": "not"},
    "wiring": {"and": "and", "or": "or", "xor": "xor", "not": "not"},
}  # fmt: skip
_OTHERS = {
    "and": ("or", "xor"), "or": ("and", "xor"), "xor": ("or", "and"), "eq": ("ne",), "ne": ("eq",), "lt": ("le",), "le": ("lt",), "slt": ("sle",),
    "sle": ("slt",), "add": ("sub",), "sub": ("add",),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Change:
    """One change and its place; `text` says what to write instead of what."""

    file: str
    line: int
    text: str


@dataclass(slots=True)
class Repair:
    """All smallest changes that were found, and how many were tried. `is_whole` unless the budget ran out first."""

    changes: list[Change]
    tried: int
    is_whole: bool


@dataclass(slots=True)
class _Trial:
    """A change that can be made and taken back."""

    likely: int
    position: int
    text: str
    make: Callable[[], None]
    undo: Callable[[], None]


def find_repair(
    expectation: Expectation, files: Sequence[HandinFile], provided: Sequence[HandinFile], choices: Mapping[str, str], limits: Limits | None = None
) -> Repair | None:
    """Look for the smallest change of a hand-in that is wrong somewhere; None where it cannot be run."""
    if expectation.spec.bench is not None:
        return None
    limits = limits or Limits()
    ready = make_ready(expectation.spec, files, provided, limits, choices)
    if not isinstance(ready, Ready):
        return None
    run = observe if expectation.cases.drive is None else observe_steps

    def seen(cases: Cases) -> Observation:
        return run(ready.design, ready.binding, expectation.spec.inputs, cases, limits)

    first = seen(expectation.cases)
    if first.limit is not None:
        return None
    verdict = judge(expectation, first)
    if verdict.right == expectation.cases.full:
        return Repair([], 0, True)
    few = _few_cases(expectation, verdict.right)
    trials = sorted(_trials(ready), key=lambda t: t.likely)
    found: list[Change] = []
    best = None
    tried = 0
    for trial in trials[:MOST_TRIED]:
        if best is not None and trial.likely > best:
            break
        tried += 1
        trial.make()
        try:
            is_right = _right(few, seen(few.cases)) and _right(expectation, seen(expectation.cases))
        except LimitReached:
            is_right = False
        finally:
            trial.undo()
        if is_right:
            best = trial.likely
            place = ready.reading.sources.place(trial.position)
            found.append(Change(place.file, place.line, trial.text))
            if len(found) == _MOST_FOUND:
                break
    return Repair(list(dict.fromkeys(found)), tried, len(trials) <= MOST_TRIED)


def _right(expectation: Expectation, observation: Observation) -> bool:
    return observation.limit is None and judge(expectation, observation).right == expectation.cases.full


def _few_cases(expectation: Expectation, right: int) -> Expectation:
    """Some wrong cases and some right ones; of clocked labs all, since a step alone means nothing."""
    cases = expectation.cases
    if cases.drive is not None or cases.count <= _FEW:
        return expectation
    wrong = set_bits(cases.full & ~right)
    good = set_bits(right)
    chosen = sorted({*wrong[:: max(1, len(wrong) // (_FEW // 2))], *good[:: max(1, len(good) // (_FEW // 2) + 1)]})
    return with_cases(expectation, chosen)


# What can be tried.


def _trials(ready: Ready) -> Iterator[_Trial]:
    language = ready.design.language
    signs = _SIGNS.get(language, _SIGNS["verilog"])
    wires = _wires(ready)
    for process in ready.design.processes:
        if process.kind == "initial" or process.origin in ("port", "start", "resolution", "supply"):
            continue
        if process.origin in _GATES:
            yield from _gate(process)
        for watch in process.watches:
            if watch.edge != "any":
                other = "neg" if watch.edge == "pos" else "pos"
                edges = {"pos": "posedge", "neg": "negedge"} if language == "verilog" else {"pos": "rise:", "neg": "fall:"}
                name = _name(watch.signal)
                text = f"`{edges[other]} {name}` for `{edges[watch.edge]} {name}`"
                yield _set(watch, "edge", other, 1, process.position, text)
        for s in statements(process.body):
            own = _as_written(ready, s.position, signs)
            for owner, field, expr in _slots(s):
                if process.origin not in _GATES or isinstance(expr, ir.Ref | ir.Slice | ir.Const):
                    yield from _of_expression(owner, field, expr, s.position, own, wires)


def _as_written(ready: Ready, position: int, signs: dict[str, str]) -> dict[str, str]:
    """The signs that a statement uses: who writes `||` is told `&&`."""
    file = ready.reading.sources.file_at(position)
    if ready.design.language != "verilog" or file is None:
        return signs
    text = file.text[position - file.base :].partition(";")[0]
    is_and = "&&" in text and "&" not in text.replace("&&", "")
    is_or = "||" in text and "|" not in text.replace("||", "")
    if (is_and and (is_or or "|" not in text)) or (is_or and "&" not in text):
        return signs | {"and": "&&", "or": "||"}
    return signs


def _name(signal: Signal) -> str:
    return signal.name.rpartition(".")[2]


def _wires(ready: Ready) -> dict[int, list[Signal]]:
    """Signals that another one could be taken for, by width: inputs first."""
    found: dict[int, list[Signal]] = {}
    inputs = [p.signal for p in ready.design.ports if p.direction == "in"]
    others = [s for s in ready.design.signals if not s.element and not s.real and all(s is not i for i in inputs)]
    for signal in [*inputs, *others]:
        if len(found.setdefault(signal.width, [])) < _MOST_WIRES:
            found[signal.width].append(signal)
    return found


class _Box:
    """An item of a list as something with an attribute."""

    def __init__(self, items: list[ir.Expr], index: int) -> None:
        self._items = items
        self._index = index

    @property
    def item(self) -> ir.Expr:
        return self._items[self._index]

    @item.setter
    def item(self, value: ir.Expr) -> None:
        self._items[self._index] = value


def _slots(s: ir.Stmt) -> Iterator[tuple[object, str, ir.Expr]]:
    """Every place in a statement where an expression stands: what holds it, and by which name."""
    stack: list[tuple[object, str]] = []
    match s:
        case ir.Assign():
            stack.append((s, "value"))
        case ir.If():
            stack.append((s, "cond"))
        case ir.Case():
            stack.append((s, "subject"))
            stack += [(_Box(arm.labels, i), "item") for arm in s.arms for i in range(len(arm.labels))]
        case _:
            return
    while stack:
        owner, field = stack.pop()
        expr: ir.Expr = getattr(owner, field)
        yield owner, field, expr
        match expr:
            case ir.Unary() | ir.Extend():
                stack.append((expr, "a"))
            case ir.Slice() if not isinstance(expr.a, ir.Ref):  # a result cut to its target's width
                stack.append((expr, "a"))
            case ir.Binary() | ir.Shift():
                stack += [(expr, "a"), (expr, "b")]
            case ir.Mux():
                stack += [(expr, "cond"), (expr, "a"), (expr, "b")]
            case ir.Concat():
                stack += [(_Box(expr.parts, i), "item") for i in range(len(expr.parts))]
            case _:
                pass


def _set(owner: object, field: str, value: object, likely: int, position: int, text: str) -> _Trial:
    before = getattr(owner, field)
    return _Trial(likely, position, text, lambda: setattr(owner, field, value), lambda: setattr(owner, field, before))


def _of_expression(
    owner: object, field: str, expr: ir.Expr, position: int, signs: dict[str, str], wires: dict[int, list[Signal]]
) -> Iterator[_Trial]:
    match expr:
        case ir.Binary(op=op) if op in _OTHERS:
            for other in _OTHERS[op]:
                yield _set(expr, "op", other, 1, position, f"`{signs.get(other, other)}` for `{signs.get(op, op)}`")
            if op in ("lt", "le", "slt", "sle", "sub"):
                turned = ir.Binary(expr.width, op, expr.b, expr.a)
                yield _set(owner, field, turned, 2, position, f"the operands of `{signs.get(op, op)}` exchanged")
        case ir.Unary(op="not" | "lnot"):
            yield _set(owner, field, expr.a, 1, position, f"no `{signs['not']}` before {_words(expr.a)}")
        case ir.Mux():
            yield _set(owner, field, ir.Mux(expr.width, expr.cond, expr.b, expr.a), 2, position, "the two branches exchanged")
        case ir.Const(width=width) if width <= 64 and expr.one ^ expr.zero == ones(width):
            for value in dict.fromkeys((expr.one + 1, expr.one - 1, *([ones(width) ^ expr.one] if width <= 16 else []))):
                number = value & ones(width)
                if number != expr.one:
                    new = ir.Const(width, number, number ^ ones(width))
                    yield _set(owner, field, new, 1, position, f"{number} for {expr.one}")
        case _:
            pass
    if isinstance(expr, ir.Ref):
        for signal in wires.get(expr.width, []):
            if signal is not expr.signal:
                new_ref = ir.Ref(expr.width, signal)
                yield _set(owner, field, new_ref, 3, position, f"`{_name(signal)}` for `{_name(expr.signal)}`")
    if isinstance(expr, ir.Ref | ir.Slice | ir.Binary) and expr.width == 1 and not (isinstance(owner, ir.Unary) and owner.op == "not"):
        yield _set(owner, field, ir.Unary(1, "not", expr), 2, position, f"`{signs['not']}` before {_words(expr)}")


def _words(expr: ir.Expr) -> str:
    if isinstance(expr, ir.Ref):
        return f"`{_name(expr.signal)}`"
    if isinstance(expr, ir.Slice) and isinstance(expr.a, ir.Ref):
        return f"`{_name(expr.a.signal)}[{expr.low}]`"
    return "the whole in parentheses"


def _gate(process: Process) -> Iterator[_Trial]:
    """A gate for another one of as many inputs."""
    body = process.body
    if not isinstance(body, ir.Assign):
        return
    op, inverted = _GATES[process.origin]
    inner = body.value.a if inverted and isinstance(body.value, ir.Unary) else body.value
    operands: list[ir.Expr] = []
    while isinstance(inner, ir.Binary) and inner.op == op:
        operands.insert(0, inner.b)
        inner = inner.a
    operands.insert(0, inner)
    if len(operands) < 2:
        return
    for name, (other, turned) in _GATES.items():
        if name == process.origin:
            continue
        value = operands[0]
        for operand in operands[1:]:
            value = ir.Binary(value.width, other, value, operand)
        if turned:
            value = ir.Unary(value.width, "not", value)
        yield _set(body, "value", value, 1, body.position, f"gate `{name}` for `{process.origin}`")
