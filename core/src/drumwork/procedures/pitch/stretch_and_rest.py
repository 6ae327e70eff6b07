"""Over-tension, rest, back to finger-loose and up again (trade §3.11, §17.2, §17.3). Common practice, no published source."""

from __future__ import annotations

from dataclasses import replace

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, fitting, looks, openings
from drumwork.procedures.shared.from_zero import over_zero
from drumwork.procedures.shared.suits import film_on_rods
from drumwork.quantities import Turns
from drumwork.rods.passes import PassPlan, slackening_passes
from drumwork.rods.patterns import from_slack
from drumwork.work import effects
from drumwork.work.conditions import Way
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Leaves, Needs, Up
from drumwork.work.kinds.steps import Passes, Rest, StepData, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["STRETCH_AND_REST"]

_HALF = Turns.of(1, 2)
_RESTS = 30
"""Minutes; our own figure: the trade says "let it rest"."""


def _up(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    return Passes(
        (PassPlan(_HALF, from_slack(drum.layouts[side], ways.pattern)),),
        Turns.of(1, 4),
        enough="Is it well above pitch, and does nothing creak that did not?",
    )


def _over(side: Side) -> Step:
    return Step(
        "over",
        "Over",
        _up,
        "Half a turn up at every rod, well above pitch and well inside what film and rods carry; a quarter more only if nothing complains.",
        side,
        (
            Point("Pitch still rises with each turn; where it no longer does, stop"),
            Point("Lugs quiet, hoop level, film clear"),
        ),
        ("over-tension", "no-standing", "driver"),
        does=("stretch",),
        tools=openings.KEYS,
        cites=("§3", "§18"),
        looks_at=(Where.ROD, Where.HOOP, Where.HEAD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,)),
        why="Film stretched now does not drop in the first show.",
    )


def _down_again(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    total = Turns(over_zero(drum, side).thirtyseconds + _HALF.thirtyseconds)
    passes = slackening_passes(from_slack(drum.layouts[side], ways.pattern), total)
    return Passes(passes, Turns.of(-1, 4), down=True, enough="Do fingers turn every rod now?")


def _down(side: Side) -> Step:
    """Back to zero: what the head had, and what it was given over it."""
    return replace(openings.slacken(side), data=_down_again)


_BACK = Way("after_stretch", "back")


def _rest(side: Side) -> Step:
    return Step(
        "stretch-rest",
        "Rest",
        Rest(_RESTS),
        "Leave it there while you do another drum. It is under more pull than it will ever carry in use: nobody plays it now.",
        side,
        does=("rest",),
        cites=("§3",),
        why="Film gives slowly: taken down at once, it has not stretched.",
    )


def _fingers(side: Side) -> Step:
    return Step(
        "fingers",
        "Fingers",
        Tick(),
        "All rods finger-tight again, two facing rods at a time. This is the even zero.",
        side,
        (Point("Hoop centred: the same gap all round"), Point("Every rod as tight as fingers go, all alike")),
        when=_BACK,
        does=("finger-tight",),
        cites=("§3",),
        looks_at=(Where.ROD, Where.HOOP),
        zero=True,
        needs=Needs(up=(Up.HAND,), head=(HeadIs.SLACK,)),
        leaves=Leaves(head=HeadIs.ZERO),
        why="Fingers load all rods alike, so counts from here mean something. Off centre, a head gets odd spots.",
    )


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    side = Side(part.value)
    back = (_down(side), _fingers(side), fitting.tension(side)) if ways.after_stretch == "back" else ()
    return (
        looks.lay_out_to_tune(side),
        openings.ring_out(side),
        openings.mark(side),
        _over(side),
        _rest(side),
        *back,
        fitting.clear(side),
        looks.other_head(side),
        endings.ring_in(side),
        endings.mount(side),
        endings.close(side, "Close the job. It goes into the drum's history.", "Close", writes=False),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    side = Side(part.value)
    return (
        *closings.read_on(side),
        effects.CarryFindings(),
        effects.KeepAnswers(),
        effects.Log("checked", "Stretched and rested"),
        effects.BookCheck(side),
    )


def _thin(drum: DrumFacts, part: Part) -> str:
    """Thin film is never forced (§4, §17.2)."""
    if part is Part.RESONANT and drum.traits.wires:
        return "A snare side's thin film is never stretched by force."
    return ""


STRETCH_AND_REST = Procedure(
    id="stretch-and-rest",
    version=1,
    title="Over-tension and rest, {part}",
    parts=(Part.BATTER, Part.RESONANT),
    suits=film_on_rods,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§17", "§18"),
    minutes=75,
    offer="Stretch the {part} and rest it",
    rank=78,
    refuses=_thin,
)
