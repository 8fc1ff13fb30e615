"""Random machines with one register and a mistake or two, driven step by step by rules of their own."""

from __future__ import annotations

from dataclasses import dataclass, replace
from random import Random

from tests.second_reader.trees import Step, Tree, mistaken, random_steps
from tests.second_reader.truth import Case, Port, Truth

_TURNED = {"rise": "fall", "fall": "rise"}


@dataclass(frozen=True)
class Machine:
    """A register `q` that takes what `logic` gives for it at an edge of `clk`, and outputs that `logic` gives."""

    logic: Tree
    """Of inputs and `now` (what `q` is); its first output is what `q` becomes."""
    edge: str
    active: int
    kind: str
    reset_to: int

    def run(self, steps: list[DriveStep], start: int = 0) -> list[dict[str, int]]:
        """What the outputs are in each step of one sequence, from power-up with the register at its start value."""
        q, shown = start, []
        level = steps[0].idle
        for step in steps:
            q = self._reset_at_once(q, step)
            for at, turn in enumerate(step.turns()):
                if turn == level:
                    continue
                level = turn
                if (turn == 1) == (self.edge == "rise"):
                    q = self._next(q, step)
                if at == 0:
                    shown.append(self._outputs(q, step))
            if not step.turns() or len(shown) < step.number:
                shown.append(self._outputs(q, step))
        return shown

    def is_settled_by(self, drive: Drive) -> bool:
        """Whether it is plain what a machine is after power-up: a clock that comes to rest there is an edge as well,
        and what it takes then is not known yet."""
        falls = drive.right.edge == "rise"
        is_at_once = all(self.kind == "async" and self._is_reset(s[0]) for s in drive.sequences)
        return is_at_once or (self.edge == "fall") != falls

    def _is_reset(self, step: DriveStep) -> bool:
        return step.given["rst"] == self.active

    def _reset_at_once(self, q: int, step: DriveStep) -> int:
        return self.reset_to if self.kind == "async" and self._is_reset(step) else q

    def _next(self, q: int, step: DriveStep) -> int:
        return self.reset_to if self._is_reset(step) else next(iter(self._made(q, step).values()))

    def _made(self, q: int, step: DriveStep) -> dict[str, int]:
        return self.logic.run({p.name: step.given[p.name] for p in self.logic.inputs[:-1]} | {"now": q})

    def _outputs(self, q: int, step: DriveStep) -> dict[str, int]:
        made = self._made(q, step)
        return {"q": q} | {name: v for name, v in made.items() if name != "next"}

    def verilog(self) -> str:
        """The same as a module."""

        def wide(width: int) -> str:
            return f"[{width - 1}:0] " if width > 1 else ""

        inputs, now = self.logic.inputs[:-1], self.logic.inputs[-1]
        others = self.logic.outputs[1:]
        ports = ["input clk", "input rst", *(f"input {wide(p.width)}{p.name}" for p in inputs)]
        ports += [f"output {wide(p.width)}{p.name}" for p in (replace(now, name="q"), *others)]
        lines = [f"module m({', '.join(ports)});", f"  reg {wide(now.width)}now;", "  initial now = 0;"]
        lines += self.logic.wires()
        edge = {"rise": "posedge", "fall": "negedge"}[self.edge]
        at_once = f" or {'posedge' if self.active else 'negedge'} rst" if self.kind == "async" else ""
        lines += [
            f"  always @({edge} clk{at_once})",
            f"    if ({'' if self.active else '!'}rst) now <= {self.reset_to};",
            f"    else now <= {self.logic.shows[0]};",
            "  assign q = now;",
        ]
        lines += [f"  assign {p.name} = {shown};" for p, shown in zip(others, self.logic.shows[1:], strict=True)]
        return "\n".join([*lines, "endmodule", ""])


@dataclass(frozen=True)
class DriveStep:
    """One step: what the clock does (`.`, `c`, `r`, `f`), where it rests, and the inputs. `number` counts from 1."""

    number: int
    action: str
    idle: int
    given: dict[str, int]

    def turns(self) -> list[int]:
        """The levels that the clock takes in it."""
        match self.action:
            case "c":
                return [1 - self.idle, self.idle]
            case "r":
                return [1]
            case "f":
                return [0]
        return []


@dataclass(frozen=True)
class Drive:
    """What both machines are driven by: sequences of steps, by the clock and reset of the spec."""

    sequences: list[list[DriveStep]]
    right: Machine

    def turned(self, **changes: int) -> Drive:
        """The same with some inputs inverted within their width."""
        return Drive(
            [
                [replace(s, given=s.given | {n: s.given[n] ^ mask for n, mask in changes.items()}) for s in seq]
                for seq in self.sequences
            ],
            self.right,
        )

    def answers(self, machine: Machine, start: int = 0) -> list[dict[str, int]]:
        """What a machine shows in all steps, one sequence after the other."""
        return [shown for sequence in self.sequences for shown in machine.run(sequence, start)]


