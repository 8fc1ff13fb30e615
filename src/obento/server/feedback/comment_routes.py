"""Comments on clusters and notes to one hand-in."""

from __future__ import annotations

from fastapi import APIRouter

from obento.server.course.access import may_see_handin, may_see_task
from obento.server.deps import Db, Person
from obento.server.feedback.models import CommentSaved, CommentText
from obento.store import audit, comments

router = APIRouter(prefix="/api", tags=["feedback"])


@router.put("/tasks/{task_id}/comments/{cluster}")
def put_comment(task_id: int, cluster: str, body: CommentText, c: Db, person: Person) -> CommentSaved:
    """Keep the comment of a cluster; with `handin_id` a note for one hand-in alone."""
    may_see_task(c, task_id, person.id)
    key = "" if body.handin_id else cluster
    if body.handin_id:
        may_see_handin(c, body.handin_id, person.id)
    version = comments.put_comment(c, task_id, key, body.handin_id, body.text, body.version, person.id)
    audit.note(c, person.id, "comment", f"task {task_id}", {"cluster": key, "hand-in": body.handin_id})
    return CommentSaved(version=version)
