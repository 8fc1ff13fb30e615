"""Rows of the database as frozen records: a field for each column, with the type that the rest of the program knows."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import Field
from decimal import Decimal
from functools import cache
from typing import Any, ClassVar, Protocol, TypeVar, get_args, get_type_hints


class Record(Protocol):
    """Any dataclass."""

    __dataclass_fields__: ClassVar[dict[str, Field[Any]]]


R = TypeVar("R", bound=Record)


class Json:
    """Marks a field whose column holds JSON: `Annotated[list[int], Json(list)]`. `make` turns what was parsed into what
    the field holds; without anything in the column it is called with nothing, or, where there is no `make`, the field
    is None."""

    def __init__(self, make: Callable[..., Any] | None = None) -> None:
        self._make = make

    def __call__(self, text: str | None) -> Any:
        if text is None:
            return self._make() if self._make is not None else None
        data = json.loads(text)
        return self._make(data) if self._make is not None else data


def _float(value: Any) -> Any:
    return float(value) if isinstance(value, Decimal | int) else value


@cache
def _converters(cls: type[Any]) -> dict[str, Callable[[Any], Any]]:
    """What to do with the columns that do not come as the record has them."""
    found: dict[str, Callable[[Any], Any]] = {}
    for name, hint in get_type_hints(cls, include_extras=True).items():
        marks = [m for m in getattr(hint, "__metadata__", ()) if isinstance(m, Json)]
        if marks:
            found[name] = marks[0]
        elif hint is bool:
            found[name] = bool
        elif hint is float or float in get_args(hint):
            found[name] = _float
    return found


def record(cls: type[R], row: dict[str, Any]) -> R:
    """One row as a record: booleans are no numbers, decimals are floats, JSON is parsed.

    Raises
    ------
    TypeError
        If columns and fields are not the same.
    """
    for name, convert in _converters(cls).items():
        row[name] = convert(row[name])
    return cls(**row)
