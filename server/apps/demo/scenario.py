"""Marrow Quay Drum Library: a harbour town's co-operative. Every name, place and person is invented.

It lends drums to a river pageant, a circus school, a theatre pit and a rowing club's drum crew.
"""

from __future__ import annotations

from typing import NamedTuple

NAME = "Marrow Quay Drum Library"
SLUG = "marrow-quay"
BENCH = "boat shed bench"
SEED = 41


PLACES = ("boat shed", "theatre pit store", "rowing club loft")
OWNERS = ("Marrow Quay", "river pageant", "circus school", "theatre pit", "rowing club")


class Line(NamedTuple):
    """A line of heads by what it is made of."""

    name: str
    plies: int
    film_mil: float
    finish: str
    side: str
    damping: str = "none"


LINES = (
    Line("single 10 coated", 1, 10, "coated", "either"),
    Line("single 10 clear", 1, 10, "clear", "either"),
    Line("single 7 fibre", 1, 7.5, "fibre", "batter"),
    Line("double 7+7 clear", 2, 14, "clear", "batter"),
    Line("double 7+7 coated", 2, 14, "coated", "batter"),
    Line("ringed 10 smooth", 1, 10, "smooth-white", "either", "edge-ring"),
    Line("snare side 3", 1, 3, "clear", "resonant"),
    Line("mesh two-layer", 2, 16, "mesh", "batter"),
    Line("calf, grade two", 1, 12, "skin", "either"),
)


class Wires(NamedTuple):
    """A line of snare wires."""

    name: str
    strands: int
    tie: str
    made: str = "coiled"


WIRES = (
    Wires("20 strands, cord", 20, "cord"),
    Wires("16 strands, strap", 16, "strap"),
    Wires("12 cable, cord", 12, "cord", "cable"),
)


class Thing(NamedTuple):
    """A tool or material, and where it lies."""

    name: str
    place: str
    short: bool = False


THINGS = (
    Thing("drum key", "rail over the bench"),
    Thing("second drum key", "rail over the bench"),
    Thing("high-tension key", "rail over the bench"),
    Thing("soft mallet or stick", "jar on the sill"),
    Thing("cloth or padded stool", "by the door"),
    Thing("mat or carpet", "by the door"),
    Thing("rags", "bin under the bench"),
    Thing("light grease", "drawer 2"),
    Thing("tape", "drawer 1"),
    Thing("marker", "drawer 1"),
    Thing("strap or cord", "drawer 4"),
    Thing("damping ring", "hook by the bass rack"),
    Thing("rope", "loft, left"),
    Thing("spare leather ear", "drawer 5", True),
    Thing("felt", "drawer 3", True),
)


class Model(NamedTuple):
    """A sort of drum the library owns: sizes in inches, lug pitches in hertz."""

    kind: str
    diameter: float
    depth: float
    rods: int
    shell: str
    thread: str
    hoops: str
    batter_hz: float | None
    resonant_hz: float | None
    batter_heads: tuple[str, ...]
    resonant_head: str
    port: float | None = None


