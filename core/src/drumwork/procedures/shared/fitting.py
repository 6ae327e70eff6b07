"""Fitting a head: set it, fingers, seat, tension, clear (trade §3.9–§3.14). Common practice, no published source."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import found, openings
from drumwork.procedures.shared.from_zero import FROM_ZERO
from drumwork.quantities import Turns
from drumwork.rods.passes import PassPlan, wrinkle_passes
from drumwork.rods.patterns import from_slack
from drumwork.sources import common_practice
from drumwork.work.asks import Option, Question, read_and_done
from drumwork.work.conditions import Chose, Condition, Has, OnSide, Way
from drumwork.work.hand import HeadIs, Leaves, Lever, Needs, Up
from drumwork.work.kinds.steps import Clear, Passes, StepData, Tick
from drumwork.work.plan import DrumFacts, Step
from drumwork.work.ways import ResonantPitch, Ways
from drumwork.work.words import Case, If, Point

__all__ = ["clear", "cut", "fingers", "foam", "port", "seat", "set_head", "some_down", "tension", "wrinkles"]

_HALF = Turns.from_fraction(common_practice.HALF_TURN)
_QUARTER = Turns.from_fraction(common_practice.QUARTER_TURN)
_EIGHTH = Turns.of(1, 8)
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
            Point("Flexed in the fingers all round first, where that is your way; never a thin film"),
            Point("Head slides freely, sits flat all round"),
            Point("Hoop on its marks"),
            Point("Greasy rods kept off the film"),
            Point("Protector strip on the hoop where the pedal clamps", Has("pedal") & OnSide(Side.BATTER)),
            Point("Port where it was, clear of the rods", Has("port") & OnSide(Side.RESONANT)),
        ),
        does=("set-head", "set-hoop"),
        tools=(If(Has("pedal") & OnSide(Side.BATTER), "hoop protector"),),
        looks_at=(Where.HEAD, Where.HOOP, Where.SHELL),
        recalls=tuple(f"{each}-{side.value}" for each in ("logo", "hoop", "rods")),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.OFF,)),
        leaves=Leaves(head=HeadIs.SLACK),
        why="One place for the logo brings back the old seat. A hoop put back elsewhere pulls unevenly.",
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
            Point("Rods started from loose: seven or eight turns each until they close up", Has("mount")),
            Point("As tight as fingers go, all alike. This is the even zero the tally counts from"),
            Point("Where fingers find no room: the key, to first resistance"),
            Point("Tap it here already: an odd spot now is a head that sits askew"),
            Point("Logo turned now while the drum is worn, if it is to be read upright", Has("foam")),
            *found.FINGER_POINTS,
        ),
        does=("start-rods", "finger-tight"),
        tools=(If(Has("claws"), "claws in order"),),
        looks_at=(Where.ROD, Where.HOOP, Where.SHELL),
        zero=True,
        needs=Needs(up=(Up.HAND,), head=(HeadIs.SLACK,)),
        leaves=Leaves(head=HeadIs.ZERO),
        why="Fingers load all rods alike, so counts from here mean something. Off centre, a head gets odd spots.",
    )


_R = OnSide(Side.RESONANT)
_LOWEST = Has("pedal") & Way("bass_pitch", "lowest")
_PALM, _OVER, _BARELY = (Way("stretch", name) for name in ("palm", "over-tension", "barely"))


def seat(side: Side, prefix: str = "") -> Step:
    return Step(
        f"{prefix}seat",
        "Seat",
        Tick(),
        (
            Case(_PALM, "Press the middle with your palm, then all round the edge. Creaks and ticks are the film seating."),
            Case(
                _OVER & Way("after_stretch", "up"),
                "Take every rod up evenly well past pitch, let it rest five minutes, then ease to pitch from there. Turns are counted from fingers.",
            ),
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
            Point("Pressed again between the passes that follow, where that is your way", _PALM),
            Point("Rods still even by finger; take up any that went loose", _PALM),
            Point("Taken up evenly", _OVER),
            Point("Rested five minutes", _OVER),
            Point("Backed off to fingers, all rods even again", _OVER & Way("after_stretch", "back")),
            Point("Flesh hoop sits down all round", _BARELY),
        ),
        ("no-standing", If(_OVER, "over-tension")),
        does=("seat", "stretch"),
        looks_at=(Where.HEAD, Where.ROD, Where.HOOP),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.ZERO,)),
        why="Film that was not stretched drops in the first show.",
    )  # fmt: skip


def _tensioning(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    sizes = FROM_ZERO[drum.kind]
    if side is Side.RESONANT and ways.resonant is ResonantPitch.HIGHER:
        sizes = (*sizes, _QUARTER)  # P17: then a further quarter turn each
    order = from_slack(drum.layouts[side], ways.pattern)
    return Passes(tuple(PassPlan(each, order) for each in sizes), _QUARTER)


def _wrinkling(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    order = from_slack(drum.layouts[side], ways.pattern)
    return Passes(wrinkle_passes(order), Turns.of(-1, 16), enough="Has the wrinkle shown and just gone, at every rod?")


def wrinkles(side: Side, prefix: str = "", when: Condition = _LOWEST) -> Step:
    """P14: each rod finds its own edge."""
    return Step(
        f"{prefix}wrinkles",
        "Wrinkles",
        _wrinkling,
        "Palm light on the middle. At each rod: down until a wrinkle shows there, up until it just goes; only then the next rod.",
        side,
        (
            Point("Eye low across the film, on the reflection at the edge: the wrinkle shows as a soft line from the rod inward"),
            Point("A rod that goes loose before a wrinkle shows is left at finger-tight"),
            Point("Flaps under the beater: a quarter turn more all round"),
        ),
        ("driver", "over-tension"),
        when=when,
        does=("tension",),
        tools=openings.KEYS,
        cites=("P14",),
        looks_at=(Where.ROD, Where.HEAD, Where.HOOP),
        picture="wrinkles",
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,)),
        why="Each rod finds its own edge, which ears cannot.",
    )  # fmt: skip


def tension(side: Side, prefix: str = "") -> Step:
    return Step(
        f"{prefix}tension",
        "Tension",
        _tensioning,
        (
            Case(
                _LOWEST,
                "Equal small turns at each rod, crosswise, until it plainly resonates: a hand on the film feels it take.",
            ),
            Case(~_LOWEST, "Equal small turns at each rod until every ripple is gone and it has a tone."),
        ),
        side,
        (
            Point("A rod that turns easier than the others gets a touch more"),
            Point("Creaks and ticks are normal: film or glue settling"),
            Point(
                "Resonant higher is this workshop’s way: the last quarter turn makes it so",
                _R & Way("resonant", "higher"),
            ),
            Point(
                "Resonant lower is this workshop’s way: stop as soon as the ripples are gone",
                _R & Way("resonant", "lower"),
            ),
            *found.TENSION_POINTS,
        ),
        ("over-tension",),
        does=("tension",),
        tools=openings.KEYS,
        cites=("P10", "P13", "P14"),
        looks_at=(Where.ROD, Where.HOOP, Where.HEAD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.ZERO,)),
        leaves=Leaves(head=HeadIs.TIGHT),
        why="Crosswise keeps the hoop level. Past the first tone, unevenness is tightened in.",
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
        points=(
            Point("A rod that stays low however it is turned: look at its partner opposite"),
            Point(
                "Readings at the rods beside the port are trusted less; a ring on its edge calms them", Has("port") & _R
            ),
            Point(
                "A note of its own is wanted here: the wires will answer whoever else plays it",
                Has("wires") & Way("snare_note", "definite"),
            ),
        ),
        does=("read", "clear"),
        tools=(*openings.KEYS, *openings.READ_WITH),
        cites=("F2", "F3"),
        looks_at=(Where.HEAD, Where.ROD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), lever=Lever.OFF),
        why="Uncleared, a head warbles: two notes beat against each other.",
    )


def some_down(side: Side, prefix: str = "") -> Step:
    """The school that leaves a rod or two down on purpose (§6, §17.5)."""
    return Step(
        f"{prefix}some-down",
        "Some down",
        Tick(),
        "Some rods down on purpose is this workshop’s way: sound the drum beside its neighbours, and ease a rod or two by a hair if it sings.",
        side,
        (Point("Which rods, and how far, written in a note"), Point("Left even if nothing sings")),
        when=Way("evenness", "some-down") & ~Has("wires"),
        does=("target",),
        tools=openings.KEYS,
        cites=("§6", "P19"),
        looks_at=(Where.ROD, Where.HEAD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,)),
        why="A rod or two slightly down can stop a drum from singing with its neighbours.",
    )


def foam(side: Side, prefix: str = "") -> Step:
    """Inside a marching bass before its head goes on (§4, C6)."""
    return Step(
        f"{prefix}foam",
        "Foam",
        Tick(),
        "Foam goes inside now, before the head: a strip along the edge, where this head asks for it. A pre-damped head takes none.",
        side,
        (Point("Strip even all round, not touching the film"), Point("Old foam that crumbles comes out whole")),
        ("solvent",),
        Has("foam"),
        ("muffle-inside",),
        ("foam strip", "scissors"),
        ("C6", "§4"),
        (Where.INSIDE,),
        picture="foam",
        needs=Needs(head=(HeadIs.OFF,)),
        why="Later, foam is out of reach.",
    )


def port(side: Side, prefix: str = "") -> Step:
    """A ported front head: chosen ready, or cut (§4, F8)."""
    return Step(
        f"{prefix}port",
        "Port",
        Tick(),
        "A port belongs in this head. A ready-ported one is the better choice; to cut one, mark it on the bench before the head goes on.",
        side,
        (
            Point("About {mm:150} across, its edge a hand’s breadth from the hoop, not in line with a rod"),
            Point("Cut flat on a board, in one slow turn; no nick in the edge, or it tears from there"),
            Point("A ring on the edge: it calms the head and covers the cut"),
            Point("The rods beside it are disturbed and watched when it is cleared"),
        ),
        ("cutting",),
        Has("port") & OnSide(Side.RESONANT),
        ("port",),
        ("port template", "cutter", "cutting board", "port ring", "gloves"),
        ("F8", "§4", "C5"),
        (Where.HEAD,),
        picture="port",
        asks=(
            Question("port", "The port is", PORT, needed=True),
            Question("port-size", "How wide", unit="length", keeps="port width"),
            Question("port-place", "Where", PORT_PLACE, own=True, keeps="port place"),
        ),
        needs=Needs(head=(HeadIs.OFF,)),
        why="On the drum, one slip costs head and edge.",
    )


PORT = (
    Option("ready", "there already: a ready-ported head"),
    Option("cut", "to be cut here"),
    Option("none", "left out this time"),
)
PORT_PLACE = (
    Option("four", "at four o’clock"),
    Option("eight", "at eight o’clock"),
    Option("middle", "in the middle"),
)


def cut(side: Side, prefix: str = "") -> Step:
    """The cut itself, where one was chosen."""
    return Step(
        f"{prefix}cut",
        "Cut the port",
        Tick(),
        "Mark it by the template, clamp the head flat on the board, and cut in one slow turn away from the hand that holds.",
        side,
        (
            Point("Edge looked along: no nick; a ring on it at once"),
            Point("The piece and the blade put away before the head is moved"),
        ),
        ("cutting",),
        Has("port") & OnSide(Side.RESONANT) & Chose("port", "cut"),
        ("port",),
        ("port template", "cutter", "cutting board", "port ring", "gloves"),
        ("F8", "§4", "§18"),
        (Where.HEAD,),
        picture="port",
        asks=(read_and_done("cutting-read", "gloves on, work clamped, nobody beside me"),),
        recalls=("port-size", "port-place"),
        needs=Needs(head=(HeadIs.OFF,)),
        why="A nick in the cut is where the head tears.",
    )
