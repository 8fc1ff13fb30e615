"""Truth tables and lists of vectors as text: a header of port names, `|` between inputs and outputs, one row a line.

A CSV with the same header is read as well, the two sides parted by an empty column or a `|` column.
"""

from __future__ import annotations

import csv
import io
import re

from obento.core import values
from obento.core.diagnostics import Collector
from obento.core.spec.model import EDITION, Cell, Row, SpecPort
from obento.core.spec.unknowns import unknown_digits
from obento.core.suggest import did_you_mean

_WORD = re.compile(r"\S+")
_BITS = re.compile(r"[01xXzZ\-_]+")


class BadCell(Exception):
    """A value that cannot be read; `text` says what is wrong with it."""

    def __init__(self, text: str, hint: str = "") -> None:
        super().__init__(text)
        self.text = text
        self.hint = hint


def parse_table(
    text: str,
    base: int,
    inputs: tuple[SpecPort, ...],
    outputs: tuple[SpecPort, ...],
    collector: Collector,
    need_outputs: bool,
    edition: int = EDITION,
) -> tuple[Row, ...]:
    """All rows, each with one cell for every port in the spec's order. What is wrong is reported cell by cell.

    Parameters
    ----------
    text
        The table as it stands between its quotes.
    base
        Position of its first character, for messages.
    need_outputs
        Where the rows say what is right: such a table has no unknown inputs.
    edition
        By which the text is read (`EDITION`).
    """
    rows: list[Row] = []
    header: list[SpecPort | None] | None = None
    line_number = 0
    as_csv = "," in next((line for line in text.splitlines() if line.strip() and not line.strip().startswith("//")), "")
    offset = 0
    for raw in text.split("\n"):
        line_number += 1
        start = base + offset
        offset += len(raw) + 1
        content = raw.split("//", 1)[0].rstrip("\r")
        words = csv_words(content) if as_csv else [(m.group(), m.start()) for m in _WORD.finditer(content)]
        if not any(w for w, _ in words):
            continue
        words = split_bars(words)
        if header is None:
            header = _header(words, start, inputs, outputs, collector, need_outputs)
            if header is None:
                return ()
            continue
        row = _row(words, start, header, inputs, outputs, collector, line_number, edition, need_outputs)
        if row is not None:
            rows.append(row)
    if header is None:
        collector.error("empty-table", "this table has no header line", base, base, "begin with the names of the ports")
    return tuple(rows)


def csv_words(content: str) -> list[tuple[str, int]]:
    """The fields of a CSV line with their places; an empty field stands for the bar."""
    words: list[tuple[str, int]] = []
    at = 0
    for field in next(csv.reader(io.StringIO(content)), []):
        found = content.find(field, at) if field else at
        words.append((field.strip() or "|", max(found, at)))
        at = max(found, at) + len(field) + 1
    return words


def split_bars(words: list[tuple[str, int]]) -> list[tuple[str, int]]:
    """`a|b` without spaces reads as `a | b`."""
    out: list[tuple[str, int]] = []
    for word, at in words:
        if "|" in word and word != "|":
            for piece in re.finditer(r"\||[^|]+", word):
                out.append((piece.group(), at + piece.start()))
        else:
            out.append((word, at))
    return out


def _header(
    words: list[tuple[str, int]],
    start: int,
    inputs: tuple[SpecPort, ...],
    outputs: tuple[SpecPort, ...],
    collector: Collector,
    need_outputs: bool,
) -> list[SpecPort | None] | None:
    """The ports of the columns; None stands for the bar."""
    header: list[SpecPort | None] = []
    sides = {p.name: p for p in inputs}, {p.name: p for p in outputs}
    side = 0
    for word, at in words:
        where = start + at
        if word == "|":
            if side:
                collector.error("two-bars", "a table has one `|` between inputs and outputs", where, where + 1)
                return None
            side = 1
            header.append(None)
            continue
        name = word.split("[", 1)[0]
        port = sides[side].get(name)
        if port is None:
            other = sides[1 - side].get(name)
            what = "an input" if side == 0 else "an output"
            hint = did_you_mean(name, sides[side])
            if other is not None:
                hint = "inputs stand left of `|`, outputs right of it"
            collector.error("unknown-column", f"`{word}` is not {what} of this spec", where, where + len(word), hint)
            return None
        if port in header:
            collector.error("double-column", f"column `{name}` stands twice", where, where + len(word))
            return None
        header.append(port)
    missing = [p.name for p in inputs if p not in header]
    if missing:
        collector.error("missing-column", f"the table has no column for {', '.join(missing)}", start, start + 1)
        return None
    if need_outputs and not any(p in header for p in outputs):
        collector.error(
            "missing-column", "the table has no output column", start, start + 1, "write `|` and the outputs"
        )
        return None
    return header


