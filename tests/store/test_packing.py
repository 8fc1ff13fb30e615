"""Outcomes in the database: what is packed comes out again, equal ones are kept once, those of old are packed whole."""

from __future__ import annotations

import json
from dataclasses import asdict

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation, Planes
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile
from obento.store import course, erasing, handins, people, results
from obento.store.connection import Connection, Store
from obento.store.migrate import migrate
from obento.store.packing import pack, pack_expected, pack_parts, unpack_cases, unpack_expected, unpack_outputs
from obento.store.planes import Against, KeptPlanes
from obento.store.results import NewResult
from tests.sluice import SPEC
from tests.test_frozen_files import made_task, saved

WRONG = "module sluice(input high, wide, output warn);\n  wire n = ~wide;\n  assign warn = high | n;\nendmodule\n"
LATCH = """module sluice(input high, wide, output reg warn);
  always @* if (high) warn = wide;
endmodule
"""
CASES = 20
PLANE = st.integers(0, (1 << CASES) - 1)


@given(st.dictionaries(st.tuples(st.sampled_from("yz"), st.integers(0, 3)), st.tuples(PLANE, PLANE, PLANE)))
def test_what_is_expected_comes_out_again(bits: dict[tuple[str, int], tuple[int, int, int]]) -> None:
    planes = {key: Planes(*three, follow={3: (1, True)}) for key, three in bits.items()}
    assert unpack_expected(pack_expected(planes, CASES).data, CASES) == planes


@given(st.lists(PLANE, min_size=4, max_size=4), st.lists(PLANE, min_size=8, max_size=8), PLANE)
def test_parts_come_out_again(whole: list[int], planes: list[int], mask: int) -> None:
    blob = pack_parts(whole, [("y", 2)], planes, [("after 3", mask)], CASES)
    cases = unpack_cases(blob.data, CASES)
    assert [cases.failed, cases.undefined, cases.not_compared, cases.stopped] == [pack(p, CASES) for p in whole]
    outputs = unpack_outputs(blob.data, CASES, None)
    verdict = outputs.verdicts["y"]
    assert [verdict.failed, verdict.undefined, verdict.not_compared, verdict.stopped] == planes[:4]
    assert outputs.shown == {("y", 0): tuple(planes[4:6]), ("y", 1): tuple(planes[6:])}
    assert outputs.runs == [("after 3", mask)]


def test_a_newer_format_is_told_not_misread() -> None:
    with pytest.raises(ValueError, match="format 9"):
        unpack_cases(b"\x09" + pack_parts([0] * 4, [], [], [], CASES).data[1:], CASES)


@pytest.fixture(scope="module")
def expectation() -> Expectation:
    found = open_spec("s.toml", SPEC.encode(), {}).expectation
    assert found is not None
    return found


def entered(c: Connection, expectation: Expectation, texts: dict[str, str]) -> dict[str, tuple[int, Checked]]:
    """Outcomes by whose they are: their ids and what was checked."""
    task_id = made_task(c)
    lab = course.task(c, task_id).lab_id  # type: ignore[union-attr]
    version = saved(c, task_id)
    found = {}
    for name, text in texts.items():
        student = people.put_student(c, course.lab(c, lab).class_id, people.Listed(name, name), 0)  # type: ignore[union-attr]
        files = [HandinFile("sluice.v", text.encode())]
        came = handins.NewAttempt(name, files, c.value("SELECT UTC_TIMESTAMP()"), False)
        attempt = handins.add_attempt(c, handins.handin_of(c, lab, student, None), came)
        assert attempt is not None
        checked = check_handin(expectation, files)
        new = NewResult(
            attempt, task_id, results.Basis(version, "", "e", ""), checked, expectation.cases.count,
            Against.of(expectation),
        )  # fmt: skip
        (result_id,) = results.add_results(c, [new])
        assert results.add_results(c, [new]) == [result_id]  # once more changes nothing
        found[name] = (result_id, checked)
    return found


def kept(c: Connection, result_id: int) -> results.Result:
    row = c.row("SELECT attempt_id, task_id, spec_version_id FROM result WHERE id = %s", result_id)
    assert row is not None
    found = results.latest_of(c, row["attempt_id"], row["task_id"], row["spec_version_id"])
    assert found is not None and found.id == result_id
    return found


TEXTS = {"anna": WRONG, "ben": WRONG.replace("~", " ~ "), "carla": LATCH, "dora": "module sluice(", "emil": LATCH}


def test_a_verdict_is_read_as_it_was_and_alike_ones_are_kept_once(store: Store, expectation: Expectation) -> None:
    with store.transaction() as c:
        found = entered(c, expectation, TEXTS)
        planes = KeptPlanes()
        for result_id, checked in found.values():
            verdict = results.load_verdict(c, kept(c, result_id), expectation, planes)
            if checked.verdict is None:
                assert verdict is None
            else:
                checked.verdict.ends = []  # how cases ended is said in messages
                assert verdict == checked.verdict
        rows = {name: kept(c, result_id) for name, (result_id, _) in found.items()}
        assert rows["anna"].planes == rows["ben"].planes and rows["carla"].planes == rows["emil"].planes
        assert c.value("SELECT COUNT(*) FROM planes") == 4  # three ways to behave, and what is expected
        cases = planes.cases(c, {r.planes: r.total for r in rows.values()})
        assert cases[rows["anna"].planes].wrong == expectation.cases.full & ~found["anna"][1].verdict.right  # type: ignore[union-attr]
        assert cases[rows["dora"].planes].wrong == expectation.cases.full


