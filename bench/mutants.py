"""Seeded slips: right designs with one thing changed, and what is said of each.

`PYTHONPATH=src:. python bench/mutants.py [--misses]` changes every right hand-in of the demo class, in every language,
in every way listed below, and prints for each kind of change how many got a finding of the kind that it calls for, and
how many were mended by the smallest change on the very line that was changed. Changes that no case shows are not
counted."""

from __future__ import annotations

import re
import sys
import time
from collections import Counter, defaultdict
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from multiprocessing import Pool
from pathlib import Path

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.mutation.smallest_change import find_repair
from obento.core.handin import HandinFile
from obento.core.limits import Limits

HERE = Path(__file__).parent
TASKS = {
    "../demo/lab1/interlock": ("drop-1", "interlock"),
    "../demo/lab1/lamps": ("drop-1", "lamps"),
    "../demo/lab2/paddles": ("drop-1", "paddle"),
    "../demo/lab2/ballast": ("drop-1", "trim"),
    "../demo/lab3/tickets": ("drop-1", "ticket"),
    "../demo/lab3/beacon": ("drop-1", "beacon"),
    "seeded/gate": ("gate", ""),
    "seeded/winch": ("winch", ""),
}
"""Specs, each with the folder of its hand-ins and a part of their names."""
SUFFIX = {".v": "verilog", ".sv": "verilog", ".vhd": "vhdl", ".wiring": "wiring"}
_MOST_SECONDS = 30
MOST_OF_A_KIND = 3
"""Changes of one kind in one text."""


@dataclass(frozen=True)
class Mutant:
    kind: str
    line: int
    text: str
    was: str


DECLARES = re.compile(
    r"\s*(module|entity|library|use|input|output|port|takes|gives|architecture|signal|constant|wiring)\b"
)
ALSO_DECLARATIONS = frozenset(["width"])
"""Kinds of changes that are made in declarations as well."""
KEEP = frozenset("and or not nor nand xor xnor buf when else others unsigned signed resize wide word flipflop".split())

Swap = tuple[str, str, str, str]
"""The kind of change, the language, what is looked for, and what is put there (`+1`: the number found and one more;
`-1`: one less; `turned`: binary digits with the last one turned)."""

