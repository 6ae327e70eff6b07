"""A walk through the theatre pit store, half done: some of it decided, some of it planned, made by sending the entries a device would send."""

from __future__ import annotations

import uuid
from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import Any, Final

from django.utils import timezone

from apps.demo.build import NAMESPACE
from apps.inspecting.flows import start_walk, take_in
from apps.inspecting.models import Verdict, Walk
from apps.inspecting.schemas import WalkEventIn, WalkIn
from apps.planned.flows import Wanted, plan_work
from apps.planned.models import PlannedJob
from apps.register.models import Drum
from apps.workshops.models import Membership
from drumwork.work.plan import Part

__all__ = ["walks"]

SHELF: Final = ("Grebe", "Smew", "Turnstone", "Puffin", "Moorhen", "Knot", "Tug", "Barge")


def _seen(finding: str, degree: int = 2, **more: Any) -> dict[str, Any]:
    return {"kind": "seen", "finding": finding, "degree": degree, **more}


SEEN: Final[Mapping[str, Sequence[dict[str, Any]]]] = {
    "Grebe": (_seen("dents", 1, side="batter", spot={"x": -0.3, "y": 0.4}),),
    "Smew": (
        _seen("dents", 3, side="batter", spot={"x": 0.05, "y": -0.1}),
        _seen("rattle", 1),
    ),
    "Turnstone": (_seen("dents", 3, side="resonant", spot={"x": 0.2, "y": 0.1}), {"kind": "goes_out", "out": True}),
    "Puffin": (_seen("mount-loose", 1),),
    "Moorhen": (),
}


def walks(drums: dict[str, Drum], members: list[Membership], now: datetime) -> None:
    """Five of eight looked at: two still to decide, one job due yesterday and one that is coming."""
    bram, at = members[1], now - timedelta(hours=20)
    key = uuid.uuid5(NAMESPACE, "walk")
    walk = start_walk(
        WalkIn.model_validate({"id": key, "name": "pit store", "tags": [drums[name].tag for name in SHELF]}), bram
    )
    events: list[WalkEventIn] = []
    for name, said in SEEN.items():
        for body in (*said, {"kind": "looked"}):
            at += timedelta(seconds=14)
            facts = {
                "id": uuid.uuid5(NAMESPACE, f"walk {len(events)}"), "device": "demo-phone", "seen": 0, "made_at": at, "v": 1,
                "body": {"drum": drums[name].tag, **body},
            }  # fmt: skip
            events.append(WalkEventIn.model_validate(facts))
    _, receipts = take_in(walk.pk, events, bram)
    if bad := [each for each in receipts if each.standing != "applied"]:
        raise RuntimeError(f"The demo's own entry was not taken: {bad[0].message}")
    Walk.objects.filter(pk=key).update(started_at=now - timedelta(hours=20), touched_at=at)
    _plan(drums["Puffin"], "hardware-service", Part.HARDWARE, -1, now, bram)
    _plan(drums["Grebe"], "settling-check", Part.BATTER, 5, now, bram)


def _plan(drum: Drum, work: str, part: Part, days: int, now: datetime, member: Membership) -> None:
    due = timezone.localdate(now) + timedelta(days=days)
    row = plan_work(
        Wanted(uuid.uuid5(NAMESPACE, f"plan {drum.tag}"), drum, work, part, due, "looked at in the pit store", {}),
        member,
    )
    PlannedJob.objects.filter(pk=row.pk).update(made_at=now - timedelta(hours=19))
    Verdict.objects.filter(drum=drum).update(answered_at=now - timedelta(hours=19))
