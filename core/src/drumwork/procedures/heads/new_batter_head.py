"""A new batter head on any drum with rods and film, in the trade's order (§3, §4, §5)."""

from __future__ import annotations

from dataclasses import replace

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, openings
from drumwork.procedures.shared.one_head import one_head
from drumwork.procedures.shared.suits import film_on_rods
from drumwork.work.conditions import Has
from drumwork.work.effects import Effect
from drumwork.work.hand import AS_BEFORE, Leaves, Lever, Needs, Up
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Case, If, Point

__all__ = ["NEW_BATTER_HEAD"]

_B = Side.BATTER


_OTHER_HEAD = Step(
    "other-head",
    (Case(Has("wires"), "Wires on"), Case(~Has("wires"), "Other head")),
    Tick(),
    (
        Case(Has("wires"), "Lever on and listen: wires speak at a soft tap, and stop when it goes off again."),
        Case(
            ~Has("wires"),
            "Listen to the resonant head. If the sound is wrong, it is the first to change.",
        ),
    ),
    _B,
    (
        Point("Snare side looked at: no dents from sticks", Has("wires")),
        Point("Strands straight, none broken", Has("wires")),
        Point("All rods beside the bed present", Has("wires")),
        Point("No dents or creases", ~Has("wires")),
        Point("All rods present", ~Has("wires")),
        Point("Pitch against the batter as this drum is wanted", ~Has("wires")),
    ),
    does=("other-head", If(Has("wires"), "wires-test")),
    cites=("N6",),
    looks_at=(Where.HEAD, Where.WIRES, Where.STRAINER),
    why="The other head shapes the sound and drags this one: unheard, both end up off.",
)


def _other_head(wires: bool) -> Step:
    """Under wires it is heard by them, from above; any other is turned up."""
    return replace(
        _OTHER_HEAD,
        needs=Needs(up=(Up.BATTER,)) if wires else Needs(up=(Up.OTHER,)),
        leaves=Leaves(lever=Lever.ON) if wires else AS_BEFORE,
    )


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    return (
        openings.lay_out(_B, Point("The new head: {new_head}. No snags, no tears, flesh hoop not bent")),
        openings.ring_out(_B),
        openings.mark(_B),
        *one_head(_B, drum),
        _other_head(drum.has_wires),
        endings.ring_in(_B),
        endings.rest(_B),
        endings.mount(_B),
        endings.patch(_B),
        endings.close(_B, "Write month and year on the head near the logo, then close the job."),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    return closings.fitted(_B)


NEW_BATTER_HEAD = Procedure(
    id="new-batter-head",
    version=1,
    title="New batter head",
    parts=(Part.BATTER,),
    suits=film_on_rods,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§4", "§5"),
    changes_heads=True,
    minutes=45,
    rank=10,
)
