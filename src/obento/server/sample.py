"""The class that comes with the program, made up: to be shown, or to be played with and thrown away."""

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
from obento.server.intake.taking_in import take_in
from obento.server.specs.opened import OpenedSpecs, spec_files
from obento.store import course, owners, people, specs
from obento.store.connection import Connection
from obento.store.people import Listed
from obento.store.specs import NewSpec


def sample_name(folder: Path) -> str:
    """What the class in a folder is called."""
    return str(_about(folder)["class"])


def add_sample(
    c: Connection, folder: Path, name: str, person_id: int, role: str, *, opened: OpenedSpecs, with_addresses: bool
) -> tuple[int, list[int]]:
    """Add the class of a folder with its labs and hand-ins, through the real roster and intake; all of it or nothing,
    as the transaction ends. Without `with_addresses` nobody in it has one, so that no mail can go to anybody.

    Returns
    -------
    class_id, lab_ids
        The class, and its labs that have something to be checked.

    Raises
    ------
    NotOpened
        If one of its specs has to be opened first.
    """
    about = _about(folder)
    class_id = course.add_class(c, name, about["school"], person_id, role)
    for position, row in enumerate(read_roster((folder / "roster.csv").read_bytes())):
        email = row.email if with_addresses else ""
        listed = Listed(row.number, row.name, email, row.group, row.team, row.remarks, row.given)
        people.put_student(c, class_id, listed, position)
    labs = [(_add_lab(c, class_id, folder, lab, person_id, opened), lab) for lab in about["lab"]]
    # Only now, since a spec that has to be opened first has all this begun anew.
    for lab_id, lab in labs:
        _hand_in(c, lab_id, folder, lab, person_id)
    return class_id, [lab_id for lab_id, lab in labs if lab.get("drop")]


def _about(folder: Path) -> dict[str, Any]:
    return tomllib.loads((folder / "class.toml").read_text(encoding="utf-8"))


def _due() -> datetime:
    now = datetime.now(UTC).replace(tzinfo=None, microsecond=0)
    return (now - timedelta(days=1)).replace(hour=22, minute=0, second=0)


def _add_lab(
    c: Connection, class_id: int, folder: Path, about: dict[str, Any], person_id: int, opened: OpenedSpecs
) -> int:
    """A lab with its tasks and their specs."""
    lab_id = course.add_lab(c, class_id, about["title"], _due(), about.get("late_share", 0.0))
    folder = folder / about["folder"]
    for name in about["specs"]:
        text = (folder / name).read_text(encoding="utf-8")
        task_id = course.add_task(c, lab_id, name)
        for file in sorted(folder.iterdir()):
            if file.is_file() and file.suffix != ".toml" and file.name in text:
                specs.put_task_file(c, task_id, file.name, file.read_bytes(), provided=False)
        loaded = opened.inside(spec_files(c, task_id, text))
        if loaded.spec is None:
            raise ValueError(f"{name}: {loaded.messages[0]}")
        spec = loaded.spec
        new = NewSpec(text, spec.title, spec.unit, spec.digest, EDITION, loaded.expectation is not None)
        specs.save_spec(c, task_id, new, person_id)
    return lab_id


def _hand_in(c: Connection, lab_id: int, folder: Path, about: dict[str, Any], person_id: int) -> None:
    """The teams of a lab, and what was dropped in it."""
    lab = course.lab(c, lab_id)
    assert lab is not None
    ids = {s.number: s for s in people.students(c, lab.class_id)}
    for numbers in about.get("teams", []):
        owners.put_team(c, lab_id, " and ".join(ids[n].name for n in numbers), [ids[n].id for n in numbers])
    for drop in about.get("drop", []):
        name = f"{drop['name']}.zip"
        inner = unpack(name, io.BytesIO(zip_folder(folder / about["folder"] / drop["name"])))
        take_in(c, lab, name, inner, person_id, _due() + timedelta(hours=drop["hours"]))


def zip_folder(folder: Path) -> bytes:
    """A folder as the zip that a course page would give."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for path in sorted(folder.rglob("*")):
            if path.is_file():
                archive.write(path, path.relative_to(folder).as_posix())
    return out.getvalue()
