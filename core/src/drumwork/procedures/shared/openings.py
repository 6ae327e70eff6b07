"""How work on a head begins: lay out, mark, slacken, lift off, clean (trade §3.3–§3.7). Common practice, no published source."""

from __future__ import annotations

from drumwork.drums import Side
from drumwork.findings import Where
from drumwork.procedures.shared import found
from drumwork.procedures.shared.from_zero import over_zero
from drumwork.quantities import Turns
from drumwork.rods.passes import slackening_passes
from drumwork.rods.patterns import from_slack
from drumwork.work.asks import Question
from drumwork.work.cautions import CautionId
from drumwork.work.conditions import ALWAYS, Condition, Has, OnSide, Way
from drumwork.work.hand import HeadIs, Leaves, Lever, Needs, Up
from drumwork.work.kinds.steps import Passes, StepData, Tick
from drumwork.work.plan import DrumFacts, Step
from drumwork.work.tags import Tag
from drumwork.work.ways import Ways
from drumwork.work.words import If, Point

__all__ = [
    "KEYS", "NEEDS_TWO", "READ_WITH", "THROW_OFF", "THROW_OFF_DOWN", "clean", "inside_in", "inside_out", "lay_out", "lift_off", "mark", "ring_out", "slacken",
    "where_it_sits",
]  # fmt: skip

_QUARTER_DOWN = Turns.of(-1, 4)
KEYS: tuple[str | If[str], ...] = (
    If(~Has("high_tension"), "drum key"),
    If(~Has("high_tension"), "second drum key"),
    If(Has("high_tension"), "high-tension key"),
    If(Has("high_tension"), "second high-tension key"),
)
READ_WITH: tuple[str | If[str], ...] = (
    "soft mallet or stick",
    "cloth or padded stool",
    If(Way("means", "gauge"), "film gauge"),
    If(Way("means", "torque"), "torque key"),
)
NEEDS_TWO: If[CautionId] = If(Has("two_people"), "two-people")
THROW_OFF = Point("Throw-off down, so the wires are off the head", Has("wires"))
THROW_OFF_DOWN: If[Tag] = If(Has("wires"), "wires-off")


def lay_out(side: Side | None, head_point: Point, first: Side | None = None) -> Step:
    """Tools and the head, before a rod is touched; what is in the way comes off. The head that is worked on first comes up."""
    return Step(
        "lay-out",
        "Lay out",
        Tick(),
        "Lay out the head, the keys and the table before you touch a rod.",
        side,
        (
            head_point,
            Point("Drum key, better two; soft mallet or stick; rags, light grease, small screwdriver, marker, tape"),
            Point("Soft-topped table"),
            Point("Legs off, kept together", Has("legs")),
            Point("Mount off; rest the drum so the other head is muted", Has("mount")),
            Point("Pedal off, spurs in, nothing leaning on it", Has("pedal")),
            Point("High-tension keys: an ordinary one bends or slips on these rods", Has("high_tension")),
            THROW_OFF,
            *found.NEW_HEAD_POINTS,
        ),
        (NEEDS_TWO,),
        does=("lay-out", THROW_OFF_DOWN),
        tools=(*KEYS, *READ_WITH, "soft-topped table", "the new head"),
        looks_at=(Where.HEAD, Where.HARDWARE),
        leaves=Leaves(up=Up.RESONANT if (first or side) is Side.RESONANT else Up.BATTER, lever=Lever.OFF),
        why="Anything missing is missed now, not with a bare drum in hand. A soft top mutes the lower head.",
    )


def ring_out(side: Side | None) -> Step:
    """What damps a bass drum from outside comes off before it is read, and goes on after (§4)."""
    return Step(
        "ring-out",
        "Ring off",
        Tick(),
        "Take off what damps the drum from outside: ring, gel or tape. It goes on again when the heads are clear.",
        side,
        (Point("Where each piece sat is marked or noted"),),
        when=Has("pedal"),
        does=("ring-out",),
        cites=("§4",),
        looks_at=(Where.HEAD,),
        why="With the ring on, a bass drum gives attack and no tone to read.",
    )


def inside_out(side: Side | None, prefix: str = "", through: Condition = ALWAYS) -> Step:
    """What lies inside a bass drum comes out while a hand comes in: a head is off, or there is a port (§4, §20)."""
    return Step(
        f"{prefix}inside-out",
        "Inside out",
        Tick(),
        "Take out what lies inside: pillow, towel or pad. Shake out dust and splinters with it.",
        side,
        (Point("What it was, and where it lay, in a note"),),
        when=Has("pedal") & through,
        does=("inside-out",),
        cites=("§4", "§9"),
        looks_at=(Where.INSIDE,),
        needs=Needs(reachable=True),
        why="What touches a head hides its pitch.",
    )


def inside_in(side: Side | None, prefix: str = "", through: Condition = ALWAYS) -> Step:
    """And goes in again, as this drum is wanted, before it is closed or through its port."""
    return Step(
        f"{prefix}inside-in",
        "Inside in",
        Tick(),
        "Lay in what belongs inside, as this drum is wanted: pillow, towel or pad, or nothing.",
        side,
        (
            *([Point("Clear of the head that is worked on, until it is cleared")] if through is ALWAYS else []),
            Point("What was put where is noted"),
        ),
        when=Has("pedal") & through,
        does=("muffle-inside",),
        cites=("§3", "§9"),
        looks_at=(Where.INSIDE,),
        needs=Needs(reachable=True),
        why="Damping forgotten while the drum is open costs a head off again.",
    )  # fmt: skip


