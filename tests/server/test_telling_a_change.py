"""Whether a letter may give the repair away is what the spec says: always, once nobody can hand in in time, never."""

from __future__ import annotations

import time

import pytest

from tests.server.conftest import Client
from tests.server.small import WRONG, Small
from tests.sluice import SPEC

COMMENT = "Look at {line}. Write {change}. Come and see me."


def letter_of(small: Small, handin: int) -> str:
    small.ta.get(f"/tasks/{small.task}/review/{handin}/repair")
    return str(small.letter("Ilse Varga")["comment"])


@pytest.mark.parametrize(("says", "due", "is_told"), [
    ("", None, True), ("always", "2100-01-01T00:00:00Z", True), ("never", "2020-01-01T00:00:00Z", False),
    ("after due", "2020-01-01T00:00:00Z", True), ("after due", "2100-01-01T00:00:00Z", False),
    ("after due", None, False),
])  # fmt: skip
def test_what_a_letter_gives_away(ta: Client, says: str, due: str | None, is_told: bool) -> None:
    students = f'[students]\nsee = "all"\n{f"change = {says!r}" if says else ""}\n'.replace("'", '"')
    small = Small(ta, SPEC + students)
    ta.send("PUT", f"/labs/{small.lab}/terms", {"title": "Sluices", "due_at": due})
    small.hand_in(**{"04107": WRONG.replace("wire n = ~wide;", "wire n = wide;").replace("high | n", "high & n")})
    handin = small.handin("Ilse Varga")
    cluster = small.clusters()[0]["key"]
    ta.send("PUT", f"/tasks/{small.task}/comments/{cluster}", {"text": COMMENT, "version": 0})
    for _ in range(50):
        comment = letter_of(small, handin)
        if not is_told or "Write" in comment:
            break
        time.sleep(0.1)
    assert ("Write" in comment) == is_told and "Come and see me." in comment and "Look at line" in comment


def test_more_time_for_one_keeps_it_back_from_all(ta: Client) -> None:
    small = Small(ta, SPEC + '[students]\nsee = "all"\nchange = "after due"\n')
    small.hand_in(**{"04107": WRONG.replace("wire n = ~wide;", "wire n = wide;").replace("high | n", "high & n")})
    ta.send("PUT", f"/labs/{small.lab}/terms", {"title": "Sluices", "due_at": "2020-01-01T00:00:00Z"})
    handin = small.handin("Ilse Varga")
    ta.send("PUT", f"/tasks/{small.task}/comments/{small.clusters()[0]['key']}", {"text": COMMENT, "version": 0})
    assert "Write" in letter_of(small, handin)
    other = next(s for s in ta.get(f"/labs/{small.lab}/terms")["students"] if s["name"] != "Ilse Varga")
    ta.send("PUT", f"/labs/{small.lab}/extensions/{other['id']}", {"due_at": "2100-01-01T00:00:00Z"})
    assert "Write" not in letter_of(small, handin)
