"""The command line, as a person calls it."""

from __future__ import annotations

import csv
import io
import json
import os
import subprocess
import sys
import xml.etree.ElementTree as ElementTree
import zipfile
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]
SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "a b"
out = "y"
[expect]
equations = "y = a & b"
"""
RIGHT = "module m(input a, b, output y); assign y = a & b; endmodule\n"
WRONG = "module m(input a, b, output y); assign y = a | b; endmodule\n"


def obento(*arguments: str, cwd: Path) -> subprocess.CompletedProcess[str]:
    env = os.environ | {"PYTHONPATH": str(ROOT / "src"), "COLUMNS": "160"}
    return subprocess.run(
        [sys.executable, "-m", "obento", *arguments], cwd=cwd, env=env, capture_output=True, text=True, timeout=120
    )


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    (tmp_path / "spec.toml").write_text(SPEC)
    (tmp_path / "class/right").mkdir(parents=True)
    (tmp_path / "class/right/m.v").write_text(RIGHT)
    (tmp_path / "class/wrong.v").write_text(WRONG)
    (tmp_path / "class/nothing").mkdir()
    return tmp_path


def test_exit_status_says_how_it_went(folder: Path) -> None:
    assert obento("check", "spec.toml", "class/right", cwd=folder).returncode == 0
    assert obento("check", "spec.toml", "class/wrong.v", cwd=folder).returncode == 1
    assert obento("check", "missing.toml", "class/right", cwd=folder).returncode == 2
    (folder / "bad.toml").write_text(SPEC.replace("a & b", "a & q"))
    bad = obento("check", "bad.toml", "class/right", cwd=folder)
    assert bad.returncode == 2 and "bad.toml:7:22: error: there is no port or inner name `q`" in bad.stderr
    assert obento("check", "spec.toml", "nowhere", cwd=folder).returncode == 2


def test_a_batch_with_every_output_file(folder: Path) -> None:
    done = obento(
        "check",
        "spec.toml",
        "class",
        "--batch",
        "--json",
        "o.json",
        "--csv",
        "o.csv",
        "--junit",
        "o.xml",
        "--tap",
        "o.tap",
        "--jobs",
        "2",
        cwd=folder,
    )
    assert done.returncode == 1 and "1 of 3 right on all 4 cases" in done.stdout
    data = json.loads((folder / "o.json").read_text())
    assert {h["name"]: h["status"] for h in data["handins"]} == {
        "nothing": "empty",
        "right": "checked",
        "wrong": "checked",
    }
    rows = list(csv.DictReader(io.StringIO((folder / "o.csv").read_text())))
    assert [r["cells"] for r in rows if r["name"] == "wrong"] == ["pffp"]
    suites = {s.get("name"): s for s in ElementTree.parse(folder / "o.xml").getroot()}
    assert suites["wrong"].get("failures") == "2" and len(suites["wrong"]) == 2
    tap = (folder / "o.tap").read_text().splitlines()
    assert tap[-1] == "1..9" and sum(line.startswith("not ok") for line in tap) == 3


def test_a_zip_with_traps(folder: Path) -> None:
    with zipfile.ZipFile(folder / "drop.zip", "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("../evil.v", RIGHT)
        archive.writestr("bomb/big.v", b" " * 7_000_000)
        archive.writestr("=cmd()/m.v", WRONG)
        archive.writestr("<script>alert(1)</script>.v", RIGHT)
        inner = io.BytesIO()
        with zipfile.ZipFile(inner, "w") as z:
            z.writestr("deep/m.v", RIGHT)
        archive.writestr("packed.zip", inner.getvalue())
    done = obento("check", "spec.toml", "drop.zip", "--batch", "--csv", "o.csv", cwd=folder)
    assert done.returncode == 1 and "../evil.v" in done.stderr and "bomb/big.v" in done.stderr
    rows = {r["name"]: r["status"] for r in csv.DictReader(io.StringIO((folder / "o.csv").read_text()))}
    assert rows["packed"] == "checked" and rows["'=cmd()"] == "checked"
    assert not (folder.parent / "evil.v").exists()


BENCH = """`timescale 1ns/1ns
module t;
  reg [7:0] m [0:1]; reg clk = 0; integer f;
  always #5 clk = ~clk;
  initial begin
    $readmemh("start.hex", m);
    f = $fopen("../out/log.txt", "w"); $fdisplay(f, "%h", m[1]);
    $display("%h <b>", m[0]);
    #40 $finish;
  end
endmodule
"""


def test_simulate_prints_what_the_bench_prints_and_nothing_else(tmp_path: Path) -> None:
    (tmp_path / "t.v").write_text(BENCH)
    (tmp_path / "start.hex").write_text("1f 2e")
    done = obento("simulate", "t.v", "start.hex", "--vcd", "w.vcd", "--files", "kept", cwd=tmp_path)
    assert (done.returncode, done.stdout) == (0, "1f <b>\n")
    assert (tmp_path / "kept/log.txt").read_text() == "2e\n"  # by its last name only: no way out of the folder
    dump = (tmp_path / "w.vcd").read_text()
    assert "$timescale 1ns $end" in dump and "$var reg 1 ! clk $end" in dump and dump.endswith("#35\n1!\n#40\n0!\n")


@pytest.mark.parametrize(
    ("text", "status", "said"),
    [
        ("module t; initial $display(1 2); endmodule", 2, "t.v:1:30: error:"),
        ('module t; initial $fatal(1, "no"); endmodule', 1, ""),
        ("module t; reg c = 0; always #5 c = ~c; endmodule", 3, "does the bench ever end"),
        ("module t; reg c = 0; always @(c) c <= ~c; initial c = 1; endmodule", 3, "t.v:1:22: error: time stands still"),
        (
            "module t; integer i = 0; initial while (1) i = i + 1; endmodule",
            3,
            "t.v:1:34: error: this loop ran more than",
        ),
        ('module t; initial forever $display("x"); endmodule', 3, "t.v:1:27: error: the bench prints more than"),
        (
            "module t; function automatic f(input n); f = f(n); endfunction initial $display(f(1)); endmodule",
            3,
            "calls nest deeper than",
        ),
        ("module t; initial forever #0; endmodule", 3, "t.v:1:11: error: time stands still"),
        ("module t; task automatic f; fork f; f; join endtask initial f; endmodule", 3, "activities run side by side"),
        ("module t; reg [99999999:0] a; endmodule", 2, "t.v:1:15: error:"),
        (
            "module t; genvar i; for (i = 0; i < 9999999; i = i + 1) wire w; endmodule",
            2,
            "this generate loop runs more than",
        ),
        ("module t; t u(); endmodule", 2, "no module or entity to begin with"),
    ],
)
def test_simulate_ends_every_runaway_with_place_and_reason(tmp_path: Path, text: str, status: int, said: str) -> None:
    (tmp_path / "t.v").write_text(text)
    done = obento("simulate", "t.v", cwd=tmp_path)
    assert done.returncode == status, done.stderr
    assert said in done.stderr and "Traceback" not in done.stderr


def test_catch_rate_says_what_is_missed(folder: Path) -> None:
    whole = obento("catch-rate", "spec.toml", cwd=folder)
    assert whole.returncode == 0 and whole.stdout.startswith("100 %: ") and "by 4 cases" in whole.stdout
    (folder / "weak.toml").write_text(SPEC + "[cases]\nlisted = '''\na b\n1 1\n'''\n")
    weak = obento("catch-rate", "weak.toml", "--json", "rate.json", cwd=folder)
    assert weak.returncode == 1
    assert "missed: weak.toml:7: `|` for `&`\n  to catch it: a = 0, b = 1, where y is 1 instead of 0\n" in weak.stdout
    data = json.loads((folder / "rate.json").read_text())
    assert 0 < data["share"] < 1 and data["tried"] - data["harmless"] - data["caught"] == len(data["missed"])
    (folder / "broken.toml").write_text("unit = 3")
    broken = obento("catch-rate", "broken.toml", cwd=folder)
    assert broken.returncode == 2 and "broken.toml:1" in broken.stderr and broken.stdout == ""


def test_calls_that_are_wrong(folder: Path) -> None:
    calls: list[tuple[tuple[str, ...], str]] = [
        ((), "usage: obento COMMAND"),
        (("chekc", "spec.toml"), "there is no command 'chekc'"),
        (("check", "spec.toml"), "the following arguments are required: HANDIN"),
        (("check", "spec.toml", "class", "--jobs", "-1"), "-1 is less than 0"),
        (("check", "spec.toml", "class", "--cases", "some"), "invalid choice: 'some'"),
        (("simulate", "--seconds", "0", "class/right/m.v"), "0 is less than 0.1"),
    ]
    for arguments, said in calls:
        done = obento(*arguments, cwd=folder)
        assert done.returncode == 2 and said in done.stderr and done.stdout == "", (arguments, done.stderr)
    for arguments in (("--help",), ("check", "--help")):
        done = obento(*arguments, cwd=folder)
        assert done.returncode == 0 and "check" in done.stdout and done.stderr == ""


def test_options_may_stand_between_hand_ins(folder: Path) -> None:
    done = obento("check", "spec.toml", "class/right", "--json", "o.json", "class/wrong.v", cwd=folder)
    assert done.returncode == 1
    assert [h["name"] for h in json.loads((folder / "o.json").read_text())["handins"]] == ["right", "wrong"]


def test_files_beside_the_folder_are_found(tmp_path: Path) -> None:
    """Any path may have `..` in it; what it leads to is read, and messages name it as it was given."""
    (tmp_path / "work" / "deep").mkdir(parents=True)
    (tmp_path / "bench.v").write_text('module bench; initial $display("here"); endmodule\n')
    (tmp_path / "work" / "bench.vhd").write_text(
        'entity bench is end; architecture a of bench is begin process begin report "here"; wait; end process; end;\n'
    )
    for path in (
        "../../bench.v",
        "../bench.vhd",
        "../../work/../bench.v",
        "./../bench.vhd",
        str(tmp_path / "work" / ".." / "bench.v"),
    ):
        done = obento("simulate", path, cwd=tmp_path / "work" / "deep")
        assert done.returncode == 0 and "here" in done.stdout, (path, done.stderr)


def test_a_file_that_is_there_stays_until_the_new_one_is_whole(folder: Path) -> None:
    kept = folder / "o.json"
    kept.write_text("of yesterday")
    done = obento("check", "spec.toml", "class", "--batch", "--json", "o.json", "--csv", "no/o.csv", cwd=folder)
    assert done.returncode == 2 and "no/o.csv" in done.stderr
    assert kept.read_text() == "of yesterday" and not list(folder.glob(".*.part"))
    done = obento("check", "spec.toml", "class", "--batch", "--json", "o.json", "--tap", "/dev/stdout", cwd=folder)
    assert json.loads(kept.read_text())["obento"] == "result/1" and not list(folder.glob(".*.part"))
    assert done.stdout.startswith("TAP version 13\n")
