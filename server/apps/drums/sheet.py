"""Named reads: everything a drum sheet shows."""

from __future__ import annotations

from datetime import datetime
from typing import NamedTuple, cast

from apps.bench.models import Job
from apps.bench.selectors import offers_of, standing_findings
from apps.bench.shapes import left_so
from apps.drums.sheet_schemas import Dated, FittedOut, FittingMark, LogOut, PitchOut, Sheet, WiresOut
from apps.followups.models import FollowUp
from apps.heads.models import Fitting
from apps.history.models import LogEntry, PitchRecord
from apps.register.models import Drum
from apps.register.schemas import KIND_WORDS, length_words, size_words
from apps.register.sides import SideOf
from apps.workshops.models import Workshop
from apps.workshops.schemas import to_ways
from drumwork.condition import months_between, months_past_life
from drumwork.drums import Side
from drumwork.quantities import Interval, Pitch
from drumwork.rods.clearing import at_pitch
from drumwork.work.plan import Part

__all__ = ["sheet_of"]
LOG_LENGTH = 60


class _Facts(NamedTuple):
    """Rows of one drum, read once."""

    fittings: list[Fitting]
    pitches: list[PitchRecord]
    due: list[FollowUp]
    jobs: list[Job]


def _cents(hz: float, wanted: float | None) -> float | None:
    return round(Interval.from_ratio(hz / wanted).cents, 1) if wanted else None


def _even(pitch: PitchRecord | None, workshop: Workshop) -> bool | None:
    """By the workshop's own rule; None where no round was read."""
    if pitch is None or pitch.spread_hz is None:
        return None
    return pitch.spread_hz <= to_ways(workshop).even.allowed_hz(pitch.mean_hz) + 0.05


def _side(drum: Drum, side: str, facts: _Facts, workshop: Workshop, now: datetime) -> FittedOut:
    fitted = next((f for f in facts.fittings if f.side == side and f.retired_at is None), None)
    pitch = next((p for p in reversed(facts.pitches) if p.side == side), None)
    due = next((d for d in facts.due if d.side == side), None)
    job = next((j for j in facts.jobs if Side(side) in Part(j.part).sides), None)
    of = SideOf(drum, Side(side))
    wanted = of.wanted_hz
    life = getattr(workshop, f"{side}_life_months")
    return FittedOut(
        side=of.side,
        head=fitted.head if fitted else None,
        since=fitted.fitted_at if fitted else None,
        dated=cast(Dated, fitted.dated) if fitted else "known",
        by=fitted.fitted_by_name if fitted else "",
        rods=of.rods,
        lost=of.lost,
        mean_hz=pitch.mean_hz if pitch else None,
        note=Pitch(pitch.mean_hz).note(workshop.a4_hz) if pitch else "",
        spread_hz=pitch.spread_hz if pitch else None,
        wanted_hz=wanted,
        cents_off=_cents(pitch.mean_hz, wanted) if pitch else None,
        even=_even(pitch, workshop),
        at_pitch=at_pitch(pitch.mean_hz, wanted) if pitch and wanted else None,
        left_so=bool(pitch and pitch.left_so),
        months_old=months_between(fitted.fitted_at.date(), now.date()) if fitted else 0,
        months_past=months_past_life(fitted.fitted_at.date(), now.date(), life) if fitted else 0,
        check_due=due.due_at if due else None,
        check_overdue=bool(due and due.due_at <= now),
        job_id=str(job.id) if job else None,
        job_where=job.where if job else "",
    )


def _pitch(row: PitchRecord, drum: Drum) -> PitchOut:
    wanted = row.wanted_hz or SideOf(drum, Side(row.side)).wanted_hz or row.mean_hz
    half = (row.spread_hz or 0) / 2
    spread = Interval.from_ratio((row.mean_hz + half) / (row.mean_hz - half)).cents if half < row.mean_hz else 0.0
    return PitchOut(
        side=row.side,
        at=row.at,
        mean_hz=row.mean_hz,
        cents=_cents(row.mean_hz, wanted) or 0.0,
        spread_cents=round(spread, 1),
    )


def _log(row: LogEntry) -> LogOut:
    return LogOut(
        id=row.pk,
        at=row.at,
        kind=row.kind,
        side=row.side,
        text=row.text,
        outcome=row.outcome,
        by=row.by_name,
        job_id=str(row.job_id) if row.job_id else None,
        record=row.record,
    )


def _wires(facts: _Facts) -> WiresOut | None:
    fitted = next((f for f in facts.fittings if f.side == "wires" and f.retired_at is None), None)
    return (
        WiresOut(name=fitted.head, since=fitted.fitted_at, dated=cast(Dated, fitted.dated), by=fitted.fitted_by_name)
        if fitted
        else None
    )


def sheet_of(drum: Drum, workshop: Workshop, now: datetime) -> Sheet:
    """One drum's sheet, in the workshop's units."""
    facts = _Facts(
        list(Fitting.objects.filter(drum=drum)),
        list(PitchRecord.objects.filter(drum=drum).order_by("at")),
        list(FollowUp.objects.filter(drum=drum, done_at__isnull=True).order_by("due_at")),
        list(Job.objects.filter(drum=drum, state="open")),
    )
    unit = workshop.length_unit
    sides = ["batter", "resonant"]
    return Sheet(
        **{
            name: getattr(drum, name)
            for name in ["tag", "name", "kind", "shell", "state", "thread", "hoops", "snare_bed", "badge", "note"]
        },
        kind_words=KIND_WORDS[drum.kind],
        size=size_words(drum.diameter_m, drum.depth_m, unit),
        place=drum.place.name,
        owner=drum.owner.name,
        kits=[kit.name for kit in drum.kits.all()],
        port=f"{length_words(drum.port_m, unit)} {unit}" if drum.port_m else "",
        work=offers_of(drum),
        findings=standing_findings(drum),
        kept=left_so(drum),
        sides=[_side(drum, side, facts, workshop, now) for side in sides],
        wires=_wires(facts),
        pitches=[_pitch(row, drum) for row in facts.pitches],
        fittings=[FittingMark(side=f.side, at=f.fitted_at, head=f.head) for f in reversed(facts.fittings)],
        log=[_log(row) for row in LogEntry.objects.filter(drum=drum)[:LOG_LENGTH]],
    )
