"""The syntax tree of Verilog. Every node knows its half-open stretch of positions."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal


@dataclass(slots=True)
class Node:
    """Anything, with its half-open stretch of positions."""

    start: int
    end: int


class Expr(Node):
    """Any expression."""

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
    """A number with a fraction or an exponent, as written."""

    text: str


@dataclass(slots=True)
class String(Expr):
    """A string, its escapes carried out."""

    text: str


@dataclass(slots=True)
class Name(Expr):
    """A simple name."""

    name: str


@dataclass(slots=True)
class Dotted(Expr):
    """A hierarchical name; a part that names one block or instance of several has its index in `indices`."""

    parts: list[str]
    indices: list[Expr | None]


@dataclass(slots=True)
class Index(Expr):
    """`base[index]`."""

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
    """An operator before its operand."""

    op: str
    a: Expr


@dataclass(slots=True)
class Binary(Expr):
    """An operator between its operands."""

    op: str
    a: Expr
    b: Expr


@dataclass(slots=True)
class Conditional(Expr):
    """`cond ? a : b`."""

    cond: Expr
    a: Expr
    b: Expr


@dataclass(slots=True)
class Concat(Expr):
    """`{a, b}`."""

    parts: list[Expr]


@dataclass(slots=True)
class Repeat(Expr):
    """`{count{a, b}}`."""

    count: Expr
    parts: list[Expr]


@dataclass(slots=True)
class Call(Expr):
    """Of a function, or of a system function when the name begins with `$`. `path` where it is somewhere else in the
    hierarchy, or is asked of what another call gives; `named` the arguments given by their names."""

    name: str
    args: list[Expr | None]
    path: Dotted | Member | None = None
    named: dict[str, Expr | None] = field(default_factory=dict)
    each: With | None = None


@dataclass(slots=True)
class Cast(Expr):
    """`to'(value)` of .sv files. `to` is a type's name, `signed`, `unsigned`, or a constant that says how many
    digits."""

    to: str | Expr
    value: Expr


@dataclass(slots=True)
class Member(Expr):
    """`base.name`, where the base is more than a path of names."""

    base: Expr
    name: str


@dataclass(slots=True)
class PatternItem(Node):
    """One value of an assignment pattern, behind its key: a member's name, an index, a type's word or `default`."""

    key: Expr | str | None
    value: Expr


@dataclass(slots=True)
class Pattern(Expr):
    """`'{...}` of .sv files (1800 clause 10.9), of the type `to` where one stands before it; `count` where the items
    are repeated."""

    to: str
    items: list[PatternItem]
    count: Expr | None = None


@dataclass(slots=True)
class Stream(Expr):
    """`{<<n{...}}` or `{>>n{...}}` (1800 clause 11.4.14); `slice` is a number or a type."""

    op: str
    slice: Expr | None
    parts: list[Expr]


@dataclass(slots=True)
class Inside(Expr):
    """`value inside {...}` (1800 clause 11.4.13)."""

    value: Expr
    among: list[Expr | Range]


@dataclass(slots=True)
class TimeLiteral(Expr):
    """`10ns`: a number, and its unit as a power of ten of a second (1800 clause 5.8)."""

    text: str
    unit: int


@dataclass(slots=True)
class TypeArgument(Expr):
    """A type where a value could stand: of `$bits`, or for a type parameter."""

    type: Type


@dataclass(slots=True)
class Last(Expr):
    """`$` in the index of a queue: its last place (1800 clause 7.10.1)."""


@dataclass(slots=True)
class New(Expr):
    """`new[size](old)`: a dynamic array with so many elements (1800 clause 7.5.1)."""

    size: Expr
    old: Expr | None


@dataclass(slots=True)
class With(Node):
    """`with (test)` behind a method of a collection, and the name that stands for an element in it."""

    item: str
    test: Expr


@dataclass(slots=True)
class Effect(Expr):
    """`i++`, `--i`, `(a = b)` inside an expression of .sv files (1800 clauses 11.3.6 and 11.4.2): what is done, and
    whether the value is the one before."""

    done: Assign
    before: bool


# Statements.


class Stmt(Node):
    """Any statement."""

    __slots__ = ()


@dataclass(slots=True)
class Block(Stmt):
    """`parallel` for `fork`, which ends when all, any or none of its statements have (`join`)."""

    name: str | None
    declarations: list[Item]
    body: list[Stmt]
    parallel: bool = False
    join: str = "all"


@dataclass(slots=True)
class Assign(Stmt):
    """`timing` is what stands between the sign and the value (9.7.7)."""

    target: Expr
    value: Expr
    blocking: bool
    timing: Timing | None = None


@dataclass(slots=True)
class If(Stmt):
    """`if`, with its branches; `check` is `unique`, `unique0` or `priority` where that stands before it."""

    cond: Expr
    then: Stmt | None
    other: Stmt | None
    check: str = ""


@dataclass(slots=True)
class CaseItem(Node):
    """One arm of a case; ranges are labels of a `case ... inside`."""

    labels: list[Expr | Range]
    body: Stmt | None


@dataclass(slots=True)
class Case(Stmt):
    """`case`, `casez`, `casex` or `inside`, by `kind`."""

    kind: str
    subject: Expr
    items: list[CaseItem]
    default: Stmt | None
    check: str = ""


@dataclass(slots=True)
class For(Stmt):
    """`for`, with what begins it and what is done after each round."""

    init: list[Assign]
    cond: Expr
    step: list[Assign]
    body: Stmt | None


@dataclass(slots=True)
class Foreach(Stmt):
    """`foreach (array[i, j]) body` of .sv files (1800 clause 12.7.3); a name that is left out stands for a dimension
    that is passed over."""

    array: Expr
    names: list[str | None]
    body: Stmt | None


@dataclass(slots=True)
class While(Stmt):
    """`cond` is None for `forever`. `do` loops run once at least."""

    cond: Expr | None
    body: Stmt | None
    at_least_once: bool = False


@dataclass(slots=True)
class RepeatTimes(Stmt):
    """`repeat`."""

    count: Expr
    body: Stmt | None


@dataclass(slots=True)
class Deferred(Stmt):
    """What an assertion with `#0` or `final` does: a system task, when the step of time is over."""

    body: Stmt


@dataclass(slots=True)
class WaitOrder(Stmt):
    """`wait_order (a, b) then else other`."""

    events: list[Expr]
    then: Stmt | None
    other: Stmt | None


@dataclass(slots=True)
class EventTerm(Node):
    """One term of an event control, with its edge, and with what must be true then (`iff`, 1800 clause 9.4.2.3)."""

    edge: str
    expr: Expr
    only_if: Expr | None = None


@dataclass(slots=True)
class EventControl(Node):
    """`terms` is None for `@*`."""

    terms: list[EventTerm] | None


@dataclass(slots=True)
class Timing(Node):
    """One of `@...`, `#...` or `wait (...)`; `repeat (count) @...` inside assignments."""

    control: EventControl | None
    delay: Expr | None
    wait: Expr | None = None
    count: Expr | None = None


@dataclass(slots=True)
class Timed(Stmt):
    """A statement behind its timing."""

    timing: Timing
    body: Stmt | None


@dataclass(slots=True)
class TaskCall(Stmt):
    """Of a task, or of a system task when the name begins with `$`. `path` where it is somewhere else in the
    hierarchy."""

    name: str
    args: list[Expr | None]
    path: Dotted | Member | None = None
    named: dict[str, Expr | None] = field(default_factory=dict)
    is_void: bool = False
    """Of a function whose value is thrown away by `void'(...)`."""
    each: With | None = None


@dataclass(slots=True)
class Trigger(Stmt):
    """`-> event;`, or `->> event;`: `later`, when the step's other work is done; `timing` is what stands before the
    event (1800 clause 15.5.1)."""

    event: Expr
    later: bool = False
    timing: Timing | None = None


@dataclass(slots=True)
class Disable(Stmt):
    """`disable`, with the path of what is ended."""

    path: list[str]


@dataclass(slots=True)
class OfForked(Stmt):
    """`wait fork` or `disable fork` of .sv files, by its first word."""

    what: str


@dataclass(slots=True)
class Hold(Stmt):
    """`assign` or `force` inside a process."""

    kind: str
    target: Expr
    value: Expr


@dataclass(slots=True)
class LetGo(Stmt):
    """`deassign` or `release`."""

    kind: str
    target: Expr


@dataclass(slots=True)
class Leave(Stmt):
    """`return`, `break` or `continue` of .sv files."""

    what: str
    value: Expr | None


# Declarations and module items.


class Item(Node):
    """Anything that a module is made of."""

    __slots__ = ()


@dataclass(slots=True)
class Range(Node):
    """`[left:right]`."""

    left: Expr
    right: Expr


@dataclass(slots=True)
class Varying(Node):
    """A dimension of .sv files whose size changes: `[$]` or `[$:most]` of a `queue`, `[]` of a `dynamic` array,
    `[type]` or `[*]` of a `map` (1800 clauses 7.5, 7.8 and 7.10)."""

    kind: Literal["queue", "dynamic", "map"]
    most: Expr | None = None
    key: Type | None = None


@dataclass(slots=True)
class Declarator(Node):
    """One name of a declaration, with its dimensions and its value."""

    name: str
    dims: list[Range | Varying]
    value: Expr | None


@dataclass(slots=True)
class Type(Node):
    """A type as written. `word` is that of a type, its name (behind its package, where one is named), `struct`, `union`
    or `enum`, or empty; `ranges` are its packed dimensions, outermost first. `type(x)` (`word` is `type`) is the type
    that the expression `of` has.

    An enumeration has its `constants` and, in `members`, a declaration without names for the type of its values; a
    structure or union has its `members`, and is `packed` or not."""

    word: str
    signed: bool = False
    ranges: list[Range] = field(default_factory=list)
    members: list[Declaration] = field(default_factory=list)
    constants: list[Declarator] = field(default_factory=list)
    packed: bool = False
    of: Expr | None = None


@dataclass(slots=True)
class Declaration(Item):
    """Nets, variables and ports. `kind` is a net type, or else the word of the type (`event` and `genvar` are some), or
    empty."""

    kind: str
    direction: str
    type: Type
    names: list[Declarator]
    delays: list[Expr] = field(default_factory=list)
    strengths: tuple[str, str] | None = None
    lifetime: str = ""
    """`automatic` or `static`, where that stands before it."""
    is_constant: bool = False
    """Whether `const` stands before it (1800 clause 6.20.6)."""


@dataclass(slots=True)
class TypeDefinition(Item):
    """`typedef` of .sv files: a name for a type, with unpacked dimensions behind it."""

    name: str
    type: Type
    dims: list[Range | Varying]


@dataclass(slots=True)
class TypeParameter(Item):
    """`parameter type` of .sv files (1800 clause 6.20.3)."""

    local: bool
    name: str
    type: Type | None


@dataclass(slots=True)
class Import(Item):
    """What is taken over from a package: one name, or all where the name is `*` (1800 clause 26.3). A package may
    `export` what it has taken over, that of all packages where `package` is `*` (26.6)."""

    package: str
    name: str
    is_export: bool = False


@dataclass(slots=True)
class Modport(Item):
    """A view of an interface: the direction of each name, `import` for functions and tasks (1800 clause 25.5)."""

    name: str
    directions: dict[str, str]


@dataclass(slots=True)
class InterfacePort(Item):
    """A port of a module that is an interface: which, by its name, empty for any, and the view of it that is taken."""

    interface: str
    modport: str
    name: str
    dims: list[Range]


@dataclass(slots=True)
class Parameter(Item):
    """`typed` unless it takes the type of its value. Without a value it must be given one."""

    local: bool
    type: Type
    typed: bool
    name: str
    value: Expr | None
    dims: list[Range | Varying] = field(default_factory=list)

    @property
    def real(self) -> bool:
        """Whether it is a real number by its type."""
        return self.type.word in ("real", "realtime")


@dataclass(slots=True)
class ElaborationTask(Item):
    """`$error(...)` and its kin outside of processes (1800 clause 20.11)."""

    call: TaskCall


@dataclass(slots=True)
class ContinuousAssign(Item):
    """`delays` are one to three values (7.14); `strengths` those of 0 and of 1, by their words."""

    target: Expr
    value: Expr
    delays: list[Expr]
    strengths: tuple[str, str] | None


@dataclass(slots=True)
class GateInstance(Item):
    """A gate or switch, with its terminals in order."""

    gate: str
    name: str | None
    terminals: list[Expr]
    delays: list[Expr]
    strengths: tuple[str, str] | None
    range: Range | None


@dataclass(slots=True)
class Connection(Node):
    """`port` is None when connected by order; `value` is None when left open. `everything` is `.*`."""

    port: str | None
    value: Expr | None
    everything: bool = False
    is_implied: bool = False
    """Whether it was written `.name` alone."""


@dataclass(slots=True)
class Instance(Item):
    """A use of a module or primitive."""

    module: str
    name: str
    parameters: list[Connection]
    connections: list[Connection]
    range: Range | None
    delays: list[Expr] = field(default_factory=list)
    strengths: tuple[str, str] | None = None


@dataclass(slots=True)
class Process(Item):
    """`kind` is always, initial, always_comb, always_ff or always_latch."""

    kind: str
    body: Stmt | None


@dataclass(slots=True)
class FunctionItem(Item):
    """A function or task; the type of what a function gives may be `void`."""

    name: str
    automatic: bool
    type: Type
    declarations: list[Item]
    body: list[Stmt]
    task: bool


@dataclass(slots=True)
class GenerateBlock(Item):
    """Items that are generated together."""

    name: str | None
    items: list[Item]


@dataclass(slots=True)
class GenerateFor(Item):
    """A loop of generated items; `declares` when its head declares the genvar."""

    init: Assign
    cond: Expr
    step: Assign
    body: GenerateBlock
    declares: bool = False


@dataclass(slots=True)
class GenerateIf(Item):
    """Items chosen by a condition."""

    cond: Expr
    then: GenerateBlock | None
    other: GenerateBlock | None


@dataclass(slots=True)
class GenerateCase(Item):
    """Items chosen by a value."""

    subject: Expr
    arms: list[tuple[list[Expr], GenerateBlock | None]]
    default: GenerateBlock | None


@dataclass(slots=True)
class DefParam(Item):
    """`defparam`, with the path of the parameter; a part that names one block or instance of several has its index in
    `indices`."""

    path: list[str]
    indices: list[Expr | None]
    value: Expr


@dataclass(slots=True)
class Module(Node):
    """A module or interface with its header and items; `ports` are the names outside."""

    name: str
    name_start: int
    name_end: int
    ports: list[str] = field(default_factory=list)
    port_spans: list[tuple[int, int]] = field(default_factory=list)
    items: list[Item] = field(default_factory=list)
    port_values: dict[str, Expr] = field(default_factory=dict)
    nettype: str = "wire"
    open_inputs: str = ""
    timescale: tuple[int, int] | None = None
    system_verilog: bool = False
    reals: bool = False
    texts: bool = False
    broken: bool = False
    is_interface: bool = False


@dataclass(slots=True)
class Package(Node):
    """A package, or under the name `$unit` what a file declares outside of everything (1800 clauses 3.12.1 and 26)."""

    name: str
    name_start: int
    name_end: int
    items: list[Item]
    timescale: tuple[int, int] | None = None
    reals: bool = False
    texts: bool = False
    broken: bool = False


@dataclass(slots=True)
class Row(Node):
    """A row of a primitive's table: a symbol for each input, of the present state (sequential ones only), of the
    output.

    Symbols are single letters, or two values for an edge written in parentheses.
    """

    inputs: list[str]
    state: str | None
    output: str


@dataclass(slots=True)
class Primitive(Node):
    """A user-defined primitive (clause 8). `ports` begin with the output."""

    name: str
    name_start: int
    ports: list[str]
    sequential: bool
    initial: str | None
    rows: list[Row]
