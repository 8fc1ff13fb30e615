"""Sentences by template: the same in every language, with none, one and many, kept and read again."""

from __future__ import annotations

import json
import pickle
import re
from typing import Any

import pytest

from obento.core.sentences.said import (
    ENGLISH,
    Said,
    any_of,
    as_data,
    every,
    from_data,
    in_language,
    languages,
    places,
    say,
    table,
    templates,
)

LONG = "a_very_long_name_that_somebody_gave_to_a_signal"
COUNTED = {"count", "total", "compared", "passed", "number"}
LISTED = re.compile(r"\{(\w+)[;*&/+~]\}")


def values_for(key: str, language: str, number: int, name: str) -> dict[str, Any]:
    """Something for every place of a template: numbers, names, lists of as many names."""
    template = templates(language)[key]
    lists = {m[1] for m in LISTED.finditer(template) if not m[0].endswith("*}")}
    times = {m[1] for m in re.finditer(r"\{(\w+)\*\}", template)}
    return {
        place: [name] * max(1, number) if place in lists else number if place in COUNTED | times else name
        for place in places(template)
    }


def test_there_is_more_than_one_language() -> None:
    assert languages()[0] == ENGLISH and len(languages()) > 1


@pytest.mark.parametrize("language", languages())
def test_a_language_has_every_template_with_the_same_places(language: str) -> None:
    ours, english = templates(language), templates(ENGLISH)
    assert ours.keys() == english.keys()
    assert [k for k in ours if places(ours[k]) != places(english[k])] == []
    assert all(text == text.strip() or key == "with" for key, text in ours.items())


@pytest.mark.parametrize("language", languages())
@pytest.mark.parametrize("number", [0, 1, 2, 3])
@pytest.mark.parametrize("name", ["y", LONG, "bits[3]"])
def test_every_template_with_none_one_and_many(language: str, number: int, name: str) -> None:
    for key in templates(language):
        said = in_language(Said(key, values_for(key, ENGLISH, number, name)), language)
        assert "{" not in said and "|" not in said and "  " not in said, (key, said)


@pytest.mark.parametrize(
    ("said", "english", "german"),
    [
        (say("goes-wrong", when="a = 1", count=1), "goes wrong whenever a = 1: once",
         "wird immer dann falsch, wenn gilt a = 1: einmal"),
        (say("goes-wrong", when="a = 1", count=5), "goes wrong whenever a = 1: 5 times",
         "wird immer dann falsch, wenn gilt a = 1: 5-mal"),
        (say("late", names=["p", "q", "r"], count=3), "p, q and r are one cycle late",
         "p, q und r kommen einen Takt zu spät"),
        (say("late", names=["p"], count=1), "p is one cycle late", "p kommt einen Takt zu spät"),
        (say("ignores", output="y", names=["a", "b"]), "y does not depend on a or b, and should",
         "y hängt nicht von a oder b ab und sollte es"),
        (say("wrong-whenever", output="y", count=2, total=4,
             when=every([say("is", name="a", value=1), say("grouped", part=any_of([
                 say("differs", a="b", b="c"), say("is", name="d", value=0)]))])),
         "y is wrong whenever a = 1 and (b differs from c or d = 0): 2 of 4",
         "y ist immer dann falsch, wenn gilt a = 1 und (b ungleich c oder d = 0): 2 von 4"),
    ],
)  # fmt: skip
def test_parts_of_a_sentence_are_in_its_language(said: Said, english: str, german: str) -> None:
    assert said == english and in_language(said, "de") == german and in_language(said, ENGLISH) == english


def test_a_sentence_is_kept_and_read_again() -> None:
    said = say("wrong-whenever", output="y", when=every([say("is", name="a", value=1), "b"]), count=1, total=2)
    data = json.loads(json.dumps(as_data(said)))
    for again in (from_data(str(said), data), pickle.loads(pickle.dumps(said))):
        assert again == said and in_language(again, "de") == in_language(said, "de") != said


@pytest.mark.parametrize("data", [None, ["no-such-template", {}], ["wrong", {"output": "z"}], "x", [1], {"said": 3}])
def test_what_was_said_otherwise_stays_the_text_that_it_was(data: object) -> None:
    assert from_data("y is wrong: 1 of 2", data) == "y is wrong: 1 of 2"
    assert in_language(from_data("y is wrong: 1 of 2", data), "de") == "y is wrong: 1 of 2"


def test_other_texts_stay_as_they_are() -> None:
    assert as_data("anything") is None and in_language("anything", "de") == "anything"
    assert every(["a"]) == "a" and any_of(["a"]) == "a"
    with pytest.raises(KeyError):
        templates("xx")
    assert table("mail", "de").keys() == table("mail", ENGLISH).keys()


def test_drafts_keep_their_placeholders() -> None:
    assert "{name}" in say("some-cases") and "{right}" in in_language(say("some-cases"), "de")
