"""Specs of tasks: text, table, catch rate, effects, files beside them."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, File, UploadFile

from obento.core.spec.model import EDITION
from obento.server.checking.effects import effects_of
from obento.server.deps import Db, Person, ServicesDep
from obento.server.errors import Trouble, not_found
from obento.server.results.access import outcomes_of
from obento.server.specs.models import CatchRateView, EffectAsked, Effects, SpecPreview, SpecText, SpecView
from obento.server.specs.opened import spec_files, version_spec
from obento.server.specs.preview import catch_rate_view, preview
from obento.server.specs.saving import save_text
from obento.server.uploads import whole
from obento.store import audit, specs

_MOST_BYTES = 4_000_000

router = APIRouter(prefix="/api", tags=["specs"])


@router.get("/tasks/{task_id}/spec")
def get_spec(task_id: int, c: Db, person: Person, services: ServicesDep) -> SpecView:
    """The newest spec version with its table."""
    row = specs.current_spec(c, task_id)
    if row is None:
        raise not_found("spec")
    loaded = services.opened.load(version_spec(c, row))
    frozen_late = row.frozen_at if row.is_frozen_late else None
    return SpecView(
        text=row.text, version=row.number, used=row.used_at is not None, frozen_late=frozen_late,
        is_older=row.edition < EDITION, preview=preview(loaded),
    )  # fmt: skip


@router.post("/tasks/{task_id}/spec/preview")
def preview_spec(task_id: int, body: SpecText, c: Db, person: Person) -> SpecPreview:
    """What a text would mean, without saving it."""
    return preview(spec_files(c, task_id, body.text).open())


@router.post("/tasks/{task_id}/spec/catch-rate")
def spec_catch_rate(task_id: int, body: SpecText, c: Db, person: Person, services: ServicesDep) -> CatchRateView:
    """How many likely mistakes the cases of a text catch, without saving it."""
    return catch_rate_view(services.checks.catch_rate(spec_files(c, task_id, body.text)))


@router.post("/tasks/{task_id}/spec/effects")
def spec_effects(task_id: int, body: EffectAsked, c: Db, person: Person, services: ServicesDep) -> Effects:
    """What a text would change for some hand-ins: verdicts and marks, before it is saved."""
    outcomes = outcomes_of(c, task_id, services)
    files = spec_files(c, task_id, body.text)
    return Effects(
        effects=effects_of(outcomes, files, services.opened.load(files), body.handin_ids, services.checks.pool)
    )


@router.put("/tasks/{task_id}/spec")
def put_spec(task_id: int, body: SpecText, c: Db, person: Person, services: ServicesDep) -> SpecView:
    """Save a spec; once a version was used by a check, saving makes a new one."""
    save_text(c, task_id, body.text, person.id, services.opened)
    return get_spec(task_id, c, person, services)


@router.post("/tasks/{task_id}/files")
def put_file(
    task_id: int,
    file: Annotated[UploadFile, File()],
    c: Db,
    person: Person,
    services: ServicesDep,
    provided: bool = False,
) -> SpecView:
    """A file beside the spec (a model, a table), or one that every hand-in may use. Where a check rests on other files,
    this makes a new version: what was shown stays by the old one, and the class is checked by the new one."""
    name = (file.filename or "").replace("\\", "/").rpartition("/")[2]
    if not name:
        raise Trouble(422, "the file needs a name")
    specs.put_task_file(c, task_id, name[:200], whole(file, _MOST_BYTES), provided)
    audit.note(c, person.id, "task file", f"task {task_id}", {"name": name, "provided": provided})
    row = specs.current_spec(c, task_id)
    if row is not None and (row.used_at is None or specs.files_have_changed(c, task_id)):
        save_text(
            c, task_id, row.text, person.id, services.opened
        )  # what it means may be something else with this file
    return get_spec(task_id, c, person, services)
