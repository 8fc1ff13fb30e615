"""Which unit of theirs is meant, and which port of theirs is which of ours.

From the surest to the boldest: the exact name, then upper and lower case, then the spec's aliases, then a clear near
miss, then the only one left. Every step but the first is recorded, to be shown for consent."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field

from obento.core.ir.design import Design, Port
from obento.core.spec.model import Spec, SpecPort
from obento.core.suggest import did_you_mean

FILE_CHOICE = "@file:"
"""Before the name of a unit: which of several files it is taken from."""

_CLOCKS = frozenset(["clk", "clock", "ck", "cp", "clkin", "sysclk"])
_AFFIX = re.compile(r"^(?:i_|o_|in_|out_)|(?:_i|_o|_in|_out)$")


@dataclass(frozen=True, slots=True)
class Bound:
    """One settled name. `how` is exact, case, alias, near, only or bits."""

    ours: str
    theirs: str
    how: str


@dataclass(slots=True)
class Binding:
    """`bits` maps each bit of our ports (name, offset) to a bit of theirs (port, offset)."""

    ports: list[Bound] = field(default_factory=list)
    bits: dict[tuple[str, int], tuple[Port, int]] = field(default_factory=dict)
    problems: list[str] = field(default_factory=list)
    floating: list[Port] = field(default_factory=list)


def choose_name(wanted: str, names: Iterable[str], spec: Spec, only: Iterable[str] = ()) -> Bound | None:
    """Which of `names` is the unit `wanted`; `only` are those that could be meant by being the only one."""
    names = list(names)
    if wanted in names:
        return Bound(wanted, wanted, "exact")
    if not spec.lenient:
        return None
    same = [n for n in names if _style(n) == _style(wanted)]
    if len(same) == 1:
        return Bound(wanted, same[0], "case")
    alias = [n for n in names if n in spec.aliases.get(wanted, ())]
    if len(alias) == 1:
        return Bound(wanted, alias[0], "alias")
    near = [n for n in names if is_near(wanted, n)]
    if len(near) == 1:
        return Bound(wanted, near[0], "near")
    left = list(only)
    return Bound(wanted, left[0], "only") if len(left) == 1 else None


def is_near(a: str, b: str) -> bool:
    """A clear near miss: alike without underscores and usual affixes, or one slip of typing in four letters or more."""
    x, y = _plain(a), _plain(b)
    if x == y:
        return True
    if min(len(x), len(y)) < 4:
        return False
    if re.sub(r"\D", "", x) != re.sub(r"\D", "", y):
        return False  # another number is another port, not a slip
    return _one_slip(x, y)


def _are_clocks(spec: Spec, ours: SpecPort, theirs: Port) -> bool:
    """Everybody writes the clock a little differently."""
    return spec.clock is not None and ours.name == spec.clock.port and _plain(theirs.name) in _CLOCKS


def _style(name: str) -> str:
    """A name whatever the writer's style: `LevelEq`, `LEVEL_EQ` and `level_eq` are the same."""
    return name.lower().replace("_", "")


def _plain(name: str) -> str:
    return _style(_AFFIX.sub("", name.lower()))


def _one_slip(a: str, b: str) -> bool:
    """One letter too many, too few, another one, or two exchanged."""
    if len(a) > len(b):
        a, b = b, a
    if len(b) - len(a) > 1:
        return False
    i = 0
    while i < len(a) and a[i] == b[i]:
        i += 1
    if len(a) < len(b):
        return a[i:] == b[i + 1 :]
    return a[i + 1 :] == b[i + 1 :] or (a[i : i + 2] == b[i : i + 2][::-1] and a[i + 2 :] == b[i + 2 :])


