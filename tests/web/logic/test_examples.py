"""The texts that a spec can begin with (features/spec/examples.ts): each is right as it stands."""

from __future__ import annotations

import pytest

from obento.core.check.check import open_spec
from tests.web.logic.conftest import Logic

KINDS = ["equations", "table", "words", "function", "steps"]


@pytest.mark.parametrize("kind", KINDS)
def test_an_example_is_a_spec_without_a_fault(logic: Logic, kind: str) -> None:
    title = 'Gates "and" lamps'
    text = logic.run(
        "return logic.examples.exampleText(logic.examples.EXAMPLES.find((e) => e.key === a[0]), a[1])", kind, title
    )
    loaded = open_spec("spec.toml", text.encode(), {})
    assert [m.text for m in loaded.messages if m.severity != "note"] == []
    assert loaded.expectation is not None
    assert loaded.expectation.spec.title == title and loaded.expectation.spec.unit == "my_unit"


def test_every_example_is_looked_at(logic: Logic) -> None:
    assert logic.run("return logic.examples.EXAMPLES.map((e) => e.key)") == KINDS
