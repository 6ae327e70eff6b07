"""Kits: drums that sound together, and the pitches that let them."""

from drumwork.kits.both_heads import (
    Apart,
    HeadMove,
    KitDrum,
    KitPlan,
    KitWish,
    Place,
    Shape,
    crowded,
    plan_kit,
)
from drumwork.kits.pitch_plan import Drum, Plan, Step, Wish, plan_pitches
from drumwork.kits.roles import Role, rank, usual_roles
from drumwork.kits.singing import Advice, SingTest, Sung, hear_singing, softer_by, tell_singing
from drumwork.kits.telling import Told, head_words, interval_words, is_turned, step_turns, tell

__all__ = [
    "Advice",
    "SingTest",
    "Sung",
    "hear_singing",
    "softer_by",
    "tell_singing",
    "Apart",
    "Drum",
    "HeadMove",
    "KitDrum",
    "KitPlan",
    "KitWish",
    "Place",
    "Plan",
    "Role",
    "Shape",
    "Step",
    "Told",
    "Wish",
    "crowded",
    "head_words",
    "interval_words",
    "is_turned",
    "plan_kit",
    "plan_pitches",
    "rank",
    "step_turns",
    "tell",
    "usual_roles",
]
