"""What a person may do in a class by their role there."""

from __future__ import annotations

from typing import Literal

from obento.store.course import Standing

Right = Literal["anybody", "signed in", "look", "work", "manage", "release"]
"""`anybody` needs no sign-in; `signed in` no class. In a class: `look` at everything; `work` is taking in, checking,
commenting and marking; `manage` is terms, specs and people; `release` sends letters and takes them back."""


def rights_of(standing: Standing) -> frozenset[Right]:
    """What a person may do in a class."""
    if standing.role == "reader":
        return frozenset(["look"])
    has: set[Right] = {"look", "work"}
    if standing.role == "lecturer" or standing.tas_manage:
        has.add("manage")
    if standing.role == "lecturer" or standing.tas_release:
        has.add("release")
    return frozenset(has)
