"""Near names, for messages that say "did you mean"."""

from __future__ import annotations

import pytest

from obento.core.suggest import did_you_mean, nearest


@pytest.mark.parametrize(
    ("name", "known", "near"),
    [
        ("alram", ["alarm", "key"], "alarm"),
        ("ALARM", ["alarm"], "alarm"),
        ("gate", ["Gates", "rate"], "Gates"),
        ("xyz", ["alarm", "key"], None),
        ("a", [], None),
        ("level", ["level_eq", "lever"], "lever"),
    ],
)
def test_the_nearest_name(name: str, known: list[str], near: str | None) -> None:
    assert nearest(name, known) == near
    assert did_you_mean(name, known) == (f"did you mean `{near}`?" if near else "")
