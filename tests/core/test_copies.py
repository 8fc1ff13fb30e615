"""What decides where several files of a hand-in hold the same unit."""

from __future__ import annotations

from pathlib import Path

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Checked
from obento.core.copies import looks_like_copy
from obento.core.handin import HandinFile
from obento.core.limits import Limits
from obento.core.simulate import ENDED, UNREADABLE, Options, simulate

SPEC = b"""obento = "spec/1"
unit = "pass_gate"
[ports]
in = "shut ready"
out = "go"
[expect]
equations = "go = shut & ready"
"""
RIGHT = {
    "vhd": (
        "library ieee; use ieee.std_logic_1164.all;\nentity pass_gate is port (shut, ready : in std_logic; go : out"
        " std_logic); end;\narchitecture rtl of pass_gate is begin go <= shut and ready; end;\n"
    ),
    "v": "module pass_gate(input shut, ready, output go);\n  assign go = shut & ready;\nendmodule\n",
    "wiring": "wiring pass_gate\n  takes shut, ready\n  gives  go\ngo <- and(shut, ready)\nend\n",
}
WRONG = {
    kind: (
        text.replace("shut and ready", "shut or ready").replace("shut & ready;", "shut | ready;").replace("and(", "or(")
    )
    for kind, text in RIGHT.items()
}
LANGUAGES = list(RIGHT)


def expectation() -> Expectation:
    found = open_spec("spec.toml", SPEC, {}).expectation
    assert found is not None
    return found


def check(files: dict[str, str], choices: dict[str, str] | None = None) -> Checked:
    return check_handin(expectation(), [HandinFile(p, t.encode()) for p, t in files.items()], (), None, choices or {})


def passed(c: Checked) -> int:
    assert c.status == "checked" and c.verdict is not None, [str(m) for m in c.messages]
    return c.verdict.right.bit_count()


def codes(c: Checked) -> set[str]:
    return {m.code for m in c.messages}


BESIDE = [
    "pass_gate.{}.bak",
    "pass_gate.{}~",
    "pass_gate.{}.old",
    "pass_gate.{}.orig",
    "copy of pass_gate.{}",
    "Kopie von pass_gate.{}",
    "pass_gate - Copy.{}",
    "pass_gate (copy).{}",
    "pass_gate_old.{}",
    "zz_backup.{}",
    "old/pass_gate.{}",
    "backup 2/pass_gate.{}",
    "history/pass_gate.{}",
    "__last/zz.{}",
    "zz/.cache/pass_gate.{}",
    "tmp/zz.{}",
    "pass_gate.txt",
    ".pass_gate.{}.swp",
]


@pytest.mark.parametrize("kind", LANGUAGES)
@pytest.mark.parametrize("beside", BESIDE)
def test_a_copy_beside_the_hand_in_decides_nothing(kind: str, beside: str) -> None:
    for theirs, score in ((RIGHT, 4), (WRONG, 2)):
        other = WRONG if theirs is RIGHT else RIGHT
        c = check({f"pass_gate.{kind}": theirs[kind], beside.format(kind): other[kind]})
        assert passed(c) == score and not any(m.severity != "note" for m in c.messages)
        if not beside.startswith((".", "zz/.")):  # what is hidden is passed over anyway
            assert any(m.code == "left-out" and beside.format(kind) in m.text for m in c.messages)


@pytest.mark.parametrize("kind", LANGUAGES)
@pytest.mark.parametrize("path", ["pass_gate.{}.bak", "old/pass_gate.{}", "pass_gate_old.{}", "copy of pass_gate.{}"])
def test_a_copy_is_read_with_a_warning_where_only_it_holds_the_unit(kind: str, path: str) -> None:
    helper = "module latch_of(input d, output q); assign q = d; endmodule"
    for others in ({}, {"latch_of.v": helper}):
        c = check({path.format(kind): RIGHT[kind], **others})
        assert passed(c) == 4
        assert any(m.severity == "warning" and path.format(kind) in m.text for m in c.messages)


