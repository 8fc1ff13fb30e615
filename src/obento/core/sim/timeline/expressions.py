"""Expressions as Python source, for the timeline.

The source is plain three-address code over the functions of `values`: one temporary for each node of an expression, so
that no nesting in a hand-in can exceed what Python's own compiler takes. Words of signals live in the list `S`, those
of arrays in lists of elements there; storage of automatic functions and tasks is Python's own local variables."""

from __future__ import annotations

from obento.core import values
from obento.core.ir import collections, doubles, evaluate, strength, texts
from obento.core.ir.collections import CHANGING, STEPS, CollectionType
from obento.core.ir.nodes import (
    Argument,
    Binary,
    Call,
    CollectionOp,
    Concat,
    Const,
    DigitsReal,
    Each,
    Expr,
    Extend,
    Function,
    Mux,
    Pick,
    Power,
    RealConst,
    RealDigits,
    RealMux,
    RealOp,
    RealRelation,
    Ref,
    Resolve,
    Rounded,
    Shift,
    Slice,
    SystemCall,
    Target,
    TextConst,
    TextOp,
    TextValue,
    ToReal,
    Tristate,
    Unary,
)
from obento.core.ir.signal import Signal
from obento.core.ir.walks import calls_something

_INLINE_RELATIONS = {"eq": "==", "ne": "!=", "lt": "<", "le": "<="}
_INLINE = {"add": "+", "sub": "-", "mul": "*"} | _INLINE_RELATIONS
_INLINE_BITS = 64
_MOST_JOINED = 64

NOWHERE = 1 << 40
"""An offset outside of any signal: what a computed index that is unknown or out of range points to."""


def is_array(signal: Signal) -> bool:
    """Whether the kernel holds it as a list of elements."""
    return signal.element > 0 and not signal.automatic