def bind_ports(spec: Spec, design: Design) -> Binding:
    """Bind every port of the spec, or say in `problems` why one cannot be."""
    binding = Binding()
    ours = [*spec.inputs, *spec.outputs]
    theirs = {p.name: p for p in design.ports}
    open_ours: list[SpecPort] = list(ours)
    steps: list[tuple[str, Callable[[SpecPort, Port], bool]]] = [("exact", lambda o, t: o.name == t.name)]
    if spec.lenient:
        steps += [
            ("case", lambda o, t: _style(o.name) == _style(t.name)),
            ("alias", lambda o, t: t.name in spec.aliases.get(o.name, ())),
            ("near", lambda o, t: _fits(o, t) and (is_near(o.name, t.name) or _are_clocks(spec, o, t))),
        ]
    for how, matches in steps:
        _step(how, matches, open_ours, theirs, binding)
        if how == "alias":
            _bind_bits(open_ours, theirs, binding)
    if spec.lenient:
        _step("only", _fits, open_ours, theirs, binding)
    for port in open_ours:
        left = [n for n, t in theirs.items() if t.direction == port.direction]
        hint = did_you_mean(port.name, left) or (f"not used so far: {', '.join(left[:6])}" if left else "")
        what = "input" if port.direction == "in" else "output"
        binding.problems.append(
            f"{what} `{port.name}` ({_bits(port.width)}) is missing" + (f"; {hint}" if hint else "")
        )
    order = {p.name: i for i, p in enumerate(ours)}
    binding.ports.sort(key=lambda b: order[b.ours])
    binding.floating = [p for p in theirs.values() if p.direction == "in"]
    return binding


def _bits(width: int) -> str:
    return "1 bit" if width == 1 else f"{width} bits"


def _fits(ours: SpecPort, theirs: Port) -> bool:
    return ours.direction == theirs.direction and ours.width == theirs.signal.width


def _step(
    how: str,
    matches: Callable[[SpecPort, Port], bool],
    open_ours: list[SpecPort],
    theirs: dict[str, Port],
    binding: Binding,
) -> None:
    """Bind where one of ours and one of theirs match each other and nothing else."""
    candidates = {o.name: [t for t in theirs.values() if matches(o, t)] for o in open_ours}
    for port in list(open_ours):
        found = candidates[port.name]
        if len(found) != 1 or sum(found[0] in other for other in candidates.values()) != 1:
            continue
        match = found[0]
        open_ours.remove(port)
        del theirs[match.name]
        if match.direction != port.direction:
            want = "an input" if port.direction == "in" else "an output"
            have = {"in": "an input", "out": "an output", "inout": "an inout"}[match.direction]
            binding.problems.append(f"`{match.name}` must be {want}, but is {have}")
            continue
        if match.signal.width != port.width:
            binding.problems.append(
                f"`{match.name}` must be {_bits(port.width)} wide, but is {_bits(match.signal.width)}"
            )
            continue
        binding.ports.append(Bound(port.name, match.name, how))
        for i in range(port.width):
            binding.bits[port.name, i] = (match, i)


def _bind_bits(open_ours: list[SpecPort], theirs: dict[str, Port], binding: Binding) -> None:
    """A bus of ours to single bits of theirs (`q3 q2 q1 q0`), and single bits of ours to a bus of theirs."""
    for port in [p for p in open_ours if p.width > 1]:
        singles = [_numbered(theirs, port.name, port.bit_name(i)) for i in range(port.width)]
        found = [t for t in singles if t is not None and t.direction == port.direction and t.signal.width == 1]
        if len(found) == port.width:
            open_ours.remove(port)
            for i, single in enumerate(found):
                binding.bits[port.name, i] = (single, 0)
                del theirs[single.name]
            binding.ports.append(Bound(port.name, " ".join(t.name for t in reversed(found)), "bits"))
    for name, bus in list(theirs.items()):
        width = bus.signal.width
        singles_of_ours = [
            next(
                (o for o in open_ours if o.width == 1 and o.direction == bus.direction and _is_bit(o.name, name, i)),
                None,
            )
            for i in range(width)
        ]
        if width > 1 and all(o is not None for o in singles_of_ours):
            for i, single_port in enumerate(singles_of_ours):
                assert single_port is not None
                open_ours.remove(single_port)
                binding.bits[single_port.name, 0] = (bus, i)
                binding.ports.append(Bound(single_port.name, f"{name}[{i}]", "bits"))
            del theirs[name]


def _is_bit(single: str, bus: str, index: int) -> bool:
    return single.lower() in (f"{bus}{index}".lower(), f"{bus}_{index}".lower(), f"{bus}[{index}]".lower())


def _numbered(theirs: dict[str, Port], name: str, bit_name: str) -> Port | None:
    index = int(bit_name[len(name) + 1 : -1])
    hits = [t for t in theirs.values() if _is_bit(t.name, name, index)]
    return hits[0] if len(hits) == 1 else None


def chosen_files(choices: Mapping[str, str]) -> dict[str, str]:
    """Which file a person has chosen for units that stand in several: choices under `@file:` and the unit's name."""
    return {ours.removeprefix(FILE_CHOICE): theirs for ours, theirs in choices.items() if ours.startswith(FILE_CHOICE)}
