"""Turn a workshop's facts into one list of what is owed, most urgent first, each with its reason in words."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, datetime
from enum import StrEnum

from drumwork.condition import months_between, months_past_life

__all__ = [
    "AgedHead", "CallOutAhead", "CheckDue", "JobInHand", "NoteOwed", "Owed", "OwedKind", "PartLent", "ShelfShort", "ToFetch", "Undecided", "WorkPlanned", "list_owed",
]  # fmt: skip


class OwedKind(StrEnum):
    """Groups of the list, in order of urgency."""

    OVERDUE_CHECK = "overdue-check"
    RESTED = "rested"
    TO_DECIDE = "to-decide"
    PLANNED_WORK = "planned-work"
    LENT = "lent"
    REPORTED = "reported"
    TO_BUY = "to-buy"
    IN_HAND = "in-hand"
    RESTING = "resting"
    TO_FETCH = "to-fetch"
    AGED_HEAD = "aged-head"
    COMING_CHECK = "coming-check"
    COMING_WORK = "coming-work"
    COMING_CALLOUT = "coming-callout"


@dataclass(frozen=True, slots=True)
class CheckDue:
    drum: str
    side: str
    due: datetime
    why: str


@dataclass(frozen=True, slots=True)
class JobInHand:
    drum: str
    job: str
    where: str
    touched: datetime
    resting_until: datetime | None = None


@dataclass(frozen=True, slots=True)
class AgedHead:
    drum: str
    side: str
    head: str
    fitted: datetime
    life_months: int
    gone: float | None = None
    """The share of its kind that is changed by its age in this workshop, where enough is known."""


@dataclass(frozen=True, slots=True)
class Undecided:
    """A drum was looked at, and nobody decided yet what is done about it."""

    drum: str
    walk: str
    headline: str
    looked: datetime


@dataclass(frozen=True, slots=True)
class WorkPlanned:
    """Work that was decided and not begun. `heads` are the names of those promised to it."""

    drum: str
    work: str
    part: str
    title: str
    due: date
    heads: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class PartLent:
    """A part is out and not back. `drum` is the one it went to, '' where it went to somebody; `giver` says where it is missing."""

    drum: str
    what: str
    giver: str
    taker: str
    since: datetime
    due: date | None = None


@dataclass(frozen=True, slots=True)
class ShelfShort:
    """So many lines of the shelf are below what is to be kept, and so many planned jobs wait for parts nobody promised them."""

    lines: int
    jobs: int
    drum: str = ""


@dataclass(frozen=True, slots=True)
class ToFetch:
    """A piece promised to work due soon, and where it lies."""

    drum: str
    what: str
    place: str
    due: date


@dataclass(frozen=True, slots=True)
class NoteOwed:
    """A call-out is over and `owing` things in that kit were not put right; the owner has the note or not, and did not answer."""

    callout: str
    kit: str
    at: str
    owing: int
    over: datetime
    reported: datetime | None = None
    drum: str = ""


@dataclass(frozen=True, slots=True)
class CallOutAhead:
    """A kit to be seen to in so many minutes before a show; `began`: somebody is at it."""

    callout: str
    kit: str
    at: str
    show: datetime
    minutes: float
    began: bool = False
    drum: str = ""


Fact = (
    CallOutAhead
    | NoteOwed
    | CheckDue
    | JobInHand
    | AgedHead
    | Undecided
    | WorkPlanned
    | PartLent
    | ShelfShort
    | ToFetch
)


@dataclass(frozen=True, slots=True)
class Owed:
    """One line: what, why, how many strokes (`count` of `unit`), and whether it is owed now (red)."""

    kind: OwedKind
    fact: Fact
    reason: str
    count: int
    unit: str
    owed_now: bool
    minutes_left: int | None = None


def _day(moment: datetime, now: datetime) -> str:
    days = (moment.date() - now.date()).days
    names = {0: "today", 1: "tomorrow", -1: "yesterday"}
    return names.get(days) or (f"{moment:%A}" if abs(days) < 7 else f"{moment.day} {moment:%B}")


def _check(fact: CheckDue, now: datetime) -> Owed:
    late = (now.date() - fact.due.date()).days
    if fact.due > now:
        return Owed(OwedKind.COMING_CHECK, fact, f"{fact.why} is due {_day(fact.due, now)}", 0, "days", False)
    when = f"was due {_day(fact.due, now)}" if late else "is due today"
    return Owed(OwedKind.OVERDUE_CHECK, fact, f"{fact.why} {when}", max(1, late), "days late" if late else "due", True)


def _job(fact: JobInHand, now: datetime) -> Owed:
    if fact.resting_until is None:
        idle = (now - fact.touched).days
        left = f"; left {_day(fact.touched, now)}" if idle >= 1 else ""
        return Owed(OwedKind.IN_HAND, fact, f"{fact.where}{left}", 0, "", False)
    left_minutes = int((fact.resting_until - now).total_seconds() // 60)
    if left_minutes <= 0:
        return Owed(OwedKind.RESTED, fact, "rested; clear it once more, then mount it", 1, "rested", True, 0)
    return Owed(OwedKind.RESTING, fact, fact.where, 0, "", False, left_minutes)


def _aged(fact: AgedHead, now: datetime) -> Owed | None:
    past = months_past_life(fact.fitted.date(), now.date(), fact.life_months)
    if not past:
        return None
    age = months_between(fact.fitted.date(), now.date())
    reason = f"{fact.side} {fact.head}, {age} months old"
    if fact.gone is not None:
        reason += f"; {round(10 * fact.gone)} of 10 like it are changed by then"
    return Owed(OwedKind.AGED_HEAD, fact, reason, past, "months past", True)


def _undecided(fact: Undecided, now: datetime) -> Owed:
    days = (now.date() - fact.looked.date()).days
    count, unit = (days, "days ago") if days else (1, "looked at today")
    return Owed(OwedKind.TO_DECIDE, fact, fact.headline, count, unit, True)


def _planned(fact: WorkPlanned, now: datetime) -> Owed:
    late = (now.date() - fact.due).days
    day = _day(datetime.combine(fact.due, now.time(), now.tzinfo), now)
    promised = f", {' and '.join(fact.heads)} promised" if fact.heads else ""
    if late < 0:
        return Owed(OwedKind.COMING_WORK, fact, f"{fact.title}{promised}, due {day}", 0, "days", False)
    when = f"was due {day}" if late else "is due today"
    return Owed(
        OwedKind.PLANNED_WORK,
        fact,
        f"{fact.title}{promised} {when}",
        max(1, late),
        "days late" if late else "due",
        True,
    )


def _lent(fact: PartLent, now: datetime) -> Owed:
    days = (now.date() - fact.since.date()).days
    late = fact.due is not None and fact.due < now.date()
    wanted = f", back by {_day(datetime.combine(fact.due, now.time(), now.tzinfo), now)}" if fact.due else ""
    reason = f"{fact.what} lent from {fact.giver} to {fact.taker}{wanted}{' and late' if late else ''}"
    count, unit = (days, "days out") if days else (1, "lent today")
    return Owed(OwedKind.LENT, fact, reason, count, unit, True)


def _many(count: int, one: str, more: str) -> str:
    return f"{count} {one if count == 1 else more}"


def _short(fact: ShelfShort) -> Owed | None:
    said = [
        _many(fact.lines, "line is below what you keep", "lines are below what you keep") if fact.lines else "",
        _many(fact.jobs, "job waits for parts", "jobs wait for parts") if fact.jobs else "",
    ]
    if not any(said):
        return None
    count = fact.lines + fact.jobs
    return Owed(OwedKind.TO_BUY, fact, "; ".join(each for each in said if each), count, "short", True)


def _fetch(fact: ToFetch, now: datetime) -> Owed:
    where = f", {fact.place}" if fact.place else ""
    day = _day(datetime.combine(fact.due, now.time(), now.tzinfo), now)
    return Owed(OwedKind.TO_FETCH, fact, f"{fact.what}{where}; {day}", 0, "", False)


def _note(fact: NoteOwed, now: datetime) -> Owed:
    what = _many(fact.owing, "thing", "things")
    place = f" at {fact.at}" if fact.at else ""
    if fact.reported is None:
        days = (now.date() - fact.over.date()).days
        reason = f"{what} not put right{place}; the owner has no note yet"
        return Owed(OwedKind.REPORTED, fact, reason, max(1, days), "days ago" if days else "over today", True)
    days = (now.date() - fact.reported.date()).days
    reason = f"{what}{place} reported {_day(fact.reported, now)}, and not answered"
    return Owed(OwedKind.REPORTED, fact, reason, max(1, days), "days ago" if days else "sent today", True)


def _ahead(fact: CallOutAhead, now: datetime) -> Owed:
    place = f"{fact.at}, " if fact.at else ""
    when = "going on" if fact.began else f"{_day(fact.show, now)} {fact.show:%H:%M}"
    return Owed(OwedKind.COMING_CALLOUT, fact, f"{place}{when}, {fact.minutes:g} minutes", 0, "", False)


def _shape(fact: Fact, now: datetime) -> Owed | None:
    match fact:
        case NoteOwed():
            return _note(fact, now)
        case CallOutAhead():
            return _ahead(fact, now)
        case PartLent():
            return _lent(fact, now)
        case ShelfShort():
            return _short(fact)
        case ToFetch():
            return _fetch(fact, now)
        case Undecided():
            return _undecided(fact, now)
        case WorkPlanned():
            return _planned(fact, now)
        case CheckDue():
            return _check(fact, now)
        case JobInHand():
            return _job(fact, now)
        case AgedHead():
            return _aged(fact, now)


_ORDER = list(OwedKind)


def list_owed(facts: Iterable[Fact], now: datetime) -> list[Owed]:
    """Everything owed or in hand, by group, then longest owed first, then by drum."""
    items = [item for fact in facts if (item := _shape(fact, now)) is not None]
    return sorted(
        items, key=lambda item: (_ORDER.index(item.kind), -item.count, item.minutes_left or 0, item.fact.drum)
    )
