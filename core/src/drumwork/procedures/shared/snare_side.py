"""The snare-side head: thin film, gate in line before any rod, rods away from the bed first (trade §3, §4, P12, N7, N9).

Common practice, no published source.
"""

from __future__ import annotations

from dataclasses import replace

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import found, openings
from drumwork.quantities import Turns
from drumwork.rods.passes import PassPlan, snare_side_passes, snare_side_turns, usual_bed
from drumwork.rods.patterns import Pattern, from_slack
from drumwork.work.conditions import Has, OnSide, Way
from drumwork.work.hand import HeadIs, Leaves, Lever, Needs, Up, WiresAre
from drumwork.work.kinds.steps import Clear, Passes, StepData, Tick
from drumwork.work.plan import DrumFacts, Step
from drumwork.work.ways import Ways
from drumwork.work.words import Case, Point

__all__ = ["ease_and_clear", "put_on", "take_off", "wires_off"]

_R = Side.RESONANT
_QUARTER = Turns.of(1, 4)
_FIRM = "Is it as firm as a table top, all round?"


def _head_passes(drum: DrumFacts, ways: Ways) -> tuple[PassPlan, ...]:
    layout = drum.layouts[_R]
    if not layout.beside_bed:
        layout = replace(layout, beside_bed=usual_bed(layout))
    pattern = Pattern.STAR if ways.pattern is Pattern.ROUND else ways.pattern
    return snare_side_passes(layout, pattern, snare_side_turns(drum.thread))


