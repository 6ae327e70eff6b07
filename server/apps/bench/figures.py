"""What the server works out of a job's log, by the entry it belongs to. The device folds; it never computes a figure."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from apps.bench.schemas import (
    Figures,
    FindingOut,
    PairOut,
    PitchFigures,
    PlanFigures,
    PlannedRod,
    PullOut,
    ReadingFigures,
    RoundFigures,
    TappedOut,
    ToldFigures,
    UnevenFigures,
)
from apps.bench.wire import MoveIn
from drumwork.drums import Side
from drumwork.quantities import Interval, Pitch, cents_words
from drumwork.rods.clearing import EAR_CENTS, EAR_WORDS, Means, PairHeard
from drumwork.rods.clearing.readings import EAR_THRESHOLD_CENTS
from drumwork.work.clearing import heard_pair, smooth_readings, spotted_order
from drumwork.work.rounds import Lap, LapTap, Mark, RoundPlan
from drumwork.work.state import BenchState
from drumwork.work.told import told

__all__ = ["figures_of", "shape_pair"]


def _cents(hz: float, wanted: float | None) -> float | None:
    return round(Interval.from_ratio(hz / wanted).cents, 1) if wanted else None


def _pitches_read(
    lap: Lap, smooth: Mapping[int, Pitch], wanted: float | None, a4_hz: float
) -> Iterator[ReadingFigures]:
    for rod, mark in lap.readings.items():
        hz = smooth[rod].hz
        yield ReadingFigures.model_construct(
            entry=mark.event_id,
            rod=rod,
            shown=f"{hz:.1f}",
            hz=hz,
            note=smooth[rod].note(a4_hz),
            cents=_cents(hz, wanted),
            doubtful=rod in lap.doubtful,
        )


def _otherwise_read(lap: Lap) -> Iterator[ReadingFigures]:
    read_cents = lap.plan.value.read_cents if lap.plan else {}
    for rod, mark in lap.ear.items():
        cents = read_cents.get(rod, EAR_CENTS[mark.value].cents)
        yield _plain(mark.event_id, rod, EAR_WORDS[mark.value], cents, False)
    for rod, number in lap.numbers.items():
        beside = bool(lap.readings)
        yield _plain(
            number.event_id, rod, f"{number.value:g}", None if beside else read_cents.get(rod), rod in lap.doubtful
        )


def _between(tap: LapTap, wanted: float | None, a4_hz: float) -> ReadingFigures:
    """A rod read between turns."""
    if tap.means is not Means.PITCH:
        return _plain(tap.event_id, tap.rod, f"{tap.value:g}", None, tap.doubtful)
    return ReadingFigures.model_construct(
        entry=tap.event_id,
        rod=tap.rod,
        shown=f"{tap.value:.1f}",
        hz=tap.value,
        note=Pitch(tap.value).note(a4_hz),
        cents=_cents(tap.value, wanted),
        doubtful=tap.doubtful,
    )


def _plain(entry: str, rod: int, shown: str, cents: float | None, doubtful: bool) -> ReadingFigures:
    return ReadingFigures.model_construct(
        entry=entry, rod=rod, shown=shown, hz=None, note="", cents=cents, doubtful=doubtful
    )


def _foretold(plan: RoundPlan, rod: int) -> str:
    """A prediction with its interval, nineteen times in twenty."""
    value, room = plan.predicted[rod], 1.96 * plan.predicted_sd[rod]
    if plan.means is Means.EAR:
        return "level" if abs(value) < EAR_THRESHOLD_CENTS else ("lower" if value < 0 else "higher")
    return f"{value:.1f} ± {room:.1f}"


_SAME = (
    "means", "unit", "wanted", "spread", "allowed", "mean", "predicted_spread", "predicted_mean", "approach", "rounds_left", "chance_even",
    "modal", "clear", "verdict", "too_coarse", "ask", "chance_now", "even", "at_pitch",
)  # fmt: skip


def _plan(mark: Mark[RoundPlan]) -> PlanFigures:
    plan, pull = mark.value, mark.value.pull
    return PlanFigures.model_construct(
        entry=mark.event_id,
        **{name: getattr(plan, name) for name in _SAME},
        why=plan.why_round,
        findings=[FindingOut.model_construct(kind=f.kind, rods=list(f.rods), words=f.words) for f in plan.findings],
        pull=PullOut.model_construct(
            rods=list(pull.by_pitch),
            by_pitch=list(pull.by_pitch.values()),
            unheard=list(pull.unheard.values()),
            sd=list(pull.sd.values()),
            told_by=list(pull.told_by),
            clear=pull.clear,
            words=pull.words,
        ),
        rods=[
            PlannedRod.model_construct(
                rod=rod,
                turns_32=turns,
                predicted=_foretold(plan, rod),
                predicted_cents=round(plan.predicted_cents[rod], 1),
                predicted_sd_cents=round(plan.predicted_sd_cents[rod], 1),
                why=plan.why_rod.get(rod, ""),
            )
            for rod, turns in plan.turns_32.items()
        ],
    )


def _compared(lap: Lap, before: Lap | None) -> str:
    """How the last round's prediction came out; of a round that began afresh, how far the head moved since the one before."""
    if lap.afresh and before is not None:
        return _since_it_rested(lap, before)
    if before is None or before.plan is None or lap.plan is None:
        return ""
    said, found = before.plan.value, lap.plan.value
    if said.means is not found.means or found.means is Means.EAR:
        return ""
    unit = f" {found.unit}" if found.unit else ""
    return (
        f"Expected {said.predicted_spread:.1f}{unit} between highest and lowest round {said.predicted_mean:.1f}; "
        f"found {found.spread:.1f}{unit} round {found.mean:.1f}."
    )


