"""Uneven on purpose: a floor tom deadened, a drum stopped singing with its neighbours (trade §6, §17.5, N11, P19).

Common practice, no published source.
"""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import closings, endings, looks, openings
from drumwork.procedures.shared.suits import film_on_rods
from drumwork.rods.deliberate import OnPurpose, leave_uneven
from drumwork.rods.passes import PassPlan
from drumwork.work import effects
from drumwork.work.conditions import Has, OnSide
from drumwork.work.effects import Effect
from drumwork.work.hand import HeadIs, Lever, Needs, Up
from drumwork.work.kinds.steps import Clear, Passes, StepData, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Point

__all__ = ["UNEVEN_ON_PURPOSE"]


def _down(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    """Four rods in two adjacent pairs in line on a floor tom (P19); elsewhere one rod, which the person may change."""
    assert side is not None
    layout = drum.layouts[side]
    four = drum.traits.legs and layout.count == 8 and not layout.lost
    start = layout.rods[0]
    found = leave_uneven(layout, OnPurpose.FOUR_BY_A_HAIR if four else OnPurpose.ROD_DOWN, start)
    each = next(iter(found.turns.values()))
    return Passes(
        (PassPlan(each, tuple(found.turns)),),
        each,
        down=False,
        enough="Are these rods down, and all others as they were?",
    )


def _even_first(side: Side) -> Step:
    return Step(
        "clear",
        "Clear",
        Clear(),
        "Even it first: only from even does anyone know what was let down. Tap {tap} at each rod.",
        side,
        cautions=("tapping",),
        does=("read", "clear"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("F2", "F3", "§6"),
        looks_at=(Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="Only from even does anyone know what was let down.",
    )


def _hear(side: Side) -> Step:
    return Step(
        "who-sings",
        "Who sings",
        Tick(),
        "Strike its neighbours one by one, this drum beside them untouched, and hear what wakes it.",
        side,
        (
            Point("Named in a note: which drum, which note"),
            Point("Wires of the snare counted among those that answer"),
            Point("Only too long a note: the same remedy, a hair at four rods", Has("legs")),
        ),
        ("tapping",),
        does=("look",),
        cites=("N11", "§6"),
        looks_at=(Where.HEAD, Where.HARDWARE),
        needs=Needs(up=(Up.PLAYED,)),
        why="Singing is heard with the kit and nowhere else.",
    )


def _ease(side: Side) -> Step:
    return Step(
        "ease",
        "Some down",
        _down,
        "These rods down by so little; nothing else moves. The others keep the pitch.",
        side,
        (
            Point("Four rods, two pairs in line, by a hair: the note dies sooner", Has("legs")),
            Point("On the resonant head first, where the singing sits", OnSide(Side.RESONANT)),
        ),
        ("driver",),
        does=("target",),
        tools=openings.KEYS,
        cites=("P19", "§6"),
        looks_at=(Where.ROD,),
        needs=Needs(head=(HeadIs.TIGHT,)),
        why="A head a little uneven has no one note to answer with.",
    )


def _try_it(side: Side) -> Step:
    return Step(
        "try",
        "Try it",
        Tick(),
        "Strike the neighbour again. Still singing: the same rod a touch more, or the one facing it; deader than wanted: half of it back.",
        side,
        (
            Point("Played with the kit before it is called done"),
            Point("Rods and turns written in a note: it was meant"),
        ),
        ("tapping",),
        does=("listen-mounted",),
        tools=openings.KEYS,
        cites=("N10", "N11"),
        looks_at=(Where.HEAD, Where.ROD),
        why="Eased too far, the drum goes dead.",
    )


def _steps(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    side = Side(part.value)
    return (
        looks.lay_out_to_tune(side),
        openings.ring_out(side),
        *looks.wires_off_to_tune(side, drum),
        _even_first(side),
        *looks.wires_on_after_tuning(side, drum),
        endings.ring_in(side),
        endings.mount(side),
        _hear(side),
        _ease(side),
        _try_it(side),
        endings.close(
            side, "Close the job. That it is uneven on purpose goes into the drum's history.", "Close", writes=False
        ),
    )


def _effects(part: Part) -> tuple[Effect, ...]:
    side = Side(part.value)
    return (
        *closings.read_on(side),
        effects.CarryFindings(),
        effects.Log("done", "Uneven on purpose"),
    )


UNEVEN_ON_PURPOSE = Procedure(
    id="uneven-on-purpose",
    version=1,
    title="Uneven on purpose, {part}",
    parts=(Part.BATTER, Part.RESONANT),
    suits=film_on_rods,
    steps=_steps,
    effects=_effects,
    cites=("§6", "§17", "N11", "P19"),
    minutes=20,
    offer="Stop the {part} singing",
    rank=76,
)
