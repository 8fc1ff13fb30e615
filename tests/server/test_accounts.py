"""Letting people in: links that set a password once, colleagues on a class, changed passwords."""

from __future__ import annotations

import os
import subprocess
import sys
import time
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from obento.demo.load import DEMO_TA
from tests.server.conftest import Client
from tests.server.small import WRONG, Small

PASSWORD = "ropes and bollards"


@pytest.fixture
def class_id(ta: Client) -> int:
    return int(ta.send("POST", "/classes", {"name": "Winches", "school": ""})["id"])


@pytest.fixture
def guest(application: TestClient) -> Client:
    """A browser of its own on the same application, nobody signed in."""
    return Client(TestClient(application.app))


def token_of(invited: dict[str, str]) -> str:
    assert "/welcome/" in invited["link"]
    return invited["link"].rpartition("/")[2]


def invite(ta: Client, class_id: int, email: str, role: str = "ta") -> dict[str, str]:
    made: dict[str, str] = ta.send(
        "POST", f"/classes/{class_id}/people", {"email": email, "name": "Eske Holm", "role": role}
    )
    return made


def test_from_an_invitation_to_the_class(ta: Client, guest: Client, class_id: int) -> None:
    token = token_of(invite(ta, class_id, " Eske@College.example "))
    assert [(p["email"], p["joined"]) for p in ta.get(f"/classes/{class_id}/people")] == [
        (DEMO_TA, True),
        ("eske@college.example", False),
    ]
    guest.send(
        "POST", "/sign-in", {"email": "eske@college.example", "password": ""}, status=401
    )  # no password is no way in
    assert guest.get(f"/invitation/{token}") == {"name": "Eske Holm", "email": "eske@college.example"}
    guest.send("POST", f"/invitation/{token}", {"password": "short"}, status=422)
    me = guest.send("POST", f"/invitation/{token}", {"password": PASSWORD})
    guest.headers = {"X-Csrf": me["csrf"]}
    assert [k["name"] for k in guest.get("/home")] == ["Winches"]  # and no other class
    assert guest.send("POST", f"/invitation/{token}", {"password": PASSWORD}, status=404)["detail"].startswith(
        "this link was used"
    )
    assert all(p["joined"] for p in ta.get(f"/classes/{class_id}/people"))


def test_a_new_link_ends_the_one_before(ta: Client, guest: Client, class_id: int) -> None:
    first, second = (token_of(invite(ta, class_id, "nele@college.example")) for _ in range(2))
    guest.get(f"/invitation/{first}", status=404)
    guest.get(f"/invitation/{second}")
    guest.get("/invitation/" + "x" * 43, status=404)


def test_who_has_a_password_gets_no_link(ta: Client, class_id: int) -> None:
    """Else anybody who works on some class could take over any account."""
    assert invite(ta, class_id, DEMO_TA, "lecturer")["link"] == ""
    lecturer = next(p for p in ta.get(f"/classes/{ta.get('/home')[0]['id']}/people") if p["role"] == "lecturer")
    assert invite(ta, class_id, lecturer["email"], "lecturer")["link"] == ""


def lecturer_elsewhere(ta: Client, guest: Client, email: str) -> int:
    """Have the guest look after a class of their own."""
    elsewhere = int(ta.send("POST", "/classes", {"name": "Elsewhere", "school": ""})["id"])
    me = guest.send("POST", f"/invitation/{token_of(invite(ta, elsewhere, email, 'lecturer'))}", {"password": PASSWORD})
    guest.headers = {"X-Csrf": me["csrf"]}
    return elsewhere


def test_nobody_gets_a_link_into_an_account_that_others_count_on(ta: Client, guest: Client, class_id: int) -> None:
    """Not by inviting somebody who was invited elsewhere and has not accepted yet, nor by having made the account
    before."""
    own = lecturer_elsewhere(ta, guest, "sly@college.example")
    first = invite(ta, class_id, "victim@college.example", "lecturer")
    assert token_of(first) and first["mailed"]
    stolen = invite(guest, own, "victim@college.example")
    assert stolen["link"] == "" and stolen["mailed"]
    guest.get(f"/invitation/{token_of(first)}", status=404)  # whoever has seen an earlier link has nothing
    assert invite(ta, class_id, "victim@college.example")["link"] == ""  # nor may its maker see one from now on
    # the other way round: made in advance, to be let into a class by somebody else
    prepared = invite(guest, own, "next@college.example")
    assert token_of(prepared)
    assert invite(ta, class_id, "next@college.example", "lecturer")["link"] == ""
    guest.get(f"/invitation/{token_of(prepared)}", status=404)
    assert invite(guest, own, "next@college.example")["link"] == ""


