"""Settling: what a new head loses, and what its own readings teach."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.errors import BadQuantity
from drumwork.quantities import Interval, Pitch
from drumwork.settling import Dropped, expect_settling

kinds = st.sampled_from(["snare-side", "single", "double", "mesh"])


@given(kinds, st.floats(0, 60), st.floats(0.01, 60))
def test_the_fall_only_grows_and_ever_more_slowly(kind: str, days: float, later: float) -> None:
    settling = expect_settling(kind)
    first, second, third = (settling.drop_cents(days + n * later) for n in range(3))
    assert first <= second <= third
    assert third - second <= second - first + 1e-9


def test_most_of_the_fall_comes_in_the_first_two_days() -> None:
    # common practice F6: the first one to two days
    settling = expect_settling("single")
    assert settling.drop_cents(2) > settling.drop_cents(14) - settling.drop_cents(2)


@given(kinds, st.floats(60, 400), st.floats(0.5, 10))
def test_left_so_far_above_it_comes_to_the_target_by_the_check(kind: str, hz: float, days: float) -> None:
    settling, target = expect_settling(kind), Pitch(hz)
    assert settling.pitch_at(settling.leave_at(target, days), days).hz == pytest.approx(hz)
    assert settling.leave_at(target, days, share=0).hz == pytest.approx(hz)


def test_own_readings_pull_the_expectation_and_make_it_surer() -> None:
    before = expect_settling("single")
    after = expect_settling("single", [Dropped(2, 30), Dropped(2, 28)])
    assert before.drop_cents(2) < after.drop_cents(2) < 30
    assert after.sd < before.sd


def test_many_readings_come_to_the_truth() -> None:
    truth = 11.0
    from math import log1p

    seen = [Dropped(days, truth * log1p(days / 0.25)) for days in (0.5, 1, 2, 4, 8) * 4]
    assert expect_settling("single", seen).mean == pytest.approx(truth, rel=0.02)


@given(kinds, st.floats(0.5, 20))
def test_the_next_check_is_when_a_further_fall_is_worth_it(kind: str, cleared: float) -> None:
    settling = expect_settling(kind)
    again = settling.next_check_days(cleared)
    if again is not None:
        assert settling.drop_cents(again) - settling.drop_cents(cleared) == pytest.approx(8.0)  # our own figure
    else:
        assert settling.drop_cents(180) - settling.drop_cents(cleared) < 8.0


def test_the_pitch_after_a_fall_lies_that_many_cents_lower() -> None:
    settling = expect_settling("double")
    later = settling.pitch_at(Pitch(200), 2)
    assert Interval.from_ratio(later.hz / 200).cents == pytest.approx(-settling.drop_cents(2))


def test_unknown_films_and_negative_days_are_refused() -> None:
    with pytest.raises(BadQuantity, match="Choose one of"):
        expect_settling("parchment")
    with pytest.raises(BadQuantity):
        expect_settling("single").drop_cents(-1)
    with pytest.raises(BadQuantity):
        expect_settling("single").leave_at(Pitch(200), 2, share=2)
