"""The results page with 300 x 4,096 cells, in headless Chromium on a real server and database."""

from __future__ import annotations

import io
import time
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

from selenium import webdriver
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from bench.designs import CLASS_SPEC, coursework
from bench.served import EMAIL, PASSWORD, add_teacher, serving
from obento.core.check.check import check_handin
from obento.core.spec.model import EDITION
from obento.intake.archive import unpack
from obento.runner.engine import engine_version
from obento.server.intake.taking_in import take_in
from obento.server.specs.opened import OpenedSpecs, spec_files
from obento.store import course, handins, people, results, specs
from obento.store.connection import Store
from obento.store.planes import Against
from obento.store.results import NewResult


@dataclass(frozen=True, slots=True)
class Measured:
    payload: int
    painted: float
    tray: float
    slow_frames: float
    frames: int
    median_ms: float


def _fill(store: Store) -> tuple[int, int]:
    """A class of 300 with outcomes; gives lab and task."""
    with store.transaction() as c:
        ta, class_id = add_teacher(c)
        for i in range(300):
            people.put_student(c, class_id, people.Listed(f"{10_000 + i}", f"Student {i}"), i)
        lab_id = course.add_lab(c, class_id, "Bench", None)
        task_id = course.add_task(c, lab_id, "unit12")
        opened = OpenedSpecs()
        loaded = opened.load(spec_files(c, task_id, CLASS_SPEC))
        assert loaded.spec is not None and loaded.expectation is not None
        version = specs.save_spec(
            c, task_id, specs.NewSpec(CLASS_SPEC, "unit12", loaded.spec.unit, loaded.spec.digest, EDITION, True), ta
        )
        specs.mark_used(c, version)
        basis = results.Basis(
            version, opened.current(c, task_id).files_digest, engine_version(), results.choices_digest(())
        )
        against = Against.of(loaded.expectation)
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w") as archive:
            for i in range(300):
                archive.writestr(f"{10_000 + i}/unit12.v", coursework(i))
        lab = course.lab(c, lab_id)
        assert lab is not None
        take_in(c, lab, "class.zip", unpack("class.zip", out), ta)
        new: list[NewResult] = []
        for row in handins.handins_of(c, lab_id):
            assert row.attempt_id is not None
            files = handins.attempt_files(c, row.attempt_id)
            checked = check_handin(loaded.expectation, files)
            new.append(NewResult(row.attempt_id, task_id, basis, checked, 4096, against))
        results.add_results(c, new)
    return lab_id, task_id


def measure() -> Measured:
    with serving() as served:
        lab_id, task_id = _fill(served.store)
        return _browse(served.address, lab_id, task_id, served.folder)


@contextmanager
def signed_in(base: str, folder: Path) -> Iterator[webdriver.Chrome]:
    """A browser in which the teacher of a benchmark is signed in."""
    options = webdriver.ChromeOptions()
    options.binary_location = "/usr/bin/chromium"
    for flag in [
        "--headless=new",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-dev-shm-usage",
        "--no-first-run",
        f"--user-data-dir={folder / 'profile'}",
    ]:
        options.add_argument(flag)
    driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    try:
        driver.get(f"{base}/sign-in")
        wait = WebDriverWait(driver, 30)
        wait.until(lambda d: d.find_element(By.NAME, "email")).send_keys(EMAIL)
        driver.find_element(By.NAME, "password").send_keys(PASSWORD)
        driver.find_element(By.CSS_SELECTOR, "button[type=submit]").click()
        wait.until(lambda d: d.find_elements(By.CSS_SELECTOR, ".lab"))
        yield driver
    finally:
        driver.quit()


def _browse(base: str, lab_id: int, task_id: int, folder: Path) -> Measured:
    with signed_in(base, folder) as driver:
        wait = WebDriverWait(driver, 30)
        page = f"{base}/lab/{lab_id}/task/{task_id}/results"
        driver.get(page)
        start = time.perf_counter()
        driver.get(page)
        wait.until(lambda d: d.find_elements(By.CSS_SELECTOR, "[data-cluster]"))
        tray = time.perf_counter() - start
        driver.get(f"{page}?face=rows")
        wait.until(lambda d: d.execute_script("return performance.getEntriesByName('rows-painted').length"))
        painted = driver.execute_script("return performance.getEntriesByName('rows-painted')[0].startTime") / 1000
        payload = driver.execute_script(
            "return performance.getEntriesByType('resource').find(r => r.name.includes('/cells')).decodedBodySize"
        )
        gaps: list[float] = driver.execute_async_script(
            "const done = arguments[0], box = document.querySelector('.box'), gaps = []; let last = performance.now(),"
            " n = 0;function step(now) { gaps.push(now - last); last = now; box.scrollTop = (n * 37) % 5000;"
            " box.scrollLeft = (n * 61) % 6000; if (++n < 180) requestAnimationFrame(step); else done(gaps.slice(2)); }"
            " requestAnimationFrame(step);"
        )
        ordered = sorted(gaps)
        return Measured(
            payload, painted, tray, sum(g > 34 for g in gaps) / len(gaps), len(gaps), ordered[len(ordered) // 2]
        )