class ExpressionEmitter:
    """Writes lines that compute an expression; the name of the result is returned."""

    def __init__(self) -> None:
        self.lines: list[str] = []
        self.calls: list[SystemCall] = []
        self.kinds: list[CollectionType] = []
        self._indent = 1
        self._temps = 0
        self._functions: dict[int, str] = {}
        self._queue: list[tuple[Function, str]] = []

    def _put(self, line: str) -> None:
        self.lines.append("    " * self._indent + line)

    def _name(self, letter: str) -> str:
        self._temps += 1
        return f"{letter}{self._temps}"

    def _temp(self, text: str) -> str:
        name = self._name("t")
        self._put(f"{name} = {text}")
        return name

    def _read(self, signal: Signal) -> str:
        return f"a{signal.id}" if signal.automatic else self._temp(f"S[{signal.id}]")

    def _expr(self, e: Expr) -> str:
        match e:
            case Const():
                return f"({e.one:#x}, {e.zero:#x})"
            case Ref():
                return self._whole_array(e.signal) if is_array(e.signal) else self._read(e.signal)
            case Unary():
                return self._temp(f"v_{e.op}({self._expr(e.a)}, {e.a.width})")
            case Binary():
                a, b = self._expr(e.a), self._expr(e.b)
                if e.op in _INLINE and e.a.width <= _INLINE_BITS:
                    return self._inlined(e, a, b)
                return self._temp(f"v_{e.op}({a}, {b}, {e.a.width})")
            case Power():
                a, b = self._expr(e.a), self._expr(e.b)
                return self._temp(f"power({a}, {e.width}, {b}, {e.b.width}, {e.a_signed}, {e.b_signed})")
            case Shift():
                a, b = self._expr(e.a), self._expr(e.b)
                return self._temp(f"shift({e.op!r}, {a}, {e.width}, {b}, {e.b.width})")
            case Mux():
                return self._mux(e)
            case Concat():
                return self._concat(e)
            case Slice() | Pick():
                return self._select(e)
            case Extend():
                return self._temp(f"extend({self._expr(e.a)}, {e.a.width}, {e.width}, {e.signed})")
            case Tristate():
                enable, a = self._expr(e.enable), self._expr(e.a)
                return self._temp(f"tristate({enable}, {a}, {e.width})")
            case Resolve():
                drivers = ", ".join([self._expr(d) for d in e.drivers])
                might = ", ".join(["None" if m is None else self._expr(m) for m in e.might])
                return self._temp(f"resolve({e.net!r}, [{drivers}], [{might}], {e.strengths}, {e.width})")
            case Call():
                return self._call(e)
            case SystemCall():
                return self._system_value(e)
        return self._real(e)

    def _whole_array(self, signal: Signal) -> str:
        if signal.width == signal.element or not signal.has_digits:
            return self._temp(f"S[{signal.id}][0]")
        return self._temp(f"elements(S[{signal.id}], {signal.element}, 0, {signal.width})")

    def _inlined(self, e: Binary, a: str, b: str) -> str:
        """The most frequent operators without a call: exact where all digits are known, by `values` otherwise."""
        full = (1 << e.a.width) - 1
        known = f"{a}[0] ^ {a}[1] == {full}"
        if not (isinstance(e.b, Const) and e.b.one ^ e.b.zero == full):
            known += f" == {b}[0] ^ {b}[1]"
        left, right = f"{a}[0]", str(e.b.one) if isinstance(e.b, Const) else f"{b}[0]"
        sign = _INLINE[e.op]
        if e.op in _INLINE_RELATIONS:
            return self._temp(
                f"(ONE1 if {left} {sign} {right} else ZERO1) if {known} else v_{e.op}({a}, {b}, {e.a.width})"
            )
        return self._temp(f"(n := ({left} {sign} {right}) & {full}, n ^ {full}) if {known} else X1")

    def _real(self, e: Expr) -> str:
        match e:
            case RealConst():
                return f"float({str(e.value)!r})"
            case RealOp():
                args = ", ".join([self._expr(a) for a in e.args])
                return self._temp(f"real_{e.op}({args})")
            case RealMux():
                truth = self._truth(e.cond)
                if calls_something(e.a) or calls_something(e.b):
                    return self._lazy_mux(e, truth)
                a, b = self._expr(e.a), self._expr(e.b)
                return self._temp(f"{a} if {truth} == ONE1 else {b}")
            case ToReal():
                return self._temp(f"to_real({self._expr(e.a)}, {e.a.width}, {e.signed})")
            case RealDigits():
                return self._temp(f"word(to_bits({self._expr(e.a)}), 64)")
            case DigitsReal():
                return self._temp(f"from_bits({self._expr(e.a)})")
            case Rounded():
                return self._temp(f"word(round_half_away({self._expr(e.a)}), {e.width})")
            case TextConst():
                return repr(e.value)
            case TextOp():
                args = ", ".join([self._expr(a) for a in e.args])
                return self._temp(f"text_{e.op}({args})")
            case TextValue():
                args = ", ".join([self._expr(a) for a in e.args])
                size = f", {e.width}" if e.op == "digits" else ""
                return self._temp(f"ask_{e.op}({args}{size})")
            case CollectionOp():
                return self._collection(e)
            case RealRelation():
                a, b = self._expr(e.a), self._expr(e.b)
                sign = {"eq": "==", "ne": "!=", "lt": "<", "le": "<="}[e.op]
                return self._temp(f"ONE1 if {a} {sign} {b} else ZERO1")
        raise AssertionError(f"no rule for {type(e).__name__}")

    def _collection(self, e: CollectionOp) -> str:
        """What is done with a collection; who waits for it is told where it changes."""
        args = [self._expr(a) for a in e.args]
        if e.of is not None:
            self.kinds.append(e.of)
            args.insert(0, f"kinds[{len(self.kinds) - 1}]")
        if e.each is not None:
            args.append(f"With({self._each(e.each)}, {e.each.test.width}, {e.each.signed})")
        if e.op == "shuffle":
            args.append("K.bench.draw")
        result = self._temp(f"collection_{e.op}({', '.join(args)})")
        changed = e.args[0] if e.op in CHANGING else None
        if isinstance(changed, Ref) and not changed.signal.automatic:
            self._put(f"K.change({changed.signal.id}, S[{changed.signal.id}])")
        if e.op not in STEPS:
            return result
        self._put(f"if {result}[1] is not None:")
        self._indent += 1
        self._spread(e.key, self._temp(f"{result}[1]"), True)
        self._indent -= 1
        return f"{result}[0]"

    def _each(self, each: Each) -> str:
        """A function of an element and its place, which stand in their variables meanwhile."""
        name = self._name("w")
        self._put(f"def {name}(element, place):")
        self._indent += 1
        self._put(f"S[{each.item.id}] = element")
        self._put(f"S[{each.place.id}] = place if isinstance(place, str) else word(place, {each.place.width})")
        self._put(f"return {self._expr(each.test)}")
        self._indent -= 1
        return name

    def _truth(self, cond: Expr) -> str:
        return self._temp(f"v_ror({self._expr(cond)}, {cond.width})")

    def _mux(self, e: Mux) -> str:
        cond = self._truth(e.cond)
        if calls_something(e.a) or calls_something(e.b):
            return self._lazy_mux(e, cond)
        a, b = self._expr(e.a), self._expr(e.b)
        return self._temp(f"{a} if {cond} == ONE1 else ({b} if {cond} == ZERO1 else merge({a}, {b}))")

    def _lazy_mux(self, e: Mux | RealMux, cond: str) -> str:
        """Only the branch that is taken is evaluated, since calls may have effects, or no end."""
        result = self._name("t")
        self._put(f"if {cond} != ZERO1:")
        self._indent += 1
        self._put(f"{result} = {self._expr(e.a)}")
        self._indent -= 1
        self._put(f"if {cond} != ONE1:")
        self._indent += 1
        other = self._expr(e.b)
        merged = other if isinstance(e, RealMux) else f"{other} if {cond} == ZERO1 else merge({result}, {other})"
        self._put(f"{result} = {merged}")
        self._indent -= 1
        return result

    def _concat(self, e: Concat) -> str:
        if len(e.parts) == 1:
            return self._expr(e.parts[0])
        parts = [(self._expr(p), p.width) for p in e.parts]
        while len(parts) > _MOST_JOINED:  # a longer sum nests deeper than Python compiles
            groups = [parts[i : i + _MOST_JOINED] for i in range(0, len(parts), _MOST_JOINED)]
            parts = [(self._joined(group), sum(width for _, width in group)) for group in groups]
        return self._joined(parts)

    def _joined(self, parts: list[tuple[str, int]]) -> str:
        low = sum(width for _, width in parts)
        one, zero = [], []
        for name, width in parts:
            low -= width
            one.append(f"{name}[0] << {low}")
            zero.append(f"{name}[1] << {low}")
        return self._temp(f"({' | '.join(one)}, {' | '.join(zero)})")

    def _select(self, e: Slice | Pick) -> str:
        place = self._array_place(e)
        if place is not None:
            signal, at = place
            if e.width > signal.element:
                return self._temp(f"elements(S[{signal.id}], {signal.element}, {at}, {e.width})")
            return self._temp(f"K.element({signal.id}, {at})")
        a = self._expr(e.a)
        if isinstance(e, Slice):
            return self._temp(f"select({a}, {e.a.width}, {e.low}, {e.width})")
        i = self._expr(e.index)
        rest = f"{e.index.width}, {e.index_signed}, {e.base}, {e.step}, {e.width}"
        return self._temp(f"pick({a}, {e.a.width}, {i}, {rest})")

    def _array_place(self, e: Expr) -> tuple[Signal, str] | None:
        """The array and the offset in it, when an expression selects whole elements of one, one or several."""
        if not isinstance(e, Slice | Pick):
            return None
        if isinstance(e.a, Ref):
            if not is_array(e.a.signal):
                return None
            signal, before = e.a.signal, ""
        else:
            inner = self._array_place(e.a)
            if inner is None or e.a.width <= inner[0].element:
                return None
            signal, before = inner[0], inner[1] + " + "
        if isinstance(e, Slice):
            low = e.low if 0 <= e.low <= e.a.width - e.width else NOWHERE
            return signal, f"{before}{low}"
        index = self._expr(e.index)
        most = e.a.width - e.width
        at = self._temp(f"K.offset({index}, {e.index.width}, {e.index_signed}, {e.base}, {e.step}, {most})")
        return signal, before + at

    def _function(self, f: Function) -> str:
        """The name of a function or task in the source, which is written when its turn comes."""
        name = self._functions.get(id(f))
        if name is None:
            name = f"f{len(self._functions)}"
            self._functions[id(f)] = name
            self._queue.append((f, name))
        return name

    def _given(self, f: Function, args: list[Expr]) -> str:
        """Hand over the arguments of a call; the rest of the argument list of an automatic one."""
        names = [self._expr(a) for a in args]
        if f.automatic:
            return "".join(f", {name}" for name in names)
        for param, arg in zip(f.params, names, strict=True):
            self._put(f"S[{param.id}] = {arg}")
        return ""

    def _call(self, e: Call) -> str:
        f = e.function
        assert f.result is not None
        name = self._function(f)
        rest = self._given(f, e.args)
        if f.automatic:
            return self._temp(f"{name}(K{rest})")
        self._put(f"{name}(K)")
        return self._temp(f"S[{f.result.id}]")

    # System tasks and functions: arguments as a list, work done by the kernel's bench.

    def _arguments(self, args: list[Argument]) -> str:
        return "[" + ", ".join("None" if a.value is None else self._expr(a.value) for a in args) + "]"

    def _number(self, call: SystemCall) -> int:
        self.calls.append(call)
        return len(self.calls) - 1

    def _system_value(self, e: SystemCall) -> str:
        number = self._number(e)
        result = self._temp(f"K.bench.value({number}, {self._arguments(e.args)})")
        if not any(a.targets for a in e.args):
            return result
        self._write_back(e.args, f"{result}[1]")
        return self._temp(f"{result}[0]")

    def _write_back(self, args: list[Argument], results: str) -> None:
        """What a system task writes to its arguments: a list of words, None for those left alone."""
        for i, argument in enumerate(args):
            if argument.targets:
                self._put(f"if {results}[{i}] is not None:")
                self._indent += 1
                self._spread(argument.targets, self._temp(f"{results}[{i}]"), True)
                self._indent -= 1

    # Writing.

    def _spread(self, targets: list[Target], value: str, blocking: bool) -> None:
        """One value over all targets, leftmost first."""
        low = sum(t.width for t in targets)
        for target in targets:
            low -= target.width
            part = value if len(targets) == 1 else self._temp(f"select({value}, 0, {low}, {target.width})")
            self._write(target, part, blocking)

    def _place(self, t: Target) -> str:
        """The offset of a target as source text."""
        low = str(t.low)
        for o in t.offsets:
            index = self._expr(o.index)
            most = o.window - o.width if o.window else None
            low += " + " + self._temp(f"K.offset({index}, {o.index.width}, {o.signed}, {o.base}, {o.step}, {most})")
        return low

    def _write(self, t: Target, value: str, blocking: bool) -> None:
        signal = t.signal
        whole = not t.offsets and t.low == 0 and t.width == signal.width
        if signal.automatic:
            name = f"a{signal.id}"
            self._put(
                f"{name} = {value}"
                if whole
                else f"{name} = put({name}, {signal.width}, {self._place(t)}, {t.width}, {value})"
            )
        elif whole and not signal.held and not signal.element:
            if blocking:
                self._put(f"if S[{signal.id}] != {value}: K.change({signal.id}, {value})")
            else:
                self._put(f"K.soon(({signal.id}, {value}))")
        else:
            self._put(f"K.{'write' if blocking else 'later'}({signal.id}, {self._place(t)}, {t.width}, {value})")


