"""Several threads that read their first VHDL model at once: what they share is ready for each of them."""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path

PROGRAM = """
import threading
from obento.core.check.check import check_handin, open_spec
from obento.core.handin import HandinFile

USE = "library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;\\n"
TEXT = USE + '''entity m is port (a, b : in std_logic_vector(3 downto 0); y : out std_logic_vector(3 downto 0)); end;
architecture r{n} of m is type rows{n} is array (0 to 1) of std_logic; signal k{n} : rows{n}; begin
k{n} <= a(0) & b(0); y <= std_logic_vector(unsigned(a) + unsigned(b)) when k{n}(0) = a(0) else (others => 'X'); end;'''
SPEC = b"obento='spec/1'\\nunit='m'\\n[ports]\\nin='a[4] b[4]'\\nout='y[4]'\\n[expect]\\nmodel='ref.vhd'\\n"
gate = threading.Barrier(8)
found = [None] * 8

def work(n):
    gate.wait()
    text = TEXT.replace("{n}", str(n)).encode()
    loaded = open_spec("s.toml", SPEC, {"ref.vhd": text})
    if loaded.expectation is None:
        found[n] = [str(m) for m in loaded.messages]
        return
    checked = check_handin(loaded.expectation, [HandinFile("a.vhd", text)])
    found[n] = checked.verdict.cells() if checked.verdict else [str(m) for m in checked.messages]

threads = [threading.Thread(target=work, args=(n,)) for n in range(8)]
[t.start() for t in threads]
[t.join() for t in threads]
assert found == ["p" * 256] * 8, found
"""


def test_eight_threads_read_their_first_model_at_once(root: Path) -> None:
    env = os.environ | {"PYTHONPATH": str(root / "src"), "PYTHONSWITCHINTERVAL": "0.00001"}
    for _ in range(2):
        done = subprocess.run([sys.executable, "-c", PROGRAM], env=env, capture_output=True, text=True, timeout=120)
        assert done.returncode == 0, done.stderr[-2000:]