SINGLE, CLEAR, DOUBLE = "single 10 coated", "single 10 clear", "double 7+7 clear"
MODELS: dict[str, Model] = {
    "snare14": Model(
        "snare", 14, 6, 10, "birch", "7/32-24", "die-cast", 304, 352, (SINGLE, "double 7+7 coated"), "snare side 3"
    ),
    "snare14m": Model("snare", 14, 5.5, 8, "steel", "7/32-24", "triple-flanged", 291, 338, (SINGLE,), "snare side 3"),
    "snare13": Model("snare", 13, 5, 8, "beech", "7/32-24", "triple-flanged", 327, 371, (SINGLE,), "snare side 3"),
    "tom10": Model("rack-tom", 10, 7, 6, "birch", "7/32-24", "triple-flanged", 251, 279, (DOUBLE, SINGLE), CLEAR),
    "tom12": Model("rack-tom", 12, 8, 6, "birch", "7/32-24", "triple-flanged", 214, 238, (DOUBLE, SINGLE), CLEAR),
    "tom13": Model(
        "rack-tom", 13, 9, 6, "poplar", "7/32-24", "triple-flanged", 193, 207, (SINGLE, "double 7+7 coated"), CLEAR
    ),
    "tom13e": Model("rack-tom", 13, 9.5, 8, "ash", "7/32-24", "die-cast", 188, 209, (SINGLE,), CLEAR),
    "floor15": Model("floor-tom", 15, 13, 8, "birch", "7/32-24", "triple-flanged", 175, 208, (SINGLE, DOUBLE), CLEAR),
    "floor16": Model(
        "floor-tom", 16, 15, 8, "birch", "7/32-24", "triple-flanged", 151, 168, (SINGLE, "double 7+7 coated"), CLEAR
    ),
    "floor18": Model("floor-tom", 18, 16, 10, "poplar", "7/32-24", "wood", 126, 137, ("double 7+7 coated",), CLEAR),
    "bass20": Model(
        "bass", 20, 15, 8, "birch", "7/32-24", "claw hoop", 87, 92, ("ringed 10 smooth",), "ringed 10 smooth", 5
    ),
    "bass22": Model(
        "bass", 22, 16, 8, "poplar", "7/32-24", "claw hoop", 73, 79, ("ringed 10 smooth",), "ringed 10 smooth", 4
    ),
    "march20": Model("marching-bass", 20, 14, 8, "birch", "M6", "claw hoop", 119, 119, (CLEAR,), CLEAR),
    "march24": Model("marching-bass", 24, 14, 10, "birch", "M6", "claw hoop", 91, 91, (CLEAR,), CLEAR),
    "march28": Model("marching-bass", 28, 14, 10, "birch", "M6", "claw hoop", 71, 71, (CLEAR,), CLEAR),
    "msnare": Model("marching-snare", 14, 12, 12, "birch", "M6", "die-cast", 412, 438, (CLEAR,), "snare side 3"),
    "orch": Model(
        "orchestral-snare", 14, 6.5, 10, "maple", "7/32-24", "die-cast", 283, 322, ("single 7 fibre",), "snare side 3"
    ),
    "ctom10": Model("concert-tom", 10, 9, 6, "birch", "7/32-24", "triple-flanged", 246, 263, (CLEAR,), CLEAR),
    "ctom12": Model("concert-tom", 12, 11, 6, "birch", "7/32-24", "triple-flanged", 205, 221, (CLEAR,), CLEAR),
    "mesh12": Model(
        "practice-mesh", 12, 5, 6, "poplar", "M5", "triple-flanged", None, None, ("mesh two-layer",), CLEAR
    ),
    "rope26": Model("rope-bass", 26, 18, 0, "oak", "", "rope", None, None, ("calf, grade two",), "calf, grade two"),
}


class DemoDrum(NamedTuple):
    number: int
    name: str
    model: str
    place: int
    owner: int
    kits: tuple[str, ...]


