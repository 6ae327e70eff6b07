"""When an entry was made, by a device whose clock may be off and which may have been without network for days."""

from __future__ import annotations

import uuid
from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime, timedelta
from typing import Final, Protocol, Self, TypeVar

from django.utils import timezone

from apps.bench.schemas import Receipt

__all__ = ["by_clock", "said_of_clocks", "told_at"]

HELD: Final = timedelta(days=366)
"""So long at most an entry is believed to have lain on its device."""
ON_THE_WAY: Final = timedelta(minutes=5)
"""So far a device's clock may be from this server's and count as right: a slow network is no wrong clock."""
AHEAD: Final = timedelta(days=1)
"""So far ahead an entry may be of a page that does not say what its clock tells while it sends."""
CLOCK_OFF: Final = "This device’s clock is off; the entry carries the server’s time."
PUT_RIGHT: Final = "This device’s clock is off; the entry’s time is put right by as much."


class Made(Protocol):
    """An entry of any log, as a device sent it."""

    @property
    def id(self) -> uuid.UUID: ...
    @property
    def made_at(self) -> datetime: ...
    def model_copy(self, *, update: Mapping[str, object]) -> Self: ...


MadeT = TypeVar("MadeT", bound=Made)


def told_at(made_at: datetime, sent_at: datetime | None, now: datetime) -> tuple[datetime, str]:
    """When an entry was made, and what is said of its device’s clock where that is off: as the device tells, however long it held the
    entry; put right by what its clock is off now; else as this server’s clock has it."""
    if sent_at is None:
        return (made_at, "") if -HELD <= made_at - now <= AHEAD else (now, CLOCK_OFF)
    waited, off = sent_at - made_at, now - sent_at
    if not -ON_THE_WAY <= waited <= HELD:
        return now, CLOCK_OFF
    if abs(off) <= ON_THE_WAY:
        return made_at, ""
    return min(now - waited, now), PUT_RIGHT


def by_clock(events: Sequence[MadeT], sent_at: datetime | None) -> tuple[list[MadeT], dict[uuid.UUID, str]]:
    """The entries with their times put right, and what is said of those whose device’s clock is off."""
    now, made, said = timezone.now(), list[MadeT](), dict[uuid.UUID, str]()
    for event in events:
        at, words = told_at(event.made_at, sent_at, now)
        made.append(event.model_copy(update={"made_at": at}) if words else event)
        if words:
            said[event.id] = words
    return made, said


def said_of_clocks(receipts: Iterable[Receipt], said: Mapping[uuid.UUID, str]) -> list[Receipt]:
    """Receipts of what was taken in, with what is said of its device’s clock."""
    return [
        each.model_copy(update={"code": "clock_off", "message": said[each.id]})
        if each.id in said and each.standing != "refused"
        else each
        for each in receipts
    ]
