"""Condition of heads, wires and drums."""

from drumwork.condition.age import months_between, months_past_life

__all__ = ["months_between", "months_past_life"]
