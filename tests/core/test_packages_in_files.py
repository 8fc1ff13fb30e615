"""Packages and declarations of a hand-in in files of their own (IEEE 1800-2017 clauses 3.12.1 and 26)."""

from __future__ import annotations

from obento.core.check.check import check_handin, open_spec
from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits

SPEC = b"""obento = "spec/1"
title = "orders"
unit = "m"

[ports]
in  = "a[2]"
out = "y[2]"

[expect]
formulas = '''
y = a + 1
'''
"""
TYPES = """package p;
  typedef logic [1:0] n_t;
  function automatic n_t more(n_t k); return k + 1; endfunction
endpackage
"""
UNIT = "module m import p::*; (input n_t a, output n_t y);\n  assign y = more(a);\nendmodule\n"


def checked(**files: str) -> tuple[str, list[str]]:
    """Status and messages of a hand-in of these files."""
    spec = SPEC.replace(b"formulas", b"equations")
    opened = open_spec("spec.toml", spec, {})
    assert opened.expectation is not None, [str(m) for m in opened.messages]
    result = check_handin(opened.expectation, [HandinFile(f"{n}.sv", t.encode()) for n, t in files.items()])
    return result.status, [f"{m.file}:{m.line} {m.severity} {m.code}" for m in result.messages]


def test_a_package_may_lie_in_another_file_whatever_its_name() -> None:
    assert checked(zz=TYPES, m=UNIT)[0] == "checked"
    assert checked(aa=TYPES, m=UNIT)[0] == "checked"


def test_what_is_wrong_in_it_is_told_and_nothing_that_follows() -> None:
    wrong = TYPES.replace("[1:0]", "[1:W]")
    assert checked(zz=wrong, m=UNIT) == ("unreadable", ["zz.sv:2 error undeclared"])


def test_a_statement_that_cannot_be_read_makes_it_unreadable() -> None:
    status, messages = checked(zz=TYPES.replace("return k + 1;", "return k + ;"), m=UNIT)
    assert status == "unreadable" and messages[0].startswith("zz.sv:3 error")


def test_two_packages_of_one_name_that_differ_are_told() -> None:
    status, messages = checked(one=TYPES, two=TYPES.replace("k + 1", "k"), m=UNIT)
    assert status in ("unreadable", "no_unit") and any("duplicate" in m or "unit-twice" in m for m in messages)


def test_the_same_package_twice_is_one() -> None:
    assert checked(one=TYPES, two=TYPES, m=UNIT)[0] == "checked"


def test_declarations_outside_of_everything_hold_in_all_files() -> None:
    outside = TYPES.replace("package p;\n", "").replace("endpackage\n", "")
    assert checked(zz=outside, m=UNIT.replace(" import p::*;", ""))[0] == "checked"


def test_an_interface_is_no_unit_to_be_checked() -> None:
    text = """
interface b (input logic c);
endinterface
module m (input logic c, output logic y);
  b u (.c);
  assign y = u.c;
endmodule
"""
    reading = read_handin([HandinFile("a.sv", text.encode())], Limits())
    assert [u.name for u in reading.units.values() if u.has_ports] == ["m"]
    assert reading.elaborate("m") is not None
