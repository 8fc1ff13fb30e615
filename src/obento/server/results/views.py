"""Results by cluster, all cells packed, and one hand-in in review."""

from __future__ import annotations

import json
import struct
from typing import Any

import numpy as np

from obento.core import values
from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.divergence import diverge
from obento.core.check.explaining.slips import SLIPS
from obento.core.check.explaining.timing_slips import TIMING_SLIPS
from obento.core.check.judging.verdict import Verdict, set_bits
from obento.core.check.running.steps import OPEN_AS_ONE
from obento.core.texts import decode
from obento.runner.worker import Task, TraceTask
from obento.server.errors import not_found
from obento.server.marks.mark import Mark, held_reason, settle, why_held
from obento.server.models import MessageView, NameBinding
from obento.server.results.models import CaseRow, ClusterView, Member, ResultsView
from obento.server.results.rows import case_rows, first_wrong, wrong_cases
from obento.server.results.state import TaskState, missing_students, task_state
from obento.server.review.models import LineNote, ReviewView, Since, SourceFileView
from obento.server.specs.cases import case_label, port_views
from obento.server.specs.shelf import OpenSpec
from obento.store import feedback, handins, repairs, results
from obento.store.connection import Connection

_TITLES = SLIPS | TIMING_SLIPS | {"ripple-clock", "race"}


_STRIP = 64


_TITLE_LENGTH = 72


_CLUSTER_ROWS = 6


_REVIEW_ROWS = 1024


_TEXT_BYTES = 400_000


