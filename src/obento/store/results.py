"""Outcomes of checks: what is said of them in rows, their cases packed beside (see `packing`)."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace
from datetime import datetime
from functools import cached_property
from typing import Any

from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Checked, Finding
from obento.core.check.judging.rules import RuleResult
from obento.core.check.judging.verdict import Verdict
from obento.core.diagnostics import Message
from obento.core.sentences.said import as_data, from_data
from obento.store.connection import Connection
from obento.store.kept import Kept
from obento.store.packing import Blob, pack_verdict, unpack, unpack_cases, unpack_outputs
from obento.store.planes import Against, KeptPlanes, keep, read


@dataclass(frozen=True, slots=True)
class Detail:
    """What an outcome says in words."""

    output: str
    rules: list[RuleResult]
    findings: list[Finding]
    messages: list[Message]
    engine: str
    twice: dict[str, list[str]]

    @classmethod
    def parsed(cls, data: dict[str, Any]) -> Detail:
        """From what stands in the database; older outcomes lack what is newer than they."""
        return cls(
            data.get("output", ""),
            [RuleResult(**r) for r in data["rules"]],
            [_finding(**f) for f in data["findings"]],
            [Message(**m) for m in data["messages"]],
            data.get("engine", ""),
            data.get("twice", {}),
        )

    @classmethod
    def parsed_if_any(cls, data: dict[str, Any] | None = None) -> Detail | None:
        """The same; None where there is none."""
        return cls.parsed(data) if data is not None else None

    @classmethod
    def of(cls, checked: Checked) -> Detail:
        """What is kept of an outcome."""
        return cls(checked.output, checked.rules, checked.findings, checked.messages, checked.engine, checked.twice)

    def as_data(self) -> dict[str, Any]:
        """As it stands in the database: beside each sentence how it was made."""
        data = asdict(self)
        for finding, kept in zip(self.findings, data["findings"], strict=True):
            kept["said"] = as_data(finding.text)
        return data

    @property
    def codes(self) -> set[str]:
        """The codes of all messages."""
        return {m.code for m in self.messages}


def _finding(text: str, said: object = None, **rest: Any) -> Finding:
    return Finding(text=from_data(text, said), **rest)


@dataclass(frozen=True)
class Result:
    """An outcome with the attempt it is of. `planes` is what its cases are kept by, `expected` what it was held against
    (None for outcomes of old); `summary` is what a class's pages show of it, as JSON, where that is kept."""

    id: int
    attempt_id: int
    task_id: int
    spec_version_id: int
    status: str
    language: str
    unit: str
    cluster: str
    rules_ok: bool
    passed: int
    total: int
    planes: str
    expected: str | None
    summary: str | None
    at: datetime
    handin_id: int
    attempt: int
    late: bool
    detail_json: str

    @cached_property
    def detail(self) -> Detail:
        """What it says in words."""
        return Detail.parsed(json.loads(self.detail_json))


@dataclass(frozen=True, slots=True)
class BoundName:
    """A name of ours and the one it was bound to; `how` says by what."""

    result_id: int
    ours: str
    theirs: str
    how: str


@dataclass(frozen=True, slots=True)
class UnfinishedRun:
    id: int
    lab_id: int
    person_id: int | None


def choices_digest(choices: Sequence[tuple[str, str]]) -> str:
    return hashlib.sha256(json.dumps(sorted(choices)).encode()).hexdigest()


def start_run(c: Connection, lab_id: int, person_id: int | None, total: int) -> int:
    return c.insert(
        "INSERT INTO check_run (lab_id, person_id, state, total, started_at) VALUES (%s, %s, 'running', %s,"
        " UTC_TIMESTAMP(6))",
        lab_id,
        person_id,
        total,
    )


def end_runs(c: Connection, lab_id: int, state: str, done: int) -> None:
    """Say of the runs of a lab that still are under way that they ended."""
    c.run(
        "UPDATE check_run SET state = %s, done = %s, finished_at = UTC_TIMESTAMP(6) WHERE lab_id = %s AND state ="
        " 'running'",
        state,
        done,
        lab_id,
    )


