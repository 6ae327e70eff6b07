"""From a call-out's log to where it stands, and from there to what may be done and what comes next.

The phone does the same without network (web/src/tasks/callout/log); golden cases hold the two together.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import datetime

from drumwork.callout.entries import (
    Bagged,
    CalloutEntry,
    CannotDo,
    ClockSet,
    DidStep,
    NotSo,
    OwnerAnswered,
    OwnerTold,
    PutOff,
    ShowBegins,
    SoundsFine,
    StepOpenAgain,
    Ticked,
    TookStep,
    WordToOwner,
)
from drumwork.callout.order import Planned, Task, plan_callout
from drumwork.callout.steps import Book, Step, tick_key
from drumwork.drums import Side

__all__ = ["Entered", "Now", "Standing", "fold_callout", "minutes_left", "open_steps", "parts_left", "plan_now"]


@dataclass(frozen=True, slots=True)
class Entered:
    """An entry with its id, who made it, on which device and when."""

    id: str
    entry: CalloutEntry
    by: str
    device: str
    at: datetime


@dataclass
class Standing:
    """Where a call-out stands. `ticks` hold what is wrong, by key, with who said so (None: it stood on the record)."""

    ticks: dict[str, Entered | None] = field(default_factory=dict)
    gone: dict[str, Entered] = field(default_factory=dict)
    looked: set[str] = field(default_factory=set)
    bag: dict[str, int] = field(default_factory=dict)
    clock: tuple[datetime, float] | None = None
    hand: dict[str, tuple[str, datetime]] = field(default_factory=dict)
    done: dict[str, Entered] = field(default_factory=dict)
    skipped: set[str] = field(default_factory=set)
    cannot: dict[str, Entered] = field(default_factory=dict)
    words: dict[str, str] = field(default_factory=dict)
    over: Entered | None = None
    reported: Entered | None = None
    answered: Entered | None = None


def _key(entry: Ticked | NotSo) -> str:
    return tick_key(entry.drum, entry.finding, entry.side.value if isinstance(entry.side, Side) else "", entry.rod)


def fold_callout(book: Book, log: Iterable[Entered]) -> Standing:
    """Where it stands after these entries, in their order."""
    stands = Standing(ticks=dict.fromkeys(book.known))
    for each in log:
        _apply(stands, each)
    return stands


def _apply(stands: Standing, each: Entered) -> None:
    match each.entry:
        case ClockSet(minutes):
            stands.clock, stands.over = (each.at, minutes), None
        case Bagged(part, count):
            stands.bag[part] = count
        case Ticked() as entry:
            stands.ticks.setdefault(_key(entry), each)
            stands.gone.pop(_key(entry), None)
            stands.looked.add(entry.drum)
        case NotSo() as entry:
            stands.ticks.pop(_key(entry), None)
            stands.gone[_key(entry)] = each
        case SoundsFine(drum):
            stands.looked.add(drum)
        case TookStep(step):
            stands.hand[each.device] = (step, each.at)
        case DidStep(step):
            stands.done.setdefault(step, each)
            stands.cannot.pop(step, None)
            stands.skipped.discard(step)
        case PutOff(step) if step not in stands.done:
            stands.skipped.add(step)
        case CannotDo(step) if step not in stands.done:
            stands.cannot[step] = each
            stands.skipped.discard(step)
        case StepOpenAgain(step):
            stands.done.pop(step, None)
            stands.cannot.pop(step, None)
            stands.skipped.discard(step)
        case WordToOwner(drum, words):
            stands.words[drum] = words
        case ShowBegins():
            stands.over = each
        case OwnerTold():
            stands.reported, stands.answered = each, None
        case OwnerAnswered():
            stands.answered = each
        case _:
            pass


def _so(book: Book, stands: Standing) -> set[str]:
    """What is so and not yet seen to, with what the bag means and who is short of a rod."""
    settled = {key for step in book.steps if step.id in stands.done for key in step.mends}
    short = {f"short:{key.split('|')[0]}" for key in stands.ticks if key.split("|")[1:3] == ["rod-missing", "batter"]}
    bag = {f"bag:{part}" for part, count in stands.bag.items() if count > 0}
    return (set(stands.ticks) - settled) | short | bag


def open_steps(book: Book, stands: Standing) -> list[Step]:
    """What may still be done: nothing done, impossible or answered otherwise. What was skipped comes back when nothing else is left."""
    so, every = _so(book, stands), set(stands.ticks)
    found = {
        step.id: step
        for step in reversed(book.steps)
        if step.id not in stands.done
        and step.id not in stands.cannot
        and set(step.when) <= so
        and not set(step.unless) & (so | every)
    }
    kept = [step for step in reversed(found.values()) if step.id not in stands.skipped]
    return kept or list(reversed(found.values()))


def parts_left(book: Book, stands: Standing) -> dict[str, int]:
    """What there is of every part: the bag's, what is there once, less what was used."""
    left = dict(stands.bag)
    for step in book.steps:
        left |= {each: 1 for each in step.uses if each.startswith(("one:", "giver:"))}
    for uses in {step.id: step.uses for step in book.steps if step.id in stands.done}.values():
        for each in uses:
            left[each] = left.get(each, 0) - 1
    return {part: max(0, count) for part, count in left.items()}


def minutes_left(stands: Standing, now: datetime) -> float:
    """Until the show; 0 before the clock was set, and never less."""
    if stands.clock is None or stands.over:
        return 0.0
    at, minutes = stands.clock
    return min(minutes, max(0.0, minutes - (now - at).total_seconds() / 60))  # no device’s clock makes it more


@dataclass(frozen=True, slots=True)
class Now:
    """What this device does now, what comes then, and what does not fit any more."""

    current: str | None
    then: tuple[str, ...]
    out: tuple[str, ...]
    minutes: float
    needs: float
    plan: Planned


def plan_now(book: Book, stands: Standing, now: datetime, device: str) -> Now:
    """The plan for one pair of hands. What others have in hand is theirs; what this device has in hand it finishes.

    What two took at the same moment, neither knowing of the other, is his who took it first: were it each other's, it would be nobody's.
    """
    steps = {step.id: step for step in open_steps(book, stands)}
    first: dict[str, str] = {}
    for of, (taken, _) in sorted(stands.hand.items(), key=lambda each: (each[1][1], each[0])):
        if taken in steps:
            first.setdefault(taken, of)
    held = {of: steps[taken] for taken, of in first.items()}
    mine, others = held.get(device), {step.id for of, step in held.items() if of != device}
    minutes, room = minutes_left(stands, now), 0.0
    room = minutes
    if mine:
        spent = (now - stands.hand[device][1]).total_seconds() / 60
        room = max(0.0, minutes - max(0.0, mine.minutes - spent))
    parts = parts_left(book, stands)
    for step in held.values():
        for each in step.uses:
            parts[each] = max(0, parts.get(each, 0) - 1)
    free = [step for step in steps.values() if step.id not in first]
    names = {step.id for step in free}
    tasks = [
        Task(step.id, step.minutes, step.worth, tuple(each for each in step.after if each in names), step.uses, step.phase)
        for step in free
    ]  # fmt: skip
    plan = plan_callout(room, tasks, parts)
    waits = {step.id for step in free if set(step.after) & others}
    order = list(plan.order)
    current = mine.id if mine else next((each for each in order if each not in waits), None)
    then = tuple(each for each in order if each != current)
    out = tuple(step.id for step in free if step.id not in plan.order)
    needs = room - plan.spare_minutes + (minutes - room)
    return Now(current, then, out, minutes, needs, plan)
