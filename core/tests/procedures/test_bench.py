"""Folding events: the same events give the same state, and nothing counts twice."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from drumwork.errors import BadEvent, BadLayout
from drumwork.procedures import events as ev
from drumwork.procedures.bench import BenchState, fold, require_fits
from drumwork.procedures.new_batter_head import plan_new_batter_head
from drumwork.procedures.plan import DrumKind, HeadJob, JobPlan, Side, StepKind, Ways
from drumwork.procedures.rounds import clearing_task
from drumwork.procedures.settling_check import plan_settling_check
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import ClearingTask, EvenRule, Round, propose
from drumwork.rods.layout import RodLayout

START = datetime(2026, 3, 2, 9, 0, tzinfo=UTC)


def plan(kind: DrumKind = DrumKind.RACK_TOM, rods: int = 6, lost: frozenset[int] = frozenset()) -> JobPlan:
    return plan_new_batter_head(HeadJob(kind, Side.BATTER, RodLayout(rods, lost)), Ways())


def log(*bodies: ev.EventBody) -> list[ev.Event]:
    return [ev.Event(f"e{n}", n, "Ines", START + timedelta(minutes=n), body) for n, body in enumerate(bodies, start=1)]


def state_after(*bodies: ev.EventBody) -> BenchState:
    return fold(plan(), log(*bodies))


TO_SLACKEN = (ev.StepDone("lay-out"), ev.StepDone("mark"))


@pytest.mark.parametrize("kind", [DrumKind.SNARE, DrumKind.RACK_TOM, DrumKind.FLOOR_TOM])
def test_a_head_change_goes_in_the_trades_order(kind: DrumKind) -> None:
    # common practice, trade §3: from laying out to writing the date on the head
    titles = [step.title for step in plan(kind, 8).steps]
    wanted = [
        "Lay out",
        "Mark",
        "Slacken",
        "Lift off",
        "Clean",
        "Set head",
        "Fingers",
        "Seat",
        "Tension",
        "Clear",
        "Rest",
        "Mount",
        "Write on it",
    ]
    assert [title for title in titles if title in wanted] == wanted


def test_slackening_is_even_and_two_turns_a_rod_each_pass() -> None:
    # common practice P11
    slacken = plan().step("slacken")
    assert {each.each for each in slacken.passes} == {Turns.of(-2)}
    assert all(sorted(each.order) == [1, 2, 3, 4, 5, 6] for each in slacken.passes)


def test_dangerous_steps_carry_their_caution_before_them() -> None:
    # common practice, trade §18
    steps = {step.id: " ".join(step.cautions) for step in plan().steps}
    assert "power driver" in steps["slacken"]
    assert "stand or kneel" in steps["seat"]
    assert "limit" in steps["tension"]
    assert "hearing" in steps["clear"]


def test_the_procedure_refuses_drums_it_is_not_for() -> None:
    with pytest.raises(BadEvent):
        plan_new_batter_head(HeadJob(DrumKind.ROPE_BASS, Side.BATTER, RodLayout(8)), Ways())


def test_turns_are_owed_in_order_until_they_are_made() -> None:
    state = state_after(*TO_SLACKEN, ev.RodTurned("slacken", 0, 1, Turns.of(-2)), ev.RodSkipped("slacken", 0, 4))
    lap = state.laps["slacken"][0]
    assert list(lap.owed()) == [2, 5, 3, 6]
    assert state.where() == "batter, slacken, pass 1 of 3, rod 2 next"


def test_undoing_takes_back_exactly_one_entry() -> None:
    state = state_after(*TO_SLACKEN, ev.RodTurned("slacken", 0, 1, Turns.of(-2)), ev.Undone("e3"))
    assert next(iter(state.laps["slacken"][0].owed())) == 1
    assert [event.id for event in state.live] == ["e1", "e2"]


def test_undoing_a_step_goes_back_to_it() -> None:
    state = state_after(*TO_SLACKEN, ev.Undone("e2"))
    assert state.now is not None
    assert state.now.id == "mark"


def test_the_order_events_arrive_in_does_not_matter_only_their_numbers() -> None:
    events = log(*TO_SLACKEN, ev.RodTurned("slacken", 0, 1, Turns.of(-2)), ev.RodTurned("slacken", 0, 1, Turns.of(-1)))
    assert fold(plan(), events).laps == fold(plan(), reversed(events)).laps


def test_the_tally_counts_from_finger_tight_only() -> None:
    turned = [ev.RodTurned("slacken", 0, rod, Turns.of(-2)) for rod in range(1, 7)]
    up = [ev.RodTurned("tension", 0, rod, Turns.of(1, 2)) for rod in range(1, 7)]
    state = state_after(*TO_SLACKEN, *turned)
    assert state.tally() is None
    steps = [ev.StepDone(step) for step in ("slacken", "lift-off", "clean", "set-head", "fingers", "seat")]
    state = state_after(*TO_SLACKEN, *turned, *steps, *up)
    assert state.tally() == {rod: Turns.of(1, 2) for rod in range(1, 7)}


def readings(lap: int, *hz: float) -> list[ev.ReadingTaken]:
    return [ev.ReadingTaken(lap, rod, Pitch(value), str(value)) for rod, value in enumerate(hz, start=1)]


def a_plan(**turns_32: int) -> ev.RoundPlan:
    """A real proposal for a level head, with these turns instead of its own."""
    level = Round({rod: Pitch(200) for rod in range(1, 7)})
    task = ClearingTask(RodLayout(6), (level,), Turns(2))
    turns = {rod: Turns(turns_32.get(f"r{rod}", 0)) for rod in range(1, 7)}
    return replace(ev.round_plan(task, propose(task)), turns=turns, clear=not any(turns_32.values()))


def test_the_next_round_opens_when_the_last_turn_of_a_round_is_made() -> None:
    before = state_after(
        *readings(0, *[200.0] * 6), ev.RoundPlanned(0, a_plan(r2=4, r5=4)), ev.RodTurned("clear", 0, 2, Turns(4))
    )
    assert len(before.laps["clear"]) == 1
    after = state_after(
        *readings(0, *[200.0] * 6),
        ev.RoundPlanned(0, a_plan(r2=4, r5=4)),
        ev.RodTurned("clear", 0, 2, Turns(4)),
        ev.RodTurned("clear", 0, 5, Turns(3)),
    )
    assert len(after.laps["clear"]) == 2
    task = clearing_task(fold(plan(), [*after.live, *log(*readings(1, *[201.0] * 6))[:0]]), 0, EvenRule())
    assert task.rounds[0].turned == {2: Turns(4), 5: Turns(3)}  # what was made, not what was asked


def test_a_clear_round_opens_no_other() -> None:
    state = state_after(*readings(0, *[200.0] * 6), ev.RoundPlanned(0, a_plan()))
    assert len(state.laps["clear"]) == 1


@pytest.mark.parametrize(
    ("body", "error"),
    [
        (ev.StepDone("polish"), BadEvent),
        (ev.RodTurned("slacken", 0, 7, Turns(2)), BadLayout),
        (ev.RodTurned("slacken", 9, 1, Turns(2)), BadEvent),
        (ev.ReadingTaken(1, 1, Pitch(200), "200"), BadEvent),
        (ev.Undone("nothing"), BadEvent),
        (ev.PassAdded("clear", Turns(8)), BadEvent),
    ],
)
def test_events_that_cannot_belong_to_the_job_are_refused(body: ev.EventBody, error: type[Exception]) -> None:
    with pytest.raises(error):
        require_fits(state_after(), body)


def test_readings_of_a_lost_rod_are_refused_with_what_to_do() -> None:
    with pytest.raises(BadLayout, match="Fit one"):
        require_fits(fold(plan(lost=frozenset({3})), []), ev.ReadingTaken(0, 3, Pitch(200), "200"))


def test_a_closed_job_takes_nothing_more() -> None:
    with pytest.raises(BadEvent, match="closed"):
        require_fits(state_after(ev.JobClosed()), ev.StepDone("lay-out"))


def test_resting_ends_so_many_minutes_after_it_began() -> None:
    assert state_after(ev.RestStarted(45)).resting_until == START + timedelta(minutes=46)


def test_a_settling_check_is_look_clear_close() -> None:
    # common practice, trade §3.20
    check = plan_settling_check(HeadJob(DrumKind.BASS, Side.RESONANT, RodLayout(8)), Ways())
    assert [step.kind for step in check.steps] == [StepKind.TICK, StepKind.CLEAR, StepKind.CLOSE]
