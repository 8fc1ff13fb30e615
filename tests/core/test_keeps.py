"""Whether a body keeps anything from one run to the next (core/ir/keeps), read from small Verilog processes."""

from __future__ import annotations

import pytest

from obento.core.ir.keeps import keeps_nothing
from tests.core.designs import build

BODIES = [
    ("y <= a;", True),
    ("t = a; y <= t;", True),
    ("y <= t; t = a;", False),
    ("if (a) y <= b; else y <= ~b;", True),
    ("if (a) y <= b;", False),
    ("y <= 0; if (a) y <= b;", True),
    ("case (a) 1'b0: y <= b; default: y <= 1; endcase", True),
    ("case (a) 1'b0: y <= b; 1'b1: y <= 1; endcase", False),  # nothing for x
    ("t = 0; if (a) t = b; y <= t;", True),
    ("if (a) t = b; y <= t;", False),
    ("if (a) t = b; else t = 0; y <= t;", True),
    ("v[b] = a; y <= v[0];", False),
    ("v = 0; v[b] = a; y <= v[0];", True),
    ("v[0] = a; y <= v[0];", True),
    ("v[0] = a; y <= v[1];", False),
    ("repeat (2) y <= a;", False),
    ("begin : named y <= a; end", False),
]


@pytest.mark.parametrize(("body", "wanted"), BODIES, ids=[b[0] for b in BODIES])
def test_what_a_body_keeps(body: str, wanted: bool) -> None:
    design = build(
        f"module m(input a, b, output reg y); reg t; reg [1:0] v; always @(a or b) begin {body} end endmodule"
    )
    (process,) = [p for p in design.processes if p.kind == "always"]
    assert process.body is not None
    woken_by = {w.signal.offset + w.low + i for w in process.watches for i in range(w.width)}
    assert keeps_nothing(process.body, woken_by) is wanted
