"""A session that ends while somebody writes loses nothing: they sign in where they are, and go on."""

from __future__ import annotations

from selenium.webdriver.common.keys import Keys

from obento.demo.load import DEMO_PASSWORD
from tests.web.conftest import Browser


def test_signing_in_again_keeps_what_was_typed(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab")
    browser.click("button[data-place=review]")
    box = browser.see("textarea[name=note]")
    box.send_keys("Think of what holds when both are low.")
    browser.driver.delete_all_cookies()
    box.send_keys(Keys.CONTROL, Keys.ENTER)
    browser.see(".ant-modal", "Your session has ended")
    browser.type("input[name=password-again]", "not the password")
    browser.click(".ant-modal button", "Sign in")
    browser.see(".ant-modal .trouble", "do not belong together")
    browser.type("input[name=password-again]", DEMO_PASSWORD)
    browser.click(".ant-modal button", "Sign in")
    browser.gone(".ant-modal-wrap:not([style*='display: none'])")
    box = browser.see("textarea[name=note]")
    assert box.get_attribute("value") == "Think of what holds when both are low."
    box.send_keys(Keys.CONTROL, Keys.ENTER)
    browser.see(".comment .tag.pass", "kept")


def test_leaving_an_ended_session_goes_to_the_door(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab")
    browser.see("button[data-place=feedback]")
    browser.see("[data-cluster]")
    browser.driver.delete_all_cookies()
    browser.click("button[data-place=feedback]")
    browser.see(".ant-modal", "Your session has ended")
    browser.click(".ant-modal button", "Leave")
    browser.see("input[name=email]")
