"""Call-outs: what helps most in the minutes there are, and which drum gives a rod to which."""

from drumwork.callout.lending import Donor, Gap, Offer, Refusal, gap_at, who_lends
from drumwork.callout.order import Planned, Task, plan_callout, worst_first

__all__ = ["Donor", "Gap", "Offer", "Planned", "Refusal", "Task", "gap_at", "plan_callout", "who_lends", "worst_first"]