BARGE, PIT, RING, STUDIO, CREW, LOAN = (
    "pageant barge",
    "pit kit",
    "circus ring",
    "circus studio",
    "drum crew",
    "loan kit",
)
DRUMS = (
    DemoDrum(1, "Cormorant", "snare14", 0, 0, (LOAN,)),
    DemoDrum(2, "Lantern", "snare14m", 0, 1, (BARGE,)),
    DemoDrum(3, "Tern", "snare14", 0, 2, (RING,)),
    DemoDrum(4, "Kittiwake", "snare13", 0, 2, (STUDIO,)),
    DemoDrum(5, "Whimbrel", "snare14m", 1, 3, (PIT,)),
    DemoDrum(6, "Avocet", "orch", 1, 3, (PIT,)),
    DemoDrum(7, "Knot", "orch", 1, 3, ()),
    DemoDrum(8, "Ketch", "snare14m", 0, 0, ()),
    DemoDrum(9, "Sanderling", "snare13", 0, 0, ()),
    DemoDrum(10, "Punt", "snare14m", 2, 4, ()),
    DemoDrum(11, "Dunlin", "tom10", 0, 2, (RING,)),
    DemoDrum(12, "Drifter", "tom12", 0, 2, (RING,)),
    DemoDrum(13, "Skua", "tom13", 0, 0, (LOAN,)),
    DemoDrum(14, "Petrel", "tom12", 0, 0, (LOAN,)),
    DemoDrum(15, "Plover", "tom10", 0, 2, (STUDIO,)),
    DemoDrum(16, "Redshank", "tom12", 0, 2, (STUDIO,)),
    DemoDrum(17, "Curlew", "tom13e", 1, 3, (PIT,)),
    DemoDrum(18, "Skiff", "tom10", 1, 3, (PIT,)),
    DemoDrum(19, "Smack", "tom13", 0, 0, ()),
    DemoDrum(20, "Yawl", "tom13e", 0, 0, ()),
    DemoDrum(21, "Wherry", "tom12", 0, 1, (BARGE,)),
    DemoDrum(22, "Cutter", "tom13", 0, 1, (BARGE,)),
    DemoDrum(23, "Lugger", "tom10", 0, 0, ()),
    DemoDrum(24, "Dinghy", "tom12", 2, 4, ()),
    DemoDrum(31, "Gannet", "floor16", 0, 1, (BARGE,)),
    DemoDrum(32, "Bittern", "floor16", 0, 2, (RING,)),
    DemoDrum(33, "Spoonbill", "floor15", 0, 2, (STUDIO,)),
    DemoDrum(34, "Barge", "floor18", 1, 3, (PIT,)),
    DemoDrum(35, "Trawler", "floor16", 0, 0, (LOAN,)),
    DemoDrum(36, "Shelduck", "floor15", 0, 0, ()),
    DemoDrum(37, "Pintail", "floor18", 0, 0, ()),
    DemoDrum(38, "Garganey", "floor15", 2, 4, ()),
    DemoDrum(41, "Heron", "floor15", 0, 0, (LOAN,)),
    DemoDrum(42, "Egret", "floor16", 0, 0, ()),
    DemoDrum(51, "Collier", "bass22", 0, 2, (RING,)),
    DemoDrum(52, "Hulk", "bass22", 0, 0, (LOAN,)),
    DemoDrum(53, "Tug", "bass20", 1, 3, (PIT,)),
    DemoDrum(54, "Dredger", "bass20", 0, 2, (STUDIO,)),
    DemoDrum(55, "Lighter", "bass22", 0, 1, (BARGE,)),
    DemoDrum(56, "Pontoon", "bass20", 0, 0, ()),
    DemoDrum(61, "Stroke", "march20", 2, 4, (CREW,)),
    DemoDrum(62, "Bow", "march24", 2, 4, (CREW,)),
    DemoDrum(63, "Cox", "march28", 2, 4, (CREW,)),
    DemoDrum(64, "Sculler", "march24", 2, 4, (CREW,)),
    DemoDrum(65, "Oarlock", "msnare", 2, 4, (CREW,)),
    DemoDrum(66, "Rudder", "msnare", 2, 4, (CREW,)),
    DemoDrum(67, "Thwart", "msnare", 2, 4, (CREW,)),
    DemoDrum(68, "Ebb", "march20", 0, 1, (BARGE,)),
    DemoDrum(69, "Flood", "march28", 0, 1, (BARGE,)),
    DemoDrum(71, "Coaler", "rope26", 0, 1, (BARGE,)),
    DemoDrum(72, "Brig", "rope26", 0, 1, (BARGE,)),
    DemoDrum(73, "Sloop", "rope26", 0, 1, ()),
    DemoDrum(74, "Barque", "rope26", 1, 3, ()),
    DemoDrum(81, "Moorhen", "mesh12", 0, 2, ()),
    DemoDrum(82, "Coot", "mesh12", 0, 2, ()),
    DemoDrum(83, "Dabchick", "mesh12", 0, 2, ()),
    DemoDrum(91, "Fulmar", "snare14m", 0, 0, ()),
    DemoDrum(92, "Razorbill", "snare14", 0, 0, ()),
    DemoDrum(93, "Guillemot", "tom12", 0, 0, ()),
    DemoDrum(94, "Puffin", "tom10", 0, 0, ()),
    DemoDrum(95, "Shearwater", "floor16", 0, 0, ()),
    DemoDrum(96, "Turnstone", "tom13", 0, 0, ()),
    DemoDrum(97, "Sandpiper", "snare13", 0, 0, ()),
    DemoDrum(98, "Phalarope", "bass22", 0, 0, ()),
    DemoDrum(25, "Grebe", "ctom10", 1, 3, (PIT,)),
    DemoDrum(26, "Smew", "ctom12", 1, 3, (PIT,)),
)
OUT = {"Tug", "Barge", "Skiff", "Fulmar"}
IN_REPAIR = {"Pintail", "Razorbill"}
RETIRED = {"Phalarope"}
LOST_RODS = {"Egret": ("resonant", [4]), "Gannet": ("resonant", [7])}

REASONS = (
    "coat worn through at the centre",
    "will not hold its pitch",
    "dents too deep to play round",
    "dull, no life left",
    "crease by the edge",
    "coating gone where brushes sweep",
)
# Days before the day of loading on which the present batter head was fitted, where it matters to the story.
BATTER_AGE_DAYS = {
    "Heron": 341, "Kittiwake": 388, "Drifter": 402, "Skua": 371, "Petrel": 395, "Plover": 355,
    "Gannet": 408, "Spoonbill": 432, "Wherry": 417, "Trawler": 470, "Stroke": 401,
    "Cormorant": 5, "Lantern": 3, "Curlew": 2, "Dunlin": 2, "Redshank": 1, "Whimbrel": 1, "Shelduck": 0,
}  # fmt: skip
RESONANT_AGE_DAYS = {"Bittern": 985, "Hulk": 1012}
# Rods beside the bed and the port, by how many rods the head has; the strainer a quarter round from the badge.
BESIDE_BED = {8: [2, 3, 6, 7], 10: [2, 3, 7, 8]}
BESIDE_PORT = {8: [3, 4], 10: [4, 5]}
# Days until (negative: since) an open settling check.
CHECKS = {"Cormorant": -3, "Lantern": -1, "Curlew": 0, "Dunlin": 0, "Redshank": 1, "Whimbrel": 1, "Shelduck": 2}
