"""Somebody new, with nothing there yet, in the real browser: from the link to the first letter, and what the empty
places say."""

from __future__ import annotations

import zipfile
from pathlib import Path

from selenium.webdriver.common.keys import Keys

from obento.server.accounts.invitations import link_of, token_for
from obento.store import accounts
from obento.store.connection import Store
from obento.store.mariadb import PrivateServer
from tests.web.axe import faults
from tests.web.conftest import Browser

ROSTER = (
    "Student ID;Surname;First"
    " name;E-mail\n007;Holm;Eske;eske@x.example\n008;Brekke;Sunna;sunna@x.example\n009;Roy;Jale;jale@x.example\n"
)
RIGHT = (
    "module my_unit(input shut, locked, request, output green, hold);\n  assign green = request & shut & locked;\n "
    " assign hold = request & ~green;\nendmodule\n"
)


def class_zip(folder: Path) -> Path:
    path = folder / "class.zip"
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("007/my_unit.v", RIGHT)
        archive.writestr("Brekke_Sunna/my_unit.v", RIGHT.replace("shut & locked", "shut | locked"))
        archive.writestr("jale.roy/my_unit.v", RIGHT.replace("endmodule\n", ""))
    return path


def come_in(browser: Browser, database: PrivateServer, email: str, name: str) -> None:
    """As somebody who was invited, and has no class yet."""
    with Store(database.address).transaction() as c:
        link = link_of(token_for(c, accounts.add_person(c, email, name, "")), browser.base)
    browser.driver.delete_all_cookies()
    browser.open(link.removeprefix(browser.base))
    browser.type("input[name=password]", "harbour lights")
    browser.click("button[type=submit]")


def test_from_nothing_to_a_letter(browser: Browser, database: PrivateServer, tmp_path: Path) -> None:
    come_in(browser, database, "ada@example.org", "Ada Ness")
    # nothing there: what to do first
    browser.see(".empty", "No class yet")
    browser.click(".empty button", "New class")
    browser.type("input[name=class-name]", "Locks I")
    browser.click(".ant-modal button", "Make it")
    browser.see("section h1", "Locks I")
    (tmp_path / "list.csv").write_text(ROSTER)
    browser.click(".steps button", "Load class list")
    browser.see(".empty", "Nobody is in this class yet")
    browser.all("input[type=file]")[0].send_keys(str(tmp_path / "list.csv"))
    browser.see(".sums", "3 new")
    browser.click(".ant-modal-footer .ant-btn-primary", "Keep this list")
    browser.see("tr[data-student='007']")
    browser.open("/")
    browser.see(".head", "3 students")
    browser.see(".steps .done", "The class list")
    browser.see(".steps .now", "A lab")
    browser.click(".steps button", "New lab")
    browser.type("input[name=lab-title]", "First lab")
    browser.click(".ant-modal button", "Make it")
    # a spec to begin with, and places without anything in them
    browser.see(".share", "100 %")
    browser.click(".begin button", "a function table, clocked")
    browser.see(".cm-content", "ticket+1")
    browser.click(".begin button", "a truth table")  # what was only tried is exchanged
    browser.see(".table th", "request")
    browser.see(".messages", "All sources agree")
    browser.click(".head button", "Save")
    browser.see(".head button[disabled]", "Save")
    browser.see(".notice", "drop what was handed in")
    browser.open("/")
    browser.see(".steps .done", "What is asked")
    browser.click(".steps .now button", "To the intake")
    browser.see(".empty", "Nothing has been handed in")
    browser.click("button[data-place=results]")
    browser.see(".empty", "Nothing has been handed in yet")
    browser.see("button[data-place=results]", "nothing checked")
    browser.click("button[data-place=feedback]")
    browser.see("tr[data-student]", "Sunna Brekke")
    assert not browser.see(".list button.ant-btn-primary", "Release all").is_enabled()
    browser.click("button[data-place=review]")
    browser.see(".empty", "Nothing to review yet")
    browser.click(".empty button", "To the intake")
    browser.see(".empty", "Nothing has been handed in")
    # and with something
    browser.drop(class_zip(tmp_path))
    browser.see(".entry", "Eske Holm")
    browser.click("button[data-place=results]")
    browser.see("[data-cluster]", "green and hold wrong")
    assert "`endmodule` is missing" in browser.see(".stuck", "Jale Roy").text.replace("endmodule is", "`endmodule` is")
    browser.click("[data-cluster] .chip", "Sunna Brekke")
    browser.see(".note.is-change", "& for | makes every case right")  # at its line in the source
    browser.click("button[data-place=feedback]")
    browser.click("tr[data-student] td", "Sunna Brekke")
    browser.see(".letter", "4 of 8 cases right")
    browser.open("/")
    browser.see(".lab", "3 of 3 handed in")
    browser.click(".steps .now button", "See the results")
    browser.see("[data-cluster]", "green and hold wrong")
    browser.click("button[data-place=feedback]")
    browser.see(".letter")
    browser.click(".list button", "Release all")
    browser.click(".ant-modal-footer .ant-btn-primary", "Release")
    browser.see("tr[data-student] .tag", "released")
    browser.open("/")
    browser.see(".lab", "letters out")
    assert not browser.all(".steps")  # from here one knows the way


