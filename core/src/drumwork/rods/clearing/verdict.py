"""Is the head even enough, and by which rule: pitch-clear, or level by what else it was read with."""

from __future__ import annotations

from dataclasses import dataclass

from drumwork.rods.clearing.readings import EAR_CENTS, Ear, Means
from drumwork.rods.clearing.task import ClearingTask

__all__ = ["Verdict", "judge"]


@dataclass(frozen=True, slots=True)
class Verdict:
    """A round judged by a rule, on the readings as they were taken. Spread, allowed and mean are in `unit`."""

    even: bool
    on_pitch: bool
    complete: bool
    spread: float
    allowed: float
    mean: float
    unit: str
    words: str

    @property
    def clear(self) -> bool:
        """Even, where it is wanted, and every rod heard."""
        return self.even and self.on_pitch and self.complete


def judge(task: ClearingTask) -> Verdict:
    """Judge the last round. Rods wanted apart from the rest are judged by what is wanted of them."""
    return _by_ear(task) if task.means is Means.EAR else _by_value(task)


def _values(task: ClearingTask) -> list[float]:
    """The last round's readings as they would be, were no rod wanted apart from the rest."""
    last = task.rounds[-1]
    if task.means is Means.PITCH:
        return [pitch.hz / task.z_wanted(rod) ** 0.5 for rod, pitch in last.readings.items()]
    return [number / task.z_wanted(rod) for rod, number in last.numbers.items()]


def _by_value(task: ClearingTask) -> Verdict:
    heard, wanted, last = _values(task), task.wanted, task.rounds[-1]
    pitch = task.means is Means.PITCH
    mean, spread = sum(heard) / len(heard), max(heard) - min(heard)
    everywhere = last.pair is not None and pitch and not task.offsets
    if last.pair is not None and everywhere:
        spread = max(spread, last.pair.upper_hz - last.pair.lower_hz)
    allowed = task.even.allowed_hz(wanted) if pitch else 2 * task.allowed_ratio * wanted
    room = task.even.mean_ratio if pitch else 2 * task.even.mean_ratio
    even, on_pitch = spread <= allowed + 1e-9, abs(mean / wanted - 1) <= room
    unheard = len(task.layout.rods) - len(heard)
    unit = task.means.unit
    size = f"{spread:.1f}{f' {unit}' if unit else ''}"
    rule = f"up to {allowed:.1f}{f' {unit}' if unit else ''} counts as even (common practice, F2)"
    where = (
        "between highest and lowest at any angle, not at the rods alone" if everywhere else "between highest and lowest"
    )
    words = f"{size} {where}; {rule}"
    if unheard:
        words += f". {unheard} still unheard."
    elif even and not on_pitch:
        words += f". Even, but {mean:.1f} is not yet the wanted {wanted:.1f}{f' {unit}' if unit else ''}."
    else:
        words += "."
    return Verdict(even, on_pitch, not unheard, spread, allowed, mean, unit, words)


def _by_ear(task: ClearingTask) -> Verdict:
    last = task.rounds[-1]
    judged = [value for rod, value in last.ear.items() if rod != last.reference]
    off = [value for value in judged if value not in (Ear.LEVEL, Ear.CANT_TELL)]
    cents = [EAR_CENTS[value].cents for value in judged] + [0.0]
    unheard = len(task.layout.rods) - len(last.heard(Means.EAR))
    on_pitch = last.whole in (None, Ear.LEVEL, Ear.CANT_TELL)
    unsure = sum(value is Ear.CANT_TELL for value in judged)
    if off:
        words = f"{len(off)} of {len(judged)} rods do not sound level with rod {last.reference}."
    else:
        words = f"All sound level with rod {last.reference}" + (f", {unsure} not for certain." if unsure else ".")
    if unheard:
        words += f" {unheard} still unheard."
    if not on_pitch:
        words += " The whole head is not yet where it is wanted."
    spread = max(cents) - min(cents)
    return Verdict(not off, on_pitch, not unheard, spread, 0.0, sum(cents) / len(cents), task.means.unit, words)
