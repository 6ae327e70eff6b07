"""How work on a head ends: rest, mount, write the date, close (trade §3.17–§3.20, §12). Common practice, no published source."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import found
from drumwork.work.conditions import Has
from drumwork.work.kinds.steps import Close, Rest, StepData, Tick
from drumwork.work.plan import DrumFacts, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Case, Point

__all__ = ["close", "mount", "rest"]


def _resting(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    return Rest(ways.rest_minutes)


def rest(side: Side | None) -> Step:
    return Step(
        "rest",
        "Rest",
        _resting,
        "Let the film settle over the edge while you do another drum. Then clear once more if it has dropped.",
        side,
        does=("rest",),
        cites=("F6",),
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
                )
            ),
            Point("No rattle, no ring that was not there before"),
            *found.MOUNT_POINTS,
        ),
        does=("mount", "listen-mounted"),
        cites=("N10",),
        looks_at=(Where.HARDWARE, Where.STAND, Where.STRAINER),
    )


def close(side: Side | None, say: str, title: str = "Write on it", writes: bool = True) -> Step:
    return Step(
        "close",
        title,
        Close(),
        say,
        side,
        does=("write-date", "book", "close") if writes else ("book", "close"),
        cites=("N4", "N5") if writes else (),
    )
