"""What may come out of a zip or folder, within bounds."""

from __future__ import annotations

import io
import os
import random
import stat
import tracemalloc
import zipfile
from contextlib import suppress
from pathlib import Path

import pytest

from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits
from obento.intake.archive import (
    ArchiveError,
    ArchiveLimits,
    open_inner,
    printable,
    read_folder,
    read_zip,
    safe_path,
    unpack,
)
from obento.intake.batch import split_children
from obento.intake.dropped import Spool


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


def test_a_path_too_long_is_shortened_and_stays_what_it_is() -> None:
    long = "d/" * 200
    files = read_zip(zipped(**{f"ann/{long}a.v": b"1", f"ann/{long}b.v": b"2", "bo/" + "x" * 400 + ".v": b"3"})).files
    assert all(len(f.path) <= 300 for f in files) and len({f.path for f in files}) == 3
    children = split_children(files)
    assert {name: len(found) for name, found in children.items()} == {"ann": 2, "bo": 1}
    assert children["bo"][0].path.endswith("xx.v")
    names = ["s" * 250 + end for end in ("a", "b")]
    files = read_zip(zipped(**{f"{name}/{file}.v": b"" for name in names for file in "pq"})).files
    assert [len(found) for found in split_children(files).values()] == [2, 2]


def test_names_that_differ_in_a_blank_at_the_end_are_two() -> None:
    files = read_zip(zipped(**{"ann/a.v": b"1", "ann /a.v": b"2", "ann  /a.v ": b"3"})).files
    assert [f.path for f in files] == ["ann/a.v", "ann␣/a.v", "ann␣␣/a.v␣"]
    assert len(split_children(files)) == 3


def packed(method: int, name: str = "bo/b.v") -> bytearray:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        archive.writestr("ann/a.v", b"module a; endmodule", method)
        archive.writestr(name, b"module b; endmodule" * 50, method)
    return bytearray(out.getvalue())


@pytest.mark.parametrize("method", [zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED, zipfile.ZIP_BZIP2, zipfile.ZIP_LZMA])
def test_a_damaged_entry_of_any_kind_is_its_own_trouble(method: int) -> None:
    data = packed(method)
    at = data.rindex(b"PK\x03\x04") + 30 + len("bo/b.v")
    dice = random.Random(method)
    for _ in range(60):
        spoiled = bytearray(data)
        for _ in range(dice.randint(1, 8)):
            spoiled[dice.randrange(at, at + 12)] = dice.randrange(256)
        drop = read_zip(bytes(spoiled))
        assert [f.path for f in drop.files] == ["ann/a.v", "bo/b.v"] and drop.files[0].refused == ""


def test_a_zip_that_is_spoiled_anywhere_is_taken_or_refused() -> None:
    dice = random.Random(3)
    for method in (zipfile.ZIP_DEFLATED, zipfile.ZIP_LZMA):
        data = packed(method, "bö/b.v")
        for _ in range(400):
            spoiled = bytearray(data)
            for _ in range(dice.randint(1, 6)):
                spoiled[dice.randrange(len(spoiled))] = dice.randrange(256)
            with suppress(ArchiveError):
                for file in unpack("c.zip", io.BytesIO(bytes(spoiled[: dice.choice([len(spoiled), 200])]))).files:
                    assert len(file.path) <= 300


def test_names_in_other_encodings() -> None:
    plain = zipped(**{"ann/a.v": b"1", "AXYB/b.v": b"2"})
    assert [f.path for f in read_zip(plain.replace(b"AXYB", "AÅB".encode())).files] == ["ann/a.v", "AÅB/b.v"]
    said_to_be = zipped(**{"ann/a.v": b"1", "AÅB/b.v": b"2"})  # UTF-8, and says so
    broken = said_to_be.replace("AÅB".encode(), b"A\xff\xfeB")
    first, second = read_zip(broken).files
    assert first.path == "ann/a.v" and second.path.startswith("A") and second.path.endswith("B/b.v")


def test_one_bound_for_all_that_is_packed_in_a_drop() -> None:
    bomb = zipped(**{f"{i}.v": b"0" * 7_000_000 for i in range(20)})
    inner = {f"s{i}/bomb.zip": bomb for i in range(4)}
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for name, data in {"ann/a.v": b"module a; endmodule", **inner, "zoe/z.v": b"module z; endmodule"}.items():
            archive.writestr(name, data)
    limits = ArchiveLimits(ratio=10_000)
    drop = unpack("class.zip", out, limits=limits)
    assert sum(f.size for f in drop.files) < 40_000_000
    kept = {f.path: f.refused for f in drop.files}
    assert kept["ann/a.v"] == kept["zoe/z.v"] == ""
    assert all("cannot be taken" in kept[name] or "not unpacked" in kept[name] for name in inner)


@pytest.mark.parametrize("file", sorted((Path(__file__).parent / "archives").glob("*.zip")), ids=lambda p: p.stem)
def test_archives_that_once_did_harm(file: Path) -> None:
    with file.open("rb") as source:
        drop = unpack(file.name, source)
    assert drop.files and sum(f.size for f in drop.files) < 40_000_000
    labels = {name.casefold().rstrip() for name in split_children(drop.files)}
    assert len(labels) == len(split_children(drop.files))


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
    document = Spool().keep("report.docx", zipped(a=b""))
    assert document.is_zip
    assert open_inner([document]).files == [document]


def test_what_is_unpacked_lies_on_disk_until_it_is_read(tmp_path: Path) -> None:
    """Contents hold no memory: 60 files of a megabyte cost less than two of them."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for i in range(60):
            archive.writestr(f"s{i}/a.v", bytes([i]) * 4 + random.Random(i).randbytes(10_000) * 100)
    tracemalloc.start()
    drop = unpack("class.zip", out, tmp_path)
    held, most = tracemalloc.get_traced_memory()
    tracemalloc.stop()
    assert held < 200_000 and most < 12_000_000
    assert not list(tmp_path.iterdir())  # it has no name that somebody could find, and goes by itself
    assert [f.data[:4] for f in drop.files] == [bytes([i]) * 4 for i in range(60)]
    assert drop.files[7].as_handin("b.v") == HandinFile("b.v", drop.files[7].data)


def test_two_entries_of_one_name_are_told(tmp_path: Path) -> None:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive, pytest.warns(UserWarning, match="Duplicate name"):
        for text in (b"first", b"second"):
            archive.writestr("ann/a.v", text)
    drop = unpack("class.zip", out, tmp_path)
    assert drop.left_out == ["ann/a.v: it is in the zip 2 times; the last one was taken"]
    assert split_children(drop.files)["ann"] == [HandinFile("a.v", b"second")]
