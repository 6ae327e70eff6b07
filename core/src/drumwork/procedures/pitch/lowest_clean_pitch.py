"""The lowest clean pitch, by wrinkles (trade §4, §5, P14). Common practice, no published source."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, fitting, looks, openings
from drumwork.procedures.shared.suits import not_snare_film
from drumwork.quantities import Turns
from drumwork.rods.passes import PassPlan
from drumwork.rods.patterns import from_slack
from drumwork.work import effects
from drumwork.work.conditions import ALWAYS, Has
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Leaves, Lever, Needs, Up
from drumwork.work.kinds.steps import Clear, Passes, StepData, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["LOWEST_CLEAN_PITCH"]

_QUARTER = Turns.of(1, 4)


def _first_up(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    up = PassPlan(_QUARTER, from_slack(drum.layouts[side], ways.pattern), "it plainly resonates")
    return Passes((up,), _QUARTER, enough="Does it plainly resonate, and does a hand on the film feel it take?")


def _more(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    return Passes(
        (PassPlan(_QUARTER, from_slack(drum.layouts[side], ways.pattern)),),
        Turns.of(1, 8),
        enough="Is it high enough for the player’s feet?",
    )


def _one(side: Side, prefix: str) -> tuple[Step, ...]:
    up = Step(
        f"{prefix}up",
        "First up",
        _first_up,
        "A quarter turn up at each rod, crosswise, until the {side} head plainly resonates. Skip it where it does already.",
        side,
        (Point("A hand on the film feels it take"),),
        ("over-tension", "driver"),
        does=("tension",),
        tools=openings.KEYS,
        cites=("P14",),
        looks_at=(Where.ROD, Where.HEAD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT, HeadIs.SLACK, HeadIs.ZERO)),
        leaves=Leaves(head=HeadIs.TIGHT),
        why="Slack film shows nothing to go by.",
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
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,)),
        why="A head that flaps gives the foot nothing back.",
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
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="Resonance hides pitch on a slack head: a rod that stands out is heard one by one.",
    )
    return up, fitting.wrinkles(side, prefix, ALWAYS), more, clear


_SWEEP = Step(
    "sweep",
    "Under the pedal",
    Tick(),
    "Somebody plays the pedal. Sweep each rod of the front head over the good place and back, find the lowest, and leave it a little above.",
    Side.RESONANT,
    (
        Point("Then strike the centre, then the edges, ear close: ease the rod that stands out"),
        Point("Rods at the port never quite agree: not chased", Has("port")),
    ),
    ("tapping", "over-tension"),
    does=("target",),
    tools=openings.KEYS,
    cites=("P20",),
    looks_at=(Where.ROD, Where.HEAD),
    needs=Needs(up=(Up.PLAYED,), head=(HeadIs.TIGHT,), other=(HeadIs.TIGHT,)),
    why="Resonance is heard where pitch is not; centre, then edges, finds the rod that was left high.",
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    sides = part.sides
    prefix = "{}-" if len(sides) > 1 else ""
    heads = [_one(side, prefix.format(side.value)) for side in sides]
    only = sides[0] if len(sides) == 1 else None
    both = (*heads[0], *heads[1]) if len(sides) > 1 else (*heads[0], looks.other_head(sides[0]))
    return (
        looks.lay_out_to_tune(only),
        openings.ring_out(only),
        openings.inside_out(only, through=Has("port")),
        *both,
        openings.inside_in(only, through=Has("port")),
        endings.ring_in(only),
        endings.mount(only),
        *((_SWEEP,) if drum.traits.pedal and Side.RESONANT in sides else ()),
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
