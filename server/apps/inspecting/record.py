"""What the record says of drums before they are looked at."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from datetime import datetime
from itertools import pairwise
from typing import Any, Final

from django.db import connection
from django.utils import timezone

from apps.bench.models import DrumFinding
from apps.heads.models import Fitting
from apps.history.models import LogEntry, PitchRecord
from apps.inspecting.models import WalkDrum
from apps.register.models import Drum
from apps.register.sides import sides_of
from apps.workshops.models import Workshop
from apps.workshops.schemas import to_lives
from drumwork.condition import months_between
from drumwork.deciding import HeadSeen
from drumwork.drums import DrumKind, Side, traits_of
from drumwork.inspecting import HeadVisit, Known, Spot, Standing, falls, turned_again
from drumwork.rods.layout import RodLayout

__all__ = ["fitted_on", "known_of", "layouts_of", "open_findings", "records_of"]

_VISITS: Final = 4
WEEK_S: Final = 7 * 86_400.0


def layouts_of(drum: Drum) -> dict[Side, RodLayout]:
    """The rods a drum is made with, lost ones too: a lost one can be seen to be missing. None on a rope drum."""
    if not traits_of(drum.kind).rods:
        return {}
    return {
        each.side: RodLayout(
            each.rods,
            beside_bed=frozenset(drum.bed_rods) if each.side is Side.RESONANT else frozenset(),
            beside_port=frozenset(drum.port_rods) if each.side is Side.RESONANT else frozenset(),
        )
        for each in sides_of(drum)
    }


def _turned(row: LogEntry) -> tuple[tuple[int, int], ...]:
    rounds = row.record.get("rounds") or []
    first = rounds[0].get("turns_32", {}) if rounds else {}
    return tuple((int(rod), int(amount)) for rod, amount in first.items() if amount)


def _visits(drums: Sequence[Drum]) -> dict[tuple[int, str], list[HeadVisit]]:
    """Per drum and side, what each visit since the head that is on found and turned, oldest first."""
    since = dict[tuple[int, str], datetime]()
    for key, side, at in Fitting.objects.filter(drum__in=drums, retired_at__isnull=True).values_list(
        "drum_id", "side", "fitted_at"
    ):
        since[key, side] = at
    found: dict[tuple[int, str], list[tuple[datetime, HeadVisit]]] = defaultdict(list)
    pitches: dict[tuple[int, str], list[PitchRecord]] = defaultdict(list)
    for row in PitchRecord.objects.filter(drum__in=drums).order_by("drum", "side", "at"):
        if row.at >= since.get((row.drum_id, row.side), row.at):
            pitches[row.drum_id, row.side].append(row)
    for head, rows in pitches.items():
        for left, later in pairwise(rows):
            if later.job_id != left.job_id or later.job_id is None:
                found[head].append((later.at, HeadVisit(left.mean_hz, later.mean_hz)))
    for entry in LogEntry.objects.filter(drum__in=drums, side__in=["batter", "resonant"]).order_by("at"):
        if entry.at >= since.get((entry.drum_id, entry.side), entry.at) and (turned := _turned(entry)):
            found[entry.drum_id, entry.side].append((entry.at, HeadVisit(None, None, turned)))
    return {head: [visit for _, visit in sorted(rows, key=lambda each: each[0])] for head, rows in found.items()}


_FALLS: Final = """
    select d.kind, p.side, percentile_cont(0.5) within group (order by p.cents) from (
        select drum_id, side, 1200 * ln(lag(mean_hz) over w / mean_hz) / ln(2) as cents, job_id,
            lag(job_id) over w as before from history_pitchrecord window w as (partition by drum_id, side order by at)
    ) p join register_drum d on d.id = p.drum_id
    where p.cents is not null and (p.job_id is null or p.job_id is distinct from p.before) and p.cents > 0
    and d.kind = any(%s) group by d.kind, p.side"""


def _kind_falls(kinds: Iterable[str]) -> dict[tuple[str, str], float]:
    """By how many cents heads of a kind of drum usually fell between visits, in this workshop."""
    with connection.cursor() as cursor:
        cursor.execute(_FALLS, [sorted(set(kinds))])
        return {(kind, side): float(cents) for kind, side, cents in cursor.fetchall()}


def records_of(drums: Sequence[Drum]) -> dict[int, dict[str, Any]]:
    """By drum, what its history says of each head: how far it fell last, how far its kind does, and rods turned again and again."""
    visits, usual = _visits(drums), _kind_falls(drum.kind for drum in drums)
    records: dict[int, dict[str, Any]] = {}
    for drum in drums:
        records[drum.pk] = {}
        for side in ("batter", "resonant"):
            seen = visits.get((drum.pk, side), [])
            fell = falls(seen)
            rounds = [visit for visit in seen if visit.turned_32][-_VISITS:]
            records[drum.pk][side] = {
                "fell_cents": round(fell[-1], 1) if fell else None,
                "kind_falls_cents": round(usual[drum.kind, side], 1) if (drum.kind, side) in usual else None,
                "turned_again": turned_again(rounds),
            }
    return records


def fitted_on(drums: Iterable[Drum]) -> dict[int, dict[str, Fitting]]:
    """By drum and side, what is fitted now."""
    rows: dict[int, dict[str, Fitting]] = defaultdict(dict)
    for fitting in Fitting.objects.filter(drum__in=list(drums), retired_at__isnull=True):
        rows[fitting.drum_id][fitting.side] = fitting
    return rows


def _standing(row: DrumFinding) -> Standing:
    side = Side(row.side) if row.side else None
    spot = Spot(**row.spot) if row.spot else None
    degree = row.degree if row.degree in (1, 2, 3) else 2
    at = row.seen_at or row.found_at
    return Standing(row.finding, degree, side, row.rod, spot, row.note, row.by_name, at, row.pk)  # type: ignore[arg-type]


def _lost_rods(drum: Drum, told: Iterable[Standing]) -> list[Standing]:
    """Rods the drum's record has as lost, where no finding says so."""
    known = {(each.side, each.rod) for each in told if each.finding == "rod-missing"}
    return [
        Standing("rod-missing", 2, of.side, rod, None, "", "", timezone.now())
        for of in sides_of(drum)
        for rod in of.lost
        if (of.side, rod) not in known
    ]


