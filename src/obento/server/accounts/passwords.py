"""Which passwords are taken."""

from __future__ import annotations

from importlib.resources import files

from obento.server.errors import Trouble

LEAST = 10
_KINDS = 4
"""So many different characters at least."""


def _common() -> frozenset[str]:
    text = files("obento.server.accounts").joinpath("common_passwords.txt").read_text(encoding="utf-8")
    return frozenset(line for line in text.splitlines() if line)


COMMON = _common()


def require_good(password: str, email: str) -> None:
    """Raises `Trouble` (422) for what others would try first."""
    bare = "".join(password.split()).casefold()
    if len(bare) < LEAST:
        raise Trouble(422, f"a password has {LEAST} characters at least, blanks not counted")
    if len(set(bare)) < _KINDS or bare in COMMON or bare.strip("0123456789!.?") in COMMON:
        raise Trouble(422, "this password is one of the first that others would try; take another")
    if bare in (email, email.partition("@")[0]):
        raise Trouble(422, "a password is not one's own address")
