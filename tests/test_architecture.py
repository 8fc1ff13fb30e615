"""The map's law: imports run one way, files stay small, and every public name of the core says what it is."""

from __future__ import annotations

import ast
import re
from collections import defaultdict
from collections.abc import Iterator
from functools import cache
from pathlib import Path

import pytest

SRC = Path(__file__).resolve().parents[1] / "src"

LAYERS = """
core.words core.sentences core.planes core.exhaustive core.source core.limits core.pause core.suggest core.values
core.decimals
core.texts
core.diagnostics core.copies core.ir core.covers
core.syntax core.sim.bench core.circuit
core.sim.lanes
core.formula core.wiring core.sim.levelized core.sim.event_driven core.sim.timeline
core.verilog.syntax core.vhdl.syntax
core.verilog.model core.vhdl.design_units core.vhdl.model
core.verilog.lowering core.vhdl.dependencies core.vhdl.runtime
core.verilog.elaboration core.vhdl.packages
core.vhdl.code
core.vhdl.analysis
core.vhdl.lanes
core.vhdl.elaboration
core.pieces core.spec
core.handin
core.simulate
core.check.running
core.check.expectation
core.check.judging
core.check.explaining core.check.inspecting
core.check.check core.check.report
core.check.mutation
core.board
intake export runner mail
store
server.models server.settings server.errors server.answers server.standing server.versions
server.uploads server.works server.starter_spec server.rights server.desk server.headers server.api_page server.logs
server.accounts
server.people
server.course server.specs
server.cases
server.marks
server.results server.intake
server.checking server.review server.sample
server.board
server.feedback
server.deps
demo
server.routes
server.app
cli
"""
"""A room may use those of earlier lines; those of one line do not know each other. Routes are a layer of their own,
above all services."""
BESIDE_ROUTES = {"server.results.lookup", "server.feedback.lookup"}
"""What several routes ask of the services: outcomes by the numbers in an address."""

LEVEL = {room: number for number, line in enumerate(LAYERS.split("\n")) for room in line.split()}
FILES = sorted(p for p in (SRC / "obento").rglob("*.py") if p.name not in ("__init__.py", "__main__.py"))
CORE = [p for p in FILES if "core" in p.parts]

MOST_LINES = 600
LONGER = {
    "core/vhdl/code/statements.py": 660,
    "core/sim/timeline/kernel.py": 740,
    "core/vhdl/analysis/declarations.py": 620,
    "core/verilog/syntax/ast.py": 760,
    "core/vhdl/syntax/declarations.py": 662,
    "core/vhdl/syntax/ast.py": 680,
}
"""Files that hold one idea and need more lines for it, with the most they may have."""

MOST_LINES_OF_A_FUNCTION = 70
MOST_BRANCHES = 32
LONGER_FUNCTIONS = {
    "lex": 90,
    "_declaration": 75,
}


def name_of(path: Path) -> str:
    return ".".join(path.relative_to(SRC / "obento").with_suffix("").parts)


@cache
def tree(path: Path) -> ast.Module:
    return ast.parse(path.read_text(encoding="utf-8"))


MODULES = {name_of(p): p for p in FILES}


def room(module: str) -> str:
    """The row of the map that a module belongs to: its folder, or the module itself where a folder holds several."""
    if module.startswith("server.") and (module.endswith("routes") or module in BESIDE_ROUTES):
        return "server.routes"
    found = module
    while found not in LEVEL:
        if "." not in found:
            raise KeyError(f"{module} is in no row of the map")
        found = found.rpartition(".")[0]
    return found


def imports(path: Path) -> set[str]:
    """Modules of ours that a file imports, wherever in it: at its head, late, or for types alone."""
    found = set()
    for node in ast.walk(tree(path)):
        if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("obento."):
            base = (node.module or "").removeprefix("obento.")
            for alias in node.names:
                whole = f"{base}.{alias.name}"
                found.add(whole if whole in MODULES else base)
    return {f for f in found if f in MODULES}


@pytest.mark.parametrize("path", FILES, ids=name_of)
def test_imports_run_one_way(path: Path) -> None:
    own = room(name_of(path))
    for module in imports(path):
        other = room(module)
        if other != own:
            assert LEVEL[other] < LEVEL[own], f"{name_of(path)} must not know {module}"


