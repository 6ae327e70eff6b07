"""A file as a header and rows of text, whatever it is: values parted by commas, semicolons or tabs, in any usual encoding, or a workbook."""

from __future__ import annotations

import codecs
import csv
import io
from collections import deque
from collections.abc import Iterator
from typing import BinaryIO, Final

from drumwork.sheets.cells import plain
from drumwork.sheets.rows import MOST_COLUMNS, BadRow, BadSheet, Table, header_of
from drumwork.sheets.workbook import read_workbook

__all__ = ["read_table"]

_SAMPLE: Final = 65_536
_LONGEST_HEADER: Final = 32_768
_LINES_A_ROW: Final = 60
"""A cell may hold lines of its own; a quotation mark that is never closed takes in all that follows."""


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


def _values(stream: BinaryIO, sample: bytes) -> Table:
    text = _decoded(stream, sample)
    first = text.readline(_LONGEST_HEADER)
    if not first.strip() or "\0" in first:
        raise BadSheet("There is nothing in that file that could be read as a sheet.")
    if len(first) == _LONGEST_HEADER:
        raise BadSheet("The first line is longer than any that names columns. Is this a list, a row a line?")
    mark = max(",;\t", key=first.count)
    try:
        header = next(csv.reader([first], delimiter=mark))
    except csv.Error as error:
        raise BadSheet(f"The first line cannot be read: {error}.") from error
    return Table(header_of(header), _lines(text, mark))


class _Unclosed(Exception):
    """A row that takes in more lines than any does."""


class _Feed:
    """Lines as they are asked for; `taken` are those of the row that is being read."""

    def __init__(self, text: io.TextIOWrapper) -> None:
        self.text, self.again, self.taken = text, deque[str](), list[str]()

    def __iter__(self) -> _Feed:
        return self

    def __next__(self) -> str:
        if len(self.taken) >= _LINES_A_ROW:
            raise _Unclosed
        self.taken.append(self.again.popleft() if self.again else next(self.text))
        return self.taken[-1]

    def give_back(self) -> None:
        """All lines of the row but its first are read once more, each for itself."""
        self.again.extendleft(reversed(self.taken[1:]))
        del self.taken[1:]


def _lines(text: io.TextIOWrapper, mark: str) -> Iterator[tuple[int, list[str]] | BadRow]:
    feed, number = _Feed(text), 2
    reader = csv.reader(feed, delimiter=mark)
    while True:
        feed.taken.clear()
        try:
            cells = next(reader)
            closed = len(feed.taken) == 1 or "".join(feed.taken).count('"') % 2 == 0
        except StopIteration:
            return
        except _Unclosed:
            cells, closed = [], False
        except csv.Error as error:
            yield BadRow(number, f"The row cannot be read: {error}.")
            number += len(feed.taken)
            continue
        if not closed:
            feed.give_back()
            reader = csv.reader(feed, delimiter=mark)  # the old one is still within its quotation marks
            shown = feed.taken[0].strip()[:60]
            yield BadRow(
                number, "A quotation mark opens in this row and is not closed. Take it out, or write two.", shown
            )
            number += 1
            continue
        found = [plain(cell) for cell in cells[:MOST_COLUMNS]]
        if any("\N{REPLACEMENT CHARACTER}" in cell for cell in found):
            yield BadRow(
                number, "There is a character that cannot be read. Save the file as UTF-8.", ", ".join(found)[:60]
            )
        elif any(found):
            yield number, found
        number += len(feed.taken)


def read_table(stream: BinaryIO) -> Table:
    """The header of a file, and its rows one at a time.

    Parameters
    ----------
    stream : seekable, at its beginning

    Raises
    ------
    BadSheet
        for an empty file, one that is no sheet, a damaged workbook, or one that unpacks to far more than it is; of a workbook also while its
        rows are read.
    """
    sample = stream.read(_SAMPLE)
    stream.seek(0)
    if sample.startswith(b"\xd0\xcf\x11\xe0"):
        raise BadSheet(
            "That is a workbook of an old kind, or one with a password. Save it as .xlsx or CSV, then choose that."
        )
    return read_workbook(stream) if sample.startswith(b"PK\x03\x04") else _values(stream, sample)
