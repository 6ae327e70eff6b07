"""The check a new head needs after its first days (trade §3.20, §12): tap round, clear, log."""

from __future__ import annotations

from typing import Final

from drumwork.procedures import cautions
from drumwork.procedures.plan import DrumKind, HeadJob, JobPlan, Step, StepKind, Ways

__all__ = ["SETTLING_CHECK", "plan_settling_check"]

SETTLING_CHECK: Final = "settling-check"


def plan_settling_check(job: HeadJob, ways: Ways) -> JobPlan:
    """Look, clear, close; for either side of any rod-tensioned drum."""
    wires = ("Throw-off down, so the wires are off the head",) if job.kind is DrumKind.SNARE else ()
    look = Step(
        "look",
        "Look",
        StepKind.TICK,
        f"Look the {job.side.value} head over and set the drum so the other head is muted.",
        ("No dents, creases or tears", "All rods there and none loose", *wires),
    )
    clear = Step(
        "clear",
        "Clear",
        StepKind.CLEAR,
        "Tap 25 mm in from the hoop at each rod, same force, and see how far the new film has dropped.",
        cautions=(cautions.TAPPING,),
    )
    close = Step("close", "Close", StepKind.CLOSE, "Close the check. It goes into the drum's history.")
    return JobPlan(SETTLING_CHECK, f"Settling check, {job.side.value}", job, ways, (look, clear, close))
