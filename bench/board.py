"""The board in headless Chromium: from an edit to its verdict, the layout of many parts, frames while it is moved."""

from __future__ import annotations

import random
import time
from dataclasses import dataclass

from selenium import webdriver
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

from bench.page import signed_in
from bench.served import add_teacher, serving
from obento.core.spec.model import EDITION
from obento.server.specs.opened import OpenedSpecs, spec_files
from obento.store import course, specs
from obento.store.connection import Store

INPUTS = 16
SPEC = f"""obento = "spec/1"
title = "Board"
unit = "many"
[ports]
in = "{" ".join(f"i{n}" for n in range(INPUTS))}"
out = "y"
[expect]
equations = '''
y = i0 ^ i15
'''
"""


@dataclass(frozen=True, slots=True)
class Board:
    """Seconds from an edit to its verdict, seconds to lay out so many parts, and the share of frames over 20 ms (less
    than 50 a second) while the drawing is moved."""

    verdict: float
    layout: dict[int, float]
    slow_frames: dict[int, float]


def circuit(parts: int) -> str:
    """A circuit of so many gates, each of what stands some way before it: some thirty levels for 300."""
    draw = random.Random(parts)
    inputs = [f"i{n}" for n in range(INPUTS)]
    wires = list(inputs)
    rows = []
    for n in range(parts - 1):
        kind = draw.choice(["and", "or", "xor", "nand", "nor"])
        rows.append(f"  w{n} <- {kind}({draw.choice(wires[-40:])}, {draw.choice(wires[-40:])})")
        wires.append(f"w{n}")
    rows.append(f"  y <- xor({wires[-1]}, i0)")
    return "\n".join(["wiring many", f"  takes {', '.join(inputs)}", "  gives y", *rows, "end", ""])


def _task(store: Store) -> tuple[int, int]:
    with store.transaction() as c:
        ta, class_id = add_teacher(c)
        lab_id = course.add_lab(c, class_id, "Bench", None)
        task_id = course.add_task(c, lab_id, "many")
        loaded = OpenedSpecs().load(spec_files(c, task_id, SPEC))
        assert loaded.spec is not None and loaded.expectation is not None
        new = specs.NewSpec(SPEC, "Board", loaded.spec.unit, loaded.spec.digest, EDITION, True)
        specs.save_spec(c, task_id, new, ta)
    return lab_id, task_id


def measure() -> Board:
    with serving() as served:
        lab_id, task_id = _task(served.store)
        with signed_in(served.address, served.folder) as driver:
            driver.get(f"{served.address}/lab/{lab_id}/task/{task_id}/board")
            WebDriverWait(driver, 30).until(lambda d: d.find_elements(By.CSS_SELECTOR, ".cm-content"))
            layout: dict[int, float] = {}
            frames: dict[int, float] = {}
            for parts in (1000, 300):
                _write(driver, circuit(parts))
                layout[parts] = _laid_out(driver, parts)
                frames[parts] = _slow_frames(driver)
            return Board(_verdict(driver), layout, frames)


def _write(driver: webdriver.Chrome, text: str) -> None:
    driver.execute_script(
        "const e = document.querySelector('.cm-content'); e.focus(); document.execCommand('selectAll');"
    )
    driver.execute_cdp_cmd("Input.insertText", {"text": text})


def _laid_out(driver: webdriver.Chrome, parts: int) -> float:
    """Seconds that the layout took, by the drawing itself."""

    def done(d: webdriver.Chrome) -> str | None:
        found = d.find_elements(By.CSS_SELECTOR, f"[data-milliseconds][data-parts='{parts + INPUTS + 1}']")
        return found[0].get_attribute("data-milliseconds") if found else None

    return float(str(WebDriverWait(driver, 120).until(done))) / 1000


def _verdict(driver: webdriver.Chrome) -> float:
    """Seconds from a sign that is typed to what it does in all cases, the median of several."""
    found = []
    next(line for line in driver.find_elements(By.CSS_SELECTOR, ".cm-line") if "y <-" in line.text).click()
    WebDriverWait(driver, 30).until(lambda d: d.find_elements(By.CSS_SELECTOR, ".kind"))
    tried = "return performance.getEntriesByName('board-tried').length"
    for n in range(9):
        before = int(driver.execute_script(tried))
        # the last gate is exchanged: every case is another one
        driver.execute_script(
            "const l = [...document.querySelectorAll('.kind')].find((b) => b.textContent.trim() === arguments[0]);"
            " window.typedAt = performance.now(); l.click()",
            ["or", "xor"][n % 2],
        )
        for _ in range(500):
            if int(driver.execute_script(tried)) > before:
                break
            time.sleep(0.02)
        script = "const m = performance.getEntriesByName('board-tried'); return m[m.length - 1].startTime - typedAt"
        found.append(float(driver.execute_script(script)) / 1000)
        time.sleep(0.4)
    return sorted(found)[len(found) // 2]


_MOVED = """
const done = arguments[0], gaps = [];
const box = document.querySelector('.drawing'), r = box.getBoundingClientRect();
box.setPointerCapture = () => {};
const at = (x, y, kind) =>
  box.dispatchEvent(new PointerEvent(kind, { clientX: r.left + x, clientY: r.top + y, bubbles: true, pointerId: 1 }));
at(3, 3, 'pointerdown');
let last = performance.now(), n = 0;
function step(now) {
  gaps.push(now - last);
  last = now;
  at(3 + (n * 7) % 200, 3 + (n * 5) % 150, 'pointermove');
  if (++n < 120) requestAnimationFrame(step);
  else {
    at(3, 3, 'pointerup');
    done(gaps.slice(3));
  }
}
requestAnimationFrame(step);
"""
"""Moves the drawing by the pointer for 120 frames, and gives the times between them."""


def _slow_frames(driver: webdriver.Chrome) -> float:
    """The share of frames over 20 ms while the drawing is moved about by the pointer."""
    gaps: list[float] = driver.execute_async_script(_MOVED)
    return sum(g > 20 for g in gaps) / len(gaps)
