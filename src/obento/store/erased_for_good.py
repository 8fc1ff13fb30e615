"""Who was erased stays erased, also when a backup comes back that was made before."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path

from obento.store.connection import Connection
from obento.store.erased import OUTCOME_COLUMNS, ErasedOutcome, keep_outcomes
from obento.store.erasing import erase_student


@dataclass(frozen=True, slots=True)
class Erasures:
    """Of a database: since when it is there (which tells it from others, also in its backups), the lines of people who
    were erased, what of them counts in sums, and the first number that no line of a class list ever had."""

    since: str
    students: frozenset[int]
    outcomes: tuple[ErasedOutcome, ...]
    first_free: int


_NONE = Erasures("", frozenset(), (), 1)


def erasures(c: Connection) -> Erasures:
    """What has to be taken along when an older backup is put in the place of a database; of one that has no records
    yet, nothing."""
    if not c.rows("SHOW TABLES LIKE 'erased_outcome'"):
        return _NONE
    return Erasures(
        _since(c),
        frozenset(r["id"] for r in c.rows("SELECT id FROM student WHERE erased_at IS NOT NULL")),
        tuple(c.all(ErasedOutcome, f"SELECT {OUTCOME_COLUMNS} FROM erased_outcome")),
        int(c.value("SELECT COALESCE(MAX(id), 0) + 1 FROM student")),
    )


def _since(c: Connection) -> str:
    """The moment at which a database was made, to the microsecond."""
    return str(c.value("SELECT applied_at FROM migration ORDER BY name LIMIT 1").isoformat())


def erase_again(c: Connection, before: Erasures, ledger: Ledger) -> int:
    """After an older backup came back: erase those who had been erased since, keep what of them counts in sums, and
    give their numbers to nobody else. How many there were. What is known of another database than that of the backup
    means nothing."""
    since = _since(c)
    if before.since != since:
        before = _NONE
    wanted = before.students | ledger.students(since)
    named = {r["id"] for r in c.rows("SELECT id FROM student WHERE erased_at IS NULL")} & wanted
    for student_id in sorted(named):
        erase_student(c, student_id)
    lines = {r["id"] for r in c.rows("SELECT id FROM student WHERE erased_at IS NOT NULL")}
    tasks = {r["id"] for r in c.rows("SELECT id FROM task")}
    keep_outcomes(c, [o for o in before.outcomes if o.student_id in lines and o.task_id in tasks])
    first = max([before.first_free, *(i + 1 for i in wanted)])
    c.run("ALTER TABLE student AUTO_INCREMENT = %s", first)  # a smaller number than there is changes nothing
    return len(named)


class Ledger:
    """The numbers of erased lines in a file beside the database, for the day on which an older backup comes back and
    nothing else is left: one a line, with the database that it is of. It names nobody."""

    def __init__(self, file: Path) -> None:
        self._file = file

    def students(self, since: str) -> frozenset[int]:
        """Everybody of one database. A line that was cut off has no end mark, and is nobody's number."""
        try:
            lines = self._file.read_text(encoding="ascii", errors="replace").splitlines()
        except FileNotFoundError:
            return frozenset()
        found = [line[:-1].split(" ") for line in lines if line.endswith(";")]
        return frozenset(int(of[1]) for of in found if len(of) == 2 and of[0] == since and of[1].isdecimal())

    def keep(self, known: Erasures) -> None:
        """Add those of a database that are not in it yet; on disk when this returns."""
        new = sorted(known.students - self.students(known.since))
        if not new:
            return
        self._file.parent.mkdir(parents=True, exist_ok=True)
        with self._file.open("a", encoding="ascii") as out:
            out.write("".join(f"\n{known.since} {i};" for i in new) + "\n")  # after a line that was cut off, too
            out.flush()
            os.fsync(out.fileno())
