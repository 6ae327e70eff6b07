"""What a tap said, shaped for the ladder and for the page of what was heard."""

from __future__ import annotations

from datetime import datetime
from typing import NamedTuple
from uuid import UUID

from ninja import Schema

from apps.bench.schemas import PairOut
from apps.bench.wire import MOST_PARTIALS, PartialIn
from apps.hearing.models import HeardTap
from drumwork.drums import Side
from drumwork.listening import Ask, TapReading
from drumwork.work.plan import Part


class Place(NamedTuple):
    """Where a tap belongs: the clearing step, its round and the rod, None in the middle of the head; and how the other head lay.

    `turns_32` is what a simulated drum's rod is turned before the tap, and not yet on the job.
    """

    step: str
    lap: int
    rod: int | None
    other_muted: bool = True
    simulated: bool = False
    turns_32: int = 0


class PictureOut(Schema):
    """A tap over time, every `step_s` from the stroke on: its level against its loudest, and its pitch against where it settled."""

    step_s: float
    ring_db: list[float]
    cents: list[float | None]


class SecondOut(Schema):
    """What may have been meant instead: what is then entered, its pitch and its chance."""

    typed: str
    hz: float
    chance: float


class HeardOut(Schema):
    """One tap, `simulated` where no drum gave it. `typed` is what is entered as the rod's reading, empty when it was refused; a doubtful one ends with a question mark. `ask` is what would
    settle a close call, where something would."""

    id: UUID
    status: str
    typed: str
    hz: float | None
    cents_sigma: float | None
    reason: str
    strength_db: float
    glide_cents: float
    partials: list[PartialIn]
    picture: PictureOut
    simulated: bool
    second: SecondOut | None = None
    ask: Ask | None = None


class RodHeardOut(Schema):
    """One rod of a recording; several taps of it are read as one."""

    rod: int
    heard: HeardOut


class HeardFileOut(Schema):
    """The taps of a recording, in order; what each rod reads by them; and what was amiss with their order."""

    taps: list[HeardOut]
    readings: list[RodHeardOut]
    words: str


class TapOut(Schema):
    """A tap as it was heard. `has_sound` tells whether it can be played back."""

    id: UUID
    step: str
    lap: int
    rod: int | None
    by_name: str
    heard_at: datetime
    other_muted: bool
    simulated: bool
    status: str
    reason: str
    hz: float | None
    cents_sigma: float | None
    second_hz: float | None
    second_chance: float | None
    strength_db: float
    glide_cents: float
    partials: list[PartialIn]
    picture: PictureOut
    seconds: float
    has_sound: bool

    @classmethod
    def of(cls, tap: HeardTap) -> TapOut:
        shown = {name: getattr(tap, name) for name in cls.model_fields if name != "has_sound"}
        return cls(**shown, has_sound=tap.sound_bytes > 0)


class RoundOut(Schema):
    """One round as its taps tell it together: the split pair and its axis, and the drum's note in the middle."""

    step: str
    title: str
    side: Side
    rods: int
    lap: int
    pair: PairOut | None
    centre_hz: float | None


class TapsOut(Schema):
    """Everything that was heard on a job, and what each round says as a whole."""

    tag: str
    name: str
    part: Part
    badge: str
    rounds: list[RoundOut]
    taps: list[TapOut]


class KeptOut(Schema):
    """A person's own kept sound, and the bound of the workshop's."""

    keeps_sound: bool
    taps: int
    bytes: int
    most_bytes: int


def partials_of(found: TapReading) -> list[PartialIn]:
    return [
        PartialIn(hz=round(each.hz, 2), level_db=round(min(0.0, each.level_db), 1))
        for each in found.partials[:MOST_PARTIALS]
    ]


def shape_heard(tap: HeardTap, found: TapReading) -> HeardOut:
    """A tap as it was kept, and of what was found what helps only now: the second candidate, and what would settle it."""
    doubt = "?" if tap.status == "flag" else ""
    return HeardOut(
        id=tap.id,
        status=tap.status,
        typed=f"{tap.hz:.2f}{doubt}" if tap.hz else "",
        hz=tap.hz,
        cents_sigma=tap.cents_sigma,
        reason=tap.reason,
        strength_db=tap.strength_db,
        glide_cents=tap.glide_cents,
        partials=tap.partials,
        picture=tap.picture,
        simulated=tap.simulated,
        second=_second(found),
        ask=found.ask,
    )


def _second(found: TapReading) -> SecondOut | None:
    second = found.second
    return (
        SecondOut(typed=f"{second.hz:.2f}", hz=round(second.hz, 2), chance=round(second.chance, 2)) if second else None
    )
