"""Collections of SystemVerilog: queues, arrays whose size changes, arrays by key (IEEE 1800-2017 clauses 7.5, 7.8 to
7.12). They live on the timeline alone."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import reduce
from typing import Literal, cast

from obento.core import values as v
from obento.core.limits import LimitReached
from obento.core.values import Word

Element = Word | float | str
Key = int | str
Test = Callable[[Element, int], Word]
"""What stands in `with (...)`, of an element and its place."""

MOST_ELEMENTS = 1 << 20
"""Elements of the largest collection."""


@dataclass(frozen=True, slots=True)
class CollectionType:
    """`width` and `signed` of an element, `blank` what is read where there is none (table 7-1). A queue holds at most
    `most` elements. Keys of a map are strings, or numbers of `key_width` digits."""

    kind: Literal["queue", "dynamic", "map"]
    width: int
    signed: bool
    blank: Element
    most: int = MOST_ELEMENTS
    text_keys: bool = False
    key_width: int = 32
    key_signed: bool = True


class Collection:
    """What a variable of such a type holds: elements in order, or by key."""

    __slots__ = ("blank", "items", "table", "type")

    def __init__(self, of: CollectionType, items: list[Element] | None = None) -> None:
        self.type = of
        self.items: list[Element] = items if items is not None else []
        self.table: dict[Key, Element] = {}
        self.blank = of.blank

    def __eq__(self, other: object) -> bool:
        """As `===` compares: element by element."""
        return isinstance(other, Collection) and self.items == other.items and self.table == other.table

    __hash__ = None  # type: ignore[assignment]

    def __len__(self) -> int:
        return len(self.table) if self.type.kind == "map" else len(self.items)

    def elements(self) -> Iterator[tuple[Key, Element]]:
        """Each with its place, in order (a map's by key, 7.8)."""
        if self.type.kind == "map":
            return iter(sorted(self.table.items(), key=lambda pair: (pair[0],)))
        return iter(enumerate(self.items))

    def check(self) -> None:
        """Raises LimitReached where there are too many."""
        if len(self) > MOST_ELEMENTS:
            raise LimitReached(f"a collection has more than {MOST_ELEMENTS} elements", 0)


def _place(index: Word) -> int | None:
    """An index of 32 digits as a number; None where it is unknown."""
    return v.signed_value(index[0], 32) if v.is_known(index, 32) else None


def _key(c: Collection, key: Word | str) -> Key | None:
    if isinstance(key, str):
        return key
    of = c.type
    if not v.is_known(key, of.key_width):
        return None
    return v.signed_value(key[0], of.key_width) if of.key_signed else key[0]


# Elements.


def at(c: Collection, index: Word | str) -> Element:
    """An element; what is blank where there is none (7.5, 7.8.6, 7.10.1)."""
    if c.type.kind == "map":
        key = _key(c, index)
        return c.blank if key is None else c.table.get(key, c.blank)
    place = _place(cast(Word, index))
    return c.items[place] if place is not None and 0 <= place < len(c.items) else c.blank


def put(c: Collection, index: Word | str, value: Element) -> None:
    """Another value for an element; behind the end of a queue it is a new one (7.10.1)."""
    if c.type.kind == "map":
        key = _key(c, index)
        if key is not None:
            c.table[key] = value
            c.check()
        return
    place = _place(cast(Word, index))
    if place is not None and 0 <= place < len(c.items):
        c.items[place] = value
    elif place == len(c.items) and c.type.kind == "queue":
        push_back(c, value)


def part(c: Collection, first: Word, last: Word) -> Collection:
    """`q[first:last]`, as far as there are elements (7.10.1)."""
    a, b = _place(first), _place(last)
    if a is None or b is None:
        return Collection(c.type)
    return Collection(c.type, c.items[max(0, a) : max(0, b + 1)])


# Whole ones.


def made(of: CollectionType, *parts: Element | Collection) -> Collection:
    """Elements side by side; of a collection among them all of its own."""
    items: list[Element] = []
    for p in parts:
        items += p.items if isinstance(p, Collection) else [p]
    result = Collection(of, items[: of.most])
    result.check()
    return result


def otherwise(c: Collection, value: Element) -> Collection:
    """A map with what is read where it has nothing (7.9.11)."""
    c.blank = value
    return c


def table(of: CollectionType, *pairs: Element) -> Collection:
    """A map from keys and values in turn (7.9.11)."""
    result = Collection(of)
    for key, value in zip(pairs[::2], pairs[1::2], strict=True):
        put(result, cast(Word, key), value)
    return result


def sized(of: CollectionType, count: Word, old: Collection | None = None) -> Collection:
    """`new[count]`, with what was there before where it is given (7.5.1)."""
    number = _place(count) or 0
    if number > MOST_ELEMENTS:
        raise LimitReached(f"`new` makes more than {MOST_ELEMENTS} elements", 0)
    kept = old.items[: max(0, number)] if old is not None else []
    return Collection(of, [*kept, *[of.blank] * (number - len(kept))])


def copied(of: CollectionType, c: Collection) -> Collection:
    """The same elements, for a variable of its own."""
    result = Collection(of, c.items[: of.most])
    result.table, result.blank = dict(c.table), c.blank if of.kind == "map" else of.blank
    return result


def same(a: Collection, b: Collection) -> Word:
    """`==`: as many elements, and equal ones (11.4.5)."""
    if len(a) != len(b) or a.table.keys() != b.table.keys():
        return v.ZERO1
    answer = v.ONE1
    for (_, x), (_, y) in zip(a.elements(), b.elements(), strict=True):
        one = v.v_eq(x, y, a.type.width) if isinstance(x, tuple) and isinstance(y, tuple) else v.bit(x == y)
        answer = v.v_and(answer, one, 1)
    return answer


# Methods (7.5.2, 7.5.3, 7.9, 7.10.2).


def size(c: Collection) -> Word:
    """How many elements there are."""
    return v.word(len(c), 32)


def delete(c: Collection, index: Word | str | None = None) -> None:
    """All elements away, or one."""
    if index is None:
        c.items.clear()
        c.table.clear()
    elif c.type.kind == "map":
        key = _key(c, index)
        if key is not None:
            c.table.pop(key, None)
    else:
        place = _place(cast(Word, index))
        if place is not None and 0 <= place < len(c.items):
            del c.items[place]


def exists(c: Collection, key: Word | str) -> Word:
    """Whether a map has something at a key (7.9.3)."""
    return v.word(int(_key(c, key) in c.table), 32)


def insert(c: Collection, index: Word, value: Element) -> None:
    """A new element before another (7.10.2.2)."""
    place = _place(index)
    if place is not None and 0 <= place <= len(c.items):
        c.items.insert(place, value)
        del c.items[c.type.most :]
        c.check()


def push_back(c: Collection, value: Element) -> None:
    """A new last element; a full queue leaves it out (7.10.5)."""
    if len(c.items) < c.type.most:
        c.items.append(value)
        return
    c.check()
    if c.type.most == MOST_ELEMENTS:
        raise LimitReached(f"a queue has more than {MOST_ELEMENTS} elements", 0)


def push_front(c: Collection, value: Element) -> None:
    """A new first element; of a full queue the last one goes."""
    insert(c, (0, v.ones(32)), value)


def pop_back(c: Collection) -> Element:
    """The last element, taken out."""
    return c.items.pop() if c.items else c.blank


def pop_front(c: Collection) -> Element:
    """The first element, taken out."""
    return c.items.pop(0) if c.items else c.blank


def step(which: str) -> Callable[[Collection, Word | str], tuple[Word, Element | None]]:
    """`first`, `last`, `next` or `prev`: whether there is such a key, and the key (7.9.4 to 7.9.7)."""

    def found(c: Collection, key: Word | str) -> tuple[Word, Element | None]:
        now, keys = _key(c, key), sorted(c.table, key=lambda k: (k,))
        if which in ("next", "prev"):
            keys = [] if now is None else [k for k in keys if (k > now if which == "next" else k < now)]  # type: ignore[operator]
        if not keys:
            return v.word(0, 32), None
        chosen = keys[0 if which in ("first", "next") else -1]
        return v.word(1, 32), chosen if isinstance(chosen, str) else v.word(chosen, c.type.key_width)

    return found


# Ordering and searching (7.12).


def _worth(e: Element, width: int, signed: bool) -> float | str:
    """What an element is ordered by; unknown digits count as 0."""
    if not isinstance(e, tuple):
        return e
    known = e[0] & ~e[1]
    return v.signed_value(known, width) if signed else known


@dataclass(frozen=True, slots=True)
class With:
    """What is looked at of each element: `test` of the element and its place, `width` and `signed` of what it gives."""

    test: Test
    width: int
    signed: bool


def _looked_at(c: Collection, each: With | None) -> list[Element]:
    if each is None:
        return [e for _, e in c.elements()]
    return [each.test(e, cast(int, k)) for k, e in c.elements()]


def _ordered(c: Collection, each: With | None) -> list[tuple[float | str, Element]]:
    width, signed = (each.width, each.signed) if each else (c.type.width, c.type.signed)
    return [(_worth(w, width, signed), e) for w, (_, e) in zip(_looked_at(c, each), c.elements(), strict=True)]


def sort(c: Collection, each: With | None = None) -> None:
    """Smallest first."""
    c.items = [e for _, e in sorted(_ordered(c, each), key=lambda pair: (pair[0],))]


def rsort(c: Collection, each: With | None = None) -> None:
    """Largest first."""
    c.items = [e for _, e in sorted(_ordered(c, each), key=lambda pair: (pair[0],), reverse=True)]


def reverse(c: Collection) -> None:
    """Last first."""
    c.items.reverse()


def shuffle(c: Collection, draw: Callable[[int], int]) -> None:
    """In some order; `draw(n)` gives a number from 0 to n."""
    for i in range(len(c.items) - 1, 0, -1):
        j = draw(i)
        c.items[i], c.items[j] = c.items[j], c.items[i]


def found(which: str) -> Callable[..., Collection]:
    """`find` and its kin: the elements, or their places, for which something is true (7.12.1)."""
    by_place = "index" in which

    def search(of: CollectionType, c: Collection, each: With | None = None) -> Collection:
        hits = [
            (key, e)
            for key, e in c.elements()
            if each is None or v.v_ror(each.test(e, cast(int, key)), each.width) == v.ONE1
        ]
        if "first" in which or "last" in which:
            hits = hits[:1] if "first" in which else hits[-1:]
        if by_place:
            places = [k if isinstance(k, str) else v.word(k, of.width) for k, _ in hits]
            return Collection(of, cast(list[Element], places))
        return Collection(of, [e for _, e in hits])

    return search


def extreme(which: str) -> Callable[..., Collection]:
    """`min` and `max`: a queue of the one element, or of none."""

    def search(of: CollectionType, c: Collection, each: With | None = None) -> Collection:
        best = (min if which == "min" else max)(_ordered(c, each), key=lambda pair: (pair[0],), default=None)
        return Collection(of, [] if best is None else [best[1]])

    return search


def unique(which: str) -> Callable[..., Collection]:
    """`unique` and `unique_index`: the first of those that are alike."""

    def search(of: CollectionType, c: Collection, each: With | None = None) -> Collection:
        seen: list[Element] = []
        hits: list[Element] = []
        for w, (key, e) in zip(_looked_at(c, each), c.elements(), strict=True):
            if w not in seen:
                seen.append(w)
                place = key if isinstance(key, str) else v.word(key, of.width)
                hits.append(place if "index" in which else e)
        return Collection(of, hits)

    return search


def reduced(which: str) -> Callable[..., Element]:
    """`sum`, `product`, `and`, `or`, `xor` of all elements, in the width of one (7.12.3)."""
    op = {"sum": "add", "product": "mul"}.get(which, which)

    def total(c: Collection, each: With | None = None) -> Element:
        width = each.width if each else c.type.width
        elements = _looked_at(c, each)
        if elements and isinstance(elements[0], float):
            numbers = cast(list[float], elements)
            return math.fsum(numbers) if which == "sum" else math.prod(numbers)
        start = v.word({"product": 1, "and": -1}.get(which, 0), width)
        return reduce(lambda a, b: v.BINARY[op](a, b, width), cast(list[Word], elements), start)

    return total


OPS: dict[str, Callable[..., object]] = {
    "at": at,
    "put": put,
    "part": part,
    "made": made,
    "table": table,
    "otherwise": otherwise,
    "sized": sized,
    "copied": copied,
    "same": same,
    "size": size,
    "num": size,
    "delete": delete,
    "exists": exists,
    "insert": insert,
    "push_back": push_back,
    "push_front": push_front,
    "pop_back": pop_back,
    "pop_front": pop_front,
    **{which: step(which) for which in ("first", "last", "next", "prev")},
    "sort": sort,
    "rsort": rsort,
    "reverse": reverse,
    "shuffle": shuffle,
    **{
        which: found(which)
        for which in ("find", "find_index", "find_first", "find_first_index", "find_last", "find_last_index")
    },
    "min": extreme("min"),
    "max": extreme("max"),
    "unique": unique("unique"),
    "unique_index": unique("unique_index"),
    **{which: reduced(which) for which in ("sum", "product", "and", "or", "xor")},
}
"""All that can be done with a collection, by the names that the nodes use."""

CHANGING = frozenset("put delete insert push_back push_front pop_back pop_front sort rsort reverse shuffle".split())
"""Those that change the one they are done with."""

STEPS = frozenset(["first", "last", "next", "prev"])
"""Those that give a key back through their argument."""
