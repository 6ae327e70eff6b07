"""Work on heads that stay on: laid out to tune, wires off where they are in the way, the other head listened to (trade §4, §6, §7)."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import openings, snare_side
from drumwork.procedures.shared.wires import wires_back
from drumwork.work.conditions import Has, OnSide
from drumwork.work.hand import Leaves, Lever, Needs, Up
from drumwork.work.kinds.steps import Tick
from drumwork.work.plan import DrumFacts, Step
from drumwork.work.words import Case, Point

__all__ = ["lay_out_to_tune", "other_head", "wires_off_to_tune", "wires_on_after_tuning"]


def lay_out_to_tune(side: Side | None) -> Step:
    """Keys and mallet, and the drum so that the other head is muted."""
    return Step(
        "lay-out",
        "Lay out",
        Tick(),
        "Lay out keys and mallet, and set the drum so that the other head is muted.",
        side,
        (
            Point("No dents, creases or tears; all rods there"),
            Point("Legs off, so that it lies flat", Has("legs")),
            Point("Mount off; a padded stool mutes the other head", Has("mount")),
            openings.THROW_OFF,
        ),
        (openings.NEEDS_TWO,),
        does=("lay-out", "look", openings.THROW_OFF_DOWN),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("§4", "§6"),
        looks_at=(Where.HEAD, Where.ROD, Where.HOOP, Where.HARDWARE),
        leaves=Leaves(up=Up.HAND, lever=Lever.OFF),
        why="With the lower head muted, only the head in hand is heard. Legs on, the drum does not lie flat.",
    )


def _under_wires(side: Side, drum: DrumFacts) -> bool:
    return side is Side.RESONANT and drum.traits.wires


def wires_off_to_tune(side: Side, drum: DrumFacts) -> tuple[Step, ...]:
    """A snare side is worked with its wires away from the film; a batter needs the lever down only."""
    return (snare_side.wires_off(),) if _under_wires(side, drum) else ()


def wires_on_after_tuning(side: Side, drum: DrumFacts) -> tuple[Step, ...]:
    return wires_back(drum) if _under_wires(side, drum) else ()


def other_head(side: Side) -> Step:
    """It creeps while its partner moves (§6), and is the culprit nobody looks at (N6)."""
    return Step(
        "other-head",
        "Other head",
        Tick(),
        (
            Case(OnSide(Side.BATTER), "Listen to the resonant head. It has crept; clear it too if it is no longer even."),
            Case(OnSide(Side.RESONANT), "Listen to the batter. It has crept; clear it too if it is no longer even."),
        ),
        side,
        (Point("The two together as this drum is wanted: alike, a little higher, or lower"),),
        (openings.NEEDS_TWO,),
        does=("other-head",),
        cites=("§6", "§7", "N6"),
        looks_at=(Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.OTHER,), lever=Lever.OFF),
        why="The other head shapes the sound and drags this one: unheard, both end up off.",
    )  # fmt: skip
