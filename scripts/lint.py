"""Format, lint and type-check everything: `./obento lint`, with `--fix` to mend what can be mended."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
BIN = Path(sys.executable).parent


def main() -> int:
    fix = "--fix" in sys.argv
    npm = sys.argv[sys.argv.index("--npm") + 1].split() if "--npm" in sys.argv else ["npm"]
    commands = [
        [str(BIN / "ruff"), "format", *([] if fix else ["--check"]), "."],
        [str(BIN / "ruff"), "check", *(["--fix"] if fix else []), "."],
        [str(BIN / "mypy")],
        *([[*npm, "--prefix", "web", "run", "--silent", "format"]] if fix else []),
        [*npm, "--prefix", "web", "run", "--silent", "check"],
    ]
    failed = [" ".join(c) for c in commands if subprocess.run(c, cwd=ROOT).returncode != 0]
    for command in failed:
        print(f"failed: {command}", file=sys.stderr)
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