def test_a_class_to_play_with(browser: Browser, database: PrivateServer) -> None:
    come_in(browser, database, "bo@example.org", "Bo Ness")
    browser.see(".empty", "No class yet")
    browser.click(".empty button", "A class to play with")
    browser.see("section h1", "to play with", seconds=60)
    assert len(browser.all(".lab")) == 4 and not browser.all(".steps")
    browser.gone(".lab .tray .waiting", seconds=90)  # it is checked, and the page follows
    browser.see(".lab .tray .wrong")
    browser.click(".lab", "Lab 1")
    browser.see("[data-cluster]", seconds=60)
    browser.open("/")
    browser.click("button[aria-label^='more for']", "More")
    browser.click(".ant-dropdown-menu-item", "Take away")
    browser.click(".ant-modal-confirm button", "Take away")
    browser.see(".empty", "No class yet")


def test_an_address_at_which_there_is_nothing(browser: Browser) -> None:
    browser.sign_in()
    browser.open("/lab/one/task/two?x=1")
    browser.see("h1", "nothing at this address")
    browser.see(".mono", "/lab/one/task/two?x=1")
    assert browser.driver.title.startswith("nothing here")
    browser.click("main a", "Your classes")
    browser.see(".lab")


def test_a_place_that_cannot_be_shown_asks_again(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Lab 1")
    browser.see("[data-cluster]")
    browser.driver.execute_cdp_cmd("Network.enable", {})
    browser.driver.execute_cdp_cmd("Network.setBlockedURLs", {"urls": ["*/intake"]})
    try:
        browser.click("button[data-place=intake]")
        browser.see("main.failed h1", "This place cannot be shown now")
        browser.see("main.failed", "the server does not answer")
        assert faults(browser) == []
    finally:
        browser.driver.execute_cdp_cmd("Network.setBlockedURLs", {"urls": []})
    browser.click("main.failed button", "Try again")
    browser.see(".entry")


def test_what_a_place_is_for(browser: Browser) -> None:
    browser.sign_in()
    browser.keys("i")
    browser.see(".ant-modal", "Your classes and their labs")
    browser.keys(Keys.ESCAPE)
    browser.gone(".ant-modal-wrap:not([style*='display: none']) dl")
    browser.click(".lab", "Lab 1")
    browser.see("[data-cluster]")
    browser.click("button.about")
    facts = browser.see(".facts").text
    assert "the last one counts" in facts and "right, " in facts and "10 % of the mark" in facts
    browser.see(".words", "against the rules")
