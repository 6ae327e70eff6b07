"""The check a new head needs after its first days, and clearing at any time (trade §3.20, §6, §12): look, clear, log."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, openings
from drumwork.procedures.shared.suits import film_on_rods
from drumwork.work import effects
from drumwork.work.conditions import Found, Has
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Leaves, Lever, Needs, Up
from drumwork.work.kinds.steps import Clear, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["SETTLING_CHECK"]

_WORN = Found("split") | Found("tear-at-hoop", 2) | Found("stretched", 2)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    side = Side(part.value)
    look = Step(
        "look",
        "Look",
        Tick(),
        "Look the {side} head over and set the drum so the other head is muted.",
        side,
        (
            Point("No dents, creases or tears"),
            Point("All rods there and none loose"),
            Point("Throw-off down, so the wires are off the head", Has("wires")),
            Point("Replace it rather than clear it: it will not come even", _WORN),
        ),
        does=("lay-out", "look", "check-hardware", openings.THROW_OFF_DOWN),
        looks_at=(Where.HEAD, Where.ROD, Where.WIRES, Where.HOOP),
        leaves=Leaves(up=Up.HAND, lever=Lever.OFF),
        why="A worn head will not come even: clearing it is time lost.",
    )
    clear = Step(
        "clear",
        "Clear",
        Clear(),
        "Tap {tap} at each rod, same force, and see how far the new film has dropped.",
        side,
        cautions=("tapping",),
        does=("read", "clear"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("F2", "F3", "F6"),
        looks_at=(Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="Film goes on stretching in its first days: unvisited, it stays low.",
    )
    close = endings.close(side, "Close the check. It goes into the drum's history.", "Close", writes=False)
    return look, openings.ring_out(side), clear, endings.ring_in(side), close


def _effects(part: Part) -> tuple[Effect, ...]:
    side = Side(part.value)
    return (
        *closings.read_on(side),
        effects.CarryFindings(),
        effects.Log("checked", "Settling check"),
        effects.AnswerChecks(side),
    )


SETTLING_CHECK = Procedure(
    id="settling-check",
    version=1,
    title="Settling check, {part}",
    parts=(Part.BATTER, Part.RESONANT),
    suits=film_on_rods,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§6", "§12"),
    answers_checks=True,
    minutes=8,
    rank=70,
    offer="Clear the {part}",
)
