"""A school changed in the middle of a job (trade §17; common practice, no source): what is left is planned anew, what is done stays done."""

from datetime import UTC, datetime

import pytest
from benches import plan as make
from drawn import jobs
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from drumwork.drums import DrumKind
from drumwork.errors import BadEvent
from drumwork.procedures.catalogue import work_named
from drumwork.work.fold import advance, begin, fold, require_fits
from drumwork.work.kinds.ask import Answered
from drumwork.work.kinds.common import StepDone, Undone
from drumwork.work.kinds.passes import RodTurn, Turned
from drumwork.work.kinds.school import SchoolChosen
from drumwork.work.log import Entry, Logged
from drumwork.work.making import make_plan
from drumwork.work.otherwise import planned_otherwise, schools_left
from drumwork.work.plan import Part, Plan
from drumwork.work.state import BenchState
from drumwork.work.ways import AfterStretch, Grease, Stretch, Ways

NOON = datetime(2026, 3, 2, 12, tzinfo=UTC)


def log_of(*entries: Entry) -> list[Logged]:
    return [Logged(f"e{n}", n, "ines", NOON, entry) for n, entry in enumerate(entries, 1)]


def done_up_to(plan: Plan, count: int) -> list[Entry]:
    return [StepDone(step.id) for step in fold(plan, ()).steps[:count]]


def chosen(state: BenchState, way: str, value: str) -> SchoolChosen:
    changes = planned_otherwise(state, work_named(state.plan.work), way, value)
    assert not changes.too_late
    return SchoolChosen(way, value, changes.plan)


def at(plan: Plan, step: str) -> int:
    return [each.id for each in fold(plan, ()).steps].index(step)


@settings(max_examples=60)
@given(jobs(), st.data())
def test_whatever_is_done_stays_done_and_nothing_of_it_is_asked_again(plan: Plan, data: st.DataObject) -> None:
    entries = done_up_to(plan, data.draw(st.integers(0, len(fold(plan, ()).steps) - 1)))
    state = fold(plan, log_of(*entries))
    left = schools_left(state, work_named(plan.work))
    assume(left)
    school = data.draw(st.sampled_from(left))
    value = data.draw(st.sampled_from([value for value, each in school.changes.items() if not each.too_late]))
    entry = chosen(state, school.school.way, value)
    if any("lay-out" in step.does and step.id in state.done for step in plan.steps):  # what was not laid out is said
        taken = {str(tool.text) for step in school.changes[value].plan.steps for tool in step.tools}
        assert taken - {str(tool.text) for step in plan.steps for tool in step.tools} <= set(
            school.changes[value].fetch
        )
    require_fits(state, entry)
    after = fold(plan, log_of(*entries, entry))
    ids = [step.id for step in after.plan.steps]
    assert len(set(ids)) == len(ids)
    before = [step for step in plan.steps if step.id in state.done]
    assert [step for step in after.plan.steps if step.id in state.done] == before  # the same, in their order
    assert after.done == state.done
    assert str(getattr(after.plan.ways, school.school.way)) == value
    assert after.steps[-1].kind == "close"
    while after.now and after.now.kind != "close":  # and it can be led to the end
        for each in after.now.asks if after.now else ():
            if each.needed:
                answered = Answered(
                    after.now.id, each.name, (each.options[0].value if each.options else "of another drum",)
                )
                advance(after, Logged("a", after.last_seq + 1, "ines", NOON, answered))
        advance(after, Logged("x", after.last_seq + 1, "ines", NOON, StepDone(after.now.id)))
    assert after.now


def test_seating_chosen_otherwise_before_it_changes_what_comes() -> None:
    plan = make(kind=DrumKind.RACK_TOM, rods=8, stretch=Stretch.PALM)
    entries = done_up_to(plan, at(plan, "seat"))
    state = fold(plan, log_of(*entries))
    after = fold(plan, log_of(*entries, chosen(state, "stretch", "over-tension")))
    assert "back right off" in after.plan.step("seat").say
    assert after.now
    assert after.now.id == "seat"


