"""A file as a header and rows of text, whatever it is: values parted by commas, semicolons or tabs, in any usual encoding, or a workbook."""

from __future__ import annotations

import codecs
import csv
import io
import zipfile
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any, BinaryIO, Final

from openpyxl import load_workbook
from openpyxl.utils.exceptions import InvalidFileException

from drumwork.errors import DrumworkError
from drumwork.sheets.cells import plain

__all__ = ["BadRow", "BadSheet", "Table", "read_table"]

_SAMPLE: Final = 65_536
_MOST_COLUMNS: Final = 200
_MOST_UNPACKED: Final = 300_000_000
_MOST_MEMBERS: Final = 2_000
_MOST_RATIO: Final = 200


class BadSheet(DrumworkError):
    """A file that cannot be read as a sheet at all."""

    code = "bad_sheet"


@dataclass(frozen=True, slots=True)
class BadRow:
    """A row that cannot be taken: which line of the file, and why."""

    number: int
    because: str
    shown: str = ""


@dataclass(frozen=True)
class Table:
    """`rows` are read while they are asked for: the line of the file, counted from 1, and its cells; or why the line cannot be read. Empty lines
    are passed over."""

    header: list[str]
    rows: Iterator[tuple[int, list[str]] | BadRow]


def _decoded(stream: BinaryIO, sample: bytes) -> io.TextIOWrapper:
    """The file as text: by its mark if it has one, else UTF-8, else as older spreadsheets write (Windows-1252)."""
    if sample.startswith((b"\xff\xfe", b"\xfe\xff")):
        return io.TextIOWrapper(stream, "utf-16", errors="replace", newline="")
    try:
        # A sample that is not the whole file may end with half a character.
        codecs.getincrementaldecoder("utf-8")().decode(sample, final=len(sample) < _SAMPLE)
    except UnicodeDecodeError:
        return io.TextIOWrapper(stream, "cp1252", errors="replace", newline="")
    return io.TextIOWrapper(stream, "utf-8-sig", errors="replace", newline="")


def _header(cells: Sequence[str]) -> list[str]:
    return [" ".join(each.split()) for each in cells[:_MOST_COLUMNS]]


def _values(stream: BinaryIO, sample: bytes) -> Table:
    text = _decoded(stream, sample)
    first = text.readline()
    if not first.strip() or "\0" in first:
        raise BadSheet("There is nothing in that file that could be read as a sheet.")
    mark = max(",;\t", key=first.count)
    return Table(_header(next(csv.reader([first], delimiter=mark))), _lines(csv.reader(text, delimiter=mark)))


def _lines(rows: Any) -> Iterator[tuple[int, list[str]] | BadRow]:
    while True:
        number = rows.line_num + 2
        try:
            cells = next(rows)
        except StopIteration:
            return
        except csv.Error as error:
            yield BadRow(number, f"The row cannot be read: {error}.")
            continue
        found = [plain(cell) for cell in cells[:_MOST_COLUMNS]]
        if any("\N{REPLACEMENT CHARACTER}" in cell for cell in found):
            yield BadRow(
                number, "There is a character that cannot be read. Save the file as UTF-8.", ", ".join(found)[:60]
            )
        elif any(found):
            yield number, found


def _require_no_bomb(stream: BinaryIO) -> None:
    """What a workbook unpacks to is told by its own list, and no more than that is ever read of each part."""
    try:
        parts = zipfile.ZipFile(stream).infolist()
    except (zipfile.BadZipFile, OSError, ValueError, NotImplementedError) as error:
        raise BadSheet("That workbook is damaged. Open and save it anew, or save it as CSV.") from error
    whole = sum(each.file_size for each in parts)
    packed = sum(each.compress_size for each in parts)
    if len(parts) > _MOST_MEMBERS or whole > _MOST_UNPACKED or (whole > 10_000_000 and whole > _MOST_RATIO * packed):
        raise BadSheet(
            "That workbook unpacks to more than any list of drums. Save the one sheet as CSV and choose that."
        )


def _cell(value: Any) -> str:
    """A workbook's value as somebody would type it."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:.10g}"
    if isinstance(value, datetime):
        return value.date().isoformat()
    if isinstance(value, date):
        return value.isoformat()
    return " ".join(plain(str(value)).split()) if "\n" not in str(value) else plain(str(value))


def _workbook(stream: BinaryIO) -> Table:
    _require_no_bomb(stream)
    stream.seek(0)
    try:
        book = load_workbook(stream, read_only=True, data_only=True, keep_links=False)
        for sheet in book.worksheets:
            sheet.reset_dimensions()  # what it says of its own size may be anything
            rows = sheet.iter_rows(max_col=_MOST_COLUMNS, values_only=True)
            for number, row in enumerate(rows, start=1):
                cells = [_cell(each) for each in row]
                if any(cells):
                    return Table(_header(_trimmed(cells)), _sheet_rows(rows, number + 1))
    except (InvalidFileException, KeyError, ValueError, OSError, zipfile.BadZipFile, SyntaxError, TypeError) as error:
        raise BadSheet("That workbook cannot be read. Save it as .xlsx anew, or as CSV.") from error
    raise BadSheet("There is nothing in that workbook.")


def _trimmed(cells: list[str]) -> list[str]:
    last = max((n for n, each in enumerate(cells) if each), default=-1)
    return cells[: last + 1]


def _sheet_rows(rows: Iterator[Any], first: int) -> Iterator[tuple[int, list[str]] | BadRow]:
    for number, row in enumerate(rows, start=first):
        cells = [_cell(each) for each in row]
        if any(cells):
            yield number, _trimmed(cells)


def read_table(stream: BinaryIO) -> Table:
    """The header of a file, and its rows one at a time.

    Parameters
    ----------
    stream : seekable, at its beginning

    Raises
    ------
    BadSheet
        for an empty file, one that is no sheet, a damaged workbook, or one that unpacks to far more than it is.
    """
    sample = stream.read(_SAMPLE)
    stream.seek(0)
    if sample.startswith(b"\xd0\xcf\x11\xe0"):
        raise BadSheet(
            "That is a workbook of an old kind, or one with a password. Save it as .xlsx or CSV, then choose that."
        )
    return _workbook(stream) if sample.startswith(b"PK\x03\x04") else _values(stream, sample)
