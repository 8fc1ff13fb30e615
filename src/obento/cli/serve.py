"""The commands that start things: the whole server, and the database alone."""

from __future__ import annotations

import os
import signal
import sys
from pathlib import Path

import uvicorn

from obento.demo.load import DEMO_PASSWORD, DEMO_TA, load_demo
from obento.server.accounts.security import password_fits
from obento.server.app import create_app
from obento.server.logs import set_up_logs
from obento.server.settings import Settings
from obento.store import accounts, trash
from obento.store.connection import Store
from obento.store.mariadb import DatabaseServer, DatabaseTrouble, PrivateServer, is_free
from obento.store.migrate import migrate


def root() -> Path:
    """The project's folder, in which `var/` lies."""
    return Path(os.environ.get("OBENTO_ROOT", Path.cwd()))


def run_serve(port: int, demo: bool) -> int:
    """Database, migrations, the demo class in a new database (if wanted), server; everything started here ends with
    it."""
    settings = Settings(root=root(), port=port)
    set_up_logs(settings.log)
    if not is_free(port, settings.host):
        print(
            f"obento: port {port} is taken; stop what uses it, or give another: ./obento start --port {port + 1}",
            file=sys.stderr,
        )
        return 1
    database: DatabaseServer | None = None
    signal.signal(signal.SIGTERM, signal.default_int_handler)
    try:
        database = settings.database()
        print("obento: starting the database", flush=True)
        address = database.start()
        store = Store(address)
        migrate(store)
        with store.transaction() as c:
            trash.purge(c)
        if demo and load_demo(store, settings):
            print("obento: the database is new: loaded the demo class", flush=True)
        app = create_app(settings, address, database.start)
        print(f"obento: open {settings.address}{_how_to_sign_in(store)}", flush=True)
        print("obento: Ctrl-C stops everything", flush=True)
        uvicorn.Server(
            uvicorn.Config(
                app, host=settings.host, port=port, log_level="warning", log_config=None, access_log=False,
                timeout_graceful_shutdown=1, server_header=False, proxy_headers=bool(settings.trusted_proxies),
                forwarded_allow_ips=settings.trusted_proxies or None,
            )
        ).run()  # fmt: skip
    except DatabaseTrouble as error:
        print(f"obento: {error}", file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        pass
    finally:
        if database is not None:
            database.stop()
        print("obento: stopped", flush=True)
    return 0


def _how_to_sign_in(store: Store) -> str:
    """With the demo's account, as long as it has the password that everybody knows."""
    with store.transaction() as c:
        ta = accounts.person_by_email(c, DEMO_TA)
    if ta is not None and password_fits(ta.password_hash, DEMO_PASSWORD):
        return f" and sign in as {DEMO_TA} with the password {DEMO_PASSWORD}"
    return "; `./obento account EMAIL 'First Last'` makes an account, or a new way in"


def run_db(action: str) -> int:
    server = PrivateServer(Settings(root=root()).var_folder / "database")
    try:
        if action == "start":
            print(f"obento: the database listens on 127.0.0.1:{server.start().port}")
        elif action == "stop":
            server.stop()
            print("obento: the database is stopped")
        else:
            print(f"obento: the database {'runs' if server.is_running() else 'does not run'}")
    except DatabaseTrouble as error:
        print(f"obento: {error}", file=sys.stderr)
        return 1
    return 0
