"""Today, shaped for the screen."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ninja import Schema

from apps.register.models import Drum
from apps.register.schemas import KIND_WORDS
from drumwork.planning import AgedHead, CheckDue, JobInHand, Owed, OwedKind
from drumwork.procedures.new_batter_head import SUITED_KINDS

Doing = Literal["go-on", "check", "change-head", "look"]


class OwedOut(Schema):
    """One line of the list. `count` strokes of `unit`; red when `owed_now`."""

    kind: str
    tag: str
    name: str
    kind_words: str
    side: str
    reason: str
    count: int
    unit: str
    owed_now: bool
    minutes_left: int | None
    ready_at: datetime | None
    job_id: str | None
    doing: Doing
    action: str
    minutes: int | None


class Today(Schema):
    now: datetime
    owed_count: int
    work_minutes: int
    items: list[OwedOut]


def _action(item: Owed, drum: Drum, usual: dict[str, int]) -> tuple[Doing, str, int | None]:
    """The one next action, its words and how long it usually takes."""
    match item.fact:
        case JobInHand():
            return "go-on", "Clear once more" if item.kind is OwedKind.RESTED else "Go on", None
        case CheckDue():
            return "check", "Check", usual["settling-check"]
        case AgedHead(side="batter") if drum.kind in SUITED_KINDS:
            return "change-head", "Change head", usual["new-batter-head"]
        case AgedHead():
            return "look", "Look at it", None


def _shape(item: Owed, drum: Drum, usual: dict[str, int]) -> OwedOut:
    fact = item.fact
    doing, action, minutes = _action(item, drum, usual)
    return OwedOut(
        kind=item.kind,
        tag=drum.tag,
        name=drum.name,
        kind_words=KIND_WORDS[drum.kind],
        side="" if isinstance(fact, JobInHand) else fact.side,
        reason=item.reason,
        count=item.count,
        unit=item.unit,
        owed_now=item.owed_now,
        minutes_left=item.minutes_left,
        ready_at=fact.resting_until
        if isinstance(fact, JobInHand)
        else (fact.due if isinstance(fact, CheckDue) else None),
        job_id=fact.job if isinstance(fact, JobInHand) else None,
        doing=doing,
        action=action,
        minutes=minutes,
    )


def shape_today(items: list[Owed], drums: dict[str, Drum], usual: dict[str, int], now: datetime) -> Today:
    lines = [_shape(item, drums[item.fact.drum], usual) for item in items]
    owed = [line for line in lines if line.owed_now]
    return Today(now=now, owed_count=len(owed), work_minutes=sum(line.minutes or 0 for line in owed), items=lines)