def mark(side: Side | None, both: bool = False) -> Step:
    """Everything goes back where it was."""
    return Step(
        "mark",
        "Mark",
        Tick(),
        "Mark or photograph where hoop, rods and badge sit. Everything goes back exactly where it was.",
        side,
        (
            Point("A strip of tape on hoop and shell at rod 1" + (", on both sides" if both else "")),
            Point("Rod 1 is the first clockwise of the badge" + (", seen from above the head in hand" if both else "")),
        ),
        does=("mark",),
        tools=("tape", "marker"),
        looks_at=(Where.ROD, Where.HOOP, Where.HEAD),
        asks=tuple(each for one in (Side if side is None else (side,)) for each in where_it_sits(one, side is None)),
        needs=Needs() if both else Needs(head=(HeadIs.TIGHT, HeadIs.SLACK, HeadIs.ZERO)),
        if_so=True,
        why="A warped hoop and a seated head fit only where they sat.",
    )


def where_it_sits(side: Side, both: bool = False) -> tuple[Question, ...]:
    """Where logo and hoop sit, to be said again when they go back."""
    head = f"{side.value} " if both else ""
    return (
        Question(f"logo-{side.value}", f"Its {head}logo sits", round=True, side=side, keeps=f"{side.value} logo was"),
        Question(
            f"hoop-{side.value}",
            f"Its {head}hoop’s seam or dent sits",
            round=True,
            side=side,
            keeps=f"{side.value} hoop’s seam",
        ),
        Question(
            f"rods-{side.value}",
            f"{head}Rods that differ from the others".capitalize(),
            own=True,
            keeps=f"{side.value} rods that differ",
        ),
    )


def _slackening(drum: DrumFacts, side: Side | None, ways: Ways) -> StepData:
    assert side is not None
    passes = slackening_passes(from_slack(drum.layouts[side], ways.pattern), over_zero(drum, side))
    return Passes(passes, _QUARTER_DOWN, down=True, enough="Do fingers turn every rod now?")


def slacken(side: Side, prefix: str = "") -> Step:
    """P11: half turns down at each rod, evenly, the last by quarters."""
    return Step(
        f"{prefix}slacken",
        "Slacken",
        _slackening,
        "Half a turn down at each rod, pair by pair, round after round, the last rounds by quarters, until fingers turn them.",
        side,
        (Point("Never one side first"), Point("Fingers turn every rod sooner: enough"), *found.SLACKEN_POINTS),
        ("driver",),
        does=("slacken",),
        tools=KEYS,
        cites=("P11",),
        looks_at=(Where.ROD, Where.HOOP, Where.HEAD),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.TIGHT,), free=True),
        leaves=Leaves(head=HeadIs.SLACK),
        if_so=True,
        why="Emptied at one side, hoop and shell are pulled over.",
    )


def lift_off(side: Side, prefix: str = "") -> Step:
    return Step(
        f"{prefix}lift-off",
        "Lift off",
        Tick(),
        "Lift hoop and old head off. Leave the rods hanging in the hoop, in order, and set it where it stays clean.",
        side,
        (
            Point("Rods in order in the hoop"),
            Point("Old head kept for the close: it is logged with its reason"),
            Point(
                "It is kept as a spare: its size and this drum’s tag on it. A seated film sits badly on another edge",
                Way("old_heads", "keep"),
            ),
            Point("Claws hang on their rods, each kept with its own", Has("claws")),
            Point("Hoop lifted straight up, its gates clear of the straps", Has("wires") & OnSide(Side.RESONANT)),
            *found.LIFT_POINTS,
        ),
        ("burrs", NEEDS_TWO),
        does=("lift-off",),
        tools=("rags",),
        looks_at=(Where.HOOP, Where.ROD, Where.EDGE),
        needs=Needs(up=(Up.HAND,), head=(HeadIs.SLACK,), free=True),
        leaves=Leaves(head=HeadIs.OFF),
        if_so=True,
        why="Dirt and mixed rods come back as stiff threads.",
    )


def clean(side: Side | None, prefix: str = "") -> Step:
    return Step(
        f"{prefix}clean",
        "Clean",
        Tick(),
        "Clean the edge, the inside and the hoop's inner face. Feel the edge all round.",
        side,
        (
            Point("Dust and splinters tipped out, open side down for a moment"),
            Point("Edge smooth all round, no chip or dip"),
            Point("Casings and mount screws snug by hand, not hard"),
            Point("No rod bent, no thread stripped"),
            Point(
                "A spot of light grease at an insert whose thread is dry or gritty; no more, or rods walk loose",
                Way("grease", "when-dry") | Way("grease", "never-on-new"),
            ),
            Point("New threads come greased: none there", Way("grease", "never-on-new")),
            Point("A spot of light grease at every insert; no more, or rods walk loose", Way("grease", "always")),
            Point("Threads wiped clean; this workshop adds no grease", Way("grease", "never")),
            Point("Muffling inside, if any, goes in now", ~Has("pedal")),
            *found.BARE_POINTS,
        ),
        ("dust", "solvent"),
        does=("clean-edge", "check-hardware", If(~Has("pedal"), "muffle-inside")),
        tools=("rags", "small screwdriver", If(~Way("grease", "never"), "light grease")),
        looks_at=found.BARE_DRUM,
        needs=Needs(up=(Up.HAND,), head=(HeadIs.OFF,)),
        why="Dust under the film spoils contact and tuning, loose screws rattle, and dry threads hide the true pull.",
    )
