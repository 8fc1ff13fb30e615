"""An empty page that has loaded the built modules."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from selenium import webdriver

from tests.web.driver import headless


class Logic:
    """Runs a piece of script in which `logic` is every module of `web/src/logic.ts` and `a` the arguments."""

    def __init__(self, driver: webdriver.Chrome) -> None:
        self.driver = driver

    def run(self, body: str, *arguments: Any) -> Any:
        """What the body returns."""
        return self.driver.execute_script(f"const a = arguments; {body}", *arguments)

    def wait(self, body: str, *arguments: Any) -> Any:
        """What the body returns, which may await; a refusal comes as a string that begins with `refused:`."""
        return self.driver.execute_async_script(
            "const a = [...arguments], done = a.pop();"
            f"(async () => {{ {body} }})().then(done, (error) => done('refused: ' + error))",
            *arguments,
        )


@pytest.fixture(scope="session")
def logic(root: Path) -> Iterator[Logic]:
    script = (root / "web/dist-logic/logic.js").read_text(encoding="utf-8")
    with headless() as driver:
        driver.set_script_timeout(20)
        driver.get("data:text/html,<title>logic</title><style>:root{--ink:rgb(1,2,3);--paper:rgb(255,255,255)}</style>")
        driver.execute_script(script + "\nwindow.logic = logic")
        yield Logic(driver)