def _away(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    away = tuple(each for each in _head_passes(drum, ways)[:-1] if each.order) if drum.snare_bed else ()
    passes = away or _all_alike(drum, ways)  # of four rods all may stand beside the bed
    return Passes(passes, Turns.of(1, 2), enough="Is it as firm as a table top away from the bed?" if away else _FIRM)


def _all_alike(drum: DrumFacts, ways: Ways) -> tuple[PassPlan, ...]:
    """A shell without a bed: every rod alike."""
    order = from_slack(drum.layouts[_R], ways.pattern)
    half = Turns.of(1, 2)
    return (PassPlan(half, order),) * (snare_side_turns(drum.thread).thirtyseconds // half.thirtyseconds)


def _bed(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    passes = tuple(each for each in _head_passes(drum, ways)[-1:] if each.order)
    return Passes(passes, _QUARTER, enough="Has the ripple beside the bed just gone, at all of these rods?")


def _eased(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    beside = _head_passes(drum, ways)[-1].order
    passes = (PassPlan(-_QUARTER, beside),) if beside else ()
    return Passes(passes, -_QUARTER, enough="Is the buzz gone, and do soft strokes still answer?")


def wires_off(prefix: str = "") -> Step:
    """Free at the butt end, so that the strainer keeps its setting (§3.5)."""
    return Step(
        f"{prefix}wires-off",
        "Wires off",
        Tick(),
        "Free the wires at the butt end, so that the strainer side keeps its setting, and lay them over the strainer.",
        None,
        (
            Point("Wires and straps lie supported; nothing bends"),
            Point("Butt screws kept in their plate"),
            Point("Strands looked at while they are free: none bent, broken or missing"),
            Point("Bent, broken or missing strands: new wires go on afterwards", found.BAD_STRANDS),
        ),
        ("strands",),
        does=("wires-off",),
        tools=("small screwdriver", "cloth"),
        cites=("§3", "N8"),
        looks_at=(Where.WIRES, Where.STRAINER),
        picture="wires-free",
        needs=Needs(
            up=(Up.RESONANT,),
            lever=Lever.OFF,
            wires=(WiresAre.ON,),
        ),
        if_so=True,
        leaves=Leaves(wires=WiresAre.STRAINER),
        why="Wires that are not freed get bent. Freed at the butt end, the strainer keeps its setting.",
    )


def _set(prefix: str) -> Step:
    return Step(
        f"{prefix}set-head",
        "Set head",
        Tick(),
        "Lay the thin head on, even on the edge, by its hoop. It dents at a fingertip.",
        _R,
        (Point("Thin clear snare-side film, nothing else"), Point("Flesh hoop sits flat all round, over the bed too"), Point("Logo, if any, clear of the wires")),
        does=("set-head",),
        tools=("the new head",),
        cites=("F4", "C3"),
        looks_at=(Where.HEAD, Where.EDGE, Where.SHELL),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.OFF,), free=True),
        leaves=Leaves(head=HeadIs.SLACK),
        why="This film dents at a fingertip, and a dent is heard.",
    )  # fmt: skip


def _gate(prefix: str) -> Step:
    return Step(
        f"{prefix}gate",
        "Gate",
        Tick(),
        "Hoop on, its snare gates in line with strainer and butt plate, before any rod goes in.",
        _R,
        (
            Point("Looked along from strainer to butt plate: both gates open on the bed’s line"),
            Point("Gate not in line: off and on again now. It cannot be turned later", found.WRONG_GATE),
        ),
        does=("set-hoop", "align-gate"),
        cites=("N7", "§3"),
        looks_at=(Where.HOOP, Where.STRAINER),
        picture="gate",
        needs=Needs(up=(Up.HAND,), head=(HeadIs.SLACK,)),
        why="A gate in the wrong place is found when all is tight, and everything comes off again.",
    )


def _fingers(prefix: str) -> Step:
    return Step(
        f"{prefix}fingers",
        "Fingers",
        Tick(),
        "Start the rods by hand, facing pairs, until each just touches the hoop. Centre it, then finger-tight, two facing rods at a time.",
        _R,
        (
            Point("Every rod straight in its thread; those beside the bed all there"),
            Point("Gates still in line"),
            Point("As tight as fingers go, all alike. This is the even zero the tally counts from"),
            Point("Where fingers find no room: the key, to first resistance"),
            *found.FINGER_POINTS,
        ),
        does=("start-rods", "finger-tight"),
        cites=("§3",),
        looks_at=(Where.ROD, Where.HOOP, Where.SHELL),
        zero=True,
        needs=Needs(up=(Up.HAND,), head=(HeadIs.SLACK,)),
        leaves=Leaves(head=HeadIs.ZERO),
        why="Fingers load all rods alike, so counts from here mean something. Off centre, a head gets odd spots.",
    )


def _seat(prefix: str) -> Step:
    return Step(
        f"{prefix}seat",
        "Seat",
        Tick(),
        "Only look: the film lies flat and the flesh hoop is down. This thin film is never pressed or stretched.",
        _R,
        (Point("Ripples beside the bed are the bed, not a fault"),),
        ("no-standing",),
        does=("seat",),
        cites=("§4", "N9"),
        looks_at=(Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.ZERO,)),
        why="Thin film that is forced is marred.",
    )


def _tension(prefix: str) -> tuple[Step, ...]:
    away = Step(
        f"{prefix}tension",
        "Tension",
        _away,
        (
            Case(Has("bed"), "Half turns at the rods away from the bed first, 1½ to 2 in all: firm as a table top. A finer thread takes more."),
            Case(~Has("bed"), "No bed in this shell: half turns at every rod alike, 1½ to 2 in all: firm as a table top."),
        ),
        _R,
        (Point("A rod that turns easier than the others gets a touch more"), Point("Rods beside the bed not on record: taken by the usual place of a strainer, a quarter round from the badge. Look, and go by the bed", Has("bed") & ~Has("bed_on_record")), *found.TENSION_POINTS),
        ("over-tension", "driver"),
        does=("tension",),
        tools=openings.KEYS,
        cites=("P12", "F5"),
        looks_at=(Where.ROD, Where.HOOP, Where.HEAD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.ZERO,)),
        leaves=Leaves(head=HeadIs.TIGHT),
        why="Crosswise keeps the hoop level. Past the first tone, unevenness is tightened in.",
    )  # fmt: skip
    bed = Step(
        f"{prefix}bed-rods",
        "Bed rods",
        _bed,
        "Now the rods beside the bed, last of all, and only until the ripple just goes.",
        _R,
        (
            Point("The creases beside the bed are the bed, not a fault: no further for their sake"),
            Point("All four present and matched; they decide how the wires answer"),
        ),
        ("over-tension",),
        Has("bed"),
        ("tension-bed-rods",),
        openings.KEYS,
        ("P12", "N9"),
        (Where.ROD, Where.HEAD),
        picture="bed-rods",
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,)),
        why="Creases by the bed alarm people, who over-tighten those rods. Without them matched, wires have no firm head to answer.",
    )
    return away, bed


