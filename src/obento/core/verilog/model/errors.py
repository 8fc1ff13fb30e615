"""The way out of something that cannot be elaborated."""

from __future__ import annotations


class ElaborationError(Exception):
    """Cannot be lowered; already reported when raised."""
