"""Results of a class."""

from __future__ import annotations

from fastapi import APIRouter, Request, Response

from obento.server.deps import Db, OpeningRoute, Person, ServicesDep
from obento.server.results.cells import packed_cells
from obento.server.results.lookup import outcomes_of
from obento.server.results.models import ResultsView
from obento.server.results.summary import results_view

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["results"])


@router.get("/tasks/{task_id}/results", response_model=ResultsView)
def get_results(task_id: int, c: Db, person: Person, request: Request, services: ServicesDep) -> Response:
    """The class by clusters, and how many fail each case."""
    return services.answers.of(c, request, lambda: results_view(outcomes_of(c, task_id, services)))


@router.get("/tasks/{task_id}/cells", response_class=Response)
def get_cells(task_id: int, c: Db, person: Person, request: Request, services: ServicesDep) -> Response:
    """All cells of the class, bit-packed (see `packed_cells`)."""
    return services.answers.of(
        c,
        request,
        lambda: packed_cells(outcomes_of(c, task_id, services)),
        media_type="application/octet-stream",
    )
