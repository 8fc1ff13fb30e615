"""A class of 300 with 65,536 cases on the real server: the time from the drop to the last verdict, what each page
takes, how many can be read a second, and how large the records are.

`PYTHONPATH=src:. python bench/pages.py [hand-ins]` prints it all. Work of the checks alone is measured in the same
run."""

from __future__ import annotations

import io
import json
import sys
import threading
import time
import zipfile
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from statistics import median

import httpx

from bench.designs import WIDE_SPEC, wide_coursework
from bench.served import EMAIL, PASSWORD, add_teacher, serving
from obento.core.check.check import check_handin, open_spec
from obento.core.handin import HandinFile
from obento.core.spec.model import EDITION
from obento.server.specs.opened import OpenedSpecs, spec_files
from obento.store import course, people, specs
from obento.store.connection import Store

_READERS = 4
_SECONDS = 5.0


def _fill(store: Store, students: int) -> tuple[int, int]:
    with store.transaction() as c:
        ta, class_id = add_teacher(c)
        for i in range(students):
            people.put_student(c, class_id, people.Listed(f"{10_000 + i}", f"Student {i}"), i)
        lab_id = course.add_lab(c, class_id, "Bench", None)
        task_id = course.add_task(c, lab_id, "unit16")
        loaded = OpenedSpecs().load(spec_files(c, task_id, WIDE_SPEC))
        assert loaded.spec is not None
        specs.save_spec(
            c, task_id, specs.NewSpec(WIDE_SPEC, "unit16", loaded.spec.unit, loaded.spec.digest, EDITION, True), ta
        )
    return lab_id, task_id


def _drop(students: int) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for i in range(students):
            archive.writestr(f"{10_000 + i}/unit16.v", wide_coursework(i))
    return out.getvalue()


def _timed(work: Callable[[], object]) -> float:
    start = time.perf_counter()
    work()
    return time.perf_counter() - start


def _check_some(seeds: range) -> float:
    """Seconds on the clock for some checks alone."""
    expectation = open_spec("s.toml", WIDE_SPEC.encode(), {}).expectation
    assert expectation is not None
    start = time.perf_counter()
    for i in seeds:
        check_handin(expectation, [HandinFile("unit16.v", wide_coursework(i).encode())])
    return time.perf_counter() - start


def _work_side_by_side(students: int) -> float:
    """Seconds that the checks alone take two processes that do nothing else, as far as the machine lets them."""
    with ProcessPoolExecutor(2) as pool:
        return max(pool.map(_check_some, [range(0, students, 2), range(1, students, 2)]))


def _reads_a_second(base: str, cookies: httpx.Cookies, path: str) -> float:
    """Answers a second to several readers at once."""
    done = [0] * _READERS
    end = time.perf_counter() + _SECONDS

    def read(reader: int) -> None:
        with httpx.Client(base_url=base, cookies=cookies, timeout=60) as http:
            while time.perf_counter() < end:
                http.get(path).raise_for_status()
                done[reader] += 1

    threads = [threading.Thread(target=read, args=(i,)) for i in range(_READERS)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return sum(done) / _SECONDS


def _size(store: Store) -> dict[str, float]:
    with store.transaction() as c:
        rows = c.rows(
            "SELECT table_name AS name, (data_length + index_length) / 1e6 AS size FROM information_schema.tables"
            " WHERE table_schema = DATABASE() ORDER BY 2 DESC LIMIT 4"
        )
    return {r["name"]: round(float(r["size"]), 1) for r in rows}


def main(students: int) -> None:
    work = _work_side_by_side(students)
    print(f"{students} checks alone, in two processes: {work:.1f} s")
    with serving() as served, httpx.Client(base_url=f"{served.address}/api", timeout=600) as http:
        lab_id, task_id = _fill(served.store, students)
        csrf = http.post("/sign-in", json={"email": EMAIL, "password": PASSWORD}).raise_for_status().json()["csrf"]
        http.headers["X-Csrf"] = csrf
        drop = _timed(
            lambda: http.post(f"/labs/{lab_id}/drops", files={"file": ("c.zip", _drop(students))}).raise_for_status()
        )

        def check() -> None:
            http.post(f"/labs/{lab_id}/check").raise_for_status()
            http.get(f"/labs/{lab_id}/check/events").raise_for_status()

        taken = _timed(check)
        print(f"drop {drop:.2f} s, check {taken:.1f} s: {taken / work:.2f} of the work alone")
        results = http.get(f"/tasks/{task_id}/results").json()
        wrong = next(c for c in results["clusters"] if c["kind"] == "wrong")["members"][0]["handin_id"]
        pages = {
            "home": "/home",
            "lab": f"/labs/{lab_id}",
            "results": f"/tasks/{task_id}/results",
            "cells": f"/tasks/{task_id}/cells",
            "review": f"/tasks/{task_id}/review/{wrong}",
            "feedback": f"/labs/{lab_id}/feedback",
            "report": f"/labs/{lab_id}/report",
        }
        for name, path in pages.items():
            http.put(f"/handins/{wrong}/tasks/{task_id}/mark", json={"value": 1, "reason": "bench"}).raise_for_status()
            first = _timed(lambda path=path: http.get(path).raise_for_status())  # type: ignore[misc]
            again = median(_timed(lambda path=path: http.get(path).raise_for_status()) for _ in range(9))  # type: ignore[misc]
            answer = http.get(path)
            sent = answer.headers.get("content-length", "?")
            rate = _reads_a_second(f"{served.address}/api", http.cookies, path)
            print(
                f"{name:9} after a change {1000 * first:6.0f} ms, again {1000 * again:6.1f} ms, {rate:5.0f} a second,"
                f" {len(answer.content) / 1000:7.1f} kB ({sent} sent)"
            )
        print("records in MB:", json.dumps(_size(served.store)))


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 300)
