"""How many sentences are said of random designs with a mistake or two, and which of them are not true.

`PYTHONPATH=src:. python bench/sentences.py [TREES [MACHINES]]` makes so many combinational designs and machines (10,000
of each), has them checked, and holds every sentence against the truth by the second reader of tests/second_reader."""

from __future__ import annotations

import sys
from collections import Counter
from collections.abc import Iterable
from multiprocessing import Pool

from tests.second_reader.judged import Judged, judged_machine, judged_tree

_AT_ONCE = 50
_MOST_SHOWN = 20


def main(trees: int, machines: int) -> int:
    """Print a line for each kind of design, and what is untrue; gives how much that is."""
    untrue = 0
    with Pool() as pool:
        for what, judge, count in (("trees", judged_tree, trees), ("machines", judged_machine, machines)):
            untrue += _report(what, pool.imap(judge, range(count), chunksize=_AT_ONCE))
    return untrue


def _report(what: str, judged: Iterable[Judged]) -> int:
    said = designs = 0
    kinds: Counter[str] = Counter()
    shown: list[str] = []
    for seed, one in enumerate(judged):
        designs += 1
        said += one.said
        kinds.update(text.partition(":")[0] for text in one.untrue)
        shown += [f"  seed {seed}: {text}" for text in one.untrue]
    print(f"{what:9} {designs:6} designs, {said:6} sentences, {kinds.total():3} untrue {dict(kinds) or ''}")
    print("\n".join(shown[:_MOST_SHOWN]), end="\n" if shown else "")
    return kinds.total()


if __name__ == "__main__":
    counts = [int(n) for n in sys.argv[1:3]]
    sys.exit(bool(main(*(counts + [10_000, 10_000][len(counts) :]))))
