"""What a handler is told of the job being closed."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from apps.bench.models import Job, JobHead
from apps.workshops.models import Membership
from drumwork.drums import Side
from drumwork.work.kinds.common import Closed
from drumwork.work.state import BenchState

__all__ = ["Closing"]


@dataclass(frozen=True)
class Closing:
    """A job as it closes."""

    job: Job
    state: BenchState
    heads: dict[Side, JobHead]
    asked: Closed
    member: Membership
    now: datetime

    @property
    def log_side(self) -> str:
        """The side a line of history is filed under; empty where it is about both or none."""
        sides = self.state.plan.sides
        return sides[0].value if len(sides) == 1 else ""
