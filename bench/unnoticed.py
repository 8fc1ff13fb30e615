"""Changes of our own code that no test notices.

`python bench/unnoticed.py [--each N] [ROOM…]` turns single operators and constants in rooms of the core, one at a time,
in a copy of the tree, runs the tests of the room, and prints the changes with which all of them still pass. A few of
these are harmless (the change means the same, or a bound is moved by one); the others are tests that are missing.

The seed is fixed, so two runs try the same changes."""

from __future__ import annotations

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
ROOMS = {
    "core/values.py": "tests/core/test_values.py tests/core/test_constructs.py tests/core/test_verilog.py",
    "core/decimals.py": "tests/core/test_decimals.py",
    "core/suggest.py": "tests/core/test_suggest.py tests/core/test_spec.py",
    "core/copies.py": "tests/core/test_copies.py tests/core/test_check.py",
    "core/ir/strength.py": "tests/core/test_strength.py tests/conformance tests/core/test_verilog.py",
    "core/ir/drivers.py": "tests/core/test_verilog.py tests/conformance tests/core/test_constructs.py",
    "core/formula/lower.py": "tests/core/test_formula.py tests/core/test_spec.py tests/conformance",
    "core/spec/table.py": "tests/core/test_table.py tests/core/test_spec.py tests/core/test_spec_values.py",
    "core/spec/steps.py": "tests/core/test_steps.py tests/conformance",
    "core/sim/bench/scan.py": "tests/core/test_scan.py tests/core/test_bench_parts.py tests/core/test_benches.py",
    "core/sim/bench/display.py": "tests/core/test_bench_parts.py tests/core/test_benches.py tests/conformance",
    "core/sim/lanes/bits.py": "tests/core/test_bits.py tests/core/test_levelized.py tests/core/test_constructs.py",
    "core/sim/lanes/graph.py": "tests/core/test_levelized.py tests/core/test_check.py",
    "core/check/judging/verdict.py": "tests/core/test_verdict.py tests/core/test_check.py tests/core/test_steps.py",
    "core/check/judging/marking.py": "tests/core/test_marking.py tests/core/test_check.py tests/core/test_rules.py",
    "core/check/judging/rules.py": "tests/core/test_rules.py tests/core/test_gates_alike.py",
    "core/check/explaining/condition.py": "tests/core/test_condition.py tests/core/test_check.py",
    "core/check/explaining/slips.py": "tests/core/test_slips.py",
    "core/check/explaining/divergence.py": "tests/core/test_divergence.py tests/core/test_steps.py",
    "core/check/running/binding.py": "tests/core/test_check.py tests/core/test_binding.py",
}
_COMPARE: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
    ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In,
}  # fmt: skip
_BINARY: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Add, ast.LShift: ast.RShift, ast.RShift: ast.LShift,
    ast.BitAnd: ast.BitOr, ast.BitOr: ast.BitAnd, ast.BitXor: ast.BitOr, ast.FloorDiv: ast.Mult,
}  # fmt: skip


Turn = Callable[[], None]


@dataclass(frozen=True)
class Change:
    line: int
    text: str
    source: str


def changes_of(source: str) -> Iterator[Change]:
    """Every single change of a module, as the whole changed text. Annotations and docstrings are left alone."""
    tree = ast.parse(source)
    types = _annotations(tree)
    for node in ast.walk(tree):
        if node in types:
            continue
        for before, turn, back in _turns(node):
            turn()
            yield Change(getattr(node, "lineno", 0), f"{before} → {_shown(node)}", ast.unparse(tree))
            back()


def _annotations(tree: ast.Module) -> set[ast.AST]:
    """Every node within a type, which nothing runs."""
    roots: list[ast.AST | None] = []
    for node in ast.walk(tree):
        if isinstance(node, ast.arg | ast.AnnAssign):
            roots.append(node.annotation)
        elif isinstance(node, ast.FunctionDef):
            roots.append(node.returns)
    return {inner for root in roots if root is not None for inner in ast.walk(root)}


def _shown(node: ast.AST) -> str:
    return ast.unparse(node)[:90]


def _turns(node: ast.AST) -> Iterator[tuple[str, Turn, Turn]]:
    def setting(owner: object, name: str, value: object) -> tuple[str, Turn, Turn]:
        old = getattr(owner, name)
        return _shown(node), lambda: setattr(owner, name, value), lambda: setattr(owner, name, old)

    if isinstance(node, ast.Compare) and len(node.ops) == 1 and type(node.ops[0]) in _COMPARE:
        yield setting(node, "ops", [_COMPARE[type(node.ops[0])]()])
    elif isinstance(node, ast.BoolOp):
        yield setting(node, "op", ast.Or() if isinstance(node.op, ast.And) else ast.And())
    elif isinstance(node, ast.BinOp) and type(node.op) in _BINARY:
        yield setting(node, "op", _BINARY[type(node.op)]())
    elif isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.Not):
        yield setting(node, "op", ast.UAdd())
    elif isinstance(node, ast.Constant) and isinstance(node.value, bool):
        yield setting(node, "value", not node.value)
    elif isinstance(node, ast.Constant) and type(node.value) is int:
        yield setting(node, "value", node.value + 1)


def _is_noticed(tree: Path, room: str, change: Change, tests: list[str]) -> bool:
    target = tree / "src/obento" / room
    original = target.read_text()
    target.write_text(change.source)
    try:
        command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", "-p", "no:xdist", *tests]
        env = os.environ | {"PYTHONPATH": f"{tree / 'src'}:{tree}", "PYTHONDONTWRITEBYTECODE": "1"}
        done = subprocess.run(command, cwd=tree, env=env, capture_output=True, timeout=300)
        return done.returncode != 0
    except subprocess.TimeoutExpired:
        return True
    finally:
        target.write_text(original)


def _unnoticed(room: str, tests: list[str], each: int) -> tuple[int, list[Change]]:
    source = (ROOT / "src/obento" / room).read_text()
    found = list(changes_of(source))
    tried = random.Random(room).sample(found, min(each, len(found)))
    with tempfile.TemporaryDirectory(prefix="obento-unnoticed-") as folder:
        tree = Path(folder)
        for name in ("src", "tests", "demo"):
            shutil.copytree(ROOT / name, tree / name, ignore=shutil.ignore_patterns("__pycache__"))
        shutil.copy(ROOT / "pyproject.toml", tree)
        return len(tried), [c for c in tried if not _is_noticed(tree, room, c, tests)]


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--each", type=int, default=10, help="changes tried in each room")
    parser.add_argument("rooms", nargs="*", default=list(ROOMS), help="such as core/values.py")
    given = parser.parse_args()
    tests = {room: [t for t in ROOMS[room].split() if (ROOT / t).exists()] for room in given.rooms}
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        done = list(pool.map(lambda room: (room, *_unnoticed(room, tests[room], given.each)), given.rooms))
    tried = sum(count for _, count, _ in done)
    missed = sum(len(changes) for _, _, changes in done)
    for room, count, changes in done:
        print(f"{room}: {count - len(changes)} of {count} noticed")
        for change in changes:
            print(f"    line {change.line}: {change.text}")
    print(f"{tried - missed} of {tried} changes are noticed")


if __name__ == "__main__":
    main()
