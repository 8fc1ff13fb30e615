"""A TA's evening in the real browser, from an empty lab to the letter that a student opens."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path

from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait

from tests.sluice import SPEC
from tests.web.conftest import Browser

RIGHT = "module sluice(input high, wide, output warn); assign warn = high & ~wide; endmodule\n"
WRONG = "module sluice(input high, wide, output warn);\n  assign warn = high | ~wide;\nendmodule\n"
ODD = "<img src=x onerror=document.title=1>"


def class_zip(folder: Path) -> Path:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        archive.writestr("04107_Varga/sluice.v", RIGHT)
        archive.writestr("tomo.arakida/sluice.v", WRONG)
        archive.writestr("Lindqvist_Osk/sluice.v", WRONG.replace("high |", "high  |"))
        archive.writestr("namdev/sluice.v", RIGHT.replace("endmodule", ""))
        archive.writestr(f"{ODD}/sluice.v".replace("/sluice", "#sluice").replace("#", "/"), RIGHT)
    path = folder / "class.zip"
    path.write_bytes(out.getvalue())
    return path


def test_an_evening(browser: Browser, tmp_path: Path) -> None:
    browser.sign_in()
    # a new lab, its spec: a slip in it is told, and mended
    browser.new_lab("Evening lab")
    browser.write_spec(SPEC.replace("!wide", "!wied"))
    browser.see(".messages", "there is no port or inner name wied")
    browser.write_spec(SPEC + "[cases]\nlisted = '''\nhigh wide\n1 0\n'''\n")
    browser.see("[aria-label='mistakes that no case catches'] li", "line 10")
    browser.write_spec(SPEC)
    browser.see(".share", "100 %")
    browser.save_spec("Sluice warning")
    # the drop
    browser.drop(class_zip(tmp_path))
    browser.see(".entry", "Tomo Arakida")
    browser.see(".entry .ports.pass", "all by name")
    odd = browser.see(".entry .label", "<img")  # shown as text, not run
    assert odd.text.startswith("<img src=x") and browser.driver.title.endswith("· Obento")
    # the tray: wrong ones first
    browser.click("button[data-place=results]")
    first = browser.see("[data-cluster]")
    assert "2 alike" in first.text and "warn is wrong whenever high equals wide: 2 of 4" in first.text
    browser.see(".rest", "not checked")
    # the review by key, a comment for the cluster
    browser.see("body").send_keys(Keys.ENTER)
    browser.see(".who h1", "Tomo Arakida")
    browser.see(".line.marked", "assign warn")
    browser.type("textarea[name=comment]", "Look at {line}, {name}: it warns {when}.")
    browser.click("button", "Keep for all 2")
    browser.see(".tag.pass", "kept")
    browser.see("body").send_keys(Keys.ESCAPE)
    browser.see("[data-cluster] .tag.pass", "comment kept")
    # release
    browser.click("button[data-place=feedback]")
    browser.click("tr[data-student] td", "Tomo Arakida")
    browser.see(".letter .say", "Look at line 2, Tomo: it warns")
    browser.click("button", "Release all")
    browser.click(".ant-modal-footer .ant-btn-primary:not([disabled])", "Release")
    browser.see("tr[data-student] .tag.pass", "released")
    # the mailbox, and the student's page behind the link
    browser.open("/mailbox")
    for _ in range(40):
        if any("tomo.arakida" in e.text for e in browser.all(".list > button")):
            break
        browser.click("button", "Look again")
    browser.click(".list > button", "tomo.arakida")
    browser.see(".mail a.page-link")
    link = browser.all(".mail a.page-link")[0].get_attribute("href")
    assert link is not None
    browser.driver.delete_all_cookies()
    browser.driver.get(link)
    browser.see(".door", "Evening lab")
    browser.click(".door button", "Open my letter")
    letter = browser.see(".letter", "Tomo Arakida").text
    assert (
        "Evening lab" in letter
        and "Look at line 2, Tomo" in letter
        and "To see it again" in letter
        and "2 of 4 cases right" in letter
    )


def test_walking_the_tray_by_keys(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Locks and lamps")
    browser.see("[data-cluster].chosen", "6")
    body = browser.see("body")
    body.send_keys(Keys.ARROW_DOWN)
    browser.see("[data-cluster].chosen", "Dario Venn")
    body.send_keys(Keys.ARROW_RIGHT)
    browser.see(".chosen .chip.chosen", "Sofia Tran")
    body.send_keys(Keys.ENTER)
    browser.see(".who h1", "Sofia Tran")
    browser.see("tr.chosen[data-case='14']")
    body = browser.see("body")
    body.send_keys("]")
    browser.see(".who h1", "Emre Aslan")
    body.send_keys("?")
    browser.see(".keys", "next failing case")
    browser.click(".ant-modal-close")
    browser.gone(".ant-modal-wrap:not([style*='display: none']) .keys")
    browser.see("body").send_keys(Keys.ESCAPE)
    browser.see("[data-cluster].chosen", "Dario Venn")


def test_a_case_filters_and_rows_show_the_same_class(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Locks and lamps")
    browser.see("[data-cluster]")
    before = len(browser.all("[data-cluster]"))
    browser.click(".cases button", "1 1 1 0")
    browser.see("[data-cluster]", "open_ok does not depend on")
    assert 0 < len(browser.all("[data-cluster]")) < before
    browser.see("body").send_keys("t")
    canvas = browser.see("canvas")
    browser.see(".face")
    WebDriverWait(browser.driver, 20).until(
        lambda d: d.execute_script("return performance.getEntriesByName('rows-painted').length")
    )
    painted = browser.driver.execute_script(
        "const c = arguments[0]; const d = c.getContext('2d').getImageData(0, 0, c.width, c.height).data; const s = new"
        " Set();for (let i = 0; i < d.length; i += 40) s.add(d[i] + ',' + d[i + 1] + ',' + d[i + 2]); return [...s]",
        canvas,
    )
    assert "217,84,43" in painted and "43,122,120" in painted  # fail and pass are both there


def test_a_port_is_agreed_once_for_everyone(browser: Browser) -> None:
    browser.sign_in()
    browser.click(".lab", "Locks and lamps")
    browser.click("button[data-place=intake]")
    browser.click(".chip.ask", "key_i")
    browser.click(".chip.ask", "gate_shutt")
    browser.see(".entry .ports", "key_i as key")
    assert not [e for e in browser.driver.get_log("browser") if e["level"] == "SEVERE" and "401" not in e["message"]]


def test_a_stranger_gets_the_door(browser: Browser) -> None:
    browser.driver.delete_all_cookies()
    browser.open("/lab/1/task/1/results")
    browser.see("input[name=email]")
    browser.type("input[name=email]", "mira@college.example")
    browser.type("input[name=password]", "wrong")
    browser.click("button[type=submit]")
    browser.see(".trouble", "do not belong together")
