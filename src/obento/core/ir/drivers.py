"""Who writes which bit of a design, and what every bit holds before anything has run."""

from __future__ import annotations

from collections.abc import Container, Iterator

from obento.core.exhaustive import no_rule
from obento.core.ir.collections import CHANGING
from obento.core.ir.design import Design, Process
from obento.core.ir.nodes import (
    Assign,
    Await,
    Block,
    Call,
    Case,
    CollectionOp,
    CollectionTask,
    Delay,
    Disable,
    DisableFork,
    Expr,
    Fork,
    Function,
    Hold,
    If,
    LetGo,
    Loop,
    Ref,
    Repeat,
    Slice,
    Stmt,
    SystemCall,
    SystemTask,
    Target,
    TaskCall,
    Trigger,
    WaitFork,
    WaitUntil,
)
from obento.core.ir.signal import Signal, Watch
from obento.core.ir.walks import children, walk
from obento.core.values import Word, ones


def statements(body: Stmt | None) -> Iterator[Stmt]:
    """A statement and all inside it; bodies of functions and tasks left out."""
    stack = [body]
    while stack:
        s = stack.pop()
        if s is None:
            continue
        yield s
        match s:
            case Block():
                stack += s.body
            case If():
                stack += (s.then, s.other)
            case Case():
                stack += [arm.body for arm in s.arms]
                stack.append(s.default)
            case Loop() | Repeat():
                stack.append(s.body)
            case Fork():
                stack += s.branches
            case Assign() | Delay() | Await() | WaitUntil() | WaitFork() | Trigger() | Disable() | DisableFork():
                pass
            case TaskCall() | SystemTask() | CollectionTask() | Hold() | LetGo():
                pass
            case _:
                raise no_rule(s)


def _indices(targets: list[Target]) -> Iterator[Expr]:
    for target in targets:
        for offset in target.offsets:
            yield offset.index


def expressions(s: Stmt) -> Iterator[Expr]:
    """The expressions that a statement itself evaluates, without those of statements inside it."""
    match s:
        case Assign():
            yield s.value
            yield from _indices(s.targets)
            if s.timing is not None:
                yield from expressions(s.timing)
        case If() | Loop() | WaitUntil():
            yield s.cond
        case Repeat():
            yield s.count
        case Case():
            yield s.subject
            for arm in s.arms:
                yield from arm.labels
        case Delay():
            yield s.amount
        case Await():
            if s.count is not None:
                yield s.count
        case TaskCall():
            yield from s.args
            for result in s.results:
                yield from _indices(result)
        case SystemTask() | CollectionTask():
            yield s.call
        case Hold():
            yield s.value
        case Block() | Trigger() | Fork() | WaitFork() | Disable() | DisableFork() | LetGo():
            pass
        case _:
            raise no_rule(s)


def functions_called(body: Stmt | None) -> list[Function]:
    """Functions and tasks that a body calls, and those they call, each once."""
    found: dict[int, Function] = {}
    queue = [body]
    while queue:
        for s in statements(queue.pop()):
            called = [node.function for e in expressions(s) for node in walk(e) if isinstance(node, Call)]
            if isinstance(s, TaskCall):
                called.append(s.task)
            for function in called:
                if id(function) not in found:
                    found[id(function)] = function
                    queue.append(function.body)
    return list(found.values())


def functions_called_for_values(body: Stmt | None) -> list[Function]:
    """Functions whose values a body uses, and those that they use, each once; what tasks call is left out."""
    found: dict[int, Function] = {}
    queue = [body]
    while queue:
        for s in statements(queue.pop()):
            for function in (node.function for e in expressions(s) for node in walk(e) if isinstance(node, Call)):
                if id(function) not in found:
                    found[id(function)] = function
                    queue.append(function.body)
    return list(found.values())


def read_by_function(function: Function) -> list[tuple[Signal, int, int]]:
    """Stretches that a function, or one that it uses, reads of what belongs to none of them."""
    used = [function, *functions_called_for_values(function.body)]
    bodies = [f.body for f in used]
    own = {s.id for f in used for s in f.storage()} | {t.signal.id for b in bodies for t in targets(b)}
    return [
        r
        for b in bodies
        for s in statements(b)
        for e in expressions(s)
        for r in stretches_read(e)
        if r[0].id not in own
    ]


def waits(body: Stmt | None) -> bool:
    """Whether a body, or a task it calls, may stop to wait for something."""
    for part in (body, *(f.body for f in functions_called(body))):
        for s in statements(part):
            match s:
                case Delay() | Await() | WaitUntil() | WaitFork() | DisableFork() | Fork():
                    return True
                case Assign() if s.timing is not None:
                    return True
                case _:
                    pass
    return False


def function_bits(design: Design) -> set[int]:
    """Bits that belong to functions. They keep their values from call to call, like any variable (1364 clause
    10.4.1)."""
    bits: set[int] = set()
    for function in design.functions:
        for s in function.storage():
            bits.update(range(s.offset, s.offset + s.width))
    return bits


