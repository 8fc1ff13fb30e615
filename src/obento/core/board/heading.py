"""The head of a wiring list: its name and its ports, as one would write them."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.spec.model import Spec, SpecPort


def bus(name: str, left: int, right: int) -> str:
    """A port: `key`, `depth[4]`, or `addr[0..3]` where its bits are numbered otherwise."""
    if left == right == 0:
        return name
    return f"{name}[{left + 1}]" if right == 0 else f"{name}[{left}..{right}]"


def heading(spec: Spec) -> list[str]:
    """The lines with which a wiring list for a spec begins."""
    return [
        f"wiring {spec.unit}",
        f"  takes {_side(spec.inputs)}",
        f"  gives {_side(spec.outputs)}",
        "",
    ]


def _side(ports: Sequence[SpecPort]) -> str:
    return ", ".join(p.name if p.width == 1 else bus(p.name, p.left, p.right) for p in ports)
