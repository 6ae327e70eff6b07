"""What is left after a call-out becomes planned work, by the same rules as after a look."""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from datetime import date, timedelta

from django.db import transaction
from django.utils import timezone

from apps.bench.models import DrumFinding
from apps.callouts.models import CallOut, CallOutDrum
from apps.callouts.schemas import WorkOfCallOut
from apps.inspecting.models import Walk, WalkDrum
from apps.inspecting.record import known_of, records_of
from apps.planned.flows import Wanted, plan_work
from apps.register.sides import facts_of
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.deciding import Drum, Verdict, decide
from drumwork.errors import DrumworkError
from drumwork.inspecting import drum_of, works_for
from drumwork.procedures.catalogue import work_named

__all__ = ["plan_callout_works"]


def _decided(each: CallOutDrum, member: Membership) -> tuple[Drum, Mapping[str, Verdict]]:
    """The drum with what stands on its record, and what that comes to."""
    walk = Walk(workshop=member.workshop, going_out=False)
    of = WalkDrum(workshop=member.workshop, walk=walk, drum=each.drum, record=records_of([each.drum])[each.drum_id])
    known = known_of(of, member.workshop, timezone.now())
    drum = drum_of(known, known.findings)
    return drum, decide(drum).verdicts


@transaction.atomic
def plan_callout_works(callout: CallOut, due_on: date, member: Membership) -> WorkOfCallOut:
    """Plan the work for every drum with something left; asked twice, it is planned once.

    Raises
    ------
    Refused
        for a day that is past, or too far off.
    """
    today = timezone.localdate()
    if not today - timedelta(days=1) <= due_on <= today + timedelta(days=730):
        raise Refused("bad_date", "Choose a day from today on, within two years.", 422, due_on="From today on.")
    planned, words = 0, list[str]()
    for each in CallOutDrum.objects.filter(callout=callout).select_related("drum"):
        if not DrumFinding.objects.filter(drum=each.drum, put_right_at__isnull=True).exists():
            continue
        facts = facts_of(each.drum)
        drum, verdicts = _decided(each, member)
        works = works_for(drum, verdicts, facts)
        if not works:
            words.append(f"{each.drum.name}: nothing of the workshop’s own answers it; it is for the note.")
        for work in works:
            key = uuid.uuid5(callout.pk, f"{each.tag} {work.work} {work.part.value}")
            try:
                with transaction.atomic():
                    plan_work(Wanted(key, each.drum, work.work, work.part, due_on, callout.name[:200], {}), member)
                planned += 1
                words.append(f"{each.drum.name}: {work_named(work.work).titled(work.part)}")
            except (Refused, DrumworkError) as error:
                words.append(f"{each.drum.name}: {error.message}")
    return WorkOfCallOut(planned=planned, words=words)
