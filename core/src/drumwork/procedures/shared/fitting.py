"""Fitting a head: set it, fingers, seat, tension, clear (trade §3.9–§3.14). Common practice, no published source."""

from __future__ import annotations

from collections.abc import Mapping

from drumwork.drums import DrumKind, Side
from drumwork.findings import Where
from drumwork.procedures.shared import found
from drumwork.quantities import Turns
from drumwork.rods.passes import PassPlan
from drumwork.rods.patterns import order_rods
from drumwork.sources import common_practice
from drumwork.work.conditions import Has, Way
from drumwork.work.kinds.steps import Clear, Passes, StepData, Tick
from drumwork.work.plan import DrumFacts, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Case, Point

__all__ = ["clear", "fingers", "seat", "set_head", "tension"]

_HALF = Turns.from_fraction(common_practice.HALF_TURN)
_QUARTER = Turns.from_fraction(common_practice.QUARTER_TURN)
# P10: half turns from finger-tight, then smaller; P13: the tone arrives within two or three half turns.
_FIRM = (_HALF, _HALF, _HALF)
_MIDDLING = (_HALF, _HALF, _QUARTER)
_LOW = (_HALF, _QUARTER, _QUARTER)
TENSION: Mapping[DrumKind, tuple[Turns, ...]] = {
    DrumKind.SNARE: _FIRM,
    DrumKind.MARCHING_SNARE: _FIRM,
    DrumKind.ORCHESTRAL_SNARE: _FIRM,
    DrumKind.RACK_TOM: _MIDDLING,
    DrumKind.FLOOR_TOM: _LOW,
    DrumKind.BASS: _LOW,
    DrumKind.MARCHING_BASS: _MIDDLING,
    DrumKind.PRACTICE_MESH: _FIRM,
}
_LEG = Has("legs") & Way("logo", "badge")
_SET = "Set the new head even on the edge, {logo}, then the hoop on its marks."
_LOGO = (
    Case(_LEG | Way("logo", "opposite-leg"), _SET.replace("{logo}", "logo away from a leg")),
    Case(Way("logo", "badge"), _SET.replace("{logo}", "logo at the badge")),
    Case(Way("logo", "between-lugs"), _SET.replace("{logo}", "logo between two lugs")),
    Case(Way("logo", "twelve-oclock"), _SET.replace("{logo}", "logo at twelve o'clock as the player sees it")),
    Case(Way("logo", "throw-off"), _SET.replace("{logo}", "logo at the throw-off")),
)


def set_head(side: Side, prefix: str = "") -> Step:
    return Step(
        f"{prefix}set-head",
        "Set head",
        Tick(),
        _LOGO,
        side,
        (
            Point("Head slides freely, sits flat all round"),
            Point("Hoop on its marks"),
            Point("Greasy rods kept off the film"),
        ),
        does=("set-head", "set-hoop"),
        looks_at=(Where.HEAD, Where.HOOP, Where.SHELL),
    )


def fingers(side: Side, prefix: str = "") -> Step:
    """The even zero from which turns are counted."""
    return Step(
        f"{prefix}fingers",
        "Fingers",
        Tick(),
        "Start the rods by hand, facing pairs, until each just touches the hoop. Centre the hoop, then finger-tight, two facing rods at a time.",
        side,
        (
            Point("Every rod straight in its thread"),
            Point("Hoop centred: the same gap all round"),
            Point("As tight as fingers go, all alike. This is the even zero the tally counts from"),
            *found.FINGER_POINTS,
        ),
        does=("start-rods", "finger-tight"),
        looks_at=(Where.ROD, Where.HOOP, Where.SHELL),
        zero=True,
    )


_PALM, _OVER, _BARELY = (Way("stretch", name) for name in ("palm", "over-tension", "barely"))


def seat(side: Side, prefix: str = "") -> Step:
    return Step(
        f"{prefix}seat",
        "Seat",
        Tick(),
        (
            Case(_PALM, "Press the middle with your palm, then all round the edge. Creaks and ticks are the film seating."),
            Case(
                _OVER,
                "Take every rod up evenly well past pitch, let it rest five minutes, then back right off to finger-tight and start the count again.",
            ),
            Case(_BARELY, "Lean lightly on the middle once, only so that the flesh hoop sits down."),
        ),
        side,
        (
            Point("Middle pressed", _PALM),
            Point("Edge pressed all round", _PALM),
            Point("Rods still even by finger; take up any that went loose", _PALM),
            Point("Taken up evenly", _OVER),
            Point("Rested five minutes", _OVER),
            Point("Backed off to fingers, all rods even again", _OVER),
            Point("Flesh hoop sits down all round", _BARELY),
        ),
        ("no-standing",),
        does=("seat", "stretch"),
        looks_at=(Where.HEAD, Where.ROD, Where.HOOP),
    )  # fmt: skip


def _tensioning(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    order = order_rods(drum.layouts[side], ways.pattern)
    return Passes(tuple(PassPlan(each, order) for each in TENSION[drum.kind]), _QUARTER)


def tension(side: Side, prefix: str = "") -> Step:
    return Step(
        f"{prefix}tension",
        "Tension",
        _tensioning,
        "Equal small turns at each rod until every ripple is gone and it has a tone.",
        side,
        (Point("A rod that turns easier than the others gets a touch more"), *found.TENSION_POINTS),
        ("over-tension",),
        does=("tension",),
        cites=("P10", "P13"),
        looks_at=(Where.ROD, Where.HOOP, Where.HEAD),
    )


def clear(side: Side, prefix: str = "") -> Step:
    return Step(
        f"{prefix}clear",
        "Clear",
        Clear(),
        (
            Case(Has("wires"), "Tap {tap} at each rod, same force, the other head muted, wires off."),
            Case(~Has("wires"), "Tap {tap} at each rod, same force, the other head muted."),
        ),
        side,
        cautions=("tapping",),
        does=("read", "clear"),
        cites=("F2", "F3"),
        looks_at=(Where.HEAD, Where.ROD),
    )
