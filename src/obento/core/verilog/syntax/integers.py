"""The types that are words: how wide they are, their sign, their states (IEEE 1364-2005 clause 3.9, 1800-2017 tables 6-8 and 6-9)."""

from __future__ import annotations

WIDTHS = {"integer": 32, "int": 32, "time": 64, "real": 64, "realtime": 64, "byte": 8, "shortint": 16, "longint": 64}
"""Of types that have no range; all others are one digit wide without one."""

SIGNED_TYPES = frozenset(["integer", "int", "byte", "shortint", "longint"])
"""Signed unless `unsigned` stands behind them."""

TWO_STATE = frozenset(["bit", "int", "byte", "shortint", "longint"])
"""Their variables hold nothing but 0 and 1, 0 at first (1800 clauses 6.3.1 and 6.8)."""
