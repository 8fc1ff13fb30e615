"""What stands in a letter: as much as the spec lets students see, and nobody else's."""

from __future__ import annotations

from typing import Any

import pytest

from tests.server.conftest import Client
from tests.server.small import WRONG, Small
from tests.sluice import SPEC

# `high | ~wide` for `high & ~wide`: wrong for 00 and 11 (high wide), right for 01 and 10.
SEE = '\n[students]\nsee = "{}"\n'
HIDDEN = '\n[cases]\ngroups = {{ secret = "high == 0 and wide == 0" }}\n[students]\nsee = "{}"\nhidden = ["secret"]\n'


def letter(ta: Client, rest: str, text: str = WRONG) -> Any:
    return Small(ta, SPEC + rest).hand_in(tomo_arakida=text).letter("Tomo Arakida")


@pytest.mark.parametrize(
    ("see", "rows", "passed", "compared", "more", "again"),
    [
        ("all", ["00", "11"], 2, 4, 0, "Set high = 0, wide = 0: warn should be 0 and is 1."),
        ("first-failing", ["00"], 2, 4, 1, "Set high = 0, wide = 0: warn should be 0 and is 1."),
        ("counts", [], 2, 4, 2, ""),
        ("nothing", [], 0, 0, 0, ""),
    ],
)
def test_as_much_as_the_spec_says(
    ta: Client, see: str, rows: list[str], passed: int, compared: int, more: int, again: str
) -> None:
    found = letter(ta, SEE.format(see))
    assert ["".join(r["inputs"]) for r in found["rows"]] == rows
    assert (found["passed"], found["compared"], found["more"], found["again"]) == (passed, compared, more, again)


@pytest.mark.parametrize("see", ["all", "first-failing"])
def test_a_hidden_case_is_never_shown(ta: Client, see: str) -> None:
    found = letter(ta, HIDDEN.format(see))
    assert ["".join(r["inputs"]) for r in found["rows"]] == ["11"]
    assert found["again"] == "Set high = 1, wide = 1: warn should be 0 and is 1."
    assert found["passed"] == 2, "how many are right is no secret"


def test_a_right_hand_in_has_nothing_to_be_seen_again(ta: Client) -> None:
    found = letter(ta, SEE.format("all"), WRONG.replace("|", "&"))
    assert (found["rows"], found["again"], found["more"], found["passed"]) == ([], "", 0, 4)


def test_what_does_not_compile_is_told_with_its_place_and_the_mark_is_held(ta: Client) -> None:
    found = letter(ta, "", WRONG.replace("n;\nendmodule", "n\nendmodule"))
    assert found["status"] == "unreadable" and found["mark"] is None and found["held"]
    assert found["messages"][0].startswith("sluice.v:3:")


def test_names_that_were_read_as_ours_are_told(ta: Client) -> None:
    found = letter(ta, "", WRONG.replace("high", "hihg"))
    assert found["bound"] == ["your hihg was read as high"]


def test_who_handed_in_nothing_has_a_letter_that_says_so(ta: Client) -> None:
    small = Small(ta).hand_in(tomo_arakida=WRONG)
    found = small.letter("Ilse Varga")
    assert (found["status"], found["held"], found["rows"]) == ("missing", "nothing was handed in", [])


def test_a_comment_is_filled_for_each_of_its_cluster_and_a_note_is_one_persons(ta: Client) -> None:
    small = Small(ta).hand_in(tomo_arakida=WRONG, osk_lindqvist=WRONG)
    (cluster,) = [c for c in small.clusters() if c["kind"] == "wrong"]
    text = {"text": "{name}: {right} of {total}[ and {message}].", "version": 0, "handin_id": 0}
    ta.send("PUT", f"/tasks/{small.task}/comments/{cluster['key']}", text)
    own = {"text": "Only you, {name}.", "version": 0, "handin_id": small.handin("Osk Lindqvist")}
    ta.send("PUT", f"/tasks/{small.task}/comments/-", own)
    tomo, osk = small.letter("Tomo Arakida"), small.letter("Osk Lindqvist")
    assert (tomo["comment"], tomo["note"]) == ("Tomo: 2 of 4.", "")
    assert (osk["comment"], osk["note"]) == ("Osk: 2 of 4.", "Only you, Osk.")


def test_a_student_of_another_class_has_no_letter_here(ta: Client) -> None:
    ta.get(f"/labs/{Small(ta).lab}/letters/999999", status=404)
