"""Files beside a spec that a check rests on: replacing one makes a new version, and nothing shown turns by itself."""

from __future__ import annotations

from tests.server.conftest import Client
from tests.server.small import Small

SPEC = """obento = "spec/1"
title = "Sluice by a model"
unit = "sluice"

[ports]
in = "high wide"
out = "warn"

[expect]
model = "right.v"
"""
MODEL = "module sluice(input high, wide, output warn);\n  {}assign warn = {};\nendmodule\n"
CELL = "module both(input a, b, output y); assign y = a {} b; endmodule\n"


def put(ta: Client, task: int, name: str, text: str, provided: bool = False):  # type: ignore[no-untyped-def]
    answer = ta.http.post(
        f"/api/tasks/{task}/files?provided={provided}", files={"file": (name, text.encode())}, headers=ta.headers
    )
    assert answer.status_code == 200, answer.text
    return answer.json()


def made(ta: Client) -> Small:
    small = Small(ta)
    put(ta, small.task, "right.v", MODEL.format("", "high & ~wide"))
    put(ta, small.task, "both.v", CELL.format("&"), provided=True)
    small.put(SPEC)
    return small


def test_a_replaced_model_checks_the_class_anew(ta: Client) -> None:
    small = made(ta)
    small.hand_in(tomo_arakida=MODEL.format("", "high & ~wide"), ilse_varga=MODEL.format("", "high | ~wide"))
    first = ta.get(f"/tasks/{small.task}/spec")
    assert small.review("Tomo Arakida")["passed"] == 4 and small.review("Ilse Varga")["passed"] == 2
    same = put(ta, small.task, "right.v", MODEL.format("", "high & ~wide"))
    assert same["version"] == first["version"]  # word for word the same: nothing to be checked
    second = put(ta, small.task, "right.v", MODEL.format("", "high | ~wide"))
    assert second["version"] == first["version"] + 1
    ta.check(small.lab)  # it was begun by the new version
    results = ta.get(f"/tasks/{small.task}/results")
    assert results["waiting"] == 0 and results["version"] == second["version"]
    assert small.review("Tomo Arakida")["passed"] == 2 and small.review("Ilse Varga")["passed"] == 4


def test_a_replaced_cell_of_the_lab_does_too(ta: Client) -> None:
    small = made(ta)
    text = "module sluice(input high, wide, output warn);\n  both u(high, ~wide, warn);\nendmodule\n"
    small.hand_in(tomo_arakida=text, ilse_varga=text)
    assert small.review("Tomo Arakida")["passed"] == 4
    version = ta.get(f"/tasks/{small.task}/spec")["version"]
    assert put(ta, small.task, "both.v", CELL.format("|"), provided=True)["version"] == version + 1
    ta.check(small.lab)
    assert small.review("Tomo Arakida")["passed"] == 2


def test_a_file_beside_a_spec_that_nobody_was_checked_by_makes_no_version(ta: Client) -> None:
    small = Small(ta)
    version = ta.get(f"/tasks/{small.task}/spec")["version"]
    assert not ta.send("PUT", f"/tasks/{small.task}/spec", {"text": SPEC})["preview"][
        "is_right"
    ]  # its model is not here yet
    view = put(ta, small.task, "right.v", MODEL.format("", "high & ~wide"))
    assert (
        view["version"] == version
        and view["preview"]["is_right"]
        and view["frozen_late"] is None
        and not view["is_older"]
    )
    small.hand_in(
        tomo_arakida=MODEL.format("", "high & ~wide"), ilse_varga=""
    )  # and it can be checked by it, without being saved again
    assert small.review("Tomo Arakida")["passed"] == 4