class TaskPicture:
    """Everything about a task's outcomes that the screens draw from."""

    def __init__(self, c: Connection, lab: dict[str, Any], task: dict[str, Any], spec: OpenSpec) -> None:
        self.c = c
        self.lab = lab
        self.task = task
        self.spec = spec
        self.expectation: Expectation = spec.expectation
        self.rows = handins.handins_of(c, lab["id"])
        self.by_handin = {r["id"]: r for r in self.rows}
        self.state: TaskState = task_state(c, task, self.rows, lab["which_attempt"])
        self.bindings = results.bindings_of(c, [r["id"] for r in self.state.by_handin.values()])
        self.comments = feedback.comments_of(c, task["id"])
        self.repairs = repairs.repairs_of(c, [r["id"] for r in self.state.by_handin.values()])
        self._first_of: dict[str, bytes] = {}
        self.ledger = feedback.marks_of(c, lab["id"])

    def mark(self, handin_id: int) -> Mark:
        return settle(self.ledger.get((handin_id, self.task["id"]), []))

    def member(self, handin_id: int) -> Member:
        row, result = self.by_handin[handin_id], self.state.by_handin[handin_id]
        mark = self.mark(handin_id)
        bound = [f"{b['theirs']} to {b['ours']}" for b in self.bindings.get(result["id"], [])]
        note = self.comments.get(("", handin_id))
        return Member(
            handin_id=handin_id, name=row["student_name"] or row["team_name"] or row["label"], language=result["language"],
            attempt=result["attempt"], late=bool(result["late"]), bound=bound, mark=mark.value, held=mark.held,
            noted=bool(note and note["text"].strip()), trouble=why_held(result["status"], json.loads(result["detail"])["messages"]),
        )  # fmt: skip

    def clusters(self) -> list[ClusterView]:
        """Wrong ones first (the more people the sooner), then rule-breakers, the uncheckable, the right ones."""
        groups: dict[str, list[int]] = {}
        for handin_id in self.by_handin:
            result = self.state.by_handin.get(handin_id)
            if result is not None:
                groups.setdefault(self.state.cluster_key(result), []).append(handin_id)
        views = [self._cluster(key, ids) for key, ids in groups.items()]
        order = {"wrong": 0, "rules": 1, "unchecked": 2, "right": 3}
        return sorted(views, key=lambda v: (order[v.kind], -len(v.members), v.key))

    def _cluster(self, key: str, ids: list[int]) -> ClusterView:
        result = self.state.by_handin[ids[0]]
        kind = self.state.kind(result)
        detail = json.loads(result["detail"])
        comment = self.comments.get((key, 0))
        members = [self.member(i) for i in ids]
        rows: list[CaseRow] = []
        strip, shares = "", list[int]()
        if result["status"] == "checked":
            verdict = results.load_verdict(self.c, result, self.expectation)
            strip, shares = self._strip(verdict)
            rows = case_rows(self.expectation, verdict, first_wrong(self.expectation, verdict)[:_CLUSTER_ROWS])
        marks = {m.mark for m in members}
        details = [json.loads(self.state.by_handin[i]["detail"]) for i in ids]
        shared = set.intersection(*(_codes(d) for d in details))
        broken = {_broken_rules(d) for d in details}
        return ClusterView(
            key=key, kind=kind, title=self._title(kind, result, detail, shared, broken), sentences=self._sentences(kind, detail) + self._change(ids),
            strip=strip, strip_shares=shares, rows=rows,
            passed=result["passed"], total=result["total"], members=members, mark=marks.pop() if len(marks) == 1 else None,
            comment=comment["text"] if comment else "", comment_version=comment["version"] if comment else 0,
        )  # fmt: skip

    def _strip(self, verdict: Verdict) -> tuple[str, list[int]]:
        """One letter a case. Of many cases one letter a part of them, the worst in it, and how many in a hundred there are not right."""
        cells = verdict.cells()
        if len(cells) <= _STRIP:
            return cells, []
        size = -(-len(cells) // _STRIP)
        parts = [cells[i : i + size] for i in range(0, len(cells), size)]
        worst = "".join(next((x for x in "sfup" if x in part), "n") for part in parts)
        wrong = [sum(part.count(x) for x in "sfu") for part in parts]
        return worst, [-(-100 * n // len(part)) for n, part in zip(wrong, parts, strict=True)]

    def _title(self, kind: str, result: dict[str, Any], detail: dict[str, Any], shared: set[str], broken: set[str]) -> str:
        """What they have in common in a few words.

        `shared` are the codes of messages that every one of them got, `broken` the different ways in which they break rules.
        """
        if kind == "right":
            return "right on every case"
        if kind == "unchecked":
            return f"not checked: {held_reason(result['status'])}"
        if kind == "rules":
            return f"right, but {broken.pop()}" if len(broken) == 1 else "right, but against the rules, each in its own way"
        findings = detail["findings"]
        if findings and findings[0]["kind"] in _TITLES:
            return str(findings[0]["text"])
        if "sensitivity" in shared:
            return "does not wake for every input"
        if "latch" in shared or (findings and findings[0]["kind"] == "remembers"):
            return "keeps its last value"
        if self.expectation.cases.labels:
            return self._failed_checks(result)
        about = [f for f in findings if f.get("output")]
        if len(about) == 1 and " whenever " in about[0]["text"] and len(about[0]["text"]) <= _TITLE_LENGTH:
            return str(about[0]["text"]).partition(":")[0]
        outputs = [f["output"] for f in about]
        unique = list(dict.fromkeys(outputs))
        undefined = all(f["kind"] == "undefined" for f in findings if f.get("output"))
        return f"{' and '.join(unique[:3])}{' and more' if len(unique) > 3 else ''} {'undefined' if undefined else 'wrong'}"

    def _failed_checks(self, result: dict[str, Any]) -> str:
        """The checks of a bench that a hand-in fails, by name."""
        verdict = results.load_verdict(self.c, result, self.expectation)
        names = [self.expectation.cases.labels[i] for i in wrong_cases(verdict)]
        return f"fails {', '.join(names[:3])}" + (f" and {len(names) - 3} more checks" if len(names) > 3 else "")

    def _sentences(self, kind: str, detail: dict[str, Any]) -> list[str]:
        if kind == "unchecked":
            return []
        findings = detail["findings"]
        if findings and findings[0]["kind"] in _TITLES:  # it is the title, and says more than a condition would
            slip, *findings = findings
            if slip["kind"].startswith("exchanged"):
                findings = []
            elif slip["kind"] in TIMING_SLIPS:
                findings = [f for f in findings if f["kind"] != "diverges" and f["output"] in ("", slip["output"])]
            elif slip["kind"] != "ignores":
                findings = [f for f in findings if f["output"] != slip["output"]]
        texts = [f["text"] for f in findings]
        if kind == "wrong":
            texts += [r["text"] for r in detail["rules"] if not r["ok"]]
        return texts

    def _change(self, ids: list[int]) -> list[str]:
        """The smallest change, where the same words mend them all."""
        found = [self.repairs.get(self.state.by_handin[i]["id"]) for i in ids]
        words = {r.changes[0].text if r is not None and r.changes else "" for r in found}
        text = words.pop() if len(words) == 1 else ""
        return [f"{text} would make every case right"] if text else []

    def results_view(self) -> ResultsView:
        cases = self.expectation.cases
        failures = np.zeros(cases.count, dtype=np.int64)
        newest = None
        for result in self.state.by_handin.values():
            newest = max(newest or result["at"], result["at"])
            if result["status"] == "checked":
                bad = np.frombuffer(self.astray(result), dtype=np.uint8)
                failures += np.unpackbits(bad, bitorder="little", count=cases.count).astype(np.int64)
        shown = min(cases.count, 256)
        order = list(range(shown)) if cases.count <= 256 else np.argsort(-failures, kind="stable")[:shown].tolist()
        if cases.drive is not None:  # of many steps only those that tell something
            order = sorted(i for i in order if failures[i])
        spec = self.expectation.spec
        clusters = self.clusters()
        planes = [(n, results.unpack(self.astray(self.state.by_handin[c.members[0].handin_id]))) for n, c in enumerate(clusters) if c.kind == "wrong"]
        return ResultsView(
            task_id=self.task["id"], version=self.spec.number, unit=spec.unit, inputs=[p.name for p in spec.inputs],
            outputs=[p.name for p in spec.outputs], cases=cases.count,
            clocked=self.expectation.cases.drive is not None,
            case_labels=[case_label(self.expectation, int(i)) for i in order], case_failures=[int(failures[i]) for i in order],
            case_clusters=[[n for n, plane in planes if plane >> int(i) & 1] for i in order], clusters=clusters,
            missing=[s["name"] for s in missing_students(self.c, self.lab, self.rows)],
            waiting=self.state.waiting, checked_at=newest,
        )  # fmt: skip

    def astray(self, result: dict[str, Any]) -> bytes:
        """The cases that are not right, packed; of clocked hand-ins those steps that do not only follow from earlier ones."""
        count = self.expectation.cases.count
        if self.expectation.cases.drive is None:
            return results.pack(((1 << count) - 1) & ~results.unpack(result["plane_right"]), count)
        known = self._first_of.get(result["cluster"])
        if known is None:
            verdict = results.load_verdict(self.c, result, self.expectation)
            known = self._first_of[result["cluster"]] = results.pack(diverge(self.expectation, verdict).first, count)
        return known

    def cells(self) -> bytes:
        """All cells of the class, packed: a JSON head, then for each hand-in the planes that are not empty.

        Layout: length of the head (uint32, little endian), the head, then the planes in the order that `planes` of each
        row names them (f failed, u undefined, n not compared, s stopped), each `(cases + 7) // 8` bytes; whatever is in none passed.
        """
        count = self.expectation.cases.count
        head_rows = []
        body = bytearray()
        for handin_id in self.by_handin:
            result = self.state.by_handin.get(handin_id)
            if result is None:
                continue
            names = ""
            for letter, column in (("f", "plane_failed"), ("u", "plane_undefined"), ("n", "plane_not_compared"), ("s", "plane_stopped")):
                if any(result[column]):
                    names += letter
                    body += result[column]
            member = self.member(handin_id)
            head_rows.append(
                {"id": handin_id, "name": member.name, "planes": names, "status": result["status"], "mark": member.mark,
                 "cluster": self.state.cluster_key(result), "passed": result["passed"]}
            )  # fmt: skip
        labels = [case_label(self.expectation, i) for i in range(min(count, 1024))]
        groups = {name: set_bits(plane)[:1] for name, plane in self.expectation.groups.items()}
        head = json.dumps({"cases": count, "rows": head_rows, "labels": labels, "groups": groups}).encode()
        return struct.pack("<I", len(head)) + head + bytes(body)

    def review(self, handin_id: int) -> ReviewView:
        row, result = self.by_handin.get(handin_id), self.state.by_handin.get(handin_id)
        if row is None or result is None:
            raise not_found("outcome of this hand-in")
        detail = json.loads(result["detail"])
        spec = self.expectation.spec
        key = self.state.cluster_key(result)
        rows: list[CaseRow] = []
        more = 0
        if result["status"] in ("checked", "stopped") and self._has_outputs(result):
            verdict = results.load_verdict(self.c, result, self.expectation)
            order = self._review_order(verdict)
            rows = case_rows(self.expectation, verdict, order[:_REVIEW_ROWS])
            more = len(order) - len(rows)
        attempt = next(a for a in handins.attempts_of(self.c, handin_id) if a["id"] == result["attempt_id"])
        files = []
        for file in handins.attempt_files(self.c, result["attempt_id"]):
            text = decode(file.data[:_TEXT_BYTES])
            files.append(SourceFileView(path=file.path, text=text if text is not None else "(no text file)"))
        mark = self.mark(handin_id)
        comment, note = self.comments.get((key, 0)), self.comments.get(("", handin_id))
        agreed = handins.consents(self.c, self.task["id"])
        same = [self.member(i) for i in self.by_handin if i in self.state.by_handin and self.state.cluster_key(self.state.by_handin[i]) == key]
        return ReviewView(
            handin_id=handin_id, name=row["student_name"] or row["team_name"] or row["label"], status=result["status"],
            language=result["language"], unit=result["unit"], attempt=attempt["number"], attempts=row["attempts"],
            received_at=attempt["received_at"], late=bool(attempt["late"]), passed=result["passed"], total=result["total"], mark=mark.value,
            held=mark.held, mark_reason=mark.reason, max_mark=spec.marks.total, inputs=[p.name for p in spec.inputs],
            outputs=[p.name for p in spec.outputs], rows=rows, more_rows=more, clocked=self.expectation.cases.drive is not None,
            since=self._since(handin_id, result), output=detail.get("output", ""), ports=port_views(spec),
            clock=spec.clock.port if spec.clock else "",
            findings=[f["text"] for f in detail["findings"]],
            rules=[r["text"] for r in detail["rules"] if not r["ok"]], files=files, notes=_line_notes(detail),
            messages=[MessageView(**m) for m in detail["messages"]],
            binding=[
                NameBinding(ours=b["ours"], theirs=b["theirs"], how=b["how"], agreed=(b["ours"], b["theirs"]) in agreed)
                for b in self.bindings.get(result["id"], [])
            ],
            cluster=key, same=same, comment=comment["text"] if comment else "", comment_version=comment["version"] if comment else 0,
            note=note["text"] if note else "", note_version=note["version"] if note else 0,
        )  # fmt: skip

    def _since(self, handin_id: int, result: dict[str, Any]) -> Since | None:
        """What turned since the attempt before."""
        before = [a for a in handins.attempts_of(self.c, handin_id) if a["number"] < result["attempt"]]
        if not before:
            return None
        earlier = next(
            (r for r in results.results_of(self.c, self.task["id"], result["spec_version_id"]) if r["attempt_id"] == before[-1]["id"]), None
        )
        if earlier is None:
            return Since(attempt=before[-1]["number"], is_known=False)
        was, now = results.unpack(earlier["plane_right"]), results.unpack(result["plane_right"])
        return Since(
            attempt=before[-1]["number"], is_known=True, status=earlier["status"], passed=earlier["passed"], turned_right=set_bits(now & ~was),
            turned_wrong=set_bits(was & ~now),
        )  # fmt: skip

    def worker_task(self, handin_id: int) -> Task:
        """What a worker needs to run a hand-in that was checked.

        Raises
        ------
        Trouble
            If it was not.
        """
        result = self.state.by_handin.get(handin_id)
        if result is None or result["status"] != "checked":
            raise not_found("checked hand-in")
        files = tuple(handins.attempt_files(self.c, result["attempt_id"]))
        return Task(self.spec.files, files, self.spec.provided, handins.choices(self.c, handin_id, self.task["id"]))

    def verdict_of(self, handin_id: int) -> Verdict:
        """The stored verdict of a hand-in that was checked."""
        return results.load_verdict(self.c, self.state.by_handin[handin_id], self.expectation)

    def review_cases(self, handin_id: int) -> list[int]:
        """The cases that the review of a hand-in shows, in its order."""
        result = self.state.by_handin.get(handin_id)
        if result is None or result["status"] != "checked":
            raise not_found("checked hand-in")
        return self._review_order(self.verdict_of(handin_id))[:_REVIEW_ROWS]

    def trace_task(self, handin_id: int, sequence: int, wanted: tuple[str, ...]) -> tuple[TraceTask, Verdict]:
        """What a worker needs to trace one sequence of a hand-in, and the verdict it goes with."""
        result = self.state.by_handin.get(handin_id)
        drive = self.expectation.cases.drive
        if result is None or drive is None or result["status"] != "checked" or not 0 <= sequence < len(drive.sequences):
            raise not_found("sequence of this hand-in")
        verdict = results.load_verdict(self.c, result, self.expectation)
        of_sequence = drive.sequences[sequence]
        open_steps = next((mask for name, mask in verdict.failing_runs if name == OPEN_AS_ONE), 0)
        is_open = bool(open_steps >> of_sequence.first & values.ones(of_sequence.length))
        return TraceTask(self.worker_task(handin_id), sequence, wanted, is_open), verdict

    def _review_order(self, verdict: Verdict) -> list[int]:
        """Failing cases first; of clocked hand-ins the steps that are wrong of themselves before those that follow."""
        if self.expectation.cases.drive is None:
            return wrong_cases(verdict) + set_bits(verdict.right)
        found = diverge(self.expectation, verdict)
        return set_bits(found.first) + set_bits(found.follows) + set_bits(verdict.right)

    def _has_outputs(self, result: dict[str, Any]) -> bool:
        return self.c.value("SELECT 1 FROM result_output WHERE result_id = %s LIMIT 1", result["id"]) is not None


def _codes(detail: dict[str, Any]) -> set[str]:
    return {m["code"] for m in detail["messages"]}


def _line_notes(detail: dict[str, Any]) -> list[LineNote]:
    notes = [
        LineNote(file=m["file"], line=m["line"], severity=m["severity"], text=m["text"] + (f" ({m['hint']})" if m["hint"] else ""))
        for m in detail["messages"]
        if m["line"]
    ]
    notes += [LineNote(file=f["file"], line=f["line"], severity="finding", text=f["text"]) for f in detail["findings"] if f.get("line")]
    return notes


def _broken_rules(detail: dict[str, Any]) -> str:
    return "; ".join(r["text"] for r in detail["rules"] if not r["ok"])
