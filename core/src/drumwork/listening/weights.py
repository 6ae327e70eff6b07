"""What every trait of a partial weighs (`listening.traits`), in nats a unit: a conditional logit's coefficients.

Fitted by `./bench partials --fit` on taps of the engine's own two-film drums with levels, decays and leaks spread widely; judged on another simulator and on
recordings (`./bench listening`). Written by that command: change what it draws from, not the figures.
"""

from typing import Final

__all__ = ["ALONE", "EXPECTED"]

ALONE: Final = {
    "level": -0.702,
    "level²": -0.352,
    "family": 0.784,
    "family’s share": 5.026,
    "below": -2.281,
    "in the gap": -3.071,
    "strangers": -1.966,
    "(2,1) is there": 0.167,
    "outlasted": -1.607,
    "outlasted²": 0.076,
    "has a note": 0.699,
    "note fits": 0.344,
    "note’s level": -0.888,
    "note’s place": -2.912,
    "note’s place²": -0.412,
    "family dies sooner": -0.367,
    "twin": -0.075,
    "size": 0.916,
    "is the centre": -3.480,
    "beside the centre": -0.792,
    "centre out of place": -0.401,
    "centre’s place": 3.084,
    "centre’s place²": -0.216,
    "outlasts the centre": 1.188,
}
EXPECTED: Final = {
    "level": 0.242,
    "level²": -0.343,
    "family": 0.528,
    "family’s share": 8.386,
    "below": -0.703,
    "in the gap": 0.442,
    "strangers": -1.361,
    "(2,1) is there": 0.793,
    "outlasted": -0.978,
    "outlasted²": 0.028,
    "has a note": 1.697,
    "note fits": 0.351,
    "note’s level": -0.413,
    "note’s place": 0.222,
    "note’s place²": 0.057,
    "family dies sooner": -0.372,
    "twin": -0.092,
    "size": -0.071,
    "off the expected²": 0.853,
    "off the expected": -0.606,
    "is the centre": -3.976,
    "beside the centre": -1.438,
    "centre out of place": 0.017,
    "centre’s place": 1.766,
    "centre’s place²": -0.410,
    "outlasts the centre": 0.922,
}
