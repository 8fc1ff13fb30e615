"""A processor with a pipeline, in the three languages, against a model that does one instruction after the other.

The pipeline says what it does: an instruction that is done with where it stood and what it wrote, an interrupt that is
taken. The model follows and allows an interrupt only where one may come; all else it knows by itself.
"""

from __future__ import annotations

import random
from dataclasses import dataclass, field
from pathlib import Path

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.simulate import Options, simulate

NAMES = ["processor.sv", "processor.v", "processor.vhd"]
NOP, ALU, LONG, ADDI, ANDI, LD, ST, SLTI, BEQ, BNE, BLT, LUI, JMP, SHI, SYS, HALT = range(16)
RETURN, ENABLE, DISABLE, CALL, GET_CAUSE, GET_PLACE, SET_PLACE = range(7)
INTERRUPT, CALLED, DIVIDED, ILLEGAL = range(4)
CODE, WORDS, VECTOR, MASK = 128, 64, 4, 0xFFFF


def signed(value: int, width: int = 16) -> int:
    """A word as a number with its sign."""
    return value - (1 << width) if value >> (width - 1) else value


def instruction(op: int, rd: int = 0, rs: int = 0, low: int = 0) -> int:
    """Its word: an operation, two registers and six digits that are a number, or a register and what to do."""
    return op << 12 | rd << 9 | rs << 6 | low & 63


def alu(kind: int, a: int, b: int) -> int:
    """One of the eight quick ones."""
    by_kind = (a + b, a - b, a & b, a | b, a ^ b, int(signed(a) < signed(b)), int(a < b), signed(a) >> (b & 15))
    return by_kind[kind] & MASK


def shifted(kind: int, a: int, by: int) -> int:
    """One of the four shifts by a number that stands in the instruction."""
    return (a << by, a >> by, signed(a) >> by, a << by | a >> (16 - by))[kind] & MASK


