"""Benchmarks, as ratios against a yardstick of the same run: `PYTHONPATH=src:. python bench/run.py [name ...]`.

Medians of interleaved rounds; absolute times are printed for orientation only, machines are noisy.
"""

from __future__ import annotations

import ast as python_ast
import gc
import os
import random
import resource
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Generator
from functools import partial
from pathlib import Path
from statistics import median

import numpy as np
import simpy

from bench.designs import (
    CLASS_SPEC,
    PROCEDURAL_UNIT,
    PROCEDURAL_UNIT_VHDL,
    STATE_MACHINE,
    STATE_MACHINE_VHDL,
    TICKETS,
    WORD_UNIT,
    WORD_UNIT_VHDL,
    clocked_registers,
    clocked_registers_vhdl,
    coursework,
    coursework_system_verilog,
    coursework_vhdl,
    hundred_operators,
    multiplier_netlist,
)
from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.ready import Ready, make_ready
from obento.core.check.judging.verdict import judge
from obento.core.check.mutation.smallest_change import find_repair
from obento.core.check.running import steps as observe_steps
from obento.core.check.running.cases import observe
from obento.core.diagnostics import Collector
from obento.core.handin import HandinFile, read_handin
from obento.core.ir.design import Design
from obento.core.limits import Limits, for_simulation
from obento.core.pieces import Text, parse_texts
from obento.core.planes import count_plane
from obento.core.sim.event_driven import EventDriven
from obento.core.sim.levelized import Levelized
from obento.core.sim.timeline.kernel import Timeline
from obento.core.source import Sources
from obento.core.values import word
from obento.core.verilog.syntax.read import read_modules

LIMITS = Limits()
CASES = 65_536
FULL = (1 << CASES) - 1


def interleaved(rounds: int, *actions: Callable[[], object]) -> list[float]:
    """Median seconds of each action, run in turn."""
    times: list[list[float]] = [[] for _ in actions]
    for _ in range(rounds):
        for action, own in zip(actions, times, strict=True):
            start = time.perf_counter()
            action()
            own.append(time.perf_counter() - start)
    return [median(t) for t in times]


def say(what: str, ratio: float, wanted: str, more: str) -> None:
    print(f"{what:58} {ratio:8.2f}   wanted {wanted:14} ({more})", flush=True)


def netlist() -> None:
    """A 2,400-gate netlist x 65,536 cases: gate-words a second against numpy's AND; and Design to runnable."""
    reading = read_handin([HandinFile("m.v", multiplier_netlist().encode())], LIMITS)
    design = reading.elaborate("mult")
    assert design is not None, reading.messages()
    gates = sum(p.origin in ("and", "nor", "not", "buf") for p in design.processes)
    tape = Levelized(design, LIMITS)
    lanes = 65_536
    full = (1 << lanes) - 1
    planes = [count_plane(i % 16, lanes) for i in range(32)]
    a, b, out = (np.zeros(4096, dtype=np.uint64) for _ in range(3))

    def numpy_and() -> None:
        for _ in range(1000):
            np.bitwise_and(a, b, out=out)

    run, yard = interleaved(9, lambda: tape.run(planes, full), numpy_and)
    rate = gates * lanes / 64 / run
    say(
        "netlist, two-state, gate-words/s over numpy AND",
        rate / (1000 * 4096 / yard),
        "0.45",
        f"{gates} gates, {1e3 * run:.1f} ms",
    )
    any_inputs = Levelized(design, LIMITS, inputs="unknown")
    digits = random.Random(4)
    ones, known = ([digits.getrandbits(lanes) for _ in planes] for _ in range(2))
    rails = [rail for one, rest in zip(ones, known, strict=True) for rail in (one, rest & ~one)]  # a quarter x
    run, yard = interleaved(5, lambda: any_inputs.run(rails, full), numpy_and)
    rate = gates * lanes / 64 / run
    say("netlist, four-state, gate-words/s over numpy AND", rate / (1000 * 4096 / yard), "0.20", f"{1e3 * run:.1f} ms")
    source = "def f(a, b):\n" + "".join(f"    x{i} = a & b\n" for i in range(gates))
    build, compiled = interleaved(15, lambda: Levelized(design, LIMITS), lambda: compile(source, "x", "exec"))
    say("netlist, Design to runnable over compile()", build / compiled, "at most 0.6", f"{1e3 * build:.0f} ms")
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    million = [count_plane(i % 20, 1 << 20) for i in range(32)]
    for start in range(0, 1 << 20, lanes):
        tape.run([p >> start & full for p in million], full)
    extra = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024
    say("netlist, 1 M lanes, peak extra memory in MB", extra, "at most 64", "in blocks of 65,536")


