"""Process bodies as Python source, for the timeline.

The source is plain three-address code over the functions of `values`: one temporary for each node of an expression, so
that no nesting in a hand-in can exceed what Python's own compiler takes. Words of signals live in the list `S`.
"""

from __future__ import annotations

from obento.core import values
from obento.core.ir import evaluate
from obento.core.ir.nodes import (
    Assign,
    Binary,
    Block,
    Call,
    Case,
    Concat,
    Const,
    Expr,
    Extend,
    Function,
    If,
    Loop,
    Mux,
    Pick,
    Power,
    Ref,
    Shift,
    Slice,
    Stmt,
    Target,
    Tristate,
    Unary,
)


class Emitter:
    """Writes one Python function for each process body and each function called from one."""

    def __init__(self) -> None:
        self.lines: list[str] = []
        self._indent = 1
        self._temps = 0
        self._functions: dict[int, str] = {}
        self._queue: list[tuple[Function, str]] = []

    def process(self, name: str, body: Stmt) -> None:
        self._define(name, body)
        while self._queue:
            function, function_name = self._queue.pop()
            self._define(function_name, function.body)

    def source(self) -> str:
        return "\n".join(self.lines) + "\n"

    def _define(self, name: str, body: Stmt | None) -> None:
        self._indent = 0
        self._put(f"def {name}(K):")
        self._indent = 1
        self._put("S = K.words")
        self._statement(body)
        self._put("return")

    def _put(self, line: str) -> None:
        self.lines.append("    " * self._indent + line)

    def _temp(self, text: str) -> str:
        self._temps += 1
        name = f"t{self._temps}"
        self._put(f"{name} = {text}")
        return name

    def _expr(self, e: Expr) -> str:
        match e:
            case Const():
                return f"({e.one}, {e.zero})"
            case Ref():
                return self._temp(f"S[{e.signal.id}]")
            case Unary():
                return self._temp(f"v_{e.op}({self._expr(e.a)}, {e.a.width})")
            case Binary():
                a, b = self._expr(e.a), self._expr(e.b)
                return self._temp(f"v_{e.op}({a}, {b}, {e.a.width})")
            case Power():
                a, b = self._expr(e.a), self._expr(e.b)
                return self._temp(f"power({a}, {e.width}, {b}, {e.b.width}, {e.a_signed}, {e.b_signed})")
            case Shift():
                a, b = self._expr(e.a), self._expr(e.b)
                return self._temp(f"shift({e.op!r}, {a}, {e.width}, {b}, {e.b.width})")
            case Mux():
                return self._mux(e)
            case Concat():
                return self._concat(e)
            case Slice():
                return self._temp(f"select({self._expr(e.a)}, {e.a.width}, {e.low}, {e.width})")
            case Pick():
                a, i = self._expr(e.a), self._expr(e.index)
                rest = f"{e.index.width}, {e.index_signed}, {e.base}, {e.step}, {e.width}"
                return self._temp(f"pick({a}, {e.a.width}, {i}, {rest})")
            case Extend():
                return self._temp(f"extend({self._expr(e.a)}, {e.a.width}, {e.width}, {e.signed})")
            case Tristate():
                enable, a = self._expr(e.enable), self._expr(e.a)
                return self._temp(f"tristate({enable}, {a}, {e.width})")
            case Call():
                return self._call(e)
        raise AssertionError(f"no rule for {type(e).__name__}")

    def _mux(self, e: Mux) -> str:
        cond = self._temp(f"v_ror({self._expr(e.cond)}, {e.cond.width})")
        a, b = self._expr(e.a), self._expr(e.b)
        return self._temp(f"{a} if {cond} == ONE1 else ({b} if {cond} == ZERO1 else merge({a}, {b}))")

    def _concat(self, e: Concat) -> str:
        parts = [(self._expr(p), p.width) for p in e.parts]
        low = e.width
        one, zero = [], []
        for name, width in parts:
            low -= width
            one.append(f"{name}[0] << {low}")
            zero.append(f"{name}[1] << {low}")
        return self._temp(f"({' | '.join(one)}, {' | '.join(zero)})")

    def _call(self, e: Call) -> str:
        f = e.function
        name = self._functions.get(id(f))
        if name is None:
            name = f"f{len(self._functions)}"
            self._functions[id(f)] = name
            self._queue.append((f, name))
        args = [self._expr(a) for a in e.args]
        for param, arg in zip(f.params, args, strict=True):
            self._put(f"S[{param.id}] = {arg}")
        self._put(f"{name}(K)")
        return self._temp(f"S[{f.result.id}]")

    def _statement(self, s: Stmt | None) -> None:
        match s:
            case None:
                self._put("pass")
            case Block():
                for inner in s.body:
                    self._statement(inner)
            case Assign():
                self._assign(s)
            case If():
                self._if(s)
            case Case():
                self._case(s)
            case Loop():
                self._loop(s)
            case _:
                raise AssertionError(f"no rule for {type(s).__name__}")

    def _loop(self, s: Loop) -> None:
        rounds = self._temp("0")
        self._put("while True:")
        self._indent += 1
        cond = self._expr(s.cond)
        self._put(f"if v_ror({cond}, {s.cond.width}) != ONE1: break")
        self._put(f"{rounds} += 1")
        self._put(f"if {rounds} > K.limits.loop_rounds: K.loop_too_long({s.position})")
        self._statement(s.body)
        self._indent -= 1

    # Branches are written flat, with a flag for "an earlier one was taken": a long chain of `else if` or of case arms
    # must not indent deeper than Python's compiler allows.

    def _if(self, s: If) -> None:
        done = self._temp("False")
        link: Stmt | None = s
        while isinstance(link, If):
            self._put(f"if not {done}:")
            self._indent += 1
            cond = self._expr(link.cond)
            self._put(f"if v_ror({cond}, {link.cond.width}) == ONE1:")
            self._branch(done, link.then)
            self._indent -= 1
            link = link.other
        if link is not None:
            self._put(f"if not {done}:")
            self._branch(done, link)

    def _branch(self, done: str, body: Stmt | None) -> None:
        self._indent += 1
        self._put(f"{done} = True")
        self._statement(body)
        self._indent -= 1

    def _case(self, s: Case) -> None:
        subject = self._temp(self._expr(s.subject))
        done = self._temp("False")
        for arm in s.arms:
            self._put(f"if not {done}:")
            self._indent += 1
            tests = [f"v_{s.match}({subject}, {self._expr(label)}, {s.subject.width}) == ONE1" for label in arm.labels]
            self._put(f"if {' or '.join(tests)}:")
            self._branch(done, arm.body)
            self._indent -= 1
        if s.default is not None:
            self._put(f"if not {done}:")
            self._branch(done, s.default)

    def _assign(self, s: Assign) -> None:
        value = self._expr(s.value)
        low = s.value.width
        for target in s.targets:
            low -= target.width
            part = value if len(s.targets) == 1 else self._temp(f"select({value}, 0, {low}, {target.width})")
            self._write(target, part, s.blocking)

    def _write(self, t: Target, value: str, blocking: bool) -> None:
        low = str(t.low)
        if t.index is not None:
            index = self._expr(t.index)
            inside = t.window and t.window - t.width
            rest = f"{t.index.width}, {t.index_signed}, {t.base}, {t.step}, {inside if t.window else None}"
            low = self._temp(f"{t.low} + K.offset({index}, {rest})")
        verb = "write" if blocking else "later"
        whole = t.index is None and t.low == 0 and t.width == t.signal.width
        if whole and blocking:
            self._put(f"if S[{t.signal.id}] != {value}: K.change({t.signal.id}, {value})")
        else:
            self._put(f"K.{verb}({t.signal.id}, {low}, {t.width}, {value})")


def namespace() -> dict[str, object]:
    """The names that emitted source refers to."""
    names: dict[str, object] = {f"v_{op}": f for op, f in values.UNARY.items()}
    names |= {f"v_{op}": f for op, f in values.BINARY.items()}
    for name in ("power", "shift", "select", "extend", "merge", "ONE1", "ZERO1"):
        names[name] = getattr(values, name)
    names["pick"] = evaluate.pick
    names["tristate"] = evaluate.tristate
    return names
