"""Call-outs: what helps most in the minutes there are."""

from drumwork.callout.order import Planned, Task, plan_callout, worst_first

__all__ = ["Planned", "Task", "plan_callout", "worst_first"]
