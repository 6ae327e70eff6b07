"""Today, shaped for the screen."""

from __future__ import annotations

from datetime import datetime
from typing import Literal, NamedTuple

from ninja import Schema

from apps.bench.schemas import WorkName
from apps.register.models import Drum
from apps.register.schemas import KIND_WORDS
from apps.register.sides import facts_of
from drumwork.drums import Side
from drumwork.planning import AgedHead, CheckDue, JobInHand, Owed, OwedKind
from drumwork.procedures.catalogue import check_for, head_change_for
from drumwork.work.plan import Part

Doing = Literal["go-on", "start"]


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
    work: WorkName | Literal[""]
    part: Part | None
    minutes: int | None


class Today(Schema):
    """`copies`: a sentence when the last backup is older than the workshop wants, else empty."""

    now: datetime
    owed_count: int
    work_minutes: int
    copies: str
    items: list[OwedOut]


class Next(NamedTuple):
    """The one next action of a line, its words, the work it starts and on what, and how long that usually takes."""

    doing: Doing
    action: str
    work: str = ""
    part: Part | None = None
    minutes: int | None = None


def _action(item: Owed, drum: Drum, usual: dict[str, int]) -> Next:
    match item.fact:
        case JobInHand():
            return Next("go-on", "Clear once more" if item.kind is OwedKind.RESTED else "Go on")
        case CheckDue(side=side):
            found, words = check_for(facts_of(drum), Side(side)), "Check"
        case AgedHead(side=side):
            found, words = head_change_for(facts_of(drum), Side(side)), "Change head"
    return Next("start", words, found.work.id, found.part, usual[found.work.id])


def _shape(item: Owed, drum: Drum, usual: dict[str, int]) -> OwedOut:
    fact = item.fact
    following = _action(item, drum, usual)
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
        doing=following.doing,
        action=following.action,
        work=following.work,
        part=following.part,
        minutes=following.minutes,
    )


def shape_today(items: list[Owed], drums: dict[str, Drum], usual: dict[str, int], now: datetime, copies: str) -> Today:
    lines = [_shape(item, drums[item.fact.drum], usual) for item in items]
    owed = [line for line in lines if line.owed_now]
    return Today(
        now=now, owed_count=len(owed), work_minutes=sum(line.minutes or 0 for line in owed), copies=copies, items=lines
    )
