"""`obento catch-rate`: how many likely mistakes the cases of a spec catch, and which they miss."""

from __future__ import annotations

import json
import math
import sys
from dataclasses import asdict
from pathlib import Path

from obento.cli.check import told_spec
from obento.cli.writing import CallError
from obento.core.check.mutation.catch_rate import CatchRate, NoReference, catch_rate


def run_catch_rate(spec: Path, json_file: Path | None) -> int:
    """The exit status: 0 all are caught, 1 some are missed, 2 the spec is wrong or has nothing that could be
    changed."""
    try:
        files, loaded = told_spec(spec)
        if loaded.expectation is None:
            return 2
        found = catch_rate(loaded, dict(files.others))
        if json_file is not None:
            json_file.write_text(
                json.dumps({"share": found.share, **asdict(found)}, ensure_ascii=False, indent=1) + "\n",
                encoding="utf-8",
            )
    except (CallError, NoReference, OSError) as error:
        print(f"error: {error}", file=sys.stderr)
        return 2
    _show(found)
    return 0 if found.share == 1.0 else 1


def _show(found: CatchRate) -> None:
    cases, left_open = found.cases, found.cases - found.compared
    if not found.reference:
        among = f"{found.compared} of " if left_open else "all "
        print(
            f"{math.floor(100 * found.share)} %: {among}{cases} combinations are compared, and whatever is wrong there"
            " is caught"
        )
        return
    telling = found.tried - found.harmless
    print(
        f"{math.floor(100 * found.share)} %: {found.caught} of {telling} likely mistakes in {found.reference} are"
        f" caught by {cases} cases"
    )
    if left_open:
        print(f"in {left_open} of {cases} cases nothing is compared")
    if found.harmless:
        print(f"{found.harmless} further changes make no difference to what is compared")
    if not found.is_whole:
        print(f"there are more than {found.tried} possible changes; these are spread over all of them")
    for m in found.missed:
        print(f"missed: {m.file}:{m.line}: {m.change}")
        print(f"  to catch it: {m.inputs}, where {m.shows}")
    if telling - found.caught > len(found.missed):
        print(f"and {telling - found.caught - len(found.missed)} more")
