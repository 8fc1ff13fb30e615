"""docs/conformance.md: which clauses of the standards are read, with the number of programs that hold each to it.

python -m scripts.conformance
"""

from __future__ import annotations

import re
from collections import Counter
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
PROGRAMS = ROOT / "tests/conformance"

TITLES = {
    "IEEE 1364-2005": {
        "1": "all together", "3": "lexical conventions", "4": "data types", "5": "expressions", "6": "assignments",
        "7": "gate- and switch-level modelling", "8": "user-defined primitives", "9": "behavioural modelling",
        "10": "tasks and functions", "11": "scheduling", "12": "hierarchical structures", "14": "specify blocks",
        "17": "system tasks and functions", "18": "value change dump files", "19": "compiler directives",
    },
    "IEEE 1800-2017": {
        "1": "habits of later editions", "3": "building blocks", "5": "lexical conventions", "6": "data types",
        "7": "structures, unions, arrays, queues", "8": "classes", "9": "processes", "10": "assignments",
        "11": "operators", "12": "statements", "13": "tasks and functions", "14": "clocking", "15": "events",
        "16": "assertions", "18": "random numbers", "19": "coverage", "20": "system tasks", "21": "input and output",
        "22": "compiler directives", "23": "modules and hierarchy", "24": "programs", "25": "interfaces",
        "26": "packages", "27": "generate",
        "28": "gates and switches", "29": "primitives of one's own", "35": "other languages",
    },
    "IEEE 1076-1993": {
        "1": "design entities and configurations", "2": "subprograms and packages", "3": "types",
        "4": "declarations", "5": "specifications", "6": "names", "7": "expressions", "8": "sequential statements",
        "9": "concurrent statements", "10": "scope and visibility", "11": "design units",
        "12": "elaboration and execution",
        "13": "lexical elements", "14": "predefined language environment",
    },
    "IEEE 1076-2002": {"3": "types"},
    "IEEE 1076-2008": {
        "4": "subprograms and packages", "5": "types", "6": "declarations", "8": "names", "9": "expressions",
        "10": "sequential statements",
        "11": "concurrent statements", "13": "design units",
        "15": "lexical elements", "16": "predefined language environment",
    },
    "IEEE 1164": {"": "std_logic_1164"},
    "IEEE 1076.3": {"": "numeric_std and kin"},
}  # fmt: skip


def clause_of(head: str) -> tuple[str, str]:
    """Standard and first number of the clause that a program names in its first line."""
    m = re.search(r"IEEE (1364-2005|1800-2017|1076-\d{4}|1076\.3|1164)[^:\d]*(\d+)?", head)
    assert m is not None, head
    standard = f"IEEE {m[1]}"
    return standard, (m[2] or "") if standard not in ("IEEE 1164", "IEEE 1076.3") else ""


def is_refusal(text: str, comment: str) -> bool:
    """Whether a program asks for an error."""
    return re.search(rf"{re.escape(comment)}! ", text) is not None


def table() -> str:
    """The whole page."""
    counts: Counter[tuple[str, str]] = Counter()
    refused: Counter[tuple[str, str]] = Counter()
    for language, comment in (("verilog", "//"), ("vhdl", "--")):
        for path in (PROGRAMS / language).iterdir():
            text = path.read_text(encoding="utf-8")
            key = clause_of(text.partition("\n")[0])
            counts[key] += 1
            refused[key] += is_refusal(text, comment)
    lines = [
        "# Which clauses are read",
        "",
        "Every rule here is held by a program under `tests/conformance/`: a small source that names its clause and",
        "says what it prints, or at which line it is refused. This page is made from them by `scripts/conformance.py`;",
        "a test holds it to that.",
        "What is not read is in [formats.md](formats.md).",
    ]  # fmt: skip
    for standard, titles in TITLES.items():
        lines += ["", f"## {standard}", "", "| clause | of | programs | of these, refusals |", "|---|---|---|---|"]
        for (name, clause), count in sorted(counts.items(), key=lambda x: (x[0][0], int(x[0][1] or 0))):
            if name == standard:
                lines.append(f"| {clause or 'all'} | {titles[clause]} | {count} | {refused[name, clause]} |")
    lines += ["", "## Our own formats", "", "| format | about | programs | of these, refusals |", "|---|---|---|---|"]
    for language, what, comment in (("wiring", "wiring lists", "//"), ("spec", "spec files", "#")):
        topics: Counter[str] = Counter()
        errors: Counter[str] = Counter()
        for path in (PROGRAMS / language).iterdir():
            text = path.read_text(encoding="utf-8")
            topic = text.partition("\n")[0].partition(", ")[2].partition(":")[0]
            topics[topic] += 1
            errors[topic] += is_refusal(text, comment)
        lines += [f"| {what} | {topic} | {count} | {errors[topic]} |" for topic, count in sorted(topics.items())]
    return "\n".join(lines) + "\n"


def main() -> None:
    """Write the page."""
    (ROOT / "docs/conformance.md").write_text(table(), encoding="utf-8")


if __name__ == "__main__":
    main()
