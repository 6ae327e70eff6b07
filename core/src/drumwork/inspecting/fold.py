"""From a walk's log to how each drum was found."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime

from drumwork.drums import DrumKind, Side
from drumwork.errors import BadFinding
from drumwork.findings import Degree, Place, finding, require_place
from drumwork.inspecting.entries import (
    Again,
    Changed,
    GoesOut,
    Gone,
    Looked,
    NotHere,
    Overruled,
    Seen,
    TakenBack,
    WalkEntry,
)
from drumwork.inspecting.spots import Spot
from drumwork.rods.layout import RodLayout

__all__ = ["DrumLook", "Entered", "Mark", "fold", "require_fits"]


@dataclass(frozen=True, slots=True)
class Entered:
    """An entry with its id, who made it and when."""

    id: str
    entry: WalkEntry
    by: str
    at: datetime


@dataclass(frozen=True, slots=True)
class Mark:
    """One thing seen, as it was last said."""

    event: str
    finding: str
    degree: Degree
    side: Side | None
    rod: int | None
    spot: Spot | None
    note: str
    by: str
    at: datetime


@dataclass
class DrumLook:
    """How one drum was found. `again` and `gone` are the record's own findings, still so and no longer so."""

    marks: dict[str, Mark] = field(default_factory=dict)
    again: set[int] = field(default_factory=set)
    gone: set[int] = field(default_factory=set)
    going_out: bool | None = None
    looked: Entered | None = None
    not_here: Entered | None = None
    overruled: dict[str, Entered] = field(default_factory=dict)

    @property
    def touched(self) -> bool:
        """Whether anything was said of it at all."""
        return bool(self.marks or self.again or self.gone or self.looked or self.not_here)


def _counting(log: Iterable[Entered]) -> list[Entered]:
    rows = list(log)
    undone = {each.entry.event for each in rows if isinstance(each.entry, TakenBack)}
    return [each for each in rows if each.id not in undone and not isinstance(each.entry, TakenBack)]


def fold(log: Iterable[Entered]) -> dict[str, DrumLook]:
    """How each drum was found, by tag, from entries in their order. What is undone never was."""
    looks: dict[str, DrumLook] = {}
    for each in _counting(log):
        _apply(looks.setdefault(each.entry.drum, DrumLook()), each)
    return looks


def _apply(look: DrumLook, each: Entered) -> None:
    match each.entry:
        case Seen(_, what, degree, side, rod, spot, note):
            look.marks[each.id] = Mark(each.id, what, degree, side, rod, spot, note, each.by, each.at)
            look.not_here = None
        case Changed(_, event, degree, rod, spot, note) if event in look.marks:
            was = look.marks[event]
            look.marks[event] = replace(
                was,
                degree=degree or was.degree,
                rod=was.rod if rod is None else rod,
                spot=spot or was.spot,
                note=was.note if note is None else note,
            )
        case Again(_, rows):
            look.again |= set(rows)
            look.gone -= set(rows)
        case Gone(_, rows):
            look.gone |= set(rows)
            look.again -= set(rows)
        case GoesOut(_, out):
            look.going_out = out
        case Looked():
            look.looked, look.not_here = each, None
        case NotHere():
            look.not_here = each
        case Overruled(_, part):
            look.overruled[part] = each
        case _:
            pass


def require_fits(entry: WalkEntry, kind: DrumKind, layouts: Mapping[str, RodLayout | None]) -> None:
    """Raise where an entry cannot be about such a drum. `layouts` has both sides, with their rods where they have any.

    Raises
    ------
    BadFinding
        for what is not in the vocabulary, not to be found on such a drum, or told without the side or rod it needs.
    BadLayout
        for a rod the head does not have.
    """
    if isinstance(entry, Seen):
        kind_of = finding(entry.finding)
        require_place(kind_of, kind, layouts, Place(entry.side.value if entry.side else "", entry.rod))
        if entry.degree != 2 and not kind_of.degrees:
            raise BadFinding(f"There is no more or less of it: {kind_of.words}.", finding=entry.finding)
        if entry.spot is not None and entry.side is None:
            raise BadFinding("Say on which head that spot is.", finding=entry.finding)
