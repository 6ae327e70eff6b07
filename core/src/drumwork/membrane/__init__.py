"""Film, tension, modes; two heads and the air between them."""

from drumwork.membrane.answer import ExpectedAnswer, expect_answer
from drumwork.membrane.film import Film, Head, LugTarget, assess_target
from drumwork.membrane.modes import edge_hz, fundamental_hz, mode_hz, tension_for_edge
from drumwork.membrane.two_heads import SOUNDS, Relation, Sound, TwoHeads, plan_two_heads

__all__ = [
    "SOUNDS",
    "ExpectedAnswer",
    "Film",
    "Head",
    "LugTarget",
    "Relation",
    "Sound",
    "TwoHeads",
    "assess_target",
    "edge_hz",
    "expect_answer",
    "fundamental_hz",
    "mode_hz",
    "plan_two_heads",
    "tension_for_edge",
]
