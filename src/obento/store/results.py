"""Outcomes of checks, packed: one bit a case."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Sequence
from dataclasses import asdict, dataclass
from datetime import datetime
from functools import cached_property
from typing import Any

from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Checked, Finding
from obento.core.check.judging.rules import RuleResult
from obento.core.check.judging.verdict import OutputVerdict, Verdict, wanted
from obento.core.diagnostics import Message
from obento.store.connection import Connection


@dataclass(frozen=True, slots=True)
class Detail:
    """What an outcome says in words. `runs` are the runs in which something failed, each with its cases (packed, in
    hexadecimal)."""

    output: str
    rules: list[RuleResult]
    findings: list[Finding]
    messages: list[Message]
    runs: list[tuple[str, str]]
    engine: str
    twice: dict[str, list[str]]

    @classmethod
    def parsed(cls, data: dict[str, Any]) -> Detail:
        """From what stands in the database; older outcomes lack what is newer than they."""
        return cls(
            data.get("output", ""),
            [RuleResult(**r) for r in data["rules"]],
            [Finding(**f) for f in data["findings"]],
            [Message(**m) for m in data["messages"]],
            [(name, mask) for name, mask in data["runs"]],
            data.get("engine", ""),
            data.get("twice", {}),
        )

    @classmethod
    def parsed_if_any(cls, data: dict[str, Any] | None = None) -> Detail | None:
        """The same; None where there is none."""
        return cls.parsed(data) if data is not None else None

    @classmethod
    def of(cls, checked: Checked, count: int) -> Detail:
        """What is kept of an outcome with so many cases."""
        runs = (
            [(name, pack(mask, count).hex()) for name, mask in checked.verdict.failing_runs] if checked.verdict else []
        )
        return cls(
            checked.output, checked.rules, checked.findings, checked.messages, runs, checked.engine, checked.twice
        )

    @property
    def codes(self) -> set[str]:
        """The codes of all messages."""
        return {m.code for m in self.messages}


@dataclass(frozen=True)
class Result:
    """An outcome with the attempt it is of. The planes are packed, one bit a case."""

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
    plane_right: bytes
    plane_failed: bytes
    plane_undefined: bytes
    plane_not_compared: bytes
    plane_stopped: bytes
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


def pack(plane: int, count: int) -> bytes:
    return plane.to_bytes((count + 7) // 8, "little")


def unpack(data: bytes) -> int:
    return int.from_bytes(data, "little")


def start_run(c: Connection, lab_id: int, person_id: int | None, total: int) -> int:
    return c.insert(
        "INSERT INTO check_run (lab_id, person_id, state, total, started_at) VALUES (%s, %s, 'running', %s,"
        " UTC_TIMESTAMP(6))",
        lab_id,
        person_id,
        total,
    )


def end_run(c: Connection, run_id: int, state: str, done: int) -> None:
    c.run(
        "UPDATE check_run SET state = %s, done = %s, finished_at = UTC_TIMESTAMP(6) WHERE id = %s AND state ="
        " 'running'",
        state,
        done,
        run_id,
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


def add_result(c: Connection, attempt_id: int, task_id: int, basis: Basis, checked: Checked, count: int) -> int:
    """Enter an outcome; one that is there already stays."""
    known = c.value(
        "SELECT id FROM result WHERE attempt_id = %s AND spec_version_id = %s AND files_digest = %s AND engine = %s AND"
        " choices_digest = %s",
        attempt_id,
        basis.version_id,
        basis.files,
        basis.engine,
        basis.choices,
    )
    if known is not None:
        return int(known)
    v = checked.verdict
    planes = [v.right, v.failed, v.undefined, v.not_compared, v.stopped] if v else [0, 0, 0, 0, (1 << count) - 1]
    result_id = c.insert(
        "INSERT INTO result (attempt_id, task_id, spec_version_id, files_digest, engine, choices_digest, status,"
        " language, unit, cluster, rules_ok, passed, total, plane_right, plane_failed, plane_undefined,"
        " plane_not_compared, plane_stopped, detail, at) VALUES (%s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s, %s,"
        " %s, %s, %s, %s, %s, %s, UTC_TIMESTAMP(6))",
        attempt_id,
        task_id,
        basis.version_id,
        basis.files,
        basis.engine,
        basis.choices,
        checked.status,
        checked.language,
        checked.unit[:200],
        v.cluster if v else checked.status,
        all(r.ok for r in checked.rules),
        v.right.bit_count() if v else 0,
        count,
        *(pack(p, count) for p in planes),
        json.dumps(asdict(Detail.of(checked, count)), ensure_ascii=False),
    )
    c.many(
        "INSERT INTO binding (result_id, ours, theirs, how) VALUES (%s, %s, %s, %s)",
        [(result_id, b.ours, b.theirs[:300], b.how) for b in checked.binding],
    )
    if v is not None:
        c.many(
            "INSERT INTO result_output (result_id, output, plane_failed, plane_undefined, plane_not_compared,"
            " plane_stopped, observed) VALUES (%s, %s, %s, %s, %s, %s, %s)",
            [_output_row(result_id, name, output, v, count) for name, output in v.outputs.items()],
        )
    return result_id


def _output_row(result_id: int, name: str, output: OutputVerdict, v: Verdict, count: int) -> tuple[object, ...]:
    observed = b"".join(
        pack(one, count) + pack(zero, count) for (port, _), (one, zero) in sorted(v.shown.items()) if port == name
    )
    planes = (output.failed, output.undefined, output.not_compared, output.stopped)
    return (result_id, name, *(pack(p, count) for p in planes), observed)


_COLUMNS = (
    "r.id, r.attempt_id, r.task_id, r.spec_version_id, r.status, r.language, r.unit, r.cluster, r.rules_ok, r.passed,"
    " r.total, r.plane_right, r.plane_failed, r.plane_undefined, r.plane_not_compared, r.plane_stopped, r.detail AS"
    " detail_json, r.at, a.handin_id, a.number AS attempt, a.late"
)


def results_of(c: Connection, task_id: int, version_id: int) -> list[Result]:
    """Outcomes of a task under one spec version, the newest of each attempt."""
    return c.all(
        Result,
        f"SELECT {_COLUMNS} FROM result r JOIN attempt a ON a.id = r.attempt_id WHERE r.task_id = %s AND"
        " r.spec_version_id = %s AND r.id = (SELECT MAX(x.id) FROM result x WHERE x.attempt_id = r.attempt_id AND"
        " x.spec_version_id = r.spec_version_id)",
        task_id,
        version_id,
    )


def is_late(c: Connection, result_id: int) -> bool:
    """Whether an outcome is of an attempt that came late."""
    return bool(c.value("SELECT a.late FROM result r JOIN attempt a ON a.id = r.attempt_id WHERE r.id = %s", result_id))


def is_best(c: Connection, result_id: int) -> bool:
    """Whether no other attempt of the same hand-in passes more under the same spec version; of equal ones the later is
    the best."""
    better = c.value(
        "SELECT 1 FROM result r JOIN attempt a ON a.id = r.attempt_id JOIN attempt b ON b.handin_id = a.handin_id AND"
        " b.id <> a.id JOIN result o ON o.attempt_id = b.id AND o.task_id = r.task_id AND o.spec_version_id ="
        " r.spec_version_id WHERE r.id = %s AND (o.passed > r.passed OR (o.passed = r.passed AND b.number > a.number))"
        " LIMIT 1",
        result_id,
    )
    return better is None


def failing_a_case(c: Connection, task_id: int, version_id: int, case: int) -> list[int]:
    """Hand-ins that do not pass one case, found in the packed planes by the database itself."""
    rows = c.rows(
        "SELECT a.handin_id FROM result r JOIN attempt a ON a.id = r.attempt_id"
        " WHERE r.task_id = %s AND r.spec_version_id = %s AND r.status = 'checked'"
        " AND (ORD(SUBSTRING(r.plane_right, %s, 1)) & %s) = 0 ORDER BY a.handin_id",
        task_id, version_id, case // 8 + 1, 1 << case % 8,
    )  # fmt: skip
    return [r["handin_id"] for r in rows]


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


def load_verdict(c: Connection, row: Result, expectation: Expectation) -> Verdict:
    """An outcome as the core knows it."""
    count = row.total
    size = (count + 7) // 8
    outputs: dict[str, OutputVerdict] = {}
    shown: dict[tuple[str, int], tuple[int, int]] = {}
    full = (1 << count) - 1
    for o in c.rows("SELECT * FROM result_output WHERE result_id = %s", row.id):
        failed, undefined = unpack(o["plane_failed"]), unpack(o["plane_undefined"])
        not_compared, stopped = unpack(o["plane_not_compared"]), unpack(o["plane_stopped"])
        outputs[o["output"]] = OutputVerdict(
            full & ~(failed | undefined | not_compared | stopped), failed, undefined, not_compared, stopped
        )
        for i in range(len(o["observed"]) // (2 * size)):
            at = 2 * size * i
            shown[o["output"], i] = (
                unpack(o["observed"][at : at + size]),
                unpack(o["observed"][at + size : at + 2 * size]),
            )
    runs = [(name, unpack(bytes.fromhex(mask))) for name, mask in row.detail.runs]
    right, not_compared = unpack(row.plane_right), unpack(row.plane_not_compared)
    ordered = {p.name: outputs[p.name] for p in expectation.spec.outputs}
    return Verdict(
        count,
        ordered,
        shown,
        wanted(expectation, shown),
        runs,
        right & ~not_compared,
        unpack(row.plane_failed),
        unpack(row.plane_undefined),
        not_compared,
        unpack(row.plane_stopped),
        row.cluster,
    )


def has_outputs(c: Connection, result_id: int) -> bool:
    """Whether it is kept what the outputs of an outcome were."""
    return c.value("SELECT 1 FROM result_output WHERE result_id = %s LIMIT 1", result_id) is not None
