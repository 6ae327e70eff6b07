"""New film drops in pitch over its first days: how far, and when to come back."""

from drumwork.settling.dates import settling_check_due
from drumwork.settling.model import Dropped, Settling, expect_settling

__all__ = ["Dropped", "Settling", "expect_settling", "settling_check_due"]
