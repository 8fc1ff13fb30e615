"""Specs of tasks: text, table, catch rate, effects, files beside them."""

from __future__ import annotations

from dataclasses import asdict
from typing import Annotated

from fastapi import APIRouter, File, Request, UploadFile
from fastapi.concurrency import run_in_threadpool

from obento.core.check.check import LoadedSpec
from obento.core.spec.model import EDITION
from obento.runner.worker import SpecFiles, run_catch_rate, run_open, run_task
from obento.server.checking.effects import effects_of, tasks_under
from obento.server.deps import Db, OpeningRoute, Person, Services, ServicesDep, at_desk, reading
from obento.server.errors import Trouble, not_found
from obento.server.results.lookup import outcomes_of
from obento.server.specs.compare import compare
from obento.server.specs.models import (
    CatchRateView,
    EffectAsked,
    Effects,
    SpecPreview,
    SpecSave,
    SpecText,
    SpecView,
    VersionCases,
    VersionHead,
    VersionText,
)
from obento.server.specs.opened import spec_files, version_spec
from obento.server.specs.preview import catch_rate_view, preview
from obento.server.specs.saving import save_text, text_digest
from obento.server.uploads import whole
from obento.store import audit, course, handins, specs
from obento.store.accounts import SignedIn
from obento.store.connection import Connection
from obento.store.specs import SpecVersion

_MOST_BYTES = 4_000_000

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["specs"])


@router.get("/tasks/{task_id}/spec")
async def get_spec(task_id: int, request: Request, person: Person, services: ServicesDep) -> SpecView:
    """The newest spec version with its table."""

    def read(c: Connection) -> tuple[SpecVersion, SpecFiles]:
        row = specs.current_spec(c, task_id)
        if row is None:
            raise not_found("spec")
        return row, version_spec(c, row)

    row, files = await reading(services, read)
    loaded = await _opened(services, request, person, files)
    frozen_late = row.frozen_at if row.is_frozen_late else None
    return SpecView(
        text=row.text, version=row.number, used=row.used_at is not None, frozen_late=frozen_late,
        is_older=row.edition < EDITION, digest=text_digest(row.text), preview=preview(loaded),
    )  # fmt: skip


@router.get("/tasks/{task_id}/spec/versions")
def get_versions(task_id: int, c: Db, person: Person) -> list[VersionHead]:
    """All versions of a spec, the newest first."""
    return [VersionHead(**asdict(v)) for v in specs.versions_of(c, task_id)]


@router.get("/tasks/{task_id}/spec/versions/{version}")
def get_version(task_id: int, version: int, c: Db, person: Person) -> VersionText:
    """The text of one version."""
    text = specs.text_of(c, task_id, version)
    if text is None:
        raise not_found("version")
    return VersionText(number=version, text=text)


@router.post("/tasks/{task_id}/spec/versions/{version}/cases")
async def compare_version(
    task_id: int, version: int, body: SpecText, request: Request, person: Person, services: ServicesDep
) -> VersionCases:
    """One version beside a text, case by case."""

    def read(c: Connection) -> tuple[SpecFiles, SpecFiles]:
        row = specs.numbered_spec(c, task_id, version)
        if row is None:
            raise not_found("version")
        return version_spec(c, row), spec_files(c, task_id, body.text)

    then, now = [await _opened(services, request, person, files) for files in await reading(services, read)]
    if then.expectation is None or now.expectation is None:
        which = f"version {version}" if then.expectation is None else "what is in the editor"
        raise Trouble(409, f"{which} has errors: it has no cases to be compared")
    return compare(then.expectation, now.expectation)


@router.post("/tasks/{task_id}/spec/preview")
async def preview_spec(
    task_id: int, body: SpecText, request: Request, person: Person, services: ServicesDep
) -> SpecPreview:
    """What a text would mean, without saving it."""
    files = await reading(services, lambda c: spec_files(c, task_id, body.text))
    return preview(await _opened(services, request, person, files))


