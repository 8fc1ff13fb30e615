"""Typed statements, processes and subprograms as Python text, compiled piece by piece.

Elaboration executes subprograms as soon as they are known, so that constants can be worked out; a run executes all
pieces anew. Everything declared outside of processes is global there."""

from __future__ import annotations

from types import SimpleNamespace
from typing import Any

from obento.core.exhaustive import no_rule
from obento.core.vhdl.code.bodies import assigned_variables, edge_awaited, jumps, runs_through, subtype_of
from obento.core.vhdl.code.expressions import ExpressionEmitter, driver_name
from obento.core.vhdl.code.pieces import Piece, compiled
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.nine_values import DASH
from obento.core.vhdl.model.scope import Object, Subprogram
from obento.core.vhdl.model.types import (
    ArrayType,
    EnumType,
    FileType,
    ProtectedType,
    RangeX,
    Subtype,
    is_scalar,
    scalar_bounds,
)
from obento.core.vhdl.model.values import Arr
from obento.core.vhdl.packages.standard import STRING
from obento.core.vhdl.runtime.text_files import File

_FEW = 64


class Emitter(ExpressionEmitter):
    """Text of statements; `pieces` are what a run executes, in order."""

    def __init__(self, prefix: str = "") -> None:
        super().__init__(prefix)
        self.names["File"] = File
        self.names["SimpleNamespace"] = SimpleNamespace
        self.live: dict[str, Any] = self.names
        self._lines: list[str] = []
        self._indent = 0
        self._waiting = False
        self._loops: list[t.Loop] = []
        self._flags: dict[int, str] = {}
        self._owner: Subprogram | t.Process | None = None
        self.keeps_state = False
        """Whether anything but signals and the variables of processes keeps a state: shared variables, files."""

    # Text.

    def line(self, text: str) -> None:
        """Write a line at the present depth."""
        self._lines.append("    " * self._indent + text)

    def take(self) -> str:
        """The text written so far; writing begins anew."""
        text = "\n".join(self._lines) + "\n"
        self._lines = []
        return text

    def execute(self, piece: Piece, live: bool) -> None:
        """Take in a piece; `live` ones are executed for elaboration too. The others are only compiled when something
        runs."""
        if not live:
            self.pieces.append(piece)
            return
        code = compiled(piece)
        self.pieces.append(code)
        exec(code, self.live)  # our own text, made here

    def evaluate(self, x: t.Expr) -> Any:
        """The value of an expression of constants."""
        if isinstance(x, t.Const):
            return x.value
        return eval(self.value(x), self.live)  # our own text, made here

    def default(self, s: Subtype) -> str:
        """As for every type; an object of a protected type is made by its body."""
        return f"{s.type.make}()" if isinstance(s.type, ProtectedType) else super().default(s)

    def evaluate_fitted(self, x: t.Expr, s: Subtype) -> Any:
        """The value of an expression now, checked against a subtype."""
        return eval(self.fitted(x, s), self.live)  # our own text, made here

    # Subprograms and processes.

    def subprogram(self, f: Subprogram) -> None:
        """One of the outermost level, executed at once."""
        if f.emitted or f.native is not None or f.body is None:
            return
        f.emitted = True
        saved = self._lines, self._indent, self._waiting, self._loops, self._owner
        self._lines, self._indent, self._loops = [], 0, []
        self.define(f)
        text = self.take()
        self._lines, self._indent, self._waiting, self._loops, self._owner = saved
        self.execute(Piece(text, f.name, f.pos), True)

    def define(self, f: Subprogram) -> None:
        """`def` of a subprogram, wherever it stands."""
        f.emitted = True
        params: list[str] = ["P"] if f.waits else []
        for p in f.params:
            params.append(p.py)
            if p.kind == "signal" and p.mode in ("out", "inout"):
                params.append(driver_name(p))
        self.line(f"def {f.py}({', '.join(params)}):")
        self._indent += 1
        waiting, self._waiting = self._waiting, f.waits
        owner, self._owner = self._owner, f
        loops, self._loops = self._loops, []
        assert f.body is not None
        self._outer_names(f.decls, f.body, f)
        self.line(f"R.look({f.pos})")
        for i in f.outs():
            p = f.params[i]
            if p.mode == "out" and not (isinstance(p.subtype.type, ArrayType) and p.subtype.ranges is None):
                if not isinstance(p.subtype.type, FileType | ProtectedType):
                    self.line(f"{p.py} = {self.default(p.subtype)}")
        for d in f.decls:
            self.statement(d)
        self.body(f.body)
        self._return(f)
        if f.waits:
            self.line("yield")
        self._indent -= 1
        self._waiting, self._owner, self._loops = waiting, owner, loops

    def _return(self, f: Subprogram) -> None:
        if f.is_function:
            self.line(f"R.no_return({f.pos}, {f.name!r})")
        else:
            outs = "".join(f"{f.params[i].py}, " for i in f.outs())
            self.line(f"return ({outs})")

    def _outer_names(self, decls: list[t.Stmt], body: list[t.Stmt], owner: Subprogram | t.Process) -> None:
        """Which names this body sets that belong further out."""
        assigned: dict[str, Object] = {}
        for o in assigned_variables(body):
            if o.of_process is not owner:
                assigned[o.py] = o
        own_globals = sorted(n for n, o in assigned.items() if o.of_process is None)
        outer = sorted(n for n, o in assigned.items() if o.of_process is not None)
        if own_globals:
            self.line(f"global {', '.join(own_globals)}")
        if outer:
            self.line(f"nonlocal {', '.join(outer)}")

    def protected(self, keeper: Subprogram, methods: list[str]) -> None:
        """A protected type's body: a function that makes an object, whose methods share its variables."""
        saved = self._lines, self._indent, self._waiting, self._loops, self._owner
        self._lines, self._indent, self._loops, self._owner = [], 0, [], keeper
        self.line(f"def {keeper.py}():")
        self._indent = 1
        for d in keeper.decls:
            self.statement(d)
        self.line(f"return SimpleNamespace({', '.join(f'{m}={m}' for m in methods)})")
        text = self.take()
        self._lines, self._indent, self._waiting, self._loops, self._owner = saved
        self.execute(Piece(text, keeper.name, keeper.pos), True)

    def process(self, p: t.Process, name: str) -> None:
        """A process as what runs when it wakes, or as a generator that lives from wait to wait, then its
        registration."""
        drivers = [f"d_{o.py}" for o in p.driven]
        self._lines, self._indent, self._waiting, self._owner, self._loops = [], 0, True, p, []
        body_name = self.fresh("p")
        self.line(f"def {body_name}({', '.join(['P', *drivers])}):")
        self._indent = 1
        self._outer_names(p.decls, p.body, p)
        for d in p.decls:
            self.statement(d)
        watched: list[str] = []
        if p.sensitivity is not None and runs_through(p):
            watched = self._run_through(p)
        else:
            self.line("while True:")
            self._indent = 2
            if p.sensitivity is None:
                self.line(f"R.look({p.pos})")
                self.line("if False: yield")  # a body without any wait is a generator all the same
            self.body(p.body)
            if p.sensitivity is not None:
                event, watched = self._sensitivity(p)
                self.line("yield")
                if event:
                    self.line(f"while not ({event}): yield")
        self._indent = 0
        made = ", ".join(self._driver_spec(o, paths) for o, paths in p.driven.items())
        self.line(
            f"R.process({body_name}, {name!r}, {p.pos}, [{', '.join(watched)}], [{made}], {p.postponed},"
            f" {edge_awaited(p)})"
        )
        self.execute(Piece(self.take(), name, p.pos), False)

    def _run_through(self, p: t.Process) -> list[str]:
        """A body that runs through each time, with its variables in `P.kept` between; gives what wakes it."""
        kept = ", ".join(d.object.py for d in p.decls if isinstance(d, t.Declare) and d.object.kind == "variable")
        if kept:
            self.line(f"P.kept = ({kept},)")
        self.line("def run():")
        self._indent = 2
        event, watched = self._sensitivity(p)
        if event:
            self.line(f"if P.begun and not ({event}): return")
        if kept:
            self.line(f"{kept}, = P.kept")
        self.body(p.body)
        if kept:
            self.line(f"P.kept = ({kept},)")
        self._indent = 1
        self.line("return run")
        return watched

    def _sensitivity(self, p: t.Process) -> tuple[str, list[str]]:
        """What wakes a process; when only part of a signal counts, the condition that it is that part."""
        assert p.sensitivity is not None
        signals = list(dict.fromkeys(self.signal(x) for x in p.sensitivity))
        event = ""
        if any(s.startswith("View") for s in signals):
            event = " or ".join(f"{s}.event == R.cycle" for s in signals)
        roots = [self.path(x)[0] for x in p.sensitivity]
        return event, list(dict.fromkeys(r.py for r in roots if r is not None))

    def _driver_spec(self, o: Object, paths: list[tuple[Any, ...]]) -> str:
        value = self.keep_plain(o)
        if any(not path for path in paths):
            return f"({o.py}, {value}, None, {o.guard!r})"
        return f"({o.py}, {value}, {self.keep(list(paths))}, {o.guard!r})"

    def keep_plain(self, o: Object) -> str:
        """The first value of a signal."""
        return self.constant(o.value)

    # Statements.

    def body(self, statements: list[t.Stmt]) -> None:
        """Statements one below the other."""
        if not statements:
            self.line("pass")
        for s in statements:
            self.statement(s)

    def statement(self, s: t.Stmt) -> None:
        """One statement."""
        match s:
            case t.SetVariable():
                self._set_variable(s)
            case t.SetSignal():
                self._set_signal(s)
            case t.If():
                self._if(s)
            case t.Case():
                self._case(s)
            case t.Loop():
                self._loop(s)
            case t.Jump():
                self._jump(s)
            case t.Return():
                self._return_statement(s)
            case t.Wait():
                self._wait(s)
            case t.Assert():
                self._assert(s)
            case t.CallProcedure():
                self._call(s)
            case t.Declare():
                self._declare(s)
            case t.DeclareSub():
                if s.subprogram.body is not None:
                    self.define(s.subprogram)
            case t.Null():
                self.line("pass")
            case _:
                raise no_rule(s)

    def _declare(self, s: t.Declare) -> None:
        o = s.object
        if isinstance(o.subtype.type, FileType):
            self.line(f"{o.py} = File()")
            if s.value is not None:
                mode = self.value(o.default) if o.default is not None else "0"
                self.line(f"R.open({o.py}, {self.value(s.value)}, {mode}, {s.pos})")
            return
        self.line(f"{o.py} = {self.fitted(s.value, o.subtype) if s.value is not None else self.default(o.subtype)}")

    def _set_variable(self, s: t.SetVariable) -> None:
        if isinstance(s.target, t.ArrayAgg | t.RecordAgg):
            self._spread(s.target, self.value(s.value), s.pos, lambda x, text: self._store(x, text, s.pos))
            return
        target = t.unaliased(s.target)
        self._store(target, self._conformed(s.value, subtype_of(target), target), s.pos)

    def _conformed(self, value: t.Expr, subtype: Subtype, target: t.Expr) -> str:
        if isinstance(subtype.type, ArrayType) and subtype.ranges is None:
            if isinstance(target, t.Slice):
                return self.value(value)
            return (
                f"fit_like({self.value(value)}, {self.value(target)}, {value.pos})"
                if not isinstance(target, t.Deref)
                else self.value(value)
            )
        return self.fitted(value, subtype)

    def _spread(self, target: t.ArrayAgg | t.RecordAgg, text: str, position: int, store: Any) -> None:
        """An aggregate of names as target: each takes its part, and keeps its own bounds (1076-1993 clauses 8.4 and
        8.5)."""
        whole = self.fresh("_w")
        self.line(f"{whole} = {text}")

        def take(x: t.Expr, text: str) -> None:
            x = t.unaliased(x)
            if isinstance(x, t.ArrayAgg | t.RecordAgg):
                self._spread(x, text, position, store)
            else:
                store(x, self._fit_into(x, text, position))

        if isinstance(target, t.RecordAgg):
            for i, x in enumerate(target.values):
                take(x, f"{whole}[{i}]")
            return
        sizes: list[str] = []
        for place, x, is_slice in target.items:
            if is_slice:
                size = subtype_of(x).length()
                length = str(size) if size is not None else f"len({self.value(x)}.v)"
                start = " + ".join(sizes) or "0"
                take(x, f"Arr(0, 1, {whole}.v[{start}:{start} + {length}])")
                sizes.append(length)
                continue
            start = " + ".join(sizes) or "0"
            offset = (
                start
                if place is None or not isinstance(place, t.Expr)
                else f"({self.value(place)} - {whole}.left) * {whole}.step"
            )
            take(x, f"{whole}.v[{offset}]")
            sizes.append("1")
        if all(place is None for place, _, _ in target.items):
            self.line(f"R.same_length(len({whole}.v), {' + '.join(sizes)}, {position})")

    def _fit_into(self, x: t.Expr, text: str, position: int) -> str:
        """A part of a value as its target takes it: an array with the target's bounds, a scalar within them."""
        subtype = subtype_of(x)
        if isinstance(subtype.type, ArrayType) and len(subtype.type.indices) == 1 and not isinstance(x, t.Slice):
            if subtype.ranges is not None:
                return f"fit_range({text}, {self.bounds(subtype.ranges[0])}, {position})"
            return f"fit_like({text}, {self.value(x)}, {position})"
        bounds = scalar_bounds(subtype) if is_scalar(subtype.type) and not isinstance(subtype.type, EnumType) else None
        return (
            text
            if bounds is None
            else f"within({text}, {self.constant(bounds[0])}, {self.constant(bounds[1])}, {position})"
        )

    def _store(self, target: t.Expr, text: str, position: int) -> None:
        """Set a variable or a part of it to a value that already fits."""
        steps: list[t.Expr] = []
        x = target
        while not isinstance(x, t.Read | t.Deref):
            steps.append(x)
            assert isinstance(x, t.Index | t.Slice | t.Field)
            x = x.prefix
        if isinstance(x, t.Deref):
            pointer = self.fresh("_q")
            self.line(f"{pointer} = {self.value(x.prefix)}")
            self.line(f"deref({pointer}, {x.pos})")
            root = f"{pointer}.value"
        else:
            root = x.object.py
        self.line(f"{root} = {self._updated(root, steps[::-1], text)}")

    def _updated(self, base: str, steps: list[t.Expr], text: str) -> str:
        if not steps:
            return text
        step, rest = steps[0], steps[1:]
        if isinstance(step, t.Field):
            return f"put_field({base}, {step.number}, {self._updated(f'{base}[{step.number}]', rest, text)})"
        if isinstance(step, t.Slice):
            bounds = self.slice_bounds(step.range)
            inner = self._updated(f"{base}.part({bounds}, {step.pos})", rest, text)
            return f"{base}.put_part({bounds}, {inner}, {step.pos})"
        assert isinstance(step, t.Index)
        return self._put_at(base, step, list(step.indices), rest, text)

    def _put_at(self, base: str, step: t.Index, indices: list[t.Expr], rest: list[t.Expr], text: str) -> str:
        index = self.value(indices[0])
        if (len(indices) > 1 or rest) and not isinstance(indices[0], t.Const | t.Read):
            kept = self.fresh("_i")
            self.line(f"{kept} = {index}")
            index = kept
        inner_base = f"{base}.at({index}, {step.pos})"
        inner = (
            self._put_at(inner_base, step, indices[1:], rest, text)
            if len(indices) > 1
            else self._updated(inner_base, rest, text)
        )
        return f"{base}.put({index}, {inner}, {step.pos})"

    # Signals.

    def _set_signal(self, s: t.SetSignal) -> None:
        if isinstance(s.target, t.ArrayAgg | t.RecordAgg):
            value, delay = s.waves[0]
            assert value is not None
            part = lambda x, text: self._drive(x, [(text, None if delay is None else self.value(delay))], s)  # noqa: E731
            self._spread(s.target, self.value(value), s.pos, part)
            return
        target = t.unaliased(s.target)
        waves = []
        for value, delay in s.waves:
            text = "None" if value is None else self._conformed_signal(value, subtype_of(target), target)
            waves.append((text, None if delay is None else self.value(delay)))
        self._drive(target, waves, s)

    def _conformed_signal(self, value: t.Expr, subtype: Subtype, target: t.Expr) -> str:
        if isinstance(subtype.type, ArrayType) and subtype.ranges is None and not isinstance(target, t.Slice):
            return f"fit_like({self.value(value)}, {self.value(target)}, {value.pos})"
        return self.fitted(value, subtype)

    def _drive(self, target: t.Expr, waves: list[tuple[str, str | None]], s: t.SetSignal) -> None:
        root, path = self.path(target)
        if root is None:
            self.line("pass")
            return
        driver = driver_name(root)
        if len(waves) == 1 and waves[0][1] is None:
            if path == "()":
                self.line(f"{driver}.set({waves[0][0]})")
            else:
                self.line(f"{driver}.put({path}, {waves[0][0]}, {s.pos})")
            return
        items = ", ".join(f"({text}, R.ticks({delay or 0}))" for text, delay in waves)
        reject = "None" if s.reject is None else f"R.ticks({self.value(s.reject)})"
        self.line(f"{driver}.schedule({path}, [{items}], {s.transport}, {reject}, {s.pos})")

    # Control.

    def _if(self, s: t.If) -> None:
        word = "if"
        for condition, body in s.arms:
            if condition is None:
                if word == "if":
                    self.body(body)
                    return
                self.line("else:")
            else:
                self.line(f"{word} {self.value(condition)}:")
            self._indent += 1
            self.body(body)
            self._indent -= 1
            word = "elif"

    def _case(self, s: t.Case) -> None:
        selector = self.fresh("_c")
        packed = isinstance(s.selector.type, ArrayType)
        self.line(f"{selector} = {self.value(s.selector)}{'.v' if packed else ''}")
        sure = packed and s.selector.sub is not None and s.selector.sub.length() is not None
        word = "if"
        if packed and not sure and any(choices for choices, _ in s.arms):
            size = next(len(c.v) for choices, _ in s.arms if choices for c in choices if isinstance(c, Arr))
            self.line(f"R.same_length(len({selector}), {size}, {s.pos})")
        for choices, body in s.arms:
            if choices is None:
                self.line("else:" if word == "elif" else "if True:")
            else:
                self.line(f"{word} {self._choice_test(selector, choices, s)}:")
            self._indent += 1
            self.body(body)
            self._indent -= 1
            word = "elif"

    def _choice_test(self, selector: str, choices: list[Any], s: t.Case) -> str:
        if s.matching and isinstance(s.selector.type, ArrayType | EnumType):
            return " or ".join(self._matches(selector, c) for c in choices)
        plain = [c for c in choices if not isinstance(c, tuple)]
        tests = [f"{low} <= {selector} <= {high}" for low, high in (c for c in choices if isinstance(c, tuple))]
        texts = [
            repr(c.v) if isinstance(c, Arr) and type(c.v) is bytes else self.constant(c.v if isinstance(c, Arr) else c)
            for c in plain
        ]
        if len(texts) == 1:
            tests.append(f"{selector} == {texts[0]}")
        elif texts:
            tests.append(f"{selector} in ({', '.join(texts)})")
        return " or ".join(tests)

    @staticmethod
    def _matches(selector: str, choice: Any) -> str:
        """`case?`: '-' in a choice matches every value."""
        if not isinstance(choice, Arr):
            return "True" if choice == DASH else f"logic.TO_X01[{selector}] == logic.TO_X01[{choice}]"
        tests = [
            f"logic.TO_X01[{selector}[{i}]] == {c if c in (2, 3) else -1}" for i, c in enumerate(choice.v) if c != DASH
        ]
        return "(" + (" and ".join(tests) or "True") + ")"

    def _loop(self, s: t.Loop) -> None:
        self._loops.append(s)
        flag = ""
        if any(j.loop is not s for j in jumps(s.body)):
            flag = self._flags.setdefault(id(s), self.fresh("_x"))
            self.line(f"{flag} = 0")
        if s.range is not None and s.parameter is not None:
            self.line(f"for {s.parameter.py} in {self._rounds(s.range)}:")
        elif s.condition is not None:
            self.line(f"while {self.value(s.condition)}:")
        else:
            self.line("while True:")
        self._indent += 1
        size = s.range.length() if s.range is not None else None
        if size is None or size > _FEW or any(isinstance(inner, t.Loop) for inner in s.body):
            self.line(f"R.look({s.pos})")
        self.body(s.body)
        self._indent -= 1
        self._loops.pop()
        # A jump out of several loops: each one on the way hands it on.
        if flag:
            outer = self._loops[-1] if self._loops else None
            if outer is not None:
                outer_flag = self._flags.get(id(outer))
                self.line(f"if {flag} == {id(outer)}: break")
                self.line(f"if {flag} == {-id(outer)}: continue")
                if outer_flag is not None:
                    self.line(f"if {flag}:")
                    self.line(f"    {outer_flag} = {flag}")
                    self.line("    break")

    def _rounds(self, r: RangeX) -> str:
        known = r.known()
        if known is not None:
            left, right, down = known
            return f"range({left}, {right - 1}, -1)" if down else f"range({left}, {right + 1})"
        if isinstance(r.down, bool):
            left, right = self.value(r.left), self.value(r.right)
            return f"range({left}, {right} - 1, -1)" if r.down else f"range({left}, {right} + 1)"
        return f"rounds({self.bounds(r)})"

    def _jump(self, s: t.Jump) -> None:
        if s.condition is not None:
            self.line(f"if {self.value(s.condition)}:")
            self._indent += 1
        inner = self._loops[-1]
        if s.loop is inner:
            self.line("break" if s.kind == "exit" else "continue")
        else:
            flag = self._flags[id(inner)]
            self.line(f"{flag} = {id(s.loop) if s.kind == 'exit' else -id(s.loop)}")
            self.line("break")
        if s.condition is not None:
            self._indent -= 1

    def _return_statement(self, s: t.Return) -> None:
        f = self._owner
        assert isinstance(f, Subprogram)
        if s.value is not None and f.result is not None:
            self.line(f"return {self.fitted(s.value, f.result)}")
            return
        outs = "".join(f"{f.params[i].py}, " for i in f.outs())
        self.line(f"return ({outs})")

    def _wait(self, s: t.Wait) -> None:
        if s.forever:
            self.line("while True: yield")
            return
        names = [self.signal(x) for x in s.signals]
        signals = "(" + "".join(f"{n}, " for n in dict.fromkeys(names)) + ")"
        ticks = "None" if s.time is None else f"R.ticks({self.value(s.time)})"
        parts = [n for n in names if n.startswith("View")]
        if s.until is None and not parts:
            self.line(f"P.listen({signals}, {ticks}, {s.pos})")
            self.line("yield")
            return
        tests = []
        if parts:
            tests.append("(" + " or ".join(f"{n}.event == R.cycle" for n in names) + ")")
        if s.until is not None:
            tests.append(self.value(s.until))
        if s.time is not None:
            end = self.fresh("_t")
            self.line(f"{end} = R.host.now + {ticks}")
            ticks = f"{end} - R.host.now"
        self.line("while True:")
        self.line(f"    P.listen({signals}, {ticks}, {s.pos})")
        self.line("    yield")
        test = " and ".join(tests)
        self.line(f"    if {f'P.timed_out or {test}' if s.time is not None else test}: break")

    def _assert(self, s: t.Assert) -> None:
        severity = self.value(s.severity) if s.severity is not None else ("2" if s.condition is not None else "0")
        if s.condition is None:
            assert s.report is not None
            self.line(f"R.host.bench.came_to({s.pos})")
            self.line(f"R.say({severity}, text_of({self.value(s.report)}), {s.pos})")
            return
        text = f"text_of({self.value(s.report)})" if s.report is not None else "'Assertion violation.'"
        self.line(f"R.host.bench.came_to({s.pos})")
        self.line(f"if not {self.value(s.condition)}: R.say({severity}, {text}, {s.pos})")

    def _call(self, s: t.CallProcedure) -> None:
        f = s.procedure
        call = self.invocation(s, self.arguments(f.params, s.args))
        if f.waits:
            call = f"(yield from {call})"
        outs = f.outs()
        if (
            f.native is None
            and f.name in ("file_open", "file_close", "deallocate", "read", "write", "flush")
            and f.foreign
        ):
            self._file_call(s)
            return
        if not outs:
            self.line(call)
            return
        result = self.fresh("_r")
        self.line(f"{result} = {call}")
        for number, i in enumerate(outs):
            actual = s.args[i]
            if isinstance(actual, t.Open):
                continue
            actual = t.unaliased(actual)
            subtype = subtype_of(actual)
            text = f"{result}[{number}]"
            if is_scalar(subtype.type):
                bounds = scalar_bounds(subtype)
                own = scalar_bounds(f.params[i].subtype)
                if bounds is not None and bounds != own:
                    text = f"within({text}, {self.constant(bounds[0])}, {self.constant(bounds[1])}, {s.pos})"
            elif isinstance(subtype.type, ArrayType) and subtype.ranges is not None and len(subtype.ranges) == 1:
                text = f"fit_range({text}, {self.bounds(subtype.ranges[0])}, {s.pos})"
            self._store(actual, text, s.pos)

    def _file_call(self, s: t.CallProcedure) -> None:
        """The implicit procedures of a file type (5.5.2) and of access types."""
        name = s.procedure.name
        args = [self.value(a) for a in s.args]
        if name == "file_open":
            if len(args) == 4:
                self._store(s.args[0], f"R.files.open({args[1]}, text_of({args[2]}), {args[3]})", s.pos)
            else:
                self.line(f"R.open({args[0]}, {args[1]}, {args[2]}, {s.pos})")
        elif name == "file_close":
            self.line(f"R.files.close({args[0]})")
        elif name == "deallocate":
            self._store(s.args[0], "None", s.pos)
        elif name == "read":
            self._store(s.args[1], f"R.read_item({args[0]}, {s.pos})", s.pos)
        elif name == "write":
            self.line(f"R.write_item({args[0]}, {args[1]}, {s.args[1].type is STRING}, {s.pos})")
        else:
            self.line("pass")
