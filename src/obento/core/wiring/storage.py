"""Flip-flops and latches of wiring lists: their pins, and the processes that they become.

`flipflop(d, rise: clk)` takes its data at the rising edge, `fall:` at the falling one; `enable:` lets it, `clear:` and `preset:`
act at once (`clear_low:` and `preset_low:` at 0). `latch(d, open: en)` follows its data while open. Both hold as many bits as
their data has, and are unknown at power-up.
"""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.ir.design import Process, Signal, Watch
from obento.core.ir.drivers import stretches_read, watches_of
from obento.core.values import ones

STORAGE = {
    "flipflop": ("rise", "fall", "enable", "clear", "clear_low", "preset", "preset_low"),
    "latch": ("open", "clear", "clear_low", "preset", "preset_low"),
}
"""Kinds of storage and their pins besides the data."""

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


def storage_process(what: str, held: Signal, data: ir.Expr, pins: dict[str, Pin], position: int, path: str) -> Process:
    """The process that keeps `held`. Unknown pins make unknown what depends on them."""
    width = held.width
    own = ir.Ref(width, held)
    value: ir.Expr = data
    gate = "enable" if what == "flipflop" else "open"
    if gate in pins:
        value = ir.Mux(width, _read(pins[gate]), value, own)
    watches: list[Watch] = []
    # The preset first, so that the clear, put around it, wins.
    for name, constant in (("preset", ir.Const(width, ones(width), 0)), ("clear", ir.Const(width, 0, ones(width)))):
        for pin, is_low in ((name, False), (f"{name}_low", True)):
            if pin in pins:
                signal, low = pins[pin]
                value = ir.Mux(width, _read(pins[pin]), value, constant) if is_low else ir.Mux(width, _read(pins[pin]), constant, value)
                watches.append(Watch(signal, "neg" if is_low else "pos", low, 1))
    body = ir.Assign(position, [ir.Target(held, 0, width)], value, what == "latch")
    if what == "latch":
        return Process("continuous", body, watches_of(stretches_read(value)), position, what, path)
    edge = "rise" if "rise" in pins else "fall"
    signal, low = pins[edge]
    watches.insert(0, Watch(signal, "pos" if edge == "rise" else "neg", low, 1))
    return Process("always", body, watches, position, what, path)


def _read(pin: Pin) -> ir.Expr:
    signal, low = pin
    ref = ir.Ref(signal.width, signal)
    return ref if signal.width == 1 else ir.Slice(1, ref, low)