def test_no_file_knows_itself_through_others() -> None:
    """Circles inside of rooms too."""
    graph = {name_of(p): imports(p) for p in FILES}
    done: set[str] = set()
    for start in graph:
        stack: list[tuple[str, Iterator[str]]] = [(start, iter(graph[start]))]
        on_way = [start]
        while stack and start not in done:
            _, rest = stack[-1]
            following = next(rest, None)
            if following is None:
                stack.pop()
                done.add(on_way.pop())
                continue
            assert following not in on_way, f"a circle: {' -> '.join([*on_way[on_way.index(following) :], following])}"
            if following not in done:
                stack.append((following, iter(graph[following])))
                on_way.append(following)


def test_nothing_is_imported_for_types_alone() -> None:
    """What a type-only import hides is a circle."""
    for path in FILES:
        assert "TYPE_CHECKING" not in path.read_text(encoding="utf-8"), path


def test_the_core_is_pure() -> None:
    banned = ("fastapi", "pymysql", "requests", "httpx", "socket", "subprocess", "uvicorn", "time", "datetime")
    for path in CORE:
        for node in ast.walk(tree(path)):
            names = (
                [a.name for a in node.names] if isinstance(node, ast.Import)
                else [node.module or ""] if isinstance(node, ast.ImportFrom) else []
            )  # fmt: skip
            assert not any(n.split(".")[0] in banned for n in names), path


def test_sql_stands_in_the_store() -> None:
    for path in FILES:
        if path.relative_to(SRC / "obento").parts[0] == "store":
            continue
        for node in ast.walk(tree(path)):
            if isinstance(node, ast.Constant) and isinstance(node.value, str):
                said = re.match(r"\s*(SELECT|INSERT INTO|UPDATE|DELETE FROM|REPLACE INTO) ", node.value)
                assert said is None, f"{path}:{node.lineno}"


@pytest.mark.parametrize("path", FILES, ids=name_of)
def test_a_file_holds_one_idea(path: Path) -> None:
    lines = len(path.read_text(encoding="utf-8").splitlines())
    most = LONGER.get(path.relative_to(SRC / "obento").as_posix(), MOST_LINES)
    assert lines <= most, f"{lines} lines: does it hold two things?"


class Branches(ast.NodeVisitor):
    """Counts the ways through a function: conditions, loops, arms, and each further term of a condition."""

    def __init__(self) -> None:
        self.count = 0

    def visit(self, node: ast.AST) -> None:
        if isinstance(node, ast.If | ast.For | ast.While | ast.IfExp | ast.ExceptHandler | ast.match_case | ast.Assert):
            self.count += 1
        elif isinstance(node, ast.comprehension):
            self.count += 1 + len(node.ifs)
        elif isinstance(node, ast.BoolOp):
            self.count += len(node.values) - 1
        self.generic_visit(node)


@pytest.mark.parametrize("path", FILES, ids=name_of)
def test_a_function_does_one_thing(path: Path) -> None:
    for node in ast.walk(tree(path)):
        if isinstance(node, ast.FunctionDef):
            lines = (node.end_lineno or 0) - node.lineno + 1
            assert lines <= LONGER_FUNCTIONS.get(node.name, MOST_LINES_OF_A_FUNCTION), f"{node.name}: {lines} lines"
            branches = Branches()
            branches.visit(node)
            assert branches.count <= MOST_BRANCHES, f"{node.name}: {branches.count} branches"


def public(body: list[ast.stmt], within: str = "") -> Iterator[tuple[str, ast.FunctionDef | ast.ClassDef]]:
    """Functions, classes and methods whose names do not begin with an underscore."""
    for node in body:
        if isinstance(node, ast.FunctionDef | ast.ClassDef) and not node.name.startswith("_"):
            yield within + node.name, node
            if isinstance(node, ast.ClassDef):
                yield from public(node.body, f"{within}{node.name}.")


@pytest.mark.parametrize("path", CORE, ids=name_of)
def test_public_names_of_the_core_say_what_they_are(path: Path) -> None:
    assert ast.get_docstring(tree(path)), "the file itself"
    silent = [name for name, node in public(tree(path).body) if not ast.get_docstring(node)]
    assert not silent


def test_rooms_of_one_subject_have_the_same_parts() -> None:
    """A subject of the server has its routes, its models and its service in one folder."""
    parts: dict[str, set[str]] = defaultdict(set)
    for path in FILES:
        where = path.relative_to(SRC / "obento").parts
        if where[0] == "server" and len(where) == 3:
            parts[where[1]].add(where[2])
    del parts["cases"]  # what several subjects show of cases, nothing that is asked for by itself
    for subject, files in parts.items():
        assert {"routes.py", "models.py"} <= files, subject
