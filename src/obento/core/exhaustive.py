"""Walks over trees name every kind of node; what they do not name is our own mistake, and is said at once."""

from __future__ import annotations

from typing import NoReturn


def no_rule(node: object) -> NoReturn:
    """A kind of node that a walk has no rule for.

    Raises
    ------
    AssertionError
        Always.
    """
    raise AssertionError(f"no rule for {type(node).__name__}")
