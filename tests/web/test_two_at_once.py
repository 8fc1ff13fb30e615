"""Two people change the same thing at once: the second learns what the first did, nothing typed is lost."""

from __future__ import annotations

from collections.abc import Iterator
from urllib.parse import urlsplit

import httpx
import pytest
from selenium.webdriver.common.keys import Keys

from tests.server.conftest import Client
from tests.web.conftest import Browser


@pytest.fixture
def somebody(browser: Browser) -> Iterator[Client]:
    """Somebody else who works on the class of the demo at the same time."""
    with httpx.Client(base_url=browser.base, timeout=60) as http:
        yield Client(http).sign_in()  # type: ignore[arg-type]


def test_two_write_one_line_of_the_class_list(browser: Browser, somebody: Client) -> None:
    """The second learns what the first did, and what was typed stays."""
    browser.sign_in()
    browser.click("button", "Class list")
    browser.type("input[name=search]", "haddo")
    browser.see("tr[data-student]", "Noor Haddo")
    browser.click("tr[data-student] button", "Change")
    browser.type("textarea[name=student-remarks]", "sits in front")
    class_id = somebody.get("/home")[0]["id"]
    noor = next(s for s in somebody.get(f"/classes/{class_id}/students") if s["name"] == "Noor Haddo")
    entry = {k: noor[k] for k in ("number", "name", "email", "team", "remarks")} | {"group": "Z"}
    somebody.send("PUT", f"/classes/{class_id}/students/{noor['id']}", entry)
    browser.click(".ant-modal-footer button", "Keep")
    browser.see(".ant-modal .trouble", "somebody else changed this line meanwhile")
    assert "Z" in browser.see(".ant-modal .trouble").text
    assert browser.see("textarea[name=student-remarks]").get_attribute("value") == "sits in front"
    browser.click(".ant-modal-footer button", "Keep")
    browser.see("tr[data-student]", "sits in front")


def test_two_say_when_a_drop_was_received(browser: Browser, somebody: Client) -> None:
    """The second learns that the first did; kept once more it goes over it."""
    browser.sign_in()
    browser.click(".lab", "Locks")
    browser.click("button[data-place=intake]")
    browser.click("[data-drop] button.chip")
    browser.click(".ant-modal .ant-radio-wrapper", "all at one time")
    drop = int(browser.see("[data-drop]").get_attribute("data-drop") or "")
    browser.see(".ant-modal .below .ant-picker")
    somebody.send("PUT", f"/drops/{drop}/times", {"times": "given", "at": "2026-05-04T10:00:00Z"})
    browser.click(".ant-modal-footer .ant-btn-primary", "Keep")
    browser.see(".ant-message", "somebody else said meanwhile when this drop was received")
    browser.see(".ant-modal .below .ant-picker")
    browser.see("[data-drop] button.chip", "received as you said")
    # By script: the window may still move while the list below it is read again, and a pointer would miss the button.
    keep = browser.see(".ant-modal-footer .ant-btn-primary", "Keep")
    browser.driver.execute_script("arguments[0].click()", keep)
    browser.gone(".ant-modal")


def test_two_excuse_one_student(browser: Browser, somebody: Client) -> None:
    browser.sign_in()
    browser.click(".lab", "Locks")
    browser.see("[data-cluster]")
    browser.keys("d")
    browser.see("input[name=excuse-reason]")
    who = browser.all(".give .ant-select input")[-1]
    who.send_keys("Haddo", Keys.ENTER)
    browser.type("input[name=excuse-reason]", "at sea")
    lab = int(urlsplit(browser.driver.current_url).path.split("/")[2])
    noor = next(s["id"] for s in somebody.get(f"/labs/{lab}/terms")["students"] if s["name"] == "Noor Haddo")
    somebody.send("PUT", f"/labs/{lab}/excused/{noor}", {"reason": "ill", "over": None})
    browser.click(".ant-modal .give button", "Excuse")
    browser.see(".ant-message", "somebody else")
    assert "ill" in browser.see(f"[data-excused='{noor}']").text
    assert browser.see("input[name=excuse-reason]").get_attribute("value") == "at sea"
    browser.click(f"[data-excused='{noor}'] button", "Take back")
    browser.see(".excusing, .ant-modal", "Nobody is: whoever hands in nothing is missing.")


def test_two_give_one_colleague_a_role(browser: Browser, somebody: Client) -> None:
    browser.sign_in()
    browser.click("button", "People")
    person = browser.see("[data-person]", "Oskar Tenn")
    email = person.get_attribute("data-person")
    class_id = somebody.get("/home")[0]["id"]
    before = next(p for p in somebody.get(f"/classes/{class_id}/people") if p["email"] == email)
    other = "reader" if before["role"] == "ta" else "ta"
    somebody.send("POST", f"/classes/{class_id}/people", {"email": email, "name": "Oskar Tenn", "role": other})
    browser.click(f"[data-person='{email}'] .ant-select-selector")
    browser.click(".ant-select-dropdown .ant-select-item-option:not(.ant-select-item-option-selected)")
    browser.see(".ant-message", "somebody else changed meanwhile what")
    shown = {"ta": "TA", "reader": "reader", "lecturer": "lecturer"}[other]
    browser.see(f"[data-person='{email}'] .ant-select-selection-item", shown)
