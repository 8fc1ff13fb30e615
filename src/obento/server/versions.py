"""How two people who change the same at once notice each other."""

from __future__ import annotations

import hashlib


def version_of(*said: object) -> str:
    """A print of what something says; whoever changes it names the one that they saw."""
    return hashlib.sha256(repr(said).encode("utf-8", "surrogatepass")).hexdigest()
