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
    return subprocess.run([sys.executable, "-m", "obento", *arguments], cwd=cwd, env=env, capture_output=True, text=True, timeout=120)


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
    assert {h["name"]: h["status"] for h in data["handins"]} == {"nothing": "empty", "right": "checked", "wrong": "checked"}
    rows = list(csv.DictReader(io.StringIO((folder / "o.csv").read_text())))
    assert [r["cells"] for r in rows if r["name"] == "wrong"] == ["pffp"]
    suites = {s.get("name"): s for s in ElementTree.parse(folder / "o.xml").getroot()}
    assert suites["wrong"].get("failures") == "2" and len(suites["wrong"]) == 2
    tap = (folder / "o.tap").read_text().splitlines()
    assert tap[1] == "1..9" and sum(line.startswith("not ok") for line in tap) == 3


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