def open_findings(drums: Iterable[Drum]) -> dict[int, list[Standing]]:
    """By drum, what stands on its record and is not put right."""
    drums = list(drums)
    rows: dict[int, list[Standing]] = defaultdict(list)
    for row in DrumFinding.objects.filter(drum__in=drums, put_right_at__isnull=True).order_by("found_at", "id"):
        rows[row.drum_id].append(_standing(row))
    for drum in drums:
        rows[drum.pk] += _lost_rods(drum, rows[drum.pk])
    return rows


def _hours_played(drum: Drum, on: Fitting | None, now: datetime) -> float | None:
    """How long the batter that is on was played, by what the drum usually is."""
    if on is None or on.since is None or drum.hours_week is None:
        return None
    return max(0.0, (now - on.since).total_seconds() / WEEK_S) * drum.hours_week


def known_of(of: WalkDrum, workshop: Workshop, now: datetime) -> Known:
    """The drum of a walk as the core carries a look of it."""
    drum, fitted = of.drum, fitted_on([of.drum])[of.drum_id]
    heads = {}
    for side in Side:
        on, record = fitted.get(side.value), of.record.get(side.value, {})
        heads[side] = HeadSeen(
            kind=on.head if on else "",
            hours=_hours_played(drum, on, now) if side is Side.BATTER else None,
            months=months_between(on.since.date(), now.date()) if on and on.since else None,
            fell_cents=record.get("fell_cents"),
            kind_falls_cents=record.get("kind_falls_cents"),
            turned_again=record.get("turned_again", 0),
        )
    return Known(
        DrumKind(drum.kind),
        layouts_of(drum),
        drum.badge == Drum.Badge.AT_ROD,
        heads,
        tuple(open_findings([drum])[drum.pk]),
        to_lives(workshop),
        of.walk.going_out or drum.state == Drum.State.OUT,
    )
