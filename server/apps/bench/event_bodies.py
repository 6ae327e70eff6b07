"""Event bodies as devices send them, parsed into the core's events. One class per kind."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, Literal

from ninja import Schema
from pydantic import Field, TypeAdapter

from drumwork.procedures import events as ev
from drumwork.quantities import Turns, parse_pitch

__all__ = ["BodyIn", "parse_stored", "plan_to_json", "slot_of", "to_core"]

StepId = Annotated[str, Field(min_length=1, max_length=30)]
Rod = Annotated[int, Field(ge=1, le=16)]
Lap = Annotated[int, Field(ge=0, le=60)]
MOST_32 = 4 * 32  # twice the two turns a slackening pass makes (common practice, P11); more is a slip
TurnCount = Annotated[int, Field(ge=-MOST_32, le=MOST_32)]


class StepDoneIn(Schema):
    kind: Literal["step_done"]
    step: StepId


class TurnedIn(Schema):
    kind: Literal["turned"]
    step: StepId
    lap: Lap
    rod: Rod
    turns_32: TurnCount


class SkippedIn(Schema):
    kind: Literal["skipped"]
    step: StepId
    lap: Lap
    rod: Rod


class PassAddedIn(Schema):
    kind: Literal["pass_added"]
    step: StepId
    each_32: TurnCount


class ReadingIn(Schema):
    """`typed` is read by the server: hertz, or a note with cents."""

    kind: Literal["reading"]
    lap: Lap
    rod: Rod
    typed: str = Field(min_length=1, max_length=30)


class TargetIn(Schema):
    """Empty text holds the mean of the first round."""

    kind: Literal["target"]
    typed: str = Field("", max_length=30)


class PlanIn(Schema):
    """Work out the turns for a round; the server adds what it found."""

    kind: Literal["plan"]
    lap: Lap


class StepSizeIn(Schema):
    """Work in another finest turn from here on."""

    kind: Literal["step_size"]
    step_32: Literal[1, 2, 4]


class RestIn(Schema):
    kind: Literal["rest"]
    minutes: int = Field(ge=1, le=60 * 48)


class NoteIn(Schema):
    kind: Literal["note"]
    text: str = Field(min_length=1, max_length=1000)


class UndoIn(Schema):
    kind: Literal["undo"]
    event: str = Field(min_length=36, max_length=36)


class SettleIn(Schema):
    """Decide a conflict: keep what stood first, take the second instead, or both turns happened."""

    kind: Literal["settle"]
    event: str = Field(min_length=36, max_length=36)
    take: Literal["first", "second", "both"]


class CloseIn(Schema):
    kind: Literal["close"]
    reason: str = Field("", max_length=200)
    check: bool = True


BodyIn = Annotated[
    StepDoneIn
    | TurnedIn
    | SkippedIn
    | PassAddedIn
    | ReadingIn
    | TargetIn
    | PlanIn
    | StepSizeIn
    | RestIn
    | NoteIn
    | UndoIn
    | SettleIn
    | CloseIn,
    Field(discriminator="kind"),
]
_STORED: TypeAdapter[Any] = TypeAdapter(BodyIn)


def slot_of(body: Any) -> str:
    """What an event is about: two devices writing one slot without knowing of each other are in conflict."""
    match body:
        case TurnedIn() | SkippedIn():
            return f"turn:{body.step}:{body.lap}:{body.rod}"
        case ReadingIn():
            return f"reading:{body.lap}:{body.rod}"
        case StepDoneIn():
            return f"step:{body.step}"
        case PlanIn():
            return f"plan:{body.lap}"
        case PassAddedIn():
            return f"pass:{body.step}"
        case TargetIn() | RestIn() | CloseIn():
            return str(body.kind)
        case _:
            return ""


def to_core(body: Any, a4_hz: float, found: Mapping[str, Any] | None = None) -> ev.EventBody | None:
    """The core's event, or None for what only the server acts on.

    Raises
    ------
    BadQuantity
        for a pitch that cannot be read.
    """
    match body:
        case StepDoneIn():
            return ev.StepDone(body.step)
        case TurnedIn():
            return ev.RodTurned(body.step, body.lap, body.rod, Turns(body.turns_32))
        case SkippedIn():
            return ev.RodSkipped(body.step, body.lap, body.rod)
        case PassAddedIn():
            return ev.PassAdded(body.step, Turns(body.each_32))
        case ReadingIn():
            return ev.ReadingTaken(body.lap, body.rod, parse_pitch(body.typed, a4_hz), body.typed.strip())
        case TargetIn():
            return ev.TargetChosen(parse_pitch(body.typed, a4_hz) if body.typed.strip() else None)
        case PlanIn() if found:
            return ev.RoundPlanned(body.lap, plan_from_json(found))
        case StepSizeIn():
            return ev.StepSizeChosen(Turns(body.step_32))
        case RestIn():
            return ev.RestStarted(body.minutes)
        case NoteIn():
            return ev.NoteWritten(body.text)
        case UndoIn():
            return ev.Undone(body.event)
        case CloseIn():
            return ev.JobClosed(body.reason)
        case _:
            return None


def parse_stored(stored: Mapping[str, Any], a4_hz: float) -> ev.EventBody | None:
    """An event body as it lies in the database: the device's body plus, for a plan, what was found."""
    found = stored.get("found")
    return to_core(_STORED.validate_python({k: v for k, v in stored.items() if k != "found"}), a4_hz, found)


_BY_ROD = ("turns", "predicted_hz", "predicted_sd_hz", "why_rod")


def plan_to_json(plan: ev.RoundPlan) -> dict[str, Any]:
    """A proposal as stored: rods as text keys, turns in thirty-seconds."""
    stored: dict[str, Any] = {name: getattr(plan, name) for name in plan.__dataclass_fields__}
    stored["turns"] = {rod: turns.thirtyseconds for rod, turns in plan.turns.items()}
    return stored | {name: {str(rod): value for rod, value in stored[name].items()} for name in _BY_ROD}


def plan_from_json(stored: Mapping[str, Any]) -> ev.RoundPlan:
    by_rod = {name: {int(rod): value for rod, value in stored[name].items()} for name in _BY_ROD}
    by_rod["turns"] = {rod: Turns(value) for rod, value in by_rod["turns"].items()}
    return ev.RoundPlan(**{**stored, **by_rod})
