"""Passes from large to small, even slackening, the snare side, wrinkles, and unevenness on purpose."""

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.errors import BadLayout, BadQuantity
from drumwork.quantities import Turns
from drumwork.rods.deliberate import OnPurpose, leave_uneven
from drumwork.rods.layout import RodLayout
from drumwork.rods.passes import slackening_passes, snare_side_passes, tightening_passes, wrinkle_passes

SNARE = RodLayout(8, beside_bed=frozenset({2, 3, 6, 7}))
ROUND = tuple(range(1, 9))


@given(st.integers(1, 8 * 32))
def test_passes_come_to_what_was_asked_and_never_grow(total: int) -> None:
    passes = tightening_passes(ROUND, Turns(total))
    sizes = [each.each.thirtyseconds for each in passes]
    assert sum(sizes) == total
    assert sizes == sorted(sizes, reverse=True)  # common practice, P10: first steps larger, then smaller
    assert all(each.order == ROUND for each in passes)


@pytest.mark.parametrize("turns", [Turns(0), Turns(-8), Turns.of(9)])
def test_tightening_by_nothing_or_too_much_is_refused(turns: Turns) -> None:
    with pytest.raises(BadQuantity):
        tightening_passes(ROUND, turns)


@pytest.mark.parametrize("over_zero", [Turns.of(1), Turns.of(5, 4), Turns.of(3, 2), Turns.of(7, 2)])
def test_slackening_is_even_and_empties_no_rod_in_one_go(over_zero: Turns) -> None:
    """Common practice, P11, no source: half turns, quarters toward the end, never more than the head has over zero."""
    passes = slackening_passes(ROUND, over_zero)
    assert sum((each.each.fraction for each in passes), Fraction(0)) == -over_zero.fraction
    assert all(each.order == ROUND and Fraction(-1, 2) <= each.each.fraction < 0 for each in passes)
    assert passes[-1].each.fraction == Fraction(-1, 4)


def test_on_the_snare_side_rods_beside_the_bed_come_last_and_gently() -> None:
    """Common practice, P12 and F5: 1½ to 2 turns in half turns from finger-tight; N9: bed rods only until the ripple goes."""
    *away, bed = snare_side_passes(SNARE)
    assert Fraction(3, 2) <= sum((each.each.fraction for each in away), Fraction(0)) <= 2
    assert all(each.each.fraction == Fraction(1, 2) for each in away)
    assert all(not set(each.order) & SNARE.beside_bed for each in away)
    assert set(bed.order) == SNARE.beside_bed
    assert "ripple" in bed.until


def test_the_snare_side_needs_to_know_its_bed() -> None:
    with pytest.raises(BadQuantity, match="beside the snare bed"):
        snare_side_passes(RodLayout(8))


def test_the_lowest_clean_pitch_goes_down_to_a_wrinkle_and_just_up_again() -> None:
    """Common practice, P14: each rod by itself, before the next is touched."""
    (each,) = wrinkle_passes(ROUND)
    assert each.order == ROUND
    assert Fraction(-1, 8) < each.each.fraction < 0
    assert each.until == "its wrinkle has shown and just gone"


def test_four_by_a_hair_are_two_adjacent_pairs_in_line() -> None:
    """Common practice, P19: on eight rods, four, two adjacent pairs in line."""
    found = leave_uneven(RodLayout(8), OnPurpose.FOUR_BY_A_HAIR, start=1)
    assert set(found.turns) == {1, 2, 5, 6}
    assert all(turn.fraction == Fraction(-1, 16) for turn in found.turns.values())
    assert {rod for rod, cents in found.offsets_cents.items() if cents < 0} == {1, 2, 5, 6}


@given(st.integers(6, 16), st.integers(1, 6))
def test_a_rod_down_reads_lowest_at_itself_and_offsets_balance(count: int, start: int) -> None:
    found = leave_uneven(RodLayout(count), OnPurpose.ROD_DOWN, start)
    assert found.offsets_cents[start] == min(found.offsets_cents.values())
    assert sum(found.offsets_cents.values()) == pytest.approx(0, abs=1.0)


def test_what_cannot_be_left_uneven_is_refused() -> None:
    with pytest.raises(BadLayout, match="even number"):
        leave_uneven(RodLayout(5), OnPurpose.FOUR_BY_A_HAIR)
    with pytest.raises(BadLayout, match="snare bed"):
        leave_uneven(RodLayout(8), OnPurpose.BESIDE_WIRES)
    assert set(leave_uneven(SNARE, OnPurpose.BESIDE_WIRES).turns) == SNARE.beside_bed
