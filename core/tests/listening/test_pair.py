"""A round of taps as one estimate: the whole head's pair where the partials tell it, else what each rod reads.

Taps are written from the textbook form of a split (1,1) pair: a point at angle θ moves the lower mode with cos²(θ - axis), the upper with sin²
(P. M. Morse & K. U. Ingard, *Theoretical Acoustics*, §5.2, degenerate modes of a membrane).
"""

import math

import numpy as np
import pytest

from drumwork.listening import HeardRod, common_pair, round_of
from drumwork.rods.clearing import PairHeard
from drumwork.rods.layout import RodLayout

LOW, HIGH, AXIS = 196.0, 203.0, 0.7


def head(
    rods: int, exponent: float = 1, noise: float = 0.0, blended: bool = False, seed: int = 0
) -> dict[int, HeardRod]:
    random, layout, found = np.random.default_rng(seed), RodLayout(rods), {}
    for rod in layout.rods:
        share = math.cos(layout.angle_rad(rod) - AXIS) ** 2
        low, high = (hz * (1 + noise * random.standard_normal()) for hz in (LOW, HIGH))
        rang = tuple(
            (hz, size) for hz, size in ((low, share**exponent), (high, (1 - share) ** exponent)) if size > 0.02
        )
        blend = math.sqrt(share * LOW**2 + (1 - share) * HIGH**2) * (1 + noise * random.standard_normal())
        found[rod] = HeardRod(blend if blended else max(rang, key=lambda each: each[1])[0], rang)
    return found


def pair_of(layout: RodLayout, heard: dict[int, HeardRod]) -> PairHeard:
    pair = common_pair(layout, heard)
    assert pair is not None
    return pair


@pytest.mark.parametrize("rods", [6, 8, 10, 12])
@pytest.mark.parametrize("exponent", [0.5, 1, 2])
def test_the_pair_is_found_whatever_its_amplitudes_go_with(rods: int, exponent: float) -> None:
    pair = pair_of(RodLayout(rods), head(rods, exponent))
    assert (pair.lower_hz, pair.upper_hz) == pytest.approx((LOW, HIGH), abs=0.05)
    assert pair.axis_rad == pytest.approx(AXIS, abs=3 * pair.axis_sd_rad)


@pytest.mark.parametrize("rods", [6, 8, 12])
def test_pooled_over_the_rods_the_pair_is_known_better_than_any_reading(rods: int) -> None:
    """Standard error of a mean: with errors of 0.4 % at each rod, the median of thirty pairs lies within 0.4 % / √(n / 2) of the truth."""
    layout, off = RodLayout(rods), []
    for seed in range(30):
        pair = pair_of(layout, head(rods, noise=0.004, seed=seed))
        off += [pair.lower_hz / LOW - 1, pair.upper_hz / HIGH - 1]
    assert np.sqrt(np.mean(np.square(off))) < 1.3 * 0.004 / math.sqrt(rods / 2)


def test_rods_that_read_one_of_the_pair_are_given_the_blend_they_hear() -> None:
    layout = RodLayout(8)
    told = round_of(layout, head(8))
    assert told.worked_out == frozenset(layout.rods)
    for rod in layout.rods:
        share = math.cos(layout.angle_rad(rod) - AXIS) ** 2
        assert told.readings[rod].hz == pytest.approx(math.sqrt(share * LOW**2 + (1 - share) * HIGH**2), abs=0.2)


def test_readings_that_blend_already_are_kept_as_they_are() -> None:
    heard = head(8, noise=0.001, blended=True)
    told = round_of(RodLayout(8), heard)
    assert told.pair is not None
    assert not told.worked_out
    assert {rod: pitch.hz for rod, pitch in told.readings.items()} == {rod: each.hz for rod, each in heard.items()}


def test_a_rod_far_off_the_pair_and_one_without_partials_keep_what_was_read() -> None:
    heard = head(8)
    heard[3] = HeardRod(214.0, ((214.0, 1.0), (HIGH, 0.2)))
    heard[6] = HeardRod(200.5)
    told = round_of(RodLayout(8), heard)
    assert told.readings[3].hz == 214.0
    assert told.readings[6].hz == 200.5
    assert {3, 6}.isdisjoint(told.worked_out)


def test_a_head_whose_rods_ring_each_for_itself_has_no_pair() -> None:
    hz = [198.0, 201.0, 205.0, 199.5, 203.0, 196.0, 207.0, 200.0]
    heard = {rod: HeardRod(value, ((value, 1.0),)) for rod, value in enumerate(hz, start=1)}
    assert common_pair(RodLayout(8), heard) is None
    assert [round_of(RodLayout(8), heard).readings[rod].hz for rod in range(1, 9)] == hz


def test_one_frequency_with_its_errors_is_not_taken_for_two() -> None:
    random = np.random.default_rng(4)
    for _ in range(40):
        heard = {
            rod: HeardRod(hz, ((hz, 1.0),))
            for rod, hz in enumerate(200 * (1 + 0.004 * random.standard_normal(8)), start=1)
        }
        assert common_pair(RodLayout(8), heard) is None


def test_three_rods_tell_no_pair() -> None:
    assert common_pair(RodLayout(8), {rod: each for rod, each in head(8).items() if rod < 4}) is None


def test_a_pair_seen_from_another_badge_has_its_axis_turned_with_it() -> None:
    """The same taps, counted from the third rod on, and counted the other way round."""
    layout, heard = RodLayout(8), head(8)
    plain = pair_of(layout, heard)
    turned = pair_of(layout, {(rod + 4) % 8 + 1: each for rod, each in heard.items()})
    mirrored = pair_of(layout, {9 - rod: each for rod, each in heard.items()})
    step = math.tau / 8
    for found, told in (
        (turned, plain.turned(5 * step, mirrored=False)),
        (mirrored, plain.turned(8 * step, mirrored=True)),
    ):
        assert math.cos(2 * (found.axis_rad - told.axis_rad)) == pytest.approx(1, abs=1e-3)


def test_readings_that_jump_between_the_two_of_a_pair_are_understood_without_partials() -> None:
    """A tuner that shows the strongest partial alone: cos² above a half reads the lower, below it the upper."""
    layout = RodLayout(10)
    heard = {rod: HeardRod(each.hz) for rod, each in head(10, noise=0.001).items()}
    told = round_of(layout, heard)
    assert told.pair is not None
    assert (told.pair.lower_hz, told.pair.upper_hz) == pytest.approx((LOW, HIGH), abs=0.4)
    assert math.cos(2 * (told.pair.axis_rad - AXIS)) > 0.9
    assert max(p.hz for p in told.readings.values()) - min(p.hz for p in told.readings.values()) < HIGH - LOW


def test_readings_that_lie_on_a_blend_are_no_bunches() -> None:
    heard = {rod: HeardRod(each.hz) for rod, each in head(10, noise=0.001, blended=True).items()}
    assert round_of(RodLayout(10), heard).pair is None
