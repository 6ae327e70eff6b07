"""The vocabulary of what is found on a drum: id, where it sits, words, the usual answer, and what is owed by it.

All of it is common practice, with no published source.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final, Literal

from drumwork.drums import DrumKind, traits_of
from drumwork.errors import BadFinding
from drumwork.rods.layout import RodLayout

__all__ = ["FINDINGS", "Degree", "FindingKind", "Follow", "Place", "Where", "finding", "findings_for", "require_place"]

Degree = Literal[1, 2, 3]
"""1 slight, 2 plain, 3 bad."""


class Where(StrEnum):
    """The part of a drum a finding sits on."""

    HEAD = "head"
    ROD = "rod"
    HOOP = "hoop"
    EDGE = "edge"
    SHELL = "shell"
    WIRES = "wires"
    STRAINER = "strainer"
    HARDWARE = "hardware"
    INSIDE = "inside"
    STAND = "stand"
    ROPE = "rope"
    ANY = "any"


class Follow(StrEnum):
    """What is owed after the job, where it was not put right on the bench."""

    REPLACE = "replace"
    FETCH = "fetch"
    REPAIR = "repair"
    QUALIFIED = "qualified"
    ADJUST = "adjust"
    LOOK = "look"


@dataclass(frozen=True, slots=True)
class FindingKind:
    """One row of the vocabulary. `part` is what to fetch, where something is; `tools` what it takes to answer it on the bench."""

    id: str
    where: Where
    words: str
    answer: str
    follow: Follow
    part: str = ""
    degrees: bool = True
    tools: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Place:
    """Where on the drum: a side for heads, hoops, edges and rods, the rod for what sits at one. Empty where the part is one alone."""

    side: str = ""
    rod: int | None = None

    def words(self) -> str:
        at = f"rod {self.rod}" if self.rod is not None else ""
        return ", ".join(each for each in (self.side, at) if each)


_F = FindingKind
_TABLE: Final = (
    # head
    _F("coat-worn", Where.HEAD, "coating worn through", "replace when plain in the playing area", Follow.REPLACE),
    _F("dents", Where.HEAD, "dents", "slight or plain: playable; craters: replace; sooner on a resonant head", Follow.REPLACE),
    _F("creases", Where.HEAD, "creases (not those beside a snare bed)", "replace", Follow.REPLACE),
    _F("stretched", Where.HEAD, "slack spot that will not come up", "replace", Follow.REPLACE),
    _F("tear-at-hoop", Where.HEAD, "film pulling out of its hoop", "replace before it goes out", Follow.REPLACE),
    _F("split", Where.HEAD, "split or hole", "replace before it goes out", Follow.REPLACE, degrees=False),
    _F("defaced", Where.HEAD, "written on, stained", "replace for the stage", Follow.REPLACE),
    _F("pitch-lost", Where.HEAD, "does not hold pitch", "recheck the rods once, then replace", Follow.REPLACE),
    _F("dull", Where.HEAD, "dull or choked", "the other head first; then replace", Follow.REPLACE),
    _F("wrong-head", Where.HEAD, "a head of the wrong kind", "replace at the next bench day", Follow.REPLACE, degrees=False),
    _F("run-in-mesh", Where.HEAD, "a run in the mesh", "return it if new; replace", Follow.REPLACE),
    _F("flesh-hoop-bent", Where.HEAD, "flesh hoop bent", "return it if new; replace", Follow.REPLACE),
    _F("age", Where.HEAD, "older than this workshop keeps", "look, then decide", Follow.LOOK, degrees=False),
    # wires
    _F("strand-bent", Where.WIRES, "strands bent", "replace", Follow.REPLACE, "snare wires", tools=("snare wires",)),
    _F("strand-broken", Where.WIRES, "strands broken", "replace", Follow.REPLACE, "snare wires", tools=("snare wires",)),
    _F("strand-missing", Where.WIRES, "strands missing", "replace", Follow.REPLACE, "snare wires", tools=("snare wires",)),
    _F("end-plate-bent", Where.WIRES, "end plate bent", "replace", Follow.REPLACE, "snare wires", tools=("snare wires",)),
    _F("strap-stretched", Where.WIRES, "strap or cord stretched", "renew", Follow.FETCH, "strap or cord", tools=("strap or cord",)),
    _F("strap-frayed", Where.WIRES, "strap or cord frayed", "renew", Follow.FETCH, "strap or cord", tools=("strap or cord",)),
    _F("wires-slow", Where.WIRES, "dead or slow to answer", "snare-side head and bed rods first; then wires", Follow.ADJUST),
    _F("wires-off-centre", Where.WIRES, "off centre", "set again", Follow.ADJUST),
    _F("wires-not-level", Where.WIRES, "hanging to one side", "set again", Follow.ADJUST),
    _F("wires-stay-on", Where.WIRES, "sound with the lever off", "knob back, clamp again", Follow.ADJUST),
    _F("wires-buzz", Where.WIRES, "buzz at another note", "bed rods by this workshop's way; wanted pitches", Follow.ADJUST),
    # rods
    _F("rod-missing", Where.ROD, "rod missing", "fetch or lend; bed rods and low-tension drums first", Follow.FETCH, "tension rod", degrees=False, tools=("rod of the same thread and length",)),
    _F("rod-bent", Where.ROD, "rod bent", "replace it", Follow.FETCH, "tension rod", tools=("straight rod of the same thread and length",)),
    _F("thread-dry", Where.ROD, "thread dry", "a spot of light grease", Follow.ADJUST, tools=("light grease",)),
    _F("thread-gritty", Where.ROD, "thread gritty", "wipe it in a lightly oiled cloth", Follow.ADJUST, tools=("lightly oiled cloth",)),
    _F("thread-over-oiled", Where.ROD, "too much or too thin oil; the rod walks loose", "wipe dry", Follow.ADJUST, tools=("dry rag",)),
    _F("thread-stripped", Where.ROD, "thread stripped, the rod will not draw", "insert or casing: repair", Follow.REPAIR, "insert", tools=("spare insert",)),
    _F("rod-seized", Where.ROD, "rod will not turn", "no force; repair", Follow.REPAIR),
    _F("insert-loose", Where.ROD, "insert turns with the rod", "repair", Follow.REPAIR, "insert", tools=("spare insert",)),
    _F("casing-loose", Where.ROD, "casing or its screws loose", "snug by hand", Follow.ADJUST, tools=("small screwdriver",)),
    _F("claw-missing", Where.ROD, "claw missing", "fetch", Follow.FETCH, "claw", degrees=False, tools=("claw",)),
    _F("claw-bent", Where.ROD, "claw bent", "fetch", Follow.FETCH, "claw", tools=("claw",)),
    # hoop
    _F("hoop-bent", Where.HOOP, "hoop out of round", "mark its place; repair or replace", Follow.REPAIR, "counter hoop", tools=("tape",)),
    _F("hoop-cracked", Where.HOOP, "hoop cracked", "mark its place; repair or replace", Follow.REPAIR, "counter hoop", tools=("tape",)),
    _F("gate-wrong", Where.HOOP, "snare gate not in line", "off and on again before any tension", Follow.ADJUST, degrees=False),
    _F("hoop-turned", Where.HOOP, "not in its old place", "turn back", Follow.ADJUST, degrees=False),
    # edge
    _F("edge-dirty", Where.EDGE, "dust, old wax", "wipe", Follow.ADJUST, tools=("damp rag",)),
    _F("edge-chipped", Where.EDGE, "edge chipped", "qualified person", Follow.QUALIFIED, tools=("tape", "marker")),
    _F("edge-flat", Where.EDGE, "edge flattened", "qualified person", Follow.QUALIFIED, tools=("tape", "marker")),
    _F("bed-rough", Where.EDGE, "rough snare bed", "qualified person", Follow.QUALIFIED, tools=("tape", "marker")),
    # shell
    _F("shell-oval", Where.SHELL, "play to one side, out of round", "centre the head; qualified person", Follow.QUALIFIED),
    _F("shell-split", Where.SHELL, "shell split", "take out of service; qualified person", Follow.QUALIFIED, tools=("tag and tape",)),
    _F("ply-lifting", Where.SHELL, "ply lifting", "take out of service; qualified person", Follow.QUALIFIED, tools=("tag and tape",)),
    _F("vent-blocked", Where.SHELL, "vent blocked or rattling", "clean, snug", Follow.ADJUST, tools=("small brush",)),
    # strainer and butt plate
    _F("strainer-slips", Where.STRAINER, "strainer slips", "screws, knob; repair", Follow.REPAIR, "strainer", tools=("small screwdriver",)),
    _F("strainer-wont-drop", Where.STRAINER, "strainer will not let go", "screws, knob; repair", Follow.REPAIR, "strainer", tools=("small screwdriver",)),
    _F("knob-stripped", Where.STRAINER, "fine-tension knob stripped", "repair", Follow.REPAIR, "fine-tension knob"),
    _F("butt-clamp-loose", Where.STRAINER, "butt clamp loose", "snug", Follow.ADJUST, tools=("small screwdriver",)),
    # hardware
    _F("leg-missing", Where.HARDWARE, "leg missing", "fetch or repair", Follow.FETCH, "leg", degrees=False, tools=("drumstick as a stop-gap",)),
    _F("leg-slips", Where.HARDWARE, "leg slips", "fetch or repair", Follow.REPAIR, "leg bracket"),
    _F("foot-missing", Where.HARDWARE, "rubber foot missing", "fetch", Follow.FETCH, "rubber foot", degrees=False, tools=("rubber foot",)),
    _F("spur-blunt", Where.HARDWARE, "spur blunt", "fetch or repair", Follow.FETCH, "spur", tools=("spur",)),
    _F("mount-stripped", Where.HARDWARE, "mount stripped", "repair; a stand as a stop-gap", Follow.REPAIR, "mount", tools=("stand as a stop-gap",)),
    _F("mount-loose", Where.HARDWARE, "mount loose", "repair; a stand as a stop-gap", Follow.ADJUST, tools=("small screwdriver",)),
    _F("rattle", Where.HARDWARE, "rattles", "find it by pressing; snug, or a bit of cloth tape", Follow.ADJUST, tools=("cloth tape",)),
    _F("slides", Where.HARDWARE, "slides away", "spurs, mat, carpet", Follow.ADJUST, tools=("mat or carpet",)),
    _F("muffler-loose", Where.INSIDE, "muffling loose or rotten", "remove, renew", Follow.ADJUST, "muffling", tools=("muffling",)),
    # stand
    _F("felt-missing", Where.STAND, "felt missing", "fetch", Follow.FETCH, "felt", degrees=False, tools=("felt",)),
    _F("sleeve-missing", Where.STAND, "sleeve missing", "fetch", Follow.FETCH, "sleeve", degrees=False, tools=("sleeve",)),
    _F("wing-nut-missing", Where.STAND, "wing nut missing", "fetch", Follow.FETCH, "wing nut", degrees=False, tools=("wing nut",)),
    _F("hat-post-bent", Where.STAND, "bent post", "turn to the smooth spot; replace", Follow.FETCH, "hi-hat post"),
    # rope
    _F("rope-frayed", Where.ROPE, "rope frayed", "renew", Follow.FETCH, "rope", tools=("rope",)),
    _F("ear-slips", Where.ROPE, "ear slips", "set", Follow.ADJUST, "ear", tools=("leather ear",)),
    _F("rope-slack-pair", Where.ROPE, "a pair slack or tight", "carry the slack on", Follow.ADJUST),
    # any
    _F("mould", Where.ANY, "mould", "mask, gloves, damp wipe", Follow.ADJUST, tools=("mask", "gloves", "bag for the rag")),
    _F("flaking-coat", Where.ANY, "flaking old coating", "mask, gloves, damp wipe", Follow.ADJUST, tools=("mask", "gloves", "bag for the rag")),
)  # fmt: skip
FINDINGS: Final[Mapping[str, FindingKind]] = {each.id: each for each in _TABLE}

_SIDED: Final = (Where.HEAD, Where.ROD, Where.HOOP, Where.EDGE)
_NO_FILM: Final = {"coat-worn", "dull", "stretched", "pitch-lost"}
_GATE_OR_BED: Final = {"gate-wrong", "bed-rough"}


def finding(known: str) -> FindingKind:
    """The row with this id.

    Raises
    ------
    BadFinding
        for an id that is not in the vocabulary.
    """
    if known not in FINDINGS:
        raise BadFinding(f"Nothing is known by the name “{known}”. Choose one of what can be found.", finding=known)
    return FINDINGS[known]


def _suits(each: FindingKind, kind: DrumKind) -> bool:
    traits = traits_of(kind)
    match each.where:
        case Where.WIRES | Where.STRAINER:
            return traits.wires
        case Where.ROD:
            return traits.rods and (traits.claws or not each.id.startswith("claw"))
        case Where.ROPE:
            return not traits.rods
        case Where.HARDWARE:
            need = {
                "leg": traits.legs,
                "foot": traits.legs,
                "spur": traits.spurs,
                "mount": traits.mount,
                "slides": traits.spurs,
            }
            return need.get(each.id.split("-")[0], True)
        case Where.HEAD:
            mesh = kind is DrumKind.PRACTICE_MESH
            return mesh if each.id == "run-in-mesh" else not (mesh and each.id in _NO_FILM)
        case _:
            return traits.wires or each.id not in _GATE_OR_BED


def findings_for(kind: DrumKind) -> tuple[FindingKind, ...]:
    """What can be found on such a drum, in the vocabulary's order; nothing about a part it lacks."""
    return tuple(each for each in _TABLE if _suits(each, kind))


def require_place(found: FindingKind, kind: DrumKind, layouts: Mapping[str, RodLayout | None], place: Place) -> None:
    """Raise where such a thing cannot be found there. `layouts` has the sides a job is about, with their rods where they have any.

    Raises
    ------
    BadFinding
        for a drum or side that has no such part, or a rod's finding without its rod.
    BadLayout
        for a rod this head does not have.
    """
    if not _suits(found, kind):
        raise BadFinding(f"A {traits_of(kind).words} has no such part: {found.words}.", finding=found.id)
    if place.side and place.side not in layouts:
        raise BadFinding(f"This job is not about a {place.side} head.", side=place.side)
    if found.where in _SIDED and not place.side:
        raise BadFinding(f"Say on which side: {found.words}.", finding=found.id)
    if found.where is Where.ROD and place.rod is None:
        raise BadFinding(f"Say at which rod: {found.words}.", finding=found.id)
    if place.rod is not None:
        if not place.side:
            raise BadFinding("Say on which side that rod is.", rod=place.rod)
        layout = layouts[place.side]
        if layout is None:
            raise BadFinding(f"A {traits_of(kind).words} has no rods.", rod=place.rod)
        layout.require(place.rod)
