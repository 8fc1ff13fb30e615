"""A run that ends while somebody already looks: every place shows what came of it, and nothing typed is lost."""

from __future__ import annotations

import threading
import zipfile
from collections.abc import Iterator
from pathlib import Path

import pytest

from obento.server.checking.service import CheckService, Job
from obento.store.connection import Connection
from tests.web.conftest import Browser
from tests.web.test_first_class import RIGHT, class_zip


@pytest.fixture
def gate(monkeypatch: pytest.MonkeyPatch) -> Iterator[threading.Event]:
    """Outcomes are entered once this is set."""
    opened = threading.Event()
    enter = CheckService._enter

    def wait_and_enter(
        self: CheckService, c: Connection, lab_id: int, outcomes: list[tuple[Job, object]]
    ) -> list[int] | None:
        opened.wait(60)
        return enter(self, c, lab_id, outcomes)  # type: ignore[arg-type]

    monkeypatch.setattr(CheckService, "_enter", wait_and_enter)
    yield opened
    opened.set()


def test_the_review_fills_when_the_run_ends(browser: Browser, gate: threading.Event, tmp_path: Path) -> None:
    browser.sign_in()
    browser.new_lab("Looked at early")
    browser.see(".share", "100 %")
    browser.drop(class_zip(tmp_path))
    browser.see(".work", "checking")
    browser.click("button[data-place=review]")
    browser.see(".empty", "The class is being checked")
    gate.set()
    browser.see("textarea[name=note]")
    browser.see(".right .finding")


def test_a_run_leaves_the_case_and_the_note_alone(browser: Browser, gate: threading.Event, tmp_path: Path) -> None:
    second = tmp_path / "second.zip"
    with zipfile.ZipFile(second, "w") as archive:
        archive.writestr("007/my_unit.v", RIGHT.replace("& locked", "& 1'b0"))
    browser.drop(second)
    browser.see(".work", "checking")
    browser.click("button[data-place=review]")
    browser.see("tr.chosen")
    browser.keys(".")
    case = browser.see("tr.chosen").text
    name = browser.see(".right .say").text
    browser.see("textarea[name=note]").send_keys("Look again")
    gate.set()
    browser.gone(".work")
    browser.see("[data-place=review]", "2 to comment")
    assert browser.see("tr.chosen").text == case
    assert browser.see(".right .say").text == name
    assert browser.see("textarea[name=note]").get_attribute("value") == "Look again"
