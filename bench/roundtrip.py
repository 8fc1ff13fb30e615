"""One hand-in of 16 cases through the whole server, beside the same by a direct call of the core."""

from __future__ import annotations

import time
from dataclasses import dataclass
from statistics import median

import httpx

from bench.served import EMAIL, PASSWORD, ROOT, add_teacher, serving
from obento.core.check.check import check_handin, open_spec
from obento.core.handin import HandinFile
from obento.core.spec.model import EDITION
from obento.server.specs.opened import OpenedSpecs, spec_files
from obento.store import course, people, specs
from obento.store.connection import Store

_SPEC = (ROOT / "demo/lab1/interlock.toml").read_text()
_HANDIN = """module lock_interlock(input level_eq, gate_shut, boat_clear, key, output open_ok, alarm);
  assign open_ok = level_eq & gate_shut & boat_clear & key;
  assign alarm = key & ~open_ok;
endmodule
// attempt %d
"""


@dataclass(frozen=True, slots=True)
class RoundTrip:
    """Seconds, medians: from the request to check until its outcome is there, the upload before it, and the core
    alone."""

    check: float
    upload: float
    core: float


def measure(rounds: int = 15) -> RoundTrip:
    expectation = open_spec("s.toml", _SPEC.encode(), {}).expectation
    assert expectation is not None
    checks, uploads, cores = [], [], []
    with serving() as served, httpx.Client(base_url=f"{served.address}/api", timeout=60) as http:
        lab_id, task_id = _fill(served.store)
        csrf = http.post("/sign-in", json={"email": EMAIL, "password": PASSWORD}).raise_for_status().json()["csrf"]
        http.headers["X-Csrf"] = csrf
        for attempt in range(rounds):
            data = (_HANDIN % attempt).encode()
            start = time.perf_counter()
            check_handin(expectation, [HandinFile("lock_interlock.v", data)])
            cores.append(time.perf_counter() - start)
            start = time.perf_counter()
            http.post(f"/labs/{lab_id}/drops", files={"file": ("10001.v", data)}).raise_for_status()
            uploads.append(time.perf_counter() - start)
            start = time.perf_counter()
            http.post(f"/labs/{lab_id}/check").raise_for_status()
            http.get(f"/labs/{lab_id}/check/events").raise_for_status()  # ends with the run
            found = http.get(f"/tasks/{task_id}/results").raise_for_status().json()
            checks.append(time.perf_counter() - start)
            assert found["clusters"], found
    return RoundTrip(median(checks), median(uploads), median(cores))


def _fill(store: Store) -> tuple[int, int]:
    """A class of one student and a lab of one task; gives both their numbers."""
    with store.transaction() as c:
        ta, class_id = add_teacher(c)
        people.put_student(c, class_id, people.Listed("10001", "Student"), 0)
        lab_id = course.add_lab(c, class_id, "Bench", None)
        task_id = course.add_task(c, lab_id, "lock_interlock")
        loaded = OpenedSpecs().load(spec_files(c, task_id, _SPEC))
        assert loaded.spec is not None
        specs.save_spec(
            c, task_id, specs.NewSpec(_SPEC, "lock_interlock", loaded.spec.unit, loaded.spec.digest, EDITION, True), ta
        )
    return lab_id, task_id
