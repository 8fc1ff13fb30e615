"""Whose hand-in is it, what may come out of a zip, and class lists."""

from __future__ import annotations

import io
import zipfile

import pytest

from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits
from obento.export.tables import neutral
from obento.intake.archive import ArchiveError, ArchiveLimits, open_inner, read_zip, safe_path
from obento.intake.batch import split_children
from obento.intake.names import RosterName, match_students
from obento.intake.roster import RosterError, read_roster

ROSTER = [
    RosterName(1, "04107", "Ilse Varga"),
    RosterName(2, "04120", "Tomo Arakida"),
    RosterName(3, "s77", "Nadia Brenn"),
    RosterName(4, "4", "Bram Okafor"),
    RosterName(5, "5", "Ilse Roy"),
]


@pytest.mark.parametrize(
    ("label", "sure"),
    [
        ("04107", (1,)), ("lab1-04120-final", (2,)), ("Varga_Ilse", (1,)), ("IlseVarga_lock", (1,)),
        ("arakida", (2,)), ("S77 (2)", (3,)),
        ("brenn_okafor", (3, 4)), ("04107 04120", (1, 2)), ("104107", ()), ("ilse", ()), ("lock stuff", ()),
    ],
)  # fmt: skip
def test_labels_find_their_students(label: str, sure: tuple[int, ...]) -> None:
    assert match_students(label, ROSTER).sure == sure


def test_a_doubtful_label_is_proposed_not_settled() -> None:
    assert set(match_students("ilse", ROSTER).likely) == {1, 5}


def zipped(**files: bytes) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in files.items():
            archive.writestr(name, data)
    return out.getvalue()


@pytest.mark.parametrize("name", ["../a", "/etc/passwd", "a/../../b", "C:\\x", "..\\x", "", "a\0b"])
def test_paths_that_lead_out_are_refused(name: str) -> None:
    assert safe_path(name) is None


def test_bounds_of_a_zip() -> None:
    with pytest.raises(ArchiveError, match="no zip"):
        read_zip(b"PK\x03\x04 nonsense")
    with pytest.raises(ArchiveError, match="3 files"):
        read_zip(zipped(a=b"", b=b"", c=b""), ArchiveLimits(files=2))
    with pytest.raises(ArchiveError, match="unpacks to more"):
        read_zip(zipped(a=b"12345", b=b"12345"), ArchiveLimits(total_bytes=8))
    assert read_zip(zipped(a=b"x" * 1_000_000)).left_out == ["a: unpacks to 1000000 bytes, more than can be taken"]
    nested = zipped(**{"one.zip": zipped(**{"two.zip": zipped(a=b"1"), "b.v": b"2"})})
    inner = open_inner(read_zip(nested).files)
    assert [(f.path, f.refused) for f in inner.files] == [("one/two.zip", "a zip in a zip in a zip"), ("one/b.v", "")]
    assert inner.left_out == ["one/two.zip: a zip in a zip in a zip"]


def test_children_of_a_drop() -> None:
    files = [HandinFile(p, b"") for p in ("all/a/x.v", "all/b.v", "all/c.v", "all/c.wiring")]
    assert sorted(split_children(files)) == ["a", "b", "c.v", "c.wiring"]


def test_class_lists_keep_what_is_given() -> None:
    rows = read_roster(
        "Number;First name;Last name;E-mail;Note\r\n007;Åse;Lind;a@x.example;=1+1\r\n".encode("utf-8-sig")
    )
    assert (rows[0].number, rows[0].name, rows[0].email, rows[0].given["Note"]) == (
        "007",
        "Åse Lind",
        "a@x.example",
        "=1+1",
    )
    for bad, match in (
        (b"a,b\n1,2\n", "line 1"),
        (b"number,name\n1,A\n1,B\n", "line 3"),
        (b"number,name\n", "no rows"),
        (b"\0\1", "no text"),
    ):
        with pytest.raises(RosterError, match=match):
            read_roster(bad)


def test_cells_that_a_spreadsheet_would_run_are_made_harmless() -> None:
    assert [neutral(x) for x in ("=1+1", "+cmd", "-2", "@x", "\tx", "plain", None)] == [
        "'=1+1",
        "'+cmd",
        "-2",
        "'@x",
        "'\tx",
        "plain",
        "",
    ]


def test_what_is_not_taken_in_still_is_a_hand_in() -> None:
    """A student whose only file is damaged or too large does not vanish from the class."""
    drop = read_zip(
        zipped(**{"ann/a.v": b"module a; endmodule", "bo/b.v": b"y" * 5_000_000, "cy/c.zip": b"PK\x03\x04 nonsense"})
    )
    children = split_children(open_inner(drop.files).files)
    assert list(children) == ["ann", "bo", "cy"]
    (big,), (broken,) = children["bo"], children["cy"]
    assert big.data == b"" and "more than can be taken" in big.refused and "pack it again" in broken.refused
    reading = read_handin([big], Limits())
    assert not reading.empty
    assert [(m.severity, m.code, m.text) for m in reading.messages()] == [
        ("error", "not-taken", f"b.v was not taken in: {big.refused}")
    ]
    beside = read_handin([HandinFile("a.v", b"module a(input x, output y); assign y = x; endmodule"), big], Limits())
    assert [(m.severity, m.code) for m in beside.messages()] == [("warning", "not-taken")]  # the design itself is there
