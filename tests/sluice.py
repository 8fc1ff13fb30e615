"""A small lab of the tests' own: a sluice that warns when it is open too high."""

SPEC = """obento = "spec/1"
title = "Sluice warning"
unit = "sluice"

[ports]
in = "high wide"
out = "warn"

[expect]
equations = "warn = high & !wide"
"""
