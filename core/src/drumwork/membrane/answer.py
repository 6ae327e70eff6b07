"""How far a turn of every rod is expected to move a head: from thread, film and drum, corrected by the head's own history.

One turn draws the hoop down by the thread's pitch p; the film, held at the hoop and bent over the edge of radius a, would be strained by p/a
all round, ΔT = E·h·p / ((1 − ν)·a). Hoop, flesh hoop, glue and friction over the edge take most of it. What is left is set so that usual
heads answer as the prior of the clearing engine; it is our own estimate and its uncertainty is wide, so that a few rounds on the drum
itself soon outweigh it.

References
----------
Equal biaxial stress of a thin film, σ = E·ε/(1 − ν): S. Timoshenko & S. Woinowsky-Krieger, *Theory of Plates and Shells* (1959).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from drumwork.membrane.film import Head
from drumwork.membrane.modes import edge_hz
from drumwork.quantities import Pitch
from drumwork.quantities.thread import USUAL_THREAD, thread_pitch_m
from drumwork.sources import materials

__all__ = ["ExpectedAnswer", "expect_answer"]

REACHES_FILM: Final = 0.18
"""Share of the strain that reaches the film; our own estimate."""
THREAD_LOG_SD: Final = 0.4


@dataclass(frozen=True, slots=True)
class ExpectedAnswer:
    """Change of pitch squared, Hz², when every rod makes one turn, as a log-normal: `log_sd` is one standard deviation of its logarithm."""

    hz2_per_turn: float
    log_sd: float
    words: str

    def hz_per_turn(self, at: Pitch) -> float:
        """What one turn of every rod does near this pitch."""
        return self.hz2_per_turn / (2 * at.hz)

    def hz_range(self, at: Pitch) -> tuple[float, float]:
        """The range of it that holds nineteen times in twenty."""
        room = math.exp(1.96 * self.log_sd)
        return self.hz_per_turn(at) / room, self.hz_per_turn(at) * room

    def turns(self, start: Pitch, wanted: Pitch) -> tuple[float, float, float]:
        """Turns of every rod from one pitch to another: expected, and the range that holds nineteen times in twenty."""
        turns = (wanted.hz**2 - start.hz**2) / self.hz2_per_turn
        room = math.exp(1.96 * self.log_sd)
        low, high = sorted((turns / room, turns * room))
        return turns, low, high


def _by_thread(head: Head, pitch_m: float) -> float:
    """Hz² a turn from the film's own stiffness."""
    film, radius = head.film, head.diameter.metres / 2
    per_turn = REACHES_FILM * materials.PET_MODULUS_PA * film.thickness_m * pitch_m
    tension = per_turn / ((1 - materials.PET_POISSON) * radius)
    return edge_hz(head.membrane, tension) ** 2  # pitch squared goes with tension


def expect_answer(
    head: Head, thread: str = USUAL_THREAD, seen: tuple[float, float] | None = None, rounds: int = 0
) -> ExpectedAnswer:
    """What to expect of a turn. `seen` is the head's own answer, Hz² a turn, with its standard deviation, over `rounds` rounds."""
    prior = _by_thread(head, thread_pitch_m(thread or USUAL_THREAD))
    if seen is None or seen[0] <= 0:
        return ExpectedAnswer(prior, THREAD_LOG_SD, f"from its film and thread ({thread or USUAL_THREAD}) alone")
    own_sd = max(seen[1] / seen[0], 0.02)
    weights = THREAD_LOG_SD**-2, own_sd**-2
    log = (weights[0] * math.log(prior) + weights[1] * math.log(seen[0])) / sum(weights)
    words = f"from {rounds} round{'s' if rounds != 1 else ''} on this drum, with its film and thread"
    return ExpectedAnswer(math.exp(log), sum(weights) ** -0.5, words)
