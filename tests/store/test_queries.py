"""Every statement of the store, as it stands in the code, explained by the server on a school of some years: that it
fits the tables, and that none of them reads a growing table from end to end."""

from __future__ import annotations

import ast
import importlib
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pytest

import obento.store
from obento.store.connection import Connection, Store
from obento.store.mariadb import PrivateServer
from tests.conftest import empty

VERBS = {"rows": 0, "row": 0, "value": 0, "run": 0, "insert": 0, "many": 0, "all": 1, "one": 1}
"""Methods of a connection, and which argument is the statement."""
WITHOUT = {"backup", "connection", "erased_for_good", "mariadb", "migrate", "trash", "upgrades"}
"""Modules that are the connection itself, work on tables of old or on all there is, or say the same of several tables
(`trash`, whose statements are all run by `tests/server/test_class_evening`)."""

SMALL = {"person", "class", "class_role", "lab", "task", "spec_version", "task_file", "spec_file", "team", "check_run"}
"""Tables that hold some hundred rows after years."""
READS_ALL = {
    "accounts: DELETE FROM sign_in WHERE expires_at": "once at each sign-in; a row for each open browser",
    "erasing: UPDATE audit": "once for each person who is erased for good",
    "letters: SELECT d.id, d.address": "letters that are queued, of which there are few when mail is sent",
}
"""Statements that may read a growing table from end to end, and why."""


@dataclass(frozen=True)
class Statement:
    place: str
    sql: str


class _Names(dict[str, Any]):
    """What stands in braces in a statement: a constant of its module, else a list of placeholders."""

    def __init__(self, module: Any) -> None:
        super().__init__(__builtins__={})
        self.module = module

    def __missing__(self, name: str) -> Any:
        return getattr(self.module, name, "%s")


def statements() -> Iterator[Statement]:
    for file in sorted(Path(obento.store.__file__).parent.glob("*.py")):
        if file.stem in WITHOUT:
            continue
        module = importlib.import_module(f"obento.store.{file.stem}")
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
            if not (isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute) and node.func.attr in VERBS):
                continue
            if isinstance(node.func.value, ast.Name) and node.func.value.id == "c":
                argument = ast.Expression(node.args[VERBS[node.func.attr]])
                sql = eval(compile(argument, file.name, "eval"), {}, _Names(module))
                yield Statement(f"{file.stem}:{node.lineno}", " ".join(sql.split()))


ALL = list(statements())

STUDENTS, LABS, TASKS = 600, 20, 3
YEARS = [
    f"INSERT INTO student (id, class_id, number, name, given, position)"
    f" SELECT seq, 1 + seq DIV 100, seq, seq, '{{}}', seq FROM seq_1_to_{STUDENTS}",
    f"INSERT INTO lab (id, class_id, title, created_at) SELECT seq, 1 + seq DIV 4, seq, NOW() FROM seq_1_to_{LABS}",
    "INSERT INTO task (id, lab_id, position, title)"
    f" SELECT seq, 1 + seq DIV {TASKS}, 0, seq FROM seq_1_to_{LABS * TASKS}",
    f"INSERT INTO handin (id, lab_id, student_id, label, created_at)"
    f" SELECT seq, 1 + seq DIV 200, 1 + seq % {STUDENTS}, seq, NOW() FROM seq_1_to_3999",
    "INSERT INTO attempt (id, handin_id, number, label, received_at, digest, task_id, drop_id)"
    " SELECT seq, 1 + seq DIV 2, seq % 2, seq, NOW(), seq, IF(seq % 2, 1 + seq % 60, NULL), 1 + seq DIV 9 FROM"
    " seq_1_to_7999",
    "INSERT INTO attempt_file (attempt_id, path, data) SELECT 1 + seq DIV 2, seq, '' FROM seq_1_to_15999",
    "INSERT INTO result (attempt_id, task_id, spec_version_id, engine, choices_digest, status, cluster, passed, total,"
    " planes, expected, detail, at)"
    " SELECT 1 + seq DIV 2, 1 + seq DIV 400, 1 + seq DIV 400, 'e', seq, 'checked', seq % 50, 1, 1, seq % 3000, 'e',"
    " '{}', NOW() FROM seq_1_to_15999",
    "INSERT INTO planes SELECT seq, '' FROM seq_1_to_3999",
    "INSERT INTO binding SELECT seq, 'a', 'a', 'exact' FROM seq_1_to_15999",
    "INSERT INTO mark_entry SELECT seq, 1 + seq DIV 5, seq % 3, NULL, 'computed', 1, '', NULL, NULL, NOW()"
    " FROM seq_1_to_15999",
    "INSERT INTO comment SELECT seq, 1 + seq DIV 60, seq, 0, '', 1, 1 + seq % 9, NOW(), NULL, NULL FROM seq_1_to_2999",
    f"INSERT INTO letter (id, lab_id, student_id, number, frozen, person_id, released_at)"
    f" SELECT seq, 1 + seq DIV 200, 1 + seq % {STUDENTS}, 1, '{{}}', 1, NOW()"
    " FROM seq_1_to_3999",
    "INSERT INTO page_link SELECT seq, seq, NOW(), NULL, NULL FROM seq_1_to_3999",
    "INSERT INTO delivery SELECT seq, seq, '', NULL, 'sent', 0, '', NOW() FROM seq_1_to_3999",
    "INSERT INTO welcome_mail SELECT seq, 1, '', NULL, 'sent', 0, '', NOW() FROM seq_1_to_3999",
    "INSERT INTO sign_in SELECT seq, 1 + seq % 9, '', NOW(), NULL, '' FROM seq_1_to_999",
    "INSERT INTO known_browser SELECT seq, 1 + seq % 9, NOW() FROM seq_1_to_999",
    "INSERT INTO sign_in_failure SELECT seq, seq, NOW() FROM seq_1_to_999",
    "INSERT INTO audit SELECT seq, NOW(), 1, 'a', seq, '{}' FROM seq_1_to_9999",
    "INSERT INTO consent SELECT 1 + seq DIV 20, seq, seq, 1, NOW() FROM seq_1_to_999",
    "INSERT INTO choice SELECT 1 + seq, 1 + seq DIV 20, seq, seq, 1, NOW() FROM seq_1_to_999",
    "INSERT INTO extension SELECT 1 + seq DIV 100, seq, NOW(), '', 1 FROM seq_1_to_999",
    "INSERT INTO intake_drop (id, lab_id, person_id, name, at, files, left_out)"
    " SELECT seq, 1 + seq DIV 50, 1, '', NOW(), 1, '[]' FROM seq_1_to_999",
    "INSERT INTO erased_outcome SELECT seq, 1 + seq % 60, NULL, 'right', 1, '', '' FROM seq_1_to_599",
    "INSERT INTO known_label SELECT 1 + seq DIV 100, seq, '[1]', 1, NOW() FROM seq_1_to_999",
    "INSERT INTO excused SELECT 1 + seq DIV 100, seq, '', 1, NOW() FROM seq_1_to_999",
    "INSERT INTO team_member SELECT 1 + seq DIV 3, seq FROM seq_1_to_599",
    "INSERT INTO team SELECT seq, 1 + seq DIV 10, seq FROM seq_1_to_199",
    "INSERT INTO repair (result_id, changes, tried, is_whole, at) SELECT seq, '[]', 1, 1, NOW() FROM seq_1_to_7999",
    "INSERT INTO person SELECT seq, seq, '', '', NOW(), NULL FROM seq_1_to_30",
    "INSERT INTO class (id, name, created_at) SELECT seq, seq, NOW() FROM seq_1_to_10",
    "INSERT INTO class_role SELECT 1 + seq DIV 3, seq, 'ta' FROM seq_1_to_30",
    "INSERT INTO spec_version (id, task_id, number, text, digest, created_at)"
    f" SELECT seq, 1 + seq DIV 4, seq % 4, '', '', NOW() FROM seq_1_to_{LABS * TASKS * 4}",
]


