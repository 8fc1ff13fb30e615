"""The first message of each of the commonest slips is its cause, at its line, with what to do."""

from __future__ import annotations

import pytest
from scripts.messages import PAGE, page

from tests.slips.slips import LANGUAGES, Slip, read

SLIPS = [slip for language in LANGUAGES for slip in read(language)]
MOST_MESSAGES = 4


@pytest.mark.parametrize("slip", SLIPS, ids=lambda slip: f"{slip.language}: {slip.title}")
def test_the_first_message_is_the_cause(slip: Slip) -> None:
    found = slip.messages()
    if slip.is_error:
        assert found and found[0].line == slip.line, [str(m) for m in found]
        assert len(found) <= MOST_MESSAGES, [str(m) for m in found]
    else:
        assert any(m.line == slip.line for m in found), [str(m) for m in found]


def test_no_slip_stands_twice() -> None:
    keys = [(slip.language, slip.title) for slip in SLIPS]
    assert len(set(keys)) == len(keys)


def test_the_page_of_messages_is_what_is_said() -> None:
    assert PAGE.read_text(encoding="utf-8") == page(), "python -m scripts.messages writes it"
