"""What a step of each kind holds. The `kind` names it in storage and on the wire."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from drumwork.quantities import Turns
from drumwork.rods.passes import PassPlan

__all__ = ["STEP_DATA", "Clear", "Close", "Passes", "Rest", "StepData", "StepKind", "Stop", "Tick"]


@dataclass(frozen=True, slots=True)
class Tick:
    """Something to do and look at, done when it is done."""

    kind: Literal["tick"] = "tick"


@dataclass(frozen=True, slots=True)
class Passes:
    """The same small turn at each rod, pass after pass; `more` is the turn of one more pass. `down` for slackening. `enough` is the question
    that decides whether it is enough, once all passes are made."""

    passes: tuple[PassPlan, ...]
    more: Turns | None = None
    down: bool = False
    enough: str = "Is every ripple gone, and has it a tone?"
    kind: Literal["passes"] = "passes"


@dataclass(frozen=True, slots=True)
class Clear:
    """Rounds of reading and turning until the head is in tune with itself. `again` marks a second look at a head cleared before."""

    again: bool = False
    kind: Literal["clear"] = "clear"


@dataclass(frozen=True, slots=True)
class Rest:
    """A wait with a clock."""

    minutes: int
    kind: Literal["rest"] = "rest"


@dataclass(frozen=True, slots=True)
class Close:
    """The end: what is written on the head, why the old one went, whether to come back."""

    kind: Literal["close"] = "close"


@dataclass(frozen=True, slots=True)
class Stop:
    """The work cannot go on at this bench; the job waits here until the drum is back."""

    kind: Literal["stop"] = "stop"


StepData = Tick | Passes | Clear | Rest | Close | Stop
StepKind = Literal["tick", "passes", "clear", "rest", "close", "stop"]
STEP_DATA = {"tick": Tick, "passes": Passes, "clear": Clear, "rest": Rest, "close": Close, "stop": Stop}
