"""Files as people bring them: encodings, separators, workbooks made by a reference library (openpyxl), and those that mean harm."""

from __future__ import annotations

import contextlib
import io
import zipfile
from datetime import date, datetime
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook

from drumwork.sheets import BadRow, BadSheet, harmless, line_of, plain, read_table


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
