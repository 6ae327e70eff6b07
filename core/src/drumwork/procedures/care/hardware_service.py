"""Cleaning and hardware service (trade §3.7, §11, §13, §18). Common practice, no published source."""

from __future__ import annotations

from drumwork.findings import Where
from drumwork.procedures.shared import endings
from drumwork.work import effects
from drumwork.work.conditions import Found, Has, Way
from drumwork.work.effects import Effect
from drumwork.work.hand import Leaves, Lever, Up
from drumwork.work.kinds.steps import Stop, Tick
from drumwork.work.plan import DrumFacts, Part, Procedure, Step
from drumwork.work.ways import Ways
from drumwork.work.words import If, Point

__all__ = ["FIT_PART", "HARDWARE_SERVICE"]

_EVERYTHING = (Where.HARDWARE, Where.STAND, Where.ROD, Where.STRAINER, Where.SHELL, Where.HOOP, Where.ANY)

_LAY_OUT = Step(
    "lay-out",
    "Lay out",
    Tick(),
    "Lay the drum on the soft table, cloth under it, a tray for what comes off it.",
    None,
    (Point("One tray a drum; nothing of two drums mixed"), Point("Damp rag before dry rag")),
    ("dust", If(Has("two_people"), "two-people")),
    does=("lay-out",),
    tools=("soft-topped table", "tray", "rags", "small screwdriver", If(~Way("grease", "never"), "light grease")),
    cites=("§3",),
    looks_at=_EVERYTHING,
    leaves=Leaves(up=Up.BATTER),
    why="Parts of two drums in one tray are never sorted again.",
)
_WIPE = Step(
    "wipe",
    "Wipe",
    Tick(),
    "Wipe shell, hoops and the reachable edge damp, then dry. Old coating, mould and dust are never blown off.",
    None,
    (
        Point("Cleaner on the rag, not on the shell; a hidden spot first"),
        Point("Mould or flaking coat: mask and gloves, bag the rag", Found("mould") | Found("flaking-coat")),
        Point("Vent open and snug", Found("vent-blocked")),
    ),
    ("dust", "solvent"),
    does=("clean-edge",),
    tools=("rags", "mild cleaner", "gloves"),
    cites=("§3", "§18"),
    looks_at=(Where.SHELL, Where.HOOP, Where.EDGE, Where.ANY),
    why="Blown dust and mould are breathed in; rubbed dry, grit scratches.",
)
_THREADS = Step(
    "threads",
    "Threads",
    Tick(),
    "Rod by rod: back it off half a turn and up again to where it was. Dry, gritty or too oily shows in the fingers.",
    None,
    (
        Point("A spot of light grease where dry", Way("grease", "when-dry") | Way("grease", "never-on-new")),
        Point("A spot of light grease at every rod; no more", Way("grease", "always")),
        Point("Gritty: wiped in a lightly oiled cloth until the cloth stays clean", Found("thread-gritty")),
        Point("Over-oiled: wiped dry, or it walks loose", Found("thread-over-oiled")),
        Point("Bent: a straight one of the same thread and length", Found("rod-bent")),
        Point("Will not draw or will not turn: no force; it goes to repair", Found("thread-stripped") | Found("rod-seized")),
    ),
    ("driver", "seized", "burrs"),
    Has("rods"),
    ("check-hardware",),
    (If(~Has("high_tension"), "drum key"), If(Has("high_tension"), "high-tension key"), If(~Way("grease", "never"), "light grease")),
    ("§3", "§11"),
    (Where.ROD,),
    why="A dry or dirty thread feels like tension and is not.",
)  # fmt: skip
_SCREWS = Step(
    "screws",
    "Screws",
    Tick(),
    "Snug every casing, mount and plate screw by hand, snug and not hard, from inside where they are inside.",
    None,
    (
        Point("Strainer moves, holds and lets go; its screws snug", Has("wires")),
        Point("Butt clamp snug", Found("butt-clamp-loose")),
        Point("Rattle: press parts one by one until it stops; snug it, or a bit of cloth tape", Found("rattle")),
        Point("Insert that turns with its rod: repair", Found("insert-loose")),
    ),
    does=("check-hardware",),
    tools=("small screwdriver", "cloth tape"),
    cites=("§3", "§13"),
    looks_at=(Where.HARDWARE, Where.STRAINER, Where.ROD),
    why="A loose screw rattles and is heard as a bad head.",
)
_STANDING = Step(
    "standing",
    "What it stands on",
    Tick(),
    "Now what carries it: brackets, feet, mounts, spurs. What is bare metal scratches floors and slides.",
    None,
    (
        Point("Legs straight, brackets hold, a rubber foot on each", Has("legs")),
        Point("Mount holds without force; wing nut with its washer", Has("mount")),
        Point("Spurs sharp, the same length, locked alike", Has("spurs")),
        Point("Felt, sleeve and wing nut on every stand post that goes with it"),
        Point("Bent hi-hat post: turned to the smooth spot until it is replaced", Found("hat-post-bent")),
        Point("Leg missing: fetched or lent with a note, never taken without one", Found("leg-missing")),
        Point("Mount stripped: on a stand until it is repaired", Found("mount-stripped")),
    ),
    does=("check-hardware",),
    tools=("rubber foot", "felt", "sleeve"),
    cites=("§11", "N13"),
    looks_at=(Where.HARDWARE, Where.STAND),
    why="What slides or falls takes the drum with it.",
)
_DECIDE = Step(
    "decide",
    "Decide",
    Tick(),
    "For each thing found: put right here, a part to fetch, a repair owed, or a qualified person. The owner is told, kindly and precisely.",
    None,
    (
        Point("Put right on the bench: say so on the finding"),
        Point("Edge, shell and hoop damage is never filed or glued here"),
    ),
    ("qualified",),
    does=("repair",),
    cites=("N12", "§11"),
    looks_at=_EVERYTHING,
    why="An owner who is not told never has it mended.",
)
_OUT = Step(
    "stop-shell",
    "Stop",
    Stop(),
    "Stop here: a split shell or a lifting ply goes to a qualified person. The drum is out of service until it comes back.",
    None,
    (Point("Tag on it: not to be played"),),
    ("qualified",),
    Found("shell-split") | Found("ply-lifting", 2),
    ("stop",),
    cites=("N12",),
    why="A bench that mends an edge or a shell by guess makes it worse; every head after it suffers.",
)


