"""A student's board in the real browser: made by a link, drawn without signing in, saved, there again, withdrawn."""

from __future__ import annotations

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.web.conftest import Browser

VERDICT = ".cases-side .caption"


def test_a_student_draws_without_signing_in(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Locks and lamps")
    browser.see("[data-cluster]")
    browser.click("button[data-place=spec]")
    browser.see(".messages", "All sources agree")
    browser.see("body").send_keys("b")
    browser.click("button", "For ▾")
    browser.click(".ant-dropdown-menu-item", "a board for students")
    browser.click(".ways label", "how many cases are right")
    browser.click(".ant-modal button", "Make the link")
    address = str(browser.see(".link input").get_attribute("value"))
    token = address.rpartition("/board/")[2]
    place = browser.driver.current_url.removeprefix(browser.base)

    browser.driver.delete_all_cookies()
    browser.open(f"/board/{token}")
    browser.see("h1", "Lock-gate interlock")
    browser.see(VERDICT, "right in 0 of 16 cases")
    ActionChains(browser.driver).send_keys("s").perform()
    for said in ["safe = level_eq & gate_shut & boat_clear", "open_ok = safe & key", "alarm = key & !safe"]:
        ActionChains(browser.driver).send_keys(said, Keys.ENTER).perform()
        browser.see(".cm-content", said.partition(" ")[0] + " <-")
    browser.see(VERDICT, "right in all 16 cases")
    assert "exp" not in browser.see("table.cases").text  # what is expected is nowhere
    browser.driver.refresh()
    browser.see(VERDICT, "right in all 16 cases")
    # the same page takes a language
    browser.click(".language")
    browser.click(".ant-select-item", "VHDL")
    browser.see(".empty", "The table fills")
    ports = "level_eq, gate_shut, boat_clear, key : in bit; open_ok, alarm : out bit"
    text = (
        f"entity lock_interlock is port ({ports}); end;\n"
        "architecture a of lock_interlock is begin open_ok <= '0'; alarm <= key; end;\n"
    )
    browser.write_spec(text)
    browser.see(VERDICT, "right in 15 of 16 cases")

    browser.sign_in()
    browser.open(place)
    browser.click("button", "For ▾")
    browser.click(".ant-dropdown-menu-item", "a board for students")
    browser.click(".ant-modal button", "Withdraw")
    browser.see(".ant-modal button", "Make the link")
    browser.open(f"/board/{token}")
    browser.see(".trouble", "no longer holds")
