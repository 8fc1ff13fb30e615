"""Letters, drafts, pages and mails in the language of the class, findings included."""

from __future__ import annotations

import time
from typing import Any

from tests.server.conftest import Client
from tests.server.small import WRONG, Small
from tests.sluice import SPEC

SEE_ALL = '\n[students]\nsee = "all"\n'


def class_card(ta: Client, small: Small) -> Any:
    return next(k for k in ta.get("/home") if small.lab in [lab["id"] for lab in k["labs"]])


def set_language(ta: Client, small: Small, language: str, status: int = 200) -> None:
    card = class_card(ta, small)
    rights = {"tas_release": card["tas_release"], "tas_manage": card["tas_manage"], "language": language}
    ta.send("PUT", f"/classes/{card['id']}/rights", rights, status=status)


def test_a_class_begins_in_english(ta: Client) -> None:
    small = Small(ta, SPEC + SEE_ALL).hand_in(tomo_arakida=WRONG)
    card = class_card(ta, small)
    assert card["language"] == "en" and card["languages"] == {"en": "English", "de": "Deutsch"}
    letter = small.letter("Tomo Arakida")
    assert letter["again"].startswith("Set high = 0")
    set_language(ta, small, "xx", status=422)
    assert class_card(ta, small)["language"] == "en"


def test_a_letter_in_another_language(ta: Client) -> None:
    small = Small(ta, SPEC + SEE_ALL).hand_in(tomo_arakida=WRONG, osk_lindqvist="module sluice(")
    set_language(ta, small, "de")
    try:
        key = next(c["key"] for c in small.clusters() if c["kind"] == "wrong")
        draft = ta.get(f"/tasks/{small.task}/drafts/{key}")["text"]
        assert draft.startswith("{name}, {right} von {total} Fällen sind richtig. warn ist immer dann falsch")
        assert "{when}" in draft and "[Sieh dir {line} an.]" in draft
        ta.send("PUT", f"/tasks/{small.task}/comments/{key}", {"text": draft, "version": 0})
        letter = small.letter("Tomo Arakida")
        assert "Tomo, 2 von 4 Fällen sind richtig." in letter["comment"]
        assert "wenn gilt high gleich wide" in letter["comment"] and "Sieh dir Zeile " in letter["comment"]
        assert letter["again"] == "Setze high = 0, wide = 0: warn soll 0 sein und ist 1."
        unread = small.letter("Osk Lindqvist")
        assert unread["held"] == "lässt sich nicht übersetzen" and unread["mark"] is None
    finally:
        set_language(ta, small, "en")


def test_what_was_released_stays_as_it_was(ta: Client) -> None:
    """Its own words are frozen with a letter."""
    small = Small(ta, SPEC + SEE_ALL).hand_in(tomo_arakida=WRONG)
    ta.send("POST", f"/labs/{small.lab}/release", {})
    set_language(ta, small, "de")
    try:
        for _ in range(100):
            mails = [m for m in ta.get("/mailbox") if "tomo.arakida" in m["to"]]
            if mails:
                break
            time.sleep(0.1)
        link = mails[0]["text"].partition("/page/")[2].split()[0]
        head = ta.get(f"/page/{link}")
        assert head["language"] == "en" and head["words"]["open-letter"] == "Open my letter"
    finally:
        set_language(ta, small, "en")