SWAPS: list[Swap] = [
    ("operator", "verilog", r"&&", "||"),
    ("operator", "verilog", r"\|\|", "&&"),
    ("operator", "verilog", r"(?<!&)&(?!&)", "|"),
    ("operator", "verilog", r"(?<!\|)\|(?!\|)", "&"),
    ("operator", "verilog", r"\^", "&"),
    ("operator", "verilog", r"\band\b(?=\s*\w*\s*\()", "or"),
    ("operator", "verilog", r"\bnor\b(?=\s*\w*\s*\()", "nand"),
    ("operator", "verilog", r"\bor\b(?=\s*\w*\s*\()", "and"),
    ("operator", "vhdl", r"\band\b", "or"),
    ("operator", "vhdl", r"\bor\b", "and"),
    ("operator", "vhdl", r"\bnor\b", "nand"),
    ("operator", "wiring", r"\band\(", "or("),
    ("operator", "wiring", r"\bor\(", "and("),
    ("operator", "wiring", r"\bnor\(", "nand("),
    ("arithmetic", "verilog", r"(?<=\w) \+ ", " - "),
    ("arithmetic", "verilog", r"(?<=\w) - ", " + "),
    ("arithmetic", "vhdl", r" \+ ", " - "),
    ("arithmetic", "vhdl", r" - ", " + "),
    ("relation", "verilog", r"==", "!="),
    ("relation", "verilog", r"(?<![<=!])> ", ">= "),
    ("relation", "verilog", r"(?<![<=])< ", "<= "),
    ("relation", "vhdl", r"(?<=[\w)]) > ", " >= "),
    ("relation", "vhdl", r"(?<=[\w)]) < ", " <= "),
    ("inversion added", "verilog", r"(?<=[=&|(] )(?=[a-z_]+\b(?!'|\())", "!"),
    ("inversion added", "vhdl", r"(?<=<= )(?=[a-z_]+ (?:and|or|nor))", "not "),
    ("inversion added", "wiring", r"(?<=, )([a-z_]+)\b(?!\()", r"not(\1)"),
    ("inversion left out", "verilog", r"[!~](?=[a-z(])(?!=)", ""),
    ("inversion left out", "vhdl", r"\bnot (?=[a-z(])", ""),
    ("inversion left out", "wiring", r"\bnot\(", "buf("),
    ("edge", "verilog", r"\bnegedge\b", "posedge"),
    ("edge", "verilog", r"\bposedge\b", "negedge"),
    ("edge", "vhdl", r"falling_edge", "rising_edge"),
    ("edge", "vhdl", r"rising_edge", "falling_edge"),
    ("edge", "wiring", r"\brise:", "fall:"),
    ("edge", "wiring", r"\bfall:", "rise:"),
    ("constant", "verilog", r"(?<=[34]'d)(\d+)(?=\b)", "+1"),
    ("constant", "vhdl", r"(?<=[<=+>] )(\d+)(?=\b)", "+1"),
    ("constant", "verilog", r"(?<='b)([01]+)(?=\b)", "turned"),
    ("constant", "vhdl", r"(?<=\")([01]{2,})(?=\")", "turned"),
    ("reset level", "verilog", r"(?<=if \()!(?=(?:clr_n|rst_n|rst|clear_n|reset)\b)", ""),
    ("reset level", "verilog", r"(?<=if \()(?=(?:clr_n|rst_n|rst|clear_n|reset)\b)", "!"),
    ("reset level", "vhdl", r"(?<=_n = ')0", "1"),
    ("reset level", "vhdl", r"(?<=rst = ')1", "0"),
    ("reset kind", "verilog", r" or (?:posedge|negedge) (?:clr_n|rst_n|rst|clear_n|reset)\b", ""),
    ("reset kind", "verilog", r"(?<=[a-z])(?=\)\s*(?:begin)?\s*$)(?<=(?:edge clk))", " or posedge rst"),
    ("reset value", "verilog", r"(?<=<= )0(?=;)", "1"),
    ("state", "verilog", r"(?<== )FILLING", "LIFTING"),
    ("state", "verilog", r"(?<== )(SHUT|RAISED)", "LIFTING"),
    ("state", "verilog", r"(?<== )LIFTING", "RAISED"),
    ("state", "vhdl", r"(?<=<= )(filling|shut)\b", "lifting"),
    ("state", "vhdl", r"(?<== )(lifting|filling)\b", "raised"),
    ("condition forgotten", "vhdl", r"elsif load = '1' and \w+ = '1'", "elsif load = '1'"),
    ("condition forgotten", "verilog", r"else if \([\w!~ ]+\)", "else"),
    ("branch forgotten", "verilog", r"\belse\s+\w+\s*<?=[^;]*;", ";"),
    ("sensitivity", "verilog", r" or \w+(?=\)\s*(?:begin)?\s*$)", ""),
    ("sensitivity", "vhdl", r"(?<=process \()(\w+), ", ""),
    ("width", "verilog", r"(?<=(?:wire|.reg) \[)(\d)(?=:0\])", "-1"),
    ("width", "vhdl", r"(?<=\()(\d)(?= downto 0\))", "-1"),
    ("assignment", "verilog", r"(?<=\w) <= (?=[^;()]*;)", " = "),
    ("bit", "verilog", r"\[(\d)\]", "+1"),
    ("bit", "vhdl", r"\((\d)\)", "+1"),
    ("bit", "wiring", r"\[(\d)\]", "+1"),
]

NO_EXPLANATION = frozenset(["wrong", "undefined"])
"""Kinds of findings that only say where something is wrong. All others say what kind of slip it is."""

CALLED_FOR = {
    "edge": frozenset(
        ["wrong-edge", "reset-level", "reset-sync", "late", "ripple-clock", "blocking", "reset-edge", "other-edge"]
    ),
}
"""Of some kinds of changes, what they should be called. The others may be anything that explains, or a condition of at
most two products."""


