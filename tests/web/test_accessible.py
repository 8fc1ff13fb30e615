"""axe-core on every place of an evening, its windows included; and the same evening's places by keys alone
(docs/accessibility.md)."""

from __future__ import annotations

import time

import httpx
import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.server.conftest import Client
from tests.web.axe import faults
from tests.web.board_acts import press
from tests.web.conftest import Browser

PLACES = ["spec", "intake", "results", "review", "feedback"]
READY = {"spec": ".share", "intake": ".drop", "results": "[data-cluster]", "review": "tr.chosen", "feedback": ".letter"}


@pytest.fixture(scope="module")
def evening(browser: Browser) -> Browser:
    browser.sign_in()
    return browser


def go(browser: Browser, place: str, lab: str = "Lab 1") -> None:
    """To a place of a lab, from home."""
    browser.open("/")
    browser.click(".lab", lab)
    browser.see("[data-cluster]")
    if place != "results":
        browser.click(f"button[data-place={place}]")
    browser.see(READY[place])


def test_the_doors(browser: Browser) -> None:
    browser.open("/sign-in")
    browser.see("input[name=password]")
    assert faults(browser) == []


@pytest.mark.parametrize("button", ["New lab", "People", "New class"])
def test_home_and_its_windows(evening: Browser, button: str) -> None:
    evening.open("/")
    evening.see(".lab")
    assert evening.driver.title == "classes · Obento"
    evening.click("button", button)
    evening.see(".ant-modal")
    assert faults(evening) == []
    press(evening, Keys.ESCAPE)


@pytest.mark.parametrize("place", PLACES)
def test_every_place_of_a_lab(evening: Browser, place: str) -> None:
    go(evening, place)
    assert faults(evening) == []
    assert evening.see("button[data-place][aria-current=page]").get_attribute("data-place") == place
    assert evening.driver.title == f"{place}, Lock-gate interlock, Lab 1: Locks and lamps · Obento"


@pytest.mark.parametrize(
    ("key", "shown"), [("g", ".drawing [data-kind=output]"), ("s", "[aria-label=source]"), ("e", ".bar")]
)
def test_the_faces_of_a_hand_in(evening: Browser, key: str, shown: str) -> None:
    go(evening, "review")
    press(evening, key)
    evening.see(shown)
    assert faults(evening) == []


def test_waves(evening: Browser) -> None:
    go(evening, "review", "Tickets")
    press(evening, "w")
    evening.see("[data-waves]")
    assert faults(evening) == []


def test_the_board(evening: Browser) -> None:
    go(evening, "spec", "Drawn")
    press(evening, "b")
    evening.see(".drawing [data-kind=output]")
    assert faults(evening) == []


@pytest.mark.parametrize(("key", "shown"), [("d", ".ant-modal"), ("/", ".ant-modal"), ("?", ".keys li")])
def test_windows_that_keys_open(evening: Browser, key: str, shown: str) -> None:
    go(evening, "results")
    press(evening, key)
    evening.see(shown)
    assert faults(evening) == []


def test_rows_comments_report_and_a_students_page(evening: Browser) -> None:
    go(evening, "results")
    evening.click(".ant-segmented-item", "Rows")
    evening.see(".box canvas")
    assert faults(evening) == []
    evening.click("button[data-place=feedback]")
    evening.click("button", "Comments")
    evening.see(".comments textarea")
    assert faults(evening) == []
    evening.click("a", "Class report")
    evening.see("main.report h1")
    assert faults(evening) == []
    evening.driver.back()
    evening.click("button", "Release this one")
    evening.see(".ant-popover, .ant-modal")
    assert faults(evening) == []


def test_a_students_page_and_letter(evening: Browser) -> None:
    evening.click(".ant-modal-footer .ant-btn-primary:not([disabled])", "Release")
    evening.see("tr[data-student] .tag.pass", "released")
    evening.open("/mailbox")
    for _ in range(40):  # the mail goes out by itself
        if evening.all(".mail a.page-link"):
            break
        evening.click("button", "Look again")
        time.sleep(0.3)
    assert faults(evening) == []
    evening.open((evening.see(".mail a.page-link").get_attribute("href") or "").removeprefix(evening.base))
    evening.see("button", "Open my letter")
    assert faults(evening) == []
    evening.click("button", "Open my letter")
    assert evening.see(".letter").get_attribute("lang") == "en"
    assert faults(evening) == []


