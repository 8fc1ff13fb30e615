"""Mangled texts: whatever is thrown at the readers, the answer is an outcome with a message, never an exception."""

from __future__ import annotations

import random
import re
from pathlib import Path

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from obento.core.check.check import check_handin, open_spec
from obento.core.handin import HandinFile
from obento.core.limits import Limits
from obento.core.simulate import Options, simulate

ROOT = Path(__file__).resolve().parents[2]
LIMITS = Limits(deltas=100, loop_rounds=200, graph_nodes=200_000)
SPECS = [(ROOT / f"demo/lab1/{n}.toml").read_text() for n in ("interlock", "lamps")]
TEXTS = sorted(
    {
        p.read_text()
        for p in (ROOT / "demo/lab1").rglob("*")
        if p.suffix in (".v", ".vhd", ".wiring") and "lab1/drop" in p.as_posix()
    }
)
EXTRA = [
    "module",
    "function",
    "endfunction",
    "generate",
    "for",
    "(",
    ")",
    "begin",
    "end",
    "{",
    "}",
    "[",
    "]",
    ";",
    ",",
    "=",
    "<=",
    "assign",
    "reg",
    "wire",
    "4'b1x0z",
    "1'bz",
    "?",
    ":",
    "@",
    "*",
    "posedge",
    "#",
    "32'hffffffff\n==",
    "===",
    "~",
    "^",
    "|",
    "$signed",
    "`define",
    "`X",
    "\\esc",
    "if",
    "else",
    "case",
    "endcase",
    "<-",
    "takes",
    "gives",
    "wiring",
    "select",
    "..",
    "table'''",
    '""',
    "99999999999",
    "-1",
    "é",
    "\x00",
    "process",
    "is",
    "downto",
    "when",
    "others",
    "=>",
    ":=",
    "signal",
    "variable",
    "'event",
    "'range",
    "std_logic",
    "integer",
    'x"FF"',
    "'1'",
    "end process;",
    "architecture",
]


def mangled(text: str, seed: int) -> str:
    source = random.Random(seed)
    words = re.findall(r"\w+|\s+|[^\w\s]", text)
    for _ in range(source.randrange(1, 5)):
        at = source.randrange(len(words))
        match source.randrange(4):
            case 0:
                del words[at]
            case 1:
                words.insert(at, source.choice(EXTRA))
            case 2:
                words[at] = source.choice(words)
            case _:
                words[at:at] = words[max(0, at - source.randrange(30)) : at]
        words = words or [" "]
    return "".join(words)


@settings(max_examples=150, deadline=None, suppress_health_check=list(HealthCheck))
@given(st.integers(0, 10**9))
def test_mangled_hand_ins(seed: int) -> None:
    text = TEXTS[seed % len(TEXTS)]
    spec = SPECS["draught" in text]
    loaded = open_spec("s.toml", spec.encode(), {})
    assert loaded.expectation is not None
    name = "a.wiring" if "wiring " in text else "a.vhd" if "entity " in text else "a.v"
    checked = check_handin(
        loaded.expectation, [HandinFile(name, mangled(text, seed).encode("utf-8", "replace"))], limits=LIMITS
    )
    assert checked.status == "checked" or any(m.severity == "error" for m in checked.messages)


@settings(max_examples=120, deadline=None, suppress_health_check=list(HealthCheck))
@given(st.integers(0, 10**9))
def test_mangled_specs(seed: int) -> None:
    loaded = open_spec("s.toml", mangled(SPECS[seed % 2], seed).encode("utf-8", "replace"), {}, LIMITS)
    assert loaded.expectation is not None or any(m.severity == "error" for m in loaded.messages)


BENCHES = sorted(p.read_text() for p in (ROOT / "tests/conformance").rglob("*.v*"))
TIGHT = Limits(
    deltas=300, loop_rounds=2_000, time_steps=300, output_bytes=20_000, forks=100, call_depth=40, constant_steps=20_000
)


@settings(max_examples=150, deadline=None, suppress_health_check=list(HealthCheck))
@given(st.sampled_from(BENCHES), st.integers(0, 1 << 30))
def test_a_mangled_bench_ends_with_an_outcome(text: str, seed: int) -> None:
    """Whatever a bench asks for, a run of it ends, and says why."""
    printed: list[str] = []
    name = "a.vhd" if "entity " in text else "a.v"
    outcome = simulate([HandinFile(name, mangled(text, seed).encode())], printed.append, Options(), TIGHT)
    assert outcome.status in (0, 1, 2, 3)
    assert outcome.status != 2 or outcome.messages
