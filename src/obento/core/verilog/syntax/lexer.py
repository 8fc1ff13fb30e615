"""Verilog text to tokens (IEEE 1364-2005 clause 3).

Token kinds: `i` identifier, `x` escaped identifier, `k` keyword, `n` number, `r` real, `t` a number with a unit of
time (.sv files), `s` string, `$` system name, `o` operator or punctuation, `d` compiler directive (a back-tick name),
`e` end of input.
"""

from __future__ import annotations

import re
from dataclasses import replace

from obento.core.diagnostics import Collector
from obento.core.limits import LimitReached, Limits
from obento.core.source import SourceFile
from obento.core.syntax.stream import Tokens

KEYWORDS = frozenset(
    """
    always and assign automatic begin buf bufif0 bufif1 case casex casez cell cmos config deassign default
    defparam design disable edge else end endcase endconfig endfunction endgenerate endmodule endprimitive
    endspecify endtable endtask event for force forever fork function generate genvar highz0 highz1 if ifnone
    incdir include initial inout input instance integer join large liblist library localparam macromodule medium
    module nand negedge nmos nor noshowcancelled not notif0 notif1 or output parameter pmos posedge primitive
    pull0 pull1 pulldown pullup pulsestyle_ondetect pulsestyle_onevent rcmos real realtime reg release repeat
    rnmos rpmos rtran rtranif0 rtranif1 scalared showcancelled signed small specify specparam strong0 strong1
    supply0 supply1 table task time tran tranif0 tranif1 tri tri0 tri1 triand trior trireg unsigned use uwire
    vectored wait wand weak0 weak1 while wire wor xnor xor
    """.split()
)
"""Annex B."""

SYSTEM_VERILOG_KEYWORDS = frozenset(
    """
    logic always_comb always_ff always_latch bit unique unique0 priority int byte shortint longint enum typedef
    return break continue do void final struct union packed package endpackage import export interface
    endinterface modport inside foreach var const static type string timeunit timeprecision iff
    """.split()
)
"""Words that .sv files may use as well."""

_TOKEN = re.compile(
    r"""
    [ \t\f\r]*
    (?:(?P<i>[A-Za-z_][A-Za-z0-9_$]*)
  | (?P<alone>[;,)\]}])
  | (?P<newline>\n[ \t\f\r\n]*)
  | (?P<joined>\\\r?\n)
  | (?P<comment>//[^\n]*)
  | (?P<block>/\*.*?\*/)
  | (?P<open_block>/\*)
  | (?P<attribute>\(\*(?!\s*\)).*?\*\))
  | (?P<n>(?:[0-9][0-9_]*)?[ \t]*'[sS]?[bBoOdDhH][ \t]*[0-9a-fA-FxXzZ?_]+)
  | (?P<fill>'[01xXzZ](?![0-9a-zA-Z_]))
  | (?P<t>[0-9][0-9_]*(?:\.[0-9][0-9_]*)?(?:fs|ps|ns|us|ms|s)(?![0-9a-zA-Z_]))
  | (?P<r>[0-9][0-9_]*(?:\.[0-9][0-9_]*(?:[eE][+-]?[0-9]+)?|[eE][+-]?[0-9]+))
  | (?P<d10>[0-9][0-9_]*)
  | (?P<s>"(?:[^"\\\n]|\\(?:\r\n|.))*")
  | (?P<open_string>"[^\n]*)
  | (?P<x>\\[^\s]+)
  | (?P<d>`[A-Za-z_][A-Za-z0-9_$]*)
  | (?P<sys>\$(?:unit(?=::)|[A-Za-z0-9_$]+))
  | (?P<o>``(?!`)|`"
          |<->|>>>=?|<<<=?|===|!==|==\?|!=\?|\*\*|<<=|>>=|<<|>>|<=|>=|==|!=|&&|\|\||~&|~\||~\^|\^~|->>|->|\+:|-:|\+\+|--
          |[-+*/%&|^]=|'\{|'\(|::|[-+*/%&|^~!<>=?:;,.()\[\]{}@\#]|\$(?=\s*[\]:+\-*/]))
  | (?P<none>))
    """,
    re.VERBOSE | re.DOTALL,
)

