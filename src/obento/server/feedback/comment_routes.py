"""Comments on clusters and notes to one hand-in."""

from __future__ import annotations

from fastapi import APIRouter

from obento.server.course.lookup import the_task
from obento.server.deps import Db, OpeningRoute, Person
from obento.server.errors import not_found
from obento.server.feedback.models import ClusterKey, CommentSaved, CommentText
from obento.store import audit, comments, course

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["feedback"])


@router.put("/tasks/{task_id}/comments/{cluster}")
def put_comment(task_id: int, cluster: ClusterKey, body: CommentText, c: Db, person: Person) -> CommentSaved:
    """Keep the comment of a cluster; with `handin_id` a note for one hand-in alone."""
    key = "" if body.handin_id else cluster
    if body.handin_id and course.lab_of_handin(c, body.handin_id) != the_task(c, task_id).lab_id:
        raise not_found("hand-in")
    version = comments.put_comment(c, task_id, key, body.handin_id, body.text, body.version, person.id)
    audit.note(c, person.id, "comment", f"task {task_id}", {"cluster": key, "hand-in": body.handin_id})
    return CommentSaved(version=version)
