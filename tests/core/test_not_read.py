"""What is not read of SystemVerilog is named by its word, in one message, with nothing that follows from it."""

from __future__ import annotations

import pytest

from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits

ENDS = "\n  assign y = a;\nendmodule\n"
MODULE = "module m(input logic a, output logic y);\n  {}" + ENDS

TEXTS = [
    ("class", MODULE.format("class c;\n    int x;\n  endclass\n  c o;")),
    ("program", "program p;\n  initial $display(1);\nendprogram\n" + MODULE.format("")),
    ("covergroup", MODULE.format("covergroup g @(posedge a);\n    coverpoint a;\n  endgroup")),
    ("clocking", MODULE.format("clocking cb @(posedge a);\n    input y;\n  endclocking")),
    ("property", MODULE.format("assert property (@(posedge a) y |-> a);")),
    ("randcase", MODULE.format("initial randcase 1: ; 2: ; endcase")),
]


@pytest.mark.parametrize(("word", "text"), TEXTS, ids=[word for word, _ in TEXTS])
def test_one_message_names_the_word(word: str, text: str) -> None:
    errors = [m for m in read_handin([HandinFile("m.sv", text.encode())], Limits()).messages() if m.severity == "error"]
    assert [m.text for m in errors] == [f"`{word}` is not read by this version"], errors
    (message,) = errors
    assert text.split("\n")[message.line - 1][message.column - 1 :].startswith(word) and message.hint


@pytest.mark.parametrize(
    "text",
    [
        MODULE.format("wire w =;"),
        MODULE.format("logic struct_like = 1;\n  wire w = (a;"),
    ],
)
def test_other_mistakes_stay_what_they_are(text: str) -> None:
    errors = [m for m in read_handin([HandinFile("m.sv", text.encode())], Limits()).messages() if m.severity == "error"]
    assert errors and "is not read by this version" not in errors[0].text


def test_in_a_v_file_they_are_names() -> None:
    text = "module m(input a, output y);\n  wire string = a, let = string;\n  assign y = let;\nendmodule\n"
    reading = read_handin([HandinFile("m.v", text.encode())], Limits())
    assert not reading.collector.errors, reading.messages()


def test_a_file_asked_for_by_its_whole_path_is_no_copy() -> None:
    text = MODULE.format("").encode()
    assert not read_handin([HandinFile("/tmp/old/m.sv", text)], Limits()).messages()
    assert read_handin([HandinFile("old/m.sv", text)], Limits()).messages()
