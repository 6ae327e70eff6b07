"""How work on a head ends: rest, mount, write the date, close (trade §3.17–§3.20, §12). Common practice, no published source."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import found, openings
from drumwork.work.conditions import Has, OnSide
from drumwork.work.hand import HeadIs, Leaves, Lever, Needs, Up
from drumwork.work.kinds.steps import Close, Rest, StepData, Tick
from drumwork.work.plan import DrumFacts, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Case, Point

__all__ = ["close", "mount", "patch", "rest", "ring_in"]


def _resting(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    return Rest(ways.rest_minutes)


def rest(side: Side | None) -> Step:
    return Step(
        "rest",
        "Rest",
        _resting,
        "Let the film settle over the edge while you do another drum. Then clear once more if it has dropped.",
        side,
        (Point("With time to spare: a little high, left overnight, fine-tuned once it is mounted"),),
        does=("rest",),
        cites=("F6", "F13"),
        why="Film goes on stretching: unvisited, it stays low.",
    )


def mount(side: Side | None) -> Step:
    return Step(
        "mount",
        "Mount",
        Tick(),
        "Mount it and listen in its place, with the kit. Fine work happens there.",
        side,
        (
            Point(
                (
                    Case(Has("legs"), "Legs on"),
                    Case(Has("mount"), "Mount on"),
                    Case(Has("wires"), "On its stand, not clamped hard"),
                    Case(Has("pedal"), "Spurs out, drum level, pedal on its protector, beater to the middle"),
                    Case(Has("foam"), "On its carrier or stand, played from both sides"),
                )
            ),
            Point("Lever on", Has("wires")),
            Point("No rattle, no ring that was not there before"),
            *found.MOUNT_POINTS,
        ),
        cautions=(openings.NEEDS_TWO,),
        does=("mount", "listen-mounted"),
        cites=("N10",),
        looks_at=(Where.HARDWARE, Where.STAND, Where.STRAINER),
        needs=Needs(head=(HeadIs.TIGHT, HeadIs.ZERO), other=(HeadIs.TIGHT, HeadIs.ZERO)),
        leaves=Leaves(up=Up.PLAYED, lever=Lever.ON),
        why="Only with the kit is it heard whether drums set each other singing.",
    )


def ring_in(side: Side | None) -> Step:
    """What came out to read the drum goes back."""
    return Step(
        "ring-in",
        "Ring on",
        Tick(),
        "Put on again what came off: ring, gel or tape, as this drum is wanted. Not more than it needs.",
        side,
        (Point("What was put where is noted"),),
        when=Has("pedal"),
        does=("ring-in", "muffle"),
        cites=("§9", "§4"),
        looks_at=(Where.INSIDE,),
        why="Damping takes rebound and ring, so the least that does it goes on.",
    )


def patch(side: Side | None) -> Step:
    """Where the beater lands, once it lands (§4)."""
    return Step(
        "patch",
        "Patch",
        Tick(),
        "Now the patch: the pedal is on, so press it where the beater really lands.",
        side,
        (Point("Beater chalked, one soft stroke, patch on the mark"), Point("No air under it")),
        when=Has("pedal") & ~OnSide(Side.RESONANT),
        does=("patch",),
        tools=("beater patch", "chalk"),
        cites=("§4",),
        looks_at=(Where.HEAD,),
        picture="patch",
        needs=Needs(up=(Up.PLAYED,)),
        why="A patch that is not under the beater protects nothing.",
    )


def close(side: Side | None, say: str, title: str = "Write on it", writes: bool = True) -> Step:
    return Step(
        "close",
        title,
        Close(),
        say,
        side,
        (Point("A new head may sound stuffy at first; it opens up in its first days"),) if writes else (),
        does=("write-date", "book", "close") if writes else ("book", "close"),
        tools=("marker",) if writes else (),
        cites=("N4", "N5") if writes else (),
        needs=Needs(up=(Up.PLAYED,), lever=Lever.ON),
        why="Undated, a head's age is guessed; what is not written down is measured again.",
    )
