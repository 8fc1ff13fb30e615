"""Passwords, tokens, and who may do what."""

from __future__ import annotations

import hashlib
import secrets

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

_hasher = PasswordHasher()
_NOBODY = _hasher.hash(secrets.token_hex(16))
"""Compared with when there is no such account, so that the answer takes as long."""


def hash_password(password: str) -> str:
    return _hasher.hash(password)


def password_fits(stored: str | None, password: str) -> bool:
    """Whether a password is the one kept; an account that has none yet (empty) takes none."""
    try:
        return _hasher.verify(stored or _NOBODY, password) and bool(stored)
    except (VerificationError, InvalidHashError):
        return False


def new_token() -> str:
    """43 characters that nobody guesses."""
    return secrets.token_urlsafe(32)


def token_hash(token: str) -> str:
    """What is kept of a token: it cannot be turned back."""
    return hashlib.sha256(token.encode()).hexdigest()