def parsing() -> None:
    """Lexing and parsing, bytes a second against CPython's own parser, and elaboration."""
    text = "\n".join(coursework(s).replace("unit12", f"unit{s}") for s in range(60))
    python = "\n".join(
        f"def unit{s}(a, b, op):\n"
        + "".join(f"    t{i} = a ^ (0, b) & 0x{i:x}  # step {i}\n" for i in range(40))
        + "    return y\n"
        for s in range(150)
    )

    def parse() -> None:
        sources = Sources()
        read_modules([sources.add("a.v", text)], Collector(), LIMITS)

    gc.collect()
    ours, theirs = interleaved(7, parse, lambda: python_ast.parse(python))
    say(
        "lex and parse, bytes/s over ast.parse",
        (len(text) / ours) / (len(python) / theirs),
        "0.6",
        f"{len(text) / ours / 1e6:.2f} MB/s",
    )
    newer = "\n".join(coursework_system_verilog(s) for s in range(40))

    def parse_newer() -> None:
        sources = Sources()
        read_modules([sources.add("a.sv", newer)], Collector(), LIMITS)

    ours, theirs = interleaved(7, parse_newer, lambda: python_ast.parse(python))
    say(
        "lex and parse SystemVerilog, bytes/s over ast.parse",
        (len(newer) / ours) / (len(python) / theirs),
        "0.7",
        f"{len(newer) / ours / 1e6:.2f} MB/s",
    )
    vhdl = "\n".join(coursework_vhdl(s) for s in range(40))

    def parse_vhdl() -> None:
        sources = Sources()
        parse_texts([Text(sources.add("a.vhd", vhdl), "vhdl", False)], Collector(), LIMITS)

    ours, theirs = interleaved(7, parse_vhdl, lambda: python_ast.parse(python))
    say(
        "lex and parse VHDL, bytes/s over ast.parse",
        (len(vhdl) / ours) / (len(python) / theirs),
        "0.6",
        f"{len(vhdl) / ours / 1e6:.2f} MB/s",
    )
    entity = read_handin([HandinFile("a.vhd", coursework_vhdl(0).encode())], LIMITS)
    elaborate, parsed = interleaved(
        9,
        lambda: entity.elaborate("unit0"),
        lambda: read_handin([HandinFile("a.vhd", coursework_vhdl(0).encode())], LIMITS),
    )
    say("elaborate one VHDL hand-in over reading it", elaborate / parsed, "-", f"{1e3 * elaborate:.1f} ms")
    reading = read_handin([HandinFile("a.v", coursework(0).encode())], LIMITS)
    elaborate, parsed = interleaved(
        9, lambda: reading.elaborate("unit12"), lambda: read_handin([HandinFile("a.v", coursework(0).encode())], LIMITS)
    )
    say("elaborate one hand-in over reading it", elaborate / parsed, "-", f"{1e3 * elaborate:.1f} ms")


