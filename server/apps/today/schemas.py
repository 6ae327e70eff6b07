"""Today, shaped for the screen."""

from __future__ import annotations

from datetime import datetime
from typing import Literal, NamedTuple

from ninja import Schema

from apps.bench.schemas import WorkName
from apps.register.models import Drum
from apps.register.schemas import KIND_WORDS
from apps.register.sides import facts_of
from apps.today.selectors import Facts
from drumwork.drums import Side
from drumwork.planning import AgedHead, CheckDue, JobInHand, Owed, OwedKind, list_owed
from drumwork.procedures.catalogue import check_for, head_change_for
from drumwork.work.plan import Part

Doing = Literal["go-on", "start"]
Paged = Literal["overdue-check", "aged-head", "coming-check"]


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
    """The first lines of each group; `counts` how many there are of it. `copies`: a sentence when the last backup is older than the workshop wants, else empty."""

    now: datetime
    owed_count: int
    work_minutes: int
    copies: str
    counts: dict[str, int]
    items: list[OwedOut]


class TodayMore(Schema):
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


def _lines(found: Facts, usual: dict[str, int], now: datetime) -> list[OwedOut]:
    return [_shape(item, found.drums[item.fact.drum], usual) for item in list_owed(found.facts, now)]


def _work_minutes(lines: list[OwedOut], counts: dict[OwedKind, int]) -> int:
    """What all that is owed takes: where a group is longer than its lines, its lines stand for the rest."""
    total = 0.0
    for kind, count in counts.items():
        shown = [line.minutes or 0 for line in lines if line.kind == kind and line.owed_now]
        total += sum(shown) * max(1.0, count / len(shown)) if shown else 0.0
    return round(total)


def shape_today(found: Facts, usual: dict[str, int], now: datetime, copies: str) -> Today:
    lines = _lines(found, usual, now)
    counts: dict[OwedKind, int] = {
        kind: count for kind, count in found.counts.items() if kind is not OwedKind.COMING_CHECK
    }
    return Today(
        now=now,
        owed_count=sum(counts.values()),
        work_minutes=_work_minutes(lines, counts),
        copies=copies,
        counts={kind.value: count for kind, count in found.counts.items()},
        items=lines,
    )


def shape_more(found: Facts, usual: dict[str, int], now: datetime) -> TodayMore:
    return TodayMore(items=_lines(found, usual, now))
