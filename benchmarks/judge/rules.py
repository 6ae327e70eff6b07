"""What decides the turns: two habits of the trade, the engine, and the told planner."""

from __future__ import annotations

import json
import math
from collections.abc import Callable
from typing import Any, Final

import numpy as np

from benchmarks.judge.drums import Heard, JudgingDrum
from benchmarks.judge.told import Told
from drumwork.commands.clear import Desk

__all__ = ["RULES", "Rule"]

Array = np.ndarray


Answer = tuple[Array | None, float | None]
Rule = Callable[[Heard], Answer]
Begin = Callable[[JudgingDrum, float], Rule]


def _reads_even(drum: JudgingDrum, hz: Array) -> bool:
    return bool(np.ptp(hz) <= drum.allowed_hz() and abs(hz.mean() / drum.target - 1) <= 0.01)


def raise_lowest(drum: JudgingDrum, step: float) -> Rule:
    """Raise the lowest rod, lower the highest, by what the difference to the target seems to want of one rod."""

    def rule(heard: Heard) -> Answer:
        hz = heard.hz
        if _reads_even(drum, hz):
            return None, None
        turns = np.zeros(drum.n)
        for rod in (int(np.argmin(hz)), int(np.argmax(hz))):
            wanted = (drum.target - hz[rod]) / drum.told_hz
            turns[rod] = np.clip(round(wanted / step), -8, 8) * step or math.copysign(step, drum.target - hz[rod])
        return turns, None

    return rule


def proportional(drum: JudgingDrum, step: float) -> Rule:
    """Every rod by its own difference at a fixed hertz per turn."""

    def rule(heard: Heard) -> Answer:
        if _reads_even(drum, heard.hz):
            return None, None
        return np.clip(np.round((drum.target - heard.hz) / drum.told_hz / step), -16, 16) * step, None

    return rule


def ours(drum: JudgingDrum, step: float) -> Rule:
    """Through the command's own door, as others use it."""
    desk = Desk()

    def rule(heard: Heard) -> Answer:
        request: dict[str, Any] = {
            "case": 1,
            "n_rods": drum.n,
            "target_hz": drum.target,
            "step_turns": step,
            "prior_hz_per_turn": drum.told_hz,
            "readings_hz": heard.hz.tolist(),
        }
        if heard.partials:
            request["partials"] = heard.partials
        found = desk.answer(json.dumps(request))
        return None if found.get("done") else np.array(found["turns"]), found["chance_now"]

    return rule


def told(drum: JudgingDrum, step: float) -> Rule:
    planner = Told(drum, step)
    return lambda heard: (planner(heard), None)


RULES: Final[dict[str, Begin]] = {"raise/lower": raise_lowest, "proportional": proportional, "told": told, "ours": ours}