@dataclass
class Machine:
    """Registers, memory and what interrupts need, changed by one instruction after the other."""

    program: list[int]
    r: list[int] = field(default_factory=lambda: [0] * 8)
    memory: list[int] = field(default_factory=lambda: [i * 3 for i in range(WORDS)])
    shown: list[int] = field(default_factory=list)
    pc: int = 0
    cause: int = 0
    back: int = 0
    enabled: bool = False

    def trap(self, cause: int, back: int) -> None:
        self.cause, self.back, self.enabled, self.pc = cause, back % CODE, False, VECTOR

    def refused(self) -> int | None:
        """Why the instruction that comes next is not done, where it is not."""
        word = self.program[self.pc]
        op, x, b = word >> 12, word & 7, self.r[word >> 3 & 7]
        if (op == LONG and x > 3) or (op == SYS and x == 7):
            return ILLEGAL
        return DIVIDED if op == LONG and x > 1 and b == 0 else None

    def loaded(self, address: int) -> int:
        return 0x5A5A ^ address if address >> 15 else self.memory[address % WORDS]

    def step(self) -> tuple[int, int, int]:
        """Do one: where it stood, into which register it wrote, and what."""
        while (cause := self.refused()) is not None:
            self.trap(cause, self.pc + 1)
        at, word = self.pc, self.program[self.pc]
        op, rd, rs, rt, x = word >> 12, word >> 9 & 7, word >> 6 & 7, word >> 3 & 7, word & 7
        a, b, v, c = self.r[rs], self.r[rt], self.r[rd], signed(word & 63, 6) & MASK
        self.pc = (at + 1) % CODE
        goes = {BEQ: v == a, BNE: v != a, BLT: signed(v) < signed(a), JMP: True}.get(op, False)
        if goes:
            self.pc = ((a if op == JMP and rs else at + 1) + c) % CODE
        address = (a + c) & MASK
        if op == ST and address >> 15:
            self.shown.append(v)
        elif op == ST:
            self.memory[address % WORDS] = v
        new = self.system(x, at, v) if op == SYS else self.result(op, word, a, b, c, at)
        if new is None or rd == 0:
            return at, 0, 0
        self.r[rd] = new
        return at, rd, new

    def system(self, x: int, at: int, v: int) -> int | None:
        if x == CALL:
            self.trap(CALLED, at + 1)
        elif x == RETURN:
            self.pc = self.back
        elif x == SET_PLACE:
            self.back = v % CODE
        self.enabled = (self.enabled and x not in (DISABLE, CALL)) or x in (RETURN, ENABLE)
        return {GET_CAUSE: self.cause, GET_PLACE: self.back}.get(x)

    def result(self, op: int, word: int, a: int, b: int, c: int, at: int) -> int | None:
        if op == LONG:
            product = a * b
            return (product & MASK, product >> 16, a // (b or 1), a % (b or 1))[word & 7]
        results = {
            ALU: alu(word & 7, a, b), ADDI: (a + c) & MASK, ANDI: a & c, LD: self.loaded((a + c) & MASK),
            SLTI: int(signed(a) < signed(c)), LUI: (word & 511) << 7, JMP: (at + 1) % CODE,
            SHI: shifted(word >> 4 & 3, a, word & 15),
        }  # fmt: skip
        return results.get(op)


def programs(seed: int) -> list[int]:
    """A random program that ends: a handler first, then a body of which only one counted loop leads back."""
    draw = random.Random(seed)
    handler = [
        instruction(ADDI, 7, 7, 1),  # counts how often it was called
        instruction(SYS, 6, 0, GET_CAUSE),
        instruction(ST, 6, 7, 32),
        instruction(SYS, 5, 0, GET_PLACE),
        instruction(SYS, 0, 0, RETURN),
    ]
    start = [instruction(SYS, 0, 0, ENABLE), instruction(ADDI, 4, 0, 6), instruction(JMP, 0, 0, 6), instruction(NOP)]
    length = 60
    body = []
    for at in range(length):
        op = draw.choice([ALU, ALU, ALU, LONG, ADDI, ADDI, ANDI, LD, LD, ST, SLTI, BEQ, BNE, BLT, LUI, SHI, SYS])
        rd, rs, low = draw.randrange(4), draw.randrange(4), draw.randrange(64)
        if op in (ALU, LONG):
            low = draw.randrange(4) << 3 | draw.randrange(8 if op == ALU or draw.random() < 0.2 else 4)
        elif op in (BEQ, BNE, BLT):
            low = draw.randrange(min(5, length - at))
        elif op == SYS:
            low = draw.choice([ENABLE, ENABLE, DISABLE, CALL, GET_CAUSE, GET_PLACE, 7])
        body.append(instruction(op, rd, rs, low))
    body[30:30] = [instruction(ADDI, 4, 4, -1), instruction(BLT, 0, 4, -20)]  # six times over the twenty before
    show = [instruction(LUI, 3, 4, 0), *[instruction(ST, n, 3, n) for n in range(8)]]
    found = [*start, *handler, *body, *show]
    return [*found, *[instruction(HALT)] * (CODE - len(found))]


@dataclass
class Told:
    """What a bench printed."""

    events: list[tuple[int, int, int] | None]
    """Instructions that were done; None is an interrupt."""
    shown: list[int]
    memory: list[int]
    cycles: int


def run(name: str, program: list[int], interrupts: list[int], change: tuple[str, str] = ("", "")) -> Told:
    """The program by the pipeline, with interrupts asked for in these cycles; in its text something may be changed."""
    source = Path(__file__).with_name(name).read_text(encoding="utf-8")
    assert change[0] in source
    printed: list[str] = []
    image = "\n".join(f"{word:04x}" for word in program).encode()
    files = [
        HandinFile(name, (source.replace(*change) if change[0] else source).encode()),
        HandinFile("program.hex", image),
        HandinFile("interrupts.txt", "".join(f"{n}\n" for n in interrupts).encode()),
    ]
    outcome = simulate(files, printed.append, Options(top="bench"), for_simulation())
    assert outcome.status == 0, [str(m) for m in outcome.messages]
    *lines, memory = "".join(printed).splitlines()
    told = Told([], [], [int(word, 16) for word in memory.split()], 0)
    for line in lines:
        word, *rest = line.split()
        if word == "did":
            told.events.append((int(rest[0], 16), int(rest[1]), int(rest[2], 16)))
        elif word == "interrupt":
            told.events.append(None)
        elif word == "out":
            told.shown.append(int(rest[0], 16))
        else:
            told.cycles = int(rest[0])
    return told


def followed(told: Told, program: list[int]) -> int:
    """Go along with what was told, by the model; how many interrupts were taken."""
    machine = Machine(program)
    for event in told.events:
        if event is None:
            assert machine.enabled
            machine.trap(INTERRUPT, machine.pc)
        else:
            assert machine.step() == event
    assert program[machine.pc] >> 12 == HALT
    assert (told.shown, told.memory) == (machine.shown, machine.memory)
    return told.events.count(None)


def cycles_of(seed: int) -> list[int]:
    draw = random.Random(seed)
    return sorted(draw.sample(range(5, 400), 6))


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("seed", range(6))
def test_the_pipeline_does_what_its_instructions_say(name: str, seed: int) -> None:
    program = programs(seed)
    told = run(name, program, cycles_of(seed))
    assert followed(told, program) >= 1


@pytest.mark.parametrize("seed", range(6, 9))
def test_all_three_do_the_same_in_every_cycle(seed: int) -> None:
    first, *others = [run(name, programs(seed), cycles_of(seed)) for name in NAMES]
    assert all(told == first for told in others)


def ended(*words: int) -> list[int]:
    return [*words, *[instruction(HALT)] * (CODE - len(words))]


@pytest.mark.parametrize("name", NAMES)
def test_a_load_is_waited_for_and_a_branch_takes_back_what_follows(name: str) -> None:
    program = ended(
        instruction(LD, 1, 0, 5),  # r1 = mem[5] = 15
        instruction(ADDI, 2, 1, 1),
        instruction(BEQ, 1, 1, 2),  # over the next two
        instruction(ADDI, 2, 0, 7),
        instruction(ADDI, 3, 0, 7),
        instruction(ST, 2, 0, 31),
    )
    told = run(name, program, [])
    assert [e for e in told.events if e and e[1]] == [(0, 1, 15), (1, 2, 16)]
    assert told.memory[31] == 16


@pytest.mark.parametrize("name", NAMES)
def test_a_loop_is_foretold_after_two_rounds(name: str) -> None:
    def loop(rounds: int) -> int:
        program = ended(instruction(ADDI, 1, 0, rounds), instruction(ADDI, 1, 1, -1), instruction(BNE, 1, 0, -2))
        return run(name, program, []).cycles

    # Four rounds more cost two cycles each once the branch is foretold; one that is not costs two more.
    assert loop(12) - loop(8) == 8


@pytest.mark.parametrize("name", NAMES)
def test_a_division_is_done_anew_after_an_interrupt(name: str) -> None:
    program = ended(
        instruction(SYS, 0, 0, ENABLE),
        instruction(ADDI, 1, 0, 31),
        instruction(ADDI, 2, 0, 7),
        instruction(JMP, 0, 0, 3),  # over the handler
        instruction(SYS, 3, 0, GET_PLACE),
        instruction(SYS, 0, 0, RETURN),
        instruction(NOP),
        instruction(LONG, 4, 1, 2 << 3 | 2),
        instruction(LONG, 5, 1, 2 << 3 | 3),
    )
    told = run(name, program, [14])
    assert followed(told, program) == 1
    assert (4, 3, 7) in told.events  # it stood in the division
    assert (7, 4, 4) in told.events and (8, 5, 3) in told.events


@pytest.mark.parametrize(
    ("name", "change"),
    [
        ("processor.sv", ("if (w.valid && writes(w.i) && w.i.rd == n) return w.result;", "")),
        ("processor.v", ("return_place <= interrupted ? d_pc : d_pc + 1;", "return_place <= d_pc + 1;")),
        ("processor.vhd", ("stall <= runs and", "stall <= false and runs and")),
    ],
)
def test_a_slip_of_the_pipeline_is_seen(name: str, change: tuple[str, str]) -> None:
    with pytest.raises(AssertionError):
        for seed in range(3):
            followed(run(name, programs(seed), cycles_of(seed), change), programs(seed))
