"""Results as files, one hand-in after the other: JSON (`result/1` of docs/formats.md), CSV, JUnit-style XML and TAP.

Each is a head, a part for each hand-in and a tail, so that no file is ever held as a whole. A part is made from nothing
but its hand-in, except in CSV and TAP, which need no more of it than its cells."""

from __future__ import annotations

import csv
import io
import json
import re
import xml.etree.ElementTree as ElementTree
from functools import cached_property
from xml.sax.saxutils import quoteattr

from obento.core.check.expectation.model import Expectation, case_texts
from obento.core.check.judging.outcome import Checked
from obento.core.check.report import Shown, handin_report, report_head
from obento.core.planes import set_bits
from obento.export.tables import neutral

_NOT_XML = re.compile(r"[^\t\n\r\x20-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")
_CSV = ["name", "status", "language", "unit", "passed", "total", "verdict", "cells", "findings", "messages"]


class JsonResult:
    """The JSON form `result/1`."""

    between = ",\n"
    tail = "\n]}\n"

    def __init__(self, expectation: Expectation, cases: Shown) -> None:
        self._expectation = expectation
        self._cases = cases

    @property
    def head(self) -> str:
        return json.dumps(report_head(self._expectation), ensure_ascii=False)[:-1] + ', "handins": [\n'

    def part(self, name: str, checked: Checked) -> str:
        return json.dumps(handin_report(self._expectation, name, checked, self._cases), ensure_ascii=False)


class JunitResult:
    """A test suite for each hand-in, a test case for each case (with `failing`, passing ones are counted, not
    listed)."""

    between = "\n"
    tail = "\n</testsuites>\n"

    def __init__(self, expectation: Expectation, cases: Shown) -> None:
        self._expectation = expectation
        self._cases = cases

    @property
    def head(self) -> str:
        title = quoteattr(_xml(self._expectation.spec.title))
        return f'<?xml version="1.0" encoding="UTF-8"?>\n<testsuites name={title}>\n'

    def part(self, name: str, checked: Checked) -> str:
        v, total = checked.verdict, self._expectation.cases.count
        wrong = total - v.right.bit_count() if v else 0
        suite = ElementTree.Element(
            "testsuite", name=_xml(name), tests=str(total), failures=str(wrong), errors="0" if v else "1", skipped="0"
        )
        if v is None:
            case = ElementTree.SubElement(suite, "testcase", name=checked.status, classname=_xml(name))
            text = "; ".join(str(m) for m in checked.messages if m.severity == "error")
            ElementTree.SubElement(case, "error", message=_xml(text), type=checked.status)
        else:
            listed = {"all": range(total), "failing": set_bits(self._expectation.cases.full & ~v.right), "none": []}
            chosen = listed[self._cases]
            for index, title in zip(
                chosen, case_texts(self._expectation.spec, self._expectation.cases, chosen), strict=True
            ):
                case = ElementTree.SubElement(suite, "testcase", name=title, classname=_xml(name))
                if not v.right >> index & 1:
                    outputs = [n for n, o in v.outputs.items() if not (o.passed | o.not_compared) >> index & 1]
                    text = f"{', '.join(outputs)} ({v.run_of(index)})"
                    ElementTree.SubElement(case, "failure", message=text, type="case")
        ElementTree.indent(suite, level=1)
        return "  " + ElementTree.tostring(suite, encoding="unicode")


class CsvResult:
    """One row for each hand-in. Verdict strings are kept from being read as numbers by a leading `v`."""

    between = ""
    tail = ""

    def __init__(self, expectation: Expectation) -> None:
        self._count = expectation.cases.count

    @property
    def head(self) -> str:
        return _row(_CSV)

    def part(self, name: str, checked: Checked) -> str:
        v = checked.verdict
        return _row(
            [
                name,
                checked.status,
                checked.language,
                checked.unit,
                v.right.bit_count() if v else 0,
                self._count,
                "v" + (v.digits() if v else "0" * self._count),
                v.cells() if v else "s" * self._count,
                "; ".join(f.text for f in checked.findings),
                "; ".join(f"{m.file}:{m.line or ''}: {m.text}" for m in checked.messages if m.severity == "error"),
            ]
        )


class TapResult:
    """TAP version 13: one line for each case of each hand-in; how many they are stands at the end."""

    head = "TAP version 13\n"
    between = ""

    def __init__(self, expectation: Expectation) -> None:
        self._expectation = expectation
        self._number = 0

    @cached_property
    def _titles(self) -> list[str]:
        cases = self._expectation.cases
        return case_texts(self._expectation.spec, cases, range(cases.count))

    @property
    def tail(self) -> str:
        return f"1..{self._number}\n"

    def part(self, name: str, checked: Checked) -> str:
        label = re.sub(r"[#\n\r]", "?", name)
        first = self._number + 1
        if checked.verdict is None:
            self._number += 1
            return f"not ok {first} - {label}: {checked.status}\n"
        digits = checked.verdict.digits()
        self._number += len(digits)
        return "".join(
            f"{'ok' if digit == '1' else 'not ok'} {number} - {label}: {title}\n"
            for number, (digit, title) in enumerate(zip(digits, self._titles, strict=True), first)
        )


ResultFile = JsonResult | JunitResult | CsvResult | TapResult


def _row(cells: list[object] | list[str]) -> str:
    out = io.StringIO()
    csv.writer(out).writerow([neutral(cell) for cell in cells])
    return out.getvalue()


def _xml(text: str) -> str:
    return _NOT_XML.sub("?", text)
