"""Is the head even enough, and by which rule."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from drumwork.quantities import Pitch
from drumwork.rods.clearing.task import EvenRule

__all__ = ["Verdict", "judge"]


@dataclass(frozen=True, slots=True)
class Verdict:
    """A round judged by a rule, on the readings as they were taken."""

    even: bool
    on_pitch: bool
    complete: bool
    spread_hz: float
    allowed_hz: float
    mean_hz: float
    words: str

    @property
    def clear(self) -> bool:
        """Pitch-clear: even, at the wanted pitch, and every rod heard."""
        return self.even and self.on_pitch and self.complete


def judge(readings: Mapping[int, Pitch], wanted_hz: float, rule: EvenRule, rods: int) -> Verdict:
    """Judge one round; `rods` is how many should have been heard."""
    heard = [pitch.hz for pitch in readings.values()]
    mean, spread = sum(heard) / len(heard), max(heard) - min(heard)
    allowed = rule.allowed_hz(wanted_hz)
    even = spread <= allowed + 1e-9
    on_pitch = abs(mean / wanted_hz - 1) <= rule.mean_ratio
    complete = len(heard) >= rods
    basis = f"{spread:.1f} Hz between highest and lowest; up to {allowed:.1f} Hz counts as even (common practice, F2)"
    if not complete:
        words = f"{basis}. {rods - len(heard)} still unheard."
    elif even and not on_pitch:
        words = f"{basis}. Even, but {mean:.1f} is not yet the wanted {wanted_hz:.1f} Hz."
    else:
        words = f"{basis}."
    return Verdict(even, on_pitch, complete, spread, allowed, mean, words)
