"""Wide words, many columns, tasks and students: what is looked at first stays in sight, what is alike folds."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from selenium.webdriver.support.ui import WebDriverWait

from tests.web.axe import faults
from tests.web.conftest import Browser
from tests.web.made_class import MadeClass
from tests.web.test_any_window import FAULTS, resize

STUDENTS = 60
READY = {
    "results": "[data-cluster]",
    "review": ".left tr[data-case]",
    "feedback": ".letter",
    "intake": ".entry",
    "spec": ".share",
}
LEVELS = [f"level_{c}" for c in "abcdefghijklmnop"]
SPEC = """obento = 'spec/1'
title = '{0}'
unit = '{0}'
[ports]
in = '{1}'
out = '{2}'
[expect]
equations = '''
{3}
'''
{4}
"""
SAMPLED = "[cases]\nrandom = 60"
SUM = "sum = a + b + cin\ncout = (a + b + cin) >> 64"
COUNT = f"count = {' + '.join(LEVELS)}\nany = {' | '.join(LEVELS)}"
SENSORS = [f"sensor_{k}" for k in range(7)]
LAMPS = [f"lamp_{k}" for k in range(22)]
WIDE = [
    SPEC.format("long_sum", "a[64] b[64] cin", "sum[64] cout", SUM, SAMPLED),
    SPEC.format("levels", " ".join(LEVELS), "count[5] any", COUNT, ""),
    SPEC.format(
        "columns",
        " ".join(f"{s}[2]" for s in SENSORS) + " mode[2]",
        " ".join(LAMPS),
        "\n".join(f"lamp_{k} = sensor_{k % 7}[0] ^ mode[{k % 2}]" for k in range(22)),
        SAMPLED,
    ),
]
MANY = [SPEC.format(f"g{n}", "a b c d", "y", "y = a & b | c & d", "") for n in range(10)]


def wide(i: int) -> dict[str, str]:
    """What a student hands in: some forget the carry in, some one input, some a lamp."""
    total = "a + b" if i % 4 == 1 else "a + b + cin"
    counted = LEVELS[:-1] if i % 4 == 2 else LEVELS
    both = ["&" if i % 4 == 3 and k == 21 else "& ~" for k in range(22)]
    pairs = [(f"sensor_{k % 7}[0]", f"mode[{k % 2}]") for k in range(22)]
    lamps = "".join(f" assign lamp_{k} = ({s} {both[k]}{m}) | (~{s} & {m});" for k, (s, m) in enumerate(pairs))
    return {
        "sum.v": "module long_sum(input [63:0] a, b, input cin, output [63:0] sum, output cout);"
        f" wire [64:0] t = {total}; assign {{cout, sum}} = t; endmodule",
        "levels.v": f"module levels(input {', '.join(LEVELS)}, output [4:0] count, output any);"
        f" assign count = {' + '.join(counted)}; assign any = |{{{', '.join(LEVELS)}}}; endmodule",
        "columns.v": f"module columns(input [1:0] {', '.join(SENSORS)}, mode,"
        f" output {', '.join(LAMPS)});{lamps} endmodule",
    }


def many(i: int) -> dict[str, str]:
    """In the first task sixteen ways of being wrong, all others right."""
    table = format(0xF888 ^ (1 << i % 16 if i % 3 else 0), "016b")
    first = (
        f"module g0(input a, b, c, d, output y); wire [15:0] t = 16'b{table}; assign y = t[{{a, b, c, d}}]; endmodule"
    )
    rest = {
        f"g{n}.v": f"module g{n}(input a, b, c, d, output y); assign y = a & b | c & d; endmodule" for n in range(1, 10)
    }
    return {"g0.v": first, **rest}


def misnamed(i: int) -> dict[str, str]:
    """The first unit under another name, beside one that would fit as well."""
    head = "(input a, b, c, d, output y); assign y ="
    first = f"module {'g0' if i % 2 else 'gate'}{head} a & b | c & d; endmodule module spare{head} a; endmodule"
    return {"first.v": first, "g1.v": f"module g1{head} a & b | c & d; endmodule"}


@pytest.fixture(scope="module")
def large(browser: Browser) -> Iterator[Browser]:
    """A class of its own with two labs, checked."""
    names = [f"Student {chr(65 + n // 26)}{chr(97 + n % 26)} Bergmannsdottir-Holmquist" for n in range(STUDENTS)]
    made = MadeClass(browser.base, "A large class", names)
    for title, specs, work in (("Wide words", WIDE, wide), ("Ten tasks", MANY, many), ("Names", MANY[:2], misnamed)):
        made.lab(title, specs, work)
    browser.sign_in()
    yield browser
    resize(browser, (1280, 800))


def go(browser: Browser, lab: str, task: str = "") -> None:
    browser.open("/")
    browser.click(".lab", lab)
    browser.see("[data-cluster]")
    if task:
        browser.see("header.bar .ant-select-selector, .tasks button").click()
        browser.click(".ant-select-item-option, .tasks button", task)
        browser.see(".class .names", {"levels": "level_a", "columns": "sensor_0"}[task])


def test_long_words_stand_in_hexadecimal_with_the_bits_that_are_wrong(large: Browser) -> None:
    go(large, "Wide words")
    cell = large.see("[data-cluster] table.cases td.side")
    assert len(cell.text) < 64
    wrong = large.all("[data-cluster] table.cases td.side b .bits u")
    assert wrong and all(u.text in "01" for u in wrong)
    whole = large.driver.execute_script("return document.querySelector('table.cases td.side .screen').title")
    assert len(whole) == 64 and set(whole) <= {"0", "1"}


def test_bits_are_one_press_away_and_on_paper(large: Browser) -> None:
    go(large, "Wide words")
    large.click("table.cases .base", "hex")
    large.see("table.cases .base", "bits")
    assert len(large.see("[data-cluster] table.cases td.side").text) >= 64
    large.click("table.cases .base", "bits")
    large.see("table.cases .base", "hex")
    large.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": "print"})
    try:
        assert len(large.see("[data-cluster] table.cases td.side").text.replace("\n", "")) >= 64
    finally:
        large.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"media": ""})


def test_inputs_that_are_alike_are_said_once(large: Browser) -> None:
    go(large, "Wide words", "levels")
    large.see("[data-cluster] .same", "level_a")
    assert "level_a" not in large.see("[data-cluster] table.cases thead").text


def test_of_many_columns_the_wrong_outputs_stand_first(large: Browser) -> None:
    go(large, "Wide words", "columns")
    assert "lamp_21" in large.see("[data-cluster] table.cases thead th:first-child").text


def test_a_very_large_circuit_opens_at_what_a_wrong_output_depends_on(large: Browser) -> None:
    go(large, "Wide words", "columns")
    large.click("button[data-place=review]")
    large.see(".left tr[data-case]")
    large.keys("g")
    large.see(".pane .bar", "backwards from lamp_21")
    part = ".pane svg [data-part]"
    large.see(part)
    few = len(large.all(part))
    assert 0 < few < 20
    large.click(".pane .chip", "all of it")
    WebDriverWait(large.driver, 20).until(lambda _: len(large.all(part)) > 60)


def test_a_large_cluster_folds_its_members(large: Browser) -> None:
    go(large, "Wide words")
    chips = ".cluster.right .chip"
    few = len(large.all(chips))
    assert few < 20
    large.click(".cluster.right .more", "more")
    assert len(large.all(chips)) > few
    large.click(".cluster.right .more", "fewer")
    assert len(large.all(chips)) == few


def test_more_than_a_dozen_clusters_are_lines(large: Browser) -> None:
    go(large, "Ten tasks")
    lines = large.all(".folded[data-cluster]")
    assert len(lines) > 12
    assert len(large.all("article.cluster")) == 1
    key = lines[3].get_attribute("data-cluster")
    lines[3].click()
    large.see(f"article.cluster.chosen[data-cluster='{key}']")
    assert len(large.all("article.cluster")) == 1


def test_what_is_settled_in_many_tasks_is_a_line_until_it_is_looked_at(large: Browser) -> None:
    go(large, "Ten tasks")
    large.click("button[data-place=intake]")
    large.see(".entry .fold", "10 of 10 tasks, verilog")
    assert len(large.all(".entry .task")) == STUDENTS
    large.click(".entry .fold")
    large.see(".entry .task", "g9")
    assert len(large.all(".entry .task")) == STUDENTS + 9
    large.click(".entry .more button")
    large.see(".ant-dropdown-menu-item", "Put aside")


@pytest.mark.parametrize("size", [(1024, 700), (1280, 800)], ids=lambda size: f"{size[0]}x{size[1]}")
@pytest.mark.parametrize("lab", ["Wide words", "Ten tasks"])
def test_nothing_leaves_its_compartment(large: Browser, lab: str, size: tuple[int, int]) -> None:
    resize(large, size)
    go(large, lab)
    found = []
    for place, ready in READY.items():
        large.driver.execute_script(f"document.querySelector('[data-place={place}]').click()")
        large.see(ready)
        found += [f"{place}: {fault}" for fault in large.driver.execute_script(FAULTS)]
    assert found == []


@pytest.mark.parametrize("place", list(READY))
def test_by_night_everything_can_be_read(large: Browser, place: str) -> None:
    dark = [{"name": "prefers-color-scheme", "value": "dark"}]
    large.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": dark})
    try:
        go(large, "Wide words")
        assert large.driver.execute_script("return document.documentElement.hasAttribute('data-night')")
        large.driver.execute_script(f"document.querySelector('[data-place={place}]').click()")
        large.see(READY[place])
        assert faults(large) == []
    finally:
        large.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": []})


def test_day_or_night_is_chosen(large: Browser) -> None:
    go(large, "Wide words")
    large.click("button.help")
    large.click(".ant-segmented-item", "night")
    assert large.driver.execute_script("return document.documentElement.hasAttribute('data-night')")
    large.driver.refresh()
    large.see("[data-cluster]")
    assert large.driver.execute_script("return document.documentElement.hasAttribute('data-night')")
    large.click("button.help")
    large.click(".ant-segmented-item", "as the system")
    assert not large.driver.execute_script("return document.documentElement.hasAttribute('data-night')")


def test_one_answer_for_all_who_ask_the_same(large: Browser) -> None:
    go(large, "Names")
    large.click("button[data-place=intake]")
    large.see(".questions", f"{STUDENTS // 2} hand-ins for g0 have nothing by the name that is asked for, but gate")
    assert faults(large) == []
    large.click(".question button", f"It is that, in all {STUDENTS // 2}")
    large.see("button[data-place=results]", f"{STUDENTS} right, 0 wrong", seconds=60)
    large.gone(".questions")


def test_of_ten_tasks_name_and_sum_stay_in_sight(large: Browser) -> None:
    go(large, "Ten tasks")
    large.click("button[data-place=feedback]")
    large.see("tr[data-student]")
    for left in (0, 9999):
        seen = large.driver.execute_script(
            "const box = document.querySelector('.list .scroll'); box.scrollLeft = arguments[0];"
            " const b = box.getBoundingClientRect();"
            " const of = (c) => document.querySelector(`tr[data-student] ${c}`).getBoundingClientRect();"
            " return ['.name', '.sum'].map(of)"
            "   .every((r) => r.left >= b.left - 1 && r.right <= b.right + 1 && r.width > 20)",
            left,
        )
        assert seen
