"""Each .vhd file in `vhdl/` names the clause of IEEE 1076 (or 1164, 1076.3) it rests on and says in lines `--> ...`
what it prints."""

from __future__ import annotations

from pathlib import Path

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.simulate import Options, simulate

FILES = sorted((Path(__file__).parent / "vhdl").glob("*.vhd"))


@pytest.mark.parametrize("path", FILES, ids=lambda p: p.name)
def test_prints_what_the_clause_says(path: Path) -> None:
    text = path.read_text(encoding="utf-8")
    expected = [line.removeprefix("-->").removeprefix(" ") for line in text.splitlines() if line.startswith("-->")]
    printed: list[str] = []
    outcome = simulate([HandinFile(path.name, text.encode())], printed.append, Options(), for_simulation(100_000))
    assert "".join(printed).splitlines() == expected, [str(m) for m in outcome.messages]
    assert outcome.status == (1 if "exit 1" in text.splitlines()[0] else 0), [str(m) for m in outcome.messages]
    assert "clause" in text.splitlines()[0] or "1164" in text.splitlines()[0], "name the clause"
