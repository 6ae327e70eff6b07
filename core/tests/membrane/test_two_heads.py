"""Two heads on one shell."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from drumwork.errors import BadQuantity
from drumwork.membrane import Film, Head, Relation, plan_two_heads
from drumwork.membrane.two_heads import MEAN_DISPLACEMENT, MEAN_SQUARE, coupled_pair
from drumwork.quantities import Length, Pitch


def heads(inches: float, batter: float = 10, resonant: float = 10) -> tuple[Head, Head]:
    diameter = Length.from_inches(inches)
    return Head(Film.from_mil(batter), diameter, 8), Head(Film.from_mil(resonant), diameter, 8)


def test_mode_shape_constants_are_the_integrals_of_the_bessel_function() -> None:
    # independent reference: scipy.special and its quadrature
    from scipy import integrate, special

    zero = special.jn_zeros(0, 1)[0]
    mean = integrate.quad(lambda x: 2 * x * special.j0(zero * x), 0, 1)[0]
    square = integrate.quad(lambda x: 2 * x * special.j0(zero * x) ** 2, 0, 1)[0]
    assert pytest.approx(mean, abs=1e-4) == MEAN_DISPLACEMENT
    assert pytest.approx(square, abs=1e-4) == MEAN_SQUARE


def test_the_coupled_pair_of_a_snare_drum_is_of_the_published_order() -> None:
    # Rossing, Bork, Zhao & Fystrom, JASA 92 (1992): about 182 and 330 Hz (from memory); tunings of ours
    batter, snare_side = heads(14, 10, 3)
    lower, upper = coupled_pair((batter, snare_side), (Pitch(300), Pitch(350)), Length.from_inches(6))
    assert lower == pytest.approx(182, rel=0.1)
    assert upper == pytest.approx(330, rel=0.15)


def test_with_equal_heads_the_fundamental_is_near_six_tenths_of_the_lug_pitch() -> None:
    # our own numerical study (docs/sources/film.md and physics notes): 0.58–0.60
    found = plan_two_heads(heads(12), Length.from_inches(8), Relation.EQUAL, batter=Pitch(210))
    assert found.fundamental_hz / 210 == pytest.approx(0.59, abs=0.02)


def test_equal_heads_move_together_without_the_air() -> None:
    """Independent reference: with two equal heads the lower mode has no air spring, whatever the depth."""
    deep, shallow = (coupled_pair(heads(13), (Pitch(190), Pitch(190)), Length.from_inches(d)) for d in (20, 4))
    assert deep[0] == pytest.approx(shallow[0])
    assert deep[1] < shallow[1]


@given(st.floats(80, 320), st.floats(60, 400), st.floats(4, 18))
def test_the_coupled_pair_is_numpys_eigenvalues(one: float, two: float, depth: float) -> None:
    pair = heads(14, 10, 7)
    lower, upper = coupled_pair(pair, (Pitch(one), Pitch(two)), Length.from_inches(depth))
    alone = [coupled_pair(pair, (Pitch(one), Pitch(two)), Length.from_inches(depth), air=1e-9)]
    own = np.sort(np.array(alone[0]) ** 2)
    assert lower >= 0
    assert upper >= np.sqrt(own[1]) - 1e-6  # the spring only stiffens
    assert lower**2 + upper**2 >= own.sum() - 1e-6  # trace


@given(st.floats(70, 170), st.sampled_from([(Relation.EQUAL, 0.0), (Relation.HIGHER, 300.0), (Relation.LOWER, 200.0)]))
@settings(max_examples=40)
def test_a_wanted_fundamental_comes_back(wanted: float, relation: tuple[Relation, float]) -> None:
    found = plan_two_heads(heads(13), Length.from_inches(9), relation[0], relation[1], fundamental=wanted)
    assert found.fundamental_hz == pytest.approx(wanted, rel=1e-6)


def test_a_tenth_of_film_mass_matters_little_forward() -> None:
    # our own numerical study: a 10 % film mass error gives at most 0.5 % in the fundamental
    found = plan_two_heads(heads(13), Length.from_inches(9), Relation.HIGHER, batter=Pitch(193))
    assert found.fundamental_sd_hz / found.fundamental_hz < 0.01


def test_a_minor_third_higher_is_shorter_and_punchier() -> None:
    # common practice F7, trade §7
    found = plan_two_heads(heads(15), Length.from_inches(13), Relation.HIGHER, batter=Pitch(175))
    assert found.resonant.hz / 175 == pytest.approx(1.19, abs=0.001)
    assert "shorter" in found.character


def test_contradictory_or_unreachable_wishes_are_refused() -> None:
    with pytest.raises(BadQuantity, match="not both"):
        plan_two_heads(heads(13), Length.from_inches(9), Relation.EQUAL)
    with pytest.raises(BadQuantity, match="No tension"):
        plan_two_heads(heads(13), Length.from_inches(9), Relation.EQUAL, fundamental=5000)
    with pytest.raises(BadQuantity, match="same size"):
        coupled_pair((heads(13)[0], heads(14)[0]), (Pitch(200), Pitch(200)), Length.from_inches(9))
