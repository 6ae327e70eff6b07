"""The lowest clean pitch, by wrinkles (trade §4, §5, P14). Common practice, no published source."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, looks, openings
from drumwork.procedures.shared.suits import not_snare_film
from drumwork.quantities import Turns
from drumwork.rods.passes import PassPlan, wrinkle_passes
from drumwork.rods.patterns import from_slack
from drumwork.work import effects
from drumwork.work.effects import Effect
from drumwork.work.kinds.steps import Clear, Passes, StepData, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["LOWEST_CLEAN_PITCH"]

_QUARTER = Turns.of(1, 4)


def _walk(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    return Passes(
        wrinkle_passes(from_slack(drum.layouts[side], ways.pattern))[:2],
        Turns.of(1, 16),
        enough="Has the wrinkle just gone, at every rod?",
    )


def _more(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    return Passes(
        (PassPlan(_QUARTER, from_slack(drum.layouts[side], ways.pattern)),),
        Turns.of(1, 8),
        enough="Is it high enough for the player’s feet?",
    )


def _one(side: Side, prefix: str) -> tuple[Step, ...]:
    walk = Step(
        f"{prefix}wrinkles",
        "Wrinkles",
        _walk,
        "Palm on the middle of the {side} head. At each rod: down until a wrinkle shows there, then up until it just goes.",
        side,
        (
            Point("Eye low across the film: the wrinkle shows as a soft line from the rod inward"),
            Point("A rod that goes loose before a wrinkle shows is left at finger-tight"),
        ),
        ("driver", "over-tension"),
        does=("slacken", "tension"),
        tools=openings.KEYS,
        cites=("P14",),
        looks_at=(Where.ROD, Where.HEAD, Where.HOOP),
        picture="wrinkles",
    )
    more = Step(
        f"{prefix}quarter",
        "A quarter more",
        _more,
        "A quarter turn more all round, where it flaps or feels too slack under the beater. Skip it where it does not.",
        side,
        (Point("The same at every rod"),),
        ("over-tension",),
        does=("tension",),
        tools=openings.KEYS,
        cites=("P14",),
        looks_at=(Where.ROD, Where.HEAD),
    )
    clear = Step(
        f"{prefix}clear",
        "Clear",
        Clear(),
        "Tap {tap} with a soft mallet at each rod. Low as it is, hear that no rod stands out; nudge those that do.",
        side,
        cautions=("tapping",),
        does=("read", "clear"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("F2", "F3", "§4"),
        looks_at=(Where.HEAD, Where.ROD),
    )
    return walk, more, clear


_TURN_OVER = Step(
    "turn-over",
    "Turn over",
    Tick(),
    "Turn the drum over: the other head is brought to its lowest clean pitch the same way.",
    None,
    (Point("Nothing hard under the film"),),
    (openings.NEEDS_TWO,),
    does=("other-head",),
    cites=("P14",),
    looks_at=(Where.HEAD,),
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    sides = part.sides
    prefix = "{}-" if len(sides) > 1 else ""
    heads = [_one(side, prefix.format(side.value)) for side in sides]
    only = sides[0] if len(sides) == 1 else None
    both = (*heads[0], _TURN_OVER, *heads[1]) if len(sides) > 1 else (*heads[0], looks.other_head(sides[0]))
    return (
        looks.lay_out_to_tune(only),
        openings.ring_out(only),
        *both,
        endings.ring_in(only),
        endings.mount(only),
        endings.close(only, "Close the job. It goes into the drum's history.", "Close", writes=False),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    each = [effect for side in part.sides for effect in closings.read_on(side)]
    return (*each, effects.CarryFindings(), effects.Log("done", "Lowest clean pitch"))


LOWEST_CLEAN_PITCH = Procedure(
    id="lowest-clean-pitch",
    version=1,
    title="Lowest clean pitch",
    parts=(Part.HEADS, Part.BATTER, Part.RESONANT),
    suits=not_snare_film,
    steps=_steps,
    effects=_effects,
    cites=("§4", "§5", "P14"),
    minutes=20,
    rank=74,
)
