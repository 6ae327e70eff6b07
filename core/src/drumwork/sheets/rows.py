"""A sheet as it is read: its header, and its rows one at a time."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from drumwork.errors import DrumworkError

__all__ = ["MOST_COLUMNS", "MOST_LINES", "BadRow", "BadSheet", "Table", "header_of"]

MOST_COLUMNS: Final = 200
MOST_LINES: Final = 200_000
"""No list of drums or heads is longer, its empty rows counted."""


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
    are passed over. What breaks off on the way raises `BadSheet`."""

    header: list[str]
    rows: Iterator[tuple[int, list[str]] | BadRow]


def header_of(cells: Sequence[str]) -> list[str]:
    return [" ".join(each.split()) for each in cells[:MOST_COLUMNS]]
