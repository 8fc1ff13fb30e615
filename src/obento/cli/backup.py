"""`obento backup` and `obento restore`: all records in one file, and back."""

from __future__ import annotations

import sys
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path

from obento import __version__
from obento.cli.database import database_at_hand
from obento.cli.serve import root
from obento.core.words import counted
from obento.server.settings import Settings
from obento.store.backup import About, BackupTrouble, back_up, is_empty, restore, try_upgrade
from obento.store.connection import DatabaseGone, Store
from obento.store.erased_for_good import erase_again, erasures
from obento.store.mariadb import Address, DatabaseTrouble
from obento.store.migrate import migrate


def run_backup(file: Path, is_tried: bool) -> int:
    """Write a backup. The exit status: 0, or 1 where there is none now."""

    def work(address: Address, settings: Settings) -> None:
        made = back_up(address, file, __version__, is_tried)
        tried = f"restored on trial: {_count(made)}" if is_tried else "not tried"
        print(f"obento: {file} holds everything ({tried})")

    return _with_database(work)


def run_restore(file: Path, replace: bool) -> int:
    """Put the records of a backup into the database. The exit status: 0, or 1 where nothing was changed or something is
    missing."""

    def work(address: Address, settings: Settings) -> None:
        if not is_empty(address):
            if not replace:
                raise BackupTrouble("there are records already; --replace puts those of the backup in their place")
            before = settings.var_folder / f"before-restore-{datetime.now(UTC):%Y%m%d-%H%M%S}.zip"
            back_up(address, before, __version__, is_tried=False)
            print(f"obento: what was there is kept in {before}")
        store = Store(address)
        with store.transaction() as c:
            known = erasures(c)
        found = restore(address, file)
        migrate(store)
        with store.transaction() as c:
            again = erase_again(c, known, settings.erased)
        settings.erased.keep(known)
        print(f"obento: {_count(found)} of {found.made_at} are back")
        if again:
            who = counted(again, "person who was", "people who were")
            print(f"obento: {who} erased since then {'is' if again == 1 else 'are'} erased in them, too")

    return _with_database(work)


def run_try_upgrade() -> int:
    """Apply missing migrations to a copy of the database. The exit status: 0 where all of them can be, 1 where not."""

    def work(address: Address, settings: Settings) -> None:
        names = try_upgrade(address)
        print(f"obento: on a copy these were applied: {', '.join(names)}" if names else "obento: nothing to upgrade")

    return _with_database(work)


def _count(found: About) -> str:
    return f"{sum(found.rows.values())} records in {len(found.rows)} tables" if found.rows else "the records"


def _with_database(work: Callable[[Address, Settings], None]) -> int:
    settings = Settings(root=root())
    try:
        with database_at_hand(settings) as address:
            work(address, settings)
    except (BackupTrouble, DatabaseTrouble, DatabaseGone) as error:
        print(f"obento: {error}", file=sys.stderr)
        return 1
    return 0
