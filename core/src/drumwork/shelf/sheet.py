"""The shelf as a sheet: read row by row, every bad one with its line and reason, and written so that no spreadsheet runs it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import BinaryIO, Final

from drumwork.choosing.specs import DAMPINGS, FINISHES
from drumwork.choosing.wires import MADE, TIES
from drumwork.errors import BadQuantity, DrumworkError
from drumwork.quantities import Length, parse_length
from drumwork.sheets import BadRow, BadSheet, read_table
from drumwork.shelf.lines import LENGTHS, Sort, sort_of
from drumwork.shelf.movements import MOST

__all__ = ["COLUMNS", "BadRow", "BadSheet", "SheetRow", "read_sheet"]

COLUMNS: Final = (
    "sort", "line", "size", "place", "batch", "count", "minimum", "used", "note", "plies", "mil", "finish", "damping", "vent", "side", "strands", "tie", "made",
)  # fmt: skip
"""The columns we write, in order; `size` is a diameter for heads and wires, a length for rods."""
_NEEDED: Final = ("sort", "line", "count")
_ALSO: Final[Mapping[str, str]] = {
    "kind": "sort", "type": "sort", "name": "line", "what": "line", "diameter": "size", "length": "size", "shelf": "place", "location": "place",
    "there": "count", "quantity": "count", "qty": "count", "how many": "count", "min": "minimum", "keep": "minimum", "film": "mil", "notes": "note", "lot": "batch",
}  # fmt: skip
_LIMITS: Final[Mapping[str, int]] = {"line": 60, "place": 20, "batch": 30, "note": 200}
_YES: Final = ("yes", "y", "true", "1", "x")
_NO: Final = ("", "no", "n", "false", "0")
_FINISHES: Final = (*FINISHES, "mesh", "skin")


@dataclass(frozen=True, slots=True)
class SheetRow:
    """One heap: so many of a line in one place, of one batch. What is not said is None or empty; `facts` tells what a new head or wire line is made of."""

    number: int
    sort: Sort
    line: str
    size: Length | None
    count: int
    place: str = ""
    batch: str = ""
    minimum: int | None = None
    used: bool = False
    note: str = ""
    facts: Mapping[str, str | int | float | bool] | None = None


def _header(cells: list[str]) -> dict[str, int]:
    said = [" ".join(cell.lower().split()) for cell in cells]
    names = [_ALSO.get(name, name) for name in said]
    found: dict[str, int] = {name: names.index(name) for name in COLUMNS if name in names}
    if missing := [name for name in _NEEDED if name not in found]:
        raise BadSheet(
            f"The first line has to name the columns; {' and '.join(missing)} {'is' if len(missing) == 1 else 'are'} missing. "
            f"We know: {', '.join(COLUMNS)}."
        )
    return found


def _number(text: str, what: str, most: int) -> int:
    whole = text.replace("\N{NO-BREAK SPACE}", "").removesuffix(".0").removesuffix(",0")
    if not whole.isascii() or not whole.isdigit() or int(whole) > most:
        raise BadQuantity(f"{what}: “{text}” is not a whole number from 0 to {most}.", text=text)
    return int(whole)


def _yes(text: str, what: str) -> bool:
    said = text.lower()
    if said in _YES or said in _NO:
        return said in _YES
    raise BadQuantity(f"{what}: write yes or no, not “{text}”.", text=text)


def _among(text: str, what: str, among: tuple[str, ...], usual: str) -> str:
    said = "-".join(text.lower().split()) or usual
    if said not in among:
        raise BadQuantity(f"{what}: “{text}” is not known. Write one of: {', '.join(among)}.", text=text)
    return said


def _mil(text: str) -> float:
    try:
        found = float(text.replace(",", "."))
    except ValueError:
        found = 0.0
    if not 0 < found <= 40:
        raise BadQuantity(f"mil: “{text}” is not a film in thousandths of an inch, above 0 and up to 40.", text=text)
    return found


def _facts(sort: Sort, said: Mapping[str, str]) -> dict[str, str | int | float | bool] | None:
    """What a line is made of, where the row tells it."""
    if sort is Sort.HEAD and said.get("plies") and said.get("mil"):
        return {
            "plies": _number(said["plies"], "plies", 4) or 1,
            "film_mil": _mil(said["mil"]),
            "finish": _among(said.get("finish", ""), "finish", _FINISHES, "clear"),
            "damping": _among(said.get("damping", ""), "damping", DAMPINGS, "none"),
            "vent": _yes(said.get("vent", ""), "vent"),
            "side": _among(said.get("side", ""), "side", ("batter", "resonant", "either"), "either"),
        }
    if sort is Sort.WIRES and said.get("strands"):
        strands = _number(said["strands"], "strands", 60)
        if strands < 2:
            raise BadQuantity("strands: 2 to 60.", text=said["strands"])
        return {
            "strands": strands,
            "tie": _among(said.get("tie", ""), "tie", TIES, "cord"),
            "made": _among(said.get("made", ""), "made", MADE, "coiled"),
        }
    return None


def _size(sort: Sort, text: str, unit: str) -> Length | None:
    if not text:
        if sort.fits_a_diameter:
            raise BadQuantity(f"{sort.words}: the size is missing; nobody could tell what it fits.")
        return None
    size = parse_length(text, unit)
    low, high = LENGTHS[sort]
    if not low <= size.metres <= high:
        raise BadQuantity(f"size: “{text}” is no size of a {sort.words}.", text=text)
    return size


def _row(number: int, said: Mapping[str, str], unit: str) -> SheetRow:
    for name, most in _LIMITS.items():
        if len(said.get(name, "")) > most:
            raise BadQuantity(f"{name}: longer than {most} characters.")
        if any(ord(each) < 32 for each in said.get(name, "")):
            raise BadQuantity(f"{name}: use one line of plain text.")
    if not said["line"]:
        raise BadQuantity("line: the name is missing.")
    sort = sort_of(said["sort"])
    least = said.get("minimum", "")
    return SheetRow(
        number,
        sort,
        said["line"],
        _size(sort, said.get("size", ""), unit),
        _number(said["count"], "count", MOST),
        said.get("place", ""),
        said.get("batch", ""),
        _number(least, "minimum", MOST) if least else None,
        _yes(said.get("used", ""), "used"),
        said.get("note", ""),
        _facts(sort, said),
    )


def read_sheet(stream: BinaryIO, unit: str = "in") -> Iterator[SheetRow | BadRow]:
    """Every row of a file, one at a time: as a heap, or with the reason why not. Empty rows are passed over; sizes without a unit are in `unit`.

    Separators may be commas, semicolons or tabs; a workbook is read too.

    Raises
    ------
    BadSheet
        for a damaged workbook, an empty file, or one whose first line names no columns of ours.
    """
    table = read_table(stream)
    columns = _header(table.header)
    for found in table.rows:
        if isinstance(found, BadRow):
            yield found
            continue
        number, cells = found
        said = {name: cells[at] if at < len(cells) else "" for name, at in columns.items()}
        try:
            yield _row(number, said, unit)
        except DrumworkError as error:
            yield BadRow(number, error.message, ", ".join(cells)[:120])
