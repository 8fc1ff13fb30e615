"""The text that every new spec begins with."""

from __future__ import annotations

STARTER_BODY = """unit   = "my_unit"               # the module, entity or wiring list to be handed in

[ports]
in  = "shut locked request"
out = "green hold"

[expect]
equations = '''
green = request & shut & locked
hold  = request & !green
'''

[marks]
total = 10
by = "cases"

[students]
see = "first-failing"
"""
"""What every new spec says below its title."""


def starter_spec(title: str) -> str:
    """The text a new task begins with."""
    return f'obento = "spec/1"\ntitle  = {_toml(title)}\n{STARTER_BODY}'


def _toml(text: str) -> str:
    return '"' + text.replace("\\", "\\\\").replace('"', '\\"').replace("\n", " ") + '"'
