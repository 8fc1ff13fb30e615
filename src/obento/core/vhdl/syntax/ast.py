"""The syntax tree of VHDL. Positions are those of `Sources`; names are in lower case."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal


@dataclass(slots=True, eq=False)
class Node:
    """Anything, with its half-open stretch of positions."""

    pos: int
    end: int


# Expressions.


@dataclass(slots=True, eq=False)
class Id(Node):
    """A simple name, an operator symbol such as `"+"`, or a character literal with its quotes."""

    name: str


@dataclass(slots=True, eq=False)
class Selected(Node):
    """`prefix.suffix`; `all` is the suffix that follows an access value."""

    prefix: Expr
    suffix: str


@dataclass(slots=True, eq=False)
class Paren(Node):
    """`prefix(...)`: a call, an element, a slice or a conversion; which one shows when the prefix is known."""

    prefix: Expr
    args: list[Assoc]


@dataclass(slots=True, eq=False)
class Attribute(Node):
    """`prefix'name`, with an argument and a signature where there are some."""

    prefix: Expr
    name: str
    arg: Expr | None = None
    signature: list[Expr] | None = None


@dataclass(slots=True, eq=False)
class External(Node):
    """`<< signal .top.u1.s : subtype >>` (IEEE 1076-2008 8.7): the words of the path, below the top where `up` is None,
    else below so many levels above."""

    kind: str
    up: int | None
    path: list[str]
    subtype: SubtypeInd


@dataclass(slots=True, eq=False)
class Qualified(Node):
    """`mark'(value)`."""

    mark: Expr
    value: Expr


@dataclass(slots=True, eq=False)
class Number(Node):
    """A number, whatever base it is written in."""

    value: int | float


@dataclass(slots=True, eq=False)
class Physical(Node):
    """A number with a unit."""

    value: int | float
    unit: Expr


@dataclass(slots=True, eq=False)
class String(Node):
    """`bits` tells a bit string, whose characters are already written out."""

    value: str
    bits: bool = False


@dataclass(slots=True, eq=False)
class Aggregate(Node):
    """Values in brackets."""

    items: list[Assoc]


@dataclass(slots=True, eq=False)
class Unary(Node):
    """An operator before its operand."""

    op: str
    value: Expr


@dataclass(slots=True, eq=False)
class Binary(Node):
    """An operator between its operands."""

    op: str
    left: Expr
    right: Expr


@dataclass(slots=True, eq=False)
class New(Node):
    """An allocator: a subtype, or a qualified expression."""

    subtype: SubtypeInd | None
    value: Qualified | None


@dataclass(slots=True, eq=False)
class Null(Node):
    """`null` as a value."""


@dataclass(slots=True, eq=False)
class Open(Node):
    """`open` where something could be connected."""


@dataclass(slots=True, eq=False)
class Range(Node):
    """`left to right` or `left downto right`."""

    left: Expr
    right: Expr
    down: bool


@dataclass(slots=True, eq=False)
class Box(Node):
    """`<>`, the range still left open."""


@dataclass(slots=True, eq=False)
class SubtypeInd(Node):
    """A subtype: `resolution mark constraint`. `ranges` is None without constraint; one Range under `scalar`."""

    mark: Expr
    resolution: Expr | None = None
    ranges: list[Expr | SubtypeInd] | None = None
    scalar: bool = False
    element_ranges: list[list[Expr | SubtypeInd]] = field(default_factory=list)


@dataclass(slots=True, eq=False)
class Others(Node):
    """`others`."""


Choice = "Expr | Range | SubtypeInd | Others"


@dataclass(slots=True, eq=False)
class Assoc(Node):
    """One item in brackets: `choices => value`; no choices when by position."""

    choices: list[Expr]
    value: Expr


Expr = (
    Id
    | Selected
    | Paren
    | Attribute
    | External
    | Qualified
    | Number
    | Physical
    | String
    | Aggregate
    | Unary
    | Binary
    | New
    | Null
    | Open
    | Range
    | SubtypeInd
    | Others
    | Box
)


# Statements.


@dataclass(slots=True, eq=False)
class Wave(Node):
    """One element of a waveform."""

    value: Expr
    after: Expr | None


@dataclass(slots=True, eq=False)
class Waveform(Node):
    """`waves` is empty for `unaffected`."""

    waves: list[Wave]


@dataclass(slots=True, eq=False)
class Conditional(Node):
    """`value when condition else ...`; the last condition may be missing."""

    arms: list[tuple[Waveform | Expr, Expr | None]]


@dataclass(slots=True, eq=False)
class Selection(Node):
    """`with selector select ... value when choices`."""

    selector: Expr
    arms: list[tuple[Waveform | Expr, list[Expr]]]
    matching: bool = False


@dataclass(slots=True, eq=False)
class SignalAssign(Node):
    """An assignment to a signal, sequential or concurrent."""

    label: str
    target: Expr
    value: Waveform | Conditional | Selection
    transport: bool = False
    reject: Expr | None = None
    guarded: bool = False


@dataclass(slots=True, eq=False)
class VariableAssign(Node):
    """An assignment to a variable."""

    label: str
    target: Expr
    value: Expr | Conditional | Selection


@dataclass(slots=True, eq=False)
class If(Node):
    """An if statement; the last arm may have no condition."""

    label: str
    arms: list[tuple[Expr | None, list[Stmt]]]


@dataclass(slots=True, eq=False)
class Case(Node):
    """A case statement; `matching` for `case?`."""

    label: str
    selector: Expr
    arms: list[tuple[list[Expr], list[Stmt], int]]
    matching: bool = False


@dataclass(slots=True, eq=False)
class Loop(Node):
    """`for` when `parameter` is named, `while` when there is a condition, else without end."""

    label: str
    parameter: str
    range: Expr | SubtypeInd | None
    condition: Expr | None
    body: list[Stmt]


@dataclass(slots=True, eq=False)
class Jump(Node):
    """`exit` or `next`."""

    kind: Literal["exit", "next"]
    target: str
    condition: Expr | None


@dataclass(slots=True, eq=False)
class Return(Node):
    """A return statement."""

    value: Expr | None


@dataclass(slots=True, eq=False)
class Wait(Node):
    """A wait statement with whatever clauses it has."""

    on: list[Expr]
    until: Expr | None
    time: Expr | None


@dataclass(slots=True, eq=False)
class Assert(Node):
    """`condition` is None for a report."""

    label: str
    condition: Expr | None
    report: Expr | None
    severity: Expr | None
    postponed: bool = False


@dataclass(slots=True, eq=False)
class Call(Node):
    """A procedure call, also as a concurrent statement."""

    label: str
    name: Expr
    postponed: bool = False


@dataclass(slots=True, eq=False)
class NullStmt(Node):
    """A statement that does nothing."""


Stmt = SignalAssign | VariableAssign | If | Case | Loop | Jump | Return | Wait | Assert | Call | NullStmt


# Declarations.


@dataclass(slots=True, eq=False)
class Interface(Node):
    """A port, generic or parameter. `kind` is signal, variable, constant, file, or empty where the place decides."""

    name: str
    kind: str
    mode: str
    subtype: SubtypeInd
    default: Expr | None


@dataclass(slots=True, eq=False)
class ObjectDecl(Node):
    """Signals, variables, constants or files declared together."""

    kind: Literal["signal", "variable", "shared", "constant", "file"]
    names: list[tuple[str, int]]
    subtype: SubtypeInd
    default: Expr | None
    mode: Expr | None = None
    guard: str = ""


@dataclass(slots=True, eq=False)
class EnumDef(Node):
    """An enumeration with its literals and their positions."""

    literals: list[tuple[str, int]]


@dataclass(slots=True, eq=False)
class RangeDef(Node):
    """An integer or floating-point type by its range."""

    range: Expr


@dataclass(slots=True, eq=False)
class PhysicalDef(Node):
    """A physical type with its units."""

    range: Expr
    primary: str
    units: list[tuple[str, int | float, str, int]]


@dataclass(slots=True, eq=False)
class ArrayDef(Node):
    """Index ranges (or marks under `unconstrained`) and the element's subtype."""

    indices: list[Expr | SubtypeInd]
    unconstrained: bool
    element: SubtypeInd


