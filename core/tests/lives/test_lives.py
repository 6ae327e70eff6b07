"""Lives of heads, against a published worked example and SciPy.

The example: weeks of remission of 21 patients given 6-mercaptopurine (Freireich et al., Blood 21 (1963); worked in Kalbfleisch & Prentice and in Cox & Oakes),
data and curve from memory; SciPy's own estimate of the same data is the second opinion.
"""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import CensoredData, ecdf

from drumwork.errors import BadQuantity
from drumwork.lives import PRIOR, Life, Prior, expect, survival
from drumwork.lives.curve import in_words

ENDED = (6, 6, 6, 7, 10, 13, 16, 22, 23)
STILL_ON = (6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35)
EXAMPLE = [*(Life(each, True) for each in ENDED), *(Life(each, False) for each in STILL_ON)]
PUBLISHED = {6: 0.857, 7: 0.807, 10: 0.753, 13: 0.690, 16: 0.627, 22: 0.538, 23: 0.448}

LIVES = st.lists(st.builds(Life, st.integers(1, 60).map(float), st.booleans()), min_size=1, max_size=40)


def by_scipy(lives: list[Life]) -> object:
    ended = [each.months for each in lives if each.ended]
    return ecdf(CensoredData(uncensored=ended, right=[each.months for each in lives if not each.ended])).sf


def test_the_published_example() -> None:
    curve = survival(EXAMPLE)
    assert curve.months == tuple(PUBLISHED)
    assert [round(each, 3) for each in curve.share] == pytest.approx(list(PUBLISHED.values()), abs=0.0015)
    assert curve.at_risk == (21, 17, 15, 12, 11, 7, 6)
    assert curve.median == 23


def test_its_band_is_that_of_the_reference_library() -> None:
    curve, reference = survival(EXAMPLE), by_scipy(EXAMPLE)
    band = reference.confidence_interval(0.95, method="log-log")  # type: ignore[attr-defined]
    for when, low, high in zip(curve.months, curve.low, curve.high, strict=True):
        assert low == pytest.approx(float(band.low.evaluate(when)), abs=1e-9)
        assert high == pytest.approx(float(band.high.evaluate(when)), abs=1e-9)


@given(LIVES.filter(lambda lives: any(each.ended for each in lives)))
def test_the_curve_is_that_of_the_reference_library(lives: list[Life]) -> None:
    curve, reference = survival(lives), by_scipy(lives)
    for when in range(62):
        assert curve.at(when) == pytest.approx(float(reference.evaluate(when)), abs=1e-9)  # type: ignore[attr-defined]
    assert list(curve.share) == sorted(curve.share, reverse=True)
    assert all(low <= share <= high for low, share, high in zip(curve.low, curve.share, curve.high, strict=True))


def test_where_none_ended_there_are_no_steps() -> None:
    curve = survival([Life(9, False)])
    assert (curve.months, curve.at(100), curve.median) == ((), 1.0, None)


def test_with_one_shape_and_no_prior_to_speak_of_it_is_ended_over_time(monkeypatch: pytest.MonkeyPatch) -> None:
    """Exponential law: the rate is ended heads over all months on, 9 in 359 of the example; half are gone after ln 2 over that."""
    monkeypatch.setattr("drumwork.lives.expected.SHAPES", (1.0,))
    monkeypatch.setattr("drumwork.lives.expected.SHAPE_WEIGHTS", (1.0,))
    found = expect(EXAMPLE * 400, Prior(12.0, 0.001))
    assert found.median == pytest.approx(math.log(2) * 359 / 9, rel=0.002)


def test_with_no_heads_it_is_the_prior() -> None:
    found = expect([])
    assert found.median == pytest.approx(PRIOR.median_months, abs=0.01)
    assert (found.ended, found.heads, found.own) == (0, 0, 0.0)


@pytest.mark.parametrize(("shape", "scale"), [(2.5, 8.0), (1.0, 20.0), (3.5, 30.0)])
def test_many_heads_speak_for_themselves(shape: float, scale: float) -> None:
    """Drawn by NumPy from a known Weibull law, a third of them still on: its median is found whatever the prior."""
    draw = np.random.default_rng(3)
    whole, cut = scale * draw.weibull(shape, 4000), draw.uniform(0, 2.5 * scale, 4000)
    lives = [Life(float(min(a, b)), bool(a <= b)) for a, b in zip(whole, cut, strict=True)]
    found = expect(lives)
    assert found.median == pytest.approx(scale * math.log(2) ** (1 / shape), rel=0.08)
    assert found.own > 0.98


def test_few_heads_lean_on_the_prior() -> None:
    two = [Life(4, True), Life(5, True)]
    assert 4.5 < expect(two, Prior(24)).median < 24
    assert expect(two, Prior(24)).median > expect(two * 20, Prior(24)).median


@given(LIVES, st.floats(0, 80), st.floats(0.1, 24))
def test_laws_of_any_workshop(lives: list[Life], age: float, ahead: float) -> None:
    found = expect(lives)
    assert 0 <= found.still_on(age + ahead) <= found.still_on(age) <= 1
    assert 0 <= found.ends_within(age, ahead) <= 1
    assert found.band[0] < found.median < found.band[1]
    # A head still on that has grown older, and nothing else, never makes them live shorter.
    older = [Life(each.months + 5, False) if not each.ended else each for each in lives]
    if any(not each.ended for each in lives):
        monotone = expect(older).laws
        for law, was in zip(monotone, found.laws, strict=True):
            assert law.b >= was.b


def test_counts_are_said_as_counts() -> None:
    lives = [Life(8, True), Life(12, True), Life(20, True), Life(30, False), Life(3, False)]
    assert (
        in_words(lives, "coated singles on tenor drums", 14)
        == "2 of our 4 coated singles on tenor drums were changed by month 14."
    )


@pytest.mark.parametrize("months", [-1.0, 5000.0, math.nan])
def test_no_head_lives_so(months: float) -> None:
    with pytest.raises(BadQuantity):
        Life(months, True)
    with pytest.raises(BadQuantity):
        Prior(months)
