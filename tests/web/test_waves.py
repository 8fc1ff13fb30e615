"""Reading waves in the real browser: cursors, keys, zoom, inner signals, and the outcomes in the letter."""

from __future__ import annotations

import json
import time

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

from tests.web.conftest import Browser

COLOURS = (
    "const c = arguments[0]; const d = c.getContext('2d').getImageData(0, 0, c.width, c.height).data; const s = new"
    " Set();for (let i = 0; i < d.length; i += 4) s.add(d[i] + ',' + d[i + 1] + ',' + d[i + 2]); return [...s]"
)


def open_review(browser: Browser, task: str, who: str) -> None:
    browser.sign_in()
    browser.click(".lab", "Tickets and beacons")
    browser.see("[data-cluster]", seconds=60)
    if browser.all(".pick"):
        browser.click(".pick")
        browser.click(".ant-select-item-option", task)
    browser.click("[data-cluster] .chip", who)
    browser.see(".who h1", who)


def values(browser: Browser) -> dict[str, str]:
    """What stands under cursor a, by name: what should be and what is."""
    return {
        str(row.get_attribute("data-name")): row.text.partition("\n")[2].replace("\n", " ")
        for row in browser.all(".names .name")
    }


def wait_for(browser: Browser, name: str, text: str) -> None:
    WebDriverWait(browser.driver, 10).until(
        lambda _: text in values(browser).get(name, ""), f"{name}: {text} in {values(browser)}"
    )


def click_at(browser: Browser, sheet: WebElement, share: float, shift: bool = False) -> None:
    size = sheet.size
    chain = ActionChains(browser.driver)
    if shift:
        chain.key_down(Keys.SHIFT)
    chain.move_to_element_with_offset(sheet, round(size["width"] * (share - 0.5)), -60).click()
    if shift:
        chain.key_up(Keys.SHIFT)
    chain.perform()


def test_reading_the_waves(browser: Browser) -> None:
    open_review(browser, "Berth ticket counter", "Osk Lindqvist")
    sheet = browser.see("canvas[data-waves]")
    # the first step that goes wrong is in sight, with what should be and what is
    browser.see(".names-head", "step 2")
    wait_for(browser, "ticket", "1 0")
    WebDriverWait(browser.driver, 10).until(
        lambda _: "251,233,226" in browser.driver.execute_script(COLOURS, sheet)
    )  # shaded
    browser.see(".change", "negedge clk for posedge clk")
    # by key to the next divergence, which is in the next sequence that has one
    browser.see("body").send_keys("f")
    browser.see(".which", "run 1")
    browser.see(".names-head", "step 2")
    # the cursor goes by keys and by click, and the list of cases follows
    browser.see("body").send_keys(Keys.ARROW_RIGHT)
    browser.see(".names-head", "step 3")
    wait_for(browser, "ticket", "2 1")
    browser.see("body").send_keys("b", Keys.ARROW_LEFT, Keys.ARROW_LEFT)
    browser.see(".apart", "b is 2 steps after a")
    browser.see("body").send_keys("0")
    click_at(browser, sheet, 0.5)
    middle = browser.see(".names-head").text
    assert "step" in middle and "step 3" not in middle
    click_at(browser, sheet, 0.9, shift=True)
    browser.see(".apart", "steps after a")
    # a click on a name turns its radix
    browser.click(".name button", "ticket")
    browser.see(".name", "signed")
    browser.click(".name button", "ticket")
    browser.see(".name", "hex")


def test_zooming_and_inner_signals(browser: Browser) -> None:
    open_review(browser, "Berth ticket counter", "Caelan Roy")
    sheet = browser.see("canvas[data-waves]")
    browser.see("body").send_keys("f")
    before = browser.driver.execute_script(COLOURS, sheet)
    browser.driver.execute_script(
        "for (let i = 0; i < 8; i++) arguments[0].dispatchEvent(new WheelEvent('wheel', {deltaY: -120, clientX: 800,"
        " clientY: 300, bubbles: true, cancelable: true}))",
        sheet,
    )
    time.sleep(0.2)
    assert browser.driver.execute_script(COLOURS, sheet) and before
    browser.see("body").send_keys("i")
    browser.driver.switch_to.active_element.send_keys("coun", Keys.ENTER)
    browser.see(".name.inner", "count")
    browser.see("body")


