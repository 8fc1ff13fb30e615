"""Pieces of the text that is made of a hierarchy, and their way to what can be executed."""

from __future__ import annotations

from types import CodeType
from typing import NamedTuple

from obento.core.limits import LimitReached


class Piece(NamedTuple):
    """Text that is compiled when something runs: of what it was made, and where that stands."""

    text: str
    name: str
    position: int = 0


def compiled(piece: Piece | CodeType) -> CodeType:
    """A piece ready to be executed.

    Raises
    ------
    LimitReached
        If it nests deeper than Python takes.
    """
    if isinstance(piece, CodeType):
        return piece
    try:
        return compile(piece.text, f"<{piece.name}>", "exec")
    except (SyntaxError, RecursionError, MemoryError) as error:
        raise LimitReached(f"`{piece.name}` nests deeper than can be run", piece.position) from error
