"""The facts Today is made from: of every group its first lines and its true count, however many drums there are."""

from __future__ import annotations

import statistics
from collections import defaultdict
from dataclasses import dataclass
from datetime import datetime, time, timedelta
from typing import Final, TypeVar

from django.db.models import Case, Count, DurationField, F, Q, QuerySet, Value, When, Window
from django.utils import timezone

from apps.bench.models import Job
from apps.followups.models import FollowUp
from apps.heads.models import Fitting
from apps.register.models import Drum
from apps.workshops.models import Workshop
from drumwork.condition import last_past_life
from drumwork.drums import Side
from drumwork.planning import AgedHead, CheckDue, JobInHand, OwedKind
from drumwork.procedures.catalogue import CATALOGUE
from drumwork.work.plan import Part

__all__ = ["PAGE", "Facts", "facts_of", "more_of", "usual_minutes"]

PAGE: Final = 40
MOST_IN_HAND: Final = 200
COMING: Final = timedelta(days=60)
MONTH: Final = timedelta(days=365.2425 / 12)
MINUTES_WHEN_NEW: Final = {work.id: work.minutes for work in CATALOGUE.values()}  # until the workshop has its own
Fact = CheckDue | JobInHand | AgedHead
Row = TypeVar("Row", FollowUp, Fitting)
Busy = dict[Side, list[int]]


@dataclass(frozen=True)
class Facts:
    """Facts to list, the drums they concern by tag, and of what is owed how many there are in truth, by group."""

    facts: list[Fact]
    drums: dict[str, Drum]
    counts: dict[OwedKind, int]


def _busy(jobs: list[Job]) -> Busy:
    """By side, the drums on whose head a job is in hand: what it was owed is being seen to."""
    found: Busy = {side: [] for side in Side}
    for job in jobs:
        for side in Part(job.part).sides:
            found[side].append(job.drum_id)
    return found


def _free(rows: QuerySet[Row], busy: Busy) -> QuerySet[Row]:
    for side, drums in busy.items():
        if drums:
            rows = rows.exclude(side=side.value, drum_id__in=drums)
    return rows


def _page(rows: QuerySet[Row], offset: int) -> tuple[list[Row], int]:
    """A page, and how many there are in all; both in one statement."""
    page = list(rows.annotate(in_all=Window(Count("*"))).select_related("drum")[offset : offset + PAGE])
    if not page and offset == 0:
        return [], 0
    return page, int(page[0].in_all) if page else 0  # type: ignore[attr-defined]


def _overdue(now: datetime, busy: Busy) -> QuerySet[FollowUp]:
    return _free(FollowUp.objects.filter(done_at__isnull=True, due_at__lte=now), busy).order_by("due_at", "id")


def _coming(now: datetime, busy: Busy) -> QuerySet[FollowUp]:
    soon = FollowUp.objects.filter(done_at__isnull=True, due_at__gt=now, due_at__lte=now + COMING)
    return _free(soon, busy).order_by("due_at", "id")


def _lives(workshop: Workshop) -> dict[str, int]:
    return {"batter": workshop.batter_life_months, "resonant": workshop.resonant_life_months}


def _aged(workshop: Workshop, now: datetime, busy: Busy) -> QuerySet[Fitting]:
    """Fitted heads past their life, those furthest past it first."""
    past, ended = Q(pk__in=[]), []
    for side, life in _lives(workshop).items():
        following = last_past_life(timezone.localdate(now), life) + timedelta(days=1)
        before = timezone.make_aware(datetime.combine(following, time.min))
        past |= Q(side=side, fitted_at__lt=before)
        ended.append(When(side=side, then=Value(life * MONTH)))
    heads = Fitting.objects.filter(past, retired_at__isnull=True).exclude(drum__state=Drum.State.RETIRED)
    over = F("fitted_at") + Case(*ended, output_field=DurationField())
    return _free(heads, busy).order_by(over, "id")


def _check(row: FollowUp) -> CheckDue:
    return CheckDue(row.drum.tag, row.side, timezone.localtime(row.due_at), row.why)


def _head(row: Fitting, lives: dict[str, int]) -> AgedHead:
    return AgedHead(row.drum.tag, row.side, row.head, timezone.localtime(row.fitted_at), lives[row.side])


def _job(job: Job) -> JobInHand:
    local = timezone.localtime
    resting = local(job.resting_until) if job.resting_until else None
    return JobInHand(job.drum.tag, str(job.id), job.where, local(job.touched_at), resting)


def _jobs() -> list[Job]:
    return list(Job.objects.filter(state="open").select_related("drum").defer("plan").order_by("-touched_at"))


def facts_of(workshop: Workshop, now: datetime) -> Facts:
    """What is in hand, and the first lines of what is owed or coming."""
    jobs = _jobs()
    busy, lives = _busy(jobs), _lives(workshop)
    (late, late_count), (aged, aged_count) = _page(_overdue(now, busy), 0), _page(_aged(workshop, now, busy), 0)
    coming, coming_count = _page(_coming(now, busy), 0)
    shown = jobs[:MOST_IN_HAND]
    rested = sum(1 for job in jobs if job.resting_until and job.resting_until <= now)
    return Facts(
        facts=[*map(_job, shown), *map(_check, [*late, *coming]), *(_head(each, lives) for each in aged)],
        drums={row.drum.tag: row.drum for row in (*shown, *late, *coming, *aged)},
        counts={
            OwedKind.OVERDUE_CHECK: late_count,
            OwedKind.RESTED: rested,
            OwedKind.AGED_HEAD: aged_count,
            OwedKind.COMING_CHECK: coming_count,
        },
    )


def more_of(kind: OwedKind, workshop: Workshop, now: datetime, offset: int) -> Facts:
    """The next lines of one group."""
    busy, lives = _busy(_jobs()), _lives(workshop)
    if kind is OwedKind.AGED_HEAD:
        heads, count = _page(_aged(workshop, now, busy), offset)
        return Facts([_head(each, lives) for each in heads], {row.drum.tag: row.drum for row in heads}, {kind: count})
    rows = _overdue(now, busy) if kind is OwedKind.OVERDUE_CHECK else _coming(now, busy)
    checks, count = _page(rows, offset)
    return Facts([_check(each) for each in checks], {row.drum.tag: row.drum for row in checks}, {kind: count})


def usual_minutes() -> dict[str, int]:
    """Median minutes of the last hundred closed jobs, by work."""
    spent: dict[str, list[float]] = defaultdict(list)
    closed = Job.objects.filter(state="closed").order_by("-closed_at").annotate(took=F("closed_at") - F("opened_at"))
    for work, took in closed.values_list("work", "took")[:100]:
        spent[work].append(took.total_seconds() / 60)
    return MINUTES_WHEN_NEW | {name: round(statistics.median(each)) for name, each in spent.items()}
