"""Four ways a rod is read: pitch in hertz, the ear against another rod, a gauge on the film, a torque key.

Each becomes a noisy look at z, which goes with tension: (f / wanted)² for pitch, number / wanted for a gauge or a key, 1 + a small
difference for the ear. The figures of the ear, the gauge and the key are our own estimates; common practice gives none.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from drumwork.errors import BadQuantity
from drumwork.quantities import cents_of

__all__ = ["EAR_CENTS", "EAR_WORDS", "READING_SD", "Ear", "Means", "cents_of_z", "hears", "z_of_cents"]


class Means(StrEnum):
    """What the rods are read with (trade §17.7)."""

    PITCH = "pitch"
    EAR = "ear"
    GAUGE = "gauge"
    TORQUE = "torque"

    @property
    def is_number(self) -> bool:
        """A bare number on a scale of its own, which tells local pull and not pitch."""
        return self in (Means.GAUGE, Means.TORQUE)

    @property
    def unit(self) -> str:
        """What follows the value: hertz, a bare number, or cents by ear."""
        return "Hz" if self is Means.PITCH else "" if self.is_number else "cents"


class Ear(StrEnum):
    """How a rod sounds beside the one it is compared with."""

    MUCH_LOWER = "much-lower"
    LOWER = "lower"
    LEVEL = "level"
    HIGHER = "higher"
    MUCH_HIGHER = "much-higher"
    CANT_TELL = "cant-tell"


@dataclass(frozen=True, slots=True)
class _Heard:
    cents: float
    sd: float


EAR_CENTS: Final[Mapping[Ear, _Heard]] = {
    Ear.MUCH_LOWER: _Heard(-90.0, 45.0),
    Ear.LOWER: _Heard(-28.0, 16.0),
    Ear.LEVEL: _Heard(0.0, 9.0),
    Ear.HIGHER: _Heard(28.0, 16.0),
    Ear.MUCH_HIGHER: _Heard(90.0, 45.0),
    Ear.CANT_TELL: _Heard(0.0, 30.0),
}
"""What a judgement says of the difference, for a listener who notices about fifteen cents; our own estimate."""
EAR_WORDS: Final[Mapping[Ear, str]] = {
    Ear.MUCH_LOWER: "much lower",
    Ear.LOWER: "lower",
    Ear.LEVEL: "level",
    Ear.HIGHER: "higher",
    Ear.MUCH_HIGHER: "much higher",
    Ear.CANT_TELL: "can’t tell",
}
EAR_THRESHOLD_CENTS: Final = 15.0
MUCH_CENTS: Final = 45.0

READING_SD: Final[Mapping[Means, float]] = {
    Means.PITCH: 0.006,  # ±0.3 % of pitch is ±0.6 % of z
    Means.GAUGE: 0.015,
    Means.TORQUE: 0.06,  # dirty threads mislead (trade §6)
}
"""Standard deviation of one reading, in z."""

CENTS_PER_Z: Final = 600 / math.log(2)


def cents_of_z(z: float) -> float:
    """Cents of pitch that go with a ratio of tensions."""
    if z <= 0:
        raise BadQuantity("A tension must be more than nothing.", z=z)
    return cents_of(math.sqrt(z))


def z_of_cents(cents: float) -> float:
    """The ratio of tensions that goes with a difference of pitch.

    >>> round(z_of_cents(1200.0), 3)
    4.0
    """
    return math.exp2(cents / 600)


def hears(cents: float) -> Ear:
    """What a listener with a good ear would say of a true difference."""
    if abs(cents) < EAR_THRESHOLD_CENTS:
        return Ear.LEVEL
    if cents < 0:
        return Ear.MUCH_LOWER if cents < -MUCH_CENTS else Ear.LOWER
    return Ear.MUCH_HIGHER if cents > MUCH_CENTS else Ear.HIGHER