def class_of_300() -> None:
    """300 hand-ins x 4,096 cases on the command line with 2 workers, against pure work of one, halved."""
    loaded = open_spec("s.toml", CLASS_SPEC.encode(), {})
    assert loaded.expectation is not None, loaded.messages
    expectation = loaded.expectation
    handins = [coursework(s).encode() for s in range(300)]
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        (folder / "s.toml").write_text(CLASS_SPEC)
        for i, data in enumerate(handins):
            (folder / f"class/s{i:03}").mkdir(parents=True)
            (folder / f"class/s{i:03}/unit12.v").write_bytes(data)
        command = [
            sys.executable,
            "-m",
            "obento",
            "check",
            "s.toml",
            "class",
            "--batch",
            "--jobs",
            "2",
            "--json",
            "o.json",
            "--cases",
            "none",
        ]

        # As installed: compiled modules are kept, whatever the environment of this run says.
        env = os.environ | {
            "PYTHONPATH": str(Path(__file__).resolve().parents[1] / "src"),
            "PYTHONPYCACHEPREFIX": str(folder / "pyc"),
        }
        env.pop("PYTHONDONTWRITEBYTECODE", None)
        subprocess.run([*command[:4], "--help"], cwd=folder, capture_output=True, env=env)

        def pure() -> None:
            for data in handins:
                check_handin(expectation, [HandinFile("unit12.v", data)])

        whole, one = interleaved(5, lambda: subprocess.run(command, cwd=folder, capture_output=True, env=env), pure)
        say(
            "class of 300 x 4,096, command line over half of pure work",
            whole / (one / 2),
            "within 1.3",
            f"{whole:.2f} s",
        )


def why() -> None:
    """Findings for a class of 300 x 4,096, against the check without them; and the search for the smallest change of
    100 operators."""
    loaded = open_spec("s.toml", CLASS_SPEC.encode(), {})
    assert loaded.expectation is not None, loaded.messages
    expectation = loaded.expectation
    handins = [[HandinFile("unit12.v", coursework(s).encode())] for s in range(300)]

    def whole() -> None:
        for files in handins:
            check_handin(expectation, files)

    def plain() -> None:
        for files in handins:
            ready = make_ready(expectation.spec, files, (), LIMITS, {})
            assert isinstance(ready, Ready)
            judge(expectation, observe(ready.design, ready.binding, expectation.spec.inputs, expectation.cases, LIMITS))

    with_findings, without = interleaved(3, whole, plain)
    say(
        "class of 300 x 4,096 with findings, over the check alone",
        with_findings / without,
        "within 3",
        f"{with_findings:.2f} s",
    )
    spec, wrong = hundred_operators()
    search = open_spec("s.toml", spec.encode(), {}).expectation
    assert search is not None
    files = [HandinFile("net.v", wrong.encode())]
    took, _ = interleaved(3, lambda: find_repair(search, files, [], {}), plain_python)
    found = find_repair(search, files, [], {})
    told = found.changes[0].text if found is not None and found.changes else "nothing"
    say(
        "smallest change of a design of 100 operators, seconds",
        took,
        "under 1",
        f"{found.tried if found else 0} tried, found {told}",
    )


def plain_python() -> None:
    """A yardstick that costs next to nothing, where seconds are asked for."""


def board_page() -> None:
    """The board with many parts, in a browser."""
    from bench.board import measure

    found = measure()
    say(
        "board, 16 inputs and 300 parts, seconds from an edit to its verdict", found.verdict, "under 0.1", "in the page"
    )
    for parts, seconds in sorted(found.layout.items()):
        say(f"board, seconds to lay out {parts} parts", seconds, "under 0.5 for 300", "in a worker")
    for parts, share in sorted(found.slow_frames.items()):
        say(f"board, share of frames over 20 ms while {parts} parts are moved", share, "0", "headless Chromium")


def results_page() -> None:
    """300 x 4,096 cells in a real browser: bytes sent, first paint, and frames while scrolling."""
    from bench.page import measure

    found = measure()
    say(
        "results page 300 x 4,096, payload over packed bits",
        found.payload / (300 * 4096 / 8),
        "under 2",
        f"{found.payload / 1000:.0f} kB",
    )
    say("results page, seconds from navigation to painted cells", found.painted, "under 1", "headless Chromium")
    say(
        "results page, share of frames over 34 ms while scrolling",
        found.slow_frames,
        "0",
        f"{found.frames} frames, median {found.median_ms:.1f} ms",
    )
    say("results page, seconds for the tray of the same class", found.tray, "under 1", "navigation to first cluster")


