"""Random combinational designs with a mistake or two, and what they give: small trees of steps of one operation each,
reckoned with whole numbers case by case. Nothing of the program is used."""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import product
from random import Random

from tests.second_reader.truth import Case, Port, Truth

_MOST_INPUT_BITS = 7
_TWO = ("and", "or", "xor", "add", "sub")
_TESTS = ("ult", "ule", "eq", "slt")
_ONE = ("not", "neg")
_ALL = ("any", "all", "odd")
SIGNS = {"and": "&", "or": "|", "xor": "^", "add": "+", "sub": "-", "ult": "<", "ule": "<=", "eq": "==", "slt": "<"}
_FOLDS = {"any": "|", "all": "&", "odd": "^"}


@dataclass(frozen=True)
class Step:
    """One operation on steps before it (or inputs), by name; `number` is a constant, or the lowest bit that is
    picked."""

    name: str
    op: str
    of: tuple[str, ...]
    width: int
    number: int = 0


@dataclass(frozen=True)
class Tree:
    """Inputs, steps in order, and of each output the step that it shows."""

    inputs: tuple[Port, ...]
    outputs: tuple[Port, ...]
    steps: tuple[Step, ...]
    shows: tuple[str, ...]

    def widths(self) -> dict[str, int]:
        """Of every name its width."""
        return {p.name: p.width for p in self.inputs} | {s.name: s.width for s in self.steps}

    def run(self, given: dict[str, int]) -> dict[str, int]:
        """What the outputs are, as numbers without signs."""
        known, width = dict(given), self.widths()
        for s in self.steps:
            known[s.name] = _reckoned(s, [known[n] for n in s.of], [width[n] for n in s.of])
        return {p.name: known[shown] for p, shown in zip(self.outputs, self.shows, strict=True)}

    def verilog(self) -> str:
        """The same as a module of continuous assignments."""

        def wide(width: int) -> str:
            return f"[{width - 1}:0] " if width > 1 else ""

        ports = [f"input {wide(p.width)}{p.name}" for p in self.inputs]
        ports += [f"output {wide(p.width)}{p.name}" for p in self.outputs]
        lines = [f"module m({', '.join(ports)});"]
        lines += self.wires()
        lines += [f"  assign {p.name} = {shown};" for p, shown in zip(self.outputs, self.shows, strict=True)]
        return "\n".join([*lines, "endmodule", ""])

    def wires(self) -> list[str]:
        """The steps as declarations of wires."""
        width = self.widths()
        sized = [(f"[{s.width - 1}:0] " if s.width > 1 else "", s) for s in self.steps]
        return [f"  wire {wide}{s.name} = {_text(s, width)};" for wide, s in sized]


def _reckoned(s: Step, v: list[int], width: list[int]) -> int:
    top = (1 << s.width) - 1
    match s.op:
        case "and":
            return v[0] & v[1]
        case "or":
            return v[0] | v[1]
        case "xor":
            return v[0] ^ v[1]
        case "add":
            return v[0] + v[1] & top
        case "sub":
            return v[0] - v[1] & top
        case "not":
            return ~v[0] & top
        case "neg":
            return -v[0] & top
        case "ult":
            return int(v[0] < v[1])
        case "ule":
            return int(v[0] <= v[1])
        case "eq":
            return int(v[0] == v[1])
        case "slt":
            half = 1 << width[0] - 1
            return int((v[0] ^ half) < (v[1] ^ half))
        case "any":
            return int(v[0] != 0)
        case "all":
            return int(v[0] == (1 << width[0]) - 1)
        case "odd":
            return v[0].bit_count() & 1
        case "pick":
            return v[0] >> s.number & top
        case "grow":
            return v[0]
        case "sign":
            return v[0] | (top & -1 << width[0] if v[0] >> width[0] - 1 else 0)
        case "choose":
            return v[1] if v[0] else v[2]
        case "number":
            return s.number
    raise AssertionError(s.op)


def _text(s: Step, width: dict[str, int]) -> str:
    of = s.of
    match s.op:
        case "not":
            return f"~{of[0]}"
        case "neg":
            return f"-{of[0]}"
        case "slt":
            return f"$signed({of[0]}) < $signed({of[1]})"
        case "any" | "all" | "odd":
            return f"{_FOLDS[s.op]}{of[0]}"
        case "pick":
            if width[of[0]] == 1:
                return of[0]
            return f"{of[0]}[{s.number + s.width - 1}:{s.number}]" if s.width > 1 else f"{of[0]}[{s.number}]"
        case "grow":
            return f"{{{s.width - width[of[0]]}'d0, {of[0]}}}"
        case "sign":
            top = f"{of[0]}[{width[of[0]] - 1}]" if width[of[0]] > 1 else of[0]
            return f"{{{{{s.width - width[of[0]]}{{{top}}}}}, {of[0]}}}"
        case "choose":
            return f"{of[0]} ? {of[1]} : {of[2]}"
        case "number":
            return f"{s.width}'d{s.number}"
    return f"{of[0]} {SIGNS[s.op]} {of[1]}"


# At random.