def _clear(prefix: str) -> Step:
    return Step(
        f"{prefix}clear",
        "Clear",
        Clear(),
        "A light soft mallet, {tap}, at each rod; the batter muted, wires off. The film dents, so tap softly.",
        _R,
        (
            Point("A rod that stays low however it is turned: look at its partner opposite"),
            Point(
                "A note of its own is wanted here: the wires will answer whoever else plays it",
                Way("snare_note", "definite"),
            ),
        ),
        ("tapping",),
        does=("read", "clear"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("F2", "F3", "§4"),
        looks_at=(Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="Uncleared, a head warbles: two notes beat against each other.",
    )


_EASED = Has("bed") & Way("bed_rods", "eased")


def _again(side: Side) -> Step:
    return Step(
        f"{side.value}-once-eased",
        f"Clear the {'batter' if side is Side.BATTER else 'snare side'} again",
        Clear(again=True),
        (
            Case(OnSide(_R), "Tap with a light soft mallet, {tap}, at each rod, the batter muted, and even it again."),
            Case(OnSide(Side.BATTER), "Tap {tap} at each rod, same force, the snare side muted, and even it again."),
        ),
        side,
        (Point("Rods beside the bed that read low may be left so, on purpose, where the buzz is gone", OnSide(_R)),),
        ("tapping",),
        _EASED,
        ("read", "clear"),
        (*openings.KEYS, *openings.READ_WITH),
        ("P18", "F2"),
        (Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why=_BOTH_MOVED,
    )


_BOTH_MOVED = "Easing two pairs of rods moves the whole drum: both heads are even only after another round."
_BATTER_TOO = Step(
    "batter-once-eased",
    "Even the batter again",
    Tick(),
    "Tap round the batter, the snare side muted, and nudge up or down what stands out.",
    _R,
    (Point("Much to do: close this job, and clear the batter as a job of its own"),),
    ("tapping",),
    _EASED,
    ("other-head",),
    (*openings.KEYS, *openings.READ_WITH),
    ("P18", "N6"),
    (Where.HEAD, Where.ROD),
    needs=Needs(up=(Up.OTHER,), other=(HeadIs.TIGHT,), lever=Lever.OFF),
    why=_BOTH_MOVED,
)


def ease_and_clear(both: bool) -> tuple[Step, ...]:
    """P18: eased with the wires on, before the last clearing of both heads; in a job on the snare side alone the batter is evened by ear."""
    return _ease(), _again(_R), _again(Side.BATTER) if both else _BATTER_TOO


def _ease() -> Step:
    return Step(
        "ease-bed",
        "Ease the bed rods",
        _eased,
        "Eased bed rods are this workshop’s way against buzz. Turn the rods beside the bed down a quarter turn each, lever off; up to one turn if it still buzzes.",
        _R,
        (Point("Soft strokes still answer; if not, back up"),),
        ("driver",),
        _EASED,
        ("tension-bed-rods",),
        openings.KEYS,
        ("P18",),
        (Where.ROD, Where.WIRES),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), wires=(WiresAre.ON,), lever=Lever.OFF),
        why="Slacker film beside the wires answers other drums less.",
    )


def take_off(prefix: str = "") -> tuple[Step, ...]:
    """Wires free, then the head off."""
    return wires_off(prefix), openings.slacken(_R, prefix), openings.lift_off(_R, prefix)


def put_on(prefix: str = "") -> tuple[Step, ...]:
    """From the bare edge to clear."""
    return _set(prefix), _gate(prefix), _fingers(prefix), _seat(prefix), *_tension(prefix), _clear(prefix)