def server() -> None:
    """One hand-in of 16 cases: through HTTP, database and a worker, against the core alone."""
    from bench.roundtrip import measure

    found = measure()
    more = f"{1e3 * found.check:.0f} ms, core {1e3 * found.core:.1f} ms, upload before it {1e3 * found.upload:.0f} ms"
    say("one hand-in of 16 cases through the server, ms on top", 1e3 * (found.check - found.core), "under 30", more)


def timeline() -> None:
    """Process runs a second of the event kernel, against timeouts a second of a general event simulator."""
    registers = 40
    _timeline("timeline", built(clocked_registers(registers), "t"), registers, 10, "1.3")
    _timeline("timeline, VHDL", built(clocked_registers_vhdl(registers), "t", "a.vhd"), registers, 10_000_000, "-")


def _timeline(what: str, design: Design, registers: int, period: int, wanted: str) -> None:
    cycles = 1_500
    # The clock runs twice a cycle; in VHDL so does every process that waits for it.
    runs = cycles * (registers + 2) if period == 10 else cycles * 2 * (registers + 1)

    def ours() -> None:
        kernel = Timeline(design, for_simulation())
        kernel.start()
        kernel.run(period * cycles)

    def theirs() -> None:
        environment = simpy.Environment()

        def process() -> Generator[simpy.Event, None, None]:
            while True:
                yield environment.timeout(1)

        for _ in range(registers):
            environment.process(process())
        environment.run(until=cycles)

    own, yard = interleaved(5, ours, theirs)
    say(
        f"{what}, process runs/s over simpy timeouts/s",
        (runs / own) / (cycles * registers / yard),
        wanted,
        f"{runs / own / 1e3:.0f} k/s",
    )


def lanes() -> None:
    """Word-level and procedural units over 65,536 cases, and a clocked machine in 4,096 sequences, against the
    timeline."""
    units = (
        ("word-level unit", WORD_UNIT, "a.v", "80"),
        ("if and case under masks", PROCEDURAL_UNIT, "a.v", "30"),
        ("word-level unit, VHDL", WORD_UNIT_VHDL, "a.vhd", "80"),
        ("if and case under masks, VHDL", PROCEDURAL_UNIT_VHDL, "a.vhd", "30"),
    )
    for name, text, file, wanted in units:
        design = built(text, "m", file)
        lanes = EventDriven(design, LIMITS)
        planes = {
            bit: (plane, plane ^ FULL)
            for bit, plane in zip(input_bits(design), map(partial(count_plane, lanes=CASES), range(16)), strict=False)
        }
        kernel = Timeline(design, LIMITS)

        def together(lanes: EventDriven = lanes, planes: dict[int, tuple[int, int]] = planes) -> None:
            lanes.power_up(FULL)
            lanes.apply(planes)

        def one_by_one(kernel: Timeline = kernel, design: Design = design) -> None:
            kernel.power_up()
            for case in range(400):
                kernel.apply(words_of(design, case * 163 % CASES))

        own, yard = interleaved(5, together, one_by_one)
        say(
            f"{name}, cases/s over one by one",
            (CASES / own) / (400 / yard),
            wanted,
            f"{CASES / own / 1e6:.1f} M cases/s",
        )
    _machine("state machine", built(STATE_MACHINE, "m"))
    _machine("state machine, VHDL", built(STATE_MACHINE_VHDL, "m", "a.vhd"))


def _machine(what: str, design: Design) -> None:
    sequences, steps = 4_096, 60
    full = (1 << sequences) - 1
    clk, go = (design.port(p).signal for p in ("clk", "go"))
    lanes = EventDriven(design, LIMITS)
    kernel = Timeline(design, LIMITS)
    source = random.Random(3)
    inputs = [source.getrandbits(sequences) for _ in range(steps)]

    def side_by_side() -> None:
        lanes.power_up(full)
        for step in inputs:
            lanes.apply({clk.offset: (0, full), go.offset: (step, step ^ full)})
            lanes.apply({clk.offset: (full, 0)})

    def after_another() -> None:
        for lane in range(4):
            kernel.power_up()
            for step in inputs:
                bit = step >> lane & 1
                kernel.apply({"clk": (0, 1), "go": (bit, 1 - bit)})
                kernel.apply({"clk": (1, 0)})

    own, yard = interleaved(5, side_by_side, after_another)
    rate = sequences * steps / own
    say(
        f"{what}, 4,096 sequences over one after another",
        rate / (4 * steps / yard),
        "50",
        f"{rate / 1e6:.1f} M steps/s",
    )


