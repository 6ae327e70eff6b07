"""What a look comes to: the findings that stand on a drum now, and the drum as it is decided about."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime

from drumwork.deciding import Drum, HeadSeen, Lives
from drumwork.deciding import Seen as Evidence
from drumwork.deciding.evidence import routed
from drumwork.drums import DrumKind, Side
from drumwork.findings import FINDINGS, Degree, Place, findings_for
from drumwork.inspecting.fold import DrumLook
from drumwork.inspecting.spots import Spot, spot_words
from drumwork.rods.layout import RodLayout

__all__ = ["Known", "Standing", "carried", "drum_of"]


@dataclass(frozen=True, slots=True)
class Standing:
    """One finding that stands on a drum: `row` of the record, `event` of this walk, or both where a look says again what is on record."""

    finding: str
    degree: Degree
    side: Side | None
    rod: int | None
    spot: Spot | None
    note: str
    by: str
    at: datetime
    row: int | None = None
    event: str | None = None

    @property
    def key(self) -> tuple[str, Side | None, int | None]:
        return self.finding, self.side, self.rod


@dataclass(frozen=True)
class Known:
    """What the record says of a drum before it is looked at."""

    kind: DrumKind
    layouts: Mapping[Side, RodLayout]
    badge_at_rod: bool = False
    heads: Mapping[Side, HeadSeen] = field(default_factory=dict)
    findings: tuple[Standing, ...] = ()
    lives: Lives = field(default_factory=Lives)
    out: bool = False


def _same(one: Standing, other: Standing) -> bool:
    """Whether two people, or two looks, speak of the same thing: by what and where, and apart only where both say a spot, and not one."""
    if one.key != other.key:
        return False
    if one.spot is None or other.spot is None:
        return True
    return (one.spot.x - other.spot.x) ** 2 + (one.spot.y - other.spot.y) ** 2 < 0.35**2


def carried(known: Known, look: DrumLook) -> tuple[Standing, ...]:
    """What stands on the drum after this look: the record's findings that are not gone, and what was seen.

    The same thing seen by two people counts once, as the worse of the two; seen again after an earlier visit, as it is said now.
    """
    stands = [each for each in known.findings if each.row not in look.gone]
    for mark in look.marks.values():
        said = Standing(
            mark.finding, mark.degree, mark.side, mark.rod, mark.spot, mark.note, mark.by, mark.at, event=mark.event
        )
        before = next((n for n, each in enumerate(stands) if _same(each, said)), None)
        if before is None:
            stands.append(said)
            continue
        first = stands[before]
        degree = said.degree if first.event is None else max(first.degree, said.degree)
        event = first.event or said.event
        stands[before] = replace(said, degree=degree, row=first.row, event=event, note=said.note or first.note)
    return tuple(stands)


def _evidence(known: Known, each: Standing) -> Evidence:
    layout = known.layouts.get(each.side) if each.side else None
    words = spot_words(each.spot, layout, known.badge_at_rod)
    bed = layout is not None and each.rod in layout.beside_bed
    near = words or ("beside the snare bed" if bed else "")
    return Evidence(each.finding, each.degree, Place(each.side.value if each.side else "", each.rod), near)


def drum_of(known: Known, stands: Iterable[Standing], going_out: bool | None = None) -> Drum:
    """The drum as rules decide about it: its record, and what stands on it."""
    possible = {row.id for row in findings_for(known.kind)}
    parts: dict[str, list[Evidence]] = {}
    for each in stands:
        if each.finding not in possible:  # the drum's kind was changed since
            continue
        where = FINDINGS[each.finding].where
        section = "head" if each.side else where.value
        for part, seen in routed([(each.side, _evidence(known, each))], section).items():
            parts.setdefault(part, []).extend(seen)
    heads = {side: replace(known.heads.get(side, HeadSeen()), seen=tuple(parts.get(side.value, ()))) for side in Side}
    rods = max((layout.count for layout in known.layouts.values()), default=0)
    wires = tuple(parts.get("wires", ()))
    drum = Drum(
        known.kind,
        rods,
        heads,
        None,
        tuple(parts.get("hardware", ())),
        known.out if going_out is None else going_out,
        known.lives,
    )
    return replace(drum, wires=wires) if drum.traits.wires else drum
