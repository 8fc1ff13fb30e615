"""Loads the demo class into a new database, with somebody who teaches it."""

from __future__ import annotations

from obento.server.accounts.security import hash_password
from obento.server.sample import add_sample, sample_name
from obento.server.settings import Settings
from obento.server.specs.opened import OpenedSpecs
from obento.store import accounts, course, people, results
from obento.store.connection import Connection, Store

DEMO_TA = "mira@college.example"
DEMO_LECTURER = "osk@college.example"
DEMO_PASSWORD = "locks-and-lamps"


def load_demo(store: Store, settings: Settings) -> bool:
    """Load the demo unless anybody has an account already. All of it or nothing."""
    if not settings.sample_folder.is_dir():
        return False
    opened = OpenedSpecs()

    def load() -> bool:
        with store.transaction() as c:
            return _load(c, settings, opened)

    return opened.meanwhile(load)


def _load(c: Connection, settings: Settings, opened: OpenedSpecs) -> bool:
    if accounts.is_there_any(c):
        return False
    ta = accounts.add_person(c, DEMO_TA, "Mira Solberg", hash_password(DEMO_PASSWORD))
    lecturer = accounts.add_person(c, DEMO_LECTURER, "Oskar Tenn", hash_password(DEMO_PASSWORD))
    folder = settings.sample_folder
    class_id, labs = add_sample(c, folder, sample_name(folder), ta, "ta", opened=opened, with_addresses=True)
    course.set_rights(c, class_id, tas_release=True, tas_manage=True)
    people.add_role(c, class_id, lecturer, "lecturer")
    for lab_id in labs:
        results.start_run(c, lab_id, None, 0)  # taken up when the server starts, like any run that was cut off
    return True
