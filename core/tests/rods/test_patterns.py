"""Tightening orders as laws over every rod count."""

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.errors import BadLayout, BadPattern
from drumwork.rods.balance import balance_of, recommend_pattern
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern, order_rods, plan_pattern

counts = st.integers(4, 16)
patterns = st.sampled_from(list(Pattern))


@st.composite
def heads(draw: st.DrawFn) -> RodLayout:
    count = draw(counts)
    lost = draw(st.sets(st.integers(1, count), max_size=min(3, count - 3)))
    return RodLayout(count, frozenset(lost))


@given(heads(), patterns)
def test_every_order_visits_each_rod_that_is_there_once(head: RodLayout, pattern: Pattern) -> None:
    assert sorted(order_rods(head, pattern)) == list(head.rods)


@given(heads(), patterns, st.data())
def test_an_order_starts_at_the_rod_asked_for(head: RodLayout, pattern: Pattern, data: st.DataObject) -> None:
    start = data.draw(st.sampled_from(head.rods))
    assert plan_pattern(head, pattern, start).rods[0] == start


@given(counts, patterns, st.integers(1, 16))
def test_turning_the_start_turns_the_whole_order(count: int, pattern: Pattern, by: int) -> None:
    head = RodLayout(count)
    start = by % count + 1
    turned = tuple(head.nth_on(rod, start - 1) for rod in plan_pattern(head, pattern, 1).rods)
    assert plan_pattern(head, pattern, start).rods == turned


@pytest.mark.parametrize("count", range(4, 17, 2))
@pytest.mark.parametrize("pattern", [Pattern.STAR, Pattern.PLUS_CROSS])
def test_on_even_counts_star_and_plus_cross_go_by_facing_pairs(count: int, pattern: Pattern) -> None:
    head = RodLayout(count)
    order = order_rods(head, pattern)
    assert all(head.opposite(a) == b for a, b in zip(order[::2], order[1::2], strict=True))


@pytest.mark.parametrize("count", range(4, 17))
def test_every_third_rod_reaches_all_exactly_when_three_does_not_divide(count: int) -> None:
    # common practice P4; number theory: the step generates Z/n exactly when gcd(3, n) = 1
    plan = plan_pattern(RodLayout(count), Pattern.EVERY_THIRD)
    assert plan.reaches_all == (math.gcd(3, count) == 1)
    assert bool(plan.note) or plan.reaches_all
    if plan.reaches_all:
        assert all((b - a) % count == 3 % count for a, b in pairwise(plan.rods))


@pytest.mark.parametrize("count", [8, 10])
def test_every_third_rod_takes_three_laps_on_eight_and_ten(count: int) -> None:
    # common practice F9
    order = plan_pattern(RodLayout(count), Pattern.EVERY_THIRD).rods
    wraps = sum(b < a for a, b in pairwise(order))
    assert wraps + 1 == 3


@pytest.mark.parametrize(
    ("count", "order"), [(6, (1, 4, 2, 5, 3, 6)), (8, (1, 5, 2, 6, 3, 7, 4, 8)), (10, (1, 6, 2, 7, 3, 8, 4, 9, 5, 10))]
)
def test_the_star_on_six_eight_and_ten_rods(count: int, order: tuple[int, ...]) -> None:
    # common practice P1, F9
    assert order_rods(RodLayout(count), Pattern.STAR) == order


def test_plus_then_cross_on_eight_rods() -> None:
    # common practice P3: two perpendicular pairs, then the two diagonal pairs
    order = order_rods(RodLayout(8), Pattern.PLUS_CROSS)
    assert {frozenset(order[:2]), frozenset(order[2:4])} == {frozenset({1, 5}), frozenset({3, 7})}


def test_ten_rods_say_that_they_have_no_pairs_at_right_angles() -> None:
    # common practice P7
    assert "right angles" in plan_pattern(RodLayout(10), Pattern.PLUS_CROSS).note


def test_the_neighbour_star_on_six_rods() -> None:
    # common practice P2
    assert order_rods(RodLayout(6), Pattern.NEIGHBOUR_STAR) == (1, 2, 5, 6, 3, 4)


# Largest tilt and saddle on eight rods, from our own numerical study (docs/sources/film.md): circle 2.6/1.4,
# star 1.0/2.8, quarter-round star 1.0/2.0, neighbour pairs 1.9/2.8 (greater or equal to ours), every third 1.1/1.4.
@pytest.mark.parametrize(
    ("pattern", "tilt", "saddle"),
    [
        (Pattern.ROUND, 2.6, 1.4),
        (Pattern.STAR, 1.0, 2.8),
        (Pattern.PLUS_CROSS, 1.0, 2.0),
        (Pattern.EVERY_THIRD, 1.1, 1.4),
    ],
)
def test_hoop_balance_on_eight_rods(pattern: Pattern, tilt: float, saddle: float) -> None:
    head = RodLayout(8)
    balance = balance_of(head, order_rods(head, pattern))
    assert (balance.tilt, balance.saddle) == (pytest.approx(tilt, abs=0.05), pytest.approx(saddle, abs=0.05))


@given(heads(), patterns)
def test_hoop_balance_equals_numpys_fourier_transform_of_the_turns(head: RodLayout, pattern: Pattern) -> None:
    """Independent reference: numpy.fft of the 0/1 vector of rods turned so far."""
    order = order_rods(head, pattern)
    made, tilts, saddles = np.zeros(head.count), [], []
    for rod in order:
        made[rod - 1] = 1
        spectrum = np.abs(np.fft.fft(made))
        tilts.append(spectrum[1])
        saddles.append(spectrum[2 % head.count])
    balance = balance_of(head, order)
    assert balance.tilt == pytest.approx(max(tilts))
    assert balance.saddle == pytest.approx(max(saddles))


@given(heads())
def test_the_recommended_order_never_pulls_the_hoop_over_more_than_the_star(head: RodLayout) -> None:
    best = balance_of(head, order_rods(head, recommend_pattern(head)))
    assert best.tilt <= balance_of(head, order_rods(head, Pattern.STAR)).tilt + 1e-9


@pytest.mark.parametrize("count", [0, 3, 17])
def test_counts_no_head_has_are_refused(count: int) -> None:
    with pytest.raises(BadLayout):
        RodLayout(count)


def test_unknown_patterns_and_rods_are_refused_with_the_choices() -> None:
    with pytest.raises(BadPattern, match="star"):
        plan_pattern(RodLayout(8), "spiral")
    with pytest.raises(BadLayout, match="lost"):
        plan_pattern(RodLayout(8, frozenset({1})), Pattern.STAR, 1)
    with pytest.raises(BadLayout, match="no rod 9"):
        RodLayout(8, frozenset({9}))
    with pytest.raises(BadLayout, match="Fewer than three"):
        RodLayout(4, frozenset({1, 2}))
