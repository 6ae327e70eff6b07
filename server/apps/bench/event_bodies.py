"""Event bodies as devices send them, parsed into the core's events. One class per kind."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Annotated, Any, Literal

from ninja import Schema
from pydantic import Field, TypeAdapter

from drumwork.errors import BadQuantity
from drumwork.procedures import events as ev
from drumwork.quantities import Interval, Turns, parse_pitch
from drumwork.rods.clearing import Ear, Means
from drumwork.rods.deliberate import OnPurpose

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


MeansName = Literal["pitch", "ear", "gauge", "torque"]
EarName = Literal["much-lower", "lower", "level", "higher", "much-higher", "cant-tell"]


MOST_PARTIALS = 12


class PartialIn(Schema):
    """What a tap rang with: hertz, and decibels against the strongest."""

    hz: float = Field(ge=10, le=4000)
    level_db: float = Field(ge=-120, le=0)


class ReadingIn(Schema):
    """`typed` is read by the server: hertz or a note with cents, a gauge's or key's number, or a judgement by ear. A question mark after
    it keeps the reading but trusts it little. `partials` are what a heard tap rang with, `tap` which one it was."""

    kind: Literal["reading"]
    lap: Lap
    rod: Rod
    typed: str = Field(min_length=1, max_length=30)
    means: MeansName = "pitch"
    partials: list[PartialIn] = Field(default=[], max_length=MOST_PARTIALS)
    tap: str = Field("", max_length=36)


class MoveIn(Schema):
    """What was read for `rod` belongs to `real`."""

    rod: Rod
    real: Rod


class OrderIn(Schema):
    """The round was tapped in another order than asked for; rods that get no reading are to be tapped again."""

    kind: Literal["order"]
    lap: Lap
    moves: list[MoveIn] = Field(min_length=1, max_length=16)


class CentreIn(Schema):
    """The drum's note, tapped in the middle: hertz, or a note with cents."""

    kind: Literal["centre"]
    lap: Lap
    typed: str = Field(min_length=1, max_length=30)


class MeansIn(Schema):
    """Read the rods with this from here on; by ear, against this rod."""

    kind: Literal["means"]
    means: MeansName
    reference: Rod | None = None


class WholeIn(Schema):
    """By ear: the whole head against the wanted tone."""

    kind: Literal["whole"]
    lap: Lap
    judged: EarName


class UnevenIn(Schema):
    """What is left uneven on purpose, from which rod; empty for even everywhere."""

    kind: Literal["uneven"]
    what: Literal["", "rod-down", "four-by-a-hair", "beside-wires"] = ""
    start: Rod = 1


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
    | OrderIn
    | CentreIn
    | MeansIn
    | WholeIn
    | UnevenIn
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
            beside = "" if body.means == "pitch" else f":{body.means}"
            return f"reading:{body.lap}:{body.rod}{beside}"
        case WholeIn():
            return f"whole:{body.lap}"
        case OrderIn() | CentreIn():
            return f"{body.kind}:{body.lap}"
        case StepDoneIn():
            return f"step:{body.step}"
        case PlanIn():
            return f"plan:{body.lap}"
        case PassAddedIn():
            return f"pass:{body.step}"
        case TargetIn() | RestIn() | CloseIn() | MeansIn() | UnevenIn():
            return str(body.kind)
        case _:
            return ""


def _number(typed: str) -> float:
    try:
        number = float(typed.replace(",", "."))
    except ValueError:
        number = math.nan
    if not 0 < number < 1e6:
        raise BadQuantity("Type the number on the gauge or key, above nothing.", text=typed)
    return number


