"""Rope-tension drums: how long a rope, what range it gives, where it is slack (trade §14)."""

from drumwork.rope.lacing import Lacing, RopeLength, rope_length
from drumwork.rope.range import Need, Pass, Range, how_much_more
from drumwork.rope.segments import Correction, Squeeze, correct_segments

__all__ = [
    "Correction", "Lacing", "Need", "Pass", "Range", "RopeLength", "Squeeze", "correct_segments", "how_much_more", "rope_length",
]  # fmt: skip
