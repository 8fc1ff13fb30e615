"""What may come out of a zip or folder, within bounds."""

from __future__ import annotations

import io
import os
import stat
import zipfile
from pathlib import Path

import pytest

from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits
from obento.intake.archive import ArchiveError, ArchiveLimits, open_inner, printable, read_folder, read_zip, safe_path
from obento.intake.batch import split_children


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


@pytest.mark.parametrize(
    ("name", "path"),
    [("a/b.v", "a/b.v"), ("a\\b.v", "a/b.v"), ("./a//b", "a/b"), ("ä/ö.v", "ä/ö.v"), ("a..b/c", "a..b/c")],
)
def test_paths_that_stay_where_they_belong(name: str, path: str) -> None:
    assert safe_path(name) == path


def test_names_for_messages_have_no_control_characters_and_an_end() -> None:
    assert printable("a\x1b[31m\nb") == "a\\x1b[31m\\x0ab"
    assert len(printable("x" * 5000)) == 120


def with_entry(name: str, data: bytes, mode: int = 0o644, flags: int = 0) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        entry = zipfile.ZipInfo(name)
        entry.external_attr = mode << 16
        archive.writestr(entry, data)
    packed = bytearray(out.getvalue())
    if flags:  # in the local header (APPNOTE 4.3.7) and in the directory (4.3.12)
        packed[6] |= flags
        packed[packed.rindex(b"PK\x01\x02") + 8] |= flags
    return bytes(packed)


def test_a_link_is_no_file() -> None:
    drop = read_zip(with_entry("link", b"/etc/passwd", stat.S_IFLNK | 0o777))
    assert [(f.path, f.data, f.refused) for f in drop.files] == [("link", b"", "a link, not a file")]


def test_a_locked_file_is_told() -> None:
    assert read_zip(with_entry("a.v", b"text", flags=1)).left_out == ["a.v: locked with a password"]


def test_a_damaged_file_is_told_and_the_others_are_taken() -> None:
    data = bytearray(zipped(**{"a.v": b"hello " * 100, "b.v": b"fine"}))
    data[36] ^= 0xFF  # within the packed bytes, after a header of 30 bytes and the name (APPNOTE 4.3.7)
    drop = read_zip(bytes(data))
    assert [(f.path, f.refused) for f in drop.files] == [("a.v", "damaged"), ("b.v", "")]


def test_what_systems_leave_behind_is_nobodys() -> None:
    junk = ["__MACOSX/._a.v", "a/.DS_Store", "Thumbs.db", "x/desktop.ini"]
    assert [f.path for f in read_zip(zipped(**dict.fromkeys([*junk, "a/b.v"], b""))).files] == ["a/b.v"]


def test_a_path_too_long_is_left_out() -> None:
    (said,) = read_zip(zipped(**{"d/" * 200 + "a.v": b""})).left_out
    assert said.endswith("its path leads out of the zip or is too long")


def test_a_folder_is_read_without_its_links(tmp_path: Path) -> None:
    (tmp_path / "a").mkdir()
    (tmp_path / "a/b.v").write_bytes(b"1")
    (tmp_path / "big.v").write_bytes(b"12345")
    (tmp_path / ".DS_Store").write_bytes(b"")
    os.symlink("/etc/passwd", tmp_path / "link")
    os.symlink("/etc", tmp_path / "folder")
    drop = read_folder(tmp_path, ArchiveLimits(file_bytes=4))
    assert [(f.path, f.refused) for f in drop.files] == [("a/b.v", ""), ("big.v", "larger than can be taken")]
    with pytest.raises(ArchiveError, match="more than 1 files"):
        read_folder(tmp_path, ArchiveLimits(files=1))


def test_documents_that_are_zips_are_files() -> None:
    document = HandinFile("report.docx", zipped(a=b""))
    assert open_inner([document]).files == [document]
