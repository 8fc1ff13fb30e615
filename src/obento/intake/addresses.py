"""E-mail addresses as they may stand in a class list."""

from __future__ import annotations

import re

_ADDRESS = re.compile(r"[A-Za-z0-9!#$%&'*+/=?^_`{|}~.-]{1,64}@(?=.{1,190}$)[A-Za-z0-9-]+(\.[A-Za-z0-9-]+)*")


def is_address(text: str) -> bool:
    """Whether mail can be sent to a text (RFC 5321 clause 4.1.2, without quoted forms and names in other scripts)."""
    return _ADDRESS.fullmatch(text) is not None and ".." not in text
