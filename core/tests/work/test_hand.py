"""Every plan can be carried out by two hands (trade §20, common practice, no published source).

What a step needs is said here once more, by its tags and apart from what the procedures declare: the two are held against one another.
"""

from __future__ import annotations

from dataclasses import replace

import pytest
from drawn import begun_jobs
from hypothesis import given, settings

from benchmarks.procedures import least_turns, turns_in
from drumwork.drums import DrumKind, Side
from drumwork.errors import UnknownWork
from drumwork.procedures.catalogue import CATALOGUE, work_named
from drumwork.rods.layout import RodLayout
from drumwork.work.hand import HeadIs, InHand, Leaves, Lever, Needs, Up, WiresAre, as_it_came
from drumwork.work.kinds.steps import Clear, Passes
from drumwork.work.making import make_plan
from drumwork.work.plan import DrumFacts, Part, Plan, StepPlan
from drumwork.work.ways import Ways

BY_HAND_UP = {"slacken", "lift-off", "set-head", "start-rods", "seat", "tension", "tension-bed-rods"}
HEAD = {
    "slacken": {HeadIs.TIGHT},
    "lift-off": {HeadIs.SLACK},
    "set-head": {HeadIs.OFF},
    "set-hoop": {HeadIs.OFF, HeadIs.SLACK},
    "start-rods": {HeadIs.SLACK, HeadIs.TIGHT},
    "seat": {HeadIs.ZERO},
    "tension-bed-rods": {HeadIs.TIGHT},
    "foam": {HeadIs.OFF},
    "port": {HeadIs.OFF},
}
"""How the head in hand is when a step of this tag begins. Rods are started too where a lent one comes back to a tight head."""


def shown(plan: Plan) -> list[StepPlan]:
    return [step for step in plan.steps if step.shows(())]


def at(step: StepPlan) -> InHand:
    assert step.before is not None
    return step.before


def facts(kind: DrumKind = DrumKind.SNARE, port: bool = False) -> DrumFacts:
    return DrumFacts(kind, {side: RodLayout(8) for side in Side}, snare_bed=kind is DrumKind.SNARE, port=port)


@settings(max_examples=300)
@given(begun_jobs())
def test_the_head_in_hand_is_up_and_as_the_step_needs_it(plan: Plan) -> None:
    for step in shown(plan):
        if step.side is None:
            continue
        if BY_HAND_UP & set(step.does) and plan.drum.traits.rods:
            assert at(step).up.value == step.side.value, (plan.work, step.id)
        for tag in step.does:
            if tag in HEAD and plan.drum.traits.rods:
                assert at(step).head(step.side) in HEAD[tag], (plan.work, step.id, tag)
        if isinstance(step.data, Passes) and "ease" not in step.id:
            assert at(step).head(step.side) is not HeadIs.OFF


@settings(max_examples=300)
@given(begun_jobs())
def test_a_head_is_read_tight_from_above_and_with_no_wires_on_it(plan: Plan) -> None:
    for step in shown(plan):
        if isinstance(step.data, Clear):
            assert step.side
            assert at(step).up.value == step.side.value, (plan.work, step.id)
            assert at(step).head(step.side) is HeadIs.TIGHT
            assert at(step).wires in (None, WiresAre.STRAINER, WiresAre.NONE) or at(step).lever is Lever.OFF


@settings(max_examples=300)
@given(begun_jobs())
def test_no_head_comes_off_under_wires_and_they_are_clamped_snare_side_up_with_the_lever_on(plan: Plan) -> None:
    for step in shown(plan):
        if {"slacken", "lift-off"} & set(step.does) and step.side is Side.RESONANT and plan.drum.traits.wires:
            assert at(step).wires is not WiresAre.ON
        if step.id in ("strainer", "butt"):
            assert (at(step).up, at(step).lever, at(step).knob_out) == (Up.RESONANT, Lever.ON, True)
        if step.id in ("on-off", "fine"):
            assert (at(step).up, at(step).wires) == (Up.BATTER, WiresAre.ON)
        if "wires-level" in step.does:
            assert at(step).lever is Lever.OFF
            assert at(step).up in (Up.BATTER, Up.EDGE)


