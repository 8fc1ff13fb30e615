"""A large class of a test's own, made over HTTP: its list, labs, what was handed in, and the check."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Callable, Sequence
from typing import Any

import httpx

from tests.server.conftest import Client

FIRST_NUMBER = 7000


class MadeClass:
    """A class of people with these names, numbered as they come."""

    def __init__(self, base: str, title: str, names: Sequence[str]) -> None:
        self.client = Client(httpx.Client(base_url=base, timeout=60)).sign_in()  # type: ignore[arg-type]
        self.names = names
        self.id = self._post("/classes", json={"name": title, "school": "Canal college"})["id"]
        roster = "number,name\n" + "\n".join(f"{FIRST_NUMBER + n},{name}" for n, name in enumerate(names))
        self._post(f"/classes/{self.id}/roster", files={"file": ("list.csv", roster.encode())})

    def _post(self, path: str, **what: Any) -> Any:
        answer = self.client.http.post(f"/api{path}", headers=self.client.headers, **what)
        assert answer.status_code < 300, answer.text
        return answer.json()

    def lab(self, title: str, specs: Sequence[str], work: Callable[[int], dict[str, str]]) -> tuple[int, int]:
        """A lab of these tasks in which each hands in what `work` gives (texts by path), checked; it and its first
        task."""
        lab = self._post(f"/classes/{self.id}/labs", json={"title": title})["id"]
        for n in range(1, len(specs)):
            self._post(f"/labs/{lab}/tasks", json={"title": f"task {n}"})
        tasks = [t["id"] for t in self.client.get(f"/labs/{lab}")["tasks"]]
        for task, text in zip(tasks, specs, strict=True):
            self.client.send("PUT", f"/tasks/{task}/spec", {"text": text, "over": ""})
        archive = io.BytesIO()
        with zipfile.ZipFile(archive, "w") as z:
            for n, name in enumerate(self.names):
                for path, text in work(n).items():
                    z.writestr(f"{FIRST_NUMBER + n}_{name.replace(' ', '_')}/{path}", text)
        self.client.drop(lab, "drop.zip", archive.getvalue())
        self.client.check(lab)
        return lab, tasks[0]
