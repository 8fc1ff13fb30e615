"""A whole evening of a course with three tasks, in two browsers: namesakes, a zip for each task, a second attempt, a
late one with more time, a spec corrected after the release, drafts through a reload."""

from __future__ import annotations

import time
from collections.abc import Iterator
from datetime import datetime, timedelta
from pathlib import Path

import httpx
import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait

from tests.server.conftest import Client
from tests.server.test_class_evening import NOON, SPEC, Evening, packed, text
from tests.web.conftest import Browser
from tests.web.driver import headless

OPEN_WINDOW = '.ant-modal-wrap:not([style*="display: none"])'


@pytest.fixture
def evening(base: str) -> Iterator[Evening]:
    """A class with its list and a lab of three tasks, due at noon."""
    with httpx.Client(base_url=base, timeout=60) as http:
        yield Evening(Client(http).sign_in(), due=NOON)  # type: ignore[arg-type]


class Place:
    """A browser at one lab."""

    def __init__(self, browser: Browser, evening: Evening, folder: Path) -> None:
        self.browser, self.evening, self.folder = browser, evening, folder

    def to(self, unit: str, place: str) -> Browser:
        self.browser.open(f"/lab/{self.evening.lab}/task/{self.evening.tasks[unit]}/{place}")
        self.browser.see(f"button[data-place={place}].here, button[data-place={place}]")
        return self.browser

    def drop(self, unit: str, name: str, files: dict[str, str], at: datetime = NOON) -> None:
        path = self.folder / name
        path.write_bytes(packed(files, at))
        self.to(unit, "intake")
        self.browser.driver.execute_script("HTMLInputElement.prototype.click = () => {};")  # no window of the system
        self.browser.click(f"[data-drop-task='{self.evening.tasks[unit]}']")
        self.browser.all("input[name=drop]")[0].send_keys(str(path))
        self.browser.see(".side .one", name, seconds=60)
        self.checked()

    def checked(self) -> None:
        """Wait until nothing waits to be checked."""
        for _ in range(100):
            results = [self.evening.ta.get(f"/tasks/{t}/results") for t in self.evening.tasks.values()]
            if not any(r["waiting"] for r in results):
                return
            time.sleep(0.1)
        raise AssertionError("still waiting to be checked")

    def answer(self, box: str, words: str) -> None:
        self.browser.click(f"{OPEN_WINDOW} {box}", words)