def _since_it_rested(lap: Lap, before: Lap) -> str:
    """Once every rod was read."""
    then, now = before.left_hz(), lap.mean_and_spread_hz()
    if then is None or now is None or len(lap.readings) < len(lap.rods):
        return ""
    cents = round(Interval.from_ratio(now[0] / then[0]).cents)
    moved = f"{cents_words(cents)} {'down' if cents < 0 else 'up'}" if cents else "Not moved"
    return f"{moved} since it rested: {then[0]:.1f} Hz then, {now[0]:.1f} now, {then[1]:.1f} between highest and lowest then, {now[1]:.1f} now."


def _wanted_hz(lap: Lap, before: Lap | None, target: float | None) -> float | None:
    """The pitch a lap's beams are drawn against."""
    for each in (lap, before if target is None else None):
        if each and each.plan and each.plan.value.means is Means.PITCH:
            return each.plan.value.wanted
    return target


def shape_pair(found: PairHeard | None) -> PairOut | None:
    if found is None:
        return None
    axis = math.degrees(found.axis_rad)
    return PairOut(lower_hz=found.lower_hz, upper_hz=found.upper_hz, axis_deg=round(axis, 1))


def _tapped(state: BenchState, step: str, number: int, side: Side) -> TappedOut | None:
    found = spotted_order(state, step, number)
    if found is None:
        return None
    asked = state.tapping_order(side)
    moves = [MoveIn(rod=rod, real=real) for rod, real in zip(asked, found.rods, strict=False)]
    return TappedOut(words=found.words, certain=found.certain, moves=moves)


def figures_of(state: BenchState) -> Figures:
    """Readings, plans and rounds of every clearing step, and every pitch that was typed."""
    a4_hz = state.plan.ways.a4_hz
    made = Figures.model_construct(
        readings=[], plans=[], rounds=[], pitches=[], uneven=[], told=[], planned_taps=[], last_taps=[]
    )
    for step in state.clearings():
        side = state.plan.side_of(step)
        layout, mark = state.layout(side), state.aim(side)
        target, laps = mark.hz if mark else None, state.laps[step]
        for number, lap in enumerate(laps):
            before = laps[number - 1] if number else None
            wanted = _wanted_hz(lap, before, target)
            smooth = smooth_readings(layout, lap)
            made.readings += [*_pitches_read(lap, smooth, wanted, a4_hz), *_otherwise_read(lap)]
            made.readings += [_between(tap, wanted, a4_hz) for tap in lap.between]
            made.planned_taps += [tap.event_id for tap in lap.between if tap.left is not None]
            made.last_taps += [tap.event_id for tap in lap.between if tap.left is False]
            made.plans += [_plan(each) for each in (lap.plan, lap.left) if each]
            made.pitches += [_pitch(lap.centre, a4_hz)] if lap.centre else []
            made.rounds.append(
                RoundFigures.model_construct(
                    step=step,
                    lap=number,
                    of=sorted({mark.event_id for mark in lap.readings.values()}),
                    wanted_hz=wanted,
                    pair=shape_pair(heard_pair(layout, lap)),
                    tapped=_tapped(state, step, number, side),
                    compared=_compared(lap, before),
                )
            )
    made.pitches += [_pitch(mark, a4_hz) for mark in state.targets.values()]
    for side, uneven in state.uneven.items():
        words = found.words if (found := state.left_uneven(side)) else ""
        made.uneven.append(UnevenFigures(entry=uneven.event_id, words=words))
    made.told = [ToldFigures(step=step, words=words) for step, words in told(state).items()]
    made.pitches += _answered_pitches(state, a4_hz)
    return made


def _answered_pitches(state: BenchState, a4_hz: float) -> Iterator[PitchFigures]:
    pitches = {each.name for step in state.plan.steps for each in step.asks if each.unit == "pitch"}
    for name, mark in state.answers.items():
        if name in pitches and mark.value.amount:
            hz = mark.value.amount
            yield PitchFigures(entry=mark.event_id, hz=hz, note=Pitch(hz).note(a4_hz))


def _pitch(mark: Mark[Pitch] | Mark[Pitch | None], a4_hz: float) -> PitchFigures:
    pitch = mark.value
    return PitchFigures(entry=mark.event_id, hz=pitch.hz if pitch else None, note=pitch.note(a4_hz) if pitch else "")
