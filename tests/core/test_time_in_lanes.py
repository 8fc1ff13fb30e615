"""What takes long on its way into lanes stops when its time is up."""

from __future__ import annotations

import pytest

from obento.core.limits import Limits, TimeIsUp
from obento.core.sim.event_driven import EventDriven
from obento.core.values import ones
from tests.core.designs import build

LONG = """
module m (input [7:0] a, output reg [7:0] y);
  integer i;
  always @* begin
    y = a;
    for (i = 0; i < 900; i = i + 1) y = y + a;
  end
endmodule
"""


def test_a_long_loop_stops_when_its_time_is_up() -> None:
    asked = []

    def expired() -> bool:
        asked.append(True)
        return len(asked) > 3

    with pytest.raises(TimeIsUp, match="too long"):
        EventDriven(build(LONG), Limits(expired=expired)).power_up(ones(4))
    assert len(asked) == 4


def test_it_runs_to_its_end_while_there_is_time() -> None:
    EventDriven(build(LONG), Limits()).power_up(ones(4))
