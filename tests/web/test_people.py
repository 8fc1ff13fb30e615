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
