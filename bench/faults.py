"""Kills the server, a worker or the database, or fills the disk, at seeded moments of an evening, and counts what was
lost.

`PYTHONPATH=src:. python bench/faults.py [rounds] [seed]` starts a server of its own. In every round somebody uploads,
checks, comments, marks or releases while something is killed; what was acknowledged (answered with 200) must be there
afterwards, and no run may stand still. Prints the rounds by fault, the records acknowledged, lost, and the runs that
stood. The disk is a small one of its own, in memory; who may not mount one has the other faults."""

from __future__ import annotations

import os
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
from collections import Counter
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from dataclasses import dataclass, field
from pathlib import Path

import httpx
from tests.server.small import zipped
from tests.sluice import SPEC

from obento.store.mariadb import free_port

ROOT = Path(__file__).resolve().parents[1]
FAULTS = ("server", "worker", "database")
FULL = "full disk"
_DISK_MB = 400
RIGHT = "module sluice(input high, wide, output warn); assign warn = high & ~wide; endmodule // {}\n"
WRONG = "module sluice(input high, wide, output warn); assign warn = high | ~wide; endmodule // {}\n"
PASSWORD = "locks-and-lamps"


@dataclass(slots=True)
class Outcome:
    """What came of it: records acknowledged and lost, runs that stood still."""

    faults: Counter[str] = field(default_factory=Counter)
    acknowledged: int = 0
    lost: list[str] = field(default_factory=list)
    stuck: int = 0


