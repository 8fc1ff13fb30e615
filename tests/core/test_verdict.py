"""The verdict on every case, held against one that looks at each case alone."""

from __future__ import annotations

import random

import pytest

from obento.core import values
from obento.core.check.check import open_spec
from obento.core.check.expectation.model import Expectation, Key, Planes
from obento.core.check.judging.verdict import OutputVerdict, Verdict, judge, shown_word, wanted
from obento.core.check.running.observation import Observation, Run
from obento.core.planes import set_bits
from obento.core.spec.model import SpecPort

SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "a[4]"
out = "y z[2]"
[expect]
equations = '''
y = a[0]
z = a[1..0]
'''
"""
KEYS: list[Key] = [("y", 0), ("z", 0), ("z", 1)]
COUNT = 16


def expectation() -> Expectation:
    loaded = open_spec("s.toml", SPEC.encode(), {})
    assert loaded.expectation is not None
    return loaded.expectation


def random_expectation(source: random.Random) -> Expectation:
    """Any values, of 0 and 1 and sometimes x, any of them compared."""
    of = expectation()
    for key in KEYS:
        one, zero = source.getrandbits(COUNT), source.getrandbits(COUNT)
        if source.random() < 0.7:
            zero = ~one & of.cases.full
        of.bits[key] = Planes(one, zero, source.getrandbits(COUNT) | source.getrandbits(COUNT))
    return of


def random_run(source: random.Random, name: str, of: Expectation) -> Run:
    """Mostly what is wanted, with a few digits turned to something else."""
    outputs = {}
    for key in KEYS:
        one, zero = of.bits[key].one, of.bits[key].zero
        turned = source.getrandbits(COUNT) & source.getrandbits(COUNT) & source.getrandbits(COUNT)
        outputs[key] = (one ^ turned & source.getrandbits(COUNT), zero ^ turned & source.getrandbits(COUNT))
    stopped = source.getrandbits(COUNT) & source.getrandbits(COUNT) & source.getrandbits(COUNT)
    return Run(name, outputs, stopped & source.getrandbits(COUNT))


def digit(plane: tuple[int, int], case: int) -> tuple[int, int]:
    return plane[0] >> case & 1, plane[1] >> case & 1


def alone(of: Expectation, runs: list[Run], case: int) -> tuple[str, str]:
    """The cell of one case and the run it is shown for: the first run that is wrong decides."""
    compared = [k for k in KEYS if of.bits[k].care >> case & 1]
    if not compared:
        return "n", "fresh"
    for run in runs:
        if run.stopped >> case & 1:
            return "s", run.name
        cell = ""
        for key in compared:
            want = digit((of.bits[key].one, of.bits[key].zero), case)
            got = digit(run.outputs[key], case)
            if want == got:
                continue
            is_open = want[0] != want[1] and got[0] == got[1]
            cell = "f" if not is_open else cell or "u"
        if cell:
            return cell, run.name
    return "p", "fresh"


@pytest.mark.parametrize("seed", range(80))
def test_each_case_is_judged_as_if_alone(seed: int) -> None:
    source = random.Random(seed)
    of = random_expectation(source)
    runs = [random_run(source, name, of) for name in ("fresh", "after a[0]", "after a[3]")]
    verdict = judge(of, Observation(runs, "levelized"))
    got = [(cell, verdict.run_of(i)) for i, cell in enumerate(verdict.cells())]
    assert got == [alone(of, runs, case) for case in range(COUNT)]


def test_planes_part_the_cases() -> None:
    source = random.Random(9)
    of = random_expectation(source)
    verdict = judge(of, Observation([random_run(source, "fresh", of)], "levelized"))
    parts: list[Verdict | OutputVerdict] = [verdict, *verdict.outputs.values()]
    for part in parts:
        planes = [part.passed, part.failed, part.undefined, part.not_compared, part.stopped]
        assert sum(p.bit_count() for p in planes) == COUNT
        together = 0
        for plane in planes:
            together |= plane
        assert together == of.cases.full
    assert verdict.right == verdict.passed | verdict.not_compared
    assert verdict.digits() == "".join("1" if c in "pn" else "0" for c in verdict.cells())


def right_run(of: Expectation, name: str = "fresh") -> Run:
    return Run(name, {k: (b.one, b.zero) for k, b in of.bits.items()})


def clustered(of: Expectation, *runs: Run) -> str:
    return judge(of, Observation(list(runs), "levelized")).cluster


def test_a_cluster_is_what_behaves_alike_where_it_is_compared() -> None:
    of = expectation()
    of.bits["y", 0] = Planes(of.bits["y", 0].one, of.bits["y", 0].zero, 0xFF00)
    right = right_run(of)
    elsewhere, there = right_run(of), right_run(of)
    one, zero = right.outputs["y", 0]
    elsewhere.outputs["y", 0] = (one ^ 0x0010, zero ^ 0x0010)
    there.outputs["y", 0] = (one ^ 0x0100, zero ^ 0x0100)
    assert clustered(of, right) == clustered(of, elsewhere), "what is not compared does not part"
    assert clustered(of, right) != clustered(of, there)
    unknown = right_run(of)
    unknown.outputs["y", 0] = (one & ~0x0100, zero & ~0x0100)
    assert clustered(of, there) != clustered(of, unknown)


def test_a_mistake_from_a_neighbour_is_another_cluster_than_one_from_power_up() -> None:
    of = expectation()
    astray = right_run(of, "after a[2]")
    one, zero = astray.outputs["y", 0]
    astray.outputs["y", 0] = (one ^ 2, zero ^ 2)
    at_once = Run("fresh", astray.outputs)
    assert clustered(of, right_run(of), astray) != clustered(of, at_once)
    assert clustered(of, right_run(of), right_run(of, "after a[2]")) == clustered(of, right_run(of))


def test_what_is_shown_is_of_the_run_that_went_wrong() -> None:
    of = expectation()
    astray = right_run(of, "after a[2]")
    one, zero = astray.outputs["z", 1]
    astray.outputs["z", 1] = (one ^ 0b1000, zero ^ 0b1000)
    verdict = judge(of, Observation([right_run(of), astray], "event-driven"))
    port = SpecPort("z", "out", 2, 1, 0, False, "bin")
    assert [values.to_digits(shown_word(verdict, port, c), 2) for c in (2, 3)] == ["10", "01"]
    assert (verdict.run_of(2), verdict.run_of(3)) == ("fresh", "after a[2]")


def test_what_follows_an_open_step_is_as_it_was_seen() -> None:
    """`=` and `!` after a step that is not compared: the hand-in's own value, or its opposite."""
    of = expectation()
    of.bits["y", 0] = Planes(0, 0, 0, {4: (3, False), 5: (3, True)})
    seen = dict.fromkeys(KEYS, (0, 0))
    for digit_seen, same, turned in [((1, 0), (1, 0), (0, 1)), ((0, 1), (0, 1), (1, 0)), ((0, 0), (0, 0), (1, 0))]:
        seen["y", 0] = (digit_seen[0] << 3, digit_seen[1] << 3)
        found = wanted(of, seen)["y", 0]
        assert digit((found.one, found.zero), 4) == same
        assert digit((found.one, found.zero), 5) == turned, "the opposite of x is nothing to be right with"
        assert found.care == 0b110000


def test_set_bits_are_in_order() -> None:
    assert set_bits(0) == []
    assert set_bits(0b1011 << 200) == [200, 201, 203]


def test_no_case_is_no_trouble() -> None:
    assert Verdict(0, {}, {}, {}).cells() == ""
