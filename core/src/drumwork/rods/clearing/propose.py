"""From the rounds so far to the turns for every rod, what they will do, and why."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Turns, cents_words
from drumwork.rods.clearing import words
from drumwork.rods.clearing.belief import Belief, believe, keep
from drumwork.rods.clearing.findings import Finding, FindingKind, findings_of
from drumwork.rods.clearing.learned import Learned
from drumwork.rods.clearing.limits import Limits, limits_of
from drumwork.rods.clearing.plan import STILL, plan_equal, plan_turns
from drumwork.rods.clearing.readings import EAR_CENTS, Means, cents_of_z
from drumwork.rods.clearing.recent import recent
from drumwork.rods.clearing.relabel import Numbering, agreed_numbering, places, relabel, relabel_learned
from drumwork.rods.clearing.sample import draw_heads
from drumwork.rods.clearing.task import ClearingTask
from drumwork.rods.clearing.tension import EdgeTension, edge_tension
from drumwork.rods.clearing.verdict import Verdict, judge

__all__ = ["Approach", "Predicted", "Proposal", "Worked", "at_rest", "cents_read", "compose", "propose", "work_out"]

Array = NDArray[np.float64]

LARGE_MOVE_TURNS: Final = 0.75
"""A move of the whole head beyond this is made first, evenly: its own uncertainty would spoil the evening; our own figure."""
LEAST_CHANCE: Final = 0.1
COARSE_SHARE: Final = 0.7
"""One step that moves a rod by this much of what is allowed leaves little hope of evenness; our own figure."""


class Approach(StrEnum):
    """What this round is for."""

    DONE = "done"
    HOLD = "hold"
    BRING = "bring"
    EQUAL_FIRST = "equal-first"


@dataclass(frozen=True, slots=True)
class Predicted:
    """What a rod should read after the turns, in the unit of the means, with one standard deviation; and in cents from wanted."""

    value: float
    sd: float
    cents: float
    sd_cents: float


@dataclass(frozen=True, slots=True)
class Proposal:
    """Turns for every rod that is there, with their expected effect.

    `wanted` and predictions are in `verdict.unit`. `chance_now` and `chance_even` are the chances, 0…1, that the head is within the rule
    now and after these turns; `rounds_left` is how many rounds that makes, on average, at most ten. `too_coarse` is a sentence when
    whole steps cannot meet the rule, else empty. `learned` is to be kept for the next visit. `read` is how far each rod stands from where it is
    wanted, in cents, as it was read.
    """

    wanted: float
    verdict: Verdict
    approach: Approach
    turns: Mapping[int, Turns]
    predicted: Mapping[int, Predicted]
    predicted_spread: float
    predicted_mean: float
    chance_even: float
    chance_now: float
    rounds_left: float
    modal: float
    tension: EdgeTension
    findings: tuple[Finding, ...]
    why_round: str
    why_rod: Mapping[int, str]
    too_coarse: str
    learned: Learned | None
    read: Mapping[int, float]


@dataclass(frozen=True, slots=True)
class _Outlook:
    """z of every rod after some turns: mean and standard deviation."""

    mean: Array
    sd: Array

    @classmethod
    def after(cls, belief: Belief, made: Array) -> _Outlook:
        mean, covariance = belief.outcome(made)
        return cls(np.clip(mean, 1e-6, None), np.sqrt(np.clip(np.diag(covariance), 0, None)))

    def ordered(self, order: NDArray[np.intp]) -> _Outlook:
        return _Outlook(self.mean[order], self.sd[order])


def _predicted(task: ClearingTask, outlook: _Outlook) -> Mapping[int, Predicted]:
    """In the unit the rods are read in. A rod wanted apart from the rest is predicted apart."""
    found = {}
    for rod, mean, sd in zip(task.layout.rods, outlook.mean, outlook.sd, strict=True):
        cents, sd_cents = cents_of_z(mean), cents_of_z(1 + sd / mean)
        z = mean + task.z_wanted(rod) - 1
        match task.means:
            case Means.PITCH:
                value, spread = task.wanted * z**0.5, task.wanted * z**0.5 * sd / (2 * z)
            case Means.EAR:
                value, spread = cents, sd_cents
            case _:
                value, spread = task.wanted * z, task.wanted * sd
        found[rod] = Predicted(float(value), float(spread), cents, sd_cents)
    return found


def cents_read(task: ClearingTask) -> Mapping[int, float]:
    """How far each rod read in the last round stands from where it is wanted, in cents of pitch."""
    last = task.rounds[-1]
    match task.means:
        case Means.PITCH:
            return {
                rod: cents_of_z((pitch.hz / task.wanted) ** 2 / task.z_wanted(rod))
                for rod, pitch in last.readings.items()
            }
        case Means.EAR:
            judged = {rod: EAR_CENTS[each].cents for rod, each in last.ear.items()}
            return judged | ({last.reference: 0.0} if last.reference else {})
        case _:
            return {rod: cents_of_z(number / task.wanted / task.z_wanted(rod)) for rod, number in last.numbers.items()}


def _without(task: ClearingTask, dead: frozenset[int]) -> ClearingTask:
    """The task as if the last turns of these rods had never been made."""
    rounds = list(task.rounds)
    before = rounds[-2]
    rounds[-2] = replace(before, turned={rod: turn for rod, turn in before.turned.items() if rod not in dead})
    return replace(task, rounds=tuple(rounds))


def _approach(needed: float, clear: bool, wanted_moves: bool, under_way: bool) -> Approach:
    if clear:
        return Approach.DONE
    if abs(needed) > LARGE_MOVE_TURNS and not under_way:
        return Approach.EQUAL_FIRST
    return Approach.BRING if wanted_moves else Approach.HOLD


def propose(task: ClearingTask, stop_when_read_clear: bool = True) -> Proposal:
    """Judge the last round and propose the next turns.

    When the last round reads clear, every proposed turn is zero: for a person with a drum the work is done. With
    `stop_when_read_clear` off the belief over all rounds decides instead, which a lucky noisy round does not fool.
    """
    verdict, to = judge(task), agreed_numbering(task)
    agreed = relabel(task, to)
    belief = believe(recent(agreed))
    found = findings_of(task, belief, places(task, to))
    dead = frozenset(to[f.rods[0]] for f in found if f.kind is FindingKind.NOT_ANSWERING and f.certain)
    if dead:
        agreed = _without(agreed, dead)
        belief = believe(recent(agreed))
    worked = work_out(agreed, belief, verdict.clear and stop_when_read_clear, dead)
    if verdict.clear:  # what came out even all the same needs no explaining; a rod that does not answer still does
        found = tuple(each for each in found if each.kind is FindingKind.NOT_ANSWERING)
    return compose(task, worked.seen_from(task, to), verdict, found, cents_read(task))


@dataclass(frozen=True, slots=True)
class Worked:
    """The numbers of a proposal, in the order of some numbering of the rods."""

    approach: Approach
    turns: Mapping[int, Turns]
    outlook: _Outlook
    chance_even: float
    chance_now: float
    modal: float
    tension: EdgeTension
    learned: Learned | None
    step_ratio: float
    """What one step of a rod does to its own pitch, as a ratio."""

    def seen_from(self, task: ClearingTask, to: Numbering) -> Worked:
        """The same for the rods as `task` numbers them."""
        order = places(task, to)
        return replace(
            self,
            turns={rod: self.turns[to[rod]] for rod in task.layout.rods},
            outlook=self.outlook.ordered(order),
            tension=self.tension.ordered(order),
            learned=relabel_learned(self.learned, {new: rod for rod, new in to.items()}) if self.learned else None,
        )


def _trusted(task: ClearingTask, limits: Limits) -> Limits:
    """Doubt makes no bolder than trust: no rod goes further than it would, were every reading taken at its word."""
    plain = task.at_its_word()
    if plain is None:
        return limits
    belief = believe(recent(plain))
    bold = plan_turns(plain, belief, draw_heads(plain, belief), edge_tension(plain, belief), limits)
    return limits.no_bolder_than(_steps(task, bold))


def _steps(task: ClearingTask, turns: Mapping[int, Turns]) -> NDArray[np.int64]:
    """(n,) whole steps of the task."""
    return np.array([turns[rod].thirtyseconds // task.step.thirtyseconds for rod in task.layout.rods])


def work_out(
    task: ClearingTask, belief: Belief, stop: bool, dead: frozenset[int], within: Mapping[int, Turns] | None = None
) -> Worked:
    """Choose the turns; `stop`: none are wanted any more, `dead` rods do not answer, no rod goes further than `within`."""
    tension = edge_tension(task, belief)
    off = 1 - float(belief.z.mean())
    approach = _approach(off / belief.per_turn, stop, abs(off) > 2 * task.even.mean_ratio, task.under_way)
    limits, heads = limits_of(task, belief, dead), draw_heads(task, belief)
    if recent(task) is not task:
        limits = limits.halved()
    if within is not None:
        limits = limits.no_bolder_than(_steps(task, within))
    match approach:
        case Approach.DONE:
            turns: Mapping[int, Turns] = dict.fromkeys(task.layout.rods, Turns(0))
        case Approach.EQUAL_FIRST:
            turns = plan_equal(task, off / belief.per_turn, limits)
        case _:
            turns = plan_turns(task, belief, heads, tension, _trusted(task, limits))
    made = np.array([float(turns[rod].fraction) for rod in task.layout.rods])
    outlook = _Outlook.after(belief, made)
    return Worked(
        approach=approach,
        turns=turns,
        outlook=outlook,
        chance_even=heads.chance(task, made),
        chance_now=heads.chance(task, np.zeros(len(made))),
        modal=belief.modal,
        tension=tension,
        learned=keep(task, belief),
        step_ratio=float(np.median(np.diag(belief.answer)) * task.step.fraction) / 2,
    )


def at_rest(task: ClearingTask, belief: Belief, worked: Worked) -> Worked:
    """The same with nothing turned."""
    still = np.zeros(len(task.layout.rods))
    return replace(
        worked,
        turns=dict.fromkeys(task.layout.rods, Turns(0)),
        outlook=_Outlook.after(belief, still),
        chance_even=worked.chance_now,
    )


def compose(
    task: ClearingTask, worked: Worked, verdict: Verdict, found: tuple[Finding, ...], read: Mapping[int, float]
) -> Proposal:
    """The proposal with its words; `read` is how far each rod stands from where it is wanted, in cents."""
    turns, approach = worked.turns, worked.approach
    predicted = _predicted(task, worked.outlook)
    values = [each.value for each in predicted.values()]
    level = [each.value / task.z_wanted(rod) ** 0.5 for rod, each in predicted.items()]
    spread, mean = max(level) - min(level), sum(values) / len(values)
    why = verdict.words if verdict.clear else words.explain_round(task, turns, spread, mean, approach, read)
    return Proposal(
        wanted=task.wanted,
        verdict=verdict,
        approach=approach,
        turns=turns,
        predicted=predicted,
        predicted_spread=spread,
        predicted_mean=mean,
        chance_even=worked.chance_even,
        chance_now=worked.chance_now,
        rounds_left=0.0 if approach is Approach.DONE else min(10.0, 1 / max(worked.chance_even, LEAST_CHANCE)),
        modal=worked.modal,
        tension=worked.tension,
        findings=found,
        why_round=why,
        why_rod={
            rod: words.explain_rod(
                task, rod, read, turns, predicted[rod].cents, predicted[rod].sd_cents, worked.tension
            )
            for rod in task.layout.rods
        },
        too_coarse=_coarse(task, verdict, worked, spread),
        learned=worked.learned,
        read=read,
    )


def _coarse(task: ClearingTask, verdict: Verdict, worked: Worked, spread: float) -> str:
    """A sentence when even the best whole steps leave the head outside the rule: one step alone moves a rod too far, or none betters it."""
    allowed = verdict.allowed
    if task.means is Means.EAR or worked.approach in (Approach.DONE, Approach.EQUAL_FIRST) or spread <= allowed:
        return ""
    unit = f" {verdict.unit}" if verdict.unit else ""
    finer = (
        "work in finer steps, or take this as even as it gets" if task.step.thirtyseconds > 1 else "it gets no finer"
    )
    if worked.step_ratio >= COARSE_SHARE * task.allowed_ratio:
        one = f"One step of {task.step.amount()} turn moves a rod here by about {cents_words(cents_of_z((1 + worked.step_ratio) ** 2))}"
        return f"{one}, too coarse to bring all within {allowed:.1f}{unit}: {finer}."
    if not any(worked.turns.values()) and worked.chance_now < STILL:
        return f"No step of {task.step.amount()} turn betters it: about {spread:.1f}{unit} between highest and lowest is what it allows; {finer}."
    return ""
