"""A job's rounds of clearing as the heart wants them: what all taps of one say together, how it was tapped, and what the turns are worked out from."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from drumwork.listening import Foretold, HeardRod, TapOrder, round_of, spot_order
from drumwork.quantities import Interval, Pitch
from drumwork.rods.clearing import ClearingTask, Learned, Means, PairHeard, Round
from drumwork.rods.layout import RodLayout
from drumwork.work.rounds import Lap
from drumwork.work.state import BenchState

__all__ = ["clearing_task", "heard_pair", "smooth_readings", "spotted_order"]

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


def _round(layout: RodLayout, each: Lap, means: Means, reference: int) -> Round:
    by_ear, there = means is Means.EAR, set(layout.rods)
    return replace(
        _heard(layout, each),
        turned={rod: mark.value for rod, mark in each.turned.items() if mark.value is not None and rod in there},
        ear={rod: mark.value for rod, mark in each.ear.items() if rod != reference and rod in there} if by_ear else {},
        reference=reference if by_ear else None,
        whole=each.whole.value if by_ear and each.whole else None,
        numbers={rod: mark.value for rod, mark in each.numbers.items() if rod in there},
        doubtful=frozenset(each.doubtful & there),
    )


def clearing_task(
    state: BenchState, step: str, lap: int, prior_hz_per_turn: float | None = None, learned: Learned | None = None
) -> ClearingTask:
    """Everything the clearing needs to round `lap` of a step, from where the means in use now were first used without a break."""
    state.lap(step, lap)
    side = state.plan.side_of(step)
    layout, reference = state.layout(side), state.reference(side)
    rounds: list[Round] = []
    for each in reversed(state.laps[step][: lap + 1]):
        if each.heard(state.means):
            rounds.insert(0, _round(layout, each, state.means, reference))
        elif rounds:
            break
    uneven = state.left_uneven(side)
    return ClearingTask(
        layout=layout,
        rounds=tuple(rounds),
        step=state.step,
        target=state.target(side),
        even=state.plan.ways.even,
        prior_hz_per_turn=prior_hz_per_turn,
        tally=state.tally(side),
        means=state.means,
        offsets=uneven.offsets_cents if uneven else {},
        learned=learned,
    )
