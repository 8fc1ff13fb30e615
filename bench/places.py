"""Every place of a lab with ten tasks and a large class, in headless Chromium on a real server and database: how long
after the answer it is there, how many elements it has, and how long a frame takes while it is scrolled.

    PYTHONPATH=src:. .venv/bin/python -m bench.places 300 1000
"""

from __future__ import annotations

import io
import random
import sys
import time
import zipfile
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import httpx
from selenium import webdriver

from bench.page import signed_in
from bench.served import EMAIL, PASSWORD, add_teacher, serving

TASKS = 10
SPEC = """obento = 'spec/1'
title = 'Gates {0}'
unit = 'g{0}'
[ports]
in = 'a b c d'
out = 'y z'
[expect]
equations = '''
y = a & b | c & d
z = a ^ b ^ c ^ d
'''
"""
PLACES = {
    "spec": (".cm-content", ".cm-scroller"),
    "intake": (".entry", ".lines"),
    "results": ("[data-cluster]", ".tray"),
    "review": ("table.cases tbody tr", ".left"),
    "feedback": (".letter", ".list .scroll"),
}
"""What says that a place is there, and what is scrolled in it."""

_READY = """
const [place, ready, done] = arguments
const begin = performance.now()
let answered = 0
new PerformanceObserver((list) => {
  for (const e of list.getEntries()) if (e.name.includes('/api/')) answered = Math.max(answered, e.responseEnd - begin)
}).observe({ entryTypes: ['resource'] })
document.querySelector(`button[data-place=${place}]`).click()
const look = () => {
  const there = document.querySelector(ready)
  if (!there || there.offsetParent === null) return setTimeout(look, 10)
  requestAnimationFrame(() => setTimeout(() => {
    done([performance.now() - begin, answered, document.querySelectorAll('*').length])
  }, 0))
}
setTimeout(look, 10)
"""
_FRAMES = """
const [selector, done] = arguments
const box = document.querySelector(selector)
const gaps = []
let last = performance.now(), n = 0
const step = (now) => {
  gaps.push(now - last)
  last = now
  if (box) box.scrollTop = (n * 53) % Math.max(1, box.scrollHeight - box.clientHeight)
  if (++n < 150) requestAnimationFrame(step)
  else done(gaps.slice(2).sort((a, b) => a - b))
}
requestAnimationFrame(step)
"""


@dataclass(frozen=True, slots=True)
class Place:
    """One place: milliseconds from the press to the sight of it, and to the last answer; elements; frames."""

    name: str
    ready: float
    answered: float
    elements: int
    middle_frame: float
    slow_frames: float


def _work(rnd: random.Random) -> Iterator[tuple[str, str]]:
    """What a student hands in: most tasks, half of them with some gate that is another."""
    for n in range(TASKS):
        if rnd.random() < 0.1:
            continue
        is_right = rnd.random() < 0.5
        a, b, c = ("&", "|", "&") if is_right else [rnd.choice("&|^") for _ in range(3)]
        z = "^" if is_right or rnd.random() < 0.7 else "|"
        yield (
            f"g{n}.v",
            f"module g{n}(input a, b, c, d, output y, z);\n  assign y = a {a} b {b} c {c} d;\n"
            f"  assign z = a ^ b {z} c ^ d;\nendmodule\n",
        )


def _fill(base: str, students: int) -> tuple[int, int]:
    """Make the class and have it checked, as a person would; gives lab and task."""
    http = httpx.Client(base_url=f"{base}/api", timeout=600)
    csrf = http.post("/sign-in", json={"email": EMAIL, "password": PASSWORD}).json()["csrf"]

    def ask(method: str, path: str, **what: Any) -> Any:
        answer = http.request(method, path, headers={"X-Csrf": csrf}, **what)
        answer.raise_for_status()
        return answer.json()

    class_id = ask("GET", "/home")[0]["id"]
    roster = "number,name\n" + "\n".join(f"{70_000 + i},Person {i:04d} Holm" for i in range(students))
    ask("POST", f"/classes/{class_id}/roster", files={"file": ("list.csv", roster.encode())})
    lab = ask("POST", f"/classes/{class_id}/labs", json={"title": "Ten gates"})["id"]
    for n in range(1, TASKS):
        ask("POST", f"/labs/{lab}/tasks", json={"title": f"Gates {n}"})
    tasks = [t["id"] for t in ask("GET", f"/labs/{lab}")["tasks"]]
    for n, task in enumerate(tasks):
        ask("PUT", f"/tasks/{task}/spec", json={"text": SPEC.format(n), "over": ""})
    out, rnd = io.BytesIO(), random.Random(3)
    with zipfile.ZipFile(out, "w") as archive:
        for i in range(students):
            for name, text in _work(rnd):
                archive.writestr(f"{70_000 + i}/{name}", text)
    begin = time.perf_counter()
    ask("POST", f"/labs/{lab}/drops", files={"file": ("class.zip", out.getvalue())})
    print(f"  taken in after {time.perf_counter() - begin:.1f} s", flush=True)
    ask("POST", f"/labs/{lab}/check")
    while ask("GET", f"/labs/{lab}")["running"]:
        time.sleep(0.5)
    print(f"  checked after {time.perf_counter() - begin:.1f} s", flush=True)
    return lab, tasks[0]


def _walk(driver: webdriver.Chrome, base: str, lab: int, task: int) -> Iterator[Place]:
    driver.set_window_size(1280, 800)
    driver.set_script_timeout(60)
    driver.get(f"{base}/lab/{lab}/task/{task}/spec")
    time.sleep(3)
    for turn in range(2):  # the first time, scripts and summaries are fetched for once
        for name in ("intake", "results", "review", "feedback", "spec"):
            ready, box = PLACES[name]
            there, answered, elements = driver.execute_async_script(_READY, name, ready)
            time.sleep(1)
            if turn:
                gaps: list[float] = driver.execute_async_script(_FRAMES, box)
                slow = sum(g > 34 for g in gaps) / len(gaps)
                yield Place(name, there, answered, elements, gaps[len(gaps) // 2], slow)


def measure(students: int) -> list[Place]:
    """Walk the places of a class of so many."""
    with serving() as served:
        with served.store.transaction() as c:
            add_teacher(c)
        lab, task = _fill(served.address, students)
        with signed_in(served.address, served.folder) as driver:
            return list(_walk(driver, served.address, lab, task))


def main() -> None:
    for students in [int(n) for n in sys.argv[1:]] or [300]:
        print(f"{students} hand-ins of {TASKS} tasks", flush=True)
        for p in measure(students):
            print(
                f"  {p.name:9} ready {p.ready:5.0f} ms, answered {p.answered:5.0f} ms, {p.elements:6} elements,"
                f" frames {p.middle_frame:.1f} ms in the middle, {p.slow_frames:.0%} over 34 ms"
            )


if __name__ == "__main__":
    main()
