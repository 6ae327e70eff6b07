"""A new resonant head on a tom or bass drum, in the trade's order (§3, §4, §7): the head nobody looks at."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, openings
from drumwork.procedures.shared.one_head import one_head
from drumwork.procedures.shared.suits import not_snare_film
from drumwork.work.effects import Effect
from drumwork.work.hand import Lever, Needs, Up
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["NEW_RESONANT_HEAD"]

_R = Side.RESONANT


_BATTER = Step(
    "other-head",
    "Batter",
    Tick(),
    "Listen to the batter against it. It creeps while the other comes to pitch; clear it too if it has.",
    _R,
    (
        Point("Resonant against batter as this drum is wanted: alike, a little higher, or lower"),
        Point("A quarter turn on every resonant rod is plainly heard"),
    ),
    does=("other-head",),
    cites=("N6", "P16", "P17", "F7"),
    looks_at=(Where.HEAD, Where.HARDWARE),
    needs=Needs(up=(Up.OTHER,), lever=Lever.OFF),
    why="The other head shapes the sound and drags this one: unheard, both end up off.",
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    return (
        openings.lay_out(_R, Point("The new head: {new_head}. No snags, no tears, flesh hoop not bent")),
        openings.ring_out(_R),
        openings.mark(_R),
        *one_head(_R, drum),
        _BATTER,
        endings.ring_in(_R),
        endings.rest(_R),
        endings.mount(_R),
        endings.close(_R, "Write month and year on the head near the logo, then close the job."),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    return closings.fitted(_R)


NEW_RESONANT_HEAD = Procedure(
    id="new-resonant-head",
    version=1,
    title="New resonant head",
    parts=(Part.RESONANT,),
    suits=not_snare_film,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§4", "§7"),
    changes_heads=True,
    minutes=45,
    rank=20,
)