def test_the_letter_has_the_picture(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Tickets and beacons")
    browser.see("[data-cluster]", seconds=60)
    browser.click("button[data-place=feedback]")
    browser.click("td", "Bram Okafor")
    browser.see(".letter", "Bram Okafor")
    browser.see(".letter figure", "Steps")
    outcomes = browser.all(".letter figure canvas")[0]
    WebDriverWait(browser.driver, 10).until(lambda _: "251,233,226" in browser.driver.execute_script(COLOURS, outcomes))
    assert "From power-up go through the steps" in browser.see(".letter").text
    browser.click("a", "Class report")
    browser.see(".again", "5 of 22")
    browser.see(".task", "Commonest mistakes")
    browser.see("body").send_keys(Keys.ESCAPE)
    browser.see(".letter")


def test_a_bench_task_shows_its_checks_and_what_was_printed(browser: Browser) -> None:
    open_review(browser, "Tickets on the bench", "Amaro Diaz")
    browser.see(".output", "wrong: last berth (ticket 11, last 0, at 121 ns)")
    browser.see("tr.chosen", "last berth")
    browser.see("body").send_keys("s")
    browser.see(".source", "module ticket_counter")


def test_frames_stay_smooth_with_sixty_signals_over_ten_thousand_steps(browser: Browser) -> None:
    """A report, not a judgement: machines differ. What must hold is that every frame is painted."""
    open_review(browser, "Berth ticket counter", "Osk Lindqvist")
    browser.see("canvas[data-waves]")
    steps = 10_000
    waves = [
        {
            "name": f"s{i}",
            "kind": "inner",
            "width": 1 + i % 3 * 7,
            "radix": "bin",
            "signed": False,
            "at": list(range(0, 10 * steps, 10 * (1 + i % 4))),
            "values": [
                format(k * 37 % (1 << 1 + i % 3 * 7), f"0{1 + i % 3 * 7}b")
                for k in range(len(range(0, 10 * steps, 10 * (1 + i % 4))))
            ],
            "expected_at": [],
            "expected": [],
            "bad": [],
        }
        for i in range(60)
    ]
    view = {
        "sequences": [{"name": "long", "first": 0, "length": steps, "wrong": 0}],
        "sequence": 0,
        "offset": 0,
        "step_time": 10,
        "actions": "c" * steps,
        "cells": "p" * steps,
        "clock": "clk",
        "waves": waves,
        "inner": [],
        "ended": -1,
        "trouble": "",
    }
    browser.driver.execute_script(
        "const real = window.fetch; const data = arguments[0];window.fetch = (url, o) => String(url).includes('/waves')"
        " ? Promise.resolve(new Response(data, {headers: {'Content-Type': 'application/json'}})) : real(url, o)",
        json.dumps(view),
    )
    browser.see("body").send_keys("]")
    browser.see(".name", "s59" if len(browser.all(".name")) > 59 else "s0")
    times = browser.driver.execute_async_script(
        "const done = arguments[0]; const sheet = document.querySelector('canvas[data-waves]'); const found = []; let n"
        " = 0; let last = performance.now();function frame(now) { found.push(now - last); last = now; n++;"
        " sheet.dispatchEvent(new WheelEvent('wheel', {deltaY: n % 40 < 20 ? 120 : -120, clientX: 820, clientY: 300,"
        " bubbles: true, cancelable: true})); if (n < 120) requestAnimationFrame(frame); else done(found) }"
        " requestAnimationFrame(frame)"
    )
    ordered = sorted(times[1:])
    print(
        f"\nwave view, 60 signals x 10,000 steps: median frame {ordered[len(ordered) // 2]:.1f} ms, 95 % under"
        f" {ordered[int(0.95 * len(ordered))]:.1f} ms"
    )
    assert len(ordered) == 119
