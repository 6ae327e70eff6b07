"""Files as people bring them: encodings, separators, workbooks made by a reference library (openpyxl), and those that mean harm."""

from __future__ import annotations

import contextlib
import io
import os
import subprocess
import zipfile
from datetime import date, datetime
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook

from drumwork.sheets import BadRow, BadSheet, harmless, line_of, plain, read_table, several, several_of


def rows_of(raw: bytes) -> tuple[list[str], list[Any]]:
    table = read_table(io.BytesIO(raw))
    return table.header, list(table.rows)


def book(*rows: list[Any]) -> bytes:
    made = Workbook()
    for row in rows:
        made.active.append(row)
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
@pytest.mark.parametrize("mark", [",", ";", "\t"])
def test_any_usual_encoding_and_separator(encoding: str, mark: str) -> None:
    raw = f"tag{mark}name\r\nA1{mark}Möwe\r\n\r\nA2{mark}Käuzchen\r\n".encode(encoding)
    assert rows_of(raw) == (["tag", "name"], [(2, ["A1", "Möwe"]), (4, ["A2", "Käuzchen"])])


def test_a_workbook_reads_as_somebody_would_type_it() -> None:
    raw = book(
        [None],
        ["tag", "size", "since", "lugs", "bed"],
        ["A1", 14.0, datetime(2024, 3, 5), 8, True],
        [],
        ["A2", 5.5, date(2024, 3, 6), 6.0, None],
    )
    assert rows_of(raw) == (
        ["tag", "size", "since", "lugs", "bed"],
        [(3, ["A1", "14", "2024-03-05", "8", "yes"]), (5, ["A2", "5.5", "2024-03-06", "6"])],
    )


def test_a_workbook_that_lies_about_its_size_is_read_for_what_it_is() -> None:
    raw = io.BytesIO(book(["tag"], ["A1"]))
    with zipfile.ZipFile(raw) as whole:
        parts = {name: whole.read(name) for name in whole.namelist()}
    sheet = next(name for name in parts if name.endswith("sheet1.xml"))
    parts[sheet] = parts[sheet].replace(b'ref="A1:A2"', b'ref="A1:XFD1048576"')
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as whole:
        for name, content in parts.items():
            whole.writestr(name, content)
    assert rows_of(out.getvalue()) == (["tag"], [(2, ["A1"])])


def test_what_unpacks_to_far_more_than_it_is_is_refused() -> None:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as whole:
        whole.writestr("xl/worksheets/sheet1.xml", b"0" * 50_000_000)
    assert len(out.getvalue()) < 100_000
    with pytest.raises(BadSheet, match="unpacks to more"):
        rows_of(out.getvalue())


@pytest.mark.parametrize("raw", [b"", b"\n\n", b"PK\x03\x04rest", b"\xd0\xcf\x11\xe0old", book(), b"\0\0\0\0"])
def test_what_is_no_sheet_is_said_so(raw: bytes) -> None:
    with pytest.raises(BadSheet):
        rows_of(raw)