def built(text: str, unit: str, file: str = "a.v") -> Design:
    design = read_handin([HandinFile(file, text.encode())], LIMITS).elaborate(unit)
    assert design is not None
    return design


def input_bits(design: Design) -> list[int]:
    return [p.signal.offset + i for p in design.ports if p.direction == "in" for i in range(p.signal.width)]


def words_of(design: Design, case: int) -> dict[str, tuple[int, int]]:
    words = {}
    for port in design.ports:
        if port.direction == "in":
            words[port.name] = word(case, port.signal.width)
            case >>= port.signal.width
    return words


def steps() -> None:
    """A small clocked hand-in over 10,000 steps, and 300 hand-ins over 1,000 steps, sampled and judged."""
    head = 'obento = "spec/1"\nunit = "ticket_counter"\n[ports]\nin = "clk clr_n take"\nout = "ticket[4] last"\n'
    head += '[clock]\nport = "clk"\nedge = "fall"\n[reset]\nport = "clr_n"\nactive = 0\n'
    usual = observe_steps.LANES_FROM
    for count, what in ((10_000, "one hand-in x 10,000 steps"), (1_000, "300 hand-ins x 1,000 steps")):
        spec = f'{head}[expect]\nmodel = "ref.v"\n[cases]\nrandom = {{ count = {count}, seed = 1 }}\n'
        expectation = open_spec("s.toml", spec.encode(), {"ref.v": TICKETS.encode()}).expectation
        assert expectation is not None and expectation.cases.stimulus is not None
        handins = [TICKETS.replace("// ", f"// {i} ") for i in range(1 if count > 1_000 else 300)]
        sequences = len(expectation.cases.stimulus.sequences)

        def whole(lanes_from: int, handins: list[str] = handins, expectation: Expectation = expectation) -> None:
            observe_steps.LANES_FROM = lanes_from
            for text in handins:
                verdict = check_handin(expectation, [HandinFile("a.v", text.encode())]).verdict
                assert verdict is not None and verdict.right == expectation.cases.full
            observe_steps.LANES_FROM = usual

        side, single = interleaved(3, partial(whole, usual), partial(whole, 1 << 30))
        total = count * len(handins)
        say(
            f"{what}, {sequences} sequences, side by side over one by one",
            single / side,
            "-",
            f"{side:.2f} s, {total / side / 1e3:.0f} k steps/s",
        )
        say(f"{what}, one by one, seconds", single, "-", f"{total / single / 1e3:.0f} k steps/s")
    demo = Path(__file__).resolve().parents[1] / "demo/lab3/tickets.toml"
    tickets = open_spec("s.toml", demo.read_bytes(), {}).expectation
    assert tickets is not None
    wrong = TICKETS.replace("negedge clk", "posedge clk").encode()
    right, slow = interleaved(
        5,
        lambda: check_handin(tickets, [HandinFile("a.v", TICKETS.encode())]),
        lambda: check_handin(tickets, [HandinFile("a.v", wrong)]),
    )
    say("a wrong hand-in with its findings over a right one, 504 steps", slow / right, "3", f"{1000 * slow:.0f} ms")


ALL = {
    "steps": steps,
    "timeline": timeline,
    "lanes": lanes,
    "netlist": netlist,
    "parsing": parsing,
    "class": class_of_300,
    "why": why,
    "server": server,
    "page": results_page,
    "board": board_page,
}

if __name__ == "__main__":
    for chosen in sys.argv[1:] or list(ALL):
        ALL[chosen]()
