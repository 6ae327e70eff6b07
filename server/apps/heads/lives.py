"""How long heads last in this workshop: learned from those that came off and those still on, by line, side and kind of drum."""

from __future__ import annotations

import time
from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, NamedTuple

from django.db import connection
from ninja import Router, Schema

from apps.accounts.auth import Request
from apps.heads.models import Fitting
from apps.register.models import Drum
from apps.register.schemas import KIND_WORDS, length_words
from apps.workshops.models import Workshop
from drumwork.lives import Expected, Life, Prior, expect, in_words, survival

__all__ = ["Group", "laws_of", "router"]
router = Router(tags=["heads"])

MOST_HEADS: Final = 5000
"""The last so many heads fitted; older ones were of another time."""
KNOWN_S: Final = 600
NOT_ITS_END: Final = ("sound", "sold", "moved")
"""Words of a reason for which a head came off before its time: it is counted as far as it came. Our own, no source."""
AHEAD_MONTHS: Final = 3.0
MONTH_S: Final = 365.2425 / 12 * 86_400

_HEADS: Final = """
    select f.head, f.side, d.kind, extract(epoch from coalesce(f.retired_at, now()) - f.fitted_at), f.retired_at is not null, f.retired_because
    from heads_fitting f join register_drum d on d.id = f.drum_id where f.side in ('batter', 'resonant') and f.dated <> 'unknown'
    order by f.fitted_at desc limit %s"""


class Group(NamedTuple):
    """Heads that are counted together."""

    head: str
    side: str
    kind: str

    @property
    def words(self) -> str:
        return f"{self.head} as {KIND_WORDS.get(self.kind, self.kind)} {self.side}"


@dataclass(frozen=True)
class _Known:
    at: float
    lives: Mapping[Group, list[Life]]
    laws: Mapping[Group, Expected]


_KNOWN: dict[int, _Known] = {}


def _ended(retired: bool, because: str) -> bool:
    return retired and not any(word in because for word in NOT_ITS_END)


def _read(workshop: Workshop) -> _Known:
    lives: dict[Group, list[Life]] = defaultdict(list)
    with connection.cursor() as cursor:
        cursor.execute(_HEADS, [MOST_HEADS])
        for head, side, kind, seconds, retired, because in cursor.fetchall():
            months = min(max(0.0, float(seconds) / MONTH_S), 1200.0)
            lives[Group(head, side, kind)].append(Life(round(months, 1), _ended(retired, because)))
    usual = {"batter": workshop.batter_life_months, "resonant": workshop.resonant_life_months}
    laws = {group: expect(heads, Prior(float(usual[group.side]))) for group, heads in lives.items()}
    return _Known(time.monotonic(), lives, laws)


def known_of(workshop: Workshop, fresh: bool = False) -> _Known:
    """What is known of this workshop’s heads; read again every ten minutes, for lives change slowly."""
    found = _KNOWN.get(workshop.pk)
    if fresh or found is None or time.monotonic() - found.at > KNOWN_S:
        found = _KNOWN[workshop.pk] = _read(workshop)
    return found


def laws_of(workshop: Workshop) -> Mapping[Group, Expected]:
    """By group, what life to expect of a head."""
    return known_of(workshop).laws


class CurveStep(Schema):
    """The share still on just after so many months, with its 95 % band."""

    months: float
    share: float
    low: float
    high: float


class LifeOut(Schema):
    """How long one kind of head lasts here. `own`: the share of what is said that rests on this workshop’s own heads, not on its setting."""

    words: str
    said: str
    heads: int
    ended: int
    median: float
    early: float
    late: float
    own: float
    curve: list[CurveStep]


class LikelyOut(Schema):
    """A head that is likely to be changed within three months."""

    tag: str
    name: str
    side: str
    head: str
    months: float
    chance: float


class AheadOut(Schema):
    """How many of a head to expect to need within three months."""

    what: str
    count: float


class LivesOut(Schema):
    groups: list[LifeOut]
    likely: list[LikelyOut]
    ahead: list[AheadOut]


def _group(group: Group, lives: list[Life], law: Expected) -> LifeOut:
    curve = survival(lives)
    early, late = law.band
    return LifeOut(
        words=group.words,
        said=in_words(lives, group.words, float(round(law.median))),
        heads=law.heads,
        ended=law.ended,
        median=round(law.median, 1),
        early=round(early, 1),
        late=round(late, 1),
        own=round(law.own, 2),
        curve=[
            CurveStep(months=months, share=share, low=low, high=high)
            for months, share, low, high in zip(curve.months, curve.share, curve.low, curve.high, strict=True)
        ],
    )


def _likely(known: _Known, unit: str) -> tuple[list[LikelyOut], list[AheadOut]]:
    """Heads now on, by the chance that they are changed within three months; and what that comes to by line and size."""
    rows = (
        Fitting.objects.filter(retired_at__isnull=True, side__in=["batter", "resonant"])
        .exclude(drum__state=Drum.State.RETIRED)
        .select_related("drum")
        .order_by("fitted_at")[:MOST_HEADS]
    )
    likely, ahead = list[LikelyOut](), dict[str, float]()
    now = time.time()
    for row in rows:
        law = known.laws.get(Group(row.head, row.side, row.drum.kind))
        if law is None:
            continue
        months = max(0.0, (now - row.fitted_at.timestamp()) / MONTH_S)
        chance = law.ends_within(months, AHEAD_MONTHS)
        what = f"{row.head}, {length_words(row.drum.diameter_m, unit)} {unit}"
        ahead[what] = ahead.get(what, 0.0) + chance
        likely.append(
            LikelyOut(
                tag=row.drum.tag, name=row.drum.name, side=row.side, head=row.head, months=round(months, 1), chance=round(chance, 2)
            )
        )  # fmt: skip
    likely.sort(key=lambda each: -each.chance)
    needed = [AheadOut(what=what, count=round(count, 1)) for what, count in ahead.items() if count >= 0.5]
    return likely[:20], sorted(needed, key=lambda each: -each.count)[:20]


@router.get("/lives", response=LivesOut, operation_id="head_lives")
def head_lives(request: Request) -> LivesOut:
    """How long heads last here, and which are likely to be changed next."""
    workshop = request.member.workshop
    known = known_of(workshop, fresh=True)
    groups = sorted(known.lives, key=lambda group: (-known.laws[group].ended, -len(known.lives[group]), group))
    likely, ahead = _likely(known, workshop.length_unit)
    return LivesOut(
        groups=[_group(group, known.lives[group], known.laws[group]) for group in groups[:40]],
        likely=likely,
        ahead=ahead,
    )
