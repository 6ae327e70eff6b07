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
from drumwork.errors import BadEvent, UnknownWork
from drumwork.procedures.catalogue import CATALOGUE, work_named
from drumwork.rods.layout import RodLayout
from drumwork.work.conditions import Chosen
from drumwork.work.hand import HeadIs, InHand, Lacing, Leaves, Lever, Needs, Up, WiresAre, as_it_came, begun_as
from drumwork.work.kinds.steps import Clear, Passes
from drumwork.work.making import came, make_plan
from drumwork.work.plan import DrumFacts, Part, Plan, StepPlan
from drumwork.work.units import LengthUnit
from drumwork.work.ways import BedRods, Ways

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
            on_the_kit = plan.work == "on-the-kit"  # §20: standing as played, in reach
            assert at(step).up.value == ("played" if on_the_kit else step.side.value), (plan.work, step.id)
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
            assert at(step).wires is WiresAre.ON
            assert at(step).up in (Up.BATTER, Up.PLAYED)  # a snare is played batter up
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


def begun(
    kind: DrumKind = DrumKind.SNARE, work: str = "new-batter-head", part: Part = Part.BATTER, **said: str
) -> list[StepPlan]:
    drum = facts(kind) if kind is not DrumKind.ROPE_BASS else DrumFacts(kind, {})
    return shown(make_plan(work_named(work), part, drum, Ways(), begun=begun_as(came(drum), said)))


def test_begun_upside_down_the_drum_is_turned_over_before_the_first_rod() -> None:
    ids = [step.id for step in begun(up="resonant")]
    assert ids.index("to-batter") < ids.index("slacken")
    assert "to-batter" not in [step.id for step in begun(up="batter")]


def test_a_head_that_is_off_or_loose_is_not_loosened_and_lifted_once_more() -> None:
    off, loose = ([step.id for step in begun(batter=each)] for each in ("off", "slack"))
    assert not {"slacken", "lift-off"} & set(off)
    assert off.index("clean") < off.index("set-head")
    assert "slacken" not in loose
    assert "lift-off" in loose


def test_wires_that_are_off_the_drum_are_clamped_at_the_strainer_first() -> None:
    steps = begun(work="new-snare-side-head", part=Part.RESONANT, wires="none", resonant="off")
    ids = [step.id for step in steps]
    assert "wires-off" not in ids
    assert ids.index("strainer") < ids.index("butt")
    assert at(steps[-1]).wires is WiresAre.ON


def test_what_a_job_cannot_be_led_from_is_refused_with_what_is_wrong() -> None:
    with pytest.raises(UnknownWork, match="the resonant head is off"):
        begun(resonant="off")
    with pytest.raises(UnknownWork, match="the batter head is slack"):
        begun(work="another-pitch", batter="slack")
    both = begun(work="both-heads", part=Part.HEADS, batter="off", resonant="off")
    assert at(both[-1]).batter is at(both[-1]).resonant is HeadIs.TIGHT


@pytest.mark.parametrize(
    ("said", "told"),
    [
        ({"up": "sideways"}, "played, batter"),
        ({"lid": "off"}, "these can be said"),
        ({"rope": "tied"}, "has rods"),
        ({"wires": "on", "resonant": "off"}, "Wires cannot lie"),
    ],
)
def test_what_cannot_be_is_not_taken(said: dict[str, str], told: str) -> None:
    with pytest.raises(BadEvent, match=told):
        begun(**said)


def test_a_rope_that_is_unlaced_is_not_unlaced_again() -> None:
    ids = [step.id for step in begun(DrumKind.ROPE_BASS, "new-rope-head", Part.HEADS, rope="unlaced")]
    assert not {"untie", "unlace"} & set(ids)
    assert "re-thread" in ids


def test_both_rope_heads_come_out_in_one_unlacing() -> None:
    """§14, common practice, no source: head and hoop back, all turned over, the other out."""
    drum = DrumFacts(DrumKind.ROPE_BASS, {})
    steps = shown(make_plan(work_named("new-rope-head"), Part.HEADS, drum, Ways()))
    ids = [step.id for step in steps]
    assert [ids.count(each) for each in ("untie", "unlace", "re-thread", "tie")] == [1, 1, 1, 1]
    assert (
        ids.index("batter-set-head") < ids.index("to-resonant") < ids.index("resonant-slide-out") < ids.index("slack")
    )
    assert not [
        step.id for step in steps[ids.index("unlace") : ids.index("slack")] if at(step).lacing is not Lacing.UNLACED
    ][1:]


def test_what_only_an_answer_brings_up_turns_the_drum_and_turns_it_back() -> None:
    """Wires put right are clamped snare side up, lever on; tried again batter up (§8)."""
    plan = make_plan(work_named("new-wires"), Part.WIRES, facts(), Ways())
    answered = [step for step in plan.steps if step.shows([Chosen("on-off", "stays-on")])]
    ids = [step.id for step in answered]
    mended = ids.index("stays-on-1")
    assert (at(answered[mended]).up, at(answered[mended]).lever) == (Up.RESONANT, Lever.ON)
    assert "turn" in answered[mended - 1].does
    assert "turn" in answered[mended + 1].does
    assert at(answered[ids.index("on-off-2")]).up is Up.BATTER
    assert not {"stays-on-1", "on-off-2"} & {step.id for step in shown(plan)}


def test_bed_rods_are_eased_with_the_wires_on_before_the_last_clearing_of_both_heads() -> None:
    """P18, common practice, no source."""
    drum = replace(facts(), snare_bed=True)
    steps = shown(make_plan(work_named("both-heads"), Part.HEADS, drum, Ways(bed_rods=BedRods.EASED)))
    ids = [step.id for step in steps]
    eased = steps[ids.index("ease-bed")]
    assert (at(eased).wires, at(eased).lever, at(eased).up) == (WiresAre.ON, Lever.OFF, Up.RESONANT)
    assert {step.side for step in steps[ids.index("ease-bed") :] if isinstance(step.data, Clear)} == set(Side)


def test_a_drum_is_not_turned_with_a_stick_under_its_wires() -> None:
    steps = begun(work="stick-under", part=Part.RESONANT)
    assert [at(step).stick for step in steps if "turn" in step.does] == [False, False]
    work = work_named("stick-under")
    left_in = replace(work, steps=lambda *given: tuple(each for each in work.steps(*given) if each.id != "stick-out"))
    with pytest.raises(UnknownWork, match="a stick lies under the wires"):
        make_plan(left_in, Part.RESONANT, facts(), Ways())


@pytest.mark.parametrize("unit", list(LengthUnit))
def test_a_plan_speaks_in_the_lengths_of_the_workshop(unit: LengthUnit) -> None:
    """F3, F8, common practice, no source: an inch in from the hoop, a port of six inches."""
    plan = make_plan(
        work_named("new-resonant-head"), Part.RESONANT, facts(DrumKind.BASS, port=True), Ways(lengths=unit)
    )
    words = " ".join(
        [step.say for step in plan.steps] + [str(point.text) for step in plan.steps for point in step.points]
    )
    said = {"mm": ("25 mm", "150 mm"), "in": ("1 inch in from", "6 inches across")}
    assert all(each in words for each in said[unit.value])
    assert not any(each in words for each in said["in" if unit is LengthUnit.MM else "mm"])
