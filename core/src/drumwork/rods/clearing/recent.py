"""A head that gets worse twice running was misunderstood: what it did before is set aside, and it is taken up anew."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from drumwork.rods.clearing.readings import Means
from drumwork.rods.clearing.task import ClearingTask, Round

__all__ = ["recent"]

WORSE: Final = 1.25
"""A spread larger by this counts as worse; less is what readings do by themselves."""
KEPT: Final = 2


def _spread(each: Round) -> float:
    hz = [pitch.hz for pitch in each.readings.values()]
    return max(hz) - min(hz)


def recent(task: ClearingTask) -> ClearingTask:
    """The task itself, or with its last rounds alone where the last turns twice made the head clearly more uneven."""
    if task.means is not Means.PITCH or len(task.rounds) <= KEPT:
        return task
    first, second, third = (_spread(each) for each in task.rounds[-3:])
    allowed = task.even.allowed_hz(task.wanted)
    if second > max(WORSE * first, allowed) and third > max(WORSE * second, allowed):
        return replace(task.held(), rounds=task.rounds[-KEPT:])
    return task
