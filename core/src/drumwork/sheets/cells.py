"""Cells, out and in."""

from __future__ import annotations

from typing import Final

__all__ = ["harmless", "plain"]

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
