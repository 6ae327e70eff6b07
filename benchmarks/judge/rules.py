"""What decides the turns: two habits of the trade, the engine, and the told planner."""

from __future__ import annotations

import json
from collections.abc import Callable
from functools import partial
from typing import Any, Final

import numpy as np

from benchmarks.clearing import proportional, raise_lowest
from benchmarks.judge.drums import Heard, JudgingDrum
from benchmarks.judge.told import Told
from drumwork.commands.clear import Desk

__all__ = ["RULES", "Rule"]

Array = np.ndarray


Answer = tuple[Array | None, float | None]
Rule = Callable[[Heard], Answer]
Begin = Callable[[JudgingDrum, float], Rule]


def habit(begin: Callable[[float], Callable[[Any], Callable[[Any, Array], Array | None]]]) -> Begin:
    """One of the plain rules of `./bench clearing`, on judging drums."""

    def start(drum: JudgingDrum, step: float) -> Rule:
        rule = begin(step)(drum)
        return lambda heard: (rule(drum, heard.hz), None)

    return start


def ours(drum: JudgingDrum, step: float, counted: bool = False) -> Rule:
    """Through the command's own door, as others use it; `counted`: told the turns since finger-tight."""
    desk = Desk()
    told = {"counted_turns": drum.counted().tolist()} if counted else {}

    def rule(heard: Heard) -> Answer:
        request: dict[str, Any] = {
            "case": 1,
            "n_rods": drum.n,
            "target_hz": drum.target,
            "step_turns": step,
            "prior_hz_per_turn": drum.told_hz,
            "readings_hz": heard.hz.tolist(),
            **told,
        }
        if heard.partials:
            request["partials"] = heard.partials
        found = desk.answer(json.dumps(request))
        return None if found.get("done") else np.array(found["turns"]), found["chance_now"]

    return rule


def told(drum: JudgingDrum, step: float) -> Rule:
    planner = Told(drum, step)
    return lambda heard: (planner(heard), None)


def told_but_each_rod(drum: JudgingDrum, step: float) -> Rule:
    """Told the head's answer, but not by how much each rod departs from the others."""
    planner = Told(drum, step, drum.jacobian(each_rod=False))
    return lambda heard: (planner(heard), None)


def told_its_kind(drum: JudgingDrum, step: float) -> Rule:
    """Told which kind the head is, how such heads answer on the average, how it is heard and how hands slip; of a turn, what ours is told of it."""
    planner = Told(drum, step, drum.usual())
    return lambda heard: (planner(heard), None)


RULES: Final[dict[str, Begin]] = {
    "raise/lower": habit(raise_lowest),
    "proportional": habit(proportional),
    "told": told,
    "told, not each rod": told_but_each_rod,
    "told its kind": told_its_kind,
    "ours": ours,
    "ours, counted": partial(ours, counted=True),
}
