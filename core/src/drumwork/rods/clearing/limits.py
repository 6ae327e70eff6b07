"""How far each rod may go in one round."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Turns
from drumwork.rods.clearing.belief import Belief
from drumwork.rods.clearing.readings import Means
from drumwork.rods.clearing.task import ClearingTask

__all__ = ["Limits", "limits_of", "made_so_far"]

MOST_SLACKENED: Final = 0.4  # of what holds a rod, in one round
MOST_EASED: Final = 0.8
"""Of what holds a rod on the average: how far one may be eased beyond what all are, over all rounds, where no count tells what each one holds; our own
figure."""
LEAST_HEARD: Final = 0.1  # of a two-lobed pattern of turns, the least the readings are taken to show
UNHEARD_SDS: Final = 2.5
MOST_TURNS: Final = 1.0  # either way, in one round
KEEP_ABOVE_FINGERS: Final = Turns.of(1, 8)


@dataclass(frozen=True, slots=True)
class Limits:
    """Most steps down (≤ 0) and up (≥ 0) per rod, in layout order."""

    down: NDArray[np.int64]
    up: NDArray[np.int64]

    def no_bolder_than(self, steps: NDArray[np.int64]) -> Limits:
        """Cut down so that no rod goes further, or another way, than in `steps`."""
        return Limits(np.maximum(self.down, np.minimum(steps, 0)), np.minimum(self.up, np.maximum(steps, 0)))

    def halved(self) -> Limits:
        """Half as far each way, but one step."""
        return Limits(
            -np.minimum(-self.down, np.maximum(-self.down // 2, 1)), np.minimum(self.up, np.maximum(self.up // 2, 1))
        )

    def allow(self, steps: NDArray[np.int64]) -> NDArray[np.bool_]:
        """For (m, n) candidates, which lie within."""
        return np.asarray(((steps >= self.down) & (steps <= self.up)).all(axis=1))


def limits_of(task: ClearingTask, belief: Belief, leave: frozenset[int] = frozenset()) -> Limits:
    """A rod keeps more than half of what holds it now, and stays above finger-tight where the tally tells where that is. A gauge
    or key at every rod, beside the pitches, tells what each bears.

    Without a tally, unevenness that pitch does not hear must be reckoned with: it is taken to be as large as what is heard, and a rod
    that may hang by little is not slackened far. Rods in `leave` are not turned at all.
    """
    step = float(task.step.fraction)
    in_tension = np.clip(belief.z, 0, None) / belief.per_turn  # turns above slack
    room = MOST_SLACKENED * in_tension
    felt = task.rounds[-1].numbers
    if not task.means.is_number and felt.keys() == set(task.layout.rods):
        bears = np.array([felt[rod] for rod in task.layout.rods])
        room = np.minimum(room, MOST_SLACKENED * in_tension.mean() * bears / bears.mean())
    if task.tally is not None:
        counted = [float((task.tally[rod] + -KEEP_ABOVE_FINGERS).fraction) for rod in task.layout.rods]
        room = np.minimum(room, np.clip(counted, 0, None))
    elif task.means in (Means.PITCH, Means.EAR):
        room = np.minimum(room, _eased_room(task, belief))
        unheard = belief.modal * np.std(belief.z) / (max(belief.two_lobed, LEAST_HEARD) * belief.per_turn)
        room = np.minimum(room, np.clip(in_tension - UNHEARD_SDS * unheard, step, None))
    room, up = np.minimum(room, MOST_TURNS), np.full(len(room), MOST_TURNS)
    for place, rod in enumerate(task.layout.rods):
        if rod in leave:
            room[place] = up[place] = 0.0
    return Limits(-np.floor(room / step + 1e-9).astype(np.int64), np.floor(up / step).astype(np.int64))


def _eased_room(task: ClearingTask, belief: Belief) -> NDArray[np.float64]:
    """(n,) turns each rod may still be eased, so that over all rounds none goes much further down than all do."""
    made = made_so_far(task)
    level = float(belief.z.mean())
    held = level / belief.per_turn - float(made.mean())  # on the average, before anything was turned
    common = max(level - 1, 0.0) / belief.per_turn  # what all have yet to go down
    return np.asarray(np.clip(MOST_EASED * held + made - made.mean() + common, 0, None))


def made_so_far(task: ClearingTask) -> NDArray[np.float64]:
    """(n,) turns of each rod in all rounds so far."""
    rounds = [task.made_in(number) for number in range(len(task.rounds))]
    return np.array([sum(each[rod].thirtyseconds for each in rounds if rod in each) / 32 for rod in task.layout.rods])
