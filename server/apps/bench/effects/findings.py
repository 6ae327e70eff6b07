"""Findings go into the drum's record: owed as a repair, a part or a look, or put right on the bench."""

from __future__ import annotations

from apps.bench.effects.closing import Closing
from apps.bench.models import DrumFinding
from apps.register.sides import SideOf
from drumwork.drums import Side
from drumwork.findings import Where, finding
from drumwork.work.effects import CarryFindings
from drumwork.work.state import LOST, FoundMark

__all__ = ["carry_findings"]


def _row(closing: Closing, mark: FoundMark, retired: frozenset[str]) -> DrumFinding:
    kind = finding(mark.finding)
    off = kind.where is Where.HEAD and mark.place.side in retired  # it went with the old head
    return DrumFinding(
        workshop_id=closing.job.workshop_id,
        drum=closing.job.drum,
        finding=mark.finding,
        side=mark.place.side,
        rod=mark.place.rod,
        degree=mark.degree,
        note=mark.note,
        owed=kind.follow.value,
        part=kind.part,
        found_at=mark.at,
        by_name=mark.by,
        job=closing.job,
        put_right_at=closing.now if mark.put_right or off else None,
    )


def carry_findings(closing: Closing, effect: CarryFindings) -> None:
    plan, drum = closing.state.plan, closing.job.drum
    retired = frozenset(side.value for side in plan.sides) if plan.changes_heads else frozenset()
    marks = list(closing.state.found.values())
    DrumFinding.objects.bulk_create([_row(closing, mark, retired) for mark in marks])
    for side in Side:
        rods = {m.place.rod for m in marks if m.finding == LOST and m.place.side == side.value and not m.put_right}
        if lost := {rod for rod in rods if rod is not None}:
            of = SideOf(drum, side)
            of.set_lost([*set(of.lost) | lost])
            drum.save(update_fields=[f"lost_{side.value}"])
