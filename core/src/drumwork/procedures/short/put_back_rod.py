"""A lent rod comes home (trade §13, N13). Common practice, no published source."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import endings, found, openings
from drumwork.procedures.shared.suits import rods
from drumwork.work import effects
from drumwork.work.conditions import Has
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Leaves, Lever, Needs, Up
from drumwork.work.kinds.steps import Clear, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["PUT_BACK_ROD"]


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    side = Side(part.value)
    look = Step(
        "lay-out",
        "The rod",
        Tick(),
        "The rod that was lent, in the hand: same thread, same length, straight, with its washer.",
        side,
        (
            Point("The drum it was lent to has its own again, or says in its record that it has not"),
            Point("Bent or gritty by now: straightened never, replaced or wiped", found.HURT_ROD),
            openings.THROW_OFF,
        ),
        does=("lay-out", "look", openings.THROW_OFF_DOWN),
        tools=(*openings.KEYS, "rags"),
        cites=("N13", "§13"),
        looks_at=(Where.ROD,),
        leaves=Leaves(up=Up.HAND, lever=Lever.OFF),
        why="A wrong thread strips the insert it is forced into.",
    )
    back = Step(
        "back",
        "Put back",
        Tick(),
        "Ease its two neighbours by what they were given extra, then start it straight by hand, finger-tight, and up until it pulls like its partner.",
        side,
        (
            Point("Its place marked found again on the drum's page"),
            Point("Claw with it", Has("claws")),
            *found.FINGER_POINTS,
        ),
        ("driver",),
        does=("start-rods", "finger-tight"),
        tools=openings.KEYS,
        cites=("§13",),
        looks_at=(Where.ROD, Where.HOOP),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,)),
        why="Its neighbours carried its share: left so, the head is uneven.",
    )
    even = Step(
        "clear",
        "Clear",
        Clear(),
        "Tap {tap} at each rod and even the head; the rod that came back and its partner most of all.",
        side,
        cautions=("tapping",),
        when=Has("film"),
        does=("read", "clear"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("F2", "F3"),
        looks_at=(Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="Uncleared, a head warbles: two notes beat against each other.",
    )
    close = endings.close(side, "Close the job. The loan is over, and the history says so.", "Close", writes=False)
    return look, openings.ring_out(side), back, even, endings.ring_in(side), close


def _effects(part: Part) -> tuple[Effect, ...]:
    side = Side(part.value)
    return (
        effects.RecordPitch(side),
        effects.CarryFindings(),
        effects.GiveBack("rod"),
        effects.Log("done", "Lent rod put back"),
    )


PUT_BACK_ROD = Procedure(
    id="put-back-rod",
    version=1,
    title="Put back a lent rod, {part}",
    parts=(Part.BATTER, Part.RESONANT),
    suits=rods,
    steps=_steps,
    effects=_effects,
    cites=("§13", "N13"),
    minutes=10,
    rank=88,
)
