"""A lab or a class once more, for the next year: specs, comments and terms, without people and what they handed in."""

from __future__ import annotations

from obento.store.connection import Connection


def copy_lab(c: Connection, lab_id: int, class_id: int, title: str, person_id: int) -> int:
    """A lab with the newest spec of each task, the files beside them, and the comments on clusters as
    proposals; no due date."""
    made = c.insert(
        "INSERT INTO lab (class_id, title, which_attempt, late_share, late_step, late_grace, late_cap, position,"
        " created_at) SELECT %s, %s, l.which_attempt, l.late_share, l.late_step, l.late_grace, l.late_cap, (SELECT"
        " COUNT(*) FROM lab o WHERE o.class_id = %s), UTC_TIMESTAMP(6) FROM lab l WHERE l.id = %s",
        class_id,
        title[:200],
        class_id,
        lab_id,
    )
    for task in c.rows("SELECT id FROM task WHERE lab_id = %s AND gone_at IS NULL ORDER BY position, id", lab_id):
        _copy_task(c, task["id"], made, person_id)
    return made


def _copy_task(c: Connection, task_id: int, lab_id: int, person_id: int) -> None:
    made = c.insert(
        "INSERT INTO task (lab_id, position, title) SELECT %s, position, title FROM task WHERE id = %s", lab_id, task_id
    )
    version = c.value("SELECT MAX(id) FROM spec_version WHERE task_id = %s", task_id)
    c.run(
        "INSERT INTO spec_version (task_id, number, text, unit, digest, edition, is_right, person_id, created_at)"
        " SELECT %s, 1, text, unit, digest, edition, is_right, %s, UTC_TIMESTAMP(6) FROM spec_version WHERE id = %s",
        made,
        person_id,
        version,
    )
    c.run(
        "INSERT INTO task_file (task_id, name, provided, data) SELECT %s, name, provided, data FROM task_file WHERE"
        " task_id = %s",
        made,
        task_id,
    )
    c.run(
        "INSERT INTO comment (task_id, cluster, handin_id, text, version, person_id, at, spec_version_id, from_task_id)"
        " SELECT %s, cluster, 0, text, version, person_id, at, COALESCE(spec_version_id, %s), COALESCE(from_task_id,"
        " task_id) FROM comment WHERE task_id = %s AND handin_id = 0 AND text <> ''",
        made,
        version,
        task_id,
    )


def copy_class(c: Connection, class_id: int, name: str, person_id: int) -> int:
    """A class with copies of all its labs, and the one who made it as its lecturer."""
    made = c.insert(
        "INSERT INTO class (name, school, created_at, tas_release, tas_manage, language) SELECT %s, school,"
        " UTC_TIMESTAMP(6), tas_release, tas_manage, language FROM class WHERE id = %s",
        name[:200],
        class_id,
    )
    c.run("INSERT INTO class_role (class_id, person_id, role) VALUES (%s, %s, 'lecturer')", made, person_id)
    for lab in c.rows(
        "SELECT id, title FROM lab WHERE class_id = %s AND gone_at IS NULL ORDER BY position, id", class_id
    ):
        copy_lab(c, lab["id"], made, lab["title"], person_id)
    return made
