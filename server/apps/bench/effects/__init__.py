"""What follows from closing a job: one handler for each of the core's effects, all in the caller's transaction."""

from apps.bench.effects.handlers import HANDLERS, apply_effects
from apps.bench.effects.closing import Closing

__all__ = ["HANDLERS", "Closing", "apply_effects"]
