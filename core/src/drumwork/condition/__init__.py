"""Condition of heads, wires and drums."""

from drumwork.condition.age import is_past_life, last_past_life, months_between, months_past_life

__all__ = ["is_past_life", "last_past_life", "months_between", "months_past_life"]
