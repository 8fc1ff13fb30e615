"""What can be set from outside, by environment variables that begin with OBENTO_."""

from __future__ import annotations

from pathlib import Path
from typing import Literal
from urllib.parse import urlsplit

from pydantic_settings import BaseSettings, SettingsConfigDict

from obento.store.erased_for_good import Ledger
from obento.store.mariadb import Address, DatabaseServer, ExternalServer, PrivateServer


class Settings(BaseSettings):
    """Every one has a default that serves one machine; docs/running.md says what each is for."""

    model_config = SettingsConfigDict(env_prefix="OBENTO_")

    root: Path = Path.cwd()
    var: Path | None = None
    host: str = "127.0.0.1"
    port: int = 8400
    trusted_proxies: str = ""
    database_url: str = ""
    log: Literal["text", "json"] = "text"
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
    def sample_folder(self) -> Path:
        """The class that comes with the program."""
        return self.root / "demo"

    @property
    def erased(self) -> Ledger:
        """Who has to stay erased."""
        return Ledger(self.var_folder / "erased")

    @property
    def address(self) -> str:
        """Where people find it."""
        return self.public_address.rstrip("/") or f"http://127.0.0.1:{self.port}"

    @property
    def base_path(self) -> str:
        """What stands before every path, where a proxy hands on one part of a site: empty, or `/labs`."""
        return urlsplit(self.address).path.rstrip("/")

    def database(self) -> DatabaseServer:
        """The private database, or the one that `database_url` names."""
        if self.database_url:
            return ExternalServer(Address.of_url(self.database_url))
        return PrivateServer(self.var_folder / "database")
