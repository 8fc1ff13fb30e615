"""The pool of workers: what a hand-in used is counted, not what the machine had left."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import pytest

from obento.core.check.check import check_handin
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile
from obento.core.limits import Limits
from obento.runner import pool as pool_module
from obento.runner import worker
from obento.runner.pool import CheckPool
from obento.runner.worker import SpecFiles, Task
from tests.sluice import SPEC

TASK = Task(
    SpecFiles("spec.toml", SPEC.encode()),
    (HandinFile("sluice.v", b"module sluice(input high, wide, output warn); assign warn = high & ~wide; endmodule"),),
)
_check = check_handin


def spinning(seconds: float):  # type: ignore[no-untyped-def]
    """A check that uses so much processor time first."""

    def check(*given: object) -> Checked:
        end = time.process_time() + seconds
        while time.process_time() < end:
            sum(range(1000))
        return _check(*given)  # type: ignore[arg-type]

    return check


def sleeping(seconds: float, only_once: str = ""):  # type: ignore[no-untyped-def]
    """A check that waits first and uses no processor; with `only_once`, a path, only until that is there."""

    def check(*given: object) -> Checked:
        if not only_once or not os.path.exists(only_once):
            if only_once:
                open(only_once, "w").close()
            time.sleep(seconds)
        return _check(*given)  # type: ignore[arg-type]

    return check


def check_all(pool: CheckPool, tasks: list[Task]) -> list[Checked]:
    """Check side by side and wait for all."""
    outcomes: list[Checked | None] = [None] * len(tasks)
    finished = threading.Semaphore(0)

    def note(index: int, outcome: Checked | None) -> None:
        outcomes[index] = outcome
        finished.release()

    for index, task in enumerate(tasks):
        pool.submit(task, lambda outcome, index=index: note(index, outcome))  # type: ignore[misc]
    for _ in tasks:
        finished.acquire()
    assert None not in outcomes
    return [outcome for outcome in outcomes if outcome is not None]


@pytest.fixture
def crowd() -> Iterator[None]:
    """Many other programs that want the processors."""
    others = [subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(3 * (os.cpu_count() or 1))]
    yield
    for other in others:
        other.kill()
        other.wait()


def outcome(pool: CheckPool) -> Checked:
    (checked,) = check_all(pool, [TASK])
    return checked


def test_processor_time_ends_a_hand_in(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(worker, "check_handin", spinning(30))
    with CheckPool(1, 0.3, start="fork") as pool:
        checked = outcome(pool)
    assert checked.status == "stopped" and "0.3 seconds of processor time" in checked.messages[0].text


def test_the_next_hand_in_is_not_charged_for_the_last(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(worker, "check_handin", spinning(0.5))
    with CheckPool(1, 1.0, start="fork") as pool:
        assert [c.status for c in check_all(pool, [TASK] * 4)] == ["checked"] * 4


def test_a_busy_machine_changes_nothing(monkeypatch: pytest.MonkeyPatch, crowd: None) -> None:
    """Side by side with a crowd it takes longer on the clock than it may on a processor, and is checked all the
    same."""
    monkeypatch.setattr(worker, "check_handin", spinning(0.7))
    monkeypatch.setattr(pool_module, "_WALL", 60)
    with CheckPool(2, 1.0, start="fork") as pool:
        assert [c.status for c in check_all(pool, [TASK] * 4)] == ["checked"] * 4


def test_what_only_the_clock_ended_is_run_again_by_itself(monkeypatch: pytest.MonkeyPatch, tmp_path) -> None:  # type: ignore[no-untyped-def]
    monkeypatch.setattr(worker, "check_handin", sleeping(60, str(tmp_path / "was here")))
    with CheckPool(1, 0.2, start="fork") as pool:
        assert outcome(pool).status == "checked"


def test_what_the_clock_ends_twice_is_no_outcome(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(worker, "check_handin", sleeping(60))
    with CheckPool(2, 0.1, start="fork") as pool:
        begun = time.monotonic()
        for checked in check_all(pool, [TASK, TASK]):
            assert (
                checked.status == "not_checked" and checked.verdict is None and "too busy" in checked.messages[0].text
            )
        assert time.monotonic() - begun >= 3 * 0.1 * pool_module._WALL  # side by side, then one after the other


def test_a_closed_pool_starts_nothing_again(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(worker, "check_handin", sleeping(60))
    heard = threading.Event()
    with CheckPool(1, 60, start="fork") as pool:
        pool.submit(TASK, lambda _: heard.set())
        time.sleep(0.3)
    assert heard.wait(10) and not pool._again


def ending(how: str, marker: str):  # type: ignore[no-untyped-def]
    """A check that ends in another way than it should, as often as `marker`, a file, has bytes."""

    def check(*given: object) -> Checked:
        left = os.path.getsize(marker)
        if left:
            os.truncate(marker, left - 1)
            if how == "killed":
                os.kill(os.getpid(), signal.SIGKILL)
            if how == "memory":
                raise MemoryError
            raise KeyError("a mistake of ours")
        return _check(*given)  # type: ignore[arg-type]

    return check


@pytest.mark.parametrize("how", ["killed", "memory", "mistake"])
def test_what_ends_once_by_our_fault_is_checked_on_another_worker(
    how: str, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    (tmp_path / "times").write_bytes(b"1")
    monkeypatch.setattr(worker, "check_handin", ending(how, str(tmp_path / "times")))
    with CheckPool(2, 20, start="fork") as pool:
        assert [c.status for c in check_all(pool, [TASK] * 5)] == ["checked"] * 5


@pytest.mark.parametrize(
    ("how", "status", "said"),
    [
        ("killed", "not_checked", "was ended (exit code -9)"),
        ("mistake", "not_checked", "a mistake of ours (number "),
        ("memory", "stopped", "needs more memory than one hand-in may take"),
    ],
)
def test_what_ends_again_is_no_verdict(
    how: str, status: str, said: str, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    (tmp_path / "times").write_bytes(b"1" * 99)
    monkeypatch.setattr(worker, "check_handin", ending(how, str(tmp_path / "times")))
    with CheckPool(1, 20, start="fork") as pool:
        checked = outcome(pool)
    assert checked.status == status and checked.verdict is None and said in checked.messages[0].text


def test_a_pool_goes_on_with_new_workers(monkeypatch: pytest.MonkeyPatch) -> None:
    heard: list[Checked | None] = []
    monkeypatch.setattr(worker, "check_handin", sleeping(60))
    with CheckPool(1, 60, start="fork") as pool:
        for _ in range(3):
            pool.submit(TASK, heard.append)
        time.sleep(0.2)
        monkeypatch.undo()
        pool.renew()
        assert outcome(pool).status == "checked"
        assert heard == [None] * 3


def test_partial_verdicts_come_before_the_end_of_time(monkeypatch: pytest.MonkeyPatch) -> None:
    """A hand-in that is run one by one is asked to end before its process is ended: what was judged is kept."""
    monkeypatch.setattr(worker, "check_handin", lambda *given: Checked("checked", output=str(asked(given[3]))))

    def asked(limits: Limits) -> float:
        begun = time.process_time()
        while not limits.expired():
            sum(range(1000))
        return time.process_time() - begun

    with CheckPool(1, 1.0, start="fork") as pool:
        assert 0.5 < float(outcome(pool).output) < 0.9
