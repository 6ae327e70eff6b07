"""A new snare-side head: wires off first, gate before rods, bed rods last, wires on and tried (trade §3, §4, §8, N7–N9)."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, openings, snare_side
from drumwork.procedures.shared.one_head import one_head
from drumwork.procedures.shared.suits import wires
from drumwork.procedures.shared.wires import wires_back
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Needs, Up
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["BATTER", "NEW_SNARE_SIDE_HEAD"]

_R = Side.RESONANT

BATTER = Step(
    "other-head",
    "Batter",
    Tick(),
    "Listen to the batter against it. It creeps while the other comes to pitch; clear it too if it has.",
    _R,
    (Point("Snare side a little above the batter, as a rule"), Point("No definite note that others play: the wires would answer it")),
    does=("other-head",),
    cites=("§7", "N6"),
    looks_at=(Where.HEAD, Where.ROD),
    needs=Needs(up=(Up.OTHER,), head=(HeadIs.TIGHT,)),
    why="The other head shapes the sound and drags this one: unheard, both end up off.",
)  # fmt: skip


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    return (
        openings.lay_out(_R, Point("The new head: {new_head}. Thin, clear, no snags or dents, flesh hoop not bent")),
        openings.mark(_R),
        *one_head(_R, drum),
        BATTER,
        *wires_back(drum, snare_side.ease_and_clear(both=False)),
        endings.rest(_R),
        endings.mount(_R),
        endings.close(_R, "Write month and year on the head, clear of the wires, then close the job."),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    return closings.fitted(_R)


NEW_SNARE_SIDE_HEAD = Procedure(
    id="new-snare-side-head",
    version=1,
    title="New snare-side head",
    parts=(Part.RESONANT,),
    suits=wires,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§4", "§8", "N7", "N8", "N9"),
    changes_heads=True,
    minutes=60,
    rank=20,
)
