"""Expressions and statements of a Design.

Widths and signs are settled when these nodes are made: every operator names its kind outright (`lt` or `slt`), operands
of one operator have one width, and widening is a node of its own. Bit 0 is the rightmost digit whatever range was
declared."""

from __future__ import annotations

from dataclasses import dataclass, field

from obento.core.ir.collections import CollectionType
from obento.core.ir.layout import Layout
from obento.core.ir.signal import Signal, Watch


@dataclass(slots=True)
class Expr:
    """Any expression; `width` in bits."""

    width: int


@dataclass(slots=True)
class Const(Expr):
    """A constant: digits that may be 1, and digits that may be 0 (both for z, none for x)."""

    one: int
    zero: int


@dataclass(slots=True)
class Ref(Expr):
    """The whole of a signal."""

    signal: Signal


@dataclass(slots=True)
class Unary(Expr):
    """`op` is a key of `values.UNARY`; reductions and `lnot` have width 1. `two` is no operator of a text: a two-state
    variable does it."""

    op: str
    a: Expr


@dataclass(slots=True)
class Binary(Expr):
    """`op` is a key of `values.BINARY`; relations have width 1."""

    op: str
    a: Expr
    b: Expr


@dataclass(slots=True)
class Power(Expr):
    """`a ** b` (1364-2005 clause 5.1.5), whose value depends on the signs of both."""

    a: Expr
    b: Expr
    a_signed: bool
    b_signed: bool


@dataclass(slots=True)
class Shift(Expr):
    """`op` is shl, shr or sar; the amount `b` is self-determined and unsigned."""

    op: str
    a: Expr
    b: Expr


@dataclass(slots=True)
class Mux(Expr):
    """`?:`; an unknown condition merges the branches digit by digit."""

    cond: Expr
    a: Expr
    b: Expr


@dataclass(slots=True)
class Concat(Expr):
    """Leftmost part first."""

    parts: list[Expr]


@dataclass(slots=True)
class Slice(Expr):
    """`width` digits from offset `low`, which may reach outside (x there)."""

    a: Expr
    low: int


@dataclass(slots=True)
class Pick(Expr):
    """`width` digits of `a` from offset `(index - base) * step`; x where the index is unknown or outside."""

    a: Expr
    index: Expr
    index_signed: bool
    base: int
    step: int


@dataclass(slots=True)
class Extend(Expr):
    """Widened with zeros, or with its sign."""

    a: Expr
    signed: bool


@dataclass(slots=True)
class Tristate(Expr):
    """`a` where `enable` is 1, z where it is 0 or `a` is z, x otherwise (1364 tables 7-5 and 7-6; a gate's `a` is never
    z)."""

    enable: Expr
    a: Expr


@dataclass(slots=True)
class Resolve(Expr):
    """Several drivers of one net (1364 clause 7.10). `net` is the kind of net, `strengths` of each driver those of its
    0 and 1.

    Where `might` of a driver is not z, that driver is either z or what `might` says: a three-state gate whose control
    is unknown (7.10.2, the values L and H). Strengths are numbered as in table 7-7: 7 supply, 6 strong, 5 pull, 4
    large, 3 weak, 2 medium, 1 small, 0 high impedance."""

    net: str
    drivers: list[Expr]
    strengths: list[tuple[int, int]]
    might: list[Expr | None]


# Real numbers (1364 clauses 3.9 and 4.8). Their width is 64 by convention; kernels hold them as floating-point numbers.


@dataclass(slots=True)
class RealConst(Expr):
    """A real number as it is written."""

    value: float


@dataclass(slots=True)
class RealOp(Expr):
    """`op` is add, sub, mul, div, mod, pow or neg on real operands."""

    op: str
    args: list[Expr]


@dataclass(slots=True)
class RealMux(Expr):
    """`?:` with real branches; an unknown condition takes the second."""

    cond: Expr
    a: Expr
    b: Expr


@dataclass(slots=True)
class ToReal(Expr):
    """A vector as a real number; unknown digits read 0 (4.8.2)."""

    a: Expr
    signed: bool


@dataclass(slots=True)
class RealDigits(Expr):
    """The 64 digits of a real number (IEEE 754 binary64), as a word."""

    a: Expr


@dataclass(slots=True)
class DigitsReal(Expr):
    """The real number of which a word has the 64 digits; those that are not known read 0."""

    a: Expr


