"""A real browser on a real server, with a database of the tests' own."""

from __future__ import annotations

import threading
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Literal

import pytest
import uvicorn
from selenium import webdriver
from selenium.common.exceptions import TimeoutException
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

from obento.demo.load import DEMO_PASSWORD, DEMO_TA
from obento.server.app import create_app
from obento.server.settings import Settings
from obento.store.mariadb import PrivateServer, free_port
from tests.demo_class import DemoClass
from tests.web.driver import headless


class Browser:
    """The driver with the few verbs that the tests speak in."""

    def __init__(self, driver: webdriver.Chrome, base: str) -> None:
        self.driver = driver
        self.base = base

    def open(self, path: str) -> None:
        self.driver.get(self.base + path)

    def all(self, css: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def see(self, css: str, text: str = "", seconds: float = 20) -> WebElement:
        """Wait for an element (that shows a text) and give it."""

        def found(_: object) -> WebElement | Literal[False]:
            return next((e for e in self.all(css) if e.is_displayed() and text in e.text), False)

        try:
            return WebDriverWait(self.driver, seconds, ignored_exceptions=[Exception]).until(found)
        except TimeoutException as error:
            raise AssertionError(f"{css} {text!r} does not appear\n{self.shown()}") from error

    def shown(self) -> str:
        """What is on screen, for the message of a test that fails."""
        body = self.driver.execute_script("return document.body.innerText")
        return f"at {self.driver.current_url}:\n{body}\n{self.driver.get_log('browser')}"

    def click(self, css: str, text: str = "") -> None:
        self.see(css, text)

        def clicked(_: object) -> bool:
            self.see(css, text).click()
            return True

        WebDriverWait(self.driver, 10, ignored_exceptions=[Exception]).until(clicked)

    def type(self, css: str, text: str) -> None:
        field = self.see(css)
        field.clear()
        field.send_keys(text)

    def keys(self, *keys: str) -> None:
        for key in keys:
            self.driver.switch_to.active_element.send_keys(key)

    def gone(self, css: str, seconds: float = 20) -> None:
        WebDriverWait(self.driver, seconds).until(lambda _: not self.all(css))

    def new_lab(self, title: str) -> None:
        self.click("button", "New lab")
        self.type("input[name=lab-title]", title)
        self.click(".ant-modal button", "Make it")
        self.see(".cm-content", "my_unit")

    def write_spec(self, text: str) -> None:
        """Replace the text in the editor."""
        self.driver.execute_script("document.querySelector('.cm-content').focus()")
        editor = self.see(".cm-content")
        editor.send_keys(Keys.CONTROL, "a")
        editor.send_keys(Keys.DELETE)
        self.driver.execute_cdp_cmd("Input.insertText", {"text": text})

    def save_spec(self, title: str) -> None:
        """Save a text that is right, and wait until the task has its title."""
        self.see(".messages", "All sources agree")
        self.driver.execute_script("document.querySelector('.cm-content').focus()")
        self.see(".cm-content").send_keys(Keys.CONTROL, "s")
        self.see(".tasks button.here", title)

    def drop(self, path: Path) -> None:
        """Hand a file to the intake."""
        self.click("button[data-place=intake]")
        self.see(".drop")
        self.driver.execute_script("document.querySelector('input[name=drop]').hidden = false")
        self.all("input[name=drop]")[0].send_keys(str(path))

    def give_more_time(self, name: str, reason: str = "") -> None:
        """In the window of a lab's terms: more time for one student, nearly without end."""
        who = self.see(".give .ant-select input")
        who.send_keys(name)
        who.send_keys(Keys.ENTER)
        until = self.see(".give .ant-picker input")
        until.send_keys("2100-12-31 12:00")
        until.send_keys(Keys.ENTER)
        self.type("input[name=reason]", reason)
        self.click(".give button", "Give more time")

    def sign_in(self) -> None:
        self.open("/sign-in")
        self.type("input[name=email]", DEMO_TA)
        self.type("input[name=password]", DEMO_PASSWORD)
        self.click("button[type=submit]")
        self.see(".lab")


@pytest.fixture(scope="module")
def base(demo_class: DemoClass, database: PrivateServer, root: Path, var_folder: Path) -> Iterator[str]:
    demo_class.put_back()
    port = free_port()
    settings = Settings(root=root, var=var_folder / "web", port=port)
    server = uvicorn.Server(
        uvicorn.Config(
            create_app(settings, database.address), port=port, log_level="warning", timeout_graceful_shutdown=1
        )
    )
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    while not server.started:
        time.sleep(0.05)
    yield f"http://127.0.0.1:{port}"
    server.should_exit = True
    thread.join(timeout=20)


@pytest.fixture(scope="session")
def chrome() -> Iterator[webdriver.Chrome]:
    with headless() as driver:
        yield driver


@pytest.fixture(scope="module")
def browser(chrome: webdriver.Chrome, base: str) -> Iterator[Browser]:
    """The one browser, at an address where it has never been."""
    chrome.execute_cdp_cmd(
        "Emulation.setDeviceMetricsOverride", {"width": 1280, "height": 800, "deviceScaleFactor": 1, "mobile": False}
    )
    chrome.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": "", "features": []})
    yield Browser(chrome, base)
    chrome.get("about:blank")  # what a page still asks is asked no more
