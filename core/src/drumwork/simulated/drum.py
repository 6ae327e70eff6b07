"""A simulated drum on the bench: rods that can be turned, a head that answers, and its sound at any rod.

A stand-in: the pull at the rods is a number each; the modes with one diameter feel its mean and its two-lobed part, those with two its four-lobed part
(docs/sources/film.md), so that tilt and other lopsided pulls go unheard, and a film gauge at the edge shows them. Films, shell, air and the other head make
the sound of it (`sounding_drum`), and it settles as new film does (`drumwork.settling`). No instrumented drum was measured.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Turns, ratio_of
from drumwork.rods.layout import RodLayout
from drumwork.settling import expect_settling
from drumwork.simulated.microphone import Microphone
from drumwork.simulated.ring import Ringing, Tap
from drumwork.simulated.shell import Shell
from drumwork.simulated.sounding_drum import LEAST_PULL, SoundingDrum

__all__ = ["SimulatedDrum"]

Array = NDArray[np.float64]

LOBE_SHARES: Final = (0.42, 0.2, 0.1)
"""How much of a lobe of pulls the pair of its order feels. The first from our own study; the finer ones, which edge taps hardly hear, set by us."""
GAUGE_AT_ONE: Final = 80.0
GAUGE_NOISE: Final = 0.01


@dataclass
class SimulatedDrum:
    """One head on a drum near `near_hz`, unevenly set.

    Parameters
    ----------
    near_hz
        what its rods read on the average while it is as it was set, the other head held still.
    answer_per_turn
        what a turn adds to the pull at its own rod, 1 being the usual pull.
    uneven
        standard deviation of the pull at the rods to begin with.
    shell
        its depth, films and other head.
    film
        the kind of film it settles like, as in `expect_settling`.
    days
        since the film was fitted.
    """

    layout: RodLayout
    near_hz: float
    radius_m: float
    seed: int
    answer_per_turn: float = 0.8
    uneven: float = 0.09
    shell: Shell = field(default_factory=Shell)
    ringing: Ringing = field(default_factory=Ringing)
    film: str = "single"
    days: float = 0.0
    _pull: Array = field(init=False, repr=False)
    _quirk: Array = field(init=False, repr=False)

    def __post_init__(self) -> None:
        random, n = np.random.default_rng(self.seed), len(self.layout.rods)
        pull = random.standard_normal(n)
        self._pull = 1 + self.uneven * (pull - pull.mean())
        self._quirk = 1 + 0.06 * random.standard_normal(n)

    def turn(self, turns: Mapping[int, Turns]) -> None:
        """Turn rods; what is left out stays."""
        made = np.array([float(turns[rod].fraction) if rod in turns else 0.0 for rod in self.layout.rods])
        self._pull = np.clip(self._pull + self.answer_per_turn * self._quirk * made, LEAST_PULL, None)

    def settle(self, cents: float) -> None:
        """The film stretches: the whole head falls by so many cents."""
        self._pull = self._pull * ratio_of(-2 * cents)

    def rest(self, days: float) -> None:
        """So many days go by, and the film settles by as much as film of its age does."""
        settling = expect_settling(self.film)
        self.settle(settling.drop_cents(self.days + days) - settling.drop_cents(self.days))
        self.days += days

    def sounding(self) -> SoundingDrum:
        """The drum as it sounds now."""
        angles = np.array([self.layout.angle_rad(rod) for rod in self.layout.rods])
        mean = float(self._pull.mean())
        lobes = tuple(
            2 * share * complex((self._pull * np.exp(2j * order * angles)).mean()) / mean
            for order, share in enumerate(LOBE_SHARES, 1)
        )
        return SoundingDrum(self.radius_m, self.near_hz * mean**0.5, lobes, self.shell, self.ringing)

    def true_hz(self) -> Mapping[int, float]:
        """What each rod reads: the blend of the pair it hears."""
        now = self.sounding()
        return {rod: now.blend_hz(self.layout.angle_rad(rod)) for rod in self.layout.rods}

    def tap(self, rod: int, rate: int, seed: int, strength: float = 0.2, snr_db: float = 45.0) -> Array:
        """(samples,) one tap at a rod as a microphone hears it."""
        return self._heard(Tap(self.layout.angle_rad(self.layout.require(rod)), 0.028, strength), rate, seed, snr_db)

    def tap_middle(self, rate: int, seed: int, strength: float = 0.2, snr_db: float = 45.0) -> Array:
        """(samples,) one tap in the middle, where the drum's own note is."""
        return self._heard(Tap(0.0, 0.97 * self.radius_m, strength), rate, seed, snr_db)

    def _heard(self, place: Tap, rate: int, seed: int, snr_db: float) -> Array:
        random = np.random.default_rng(seed)
        return Microphone(snr_db=snr_db).hear(self.sounding().sound(place, rate, 1.1, random), rate, random)

    def gauge(self, rod: int, seed: int) -> float:
        """The number of a film gauge standing near a rod: any scale, rising with the pull."""
        noise = 1 + GAUGE_NOISE * np.random.default_rng(seed).standard_normal()
        return float(GAUGE_AT_ONE * self._pull[self.layout.rods.index(rod)] * noise)
