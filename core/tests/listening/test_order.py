"""Which tap belongs to which rod. Invented heads; that hands miss and double rods is common practice, no source."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from drumwork.errors import TooFewReadings
from drumwork.listening import Foretold, HeardRod, OrderKind, spot_order
from drumwork.rods.layout import RodLayout

EIGHT = RodLayout(8)
LOW, HIGH, AXIS = 196.0, 204.0, 0.3


def tap(layout: RodLayout, rod: int, axis: float = AXIS, noise: float = 0.0, seed: int = 0) -> HeardRod:
    """What an edge tap near a rod hears of a split pair: each of the two as strong as the rod's angle has it."""
    random = np.random.default_rng(1000 * seed + rod)
    angle = layout.angle_rad(rod) + noise * random.standard_normal()
    share = math.cos(angle - axis) ** 2
    partials = tuple((hz, amp) for hz, amp in ((LOW, share), (HIGH, 1 - share)) if amp > 0.03)
    return HeardRod(max(partials, key=lambda each: each[1])[0], partials)


def taps(layout: RodLayout, rods: list[int], noise: float = 0.05, seed: int = 0) -> list[HeardRod]:
    return [tap(layout, rod, noise=noise, seed=100 * seed + place) for place, rod in enumerate(rods)]


def foretold(layout: RodLayout) -> dict[int, Foretold]:
    share = {rod: math.cos(layout.angle_rad(rod) - AXIS) ** 2 for rod in layout.rods}
    return {rod: Foretold(math.sqrt(s * LOW**2 + (1 - s) * HIGH**2), 6.0) for rod, s in share.items()}


@pytest.mark.parametrize("rods", [5, 6, 8, 10])
@pytest.mark.parametrize("seed", range(8))
def test_a_round_tapped_as_asked_is_left_alone(rods: int, seed: int) -> None:
    layout = RodLayout(rods)
    found = spot_order(layout, layout.rods, taps(layout, list(layout.rods), seed=seed))
    assert not found.amiss
    assert found.rods == layout.rods
    assert found.words == ""


@pytest.mark.parametrize("rod", [2, 4, 6])
def test_a_doubled_rod_shifts_what_follows_back_by_one(rod: int) -> None:
    order = [each for each in EIGHT.rods for _ in range(2 if each == rod else 1)]
    whole = spot_order(EIGHT, EIGHT.rods, taps(EIGHT, order), foretold(EIGHT))
    assert (whole.kind, whole.rods) == (OrderKind.DOUBLED, tuple(order))
    cut = spot_order(EIGHT, EIGHT.rods, taps(EIGHT, order[:8]), foretold(EIGHT))
    assert (cut.kind, cut.missing) == (OrderKind.DOUBLED, (8,))
    assert f"rod {rod} was tapped twice" in cut.words
    assert "Tap rod 8 once more" in cut.words


@pytest.mark.parametrize("rod", [2, 4, 6])
def test_a_missed_rod_is_asked_for_again(rod: int) -> None:
    order = [each for each in EIGHT.rods if each != rod]
    found = spot_order(EIGHT, EIGHT.rods, taps(EIGHT, order), foretold(EIGHT))
    assert (found.kind, found.rods, found.missing) == (OrderKind.MISSED, tuple(order), (rod,))
    assert f"rod {rod} was missed" in found.words


def test_a_last_rod_still_to_come_is_not_a_missed_one() -> None:
    found = spot_order(EIGHT, EIGHT.rods, taps(EIGHT, list(EIGHT.rods[:7])), foretold(EIGHT))
    assert not found.amiss
    assert found.missing == (8,)


def test_two_rods_tapped_in_each_others_place_are_swapped_back() -> None:
    found = spot_order(EIGHT, EIGHT.rods, taps(EIGHT, [1, 5, 3, 4, 2, 6, 7, 8]), foretold(EIGHT))
    # 2 and 5 are three places apart: their two-lobed readings differ. Swapped facing rods read alike, which no ear can tell.
    assert found.kind is OrderKind.SWAPPED
    assert found.rods == (1, 5, 3, 4, 2, 6, 7, 8)


@pytest.mark.parametrize("times", [2, 3])
def test_several_taps_for_each_rod_are_told_from_several_rounds(times: int) -> None:
    each = [rod for rod in EIGHT.rods for _ in range(times)]
    assert spot_order(EIGHT, EIGHT.rods, taps(EIGHT, each)).rods == tuple(each)
    rounds = list(EIGHT.rods) * times
    assert spot_order(EIGHT, EIGHT.rods, taps(EIGHT, rounds)).rods == tuple(rounds)


def test_a_head_that_is_no_simple_pair_raises_no_alarm() -> None:
    """Readings scattered by eight cents, as of a head that answers rod by rod: nothing is claimed of most such rounds."""
    alarms = 0
    for seed in range(40):
        random = np.random.default_rng(seed)
        scattered = []
        for rod in EIGHT.rods:
            by = 2 ** (8 * random.standard_normal() / 1200)
            plain = tap(EIGHT, rod)
            scattered.append(HeardRod(plain.hz * by, tuple((hz * by, amp) for hz, amp in plain.partials)))
        alarms += spot_order(EIGHT, EIGHT.rods, scattered).amiss
    assert alarms <= 4


@given(st.integers(4, 16), st.integers(0, 2**20), st.floats(150, 400))
@settings(max_examples=60)
def test_every_tap_gets_a_rod_of_the_round_whatever_was_heard(rods: int, seed: int, hz: float) -> None:
    random = np.random.default_rng(seed)
    layout = RodLayout(rods)
    heard = [HeardRod(hz * 2 ** (random.normal(0, 30) / 1200)) for _ in range(random.integers(4, 2 * rods + 2))]
    found = spot_order(layout, layout.rods, heard)
    assert len(found.rods) == len(heard)
    assert set(found.rods) <= set(layout.rods)
    assert set(found.missing) == set(layout.rods) - set(found.rods)


@pytest.mark.parametrize("count", [3, 81])
def test_too_few_or_too_many_taps_are_no_round(count: int) -> None:
    with pytest.raises(TooFewReadings):
        spot_order(EIGHT, EIGHT.rods, [HeardRod(200.0)] * count)