async def _opened(services: Services, request: Request, person: SignedIn, files: SpecFiles) -> LoadedSpec:
    """A spec as a worker opens it, unless that was done lately."""
    known = services.opened.known(files)
    if known is not None:
        return known
    return services.opened.keep(files, await at_desk(services, request, person, run_open, files))


@router.post("/tasks/{task_id}/spec/catch-rate")
async def spec_catch_rate(
    task_id: int, body: SpecText, request: Request, person: Person, services: ServicesDep
) -> CatchRateView:
    """How many likely mistakes the cases of a text catch, without saving it."""
    files = await reading(services, lambda c: spec_files(c, task_id, body.text))
    return catch_rate_view(await at_desk(services, request, person, run_catch_rate, files))


@router.post("/tasks/{task_id}/spec/effects")
async def spec_effects(
    task_id: int, body: EffectAsked, request: Request, person: Person, services: ServicesDep
) -> Effects:
    """What a text would change for some hand-ins: verdicts and marks, before it is saved."""
    files = await reading(services, lambda c: spec_files(c, task_id, body.text))
    loaded = await _opened(services, request, person, files)
    if loaded.expectation is None:
        raise Trouble(409, "this spec has errors; nobody can be checked by it")
    tasks = await reading(services, lambda c: tasks_under(outcomes_of(c, task_id, services), files, body.handin_ids))
    checked = [await at_desk(services, request, person, run_task, task) for task in tasks]

    def view(c: Connection) -> Effects:
        outcomes = outcomes_of(c, task_id, services)
        return Effects(effects=effects_of(outcomes, loaded, dict(zip(body.handin_ids, checked, strict=True))))

    return await reading(services, view)


@router.put("/tasks/{task_id}/spec")
async def put_spec(task_id: int, body: SpecSave, request: Request, person: Person, services: ServicesDep) -> SpecView:
    """Save a spec; once a version was used by a check, saving makes a new one."""
    await _opened(services, request, person, await reading(services, lambda c: spec_files(c, task_id, body.text)))
    await reading(services, lambda c: save_text(c, task_id, body.text, person.id, services.opened, body.over))
    await _check_again(services, task_id, person)
    return await get_spec(task_id, request, person, services)


async def _check_again(services: Services, task_id: int, person: SignedIn) -> None:
    """What was handed in is checked by a new version at once."""

    def lab_with_handins(c: Connection) -> int | None:
        row = specs.current_spec(c, task_id)
        task = course.task(c, task_id)
        if row is None or task is None or not row.is_right or row.used_at is not None:
            return None
        return task.lab_id if handins.lab_attempts(c, task.lab_id).by_handin else None

    lab_id = await reading(services, lab_with_handins)
    if lab_id is not None:
        await run_in_threadpool(services.checks.start, lab_id, person.id)


@router.post("/tasks/{task_id}/files")
async def put_file(
    task_id: int,
    file: Annotated[UploadFile, File()],
    request: Request,
    person: Person,
    services: ServicesDep,
    provided: bool = False,
) -> SpecView:
    """A file beside the spec (a model, a table), or one that every hand-in may use. Where a check rests on other files,
    this makes a new version: what was shown stays by the old one, and the class is checked by the new one."""
    name = (file.filename or "").replace("\\", "/").rpartition("/")[2]
    if not name:
        raise Trouble(422, "the file needs a name")
    data = whole(file, _MOST_BYTES)

    def put(c: Connection) -> str | None:
        """The text that is to be saved again, if any: what it means may be something else with this file."""
        specs.put_task_file(c, task_id, name[:200], data, provided)
        audit.note(c, person.id, "task file", f"task {task_id}", {"name": name, "provided": provided})
        row = specs.current_spec(c, task_id)
        return row.text if row is not None and (row.used_at is None or specs.files_have_changed(c, task_id)) else None

    text = await reading(services, put)
    if text is not None:
        await _opened(services, request, person, await reading(services, lambda c: spec_files(c, task_id, text)))
        await reading(services, lambda c: save_text(c, task_id, text, person.id, services.opened))
        await _check_again(services, task_id, person)
    return await get_spec(task_id, request, person, services)
