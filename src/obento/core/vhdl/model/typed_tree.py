"""Expressions and statements with every name and type settled: what runs, and what is lowered to lanes, is made from this."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Any, Literal

from obento.core.vhdl.model.types import RangeX, Subtype, Type

if TYPE_CHECKING:
    from obento.core.vhdl.model.scope import Object, Subprogram


@dataclass(slots=True, eq=False)
class X:
    """An expression of a type. `sub` is what more is known of the value: the constraint of the object it comes from."""

    type: Type
    pos: int
    sub: Subtype | None = field(default=None, kw_only=True)


@dataclass(slots=True, eq=False)
class Const(X):
    value: Any


@dataclass(slots=True, eq=False)
class Read(X):
    """The value of a variable, constant, parameter or signal."""

    object: Object


@dataclass(slots=True, eq=False)
class Index(X):
    prefix: X
    indices: list[X]


@dataclass(slots=True, eq=False)
class Slice(X):
    prefix: X
    range: RangeX


@dataclass(slots=True, eq=False)
class Field(X):
    prefix: X
    number: int


@dataclass(slots=True, eq=False)
class Deref(X):
    prefix: X


@dataclass(slots=True, eq=False)
class Call(X):
    """A function of the user or of a package. An argument for a signal parameter stays a name."""

    function: Subprogram
    args: list[X]
    receiver: X | None = None


@dataclass(slots=True, eq=False)
class Op(X):
    """A predefined operation; all operands have settled types."""

    op: str
    args: list[X]


@dataclass(slots=True, eq=False)
class ArrayAgg(X):
    """An array aggregate. `items` are (range or index or None for the next position, value, is_slice); `others` fills."""

    items: list[tuple[RangeX | X | None, X, bool]]
    others: X | None
    ranges: list[RangeX] | None


@dataclass(slots=True, eq=False)
class RecordAgg(X):
    values: list[X]


@dataclass(slots=True, eq=False)
class Convert(X):
    arg: X
    target: Subtype


@dataclass(slots=True, eq=False)
class Qual(X):
    """A value that must belong to a subtype."""

    arg: X
    target: Subtype


@dataclass(slots=True, eq=False)
class ArrayAttr(X):
    """`left`, `right`, `low`, `high`, `length` or `ascending` of an array that is only known in the run."""

    name: str
    prefix: X
    dimension: int


@dataclass(slots=True, eq=False)
class ScalarAttr(X):
    """`image`, `value`, `pos`, `val`, `succ`, `pred`, `leftof`, `rightof` of a scalar subtype."""

    name: str
    subtype: Subtype
    arg: X


@dataclass(slots=True, eq=False)
class SignalAttr(X):
    """`event`, `active`, `last_value`, `last_event`, `last_active`, `stable`, `quiet`, `driving`, `driving_value`."""

    name: str
    target: X
    arg: X | None


@dataclass(slots=True, eq=False)
class NewX(X):
    subtype: Subtype
    value: X | None


@dataclass(slots=True, eq=False)
class OpenX(X):
    """An actual left open."""


@dataclass(slots=True, eq=False)
class NowX(X):
    pass


@dataclass(slots=True, eq=False)
class AliasX(X):
    """An array, or a slice of one, under other bounds (4.3.3). `own` is the range of what stands behind, `new` that of the alias; `turned` tells
    whether the two run in different directions. Any of them may be known only in the run."""

    prefix: X
    own: RangeX
    new: RangeX
    turned: bool | X

    def moved(self, index: X) -> X:
        """An index of the alias as one of what stands behind it: leftmost is leftmost."""
        kind = self.own.left.type
        offset = _worked_out(kind, index.pos, "-", index, self.new.left)
        if isinstance(self.turned, bool):
            return _worked_out(kind, index.pos, "-" if self.turned else "+", self.own.left, offset)
        twice = Op(kind, index.pos, "*", [Const(kind, index.pos, 2), ScalarAttr(kind, index.pos, "pos", Subtype(self.turned.type), self.turned)])
        back = Op(kind, index.pos, "*", [twice, offset])
        return Op(kind, index.pos, "-", [_worked_out(kind, index.pos, "+", self.own.left, offset), back])


def _worked_out(kind: Type, pos: int, op: str, a: X, b: X) -> X:
    """A sum or difference, as a constant where it is one."""
    if isinstance(a, Const) and isinstance(b, Const):
        return Const(kind, pos, a.value + b.value if op == "+" else a.value - b.value)
    return Op(kind, pos, op, [a, b])


def unaliased(x: X) -> X:
    """What an alias stands for."""
    while isinstance(x, AliasX):
        x = x.prefix
    return x


# Statements.


@dataclass(slots=True, eq=False)
class Stmt:
    pos: int


@dataclass(slots=True, eq=False)
class SetVariable(Stmt):
    """`target` is a name, or an aggregate of names as a list of (name, how to take its part)."""

    target: X
    value: X


@dataclass(slots=True, eq=False)
class SetSignal(Stmt):
    """Waves are (value, delay); a value None is a null transaction."""

    target: X
    waves: list[tuple[X | None, X | None]]
    transport: bool = False
    reject: X | None = None
    force: bool = False


@dataclass(slots=True, eq=False)
class IfS(Stmt):
    arms: list[tuple[X | None, list[Stmt]]]


@dataclass(slots=True, eq=False)
class CaseS(Stmt):
    """Arms of constant choices: single values and (low, high); no choices for `others`."""

    selector: X
    arms: list[tuple[list[Any] | None, list[Stmt]]]
    matching: bool = False


@dataclass(slots=True, eq=False)
class LoopS(Stmt):
    label: str
    parameter: Object | None
    range: RangeX | None
    condition: X | None
    body: list[Stmt]


@dataclass(slots=True, eq=False)
class JumpS(Stmt):
    kind: Literal["exit", "next"]
    loop: LoopS
    condition: X | None


@dataclass(slots=True, eq=False)
class ReturnS(Stmt):
    value: X | None


@dataclass(slots=True, eq=False)
class WaitS(Stmt):
    signals: list[X]
    until: X | None
    time: X | None
    forever: bool = False


@dataclass(slots=True, eq=False)
class AssertS(Stmt):
    condition: X | None
    report: X | None
    severity: X | None


@dataclass(slots=True, eq=False)
class CallS(Stmt):
    procedure: Subprogram
    args: list[X]
    receiver: X | None = None


@dataclass(slots=True, eq=False)
class NullS(Stmt):
    pass


@dataclass(slots=True, eq=False)
class Declare(Stmt):
    """A variable, constant or file that begins to exist here, with its first value."""

    object: Object
    value: X | None


@dataclass(slots=True, eq=False)
class DeclareSub(Stmt):
    """A subprogram declared inside a process or subprogram."""

    subprogram: Subprogram


@dataclass(slots=True, eq=False)
class ProcessT:
    """A process ready to be run or lowered. `sensitivity` is None where its body waits by itself."""

    name: str
    pos: int
    sensitivity: list[X] | None
    decls: list[Stmt]
    body: list[Stmt]
    driven: dict[Object, list[tuple[Any, ...]]] = field(default_factory=dict)
    reads: dict[Object, int] = field(default_factory=dict)
    calls: list[Subprogram] = field(default_factory=list)
    clean: bool = True
    postponed: bool = False
    concurrent: bool = False
    path: str = ""
