"""Both heads of a tom in one job, in the workshop's order; the first is read again after the second, since it creeps (trade §3, §7)."""

from __future__ import annotations

from drumwork.drums import DrumKind, Side
from drumwork.findings import Where
from drumwork.procedures.shared import endings, fitting, openings
from drumwork.procedures.shared.found import bare_drum_steps
from drumwork.work import effects
from drumwork.work.effects import Effect
from drumwork.work.kinds.steps import Clear, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["BOTH_HEADS"]

_SUITED = (DrumKind.RACK_TOM, DrumKind.FLOOR_TOM)


def _suits(drum: DrumFacts) -> str:
    return "" if drum.kind in _SUITED else "This procedure is for both heads of a rack tom or floor tom."


def _one_head(side: Side) -> tuple[Step, ...]:
    """One head from slackening to clear."""
    prefix = f"{side.value}-"
    return (
        openings.slacken(side, prefix),
        openings.lift_off(side, prefix),
        openings.clean(side, prefix),
        *bare_drum_steps(side, prefix),
        fitting.set_head(side, prefix),
        fitting.fingers(side, prefix),
        fitting.seat(side, prefix),
        fitting.tension(side, prefix),
        fitting.clear(side, prefix),
    )


def _turn_over(second: Side) -> Step:
    return Step(
        "turn-over",
        "Turn over",
        Tick(),
        f"Turn the drum over: the {second.value} head is next.",
        second,
        (
            Point("The head just cleared lies on the padded stool, muted and clean"),
            Point("Nothing hard under the film"),
        ),
        does=("other-head",),
        looks_at=(Where.HEAD, Where.ROD),
    )


def _again(first: Side) -> Step:
    return Step(
        "read-again",
        f"{first.value.capitalize()} again",
        Clear(again=True),
        f"Read the {first.value} head once more: it creeps while the other comes to pitch. Nudge it back.",
        first,
        cautions=("tapping",),
        does=("read", "clear"),
        cites=("F2", "F3"),
        looks_at=(Where.HEAD, Where.ROD),
    )


_TOGETHER = Step(
    "together",
    "Together",
    Tick(),
    "Listen to both heads together: a soft tap in the middle, nothing muted.",
    None,
    (
        Point("One note that dies evenly; no wavering, no second note"),
        Point("If the sound is wrong, change the resonant head first"),
    ),
    does=("target",),
    cites=("F7", "N6"),
    looks_at=(Where.HEAD, Where.HARDWARE),
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    first = ways.first_head
    second = first.other
    heads = Point("Both new heads looked over. No snags, no tears, flesh hoops not bent")
    return (
        openings.lay_out(None, heads),
        openings.mark(None, both=True),
        *_one_head(first),
        _turn_over(second),
        *_one_head(second),
        _again(first),
        _TOGETHER,
        endings.rest(None),
        endings.mount(None),
        endings.close(None, "Write month and year on both heads near their logos, then close the job."),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    each = [
        effect
        for side in Side
        for effect in (
            effects.TakeFromShelf(side),
            effects.ChangeHead(side),
            effects.RecordPitch(side),
            effects.KeepAnswer(side),
            effects.KeepTarget(side),
            effects.AnswerChecks(side),
            effects.BookCheck(side),
        )
    ]
    return (*each, effects.CarryFindings(), effects.Log("fitted"))


BOTH_HEADS = Procedure(
    id="both-heads",
    version=1,
    title="Both heads",
    parts=(Part.HEADS,),
    suits=_suits,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§7", "N6"),
    changes_heads=True,
    minutes=80,
    rank=30,
)
