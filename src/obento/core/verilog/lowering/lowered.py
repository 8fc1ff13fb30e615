"""What the rooms of reals and of system calls ask of the lowering of expressions that they belong to."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from obento.core.diagnostics import Collector
from obento.core.ir import nodes as ir
from obento.core.limits import Limits
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Entry, FunctionEntry, Parameter, Scope, Vector
from obento.core.verilog.model.types import Collected, DataType, Shape
from obento.core.verilog.syntax import ast


class Reals(Protocol):
    """Which expressions are real numbers, and what they become."""

    def is_real(self, e: ast.Expr) -> bool:
        """Whether the value of an expression is a real number."""

    def lower(self, e: ast.Expr) -> ir.Expr:
        """An expression as a real number."""

    def relation(self, op: str, e: ast.Binary) -> ir.Expr:
        """A comparison with a real operand."""

    def whole_units(self, e: ast.TimeLiteral) -> int | None:
        """A time in units of the module, where it is a whole number of them."""


class Texts(Protocol):
    """Which expressions are strings, and what they become."""

    def is_text(self, e: ast.Expr) -> bool:
        """Whether the value of an expression is a string."""

    def lower(self, e: ast.Expr) -> ir.Expr:
        """An expression as a string."""

    def relation(self, op: str, e: ast.Binary) -> ir.Expr:
        """A comparison of strings."""


class SystemCalls(Protocol):
    """System functions whose value is a real number."""

    def lower_real(self, e: ast.Call) -> ir.Expr:
        """A system function whose value is a real number."""


class Selects(Protocol):
    """Names and what stands behind them."""

    def along(self, e: ast.Dotted) -> tuple[Entry | None, int]:
        """What a path means, and how many of its names lead there."""

    def before_last(self, path: ast.Dotted) -> ast.Expr | None:
        """What the last name of a path is asked of, where that is a variable or parameter."""

    def shape(self, e: ast.Expr) -> Shape:
        """What a name, or a selection, is."""

    def is_kept(self, e: ast.Expr) -> bool:
        """Whether this is a string or a real number that is a member of a structure."""

    def value_type(self, e: ast.Expr) -> DataType:
        """The type of a name or selection that must be a number."""

    def select(self, e: ast.Expr) -> ir.Expr:
        """A member, an element, a digit or a part of a signal."""


class Aggregates(Protocol):
    """Whole arrays and structures."""

    def lower(self, e: ast.Expr, shape: Shape) -> ir.Expr:
        """A value for something of this shape, which is an aggregate or takes a pattern."""


class Doings(Protocol):
    """What expressions do beside giving a value."""

    before: list[ir.Stmt]

    def variable(self, name: str, shape: Shape, position: int) -> Vector:
        """A variable without a name, one for all calls."""

    def only_where(self, since: int, cond: ir.Expr, unless: int, position: int) -> ir.Expr:
        """What has been done since then is done only where a condition is not `unless`."""


@dataclass(frozen=True, slots=True)
class Method:
    """A method that is called of something, where it stands, and what is asked of each element of a collection."""

    base: ast.Expr
    name: str
    args: list[ast.Expr | None]
    each: ast.With | None
    node: ast.Node


class Collections(Protocol):
    """Queues, dynamic arrays and maps."""

    def element(self, whole: ir.Expr, of: Collected, index: ast.Expr) -> ir.Expr:
        """`q[index]`."""

    def part(self, whole: ir.Expr, of: Collected, e: ast.Part) -> ir.Expr:
        """`q[first:last]`."""

    def asked(self, m: Method) -> Collected:
        """What a method is asked of: a collection, or an array of fixed size as one."""

    def shape_of_method(self, of: Collected, m: Method) -> Shape:
        """What a method gives."""

    def lower_method(self, of: Collected, m: Method) -> ir.CollectionOp:
        """A method, as an expression."""

    def lower(self, e: ast.Expr, of: Collected) -> ir.Expr:
        """A value for a collection."""

    def equal(self, e: ast.Binary) -> ir.Expr | None:
        """`==` of two collections; None where these are none."""


class Expressions(Protocol):
    """Expressions in one scope; see `ExpressionLowering` for what each of these does."""

    @property
    def effects(self) -> Doings | None:
        """What they do, inside of a process, function or task."""

    @property
    def scope(self) -> Scope:
        """Where names are looked up."""

    @property
    def alive(self) -> list[ast.Expr]:
        """Expressions of which something is known by their identity."""

    @property
    def reals(self) -> Reals:
        """The room of real numbers."""

    @property
    def texts(self) -> Texts:
        """The room of strings."""

    @property
    def system(self) -> SystemCalls:
        """The room of system calls."""

    @property
    def selects(self) -> Selects:
        """The room of selections."""

    @property
    def collections(self) -> Collections:
        """The room of collections."""

    @property
    def aggregates(self) -> Aggregates:
        """The room of arrays and structures."""

    def function(self, e: ast.Call) -> FunctionEntry:
        """The function that is called."""

    def lowered_function(self, entry: FunctionEntry) -> ir.Function:
        """A function, lowered the first time it is asked for."""

    def error(self, code: str, text: str, node: ast.Node, hint: str = "") -> ElaborationError:
        """Report an error at a node; raise what is given back to leave off there."""

    def self_determined(self, e: ast.Expr) -> ir.Expr:
        """An expression as wide as it is of itself (5.4.1)."""

    def to_width(self, e: ast.Expr, width: int) -> ir.Expr:
        """A right side for a target of `width` bits."""

    def inside(self, scope: Scope) -> Expressions:
        """The same in an inner scope."""

    @property
    def collector(self) -> Collector:
        """Where messages go."""

    @property
    def limits(self) -> Limits:
        """How large things may be."""

    def given(self, e: ast.Call) -> list[ir.Expr]:
        """The arguments of a call, as the function takes them."""

    def lower(self, e: ast.Expr, width: int, signed: bool) -> ir.Expr:
        """An expression in the size and sign of its context."""

    def integer(self, e: ast.Expr, what: str) -> int:
        """A constant as a whole number."""

    def shape_of(self, e: ast.Expr) -> Shape | None:
        """What a value is, where it has a type of its own."""

    def type_shape(self, e: ast.TypeArgument) -> Shape:
        """A type where a value could stand."""

    def to_shape(self, e: ast.Expr, shape: Shape) -> ir.Expr:
        """A right side for something of this shape."""

    def digits(self, e: ast.Expr) -> ir.Expr:
        """All digits of a value that `shape_of` knows."""

    def truth(self, e: ast.Expr) -> ir.Expr:
        """A condition."""

    def size(self, e: ast.Expr) -> tuple[int, bool]:
        """Width and sign that an expression has of itself."""

    def size_of_call(self, e: ast.Call) -> tuple[int, bool]:
        """Size and sign of what a function gives."""

    def find_callable(self, e: ast.Call | ast.TaskCall) -> Entry | None:
        """The function or task that a call names."""

    def find(self, e: ast.Name | ast.Dotted) -> Entry | None:
        """What a name stands for, if anything."""

    def entry(self, e: ast.Name | ast.Dotted) -> Vector | Parameter:
        """What a name in an expression stands for."""

    def called(self, e: ast.Call, width: int) -> ir.Expr:
        """The value of a function that the text has."""

    def target_shape(self, e: ast.Expr) -> Shape:
        """What a left side takes."""

    def select(self, e: ast.Expr) -> ir.Expr:
        """A name or a selection, as what it is."""

    def targets(self, e: ast.Expr) -> list[ir.Target]:
        """The stretches that a left side writes, leftmost first."""

    def places(self, e: ast.Expr) -> list[ir.Target]:
        """The same, of what is written to by something else than an assignment."""
