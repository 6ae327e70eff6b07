"""Retuned where it stands, on the kit (trade §3.18, §13, §20). Common practice, no published source."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, openings
from drumwork.procedures.shared.suits import film_on_rods
from drumwork.work import effects
from drumwork.work.conditions import Has, OnSide
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Lever, Needs, Up
from drumwork.work.kinds.steps import Clear, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Case, Point

__all__ = ["ON_THE_KIT"]


def _reach(side: Side) -> Step:
    return Step(
        "lay-out",
        "Make room",
        Tick(),
        "Leave the drum where it stands. Swing away what is in reach of your hands, and keep the key with you.",
        side,
        (
            Point("Every rod of this head can be reached"),
            Point("Rods behind the stand: the stand turned, not the drum", Has("mount")),
            Point("Head from below: kneel, and look up along it", OnSide(Side.RESONANT)),
            Point("All rods there and none loose"),
        ),
        does=("lay-out", "look"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("§3", "§13"),
        looks_at=(Where.HEAD, Where.ROD, Where.STAND),
        needs=Needs(up=(Up.PLAYED,)),
        why="Taken off, it is heard alone; its place is where it has to sound.",
    )


def _clear(side: Side) -> Step:
    return Step(
        "clear",
        "Clear",
        Clear(),
        (
            Case(OnSide(Side.BATTER), "Tap {tap} at each rod, same force, a hand or a folded cloth on the head below."),
            Case(OnSide(Side.RESONANT), "Tap {tap} at each rod, same force, a hand or a folded cloth on the batter."),
        ),
        side,
        (Point("Only the worst rods, where minutes are short"), Point("The room is quiet: no other drum sounds while you read")),
        ("tapping",),
        does=("read", "clear"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("F2", "F3", "§6"),
        looks_at=(Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.PLAYED,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="Uncleared, a head warbles: two notes beat against each other.",
    )  # fmt: skip


_WITH_THE_KIT = Step(
    "with-the-kit",
    "Hear it with the kit",
    Tick(),
    "Play it among the others. A drum that sings along with it: move this one a little, up or down, all rods alike.",
    None,
    (Point("Lever tried on and off", Has("wires")), Point("No rattle that was not there before")),
    does=("listen-mounted",),
    cites=("N10", "N11"),
    looks_at=(Where.HARDWARE, Where.STAND, Where.STRAINER),
    needs=Needs(up=(Up.PLAYED,), lever=Lever.ON),
    why="Only with the kit is it heard whether drums set each other singing.",
)


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    side = Side(part.value)
    close = endings.close(side, "Close the job. It goes into the drum's history.", "Close", writes=False)
    return _reach(side), openings.ring_out(side), _clear(side), endings.ring_in(side), _WITH_THE_KIT, close


def _effects(part: Part) -> tuple[Effect, ...]:
    side = Side(part.value)
    return (
        *closings.read_on(side),
        effects.CarryFindings(),
        effects.Log("checked", "Retuned on the kit"),
        effects.AnswerChecks(side),
    )


def _refuses(drum: DrumFacts, part: Part) -> str:
    if part is Part.RESONANT and drum.traits.wires:
        return "Under a snare's wires a hand does not reach: take it off its stand."
    if part is Part.RESONANT and drum.traits.legs:
        return "Under a floor tom nobody reaches every rod: lay it on its side."
    return ""


ON_THE_KIT = Procedure(
    id="on-the-kit",
    version=1,
    title="Retune on the kit, {part}",
    parts=(Part.BATTER, Part.RESONANT),
    suits=film_on_rods,
    steps=_steps,
    effects=_effects,
    cites=("§3", "§6", "§13"),
    minutes=6,
    offer="Retune the {part} where it stands",
    rank=74,
    refuses=_refuses,
)
