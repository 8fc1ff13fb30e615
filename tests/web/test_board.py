"""The board in the real browser: a circuit by keyboard alone, text and drawing as one, a half-written text, forms."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait

from tests.web.board_acts import opened, part, press, text, with_control
from tests.web.conftest import Browser

VERDICT = ".cases-side .caption"
RIGHT = "right in all 16 cases"


@pytest.fixture(scope="module")
def board(browser: Browser) -> Browser:
    return opened(browser, "Locks and lamps")


def test_a_circuit_by_the_keyboard_alone(board: Browser) -> None:
    board.see(VERDICT, "right in 0 of 16 cases")
    press(board, "s")
    for said in ["safe = level_eq & gate_shut & boat_clear", "open_ok = and(safe, key)"]:
        press(board, said, Keys.ENTER)
        board.see(".cm-content", said.partition(" ")[0] + " <-")
    press(board, "alarm = key & !sa")
    board.see("#board-offers li", "safe")
    press(board, Keys.TAB, Keys.ENTER)
    board.see(VERDICT, RIGHT)
    assert "  alarm <- and(key, !safe)\n" in text(board)
    board.see(".pane .bar", "4 parts, 3 levels")
    press(board, Keys.ESCAPE)
    # undo and redo run over what was said
    with_control(board, "z")
    board.see(VERDICT, "right in 0 of 16 cases")
    assert "alarm <-" not in text(board)
    with_control(board, "y")
    board.see(VERDICT, RIGHT)
    # inputs are turned by keys side by side, cases walked
    board.see("tr.chosen[data-case='0']")
    press(board, "q", "r")
    board.see("tr.chosen[data-case='9']")
    press(board, "j", "k", "k")
    board.see("tr.chosen[data-case='8']")


def test_what_is_wrong_with_a_sentence_is_said_beside_it(board: Browser) -> None:
    before = text(board)
    press(board, "s", "level_eq = key", Keys.ENTER)
    board.see(".statement .trouble", "comes from outside")
    assert text(board) == before
    press(board, *[Keys.BACKSPACE] * 20, Keys.ESCAPE)


def test_a_part_is_exchanged_moved_and_taken_out_and_the_text_says_so(board: Browser) -> None:
    ActionChains(board.driver).move_to_element(part(board, "and")).click().perform()
    board.click(".kind", "or")
    board.see(".cm-content", "safe <- or(")
    board.see(VERDICT, "of 16 cases")
    board.click(".kind", "and")
    board.see(VERDICT, RIGHT)
    moved = part(board, "and", 1)
    at, number = moved.location, moved.get_attribute("data-part")
    ActionChains(board.driver).click_and_hold(moved).move_by_offset(30, 60).move_by_offset(10, 10).release().perform()
    board.see(".cm-content", "place ")
    WebDriverWait(board.driver, 10, ignored_exceptions=[Exception]).until(
        lambda _: any(abs(p.location["y"] - at["y"]) > 20 for p in board.all(f"[data-part='{number}']"))
    )
    board.see(VERDICT, RIGHT)
    board.click("button", "Tidy")
    board.gone("button[title='everything stands by itself again']")
    assert "place " not in text(board)
    ActionChains(board.driver).move_to_element(part(board, "and")).click().perform()
    board.click("button", "Take out")
    board.see(".messages", "nothing drives")
    assert "safe <-" not in text(board)


def test_a_half_written_text_keeps_the_last_drawing_and_says_so(board: Browser) -> None:
    board.see(".pane .bar", "drawn as of the last text that could be read")
    assert board.all(".drawing.old [data-kind=and]")
    board.see("body").click()
    with_control(board, "z")
    board.see(VERDICT, RIGHT)
    board.see(".pane .bar", "4 parts")


def test_a_form_of_nand_alone_is_right_and_says_how(board: Browser) -> None:
    board.click("button", "Form")
    board.click(".ant-dropdown-menu-item", "NAND alone")
    board.see(".steps", "NAND of NANDs")
    board.see(".steps", "right in each")
    board.see(VERDICT, RIGHT)
    assert "nand(" in text(board) and "and(" not in text(board).replace("nand(", "")


def test_what_is_on_the_board_is_there_again_after_a_reload(board: Browser) -> None:
    board.driver.refresh()
    board.see(VERDICT, RIGHT)
    assert "nand(" in text(board)


MADE = """wiring lock_interlock
  takes level_eq, gate_shut, boat_clear, key
  gives open_ok, alarm
  safe <- and(level_eq, gate_shut, boat_clear)
  open_ok <- and(safe, key)
  alarm <- and(key, !open_ok)
end
"""


def test_chosen_parts_become_a_block_and_come_back(board: Browser) -> None:
    board.write_spec(MADE)
    board.see(".pane .bar", "4 parts, 4 levels")
    board.see(VERDICT, RIGHT)
    ActionChains(board.driver).move_to_element(part(board, "and")).click().perform()
    board.see(".chosen-line")
    second = ActionChains(board.driver).key_down(Keys.SHIFT).move_to_element(part(board, "and", 1)).click()
    second.key_up(Keys.SHIFT).perform()
    board.see(".chosen-line", "2 lines")
    board.type(".chosen-line input.name", "lockwork")
    board.click(".chosen-line button", "Make a block")
    board.see(".cm-content", "open_ok <- lockwork(level_eq, gate_shut, boat_clear, key)")
    board.see("[data-kind=unit]")
    board.see(VERDICT, RIGHT)
    board.click(".chosen-line button", "Open up")
    board.see(".cm-content", "open_ok <- and(open_ok_safe, key)")
    board.see(VERDICT, RIGHT)
    assert "<- lockwork(" not in text(board)


def test_a_gate_by_the_pointer_alone(board: Browser) -> None:
    board.write_spec(MADE.replace("  alarm <- and(key, !open_ok)\n", "  shut <- not(open_ok)\n"))
    board.see(VERDICT, "right in 0 of 16 cases")
    ActionChains(board.driver).move_to_element(part(board, "output", 1)).click().perform()  # alarm
    board.click(".statement button", "Parts")
    board.click("#board-offers li", "and")
    names = [p.text.split()[0] for p in board.all("[data-kind=input]")]
    ActionChains(board.driver).move_to_element(part(board, "input", names.index("key"))).click().perform()
    ActionChains(board.driver).move_to_element(part(board, "output", 0)).click().perform()
    assert board.see("#board-sentence").get_attribute("value") == "alarm = and(key, open_ok"
    board.click(".statement button", "Put it there")
    board.see(".cm-content", "alarm <- and(key, open_ok)")
    board.see(VERDICT, "of 16 cases")


def test_the_circuit_is_kept_beside_the_spec_as_a_model(board: Browser) -> None:
    board.write_spec(MADE)
    board.see(VERDICT, RIGHT)
    board.click("button", "For ▾")
    board.click(".ant-dropdown-menu-item", "as a model")
    board.see(".ant-message", "lock_interlock.wiring stands beside the spec")