@dataclass(slots=True, eq=False)
class RecordDef(Node):
    """A record type with its elements."""

    fields: list[tuple[str, int, SubtypeInd]]


@dataclass(slots=True, eq=False)
class AccessDef(Node):
    """A type of pointers."""

    subtype: SubtypeInd


@dataclass(slots=True, eq=False)
class FileDef(Node):
    """A type of files."""

    mark: Expr


@dataclass(slots=True, eq=False)
class ProtectedDef(Node):
    """A protected type or its body."""

    items: list[Decl]
    is_body: bool


@dataclass(slots=True, eq=False)
class TypeDecl(Node):
    """`definition` is None for an incomplete type."""

    name: str
    definition: EnumDef | RangeDef | PhysicalDef | ArrayDef | RecordDef | AccessDef | FileDef | ProtectedDef | None


@dataclass(slots=True, eq=False)
class SubtypeDecl(Node):
    """A subtype declaration."""

    name: str
    subtype: SubtypeInd


@dataclass(slots=True)
class Disconnect(Node):
    """`disconnect names : mark after time;` (5.3); no names where it says `others` or `all`."""

    names: list[tuple[str, int]]
    mark: SubtypeInd
    after: Expr


@dataclass(slots=True, eq=False)
class AliasDecl(Node):
    """An alias."""

    name: str
    subtype: SubtypeInd | None
    target: Expr
    signature: list[Expr] | None