def _with(raw: bytes, change: Any) -> bytes:
    """A workbook with its sheet's XML other than it was."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(raw)) as whole, zipfile.ZipFile(out, "w") as made:
        for name in whole.namelist():
            content = whole.read(name)
            made.writestr(name, change(content) if name.endswith("sheet1.xml") else content)
    return out.getvalue()


BOOK = book(["tag", "since"], ["A1", datetime(2024, 3, 5)], ["A2", datetime(2024, 3, 6)])


@pytest.mark.parametrize(
    ("raw", "said"),
    [
        (_with(BOOK, lambda xml: xml.replace(b'r="3"', b'r="900000000"')), "row 900000000"),
        (_with(BOOK, lambda xml: xml[: len(xml) * 3 // 4]), "cannot be read"),
        (_with(BOOK, lambda xml: xml.replace(b'r="A3"', b'r="3A"')), "cannot be read"),
        (_with(BOOK, lambda xml: xml.replace(b'<row r="3"', b'<row r="x"')), "cannot be read"),
        (BOOK.replace(b"PK\x03\x04\x14\x00\x00\x00", b"PK\x03\x04\x14\x00\x01\x00").replace(b"PK\x01\x02\x14\x03\x14\x00\x00\x00", b"PK\x01\x02\x14\x03\x14\x00\x01\x00"), "password"),
        (b"tag," + b"x" * 131_072 + b"\nA1,1\n", "first line"),
        (b'"' + b"x" * 140_000, "first line"),
    ],
    ids=["a row far away", "cut off", "a bad reference", "a row of no number", "encrypted", "a long heading", "an open heading"],
)  # fmt: skip
def test_a_broken_one_is_said_in_words_and_soon(raw: bytes, said: str) -> None:
    with pytest.raises(BadSheet, match=said):
        rows_of(raw)


def test_a_date_that_is_none_is_told_or_read_as_it_stands() -> None:
    bad = _with(BOOK, lambda xml: xml.replace(b"<v>45356</v>", b"<v>NaN</v>"))
    with contextlib.suppress(BadSheet):
        assert rows_of(bad)[1][-1][1][0] == "A2"


def test_whoever_stops_asking_ends_the_process_that_reads() -> None:
    many = io.BytesIO(book(["tag"], *([f"A{n}"] for n in range(20_000))))
    table = read_table(many)
    next(table.rows)
    ran = subprocess.run(["pgrep", "-P", str(os.getpid()), "-f", "drumwork.sheets.workbook"], capture_output=True)
    assert ran.returncode == 0
    table.rows.close()  # type: ignore[attr-defined]
    ran = subprocess.run(["pgrep", "-P", str(os.getpid()), "-f", "drumwork.sheets.workbook"], capture_output=True)
    assert ran.returncode == 1


def test_a_quotation_mark_that_is_not_closed_names_its_row_and_the_others_are_read() -> None:
    rest = "".join(f"A{n},ok\n" for n in range(3, 200))
    _, rows = rows_of(f'tag,name\nA1,"two\nlines"\nA2,"open\n{rest}A200,"end\n'.encode())
    assert rows[0] == (2, ["A1", "two\nlines"])
    assert (rows[1].number, "not closed" in rows[1].because) == (4, True)
    assert rows[2:199] == [(n + 2, [f"A{n}", "ok"]) for n in range(3, 200)]
    assert rows[-1] == (202, ["A200", "end"])
    _, rows = rows_of(b'tag,name\nA1,12" tom\nA2,ok\n')
    assert rows == [(2, ["A1", '12" tom']), (3, ["A2", "ok"])]


def test_a_row_that_cannot_be_read_is_told_and_the_next_is_read() -> None:
    _, rows = rows_of(b"tag,name\nA1,M\xf6we\nA2,ok\n" + b"x" * 200_000 + b",\xc3\xa4\n")
    assert rows[0] == (2, ["A1", "Möwe"])
    _, rows = rows_of(("tag\n" + "a" * 70_000 + "\n").encode() + b"\xff\n" + b"A3\n")
    assert isinstance(rows[1], BadRow)
    assert rows[2] == (4, ["A3"])


@given(st.text(st.characters(exclude_categories=["Cs", "Cc"]), max_size=40))
def test_a_cell_goes_out_harmless_and_comes_back_as_it_was(text: str) -> None:
    text = " ".join(text.split())
    assert not harmless(text).startswith(("=", "+", "-", "@"))
    assert plain(harmless(text)) == text
    _, rows = rows_of(b"a,b\n" + line_of(["x", text]).encode())
    assert rows == [(2, ["x", text])]


@given(st.binary(max_size=400))
def test_nothing_but_a_bad_sheet_comes_of_any_bytes(raw: bytes) -> None:
    with contextlib.suppress(BadSheet):
        rows_of(raw)


@given(st.text())
def test_any_cell_is_some_names(cell: str) -> None:
    assert all(each == each.strip() != "" for each in several_of(cell))


def test_a_cell_without_end_is_some_names_too() -> None:
    assert several_of("a, " + "x" * 200_000) == ["a", "x" * 200_000]
    assert several_of("a,\r b\0c") != []


@given(st.lists(st.text(st.characters(exclude_categories=["Cs", "Cc", "Zl", "Zp"]), min_size=1, max_size=20).map(lambda each: " ".join(each.split())).filter(bool), max_size=5))  # fmt: skip
def test_names_in_one_cell_come_back_as_they_were(names: list[str]) -> None:
    assert several_of(several(names)) == names