def random_machine(r: Random) -> Machine:
    """A counter, a shift register, or whatever comes of a random tree."""
    width = r.choice([1, 2, 2, 3])
    now = Port("now", width)
    inputs = [Port("en", 1)] + (
        [Port("d", r.choice([1, width]), False, r.choice(["bin", "dec"]))] if r.random() < 0.6 else []
    )
    ports = (*inputs, now)
    steps: list[Step] = []
    if r.random() < 0.7:
        steps += [Step("one", "number", (), width, 1), Step("more", "add", ("now", "one"), width)]
        following = "more"
        if width > 1 and r.random() < 0.5:
            last = r.randrange(2, 1 << width)
            steps += [
                Step("last", "number", (), width, last),
                Step("none", "number", (), width, 0),
                Step("full", "eq", ("now", "last"), 1),
                Step("wrapped", "choose", ("full", "none", "more"), width),
            ]
            following = "wrapped"
        if len(inputs) > 1 and inputs[1].width == width and r.random() < 0.4:
            steps.append(Step("taken", "choose", ("en", "d", following), width))
        else:
            steps.append(Step("taken", "choose", ("en", following, "now"), width))
        shows = ["taken"]
    else:
        steps += random_steps(r, ports, 4)
        fitting = [s.name for s in steps if s.width == width]
        shows = [fitting[-1] if fitting else "now"]
    outputs = [Port("next", width)]
    if r.random() < 0.5:
        steps.append(Step("flag", r.choice(["any", "all", "odd"]), ("now",), 1))
        outputs.append(Port("y", 1))
        shows.append("flag")
    return Machine(
        Tree(ports, tuple(outputs), tuple(steps), tuple(shows)),
        r.choice(["rise", "fall"]),
        r.randint(0, 1),
        r.choice(["async", "sync"]),
        r.choice([0, 0, 1]),
    )


def mistaken_machine(r: Random, machine: Machine) -> Machine:
    """One thing changed: in the logic, the edge, or the reset."""
    way = r.randrange(8)
    if way == 0:
        return replace(machine, edge=_TURNED[machine.edge])
    if way == 1:
        return replace(machine, active=1 - machine.active)
    if way == 2:
        return replace(machine, kind="sync" if machine.kind == "async" else "async")
    if way == 3:
        return replace(machine, reset_to=1 - machine.reset_to)
    return replace(machine, logic=mistaken(r, machine.logic))


def random_drive(r: Random, right: Machine) -> Drive:
    """A few sequences that begin with a reset."""
    idle = 0 if right.edge == "rise" else 1
    sequences = []
    for _ in range(r.randint(3, 6)):
        sequence: list[DriveStep] = []
        level = idle
        for number in range(1, r.randint(8, 16)):
            is_reset = number == 1 or r.random() < 0.07
            given = {p.name: r.randrange(1 << p.width) for p in right.logic.inputs[:-1]}
            given["rst"] = right.active if is_reset else 1 - right.active
            action = r.choice("cccccc..") if number > 1 else "c"
            if level == idle and action == "c" and r.random() < 0.1:
                action, level = "fr"[1 - idle], 1 - idle
            elif level != idle:
                action, level = "fr"[idle], idle
            sequence.append(DriveStep(number, action, idle, given))
        sequences.append(sequence)
    return Drive(sequences, right)


def truth_of_steps(drive: Drive, handed_in: Machine) -> Truth:
    """All steps as cases."""
    right = drive.right
    inputs = (Port("rst", 1), *right.logic.inputs[:-1])
    outputs = (Port("q", right.logic.inputs[-1].width, False, "dec"), *right.logic.outputs[1:])
    wanted, got = drive.answers(right), drive.answers(handed_in)
    steps = [step for sequence in drive.sequences for step in sequence]
    return Truth(
        inputs,
        outputs,
        [Case(s.given, dict(w), g) for s, w, g in zip(steps, wanted, got, strict=True)],
    )


def spec_of(drive: Drive, truth: Truth) -> str:
    """As a spec that lists the steps."""
    right, rows, at = drive.right, [], 0
    for number, sequence in enumerate(drive.sequences, 1):
        rows.append(f"--- way {number}")
        for step in sequence:
            case = truth.cases[at]
            at += 1
            left = " ".join(p.show(case.given[p.name]) for p in truth.inputs)
            rows.append(f"{step.action} {left} | {' '.join(p.show(case.wanted[p.name]) for p in truth.outputs)}")
    return "\n".join(
        [
            'obento = "spec/1"',
            'unit = "m"',
            "[ports]",
            f'in = "clk {" ".join(p.declared() for p in truth.inputs)}"',
            f'out = "{" ".join(p.declared() for p in truth.outputs)}"',
            f'[clock]\nport = "clk"\nedge = "{right.edge}"',
            f'[reset]\nport = "rst"\nactive = {right.active}\nkind = "{right.kind}"',
            "[expect]",
            "steps = '''",
            f"clk {' '.join(p.name for p in truth.inputs)} | {' '.join(p.name for p in truth.outputs)}",
            *rows,
            "'''",
            "",
        ]
    )
