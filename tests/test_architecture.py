"""Imports run one way; this test is the map's law."""

from __future__ import annotations

import ast
from pathlib import Path

import pytest

SRC = Path(__file__).resolve().parents[1] / "src"

LAYERS = [
    {"core.source", "core.limits", "core.pause", "core.suggest", "core.values", "core.decimals", "core.texts"},
    {"core.diagnostics", "core.copies"},
    {"core.syntax", "core.ir"},
    {"core.formula", "core.verilog", "core.vhdl", "core.wiring", "core.sim"},
    {"core.pieces"},
    {"core.handin", "core.spec", "core.circuit"},
    {"core.check", "core.simulate"},
    {"intake", "runner", "export", "mail"},
    {"store"},
    {"server"},
    {"demo"},
    {"cli"},
]
"""Each layer may use its own rooms and those above it in this list."""

SIBLINGS_APART = {"core.verilog", "core.vhdl", "core.wiring", "core.sim"}
"""Rooms of one layer that must not know each other."""


def room(module: str) -> str:
    parts = module.removeprefix("obento.").split(".")
    return ".".join(parts[:2]) if parts[0] == "core" else parts[0]


def level(name: str) -> int:
    return next(i for i, layer in enumerate(LAYERS) if name in layer)


def imports(path: Path) -> set[str]:
    found = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if (
            isinstance(node, ast.ImportFrom)
            and (node.module or "").startswith("obento.")
            and node.module != "obento.core"
        ):
            found.add(node.module or "")
        elif isinstance(node, ast.ImportFrom) and node.module == "obento.core":
            found |= {f"obento.core.{a.name}" for a in node.names}
    return found


FILES = sorted(p for p in (SRC / "obento").rglob("*.py") if p.name not in ("__init__.py", "__main__.py"))


@pytest.mark.parametrize("path", FILES, ids=lambda p: p.relative_to(SRC).as_posix())
def test_imports_run_one_way(path: Path) -> None:
    own = room(".".join(path.relative_to(SRC).with_suffix("").parts))
    for module in imports(path):
        if module == "obento":
            continue
        other = room(module)
        if other == own:
            continue
        assert level(other) <= level(own), f"{own} must not know {other}"
        assert not {own, other} <= SIBLINGS_APART, f"{own} and {other} must not know each other"


def test_the_core_is_pure() -> None:
    banned = ("fastapi", "pymysql", "requests", "httpx", "socket", "subprocess", "uvicorn", "time", "datetime")
    for path in (SRC / "obento/core").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            names = (
                [a.name for a in node.names]
                if isinstance(node, ast.Import)
                else [node.module or ""]
                if isinstance(node, ast.ImportFrom)
                else []
            )
            assert not any(n.split(".")[0] in banned for n in names), path
