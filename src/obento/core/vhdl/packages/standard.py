"""Package STANDARD (IEEE 1076 clause 16.3): the types that are always there."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from obento.core.ir.part import RunError
from obento.core.vhdl.model.scope import EnumLiteral, Object, PhysUnit, Scope, Subprogram, TypeName
from obento.core.vhdl.model.typed_tree import Const
from obento.core.vhdl.model.types import (
    INTEGER_HIGH,
    AccessType,
    ArrayType,
    EnumType,
    FileType,
    Guess,
    IntType,
    PhysType,
    RangeX,
    RealType,
    RecordType,
    Subtype,
    Type,
)
from obento.core.vhdl.model.values import string
from obento.core.vhdl.packages.numbers import wants_run
from obento.core.vhdl.packages.text import time_text

_CONTROLS = (
    "nul soh stx etx eot enq ack bel bs ht lf vt ff cr so si dle dc1 dc2 dc3 dc4 nak syn etb can em sub esc fsp gsp"
    " rsp usp"
).split()


def enum(name: str, literals: list[str]) -> EnumType:
    """An enumeration type with these literals."""
    return EnumType(name, literals, {literal: i for i, literal in enumerate(literals)})


def _characters() -> list[str]:
    low = [*_CONTROLS, *(f"'{chr(i)}'" for i in range(32, 127)), "del"]
    return [*low, *(f"c{i}" for i in range(128, 160)), *(f"'{chr(i)}'" for i in range(160, 256))]


BOOLEAN = enum("boolean", ["false", "true"])
BIT = enum("bit", ["'0'", "'1'"])
CHARACTER = enum("character", _characters())
SEVERITY = enum("severity_level", ["note", "warning", "error", "failure"])
FILE_KIND = enum("file_open_kind", ["read_mode", "write_mode", "append_mode"])
FILE_STATUS = enum("file_open_status", ["open_ok", "status_error", "name_error", "mode_error"])
INTEGER = IntType("integer")
REAL = RealType("real")
UNIVERSAL_INTEGER = IntType("universal integer", -(2**63), 2**63 - 1, True)
UNIVERSAL_REAL = RealType("universal real", universal=True)
_FS = {
    "fs": 1,
    "ps": 10**3,
    "ns": 10**6,
    "us": 10**9,
    "ms": 10**12,
    "sec": 10**15,
    "min": 60 * 10**15,
    "hr": 3600 * 10**15,
}
TIME = PhysType("time", units=_FS)


def const(t: Type, value: object, pos: int = 0) -> Const:
    """A constant as an expression."""
    return Const(t, pos, value)


def int_range(t: Type, left: int, right: int, down: bool = False) -> RangeX:
    """A range of whole numbers."""
    return RangeX(const(t, left), const(t, right), down)


NATURAL = Subtype(INTEGER, [int_range(INTEGER, 0, INTEGER_HIGH)], name="natural")
POSITIVE = Subtype(INTEGER, [int_range(INTEGER, 1, INTEGER_HIGH)], name="positive")
DELAY_LENGTH = Subtype(TIME, [int_range(TIME, 0, TIME.high)], name="delay_length")
STRING = ArrayType("string", [POSITIVE], Subtype(CHARACTER))
BIT_VECTOR = ArrayType("bit_vector", [NATURAL], Subtype(BIT))
BOOLEAN_VECTOR = ArrayType("boolean_vector", [NATURAL], Subtype(BOOLEAN))
INTEGER_VECTOR = ArrayType("integer_vector", [NATURAL], Subtype(INTEGER))
REAL_VECTOR = ArrayType("real_vector", [NATURAL], Subtype(REAL))
TIME_VECTOR = ArrayType("time_vector", [NATURAL], Subtype(TIME))
for _array in (STRING, BIT_VECTOR, BOOLEAN_VECTOR):
    _element = _array.element.type
    assert isinstance(_element, EnumType)
    _element.arrays.append(_array)


def standard_scope() -> Scope:
    """A fresh scope with everything of STANDARD."""
    scope = Scope(None, "standard")
    for t in (BOOLEAN, BIT, CHARACTER, SEVERITY, FILE_KIND, FILE_STATUS, INTEGER, REAL, TIME):
        scope.add(t.name, TypeName(t.name, Subtype(t)))
        declare_values(scope, t)
    for a in (STRING, BIT_VECTOR, BOOLEAN_VECTOR, INTEGER_VECTOR, REAL_VECTOR, TIME_VECTOR):
        scope.add(a.name, TypeName(a.name, Subtype(a)))
    for s in (NATURAL, POSITIVE, DELAY_LENGTH):
        scope.add(s.name, TypeName(s.name, s))
    scope.add("now", Subprogram("now", [], DELAY_LENGTH, 0, "time_now", _now, pure=False))
    text = Subtype(STRING)
    scope.add(
        "to_string",
        _formatting(
            "real_to_string", Subtype(REAL), NATURAL, text, lambda x, digits: string(f"{x:.{min(digits, 60)}f}")
        ),
    )
    scope.add("to_string", _formatting("real_by_format", Subtype(REAL), text, text, _by_format))
    scope.add(
        "to_string",
        _formatting("time_to_string", Subtype(TIME), Subtype(TIME), text, lambda x, unit: string(time_text(x, unit))),
    )
    return scope


_FORMAT = re.compile(r"%[-+ #0]*\d{0,3}(?:\.\d{1,2})?[eEfFgG]")


@wants_run
def _by_format(run: Any, position: int, x: float, how: Any) -> Any:
    """`to_string` of a real number as the C library prints it (5.7)."""
    del run
    written = bytes(how.v).decode("latin-1")
    if not _FORMAT.fullmatch(written):
        raise RunError(f"`{written}` is no format for a real number: write for instance %8.3f", position)
    return string(written % x)


def _formatting(py: str, value: Subtype, how: Subtype, text: Subtype, compute: Callable[[Any, Any], Any]) -> Subprogram:
    """`to_string` with a number of digits, or with a unit (5.7)."""
    params = [
        Object(name, "constant", s, 0, name, "in", is_param=True) for name, s in (("value", value), ("format", how))
    ]
    return Subprogram("to_string", params, text, 0, py, compute)


@wants_run
def _now(run: Any, position: int) -> int:
    return run.now()  # type: ignore[no-any-return]


def declare_values(scope: Scope, t: Type) -> None:
    """The literals of an enumeration, the units of a physical type."""
    if isinstance(t, EnumType):
        for i, literal in enumerate(t.literals):
            scope.add(literal, EnumLiteral(literal, t, i))
    elif isinstance(t, PhysType):
        for unit, size in t.units.items():
            scope.add(unit, PhysUnit(unit, t, size))


def file_subprograms(t: FileType) -> list[Subprogram]:
    """What a file type brings with it (5.5.2)."""

    def param(
        name: str, subtype: Subtype, kind: str = "constant", mode: str = "in", default: Const | None = None
    ) -> Object:
        o = Object(name, "constant", subtype, 0, name, mode, default=default, is_param=True)
        o.kind = kind  # type: ignore[assignment]
        return o

    def procedure(name: str, *params: Object) -> Subprogram:
        return Subprogram(name, list(params), None, 0, name, foreign=True)

    f = param("f", Subtype(t), "file")
    kind = param("open_kind", Subtype(FILE_KIND), default=const(FILE_KIND, 0))
    name = param("external_name", Subtype(STRING))
    found = [
        procedure("file_open", f, name, kind),
        procedure("file_open", param("status", Subtype(FILE_STATUS), "variable", "out"), f, name, kind),
        procedure("file_close", f),
        procedure("flush", f),
    ]
    if not isinstance(t.element.type, ArrayType) or t.element.ranges is not None:
        found.append(procedure("read", f, param("value", t.element, "variable", "out")))
        found.append(procedure("write", f, param("value", t.element)))
    elif t.name == "text":
        found.append(procedure("write", f, param("value", t.element)))
    return found


def compatible(given: Type, wanted: Type) -> bool:
    """Whether a value of one type can stand where another is wanted."""
    if given is wanted:
        return True
    if isinstance(given, IntType) and given.universal:
        return isinstance(wanted, IntType)
    if isinstance(given, RealType) and given.universal:
        return isinstance(wanted, RealType)
    if isinstance(given, Guess):
        return _guess_fits(given, wanted)
    return False


def _guess_fits(given: Guess, wanted: Type) -> bool:
    match given.kind:
        case "string":
            if not isinstance(wanted, ArrayType) or len(wanted.indices) != 1:
                return False
            element = wanted.element.type
            return (
                isinstance(element, EnumType)
                and element.is_character
                and all(c in element.positions for c in given.letters)
            )
        case "aggregate":
            return isinstance(wanted, ArrayType | RecordType)
        case "null":
            return isinstance(wanted, AccessType)
        case "new":
            return isinstance(wanted, AccessType) and wanted.designated.type is given.designated
    return True


def is_universal(t: Type) -> bool:
    """Whether a type is that of numeric literals."""
    return isinstance(t, IntType | RealType) and t.universal


def concrete(t: Type) -> Type:
    """The type that a universal one becomes where nothing else is wanted."""
    if isinstance(t, IntType) and t.universal:
        return INTEGER
    if isinstance(t, RealType) and t.universal:
        return REAL
    return t