def test_ways_in_are_seen_in_the_mailbox_by_whom_they_are_for(ta: Client, guest: Client, class_id: int) -> None:
    link = invite(ta, class_id, "runa@college.example")["link"]
    box = ta.http.app.state.services.mailbox  # type: ignore[attr-defined]
    end = time.monotonic() + 20
    while not any(link in m.text for m in box.mails()) and time.monotonic() < end:
        time.sleep(0.05)
    mail = next(m for m in box.mails() if link in m.text)
    assert mail.to == "runa@college.example" and mail.subject == "Your way in: Winches"
    assert not any("/welcome/" in m["text"] for m in ta.get("/mailbox"))
    me = guest.send("POST", f"/invitation/{token_of({'link': link})}", {"password": PASSWORD})
    guest.headers = {"X-Csrf": me["csrf"]}
    assert [m["to"] for m in guest.get("/mailbox")] == ["runa@college.example"]


def test_a_class_is_never_left_alone(ta: Client, class_id: int) -> None:
    own = ta.get("/me")["id"]
    assert "somebody has to stay" in ta.send("DELETE", f"/classes/{class_id}/people/{own}", status=409)["detail"]
    other = invite(ta, class_id, "paule@college.example")["id"]
    ta.send("DELETE", f"/classes/{class_id}/people/{other}")
    ta.send("DELETE", f"/classes/{class_id}/people/{other}", status=404)


def test_others_may_not_look(ta: Client, guest: Client, class_id: int) -> None:
    guest.get(f"/classes/{class_id}/people", status=401)
    elsewhere = ta.send("POST", "/classes", {"name": "Elsewhere", "school": ""})["id"]
    me = guest.send(
        "POST",
        f"/invitation/{token_of(invite(ta, elsewhere, 'out@college.example', 'lecturer'))}",
        {"password": PASSWORD},
    )
    guest.headers = {"X-Csrf": me["csrf"]}
    guest.get(f"/classes/{class_id}/people", status=404)
    guest.send("POST", f"/classes/{class_id}/people", {"email": "a@b", "name": "A"}, status=404)
    guest.send("POST", f"/classes/{elsewhere}/people", {"email": "no address", "name": "A"}, status=422)


def test_the_mailbox_shows_the_mails_of_own_classes(ta: Client, guest: Client, class_id: int) -> None:
    small = Small(ta).hand_in(tomo_arakida=WRONG)
    student = next(s for s in ta.get(f"/labs/{small.lab}/feedback")["students"] if s["name"] == "Tomo Arakida")
    ta.send("POST", f"/labs/{small.lab}/release", {"student_ids": [student["student_id"]]})
    end = time.monotonic() + 20
    while not ta.get("/mailbox") and time.monotonic() < end:
        time.sleep(0.05)
    assert [m["to"] for m in ta.get("/mailbox")] == ["tomo.arakida@students.college.example"]
    me = guest.send(
        "POST", f"/invitation/{token_of(invite(ta, class_id, 'jale@college.example'))}", {"password": PASSWORD}
    )
    guest.headers = {"X-Csrf": me["csrf"]}
    assert all(m["to"] == "jale@college.example" for m in guest.get("/mailbox"))  # their own way in at most


def test_another_password_ends_other_sessions(ta: Client, guest: Client, class_id: int) -> None:
    me = guest.send(
        "POST", f"/invitation/{token_of(invite(ta, class_id, 'rika@college.example'))}", {"password": PASSWORD}
    )
    guest.headers = {"X-Csrf": me["csrf"]}
    second = Client(TestClient(guest.http.app)).sign_in("rika@college.example", PASSWORD)
    second.send("POST", "/me/password", {"old": "not this", "password": PASSWORD + "!"}, status=403)
    changed = second.send("POST", "/me/password", {"old": PASSWORD, "password": PASSWORD + "!"})
    second.headers = {"X-Csrf": changed["csrf"]}
    assert second.get("/me")["email"] == "rika@college.example"
    guest.get("/me", status=401)
    guest.send("POST", "/sign-in", {"email": "rika@college.example", "password": PASSWORD}, status=401)


def test_the_first_account_of_a_new_server(root: Path, tmp_path: Path) -> None:
    """From the command line, which starts the database for it and stops it again."""
    env = os.environ | {"OBENTO_ROOT": str(root), "OBENTO_VAR": str(tmp_path), "PYTHONPATH": str(root / "src")}

    def account(*arguments: str) -> subprocess.CompletedProcess[str]:
        return subprocess.run(
            [sys.executable, "-m", "obento", "account", *arguments],
            env=env,
            capture_output=True,
            text=True,
            timeout=120,
        )

    unknown = account("first@college.example")
    assert unknown.returncode == 1 and "give a name to make one" in unknown.stderr
    made = account("first@college.example", "Sunna Brekke", "--port", "8499")
    assert made.returncode == 0 and "http://127.0.0.1:8499/welcome/" in made.stdout
    again = account("first@college.example")  # a forgotten password
    assert again.returncode == 0 and again.stdout.splitlines()[-1] != made.stdout.splitlines()[-1]
