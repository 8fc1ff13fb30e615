"""Parts of values: paths to them, exchanging them, and how the values of several drivers become one (IEEE 1076 clause
14.7.3)."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any

from obento.core.vhdl.model.values import UNDRIVEN, Arr

Path = tuple[Any, ...]
"""Steps ("i", index), ("s", left, right, step) and ("f", number of a field)."""

Resolve = Callable[[list[Any]], Any]


def overlap(a: Path, b: Path) -> bool:
    """Whether two paths lead to places with something in common."""
    size = min(len(a), len(b))
    for x, y in zip(a[:size], b[:size], strict=True):
        if x == y:
            continue
        if x[0] == "s" or y[0] == "s":
            low_x, high_x = (x[1], x[1]) if x[0] == "i" else (min(x[1], x[2]), max(x[1], x[2]))
            low_y, high_y = (y[1], y[1]) if y[0] == "i" else (min(y[1], y[2]), max(y[1], y[2]))
            return bool(low_x <= high_y and low_y <= high_x)
        return False
    return True


def leaves(value: Any, path: Path) -> Iterable[tuple[Path, Any]]:
    """The scalar parts of a value with their places, after a path that leads to it."""
    if isinstance(value, Arr):
        if path and path[-1][0] == "s":
            _, left, _, step = path[-1]
            prefix = path[:-1]
        else:
            left, step, prefix = value.left, value.step, path
        for i, part in enumerate(value.v):
            yield from leaves(part, (*prefix, ("i", left + i * step)))
    elif isinstance(value, tuple):
        for i, part in enumerate(value):
            yield from leaves(part, (*path, ("f", i)))
    else:
        yield path, value


def part_of(value: Any, path: Path) -> Any:
    """The part of a value that a path leads to."""
    for step in path:
        if step[0] == "i":
            value = value.at(step[1], 0)
        elif step[0] == "s":
            value = value.part(step[1], step[2], step[3], 0)
        else:
            value = value[step[1]]
    return value


def replaced(value: Any, path: Path, part: Any, position: int) -> Any:
    """A value with one part of it exchanged."""
    if not path:
        return part
    step, rest = path[0], path[1:]
    if step[0] == "i":
        return value.put(
            step[1], replaced(value.at(step[1], position), rest, part, position) if rest else part, position
        )
    if step[0] == "s":
        inner = value.part(step[1], step[2], step[3], position)
        return value.put_part(
            step[1], step[2], step[3], replaced(inner, rest, part, position) if rest else part, position
        )
    return (*value[: step[1]], replaced(value[step[1]], rest, part, position) if rest else part, *value[step[1] + 1 :])


def replaced_where_changed(history: Any, old: Any, new: Any) -> Any:
    """The values before the last event of each scalar part, after an event of the whole from `old` to `new`."""
    if isinstance(old, Arr):
        parts = [replaced_where_changed(h, a, b) for h, a, b in zip(history.v, old.v, new.v, strict=True)]
        return Arr(old.left, old.step, bytes(parts) if type(old.v) is bytes else tuple(parts))
    if isinstance(old, tuple):
        return tuple(replaced_where_changed(h, a, b) for h, a, b in zip(history, old, new, strict=True))
    return old if old != new else history


def undriven(value: Any) -> Any:
    """The shape of a value with nothing in it driven."""
    if isinstance(value, Arr):
        if type(value.v) is bytes:
            return Arr(value.left, value.step, bytes([UNDRIVEN]) * len(value.v))
        return Arr(value.left, value.step, tuple(undriven(x) for x in value.v))
    if isinstance(value, tuple):
        return tuple(undriven(x) for x in value)
    return None


def merge(values: list[Any], before: Any) -> Any:
    """Parts that different processes drive, put together; nothing is driven twice. What nobody drives stays."""
    first = next((x for x in values if x is not None), None)
    if isinstance(before, Arr):
        whole = [x for x in values if isinstance(x, Arr)]
        if type(before.v) is bytes:
            joined = bytes(
                next((c for c in column if c != UNDRIVEN), old)
                for old, *column in zip(before.v, *(x.v for x in whole), strict=True)
            )
            return Arr(before.left, before.step, joined)
        return Arr(
            before.left,
            before.step,
            tuple(merge(list(column), old) for old, *column in zip(before.v, *(x.v for x in whole), strict=True)),
        )
    if isinstance(before, tuple):
        records = [x for x in values if isinstance(x, tuple)]
        return tuple(merge(list(column), old) for old, *column in zip(before, *records, strict=True))
    return before if first is None else first


def completed(value: Any, before: Any) -> Any:
    """A resolved value with what nobody drives left as it was."""
    if value is None:
        return before
    if isinstance(value, Arr):
        if type(value.v) is bytes:
            if UNDRIVEN not in value.v:
                return value
            return Arr(
                value.left,
                value.step,
                bytes(old if c == UNDRIVEN else c for c, old in zip(value.v, before.v, strict=True)),
            )
        return Arr(value.left, value.step, tuple(completed(c, old) for c, old in zip(value.v, before.v, strict=True)))
    if isinstance(value, tuple):
        return tuple(completed(c, old) for c, old in zip(value, before, strict=True))
    return value


def resolver(spec: Any) -> Resolve | None:
    """A function that resolves values element by element.

    `spec` is None (unresolved), ("with", function) for a whole, ("each", spec of what lies at each place) once for each
    dimension of an array, or ("fields", specs).
    """
    if spec is None:
        return None
    kind, inner = spec
    if kind == "with":
        return inner  # type: ignore[no-any-return]
    if kind == "each":
        packed = getattr(inner[1], "packed", None) if inner[0] == "with" else None
        element = _of_driven(resolver(inner))

        def resolve_each(values: list[Any]) -> Any:
            first = values[0]
            if type(first.v) is bytes and packed is not None:
                if len(values) == 1 and UNDRIVEN not in first.v:
                    return first
                return Arr(first.left, first.step, packed([x.v for x in values]))
            if type(first.v) is bytes:
                columns = ([c for c in column if c != UNDRIVEN] for column in zip(*(x.v for x in values), strict=True))
                return Arr(first.left, first.step, bytes(element(c) if c else UNDRIVEN for c in columns))
            return Arr(
                first.left,
                first.step,
                tuple(element(list(column)) for column in zip(*(x.v for x in values), strict=True)),
            )

        return resolve_each
    parts = [_of_driven(resolver(s)) for s in inner]

    def resolve_fields(values: list[Any]) -> Any:
        return tuple(part(list(column)) for part, column in zip(parts, zip(*values, strict=True), strict=True))

    return resolve_fields


def _of_driven(resolve: Resolve | None) -> Resolve:
    def only_driven(values: list[Any]) -> Any:
        driven = [x for x in values if x is not None]
        if not driven:
            return None
        return merge(driven, driven[0]) if resolve is None else resolve(driven)

    return only_driven