@dataclass(slots=True)
class Rounded(Expr):
    """A real number as the nearest whole one, halves away from zero (4.8.2)."""

    a: Expr


@dataclass(slots=True)
class RealRelation(Expr):
    """`op` is eq, ne, lt or le on real operands; width 1."""

    op: str
    a: Expr
    b: Expr


# Strings (1800 clause 6.16). Their width is 64 by convention, as that of reals; kernels hold them as Python's.


@dataclass(slots=True)
class TextConst(Expr):
    """A string as it is written, its escapes carried out."""

    value: str


@dataclass(slots=True)
class TextOp(Expr):
    """`op` is a key of `texts.TEXT_OPS`; its operands are strings and words."""

    op: str
    args: list[Expr]


@dataclass(slots=True)
class TextValue(Expr):
    """What is asked of strings, as a word: `op` is a key of `texts.TEXT_VALUES`."""

    op: str
    args: list[Expr]


# Collections (1800 clauses 7.5, 7.8 to 7.12). Their width is 64 by convention too.


@dataclass(slots=True)
class Each:
    """`with (test)`: what is asked of every element, and the variables that stand for it and its place meanwhile."""

    item: Signal
    place: Signal
    test: Expr
    signed: bool


@dataclass(slots=True)
class CollectionOp(Expr):
    """`op` is a key of `collections.OPS`; it is done with the first operand. `of` where it makes a new one, `key` what
    is written by those that give a key back."""

    op: str
    args: list[Expr]
    of: CollectionType | None = None
    each: Each | None = None
    key: list[Target] = field(default_factory=list)


@dataclass(slots=True)
class Function:
    """A function or task. Its arguments and locals are signals that belong to it alone.

    `outputs` are those arguments whose values go back to the caller of a task. An `automatic` one has fresh storage for
    every call; the others keep theirs (1364 clauses 10.2.1 and 10.4.1).
    """

    name: str
    params: list[Signal]
    result: Signal | None
    local: list[Signal]
    body: Stmt | None = None
    position: int = 0
    outputs: list[Signal] = field(default_factory=list)
    outputs_signed: list[bool] = field(default_factory=list)
    automatic: bool = False
    label: Label | None = None
    is_task: bool = False
    """Whether it may wait, by how it was declared."""

    def storage(self) -> list[Signal]:
        """Every signal that belongs to it, each once."""
        own = [*self.params, *self.outputs, *self.local]
        if self.result is not None:
            own.append(self.result)
        return list({s.id: s for s in own}.values())


@dataclass(slots=True)
class Call(Expr):
    """A function call with one value for each input."""

    function: Function
    args: list[Expr]


@dataclass(slots=True)
class Argument:
    """What a system task or function is given: a value, a string as written, a place to write to, or nothing at all.

    `signed` and `real` say how a value prints. `memory` is a whole array with the ends of its first dimension.
    """

    value: Expr | None = None
    text: str | None = None
    signed: bool = False
    real: bool = False
    targets: list[Target] = field(default_factory=list)
    memory: tuple[Signal, int, int] | None = None
    scope: str = ""
    layout: Layout | None = None
    """How %p writes it."""


@dataclass(slots=True)
class SystemCall(Expr):
    """A system task used for its value; `tick` is the module's time unit in ticks of the design."""

    name: str
    args: list[Argument]
    scope: str
    tick: int
    position: int


@dataclass(slots=True)
class Stmt:
    """Any statement; `position` is where it stands."""

    position: int


@dataclass(slots=True)
class Offset:
    """A computed offset, `(index - base) * step` digits.

    With `window`, all `width` digits selected must lie inside that many, else nothing is written.
    """

    index: Expr
    signed: bool
    base: int
    step: int
    width: int
    window: int = 0


@dataclass(slots=True)
class Target:
    """A stretch of a signal to be written: `width` digits from `low` plus all computed `offsets`."""

    signal: Signal
    low: int
    width: int
    offsets: list[Offset] = field(default_factory=list)


@dataclass(slots=True)
class Assign(Stmt):
    """Write `value` into `targets`, leftmost first; together they are as wide as the value.

    `timing` stands between the two (1364 clause 9.7.7): the value is taken now, written then."""

    targets: list[Target]
    value: Expr
    blocking: bool = True
    timing: Delay | Await | None = None


@dataclass(slots=True, eq=False)
class Label:
    """A block that may be named by `disable`; `used` once one does."""

    name: str
    used: bool = False


