"""The syntax tree of Verilog. Every node knows its half-open stretch of positions."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(slots=True)
class Node:
    start: int
    end: int


class Expr(Node):
    __slots__ = ()


@dataclass(slots=True)
class Number(Expr):
    """`width` is None when the literal is unsized (32 bits at least)."""

    width: int | None
    signed: bool
    one: int
    zero: int
    digits: int


@dataclass(slots=True)
class Fill(Expr):
    """`'0`, `'1`, `'x`, `'z` of .sv files: as wide as its place."""

    digit: str


@dataclass(slots=True)
class Real(Expr):
    text: str


@dataclass(slots=True)
class String(Expr):
    text: str


@dataclass(slots=True)
class Name(Expr):
    name: str


@dataclass(slots=True)
class Dotted(Expr):
    """A hierarchical name."""

    parts: list[str]


@dataclass(slots=True)
class Index(Expr):
    base: Expr
    index: Expr


@dataclass(slots=True)
class Part(Expr):
    """`base[left:right]`, `base[left +: right]` or `base[left -: right]`; `how` is `:`, `+:` or `-:`."""

    base: Expr
    left: Expr
    right: Expr
    how: str


@dataclass(slots=True)
class Unary(Expr):
    op: str
    a: Expr


@dataclass(slots=True)
class Binary(Expr):
    op: str
    a: Expr
    b: Expr


@dataclass(slots=True)
class Conditional(Expr):
    cond: Expr
    a: Expr
    b: Expr


@dataclass(slots=True)
class Concat(Expr):
    parts: list[Expr]


@dataclass(slots=True)
class Repeat(Expr):
    count: Expr
    parts: list[Expr]


@dataclass(slots=True)
class Call(Expr):
    """Of a function, or of a system function when the name begins with `$`."""

    name: str
    args: list[Expr]


# Statements.


class Stmt(Node):
    __slots__ = ()


@dataclass(slots=True)
class Block(Stmt):
    name: str | None
    declarations: list[Item]
    body: list[Stmt]
    parallel: bool = False


@dataclass(slots=True)
class Assign(Stmt):
    target: Expr
    value: Expr
    blocking: bool


@dataclass(slots=True)
class If(Stmt):
    cond: Expr
    then: Stmt | None
    other: Stmt | None


@dataclass(slots=True)
class CaseItem(Node):
    labels: list[Expr]
    body: Stmt | None


@dataclass(slots=True)
class Case(Stmt):
    kind: str
    subject: Expr
    items: list[CaseItem]
    default: Stmt | None


@dataclass(slots=True)
class For(Stmt):
    init: Assign
    cond: Expr
    step: Assign
    body: Stmt | None


@dataclass(slots=True)
class While(Stmt):
    """`cond` is None for `forever`."""

    cond: Expr | None
    body: Stmt | None


@dataclass(slots=True)
class RepeatTimes(Stmt):
    count: Expr
    body: Stmt | None


@dataclass(slots=True)
class EventTerm(Node):
    edge: str
    expr: Expr


@dataclass(slots=True)
class EventControl(Node):
    """`terms` is None for `@*`."""

    terms: list[EventTerm] | None


@dataclass(slots=True)
class Timed(Stmt):
    """A statement behind `@...`, `#...` or `wait (...)`."""

    control: EventControl | None
    delay: Expr | None
    wait: Expr | None
    body: Stmt | None


@dataclass(slots=True)
class TaskCall(Stmt):
    """Of a task, or of a system task when the name begins with `$`."""

    name: str
    args: list[Expr | None]


@dataclass(slots=True)
class Other(Stmt):
    """A statement that is read but not carried out yet; `what` names it."""

    what: str


# Declarations and module items.


class Item(Node):
    __slots__ = ()


@dataclass(slots=True)
class Range(Node):
    left: Expr
    right: Expr


@dataclass(slots=True)
class Declarator(Node):
    name: str
    dims: list[Range]
    value: Expr | None


@dataclass(slots=True)
class Declaration(Item):
    """Nets, variables and ports. `kind` is a net type, `reg`, `logic`, `integer`, `time`, `real`, `event`, `genvar` or empty."""

    kind: str
    direction: str
    signed: bool
    range: Range | None
    names: list[Declarator]


@dataclass(slots=True)
class Parameter(Item):
    local: bool
    signed: bool
    range: Range | None
    typed: bool
    name: str
    value: Expr


@dataclass(slots=True)
class ContinuousAssign(Item):
    target: Expr
    value: Expr
    delayed: bool


@dataclass(slots=True)
class GateInstance(Item):
    gate: str
    name: str | None
    terminals: list[Expr]
    delayed: bool
    range: Range | None


@dataclass(slots=True)
class Connection(Node):
    """`port` is None when connected by order; `value` is None when left open. `everything` is `.*`."""

    port: str | None
    value: Expr | None
    everything: bool = False


@dataclass(slots=True)
class Instance(Item):
    module: str
    name: str
    parameters: list[Connection]
    connections: list[Connection]
    range: Range | None


@dataclass(slots=True)
class Process(Item):
    """`kind` is always, initial, always_comb, always_ff or always_latch."""

    kind: str
    body: Stmt | None


@dataclass(slots=True)
class FunctionItem(Item):
    name: str
    automatic: bool
    signed: bool
    range: Range | None
    integer: bool
    declarations: list[Item]
    body: list[Stmt]
    task: bool


@dataclass(slots=True)
class GenerateBlock(Item):
    name: str | None
    items: list[Item]


@dataclass(slots=True)
class GenerateFor(Item):
    init: Assign
    cond: Expr
    step: Assign
    body: GenerateBlock


@dataclass(slots=True)
class GenerateIf(Item):
    cond: Expr
    then: GenerateBlock | None
    other: GenerateBlock | None


@dataclass(slots=True)
class GenerateCase(Item):
    subject: Expr
    arms: list[tuple[list[Expr], GenerateBlock | None]]
    default: GenerateBlock | None


@dataclass(slots=True)
class DefParam(Item):
    path: list[str]
    value: Expr


@dataclass(slots=True)
class Module(Node):
    name: str
    name_start: int
    name_end: int
    ports: list[str] = field(default_factory=list)
    port_spans: list[tuple[int, int]] = field(default_factory=list)
    items: list[Item] = field(default_factory=list)
    implicit_nets: bool = True
    system_verilog: bool = False
    broken: bool = False
