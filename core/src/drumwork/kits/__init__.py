"""Kits: drums that sound together, and the pitches that let them."""

from drumwork.kits.pitch_plan import Drum, Plan, Step, Wish, plan_pitches

__all__ = ["Drum", "Plan", "Step", "Wish", "plan_pitches"]
