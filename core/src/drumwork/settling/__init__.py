"""New film drops in pitch over its first days: when to come back."""

from drumwork.settling.dates import settling_check_due

__all__ = ["settling_check_due"]
