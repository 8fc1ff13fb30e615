"""Comparisons and labels of a case that have one answer whatever comes: legal, and seldom meant."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.ir import nodes as ir
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.syntax import ast
from obento.core.words import counted

_TURNED = {"<": ">", "<=": ">=", ">": "<", ">=": "<=", "==": "==", "!=": "!="}


def warn_if_settled(x: Expressions, e: ast.Binary) -> None:
    """Warn where a signal is compared with a number that it can never reach, or never fall below."""
    if e.op not in _TURNED:
        return
    if isinstance(e.b, ast.Number):
        name, number, op = e.a, e.b, e.op
    elif isinstance(e.a, ast.Number):
        name, number, op = e.b, e.a, _TURNED[e.op]
    else:
        return
    shape = x.shape_of(name) if isinstance(name, ast.Name | ast.Dotted | ast.Index | ast.Part | ast.Member) else None
    known = number.one ^ number.zero == (1 << number.digits) - 1
    if (
        shape is None
        or shape.is_aggregate
        or shape.type.signed
        or shape.type.is_real
        or shape.type.is_text
        or not known
    ):
        return
    answer = _answer(op, number.one, (1 << shape.width) - 1)
    if answer is None:
        return
    reach = f"{counted(shape.width, 'bit')} without sign hold 0 to {(1 << shape.width) - 1}"
    x.collector.warning(
        "settled-comparison",
        f"this comparison is {'always' if answer else 'never'} true: {reach}",
        e.start,
        e.end,
        "is the signal wide enough, or should it be `signed`?",
    )


def _answer(op: str, number: int, most: int) -> bool | None:
    """What comparing anything from 0 to `most` with a number gives, if always the same."""
    if number > most:
        return op in ("<", "<=", "!=")
    if op == ">=" and number == 0:
        return True
    if op == "<" and number == 0:
        return False
    if op == "<=" and number == most and most > 1:
        return True
    if op == ">" and number == most:
        return False
    return None


def warn_of_covered_labels(
    x: Expressions, match: str, arms: Sequence[ir.CaseArm], items: Sequence[ast.CaseItem]
) -> None:
    """Warn of a label that an earlier one covers: the first arm that fits is taken (9.5)."""
    before: list[tuple[int, int]] = []
    for arm, item in zip(arms, items, strict=True):
        for label, written in zip(arm.labels, item.labels, strict=True):
            if not isinstance(label, ir.Const):
                continue
            care = _care(match, label)
            if care is None:
                continue
            if any(mask & care == mask and (label.one ^ one) & mask == 0 for mask, one in before):
                x.collector.warning(
                    "covered-label",
                    "an arm above has this value already: this one is never reached by it",
                    written.start,
                    written.end,
                    "the first arm that fits is taken",
                )
            before.append((care, label.one))


def _care(match: str, label: ir.Const) -> int | None:
    """The digits of a label that count; None where x or z are to be matched as they are."""
    full = (1 << label.width) - 1
    known = label.one ^ label.zero
    if match == "ceq":
        return full if known == full else None
    floating = label.one & label.zero
    unknown = full & ~(label.one | label.zero)
    if match == "casez" and unknown:
        return None
    return full & ~(floating | unknown)