def test_an_evening_of_three_tasks(browser: Browser, evening: Evening, tmp_path: Path) -> None:
    ta, here = evening.ta, Place(browser, evening, tmp_path)
    browser.sign_in()
    # a zip for each task, as a platform exports them
    here.drop("one", "task one.zip", {"Ada Berg/one.v": text("one"), "7003 Olaf Dahl/one.v": text("one", "b"),
                                      "7006/one.v": text("one", "b ")})  # fmt: skip
    here.drop("two", "task two.zip", {"7003 Olaf Dahl/two.v": text("two"), "Sunna Brekke/two.v": text("two", "a")})
    # namesakes are asked, never guessed
    here.to("one", "intake")
    browser.see(".entry .doubt")
    asked = next(e for e in browser.all(".entry") if "Ada Berg" in e.text and e.find_elements("css selector", ".doubt"))
    numbers = [b.text for b in asked.find_elements("css selector", ".person button") if "Ada Berg" in b.text]
    assert len(numbers) == 2 and any("7001" in n for n in numbers) and any("7002" in n for n in numbers)
    next(b for b in asked.find_elements("css selector", ".person button") if "7002" in b.text).click()
    WebDriverWait(browser.driver, 20).until(lambda _: evening.kinds("one").get("Ada Berg 7002") == "right")
    # the third task is not in yet: it looks calm
    here.to("three", "results")
    browser.see(".empty", "Nothing has been handed in yet")
    assert evening.kinds("two") == {"Olaf Dahl": "right", "Sunna Brekke and Eske Holm": "wrong"}
    # a second attempt for task one touches no other; it came late, and counts
    here.drop("one", "second.zip", {"7003 Olaf Dahl/one.v": text("one")}, NOON + timedelta(hours=3))
    assert evening.kinds("one")["Olaf Dahl"] == "right" and evening.kinds("two")["Olaf Dahl"] == "right"
    browser.click(".side .one:has(code) .chip.ask")
    browser.see(OPEN_WINDOW, "second.zip")
    here.answer(".ant-radio-wrapper", "each as the zip says")
    here.answer(".ant-modal-footer .ant-btn-primary", "Keep")
    browser.see(".side .chip", "received as the zip says")
    # the browser is in no known zone of the zip: whatever it is, three hours after noon is late
    browser.see(".entry", "late")
    # more time for him
    browser.see("body").send_keys("d")
    browser.give_more_time("Olaf")
    browser.see("[data-extension]", "Olaf Dahl")
    browser.click(".ant-modal-footer button", "Cancel")
    browser.gone(OPEN_WINDOW)
    assert not evening.entry("Olaf Dahl")["attempts"][-1]["late"]
    # a comment that is not kept is there after a reload
    here.to("one", "review")
    browser.see(".who h1", "Rui Costa")
    browser.type("textarea[name=comment]", "Both inputs matter, {name}.")
    browser.driver.refresh()
    browser.see(".draft", "not kept, from")
    two_at_once(here, "Both inputs matter, {name}.")
    # what stands against a release, then the letters
    browser.click("button[data-place=feedback]")
    browser.click("button", "Release all")
    browser.see(".against li", "task one.zip")  # nobody said yet when it was received
    browser.click(".ant-modal-footer .ant-btn-primary:not([disabled])", "Release")
    browser.see("tr[data-student]", "released")
    assert "Both inputs matter, Rui." in str(evening.letter("7006"))
    # the spec was wrong: it is corrected, everybody is checked again at once, and who gets another letter is told
    here.to("one", "spec")
    browser.see(".cm-content", "y = a & b")
    browser.write_spec(SPEC.format(unit="one", right="b"))
    browser.see(".messages", "All sources agree")
    browser.see(".cm-content").send_keys(Keys.CONTROL, "s")
    browser.click(".ant-modal-footer .ant-btn-primary", "Save")
    WebDriverWait(browser.driver, 20).until(lambda _: ta.get(f"/tasks/{evening.tasks['one']}/spec")["version"] == 2)
    here.checked()
    assert evening.kinds("one") == {"Rui Costa": "right", "Olaf Dahl": "wrong", "Ada Berg 7002": "wrong"}
    browser.click("button[data-place=feedback]")
    browser.click("button", "Release all")
    browser.see(OPEN_WINDOW, "corrected: they get a letter that says so")
    browser.click(".ant-modal-footer .ant-btn-primary:not([disabled])", "Release")
    browser.gone(OPEN_WINDOW)
    browser.see("tr[data-student]", "released")
    assert "y = b" not in str(evening.letter("7006")) and evening.letter("7006")["tasks"][0]["passed"] == 4


def two_at_once(here: Place, typed: str) -> None:
    """Somebody else keeps a comment on the same cluster first: the second learns of it and loses nothing."""
    browser = here.browser
    address = browser.driver.current_url
    with headless() as other:
        second = Browser(other, browser.base)
        second.sign_in()
        second.driver.get(address)
        second.see(".who h1", "Rui Costa")
        second.type("textarea[name=comment]", "Said first.")
        second.click(".comment button.ant-btn-primary", "Keep")
        second.see(".comment .tag.pass", "kept")
    browser.click(".comment button.ant-btn-primary", "Keep")
    browser.see(".ant-modal-confirm", "Said first.")
    assert browser.see("textarea[name=comment]").get_attribute("value") == typed
    browser.click(".ant-modal-confirm button", "Replace theirs")
    browser.see(".comment .tag.pass", "kept")
