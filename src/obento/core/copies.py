"""Which of a hand-in's files count: copies that lie beside what is handed in, and units that stand in several files."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field

from obento.core.source import SourceFile

Key = tuple[str, str]
"""What a piece of text defines: its kind (unit, architecture, package, body, configuration, primitive) and its name in
small letters."""

_FOLDER = re.compile(
    r"(__.*|.*(~|\.bak|\.old|\.orig|\.cache)"
    r"|(old|older|bak|backups?|history|previous|archived?|attic|autosaves?|recovered|te?mp|trash|cache)([ _-].*)?)",
    re.IGNORECASE,
)
_STEM = re.compile(
    r"((copy|kopie|copia|copie) (of|von|de|di) .+|.+(["
    r" _.-](old|bak|backup|orig|original|copy|kopie|copia|copie)\d*|\((copy|old|backup)\)|~))",
    re.IGNORECASE,
)


def looks_like_copy(path: str, is_proper: bool, text: str) -> bool:
    """Whether a file looks like an older state or a copy of another one: by its ending, its name, or the folder that it
    lies in.

    `is_proper` says that its ending is one of a language. A file that is named as a unit in it is none: `shift_copy.v`
    with a module `shift_copy` is what it says."""
    if not is_proper:
        return True
    *folders, name = path.split("/")
    if folders and not folders[0]:
        folders = []  # a path from the root: somebody asked for this very file, wherever it lies
    if any(_FOLDER.fullmatch(f) for f in folders):
        return True
    stem = name.rpartition(".")[0]
    return _STEM.fullmatch(stem) is not None and not re.search(
        rf"\b(module|entity|wiring)\s+{re.escape(stem)}\b", text, re.IGNORECASE
    )


@dataclass(frozen=True, slots=True)
class Piece:
    """A module, entity, architecture, ... and the text that it is; `variant` is the name of an architecture."""

    key: Key
    file: SourceFile
    text: str
    start: int
    variant: str = ""


@dataclass(slots=True)
class Choice:
    """Which pieces count.

    `passed_over` are pieces by where they start; `open` are names that stand differently in several files, with the
    files; `open_architectures` entities whose architectures stand in several files under different names; `last` the
    file whose architecture of an entity a person has chosen."""

    passed_over: set[int] = field(default_factory=set)
    open: dict[str, list[str]] = field(default_factory=dict)
    open_architectures: dict[str, list[str]] = field(default_factory=dict)
    last: dict[str, SourceFile] = field(default_factory=dict)


def choose(
    pieces: Iterable[Piece], copies: set[str], chosen: Mapping[str, str], same: Callable[[Piece, Piece], None]
) -> Choice:
    """Choose among pieces that define the same.

    What stands in `copies` (paths) counts only where nothing else defines it. `chosen` are files that a person has
    chosen, by unit; what lies beside one of them goes with it. `same` hears of pieces that are word for word the same
    as another one."""
    choice = Choice()
    groups: dict[Key, list[Piece]] = {}
    for piece in pieces:
        groups.setdefault(piece.key, []).append(piece)
    for key, group in groups.items():
        first_hand = [p for p in group if p.file.name not in copies]
        kept = first_hand or group
        choice.passed_over |= {p.start for p in group} - {p.start for p in kept}
        if key[0] == "architecture":
            _among_architectures(key[1], kept, chosen, same, choice)
        else:
            _among(key[1], kept, chosen, same, choice)
    return choice


def _among(
    name: str, pieces: Sequence[Piece], chosen: Mapping[str, str], same: Callable[[Piece, Piece], None], choice: Choice
) -> None:
    files = {p.file.name: p.file for p in pieces}
    if len(files) < 2:
        return  # twice in one file is a mistake of its own, told by whoever reads it
    preferred = _preferred(name, list(files), chosen)
    first = next(p for p in pieces if preferred in (None, p.file.name))
    different = [p for p in pieces if p.text != first.text]
    if preferred is None and different:
        choice.open[name] = list(files)
    for p in pieces:
        if p.file is not first.file:
            choice.passed_over.add(p.start)
            if p.text == first.text and preferred is None:
                same(p, first)


def _among_architectures(
    entity: str,
    pieces: Sequence[Piece],
    chosen: Mapping[str, str],
    same: Callable[[Piece, Piece], None],
    choice: Choice,
) -> None:
    for variant in dict.fromkeys(p.variant for p in pieces):
        _among(entity, [p for p in pieces if p.variant == variant], chosen, same, choice)
    files = {p.file.name: p.file for p in pieces if p.start not in choice.passed_over}
    if len(files) < 2 or entity in choice.open:
        return
    preferred = _preferred(entity, list(files), chosen)
    if preferred is None:
        choice.open_architectures[entity] = list(files)
    else:
        choice.last[entity] = files[preferred]


def _preferred(name: str, files: Sequence[str], chosen: Mapping[str, str]) -> str | None:
    """The file that a person has chosen for a unit, or the only one in a folder of chosen files."""
    own = next((path for unit, path in chosen.items() if unit.lower() == name and path in files), None)
    if own is not None:
        return own
    folders = {path.rpartition("/")[0] for path in chosen.values()}
    beside = [f for f in files if f.rpartition("/")[0] in folders]
    return beside[0] if len(beside) == 1 else None
