"""Condition of heads, wires and drums."""

from drumwork.condition.age import last_past_life, months_between, months_past_life

__all__ = ["last_past_life", "months_between", "months_past_life"]
