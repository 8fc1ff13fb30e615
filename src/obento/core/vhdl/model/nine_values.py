"""The nine values of IEEE 1164 and their tables (std_logic_1164, clause numbers of 1076-2008 annex)."""

from __future__ import annotations

from obento.core.values import Word
from obento.core.vhdl.model.values import UNDRIVEN, Arr

LETTERS = "UX01ZWLH-"
U, X, ZERO, ONE, Z, W, L, H, DASH = range(9)

_RESOLUTION = (
    "UUUUUUUUU"
    "UXXXXXXXX"
    "UX0X0000X"
    "UXX11111X"
    "UX01ZWLHX"
    "UX01WWWWX"
    "UX01LWLWX"
    "UX01HWWHX"
    "UXXXXXXXX"
)  # fmt: skip
_AND = (
    "UU0UUU0UU"
    "UX0XXX0XX"
    "000000000"
    "UX01XX01X"
    "UX0XXX0XX"
    "UX0XXX0XX"
    "000000000"
    "UX01XX01X"
    "UX0XXX0XX"
)  # fmt: skip
_OR = (
    "UUU1UUU1U"
    "UXX1XXX1X"
    "UX01XX01X"
    "111111111"
    "UXX1XXX1X"
    "UXX1XXX1X"
    "UX01XX01X"
    "111111111"
    "UXX1XXX1X"
)  # fmt: skip
_XOR = (
    "UUUUUUUUU"
    "UXXXXXXXX"
    "UX01XX01X"
    "UX10XX10X"
    "UXXXXXXXX"
    "UXXXXXXXX"
    "UX01XX01X"
    "UX10XX10X"
    "UXXXXXXXX"
)  # fmt: skip
_NOT = "UX10XX10X"


def _table(text: str) -> bytes:
    return bytes(LETTERS.index(c) for c in text)


RESOLUTION = _table(_RESOLUTION)
NOT = _table(_NOT)
_AND_T, _OR_T, _XOR_T = _table(_AND), _table(_OR), _table(_XOR)
TABLES = {
    "and": _AND_T,
    "or": _OR_T,
    "xor": _XOR_T,
    "nand": bytes(NOT[x] for x in _AND_T),
    "nor": bytes(NOT[x] for x in _OR_T),
    "xnor": bytes(NOT[x] for x in _XOR_T),
}


def _by_letter(text: str) -> bytes:
    """A table for `bytes.translate` from the letters that U X 0 1 Z W L H - become."""
    table = bytearray(range(256))
    for i, c in enumerate(text):
        table[i] = LETTERS.index(c)
    return bytes(table)


NOT_MAP = _by_letter(_NOT)
TO_X01 = _by_letter("XX01XX01X")
TO_X01Z = _by_letter("XX01ZX01X")
TO_UX01 = _by_letter("UX01XX01X")
_TEXT = bytearray(b"?" * 256)
for _i, _c in enumerate("xx01xx01x"):
    _TEXT[_i] = ord(_c)
TEXT = bytes(_TEXT)
"""To the digits that `int` reads, with letters where there is none."""
_FROM = bytearray(256)
_FROM[ord("0")], _FROM[ord("1")] = ZERO, ONE
DIGITS = bytes(_FROM)


def resolve(values: list[int]) -> int:
    """`resolved` of std_logic_1164: one driver alone is taken as it is."""
    if len(values) == 1:
        return values[0]
    found = Z
    for x in values:
        found = RESOLUTION[found * 9 + x]
    return found


def _packed(columns: list[bytes]) -> bytes:
    out = bytearray()
    for column in zip(*columns, strict=True):
        driven = [c for c in column if c != UNDRIVEN]
        out.append(resolve(driven) if driven else UNDRIVEN)
    return bytes(out)


resolve.packed = _packed  # type: ignore[attr-defined]


def resolve_array(array: Arr) -> int:
    """Several drivers of one signal, resolved (1164's `resolved`)."""
    return resolve(list(array.v))


_CLEAN = bytes((ZERO, ONE))


def vector_logic(op: str, a: bytes, b: bytes) -> bytes:
    """Two vectors of the same length, element by element."""
    if not a.translate(None, _CLEAN) and not b.translate(None, _CLEAN):
        x, y = int.from_bytes(a), int.from_bytes(b)
        size = len(a)
        twos, ones = int.from_bytes(b"\2" * size), int.from_bytes(b"\1" * size)
        if op in ("and", "nand"):
            value = x & y
        elif op in ("or", "nor"):
            value = x | y
        else:
            value = (x ^ y) | twos
        if op in ("nand", "nor", "xnor"):
            value ^= ones
        return value.to_bytes(size)
    table = TABLES[op]
    return bytes(table[p * 9 + q] for p, q in zip(a, b, strict=True))


def is_x(v: bytes) -> bool:
    """Whether some digit is none of 0, 1, L and H."""
    return bool(v.translate(None, b"\2\3\6\7"))


def unsigned(v: bytes) -> int | None:
    """The number a vector stands for; None with a metavalue. An empty one is 0."""
    try:
        return int(v.translate(TEXT), 2)
    except ValueError:
        return 0 if not v else None


def signed(v: bytes) -> int | None:
    """A number in two's complement; None when a digit is not known."""
    number = unsigned(v)
    if number is None or not v:
        return number
    return number - (1 << len(v)) if v[0] in (ONE, H) else number


# The border to four-state parts. Towards them: H is 1, L is 0, everything else that is no digit is x, Z stays. From
# them:
# x becomes X, so a part that was never given a value is X here, not U.

_ONE_RAIL = bytes(1 if LETTERS[i : i + 1] in ("1", "H", "Z") else 0 for i in range(9)) + bytes(247)
_ZERO_RAIL = bytes(1 if LETTERS[i : i + 1] in ("0", "L", "Z") else 0 for i in range(9)) + bytes(247)
_ASCII = bytes(48 + i for i in range(2)) + bytes(254)


def word_of(v: bytes) -> Word:
    """A vector, leftmost digit first, as a four-state word."""
    if not v:
        return 0, 0
    return int(v.translate(_ONE_RAIL).translate(_ASCII), 2), int(v.translate(_ZERO_RAIL).translate(_ASCII), 2)


def vector_of(word: Word, width: int) -> bytes:
    """A four-state word as digits, leftmost first."""
    one, zero = word
    return bytes((X, ONE, ZERO, Z)[(one >> i & 1) | (zero >> i & 1) << 1] for i in range(width - 1, -1, -1))
