"""The board of a clocked task: its waves below the drawing, for whoever is told and for a student."""

from __future__ import annotations

import re

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.server.test_clocked import COUNTER
from tests.web.board_acts import opened, part, text
from tests.web.conftest import Browser


@pytest.fixture(scope="module")
def board(browser: Browser) -> Browser:
    opened_board = opened(browser, "Tickets")
    unit = text(opened_board).split()[1]
    opened_board.write_spec(COUNTER.format(unit=unit))
    opened_board.see(".caption", "steps")
    return opened_board


def drawn(browser: Browser) -> tuple[int, int]:
    """The first and the last step in sight."""
    label = browser.see(".waves canvas").get_attribute("aria-label") or ""
    first, last = label.removeprefix("waveform, steps ").split(" of ")[0].split(" to ")
    return int(first), int(last)


def chosen(browser: Browser) -> int:
    return int(browser.see("tr.chosen").get_attribute("data-case") or "")


def test_the_steps_around_the_chosen_one_are_drawn(board: Browser) -> None:
    board.see("[data-case='9']").click()  # the third step of a run that begins with case 7
    first, last = drawn(board)
    assert first == 1 and 3 < last < 20
    board.see("[data-case='22']").click()
    assert drawn(board)[0] > 1 and drawn(board)[0] < 16 < drawn(board)[1]


def test_a_pin_is_put_on_another_side_of_its_box(board: Browser) -> None:
    box = part(board, "part", 1)
    board.driver.execute_script("arguments[0].dispatchEvent(new MouseEvent('click', { bubbles: true }))", box)
    board.click(".acts button", "Sides")
    board.click("button[aria-label$=': below']")
    assert re.search(r"^  side \w+\.\w+ below$", text(board), re.MULTILINE), text(board)
    board.see("button[aria-label$=': below'][aria-pressed=true]")
    board.keys(Keys.ESCAPE)


def test_steps_are_chosen_in_the_waves_by_pointer_and_by_keys(board: Browser) -> None:
    board.see("[data-case='9']").click()
    canvas = board.see(".waves canvas")
    width = canvas.size["width"]
    ActionChains(board.driver).move_to_element_with_offset(canvas, 104 + 3 - width // 2, 0).click().perform()
    assert chosen(board) == 7  # the first step of its sequence
    board.see(".waves[role=region]").send_keys(Keys.ARROW_RIGHT, Keys.ARROW_RIGHT, Keys.ARROW_LEFT)
    assert chosen(board) == 8
    board.see(".waves[role=region]").send_keys(Keys.ARROW_LEFT, Keys.ARROW_LEFT, Keys.ARROW_LEFT)
    assert chosen(board) == 7  # and no further