def _reading(body: ReadingIn, a4_hz: float) -> ev.ReadingTaken:
    typed, doubtful = body.typed.strip().removesuffix("?").strip(), body.typed.rstrip().endswith("?")
    match body.means:
        case "pitch":
            pitch = parse_pitch(typed, a4_hz)
            partials = tuple((each.hz, 10 ** (each.level_db / 20)) for each in body.partials)
            return ev.ReadingTaken(body.lap, body.rod, pitch, body.typed.strip(), doubtful, partials, body.tap)
        case "ear":
            if typed not in {each.value for each in Ear}:
                raise BadQuantity(
                    "By ear a rod is much lower, lower, level, higher, much higher, or you can't tell.", text=typed
                )
            return ev.ReadingTaken(body.lap, body.rod, Ear(typed), typed)
        case _:
            return ev.ReadingTaken(body.lap, body.rod, _number(typed), typed, doubtful)


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
            return _reading(body, a4_hz)
        case OrderIn():
            return ev.ReadingsMoved(body.lap, tuple((each.rod, each.real) for each in body.moves))
        case CentreIn():
            typed = body.typed.strip().removesuffix("?").strip()
            return ev.CentreRead(body.lap, parse_pitch(typed, a4_hz), body.typed.strip())
        case MeansIn():
            return ev.MeansChosen(Means(body.means), body.reference)
        case WholeIn():
            return ev.WholeJudged(body.lap, Ear(body.judged))
        case UnevenIn():
            return ev.LeftUneven(OnPurpose(body.what) if body.what else None, body.start)
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


_BY_ROD = ("turns", "predicted", "predicted_sd", "predicted_cents", "predicted_sd_cents", "read_cents", "why_rod")
_PULL_BY_ROD = ("by_pitch", "unheard", "sd")
_HZ_NAMES = ("wanted", "spread", "allowed", "mean", "predicted_spread", "predicted_mean")
"""Stored with an `_hz` at the end before rods could be read with anything but pitch."""


def _keyed(values: Mapping[int, Any]) -> dict[str, Any]:
    return {str(rod): value for rod, value in values.items()}


def _by_rod(values: Mapping[str, Any]) -> dict[int, Any]:
    return {int(rod): value for rod, value in values.items()}


def plan_to_json(plan: ev.RoundPlan) -> dict[str, Any]:
    """A proposal as stored: rods as text keys, turns in thirty-seconds."""
    stored: dict[str, Any] = {name: getattr(plan, name) for name in plan.__dataclass_fields__}
    stored["turns"] = {rod: turns.thirtyseconds for rod, turns in plan.turns.items()}
    stored["findings"] = [{"kind": f.kind, "rods": list(f.rods), "words": f.words} for f in plan.findings]
    pull = {name: getattr(plan.pull, name) for name in plan.pull.__dataclass_fields__}
    stored["pull"] = pull | {name: _keyed(pull[name]) for name in _PULL_BY_ROD} | {"told_by": list(plan.pull.told_by)}
    return stored | {name: _keyed(stored[name]) for name in _BY_ROD}


def _of_before(stored: Mapping[str, Any]) -> dict[str, Any]:
    """A plan stored when only pitch was read, brought to what is stored now."""
    if "predicted_hz" not in stored:
        return dict(stored)
    hz, sd, wanted = stored["predicted_hz"], stored["predicted_sd_hz"], stored["wanted_hz"]
    kept = {name: stored[name] for name in ("turns", "clear", "verdict", "why_round", "why_rod", "too_coarse")}
    none = dict.fromkeys(hz, 0.0)
    return (
        kept
        | {name: stored[f"{name}_hz"] for name in _HZ_NAMES}
        | {
            "means": "pitch",
            "unit": "Hz",
            "predicted": hz,
            "predicted_sd": sd,
            "predicted_cents": {rod: Interval.from_ratio(value / wanted).cents for rod, value in hz.items()},
            "predicted_sd_cents": {rod: Interval.from_ratio(1 + sd[rod] / hz[rod]).cents for rod in hz},
            "read_cents": {},
            "approach": "",
            "rounds_left": 0.0,
            "chance_even": 0.0,
            "modal": 0.0,
            "findings": [],
            "pull": {"by_pitch": none, "unheard": none, "sd": none, "told_by": [], "clear": False, "words": ""},
        }
    )


def plan_from_json(before: Mapping[str, Any]) -> ev.RoundPlan:
    stored = _of_before(before)
    by_rod = {name: _by_rod(stored[name]) for name in _BY_ROD}
    by_rod["turns"] = {rod: Turns(value) for rod, value in by_rod["turns"].items()}
    pull = stored["pull"] | {name: _by_rod(stored["pull"][name]) for name in _PULL_BY_ROD}
    pull["told_by"] = tuple(pull["told_by"])
    findings = tuple(ev.Noted(f["kind"], tuple(f["rods"]), f["words"]) for f in stored["findings"])
    whole = {"means": Means(stored["means"]), "findings": findings, "pull": ev.Pull(**pull)}
    return ev.RoundPlan(**{**stored, **by_rod, **whole})
