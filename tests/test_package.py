"""The package as it is installed: it holds every file that it reads."""

from __future__ import annotations

import subprocess
import sys
import venv
import zipfile
from pathlib import Path

import pytest

BENCH = """library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity bench is end;
architecture sim of bench is
  signal level : unsigned(3 downto 0) := to_unsigned(5, 4);
begin
  process begin
    wait for 1 ns;
    report "the level is " & integer'image(to_integer(level + 1));
    wait;
  end process;
end;
"""


@pytest.fixture(scope="module")
def wheel(root: Path, tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Built from a copy, so that nothing is left behind in the tree."""
    import shutil

    folder = tmp_path_factory.mktemp("wheel")
    source = folder / "source"
    shutil.copytree(root / "src" / "obento", source / "src" / "obento", ignore=shutil.ignore_patterns("__pycache__"))
    shutil.copy(root / "pyproject.toml", source)
    command = [
        sys.executable,
        "-c",
        "import sys, setuptools.build_meta as b; print(b.build_wheel(sys.argv[1]))",
        str(folder),
    ]
    done = subprocess.run(command, cwd=source, capture_output=True, text=True, check=True)
    return folder / done.stdout.split()[-1]


def test_the_package_holds_every_file(wheel: Path, root: Path) -> None:
    with zipfile.ZipFile(wheel) as archive:
        held = {n for n in archive.namelist() if n.startswith("obento/")}
    ours = {
        f.relative_to(root / "src").as_posix()
        for f in (root / "src" / "obento").rglob("*")
        if f.is_file() and "__pycache__" not in f.parts
    }
    assert held == ours


def test_it_simulates_where_it_is_installed(wheel: Path, tmp_path: Path) -> None:
    """In an environment of its own, which sees this one's packages but not the tree."""
    venv.create(tmp_path / "there", system_site_packages=False, with_pip=False)
    site = next((tmp_path / "there" / "lib").glob("python*/site-packages"))
    with zipfile.ZipFile(wheel) as archive:
        archive.extractall(site)
    ours = next(p for p in sys.path if p.endswith("site-packages"))
    (site / "others.pth").write_text(ours + "\n")
    (tmp_path / "bench.vhd").write_text(BENCH)
    python = tmp_path / "there" / "bin" / "python"
    place = subprocess.run(
        [python, "-c", "import obento; print(obento.__file__)"],
        cwd=tmp_path,
        env={},
        capture_output=True,
        text=True,
        check=True,
    )
    assert place.stdout.startswith(str(site))
    done = subprocess.run(
        [python, "-m", "obento", "simulate", "bench.vhd"],
        cwd=tmp_path,
        env={},
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0 and "the level is 6" in done.stdout + done.stderr, done.stderr