def targets(body: Stmt | None) -> Iterator[Target]:
    """What a body itself writes, called functions left out."""
    for s in statements(body):
        match s:
            case Assign() | Hold():
                yield from s.targets
            case TaskCall():
                for result in s.results:
                    yield from result
            case SystemTask():
                yield from _written_by(s.call)
            case Block() | If() | Case() | Loop() | Repeat() | Fork() | CollectionTask():
                pass
            case Delay() | Await() | WaitUntil() | WaitFork() | Trigger() | Disable() | DisableFork() | LetGo():
                pass
            case _:
                raise no_rule(s)
        for e in expressions(s):
            for node in walk(e):
                if isinstance(node, SystemCall):
                    yield from _written_by(node)
                elif isinstance(node, CollectionOp):
                    yield from _changed_by(node)


def _written_by(call: SystemCall) -> Iterator[Target]:
    """What a system task or function writes: its arguments, or the memory that it fills from a file."""
    for argument in call.args:
        yield from argument.targets
    filled = {"$readmemb": 1, "$readmemh": 1, "$fread": 0}.get(call.name)
    memory = call.args[filled].memory if filled is not None else None
    if memory is not None:
        yield Target(memory[0], 0, memory[0].width)


def _changed_by(call: CollectionOp) -> Iterator[Target]:
    """The collection that is changed, the key that is given back, and what stands for an element meanwhile."""
    first = call.args[0] if call.args else None
    if call.op in CHANGING and isinstance(first, Ref):
        yield Target(first.signal, 0, first.width)
    yield from call.key
    if call.each is not None:
        yield from (Target(s, 0, s.width) for s in (call.each.item, call.each.place))


def written_bits(process: Process) -> set[int]:
    """The numbers of all bits that a process may write, function locals left out."""
    body = process.body
    if (
        isinstance(body, Assign)
        and len(body.targets) == 1
        and body.targets[0].width == 1
        and not body.targets[0].offsets
    ):
        t = body.targets[0]  # a gate: by far the most frequent
        return {t.signal.offset + t.low} if 0 <= t.low < t.signal.width else set()
    bits: set[int] = set()
    for t in all_targets(body):
        bits.update(stretch_bits(t))
    return bits


def all_targets(body: Stmt) -> Iterator[Target]:
    """What a body and the tasks it calls write outside of their own storage."""
    yield from targets(body)
    for function in functions_called(body):
        own = {s.id for s in function.storage()}
        yield from (t for t in targets(function.body) if t.signal.id not in own)


def stretch_bits(t: Target) -> range:
    """The numbers of the bits that a target may mean."""
    first = t.signal.offset
    if t.offsets:
        return range(first, first + t.signal.width)
    return range(first + max(0, t.low), first + min(t.signal.width, t.low + t.width))


def stretches_read(e: Expr) -> list[tuple[Signal, int, int]]:
    """Stretches (signal, low, width) that an expression reads; of called functions their arguments only."""
    found: list[tuple[Signal, int, int]] = []
    stack = [e]
    while stack:
        node = stack.pop()
        if isinstance(node, Slice) and isinstance(node.a, Ref):
            low = max(0, node.low)
            high = min(node.a.width, node.low + node.width)
            if high > low:
                found.append((node.a.signal, low, high - low))
        elif isinstance(node, Ref):
            found.append((node.signal, 0, node.width))
        else:
            stack += children(node)
    return found


def watches_of(stretches: list[tuple[Signal, int, int]]) -> list[Watch]:
    """Watches for any change of these stretches, each once."""
    seen: dict[tuple[int, int, int], Watch] = {}
    for signal, low, width in stretches:
        seen.setdefault((signal.id, low, width), Watch(signal, "any", low, width))
    return list(seen.values())


def body_watches(body: Stmt | None) -> list[Watch]:
    """Watches for everything a body reads: what `@*` stands for (1364 clause 9.7.5)."""
    return watches_of([r for s in statements(body) for e in expressions(s) for r in stretches_read(e)])


def _net_bits(design: Design) -> Iterator[set[int]]:
    """Bits of nets that each `continuous` process drives. Variables, some of them large arrays, do not matter here."""
    for process in design.processes:
        if process.kind == "continuous":
            yield {bit for t in targets(process.body) if t.signal.kind == "net" for bit in stretch_bits(t)}


def power_up_word(signal: Signal, driven: Container[int]) -> Word:
    """The word of a signal at power-up (1364 clauses 4.2.2 and 6.1.1); `driven` has the bits of nets with a driver, and
    inputs.

    A start value if one was given; x for variables and what is driven (by what has not spoken yet); z for the rest of a
    net."""
    if signal.initial is not None:
        return signal.initial
    if signal.kind == "variable":
        return 0, 0
    if signal.width == 1:
        return (0, 0) if signal.offset in driven else (1, 1)
    free = ones(signal.width)
    for i in range(signal.width):
        if signal.offset + i in driven:
            free &= ~(1 << i)
    return free, free


def power_up_words(design: Design) -> list[Word]:
    """The word of each signal at power-up."""
    driven: set[int] = set().union(*_net_bits(design))
    for port in design.ports:
        if port.direction == "in":
            driven.update(range(port.signal.offset, port.signal.offset + port.signal.width))
    return [power_up_word(signal, driven) for signal in design.signals]
