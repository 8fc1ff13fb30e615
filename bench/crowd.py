"""Twenty browsers' worth of requests while a class is checked: how long a page takes, in the middle and at worst.

`PYTHONPATH=src:. python bench/crowd.py [browsers] [hand-ins]` reads home, results, review and feedback by turns, as
people do who look and think for a second, first of an idle server and then while everything is checked."""

from __future__ import annotations

import itertools
import sys
import threading
import time
from statistics import median

import httpx

from bench.pages import _drop, _fill
from bench.served import EMAIL, PASSWORD, serving

_THINKING = 1.0


def _look(
    base: str, cookies: httpx.Cookies, pages: list[str], until: threading.Event, took: list[float], wrong: list[int]
) -> None:
    with httpx.Client(base_url=base, cookies=cookies, timeout=60) as http:
        for page in itertools.cycle(pages):
            begun = time.perf_counter()
            answer = http.get(page)
            took.append(time.perf_counter() - begun)
            if answer.status_code != 200:
                wrong.append(answer.status_code)
            if until.wait(_THINKING):
                return


def _crowd(base: str, cookies: httpx.Cookies, pages: list[str], browsers: int, done: threading.Event) -> str:
    took: list[float] = []
    wrong: list[int] = []
    people = [
        threading.Thread(
            target=_look, args=(base, cookies, pages[i % len(pages) :] + pages[: i % len(pages)], done, took, wrong)
        )
        for i in range(browsers)
    ]
    for person in people:
        person.start()
    for person in people:
        person.join()
    middle, worst = 1000 * median(took), 1000 * max(took)
    return f"{len(took)} pages, {middle:.0f} ms in the middle, {worst:.0f} ms at worst, {len(wrong)} not answered"


def main() -> None:
    browsers = int(sys.argv[1]) if len(sys.argv) > 1 else 20
    students = int(sys.argv[2]) if len(sys.argv) > 2 else 300
    with serving() as server:
        lab_id, task_id = _fill(server.store, students)
        base = f"{server.address}/api"
        pages = [
            "/home",
            f"/labs/{lab_id}",
            f"/labs/{lab_id}/intake",
            f"/labs/{lab_id}/feedback",
            f"/tasks/{task_id}/results",
        ]
        with httpx.Client(base_url=base, timeout=120) as http:
            token = http.post("/sign-in", json={"email": EMAIL, "password": PASSWORD}).json()["csrf"]
            headers = {"X-Csrf": token}
            http.post(f"/labs/{lab_id}/drops", files={"file": ("class.zip", _drop(students))}, headers=headers)
            done = threading.Event()
            threading.Timer(10, done.set).start()
            print(f"idle: {_crowd(base, http.cookies, pages, browsers, done)}")
            http.post(f"/labs/{lab_id}/check", headers=headers)
            checked = threading.Event()

            def follow() -> None:
                with http.stream("GET", f"/labs/{lab_id}/check/events") as events:
                    for _ in events.iter_lines():
                        pass
                checked.set()

            begun = time.monotonic()
            threading.Thread(target=follow).start()
            print(f"while {students} are checked: {_crowd(base, http.cookies, pages, browsers, checked)}")
            print(f"the check took {time.monotonic() - begun:.0f} s meanwhile")


if __name__ == "__main__":
    main()
