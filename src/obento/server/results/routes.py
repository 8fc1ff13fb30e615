"""Results of a class."""

from __future__ import annotations

from fastapi import APIRouter, Response

from obento.server.deps import Db, Person, ServicesDep
from obento.server.results.access import picture_of
from obento.server.results.cells import packed_cells
from obento.server.results.models import ResultsView
from obento.server.results.summary import results_view

router = APIRouter(prefix="/api", tags=["results"])


@router.get("/tasks/{task_id}/results")
def get_results(task_id: int, c: Db, person: Person, found: ServicesDep) -> ResultsView:
    """The class by clusters, and how many fail each case."""
    return results_view(picture_of(c, task_id, person, found))


@router.get("/tasks/{task_id}/cells", response_class=Response)
def get_cells(task_id: int, c: Db, person: Person, found: ServicesDep) -> Response:
    """All cells of the class, bit-packed (see `TaskPicture.cells`)."""
    return Response(packed_cells(picture_of(c, task_id, person, found)), media_type="application/octet-stream")
