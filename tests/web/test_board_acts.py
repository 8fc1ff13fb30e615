"""Acts on parts of a drawing: inputs, inversions, frames, turns, copies, another circuit beside it, and a repair in the
review. Each is a change of the text, and is undone as one."""

from __future__ import annotations

from pathlib import Path

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

from tests.web.board_acts import opened, press, text, with_control
from tests.web.conftest import Browser

VERDICT = ".cases-side .caption"
RIGHT = "right in all 16 cases"
MADE = """wiring sluice_guard
  takes high, low, boat, hand
  gives water, horn
  dry <- nor(high)
  flows <- nor(dry, boat)
  shut <- nor(flows, hand)
  water <- nor(shut)
  no_boat <- nor(boat)
  no_low <- nor(low)
  hit <- nor(no_boat, shut)
  odd <- nor(dry, no_low)
  quiet <- nor(hit, odd)
  horn <- nor(quiet)
end
"""


@pytest.fixture(scope="module")
def board(browser: Browser) -> Browser:
    return opened(browser, "Drawn circuits")


@pytest.fixture(autouse=True)
def made(board: Browser) -> None:
    """Every act begins with the same circuit."""
    if "/board" in board.driver.current_url:
        press(board, Keys.ESCAPE)
        board.write_spec(MADE)
        board.see(VERDICT, RIGHT)


def drawn(board: Browser, number: int) -> WebElement:
    """The part of a line, as soon as it is drawn."""

    def found(_: object) -> WebElement | None:
        titles = board.all(".drawing [data-part] title")
        at = next((e for e in titles if f"line {number}:" in str(e.get_attribute("textContent"))), None)
        return at.find_element("xpath", "..") if at is not None else None

    part = WebDriverWait(board.driver, 20, ignored_exceptions=[Exception]).until(found)
    assert part is not None
    return part


def choose(board: Browser, number: int) -> None:
    """Click the part of a line."""

    def chosen(_: object) -> bool:
        ActionChains(board.driver).move_to_element(drawn(board, number)).click().perform()
        return any(e.text == str(number) for e in board.all(".chosen-line .number"))

    WebDriverWait(board.driver, 20, ignored_exceptions=[Exception]).until(chosen)


def test_an_input_is_inverted_added_named_by_pointing_and_taken_out(board: Browser) -> None:
    choose(board, 5)
    board.click("button[aria-label='invert input 1']")
    board.see(".cm-content", "flows <- nor(!dry, boat)")
    board.see(VERDICT, "of 16 cases")
    board.click("button[aria-label='invert input 1']")
    board.see(VERDICT, RIGHT)
    board.click("button", "+ input")
    board.see(".cm-content", "flows <- nor(dry, boat, _)")
    board.see(".messages", "input 3 of nor is left open")
    board.see("input[aria-label='input 3']").click()
    wire = next(e for e in board.all(".drawing [data-wire] title") if "high" in str(e.get_attribute("textContent")))
    board.driver.execute_script(
        "arguments[0].parentElement.dispatchEvent(new MouseEvent('click', {bubbles: true}))", wire
    )
    board.see(".cm-content", "flows <- nor(dry, boat, high)")
    board.click("button[aria-label='take input 3 out']")
    board.see(".cm-content", "flows <- nor(dry, boat)")
    board.see(VERDICT, RIGHT)


def test_a_part_is_inverted_turned_and_its_wire_named_by_keys_and_buttons(board: Browser) -> None:
    choose(board, 6)
    press(board, "!")
    board.see(".cm-content", "shut <- or(flows, hand)")
    press(board, "!", "f")
    board.see(".cm-content", "turn shut down")
    board.click("button", "As a name")
    board.see(".cm-content", "named shut")
    board.see(".tagname", "shut")
    assert len([e for e in board.all(".tagname") if e.text == "shut"]) == 3  # where it begins, and at both ends
    board.see(VERDICT, RIGHT)
    for _ in range(4):
        with_control(board, "z")
    board.gone(".tagname")
    assert "turn" not in text(board) and "named" not in text(board)


