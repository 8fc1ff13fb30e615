"""Nothing typed is lost, what is on screen and what is written go to the same student, and students are found."""

from __future__ import annotations

import time

from selenium.webdriver.common.keys import Keys

from tests.web.conftest import Browser

SLOW = """
const real = window.fetch;
window.fetch = (path, ...rest) =>
  String(path).includes('/review/') && String(path).match(/review\\/\\d+$/)
    ? new Promise((go) => setTimeout(() => go(real(path, ...rest)), window.delays.shift() ?? 0))
    : real(path, ...rest);
window.delays = [1500, 100, 0];
"""

SHOWN = """
const names = [...document.querySelectorAll('.who h1')].map((h) => h.innerText);
return [names, !!document.querySelector('main.page[inert]')];
"""
"""Who is on screen, and whether it can be worked with; in one moment."""


def first_review(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Locks and lamps")
    browser.see("[data-cluster].chosen", seconds=60)
    browser.click("button[data-place=review]")
    browser.see(".who h1")


def test_a_comment_is_there_again_after_everything(browser: Browser) -> None:
    first_review(browser)
    address = browser.driver.current_url
    who = browser.see(".who h1").text
    box = browser.see("textarea[name=note]")
    box.send_keys("Come and see me, with the drawing.")
    box.send_keys(Keys.ESCAPE)  # leaves the field, not the page
    browser.see(".who h1", who)
    browser.keys(Keys.ESCAPE)
    assert browser.see(".who h1").text == who and browser.driver.current_url == address
    browser.keys("]")
    time.sleep(0.5)
    assert browser.see(".who h1").text != who and browser.see("textarea[name=note]").get_attribute("value") == ""
    browser.keys("[")
    browser.see(".who h1", who)
    browser.see(".draft", "not kept, from")
    browser.driver.refresh()
    browser.see(".draft", "not kept, from")
    browser.click(".brand")
    browser.click("button", "Sign out")
    browser.sign_in()
    browser.driver.get(address)
    browser.see(".draft", "not kept, from")
    assert browser.see("textarea[name=note]").get_attribute("value") == "Come and see me, with the drawing."
    browser.click(".draft button", "keep")
    browser.see(".comment .tag.pass", "kept")
    browser.driver.refresh()
    browser.see(".comment .tag.pass", "kept")
    browser.gone(".draft")


def test_a_spec_and_a_mark_keep_their_drafts(browser: Browser) -> None:
    first_review(browser)
    browser.keys("m")
    browser.type("input[name=mark]", "3,5")
    browser.type("input[name=reason]", "explained it to me")
    browser.keys(Keys.ESCAPE)
    browser.driver.refresh()
    browser.see(".who h1")
    browser.keys("m")
    assert browser.see("input[name=reason]").get_attribute("value") == "explained it to me"
    assert browser.see("input[name=mark]").get_attribute("value") == "3,5"
    browser.click(".override button", "Override")
    browser.see("button.mark", "3.5 / 10")
    browser.keys("m")
    browser.type("input[name=mark]", "99")
    browser.type("input[name=reason]", "too much")
    browser.click(".override button", "Override")
    browser.see(".ant-modal-confirm", "99 of 10?")
    browser.click(".ant-modal-confirm button", "Go back")
    browser.driver.refresh()
    browser.click("button[data-place=spec]")
    browser.see(".cm-content", "lock_interlock")
    browser.driver.execute_script("document.querySelector('.cm-content').focus()")
    browser.see(".cm-content").send_keys(Keys.CONTROL, Keys.HOME)
    browser.driver.execute_cdp_cmd("Input.insertText", {"text": "# half a thought\n"})
    browser.click("button[data-place=intake]")  # nobody asks
    browser.see(".entry")
    browser.click("button[data-place=spec]")
    browser.see(".cm-content", "# half a thought")
    browser.click(".draft button", "drop")
    browser.gone(".draft")
    assert "half a thought" not in browser.see(".cm-content").text


def test_a_late_answer_shows_nobody_else(browser: Browser) -> None:
    first_review(browser)
    names = [browser.see(".who h1").text]
    for _ in (1, 2):
        browser.keys("]")
        browser.see(".who h1")
        time.sleep(0.6)
        names.append(browser.see(".who h1").text)
    assert len(set(names)) == 3
    browser.keys("[", "[")
    browser.see(".who h1", names[0])
    browser.driver.execute_script(SLOW)
    browser.keys("]", "]")
    for _ in range(25):
        shown, is_inert = browser.driver.execute_script(SHOWN)
        assert shown in ([], [names[2]]) or is_inert, f"{shown} while the address is that of {names[2]}"
        time.sleep(0.1)
    browser.see(".who h1", names[2])


def test_a_student_is_found_in_two_keystrokes(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Locks and lamps")
    browser.see("[data-cluster].chosen", seconds=60)
    browser.see("body").send_keys("/")
    time.sleep(0.4)
    browser.keys("haddo", Keys.ENTER)
    browser.see(".who h1", "Noor Haddo")
    browser.click(".group")
    browser.click(".ant-select-item", "group A")
    browser.click("button[data-place=results]")
    browser.see("[data-cluster]")
    assert "Noor Haddo" not in browser.see(".tray").text  # she is in group B
    browser.click("button[data-place=intake]")
    browser.see(".entry", "Ilse Varga")
    assert not [e for e in browser.all(".entry .person") if "Noor Haddo" in e.text]


def test_the_intake_asks_and_puts_aside(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Locks and lamps")
    browser.click("button[data-place=intake]")
    browser.see(".entry .doubt", "the name fits only in part")
    browser.click(".entry:first-of-type .more button")
    browser.click(".ant-dropdown-menu-item", "Put aside")
    browser.type("input[name=aside-reason]", "not of this class")
    browser.click(".ant-modal-footer .ant-btn-primary", "Put aside")
    browser.see("h2", "1 put aside")
    browser.see(".entry.aside", "not of this class")
    browser.click(".entry.aside .more button")
    browser.click(".ant-dropdown-menu-item", "Take back")
    browser.see(".entry .doubt", "the name fits only in part")
    browser.click(".side .chip", "received as you said")
    browser.see(".ant-modal", "they have no zone")
    browser.click(".ant-modal-footer .ant-btn-primary", "Keep")
    browser.see(".side .chip", "received")


def test_a_scratch_copy_waits_to_be_asked_for(browser: Browser) -> None:
    first_review(browser)
    who = browser.see(".who h1").text
    browser.keys("e")
    browser.see(".scratch .cm-content")
    browser.driver.execute_script("document.querySelector('.scratch .cm-content').focus()")
    browser.see(".scratch .cm-content").send_keys(Keys.CONTROL, Keys.HOME)
    browser.driver.execute_cdp_cmd("Input.insertText", {"text": "// tried at night\n"})
    browser.see(".bar[role=status]", "right")
    browser.click(".bar[role=status] button", "Leave")
    browser.see(".waiting", "a scratch copy of yours is here")
    assert "tried at night" not in browser.see(".middle").text  # what is on screen is what was handed in
    browser.keys("]")
    time.sleep(0.6)
    assert browser.see(".who h1").text != who and not browser.all(".waiting")
    browser.keys("[")
    browser.see(".who h1", who)
    browser.driver.refresh()
    browser.see(".waiting", "here, from")
    browser.click(".waiting button", "open it")
    browser.see(".scratch .cm-content", "tried at night")
    browser.click(".bar[role=status] button", "Undo")
    browser.click(".bar[role=status] button", "Leave")
    browser.gone(".waiting")
    browser.driver.refresh()
    browser.see(".who h1", who)
    assert not browser.all(".waiting")


def test_dialogs_keep_their_drafts(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Locks and lamps")
    browser.see("[data-cluster]")
    browser.keys("d")
    browser.type("input[name=lab-title]", "Locks, lamps and bells")
    browser.type("input[name=reason]", "was ill in week 7")
    browser.click(".ant-modal-footer button", "Cancel")
    browser.driver.refresh()
    browser.see("[data-cluster]")
    browser.keys("d")
    browser.see(".form .draft", "not kept, from")
    assert browser.see("input[name=lab-title]").get_attribute("value") == "Locks, lamps and bells"
    assert browser.see("input[name=reason]").get_attribute("value") == "was ill in week 7"
    browser.click(".give .draft button", "drop")
    assert browser.see("input[name=reason]").get_attribute("value") == ""
    browser.click(".form > .draft button", "keep")
    browser.see(".ant-message", "no mark changes")
    browser.see("header", "Locks, lamps and bells")
    browser.keys("d")
    browser.see("input[name=lab-title]")
    assert not browser.all(".form .draft")
