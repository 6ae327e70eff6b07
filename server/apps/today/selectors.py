"""The facts Today is made from."""

from __future__ import annotations

import statistics
from collections import defaultdict

from django.db.models import F
from django.utils import timezone

from apps.bench.models import Job
from apps.followups.models import FollowUp
from apps.heads.models import Fitting
from apps.register.models import Drum
from apps.workshops.models import Workshop
from drumwork.planning import AgedHead, CheckDue, JobInHand
from drumwork.procedures.catalogue import CATALOGUE
from drumwork.work.plan import Part

__all__ = ["facts_of", "usual_minutes"]

Fact = CheckDue | JobInHand | AgedHead
MINUTES_WHEN_NEW = {work.id: work.minutes for work in CATALOGUE.values()}  # until the workshop has its own


def facts_of(workshop: Workshop) -> tuple[list[Fact], dict[str, Drum]]:
    """Open checks, jobs in hand and fitted heads, with the drums they concern by tag."""
    local = timezone.localtime
    life = {"batter": workshop.batter_life_months, "resonant": workshop.resonant_life_months}
    jobs = list(Job.objects.filter(state="open").select_related("drum").defer("plan"))
    checks = list(FollowUp.objects.filter(done_at__isnull=True).select_related("drum"))
    heads = list(
        Fitting.objects.filter(retired_at__isnull=True, side__in=list(life))
        .exclude(drum__state=Drum.State.RETIRED)
        .select_related("drum")
    )
    concerned = [*(j.drum for j in jobs), *(c.drum for c in checks), *(h.drum for h in heads)]
    drums = {drum.tag: drum for drum in concerned}
    busy = {(job.drum_id, side.value) for job in jobs for side in Part(job.part).sides}
    facts: list[Fact] = [
        JobInHand(
            job.drum.tag,
            str(job.id),
            job.where,
            local(job.touched_at),
            local(job.resting_until) if job.resting_until else None,
        )
        for job in jobs
    ]
    facts += [CheckDue(c.drum.tag, c.side, local(c.due_at), c.why) for c in checks if (c.drum_id, c.side) not in busy]
    facts += [
        AgedHead(f.drum.tag, f.side, f.head, local(f.fitted_at), life[f.side])
        for f in heads
        if (f.drum_id, f.side) not in busy
    ]
    return facts, drums


def usual_minutes() -> dict[str, int]:
    """Median minutes of the last hundred closed jobs, by work."""
    spent: dict[str, list[float]] = defaultdict(list)
    closed = Job.objects.filter(state="closed").order_by("-closed_at").annotate(took=F("closed_at") - F("opened_at"))
    for work, took in closed.values_list("work", "took")[:100]:
        spent[work].append(took.total_seconds() / 60)
    return MINUTES_WHEN_NEW | {name: round(statistics.median(each)) for name, each in spent.items()}
