"""What the rooms of reals and of system calls ask of the lowering of expressions that they belong to."""

from __future__ import annotations

from typing import Protocol

from obento.core.ir import nodes as ir
from obento.core.ir.signal import Signal
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Entry, Parameter, Scope, Vector
from obento.core.verilog.syntax import ast


class Reals(Protocol):
    """Which expressions are real numbers, and what they become."""

    def is_real(self, e: ast.Expr) -> bool:
        """Whether the value of an expression is a real number."""

    def lower(self, e: ast.Expr) -> ir.Expr:
        """An expression as a real number."""


class SystemCalls(Protocol):
    """System functions whose value is a real number."""

    def lower_real(self, e: ast.Call) -> ir.Expr:
        """A system function whose value is a real number."""


class Expressions(Protocol):
    """Expressions in one scope; see `ExpressionLowering` for what each of these does."""

    @property
    def scope(self) -> Scope:
        """Where names are looked up."""

    @property
    def reals(self) -> Reals:
        """The room of real numbers."""

    @property
    def system(self) -> SystemCalls:
        """The room of system calls."""

    def error(self, code: str, text: str, node: ast.Node, hint: str = "") -> ElaborationError:
        """Report an error at a node; raise what is given back to leave off there."""

    def self_determined(self, e: ast.Expr) -> ir.Expr:
        """An expression as wide as it is of itself (5.4.1)."""

    def to_width(self, e: ast.Expr, width: int) -> ir.Expr:
        """A right side for a target of `width` bits."""

    def argument(self, e: ast.Expr, param: Signal) -> ir.Expr:
        """An actual argument as the formal one takes it."""

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

    def callee(self, e: ast.Call) -> ir.Function:
        """The function that is called, lowered."""

    def element_of(self, e: ast.Expr) -> Vector | None:
        """The array that an expression selects a whole element of, else None."""

    def select(self, e: ast.Index | ast.Part) -> ir.Expr:
        """An element, a digit or a part of a signal."""

    def targets(self, e: ast.Expr) -> list[ir.Target]:
        """The stretches that a left side writes, leftmost first."""
