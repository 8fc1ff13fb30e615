"""What a spec version rests on: its text, its files, the rules by which it is read. Old databases keep what they
show."""

from __future__ import annotations

from pathlib import Path

import pytest

import obento.core
from obento.core.spec.model import EDITION
from obento.runner.engine import engine_files, engine_version
from obento.store import accounts, course, specs
from obento.store.connection import Connection, Store
from obento.store.migrate import migrate, migrations

FILES = [
    (False, "model.v", b"module m; endmodule"),
    (True, "cell.v", b"\x00\xff"),
    (False, "Zeile.csv", "Größe".encode()),
    (False, "ä.csv", b""),
]


def made_task(c: Connection) -> int:
    ta = accounts.add_person(c, "TA@X.example", "Ta", "hash")
    lab = course.add_lab(c, course.add_class(c, "Class", "School", ta, "ta"), "Lab", None)
    task = course.add_task(c, lab, "t")
    for provided, name, data in FILES:
        specs.put_task_file(c, task, name, data, provided)
    return task


def saved(c: Connection, task: int, text: str = "text", edition: int = EDITION) -> int:
    return specs.save_spec(c, task, specs.NewSpec(text, "t", "u", "digest", edition, True), None)


def files_of(c: Connection, task: int) -> list[tuple[bool, str, bytes]]:
    row = specs.current_spec(c, task)
    assert row is not None
    return sorted(
        (provided, name, data) for provided in (False, True) for name, data in specs.version_files(c, row, provided)
    )


def test_files_are_frozen_when_a_version_is_first_used(store: Store) -> None:
    with store.transaction() as c:
        task = made_task(c)
        first = saved(c, task)
        specs.put_task_file(c, task, "model.v", b"changed before anybody was checked", False)
        assert (False, "model.v", b"changed before anybody was checked") in files_of(c, task)
        assert specs.mark_used(c, first) and not specs.mark_used(c, first)
        frozen = files_of(c, task)
        assert len(frozen) == 4 and not specs.files_have_changed(c, task)
        assert saved(c, task) == first  # the same text on the same files is the same version
        specs.put_task_file(c, task, "model.v", b"changed after", False)
        assert files_of(c, task) == frozen and specs.files_have_changed(c, task)
        second = saved(c, task)
        assert second != first and (False, "model.v", b"changed after") in files_of(c, task)


@pytest.mark.parametrize("change", ["name", "data", "kind", "one more"])
def test_any_change_of_a_file_is_one(store: Store, change: str) -> None:
    with store.transaction() as c:
        task = made_task(c)
        specs.mark_used(c, saved(c, task))
        if change == "name":
            c.run("UPDATE task_file SET name = 'Model.v' WHERE name = 'model.v' AND task_id = %s", task)
        elif change == "data":
            specs.put_task_file(c, task, "ä.csv", b" ", False)
        elif change == "kind":
            c.run("UPDATE task_file SET provided = TRUE WHERE name = 'model.v' AND task_id = %s", task)
        else:
            specs.put_task_file(c, task, "cell.v", b"", False)
        assert specs.files_have_changed(c, task)


def test_what_a_used_version_rests_on_stays_whoever_asks(store: Store) -> None:
    with store.transaction() as c:
        task = made_task(c)
        version = saved(c, task)
        specs.mark_used(c, version)
        before, frozen = specs.current_spec(c, task), files_of(c, task)
        c.run(
            "UPDATE spec_version SET text = 'other', edition = 0, files_digest = '', frozen_at = NULL WHERE id = %s",
            version,
        )
        c.run("UPDATE spec_file SET data = 'x', name = 'y' WHERE spec_version_id = %s", version)
        assert specs.current_spec(c, task) == before and files_of(c, task) == frozen


def test_a_version_that_is_read_by_older_rules_becomes_a_new_one_when_it_is_saved(store: Store) -> None:
    with store.transaction() as c:
        task = made_task(c)
        first = saved(c, task, edition=1)
        assert saved(c, task) == first and specs.current_spec(c, task).edition == EDITION  # type: ignore[union-attr]
        old = saved(c, task, edition=1)
        specs.mark_used(c, old)
        assert saved(c, task) != old


def test_versions_from_before_are_frozen_from_the_files_of_the_day(store: Store) -> None:
    """The records as they were before, and the migration on them: the print made by the database is that of the
    program."""
    name, statements = next(m for m in migrations() if m[0].startswith("0005"))
    with store.transaction() as c:
        task = made_task(c)
        used = saved(c, task, "used text", 1)
        c.run("UPDATE spec_version SET used_at = UTC_TIMESTAMP(6) WHERE id = %s", used)
        bare = course.add_task(c, course.task(c, task).lab_id, "bare")  # type: ignore[union-attr]
        c.run("UPDATE spec_version SET used_at = UTC_TIMESTAMP(6) WHERE id = %s", saved(c, bare, edition=1))
        unused = course.add_task(c, course.task(c, task).lab_id, "unused")  # type: ignore[union-attr]
        saved(c, unused, edition=1)
        c.run("DELETE FROM migration WHERE name = %s", name)
    assert migrate(store) == [name]
    with store.transaction() as c:
        row = specs.current_spec(c, task)
        assert row is not None and row.text == "used text" and row.edition == 1 and row.is_frozen_late
        assert files_of(c, task) == sorted(FILES) and row.files_digest == specs.files_digest(FILES)
        assert not specs.files_have_changed(c, task) and not specs.files_have_changed(c, bare)
        untouched = specs.current_spec(c, unused)
        assert untouched is not None and untouched.frozen_at is None and not untouched.is_frozen_late
        digests = [row.files_digest, specs.current_spec(c, bare).files_digest]  # type: ignore[union-attr]
        for statement in statements:  # and once more, as after a stop in the middle
            c.run(statement.rstrip(";"))
        assert [specs.current_spec(c, t).files_digest for t in (task, bare)] == digests  # type: ignore[union-attr]


def test_the_engines_print_covers_all_that_a_verdict_comes_from(tmp_path: Path) -> None:
    folder = Path(obento.core.__file__).parent
    names = {f.relative_to(folder).as_posix() for f in engine_files(folder)}
    assert {"vhdl/packages/numeric_std.vhd", "vhdl/packages/textio.vhd", "sim/timeline/kernel.py"} <= names
    assert not any("__pycache__" in n for n in names)
    (tmp_path / "inner").mkdir()
    (tmp_path / "inner" / "kit.vhd").write_text("package kit is end;")
    assert [f.name for f in engine_files(tmp_path)] == ["kit.vhd"]
    assert engine_version().count("+") == 1