def unfinished_runs(c: Connection) -> list[UnfinishedRun]:
    return c.all(UnfinishedRun, "SELECT id, lab_id, person_id FROM check_run WHERE state = 'running'")


def known_results(c: Connection, task_id: int, version_id: int, files: str, engine: str) -> set[tuple[int, str]]:
    """The attempts that have an outcome under this version, its files (their digest) and engine, each with the digest
    of the choices it rests on."""
    rows = c.rows(
        "SELECT attempt_id, choices_digest FROM result WHERE task_id = %s AND spec_version_id = %s AND files_digest ="
        " %s AND engine = %s",
        task_id,
        version_id,
        files,
        engine,
    )
    return {(r["attempt_id"], r["choices_digest"]) for r in rows}


@dataclass(frozen=True, slots=True)
class Basis:
    """What an outcome rests on besides the hand-in: the spec version, the digest of its files, the engine, the digest
    of the choices."""

    version_id: int
    files: str
    engine: str
    choices: str


@dataclass(frozen=True, slots=True)
class NewResult:
    """An outcome to be entered, over so many cases; `summary` is what a class's pages show of it, as JSON."""

    attempt_id: int
    task_id: int
    basis: Basis
    checked: Checked
    count: int
    against: Against
    summary: str | None = None


def add_results(c: Connection, outcomes: Sequence[NewResult]) -> list[int]:
    """Enter outcomes and give their ids; one that is there already stays."""
    packed = [pack_verdict(o.checked.verdict, o.count, o.against.bits) for o in outcomes]
    keep(c, [*packed, *(o.against.blob for o in outcomes)])
    ids = [_add(c, o, planes) for o, planes in zip(outcomes, packed, strict=True)]
    c.many(
        "INSERT IGNORE INTO binding (result_id, ours, theirs, how) VALUES (%s, %s, %s, %s)",
        [
            (result_id, b.ours, b.theirs[:300], b.how)
            for o, result_id in zip(outcomes, ids, strict=True)
            for b in o.checked.binding
        ],
    )
    return ids


def _add(c: Connection, new: NewResult, planes: Blob) -> int:
    checked, v = new.checked, new.checked.verdict
    return c.insert(
        "INSERT INTO result (attempt_id, task_id, spec_version_id, files_digest, engine, choices_digest, status,"
        " language, unit, cluster, rules_ok, passed, total, planes, expected, summary, detail, at) VALUES (%s, %s, %s,"
        " %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, UTC_TIMESTAMP(6))"
        " ON DUPLICATE KEY UPDATE id = LAST_INSERT_ID(id)",
        new.attempt_id,
        new.task_id,
        new.basis.version_id,
        new.basis.files,
        new.basis.engine,
        new.basis.choices,
        checked.status,
        checked.language,
        checked.unit[:200],
        v.cluster if v else checked.status,
        all(r.ok for r in checked.rules),
        v.right.bit_count() if v else 0,
        new.count,
        planes.digest,
        new.against.blob.digest,
        new.summary,
        json.dumps(Detail.of(checked).as_data(), ensure_ascii=False),
    )


_COLUMNS = (
    "r.id, r.attempt_id, r.task_id, r.spec_version_id, r.status, r.language, r.unit, r.cluster, r.rules_ok, r.passed,"
    " r.total, r.planes, r.expected, r.summary, r.detail AS detail_json, r.at, a.handin_id, a.number AS attempt, a.late"
)


class KeptRows:
    """Outcomes that were read lately. What is said of an outcome never changes, only the attempt it is of may come to
    another hand-in or be taken for late."""

    def __init__(self, most: int = 4_000) -> None:
        self._rows: Kept[int, Result] = Kept(most)

    def rows(self, c: Connection, ids: Sequence[int]) -> dict[int, Result]:
        """Outcomes by their ids."""

        def fetch(missing: list[int]) -> dict[int, Result]:
            marks = ", ".join(["%s"] * len(missing))
            found = c.all(
                Result,
                f"SELECT {_COLUMNS} FROM result r JOIN attempt a ON a.id = r.attempt_id WHERE r.id IN ({marks})",
                *missing,
            )
            return {row.id: row for row in found}

        return self._rows.read(ids, fetch)


