"""A job's events when rods are read by ear, gauge or microphone, and when a head is left uneven on purpose."""

import math
from dataclasses import replace

import pytest
from benches import judged as judgements
from benches import log, plan, read, readings, turned

from drumwork.drums import Side
from drumwork.errors import BadEvent, BadLayout
from drumwork.quantities import Turns
from drumwork.rods.clearing import ClearingTask, Ear, Means, propose
from drumwork.rods.layout import RodLayout
from drumwork.work.clearing import clearing_task, heard_pair, smooth_readings, spotted_order
from drumwork.work.fold import fold, require_fits
from drumwork.work.kinds.clear import (
    CentreRead,
    LeftUneven,
    MeansChosen,
    Move,
    ReadingsMoved,
    RoundPlanned,
    WholeJudged,
)
from drumwork.work.kinds.common import Undone
from drumwork.work.log import Entry
from drumwork.work.rounds import Partial, RoundPlan, round_plan
from drumwork.work.state import BenchState

SIX = RodLayout(6)
PLAN = plan("settling-check")


def after(*entries: Entry) -> BenchState:
    return fold(PLAN, log(*entries))


def pitches(lap: int, hz: float = 200.0) -> list[Entry]:
    return readings(lap, *[hz] * 6)


def judged(lap: int) -> list[Entry]:
    return judgements(lap, SIX.rods[1:])


def task(state: BenchState, lap: int = 0) -> ClearingTask:
    return clearing_task(state, "clear", lap)


def at_db(hz: float, amplitude: float) -> Partial:
    return Partial(hz, 20 * math.log10(amplitude))


def test_pitch_is_read_until_another_means_is_chosen() -> None:
    assert after().means is Means.PITCH
    state = after(MeansChosen(Means.EAR, 2))
    assert (state.means, state.reference(Side.BATTER)) == (Means.EAR, 2)
    assert after(MeansChosen(Means.EAR)).reference(Side.BATTER) == 1


def test_judgements_by_ear_become_a_task_by_ear() -> None:
    found = task(after(MeansChosen(Means.EAR, 1), *judged(0), WholeJudged("clear", 0, Ear.LOWER)))
    assert found.means is Means.EAR
    assert found.rounds[0].reference == 1
    assert found.rounds[0].whole is Ear.LOWER
    assert set(found.rounds[0].ear) == set(SIX.rods) - {1}


def test_rounds_read_with_something_else_before_are_left_out() -> None:
    made = round_plan(task(after(*pitches(0))), propose(task(after(*pitches(0)))))
    planned = RoundPlanned("clear", 0, plan_with(made, 2))
    state = after(*pitches(0), planned, turned("clear", 0, 2, Turns(2)), MeansChosen(Means.EAR), *judged(1))
    assert len(state.laps["clear"]) == 2
    assert len(task(state, 1).rounds) == 1


def plan_with(plan: RoundPlan, rod: int) -> RoundPlan:
    return replace(plan, turns_32=dict.fromkeys(SIX.rods, 0) | {rod: 2}, clear=False)


def test_a_gauge_beside_the_pitch_goes_into_the_same_round() -> None:
    gauge = [read(0, rod, "80", Means.GAUGE) for rod in SIX.rods]
    found = task(after(*pitches(0), *gauge))
    assert found.means is Means.PITCH
    assert set(found.rounds[0].numbers.values()) == {80.0}


def test_a_doubted_reading_is_marked_until_it_is_read_again() -> None:
    doubted = read(0, 3, "200?")
    assert task(after(*pitches(0), doubted)).rounds[0].doubtful == {3}
    assert not task(after(*pitches(0), doubted, pitches(0)[2])).rounds[0].doubtful


def test_left_uneven_is_what_the_head_is_judged_by() -> None:
    state = after(LeftUneven("rod-down", 2), *pitches(0))
    offsets = task(state).offsets
    assert min(offsets, key=lambda rod: offsets[rod]) in (2, 5)  # a rod and the one facing it read alike
    assert task(after(LeftUneven("rod-down", 2), LeftUneven(), *pitches(0))).offsets == {}


def test_what_cannot_be_is_refused() -> None:
    with pytest.raises(BadLayout):
        require_fits(after(), MeansChosen(Means.EAR, 9))
    with pytest.raises(BadLayout):
        require_fits(after(), LeftUneven("beside-wires"))
    with pytest.raises(BadEvent):
        require_fits(after(), WholeJudged("clear", 3, Ear.LEVEL))