_TAGS = {
    "i": "i", "alone": "o", "o": "o", "n": "n", "fill": "n", "d10": "n", "t": "t", "r": "r", "d": "d", "sys": "$",
    "x": "x", "s": "s",
}  # fmt: skip
"""The kinds of tokens by the names of the pattern's choices; keywords are told from other words by a list."""

_LOOKALIKES = {"‘": "'", "’": "'", "“": '"', "”": '"', "–": "-", "—": "-", "−": "-", "\u00a0": " ", "；": ";"}


def lex(file: SourceFile, collector: Collector, limits: Limits, system_verilog: bool = False) -> Tokens:
    """All tokens of a file, the end of input last. Characters that cannot be read are reported and skipped."""
    tokens = Tokens()
    kinds, texts, starts, ends, lines = (
        tokens.kinds, tokens.texts, tokens.starts, tokens.ends, tokens.newline_before,
    )  # fmt: skip
    text, base = file.text, file.base
    match = _TOKEN.match
    keywords = KEYWORDS | SYSTEM_VERILOG_KEYWORDS if system_verilog else KEYWORDS
    at = 0
    size, most = len(text), limits.tokens
    newline = False
    while at < size:
        m = match(text, at)
        assert m is not None  # the last of its choices fits everywhere
        kind = m.lastgroup or "none"
        end = m.end()
        tag = _TAGS.get(kind)
        if tag is not None:
            word = m[kind]
            if tag == "i" and word in keywords:
                tag = "k"
            elif tag in "xs":
                word = word[1:] if tag == "x" else word[1:-1]
            kinds.append(tag)
            texts.append(word)
            starts.append(base + m.start(kind))
            ends.append(base + end)
            lines.append(newline)
            newline = False
            if len(texts) > most:
                raise LimitReached("this file has too many words to be read", base + at)
            at = end
            continue
        if kind == "newline":
            newline = True
        elif kind == "joined":
            pass
        elif kind == "none":
            if text.startswith("```", end):
                at = text.find("\n", end)
                at = size if at < 0 else at
                collector.error(
                    "pasted-marks", "these back-ticks mark code in a pasted text", base + end, base + at,
                    "remove this line",
                )  # fmt: skip
            elif end < size:
                _strange_character(text[end], base + end, collector)
                if text[end] in _LOOKALIKES:  # read on as if it were typed right
                    text = text[:end] + _LOOKALIKES[text[end]] + text[end + 1 :]
                    at = tokens.take_back(base + end) - base
                else:
                    at = end + 1
            else:
                at = end
            continue
        elif kind in ("comment", "block", "attribute"):
            newline = newline or "\n" in m[kind]
        elif kind == "open_block":
            collector.error(
                "open-comment", "this comment is never closed", base + m.start(kind), base + end, "close it with `*/`"
            )
            tokens.cut = True
            break
        elif kind == "open_string":
            collector.error(
                "open-string",
                "this string has no closing quote",
                base + m.start(kind),
                base + end,
                'close it with `"` on this line',
            )
            kinds.append("s")
            texts.append(m[kind][1:])
            starts.append(base + m.start(kind))
            ends.append(base + end)
            lines.append(newline)
            newline = False
        at = end
    last = ends[-1] if ends else base
    tokens.append("e", "", last, last, True)
    return tokens


def as_system_verilog(tokens: Tokens) -> Tokens:
    """The same tokens, with the words that only .sv files reserve as keywords."""
    kinds = [
        "k" if kind == "i" and text in SYSTEM_VERILOG_KEYWORDS else kind
        for kind, text in zip(tokens.kinds, tokens.texts, strict=True)
    ]
    return replace(tokens, kinds=kinds)


def _strange_character(character: str, position: int, collector: Collector) -> None:
    if character in _LOOKALIKES:
        collector.error(
            "strange-character",
            f"the character {character} only looks like {_LOOKALIKES[character]!r}",
            position,
            position + 1,
            "it often comes from a word processor; type it again in a text editor",
        )
    elif character == "'":
        collector.error(
            "bad-number",
            "a number's base is missing or unknown after `'`",
            position,
            position + 1,
            "write 4'b1010, 8'hff or 3'd5; one digit is 1'b0",
        )
    else:
        collector.error(
            "strange-character", f"the character {character!r} means nothing in Verilog", position, position + 1
        )