@settings(max_examples=300)
@given(begun_jobs())
def test_what_lies_inside_moves_only_while_a_hand_comes_in(plan: Plan) -> None:
    for step in shown(plan):
        if {"inside-out", "muffle-inside"} & set(step.does):
            assert at(step).reachable, (plan.work, step.id)


@settings(max_examples=300)
@given(begun_jobs())
def test_every_plan_ends_with_the_drum_as_a_player_gets_it(plan: Plan) -> None:
    last = at(shown(plan)[-1])
    assert last.up is Up.PLAYED
    assert {last.batter, last.resonant} <= {HeadIs.TIGHT, HeadIs.ZERO}
    if plan.drum.has_wires:
        assert (last.lever, last.wires) == (Lever.ON, WiresAre.ON), plan.work


@settings(max_examples=300)
@given(begun_jobs())
def test_no_rod_is_emptied_in_one_go(plan: Plan) -> None:
    """P11: two half turns a round at most."""
    for step in shown(plan):
        if "slacken" in step.does and isinstance(step.data, Passes):
            assert all(-16 <= each.each.thirtyseconds < 0 for each in step.data.passes), (plan.work, step.id)


@settings(max_examples=200)
@given(begun_jobs())
def test_the_drum_is_turned_no_oftener_than_it_must(plan: Plan) -> None:
    work = CATALOGUE[plan.work]
    assert turns_in(plan) == least_turns(work, plan.part, plan.drum, plan.ways, plan)


@settings(max_examples=200)
@given(begun_jobs())
def test_every_step_says_why(plan: Plan) -> None:
    for step in plan.steps:
        assert step.why.endswith("."), (plan.work, step.id)
        assert step.why != step.say
        assert len(step.why) <= 140


def test_a_rope_is_laced_again_before_it_is_drawn_up() -> None:
    plan = make_plan(work_named("new-rope-head"), Part.BATTER, DrumFacts(DrumKind.ROPE_BASS, {}), Ways())
    order = [step.id for step in shown(plan)]
    assert (
        order.index("unlace")
        < order.index("slack")
        < order.index("re-thread")
        < order.index("tie")
        < order.index("pull")
    )
    ways = make_plan(work_named("rope-range"), Part.HEADS, DrumFacts(DrumKind.ROPE_BASS, {}), Ways())
    ids = [step.id for step in shown(ways)]
    assert ids.index("untie") < ids.index("slack") < ids.index("tie") < ids.index("pull")


def test_a_procedure_nobody_could_carry_out_is_refused_with_the_reason() -> None:
    whole = work_named("new-batter-head")
    without = replace(
        whole, steps=lambda part, ways, drum: tuple(s for s in whole.steps(part, ways, drum) if s.id != "slacken")
    )
    with pytest.raises(UnknownWork, match=r"at “lift-off” the batter head is tight"):
        make_plan(without, Part.BATTER, facts(), Ways())


def test_needs_are_said_of_the_head_in_hand_and_leaves_change_only_what_they_name() -> None:
    came = as_it_came(wires=True, strainer=True, port=False, rope=False)
    needs = Needs(up=(Up.OTHER,), lever=Lever.OFF)
    assert needs.way_up(came, Side.BATTER) is Up.RESONANT
    assert needs.lever_to(came) is Lever.OFF
    assert needs.lever_to(replace(came, wires=WiresAre.NONE)) is None
    after = Leaves(up=Up.HAND, head=HeadIs.OFF).after(came, Side.RESONANT)
    assert (after.up, after.resonant, after.batter, after.lever) == (Up.RESONANT, HeadIs.OFF, HeadIs.TIGHT, Lever.ON)
    assert (came.reachable, after.reachable) == (False, True)
    assert after.told()["inside"] == "reachable"