class Evening:
    """A server in a process of its own, and somebody who works with it."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._port = free_port()
        self._process: subprocess.Popen[bytes] | None = None
        self._http = httpx.Client(base_url=f"http://127.0.0.1:{self._port}/api", timeout=60)
        self._headers: dict[str, str] = {}

    def start(self) -> None:
        env = os.environ | {
            "OBENTO_ROOT": str(ROOT), "OBENTO_VAR": str(self._folder), "PYTHONPATH": str(ROOT / "src"),
            "OBENTO_CHECK_SECONDS": "10",
        }  # fmt: skip
        with (self._folder / "server.txt").open("ab") as log:
            command = [sys.executable, "-m", "obento", "serve", "--port", str(self._port)]
            self._process = subprocess.Popen(command, env=env, stdout=log, stderr=log, start_new_session=True)
        self.wait_until_well()

    def wait_until_well(self, seconds: float = 90) -> None:
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            try:
                if self._http.get("/health").status_code == 200:
                    return
            except httpx.HTTPError:
                pass
            time.sleep(0.05)
        raise TimeoutError("the server did not come back")

    def stop(self) -> None:
        self._http.close()
        if self._process is not None:
            self._process.send_signal(signal.SIGINT)
            self._process.wait(60)

    def kill(self, fault: str) -> None:
        """Kill one of what runs here, or leave no room on the disk."""
        assert self._process is not None
        if fault == FULL:
            fill(self._folder / "filler")
        elif fault == "server":
            self._process.kill()
            self._process.wait()
        elif fault == "database":
            pid = self._folder / "database/server.pid"
            os.kill(int(pid.read_text()), signal.SIGKILL)
        else:
            workers = _below(_below([self._process.pid]))
            if workers:
                os.kill(workers[len(workers) // 2], signal.SIGKILL)

    def mend(self, fault: str) -> None:
        """What a person has to do: start the server, make room on the disk."""
        if fault == FULL:
            time.sleep(1)
            (self._folder / "filler").unlink()
        elif fault == "server":
            self.start()
        self.wait_until_well()

    def sign_in(self) -> None:
        body = {"email": "mira@college.example", "password": PASSWORD}
        self._headers = {"X-Csrf": self.ask("POST", "/sign-in", json=body)["csrf"]}

    def ask(self, method: str, path: str, **more: object):  # type: ignore[no-untyped-def]
        """Ask until there is an answer."""
        end = time.monotonic() + 90
        while True:
            try:
                answer = self._http.request(method, path, headers=self._headers, **more)  # type: ignore[arg-type]
                if answer.status_code < 500:
                    assert answer.status_code == 200, answer.text
                    return answer.json()
            except httpx.HTTPError:
                pass
            if time.monotonic() > end:
                raise TimeoutError(path)
            time.sleep(0.1)

    def once(self, method: str, path: str, **more: object) -> bool:
        """Ask once; whether it was acknowledged."""
        try:
            return self._http.request(method, path, headers=self._headers, **more).status_code == 200  # type: ignore[arg-type]
        except httpx.HTTPError:
            return False


def fill(path: Path) -> None:
    """Write until there is no room left."""
    with path.open("wb", buffering=0) as out, suppress(OSError):
        while True:
            out.write(bytes(4096))


@contextmanager
def small_disk() -> Iterator[tuple[Path, tuple[str, ...]]]:
    """A folder for the records, and the faults that can be made with it."""
    with tempfile.TemporaryDirectory() as name:
        options = ["-t", "tmpfs", "-o", f"size={_DISK_MB}m", "tmpfs", name]
        if subprocess.run(["mount", *options], check=False, capture_output=True).returncode:
            yield Path(name), FAULTS
            return
        try:
            yield Path(name), (*FAULTS, FULL)
        finally:
            subprocess.run(["umount", "--lazy", name], check=True)


def _below(parents: list[int]) -> list[int]:
    """The processes that these started."""
    found = []
    for stat in Path("/proc").glob("[0-9]*/stat"):
        try:
            pid, rest = stat.read_text().split(" (", 1)
        except OSError:
            continue
        if int(rest.rpartition(") ")[2].split()[1]) in parents:
            found.append(int(pid))
    return sorted(found)


class Work:
    """One lab, what is done to it, and what was acknowledged so far."""

    def __init__(self, evening: Evening) -> None:
        self.evening = evening
        ask = evening.ask
        class_id = ask("GET", "/home")[0]["id"]
        self.lab = ask("POST", f"/classes/{class_id}/labs", json={"title": "Faults", "due_at": None})["id"]
        self.task = ask("GET", f"/labs/{self.lab}")["tasks"][0]["id"]
        ask("PUT", f"/tasks/{self.task}/spec", json={"text": SPEC})
        self._drop(0)
        self.check()
        self.handin = ask("GET", f"/labs/{self.lab}/intake")["entries"][0]["handin_id"]
        self.cluster = ask("GET", f"/tasks/{self.task}/results")["clusters"][0]["key"]
        student = next(s for s in ask("GET", f"/labs/{self.lab}/feedback")["students"] if s["handin_id"])
        self.student = student["student_id"]
        self.attempts = 1
        self.comment = ""
        self.mark: float | None = None
        self.letters = 0
        self.possible_comments: tuple[str, ...] = ()
        self.possible_marks: tuple[float, ...] = ()
        """What was sent since the last acknowledgement and not acknowledged: it may be there."""

    def _drop(self, number: int) -> bool:
        files = {"file": ("class.zip", zipped(tomo_arakida=WRONG.format(number), zoe_marlin=RIGHT.format(number)))}
        return self.evening.once("POST", f"/labs/{self.lab}/drops", files=files)

    def check(self) -> bool:
        """Have everything checked; whether that came to its end."""
        end = time.monotonic() + 120
        self.evening.ask("POST", f"/labs/{self.lab}/check")
        while time.monotonic() < end:
            if not self.evening.ask("GET", f"/labs/{self.lab}")["running"]:
                return True
            time.sleep(0.05)
        return False

    def actions(self, number: int) -> dict[str, tuple[Callable[[], bool], Callable[[], None]]]:
        """By name: something that is done, and what is so once it was acknowledged."""
        once, task, handin = self.evening.once, self.task, self.handin
        text, value = f"comment {number}", float(number % 10)

        def commented() -> bool:
            review = self.evening.ask("GET", f"/tasks/{task}/review/{handin}")
            body = {"text": text, "version": review["comment_version"]}
            return once("PUT", f"/tasks/{task}/comments/{self.cluster}", json=body)

        mark = {"value": value, "reason": f"round {number}"}
        release = {"student_ids": [self.student]}
        return {
            "upload": (lambda: self._drop(number), lambda: setattr(self, "attempts", self.attempts + 1)),
            "check": (lambda: once("POST", f"/labs/{self.lab}/check"), lambda: None),
            "comment": (commented, lambda: self._noted("comment", "possible_comments", text)),
            "mark": (
                lambda: once("PUT", f"/handins/{handin}/tasks/{task}/mark", json=mark),
                lambda: self._noted("mark", "possible_marks", value),
            ),
            "release": (
                lambda: once("POST", f"/labs/{self.lab}/release", json=release),
                lambda: setattr(self, "letters", 1),
            ),
        }

    def _noted(self, what: str, possible: str, value: object) -> None:
        """Something was acknowledged: what may have been done before does not count any more."""
        setattr(self, what, value)
        setattr(self, possible, ())

    def losses(self) -> list[str]:
        """What was acknowledged and is not there."""
        ask = self.evening.ask
        entry = next(e for e in ask("GET", f"/labs/{self.lab}/intake")["entries"] if e["handin_id"] == self.handin)
        feedback = ask("GET", f"/labs/{self.lab}/feedback")
        student = next(s for s in feedback["students"] if s["student_id"] == self.student)
        review = ask("GET", f"/tasks/{self.task}/review/{self.handin}")
        found = []
        if len(entry["attempts"]) < self.attempts:
            found.append(f"{self.attempts - len(entry['attempts'])} uploads")
        if self.comment and review["comment"] not in (self.comment, *self.possible_comments):
            found.append(f"{self.comment} (there is {review['comment']})")
        if self.letters and student["letter"] not in ("released", "read"):
            found.append("a letter")
        if self.mark is not None and review["mark"] not in (self.mark, *self.possible_marks):
            found.append(f"mark {self.mark} (there is {review['mark']})")
        return found


def run(rounds: int, seed: int, folder: Path, faults: tuple[str, ...] = FAULTS) -> Outcome:
    """So many rounds; the same ones for the same seed, as far as that is up to us."""
    dice = random.Random(seed)
    outcome = Outcome()
    evening = Evening(folder)
    try:
        evening.start()
        evening.sign_in()
        work = Work(evening)
        for number in range(1, rounds + 1):
            fault, name = dice.choice(faults), dice.choice(list(work.actions(number)))
            do, note = work.actions(number)[name]
            heard: list[bool] = []
            doing = threading.Thread(target=lambda do=do, heard=heard: heard.append(do()))
            doing.start()
            time.sleep(dice.random() * 0.12)
            evening.kill(fault)
            evening.mend(fault)
            doing.join(120)
            if heard == [True]:
                outcome.acknowledged += 1
                note()
            elif name == "comment":  # it may have been done all the same: then that is what is there
                work.possible_comments = (*work.possible_comments, f"comment {number}")
            elif name == "mark":
                work.possible_marks = (*work.possible_marks, float(number % 10))
            outcome.faults[f"{fault} during {name}"] += 1
            if work.check():
                outcome.lost += work.losses()
            else:
                outcome.stuck += 1
    finally:
        evening.stop()
    return outcome


def main() -> None:
    rounds = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    with small_disk() as (folder, faults):
        begun = time.monotonic()
        found = run(rounds, seed, folder, faults)
    for what, count in sorted(found.faults.items()):
        print(f"{count:5} {what}")
    print(f"{rounds} rounds in {time.monotonic() - begun:.0f} s: {found.acknowledged} records acknowledged,"
          f" {len(found.lost)} lost, {found.stuck} runs stuck")  # fmt: skip
    print("\n".join(found.lost))


if __name__ == "__main__":
    main()