def _suits(drum: DrumFacts) -> str:
    return ""


def _service(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    close = endings.close(
        None, "Close the job. What was found and done goes into the drum's history.", "Close", writes=False
    )
    return _LAY_OUT, _WIPE, _OUT, _THREADS, _SCREWS, _STANDING, _DECIDE, close


_PART = Step(
    "which",
    "Which part",
    Tick(),
    "Hold the new part beside the old one, or beside its neighbour: same thread, same length, same holes.",
    None,
    (Point("Thread runs by fingers; a part that needs force is the wrong part"), Point("A part from another drum is a loan, and is noted as one")),
    does=("look",),
    cites=("N13",),
    looks_at=_EVERYTHING,
    why="A part of another thread strips what it is forced into.",
)  # fmt: skip
_FIT = Step(
    "fit",
    "Fit it",
    Tick(),
    "Fit it by hand and snug it, not hard. What held its place meanwhile, tape or a stick, comes off.",
    None,
    (Point("Beside a rod: it is taken up to finger-tight; the head is cleared in a job of its own", Has("rods")),),
    ("burrs",),
    does=("repair",),
    tools=("the part", "small screwdriver", If(Has("rods") & ~Has("high_tension"), "drum key"), If(Has("high_tension"), "high-tension key")),
    cites=("§11", "§13"),
    looks_at=_EVERYTHING,
    why="Tightened hard, plates crack and threads strip.",
)  # fmt: skip
_TRY = Step(
    "try",
    "Try it",
    Tick(),
    "Stand the drum as it is used and lean on it, shake it, play it: nothing slips, nothing rattles.",
    None,
    (Point("The finding it answers is put right on the drum's page"),),
    (If(Has("two_people"), "two-people"),),
    does=("mount", "listen-mounted"),
    cites=("N12",),
    looks_at=_EVERYTHING,
    leaves=Leaves(up=Up.PLAYED, lever=Lever.ON),
    why="A part that slips is found here, not on stage.",
)


def _fitting(part: Part, ways: Ways, drum: DrumFacts) -> tuple[Step, ...]:
    close = endings.close(None, "Close the job. The part goes into the drum's history.", "Close", writes=False)
    return _LAY_OUT, _PART, _FIT, _TRY, close


def _service_effects(part: Part) -> tuple[Effect, ...]:
    return (effects.CarryFindings(), effects.Log("done", "Cleaning and hardware service"))


def _fitting_effects(part: Part) -> tuple[Effect, ...]:
    return (effects.CarryFindings(), effects.Log("done", "Part fitted"))


HARDWARE_SERVICE = Procedure(
    id="hardware-service",
    version=1,
    title="Cleaning and hardware",
    parts=(Part.HARDWARE,),
    suits=_suits,
    steps=_service,
    effects=_service_effects,
    cites=("§3", "§11", "§18"),
    minutes=30,
    rank=82,
)
FIT_PART = Procedure(
    id="fit-part",
    version=1,
    title="Fit a part",
    parts=(Part.HARDWARE,),
    suits=_suits,
    steps=_fitting,
    effects=_fitting_effects,
    cites=("§11", "§13", "N13"),
    minutes=10,
    rank=84,
)
