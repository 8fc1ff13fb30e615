"""What is known of an expression by its identity is not taken for what is known of another one, whose node came to lie
at the same place in memory."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from obento.core.diagnostics import Collector
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design
from obento.core.limits import Limits
from obento.core.verilog.lowering.expressions import ExpressionLowering
from obento.core.verilog.model.scope import FunctionEntry, Scope, Vector
from obento.core.verilog.model.types import builtin, vector
from obento.core.verilog.syntax import ast


def no_function(entry: FunctionEntry) -> ir.Function:
    raise AssertionError(entry.item.name)


@pytest.fixture
def lowering() -> ExpressionLowering:
    """`n<width>` vectors, a real number `r` and a string `s`."""
    design, scope = Design("m", "verilog"), Scope("m")
    scope.system_verilog = scope.reals = scope.texts = True
    for width in range(1, 40):
        signal = design.add_signal(f"n{width}", width, "variable", 0)
        scope.entries[f"n{width}"] = Vector(signal, vector("logic", False, width - 1, 0), "logic")
    for name, word in (("r", "real"), ("s", "string")):
        signal = design.add_signal(name, 64, "variable", 0)
        signal.real, signal.text = word == "real", word == "string"
        scope.entries[name] = Vector(signal, builtin(word), word)
    return ExpressionLowering(scope, Collector(), Limits(), no_function)


def name(text: str) -> ast.Name:
    """A node of its own each time, which nobody keeps."""
    return ast.Name(0, len(text), text)


QUESTIONS: list[Callable[[ExpressionLowering, int], object]] = [
    lambda x, width: x.size(name(f"n{width}"))[0],
    lambda x, width: x.selects.shape(name(f"n{width}")).width,
    lambda x, width: len(x.targets(name(f"n{width}"))) and x.target_shape(name(f"n{width}")).width,
]


@pytest.mark.parametrize("ask", QUESTIONS)
def test_sizes_and_shapes_belong_to_their_own_node(
    lowering: ExpressionLowering, ask: Callable[[ExpressionLowering, int], object]
) -> None:
    assert [ask(lowering, width) for width in range(1, 40)] == list(range(1, 40))


def test_kinds_belong_to_their_own_node(lowering: ExpressionLowering) -> None:
    for text in ("n4", "r", "s", "n7", "s", "r", "n2") * 20:
        assert lowering.reals.is_real(name(text)) == (text == "r")
        assert lowering.texts.is_text(name(text)) == (text == "s")
