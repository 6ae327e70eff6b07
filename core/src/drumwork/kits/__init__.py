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

__all__ = [
    "Apart",
    "Drum",
    "HeadMove",
    "KitDrum",
    "KitPlan",
    "KitWish",
    "Place",
    "Plan",
    "Shape",
    "Step",
    "Wish",
    "crowded",
    "plan_kit",
    "plan_pitches",
]
