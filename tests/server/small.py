"""A lab of one small task, made over HTTP."""

from __future__ import annotations

import io
import zipfile

from tests.server.conftest import Client
from tests.sluice import SPEC

WRONG = "module sluice(input high, wide, output warn);\n  wire n = ~wide;\n  assign warn = high | n;\nendmodule\n"


def zipped(**texts: str) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for who, text in texts.items():
            archive.writestr(f"{who.replace('_', '.')}/sluice.v", text)
    return out.getvalue()


class Small:
    """A lab of its own with one small task."""

    def __init__(self, ta: Client, spec: str = SPEC) -> None:
        self.ta = ta
        class_id = ta.get("/home")[0]["id"]
        self.lab = ta.send("POST", f"/classes/{class_id}/labs", {"title": "Sluices", "due_at": None})["id"]
        self.task = ta.get(f"/labs/{self.lab}")["tasks"][0]["id"]
        self.put(spec)

    def put(self, spec: str) -> None:
        assert self.ta.send("PUT", f"/tasks/{self.task}/spec", {"text": spec})["preview"]["is_right"]

    def hand_in(self, **texts: str) -> Small:
        self.drop(**texts)
        self.ta.check(self.lab)
        return self

    def drop(self, **texts: str) -> int:
        """Hand in, and say that it was received when it was dropped."""
        drop_id = int(self.ta.drop(self.lab, "class.zip", zipped(**texts))["drop_id"])
        self.ta.send("PUT", f"/drops/{drop_id}/times", {"times": "upload"})
        return drop_id

    def clusters(self):  # type: ignore[no-untyped-def]
        return self.ta.get(f"/tasks/{self.task}/results")["clusters"]

    def handin(self, name: str) -> int:
        return next(m["handin_id"] for c in self.clusters() for m in c["members"] if m["name"] == name)

    def review(self, name: str):  # type: ignore[no-untyped-def]
        return self.ta.get(f"/tasks/{self.task}/review/{self.handin(name)}")

    def letter(self, name: str):  # type: ignore[no-untyped-def]
        student = next(
            s["student_id"] for s in self.ta.get(f"/labs/{self.lab}/feedback")["students"] if s["name"] == name
        )
        return self.ta.get(f"/labs/{self.lab}/letters/{student}")["tasks"][0]

    def mended(self, name: str) -> None:
        """Wait until the smallest change has been looked for."""
        self.ta.get(f"/tasks/{self.task}/review/{self.handin(name)}/repair")
