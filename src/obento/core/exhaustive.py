"""Walks over trees name every kind of node; what they do not name is our own mistake, and is said at once."""

from __future__ import annotations


def no_rule(node: object) -> AssertionError:
    """The error, to be raised, of a kind of node that a walk has no rule for."""
    return AssertionError(f"no rule for {type(node).__name__}")