@dataclass(slots=True)
class Block(Stmt):
    """Statements one after the other; `label` names it for `disable`."""

    body: list[Stmt] = field(default_factory=list)
    label: Label | None = None


@dataclass(slots=True)
class If(Stmt):
    """Anything but a known 1 in the condition takes the else branch."""

    cond: Expr
    then: Stmt | None
    other: Stmt | None


@dataclass(slots=True)
class CaseArm:
    """One arm of a case: its labels, and what is done when one of them matches."""

    labels: list[Expr]
    body: Stmt | None
    position: int = 0


@dataclass(slots=True)
class Case(Stmt):
    """`match` is ceq, casez or casex; the first arm with a matching label runs."""

    match: str
    subject: Expr
    arms: list[CaseArm]
    default: Stmt | None


@dataclass(slots=True)
class Loop(Stmt):
    """Run `body` while `cond` is true; `own` are counters that nobody knows behind it."""

    cond: Expr
    body: Stmt | None
    own: list[Signal] = field(default_factory=list)


@dataclass(slots=True)
class Repeat(Stmt):
    """Run `body` as often as `count` says when the loop begins; unknown counts as none."""

    count: Expr
    signed: bool
    body: Stmt | None


@dataclass(slots=True)
class Delay(Stmt):
    """Wait for `amount`, a whole or real number of the module's time unit of `tick` ticks, rounded to `step` ticks."""

    amount: Expr
    tick: int
    step: int


@dataclass(slots=True)
class Await(Stmt):
    """Wait until one of the watches sees its event, `count` times over when given."""

    watches: list[Watch]
    count: Expr | None = None


@dataclass(slots=True)
class WaitUntil(Stmt):
    """Wait until the condition is true; not at all when it is."""

    cond: Expr
    watches: list[Watch]


@dataclass(slots=True)
class Trigger(Stmt):
    """An event on a signal that carries nothing else (1364 clause 9.7.3)."""

    signal: Signal


@dataclass(slots=True)
class Fork(Stmt):
    """Run all branches side by side; go on when `until` of them have ended: all, any or none. Each branch has automatic
    variables of its `own`, as they were (1800 clause 9.3.2)."""

    branches: list[Stmt]
    until: str = "all"
    own: list[Signal] = field(default_factory=list)


@dataclass(slots=True)
class WaitFork(Stmt):
    """Wait until everything that the running process has forked itself has ended (1800 clause 9.6.1)."""


@dataclass(slots=True)
class DisableFork(Stmt):
    """End everything that the running process has forked, and what that has (1800 clause 9.6.3)."""


@dataclass(slots=True)
class Disable(Stmt):
    """End every activity inside a block or task (1364 clause 10.3)."""

    label: Label


@dataclass(slots=True)
class TaskCall(Stmt):
    """Enable a task: `args` by value, then `results` of the outputs written back in order."""

    task: Function
    args: list[Expr]
    results: list[list[Target]]


@dataclass(slots=True)
class SystemTask(Stmt):
    """A system task as a statement; `deferred` to the end of the step of time (1800 clause 16.4)."""

    call: SystemCall
    deferred: bool = False


@dataclass(slots=True)
class CollectionTask(Stmt):
    """What changes a collection, as a statement."""

    call: CollectionOp


@dataclass(slots=True)
class Hold(Stmt):
    """`assign` or `force`: from now on the targets follow the value (1364 clause 9.3).

    A process of its own keeps the value up to date in the signal `follower`.
    """

    kind: str
    targets: list[Target]
    value: Expr
    follower: Signal


@dataclass(slots=True)
class LetGo(Stmt):
    """`deassign` or `release`."""

    kind: str
    targets: list[Target]


def settled(targets: list[Target], value: Expr) -> Expr:
    """A value as its targets keep it: two-state ones take x and z for 0 (1800 clause 6.3.1)."""
    if not any(t.signal.two_state for t in targets):
        return value
    if all(t.signal.two_state for t in targets):
        return two_state(value)
    parts: list[Expr] = []
    low = value.width
    for t in targets:
        low -= t.width
        part = Slice(t.width, value, low)
        parts.append(two_state(part) if t.signal.two_state else part)
    return Concat(value.width, parts)


def two_state(value: Expr) -> Expr:
    """A value with 0 for x and z."""
    if isinstance(value, Const) and value.one ^ value.zero == (1 << value.width) - 1:
        return value
    return Unary(value.width, "two", value)
