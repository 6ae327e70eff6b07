"""A new resonant head on a rack or floor tom, in the trade's order (§3, §4, §7): the head nobody looks at."""

from __future__ import annotations

from drumwork.drums import DrumKind, Side
from drumwork.findings import Where
from drumwork.procedures.shared import endings, fitting, openings
from drumwork.procedures.shared.found import bare_drum_steps
from drumwork.work import effects
from drumwork.work.effects import Effect
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["NEW_RESONANT_HEAD"]

_SUITED = (DrumKind.RACK_TOM, DrumKind.FLOOR_TOM)
_R = Side.RESONANT


def _suits(drum: DrumFacts) -> str:
    return "" if drum.kind in _SUITED else "This procedure is for the resonant head of a rack tom or floor tom."


_BATTER = Step(
    "other-head",
    "Batter",
    Tick(),
    "Turn the drum over and listen to the batter against it. It creeps while the other comes to pitch; clear it too if it has.",
    _R,
    (
        Point("Resonant against batter as this drum is wanted: alike, a little higher, or lower"),
        Point("A quarter turn on every resonant rod is plainly heard"),
    ),
    does=("other-head",),
    cites=("N6", "P16", "P17", "F7"),
    looks_at=(Where.HEAD, Where.HARDWARE),
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    return (
        openings.lay_out(_R, Point("The new head: {new_head}. No snags, no tears, flesh hoop not bent")),
        openings.mark(_R),
        openings.slacken(_R),
        openings.lift_off(_R),
        openings.clean(_R),
        *bare_drum_steps(_R),
        fitting.set_head(_R),
        fitting.fingers(_R),
        fitting.seat(_R),
        fitting.tension(_R),
        fitting.clear(_R),
        _BATTER,
        endings.rest(_R),
        endings.mount(_R),
        endings.close(_R, "Write month and year on the head near the logo, then close the job."),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    return (
        effects.TakeFromShelf(_R),
        effects.ChangeHead(_R),
        effects.RecordPitch(_R),
        effects.KeepAnswer(_R),
        effects.KeepTarget(_R),
        effects.CarryFindings(),
        effects.Log("fitted"),
        effects.AnswerChecks(_R),
        effects.BookCheck(_R),
    )


NEW_RESONANT_HEAD = Procedure(
    id="new-resonant-head",
    version=1,
    title="New resonant head",
    parts=(Part.RESONANT,),
    suits=_suits,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§4", "§7"),
    changes_heads=True,
    minutes=45,
    rank=20,
)
