"""Strings in expressions (IEEE 1800-2017 clause 6.16)."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.model.scope import FunctionEntry
from obento.core.verilog.syntax import ast

_GIVE_TEXT = {"toupper": "upper", "tolower": "lower", "substr": "substr"}
_GIVE_WORDS = frozenset(["len", "getc", "compare", "icompare", "atoi", "atohex", "atooct", "atobin"])
_COUNTS = {"toupper": 0, "tolower": 0, "substr": 2, "len": 0, "getc": 1, "compare": 1, "icompare": 1}
SETTERS = frozenset(["putc", "itoa", "hextoa", "octtoa", "bintoa", "realtoa"])
"""Methods that are statements."""


class TextLowering:
    """The expressions whose value is a string, in one scope."""

    def __init__(self, x: Expressions) -> None:
        self._x = x
        self._any = x.scope.texts
        self._known: dict[int, bool] = {}

    def is_text(self, e: ast.Expr) -> bool:
        """Whether the value of an expression is a string; a literal alone may be digits as well, and is none."""
        if not self._any or isinstance(e, ast.Number | ast.String):
            return False
        known = self._known.get(id(e))
        if known is None:
            known = self._known[id(e)] = self._is_text(e)
            self._x.alive.append(e)
        return known

    def _is_text(self, e: ast.Expr) -> bool:
        x = self._x
        match e:
            case ast.Name() | ast.Dotted() | ast.Index() | ast.Member():
                if isinstance(e, ast.Dotted) and (self.method(e) or ("", ""))[1] in (*_GIVE_TEXT, *_GIVE_WORDS):
                    return (self.method(e) or ("", ""))[1] in _GIVE_TEXT
                shape = x.shape_of(e)
                return shape is not None and shape.type.is_text and not shape.dims
            case ast.Concat():
                return any(self.is_text(p) for p in e.parts)
            case ast.Repeat():
                return any(self.is_text(p) for p in e.parts)
            case ast.Conditional():
                return self.is_text(e.a) or self.is_text(e.b)
            case ast.Cast():
                return e.to == "string"
            case ast.Call():
                if e.name.startswith("$"):
                    return e.name == "$sformatf"
                method = self.method(e)
                if method is not None:
                    return method[1] in _GIVE_TEXT
                shape = x.shape_of(e) if isinstance(x.find_callable(e), FunctionEntry) or e.path is not None else None
                return shape is not None and shape.type.is_text
        return False

    def method(self, e: ast.Call | ast.TaskCall | ast.Dotted | ast.Member) -> tuple[ast.Expr, str] | None:
        """`s.len()`: the string and the method, where this is one of a string."""
        path = e if isinstance(e, ast.Dotted | ast.Member) else e.path
        names = (*_GIVE_TEXT, *_GIVE_WORDS, *SETTERS)
        if isinstance(path, ast.Member):
            is_asked = path.name in names and self.is_text(path.base)
            return (path.base, path.name) if is_asked else None
        if not self._any or path is None or path.parts[-1] not in names:
            return None
        base = self._x.selects.before_last(path)
        if base is None:
            return None
        shape = self._x.selects.shape(base)
        return (base, path.parts[-1]) if shape.type.is_text and not shape.dims else None

    def lower(self, e: ast.Expr) -> ir.Expr:
        """`e` as a string: a vector gives the letters that its bytes stand for."""
        x = self._x
        if isinstance(e, ast.String):
            return ir.TextConst(64, e.text)
        repeats_letters = isinstance(e, ast.Repeat) and all(isinstance(p, ast.String) for p in e.parts)
        if not repeats_letters and not self.is_text(e):  # as often as a variable says: 1800 clause 11.4.12.2
            return ir.TextOp(64, "digits", [x.self_determined(e)])
        match e:
            case ast.Name() | ast.Dotted() | ast.Index() | ast.Member():
                method = self.method(e) if isinstance(e, ast.Dotted | ast.Member) else None
                if method is not None:
                    return self._asked(*method, [], e)
                return x.digits(e) if self._is_name_of_enum(e) else x.select(e)
            case ast.Concat():
                return ir.TextOp(64, "join", [self.lower(p) for p in e.parts])
            case ast.Repeat():
                inner = ir.TextOp(64, "join", [self.lower(p) for p in e.parts])
                return ir.TextOp(64, "repeat", [x.to_width(e.count, 32), inner])
            case ast.Conditional():
                cond = x.truth(e.cond)
                known = cond if cond.width == 1 else ir.Unary(1, "ror", cond)
                return ir.TextOp(64, "choose", [known, self.lower(e.a), self.lower(e.b)])
            case ast.Cast():
                return self.lower(e.value)
            case ast.Call():
                method = self.method(e)
                if method is not None:
                    return self._asked(*method, e.args, e)
                return x.digits(e) if not e.name.startswith("$") else x.system.lower_real(e)
        raise AssertionError(type(e).__name__)

    def _is_name_of_enum(self, e: ast.Expr) -> bool:
        """Whether this asks a value of an enumeration for its name, and is no member that is called so."""
        return isinstance(e, ast.Dotted) and e.parts[-1] == "name" and not self._x.selects.is_kept(e)

    def asks(self, e: ast.Expr) -> bool:
        """Whether a method of a string gives a number here."""
        is_call = isinstance(e, ast.Call | ast.Dotted)
        method = self.method(e) if is_call else None  # type: ignore[arg-type]
        return method is not None and method[1] in _GIVE_WORDS

    def size(self, e: ast.Expr) -> tuple[int, bool]:
        """Size and sign of what a method gives."""
        method = self.method(e)  # type: ignore[arg-type]
        assert method is not None
        return (8, True) if method[1] == "getc" else (32, True)

    def asked(self, e: ast.Expr) -> ir.Expr:
        """What a method of a string gives as a number."""
        method = self.method(e)  # type: ignore[arg-type]
        assert method is not None
        return self._asked(*method, e.args if isinstance(e, ast.Call) else [], e)

    def _asked(self, base: ast.Expr, method: str, args: list[ast.Expr | None], e: ast.Expr) -> ir.Expr:
        x, given = self._x, [a for a in args if a is not None]
        if len(given) != _COUNTS.get(method, 0):
            raise x.error("arguments", f"`{method}` takes {_COUNTS.get(method, 0)} values, here are {len(given)}", e)
        is_of_texts = method in ("compare", "icompare")
        operands = [self.lower(a) if is_of_texts else x.to_width(a, 32) for a in given]
        if method in _GIVE_TEXT:
            return ir.TextOp(64, _GIVE_TEXT[method], [self.lower(base), *operands])
        return ir.TextValue(8 if method == "getc" else 32, method, [self.lower(base), *operands])

    def relation(self, op: str, e: ast.Binary) -> ir.Expr:
        """A comparison of strings, letter by letter (table 6-9)."""
        x = self._x
        if op not in ("==", "!=", "===", "!==", "<", "<=", ">", ">="):
            raise x.error("string-operator", f"`{op}` is not defined for strings (1800 table 6-9)", e)
        a, b = self.lower(e.a), self.lower(e.b)
        if op in (">", ">="):
            a, b = b, a
        name = {"=": "eq", "!": "ne"}.get(op[0]) or ("lt" if op in ("<", ">") else "le")
        return ir.TextValue(1, name, [a, b])

    def setter(self, base: ast.Expr, method: str, s: ast.TaskCall) -> ir.Expr:
        """What a string is after a method that changes it."""
        x, given = self._x, [a for a in s.args if a is not None]
        wanted = 2 if method == "putc" else 1
        if len(given) != wanted:
            raise x.error("arguments", f"`{method}` takes {wanted} values, here are {len(given)}", s)
        if method == "realtoa":
            return ir.TextOp(64, method, [x.reals.lower(given[0])])
        words = [x.to_width(a, 32) for a in given]
        return ir.TextOp(64, method, [self.lower(base), *words] if method == "putc" else words)
