"""Lists of a large class: as much is drawn as is in sight, and everybody can be come to."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait

from tests.web.axe import faults
from tests.web.conftest import Browser
from tests.web.made_class import MadeClass

STUDENTS = 240
SPEC = """obento = 'spec/1'
title = 'Gate'
unit = 'gate'
[ports]
in = 'a b'
out = 'y'
[expect]
equations = 'y = a & b'
"""


def gate(n: int) -> dict[str, str]:
    """What a student hands in: every third has the wrong gate."""
    y = "a & b" if n % 3 else "a | b"
    return {"gate.v": f"module gate(input a, b, output y); assign y = {y}; endmodule"}


@pytest.fixture(scope="module")
def large(browser: Browser) -> Iterator[Browser]:
    made = MadeClass(browser.base, "A long list", [f"Person {n:03d} Holm" for n in range(STUDENTS)])
    lab, task = made.lab("Many", [SPEC], gate)
    browser.sign_in()
    browser.place = f"/lab/{lab}/task/{task}"  # type: ignore[attr-defined]
    browser.list = f"/class/{made.id}/list"  # type: ignore[attr-defined]
    yield browser


def to_the_end(browser: Browser, box: str, row: str, last: str) -> None:
    """Scroll until the last row is there; how high the rows are is only known once they were seen."""

    def there(_: object) -> bool:
        browser.driver.execute_script(
            "const b = document.querySelector(arguments[0]); b.scrollTop = b.scrollHeight", box
        )
        return any(last in e.text for e in browser.all(row))

    WebDriverWait(browser.driver, 20, ignored_exceptions=[Exception]).until(there)


@pytest.mark.parametrize(
    ("address", "box", "row"),
    [
        ("list", ".table", "tr[data-student]"),
        ("place/feedback", ".list .scroll", "tr[data-student]"),
        ("place/intake", ".lines", ".entry"),
    ],
)
def test_as_much_is_drawn_as_is_in_sight(large: Browser, address: str, box: str, row: str) -> None:
    attribute, _, rest = address.partition("/")
    large.open(getattr(large, attribute) + (f"/{rest}" if rest else ""))
    large.see(row, "Person 000")
    assert len(large.all(row)) < 80
    assert not faults(large)
    room = large.driver.execute_script("return document.querySelector(arguments[0]).scrollHeight", box)
    assert room > STUDENTS * 20  # the bar at the side is as long as the list
    to_the_end(large, box, row, f"Person {STUDENTS - 1}")
    assert len(large.all(row)) < 80


def test_arrows_take_the_list_along(large: Browser) -> None:
    large.open(f"{large.place}/feedback")  # type: ignore[attr-defined]
    large.see("tr[data-student].chosen")
    region = large.see(".list .scroll")
    region.send_keys(*[Keys.ARROW_DOWN] * 60)
    chosen = large.see("tr.chosen", "Person 06")
    inside = large.driver.execute_script(
        "const [row, box] = [...arguments].map((e) => e.getBoundingClientRect());"
        " return row.top >= box.top && row.bottom <= box.bottom + 1", chosen, region,
    )  # fmt: skip
    assert inside


def test_a_search_finds_whoever_is_out_of_sight(large: Browser) -> None:
    large.open(large.list)  # type: ignore[attr-defined]
    large.see("tr[data-student]", "Person 000")
    assert not any("Person 217" in e.text for e in large.all("tr[data-student]"))
    large.type("input[name=search]", "217")
    large.see("tr[data-student]", "Person 217")
    assert len(large.all("tr[data-student]")) == 1
