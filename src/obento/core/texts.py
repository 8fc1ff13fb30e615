"""What a file's bytes and its text say of it: encoding and language."""

from __future__ import annotations

import re

SUFFIXES = {
    ".v": "verilog",
    ".vh": "verilog",
    ".sv": "verilog",
    ".svh": "verilog",
    ".wiring": "wiring",
    ".vhd": "vhdl",
    ".vhdl": "vhdl",
}
LANGUAGES = {"verilog": "Verilog", "vhdl": "VHDL", "wiring": "a wiring list"}
CLUTTER = re.compile(r"(^|/)(__MACOSX/|\.(?!\.?/)|Thumbs\.db$|desktop\.ini$)")
_VERILOG_TEXT = re.compile(r"^\s*module\s+[A-Za-z_\\][\w$]*[\s\S]*\bendmodule\b", re.MULTILINE)
_VHDL_TEXT = re.compile(r"^\s*(entity\s+\w+\s+is|architecture\s+\w+\s+of\s+\w+\s+is)\b", re.MULTILINE | re.IGNORECASE)
_WIRING_TEXT = re.compile(r"^\s*wiring\s+[A-Za-z_]\w*\s*(//.*)?$", re.MULTILINE)


def decode(data: bytes) -> str | None:
    """Text of a file: UTF-8, UTF-16 with or without its mark, else Latin-1; None when it is binary."""
    for mark, encoding in ((b"\xef\xbb\xbf", "utf-8"), (b"\xff\xfe", "utf-16-le"), (b"\xfe\xff", "utf-16-be")):
        if data.startswith(mark):
            try:
                return data[len(mark) :].decode(encoding)
            except UnicodeDecodeError:
                return None
    head = data[:4096]
    if b"\0" in head:
        for encoding, zeros in (("utf-16-le", head[1::2]), ("utf-16-be", head[0::2])):
            if len(head) >= 4 and zeros.count(0) > 0.8 * len(zeros):
                try:
                    return data.decode(encoding)
                except UnicodeDecodeError:
                    return None
        return None
    try:
        return data.decode("utf-8")
    except UnicodeDecodeError:
        controls = sum(b < 9 or 13 < b < 32 for b in head)
        return None if controls > len(head) // 50 else data.decode("latin-1")


def suffix(path: str) -> str:
    """The ending of a path in small letters, with its dot; empty where there is none."""
    name = path.rpartition("/")[2].lower()
    return name[name.rfind(".") :] if "." in name else ""


def language_of(text: str, declared: str | None) -> str | None:
    """The language of a text: the one that its file's ending declares, unless it is plainly another one; None where
    nothing says."""
    looks_vhdl, looks_verilog = bool(_VHDL_TEXT.search(text)), bool(_VERILOG_TEXT.search(text))
    looks_wiring = bool(_WIRING_TEXT.search(text))
    if looks_vhdl and not looks_verilog:
        return "vhdl"
    if looks_wiring and not looks_verilog:
        return "wiring"
    if looks_verilog and declared != "verilog" and not looks_wiring:
        return "verilog"
    return declared