def put(old: values.Word, size: int, low: int, width: int, word: values.Word) -> values.Word:
    """A word with some digits replaced; those outside of it vanish (5.2.1)."""
    if low >= size or low + width <= 0:
        return old
    mask = (values.ones(width) << low if low >= 0 else values.ones(width) >> -low) & values.ones(size)
    one = word[0] << low if low >= 0 else word[0] >> -low
    zero = word[1] << low if low >= 0 else word[1] >> -low
    return old[0] & ~mask | one & mask, old[1] & ~mask | zero & mask


def elements(words: list[values.Word], size: int, at: int, width: int) -> values.Word:
    """Several elements of an array side by side, of `size` digits each, the one at offset `at` on the right; x where
    there are none."""
    if not 0 <= at <= len(words) * size - width:
        return 0, 0
    one = zero = 0
    for number, word in enumerate(words[at // size : (at + width) // size]):
        one, zero = one | word[0] << number * size, zero | word[1] << number * size
    return one, zero


def namespace() -> dict[str, object]:
    """The names that emitted source refers to."""
    names: dict[str, object] = {f"v_{op}": f for op, f in values.UNARY.items()}
    names |= {f"v_{op}": f for op, f in values.BINARY.items()}
    names |= {f"text_{op}": f for op, f in texts.TEXT_OPS.items()}
    names |= {f"ask_{op}": f for op, f in texts.TEXT_VALUES.items()}
    names["ask_digits"] = texts.to_digits
    names |= {f"real_{op}": f for op, f in evaluate.REAL_OPS.items()}
    for name in ("power", "shift", "select", "extend", "merge", "word", "X1", "ONE1", "ZERO1"):
        names[name] = getattr(values, name)
    for name in ("pick", "tristate", "to_real", "round_half_away"):
        names[name] = getattr(evaluate, name)
    names["to_bits"], names["from_bits"] = doubles.to_bits, doubles.from_bits
    names["resolve"] = strength.resolve
    names |= {f"collection_{op}": f for op, f in collections.OPS.items()}
    names["With"] = collections.With
    names["put"] = put
    names["elements"] = elements
    return names
