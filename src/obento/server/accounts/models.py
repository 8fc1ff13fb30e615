"""The shapes of requests and answers about accounts."""

from __future__ import annotations

from datetime import datetime

from pydantic import BaseModel, Field


class SignIn(BaseModel):
    email: str = Field(max_length=200)
    password: str = Field(max_length=500)


class Me(BaseModel):
    id: int
    name: str
    email: str
    csrf: str


class NewPassword(BaseModel):
    password: str = Field(min_length=10, max_length=500)


class PasswordChange(NewPassword):
    old: str = Field(max_length=500)


class InvitationView(BaseModel):
    """Whose link it is."""

    name: str
    email: str


class Waiting(BaseModel):
    """The place in the queue of what somebody waits for."""

    before: int | None


class SessionView(BaseModel):
    """Where somebody is signed in; `is_this` is the one that asks."""

    key: str
    started_at: datetime | None
    browser: str
    is_this: bool
