"""What every trait of a partial weighs (`listening.traits`), in nats a unit: a conditional logit's coefficients.

Fitted by `./bench partials --fit` on taps of the engine's own two-film drums with levels, decays and leaks spread widely; judged on another simulator and on
recordings (`./bench listening`). Written by that command: change what it draws from, not the figures.
"""

from typing import Final

__all__ = ["ALONE", "EXPECTED"]

ALONE: Final = {
    "level": -0.693,
    "level²": -0.340,
    "family": 0.769,
    "family’s share": 4.517,
    "below": -2.183,
    "in the gap": -3.181,
    "strangers": -1.891,
    "(2,1) is there": 0.123,
    "outlasted": -1.444,
    "outlasted²": 0.066,
    "has a note": 0.700,
    "note fits": 0.263,
    "note’s level": -0.816,
    "note’s place": -3.040,
    "note’s place²": -0.646,
    "family dies sooner": -0.395,
    "twin": -0.099,
    "size": 0.889,
    "is the centre": -3.094,
    "beside the centre": -1.236,
    "centre out of place": -0.326,
    "centre’s place": 3.163,
    "centre’s place²": -0.314,
    "outlasts the centre": 1.037,
}
EXPECTED: Final = {
    "level": 0.215,
    "level²": -0.349,
    "family": 0.411,
    "family’s share": 8.637,
    "below": -0.596,
    "in the gap": 0.325,
    "strangers": -1.162,
    "(2,1) is there": 0.729,
    "outlasted": -0.644,
    "outlasted²": -0.020,
    "has a note": 2.026,
    "note fits": 0.283,
    "note’s level": -0.327,
    "note’s place": 0.397,
    "note’s place²": 0.215,
    "family dies sooner": -0.717,
    "twin": 0.748,
    "size": -0.103,
    "off the expected²": 0.899,
    "off the expected": -0.604,
    "is the centre": -4.005,
    "beside the centre": -1.396,
    "centre out of place": -0.002,
    "centre’s place": 1.685,
    "centre’s place²": -0.439,
    "outlasts the centre": 0.555,
}