def test_a_school_whose_moment_has_passed_makes_no_difference_any_more() -> None:
    plan = make(kind=DrumKind.RACK_TOM, rods=8)
    state = fold(plan, log_of(*done_up_to(plan, at(plan, "tension"))))
    left = {each.school.way for each in schools_left(state, work_named(plan.work))}
    assert not left & {"stretch", "grease", "logo"}
    assert "pattern" in left


def test_which_head_first_is_decided_once_one_is_begun() -> None:
    drum = make(kind=DrumKind.RACK_TOM, rods=8).drum
    plan = make_plan(work_named("both-heads"), Part.HEADS, drum, Ways())
    assert "first_head" in {each.school.way for each in schools_left(begin(plan), work_named(plan.work))}
    later = fold(plan, log_of(*done_up_to(plan, 6)))
    assert planned_otherwise(later, work_named(plan.work), "first_head", "batter").too_late


def test_steps_that_would_have_come_before_what_is_done_are_too_late() -> None:
    drum = make(kind=DrumKind.RACK_TOM, rods=8).drum
    work = work_named("stretch-and-rest")
    plan = make_plan(work, Part.BATTER, drum, Ways(after_stretch=AfterStretch.UP))
    names = [step.id for step in plan.steps]
    everything = fold(plan, log_of(*[StepDone(each) for each in names[:-1]]))
    assert planned_otherwise(everything, work, "after_stretch", "back").too_late
    fresh = planned_otherwise(begin(plan), work, "after_stretch", "back")
    assert fresh.adds
    assert not fresh.too_late


def test_a_pass_in_the_middle_goes_on_as_begun_and_the_next_step_in_the_new_order() -> None:
    plan = make(kind=DrumKind.RACK_TOM, rods=8)
    entries = [*done_up_to(plan, at(plan, "tension")), Turned("tension", 0, (RodTurn(1, 16),))]
    state = fold(plan, log_of(*entries))
    after = fold(plan, log_of(*entries, chosen(state, "pattern", "plus-cross")))
    assert after.laps["tension"][0].order == state.laps["tension"][0].order
    assert after.laps["tension"][0].turned
    assert after.laps["clear"][0].rods != state.laps["clear"][0].rods


def test_taken_back_it_is_as_if_never_chosen_and_only_the_last_can_be() -> None:
    plan = make(kind=DrumKind.RACK_TOM, rods=8)
    one = chosen(begin(plan), "stretch", "barely")
    two = chosen(fold(plan, log_of(one)), "grease", "never")
    assert fold(plan, log_of(one, two, Undone("e2"))).plan == fold(plan, log_of(one)).plan
    assert fold(plan, log_of(one, Undone("e1"))).plan == plan
    with pytest.raises(BadEvent, match="later choice"):
        require_fits(fold(plan, log_of(one, two)), Undone("e1"))


@pytest.mark.parametrize(
    ("way", "value", "words"),
    [
        ("no-such", "thing", "no such choice"),
        ("stretch", "jump", "no such choice"),
        ("stretch", "palm", "done so already"),
        ("means", "ear", "where they are read"),
    ],
)
def test_a_choice_that_cannot_be_says_why(way: str, value: str, words: str) -> None:
    with pytest.raises(BadEvent, match=words):
        require_fits(begin(make(kind=DrumKind.RACK_TOM, rods=8)), SchoolChosen(way, value))


def test_what_has_to_be_fetched_for_it_is_said_once_the_tools_are_laid_out() -> None:
    plan = make(kind=DrumKind.RACK_TOM, rods=8, grease=Grease.NEVER)
    state = fold(plan, log_of(*done_up_to(plan, 1)))
    changes = planned_otherwise(state, work_named(plan.work), "grease", "always")
    assert changes.any
    assert not planned_otherwise(begin(plan), work_named(plan.work), "grease", "always").fetch
