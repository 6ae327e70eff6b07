"""Pitches: what was read last, how the head answered, what it is wanted at."""

from __future__ import annotations

from apps.bench.answers import keep_answer
from apps.bench.effects.closing import Closing
from apps.history.models import PitchRecord
from apps.register.sides import SideOf
from drumwork.rods.clearing import at_pitch
from drumwork.work.effects import KeepAnswer, KeepTarget, RecordPitch

__all__ = ["keep_how_it_answered", "keep_target", "record_pitch"]


def record_pitch(closing: Closing, effect: RecordPitch) -> None:
    lap = closing.state.last_read(effect.side)
    found = lap.left_hz() if lap else None
    if lap is None or found is None:
        return
    asked = closing.state.target(effect.side)
    held = lap.plan.value.wanted if lap.plan and lap.plan.value.unit == "Hz" else None
    wanted = asked.hz if asked else held
    PitchRecord.objects.create(
        workshop_id=closing.job.workshop_id,
        drum=closing.job.drum,
        side=effect.side.value,
        at=closing.now,
        mean_hz=found[0],
        spread_hz=found[1],
        wanted_hz=wanted,
        left_so=asked is not None and not at_pitch(found[0], asked.hz),
        job_id=closing.job.id,
    )


def keep_how_it_answered(closing: Closing, effect: KeepAnswer) -> None:
    keep_answer(closing.job, closing.state, effect.side)


def keep_target(closing: Closing, effect: KeepTarget) -> None:
    """Only where the drum had no usual pitch: a job's wish does not move what a drum is usually wanted at."""
    drum, target = closing.job.drum, closing.state.target(effect.side)
    if target is not None and SideOf(drum, effect.side).wanted_hz is None:
        setattr(drum, f"wanted_{effect.side.value}_hz", target.hz)
        drum.save(update_fields=[f"wanted_{effect.side.value}_hz"])
