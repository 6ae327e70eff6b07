"""A workshop's own choices where the trade disagrees (trade §17). A job keeps those it began with."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from drumwork.drums import Side
from drumwork.quantities import Turns
from drumwork.rods.clearing import EvenRule
from drumwork.rods.patterns import Pattern
from drumwork.sources import iso16

__all__ = ["Cadence", "LogoPlace", "Stretch", "Ways"]


class Stretch(StrEnum):
    """Schools of seating (trade §17.2)."""

    PALM = "palm"
    OVER_TENSION = "over-tension"
    BARELY = "barely"


class LogoPlace(StrEnum):
    """Where this workshop puts the head's logo (trade §17.4)."""

    BADGE = "badge"
    BETWEEN_LUGS = "between-lugs"
    TWELVE = "twelve-oclock"
    THROW_OFF = "throw-off"
    OPPOSITE_LEG = "opposite-leg"


class Cadence(StrEnum):
    """How turns are confirmed: each rod, two facing rods together (P8: two keys), or a whole pass."""

    ROD = "rod"
    PAIR = "pair"
    PASS = "pass"


@dataclass(frozen=True, slots=True)
class Ways:
    """Choices of trade §17, and the figures a job is judged by: its reference A and when it counts as even."""

    pattern: Pattern = Pattern.STAR
    step: Turns = field(default_factory=lambda: Turns.of(1, 16))
    stretch: Stretch = Stretch.PALM
    logo: LogoPlace = LogoPlace.BADGE
    grease_dry_threads: bool = True
    rest_minutes: int = 30
    tap_round: bool = True
    first_head: Side = Side.RESONANT
    cadence: Cadence = Cadence.ROD
    slacken_by: Cadence = Cadence.PASS
    a4_hz: float = iso16.A4_HZ
    even: EvenRule = field(default_factory=EvenRule)
