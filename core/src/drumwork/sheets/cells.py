"""Cells, out and in."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable
from typing import Final

__all__ = ["harmless", "line_of", "plain", "several", "several_of"]

_RUNS: Final = ("=", "+", "-", "@", "\t", "\r")


def harmless(cell: object) -> str:
    """A cell no spreadsheet takes for a formula; read back it is what it was.

    >>> harmless("=1+1"), harmless("52 mm"), harmless(-3)
    ("'=1+1", '52 mm', "'-3")
    """
    text = "" if cell is None else str(cell)
    return f"'{text}" if text.startswith((*_RUNS, "'")) else text


def plain(cell: str) -> str:
    """A cell as it was before it was made harmless.

    >>> plain(harmless("'=1")), plain(" 14 ")
    ("'=1", '14')
    """
    text = cell.strip()
    return text[1:] if text.startswith("'") and text[1:].startswith((*_RUNS, "'")) else text


def line_of(cells: Iterable[object]) -> str:
    """A row as a line of comma-separated values, none of whose cells a spreadsheet runs.

    >>> line_of(["14 x 5", None, "=1+1", 3])
    "14 x 5,,'=1+1,3\\r\\n"
    """
    line = io.StringIO(newline="")
    csv.writer(line).writerow([harmless(cell) for cell in cells])
    return line.getvalue()


def several(names: Iterable[str]) -> str:
    """Several names in one cell; one that has a comma of its own stands between quotation marks (RFC 4180).

    >>> several(["dune kit", "A, B"])
    'dune kit, "A, B"'
    """
    return ", ".join(_quoted(each) for each in names)


def _quoted(name: str) -> str:
    doubled = name.replace('"', '""')
    return f'"{doubled}"' if "," in name or name.startswith('"') else name


def several_of(cell: str) -> list[str]:
    """The names in one cell, as `several` writes them or as people do.

    >>> several_of('dune kit,"A, B" , '), several_of('12" kit, B')
    (['dune kit', 'A, B'], ['12" kit', 'B'])
    """
    try:
        found = next(csv.reader([" ".join(cell.split())], skipinitialspace=True), [])
    except csv.Error:  # longer than any cell: as it stands
        found = cell.split(",")
    return [each.strip() for each in found if each.strip()]
