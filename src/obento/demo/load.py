"""Loads the demo class into a new database, through the real roster and intake."""

from __future__ import annotations

import io
import tomllib
import zipfile
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from obento.core.spec.model import EDITION
from obento.intake.archive import unpack
from obento.intake.roster import read_roster
from obento.server.accounts.security import hash_password
from obento.server.intake.taking_in import take_in
from obento.server.settings import Settings
from obento.server.specs.opened import OpenedSpecs, spec_files
from obento.store import accounts, course, owners, people, results, specs
from obento.store.connection import Connection, Store
from obento.store.people import Listed
from obento.store.specs import NewSpec

DEMO_TA = "mira@college.example"
DEMO_LECTURER = "osk@college.example"
DEMO_PASSWORD = "locks-and-lamps"


def load_demo(store: Store, settings: Settings) -> bool:
    """Load the demo unless anybody has an account already. All of it or nothing."""
    folder = settings.root / "demo"
    if not folder.is_dir():
        return False
    with store.transaction() as c:
        if accounts.is_there_any(c):
            return False
        ta = accounts.add_person(c, DEMO_TA, "Mira Solberg", hash_password(DEMO_PASSWORD))
        lecturer = accounts.add_person(c, DEMO_LECTURER, "Oskar Tenn", hash_password(DEMO_PASSWORD))
        about = tomllib.loads((folder / "class.toml").read_text(encoding="utf-8"))
        class_id = course.add_class(c, about["class"], about["school"], ta, "ta")
        course.set_rights(c, class_id, tas_release=True, tas_manage=True)
        people.add_role(c, class_id, lecturer, "lecturer")
        for position, row in enumerate(read_roster((folder / "roster.csv").read_bytes())):
            listed = Listed(row.number, row.name, row.email, row.group, row.team, row.remarks, row.given)
            people.put_student(c, class_id, listed, position)
        for lab in about["lab"]:
            _load_lab(c, class_id, folder / lab["folder"], lab, ta)
    return True


def _load_lab(c: Connection, class_id: int, folder: Path, about: dict[str, Any], person_id: int) -> None:
    now = datetime.now(UTC).replace(tzinfo=None, microsecond=0)
    due = (now - timedelta(days=1)).replace(hour=22, minute=0, second=0)
    lab_id = course.add_lab(c, class_id, about["title"], due, about.get("late_share", 0.0))
    opened = OpenedSpecs()
    for name in about["specs"]:
        text = (folder / name).read_text(encoding="utf-8")
        task_id = course.add_task(c, lab_id, name)
        for file in sorted(folder.iterdir()):
            if file.is_file() and file.suffix != ".toml" and file.name in text:
                specs.put_task_file(c, task_id, file.name, file.read_bytes(), provided=False)
        loaded = opened.load(spec_files(c, task_id, text))
        if loaded.spec is None:
            raise ValueError(f"{name}: {loaded.messages[0]}")
        spec = loaded.spec
        new = NewSpec(text, spec.title, spec.unit, spec.digest, EDITION, loaded.expectation is not None)
        specs.save_spec(c, task_id, new, person_id)
    lab = course.lab(c, lab_id)
    assert lab is not None
    ids = {s.number: s for s in people.students(c, lab.class_id)}
    for numbers in about.get("teams", []):
        owners.put_team(c, lab_id, " and ".join(ids[n].name for n in numbers), [ids[n].id for n in numbers])
    for drop in about.get("drop", []):
        received = due + timedelta(hours=drop["hours"])
        name = f"{drop['name']}.zip"
        inner = unpack(name, io.BytesIO(zip_folder(folder / drop["name"])))
        take_in(c, lab, name, inner, person_id, received)
    if about.get("drop"):
        results.start_run(c, lab_id, None, 0)  # taken up when the server starts, like any run that was cut off


def zip_folder(folder: Path) -> bytes:
    """A folder as the zip that a course page would give."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for path in sorted(folder.rglob("*")):
            if path.is_file():
                archive.write(path, path.relative_to(folder).as_posix())
    return out.getvalue()
