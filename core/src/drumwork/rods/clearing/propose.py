"""From the rounds so far to the turns for every rod, what they will do, and why."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing.belief import Belief, believe
from drumwork.rods.clearing.plan import plan_turns
from drumwork.rods.clearing.task import ClearingTask
from drumwork.rods.clearing.verdict import Verdict, judge
from drumwork.rods.clearing.words import explain_rod, explain_round

__all__ = ["Predicted", "Proposal", "propose"]

Array = NDArray[np.float64]
DRAWS: Final = 256


@dataclass(frozen=True, slots=True)
class Predicted:
    """What a rod should read after the turns: hertz, and one standard deviation of it."""

    hz: float
    sd_hz: float


@dataclass(frozen=True, slots=True)
class Proposal:
    """Turns for every rod that is there, with their expected effect.

    `chance_now` and `chance_even` are the chances, 0…1, that the head is within the rule now and after these turns.
    `too_coarse` is a sentence when whole steps cannot meet the rule, else empty.
    """

    wanted_hz: float
    verdict: Verdict
    turns: Mapping[int, Turns]
    predicted: Mapping[int, Predicted]
    predicted_spread_hz: float
    predicted_mean_hz: float
    chance_even: float
    chance_now: float
    modal: float
    why_round: str
    why_rod: Mapping[int, str]
    too_coarse: str


def _pitches(belief: Belief, turns: Mapping[int, Turns], wanted_hz: float) -> tuple[Array, Array, Array]:
    """Mean and standard deviation of each rod's pitch after the turns, and (s, n) draws of all of them together."""
    made = np.array([float(amount.fraction) for amount in turns.values()])
    mean, covariance = belief.outcome(made)
    mean = np.clip(mean, 1e-6, None)
    hz = wanted_hz * np.sqrt(mean)
    sd = hz * np.sqrt(np.clip(np.diag(covariance), 0, None)) / (2 * mean)
    values, vectors = np.linalg.eigh(covariance)
    draws = _normals(len(hz)) @ (vectors * np.sqrt(np.clip(values, 0, None))).T
    return hz, sd, wanted_hz * np.sqrt(np.clip(mean + draws, 1e-6, None))


def _chance(draws: Array, task: ClearingTask) -> float:
    """Share of the draws that lie within the rule."""
    wanted = task.wanted_hz
    even = np.ptp(draws, axis=1) <= task.even.allowed_hz(wanted)
    on_pitch = np.abs(draws.mean(axis=1) / wanted - 1) <= task.even.mean_ratio
    return float((even & on_pitch).mean())


@lru_cache(maxsize=16)
def _normals(n: int) -> Array:
    """Antithetic normal draws, the same every time."""
    half = np.random.default_rng(n).standard_normal((DRAWS // 2, n))
    return np.concatenate([half, -half])


def propose(task: ClearingTask, stop_when_read_clear: bool = True) -> Proposal:
    """Judge the last round and propose the next turns.

    When the last round reads clear, every proposed turn is zero: for a person with a drum the work is done. With
    `stop_when_read_clear` off the belief over all rounds decides instead, which a lucky noisy round does not fool.
    """
    wanted, last = task.wanted_hz, task.rounds[-1].readings
    rods = task.layout.rods
    verdict = judge(last, wanted, task.even, len(rods))
    belief = believe(task)
    stop = verdict.clear and stop_when_read_clear
    turns = {rod: Turns(0) for rod in rods} if stop else plan_turns(task, belief)
    means, sds, draws = _pitches(belief, turns, wanted)
    allowed = task.even.allowed_hz(wanted)
    still = {rod: Turns(0) for rod in rods}
    now = _chance(_pitches(belief, still, wanted)[2], task) if any(turns.values()) else _chance(draws, task)
    predicted = {rod: Predicted(float(m), float(s)) for rod, m, s in zip(rods, means, sds, strict=True)}
    spread = float(np.ptp(means))
    return Proposal(
        wanted_hz=wanted,
        verdict=verdict,
        turns=turns,
        predicted=predicted,
        predicted_spread_hz=spread,
        predicted_mean_hz=float(means.mean()),
        chance_even=_chance(draws, task),
        chance_now=now,
        modal=belief.modal,
        why_round=verdict.words if verdict.clear else explain_round(last, turns, wanted, spread),
        why_rod={rod: explain_rod(task.layout, rod, last, turns, wanted) for rod in rods},
        too_coarse=_coarse(task, verdict, turns, spread, allowed),
    )


def _coarse(task: ClearingTask, verdict: Verdict, turns: Mapping[int, Turns], spread: float, allowed: float) -> str:
    if verdict.clear or spread <= allowed:
        return ""
    if any(turns.values()) and spread < 0.7 * verdict.spread_hz:
        return ""
    return (
        f"Steps of {task.step.amount()} turn cannot bring this head within {allowed:.1f} Hz; "
        f"{Pitch(task.wanted_hz).hz:.0f} Hz on this drum needs a finer step, or this is as even as it gets."
    )
