"""Texts with one to three words changed: whatever somebody hands in is answered by messages, and soon.

python -m bench.token_mutations [how many] [seed]

Takes the programs of the conformance tree and of the slips, and in each drops, doubles, exchanges or replaces words by
others of the same language. Printed is every exception that is no message, and every text that took more than five
seconds."""

from __future__ import annotations

import random
import re
import sys
import time
import traceback
from collections import Counter
from collections.abc import Iterator
from pathlib import Path

from tests.slips.slips import LANGUAGES, read

from obento.core.handin import HandinFile, read_handin
from obento.core.limits import LimitReached, Limits
from obento.core.simulate import BadCall, Options, simulate

ROOT = Path(__file__).resolve().parents[1]
WORDS = re.compile(
    r"\s+|//[^\n]*|--[^\n]*|\"[^\"\n]*\"|[A-Za-z_$][\w$]*|\d[\w']*|'[{(]|[<>=!&|^~+*/:.-]{1,3}|.", re.DOTALL
)
SLOW = 5.0
LIMITS = Limits(deltas=200, output_bytes=20_000)


def programs() -> Iterator[tuple[str, str]]:
    """Every program with the ending of its name."""
    for language in ("verilog", "vhdl", "wiring"):
        for path in sorted((ROOT / "tests/conformance" / language).iterdir()):
            if path.suffix in (".v", ".sv", ".vhd", ".wiring"):
                yield path.suffix, path.read_text(encoding="utf-8")
    for language, (suffix, _) in LANGUAGES.items():
        for slip in read(language):
            yield suffix, slip.text


def mutated(text: str, others: list[str], draw: random.Random) -> str:
    """A text with one to three of its words changed."""
    words = WORDS.findall(text)
    for _ in range(draw.randint(1, 3)):
        at = draw.randrange(len(words))
        match draw.randrange(5):
            case 0:
                words[at] = ""
            case 1:
                words.insert(at, words[at])
            case 2:
                other = draw.randrange(len(words))
                words[at], words[other] = words[other], words[at]
            case 3:
                words[at] = draw.choice(others)
            case _:
                words.insert(at, f" {draw.choice(others)} ")
    return "".join(words)


def answered(name: str, text: str) -> None:
    """Read, build and run a text as a hand-in would be; raises what is no message."""
    reading = read_handin([HandinFile(name, text.encode())], LIMITS)
    if reading.collector.errors:
        return
    for unit in list(reading.units):
        reading.elaborate(unit)
    if name.endswith((".v", ".sv")) and not reading.collector.errors:
        started = time.monotonic()
        simulate(
            [HandinFile(name, text.encode())],
            lambda printed: None,
            Options(),
            LIMITS,
            lambda: time.monotonic() - started > 2,
        )


def main() -> None:
    """Run and print."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 100_000
    draw = random.Random(int(sys.argv[2]) if len(sys.argv) > 2 else 1)
    texts = list(programs())
    vocabulary = {
        suffix: sorted({w for s, text in texts if s == suffix for w in WORDS.findall(text) if w.strip()})
        for suffix in {s for s, _ in texts}
    }
    failures: Counter[str] = Counter()
    slow: list[tuple[float, str]] = []
    for number in range(count):
        suffix, text = draw.choice(texts)
        changed = mutated(text, vocabulary[suffix], draw)
        began = time.process_time()
        try:
            answered(f"a{suffix}", changed)
        except (LimitReached, BadCall):
            pass
        except Exception as error:
            where = traceback.extract_tb(error.__traceback__)[-1]
            key = f"{type(error).__name__} at {Path(where.filename).name}:{where.lineno}: {error}"[:160]
            if not failures[key]:
                print(f"--- {key}\n{changed}\n", flush=True)
            failures[key] += 1
        took = time.process_time() - began
        if took > SLOW:
            slow.append((took, changed))
            print(f"--- {took:.1f} s\n{changed}\n", flush=True)
        if number % 5_000 == 4_999:
            print(f"{number + 1} texts, {sum(failures.values())} exceptions, {len(slow)} slow", flush=True)
    for key, times in failures.most_common():
        print(f"{times} x {key}")
    print(f"{count} texts: {sum(failures.values())} exceptions, {len(slow)} over {SLOW:.0f} s")


if __name__ == "__main__":
    main()