@dataclass(slots=True, eq=False)
class AttributeDecl(Node):
    """An attribute of the user."""

    name: str
    mark: Expr


@dataclass(slots=True, eq=False)
class AttributeSpec(Node):
    """The value of an attribute for some entities."""

    name: str
    entities: list[str]
    entity_class: str
    value: Expr


@dataclass(slots=True, eq=False)
class SubprogramDecl(Node):
    """`body` is None for the declaration alone; `returns` is None for a procedure."""

    name: str
    params: list[Interface]
    returns: Expr | None
    pure: bool
    decls: list[Decl] = field(default_factory=list)
    body: list[Stmt] | None = None


@dataclass(slots=True, eq=False)
class ComponentDecl(Node):
    """A component with its generics and ports."""

    name: str
    generics: list[Interface]
    ports: list[Interface]


@dataclass(slots=True, eq=False)
class UseClause(Node):
    """A use clause."""

    names: list[Expr]


@dataclass(slots=True, eq=False)
class Binding(Node):
    """`use entity lib.name(arch)` with maps."""

    entity: Expr | None
    architecture: str
    configuration: Expr | None
    generics: list[Assoc]
    ports: list[Assoc]


@dataclass(slots=True, eq=False)
class ConfigSpec(Node):
    """`for labels : component use ...`."""

    labels: list[str]
    component: Expr
    binding: Binding | None
    inner: BlockConfig | None = None


@dataclass(slots=True, eq=False)
class BlockConfig(Node):
    """The configuration of a block or architecture."""

    name: str
    items: list[ConfigSpec | BlockConfig]


@dataclass(slots=True, eq=False)
class InnerPackage(Node):
    """A package, or the body of one, inside of another unit (IEEE 1076-2008 4.7)."""

    name: str
    decls: list[Decl]
    is_body: bool


Decl = (
    ObjectDecl
    | TypeDecl
    | SubtypeDecl
    | AliasDecl
    | AttributeDecl
    | AttributeSpec
    | SubprogramDecl
    | ComponentDecl
    | UseClause
    | ConfigSpec
    | Disconnect
    | InnerPackage
)


# Concurrent statements.


@dataclass(slots=True, eq=False)
class Process(Node):
    """`sensitivity` is None without a list; `all_signals` for `process (all)`."""

    label: str
    sensitivity: list[Expr] | None
    all_signals: bool
    decls: list[Decl]
    body: list[Stmt]
    postponed: bool = False


@dataclass(slots=True, eq=False)
class Instance(Node):
    """`what` names the unit; `kind` is component, entity or configuration."""

    label: str
    kind: Literal["component", "entity", "configuration"]
    what: Expr
    architecture: str
    generics: list[Assoc]
    ports: list[Assoc]


@dataclass(slots=True, eq=False)
class GenerateArm(Node):
    """What is generated under one condition or choice."""

    label: str
    condition: Expr | None
    choices: list[Expr]
    decls: list[Decl]
    body: list[Concurrent]


@dataclass(slots=True, eq=False)
class Generate(Node):
    """`for` with a parameter, `if` with arms, `case` with a selector and arms of choices."""

    label: str
    parameter: str
    range: Expr | SubtypeInd | None
    selector: Expr | None
    arms: list[GenerateArm]


@dataclass(slots=True, eq=False)
class Block(Node):
    """A block with its generics, ports and guard."""

    label: str
    guard: Expr | None
    generics: list[Interface]
    ports: list[Interface]
    generic_map: list[Assoc]
    port_map: list[Assoc]
    decls: list[Decl]
    body: list[Concurrent]


Concurrent = Process | Instance | Generate | Block | SignalAssign | Assert | Call


# Design units.


@dataclass(slots=True, eq=False)
class Unit(Node):
    """`context` holds the library and use clauses before the unit; `libraries` the names made visible."""

    name: str
    name_pos: int
    libraries: list[str]
    context: list[UseClause]


@dataclass(slots=True, eq=False)
class Entity(Unit):
    """An entity declaration."""

    generics: list[Interface]
    ports: list[Interface]
    decls: list[Decl]
    body: list[Concurrent]


@dataclass(slots=True, eq=False)
class Architecture(Unit):
    """An architecture of an entity."""

    entity: str
    decls: list[Decl]
    body: list[Concurrent]


@dataclass(slots=True, eq=False)
class Package(Unit):
    """A package declaration."""

    decls: list[Decl]


@dataclass(slots=True, eq=False)
class PackageBody(Unit):
    """A package body."""

    decls: list[Decl]


@dataclass(slots=True, eq=False)
class Configuration(Unit):
    """A configuration of an entity."""

    entity: str
    block: BlockConfig
