"""Two files with the same unit: which counts is asked in the intake, with both shown."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path
from urllib.parse import urlsplit

from selenium.webdriver.support.ui import WebDriverWait

from tests.web.conftest import Browser


def test_which_file_counts(browser: Browser, tmp_path: Path) -> None:
    right = (
        "module lock_interlock(input level_eq, gate_shut, boat_clear, key, output open_ok, alarm);\n  wire safe ="
        " level_eq & gate_shut & boat_clear;\n"
    )
    ends = (
        "  assign open_ok = safe & key;\n  assign alarm = key & ~safe;\nendmodule\n",
        "  assign open_ok = safe | key;\n  assign alarm = key & ~safe;\nendmodule\n",
    )
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for folder, end in zip(
            ("draft", "a much longer folder, for what is really to be handed in this time"), ends, strict=True
        ):
            archive.writestr(f"quin.unknown/{folder}/lock_interlock.v", right + end)
            archive.writestr(f"quin.unknown/{folder}/lock_interlock.v.bak", right + ends[0])
        archive.writestr("somebody.else/lock_interlock.v", right + ends[0])
    path = tmp_path / "late.zip"
    path.write_bytes(out.getvalue())
    browser.sign_in()
    browser.click(".lab", "Locks and lamps")
    browser.see("[data-cluster]")
    task = urlsplit(browser.driver.current_url).path.rpartition("/")[0]
    browser.drop(path)
    browser.see(".which", "Which lock_interlock counts?", seconds=60)
    browser.click(".which button.link")
    browser.see("figure pre", "safe | key")
    marked = [e.text.strip() for e in browser.all("figure .own")]
    assert marked == ["assign open_ok = safe | key;", "assign open_ok = safe & key;"]
    assert len(browser.all(".which")) == 1  # the other task has another unit: it is not asked for there
    entry = browser.see(".entry:has(.which)").get_attribute("data-handin")
    browser.click("figure:last-of-type button", "This one counts")
    WebDriverWait(browser.driver, 30).until(lambda _: not browser.all(f".entry[data-handin='{entry}'] .which"))
    browser.see(f".entry[data-handin='{entry}'] .ports.pass", seconds=30)
    # what was left out is listed where the hand-in is read
    browser.open(f"{task}/review/{entry}")
    browser.see(".remark", "lock_interlock.v.bak")
