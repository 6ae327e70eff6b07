"""Today, shaped for the screen."""

from __future__ import annotations

from datetime import datetime, time
from typing import Literal, NamedTuple

from django.utils import timezone
from ninja import Schema

from apps.register.models import Drum
from apps.register.schemas import KIND_WORDS
from apps.register.sides import facts_of
from apps.today.selectors import Fact, Facts
from apps.workshops.typed import WorkName
from drumwork.drums import Side
from drumwork.planning import (
    AgedHead,
    CallOutAhead,
    CheckDue,
    JobInHand,
    NoteOwed,
    Owed,
    OwedKind,
    PartLent,
    ShelfShort,
    ToFetch,
    Undecided,
    WorkPlanned,
    list_owed,
)
from drumwork.procedures.catalogue import check_for, head_change_for
from drumwork.work.plan import Part

Doing = Literal["go-on", "start", "decide", "give-back", "buy", "call-out", "note"]


class Pulse(Schema):
    """Something that is the same as long as nothing changed."""

    pulse: str


Paged = Literal["overdue-check", "to-decide", "planned-work", "lent", "reported", "aged-head"]


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
    walk_id: str | None
    callout_id: str | None
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


_FOUND: dict[tuple[object, ...], tuple[str, Part]] = {}
"""What answers a check or an old head, by all that decides it: the catalogue is asked once for drums that are alike."""
_MOST_FOUND = 5000


def _answer(drum: Drum, side: Side, is_check: bool) -> tuple[str, Part]:
    rods = (
        drum.rods_batter,
        drum.rods_resonant,
        *map(tuple, (drum.lost_batter, drum.lost_resonant, drum.bed_rods, drum.port_rods)),
    )
    alike = (is_check, side, drum.kind, rods, drum.snare_bed, drum.port_m is None, drum.thread)
    if alike not in _FOUND:
        offer = (check_for if is_check else head_change_for)(facts_of(drum), side)
        if len(_FOUND) >= _MOST_FOUND:
            _FOUND.clear()
        _FOUND[alike] = offer.work.id, offer.part
    return _FOUND[alike]


def _action(item: Owed, drum: Drum | None, usual: dict[str, int]) -> Next:
    if isinstance(item.fact, PartLent):
        return Next("give-back", "Back?")
    if isinstance(item.fact, NoteOwed):
        return Next("note", "Answered?" if item.fact.reported else "Write to the owner")
    if isinstance(item.fact, CallOutAhead):
        return Next("call-out", "Go on" if item.fact.began else "Open")
    if isinstance(item.fact, ShelfShort):
        return Next("buy", "Buying list")
    if isinstance(item.fact, ToFetch):
        return Next("buy", "Fetch")
    if isinstance(item.fact, JobInHand):
        return Next("go-on", "Clear once more" if item.kind is OwedKind.RESTED else "Go on")
    if isinstance(item.fact, Undecided):
        return Next("decide", "Decide")
    if isinstance(item.fact, WorkPlanned):
        return Next("start", "Start", item.fact.work, Part(item.fact.part), usual[item.fact.work])
    assert drum is not None, "work is on a drum"
    is_check = isinstance(item.fact, CheckDue)
    work, part = _answer(drum, Side(item.fact.side), is_check)
    return Next("start", "Check" if is_check else "Change head", work, part, usual[work])


def _ready_at(fact: Fact) -> datetime | None:
    """When it is time: a head rested, a check or planned work due."""
    match fact:
        case JobInHand():
            return fact.resting_until
        case CheckDue():
            return fact.due
        case CallOutAhead():
            return fact.show
        case WorkPlanned() | ToFetch():
            return timezone.make_aware(datetime.combine(fact.due, time(9)))
        case _:
            return None


def _called(fact: Fact, drum: Drum | None) -> tuple[str, str, str]:
    """The line's tag, name and kind, where there is no drum in it, what it is about."""
    if drum is not None:
        return drum.tag, drum.name, KIND_WORDS[drum.kind]
    if isinstance(fact, NoteOwed | CallOutAhead):
        return "", fact.kit, ""
    return "", fact.taker if isinstance(fact, PartLent) else "Shelf", ""


def _shape(item: Owed, drum: Drum | None, usual: dict[str, int]) -> OwedOut:
    fact = item.fact
    tag, name, kind_words = _called(fact, drum)
    following = _action(item, drum, usual)
    return OwedOut.model_construct(
        kind=item.kind,
        tag=tag,
        name=name,
        kind_words=kind_words,
        side=fact.side if isinstance(fact, CheckDue | AgedHead) else fact.part if isinstance(fact, WorkPlanned) else "",
        reason=item.reason,
        count=item.count,
        unit=item.unit,
        owed_now=item.owed_now,
        minutes_left=item.minutes_left,
        ready_at=_ready_at(fact),
        job_id=fact.job if isinstance(fact, JobInHand) else None,
        walk_id=fact.walk if isinstance(fact, Undecided) else None,
        callout_id=fact.callout if isinstance(fact, NoteOwed | CallOutAhead) else None,
        doing=following.doing,
        action=following.action,
        work=following.work,
        part=following.part,
        minutes=following.minutes,
    )


def _lines(found: Facts, now: datetime) -> list[OwedOut]:
    return [_shape(item, found.drums.get(item.fact.drum), found.usual) for item in list_owed(found.facts, now)]


def _work_minutes(lines: list[OwedOut], counts: dict[OwedKind, int]) -> int:
    """What all that is owed takes: where a group is longer than its lines, its lines stand for the rest."""
    total = 0.0
    for kind, count in counts.items():
        shown = [line.minutes or 0 for line in lines if line.kind == kind and line.owed_now]
        total += sum(shown) * max(1.0, count / len(shown)) if shown else 0.0
    return round(total)


def shape_today(found: Facts, now: datetime, copies: str) -> Today:
    lines = _lines(found, now)
    return Today.model_construct(
        now=now,
        owed_count=sum(found.counts.values()),
        work_minutes=_work_minutes(lines, found.counts),
        copies=copies,
        counts={kind.value: count for kind, count in found.counts.items()},
        items=lines,
    )


def shape_more(found: Facts, now: datetime) -> TodayMore:
    return TodayMore.model_construct(items=_lines(found, now))
