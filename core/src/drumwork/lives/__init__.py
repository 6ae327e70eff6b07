"""How long heads live here: from this workshop's own heads, retired and still on, and what that says of the next ones."""

from drumwork.lives.curve import Curve, Life, in_words, survival
from drumwork.lives.expected import PRIOR, Expected, Prior, expect

__all__ = ["PRIOR", "Curve", "Expected", "Life", "Prior", "expect", "in_words", "survival"]
