"""A simulated kit: one drum is struck, the others are resonators driven by the sound of it, and a hand comes down on the struck one."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.signal import lfilter

__all__ = ["SimulatedKit"]

Array = NDArray[np.float64]
NEPER_DB: Final = 20 / math.log(10)


@dataclass(frozen=True)
class SimulatedKit:
    """Notes by drum, in hertz, the drum's own first.

    Attributes
    ----------
    decay_db_s : how fast every note dies
    coupling : what a drum in tune with a lasting sound would reach of it
    noise : of the room, against a stroke of one
    """

    notes: Mapping[str, Sequence[float]]
    decay_db_s: float = 26.0
    coupling: float = 0.5
    noise: float = 3e-4
    rate: int = 48_000

    def _resonates(self, sound: Array, hz: float) -> Array:
        """A resonator of second order, as loud as what drives it where that lasts and is in tune."""
        rate = self.decay_db_s / NEPER_DB
        pole = math.exp(-rate / self.rate)
        turn = math.cos(math.tau * hz / self.rate)
        gain = (1 - pole) * math.sqrt(1 - 2 * pole * math.cos(2 * math.tau * hz / self.rate) + pole**2)
        return np.asarray(lfilter([gain], [1.0, -2 * pole * turn, pole**2], sound))

    def strike(self, struck: str, seed: int, hand_s: float | None = 0.9, seconds: float = 3.2) -> Array:
        """One recording: a moment of room, the stroke, the hand, what rings on."""
        random = np.random.default_rng(seed)
        lead = round(0.15 * self.rate)
        t = np.arange(round(seconds * self.rate)) / self.rate
        falls = np.exp(-self.decay_db_s / NEPER_DB * t)
        own = np.zeros_like(t)
        for n, hz in enumerate(self.notes[struck]):
            own += 0.6**n * falls ** (1 + 0.6 * n) * np.sin(math.tau * hz * t + random.uniform(0, math.tau))
        click = random.standard_normal(len(t)) * np.exp(-t / 0.004)
        own += 0.8 * click
        if hand_s is not None:
            after = np.clip(t - hand_s, 0, None)
            own *= np.exp(-after / 0.012)
        others = [hz for name, notes in self.notes.items() if name != struck for hz in notes]
        sound = own + self.coupling * sum((self._resonates(own, hz) for hz in others), np.zeros_like(t))
        whole = np.concatenate([np.zeros(lead), sound])
        whole += self.noise * random.standard_normal(len(whole))
        return np.asarray(whole * 0.4 / np.abs(whole).max())
