"""All cells of a class, packed for the canvas."""

from __future__ import annotations

import json
import struct

from obento.core.planes import set_bits
from obento.server.results.clusters import member_of
from obento.server.results.outcomes import TaskOutcomes

_MOST_LABELS = 1024


def packed_cells(outcomes: TaskOutcomes) -> bytes:
    """A JSON head, then for each hand-in the planes that are not empty.

    Layout: length of the head (uint32, little endian), the head, then the planes in the order that `planes` of each row
    names them (f failed, u undefined, n not compared, s stopped), each `(cases + 7) // 8` bytes; whatever is in none
    passed."""
    count = outcomes.expectation.cases.count
    nothing = bytes((count + 7) // 8)
    head_rows = []
    body = bytearray()
    for handin_id in outcomes.by_handin:
        result = outcomes.state.by_handin.get(handin_id)
        if result is None:
            continue
        names = ""
        cases = outcomes.cases[result.planes]
        planes = (("f", cases.failed), ("u", cases.undefined), ("n", cases.not_compared), ("s", cases.stopped))
        for letter, plane in planes:
            if plane != nothing:
                names += letter
                body += plane
        member = member_of(outcomes, handin_id)
        head_rows.append(
            {"id": handin_id, "name": member.name, "planes": names, "status": result.status, "mark": member.mark,
             "cluster": outcomes.state.cluster_key(result), "passed": result.passed}
        )  # fmt: skip
    labels = outcomes.spec.labels(min(count, _MOST_LABELS))
    groups = {name: set_bits(plane)[:1] for name, plane in outcomes.expectation.groups.items()}
    head = json.dumps({"cases": count, "rows": head_rows, "labels": labels, "groups": groups}).encode()
    return struct.pack("<I", len(head)) + head + bytes(body)
