"""Small memories, with contents that stand in the text."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.ir import nodes as ir
from obento.core.ir.design import Process
from obento.core.ir.evaluate import evaluate
from obento.core.ir.signal import Watch
from obento.core.wiring.kinds.kind import Kind, Misfit, Place, Sizes, Values, bit, known, unknown
from obento.core.wiring.kinds.logic import address


def _words(v: Values, width: int) -> list[ir.Const]:
    """The words that are written out, that of address 0 first."""
    contents = v.get("from")
    if contents is None:
        return []
    one, zero = evaluate(contents)
    count = contents.width // width
    full = (1 << width) - 1
    lows = [width * (count - 1 - i) for i in range(count)]
    return [ir.Const(width, one >> low & full, zero >> low & full) for low in lows]


def _rom_sizes(sizes: Sizes) -> Sequence[int]:
    width = sizes.get("bits", 0)
    if not width:
        raise Misfit("pin", "how wide its words are is missing", "", "write for instance `bits: 8`")
    _check_contents(sizes, width)
    return [width]


def _check_contents(sizes: Sizes, width: int) -> None:
    contents = sizes.get("from", 0)
    if contents % width:
        text = f"the contents are {contents} bits, no whole number of words of {width}"
        raise Misfit("width-misfit", text, "from", "write each word with its width, for instance 8h3f")
    most = 1 << address(sizes, "address") if "address" in sizes else contents
    if contents // width > most:
        text = f"here are {contents // width} words, and the address counts to {most}"
        raise Misfit("width-misfit", text, "from")


def _rom(v: Values, place: Place) -> Sequence[ir.Expr]:
    """A word for each address; where none is written out it is unknown."""
    del place
    width, where = v.sizes["bits"], v["address"]
    words: list[ir.Expr] = [*_words(v, width)]
    words += [unknown(width)] * ((1 << where.width) - len(words))
    for i in range(where.width):
        digit = bit(where, i)
        words = [ir.Mux(width, digit, words[k + 1], words[k]) for k in range(0, len(words), 2)]
    return [words[0]]


def _ram_sizes(sizes: Sizes) -> Sequence[int]:
    width = known(sizes, "data")
    _check_contents(sizes, width)
    return [width]


def _ram(v: Values, place: Place) -> Sequence[ir.Expr]:
    """Read at once, written at the edge where `write:` is 1; a `write:` that is unknown spoils the word."""
    data, where, write = v["data"], v["address"], v["write"]
    width, count = data.width, 1 << where.width
    one = zero = 0
    for i, word in enumerate(_words(v, width)):
        one, zero = one | word.one << i * width, zero | word.zero << i * width
    kept = place.memory("words", width, count, (one, zero))
    whole = ir.Ref(kept.width, kept)
    now = ir.Pick(width, whole, where, False, 0, width)
    at = place.position
    edge = "rise" if v.get("rise") is not None else "fall"
    signal, low = place.wire(v[edge], edge)
    clock = Watch(signal, "pos" if edge == "rise" else "neg", low, 1)
    target = ir.Target(kept, 0, width, [ir.Offset(where, False, 0, width, width, kept.width)])
    store = ir.Assign(at, [target], ir.Mux(width, write, data, now), False)
    none = ir.Binary(1, "ceq", write, ir.Const(1, 0, 1))
    body = ir.If(at, none, None, store)
    place.process(Process("always", body, [clock], at, "ram", place.path))
    return [now]


def _wrong_pins(pins: set[str]) -> str:
    if len(pins & {"rise", "fall"}) != 1:
        return "a memory needs one clock: `rise:` or `fall:`"
    return "" if "write" in pins else "a memory needs `write:`"


def _wrong_rom_pins(pins: set[str]) -> str:
    return "" if "from" in pins else "what is in it is missing: `from: {8h3f, 8h06}`"


KINDS = [
    Kind(
        "rom", ("address",), ("word",), _rom_sizes, _rom, ("bits", "from"), frozenset(["from"]),
        check=_wrong_rom_pins,
    ),
    Kind(
        "ram", ("address", "data"), ("word",), _ram_sizes, _ram, ("rise", "fall", "write", "from"),
        frozenset(["from"]), True, _wrong_pins,
    ),
]  # fmt: skip
