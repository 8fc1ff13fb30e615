"""A circuit that is stated, drawn and tried for a task. Nothing of it is kept."""

from __future__ import annotations

from fastapi import APIRouter, Request

from obento.core.handin import HandinFile
from obento.runner.worker import BesideTask, FormTask, StateTask, Task, run_beside, run_board, run_form, run_state
from obento.server.board.models import (
    BesideText,
    BesideView,
    BoardStart,
    BoardText,
    BoardView,
    FormView,
    KnownBlockView,
    Sentence,
    StatedView,
    WantedForm,
)
from obento.server.board.view import FILE, beside_view, board_start, board_view
from obento.server.deps import Db, OpeningRoute, Person, Services, ServicesDep, at_desk, reading
from obento.server.errors import Trouble, not_found
from obento.server.specs.opened import OpenSpec
from obento.store import boards, course

router = APIRouter(route_class=OpeningRoute, prefix="/api/tasks/{task_id}/board", tags=["board"])


async def _spec(services: Services, task_id: int) -> OpenSpec:
    return await reading(services, lambda c: services.opened.current(c, task_id))


@router.get("")
async def get_board(task_id: int, person: Person, services: ServicesDep) -> BoardStart:
    """An empty wiring list with the task's ports, and what its rules allow."""
    spec = await _spec(services, task_id)
    return board_start(spec.expectation, [f.path for f in spec.provided])


@router.post("")
async def try_board(
    task_id: int, body: BoardText, request: Request, person: Person, services: ServicesDep
) -> BoardView:
    """What a circuit does in every case, with its drawing."""
    spec = await _spec(services, task_id)
    task = Task(spec.files, (HandinFile(FILE, body.text.encode()),), spec.provided)
    tried = await at_desk(services, request, person, run_board, task)
    if isinstance(tried, str):
        raise Trouble(422, tried)
    return board_view(spec.expectation, tried)


@router.post("/beside")
async def hold_beside(
    task_id: int, body: BesideText, request: Request, person: Person, services: ServicesDep
) -> BesideView:
    """The circuit and another one, in any language, over all cases: whether they do the same, and where not."""
    spec = await _spec(services, task_id)
    task = Task(spec.files, (HandinFile(FILE, body.text.encode()),), spec.provided)
    other = HandinFile(f"beside.{body.language}", body.other.encode())
    found = await at_desk(services, request, person, run_beside, BesideTask(task, (other,)))
    if isinstance(found, str):
        raise Trouble(422, found)
    return beside_view(spec.expectation, found)


@router.get("/blocks")
def list_blocks(task_id: int, c: Db, person: Person) -> list[KnownBlockView]:
    """What other tasks of the class have beside their specs that could be a block here."""
    task = course.task(c, task_id)
    if task is None:
        raise not_found("task")
    found = boards.blocks_of_class(c, task.class_id, task_id)
    return [KnownBlockView(task=b.task, name=b.name, text=b.data.decode("utf-8", "replace")) for b in found]


@router.post("/state")
async def state_on_board(
    task_id: int, body: Sentence, request: Request, person: Person, services: ServicesDep
) -> StatedView:
    """Put a sentence into a text."""
    spec = await _spec(services, task_id)
    asked = StateTask(body.text, spec.expectation.spec.unit, body.said, tuple(body.only), body.how, tuple(body.lines))
    done = await at_desk(services, request, person, run_state, asked)
    if isinstance(done, str):
        raise Trouble(422, done)
    return StatedView(text=done.text, line=done.line, trouble=done.trouble, hint=done.hint)


@router.post("/form")
async def form_on_board(
    task_id: int, body: WantedForm, request: Request, person: Person, services: ServicesDep
) -> FormView:
    """The expected function as a circuit of one form, proven."""
    spec = await _spec(services, task_id)
    made = await at_desk(services, request, person, run_form, FormTask(spec.files, body.form))
    if isinstance(made, str):
        raise Trouble(422, made)
    return FormView(text=made.text, steps=made.steps)