def _row(
    words: list[tuple[str, int]],
    start: int,
    header: list[SpecPort | None],
    inputs: tuple[SpecPort, ...],
    outputs: tuple[SpecPort, ...],
    collector: Collector,
    line: int,
    edition: int,
    all_known: bool,
) -> Row | None:
    bar = header.index(None) if None in header else len(header)
    has_outputs = any(w == "|" for w, _ in words)
    columns = header if has_outputs or bar == len(header) else header[:bar]
    packed = _unpack(words, columns)
    if len(packed) != len(columns):
        have = len([w for w, _ in packed if w != "|"])
        want = len([c for c in columns if c is not None])
        at = start + (packed[-1][1] if packed else 0)
        collector.error("row-length", f"this row has {have} values, the header has {want} columns", at, at + 1)
        return None
    cells: dict[str, Cell] = {}
    for (word, at), port in zip(packed, columns, strict=True):
        if (word == "|") != (port is None):
            collector.error(
                "bar-place", "the `|` stands in another place than in the header", start + at, start + at + 1
            )
            return None
        if port is None:
            continue
        try:
            cells[port.name] = parse_value(word, port, edition)
            if all_known and port.direction == "in" and edition > 1 and unknown_digits(cells[port.name]):
                raise BadCell(*X_AMONG_INPUTS)
        except BadCell as bad:
            collector.error(
                "bad-value", f"`{word}` for `{port.name}`: {bad.text}", start + at, start + at + len(word), bad.hint
            )
            return None
    nothing = Cell((0, 0), 0)
    given = tuple(cells[p.name] for p in inputs)
    expected = tuple(cells.get(p.name, nothing) for p in outputs) if has_outputs else None
    return Row(start, given, expected, line)


def _unpack(words: list[tuple[str, int]], columns: list[SpecPort | None]) -> list[tuple[str, int]]:
    """`0101 | 1` for four one-bit columns: digits written together are taken apart where that fits exactly."""
    if len(words) == len(columns) or any(p is not None and p.width > 1 for p in columns):
        return words
    out: list[tuple[str, int]] = []
    for word, at in words:
        if word != "|" and _BITS.fullmatch(word):
            out += [(c, at + i) for i, c in enumerate(word) if c != "_"]
        else:
            out.append((word, at))
    return out


X_AMONG_INPUTS = ("the left side has no unknown values", "write `-` for either value: 0 and 1")
"""What is said of x left of the bar, and what to do."""

_HEXADECIMAL = re.compile(r"0[xX][0-9a-fA-F][0-9a-fA-F_]*")
_SIGNED = re.compile(r"[+-][0-9][0-9_]*")


def parse_value(word: str, port: SpecPort, edition: int = EDITION) -> Cell:
    """A value in a port's radix, or in the one that a prefix says.

    In a binary column what is exactly as long as the port is wide, and made of `0 1 x z -`, are its digits. Where it
    could be meant as a number too (`0x1` in three digits), it is wrong: there are two ways to write it that are clear.

    Raises
    ------
    BadCell
        With a sentence on what is wrong.
    """
    width = port.width
    full = values.ones(width)
    if word == "-":
        return Cell((0, 0), 0)
    if word in ("x", "X"):
        return Cell((0, 0), full)
    if word in ("z", "Z"):
        return Cell((full, full), full)
    lower = word.lower()
    if lower.startswith("0b"):
        return _binary(lower[2:].replace("_", ""), width)
    if port.radix == "bin" and _BITS.fullmatch(word) and (edition > 1 or not lower.startswith("0x")):
        digits = lower.replace("_", "")
        number = _number_meant(word, port) if edition > 1 else None
        if len(digits) == width and number is not None:
            raise BadCell(
                f"this can be read as the digits {' '.join(digits)} and as the number {number}",
                f"write 0b{digits} for the digits, or {values.to_digits(values.word(number, width), width)} for the"
                " number",
            )
        if number is not None:
            return Cell(values.word(number, width), full)
        return _binary(digits, width)
    negative = lower.startswith("-")
    body = lower.lstrip("+-")
    try:
        if body.startswith("0x"):
            number = int(body[2:], 16)
        elif body.startswith("0d"):
            number = int(body[2:], 10)
        elif port.radix == "hex":
            number = int(body, 16)
        elif port.radix == "dec" or negative or lower.startswith("+"):
            number = int(body, 10)
        else:
            raise BadCell("this is no binary number", f"write 0d{word}, or declare `{port.name}[{width}]:dec`")
    except ValueError:
        raise BadCell(f"this is no {'hexadecimal' if port.radix == 'hex' else 'whole'} number") from None
    number = -number if negative else number
    lowest, highest = (-(1 << width - 1), (1 << width - 1) - 1) if port.signed else (0, full)
    explicit = body.startswith("0x") or port.radix == "hex"
    if not (lowest <= number <= highest or (explicit and 0 <= number <= full)):
        raise BadCell(f"this does not fit: {port.name} goes from {lowest} to {highest}")
    return Cell(values.word(number, width), full)


def _number_meant(word: str, port: SpecPort) -> int | None:
    """The number that a prefix or sign makes of a word, where there is one that fits the port."""
    if _HEXADECIMAL.fullmatch(word):
        number = int(word[2:], 16)
        return number if number <= values.ones(port.width) else None
    if port.signed and _SIGNED.fullmatch(word):
        number = int(word, 10)
        return number if -(1 << port.width - 1) <= number < 1 << port.width - 1 else None
    return None


def _binary(digits: str, width: int) -> Cell:
    if len(digits) != width:
        raise BadCell(f"{len(digits)} digits for {width} bits", f"write all {width} digits")
    care = 0
    for d in digits:
        care = care << 1 | (d != "-")
    return Cell(values.from_digits(digits.replace("-", "x").lower()), care)
