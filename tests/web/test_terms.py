"""Due date, lateness and extensions in the real browser: marks on screen follow at once."""

from __future__ import annotations

from selenium.webdriver.common.keys import Keys

from tests.web.conftest import Browser

OPEN_WINDOW = '.ant-modal-wrap:not([style*="display: none"])'


def mark_of(browser: Browser, name: str) -> str:
    """The mark shown for somebody in the table of Feedback."""
    return browser.see("tr[data-student]", name).find_elements("css selector", "td")[1].text


def test_more_time_for_one_student(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Locks and lamps")
    browser.see("[data-cluster]")
    browser.click("button[data-place=feedback]")
    before = float(mark_of(browser, "Ravi Sund"))  # handed in late, which costs a tenth
    browser.see("body").send_keys("d")
    share = browser.see("input[name=late-share]")
    share.send_keys(Keys.CONTROL + "a")
    share.send_keys("50")
    browser.click(".ant-modal-footer button", "Keep")
    browser.see(".ant-message", "changed")
    browser.gone(OPEN_WINDOW)
    full = before / 0.9
    assert abs(float(mark_of(browser, "Ravi Sund")) - full / 2) < 0.02
    browser.see("body").send_keys("d")
    browser.see(".extensions")
    browser.give_more_time("Ravi", "was ill")
    browser.see("[data-extension]", "Ravi Sund")
    assert "was ill" in browser.see("[data-extension]").text
    browser.click(".ant-modal-footer button", "Cancel")
    browser.gone(OPEN_WINDOW)
    assert abs(float(mark_of(browser, "Ravi Sund")) - full) < 0.02
