"""Changes that can be tried on a built design: one operator, gate, inversion, constant, wire, digit, edge, level or
branch.

What stands once in the text may stand several times in the design: in every instance of a unit, in every round of a
loop. All copies are changed together, as the text would change them."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import functions_called, statements
from obento.core.ir.signal import Signal, Watch
from obento.core.ir.walks import walk
from obento.core.limits import Limits
from obento.core.source import Sources
from obento.core.values import ones

_LOOP_ROUNDS, _DELTAS = 300, 200
_MOST_WIRES = 10
_MOST_DIGITS = 16
_WIDEST_STATE = 3
"""Of such constants every other value is tried: they may be states."""
_GATES = {
    "and": ("and", 0),
    "or": ("or", 0),
    "xor": ("xor", 0),
    "nand": ("and", 1),
    "nor": ("or", 1),
    "xnor": ("xor", 1),
}
_SIGNS = {
    "verilog": {
        "and": "&",
        "or": "|",
        "xor": "^",
        "eq": "==",
        "ne": "!=",
        "lt": "<",
        "le": "<=",
        "slt": "<",
        "sle": "<=",
        "add": "+",
        "sub": "-",
        "not": "~",
        "rand": "&",
        "ror": "|",
        "rxor": "^",
        "shl": "<<",
        "shr": ">>",
        "sar": ">>>",
    },
    "vhdl": {
        "and": "and",
        "or": "or",
        "xor": "xor",
        "eq": "=",
        "ne": "/=",
        "lt": "<",
        "le": "<=",
        "slt": "<",
        "sle": "<=",
        "add": "+",
        "sub": "-",
        "not": "not",
    },
    "wiring": {"and": "and", "or": "or", "xor": "xor", "not": "!"},
}
_OTHERS = {
    "and": ("or", "xor"),
    "or": ("and", "xor"),
    "xor": ("or", "and"),
    "eq": ("ne",),
    "ne": ("eq",),
    "lt": ("le", "slt"),
    "le": ("lt", "sle"),
    "slt": ("sle", "lt"),
    "sle": ("slt", "le"),
    "add": ("sub",),
    "sub": ("add",),
}
_SIGNED = {("lt", "slt"), ("slt", "lt"), ("le", "sle"), ("sle", "le")}
_EVERYTHING = re.compile(
    r"(always\s*@\s*(\*|\(\s*\*\s*\))|always_comb|always_latch|(\w+\s*:\s*)?(postponed\s+)?process\s*\(\s*all\s*\))",
    re.I,
)
"""How a process is begun that wakes for everything it reads."""

_PASSED_OVER = frozenset(["port", "start", "resolution", "supply", "override"])


@dataclass(slots=True, eq=False)
class Trial:
    """A change that can be made and taken back; the lower `likely`, the sooner it is tried."""

    likely: int
    position: int
    text: str
    make: Callable[[], None]
    undo: Callable[[], None]


def limits_of_trials(limits: Limits) -> Limits:
    """Bounds for a changed design: many a change makes a loop that does not end."""
    rounds = min(limits.loop_rounds, _LOOP_ROUNDS)
    return replace(limits, loop_rounds=rounds, loop_rounds_alone=rounds, deltas=min(limits.deltas, _DELTAS))


def trials_of(design: Design, sources: Sources) -> list[Trial]:
    """Everything that can be tried on a design, the likeliest first; copies of one place in its text together."""
    grouped: dict[tuple[int, int, str], list[Trial]] = {}
    for place, trial in _Maker(design, sources).trials():
        grouped.setdefault((trial.position, place, trial.text), []).append(trial)
    return sorted((_together(copies) for copies in grouped.values()), key=lambda t: t.likely)


def _together(copies: list[Trial]) -> Trial:
    first = copies[0]
    if len(copies) == 1:
        return first

    def make() -> None:
        for t in copies:
            t.make()

    def undo() -> None:
        for t in reversed(copies):
            t.undo()

    return Trial(first.likely, first.position, first.text, make, undo)


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


@dataclass(slots=True)
class _Slot:
    """A place where an expression stands: what holds it, by which name, and where that is in the text. `inner` unless
    it is the whole value of a gate, or one of the operators that the gate itself is made of."""

    owner: object
    field: str
    expr: ir.Expr
    position: int
    inner: bool = True


class _Maker:
    """Makes the trials of one design. Each comes with the number of its place in its statement."""

    def __init__(self, design: Design, sources: Sources) -> None:
        self._design = design
        self._sources = sources
        self._language = design.language
        self._signs = _SIGNS.get(self._language, _SIGNS["verilog"])
        self._wires = self._wires_by_width()
        self._process = Process("continuous", ir.Block(0), [], 0, "")
        self._was = {before.id: now for before, now in design.kept}

    def trials(self) -> Iterator[tuple[int, Trial]]:
        for process in self._design.processes:
            if process.kind == "initial" or process.origin in _PASSED_OVER:
                continue
            self._process = process
            if process.origin in _GATES:
                yield from ((-1, t) for t in self._gate(process))
            for watch in process.watches:
                if watch.edge != "any":
                    yield from ((-1, t) for t in self._edge(process, watch))
            for body in (process.body, *(f.body for f in functions_called(process.body))):
                for s in statements(body):
                    yield from self._of_statement(s)

    def _of_statement(self, s: ir.Stmt) -> Iterator[tuple[int, Trial]]:
        own = self._as_written(s.position)
        if isinstance(s, ir.If) and s.then is not None and s.other is not None:
            yield -2, self._swap(s, "then", "other", 2, "the two branches of this `if` exchanged")
        if self._language == "vhdl" and isinstance(s, ir.If):
            yield from ((-3, t) for t in self._vhdl_edge(s))
            if self._asks_for_edge(s.cond):
                return  # of which nothing else stands in the text
        for number, slot in enumerate(_slots(s, self._process.origin in _GATES)):
            if slot.inner:
                yield from ((number, t) for t in self._of_expression(slot, own))

    # Whole processes.

    def _edge(self, process: Process, watch: Watch) -> Iterator[Trial]:
        """The other edge; of a reset also with the other level asked for in the body."""
        other = "neg" if watch.edge == "pos" else "pos"
        edges = (
            {"pos": "posedge", "neg": "negedge"} if self._language == "verilog" else {"pos": "rise:", "neg": "fall:"}
        )
        name = _name(watch.signal)
        text = f"`{edges[other]} {name}` for `{edges[watch.edge]} {name}`"
        yield self._set(watch, "edge", other, 1, process.position, text)
        for s in statements(process.body):
            if isinstance(s, ir.If) and any(isinstance(e, ir.Ref) and e.signal is watch.signal for e in walk(s.cond)):
                turned = ir.Unary(1, "lnot", s.cond)
                first, second = (
                    self._set(watch, "edge", other, 1, process.position, text),
                    self._set(s, "cond", turned, 1, s.position, ""),
                )
                yield Trial(2, process.position, f"{text}, and its level in the `if` turned", *_both(first, second))
                break

    def _asks_for_edge(self, e: ir.Expr) -> bool:
        """Whether a condition looks at what a VHDL signal was before."""
        return any(isinstance(x, ir.Ref) and x.signal.id in self._was for x in walk(e))

    def _vhdl_edge(self, s: ir.If) -> Iterator[Trial]:
        """The other edge in a condition that asks for one: what the clock is now and what it was before."""
        asked = [
            e
            for e in walk(s.cond)
            if isinstance(e, ir.Binary) and e.op == "ceq" and isinstance(e.a, ir.Ref) and isinstance(e.b, ir.Const)
        ]
        before = next((e for e in asked if isinstance(e.a, ir.Ref) and e.a.signal.id in self._was), None)
        if before is None or not isinstance(before.a, ir.Ref) or not isinstance(before.b, ir.Const):
            return
        clock = self._was[before.a.signal.id]
        now = next((e for e in asked if isinstance(e.a, ir.Ref) and e.a.signal is clock), None)
        if now is None or not isinstance(now.b, ir.Const):
            return
        rises = now.b.one
        turned = [
            self._set(e, "b", ir.Const(1, e.b.zero, e.b.one), 1, s.position, "")
            for e in (now, before)
            if isinstance(e.b, ir.Const)
        ]
        name = ("falling_edge", "rising_edge") if rises else ("rising_edge", "falling_edge")
        yield Trial(1, s.position, f"`{name[0]}({_name(clock)})` for `{name[1]}({_name(clock)})`", *_both(*turned))

    def _gate(self, process: Process) -> Iterator[Trial]:
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
            yield self._set(body, "value", value, 1, body.position, f"gate `{name}` for `{process.origin}`")

    # Expressions.

    def _of_expression(self, slot: _Slot, signs: dict[str, str]) -> Iterator[Trial]:
        owner, field, expr, at = slot.owner, slot.field, slot.expr, slot.position
        match expr:
            case ir.Binary(op=op) if op in _OTHERS:
                for other in _OTHERS[op]:
                    if (op, other) in _SIGNED:
                        text = f"`{signs.get(op, op)}` {'with' if other.startswith('s') else 'without'} signs"
                        yield self._set(expr, "op", other, 2, at, text)
                    else:
                        yield self._set(
                            expr, "op", other, 1, at, f"`{signs.get(other, other)}` for `{signs.get(op, op)}`"
                        )
                if op in ("lt", "le", "slt", "sle", "sub"):
                    turned = ir.Binary(expr.width, op, expr.b, expr.a)
                    yield self._set(owner, field, turned, 2, at, f"the operands of `{signs.get(op, op)}` exchanged")
            case ir.Unary(op="rand" | "ror" | "rxor" as op):
                for other in ("rand", "ror", "rxor"):
                    if other != op:
                        yield self._set(
                            expr, "op", other, 1, at, f"`{signs.get(other, other)}` for `{signs.get(op, op)}`"
                        )
            case ir.Unary(op="not" | "lnot"):
                text = f"no `{signs['not']}` before {_words(expr.a)}"
                yield self._set(
                    owner, field, expr.a if expr.a.width == expr.width else ir.Unary(1, "ror", expr.a), 1, at, text
                )
                if isinstance(owner, ir.Extend) and expr.a.width > expr.width and expr.a.width <= owner.width:
                    yield self._set(owner, field, expr.a, 1, at, f"{text}: the whole number")
            case ir.Shift(op=op):
                for other in ("shl", "shr", "sar"):
                    if other != op:
                        yield self._set(
                            expr, "op", other, 2, at, f"`{signs.get(other, other)}` for `{signs.get(op, op)}`"
                        )
            case ir.Extend():
                how = "without its sign" if expr.signed else "with its sign"
                yield self._set(expr, "signed", not expr.signed, 3, at, f"{_words(expr.a)} made wider {how}")
            case ir.Mux():
                yield self._set(
                    owner, field, ir.Mux(expr.width, expr.cond, expr.b, expr.a), 2, at, "the two branches exchanged"
                )
            case ir.Const(width=width) if width <= 64 and expr.one ^ expr.zero == ones(width):
                near = [expr.one + 1, expr.one - 1, *([ones(width) ^ expr.one] if width <= _MOST_DIGITS else [])]
                every = range(1 << width) if width <= _WIDEST_STATE else ()
                for value in dict.fromkeys(number & ones(width) for number in [*near, *every]):
                    if value != expr.one:
                        new = ir.Const(width, value, value ^ ones(width))
                        yield self._set(owner, field, new, 1, at, f"{value} for {expr.one}")
            case _:
                pass
        yield from self._other_wires(slot)
        is_bit = isinstance(expr, ir.Ref | ir.Slice | ir.Binary | ir.Pick) and expr.width == 1
        if is_bit and not (isinstance(owner, ir.Unary) and owner.op in ("not", "lnot")):
            yield self._set(owner, field, ir.Unary(1, "not", expr), 2, at, f"`{signs['not']}` before {_words(expr)}")

    def _other_wires(self, slot: _Slot) -> Iterator[Trial]:
        """Another wire of the same width, or other digits of the same one."""
        expr, at = slot.expr, slot.position
        if isinstance(expr, ir.Slice) and isinstance(expr.a, ir.Ref):
            signal = expr.a.signal
            near = [low for low in (expr.low + 1, expr.low - 1) if 0 <= low <= signal.width - expr.width]
            if expr.width == 1 and signal.width <= _MOST_DIGITS:
                near += [i for i in range(signal.width) if i != expr.low and i not in near]
            for low in near:
                text = (
                    f"`{_name(signal)}{_digits(low, expr.width)}` for `{_name(signal)}{_digits(expr.low, expr.width)}`"
                )
                yield self._reading(slot, ir.Slice(expr.width, expr.a, low), signal, 2, at, text)
        if isinstance(expr, ir.Ref):
            for signal in self._wires.get(expr.width, []):
                if signal is not expr.signal:
                    yield self._reading(
                        slot, ir.Ref(expr.width, signal), signal, 3, at, f"`{_name(signal)}` for `{_name(expr.signal)}`"
                    )

    def _reading(self, slot: _Slot, new: ir.Expr, signal: Signal, likely: int, position: int, text: str) -> Trial:
        """A change after which a process reads something else, and wakes for it if it wakes for whatever it reads."""
        change = self._set(slot.owner, slot.field, new, likely, position, text)
        process = self._process
        if not self._wakes_by_itself(process):
            return change  # its list of what wakes it would have to be changed as well
        before = process.watches
        more = self._set(process, "watches", [*before, Watch(signal, "any", 0, signal.width)], likely, position, text)
        return Trial(likely, position, text, *_both(change, more))

    def _wakes_by_itself(self, process: Process) -> bool:
        """Whether a process has no list of its own of what wakes it."""
        if process.kind == "continuous" and process.origin not in ("process", "clocked"):
            return True
        file = self._sources.file_at(process.position)
        return file is not None and bool(_EVERYTHING.match(file.text, process.position - file.base))

    def _as_written(self, position: int) -> dict[str, str]:
        """The signs that a statement uses: who writes `||` is told `&&`."""
        file = self._sources.file_at(position)
        if self._language != "verilog" or file is None:
            return self._signs
        text = file.text[position - file.base :].partition(";")[0]
        is_and = "&&" in text and "&" not in text.replace("&&", "")
        is_or = "||" in text and "|" not in text.replace("||", "")
        if (is_and and (is_or or "|" not in text)) or (is_or and "&" not in text):
            return self._signs | {"and": "&&", "or": "||"}
        return self._signs

    def _wires_by_width(self) -> dict[int, list[Signal]]:
        """Signals that another one could be taken for, by width: inputs first."""
        found: dict[int, list[Signal]] = {}
        design = self._design
        inputs = [p.signal for p in design.ports if p.direction == "in"]
        others = [
            s
            for s in design.signals
            if not s.element and s.has_digits and not s.automatic and all(s is not i for i in inputs)
            if " " not in s.name and "@" not in s.name
        ]
        for signal in [*inputs, *others]:
            if len(found.setdefault(signal.width, [])) < _MOST_WIRES:
                found[signal.width].append(signal)
        return found

    @staticmethod
    def _set(owner: object, field: str, value: object, likely: int, position: int, text: str) -> Trial:
        before = getattr(owner, field)
        return Trial(
            likely, position, text, lambda: setattr(owner, field, value), lambda: setattr(owner, field, before)
        )

    @staticmethod
    def _swap(owner: object, one: str, other: str, likely: int, text: str) -> Trial:
        a, b = getattr(owner, one), getattr(owner, other)

        def put(x: object, y: object) -> None:
            setattr(owner, one, x)
            setattr(owner, other, y)

        assert isinstance(owner, ir.Stmt)
        return Trial(likely, owner.position, text, lambda: put(b, a), lambda: put(a, b))


def _both(first: Trial, second: Trial) -> tuple[Callable[[], None], Callable[[], None]]:
    def make() -> None:
        first.make()
        second.make()

    def undo() -> None:
        second.undo()
        first.undo()

    return make, undo


def _name(signal: Signal) -> str:
    return signal.name.rpartition(".")[2]


def _digits(low: int, width: int) -> str:
    return f"[{low}]" if width == 1 else f"[{low + width - 1}:{low}]"


def _words(expr: ir.Expr) -> str:
    if isinstance(expr, ir.Ref):
        return f"`{_name(expr.signal)}`"
    if isinstance(expr, ir.Slice) and isinstance(expr.a, ir.Ref):
        return f"`{_name(expr.a.signal)}{_digits(expr.low, expr.width)}`"
    return "the whole in parentheses"


def _slots(s: ir.Stmt, is_gate: bool) -> Iterator[_Slot]:
    """Every place in a statement where an expression stands."""
    stack: list[tuple[object, str, int, bool]] = []
    match s:
        case ir.Assign():
            stack.append((s, "value", s.position, not is_gate))
            stack += [(offset, "index", s.position, True) for t in s.targets for offset in t.offsets]
        case ir.If() | ir.Loop():
            stack.append((s, "cond", s.position, True))
        case ir.Case():
            stack.append((s, "subject", s.position, True))
            stack += [
                (_Box(arm.labels, i), "item", arm.position or s.position, True)
                for arm in s.arms
                for i in range(len(arm.labels))
            ]
        case _:
            return
    while stack:
        owner, field, position, inner = stack.pop()
        expr: ir.Expr = getattr(owner, field)
        yield _Slot(owner, field, expr, position, inner)
        match expr:
            case ir.Unary() | ir.Extend():
                stack.append((expr, "a", position, inner or not isinstance(expr.a, ir.Binary)))
            case ir.Slice() if not isinstance(expr.a, ir.Ref):  # a result cut to its target's width
                stack.append((expr, "a", position, True))
            case ir.Binary():
                own_gate = not inner and isinstance(expr.a, ir.Binary) and expr.a.op == expr.op
                stack += [(expr, "a", position, not own_gate), (expr, "b", position, True)]
            case ir.Shift():
                stack += [(expr, "a", position, True), (expr, "b", position, True)]
            case ir.Mux():
                stack += [(expr, "cond", position, True), (expr, "a", position, True), (expr, "b", position, True)]
            case ir.Concat():
                stack += [(_Box(expr.parts, i), "item", position, True) for i in range(len(expr.parts))]
            case ir.Pick():
                stack.append((expr, "index", position, True))
            case _:
                pass