def mutants(text: str, language: str) -> Iterator[Mutant]:
    lines = text.split("\n")
    made: Counter[str] = Counter()
    for kind, of_language, pattern, new in SWAPS:
        if of_language != language:
            continue
        for i, line in enumerate(lines):
            code = re.split(r"//|--", line)[0]
            if DECLARES.match(code) and (kind not in ALSO_DECLARATIONS or re.match(r"\s*(module|entity|port)", code)):
                continue
            for m in re.finditer(pattern, code):
                if made[kind] >= MOST_OF_A_KIND:
                    break
                made[kind] += 1
                put = _put(m, new)
                changed = code[: m.start()] + put + code[m.end() :]
                yield Mutant(
                    kind, i + 1, "\n".join([*lines[:i], changed + line[len(code) :], *lines[i + 1 :]]), code.strip()
                )
    yield from _names_exchanged(lines, language)


def _put(m: re.Match[str], new: str) -> str:
    """What stands there after the change."""
    if new in ("+1", "-1"):
        return m.group(0).replace(m.group(1), str(max(0, int(m.group(1)) + int(new))))
    if new == "turned":
        return m.group(1)[:-1] + "10"[int(m.group(1)[-1])]
    return m.expand(new)


def _names_exchanged(lines: list[str], language: str) -> Iterator[Mutant]:
    """A name on the right of an assignment or gate, replaced by another one of the same line or the line before."""
    arrow = {"verilog": r"[^=<>!]=(?!=)|<=", "vhdl": r"<=", "wiring": r"<-"}[language]
    found = 0
    for i, line in enumerate(lines):
        code = re.split(r"//|--", line)[0]
        parts = re.split(arrow, code, maxsplit=1)
        if len(parts) != 2 or found >= MOST_OF_A_KIND or re.match(r"\s*(if|for|case|elsif|when|wire \[|signal)", code):
            continue
        names = [
            n for n in dict.fromkeys(re.findall(r"(?<!['\d\w])[a-z_][a-z_0-9]*\b(?!\()", parts[1])) if n not in KEEP
        ]
        if len(names) >= 2:
            found += 1
            changed = re.sub(rf"\b{names[0]}\b", names[1], parts[1], count=1)
            head = code[: len(code) - len(parts[1])]
            yield Mutant(
                "names exchanged", i + 1, "\n".join([*lines[:i], head + changed, *lines[i + 1 :]]), code.strip()
            )


@dataclass
class Tally:
    made: int = 0
    unseen: int = 0
    broken: int = 0
    found: int = 0
    mended: int = 0
    on_line: int = 0

    def add(self, other: Tally) -> None:
        for name in ("made", "unseen", "broken", "found", "mended", "on_line"):
            setattr(self, name, getattr(self, name) + getattr(other, name))

    def row(self) -> str:
        shares = " ".join(f"{n / self.made:8.0%}" for n in (self.found, self.mended, self.on_line))
        return f"{self.made:6} {shares}   ({self.unseen}, {self.broken})"


@dataclass(frozen=True)
class Job:
    """One mutant of one hand-in."""

    task: str
    path: Path
    language: str
    mutant: Mutant


@dataclass
class Tried:
    """What came of one mutant."""

    job: Job
    tally: Tally
    misses: list[str]
    kinds: Counter[str]


def main(show_misses: bool) -> None:
    tallies: dict[tuple[str, str], Tally] = defaultdict(Tally)
    kinds: Counter[str] = Counter()
    misses: list[str] = []
    jobs = [job for task in TASKS for job in _jobs(task)]
    with Pool() as pool:
        for number, tried in enumerate(pool.imap_unordered(_try_job, jobs), 1):
            tallies[tried.job.mutant.kind, tried.job.language].add(tried.tally)
            misses += tried.misses
            kinds += tried.kinds
            print(f"\r{number} of {len(jobs)}", end="", file=sys.stderr, flush=True)
    print(file=sys.stderr)
    _print(tallies)
    print("\nfindings:", ", ".join(f"{k} {n}" for k, n in kinds.most_common()))
    if show_misses:
        print("\nmisses")
        print("\n".join(sorted(misses)))