def random_tree(r: Random) -> Tree:
    """A design of up to seven input bits and one to three outputs."""
    inputs: list[Port] = []
    for name in ("a", "b", "sel", "key"):
        left = _MOST_INPUT_BITS - sum(p.width for p in inputs)
        if left and (len(inputs) < 2 or r.random() < 0.6):
            width = r.choice([inputs[0].width] * 2 + [1, 2, 3]) if inputs else r.choice([1, 2, 3])
            inputs.append(_port(r, name, min(width, left)))
    steps = random_steps(r, tuple(inputs), r.randint(1, 6))
    widths = {s.name: s.width for s in steps}
    outputs, shows = [], []
    for name in ("y", "z", "over")[: r.choice([1, 1, 2, 3])]:
        shown = r.choice(steps[-3:]).name
        outputs.append(_port(r, name, widths[shown]))
        shows.append(shown)
    return Tree(tuple(inputs), tuple(outputs), tuple(steps), tuple(shows))


def random_steps(r: Random, inputs: tuple[Port, ...], count: int) -> list[Step]:
    """So many operations on inputs and on each other, and what these need to fit."""
    steps: list[Step] = []
    widths = {p.name: p.width for p in inputs}
    for i in range(count):
        _add_step(r, steps, widths, f"n{i}")
    return steps


def _port(r: Random, name: str, width: int) -> Port:
    signed = width > 1 and r.random() < 0.3
    return Port(name, width, signed, "bin" if width == 1 else r.choice(["bin", "dec", "dec", "hex"]))


def _add_step(r: Random, steps: list[Step], width: dict[str, int], name: str) -> None:
    """One more step on what is there; both sides of an operation are of one width, by a step of their own."""

    def put(op: str, of: tuple[str, ...], wide: int, number: int = 0) -> str:
        label = f"{name}{'abcdef'[sum(s.name.startswith(name) for s in steps)]}"
        steps.append(Step(label, op, of, wide, number))
        width[label] = wide
        return label

    def fitted(label: str, wide: int) -> str:
        if width[label] == wide:
            return label
        if width[label] > wide:
            return put("pick", (label,), wide, r.randint(0, width[label] - wide))
        return put(r.choice(["grow", "sign"]), (label,), wide)

    names = list(width)
    a, b = r.choice(names), r.choice(names)
    op = r.choice([*_TWO * 3, *_TESTS * 2, *_ONE, *_ALL, "choose", "choose", "pick", "number", "sign"])
    if op in _TWO:
        put(op, (a, fitted(b, width[a])), width[a])
    elif op in _TESTS:
        put(op, (a, fitted(b, width[a])), 1)
    elif op in _ONE:
        put(op, (a,), width[a])
    elif op in _ALL:
        put(op, (a,), 1)
    elif op == "choose":
        put(op, (fitted(r.choice(names), 1), a, fitted(b, width[a])), width[a])
    elif op == "pick":
        put(op, (a,), 1, r.randrange(width[a]))
    elif op == "number":
        put("add", (a, put("number", (), width[a], r.randrange(1 << width[a]))), width[a])
    elif width[a] < 4:
        put("sign", (a,), width[a] + 1)
    else:
        put("not", (a,), width[a])


def mistaken(r: Random, tree: Tree) -> Tree:
    """The same design with one thing changed, as somebody might get it wrong."""
    at = r.randrange(len(tree.steps))
    s, width = tree.steps[at], tree.widths()
    ways = []
    if s.op in _TWO:
        ways += [replace(s, op=op) for op in _TWO if op != s.op]
    if s.op in _TESTS:
        ways += [replace(s, op=op) for op in _TESTS if op != s.op]
        ways.append(replace(s, of=(s.of[1], s.of[0])))
    if s.op in ("grow", "sign"):
        ways.append(replace(s, op="grow" if s.op == "sign" else "sign"))
    if s.op in _ALL:
        ways += [replace(s, op=op) for op in _ALL if op != s.op]
    if s.op == "choose":
        ways.append(replace(s, of=(s.of[0], s.of[2], s.of[1])))
    if s.op in _ONE:
        ways.append(replace(s, op="pick"))
    if s.op == "number":
        ways.append(replace(s, number=s.number + 1 & (1 << s.width) - 1))
    if s.op == "pick" and width[s.of[0]] > s.width:
        ways.append(replace(s, number=(s.number + 1) % (width[s.of[0]] - s.width + 1)))
    before = [n for n, w in width.items() if n in {p.name for p in tree.inputs} | {x.name for x in tree.steps[:at]}]
    for i, used in enumerate(s.of):
        others = [n for n in before if n != used and width[n] == width[used]]
        if others:
            ways.append(replace(s, of=(*s.of[:i], r.choice(others), *s.of[i + 1 :])))
    if len(tree.shows) > 1 and len({p.width for p in tree.outputs}) == 1 and r.random() < 0.2:
        return replace(tree, shows=tree.shows[::-1])
    if r.random() < 0.1:
        i = r.randrange(len(tree.shows))
        others = [n for n, w in width.items() if w == tree.outputs[i].width and n != tree.shows[i]]
        if others:
            return replace(tree, shows=(*tree.shows[:i], r.choice(others), *tree.shows[i + 1 :]))
    return replace(tree, steps=(*tree.steps[:at], r.choice(ways), *tree.steps[at + 1 :])) if ways else tree


def truth_of(r: Random, right: Tree, handed_in: Tree) -> Truth:
    """Every combination of the inputs; some outputs are left open in some designs."""
    is_open = r.random() < 0.25
    cases = []
    for numbers in product(*(range(1 << p.width) for p in right.inputs)):
        given = {p.name: n for p, n in zip(right.inputs, numbers, strict=True)}
        wanted: dict[str, int | None] = dict(right.run(given))
        for name in wanted:
            if is_open and r.random() < 0.2:
                wanted[name] = None
        cases.append(Case(given, wanted, handed_in.run(given)))
    return Truth(right.inputs, right.outputs, cases)