def test_a_students_board(evening: Browser) -> None:
    with httpx.Client(base_url=evening.base, timeout=60) as http:
        ta = Client(http).sign_in()  # type: ignore[arg-type]
        lab = next(item["id"] for k in ta.get("/home") for item in k["labs"] if "Lab 1" in item["title"])
        task = ta.get(f"/labs/{lab}")["tasks"][0]["id"]
        link = ta.send("PUT", f"/tasks/{task}/board/link", {"tells": "rows"})["address"]
    evening.open(f"/board/{link.rpartition('/')[2]}")
    evening.see(".drawing [data-kind=output]")
    assert faults(evening) == []


# By keys alone.


def focused(browser: Browser) -> str:
    return browser.driver.switch_to.active_element.get_attribute("outerHTML") or ""


def test_the_first_key_leads_past_the_bar(evening: Browser) -> None:
    evening.open("/")
    evening.see(".lab")
    press(evening, Keys.TAB)
    assert "to the content" in focused(evening)
    press(evening, Keys.ENTER)
    assert focused(evening).startswith("<main")


def test_enter_presses_what_has_the_focus(evening: Browser) -> None:
    """A page-wide Enter opens the review of the chosen hand-in; on a chip it opens that one, on a button that is
    pressed."""
    go(evening, "results")
    chip = evening.see(".chip, .student", "Greta Lund")
    evening.driver.execute_script("arguments[0].focus()", chip)
    press(evening, Keys.ENTER)
    evening.see(".chip.chosen, .who h1", "Greta Lund")
    evening.click("button[data-place=feedback]")
    evening.see("tr[data-student]")
    evening.driver.execute_script("arguments[0].focus()", evening.see("button", "Marks"))
    press(evening, Keys.ENTER)
    evening.see(".ant-popover, .ant-modal")
    assert "/feedback" in evening.driver.current_url


def turn_letters(browser: Browser) -> None:
    """Keys of one letter on or off, in the list of keys."""
    browser.click("button.help")
    browser.click(".letters .ant-checkbox-wrapper")
    press(browser, Keys.ESCAPE)
    browser.gone(".ant-modal-wrap:not([style*='display: none'])")


def test_keys_of_one_letter_can_be_turned_off(evening: Browser) -> None:
    go(evening, "results")
    turn_letters(evening)
    evening.see("[data-cluster]")
    press(evening, "1", "d", "?")
    evening.see("button[data-place=results].here")
    turn_letters(evening)
    press(evening, "1")
    evening.see("button[data-place=spec].here")


def test_the_editor_is_left_by_keys(evening: Browser) -> None:
    go(evening, "spec")
    evening.driver.execute_script("document.querySelector('.cm-content').focus()")
    press(evening, Keys.ESCAPE, Keys.TAB)
    assert "cm-content" not in focused(evening)


def test_cases_students_and_rows_are_walked_by_arrows(evening: Browser) -> None:
    go(evening, "review")
    first = evening.see("tr.chosen").get_attribute("data-case")
    count = len(evening.all("tr[data-case]"))
    evening.driver.execute_script("document.querySelector('.left .scroll').focus()")
    ActionChains(evening.driver).send_keys(*[Keys.ARROW_DOWN] * (count + 2)).perform()
    last = evening.see("tr.chosen").get_attribute("data-case")
    assert last != first and last == evening.all("tr[data-case]")[-1].get_attribute("data-case")
    evening.click("button[data-place=feedback]")
    before = evening.see("tr.chosen[data-student]").get_attribute("data-student")
    evening.driver.execute_script("document.querySelector('[aria-label^=students]').focus()")
    press(evening, Keys.ARROW_DOWN)
    evening.see(f"tr.chosen[data-student]:not([data-student='{before}'])")
    evening.click("button[data-place=results]")
    evening.click(".ant-segmented-item", "Rows")
    evening.see(".box canvas")
    evening.driver.execute_script("document.querySelector('.box').focus()")
    press(evening, Keys.ARROW_DOWN, Keys.ARROW_RIGHT)
    assert "case" in evening.see("[role=status]", ": case").text
    press(evening, Keys.ENTER)
    evening.see(".who h1")
