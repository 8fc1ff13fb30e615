"""Take the pictures of docs/screenshots/ from a running demo (`./obento start`, on a new database): walks a little of
an evening on the way, so that comments, letters and mails are there to be seen."""

from __future__ import annotations

import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Literal

from selenium import webdriver
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

BASE = "http://127.0.0.1:8400"
OUT = Path(__file__).resolve().parents[1] / "docs/screenshots"
See = Callable[..., WebElement]
Picture = Callable[[str], None]
COMMENT = (
    "Dear {name}, look at {line}: the alarm has to sound whenever the key is turned and the gate may not open, a boat"
    " in the way included."
)


def main() -> None:
    options = webdriver.ChromeOptions()
    options.binary_location = "/usr/bin/chromium"
    for flag in [
        "--headless=new",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-dev-shm-usage",
        "--no-first-run",
        f"--user-data-dir={tempfile.mkdtemp()}",
    ]:
        options.add_argument(flag)
    driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    driver.execute_cdp_cmd(
        "Emulation.setDeviceMetricsOverride", {"width": 1280, "height": 800, "deviceScaleFactor": 1, "mobile": False}
    )

    def see(css: str, text: str = "") -> WebElement:
        def found(_: object) -> WebElement | Literal[False]:
            return next(
                (e for e in driver.find_elements(By.CSS_SELECTOR, css) if e.is_displayed() and text in e.text), False
            )

        return WebDriverWait(driver, 20, ignored_exceptions=[Exception]).until(found, f"{css} {text}")

    def picture(name: str) -> None:
        driver.execute_async_script("document.fonts.ready.then(arguments[0])")
        time.sleep(0.6)
        driver.save_screenshot(str(OUT / f"{name}.png"))

    driver.get(f"{BASE}/sign-in")
    see("input[name=email]").send_keys("mira@college.example")
    see("input[name=password]").send_keys("locks-and-lamps")
    see("button[type=submit]").click()
    see(".lab")
    picture("home")
    see("button", "Class list").click()
    see("tr[data-student]", "Ilse Varga")
    picture("class-list")
    see(".brand").click()
    see(".lab").click()
    see("[data-cluster]")
    driver.find_element(By.TAG_NAME, "body").send_keys("c")
    see("textarea[name=comment]").send_keys(COMMENT)
    see("button", "Keep for all").click()
    see(".tag.pass", "kept")
    time.sleep(3.5)  # until the notice is gone
    picture("review")
    _reasons(driver, see, picture)
    for place, css, name in (
        ("results", "[data-cluster]", "tray"),
        ("spec", ".cm-content", "spec"),
        ("intake", ".entry", "intake"),
    ):
        see(f"button[data-place={place}]").click()
        see(css)
        picture(name)
    see("button[data-place=results]").click()
    see("[data-cluster]")
    driver.find_element(By.TAG_NAME, "body").send_keys("d")
    see(".extensions")
    picture("terms")
    see(".ant-modal button", "Cancel").click()
    time.sleep(0.5)
    driver.find_element(By.TAG_NAME, "body").send_keys("t")
    see("canvas")
    picture("rows")
    see("button[data-place=feedback]").click()
    see("tr[data-student] td", "Pavel Orsic").click()
    see(".letter .say")
    picture("feedback")
    see("button", "Comments").click()
    see("button", "Draft all open ones").click()
    see("button", "Comments 11 of 11")
    time.sleep(3.5)
    picture("drafts")
    see("button", "Students").click()
    see("button", "Release all").click()
    see("[data-against]")
    time.sleep(0.5)
    picture("release")
    see(".ant-modal button", "Not yet").click()
    time.sleep(0.5)
    see("button", "Release this one").click()
    see(".ant-modal-footer .ant-btn-primary:not([disabled])", "Release").click()
    see("tr[data-student] .tag.pass", "released")
    driver.get(f"{BASE}/mailbox")
    for _ in range(40):
        if driver.find_elements(By.CSS_SELECTOR, ".mail a.page-link"):
            break
        see("button", "Look again").click()
        time.sleep(0.3)
    link = see(".mail a.page-link").get_attribute("href")
    assert link is not None
    driver.get(link)
    see("button", "Open my letter").click()
    see(".letter")
    picture("student")
    driver.get(BASE)
    _board(driver, see, picture)
    driver.get(BASE)
    see(".lab", "Tickets and beacons").click()
    see("[data-cluster] .chip", "Caelan Roy").click()
    see("canvas[data-waves]")
    driver.find_element(By.TAG_NAME, "body").send_keys("f")
    see(".names-head", "step 2")
    driver.find_element(By.TAG_NAME, "body").send_keys("i")
    driver.switch_to.active_element.send_keys("count\n")
    see(".name.inner", "count")
    driver.find_element(By.CSS_SELECTOR, ".who h1").click()
    picture("waves")
    see("button[data-place=spec]").click()
    see(".coverage")
    picture("clocked")
    see("button[data-place=feedback]").click()
    see("a", "Class report").click()
    see(".again")
    picture("report")
    driver.quit()


def _reasons(driver: webdriver.Chrome, see: See, picture: Picture) -> None:
    """The circuit of the first hand-in, driven by hand, and with a line changed."""
    body = driver.find_element(By.TAG_NAME, "body")
    driver.find_element(By.CSS_SELECTOR, ".who h1").click()
    body.send_keys("g")
    see(".likely")
    time.sleep(0.5)
    driver.execute_script(
        "[...document.querySelectorAll('[data-wire]')].find(w =>"
        " w.querySelector('title').textContent.startsWith('safe')).dispatchEvent(new MouseEvent('click', {bubbles:"
        " true}));document.querySelector('[data-kind=or]').dispatchEvent(new MouseEvent('click', {bubbles: true}))"
    )
    see("th.probe")
    picture("circuit")
    body.send_keys("h")
    see(".hand .digit")
    body.send_keys("a")
    picture("hand")
    body.send_keys(Keys.ESCAPE)
    field = see(".excerpt input")
    text = (field.get_attribute("value") or "").replace("||", "&&")
    driver.execute_script(
        "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('change'))", field, text
    )
    see(".bar[role=status]", "16 of 16")
    picture("what-if")
    see(".bar[role=status] button", "Leave").click()


def _board(driver: webdriver.Chrome, see: See, picture: Picture) -> None:
    """An eight-bit unit out of parts, stated sentence by sentence; the drawing with the values of one case."""
    see(".lab", "Paddles and ballast").click()
    see("[data-cluster]")
    see(".tasks button", "Ballast").click()
    see("button[data-place=spec]").click()
    see(".messages", "All sources agree")
    driver.find_element(By.TAG_NAME, "body").send_keys("b")
    see(".drawing [data-kind=output]")
    field = see("#board-sentence")
    for said in BALLAST:
        field.send_keys(said, Keys.ENTER)
        see(
            ".cm-content", said.partition(" =")[0].partition(",")[0] + ("," if "," in said.partition("=")[0] else " <-")
        )
    see(".cases-side .caption", "right in all")
    see("tr[data-case='14']").click()
    picture("board")


BALLAST = [
    "sum, over_sum = add(fore, aft)",
    "diff, less = subtract(fore, aft)",
    "back, more = subtract(aft, fore)",
    "half = {over_sum, sum[7..1]}",
    "trim = select(op, sum, diff, back, half)",
    "over = select(op, over_sum, less, more, 0)",
    "level = zero(trim)",
    "bow_down = fore > aft",
]


if __name__ == "__main__":
    main()
