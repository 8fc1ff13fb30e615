"""Expressions and statements with every name and type settled: what runs, and what is lowered to lanes, is made from
this."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal

from obento.core.vhdl.model.scope import Object, Subprogram
from obento.core.vhdl.model.scope import Stmt as Stmt
from obento.core.vhdl.model.types import Const as Const
from obento.core.vhdl.model.types import Expr as Expr
from obento.core.vhdl.model.types import RangeX, Subtype, Type


@dataclass(slots=True, eq=False)
class Read(Expr):
    """The value of a variable, constant, parameter or signal."""

    object: Object


@dataclass(slots=True, eq=False)
class Index(Expr):
    """An element of an array."""

    prefix: Expr
    indices: list[Expr]


@dataclass(slots=True, eq=False)
class Slice(Expr):
    """A slice of an array."""

    prefix: Expr
    range: RangeX


@dataclass(slots=True, eq=False)
class Field(Expr):
    """An element of a record, by its number."""

    prefix: Expr
    number: int


@dataclass(slots=True, eq=False)
class Deref(Expr):
    """What a pointer points to."""

    prefix: Expr


@dataclass(slots=True, eq=False)
class Call(Expr):
    """A function of the user or of a package. An argument for a signal parameter stays a name."""

    function: Subprogram
    args: list[Expr]
    receiver: Expr | None = None


@dataclass(slots=True, eq=False)
class Op(Expr):
    """A predefined operation; all operands have settled types."""

    op: str
    args: list[Expr]


@dataclass(slots=True, eq=False)
class ArrayAgg(Expr):
    """An array aggregate. `items` are (range or index or None for the next position, value, is_slice); `others`
    fills."""

    items: list[tuple[RangeX | Expr | None, Expr, bool]]
    others: Expr | None
    ranges: list[RangeX] | None


@dataclass(slots=True, eq=False)
class RecordAgg(Expr):
    """A record aggregate, a value for each element in order."""

    values: list[Expr]


@dataclass(slots=True, eq=False)
class Convert(Expr):
    """A type conversion."""

    arg: Expr
    target: Subtype


@dataclass(slots=True, eq=False)
class Qual(Expr):
    """A value that must belong to a subtype."""

    arg: Expr
    target: Subtype


@dataclass(slots=True, eq=False)
class ArrayAttr(Expr):
    """`left`, `right`, `low`, `high`, `length` or `ascending` of an array that is only known in the run."""

    name: str
    prefix: Expr
    dimension: int


@dataclass(slots=True, eq=False)
class ScalarAttr(Expr):
    """`image`, `value`, `pos`, `val`, `succ`, `pred`, `leftof`, `rightof` of a scalar subtype."""

    name: str
    subtype: Subtype
    arg: Expr


@dataclass(slots=True, eq=False)
class SignalAttr(Expr):
    """`event`, `active`, `last_value`, `last_event`, `last_active`, `stable`, `quiet`, `driving`, `driving_value`."""

    name: str
    target: Expr
    arg: Expr | None


@dataclass(slots=True, eq=False)
class New(Expr):
    """An allocator, with its first value."""

    subtype: Subtype
    value: Expr | None


@dataclass(slots=True, eq=False)
class Open(Expr):
    """An actual left open."""


@dataclass(slots=True, eq=False)
class Now(Expr):
    """The time of the run."""


@dataclass(slots=True, eq=False)
class AliasOf(Expr):
    """An array, or a slice of one, under other bounds (4.3.3). `own` is the range of what stands behind, `new` that of
    the alias; `turned` tells whether the two run in different directions. Any of them may be known only in the run."""

    prefix: Expr
    own: RangeX
    new: RangeX
    turned: bool | Expr

    def moved(self, index: Expr) -> Expr:
        """An index of the alias as one of what stands behind it: leftmost is leftmost."""
        kind = self.own.left.type
        offset = _worked_out(kind, index.pos, "-", index, self.new.left)
        if isinstance(self.turned, bool):
            return _worked_out(kind, index.pos, "-" if self.turned else "+", self.own.left, offset)
        twice = Op(
            kind,
            index.pos,
            "*",
            [Const(kind, index.pos, 2), ScalarAttr(kind, index.pos, "pos", Subtype(self.turned.type), self.turned)],
        )
        back = Op(kind, index.pos, "*", [twice, offset])
        return Op(kind, index.pos, "-", [_worked_out(kind, index.pos, "+", self.own.left, offset), back])


def _worked_out(kind: Type, pos: int, op: str, a: Expr, b: Expr) -> Expr:
    """A sum or difference, as a constant where it is one."""
    if isinstance(a, Const) and isinstance(b, Const):
        return Const(kind, pos, a.value + b.value if op == "+" else a.value - b.value)
    return Op(kind, pos, op, [a, b])


def unaliased(x: Expr) -> Expr:
    """What an alias stands for."""
    while isinstance(x, AliasOf):
        x = x.prefix
    return x


# Statements.


@dataclass(slots=True, eq=False)
class SetVariable(Stmt):
    """`target` is a name, or an aggregate of names as a list of (name, how to take its part)."""

    target: Expr
    value: Expr


@dataclass(slots=True, eq=False)
class SetSignal(Stmt):
    """Waves are (value, delay); a value None is a null transaction."""

    target: Expr
    waves: list[tuple[Expr | None, Expr | None]]
    transport: bool = False
    reject: Expr | None = None
    force: bool = False


@dataclass(slots=True, eq=False)
class If(Stmt):
    """An if statement; the last arm may have no condition."""

    arms: list[tuple[Expr | None, list[Stmt]]]


@dataclass(slots=True, eq=False)
class Case(Stmt):
    """Arms of constant choices: single values and (low, high); no choices for `others`. `places` is where each arm
    stands, if that is known."""

    selector: Expr
    arms: list[tuple[list[Any] | None, list[Stmt]]]
    matching: bool = False
    places: list[int] = field(default_factory=list)


@dataclass(slots=True, eq=False)
class Loop(Stmt):
    """A loop: for a range, while a condition holds, or for ever."""

    label: str
    parameter: Object | None
    range: RangeX | None
    condition: Expr | None
    body: list[Stmt]


@dataclass(slots=True, eq=False)
class Jump(Stmt):
    """An exit or next statement."""

    kind: Literal["exit", "next"]
    loop: Loop
    condition: Expr | None


@dataclass(slots=True, eq=False)
class Return(Stmt):
    """A return statement."""

    value: Expr | None


@dataclass(slots=True, eq=False)
class Wait(Stmt):
    """A wait statement; `forever` where nothing ends it."""

    signals: list[Expr]
    until: Expr | None
    time: Expr | None
    forever: bool = False


@dataclass(slots=True, eq=False)
class Assert(Stmt):
    """An assertion, or a report where there is no condition."""

    condition: Expr | None
    report: Expr | None
    severity: Expr | None


@dataclass(slots=True, eq=False)
class CallProcedure(Stmt):
    """A call of a procedure; `receiver` is the protected object that it belongs to."""

    procedure: Subprogram
    args: list[Expr]
    receiver: Expr | None = None


@dataclass(slots=True, eq=False)
class Null(Stmt):
    """A statement that does nothing."""


@dataclass(slots=True, eq=False)
class Declare(Stmt):
    """A variable, constant or file that begins to exist here, with its first value."""

    object: Object
    value: Expr | None


@dataclass(slots=True, eq=False)
class DeclareSub(Stmt):
    """A subprogram declared inside a process or subprogram."""

    subprogram: Subprogram


@dataclass(slots=True, eq=False)
class Process:
    """A process ready to be run or lowered. `sensitivity` is None where its body waits by itself."""

    name: str
    pos: int
    sensitivity: list[Expr] | None
    decls: list[Stmt]
    body: list[Stmt]
    driven: dict[Object, list[tuple[Any, ...]]] = field(default_factory=dict)
    reads: dict[Object, int] = field(default_factory=dict)
    calls: list[Subprogram] = field(default_factory=list)
    clean: bool = True
    postponed: bool = False
    concurrent: bool = False
    path: str = ""
