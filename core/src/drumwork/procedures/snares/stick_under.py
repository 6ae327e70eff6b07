"""The snare side tuned with a stick slid under its wires, clamped as they are (trade §4, §17.21). Common practice, no published source."""

from __future__ import annotations

from dataclasses import replace

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, looks, snare_side
from drumwork.procedures.shared.suits import wires
from drumwork.procedures.shared.wires import fine, try_lever
from drumwork.work import effects
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Leaves, Lever, Needs, Up, WiresAre
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["STICK_UNDER"]

_R = Side.RESONANT
_AT = (Where.WIRES, Where.STRAINER, Where.HEAD)
_UNDER = Step(
    "stick-under",
    "Slide a stick under",
    Tick(),
    "Slide a drumstick under the wires, along the edge at each end of them, so that no strand touches the head.",
    _R,
    (Point("The stick lies on the hoop, not on the film"), Point("Strands lifted, not bent")),
    ("strands",),
    does=("wires-off",),
    tools=("stick",),
    cites=("§4",),
    looks_at=_AT,
    needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF, wires=(WiresAre.ON,)),
    leaves=Leaves(stick=True),
    why="Wires that touch the film rattle into every reading; lifted by a stick, they keep their setting.",
)
_OUT = Step(
    "stick-out",
    "Stick out",
    Tick(),
    "Draw the stick out along the wires, before the drum is turned.",
    _R,
    (Point("Strands back in their place, none caught on the hoop"),),
    ("strands",),
    does=("look",),
    cites=("§4",),
    looks_at=_AT,
    needs=Needs(up=(Up.HAND,)),
    leaves=Leaves(stick=False),
    why="Turned with the stick in, the strands are bent and the film is dented.",
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    clear = snare_side.put_on()[-1]
    return (
        looks.lay_out_to_tune(_R),
        _UNDER,
        replace(clear, say="A light soft mallet, {tap}, at each rod; the batter muted, the stick under the wires. The film dents, so tap softly."),
        _OUT,
        looks.other_head(_R),
        *try_lever(),
        fine(),
        endings.close(_R, "Close the job. It goes into the drum's history.", "Close", writes=False),
    )  # fmt: skip


def _effects(part: Part) -> tuple[Effect, ...]:
    return (
        *closings.read_on(_R),
        effects.CarryFindings(),
        effects.Log("checked", "Snare side cleared under its wires"),
        effects.AnswerChecks(_R),
    )


def _on_it(drum: DrumFacts) -> str:
    return wires(drum) or (
        "" if drum.has_wires else "There are no wires on this drum now: clear the snare side as it is."
    )


STICK_UNDER = Procedure(
    id="stick-under",
    version=1,
    title="Snare side cleared under its wires",
    parts=(Part.RESONANT,),
    suits=_on_it,
    steps=_steps,
    effects=_effects,
    cites=("§4", "§6"),
    minutes=10,
    offer="Clear the snare side, a stick under the wires",
    rank=75,
)
