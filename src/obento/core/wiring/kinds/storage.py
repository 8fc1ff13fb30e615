"""Flip-flops, registers, counters and latches: their pins, and the processes that they become.

What takes its data at an edge has `rise:` or `fall:`; `enable:` lets it, `reset:` brings it to 0 at that edge,
What takes its data at an edge has `rise:` or `fall:`; `enable:` lets it, `reset:` brings it to 0 at the edge,
as wide as their data, and unknown at power-up."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

from obento.core.ir import nodes as ir
from obento.core.ir.design import Process
from obento.core.ir.drivers import stretches_read, watches_of
from obento.core.ir.signal import Signal, Watch
from obento.core.values import ones
from obento.core.wiring.kinds.kind import Kind, Misfit, Place, Sizes, Values, alike, constant, unknown

OVERRIDE = "override"
"""Origin of the process by which a clear or preset acts at once; it belongs to the flip-flop, and is no part of its
own."""

_AT_ONCE = ("clear", "clear_low", "preset", "preset_low")
_AT_THE_EDGE = ("rise", "fall", "enable", "reset", "reset_low", *_AT_ONCE)

Next = Callable[[Values, ir.Expr], ir.Expr]
"""What is held after the edge, from what is given and what is held before."""


def _wrong_pins(what: str) -> Callable[[set[str]], str]:
    """What is wrong with the pins that are connected."""

    def check(pins: set[str]) -> str:
        if len(pins & {"rise", "fall"}) != 1:
            return f"a {what} needs one clock: `rise:` or `fall:`"
        return _both(pins)

    return check


def _wrong_latch_pins(pins: set[str]) -> str:
    return "a latch needs `open:`" if "open" not in pins else _both(pins)


def _both(pins: set[str]) -> str:
    for name in ("clear", "preset", "reset"):
        if {name, f"{name}_low"} <= pins:
            return f"`{name}:` and `{name}_low:` exclude each other"
    return ""


# What takes its data at an edge.


def _clocked(what: str, width_of: str, following: Next) -> Callable[[Values, Place], Sequence[ir.Expr]]:
    """Something with an edge, enable, reset, clear and preset; as wide as the operand of that name."""

    def build(v: Values, place: Place) -> Sequence[ir.Expr]:
        width = v.sizes[width_of]
        held = place.held("q", width)
        own = ir.Ref(width, held)
        _keep(what, held, following(v, own), v, place)
        return [own]

    return build


def _keep(what: str, held: Signal, value: ir.Expr, v: Values, place: Place) -> None:
    """The processes that keep `held`. Unknown pins make unknown what depends on them.

    There is one for the clock and, with a clear or preset, one that wakes whenever such a pin turns either way: a
    preset that is still active when the clear ends acts then. Where both write in one sweep the clock's comes last;
    it looks at clear and preset as well, so that the two agree."""
    width, at = held.width, place.position
    own = ir.Ref(width, held)
    enable, reset = v.get("enable"), _level("reset", v)
    if enable is not None:
        value = ir.Mux(width, enable, value, own)
    if reset is not None:
        value = ir.Mux(width, reset, constant(width, 0), value)
    levels = _levels(v, place)
    target = [ir.Target(held, 0, width)]
    edge = "rise" if v.get("rise") is not None else "fall"
    signal, low = place.wire(v[edge], edge)
    clock = Watch(signal, "pos" if edge == "rise" else "neg", low, 1)
    body = ir.Assign(at, target, _overridden(value, levels), False)
    clocked = Process("always", body, [clock], at, what, place.path)
    if levels:
        any_active: ir.Expr = next(iter(levels.values()))
        for level in list(levels.values())[1:]:
            any_active = ir.Binary(1, "or", any_active, level)
        idle = ir.Binary(1, "ceq", any_active, ir.Const(1, 0, 1))
        override = ir.If(at, idle, None, ir.Assign(at, target, _overridden(own, levels), False))
        place.process(Process("always", override, watches_of(stretches_read(any_active)), at, OVERRIDE, place.path))
    place.process(clocked)


def _levels(v: Values, place: Place) -> Mapping[str, ir.Expr]:
    """What makes a preset and a clear act, the clear last, since it wins."""
    found: dict[str, ir.Expr] = {}
    for name in ("preset", "clear"):
        for pin in (name, f"{name}_low"):
            given = v.get(pin)
            if given is not None:
                signal, low = place.wire(given, pin)
                ref = ir.Ref(signal.width, signal)
                level = ref if signal.width == 1 else ir.Slice(1, ref, low)
                found[name] = level if pin == name else ir.Unary(1, "not", level)
    return found


def _level(name: str, v: Values) -> ir.Expr | None:
    """1 while a pin acts; None where it is not connected."""
    low = v.get(f"{name}_low")
    return ir.Unary(1, "not", low) if low is not None else v.get(name)


def _overridden(value: ir.Expr, levels: Mapping[str, ir.Expr]) -> ir.Expr:
    """What is held where a clear or preset may act; the clear, put around the preset, wins."""
    width = value.width
    constants = {"preset": ir.Const(width, ones(width), 0), "clear": ir.Const(width, 0, ones(width))}
    for name, level in levels.items():
        value = ir.Mux(width, level, constants[name], value)
    return value


def _data(v: Values, own: ir.Expr) -> ir.Expr:
    del own
    return v["d"]


def _toggled(v: Values, own: ir.Expr) -> ir.Expr:
    return ir.Binary(own.width, "xor", own, v["t"])


def _set_or_reset(s: ir.Expr, r: ir.Expr, own: ir.Expr) -> ir.Expr:
    kept = ir.Binary(own.width, "and", own, ir.Unary(own.width, "not", r))
    return ir.Binary(own.width, "or", s, kept)


def _jk(v: Values, own: ir.Expr) -> ir.Expr:
    width = own.width
    up = ir.Binary(width, "and", v["j"], ir.Unary(width, "not", own))
    return ir.Binary(width, "or", up, ir.Binary(width, "and", own, ir.Unary(width, "not", v["k"])))


def _sr(v: Values, own: ir.Expr) -> ir.Expr:
    """Set wins nothing: where both are 1 nobody knows what comes of it."""
    both = ir.Binary(own.width, "and", v["s"], v["r"])
    spoiled = ir.Binary(own.width, "and", both, unknown(own.width))
    return ir.Binary(own.width, "xor", _set_or_reset(v["s"], v["r"], own), spoiled)


def _loaded(v: Values, own: ir.Expr) -> ir.Expr:
    load = v.get("load")
    return v["d"] if load is None else ir.Mux(own.width, load, v["d"], own)


# Counters.


def _counter(v: Values, place: Place) -> Sequence[ir.Expr]:
    """Counts up, or down where `down:` is 1, from 0 to `last:` and round; `load:` takes `data:` instead."""
    width = v.sizes["bits"]
    held = place.held("q", width)
    own = ir.Ref(width, held)
    zero, one = constant(width, 0), constant(width, 1)
    last = v.get("last") or ir.Const(width, ones(width), 0)
    at_last, at_zero = ir.Binary(1, "eq", own, last), ir.Binary(1, "eq", own, zero)
    up: ir.Expr = ir.Mux(width, at_last, zero, ir.Binary(width, "add", own, one))
    following: ir.Expr = up
    ends: ir.Expr = at_last
    down = v.get("down")
    if down is not None:
        falling = ir.Mux(width, at_zero, last, ir.Binary(width, "sub", own, one))
        following = ir.Mux(width, down, falling, up)
        ends = ir.Mux(1, down, at_zero, at_last)
    load = v.get("load")
    enable = v.get("enable")
    if enable is not None:
        ends = ir.Binary(1, "and", enable, ends)
    if load is not None:
        following = ir.Mux(width, load, v["data"], following)
    _keep("counter", held, following, v, place)
    return [own, ends]


def _counter_sizes(sizes: Sizes) -> Sequence[int]:
    if "bits" not in sizes:
        raise Misfit("pin", "how many digits it counts in is missing", "", "write for instance `bits: 4`")
    alike(sizes, "bits", *(name for name in ("data", "last") if name in sizes))
    return [sizes["bits"], 1]


def _wrong_counter_pins(pins: set[str]) -> str:
    if ("load" in pins) != ("data" in pins):
        return "`load:` and `data:` belong together"
    return _wrong_pins("counter")(pins)


# What follows while open.


def _latch(v: Values, place: Place) -> Sequence[ir.Expr]:
    width = v.sizes["d"]
    held = place.held("q", width)
    own = ir.Ref(width, held)
    _follow("latch", held, ir.Mux(width, v["open"], v["d"], own), v, place)
    return [own]


def _sr_latch(v: Values, place: Place) -> Sequence[ir.Expr]:
    held = place.held("q", v.sizes["s"])
    own = ir.Ref(held.width, held)
    _follow("latch_sr", held, _sr(v, own), v, place)
    return [own]


def _follow(what: str, held: Signal, value: ir.Expr, v: Values, place: Place) -> None:
    value = _overridden(value, _levels(v, place))
    body = ir.Assign(place.position, [ir.Target(held, 0, held.width)], value)
    place.process(Process("continuous", body, watches_of(stretches_read(value)), place.position, what, place.path))


def _as(*names: str) -> Callable[[Sizes], Sequence[int]]:
    return lambda sizes: [alike(sizes, *names)]


def _edged(
    name: str, operands: tuple[str, ...], following: Next, pins: tuple[str, ...] = (), what: str = "flip-flop"
) -> Kind:
    """A kind that takes its data at an edge."""
    build = _clocked(name, operands[0], following)
    check = _wrong_pins(what)
    return Kind(name, operands, ("q",), _as(*operands), build, (*_AT_THE_EDGE, *pins), stores=True, check=check)


_COUNTER_PINS = ("bits", *_AT_THE_EDGE, "down", "load", "data", "last")

KINDS = [
    _edged("flipflop", ("d",), _data),
    _edged("flipflop_t", ("t",), _toggled),
    _edged("flipflop_jk", ("j", "k"), _jk),
    _edged("flipflop_sr", ("s", "r"), _sr),
    _edged("register", ("d",), _loaded, ("load",), "register"),
    Kind(
        "counter", (), ("count", "wrap"), _counter_sizes, _counter, _COUNTER_PINS, frozenset(["data", "last"]), True,
        _wrong_counter_pins,
    ),
    Kind("latch", ("d",), ("q",), _as("d"), _latch, ("open", *_AT_ONCE), stores=True, check=_wrong_latch_pins),
    Kind("latch_sr", ("s", "r"), ("q",), _as("s", "r"), _sr_latch, _AT_ONCE, stores=True, check=_both),
]  # fmt: skip
