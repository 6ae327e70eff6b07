"""The wires by their knob alone, on a drum that is in tune (trade §8.5). Common practice, no published source."""

from __future__ import annotations

from drumwork.findings import Where
from drumwork.procedures.shared import endings
from drumwork.procedures.shared.suits import wires
from drumwork.procedures.shared.wires import FROM_ABOVE, fine, try_lever
from drumwork.procedures.snares.new_wires import LOOK, SOFTLY
from drumwork.work import effects
from drumwork.work.effects import Effect
from drumwork.work.hand import Needs
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["BY_THE_KNOB"]


_LAY_OUT = Step(
    "lay-out",
    "Lay out",
    Tick(),
    "Drum on its stand or on the table, batter up, a stick at hand. Both heads stay as they are.",
    None,
    (Point("Both heads even and at pitch: if not, clear them first"),),
    does=("lay-out",),
    tools=("stick",),
    cites=("§8",),
    looks_at=(Where.HEAD, Where.WIRES, Where.STRAINER),
    needs=Needs(up=FROM_ABOVE),
    why="The knob cures no head that is out of tune.",
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    close = endings.close(None, "Close the job. It goes into the drum's history.", "Close", writes=False)
    return (_LAY_OUT, LOOK, *try_lever(), fine(), SOFTLY, close)


def _effects(part: Part) -> tuple[Effect, ...]:
    return (effects.CarryFindings(), effects.Log("done", "Snare wires set by the knob"))


BY_THE_KNOB = Procedure(
    id="wires-knob",
    version=1,
    title="Set the wires by the knob",
    parts=(Part.WIRES,),
    suits=wires,
    steps=_steps,
    effects=_effects,
    cites=("§8", "N8"),
    minutes=5,
    rank=27,
)