class KeptOutcomes:
    """What was read of outcomes lately: their rows and their planes."""

    def __init__(self) -> None:
        self.rows = KeptRows()
        self.planes = KeptPlanes()


def results_of(c: Connection, task_id: int, version_id: int, kept: KeptRows) -> list[Result]:
    """Outcomes of a task under one spec version, the newest of each attempt."""
    heads = c.rows(
        "SELECT MAX(r.id) AS id, a.handin_id, a.number AS attempt, a.late FROM result r JOIN attempt a ON"
        " a.id = r.attempt_id WHERE r.task_id = %s AND r.spec_version_id = %s GROUP BY r.attempt_id",
        task_id,
        version_id,
    )
    rows = kept.rows(c, [head["id"] for head in heads])
    return [_standing(rows[h["id"]], h["handin_id"], h["attempt"], bool(h["late"])) for h in heads]


def _standing(row: Result, handin_id: int, attempt: int, late: bool) -> Result:
    """An outcome with what is true of its attempt now."""
    if (row.handin_id, row.attempt, row.late) == (handin_id, attempt, late):
        return row
    return replace(row, handin_id=handin_id, attempt=attempt, late=late)


def latest_of(c: Connection, attempt_id: int, task_id: int, version_id: int) -> Result | None:
    """The newest outcome of one attempt under one spec version."""
    return c.one(
        Result,
        f"SELECT {_COLUMNS} FROM result r JOIN attempt a ON a.id = r.attempt_id WHERE r.attempt_id = %s AND r.task_id ="
        " %s AND r.spec_version_id = %s ORDER BY r.id DESC LIMIT 1",
        attempt_id,
        task_id,
        version_id,
    )


def of_cluster(c: Connection, task_id: int, version_id: int, cluster: str) -> Result | None:
    """One outcome of a cluster under one spec version: all of them behave alike."""
    return c.one(
        Result,
        f"SELECT {_COLUMNS} FROM result r JOIN attempt a ON a.id = r.attempt_id WHERE r.task_id = %s AND"
        " r.spec_version_id = %s AND r.cluster = %s LIMIT 1",
        task_id,
        version_id,
        cluster,
    )


def bindings_of(c: Connection, result_ids: Sequence[int]) -> dict[int, list[BoundName]]:
    """What was not bound by its exact name, of each outcome."""
    if not result_ids:
        return {}
    marks = ", ".join(["%s"] * len(result_ids))
    found: dict[int, list[BoundName]] = {}
    for row in c.all(
        BoundName,
        f"SELECT result_id, ours, theirs, how FROM binding WHERE result_id IN ({marks}) AND how <> 'exact'",
        *result_ids,
    ):
        found.setdefault(row.result_id, []).append(row)
    return found


def load_verdict(c: Connection, row: Result, expectation: Expectation, kept: KeptPlanes) -> Verdict | None:
    """An outcome as the core knows it, from what is stored alone (`expectation` gives the order of its outputs); None
    where nothing was run."""
    count = row.total
    against = kept.expected(c, row.expected, count) if row.expected is not None else None
    data = read(c, row.planes)
    outputs = unpack_outputs(data, count, against)
    if not outputs.verdicts:
        return None
    cases = unpack_cases(data, count)
    undefined, not_compared, stopped = unpack(cases.undefined), unpack(cases.not_compared), unpack(cases.stopped)
    failed = unpack(cases.failed)
    bits = against if against is not None else expectation.bits
    return Verdict(
        count,
        {p.name: outputs.verdicts[p.name] for p in expectation.spec.outputs},
        outputs.shown,
        {key: planes.after(outputs.shown[key]) for key, planes in bits.items()},
        outputs.runs,
        ((1 << count) - 1) & ~(failed | undefined | not_compared | stopped),
        failed,
        undefined,
        not_compared,
        stopped,
        row.cluster,
    )
