"""How often a password may be tried: each try is counted before it is looked at, and after a few the next one has to
wait, longer each time. Nobody is locked out by others: a browser in which somebody has signed in before has a count of
its own."""

from __future__ import annotations

from dataclasses import dataclass

from obento.server.errors import Trouble
from obento.store import accounts
from obento.store.connection import Store

_MINUTES = 15
"""For so long a try counts."""
_LONGEST = 60
"""Seconds that the next try has to wait at most."""


@dataclass(frozen=True, slots=True)
class Counted:
    """What tries are counted by, and how many are free."""

    key: str
    free: int


def by_account(email: str) -> Counted:
    return Counted(f"account:{email}", 5)


def by_client(address: str) -> Counted:
    """A whole building may stand behind one address."""
    return Counted(f"client:{address[:64]}", 40)


def by_browser(token_hash: str) -> Counted:
    return Counted(f"browser:{token_hash}", 8)


def by_person(person_id: int) -> Counted:
    """For somebody who is signed in and changes the password."""
    return Counted(f"password:{person_id}", 5)


def count(store: Store, *counts: Counted) -> None:
    """Count one try.

    Raises
    ------
    Trouble
        429 where it has to wait; it is not counted then.
    """
    with store.transaction(is_shown=False) as c:
        tries = [(counted, accounts.note_try(c, counted.key)) for counted in counts]
    with store.transaction(is_shown=False) as c:
        waits = [_wait(counted, *accounts.tries_before(c, counted.key, number, _MINUTES)) for counted, number in tries]
        if max(waits) > 0:
            for _, number in tries:
                accounts.drop_try(c, number)
    if max(waits) > 0:
        raise Trouble(429, f"too many wrong passwords; try again in {max(waits)} seconds")


def _wait(counted: Counted, before: int, since: float) -> int:
    """Seconds that are left to wait, after so many tries of which the last was so long ago."""
    if before < counted.free:
        return 0
    wait: int = min(_LONGEST, 2 ** (before - counted.free + 1))
    return max(0, round(wait - since + 0.5))


def forget(store: Store, *counts: Counted) -> None:
    """A try was right: those before it count no longer."""
    with store.transaction(is_shown=False) as c:
        for counted in counts:
            accounts.forget_tries(c, counted.key)
