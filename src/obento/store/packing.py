"""Planes of outcomes as they lie in the database: packed, compressed, and kept once however many hand-ins behave alike.

What an outcome's outputs were is kept as the difference from what was expected (of a right hand-in: nothing), what was
expected is kept once for all outcomes of a spec version. Neither needs the spec to be opened or anything to be run
again, so that a verdict can be shown after any upgrade.

Layout of an outcome: the format (one byte), the length of the next part (uint32, little endian), then two zlib streams.
The first has the planes of the whole hand-in (failed, undefined, not compared, stopped), which is all that a class's
pages draw. The second has a line of JSON (name and width of each output, names of the runs in which something failed),
then for each output its planes (failed, undefined, not compared, stopped) and for each of its bits the planes of ones
and zeros, then of each run the cases it is shown for. A plane has one bit a case, case 0 in the lowest bit of the first
byte.

Layout of what was expected: the format (one byte), then a zlib stream with a line of JSON (for each bit its output,
offset and the steps that follow earlier ones) and for each bit the planes of ones, zeros and what is compared."""

from __future__ import annotations

import hashlib
import json
import struct
import zlib
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from obento.core.check.expectation.model import Key, Planes
from obento.core.check.judging.verdict import OutputVerdict, Verdict

_FORMAT = b"\1"
_LEVEL = 6


@dataclass(frozen=True, slots=True)
class Blob:
    """Packed planes with the digest they are kept by."""

    digest: str
    data: bytes


@dataclass(frozen=True, slots=True)
class CasePlanes:
    """The cases of one hand-in, packed: one bit a case, in at most one of the four; in none it passed."""

    failed: bytes
    undefined: bytes
    not_compared: bytes
    stopped: bytes

    @property
    def wrong(self) -> int:
        """The cases that are not right."""
        return unpack(self.failed) | unpack(self.undefined) | unpack(self.stopped)


def pack(plane: int, count: int) -> bytes:
    """A plane over so many cases as bytes."""
    return plane.to_bytes((count + 7) // 8, "little")


def unpack(data: bytes) -> int:
    return int.from_bytes(data, "little")


def _blob(data: bytes) -> Blob:
    return Blob(hashlib.sha256(data).hexdigest(), data)


def pack_expected(bits: dict[Key, Planes], count: int) -> Blob:
    """What is expected of every bit of the outputs."""
    head = [[port, i, list(b.follow.items())] for (port, i), b in bits.items()]
    planes = b"".join(pack(p, count) for b in bits.values() for p in (b.one, b.zero, b.care))
    return _blob(_FORMAT + zlib.compress(_line(head) + planes, _LEVEL))


def unpack_expected(data: bytes, count: int) -> dict[Key, Planes]:
    """The inverse of `pack_expected`."""
    head, planes = _read_part(data[1:], count)
    return {
        (port, i): Planes(next(planes), next(planes), next(planes), {step: (a, b) for step, (a, b) in follow})
        for port, i, follow in head
    }


def pack_verdict(verdict: Verdict | None, count: int, against: dict[Key, Planes] | None) -> Blob:
    """An outcome; one without a verdict has all cases stopped. `against` is what its outputs are kept as the difference
    from."""
    if verdict is None:
        return pack_parts([0, 0, 0, (1 << count) - 1], [], [], [], count)
    whole = [verdict.failed, verdict.undefined, verdict.not_compared, verdict.stopped]
    head: list[tuple[str, int]] = []
    planes: list[int] = []
    for name, output in verdict.outputs.items():
        keys = sorted(key for key in verdict.shown if key[0] == name)
        head.append((name, len(keys)))
        planes += [output.failed, output.undefined, output.not_compared, output.stopped]
        for key in keys:
            base = against[key] if against is not None else Planes()
            one, zero = verdict.shown[key]
            planes += [one ^ base.one, zero ^ base.zero]
    return pack_parts(whole, head, planes, verdict.failing_runs, count)


def pack_parts(
    whole: list[int], outputs: list[tuple[str, int]], planes: list[int], runs: Sequence[tuple[str, int]], count: int
) -> Blob:
    """The two parts of an outcome, as the layout has them; `planes` are those of the outputs."""
    head = {"outputs": outputs, "runs": [name for name, _ in runs]}
    planes = planes + [mask for _, mask in runs]
    first = zlib.compress(b"".join(pack(p, count) for p in whole), _LEVEL)
    second = zlib.compress(_line(head) + b"".join(pack(p, count) for p in planes), _LEVEL)
    return _blob(_FORMAT + struct.pack("<I", len(first)) + first + second)


def unpack_cases(data: bytes, count: int) -> CasePlanes:
    """The planes of the whole hand-in; the outputs are not read."""
    size = (count + 7) // 8
    planes = zlib.decompress(data[5 : 5 + _first_length(data)])
    return CasePlanes(*(planes[i * size : (i + 1) * size] for i in range(4)))


@dataclass(frozen=True, slots=True)
class Outputs:
    """Of each output its verdict, of each bit what was shown, and the runs in which something failed with their cases;
    all empty where nothing was run."""

    verdicts: dict[str, OutputVerdict]
    shown: dict[Key, tuple[int, int]]
    runs: list[tuple[str, int]]


def unpack_outputs(data: bytes, count: int, against: dict[Key, Planes] | None) -> Outputs:
    """What the second part of an outcome says."""
    head, planes = _read_part(data[5 + _first_length(data) :], count)
    full = (1 << count) - 1
    outputs: dict[str, OutputVerdict] = {}
    shown: dict[Key, tuple[int, int]] = {}
    for name, width in head["outputs"]:
        failed, undefined, not_compared, stopped = next(planes), next(planes), next(planes), next(planes)
        passed = full & ~(failed | undefined | not_compared | stopped)
        outputs[name] = OutputVerdict(passed, failed, undefined, not_compared, stopped)
        for i in range(width):
            base = against[name, i] if against is not None else Planes()
            shown[name, i] = (next(planes) ^ base.one, next(planes) ^ base.zero)
    return Outputs(outputs, shown, [(name, next(planes)) for name in head["runs"]])


def _first_length(data: bytes) -> int:
    """The length of an outcome's first part.

    Raises
    ------
    ValueError
        If a newer version wrote it.
    """
    if data[:1] != _FORMAT:
        raise ValueError(f"outcome in format {data[0]}, which this version does not know")
    length: int = struct.unpack("<I", data[1:5])[0]
    return length


def _line(head: object) -> bytes:
    return json.dumps(head, ensure_ascii=False).encode() + b"\n"


def _read_part(data: bytes, count: int) -> tuple[Any, Iterator[int]]:
    """The head of a stream, and its planes one after the other."""
    text = zlib.decompress(data)
    line = text.index(b"\n")
    size = (count + 7) // 8
    starts = range(line + 1, len(text), size) if size else ()
    return json.loads(text[:line]), (unpack(text[at : at + size]) for at in starts)
