"""Every program of this folder does what its clause says."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from scripts.conformance import table

from obento.core import values
from obento.core.check.check import open_spec
from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits, for_simulation
from obento.core.sim.timeline.kernel import Timeline
from obento.core.simulate import Options, simulate
from tests.conformance.programs import Program, programs

ROOT = Path(__file__).resolve().parents[2]


def name(program: Program) -> str:
    return program.path.name


@pytest.mark.parametrize("program", [*programs("verilog"), *programs("vhdl")], ids=name)
def test_prints_or_refuses_what_the_clause_says(program: Program) -> None:
    printed: list[str] = []
    file = HandinFile(program.path.name, program.text.encode())
    outcome = simulate([file], printed.append, Options(), for_simulation(100_000))
    assert "".join(printed).splitlines() == program.wanted, [str(m) for m in outcome.messages]
    program.check_messages(outcome.messages)
    if not program.marks:
        assert outcome.status == (1 if "exit 1" in program.head else 0), [str(m) for m in outcome.messages]


@pytest.mark.parametrize("program", programs("wiring"), ids=name)
def test_a_wiring_list_gives_these_outputs(program: Program) -> None:
    reading = read_handin([HandinFile(program.path.name, program.text.encode())], Limits())
    used = {n for u in reading.units.values() for n in u.uses}
    tops = [n for n in reading.units if n not in used]
    design = reading.elaborate(tops[-1]) if tops and not reading.collector.errors else None
    program.check_messages(reading.messages())
    if not program.wanted:
        return
    assert design is not None
    timeline = Timeline(design, Limits())
    timeline.power_up()
    inputs = [p for p in design.ports if p.direction == "in"]
    for row in program.wanted:
        given, _, outputs = row.partition("|")
        words = zip(inputs, given.split(), strict=True)
        timeline.apply({p.name: values.from_digits(digits) for p, digits in words})
        shown = [values.to_digits(timeline.value(p.name), p.signal.width) for p in design.ports if p.direction != "in"]
        assert shown == outputs.split(), row


def rows(e: Expectation) -> list[str]:
    """Every case or step: inputs, and what is expected."""
    found = []
    for case in range(e.cases.count):
        inputs: list[str] = []
        bit = 0
        for p in e.spec.inputs:
            is_clock = e.cases.stimulus is not None and e.spec.clock is not None and p.name == e.spec.clock.port
            shown = p.show(e.cases.word(case, bit, p.width))
            inputs.append(e.cases.stimulus.actions[case] if is_clock and e.cases.stimulus is not None else shown)
            bit += p.width
        outputs = [p.show(*expected_word(e, p.name, p.width, case)) for p in e.spec.outputs]
        found.append(f"{' '.join(inputs)} | {' '.join(outputs)}")
    return found


@pytest.mark.parametrize("program", programs("spec"), ids=name)
def test_a_spec_means_these_cases(program: Program) -> None:
    loaded = open_spec("s.toml", program.text.encode(), {})
    program.check_messages(loaded.messages)
    if program.wanted:
        assert loaded.expectation is not None and rows(loaded.expectation) == program.wanted


@pytest.mark.parametrize("language", ["verilog", "vhdl", "wiring", "spec"])
def test_every_program_names_its_clause_and_asks_for_something(language: str) -> None:
    names = {"verilog": r"// IEEE (1364|1800)-\d{4} clause [\d.]+", "vhdl": r"-- IEEE (1076|1164)",
             "wiring": r"// wiring lists, \w+: ", "spec": r"# spec files, \w+: "}  # fmt: skip
    for program in programs(language):
        assert re.match(names[language], program.head), name(program)
        assert program.wanted or program.marks or "passed over" in program.head, name(program)


def test_the_table_of_clauses_is_that_of_the_programs() -> None:
    """docs/conformance.md is made by scripts/conformance.py."""
    assert (ROOT / "docs/conformance.md").read_text(encoding="utf-8") == table()
