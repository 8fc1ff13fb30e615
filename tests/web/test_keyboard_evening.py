"""A whole evening without the pointer: from the door to a letter that is out."""

from __future__ import annotations

from selenium.webdriver.common.keys import Keys

from obento.demo.load import DEMO_PASSWORD, DEMO_TA
from tests.web.conftest import Browser

FAR = 160
LONGEST = 260


def focused(browser: Browser) -> str:
    """The text of what has the focus, or what it is called."""
    say = (
        "const e = document.activeElement; if (e === document.body) return '';"
        " return e.getAttribute('aria-label') || e.innerText || e.name || ''"
    )
    return str(browser.driver.execute_script(say))


def tab_to(browser: Browser, text: str, back: bool = False) -> None:
    """Press Tab until what has the focus says a text."""
    for _ in range(FAR):
        if text in (said := focused(browser)) and len(said) < LONGEST:  # not the window around it
            return
        browser.keys(Keys.SHIFT + Keys.TAB if back else Keys.TAB)
    raise AssertionError(f"{text!r} is not come to by Tab\n{browser.shown()}")


def test_an_evening_by_keys(browser: Browser) -> None:
    browser.open("/sign-in")
    browser.see("input[name=email]")
    tab_to(browser, "email")
    browser.keys(DEMO_TA, Keys.TAB, DEMO_PASSWORD, Keys.ENTER)
    browser.see(".lab")
    tab_to(browser, "Lab 1: Locks and lamps")
    browser.keys(Keys.ENTER)
    # the first kind of mistake, one of those who made it, and what is to be said to all of them
    browser.see("[data-cluster].chosen")
    browser.keys(Keys.ARROW_DOWN, Keys.ARROW_RIGHT)
    browser.see(".chosen .chip.chosen", "Sofia Tran")
    browser.keys(Keys.ENTER)
    browser.see(".who h1", "Sofia Tran")
    browser.see(".left tr[data-case].chosen")
    browser.keys(".")
    browser.keys("c")
    browser.keys("Look once more at the case in which the key is not turned.", Keys.CONTROL + Keys.ENTER)
    browser.see(".tag.pass", "kept")
    browser.keys(Keys.ESCAPE, Keys.ESCAPE)
    browser.see("[data-cluster].chosen", "Sofia Tran")
    # what the place is for, and away with it
    browser.keys("i")
    browser.see(".ant-modal", "About this place")
    browser.keys(Keys.ESCAPE)
    browser.gone(".ant-modal-wrap:not([style*='display: none']) .facts")
    # feedback: the student is found in the list, and gets the letter
    browser.keys("5")
    browser.see(".letter")
    tab_to(browser, "students; the arrow keys go")
    for _ in range(40):
        if browser.all("tr.chosen") and "Sofia Tran" in browser.see("tr.chosen").text:
            break
        browser.keys(Keys.ARROW_DOWN)
    browser.see(".letter", "Look once more at the case")
    tab_to(browser, "Release this one")
    browser.keys(Keys.ENTER)
    browser.see(".ant-modal", "1 new letter")
    browser.see(".ant-modal-footer .ant-btn-primary:not([disabled])", "Release 1 letter")
    tab_to(browser, "Release 1 letter")
    browser.keys(Keys.ENTER)
    browser.see(".ant-message", "1 letter released")
    browser.see("tr.chosen .tag", "released")
