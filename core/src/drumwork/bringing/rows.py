"""What a row of somebody's list says of a drum: kinds in players' words, sizes in one cell, days as exact as they are known."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final, Literal

from drumwork.drums import TRAITS, DrumKind
from drumwork.errors import BadQuantity
from drumwork.quantities import Length, parse_length
from drumwork.sheets import BadRow

__all__ = ["BroughtDrum", "Since", "kind_named", "read_row", "since_when"]


def _bare(text: str) -> str:
    return " ".join(text.lower().replace("-", " ").replace(",", " ").split())


_KINDS: Final[Mapping[str, DrumKind]] = {
    **{_bare(traits.words): kind for kind, traits in TRAITS.items()},
    **{kind.value.replace("-", " "): kind for kind in TRAITS},
    "snare drum": DrumKind.SNARE, "side drum": DrumKind.SNARE, "rack": DrumKind.RACK_TOM, "hanging tom": DrumKind.RACK_TOM, "high tom": DrumKind.RACK_TOM,
    "mid tom": DrumKind.RACK_TOM, "floor": DrumKind.FLOOR_TOM, "standing tom": DrumKind.FLOOR_TOM, "low tom": DrumKind.FLOOR_TOM, "kick": DrumKind.BASS,
    "kick drum": DrumKind.BASS, "bass drum": DrumKind.BASS, "concert snare": DrumKind.ORCHESTRAL_SNARE, "field drum": DrumKind.MARCHING_SNARE,
    "parade drum": DrumKind.MARCHING_SNARE, "practice drum": DrumKind.PRACTICE_MESH, "mesh": DrumKind.PRACTICE_MESH,
    "practice pad": DrumKind.PRACTICE_MESH, "rope drum": DrumKind.ROPE_BASS,
}  # fmt: skip
_TOM: Final = ("tom", "tom tom", "tomtom")
_FLOOR_FROM: Final = Length.from_inches(14)
"""A tom as deep and as wide as this stands on legs (common practice, no source)."""
_STATES: Final = {
    "": "in", "in": "in", "ok": "in", "here": "in", "available": "in", "out": "out", "on loan": "out", "hired": "out", "lent": "out",
    "repair": "repair", "in repair": "repair", "broken": "repair", "retired": "retired", "sold": "retired", "scrapped": "retired",
}  # fmt: skip
_TIMES: Final = re.compile(r"\s*[x×*]\s*|\s+by\s+", re.I)
_UNIT: Final = re.compile(r"(in|inch|inches|\"|″|mm|cm)\s*$", re.I)
_MONTHS: Final = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
_OLDEST: Final = date(1900, 1, 1)
_NOBODY_KNOWS: Final = ("", "?", "unknown", "n/a", "-", "not known")
_SIDES: Final = ("batter", "resonant", "wires")


@dataclass(frozen=True, slots=True)
class Since:
    """Since when something is on a drum. `on` is None where nobody knows; the middle of the month or year where no more is said."""

    on: date | None
    dated: Literal["known", "guessed", "unknown"]


@dataclass(frozen=True)
class BroughtDrum:
    """One row. `said`: by field of the drum's form, as somebody would type it; only what the row says. `on_it`: by batter, resonant and wires, what is
    fitted and since when."""

    number: int
    tag: str
    said: Mapping[str, str]
    on_it: Mapping[str, tuple[str, Since]]


def kind_named(text: str, diameter: Length | None = None, depth: Length | None = None) -> DrumKind:
    """The kind of drum by players' words. A mere tom is a floor tom where it is as wide and deep as one.

    Raises
    ------
    BadQuantity
        for words nobody here knows.
    """
    said = _bare(text)
    if said in _TOM or said.rstrip("s") in _TOM:
        standing = diameter is not None and depth is not None and min(diameter, depth) >= _FLOOR_FROM
        return DrumKind.FLOOR_TOM if standing else DrumKind.RACK_TOM
    for words in (said, said.removesuffix("s"), said.removesuffix(" drum")):
        if words in _KINDS:
            return _KINDS[words]
    raise BadQuantity(
        f"kind: “{text}” is not known. Write one of: {', '.join(traits.words for traits in TRAITS.values())}.",
        text=text,
    )


def _size(text: str) -> tuple[str, str]:
    """Diameter and depth from one cell; a unit at its end is the unit of both."""
    parts = [each.strip() for each in _TIMES.split(text.strip())]
    if len(parts) != 2 or not all(parts):
        raise BadQuantity(f"size: “{text}” is not diameter × depth, such as 14 x 5 1/2.", text=text)
    unit = _UNIT.search(parts[1])
    first = parts[0] if unit is None or _UNIT.search(parts[0]) else f"{parts[0]} {unit.group(1)}"
    return first, parts[1]


def _middle(year: int, month: int | None) -> date:
    return date(year, month, 15) if month else date(year, 7, 1)


def _day(year: int, month: int, day: int, text: str) -> date:
    try:
        return date(year, month, day)
    except ValueError:
        raise BadQuantity(f"“{text}” is no day. Write it as 2024-03-05.", text=text) from None


def _named_month(found: re.Match[str], text: str) -> Since | None:
    """5 March 2024, March 5th 2024, March 2024."""
    if found[2][:3] not in _MONTHS:
        return None
    month, exact = _MONTHS.index(found[2][:3]) + 1, found[1] or found[3]
    return Since(_day(int(found[4]), month, int(exact or 15), text), "known" if exact else "guessed")


def _written(text: str, today: date) -> Since | None:
    """A day, month, year or age as people write them; None where it is none of those."""
    said = " ".join(text.lower().replace(",", " ").split())
    if found := re.fullmatch(r"(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[t ].*)?", said):
        return Since(_day(int(found[1]), int(found[2]), int(found[3]), text), "known")
    if found := re.fullmatch(r"(\d{1,2})([-/.])(\d{1,2})[-/.](\d{4})", said):
        first, mark, second, year = int(found[1]), found[2], int(found[3]), int(found[4])
        if mark != "." and first <= 12 and second <= 12 and first != second:
            raise BadQuantity(
                f"“{text}” can be read as two days. Write it as {year}-{second:02}-{first:02} or {year}-{first:02}-{second:02}.",
                text=text,
            )
        day, month = (first, second) if second <= 12 else (second, first)
        return Since(_day(year, month, day, text), "known")
    if found := re.fullmatch(r"(\d{1,2})[-/.](\d{4})|(\d{4})[-/.](\d{1,2})", said):
        month, year = int(found[1] or found[4]), int(found[2] or found[3])
        return Since(_day(year, month, 15, text), "guessed")
    if found := re.fullmatch(
        r"(?:(\d{1,2})(?:st|nd|rd|th)?\.? )?([a-z]{3,9})\.? (?:(\d{1,2})(?:st|nd|rd|th)? )?(\d{4})", said
    ):
        return _named_month(found, text)
    if re.fullmatch(r"\d{4}", said):
        return Since(_middle(int(said), None), "guessed")
    if found := re.fullmatch(r"(?:about )?(\d{1,3})\s*(months?|mo|years?|yrs?|y)(?: old| ago)?", said):
        months = int(found[1]) * (1 if found[2].startswith("m") else 12)
        return Since(today - timedelta(days=round(months * 365.2425 / 12)), "guessed")
    return None


def since_when(text: str, today: date) -> Since:
    """When something was fitted, as exactly as it is written.

    >>> since_when("5 March 2024", date(2026, 11, 27)).dated, since_when("2024", date(2026, 11, 27)).dated, since_when("?", date(2026, 11, 27)).dated
    ('known', 'guessed', 'unknown')

    Raises
    ------
    BadQuantity
        for what is no day, could be two, or is not yet.
    """
    if text.strip().lower() in _NOBODY_KNOWS:
        return Since(None, "unknown")
    found = _written(text, today)
    if found is None or found.on is None:
        raise BadQuantity(f"“{text}” is no day. Write it as 2024-03-05, March 2024, 2024 or 8 months.", text=text)
    if not _OLDEST <= found.on <= today:
        if (
            found.dated == "guessed"
            and (found.on.year, found.on.month) <= (today.year, today.month)
            and found.on.year >= _OLDEST.year
        ):
            return Since(today, "guessed")
        if found.dated == "guessed" and found.on.year == today.year and re.fullmatch(r"\d{4}", text.strip()):
            return Since(today, "guessed")
        raise BadQuantity(f"“{text}” does not lie between 1900 and today.", text=text)
    return found


def _length(text: str, unit: str, what: str) -> Length:
    try:
        return parse_length(text, unit)
    except BadQuantity as error:
        raise BadQuantity(f"{what}: {error.message}", text=text) from error


def _form(cells: Mapping[str, str], unit: str) -> dict[str, str]:
    said = {
        name: text
        for name, text in cells.items()
        if text and name not in ("size", "rods", "kind", "state") and not name.endswith("_since")
    }
    for place in _SIDES:
        said.pop(place, None)
    if cells.get("size"):
        said["diameter"], said["depth"] = _size(cells["size"])
    for name in ("diameter", "depth"):
        if name in said:
            _length(said[name], unit, name)
    if cells.get("rods"):
        said = {"rods_batter": cells["rods"], "rods_resonant": cells["rods"]} | said
    for name in ("rods_batter", "rods_resonant"):
        if name in said and not re.fullmatch(r"\d{1,2}(?:[.,]0+)?", said[name]):
            raise BadQuantity(f"rods: “{said[name]}” is not a number of rods.", text=said[name])
        if name in said:
            said[name] = re.split(r"[.,]", said[name])[0]
    if cells.get("kind"):
        sizes = [_length(said[name], unit, name) if name in said else None for name in ("diameter", "depth")]
        said["kind"] = kind_named(cells["kind"], *sizes).value
    if cells.get("state"):
        state = " ".join(cells["state"].lower().split())
        if state not in _STATES:
            raise BadQuantity(
                f"state: “{cells['state']}” is not known. Write in, out, in repair or retired.", text=cells["state"]
            )
        said["state"] = _STATES[state]
    return said


def read_row(
    number: int, cells: Sequence[str], columns: Mapping[str, int], unit: str, today: date
) -> BroughtDrum | BadRow:
    """What a row says of a drum; or why it cannot be taken.

    Parameters
    ----------
    columns : by field, which column says it
    unit : of lengths without one, "in" or "mm"
    """
    named = {name: cells[at].strip() for name, at in columns.items() if at < len(cells)}
    shown = ", ".join(each for each in (named.get("tag"), named.get("name")) if each)
    if not named.get("tag"):
        return BadRow(number, "tag: it is missing; nobody could tell which drum that is.", shown)
    try:
        on_it = {
            place: (named[place], since_when(named.get(f"{place}_since", ""), today))
            for place in _SIDES
            if named.get(place)
        }
        return BroughtDrum(number, named["tag"], _form(named, unit), on_it)
    except BadQuantity as error:
        return BadRow(number, error.message, shown)