@pytest.fixture(scope="module")
def years(database: PrivateServer) -> Iterator[Store]:
    """Some years of a school, without what the rows say."""
    store = Store(database.address)
    empty(store)
    with store.transaction() as c:
        c.run("SET FOREIGN_KEY_CHECKS = 0")
        for sql in YEARS:
            c.run(sql)
        c.run("SET FOREIGN_KEY_CHECKS = 1")
    with store.transaction() as c:
        for row in c.rows("SHOW TABLES"):
            c.rows(f"ANALYZE TABLE `{next(iter(row.values()))}`")
    yield store
    empty(store)


def explained(c: Connection, sql: str) -> list[dict[str, Any]]:
    values = ["5"] * (sql.count("%s") - 2 * sql.count("%%s"))
    return c.rows(f"EXPLAIN {sql}", *values)


@pytest.mark.parametrize("statement", ALL, ids=lambda s: s.place)
def test_a_statement_fits_the_tables_and_uses_an_index(years: Store, statement: Statement) -> None:
    with years.transaction() as c:
        plan = explained(c, statement.sql)
    module = statement.place.partition(":")[0]
    if any(f"{module}: {statement.sql}".startswith(known) for known in READS_ALL):
        return
    aliases = dict(_aliases(statement.sql))
    whole = [
        aliases.get(row["table"], row["table"])
        for row in plan
        if row["type"] in ("ALL", "index") and row["table"] and not row["table"].startswith("<")
    ]
    if statement.sql.startswith(("INSERT ", "REPLACE ")):
        whole = [table for table in whole if f"{table} (" not in statement.sql]  # where the new rows go
    assert [table for table in whole if table not in SMALL] == [], plan


def _aliases(sql: str) -> Iterator[tuple[str, str]]:
    words = sql.replace("(", " ( ").replace(")", " ) ").replace(",", " , ").split()
    for i, word in enumerate(words[:-2]):
        if word in ("FROM", "JOIN", "UPDATE"):
            yield words[i + 2], words[i + 1]


def test_every_exception_is_still_needed() -> None:
    texts = [f"{s.place.partition(':')[0]}: {s.sql}" for s in ALL]
    assert [known for known in READS_ALL if not any(t.startswith(known) for t in texts)] == []


def test_every_module_of_the_store_was_read() -> None:
    assert len(ALL) > 120
    assert {s.place.partition(":")[0] for s in ALL} >= {"accounts", "handins", "results", "marks", "letters", "specs"}
