"""Wiring lists (`*.wiring`): our circuit text, one line a gate or a block."""
