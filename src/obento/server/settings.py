"""What can be set from outside, by environment variables that begin with OBENTO_."""

from __future__ import annotations

from pathlib import Path
from typing import Literal

from pydantic_settings import BaseSettings, SettingsConfigDict


class Settings(BaseSettings):
    model_config = SettingsConfigDict(env_prefix="OBENTO_")

    root: Path = Path.cwd()
    var: Path | None = None
    port: int = 8400
    workers: int = 2
    check_seconds: float = 60.0
    upload_bytes: int = 200_000_000
    link_days: int = 120
    session_hours: int = 12
    smtp_host: str = ""
    smtp_port: int = 25
    smtp_security: Literal["none", "starttls", "tls"] = "none"
    smtp_user: str = ""
    smtp_password: str = ""
    mail_sender: str = "signals-labs@college.example"
    public_address: str = ""

    @property
    def var_folder(self) -> Path:
        return self.var or self.root / "var"

    @property
    def address(self) -> str:
        return self.public_address or f"http://127.0.0.1:{self.port}"
