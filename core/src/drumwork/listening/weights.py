"""What every trait of a partial weighs (`listening.traits`), in nats a unit: a conditional logit's coefficients.

Fitted by `./bench partials --fit` on taps of the engine's own two-film drums with levels, decays and leaks spread widely; judged on another simulator and on
recordings (`./bench listening`). Written by that command: change what it draws from, not the figures.
"""

from typing import Final

__all__ = ["ALONE", "EXPECTED"]

ALONE: Final = {
    "level": -0.722,
    "level²": -0.335,
    "family": 1.059,
    "family’s share": 3.900,
    "below": -3.705,
    "in the gap": -4.479,
    "strangers": -2.853,
    "(2,1) is there": -0.314,
    "outlasted": -1.690,
    "outlasted²": 0.062,
    "has a note": 1.788,
    "note fits": 0.508,
    "note’s level": -0.861,
    "note’s place": -1.988,
    "note’s place²": 0.986,
    "family dies sooner": -0.793,
    "twin": -0.478,
    "size": 0.982,
    "is the centre": -3.413,
    "beside the centre": -0.717,
    "centre out of place": -0.500,
    "centre’s place": 2.921,
    "centre’s place²": -0.737,
    "outlasts the centre": 0.932,
    "note where it should be": 0.276,
    "the loudest stranger": 2.841,
    "is the other head’s": -3.489,
}
EXPECTED: Final = {
    "level": 1.050,
    "level²": -0.247,
    "family": 0.789,
    "family’s share": 8.472,
    "below": -0.625,
    "in the gap": -0.634,
    "strangers": -1.649,
    "(2,1) is there": -0.122,
    "outlasted": -0.368,
    "outlasted²": -0.450,
    "has a note": 3.206,
    "note fits": 0.540,
    "note’s level": 0.447,
    "note’s place": 0.605,
    "note’s place²": 2.546,
    "family dies sooner": -0.725,
    "twin": 0.635,
    "size": -0.005,
    "off the expected²": 1.057,
    "off the expected": -0.323,
    "is the centre": -3.650,
    "beside the centre": -0.861,
    "centre out of place": 0.393,
    "centre’s place": 1.652,
    "centre’s place²": -0.597,
    "outlasts the centre": 0.967,
    "note where it should be": 0.279,
    "the loudest stranger": 1.814,
    "is the other head’s": -4.433,
}
