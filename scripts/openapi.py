"""Writes the OpenAPI description of the server, from which the front end's types are made.

    python scripts/openapi.py FILE

The paths stand without their common prefix, which is told as the server's address (OpenAPI 3.1, 4.8.5).
"""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Any

from obento.server.app import create_app
from obento.server.settings import Settings
from obento.store.mariadb import Address

PREFIX = "/api"


def described() -> dict[str, Any]:
    """The description; nothing is started, since it follows from the routes alone."""
    description = create_app(Settings(), Address(0, "")).openapi()
    paths = {path.removeprefix(PREFIX): item for path, item in description["paths"].items()}
    return description | {"paths": paths, "servers": [{"url": PREFIX}]}


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(json.dumps(described(), indent=1, sort_keys=True), encoding="utf-8")
