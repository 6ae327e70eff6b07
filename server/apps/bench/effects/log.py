"""The line in the drum's history, with the particulars that lie behind it."""

from __future__ import annotations

from typing import Any

from apps.bench.effects.answers import answer_words
from apps.bench.effects.closing import Closing
from apps.history.models import LogEntry
from drumwork.drums import Side
from drumwork.work.effects import Log
from drumwork.work.history import checked_words, done_words, fitted_words
from drumwork.work.rounds import Lap

__all__ = ["record_of", "write_log"]


def _round(lap: Lap, side: Side, named: bool) -> dict[str, Any]:
    plan = lap.plan.value if lap.plan else None
    return {
        **({"side": side.value} if named else {}),
        "readings_hz": {str(rod): mark.value.hz for rod, mark in lap.readings.items()},
        "ear": {str(rod): mark.value for rod, mark in lap.ear.items()},
        "numbers": {str(rod): mark.value for rod, mark in lap.numbers.items()},
        "turns_32": {str(rod): mark.value.thirtyseconds for rod, mark in lap.turned.items() if mark.value},
        "between": [[tap.rod, tap.value] for tap in lap.between],
        "spread_hz": plan.spread if plan and plan.unit == "Hz" else None,
        "mean_hz": plan.mean if plan and plan.unit == "Hz" else None,
    }


def _durations(closing: Closing) -> list[dict[str, Any]]:
    """Minutes from the end of one step to the end of the next."""
    before, found = closing.job.opened_at, []
    for step in closing.state.steps:
        if mark := closing.state.done.get(step.id):
            minutes = round(max(0.0, (mark.at - before).total_seconds() / 60), 1)
            found.append({"step": step.title, "minutes": minutes})
            before = max(before, mark.at)
    return found


def record_of(closing: Closing) -> dict[str, Any]:
    """The particulars that go into the history."""
    state, sides = closing.state, closing.state.plan.sides
    named = len(sides) > 1
    heads = {side: closing.heads[side] for side in sides if side in closing.heads}
    first = next(iter(heads.values()), None)
    tallies = {side: state.tally(side) or {} for side in sides}
    record: dict[str, Any] = {
        "tally_32": {str(rod): t.thirtyseconds for side in sides[:1] for rod, t in tallies[side].items()},
        "rounds": [_round(lap, side, named) for side in sides for lap in state.rounds(side)],
        "durations": _durations(closing),
        "people": sorted({each.by for each in state.live}),
        "new_head": first.new_head if first else "",
        "old_head": first.old_head if first else "",
        "reason": first.reason if first else "",
        "notes": [mark.value for mark in state.notes],
        "answers": {
            question.words: answer_words(question, mark.value, state.plan.ways.a4_hz)
            for step in state.steps
            for question in step.asks
            if (mark := state.answers.get(question.name))
        },
        "findings": [
            {"finding": m.finding, "place": m.place.words(), "degree": m.degree, "note": m.note, "put_right": m.put_right}
            for m in state.found.values()
        ],
    }  # fmt: skip
    if named:
        record["heads"] = {
            side.value: {
                "new_head": head.new_head,
                "old_head": head.old_head,
                "reason": head.reason,
                "tally_32": {str(rod): turns.thirtyseconds for rod, turns in tallies[side].items()},
            }
            for side, head in heads.items()
        }
    return record


def write_log(closing: Closing, effect: Log) -> None:
    job, state = closing.job, closing.state
    match effect.words:
        case "fitted":
            text, outcome = fitted_words(state, {side: head.reason for side, head in closing.heads.items()})
        case "checked":
            text, outcome = checked_words(state, effect.title)
        case "done":
            text, outcome = done_words(state, effect.title)
    LogEntry.objects.create(
        workshop_id=job.workshop_id,
        drum=job.drum,
        at=closing.now,
        kind=job.work,
        side=closing.log_side,
        text=text[:300],
        outcome=outcome[:120],
        by_name=closing.member.shown_name,
        job_id=job.id,
        record=record_of(closing),
    )
