"""What a job's passes meant each rod to have since finger-tight (trade P12, P18, N9: common practice, no source)."""

import pytest
from benches import after, plan, readings

from drumwork.drums import DrumKind, Side
from drumwork.errors import ReadAgain
from drumwork.quantities import Turns
from drumwork.rods.clearing import Means, propose
from drumwork.work.clearing import clearing_task
from drumwork.work.fold import require_fits
from drumwork.work.kinds.clear import MeansChosen, ReadingTaken, RoundPlanned
from drumwork.work.kinds.common import StepDone
from drumwork.work.kinds.passes import PassAdded, RodTurn, Turned
from drumwork.work.log import Entry
from drumwork.work.plan import Part, Plan
from drumwork.work.rounds import Lap

SIDE = Side.RESONANT


def snare_side(**ways: object) -> Plan:
    return plan("new-snare-side-head", Part.RESONANT, DrumKind.SNARE, 10, **ways)


def _all_passes(job: Plan, *steps: str) -> list[Entry]:
    """Every pass of these steps made as it was asked."""
    laps = {step: [Lap(each.order, each=each.each) for each in job.step(step).data.passes] for step in steps}  # type: ignore[union-attr]
    return [
        Turned(step, number, tuple(RodTurn(rod, lap.each.thirtyseconds) for rod in lap.order if lap.each))
        for step in steps
        for number, lap in enumerate(laps[step])
    ]


def test_a_snare_side_as_planned_is_cleared_as_an_even_head() -> None:
    job = snare_side()
    entries = [StepDone("fingers"), *_all_passes(job, "tension", "bed-rods")]
    hz = [330, 333, 333, 331, 331, 326, 333, 332, 331, 331]
    state = after(job, *entries, *readings(0, *hz))
    tally, meant = state.tally(SIDE) or {}, state.meant(SIDE) or {}
    assert len(set(tally.values())) == 2  # the rods beside the bed hold fewer
    assert tally == meant
    found = propose(clearing_task(state, "clear", 0))
    assert "tally" in found.tension.told_by
    assert found.tension.unheard.round(6).tolist() == [0] * 10
    assert found.turns[6].thirtyseconds >= 0  # the flattest rod is not eased


def test_a_pass_that_ends_when_the_ripple_goes_meant_what_it_did() -> None:
    job = snare_side()
    (bed,) = job.step("bed-rods").data.passes  # type: ignore[union-attr]
    made = tuple(RodTurn(rod, 8 if rod == bed.order[0] else 14) for rod in bed.order)
    state = after(job, StepDone("fingers"), Turned("bed-rods", 0, made))
    assert state.meant(SIDE) == state.tally(SIDE)


def test_a_rod_left_out_of_a_pass_of_all_is_missed_and_a_pass_left_out_is_not() -> None:
    job = snare_side()
    first = job.step("tension").data.passes[0]  # type: ignore[union-attr]
    made = tuple(RodTurn(rod, None if rod == first.order[0] else 16) for rod in first.order)
    state = after(job, StepDone("fingers"), Turned("tension", 0, made), StepDone("tension"))
    meant = state.meant(SIDE) or {}
    assert meant[first.order[0]] == Turns(16)
    assert max(each.thirtyseconds for each in meant.values()) == 16


def test_rods_eased_against_buzz_were_meant_to_be() -> None:
    job = snare_side(bed_rods="eased")
    entries = [StepDone("fingers"), *_all_passes(job, "tension", "bed-rods")]
    bed = job.step("ease-bed").data.passes[0].order  # type: ignore[union-attr]
    eased = Turned("ease-bed", 0, tuple(RodTurn(rod, -16) for rod in bed))  # half a turn where a quarter was asked
    state = after(job, *entries, eased)
    assert state.meant(SIDE) == state.tally(SIDE)


def test_one_more_pass_goes_over_the_rods_its_step_is_about() -> None:
    job = snare_side()
    state = after(job, StepDone("fingers"), *_all_passes(job, "tension", "bed-rods"), PassAdded("bed-rods", 8))
    bed = job.step("bed-rods").data.passes[0]  # type: ignore[union-attr]
    added = state.laps["bed-rods"][-1]
    assert (added.order, added.until) == (bed.order, bed.until)


def test_turns_are_worked_out_of_no_reading_that_cannot_be() -> None:
    job = plan()
    slip = after(job, *readings(0, 912, 91, 90, 91, 92, 91))
    with pytest.raises(ReadAgain, match="912") as refused:
        require_fits(slip, RoundPlanned("clear", 0))
    assert refused.value.fields == {"rods": [1]}
    so = ReadingTaken("clear", 0, 1, "912", sure=True).read(440)
    require_fits(after(job, *readings(0, 912, 91, 90, 91, 92, 91), so), RoundPlanned("clear", 0))
    require_fits(after(job, *readings(0, 912, 91, 90, 91, 92, 91), MeansChosen(Means.EAR)), RoundPlanned("clear", 0))
