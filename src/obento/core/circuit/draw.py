"""The drawing of a design: its parts in the boxes of its hierarchy, joined by wires.

Connections of ports and plain assignments are no parts but the wires themselves: every digit is followed back to where
it is made. Where a wire crosses the border of a box, the box has a pin, with the name that it has inside."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field

from obento.core.circuit.model import Bits, Circuit, Part, Pin, Wire
from obento.core.circuit.parts import TAP, Drafter, assignment_of, is_routing, last_name, target_bits
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Instance, ScopeOfNames

MOST_PARTS = 4_000
_SILENT = frozenset(["start", "event", "supply", "override"])


class TooLarge(Exception):
    """More parts than a person could look at."""


@dataclass(slots=True)
class Drawing:
    """A circuit, and what its parts were made from: for each part the expression or the process."""

    circuit: Circuit
    drafter: Drafter


@dataclass(slots=True)
class _Box:
    """One level of the hierarchy; `part` is None for the whole."""

    path: str
    part: Part | None
    parts: list[Part] = field(default_factory=list)
    inner: list[_Box] = field(default_factory=list)

    def everything(self) -> Iterator[Part]:
        yield from self.parts
        for box in self.inner:
            yield from box.everything()


def draw(design: Design, text_at: Callable[[int], str]) -> Drawing:
    """Draw a design. Taps are added to it, which change nothing of what it does.

    Parameters
    ----------
    text_at
        Gives the first line of the source text at a position.

    Raises
    ------
    TooLarge
        If it has more than `MOST_PARTS` parts.
    """
    drafter = Drafter(design, text_at)
    source: dict[int, int] = {}
    paths: list[str] = []
    library = {id(process): part for part in design.library for process in part.processes}
    drawn: set[int] = set()
    for process in list(design.processes):
        if process.origin in _SILENT:
            continue
        part = library.get(id(process))
        if part is not None:
            if id(part) not in drawn:
                drawn.add(id(part))
                drafter.library_part(part)
            paths += [process.path] * (len(drafter.parts) - len(paths))
            continue
        body = assignment_of(process)
        if body is not None and process.origin != "buf" and is_routing(body.value):
            made = target_bits(body)
            assert made is not None
            source.update(zip(made, _routed(body.value), strict=True))
            continue
        if body is not None:
            drafter.assignment(process, body)
        else:
            drafter.behaviour(process)
        paths += [process.path] * (len(drafter.parts) - len(paths))
        if len(drafter.parts) > MOST_PARTS:
            raise TooLarge(f"more than {MOST_PARTS} parts")
    drafter.finish()
    circuit = _Assembly(design, drafter.parts, paths, source).circuit()
    return Drawing(circuit, drafter)


def _routed(e: ir.Expr) -> Bits:
    return Drafter(Design("", ""), str)._operand(e, 0)


class _Assembly:
    """Puts parts into boxes and joins them."""

    def __init__(self, design: Design, parts: list[Part], paths: list[str], source: dict[int, int]) -> None:
        self._design = design
        self._parts = parts
        self._source = source
        self._root_path = design.unit
        self._boxes: dict[str, _Box] = {}
        self._variables = _variables(design)
        self._units = _units(design)
        self._interfaces = {scope.path for scope in _scopes(design) if scope.kind == "interface"}
        self._members = _members(design, self._roots)
        self._root = self._boxes[""] = _Box("", None)
        for part, path in zip(list(parts), paths, strict=True):
            box = self._box(path)
            part.within = box.part.id if box.part else -1
            box.parts.append(part)
        self._wires: dict[tuple[int, int, str], None] = {}
        self._pins: list[Pin] = []

    def circuit(self) -> Circuit:
        self._drop_unread()
        for port in self._design.ports:
            kind = "output" if port.direction == "out" else "input"
            bits = tuple(range(port.signal.offset, port.signal.offset + port.signal.width))
            part = Part(len(self._parts), kind, port.name, -1, port.position, port.position, [])
            part.pins.append(Pin("in" if kind == "output" else "out", port.name, bits))
            self._parts.append(part)
            self._root.parts.append(part)
        for box in list(self._root.inner):
            self._border(box)
        for part in self._parts:
            for pin in part.pins:
                pin.id = len(self._pins)
                self._pins.append(pin)
        self._join(self._root)
        return Circuit(self._parts, [Wire(*w) for w in self._wires], self._names())

    # Boxes.

    def _box(self, path: str) -> _Box:
        path = path.removeprefix(self._root_path).removeprefix(".")
        found = self._boxes.get(path)
        if found is None:
            outer = self._box(path.rpartition(".")[0]) if "." in path else self._root
            unit, position = self._units.get(path, ("", 0))
            part = Part(
                len(self._parts),
                "unit",
                path.rpartition(".")[2],
                outer.part.id if outer.part else -1,
                position,
                position,
                unit=unit,
            )
            self._parts.append(part)
            found = self._boxes[path] = _Box(path, part)
            outer.inner.append(found)
        return found

    def _drop_unread(self) -> None:
        """Outputs of processes that nobody reads are scratch, not wires."""
        read = {b for part in self._parts for pin in part.pins if pin.side == "in" for b in self._roots(pin.bits)}
        read |= {
            b for p in self._design.ports for b in self._roots(range(p.signal.offset, p.signal.offset + p.signal.width))
        }
        for part in self._parts:
            if part.kind == "process":
                part.pins = [p for p in part.pins if p.side == "in" or any(b in read for b in p.bits)]

    def _roots(self, bits: Iterable[int]) -> Bits:
        """Where digits come from."""
        return tuple(self._root_of(b) for b in bits)

    def _root_of(self, bit: int) -> int:
        seen = set()
        while bit >= 0 and bit in self._source and bit not in seen:
            seen.add(bit)
            bit = self._source[bit]
        return bit

    def _border(self, box: _Box) -> None:
        """Pins of a box, and of those inside."""
        for inner in box.inner:
            self._border(inner)
        inside = list(box.everything())
        inside_ids = {p.id for p in inside}
        outside = [p for p in self._parts if p.id not in inside_ids and p.kind != "unit"]
        read_in, made_in = _bits_of(inside, "in"), _bits_of(inside, "out")
        read_out = _bits_of(outside, "in")
        assert box.part is not None
        arriving = {b for b in self._roots(read_in) if b >= 0} - made_in
        leaving = made_in & set(self._roots(read_out))
        for side, wanted in (("in", arriving), ("out", leaving)):
            named: set[int] = set()
            for name, bits in self._variables.get(box.path, []):
                roots = self._roots(bits)
                if any(b in wanted and b not in named for b in roots):
                    box.part.pins.append(Pin("in" if side == "in" else "out", name, roots))
                    named.update(roots)
            for name, bits in self._nameless(sorted(wanted - named)):
                box.part.pins.append(Pin("in" if side == "in" else "out", name, bits))

    def _nameless(self, bits: list[int]) -> Iterator[tuple[str, Bits]]:
        """Digits that no name inside the box covers, signal by signal."""
        bundles: dict[str, list[tuple[str, Bits]]] = {}
        for signal in self._design.signals:
            own = tuple(b for b in bits if signal.offset <= b < signal.offset + signal.width)
            if not own:
                continue
            around = signal.name.rpartition(".")[0]
            if around in self._interfaces:
                bundles.setdefault(around, []).append((last_name(signal), own))
            else:
                yield last_name(signal), own
        for path, parts in bundles.items():
            name = path.rpartition(".")[2]
            yield (name if len(parts) > 1 else f"{name}.{parts[0][0]}"), sum((own for _, own in parts), ())

    # Wires.

    def _join(self, box: _Box) -> None:
        """Wires at one level: from what makes a digit here to what takes it here."""
        makers: dict[int, tuple[Pin, int]] = {}
        takers: list[Pin] = []

        def makes(pin: Pin) -> None:
            for i, bit in enumerate(pin.bits):
                if bit >= 0:
                    makers.setdefault(bit, (pin, i))

        for part in box.parts:
            for pin in part.pins:
                if pin.side == "out":
                    makes(pin)
                else:
                    takers.append(pin)
        for inner in box.inner:
            assert inner.part is not None
            for pin in inner.part.pins:
                if pin.side == "out":
                    makes(pin)
                else:
                    takers.append(pin)
        if box.part is not None:
            for pin in box.part.pins:
                if pin.side == "in":
                    makes(pin)
                else:
                    takers.append(pin)
        for taker in takers:
            self._connect(taker, makers)
        for inner in box.inner:
            self._join(inner)

    def _connect(self, taker: Pin, makers: dict[int, tuple[Pin, int]]) -> None:
        found: dict[int, list[int]] = {}
        by_pin: dict[int, Pin] = {}
        for bit in self._roots(taker.bits):
            made = makers.get(bit)
            if made is not None and made[0] is not taker:
                found.setdefault(made[0].id, []).append(made[1])
                by_pin[made[0].id] = made[0]
        for number, places in found.items():
            maker = by_pin[number]
            label = "" if sorted(set(places)) == list(range(len(maker.bits))) else self._stretch(maker, places)
            self._wires[maker.id, taker.id, label] = None

    def _stretch(self, maker: Pin, places: list[int]) -> str:
        member = self._members.get(frozenset(maker.bits[p] for p in places))
        if member is not None:
            return member
        low, high = min(places), max(places)
        if set(range(low, high + 1)) != set(places):
            return ",".join(str(p) for p in sorted(set(places), reverse=True)[:4])
        return str(low) if low == high else f"{high}..{low}"

    # Names.

    def _names(self) -> dict[int, tuple[str, int | None]]:
        names: dict[int, tuple[str, int | None]] = {}
        for signal in self._design.signals:
            if signal.name.startswith(f"{TAP} "):
                continue
            name = signal.name.removeprefix(f"{self._root_path}.")
            for i in range(signal.width):
                names[signal.offset + i] = (name, i if signal.width > 1 else None)
        return names


def _bits_of(parts: list[Part], side: str) -> set[int]:
    return {b for p in parts for pin in p.pins if pin.side == side for b in pin.bits if b >= 0}


def _variables(design: Design) -> dict[str, list[tuple[str, Bits]]]:
    """The names declared at each level of the hierarchy, ports first, with their digits."""
    found: dict[str, list[tuple[str, Bits]]] = {}

    def take(scope: ScopeOfNames, path: str) -> None:
        found[path] = [
            (
                v.name,
                tuple(
                    range(
                        v.signal.offset + v.low, v.signal.offset + min(v.signal.width, v.low + abs(v.msb - v.lsb) + 1)
                    )
                ),
            )
            for v in scope.variables
            if not v.signal.element and v.signal.has_digits
        ]
        for child in scope.children:
            take(child, f"{path}.{child.name}" if path else child.name)

    for scope in design.names:
        take(scope, "")
    for signal in design.signals:
        path, _, name = signal.name.removeprefix(f"{design.unit}.").rpartition(".")
        known = found.setdefault(path, [])
        if all(n != name for n, _ in known):
            known.append((name, tuple(range(signal.offset, signal.offset + signal.width))))
    return found


def _scopes(design: Design) -> Iterator[ScopeOfNames]:
    """All levels of names."""
    stack = list(design.names)
    while stack:
        scope = stack.pop()
        yield scope
        stack += scope.children


def _members(design: Design, roots: Callable[[Iterable[int]], Bits]) -> dict[frozenset[int], str]:
    """The members of structures, and the names of interfaces, by the digits that they are."""
    found: dict[frozenset[int], str] = {}
    for scope in _scopes(design):
        for v in scope.variables:
            first = v.signal.offset + v.low
            for name, low, width in v.members:
                found.setdefault(frozenset(roots(range(first + low, first + low + width))), name)
            if scope.kind == "interface" and not v.members:
                found[frozenset(roots(range(first, first + abs(v.msb - v.lsb) + 1)))] = v.name
    return found


def _units(design: Design) -> dict[str, tuple[str, int]]:
    """What stands at each place of the hierarchy, and where that is written."""
    found: dict[str, tuple[str, int]] = {}

    def take(instance: Instance, path: str) -> None:
        for child in instance.children:
            inner = f"{path}.{child.name}" if path else child.name
            found[inner] = child.unit, child.position
            take(child, inner)

    if design.root is not None:
        take(design.root, "")
    return found
