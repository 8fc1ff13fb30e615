"""Flip-flops and latches of wiring lists: their pins, and the processes that they become.

`flipflop(d, rise: clk)` takes its data at the rising edge, `fall:` at the falling one; `enable:` lets it, `clear:` and
`preset:` act at once (`clear_low:` and `preset_low:` at 0). `latch(d, open: en)` follows its data while open. Both hold
as many bits as their data has, and are unknown at power-up."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.ir.design import Process
from obento.core.ir.drivers import stretches_read, watches_of
from obento.core.ir.signal import Signal, Watch
from obento.core.values import ones

STORAGE = {
    "flipflop": ("rise", "fall", "enable", "clear", "clear_low", "preset", "preset_low"),
    "latch": ("open", "clear", "clear_low", "preset", "preset_low"),
}
"""Kinds of storage and their pins besides the data."""

OVERRIDE = "override"
"""Origin of the process by which a clear or preset acts at once; it belongs to the flip-flop, and is no part of its
own."""

Pin = tuple[Signal, int]
"""A wire: signal and bit."""


def wrong_pins(what: str, pins: set[str]) -> str:
    """What is wrong with the pins that are connected; empty when nothing is."""
    if what == "flipflop" and len(pins & {"rise", "fall"}) != 1:
        return "a flip-flop needs one clock: `rise:` or `fall:`"
    if what == "latch" and "open" not in pins:
        return "a latch needs `open:`"
    for name in ("clear", "preset"):
        if {name, f"{name}_low"} <= pins:
            return f"`{name}:` and `{name}_low:` exclude each other"
    return ""


def storage_processes(
    what: str, held: Signal, data: ir.Expr, pins: dict[str, Pin], position: int, path: str
) -> list[Process]:
    """The processes that keep `held`. Unknown pins make unknown what depends on them.

    A latch is one that follows its data. A flip-flop has one for its clock and, with a clear or preset, one that wakes
    whenever such a pin turns either way: a preset that is still active when the clear ends acts at that moment. Where
    both write in one sweep the clock's comes last; it looks at clear and preset as well, so that the two agree."""
    width = held.width
    own = ir.Ref(width, held)
    value: ir.Expr = data
    gate = "enable" if what == "flipflop" else "open"
    if gate in pins:
        value = ir.Mux(width, _read(pins[gate]), value, own)
    levels = {name: level for name in ("preset", "clear") if (level := _active(name, pins)) is not None}
    target = [ir.Target(held, 0, width)]
    value = _overridden(value, levels)
    if what == "latch":
        return [
            Process(
                "continuous",
                ir.Assign(position, target, value),
                watches_of(stretches_read(value)),
                position,
                what,
                path,
            )
        ]
    signal, low = pins["rise" if "rise" in pins else "fall"]
    clock = Watch(signal, "pos" if "rise" in pins else "neg", low, 1)
    clocked = Process("always", ir.Assign(position, target, value, False), [clock], position, what, path)
    if not levels:
        return [clocked]
    any_active: ir.Expr = next(iter(levels.values()))
    for level in list(levels.values())[1:]:
        any_active = ir.Binary(1, "or", any_active, level)
    idle = ir.Binary(1, "ceq", any_active, ir.Const(1, 0, 1))
    override = ir.If(position, idle, None, ir.Assign(position, target, _overridden(own, levels), False))
    return [Process("always", override, watches_of(stretches_read(any_active)), position, OVERRIDE, path), clocked]


def _overridden(value: ir.Expr, levels: dict[str, ir.Expr]) -> ir.Expr:
    """What is held where a clear or preset may act; the clear, put around the preset, wins."""
    width = value.width
    constants = {"preset": ir.Const(width, ones(width), 0), "clear": ir.Const(width, 0, ones(width))}
    for name, level in levels.items():
        value = ir.Mux(width, level, constants[name], value)
    return value


def _active(name: str, pins: dict[str, Pin]) -> ir.Expr | None:
    """1 while the clear or preset acts; None where there is none."""
    if name in pins:
        return _read(pins[name])
    return ir.Unary(1, "not", _read(pins[f"{name}_low"])) if f"{name}_low" in pins else None


def _read(pin: Pin) -> ir.Expr:
    signal, low = pin
    ref = ir.Ref(signal.width, signal)
    return ref if signal.width == 1 else ir.Slice(1, ref, low)