def _jobs(task: str) -> Iterator[Job]:
    for path, text in _task(task)[1]:
        language = SUFFIX[path.suffix]
        yield from (Job(task, path, language, mutant) for mutant in mutants(text, language))


def _try_job(job: Job) -> Tried:
    tried = Tried(job, Tally(), [], Counter())
    _try(_task(job.task)[0], job.path, job.mutant, tried.tally, tried.misses, tried.kinds)
    return tried


@cache
def _task(task: str) -> tuple[Expectation, list[tuple[Path, str]]]:
    """A task's expectation and the texts of all hand-ins that are right, each text once."""
    folder, pattern = TASKS[task]
    spec = HERE / f"{task}.toml"
    others = {p.name: p.read_bytes() for p in spec.parent.iterdir() if p.is_file() and p != spec}
    loaded = open_spec(spec.name, spec.read_bytes(), others)
    assert loaded.expectation is not None, task
    found: dict[str, Path] = {}
    for path in sorted((spec.parent / folder).rglob("*")):
        if path.suffix not in SUFFIX or not re.search(pattern, path.name):
            continue
        text = path.read_bytes().decode("utf-8", "replace").replace("\r\n", "\n")
        outcome = check_handin(loaded.expectation, [HandinFile(path.name, text.encode())])
        if outcome.verdict is not None and outcome.verdict.right == loaded.expectation.cases.full:
            found.setdefault(re.sub(r"\s+", " ", text), path)
    return loaded.expectation, [
        (p, p.read_bytes().decode("utf-8", "replace").replace("\r\n", "\n")) for p in found.values()
    ]


def _try(
    expectation: Expectation, path: Path, mutant: Mutant, tally: Tally, misses: list[str], kinds: Counter[str]
) -> None:
    files = [HandinFile(path.name, mutant.text.encode())]
    outcome = check_handin(expectation, files)
    if outcome.verdict is None:
        tally.broken += 1
        return
    if outcome.verdict.right == expectation.cases.full:
        tally.unseen += 1
        return
    tally.made += 1
    got = [f.kind for f in outcome.findings]
    kinds.update(set(got) - NO_EXPLANATION)
    explained = set(got) & CALLED_FOR[mutant.kind] if mutant.kind in CALLED_FOR else set(got) - NO_EXPLANATION
    short = any(
        f.kind in ("wrong", "undefined") and f.text.count(" or ") <= 1 and "whenever" in f.text
        for f in outcome.findings
    )
    is_found = bool(explained) or (short and mutant.kind not in CALLED_FOR)
    tally.found += is_found
    repair = find_repair(expectation, files, [], {}, Limits(expired=_used_up(_MOST_SECONDS)))
    is_mended = repair is not None and bool(repair.changes)
    on_line = is_mended and repair is not None and any(c.line == mutant.line for c in repair.changes)
    tally.mended += is_mended
    tally.on_line += on_line
    if not is_found or not on_line:
        parts = []
        if not is_found:
            parts.append(f"said: {outcome.findings[0].text[:90] if outcome.findings else ''}")
        if not is_mended:
            parts.append("no change")
        elif not on_line and repair is not None:
            parts.append(f"change on line {repair.changes[0].line}: {repair.changes[0].text}")
        misses.append(
            f"{mutant.kind:18} {path.parent.name[:8]}/{path.name}:{mutant.line} `{mutant.was[:60]}` {'; '.join(parts)}"
        )


def _used_up(seconds: float) -> Callable[[], bool]:
    """Whether so much processor time has gone by: as long a worker may look."""
    end = time.process_time() + seconds
    return lambda: time.process_time() > end


def _print(tallies: dict[tuple[str, str], Tally]) -> None:
    print(
        f"{'seeded':20} {'language':9} {'wrong':>6} {'finding':>8} {'mended':>8} {'on line':>8}   (not seen by any"
        " case, not built)"
    )
    total = Tally()
    for (kind, language), t in sorted(tallies.items()):
        if t.made:
            print(f"{kind:20} {language:9} {t.row()}")
        total.add(t)
    print(f"{'all':30} {total.row()}")


if __name__ == "__main__":
    main("--misses" in sys.argv[1:])
