"""Folding a log: the same entries give the same state, and nothing counts twice."""

from dataclasses import replace
from datetime import timedelta

import pytest
from benches import START, after, facts, log, plan, read, readings, turned

from drumwork.drums import DrumKind, Side
from drumwork.errors import BadEvent, BadLayout, UnknownWork
from drumwork.procedures.catalogue import work_named
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import ClearingTask, Round, propose
from drumwork.rods.layout import RodLayout
from drumwork.work.cautions import CAUTIONS
from drumwork.work.clearing import clearing_task
from drumwork.work.fold import fold, require_fits, where
from drumwork.work.kinds.clear import RoundPlanned
from drumwork.work.kinds.common import Closed, StepDone, Undone
from drumwork.work.kinds.passes import PassAdded
from drumwork.work.kinds.rest import RestStarted
from drumwork.work.log import Entry
from drumwork.work.making import make_plan
from drumwork.work.plan import Part
from drumwork.work.rounds import RoundPlan, round_plan
from drumwork.work.state import BenchState
from drumwork.work.ways import Ways


def state_after(*entries: Entry) -> BenchState:
    return after(plan(), *entries)


TO_SLACKEN = (StepDone("lay-out"), StepDone("mark"))


@pytest.mark.parametrize("kind", [DrumKind.SNARE, DrumKind.RACK_TOM, DrumKind.FLOOR_TOM])
def test_a_head_change_goes_in_the_trades_order(kind: DrumKind) -> None:
    # common practice, trade §3: from laying out to writing the date on the head
    titles = [step.title for step in plan(kind=kind, rods=8).steps]
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


def test_slackening_is_even_and_half_a_turn_a_rod_at_most() -> None:
    # common practice P11
    slacken = plan().step("slacken").data
    assert {each.each for each in slacken.passes} == {Turns.of(-1, 2), Turns.of(-1, 4)}
    assert all(sorted(each.order) == [1, 2, 3, 4, 5, 6] for each in slacken.passes)


def test_dangerous_steps_carry_their_caution_before_them() -> None:
    # common practice, trade §18
    steps = {step.id: " ".join(CAUTIONS[each] for each in step.cautions) for step in plan().steps}
    assert "power driver" in steps["slacken"]
    assert "stand or kneel" in steps["seat"]
    assert "limit" in steps["tension"]
    assert "hearing" in steps["clear"]


def test_the_procedure_refuses_drums_it_is_not_for() -> None:
    with pytest.raises(UnknownWork, match="rope"):
        make_plan(work_named("new-batter-head"), Part.BATTER, facts(DrumKind.ROPE_BASS), Ways())


def test_turns_are_owed_in_order_until_they_are_made() -> None:
    state = state_after(*TO_SLACKEN, turned("slacken", 0, 1, Turns.of(-2)), turned("slacken", 0, 4, None))
    lap = state.laps["slacken"][0]
    assert list(lap.owed()) == [2, 5, 3, 6]
    assert where(state) == "batter, slacken, pass 1 of 4, rod 2 next"


def test_undoing_takes_back_exactly_one_entry() -> None:
    state = state_after(*TO_SLACKEN, turned("slacken", 0, 1, Turns.of(-2)), Undone("e3"))
    assert next(iter(state.laps["slacken"][0].owed())) == 1
    assert [event.id for event in state.live] == ["e1", "e2"]


def test_undoing_a_step_goes_back_to_it() -> None:
    state = state_after(*TO_SLACKEN, Undone("e2"))
    assert state.now is not None
    assert state.now.id == "mark"


def test_the_order_events_arrive_in_does_not_matter_only_their_numbers() -> None:
    events = log(*TO_SLACKEN, turned("slacken", 0, 1, Turns.of(-2)), turned("slacken", 0, 1, Turns.of(-1)))
    assert fold(plan(), events).laps == fold(plan(), reversed(events)).laps


def test_the_tally_counts_from_finger_tight_only() -> None:
    down = [turned("slacken", 0, rod, Turns.of(-2)) for rod in range(1, 7)]
    up = [turned("tension", 0, rod, Turns.of(1, 2)) for rod in range(1, 7)]
    state = state_after(*TO_SLACKEN, *down)
    assert state.tally(Side.BATTER) is None
    steps = [StepDone(step) for step in ("slacken", "lift-off", "clean", "set-head", "fingers", "seat")]
    state = state_after(*TO_SLACKEN, *down, *steps, *up)
    assert state.tally(Side.BATTER) == {rod: Turns.of(1, 2) for rod in range(1, 7)}


def a_plan(**turns_32: int) -> RoundPlan:
    """A real proposal for a level head, with these turns instead of its own."""
    level = Round({rod: Pitch(200) for rod in range(1, 7)})
    task = ClearingTask(RodLayout(6), (level,), Turns(2))
    turns = {rod: turns_32.get(f"r{rod}", 0) for rod in range(1, 7)}
    return replace(round_plan(task, propose(task)), turns_32=turns, clear=not any(turns_32.values()))


def test_the_next_round_opens_when_the_last_turn_of_a_round_is_made() -> None:
    before = state_after(
        *readings(0, *[200.0] * 6), RoundPlanned("clear", 0, a_plan(r2=4, r5=4)), turned("clear", 0, 2, Turns(4))
    )
    assert len(before.laps["clear"]) == 1
    later = state_after(
        *readings(0, *[200.0] * 6),
        RoundPlanned("clear", 0, a_plan(r2=4, r5=4)),
        turned("clear", 0, 2, Turns(4)),
        turned("clear", 0, 5, Turns(3)),
    )
    assert len(later.laps["clear"]) == 2
    task = clearing_task(later, "clear", 0)
    assert task.rounds[0].turned == {2: Turns(4), 5: Turns(3)}  # what was made, not what was asked


def test_a_clear_round_opens_no_other() -> None:
    state = state_after(*readings(0, *[200.0] * 6), RoundPlanned("clear", 0, a_plan()))
    assert len(state.laps["clear"]) == 1


@pytest.mark.parametrize(
    ("body", "error"),
    [
        (StepDone("polish"), BadEvent),
        (turned("slacken", 0, 7, Turns(2)), BadLayout),
        (turned("slacken", 9, 1, Turns(2)), BadEvent),
        (read(1, 1, "200"), BadEvent),
        (Undone("nothing"), BadEvent),
        (PassAdded("clear", 8), BadEvent),
    ],
)
def test_events_that_cannot_belong_to_the_job_are_refused(body: Entry, error: type[Exception]) -> None:
    with pytest.raises(error):
        require_fits(state_after(), body)


def test_readings_of_a_lost_rod_are_refused_with_what_to_do() -> None:
    with pytest.raises(BadLayout, match="Fit one"):
        require_fits(fold(plan(lost={3}), []), read(0, 3, "200"))


def test_a_closed_job_takes_nothing_more() -> None:
    with pytest.raises(BadEvent, match="closed"):
        require_fits(state_after(Closed()), StepDone("lay-out"))


def test_resting_ends_so_many_minutes_after_it_began() -> None:
    assert state_after(RestStarted("rest", 45)).rests["rest"] == START + timedelta(minutes=46)


def test_a_settling_check_is_look_clear_put_back_close() -> None:
    # common practice, trade §3.20
    check = plan("settling-check", Part.RESONANT, DrumKind.FLOOR_TOM, 8)
    assert [step.kind for step in check.steps] == ["tick", "clear", "tick", "close"]