def test_a_copy_gives_only_what_is_missing() -> None:
    entity, architecture = RIGHT["vhd"].split("architecture", 1)
    c = check({"pass_gate.vhd": entity, "pass_gate.vhd.bak": WRONG["vhd"]})
    assert passed(c) == 2 and "wrong-suffix" in codes(c)  # the architecture stands in the copy alone
    c = check(
        {"pass_gate.vhd": RIGHT["vhd"], "old/both.vhd": WRONG["vhd"] + RIGHT["vhd"].replace("pass_gate", "spare")}
    )
    assert passed(c) == 4 and "copy-read" in codes(c)  # `spare` is new, `pass_gate` is not
    assert architecture


def test_a_unit_may_be_named_like_a_copy() -> None:
    for kind, word in (("v", "module"), ("vhd", "entity"), ("wiring", "wiring")):
        assert not looks_like_copy(f"shift_copy.{kind}", True, f"{word} shift_copy")
        assert looks_like_copy(f"shift_copy.{kind}", True, f"{word} shift")
    for name in ("copy.v", "gold.v", "threshold.v", "unit (1).vhd", "bold/unit.v", "template.v", "holder.vhd"):
        assert not looks_like_copy(name, True, "")


@pytest.mark.parametrize("kind", LANGUAGES)
def test_two_files_of_good_names_are_asked(kind: str) -> None:
    files = {f"a/pass_gate.{kind}": RIGHT[kind], f"b/pass_gate.{kind}": WRONG[kind]}
    c = check(files)
    assert c.status == "no_unit" and c.verdict is None
    assert c.twice == {"pass_gate": list(files)}
    (told,) = [m for m in c.messages if m.code == "unit-twice"]
    assert all(path in told.text for path in files)
    for path, score in zip(files, (4, 2), strict=True):
        chosen = check(files, {"@file:pass_gate": path})
        assert passed(chosen) == score and not chosen.twice
    assert passed(check({**files, f"b/pass_gate.{kind}": RIGHT[kind] + "\n"})) == 4  # word for word the same
    assert check(files, {"@file:pass_gate": "c/gone." + kind}).status == "no_unit"


def test_another_unit_that_stands_twice_is_not_asked_for() -> None:
    other = {
        name: "module spare(input clk, output [3:0] n); assign n = " + value + "; endmodule"
        for name, value in (("a.v", "1"), ("b.v", "2"))
    }
    c = check(other)
    assert c.status == "no_unit" and not c.twice and "no-unit" in codes(c)
    only = {name: text.replace("pass_gate", "mine") for name, text in (("a.v", RIGHT["v"]), ("b.v", WRONG["v"]))}
    assert set(check(only).twice) == {"mine"}  # the only unit, and with our ports


def test_two_languages_are_asked_too() -> None:
    c = check({"pass_gate.v": RIGHT["v"], "pass_gate.vhd": WRONG["vhd"]})
    assert c.status == "no_unit" and c.twice == {"pass_gate": ["pass_gate.v", "pass_gate.vhd"]}
    assert (
        passed(check({"pass_gate.v": RIGHT["v"], "pass_gate.vhd": WRONG["vhd"]}, {"@file:pass_gate": "pass_gate.vhd"}))
        == 2
    )


def test_what_lies_beside_a_chosen_file_goes_with_it() -> None:
    def parts(folder: str, op: str) -> dict[str, str]:
        top = "module pass_gate(input shut, ready, output go); inner u(shut, ready, go); // " + folder + "\nendmodule\n"
        inner = f"module inner(input a, b, output y); assign y = a {op} b; endmodule\n"
        return {f"{folder}/pass_gate.v": top.replace("//", "/* ").replace("\n", " */\n", 1), f"{folder}/inner.v": inner}

    files = parts("first", "|") | parts("second", "&")
    c = check(files)
    assert set(c.twice) == {"pass_gate", "inner"}
    assert passed(check(files, {"@file:pass_gate": "second/pass_gate.v"})) == 4
    assert passed(check(files, {"@file:pass_gate": "second/pass_gate.v", "@file:inner": "first/inner.v"})) == 2


