"""docs/messages.md: what is said of the commonest slips, each with its line.

python -m scripts.messages
"""

from __future__ import annotations

from pathlib import Path

from tests.slips.slips import LANGUAGES, Slip, read

PAGE = Path(__file__).resolve().parents[1] / "docs/messages.md"
NAMES = {"verilog": "Verilog", "sv": "SystemVerilog", "vhdl": "VHDL"}


def page() -> str:
    """The whole page."""
    lines = [
        "# What is said of common slips",
        "",
        "The slips that beginners make most, each with the line it stands in, the first message and what it advises.",
        "The programs are under `tests/slips/`; this page is made from them by `scripts/messages.py`, and a test holds",
        "it to that.",
    ]
    for language in LANGUAGES:
        lines += ["", f"## {NAMES[language]}", "", "| slip | line | message | advice |", "|---|---|---|---|"]
        lines += [_row(slip) for slip in read(language)]
    return "\n".join(lines) + "\n"


def _row(slip: Slip) -> str:
    message = next(m for m in slip.messages() if m.line == slip.line)
    cells = [slip.title, f"`` {slip.shown} ``", message.text, message.hint or ""]
    return "| " + " | ".join(cell.replace("|", "\\|") for cell in cells) + " |"


def main() -> None:
    """Write the page."""
    PAGE.write_text(page(), encoding="utf-8")


if __name__ == "__main__":
    main()
