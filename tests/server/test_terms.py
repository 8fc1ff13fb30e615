"""What a lab says of attempts and lateness: a change of it reaches every mark, and the ledger keeps what was said
before."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

import pytest

from tests.server.conftest import Client
from tests.server.small import WRONG, Small

RIGHT = WRONG.replace("high | n", "high & n")  # 10 of 10; WRONG earns 5
HOUR = timedelta(hours=1)


class Terms:
    """A lab whose terms change."""

    def __init__(self, small: Small) -> None:
        self.small = small
        self.now = datetime.now(UTC)

    def set(self, due: timedelta | None = None, which: str = "last", share: float = 0.0) -> int:
        body = {
            "title": "Sluices",
            "due_at": None if due is None else (self.now + due).isoformat(),
            "which_attempt": which,
            "late_share": share,
        }
        return int(self.small.ta.send("PUT", f"/labs/{self.small.lab}/terms", body)["marks"])

    def extend(self, name: str, due: timedelta | None) -> int:
        body = {"due_at": None if due is None else (self.now + due).isoformat(), "reason": "was ill"}
        return int(self.small.ta.send("PUT", f"/labs/{self.small.lab}/extensions/{self.student(name)}", body)["marks"])

    def student(self, name: str) -> int:
        return int(next(s["id"] for s in self.view()["students"] if s["name"] == name))

    def view(self):  # type: ignore[no-untyped-def]
        return self.small.ta.get(f"/labs/{self.small.lab}/terms")

    def mark(self, name: str) -> float | None:
        students = self.small.ta.get(f"/labs/{self.small.lab}/feedback")["students"]
        mark: float | None = next(s for s in students if s["name"] == name)["marks"][0]
        return mark


@pytest.fixture
def terms(ta: Client) -> Terms:
    return Terms(Small(ta).hand_in(tomo_arakida=WRONG, ilse_varga=RIGHT))


def test_a_due_date_and_what_lateness_costs_reach_the_marks(terms: Terms) -> None:
    assert (terms.mark("Ilse Varga"), terms.mark("Tomo Arakida"), terms.view()["late"]) == (10, 5, 0)
    assert terms.set(-HOUR, share=0.2) == 2
    assert (terms.mark("Ilse Varga"), terms.mark("Tomo Arakida"), terms.view()["late"]) == (8, 4, 2)
    assert terms.small.review("Ilse Varga")["mark_reason"].startswith("handed in 59 minutes late: -2")
    assert terms.set(-HOUR, share=0.5) == 2 and terms.mark("Ilse Varga") == 5
    assert terms.set(-HOUR, share=0.5) == 0  # nothing new is nothing entered
    assert terms.set(HOUR, share=0.5) == 2 and terms.mark("Ilse Varga") == 10
    assert terms.small.review("Ilse Varga")["late"] is False
    assert terms.set(-HOUR, share=0.5) == 2 and terms.mark("Ilse Varga") == 5
    assert terms.set(None) == 2 and terms.mark("Ilse Varga") == 10


def test_an_extension_given_and_taken_back(terms: Terms) -> None:
    terms.set(-HOUR, share=0.2)
    assert terms.extend("Tomo Arakida", HOUR) == 1
    assert (terms.mark("Ilse Varga"), terms.mark("Tomo Arakida")) == (8, 5)
    (given,) = terms.view()["extensions"]
    assert (given["name"], given["reason"]) == ("Tomo Arakida", "was ill")
    assert terms.extend("Tomo Arakida", None) == 1
    assert terms.mark("Tomo Arakida") == 4 and terms.view()["extensions"] == []
    terms.small.ta.send("PUT", f"/labs/{terms.small.lab}/extensions/999999", {"due_at": None}, status=404)


def test_which_attempt_counts(terms: Terms) -> None:
    terms.small.hand_in(tomo_arakida=RIGHT, ilse_varga="module sluice(input high")
    assert (terms.mark("Tomo Arakida"), terms.mark("Ilse Varga")) == (
        10,
        None,
    )  # the second of hers does not compile: held
    terms.set(which="first")
    assert (terms.mark("Tomo Arakida"), terms.mark("Ilse Varga")) == (5, 10)
    terms.set(which="best")
    assert (terms.mark("Tomo Arakida"), terms.mark("Ilse Varga")) == (10, 10)
    terms.set(which="last")
    assert (terms.mark("Tomo Arakida"), terms.mark("Ilse Varga")) == (10, None)
    terms.set(-HOUR, which="first", share=0.2)
    assert (terms.mark("Tomo Arakida"), terms.mark("Ilse Varga")) == (4, 8)


def test_what_a_person_entered_stands_through_every_change(terms: Terms) -> None:
    handin = terms.small.handin("Tomo Arakida")
    terms.small.ta.send(
        "PUT", f"/handins/{handin}/tasks/{terms.small.task}/mark", {"value": 7, "reason": "explained it to me"}
    )
    terms.set(-HOUR, share=0.5)
    assert (terms.mark("Tomo Arakida"), terms.mark("Ilse Varga")) == (7, 5)


def test_an_owner_found_later_brings_an_extension_along(terms: Terms) -> None:
    terms.set(-HOUR, share=0.2)
    terms.extend("Osk Lindqvist", HOUR)
    terms.small.hand_in(somebody=RIGHT)
    stray = next(
        e for e in terms.small.ta.get(f"/labs/{terms.small.lab}/intake")["entries"] if e["label"] == "somebody"
    )
    assert stray["attempts"][0]["late"] is True
    terms.small.ta.send(
        "PUT", f"/handins/{stray['handin_id']}/owner", {"student_ids": [terms.student("Osk Lindqvist")]}
    )
    assert terms.mark("Osk Lindqvist") == 10


def test_terms_that_make_no_sense_are_refused(terms: Terms) -> None:
    for body in (
        {"title": "", "due_at": None},
        {"title": "x", "late_share": 2},
        {"title": "x", "which_attempt": "second"},
    ):
        terms.small.ta.send("PUT", f"/labs/{terms.small.lab}/terms", body, status=422)


def test_a_file_that_cannot_be_taken_in_reaches_the_letter(ta: Client) -> None:
    small = Small(ta).hand_in(tomo_arakida="x" * 9_000_000)
    (uncheckable,) = small.clusters()
    assert uncheckable["kind"] == "unchecked" and [m["name"] for m in uncheckable["members"]] == ["Tomo Arakida"]
    small.ta.send("POST", f"/labs/{small.lab}/drafts")
    assert "sluice.v was not taken in: unpacks to 9000000 bytes" in small.letter("Tomo Arakida")["comment"]
    assert small.letter("Tomo Arakida")["mark"] is None  # held, not zero
