"""What a turn is expected to do, from the thread up."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from drumwork.errors import BadQuantity
from drumwork.membrane import SOUNDS, Film, Head, Relation, expect_answer, plan_two_heads
from drumwork.membrane.two_heads import lowest_clean
from drumwork.quantities import Length, Pitch
from drumwork.quantities.thread import thread_pitch_m

HEAD = Head(Film.from_mil(10), Length.from_inches(14), 8)


@pytest.mark.parametrize(
    ("name", "mm"),
    [
        ("M5", 0.8),  # ISO 261:1998, coarse pitches
        ("M6", 1.0),
        ("M8", 1.25),
        ("M6 x 0.75", 0.75),  # ISO 261, a fine pitch as designated
        ("12-24", 25.4 / 24),  # ASME B1.1: No. 12 UNC, 24 threads to the inch
        ("10-32 UNF", 25.4 / 32),  # ASME B1.1
        ("1/4-20", 1.27),  # ASME B1.1: quarter inch UNC
        ("7/32-24", 25.4 / 24),  # by its own designation
    ],
)
def test_thread_pitches_are_those_of_the_standards(name: str, mm: float) -> None:
    assert thread_pitch_m(name) * 1000 == pytest.approx(mm, rel=1e-9)


@pytest.mark.parametrize("name", ["M7", "wood screw", "12", ""])
def test_an_unknown_thread_is_refused_with_how_to_write_it(name: str) -> None:
    with pytest.raises(BadQuantity, match="12-24"):
        thread_pitch_m(name)


@given(st.floats(0.5, 1.5))
def test_tension_goes_with_the_thread(pitch_mm: float) -> None:
    one, other = expect_answer(HEAD, "M6 x 1.0"), expect_answer(HEAD, f"M6 x {pitch_mm:.4f}")
    assert other.hz2_per_turn / one.hz2_per_turn == pytest.approx(float(f"{pitch_mm:.4f}"), rel=1e-6)


def test_a_usual_head_is_expected_to_answer_as_the_clearing_takes_it_to() -> None:
    """Our own prior: an even turn moves z by about 0.8, within its stated uncertainty."""
    expected = expect_answer(HEAD)
    z = expected.hz2_per_turn / 250**2
    assert abs(math.log(z / 0.8)) < 1.5 * expected.log_sd


def test_its_own_history_soon_outweighs_the_thread() -> None:
    blind = expect_answer(HEAD, "M6")
    taught = expect_answer(HEAD, "M6", (2 * blind.hz2_per_turn, 0.1 * blind.hz2_per_turn), rounds=3)
    assert taught.hz2_per_turn == pytest.approx(2 * blind.hz2_per_turn, rel=0.05)
    assert taught.log_sd < blind.log_sd
    assert "3 rounds on this drum" in taught.words


def test_turns_from_one_pitch_to_another_come_with_their_range() -> None:
    turns, low, high = expect_answer(HEAD).turns(Pitch(250), Pitch(220))
    assert low < turns < high < 0
    assert turns == pytest.approx((220**2 - 250**2) / expect_answer(HEAD).hz2_per_turn)


def test_every_sound_offered_can_be_planned_and_says_why() -> None:
    for sound in SOUNDS:
        batter = None if sound.relation is Relation.LOWEST_CLEAN else Pitch(180)
        plan = plan_two_heads((HEAD, HEAD), Length.from_inches(10), sound.relation, sound.cents, batter=batter)
        assert plan.character
        assert plan.why
        assert plan.by_mass_hz != 0


def test_the_lowest_clean_pitch_is_the_same_pull_at_every_rod() -> None:
    heavy = Head(Film.from_mil(14, plies=2), HEAD.diameter, 8)
    assert lowest_clean(heavy).hz < lowest_clean(HEAD).hz
    assert HEAD.rod_load_n(lowest_clean(HEAD)) == pytest.approx(heavy.rod_load_n(lowest_clean(heavy)))
    with pytest.raises(BadQuantity, match="leave the wanted pitch out"):
        plan_two_heads((HEAD, HEAD), Length.from_inches(10), Relation.LOWEST_CLEAN, batter=Pitch(100))
