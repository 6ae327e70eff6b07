"""The drum sheet: what is fitted, how it stands, what happened."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from ninja import Schema

from apps.bench.schemas import LeftSo, OfferOut, StandingFinding
from drumwork.drums import DrumKind, Side

Dated = Literal["known", "guessed", "unknown"]


class FittedOut(Schema):
    """One side as it stands. `months_past` > 0 means past the age this workshop expects. Even and at pitch are two things, None where
    they are not known; `left_so`: it was closed off pitch."""

    side: Side
    head: str | None
    since: datetime | None
    dated: Dated
    by: str
    rods: int
    lost: list[int]
    mean_hz: float | None
    note: str
    spread_hz: float | None
    wanted_hz: float | None
    cents_off: float | None
    even: bool | None
    at_pitch: bool | None
    left_so: bool
    months_old: int
    months_past: int
    check_due: datetime | None
    check_overdue: bool
    job_id: str | None
    job_where: str


class WiresOut(Schema):
    """Snare wires as fitted."""

    name: str
    since: datetime
    dated: Dated
    by: str


class PitchOut(Schema):
    """One round on the plot, in cents from what was wanted. `spread_cents` is highest minus lowest rod."""

    side: str
    at: datetime
    mean_hz: float
    cents: float
    spread_cents: float


class FittingMark(Schema):
    side: str
    at: datetime
    head: str


class LogOut(Schema):
    id: int
    at: datetime
    kind: str
    side: str
    text: str
    outcome: str
    by: str
    job_id: str | None
    record: dict[str, Any]


class Sheet(Schema):
    tag: str
    name: str
    kind: DrumKind
    kind_words: str
    size: str
    shell: str
    place: str
    owner: str
    kits: list[str]
    state: str
    thread: str
    hoops: str
    snare_bed: bool
    badge: str
    port: str
    note: str
    work: list[OfferOut]
    findings: list[StandingFinding]
    kept: list[LeftSo]
    sides: list[FittedOut]
    wires: WiresOut | None
    pitches: list[PitchOut]
    fittings: list[FittingMark]
    log: list[LogOut]
