"""Shapes that answers of several subjects share."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel


class Done(BaseModel):
    ok: bool = True


class Created(BaseModel):
    id: int


class MessageView(BaseModel):
    severity: Literal["error", "warning", "note"]
    code: str
    file: str
    line: int
    column: int
    text: str
    hint: str = ""
    end_line: int = 0
    end_column: int = 0


class NameBinding(BaseModel):
    ours: str
    theirs: str
    how: str
    agreed: bool
