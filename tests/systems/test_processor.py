"""A processor with a pipeline, in the three languages, against a model that does one instruction after the other."""

from __future__ import annotations

import random
from pathlib import Path

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import Limits
from obento.core.simulate import Options, simulate

NAMES = ["processor.sv", "processor.v", "processor.vhd"]
NOP, ADD, SUB, AND, OR, XOR, SLT, ADDI, LD, ST, BEQ, LUI, HALT = *range(12), 15
WORDS = 64


def signed(value: int, width: int) -> int:
    """A word as a number with its sign."""
    return value - (1 << width) if value >> (width - 1) else value


def modelled(program: list[int]) -> tuple[list[int], list[int]]:
    """Registers and memory after a program, by its instructions alone."""
    r, memory, pc = [0] * 8, [i * 3 for i in range(WORDS)], 0
    while True:
        word = program[pc]
        op, rd, rs, rt = word >> 12, word >> 9 & 7, word >> 6 & 7, word >> 3 & 7
        immediate = signed(word & 63, 6)
        a, b = r[rs], r[rt]
        address = (a + immediate) % (1 << 16) % WORDS
        pc += 1
        if op == HALT:
            return r, memory
        if op == BEQ and r[rd] == a:
            pc += immediate
        elif op == ST:
            memory[address] = r[rd]
        found = {
            ADD: a + b, SUB: a - b, AND: a & b, OR: a | b, XOR: a ^ b, SLT: int(signed(a, 16) < signed(b, 16)),
            ADDI: a + immediate, LD: memory[address], LUI: (word & 511) << 7,
        }.get(op)  # fmt: skip
        if found is not None and rd:
            r[rd] = found % (1 << 16)


def programs(seed: int) -> list[int]:
    """A random program that ends: its branches lead forward."""
    draw = random.Random(seed)
    found = []
    for at in range(48):
        op = draw.choice([ADD, SUB, AND, OR, XOR, SLT, ADDI, ADDI, LD, LD, ST, BEQ, LUI, NOP])
        rd, rs, low = draw.randrange(4), draw.randrange(4), draw.randrange(64)
        if op == BEQ:
            low = draw.randrange(min(6, 48 - at))
        found.append(op << 12 | rd << 9 | rs << 6 | low)
    return [*found, *[HALT << 12] * (WORDS - len(found))]


def run(name: str, program: list[int]) -> tuple[list[int], list[int]]:
    """The same by the pipeline."""
    printed: list[str] = []
    image = "\n".join(f"{word:04x}" for word in program).encode()
    files = [HandinFile(name, Path(__file__).with_name(name).read_bytes()), HandinFile("program.hex", image)]
    outcome = simulate(files, printed.append, Options(top="bench"), Limits())
    assert outcome.status == 0, [str(m) for m in outcome.messages]
    registers, memory = "".join(printed).splitlines()
    return [int(word, 16) for word in registers.split()], [int(word, 16) for word in memory.split()]


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("seed", range(8))
def test_the_pipeline_does_what_its_instructions_say(name: str, seed: int) -> None:
    program = programs(seed)
    assert run(name, program) == modelled(program)


@pytest.mark.parametrize("name", NAMES)
def test_a_load_is_waited_for_and_a_branch_takes_back_what_follows(name: str) -> None:
    program = [
        LD << 12 | 1 << 9 | 5,  # r1 = mem[5] = 15
        ADDI << 12 | 2 << 9 | 1 << 6 | 1,  # r2 = r1 + 1
        BEQ << 12 | 1 << 9 | 1 << 6 | 2,  # over the next two
        ADDI << 12 | 2 << 9 | 7,
        ADDI << 12 | 3 << 9 | 7,
        ST << 12 | 2 << 9 | 63,  # mem[-1] = r2
    ]
    registers, memory = run(name, [*program, *[HALT << 12] * (WORDS - len(program))])
    assert registers[1:4] == [15, 16, 0] and memory[63] == 16
