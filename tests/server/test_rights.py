"""Who may do what: every route is in the table, and every role is held to it over HTTP."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from obento.server.rights import RIGHTS
from obento.server.standing import Right, rights_of
from obento.store import accounts, course, people
from obento.store.course import Standing
from tests.server.conftest import Client
from tests.server.small import WRONG, Small

PASSWORD = "ropes and bollards"


def routes(app: FastAPI) -> Iterator[str]:
    for path, methods in app.openapi()["paths"].items():
        yield from (f"{method.upper()} {path}" for method in methods)


def test_the_table_has_every_route_and_no_other(application: TestClient) -> None:
    assert isinstance(application.app, FastAPI) and set(routes(application.app)) == RIGHTS.keys()


@pytest.mark.parametrize(
    ("standing", "rights"),
    [
        (Standing("reader", True, True), {"look"}),
        (Standing("ta", False, False), {"look", "work"}),
        (Standing("ta", True, False), {"look", "work", "release"}),
        (Standing("ta", False, True), {"look", "work", "manage"}),
        (Standing("lecturer", False, False), {"look", "work", "manage", "release"}),
    ],
)
def test_what_a_role_may_do(standing: Standing, rights: set[str]) -> None:
    assert rights_of(standing) == rights


def _came(ta: Client, lab: int) -> dict[str, int]:
    """An attempt of a lab, and the drop it came in."""
    intake = ta.get(f"/labs/{lab}/intake")
    return {"attempt_id": intake["entries"][0]["attempts"][0]["id"], "drop_id": intake["drops"][0]["id"]}


class Places:
    """Things of one class, and of another one by which nothing of the first may be reached."""

    def __init__(self, ta: Client) -> None:
        small = Small(ta).hand_in(tomo_arakida=WRONG)
        other = Small(ta).hand_in(tomo_arakida=WRONG)
        self.class_id = ta.get("/home")[0]["id"]
        students = ta.get(f"/labs/{small.lab}/feedback")["students"]
        self.ids = {
            "class_id": self.class_id, "lab_id": small.lab, "task_id": small.task,
            "handin_id": small.handin("Tomo Arakida"), "student_id": students[0]["student_id"], "person_id": 999_999,
            "cluster": small.clusters()[0]["key"], "version": 1, **_came(ta, small.lab),
        }  # fmt: skip
        self.elsewhere = {
            "task_id": other.task,
            "handin_id": other.handin("Tomo Arakida"),
            "lab_id": other.lab,
            **_came(ta, other.lab),
        }

    def path(self, route: str, **others: object) -> str:
        known = self.ids | others
        return re.sub(r"\{(\w+)\}", lambda m: str(known[m[1]]), route.partition(" ")[2].removeprefix("/api"))


@pytest.fixture(scope="module")
def places(application: TestClient) -> Places:
    application.cookies.clear()
    return Places(Client(application).sign_in())


IN_A_CLASS = sorted(route for route, right in RIGHTS.items() if right not in ("anybody", "signed in"))


class Roles:
    """One person of each role in the class, and one of none, each in a browser of their own."""

    def __init__(self, application: TestClient, class_id: int) -> None:
        from obento.server.accounts.security import hash_password

        self.by_role: dict[str, Client] = {}
        with application.app.state.services.store.transaction() as c:  # type: ignore[attr-defined]
            for role in ("reader", "ta", "lecturer", "nobody"):
                person = accounts.add_person(c, f"{role}@roles.example", role, hash_password(PASSWORD))
                if role != "nobody":
                    people.add_role(c, class_id, person, role)
            course.set_rights(c, class_id, tas_release=False, tas_manage=False)
        for role in ("reader", "ta", "lecturer", "nobody"):
            self.by_role[role] = Client(TestClient(application.app)).sign_in(f"{role}@roles.example", PASSWORD)

    def status(self, role: str, route: str, path: str) -> tuple[int, str]:
        client = self.by_role[role]
        method = route.partition(" ")[0]
        # A body that no route takes, so that nothing is changed by whoever may: it is refused after the rights were.
        answer = client.http.request(method, f"/api{path}", json=[], headers=client.headers)
        return answer.status_code, answer.text


@pytest.fixture(scope="module")
def roles(application: TestClient, places: Places) -> Iterator[Roles]:
    yield Roles(application, places.class_id)
    with application.app.state.services.store.transaction() as c:  # type: ignore[attr-defined]
        course.set_rights(c, places.class_id, tas_release=True, tas_manage=True)


HARMLESS = {"POST /api/labs/{lab_id}/withdraw", "POST /api/labs/{lab_id}/drafts"}
"""Without a body: whoever may does it, which changes nothing that others of these tests rest on."""
MAY: dict[str, set[Right]] = {
    "reader": {"look"},
    "ta": {"look", "work"},
    "lecturer": {"look", "work", "manage", "release"},
    "nobody": set(),
}


@pytest.mark.parametrize("route", [r for r in IN_A_CLASS if "events" not in r and "DELETE" not in r])
def test_every_role_is_held_to_the_table(route: str, roles: Roles, places: Places) -> None:
    for role, rights in MAY.items():
        status, text = roles.status(role, route, places.path(route))
        if role == "nobody":
            assert status == 404, (role, status, text)
        elif RIGHTS[route] in rights:
            assert status not in (401, 403, 405, 500), (role, status, text)
            assert status != 404 or "no such sequence" in text or "no such person" in text
        else:
            assert status == 403, (role, status, text)


@pytest.mark.parametrize(
    "route", [r for r in IN_A_CLASS if r.count("{") > 1 and "{task_id}" in r and "{handin_id}" in r]
)
def test_a_hand_in_of_another_lab_is_none_of_this_task(route: str, roles: Roles, places: Places) -> None:
    for others in ({"handin_id": places.elsewhere["handin_id"]}, {"task_id": places.elsewhere["task_id"]}):
        assert roles.status("lecturer", route, places.path(route, **others))[0] == 404


def test_a_note_to_a_hand_in_of_another_lab_is_refused(ta: Client, places: Places) -> None:
    body = {"text": "no", "version": 0, "handin_id": places.elsewhere["handin_id"]}
    ta.send("PUT", f"/tasks/{places.ids['task_id']}/comments/-", body, status=404)


def test_whoever_is_not_signed_in_is_told_so(application: TestClient, places: Places) -> None:
    stranger = Client(TestClient(application.app))
    for route in IN_A_CLASS:
        method = route.partition(" ")[0]
        assert stranger.http.request(method, f"/api{places.path(route)}", json=[]).status_code == 401, route


def test_a_setting_of_the_class_lets_tas_release(ta: Client, roles: Roles, places: Places) -> None:
    lecturer, helper = roles.by_role["lecturer"], roles.by_role["ta"]
    route = "POST /api/labs/{lab_id}/withdraw"
    assert helper.http.post(f"/api{places.path(route)}", headers=helper.headers).status_code == 403
    helper.send("PUT", f"/classes/{places.class_id}/rights", {"tas_release": True, "tas_manage": False}, status=403)
    lecturer.send("PUT", f"/classes/{places.class_id}/rights", {"tas_release": True, "tas_manage": False})
    assert helper.http.post(f"/api{places.path(route)}", headers=helper.headers).status_code == 200
    assert helper.get(f"/labs/{places.ids['lab_id']}")["rights"] == ["look", "release", "work"]
    lecturer.send("PUT", f"/classes/{places.class_id}/rights", {"tas_release": False, "tas_manage": False})


def test_a_class_keeps_somebody_who_may_look_after_it(application: TestClient) -> None:
    client = Client(TestClient(application.app)).sign_in()
    class_id = client.send("POST", "/classes", {"name": "Capstans", "school": ""})["id"]
    own = client.get("/me")
    invite = {"email": "hand@roles.example", "name": "Hand", "role": "ta"}
    other = client.send("POST", f"/classes/{class_id}/people", invite)["id"]
    said = client.send("DELETE", f"/classes/{class_id}/people/{own['id']}", status=409)["detail"]
    assert "needs a lecturer" in said
    client.send("POST", f"/classes/{class_id}/people", {**invite, "email": own["email"]}, status=409)
    client.send("POST", f"/classes/{class_id}/people", {**invite, "role": "lecturer"})
    client.send("DELETE", f"/classes/{class_id}/people/{own['id']}")
    client.get(f"/classes/{class_id}/people", status=404)
    assert other