def test_a_frame_drawn_over_parts_chooses_them_and_frames_and_copies_them(board: Browser) -> None:
    drawing = board.see(".drawing")
    size = drawing.size
    chain = ActionChains(board.driver).key_down(Keys.SHIFT)
    chain.move_to_element_with_offset(drawing, -size["width"] // 2 + 4, -size["height"] // 2 + 4).click_and_hold()
    chain.move_by_offset(size["width"] - 8, size["height"] - 8).release().key_up(Keys.SHIFT).perform()
    board.see(".chosen-line", "10 lines")
    board.type("input[aria-label='name of the block or group']", "all of it")
    board.click("button", "Frame them")
    board.see(".framed", "all of it")
    board.see(".cm-content", '"all of it"')
    choose(board, 5)
    with_control(board, "c")
    with_control(board, "v")
    board.see(".cm-content", "flows2 <- nor(dry, boat)")
    board.see(VERDICT, RIGHT)


def test_words_in_quotes_stand_in_the_drawing_and_are_moved(board: Browser) -> None:
    board.see("#board-sentence").click()
    press(board, '"is the wheel stronger?"', Keys.ENTER)
    remark = board.see(".remark", "is the wheel stronger?")
    board.see(".cm-content", 'remark 2 0 "is the wheel stronger?"')
    ActionChains(board.driver).click_and_hold(remark).move_by_offset(0, 90).move_by_offset(40, 40).release().perform()
    board.see(".cm-content", "remark ")
    assert 'remark 2 0 "' not in text(board) and text(board).count("remark ") == 1
    press(board, Keys.ESCAPE)


def test_another_circuit_beside_it_says_where_they_part(board: Browser, tmp_path: Path) -> None:
    other = tmp_path / "guess.v"
    other.write_text(
        "module sluice_guard(input high, low, boat, hand, output water, horn);\n"
        "  wire hit = boat & water;\n"
        "  assign water = (high & ~boat) | hand, horn = hit | (high & hand);\nendmodule\n"
    )
    board.driver.execute_script("document.querySelector('input[name=beside]').hidden = false")
    board.all("input[name=beside]")[0].send_keys(str(other))
    board.see(".beside", "part in 3 of 16 cases, at horn")
    assert [row.get_attribute("data-case") for row in board.all("tr:has(.turned.apart)")] == ["9", "12", "14"]
    board.see("tr.chosen[data-case='9']")
    assert len(board.all(".drawing")) == 2 and len(board.all(".terminal.bad")) == 2
    board.write_spec(MADE.replace("nor(dry, no_low)", "nor(dry, no_hand)\n  no_hand <- nor(hand)"))
    board.see(".beside", "the same in all 16 cases")
    board.click("button", "Put away")
    board.gone(".beside")
    # as it is now, and then changed
    board.click("button", "Beside")
    board.click(".ant-dropdown-menu-item", "as it is now")
    board.see(".beside", "the same in all 16 cases")
    board.write_spec(MADE)
    board.see(".beside", "part in 3 of 16 cases")
    board.click("button", "Put away")


def test_backwards_from_a_wrong_output_shows_what_it_depends_on(board: Browser) -> None:
    board.write_spec(MADE.replace("horn <- nor(quiet)", "horn <- nor(no_low)"))
    board.click("table.cases tr:has(td b)")
    board.click("button", "Backwards")
    board.see("button", "behind horn")
    WebDriverWait(board.driver, 10).until(lambda _: len(board.all(".drawing [data-kind=output]")) == 1)
    press(board, "b")
    WebDriverWait(board.driver, 10).until(lambda _: len(board.all(".drawing [data-kind=output]")) == 2)


def test_a_drawing_is_repaired_in_the_review(board: Browser) -> None:
    """An inversion was forgotten: it is put in on the drawing, and the cases that turn are seen. Nothing is changed."""
    board.click("button[data-place=results]")
    board.click(".student, .chip, [data-handin]", "Rui Castane")
    body = board.see("body")
    body.send_keys(Keys.ENTER)
    board.see(".who h1", "Rui Castane")
    body.send_keys("g")
    board.see(".drawing [data-kind=output]")
    # laid out as the text says: what belongs together, and what is remarked
    board.see(".drawing text.framed", "low water")
    board.see(".drawing text.remark", "from the lecture")
    ActionChains(board.driver).move_to_element(drawn(board, 13)).click().perform()
    board.click("button[aria-label='invert input 2']")
    board.see("i.turned", "↑")
    assert len(board.all("i.turned.right")) == 6 and not board.all("i.turned.wrong")
    # what was done is quoted, and the letter draws it: the part as handed in, and as it would be right
    board.click("button", "Quote")
    quoted = board.see("textarea[name=comment]").get_attribute("value") or ""
    assert [line[:2] for line in quoted.splitlines()[1:]] == ["- ", "+ "]
    board.click(".say button", "Keep")
    board.see(".tag.pass", "kept")
    board.click("button[data-place=feedback]")
    board.click("tr[data-student]", "Rui Castane")
    board.see(".letter .change", "as handed in")
    drawings = [e.get_attribute("aria-label") or "" for e in board.all(".letter .change svg")]
    assert len(drawings) == 2 and "NOT" in drawings[1] and "NOT" not in drawings[0], drawings