def test_architectures_in_several_files() -> None:
    entity, right = RIGHT["vhd"].split("architecture", 1)
    files = {
        "entity.vhd": entity,
        "one.vhd": f"architecture{right}",
        "two.vhd": f"architecture{right}".replace(" and ", " or ").replace("rtl", "draft"),
    }
    c = check(files)
    assert c.status == "no_unit" and c.twice == {"pass_gate": ["one.vhd", "two.vhd"]}
    assert [passed(check(files, {"@file:pass_gate": p})) for p in ("one.vhd", "two.vhd")] == [4, 2]
    named = {**files, "chosen.vhd": "configuration c of pass_gate is for rtl end for; end;"}
    assert passed(check(named)) == 4  # IEEE 1076 3.4: the configuration says which
    one_file = {"entity.vhd": entity + files["two.vhd"] + files["one.vhd"]}
    assert passed(check(one_file)) == 4  # in one file the last one counts (7.3.3)


def test_an_instance_that_names_its_architecture_asks_nothing() -> None:
    entity, right = (text.replace("pass_gate", "inner") for text in RIGHT["vhd"].split("architecture", 1))
    top = RIGHT["vhd"].replace("go <= shut and ready;", "u : entity work.inner{} port map (shut, ready, go);")
    beside = {
        "e.vhd": entity,
        "one.vhd": f"architecture{right}",
        "two.vhd": f"architecture{right}".replace(" and ", " or ").replace("rtl", "draft"),
    }
    assert passed(check({"pass_gate.vhd": top.format("(rtl)"), **beside})) == 4
    assert passed(check({"pass_gate.vhd": top.format("(draft)"), **beside})) == 2
    assert set(check({"pass_gate.vhd": top.format(""), **beside}).twice) == {"inner"}


def test_packages_that_stand_twice_are_asked_where_they_are_used() -> None:
    package = (
        "library ieee; use ieee.std_logic_1164.all; package kit is constant on_value : std_logic := '{}'; end"
        " package;\n"
    )
    top = (
        RIGHT["vhd"]
        .replace("entity pass_gate", "use work.kit.all; entity pass_gate")
        .replace("shut and ready", "shut and ready and on_value")
    )
    files = {"a.vhd": package.format(1), "b.vhd": package.format(0)}
    assert set(check({"pass_gate.vhd": top, **files}).twice) == {"kit"}
    assert passed(check({"pass_gate.vhd": top, **files}, {"@file:kit": "a.vhd"})) == 4
    assert passed(check({"pass_gate.vhd": RIGHT["vhd"], **files})) == 4


def test_twice_in_one_file_stays_a_mistake() -> None:
    c = check({"pass_gate.v": RIGHT["v"] + WRONG["v"]})
    assert c.status == "unreadable" and "duplicate" in codes(c)


def test_simulation_takes_no_copy_and_asks_too() -> None:
    bench = (
        'module bench; reg a, b; wire y; pass_gate u(a, b, y); initial begin a = 1; b = 0; #1 $display("%b", y); end'
        " endmodule"
    )

    def run(files: dict[str, str]) -> tuple[int, str, list[str]]:
        printed: list[str] = []
        outcome = simulate([HandinFile(p, t.encode()) for p, t in files.items()], printed.append, Options(), Limits())
        return outcome.status, "".join(printed), [m.code for m in outcome.messages]

    status, printed, _ = run({"bench.v": bench, "pass_gate.v": RIGHT["v"], "pass_gate.v.bak": WRONG["v"]})
    assert status == ENDED and printed.strip() == "0"
    status, _, told = run({"bench.v": bench, "a.v": RIGHT["v"], "b.v": WRONG["v"]})
    assert status == UNREADABLE and "unit-twice" in told


def test_the_command_line_names_both(tmp_path: Path, capfd: pytest.CaptureFixture[str]) -> None:
    from obento.cli.main import main

    (tmp_path / "spec.toml").write_bytes(SPEC)
    folder = tmp_path / "somebody"
    folder.mkdir()
    (folder / "one.v").write_text(RIGHT["v"])
    (folder / "two.v").write_text(WRONG["v"])
    (folder / "one.v.bak").write_text(WRONG["v"])
    with pytest.raises(SystemExit) as ended:
        main(["check", str(tmp_path / "spec.toml"), str(folder)])
    assert ended.value.code == 1
    out = capfd.readouterr().out
    assert "one.v" in out and "two.v" in out
    assert "somebody: left out, as copies of what is handed in beside them: one.v.bak" in out
