"""The link to a task's board for students: made and withdrawn by those who run the class, opened by anybody who has it.

What is tried behind it runs in the workers like everything else, behind those who work on a class, one thing of each
browser at a time; nothing of it is kept."""

from __future__ import annotations

import zlib
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar, cast

from fastapi import APIRouter, Request

from obento.core.board.trying import for_learners
from obento.core.check.expectation.model import Expectation
from obento.core.handin import HandinFile
from obento.runner.worker import StateTask, Task, run_for_learner, run_state
from obento.server.accounts.security import new_token
from obento.server.board.models import (
    LearnerSentence,
    LearnerStart,
    LearnerText,
    LearnerView,
    LinkView,
    LinkWanted,
    StatedView,
    Tells,
)
from obento.server.board.view import learner_start, learner_view
from obento.server.deps import Db, OpeningRoute, Person, Services, ServicesDep, reading
from obento.server.errors import Trouble, not_found
from obento.server.specs.opened import OpenSpec
from obento.store import boards
from obento.store.connection import Connection

T = TypeVar("T")
_CROWD = 40
"""So many may wait for a worker before others are asked to come again."""

router = APIRouter(route_class=OpeningRoute, prefix="/api/tasks/{task_id}/board/link", tags=["board"])
open_router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["board"])
"""What needs no sign-in."""


@router.get("")
def get_link(task_id: int, c: Db, person: Person, services: ServicesDep) -> LinkView:
    """The link, if there is one."""
    return _link_view(c, services, task_id)


@router.put("")
def put_link(task_id: int, body: LinkWanted, c: Db, person: Person, services: ServicesDep) -> LinkView:
    """Make a link, or say otherwise how much it tells."""
    if for_learners(services.opened.current(c, task_id).expectation) is None:
        raise Trouble(409, _HIDDEN)
    known = boards.link_of(c, task_id)
    boards.keep_link(c, task_id, known.token if known is not None else new_token(), body.tells, body.start, person.id)
    return _link_view(c, services, task_id)


@router.delete("")
def delete_link(task_id: int, c: Db, person: Person, services: ServicesDep) -> LinkView:
    """Withdraw the link: whoever has it gets an answer that says so."""
    boards.withdraw_link(c, task_id)
    return _link_view(c, services, task_id)


_HIDDEN = "a clocked task with hidden sequences has no board for students: they could not be left out"


def _link_view(c: Connection, services: Services, task_id: int) -> LinkView:
    link = boards.link_of(c, task_id)
    trouble = _HIDDEN if for_learners(services.opened.current(c, task_id).expectation) is None else ""
    address = f"{services.settings.address}/board/{link.token}" if link is not None else ""
    tells = cast(Tells, link.tells) if link is not None else "nothing"
    return LinkView(address=address, tells=tells, start=link.start if link is not None else None, trouble=trouble)


# For whoever has the link.


@dataclass(frozen=True, slots=True)
class _Behind:
    """What a link leads to; `visible` is what is expected without hidden cases."""

    spec: OpenSpec
    visible: Expectation
    tells: Tells
    start: str | None


async def _behind(services: Services, token: str) -> _Behind:
    def read(c: Connection) -> _Behind:
        link = boards.link_behind(c, token)
        if link is None:
            raise not_found("board, or the link no longer holds; ask your teaching assistant")
        spec = services.opened.current(c, link.task_id)
        visible = for_learners(spec.expectation)
        if visible is None:
            raise Trouble(409, "this task cannot be tried here any more; ask your teaching assistant")
        return _Behind(spec, visible, cast(Tells, link.tells), link.start)

    return await reading(services, read)


@open_router.get("/board/{token}")
async def get_learner_board(token: str, services: ServicesDep) -> LearnerStart:
    """An empty board with the task's ports."""
    link = await _behind(services, token)
    start = learner_start(link.visible, [f.path for f in link.spec.provided], link.tells)
    return start if link.start is None else start.model_copy(update={"text": link.start})


@open_router.post("/board/{token}")
async def try_learner_board(token: str, body: LearnerText, request: Request, services: ServicesDep) -> LearnerView:
    """What somebody's circuit does."""
    link = await _behind(services, token)
    file = HandinFile(f"board.{body.language}", body.text.encode())
    task = Task(link.spec.files, (file,), link.spec.provided)
    tried = await _at_desk(services, request, token, body.who, run_for_learner, task)
    return learner_view(link.visible, tried, link.tells)


@open_router.post("/sentence/{token}")
async def state_on_learner_board(
    token: str, body: LearnerSentence, request: Request, services: ServicesDep
) -> StatedView:
    """Put a sentence into a text."""
    spec = (await _behind(services, token)).visible.spec
    only = spec.rules.only_gates
    asked = StateTask(body.text, spec.unit, body.said, only, body.how, tuple(body.lines))
    done = await _at_desk(services, request, token, body.who, run_state, asked)
    return StatedView(text=done.text, line=done.line, trouble=done.trouble, hint=done.hint)


async def _at_desk(
    services: Services, request: Request, token: str, who: str, work: Callable[[Any], T | str], given: object
) -> T:
    """Have something done for one of many who have the same link."""
    if services.desk.crowd() >= _CROWD:
        raise Trouble(429, "many are trying something just now; try again in a moment")
    address = request.client.host if request.client is not None else ""
    number = -1 - zlib.crc32(f"{token} {address} {who}".encode())
    done = await services.desk.ask(number, work, given, request.is_disconnected)
    if isinstance(done, str):
        raise Trouble(422, done)
    return done
