"""Changes of drawn circuits that a comment shows, as a letter draws them."""

from __future__ import annotations

from typing import Literal

from obento.core.board.changes import Driven, Piece, changes_in
from obento.server.feedback.models import ChangeView, DrivenView, PieceView


def changes_view(of: Literal["comment", "note"], text: str) -> list[ChangeView]:
    """The changes in a comment or a note."""
    return [
        ChangeView(
            of=of,
            first=change.first,
            count=change.count,
            before=[_driven(d) for d in change.before],
            after=[_driven(d) for d in change.after],
        )
        for change in changes_in(text)
    ]


def _driven(driven: Driven) -> DrivenView:
    return DrivenView(names=driven.names, piece=_piece(driven.piece))


def _piece(piece: Piece) -> PieceView:
    return PieceView(
        kind=piece.kind, text=piece.text, inverted=piece.is_inverted, inputs=[_piece(p) for p in piece.inputs]
    )
