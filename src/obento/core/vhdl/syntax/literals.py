"""Numbers and bit strings as they are written (IEEE 1076 clauses 15.5 and 15.8)."""

from __future__ import annotations

from obento.core.decimals import from_decimal
from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.syntax.stream import Tokens, TokenStream

_MARKS = {"b": 1, "o": 3, "x": 4}


class Literals(TokenStream):
    """The part of the parser that reads what literals stand for."""

    def __init__(self, tokens: Tokens, collector: Collector, limits: Limits) -> None:
        super().__init__(tokens, collector, limits)
        self.limits = limits

    def number_value(self, text: str, start: int) -> int | float:
        """The number of a literal; reported where it is none."""
        clean = text.replace("_", "").lower()
        if "#" in clean:
            base_text, digits, exponent = clean.split("#")
            base = from_decimal(base_text)
            power: int = base ** min(max(from_decimal(exponent[1:]), -400), 400) if exponent else 1
            if not 2 <= base <= 16:
                self.collector.error("bad-number", f"`{text}`: the base must be from 2 to 16", start, start + len(text))
                return 0
            whole, _, fraction = digits.partition(".")
            try:
                value: int | float = int(whole or "0", base)
                if "." in digits:
                    value = value + (int(fraction, base) / base ** len(fraction) if fraction else 0.0)
            except ValueError:
                self.collector.error(
                    "bad-number", f"`{text}` has digits that base {base} does not have", start, start + len(text)
                )
                return 0
            result = value * power
            return int(result) if "." not in digits and result == int(result) else result
        if "." in clean:
            return float(clean)
        if "e" in clean:
            mantissa, exponent = clean.split("e")
            power10 = from_decimal(exponent)
            if power10 < 0:
                self.collector.error(
                    "bad-number",
                    f"`{text}`: a whole number has no negative exponent",
                    start,
                    start + len(text),
                    "write 1.0e-3",
                )
                return 0
            return from_decimal(mantissa) * int(10 ** min(power10, 400))
        return from_decimal(clean)

    def bit_string(self, text: str, start: int) -> str:
        """The characters that a bit string stands for (1076-2008 clause 15.8)."""
        mark, _, digits = text.rstrip('"').partition('"')
        digits = digits.replace("_", "")
        length_text = mark.rstrip("usbodxUSBODX")
        mark = mark[len(length_text) :].lower()
        signed, base = mark.startswith("s"), mark[-1]
        bits = ""
        if base == "d":
            if not digits.isdigit():
                self.collector.error("bad-bits", f"`{text}` takes decimal digits only", start, start + len(text))
                return ""
            bits = f"{from_decimal(digits):b}"
        else:
            size = _MARKS[base]
            for c in digits:
                if c.isdigit() or c.lower() in "abcdef":
                    value = int(c, 16)
                    if value >> size:
                        self.collector.error("bad-bits", f"`{c}` is no digit in `{text}`", start, start + len(text))
                        return ""
                    bits += f"{value:0{size}b}"
                else:
                    bits += c * size
        if length_text:
            length = min(from_decimal(length_text), self.limits.vector_bits)
            fill = bits[0] if signed and bits else "0"
            if len(bits) > length:
                lost = bits[: len(bits) - length]
                if any(c != (bits[len(bits) - length] if signed else "0") for c in lost):
                    self.collector.error(
                        "bad-bits", f"`{text}` does not fit into {length} bits", start, start + len(text)
                    )
                bits = bits[len(bits) - length :]
            bits = fill * (length - len(bits)) + bits
        return bits
