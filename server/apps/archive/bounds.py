"""An archive read piece by piece, in memory that does not grow with it: how long a text, how deep and how large a row may be."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any, BinaryIO, Final

import ijson  # type: ignore[import-untyped]

from apps.workshops.bounded import DEEPEST
from apps.workshops.errors import Refused

__all__ = ["MOST_BYTES", "MOST_ROWS", "bad", "events"]

MOST_BYTES: Final = 2_000_000_000
"""Of an archive, out and in alike."""
MOST_ROWS: Final = 2_000_000
LONGEST_TEXT: Final = 8 * 1024 * 1024
"""A photo or a sound in base64, with room."""
_ESCAPED: Final = re.compile(rb"\\.", re.DOTALL)


def bad(where: str, why: str) -> Refused:
    return Refused("bad_archive", f"{where}: {why}. Nothing was taken.", 422)


class _Watched:
    """The file as the reader of JSON sees it: it would hold a text as a whole, so one that has no end within bounds is refused before."""

    def __init__(self, file: BinaryIO) -> None:
        self.file, self.since, self.left = file, 0, b""

    def read(self, size: int) -> bytes:
        piece = self.file.read(size)
        seen = _ESCAPED.sub(b"..", self.left + piece)  # as long as before, without the quotes that end no text
        self.left = b"\\" if seen.endswith(b"\\") else b""
        first = seen.find(b'"')
        if self.since + (len(seen) if first < 0 else first) > LONGEST_TEXT:
            raise bad("a text in it", f"is longer than {LONGEST_TEXT // 1024**2} MB")
        self.since = self.since + len(seen) if first < 0 else len(seen) - 1 - seen.rfind(b'"')
        return piece


def events(file: BinaryIO) -> Iterator[tuple[str, Any]]:
    """What stands in the file, from its beginning, token by token.

    Raises
    ------
    Refused
        for what is no JSON, nests too deep, or holds a text that is too long.
    """
    file.seek(0)
    depth = 0
    try:
        for event, value in ijson.basic_parse(_Watched(file), use_float=True):
            if event in ("start_map", "start_array"):
                depth += 1
                if depth > DEEPEST:
                    raise bad("it", "nests too deep for an archive")
            elif event in ("end_map", "end_array"):
                depth -= 1
            yield event, value
    except (ijson.JSONError, UnicodeDecodeError, ValueError) as error:  # ValueError: a number of thousands of figures
        raise Refused("bad_archive", f"This is no JSON an archive could be: {error}. Nothing was taken.", 422) from None
