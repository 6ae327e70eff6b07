"""Film and modes against handbooks and SciPy."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import special

from drumwork.errors import BadQuantity
from drumwork.membrane import Film, Head, assess_target, edge_hz, mode_hz, tension_for_edge
from drumwork.membrane.modes import Membrane
from drumwork.quantities import Length, Pitch
from drumwork.sources.bessel import BESSEL_ZEROS


@pytest.mark.parametrize("mode", BESSEL_ZEROS)
def test_bessel_zeros_are_scipys(mode: tuple[int, int]) -> None:
    # independent reference: scipy.special.jn_zeros; DLMF §10.21, Abramowitz & Stegun table 9.5
    order, number = mode
    assert BESSEL_ZEROS[mode] == pytest.approx(special.jn_zeros(order, number)[-1], abs=1e-12)


@pytest.mark.parametrize(
    ("mode", "ratio"), [((1, 1), 1.593), ((2, 1), 2.136), ((0, 2), 2.295), ((3, 1), 2.653), ((1, 2), 2.917)]
)
def test_mode_ratios_of_the_ideal_membrane(mode: tuple[int, int], ratio: float) -> None:
    # Fletcher & Rossing, The Physics of Musical Instruments, ch. 3: ratios to f01
    film = Membrane(0.17, 0.35, air_sides=0)
    assert mode_hz(film, 3000, mode) / mode_hz(film, 3000, (0, 1)) == pytest.approx(ratio, abs=0.001)


def test_the_fundamental_of_an_ideal_membrane_by_hand() -> None:
    # f01 = 2.4048 / (2πa) · √(T/σ): 2.4048 / (2π·0.15) · √(2500/0.25) = 255.16 Hz
    assert mode_hz(Membrane(0.15, 0.25, 0), 2500, (0, 1)) == pytest.approx(255.16, abs=0.01)


def test_air_pulls_the_low_modes_down_more_than_the_high_ones() -> None:
    dry, wet = Membrane(0.18, 0.26, 0), Membrane(0.18, 0.26, 2)
    falls = [mode_hz(wet, 3000, mode) / mode_hz(dry, 3000, mode) for mode in ((0, 1), (1, 1), (2, 1))]
    assert falls == sorted(falls)
    assert falls[0] < 0.8


@given(st.floats(0.1, 0.35), st.floats(0.05, 0.9), st.floats(30, 900))
def test_tension_from_lug_pitch_and_back(radius: float, density: float, hz: float) -> None:
    film = Membrane(radius, density)
    assert edge_hz(film, tension_for_edge(film, hz)) == pytest.approx(hz)


@given(st.floats(60, 400), st.floats(1.01, 1.5))
def test_tension_goes_with_the_square_of_pitch(hz: float, ratio: float) -> None:
    film = Membrane(0.16, 0.35)
    assert tension_for_edge(film, hz * ratio) / tension_for_edge(film, hz) == pytest.approx(ratio**2)


@pytest.mark.parametrize(("mil", "hz"), [(3, 450), (10, 570)])
def test_half_of_yield_on_a_fourteen_inch_drum(mil: float, hz: float) -> None:
    # our own numerical study (docs/sources/film.md): about 450 Hz for 3 mil, 570 Hz for 10 mil
    head = Head(Film.from_mil(mil), Length.from_inches(14), 10)
    assert head.highest_safe().hz == pytest.approx(hz, rel=0.02)


@given(st.floats(80, 420), st.integers(4, 12))
def test_rods_share_the_tension_round_the_rim(hz: float, rods: int) -> None:
    head = Head(Film.from_mil(10), Length.from_inches(14), rods)
    pull = head.rod_load_n(Pitch(hz)) * rods
    assert pull == pytest.approx(math.tau * 0.1778 * tension_for_edge(head.membrane, hz))


def test_a_pitch_beyond_the_film_is_refused_with_the_nearest_safe_one_and_what_would_reach_it() -> None:
    thin, thick = Film.from_mil(3), Film.from_mil(10)
    found = assess_target(Head(thin, Length.from_inches(14), 10), Pitch(500), [thick])
    assert not found.allowed
    assert f"{found.highest_safe.hz:.0f} Hz" in found.words
    assert "thicker head (10 mil) reaches it" in found.words
    assert assess_target(Head(thick, Length.from_inches(14), 10), Pitch(500)).allowed


def test_ordinary_pitches_are_far_from_the_limit() -> None:
    # our own numerical study: 2–30 MPa and 70–800 N at usual pitches
    found = assess_target(Head(Film.from_mil(10, coated=True), Length.from_inches(16), 8), Pitch(151))
    assert 2e6 < found.stress_pa < 30e6
    assert 70 < found.rod_load_n < 800
    assert "far from" in found.words


def test_films_that_cannot_be_are_refused() -> None:
    for wrong in (
        lambda: Film(0, 1e-4),
        lambda: Film(1, 0.01),
        lambda: Membrane(2.0, 0.2),
        lambda: mode_hz(Membrane(0.2, 0.2), 0, (0, 1)),
    ):
        with pytest.raises(BadQuantity):
            wrong()
