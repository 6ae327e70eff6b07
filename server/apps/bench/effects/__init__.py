"""What follows from closing a job: one handler for each of the core's effects, all in the caller's transaction."""

from apps.bench.effects.closing import Closing
from apps.bench.effects.handlers import HANDLERS, apply_effects

__all__ = ["HANDLERS", "Closing", "apply_effects"]
