"""CSV (RFC 4180), JUnit-style XML and TAP."""

from __future__ import annotations

import csv
import io
import re
import xml.etree.ElementTree as ElementTree
from collections.abc import Iterable, Sequence
from typing import Any

from obento.core.check.expectation.model import Expectation, case_text
from obento.core.check.judging.outcome import Checked
from obento.core.check.report import Shown
from obento.core.planes import set_bits

_FORMULA = re.compile(r"^[=+\-@\t\r]")
_NOT_XML = re.compile(r"[^\t\n\r\x20-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")


def neutral(value: object) -> str:
    """A cell that no spreadsheet takes for a formula; plain numbers stay as they are."""
    text = "" if value is None else str(value)
    if _FORMULA.match(text) and not re.fullmatch(r"[+-]?\d+(\.\d+)?", text):
        return "'" + text
    return text


def rows_to_csv(header: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """A CSV text with every cell made harmless."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow([neutral(h) for h in header])
    for row in rows:
        writer.writerow([neutral(cell) for cell in row])
    return out.getvalue()


def csv_text(data: dict[str, Any]) -> str:
    """One row for each hand-in of a `result/1`. Verdict strings are kept from being read as numbers by a leading
    `v`."""
    header = ["name", "status", "language", "unit", "passed", "total", "verdict", "cells", "findings", "messages"]
    rows = [
        [
            h["name"],
            h["status"],
            h["language"],
            h["unit"],
            h["passed"],
            h["total"],
            "v" + h["verdict"],
            h["cells"],
            "; ".join(f["text"] for f in h["findings"]),
            "; ".join(
                f"{m['file'] or ''}:{m['line'] or ''}: {m['text']}" for m in h["messages"] if m["severity"] == "error"
            ),
        ]
        for h in data["handins"]
    ]
    return rows_to_csv(header, rows)


def _xml(text: str) -> str:
    return _NOT_XML.sub("?", text)


def junit_text(expectation: Expectation, checked: list[tuple[str, Checked]], cases: Shown) -> str:
    """A test suite for each hand-in, a test case for each case (with `failing`, passing ones are counted, not
    listed)."""
    root = ElementTree.Element("testsuites", name=_xml(expectation.spec.title))
    for name, c in checked:
        v = c.verdict
        total = expectation.cases.count
        wrong = total - v.right.bit_count() if v else 0
        suite = ElementTree.SubElement(
            root,
            "testsuite",
            name=_xml(name),
            tests=str(total),
            failures=str(wrong),
            errors="0" if v else "1",
            skipped="0",
        )
        if v is None:
            case = ElementTree.SubElement(suite, "testcase", name=c.status, classname=_xml(name))
            text = "; ".join(str(m) for m in c.messages if m.severity == "error")
            ElementTree.SubElement(case, "error", message=_xml(text), type=c.status)
            continue
        for index in (
            range(total)
            if cases == "all"
            else set_bits(expectation.cases.full & ~v.right)
            if cases == "failing"
            else []
        ):
            title = case_text(expectation.spec, expectation.cases, index)
            case = ElementTree.SubElement(suite, "testcase", name=title, classname=_xml(name))
            if not v.right >> index & 1:
                outputs = [n for n, o in v.outputs.items() if not (o.passed | o.not_compared) >> index & 1]
                ElementTree.SubElement(
                    case, "failure", message=f"{', '.join(outputs)} ({v.run_of(index)})", type="case"
                )
    ElementTree.indent(root)
    return ElementTree.tostring(root, encoding="unicode", xml_declaration=True) + "\n"


def tap_text(expectation: Expectation, checked: list[tuple[str, Checked]]) -> str:
    """TAP version 13: one line for each case of each hand-in."""
    lines = ["TAP version 13", f"1..{sum(c.verdict.count if c.verdict else 1 for _, c in checked)}"]
    number = 0
    for name, c in checked:
        label = re.sub(r"[#\n\r]", "?", name)
        if c.verdict is None:
            number += 1
            lines.append(f"not ok {number} - {label}: {c.status}")
            continue
        for index, digit in enumerate(c.verdict.digits()):
            number += 1
            title = case_text(expectation.spec, expectation.cases, index)
            lines.append(f"{'ok' if digit == '1' else 'not ok'} {number} - {label}: {title}")
    return "\n".join(lines) + "\n"
