"""A colleague comes to work on a class, in the real browser: invited, welcomed, and with another password later."""

from __future__ import annotations

from selenium.webdriver.common.keys import Keys

from tests.web.conftest import Browser


def test_a_colleague_joins(browser: Browser) -> None:
    browser.sign_in()
    browser.see(".lab")
    browser.click("button", "People")
    browser.see("[data-person]", "Oskar Tenn")
    browser.type("input[name=colleague-name]", "Eske <b>Holm</b>")
    browser.type("input[name=colleague-email]", "eske@college.example")
    browser.click(".add button", "Add")
    link = browser.see(".link code").text
    assert "Eske <b>Holm</b>" in browser.see("[data-person='eske@college.example']").text  # shown as text
    browser.driver.delete_all_cookies()
    browser.open(link[link.index("/welcome/") :])
    browser.see("form", "You sign in as eske@college.example")
    password = browser.see("input[name=password]")
    password.send_keys("too short")
    assert not browser.see("button[type=submit]").is_enabled()
    password.send_keys(" no more", Keys.ENTER)
    browser.see(".lab", "Locks and lamps")
    browser.see(".links button", "Sign out Eske")
    browser.click(".links button", "Password")
    browser.type("input[name=old-password]", "too short no more")
    browser.type("input[name=new-password]", "quite another one")
    browser.click(".ant-modal button", "Change it")
    browser.see(".ant-message", "the password is changed")
    browser.click(".links button", "Sign out")
    browser.type("input[name=email]", "eske@college.example")
    browser.type("input[name=password]", "quite another one")
    browser.click("button[type=submit]")
    browser.see(".lab", "Locks and lamps")
    browser.driver.delete_all_cookies()
    browser.open(link[link.index("/welcome/") :])
    browser.see("[role=alert]", "this link was used already")


def test_a_reader_looks_and_a_lecturer_says_what_tas_may(browser: Browser) -> None:
    browser.sign_in()
    browser.see(".lab")
    browser.click("button", "People")
    browser.see("[data-person]", "Oskar Tenn")
    browser.see(".rights", "TAs release letters")
    assert all(box.is_selected() for box in browser.all(".rights input[type=checkbox]"))
    browser.type("input[name=colleague-name]", "Runa Dahl")
    browser.type("input[name=colleague-email]", "runa@college.example")
    browser.click(".add .ant-segmented-item", "reader")
    browser.click(".add button", "Add")
    link = browser.see(".link code").text
    browser.driver.delete_all_cookies()
    browser.open(link[link.index("/welcome/") :])
    browser.type("input[name=password]", "looking is enough")
    browser.click("button[type=submit]")
    lab = browser.see(".lab", "Locks and lamps")
    assert not any("New lab" in b.text for b in browser.driver.find_elements("css selector", "button"))
    browser.click("button", "People")
    browser.see("[data-person]", "Runa Dahl")
    assert not browser.driver.find_elements("css selector", ".add, .rights")
    browser.driver.find_element("css selector", ".ant-modal-close").click()
    lab.click()
    browser.see(".notice", "nothing you type here is kept")
    browser.click("[data-place=feedback]")
    assert not browser.see("button", "Release all").is_enabled()