class TestHeardRounds:
    """Rounds from the microphone carry the partials of every tap."""

    low, high, axis = 198.0, 202.0, 0.5

    def heard(self, rods: tuple[int, ...] = SIX.rods) -> list[Entry]:
        found: list[Entry] = []
        for rod in rods:
            share = math.cos(SIX.angle_rad(rod) - self.axis) ** 2
            strongest = self.low if share > 0.5 else self.high
            partials = (at_db(self.low, share + 1e-3), at_db(self.high, 1 - share + 1e-3))
            found.append(read(0, rod, f"{strongest}", partials=partials))
        return found

    def test_are_read_as_the_blend_each_rod_hears(self) -> None:
        lap = after(*self.heard()).laps["clear"][0]
        pair = heard_pair(SIX, lap)
        assert pair is not None
        assert (pair.lower_hz, pair.upper_hz) == pytest.approx((self.low, self.high), abs=0.1)
        assert pair.axis_rad == pytest.approx(self.axis, abs=0.05)
        smooth = smooth_readings(SIX, lap)
        assert len({round(pitch.hz, 2) for pitch in smooth.values()}) > 2  # no longer one or the other of the pair

    def test_are_taken_as_they_are_while_a_rod_is_unheard_or_typed(self) -> None:
        partly = after(*self.heard(SIX.rods[:5])).laps["clear"][0]
        assert heard_pair(SIX, partly) is None
        typed = after(*self.heard(), read(0, 2, "201")).laps["clear"][0]
        assert smooth_readings(SIX, typed)[2].hz == 201


class TestRoundsTappedInAnotherOrder:
    """A split pair writes each tap's angle into its partials; here the hands went another way than asked."""

    low, high, axis = 196.0, 204.0, 0.5

    def heard(self, really: tuple[int, ...]) -> list[Entry]:
        """Rods 1, 2, 3 … asked for, these tapped."""
        found: list[Entry] = []
        for asked, rod in zip(SIX.rods, really, strict=False):
            share = math.cos(SIX.angle_rad(rod) - self.axis) ** 2
            strongest = self.low if share > 0.5 else self.high
            partials = (at_db(self.low, share + 1e-3), at_db(self.high, 1 - share + 1e-3))
            found.append(read(0, asked, f"{strongest}", partials=partials, tap=f"tap-{asked}"))
        return found

    def moved(self, really: tuple[int, ...]) -> ReadingsMoved:
        return ReadingsMoved("clear", 0, tuple(Move(*pair) for pair in zip(SIX.rods, really, strict=False)))

    def test_are_spotted_and_nothing_is_said_of_those_tapped_as_asked(self) -> None:
        assert spotted_order(after(*self.heard(SIX.rods)), "clear", 0) is None
        found = spotted_order(after(*self.heard((1, 2, 2, 3, 4, 5))), "clear", 0)
        assert found is not None
        assert found.rods == (1, 2, 2, 3, 4, 5)

    def test_are_not_guessed_at_from_typed_readings_or_half_a_round(self) -> None:
        assert spotted_order(after(*pitches(0)), "clear", 0) is None
        assert spotted_order(after(*self.heard((1, 3, 4, 5))), "clear", 0) is None

    def test_are_put_right_in_one_entry_with_taps_and_partials(self) -> None:
        really = (1, 2, 2, 3, 4, 5)
        state = after(*self.heard(really), self.moved(really))
        lap = state.laps["clear"][0]
        assert set(lap.readings) == {1, 2, 3, 4, 5}
        assert lap.taps == {1: "tap-1", 2: "tap-3", 3: "tap-4", 4: "tap-5", 5: "tap-6"}
        assert lap.partials[4] == after(*self.heard(SIX.rods)).laps["clear"][0].partials[4]
        assert spotted_order(state, "clear", 0) is None

    def test_two_taps_of_one_rod_are_read_as_one(self) -> None:
        first, second = (read(0, rod, str(hz), partials=(Partial(hz, 0.0),)) for rod, hz in ((1, 200.0), (2, 204.0)))
        lap = after(first, second, ReadingsMoved("clear", 0, (Move(1, 1), Move(2, 1)))).laps["clear"][0]
        assert {rod: mark.value.hz for rod, mark in lap.readings.items()} == {1: 202.0}

    def test_come_back_as_they_were_when_that_entry_is_undone(self) -> None:
        really = (1, 2, 2, 3, 4, 5)
        entries = [*self.heard(really), self.moved(really), Undone("e7")]
        assert set(after(*entries).laps["clear"][0].readings) == set(SIX.rods)

    @pytest.mark.parametrize("moves", [((1, 2),), ((1, 1), (2, 9))])
    def test_moves_that_do_not_fit_what_was_read_are_refused(self, moves: tuple[tuple[int, int], ...]) -> None:
        state = after(*self.heard((1, 2)))
        with pytest.raises((BadEvent, BadLayout)):
            require_fits(state, ReadingsMoved("clear", 0, tuple(Move(*each) for each in moves)))


def test_the_middle_is_the_drums_note_and_no_rods() -> None:
    lap = after(CentreRead("clear", 0, "118").read(440)).laps["clear"][0]
    assert lap.centre is not None
    assert lap.centre.value.hz == 118
    assert not lap.readings


def test_rods_are_tapped_round_or_in_the_order_they_are_turned() -> None:
    as_turned = plan("settling-check", tap_round=False)
    assert PLAN.tapping_order(Side.BATTER) == SIX.rods
    assert as_turned.tapping_order(Side.BATTER) == as_turned.turning_order(Side.BATTER) != SIX.rods
