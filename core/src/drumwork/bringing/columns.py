"""What a column of somebody's list may mean."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

__all__ = ["FIELDS", "NEEDED", "Field", "guess", "lacking"]


@dataclass(frozen=True, slots=True)
class Field:
    """What a column can say. `also`: other headings it is recognised by, in small letters."""

    name: str
    words: str
    also: tuple[str, ...] = ()


FIELDS: Final[Mapping[str, Field]] = {
    each.name: each
    for each in (
        Field("tag", "tag", ("id", "no", "no.", "nr", "number", "asset", "asset no", "inventory", "inventory no", "code", "label")),
        Field("name", "name", ("drum", "called", "item", "description", "model")),
        Field("kind", "kind of drum", ("kind", "type", "category", "sort", "instrument")),
        Field("size", "size, as 14 x 5 1/2", ("size", "dimensions", "diameter x depth", "diameter × depth")),
        Field("diameter", "diameter", ("width", "dia", "dia.", "ø", "d")),
        Field("depth", "depth", ("height", "h")),
        Field("rods", "rods, both sides", ("rods", "lugs", "tension rods", "number of lugs", "no of lugs")),
        Field("rods_batter", "rods, batter", ("batter rods", "top lugs", "batter lugs")),
        Field("rods_resonant", "rods, resonant", ("resonant rods", "bottom lugs", "resonant lugs")),
        Field("shell", "shell", ("wood", "material", "shell material")),
        Field("hoops", "hoops", ("hoop", "rims", "rim")),
        Field("thread", "thread", ("threads", "rod thread")),
        Field("place", "place", ("location", "room", "where", "shelf", "store")),
        Field("owner", "owner", ("belongs to", "whose", "owned by", "property of")),
        Field("kits", "kits", ("kit", "set", "sets")),
        Field("state", "state", ("status",)),
        Field("hours_week", "hours a week", ("hours", "hours per week")),
        Field("note", "note", ("notes", "remark", "remarks", "comment", "comments")),
        Field("batter", "batter head", ("batter", "top head", "head", "beater head", "batter head now")),
        Field("batter_since", "batter head since", ("batter since", "batter fitted", "batter date", "head since", "head date", "head changed")),
        Field("resonant", "resonant head", ("resonant", "bottom head", "reso", "reso head", "snare side", "snare side head")),
        Field("resonant_since", "resonant head since", ("resonant since", "resonant fitted", "resonant date", "reso since")),
        Field("wires", "snare wires", ("wires", "snares")),
        Field("wires_since", "snare wires since", ("wires since", "wires fitted", "wires date")),
        Field("wanted_batter", "usual pitch, batter", ("batter pitch", "pitch", "note batter")),
        Field("wanted_resonant", "usual pitch, resonant", ("resonant pitch", "reso pitch")),
    )
}  # fmt: skip

NEEDED: Final = ("tag", "name", "kind", "size", "rods")
"""What no drum is entered without; `size` may be two columns, and `rods` too."""
_INSTEAD: Final = {"size": ("diameter", "depth"), "rods": ("rods_batter", "rods_resonant")}


_ITS_DAY: Final = (
    "since",
    "changed",
    "date",
    "date changed",
    "changed on",
    "last changed",
    "fitted",
    "fitted on",
    "date fitted",
    "age",
    "when",
)
"""Right after a head or wires, such a heading tells since when that is on."""


def _said(header: str) -> str:
    return " ".join(header.lower().replace("_", " ").split()).rstrip(":")


def guess(header: Sequence[str]) -> dict[str, int]:
    """By field, which column seems to say it: by its own words, else by a heading such lists use; the first that fits.

    >>> guess(["Asset", "Drum", "Type", "Size", "Lugs", "Colour"])
    {'tag': 0, 'name': 1, 'kind': 2, 'size': 3, 'rods': 4}
    >>> guess(["Tag", "Top head", "Changed", "Bottom head", "Changed"])
    {'tag': 0, 'batter': 1, 'resonant': 3, 'batter_since': 2, 'resonant_since': 4}
    """
    said = [_said(each) for each in header]
    found: dict[str, int] = {}
    for field in FIELDS.values():
        own = (field.name.replace("_", " "), field.words)
        for words in (*own, *field.also):
            if words in said and said.index(words) not in found.values():
                found[field.name] = said.index(words)
                break
    for place in ("batter", "resonant", "wires"):
        after = found.get(place, len(said)) + 1
        if (
            f"{place}_since" not in found
            and after < len(said)
            and said[after] in _ITS_DAY
            and after not in found.values()
        ):
            found[f"{place}_since"] = after
    return found


def lacking(known: Collection[str]) -> list[str]:
    """What is needed and no column says, in words; a drum that is there already needs its tag alone.

    >>> lacking({"tag", "name", "kind", "diameter", "depth"})
    ['rods, both sides']
    """
    return [
        FIELDS[name].words
        for name in NEEDED
        if name not in known and not all(each in known for each in _INSTEAD.get(name, (name,)))
    ]
