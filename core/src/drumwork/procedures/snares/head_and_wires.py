"""Snare-side head and wires in one job: the wires are off anyway (trade §4, §8). Common practice, no published source."""

from __future__ import annotations

from dataclasses import replace

from drumwork.drums import Side
from drumwork.procedures.heads.new_snare_side_head import BATTER
from drumwork.procedures.shared import closings, endings, openings, snare_side
from drumwork.procedures.shared.one_head import one_head
from drumwork.procedures.shared.suits import wires
from drumwork.procedures.shared.wires import wires_back
from drumwork.procedures.snares.new_wires import LOOK, OLD_OFF, SOFTLY, WHICH
from drumwork.work import effects
from drumwork.work.effects import Effect
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["HEAD_AND_WIRES"]

_R = Side.RESONANT
_HEAD = Point("The new head: {new_head}. Thin, clear, no snags or dents, flesh hoop not bent")


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    lay_out = openings.lay_out(_R, _HEAD)
    new = Point("New wires looked over: as long as this drum asks for, no strand bent")
    free, *head = one_head(_R, drum)
    return (
        replace(lay_out, points=(*lay_out.points, new), asks=(WHICH,)),
        LOOK,
        openings.mark(_R),
        free,
        OLD_OFF,
        *head,
        BATTER,
        *wires_back(drum, snare_side.ease_and_clear(both=False), new=True),
        SOFTLY,
        endings.rest(_R),
        endings.mount(_R),
        endings.close(_R, "Write month and year on the head and on the butt strap, then close the job."),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    return (effects.ChangeWires(), *closings.fitted(_R))


HEAD_AND_WIRES = Procedure(
    id="snare-side-and-wires",
    version=1,
    title="New snare-side head and wires",
    parts=(Part.RESONANT,),
    suits=wires,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§4", "§8"),
    changes_heads=True,
    minutes=75,
    rank=21,
)
