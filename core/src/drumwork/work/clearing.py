"""A job's rounds of clearing as the heart wants them: what all taps of one say together, how it was tapped, and what the turns are worked out from."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import TYPE_CHECKING, Final

from drumwork.listening import Foretold, HeardRod, TapOrder, round_of, spot_order
from drumwork.quantities import Interval, Pitch, Turns
from drumwork.rods.clearing import Approach, ClearingTask, Learned, Means, PairHeard, Round, Tap, go_on, propose
from drumwork.rods.layout import RodLayout
from drumwork.work.misread import misread_tap
from drumwork.work.rounds import Lap, RoundPlan, round_plan
from drumwork.work.state import BenchState

if TYPE_CHECKING:
    from drumwork.work.kinds.clear import RodTapped

__all__ = ["SURE", "clearing_task", "heard_pair", "left_after", "smooth_readings", "spotted_order"]

SURE: Final = 0.9
"""A head that is even with this chance by the taps between turns needs no further turn; our own figure."""
FEWEST_HEARD = 4
"""Rods that tell a split pair apart."""


def spotted_order(state: BenchState, step: str, number: int) -> TapOrder | None:
    """How a round heard in tapping order was really tapped, where that is not as it was asked for; a last rod may be still to come."""
    side = state.plan.side_of(step)
    lap, order = state.lap(step, number), state.tapping_order(side)
    if lap.plan or lap.moved or len(lap.readings) < FEWEST_HEARD:
        return None
    taken = [rod for rod in order if rod in lap.readings]
    enough = max(FEWEST_HEARD, len(order) - 1)
    whole = len(taken) >= enough and tuple(taken) == order[: len(taken)] and all(lap.partials.get(rod) for rod in taken)
    if not whole:
        return None
    heard = [HeardRod(lap.readings[rod].value.hz, lap.partials[rod]) for rod in taken]
    found = spot_order(state.layout(side), order, heard, _foretold(state, step, number))
    return found if found.amiss else None


def _foretold(state: BenchState, step: str, number: int) -> Mapping[int, Foretold] | None:
    """What the plan before foretold of this round."""
    before = state.laps[step][number - 1].plan if number else None
    if before is None or before.value.means is not Means.PITCH:
        return None
    plan = before.value
    return {
        rod: Foretold(hz, Interval.from_ratio(1 + plan.predicted_sd[rod] / hz).cents)
        for rod, hz in plan.predicted.items()
    }


def heard_pair(layout: RodLayout, lap: Lap) -> PairHeard | None:
    """The pair that rings at every rod, where every rod was heard with its partials."""
    if not all(lap.partials.get(rod) for rod in lap.readings) or set(lap.readings) != set(layout.rods):
        return None
    return _heard(layout, lap).pair


def smooth_readings(layout: RodLayout, lap: Lap) -> Mapping[int, Pitch]:
    """A round's pitches. One tap's strongest partial jumps between the two of a split pair; all taps together do not. What was typed stays as it was."""
    told = _heard(layout, lap).readings
    return {
        rod: told.get(rod, mark.value) if lap.partials.get(rod) else mark.value for rod, mark in lap.readings.items()
    }


def _heard(layout: RodLayout, lap: Lap) -> Round:
    """What the taps of a round say together, by rods that are there."""
    there = {rod: mark.value.hz for rod, mark in lap.readings.items() if rod in layout.rods}
    whole = set(there) == set(layout.rods)
    return round_of(
        layout, {rod: HeardRod(hz, tuple(lap.partials.get(rod) or ()) if whole else ()) for rod, hz in there.items()}
    )


def _round(state: BenchState, step: str, each: Lap) -> Round:
    side, means = state.plan.side_of(step), state.means
    layout, reference = state.layout(side), state.reference(side)
    by_ear, there = means is Means.EAR, set(layout.rods)
    return replace(
        _heard(layout, each),
        turned={rod: mark.value for rod, mark in each.turned.items() if mark.value is not None and rod in there},
        ear={rod: mark.value for rod, mark in each.ear.items() if rod != reference and rod in there} if by_ear else {},
        reference=reference if by_ear else None,
        whole=each.whole.value if by_ear and each.whole else None,
        numbers={rod: mark.value for rod, mark in each.numbers.items() if rod in there},
        doubtful=frozenset(each.doubtful & there),
        taps=tuple(
            Tap(tap.rod, tap.value, {rod: turns for rod, turns in tap.turned.items() if rod in there}, tap.doubtful)
            for tap in each.between
            if tap.means is means
            and tap.rod in there
            and (tap.sure or not misread_tap(state, step, each, tap.rod, tap.value, means))
        ),
    )


def clearing_task(
    state: BenchState, step: str, lap: int, prior_hz_per_turn: float | None = None, learned: Learned | None = None
) -> ClearingTask:
    """Everything the clearing needs to round `lap` of a step, from where the means in use now were first used without a break, or from where
    it began afresh: what the head did before is then only what was learned of it, and what was held is still to be held."""
    last, target = state.lap(step, lap), state.aim(state.plan.side_of(step))
    side = state.plan.side_of(step)
    layout = state.layout(side)
    rounds: list[Round] = []
    for number, each in reversed(list(enumerate(state.laps[step][: lap + 1]))):
        if each.heard(state.means):
            rounds.insert(0, _round(state, step, each))
        elif rounds:
            break
        if each.afresh:
            learned, held = _before(state, step, number, prior_hz_per_turn, learned)
            target = target or (held if state.means is Means.PITCH else None)
            break
    uneven = state.left_uneven(side)
    return ClearingTask(
        layout=layout,
        rounds=tuple(rounds),
        step=state.step,
        target=target,
        even=state.plan.ways.even,
        prior_hz_per_turn=prior_hz_per_turn,
        tally=state.tally(side),
        meant=state.meant(side),
        means=state.means,
        offsets=uneven.offsets_cents if uneven else {},
        learned=learned,
        made={rod: turns for rod, turns in last.made().items() if rod in layout.rods} if last.between else {},
    )


def _before(
    state: BenchState, step: str, afresh: int, prior_hz_per_turn: float | None, learned: Learned | None
) -> tuple[Learned | None, Pitch | None]:
    """What the rounds before one that began afresh taught, and the pitch they held."""
    planned = [
        number
        for number in range(afresh)
        if (plan := state.laps[step][number].plan) and plan.value.means is state.means
    ]
    if not planned:
        return learned, None
    task = clearing_task(state, step, planned[-1], prior_hz_per_turn, learned)
    plan = state.laps[step][planned[-1]].plan
    held = Pitch(plan.value.wanted) if plan and plan.value.means is Means.PITCH else None
    return propose(task).learned or learned, held


def left_after(
    state: BenchState, tapped: RodTapped, prior_hz_per_turn: float | None = None, learned: Learned | None = None
) -> RoundPlan | None:
    """What is left of a round after a rod was turned and tapped; None where it goes on as it was planned.

    A large move is made alike at every rod, whatever is read meanwhile, and so is a round that is read with other means by now. Nothing is
    planned by a tap that cannot be.
    """
    lap = state.lap(tapped.step, tapped.lap)
    if lap.plan is None or tapped.value is None:
        return None
    if lap.plan.value.approach == Approach.EQUAL_FIRST or not tapped.means is state.means is lap.plan.value.means:
        return None
    if not tapped.sure and misread_tap(state, tapped.step, lap, tapped.rod, tapped.value, tapped.means):
        return None
    made = lap.made()
    if tapped.turns_32 is not None:
        made[tapped.rod] = lap.before.get(tapped.rod, Turns(0)) + Turns(tapped.turns_32)
    task = clearing_task(state, tapped.step, tapped.lap, prior_hz_per_turn, learned)
    there = {rod: turns for rod, turns in made.items() if rod in task.layout.rods}
    last = task.rounds[-1]
    tap = Tap(tapped.rod, tapped.value, there, tapped.doubtful)
    task = replace(task, rounds=(*task.rounds[:-1], replace(last, taps=(*last.taps, tap))), made=there)
    found = go_on(task, SURE)
    return round_plan(task, found.proposal, found.ask)
