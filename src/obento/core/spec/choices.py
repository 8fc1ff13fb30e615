"""Which cases there are, and what is asked beside them: groups, names, rules, marks."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from obento.core.spec.model import (
    Marks,
    RandomCases,
    Reset,
    Row,
    Rules,
    SpecPort,
)
from obento.core.spec.toml_reader import RULES, Reader, section_of, strings_of
from obento.core.suggest import did_you_mean

_MOST_EXHAUSTIVE = 16


def which_cases(
    cases: Mapping[str, Any], inputs: tuple[SpecPort, ...], listed: tuple[Row, ...], is_clocked: bool, reader: Reader
) -> tuple[bool, bool, RandomCases | None]:
    """Whether all cases are wanted, whether corners, and how many made at random; errors are reported."""
    bits = sum(p.width for p in inputs)
    corners = cases.get("corners", False)
    if not isinstance(corners, bool):
        reader.error("cases", "corners", "bad-value", "`corners` is true or false")
        corners = False
    random = None
    given = cases.get("random")
    if given is not None:
        count, seed = (given.get("count"), given.get("seed", 1)) if isinstance(given, dict) else (given, 1)
        if (
            not isinstance(count, int)
            or not isinstance(seed, int)
            or isinstance(count, bool)
            or not 1 <= count <= 1 << 20
        ):
            reader.error(
                "cases",
                "random",
                "bad-value",
                "`random` needs a count from 1 to 1048576",
                "random = { count = 2000, seed = 7 }",
            )
        else:
            random = RandomCases(count, seed)
    if is_clocked:
        return False, False, random
    others = bool(listed) or corners or random is not None
    everything = cases.get("all", not others)
    if not isinstance(everything, bool):
        reader.error("cases", "all", "bad-value", "`all` is true or false")
        everything = False
    if everything and bits > _MOST_EXHAUSTIVE:
        reader.error(
            "cases",
            "all",
            "too-many-cases",
            f"{bits} input bits have more combinations than can be run (at most {_MOST_EXHAUSTIVE} bits)",
            "give listed, corners or random cases in [cases]",
        )
    if not everything and not others:
        reader.error("cases", "all", "no-cases", "this spec has no cases")
    return everything, corners, random


def is_without_reset(cases: Mapping[str, Any], reset: Reset | None, function: object, reader: Reader) -> bool:
    """Whether sequences that are made should also show what happens when nobody resets."""
    wanted = cases.get("without_reset", False)
    if not isinstance(wanted, bool):
        reader.error("cases", "without_reset", "bad-value", "`without_reset` is true or false")
    elif wanted and (reset is None or function is None):
        reader.error(
            "cases",
            "without_reset",
            "no-reset",
            "`without_reset` needs a [reset] and a `function` table to make sequences from",
        )
    return wanted is True


def read_groups(cases: Mapping[str, Any], reader: Reader) -> dict[str, tuple[str, int]]:
    """The conditions of [cases] groups, with their positions."""
    groups = cases.get("groups", {})
    if not isinstance(groups, dict) or not all(isinstance(v, str) for v in groups.values()):
        reader.error(
            "cases", "groups", "bad-value", "`groups` gives each group a condition", 'groups = { raise = "op == 2" }'
        )
        return {}
    return {name: (text, reader.text("cases", "groups", text)) for name, text in groups.items()}


def read_aliases(match: Mapping[str, Any], known: set[str], reader: Reader) -> dict[str, tuple[str, ...]]:
    """Other names that hand-ins may use for ours."""
    aliases = match.get("aliases", {})
    if not isinstance(aliases, dict):
        reader.error(
            "match", "aliases", "bad-value", "`aliases` gives lists of names", 'aliases = { level_eq = ["leq"] }'
        )
        return {}
    out: dict[str, tuple[str, ...]] = {}
    for name, others in aliases.items():
        if name not in known:
            reader.error(
                "match", "aliases", "unknown-port", f"`{name}` is no port of this spec", did_you_mean(name, known)
            )
        out[name] = (others,) if isinstance(others, str) else tuple(str(o) for o in others)
    return out


def read_rules(data: Mapping[str, Any], reader: Reader) -> Rules:
    """[rules]: how a hand-in may be built."""
    rules = section_of(data, "rules", reader)
    most: dict[str, int | None] = {}
    for name in ("max_gates", "max_levels"):
        most[name] = rules.get(name)
        if most[name] is not None and (
            not isinstance(most[name], int) or isinstance(most[name], bool) or rules[name] < 0
        ):
            reader.error("rules", name, "bad-value", f"`{name}` is a whole number")
            most[name] = None
    behaviour = rules.get("behaviour", True)
    if not isinstance(behaviour, bool):
        reader.error("rules", "behaviour", "bad-value", "`behaviour` is true or false")
    only = strings_of(rules, "rules", "only_gates", reader)
    return Rules(
        strings_of(rules, "rules", "languages", reader), only, most["max_gates"], most["max_levels"], bool(behaviour)
    )


def read_marks(data: Mapping[str, Any], reader: Reader) -> Marks:
    """[marks]: how many there are, for what, and what broken rules cost."""
    marks = section_of(data, "marks", reader)
    total = marks.get("total", 10)
    by = marks.get("by", "cases")
    weights = marks.get("weights", {})
    if isinstance(total, bool) or not isinstance(total, int | float) or not 0 < total <= 10_000:
        reader.error("marks", "total", "bad-value", "`total` is a number above 0")
        total = 10
    if by not in ("cases", "groups", "all"):
        reader.error("marks", "by", "bad-value", "`by` is cases, groups or all")
        by = "cases"
    if not isinstance(weights, dict) or not all(isinstance(w, int | float) and w >= 0 for w in weights.values()):
        reader.error("marks", "weights", "bad-value", "`weights` gives each group a number")
        weights = {}
    costs = marks.get("rules", {})
    if not isinstance(costs, dict) or not all(
        isinstance(w, int | float) and not isinstance(w, bool) and w >= 0 for w in costs.values()
    ):
        reader.error(
            "marks", "rules", "bad-value", "`rules` gives rules the points that breaking them costs: { only_gates = 3 }"
        )
        costs = {}
    for name in costs.keys() - set(RULES):
        reader.error(
            "marks",
            "rules",
            "unknown-name",
            f"there is no rule `{name}`",
            did_you_mean(name, RULES) or f"rules are {', '.join(RULES)}",
        )
    for name in costs.keys() & set(RULES) - set(data.get("rules") or ()):
        reader.error(
            "marks",
            "rules",
            "unknown-name",
            f"the rule `{name}` is not set, so that nobody can break it",
            "set it under [rules]",
        )
    return Marks(float(total), by, {k: float(v) for k, v in weights.items()}, {k: float(v) for k, v in costs.items()})
