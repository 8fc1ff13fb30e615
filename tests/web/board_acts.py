"""What somebody does at the board, for its tests."""

from __future__ import annotations

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement

from tests.web.conftest import Browser


def opened(browser: Browser, lab: str) -> Browser:
    """The board of the first task of a demo lab."""
    browser.sign_in()
    browser.click(".lab", lab)
    browser.see("[data-cluster]")
    browser.click("button[data-place=spec]")
    browser.see(".messages", "All sources agree")
    browser.see("body").send_keys("b")
    browser.see(".drawing [data-kind=output]")
    return browser


def press(browser: Browser, *keys: str) -> None:
    ActionChains(browser.driver).send_keys(*keys).perform()


def with_control(browser: Browser, key: str) -> None:
    ActionChains(browser.driver).key_down(Keys.CONTROL).send_keys(key).key_up(Keys.CONTROL).perform()


def text(browser: Browser) -> str:
    script = "return [...document.querySelectorAll('.cm-line')].map((line) => line.textContent).join('\\n')"
    return str(browser.driver.execute_script(script))


def part(browser: Browser, kind: str, number: int = 0) -> WebElement:
    browser.see(f"[data-kind={kind}]")
    return browser.all(f"[data-kind={kind}]")[number]
