"""Is the head even enough, and by which rule: pitch-clear, or level by what else it was read with."""

from __future__ import annotations

from dataclasses import dataclass

from drumwork.quantities import Interval, cents_words
from drumwork.rods.clearing.readings import EAR_CENTS, Ear, Means
from drumwork.rods.clearing.task import ClearingTask
from drumwork.sources import common_practice

__all__ = ["Verdict", "at_pitch", "judge"]


def at_pitch(mean_hz: float, wanted_hz: float) -> bool:
    """Whether a head stands where it is wanted. The one rule of the Bench, the kit and the sheet (half of F2 either way; our reading).

    >>> at_pitch(86.9, 85.5), at_pitch(86.2, 85.5)
    (False, True)
    """
    return abs(mean_hz / wanted_hz - 1) <= common_practice.AT_PITCH_RATIO


@dataclass(frozen=True, slots=True)
class Verdict:
    """A round judged by a rule, on the readings as they were taken. Spread, allowed and mean are in `unit`.

    `even` and `on_pitch` are two things, and both must hold; `pitch_asked` is whether a pitch was asked for, not only held.
    """

    even: bool
    on_pitch: bool
    pitch_asked: bool
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
    even, on_pitch = spread <= allowed + 1e-9, abs(mean / wanted - 1) <= task.room
    unheard = len(task.layout.rods) - len(heard)
    unit = task.means.unit
    size = f"{spread:.1f}{f' {unit}' if unit else ''}"
    rule = f"up to {allowed:.1f}{f' {unit}' if unit else ''} counts as even"
    where = (
        "between highest and lowest at any angle, not at the rods alone" if everywhere else "between highest and lowest"
    )
    words = f"{size} {where}; {rule}."
    if unheard:
        words += f" {unheard} still unheard."
    elif task.pitch_asked or not on_pitch:
        words += f" {_where_it_stands(task, even, on_pitch, mean)}"
    return Verdict(even, on_pitch, task.pitch_asked, not unheard, spread, allowed, mean, unit, words)


def _where_it_stands(task: ClearingTask, even: bool, on_pitch: bool, mean: float) -> str:
    """Even and at pitch are two things; both are said."""
    unit = f" {task.means.unit}" if task.means.unit else ""
    first = {(True, True): "Even and at pitch", (True, False): "Even, but not at pitch"}.get(
        (even, on_pitch), "At pitch, but not even" if on_pitch else "Neither even nor at pitch"
    )
    if not task.pitch_asked:
        first = "Even, but it drifted" if even else "It drifted as well"
    off = "" if on_pitch else f", {_off(task, mean)}"
    return f"{first}: {mean:.1f}{unit} where {task.wanted:.1f} is wanted{off}."


def _off(task: ClearingTask, mean: float) -> str:
    ratio = mean / task.wanted
    side = "high" if ratio > 1 else "low"
    if task.means is not Means.PITCH:
        return f"{abs(ratio - 1):.0%} too {side}"
    return f"{cents_words(Interval.from_ratio(ratio).cents)} too {side}"


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
    return Verdict(
        not off, on_pitch, task.pitch_asked, not unheard, spread, 0.0, sum(cents) / len(cents), task.means.unit, words
    )
