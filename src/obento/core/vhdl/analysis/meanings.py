"""What a name or an expression can mean, before it is known what is wanted (IEEE 1076 clause 12.5)."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import (
    AttributeName,
    Component,
    EnumLiteral,
    Labelled,
    LibraryName,
    PackageName,
    PhysUnit,
    Subprogram,
    TypeName,
)
from obento.core.vhdl.model.types import Subtype, Type


@dataclass(slots=True)
class Interp:
    """One thing an expression can mean: its type, and how to make it for a wanted subtype."""

    type: Type
    make: Callable[[Type, Subtype | None], t.Expr]
    implicit: bool = False
    operands: tuple[Type, ...] = ()


@dataclass(slots=True)
class Overloads:
    """A name that means several subprograms or literals; `receiver` is the protected object they belong to."""

    found: list[Subprogram | EnumLiteral]
    name: str
    receiver: t.Expr | None = None


Meaning = t.Expr | Overloads | TypeName | PackageName | LibraryName | Component | AttributeName | PhysUnit | Labelled
