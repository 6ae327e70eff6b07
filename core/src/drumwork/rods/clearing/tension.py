"""The pull at each rod as it is understood: the part that pitch shows, and the part that only the count or a gauge shows.

An edge tap hears the two-lobed unevenness of the pull and next to nothing of tilt and other odd patterns; a head that answers by its pair,
little of anything but two lobes. The rest is judged from the turns
counted since finger-tight, when none is missing, and from a gauge or key, when one was used. Pull is given in turns of the rod away from
the mean of all, so that it can be acted upon.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Turns
from drumwork.rods.clearing.belief import Belief
from drumwork.rods.clearing.kinds import ROD_SD, projections_of
from drumwork.rods.clearing.readings import READING_SD, Means
from drumwork.rods.clearing.task import ClearingTask

__all__ = ["SPOKEN_OF", "EdgeTension", "edge_tension", "unheard_part"]

Array = NDArray[np.float64]

ODD_SD: Final = 0.15
"""How uneven, in turns, odd patterns usually are before anything is known of them; our own estimate."""
FINGER_SD: Final = 0.06
"""How exactly finger-tight is the same at every rod, in turns; our own estimate."""
EVEN_TURNS: Final = 0.125
"""Pull within an eighth of a turn from highest to lowest counts as even; our own figure."""
SURE_TURNS: Final = 0.08
"""What is known no better than this, as a standard deviation in turns, is not called even; our own figure."""


SPOKEN_OF: Final = Turns.of(1, 32)
"""Less pull than this beside the others is no reason for a turn; our own figure."""


@dataclass(frozen=True, slots=True)
class EdgeTension:
    """How the pull lies round the edge, in turns away from the mean.

    Attributes
    ----------
    by_pitch, unheard : (n,) the part pitch shows, and the part it cannot
    sd : (n,) of both together
    told_by : what the unheard part is judged from: "tally", "gauge", "torque", or nothing
    trust : 0…1, how far turns may go by the unheard part: a rod turned as far as the others need not pull as they do
    clear : tension-clear; never from pitch alone
    """

    by_pitch: Array
    unheard: Array
    sd: Array
    told_by: tuple[str, ...]
    trust: float
    clear: bool
    words: str

    def ordered(self, order: NDArray[np.intp]) -> EdgeTension:
        """The same with the rods in another order."""
        return replace(self, by_pitch=self.by_pitch[order], unheard=self.unheard[order], sd=self.sd[order])

    @property
    def turns(self) -> Array:
        return self.by_pitch + self.unheard

    def unheard_of(self, rods: Sequence[int], rod: int) -> float:
        """Of one rod among these, the part of its pull that pitch does not hear."""
        return float(self.unheard[rods.index(rod)])

    def told_words(self) -> str:
        """What the unheard part is judged from."""
        return " and ".join(_BY[each] for each in self.told_by)


def unheard_part(task: ClearingTask, belief: Belief) -> Array:
    """(n, n): of turns round the head, the part pitch does not hear: tilt and other odd patterns, and the even ones above two lobes as far
    as the head answers by its pair."""
    harmonics = projections_of(task.layout)
    return np.asarray(harmonics[1::2].sum(axis=0) + belief.modal * harmonics[4::2].sum(axis=0))


def _seen_by_pitch(task: ClearingTask, belief: Belief) -> tuple[Array, Array]:
    """Turns that would explain the readings' unevenness, harmonic by harmonic where the answer is firm; and their covariance."""
    found, spread = np.zeros(len(task.layout.rods)), np.zeros((len(task.layout.rods),) * 2)
    for c in belief.components:
        uneven = c.state - c.state.mean()
        state = c.covariance[: c.rods, : c.rods]
        for k, projection in enumerate(c.projections):
            answer = c.harmonics[k]
            if k == 0 or answer <= max(0.15 * c.harmonics[0], 0.0):
                continue
            found += c.weight * (projection @ uneven) / answer
            spread += c.weight * (projection @ state @ projection) / answer**2
    return found, spread


def _counted(task: ClearingTask) -> Array | None:
    """(n,) turns made beyond what was meant, away from the mean. A rod left behind on purpose is as it should be."""
    if task.tally is None:
        return None
    meant = task.meant or {}
    beyond = [task.tally[rod] + -meant.get(rod, Turns(0)) for rod in task.layout.rods]
    counted = np.array([float(each.fraction) for each in beyond])
    return np.asarray(counted - counted.mean())


def _felt(task: ClearingTask, belief: Belief) -> tuple[Array, float] | None:
    """Pull in turns by the last round's numbers, and its standard deviation; only when every rod has one."""
    numbers = task.rounds[-1].numbers
    if set(numbers) != set(task.layout.rods):
        return None
    means = task.means if task.means.is_number else Means.GAUGE
    values = np.array([numbers[rod] for rod in task.layout.rods])
    ratio = values / values.mean() - 1
    return ratio / belief.per_turn, READING_SD[means] / belief.per_turn


def edge_tension(task: ClearingTask, belief: Belief) -> EdgeTension:
    """What is known of the pull at each rod now."""
    n = len(task.layout.rods)
    deaf = unheard_part(task, belief)
    heard, heard_spread = _seen_by_pitch(task, belief) if not task.means.is_number else (np.zeros(n), np.zeros((n, n)))
    mean, precision, told = np.zeros(n), np.full(n, 1 / ODD_SD**2), []
    counted, felt = _counted(task), _felt(task, belief)
    pull = np.zeros(n)
    if counted is not None:
        pull += counted / FINGER_SD**2
        precision += 1 / FINGER_SD**2
        told.append("tally")
    if felt is not None:
        pull += felt[0] / felt[1] ** 2
        precision += 1 / felt[1] ** 2
        told.append(str(task.means) if task.means.is_number else "gauge")
    mean = pull / precision
    unheard = mean - mean.mean() if task.means.is_number else deaf @ mean
    spread = heard_spread + np.diag(1 / precision) if task.means.is_number else heard_spread + deaf / precision[0]
    sd = np.sqrt(np.clip(np.diag(spread), 0, None))
    trust = 1.0 if felt is not None else 0.0 if counted is None else _trust(task)
    return _judged(heard, np.asarray(unheard), sd, tuple(told), trust)


def _trust(task: ClearingTask) -> float:
    """How much of what a count says of lopsided pull is to be believed, by what fingers leave and by how rods differ in what a turn does."""
    turned = float(np.mean([abs(float(each.fraction)) for each in (task.tally or {}).values()]))
    return ODD_SD**2 / (ODD_SD**2 + FINGER_SD**2 + (ROD_SD * turned) ** 2)


def _judged(heard: Array, unheard: Array, sd: Array, told: tuple[str, ...], trust: float) -> EdgeTension:
    total = heard + unheard
    across = float(np.ptp(total))
    clear = bool(told) and across <= EVEN_TURNS and float(sd.mean()) <= SURE_TURNS
    return EdgeTension(heard, unheard, sd, told, trust, clear, _words(across, told, clear))


_BY = {"tally": "the count since finger-tight", "gauge": "the gauge", "torque": "the torque key"}


def _words(across: float, told: tuple[str, ...], clear: bool) -> str:
    if not told:
        return (
            "Not shown. Pitch does not hear tilt and other lopsided pulls; "
            "only a full count since finger-tight or a gauge at every rod shows them."
        )
    by = " and ".join(_BY[each] for each in told)
    size = f"about {Turns(max(1, round(across * 32))).amount()} turn from the hardest to the slackest rod"
    return f"By {by}: {size}. {'Even enough.' if clear else 'More than an eighth of a turn is uneven.'}"
