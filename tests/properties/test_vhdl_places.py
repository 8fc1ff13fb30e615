"""Where the elements of VHDL arrays go: aggregates as targets, aliases under other bounds, slices in aggregates.

Random processes on vectors of random bounds, against a model that knows nothing but lists of digits from left to right;
all engines."""

from __future__ import annotations

import random

import pytest

from tests.core.designs import agree, build

SIZE = 4


class Vector:
    """A variable or alias: its name and bounds, and the list of digits (left to right) that it stands for, shared with
    what it is an alias of."""

    def __init__(self, name: str, dice: random.Random, digits: list[str] | None = None) -> None:
        self.name = name
        low = dice.randrange(3)
        self.down = dice.random() < 0.5
        self.left, self.right = (low + SIZE - 1, low) if self.down else (low, low + SIZE - 1)
        self.digits = digits if digits is not None else ["0"] * SIZE

    @property
    def bounds(self) -> str:
        return f"({self.left} {'downto' if self.down else 'to'} {self.right})"

    def index(self, place: int) -> int:
        return self.left - place if self.down else self.left + place

    def part(self, first: int, size: int) -> str:
        """A slice as text; a single element where that is asked for by size 1 now and then."""
        if size == SIZE:
            return self.name
        return f"{self.name}({self.index(first)} {'downto' if self.down else 'to'} {self.index(first + size - 1)})"


Move = tuple[Vector, int, Vector | str, int]
"""To which vector and place a digit goes, and from where: a vector and place, or the digit itself."""


class Program:
    """A process, and what it does to the inputs of one case."""

    def __init__(self, seed: int) -> None:
        self.dice = random.Random(seed)
        self.a, self.b = Vector("a", self.dice), Vector("b", self.dice)
        self.variables = [Vector(f"v{i}", self.dice) for i in range(3)]
        self.aliases = [Vector(f"n{i}", self.dice, of.digits) for i, of in enumerate(self.variables)]
        self.behind = list(self.variables)
        self.steps = [self.step() for _ in range(8)]
        self.shown = self.dice.choice([*self.variables, *self.aliases])

    def pieces(self) -> list[int]:
        """Sizes that make up a vector."""
        cuts = sorted(self.dice.sample(range(1, SIZE), self.dice.randrange(SIZE)))
        return [b - a for a, b in zip([0, *cuts], [*cuts, SIZE], strict=True)]

    def step(self) -> tuple[str, list[Move]]:
        """A statement, and the digits it moves: (to, place, from or digit, place)."""
        dice, places = self.dice, [*self.variables, *self.aliases]
        source = dice.choice([self.a, self.b, *places])
        kind = dice.choice(["whole", "aggregate", "element", "pieces", "named"])
        if kind == "whole":
            target = dice.choice(places)
            return f"{target.name} := {source.name};", [(target, i, source, i) for i in range(SIZE)]
        if kind == "element":
            target, i, j = dice.choice(places), dice.randrange(SIZE), dice.randrange(SIZE)
            return f"{target.name}({target.index(i)}) := {source.name}({source.index(j)});", [(target, i, source, j)]
        if kind == "aggregate":
            parts: list[str] = []
            moves: list[Move] = []
            at = 0
            free = [(v, i) for v in self.variables for i in range(SIZE)]
            for size in self.pieces():
                target = dice.choice(places)
                first = dice.randrange(SIZE - size + 1)
                own = [(self.variables[int(target.name[1])], first + k) for k in range(size)]
                if any(x not in free for x in own):
                    return self.step()  # two parts of one aggregate would set the same digit
                free = [x for x in free if x not in own]
                parts.append(
                    f"{target.name}({target.index(first)})"
                    if size == 1 and dice.random() < 0.6
                    else target.part(first, size)
                )
                moves += [(target, first + k, source, at + k) for k in range(size)]
                at += size
            if len(parts) == 1:
                return self.step()
            return f"({', '.join(parts)}) := {source.name};", moves
        target, at = dice.choice(self.variables), 0
        if kind == "pieces":
            parts, moves = [], []
            for size in self.pieces():
                other = dice.choice([self.a, self.b])
                first = dice.randrange(SIZE - size + 1)
                parts.append(f"{other.name}({other.index(first)})" if size == 1 else other.part(first, size))
                moves += [(target, at + k, other, first + k) for k in range(size)]
                at += size
            return (f"{target.name} := ({', '.join(parts)});", moves) if len(parts) > 1 else self.step()
        size = dice.randrange(1, SIZE)
        first, other, fill = dice.randrange(SIZE - size + 1), dice.choice([self.a, self.b]), dice.choice("01")
        start = dice.randrange(SIZE - size + 1)
        places_text = target.part(first, size).removeprefix(target.name).strip("()")
        moves = [(target, i, fill, 0) for i in range(SIZE)]
        moves += [(target, first + k, other, start + k) for k in range(size)]
        return f"{target.name} := ({places_text} => {other.part(start, size)}, others => '{fill}');", moves

    def text(self) -> str:
        declared = " ".join(f"variable {v.name} : std_logic_vector{v.bounds};" for v in self.variables)
        named = " ".join(
            f"alias {n.name} : std_logic_vector{n.bounds} is {of.name};"
            for n, of in zip(self.aliases, self.variables, strict=True)
        )
        start = " ".join(f"{v.name} := (others => '0');" for v in self.variables)
        body = "\n    ".join(text for text, _ in self.steps)
        return (
            f"library ieee; use ieee.std_logic_1164.all;\nentity m is port (a : in std_logic_vector{self.a.bounds}; b :"
            f" in std_logic_vector{self.b.bounds}; y, z : out std_logic_vector(3 downto 0)); end;\narchitecture r of m"
            " is\n  function turned(v : std_logic_vector) return std_logic_vector is\n    alias up :"
            " std_logic_vector(1 to v'length) is v; alias down : std_logic_vector(v'length - 1 downto 0) is v;"
            " variable r : std_logic_vector(3 downto 0);\n  begin r := up(4) & up(1 to 2) & down(1); return r; end"
            f" function;\nbegin process (a, b) {declared} {named} begin\n    {start}\n    {body}\n    y <="
            f" {self.shown.name}; z <= turned({self.shown.name}); end process; end;\n"
        )

    def run(self, a: str, b: str) -> list[str]:
        self.a.digits[:], self.b.digits[:] = list(a), list(b)
        for v in self.variables:
            v.digits[:] = ["0"] * SIZE
        for _, moves in self.steps:
            values = [source if isinstance(source, str) else source.digits[j] for _, _, source, j in moves]
            for (target, i, _, _), value in zip(moves, values, strict=True):
                target.digits[i] = value
        y = "".join(self.shown.digits)
        return [y, y[3] + y[0:2] + y[2]]


@pytest.mark.parametrize("seed", range(40))
def test_every_digit_goes_where_it_should(seed: int) -> None:
    program = Program(seed)
    design = build(program.text(), name="a.vhd")
    assert not design.parts[0].unfit, design.parts[0].unfit
    truth = [program.run(f"{n >> 4:04b}", f"{n & 15:04b}") for n in range(256)]
    assert agree(design) == truth, program.text()
