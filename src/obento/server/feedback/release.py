"""Releasing letters: frozen, then sent as a link."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from obento.server.accounts.security import new_token, token_hash
from obento.server.errors import not_found
from obento.server.feedback.letters import letter_for
from obento.server.feedback.models import Letter, Released
from obento.server.feedback.outcomes import LabOutcomes
from obento.store import audit, letters


def release(
    outcomes: LabOutcomes, student_ids: list[int] | None, person_id: int, days: int, tell: Callable[[int, int], None]
) -> Released:
    """Freeze and queue the letters of those who have something; one that says the same as before is not sent again, and
    none goes out on a version that was not checked. `tell` hears before each how many are done, and of how many; what
    it raises ends it.

    Raises
    ------
    Trouble
        If somebody is not of this class.
    """
    known = {s.id: s for s in outcomes.students}
    wanted = student_ids if student_ids is not None else [s for s in known if s in outcomes.handin_of]
    before = letters.letters_of(outcomes.c, outcomes.lab.id)
    done = Released(letters=0, unchanged=0, without_address=0)
    for number, student_id in enumerate(wanted):
        tell(number, len(wanted))
        if student_id not in known:
            raise not_found("student")
        if outcomes.not_checked(student_id):
            done.not_checked += 1
            continue
        letter = letter_for(outcomes, student_id)
        old = before.get(student_id)
        if old is not None and old.withdrawn_at is None and is_same_letter(old.frozen, letter):
            done.unchanged += 1
            continue
        letter.corrects = old is not None and old.withdrawn_at is None
        letter_id = letters.add_letter(
            outcomes.c, outcomes.lab.id, student_id, letter.model_dump(mode="json"), person_id
        )
        token = new_token()
        letters.add_link(outcomes.c, letter_id, token_hash(token), days)
        address = known[student_id].email
        if address:
            letters.queue_delivery(outcomes.c, letter_id, address, token)
        else:
            done.without_address += 1
        done.letters += 1
    audit.note(outcomes.c, person_id, "release", f"lab {outcomes.lab.id}", done.model_dump())
    return done


def is_same_letter(frozen: dict[str, Any], letter: Letter) -> bool:
    """Whether a letter says what a frozen one says, in everything that there was to say then."""
    said, before = _said(letter.model_dump(mode="json")), _said(frozen)
    tasks = [
        {k: v for k, v in task.items() if k in old} for task, old in zip(said["tasks"], before["tasks"], strict=False)
    ]
    same_tasks = len(said["tasks"]) == len(before["tasks"]) and tasks == before["tasks"]
    return same_tasks and all(said.get(k) == v for k, v in before.items() if k != "tasks")


def _said(letter: dict[str, Any]) -> dict[str, Any]:
    """A letter without what is no reason to write again: that it corrects one, by which number its hand-in goes, which
    engine found the same, and what is said around it."""
    tasks = [{k: v for k, v in task.items() if k != "engine"} for task in letter["tasks"]]
    return {k: v for k, v in letter.items() if k not in ("corrects", "handin_id", "words")} | {"tasks": tasks}
