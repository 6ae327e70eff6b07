"""A new batter head on a snare, rack tom or floor tom, in the trade's order (§3, §4, §5)."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

from drumwork.errors import BadEvent
from drumwork.procedures import cautions
from drumwork.procedures.plan import (
    DrumKind,
    HeadJob,
    JobPlan,
    LogoPlace,
    PassPlan,
    Side,
    Step,
    StepKind,
    Stretch,
    Ways,
)
from drumwork.quantities import Turns
from drumwork.rods.passes import slackening_passes
from drumwork.rods.patterns import order_rods
from drumwork.sources import common_practice

__all__ = ["NEW_BATTER_HEAD", "SUITED_KINDS", "plan_new_batter_head"]

NEW_BATTER_HEAD: Final = "new-batter-head"
SUITED_KINDS: Final = (DrumKind.SNARE, DrumKind.RACK_TOM, DrumKind.FLOOR_TOM)

_HALF = Turns.from_fraction(common_practice.HALF_TURN)
_QUARTER = Turns.from_fraction(common_practice.QUARTER_TURN)
# P10: half turns from finger-tight, then smaller; P13: the tone arrives within two or three half turns.
_TENSION: Mapping[DrumKind, tuple[Turns, ...]] = {
    DrumKind.SNARE: (_HALF, _HALF, _HALF),
    DrumKind.RACK_TOM: (_HALF, _HALF, _QUARTER),
    DrumKind.FLOOR_TOM: (_HALF, _QUARTER, _QUARTER),
}
_LOGO: Mapping[LogoPlace, str] = {
    LogoPlace.BADGE: "logo at the badge",
    LogoPlace.BETWEEN_LUGS: "logo between two lugs",
    LogoPlace.TWELVE: "logo at twelve o'clock as the player sees it",
    LogoPlace.THROW_OFF: "logo at the throw-off",
    LogoPlace.OPPOSITE_LEG: "logo away from a leg",
}
_STRETCH: Mapping[Stretch, tuple[str, tuple[str, ...]]] = {
    Stretch.PALM: (
        "Press the middle with your palm, then all round the edge. Creaks and ticks are the film seating.",
        ("Middle pressed", "Edge pressed all round", "Rods still even by finger; take up any that went loose"),
    ),
    Stretch.OVER_TENSION: (
        "Take every rod up evenly well past pitch, let it rest five minutes, then back right off to finger-tight and start the count again.",
        ("Taken up evenly", "Rested five minutes", "Backed off to fingers, all rods even again"),
    ),
    Stretch.BARELY: (
        "Lean lightly on the middle once, only so that the flesh hoop sits down.",
        ("Flesh hoop sits down all round",),
    ),
}


def _lay_out(job: HeadJob) -> Step:
    points = [
        f"The new head: {job.new_head or 'looked over'}. No snags, no tears, flesh hoop not bent",
        "Drum key, better two; soft mallet or stick; rags, light grease, small screwdriver, marker, tape",
        "Soft-topped table",
    ]
    if job.kind is DrumKind.FLOOR_TOM:
        points.append("Legs off, kept together")
    if job.kind is DrumKind.RACK_TOM:
        points.append("Mount off; rest the drum so the other head is muted")
    if job.kind is DrumKind.SNARE:
        points.append("Throw-off down, so the wires are off the head")
    return Step(
        "lay-out",
        "Lay out",
        StepKind.TICK,
        "Lay out the head, the keys and the table before you touch a rod.",
        tuple(points),
    )


def _mark(job: HeadJob) -> Step:
    return Step(
        "mark",
        "Mark",
        StepKind.TICK,
        "Mark or photograph where hoop, rods and badge sit. Everything goes back exactly where it was.",
        ("A strip of tape on hoop and shell at rod 1", "Rod 1 is the first clockwise of the badge"),
    )


def _slacken(order: tuple[int, ...]) -> Step:
    passes = slackening_passes(order)
    return Step(
        "slacken",
        "Slacken",
        StepKind.PASSES,
        "Two turns down at each rod, pair by pair, again and again until fingers turn them. Never empty one side first.",
        cautions=(cautions.DRIVER,),
        passes=passes,
        more_pass=passes[0].each,
    )


_LIFT_OFF = Step(
    "lift-off",
    "Lift off",
    StepKind.TICK,
    "Lift hoop and old head off. Leave the rods hanging in the hoop, in order, and set it where it stays clean.",
    ("Rods in order in the hoop", "Old head kept for the close: it is logged with its reason"),
    (cautions.BURRS,),
)


def _clean(ways: Ways) -> Step:
    grease = (
        "A spot of light grease at an insert whose thread is dry or gritty; no more, or rods walk loose"
        if ways.grease_dry_threads
        else "Threads wiped clean; this workshop adds no grease"
    )
    return Step(
        "clean",
        "Clean",
        StepKind.TICK,
        "Clean the edge, the inside and the hoop's inner face. Feel the edge all round.",
        (
            "Edge smooth all round, no chip or dip",
            "Casings and mount screws snug by hand, not hard",
            "No rod bent, no thread stripped",
            grease,
            "Muffling inside, if any, goes in now",
        ),
        (cautions.DUST, cautions.SOLVENT),
    )


def _set_head(job: HeadJob, ways: Ways) -> Step:
    logo = _LOGO[
        LogoPlace.OPPOSITE_LEG if job.kind is DrumKind.FLOOR_TOM and ways.logo is LogoPlace.BADGE else ways.logo
    ]
    return Step(
        "set-head",
        "Set head",
        StepKind.TICK,
        f"Set the new head even on the edge, {logo}, then the hoop on its marks.",
        ("Head slides freely, sits flat all round", "Hoop on its marks", "Greasy rods kept off the film"),
    )


_FINGERS = Step(
    "fingers",
    "Fingers",
    StepKind.TICK,
    "Start the rods by hand, facing pairs, until each just touches the hoop. Centre the hoop, then finger-tight, two facing rods at a time.",
    (
        "Every rod straight in its thread",
        "Hoop centred: the same gap all round",
        "As tight as fingers go, all alike. This is the even zero the tally counts from",
    ),
)


def _seat(ways: Ways) -> Step:
    say, points = _STRETCH[ways.stretch]
    return Step("seat", "Seat", StepKind.TICK, say, points, (cautions.NO_STANDING,))


def _tension(job: HeadJob, order: tuple[int, ...]) -> Step:
    return Step(
        "tension",
        "Tension",
        StepKind.PASSES,
        "Equal small turns at each rod until every ripple is gone and it has a tone.",
        ("A rod that turns easier than the others gets a touch more",),
        (cautions.OVER_TENSION,),
        tuple(PassPlan(each, order) for each in _TENSION[job.kind]),
        more_pass=_QUARTER,
    )


def _clear(job: HeadJob) -> Step:
    wires = ", wires off" if job.kind is DrumKind.SNARE else ""
    return Step(
        "clear",
        "Clear",
        StepKind.CLEAR,
        f"Tap 25 mm in from the hoop at each rod, same force, the other head muted{wires}.",
        cautions=(cautions.TAPPING,),
    )


def _other_head(job: HeadJob) -> Step:
    if job.kind is DrumKind.SNARE:
        return Step(
            "other-head",
            "Wires on",
            StepKind.TICK,
            "Throw-off up and listen: wires speak at a soft tap, and stop when it goes down again.",
            (
                "Snare side looked at: no dents from sticks",
                "Strands straight, none broken",
                "All rods beside the bed present",
            ),
        )
    return Step(
        "other-head",
        "Other head",
        StepKind.TICK,
        "Turn the drum over and listen to the resonant head. If the sound is wrong, it is the first to change.",
        ("No dents or creases", "All rods present", "Pitch against the batter as this drum is wanted"),
    )


def _rest(ways: Ways) -> Step:
    return Step(
        "rest",
        "Rest",
        StepKind.REST,
        "Let the film settle over the edge while you do another drum. Then clear once more if it has dropped.",
        minutes=ways.rest_minutes,
    )


def _mount(job: HeadJob) -> Step:
    put_back = {
        DrumKind.FLOOR_TOM: "Legs on",
        DrumKind.RACK_TOM: "Mount on",
        DrumKind.SNARE: "On its stand, not clamped hard",
    }
    return Step(
        "mount",
        "Mount",
        StepKind.TICK,
        "Mount it and listen in its place, with the kit. Fine work happens there.",
        (put_back[job.kind], "No rattle, no ring that was not there before"),
    )


_CLOSE = Step(
    "close",
    "Write on it",
    StepKind.CLOSE,
    "Write month and year on the head near the logo, then close the job.",
)


def plan_new_batter_head(job: HeadJob, ways: Ways) -> JobPlan:
    """All steps for this drum in this workshop's way.

    Raises
    ------
    BadEvent
        for a kind of drum or a side whose procedure differs.
    """
    if job.kind not in SUITED_KINDS or job.side is not Side.BATTER:
        raise BadEvent(
            "This procedure is for the batter head of a snare, rack tom or floor tom.",
            kind=job.kind.value,
            side=job.side.value,
        )
    order = order_rods(job.layout, ways.pattern)
    steps = (
        _lay_out(job),
        _mark(job),
        _slacken(order),
        _LIFT_OFF,
        _clean(ways),
        _set_head(job, ways),
        _FINGERS,
        _seat(ways),
        _tension(job, order),
        _clear(job),
        _other_head(job),
        _rest(ways),
        _mount(job),
        _CLOSE,
    )
    return JobPlan(NEW_BATTER_HEAD, "New batter head", job, ways, steps, counts_from_fingers="fingers")
