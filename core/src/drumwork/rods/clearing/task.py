"""What a clearing needs to know: the head, the rounds so far, and what is wanted."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from drumwork.errors import BadLayout, BadQuantity, TooFewReadings
from drumwork.quantities import Pitch, Turns
from drumwork.rods.layout import RodLayout
from drumwork.sources import common_practice

__all__ = ["ClearingTask", "EvenRule", "Round"]


@dataclass(frozen=True, slots=True)
class EvenRule:
    """When a head counts as even enough: the spread between highest and lowest rod, both ways.

    Defaults are common practice, F2: about 2 Hz on a head near 100 Hz.
    """

    spread_hz: float = common_practice.EVEN_ENOUGH_SPREAD_HZ
    spread_ratio: float = common_practice.EVEN_ENOUGH_SPREAD_RATIO
    mean_ratio: float = common_practice.EVEN_ENOUGH_SPREAD_RATIO

    def allowed_hz(self, at_hz: float) -> float:
        """The largest spread allowed at this pitch, in hertz."""
        return min(self.spread_hz, self.spread_ratio * at_hz)


@dataclass(frozen=True, slots=True)
class Round:
    """One reading per rod (a rod may be missing), then the turns made before the next round."""

    readings: Mapping[int, Pitch]
    turned: Mapping[int, Turns] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class ClearingTask:
    """A head to be brought in tune with itself.

    Parameters
    ----------
    rounds
        in the order they were tapped; the last one's `turned` is ignored, it is what is being asked for.
    target
        wanted lug pitch, or None to hold the mean of the first round.
    step
        the finest turn the workshop works in.
    prior_hz_per_turn
        how far one turn of every rod is expected to move the pitch, or None when nothing is known.
    tally
        total turns of each rod since finger-tight up to now, when the count is complete.

    Raises
    ------
    TooFewReadings
        when the last round lacks more than a third of its rods.
    BadLayout
        for a reading or a turn of a rod that is lost or does not exist.
    """

    layout: RodLayout
    rounds: tuple[Round, ...]
    step: Turns
    target: Pitch | None = None
    even: EvenRule = field(default_factory=EvenRule)
    prior_hz_per_turn: float | None = None
    tally: Mapping[int, Turns] | None = None

    def __post_init__(self) -> None:
        if not self.rounds:
            raise TooFewReadings("Tap round the head once and enter a pitch for each rod.")
        if self.step.thirtyseconds <= 0:
            raise BadQuantity("The step must be at least a thirty-second of a turn.", step=self.step.thirtyseconds)
        for each in self.rounds:
            for rod in (*each.readings, *each.turned):
                self.layout.require(rod)
        heard, there = len(self.rounds[-1].readings), len(self.layout.rods)
        if heard * 3 < there * 2 or heard < 3:
            missing = [rod for rod in self.layout.rods if rod not in self.rounds[-1].readings]
            raise TooFewReadings(
                f"{heard} of {there} rods have a reading; at least two thirds are needed. "
                f"Still to tap: {', '.join(map(str, missing))}.",
                missing=missing,
            )
        if self.tally is not None and (gone := set(self.layout.rods) - set(self.tally)):
            raise BadLayout("The tally lacks rods; leave it out when it is not complete.", rods=sorted(gone))

    @property
    def wanted_hz(self) -> float:
        """The pitch all rods should come to: the target, or the mean of the first round."""
        if self.target is not None:
            return self.target.hz
        first = self.rounds[0].readings
        return sum(pitch.hz for pitch in first.values()) / len(first)