def test_planes_go_with_the_last_outcome_that_has_them(store: Store, expectation: Expectation) -> None:
    with store.transaction() as c:
        entered(c, expectation, {"anna": WRONG, "carla": LATCH, "emil": LATCH})
        student = {r["name"]: r["id"] for r in c.rows("SELECT id, name FROM student")}
        count = "SELECT COUNT(*) FROM planes"
        assert c.value(count) == 3
        erasing.erase_student(c, student["emil"])
        assert c.value(count) == 3
        erasing.erase_student(c, student["carla"])
        assert c.value(count) == 2
        erasing.erase_student(c, student["anna"])
        assert c.value(count) == 1  # what is expected belongs to the spec


def test_few_kept_planes_are_still_right(store: Store, expectation: Expectation) -> None:
    with store.transaction() as c:
        found = entered(c, expectation, TEXTS)
        rows = [kept(c, result_id) for result_id, _ in found.values()]
        small, large = KeptPlanes(most_bytes=1), KeptPlanes()
        wanted = {r.planes: r.total for r in rows}
        for _ in range(3):
            assert small.cases(c, wanted) == large.cases(c, wanted)


OLD = [
    "ALTER TABLE result DROP FOREIGN KEY IF EXISTS result_planes, DROP FOREIGN KEY IF EXISTS result_expected,"
    " ADD COLUMN plane_right MEDIUMBLOB NOT NULL, ADD COLUMN plane_failed MEDIUMBLOB NOT NULL, ADD COLUMN"
    " plane_undefined MEDIUMBLOB NOT NULL, ADD COLUMN plane_not_compared MEDIUMBLOB NOT NULL, ADD COLUMN plane_stopped"
    " MEDIUMBLOB NOT NULL",
    "CREATE TABLE result_output (result_id INT NOT NULL, output VARCHAR(200) NOT NULL, plane_failed MEDIUMBLOB NOT"
    " NULL, plane_undefined MEDIUMBLOB NOT NULL, plane_not_compared MEDIUMBLOB NOT NULL, plane_stopped MEDIUMBLOB NOT"
    " NULL, observed LONGBLOB NOT NULL, PRIMARY KEY (result_id, output), FOREIGN KEY (result_id) REFERENCES result (id)"
    " ON DELETE CASCADE)",
    "DELETE FROM migration WHERE name LIKE '0007%' OR name LIKE '0008%'",
]
"""Statements that make the tables what they were before outcomes were packed."""


def as_of_old(c: Connection, result_id: int, checked: Checked, count: int) -> None:
    """Put an outcome where it was before: each plane in a column of its own, the runs in its words."""
    v = checked.verdict
    planes = [v.right, v.failed, v.undefined, v.not_compared, v.stopped] if v else [0, 0, 0, 0, (1 << count) - 1]
    runs = [(name, pack(mask, count).hex()) for name, mask in v.failing_runs] if v else []
    detail = asdict(results.Detail.of(checked)) | {"runs": runs}
    c.run(
        "UPDATE result SET planes = NULL, expected = NULL, plane_right = %s, plane_failed = %s, plane_undefined = %s,"
        " plane_not_compared = %s, plane_stopped = %s, detail = %s WHERE id = %s",
        *(pack(p, count) for p in planes), json.dumps(detail), result_id,
    )  # fmt: skip
    for name, output in v.outputs.items() if v else ():
        bits = [v.shown[key] for key in sorted(v.shown) if key[0] == name] if v else []
        four = (output.failed, output.undefined, output.not_compared, output.stopped)
        c.run(
            "INSERT INTO result_output VALUES (%s, %s, %s, %s, %s, %s, %s)",
            result_id, name, *(pack(p, count) for p in four),
            b"".join(pack(p, count) for pair in bits for p in pair),
        )  # fmt: skip


def test_outcomes_of_old_are_packed_whole(store: Store, expectation: Expectation) -> None:
    count = expectation.cases.count
    with store.transaction() as c:
        found = entered(c, expectation, TEXTS)
        for statement in OLD:
            c.run(statement)
        for result_id, checked in found.values():
            as_of_old(c, result_id, checked, count)
        c.run("DELETE FROM planes")
    assert migrate(store) == ["0007_packed_outcomes.sql", "0008_planes_are_packed.sql"]
    with store.transaction() as c:
        assert c.row("SHOW TABLES LIKE 'result_output'") is None
        for result_id, checked in found.values():
            row = kept(c, result_id)
            verdict = results.load_verdict(c, row, expectation, KeptPlanes())
            if checked.verdict is not None:
                checked.verdict.ends = []
            assert verdict == checked.verdict and row.detail == results.Detail.of(checked)
    assert migrate(store) == []
