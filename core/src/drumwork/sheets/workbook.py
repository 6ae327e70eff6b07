"""A workbook's rows, read in a process of its own with limits of its own: whatever a file makes its reader do ends with that process.

Run as `python -m drumwork.sheets.workbook` with the file as standard input, it writes a line of JSON for each row that is not empty, its
number and its cells, and a last one: `{"error": "…"}` or `{"end": true}`.
"""

from __future__ import annotations

import json
import resource
import subprocess
import sys
import tempfile
import zipfile
from collections.abc import Iterator
from contextlib import suppress
from datetime import date, datetime
from shutil import copyfileobj
from typing import IO, Any, BinaryIO, Final

from drumwork.sheets.cells import plain
from drumwork.sheets.rows import MOST_COLUMNS, MOST_LINES, BadSheet, Table, header_of

__all__ = ["read_workbook"]

_MOST_UNPACKED: Final = 300_000_000
_MOST_MEMBERS: Final = 2_000
_MOST_RATIO: Final = 200
_CPU_S: Final = 60
_MEMORY: Final = 700_000_000
_UNREADABLE: Final = "That workbook cannot be read. Save it as .xlsx anew, or as CSV."
_TOO_MUCH: Final = "That workbook takes longer to read than any list. Save the one sheet as CSV and choose that."


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
    if any(each.flag_bits & 1 for each in parts):
        raise BadSheet("That workbook has a password. Save it without one, or as CSV, then choose that.")


def read_workbook(stream: BinaryIO) -> Table:
    """The header of the first sheet that has one, and its rows. Whoever stops asking ends the process that reads."""
    _require_no_bomb(stream)
    rows = _read_apart(stream)
    first = next(rows, None)
    if first is None:
        raise BadSheet("There is nothing in that workbook.")
    return Table(header_of(first[1]), rows)


def _read_apart(stream: BinaryIO) -> Iterator[tuple[int, list[str]]]:
    with tempfile.TemporaryFile() as copy:
        stream.seek(0)
        copyfileobj(stream, copy)
        copy.seek(0)
        command = [sys.executable, "-m", "drumwork.sheets.workbook"]
        with subprocess.Popen(command, stdin=copy, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL) as reading:
            assert reading.stdout is not None
            try:
                yield from _said(reading.stdout)
            finally:
                reading.kill()


def _said(lines: IO[bytes]) -> Iterator[tuple[int, list[str]]]:
    for line in lines:
        found = json.loads(line)
        if isinstance(found, list):
            yield found[0], found[1]
        elif "error" in found:
            raise BadSheet(found["error"])
        else:
            return
    raise BadSheet(_TOO_MUCH)  # killed at a limit


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


def _trimmed(cells: list[str]) -> list[str]:
    last = max((n for n, each in enumerate(cells) if each), default=-1)
    return cells[: last + 1]


def _rows(stream: BinaryIO) -> Iterator[tuple[int, list[str]]]:
    """Rows of the first sheet that is not empty, by the numbers they say they have: what lies between two is not counted through."""
    from openpyxl import load_workbook
    from openpyxl.worksheet._reader import WorkSheetParser

    book = load_workbook(stream, read_only=True, data_only=True, keep_links=False)
    for sheet in book.worksheets:
        parts = {"epoch": book.epoch, "date_formats": book._date_formats, "timedelta_formats": book._timedelta_formats}
        with sheet._get_source() as source:
            parser = WorkSheetParser(source, sheet._shared_strings, data_only=True, **parts)
            some = False
            for number, row in parser.parse():
                if number > MOST_LINES:
                    raise BadSheet(
                        f"There is a row {number} in that workbook; lists end before row {MOST_LINES}. Save the one sheet as CSV."
                    )
                cells = [""] * min(MOST_COLUMNS, max((each["column"] for each in row), default=0))
                for each in row:
                    if each["column"] <= MOST_COLUMNS:
                        cells[each["column"] - 1] = _cell(each["value"])
                if any(cells):
                    some = True
                    yield number, _trimmed(cells)
        if some:
            return


def _tell(out: IO[str], said: object) -> None:
    out.write(json.dumps(said) + "\n")


def main() -> None:
    """Read standard input; see the module."""
    for what, most in ((resource.RLIMIT_CPU, _CPU_S), (resource.RLIMIT_DATA, _MEMORY)):
        _, allowed = resource.getrlimit(what)
        most = most if allowed == resource.RLIM_INFINITY else min(most, allowed)
        resource.setrlimit(what, (most, most))
    try:
        for number, cells in _rows(sys.stdin.buffer):
            _tell(sys.stdout, [number, cells])
        _tell(sys.stdout, {"end": True})
    except BadSheet as error:
        _tell(sys.stdout, {"error": error.message})
    except MemoryError:
        _tell(sys.stdout, {"error": _TOO_MUCH})
    except BrokenPipeError:
        raise
    except Exception:  # whatever its reader stumbles over is the file's
        _tell(sys.stdout, {"error": _UNREADABLE})
    sys.stdout.flush()


if __name__ == "__main__":
    with suppress(BrokenPipeError):  # whoever asked has gone
        main()
