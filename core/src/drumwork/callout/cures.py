"""What can be done in minutes about each thing found, and which ticks a walk before the show offers.

Titles, minutes and shares are our own; what is done is common practice (trade §13), with no published source.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Final, Literal

from drumwork.callout.steps import Phase, TickAsked
from drumwork.drums import DrumKind, Side, traits_of
from drumwork.findings import FINDINGS, LOOKS, FindingKind, Where, findings_for

__all__ = ["CURES", "Cure", "STAND_TICKS", "Weight", "head_named", "ticks_of"]

Weight = Literal["plays", "stands", "rods", "sounds", "noise", "beside"]


@dataclass(frozen=True, slots=True)
class Cure:
    """One answer in minutes. `share` of what the trouble weighs is won by it."""

    title: str
    did: str
    why: str
    minutes: float
    weight: Weight
    phase: Phase = Phase.DRUMS
    parts: tuple[str, ...] = ()
    stop_gap: bool = False
    share: float = 1.0
    caution: str = ""


_C = Cure
_CARE: Final = "Only what holds safely goes under a player; what is cracked or bends stays out."
CURES: Final[Mapping[str, tuple[Cure, ...]]] = {
    # what it stands on
    "leg-missing": (
        _C("Fit a leg", "a leg fitted", "It cannot stand without.", 1, "stands", parts=("leg",)),
        _C("Drumstick in the leg bracket", "a drumstick stands in for a leg", "It holds for tonight.", 1, "stands", parts=("drumstick",), stop_gap=True, share=0.85, caution=_CARE),
    ),
    "leg-slips": (_C("Snug the leg bracket, tape the leg under it", "leg bracket snugged and taped", "Tape under the bracket keeps the leg from sinking.", 1, "stands", stop_gap=True, share=0.9),),
    "foot-missing": (_C("Rubber foot under the bare metal", "a rubber foot fitted", "Bare metal rings and slides.", 0.5, "stands", parts=("rubber foot",), share=0.6),),
    "spur-blunt": (_C("Mat under the spurs", "a mat under blunt spurs", "Blunt spurs do not hold on wood.", 1, "stands", parts=("mat or carpet",), stop_gap=True, share=0.8),),
    "slides": (
        _C("Carpet and brakes under it", "carpet and brakes under it", "It slides a hand’s width in a song.", 1, "stands", parts=("mat or carpet",), share=0.9),
        _C("Spurs out and down to the floor", "its spurs set to the floor", "The points have to touch the floor.", 1, "stands", share=0.5),
    ),
    "mount-stripped": (_C("Snare stand under it", "a snare stand stands in for its mount", "A stripped mount lets go in the middle of a song.", 2, "stands", parts=("snare stand",), stop_gap=True, share=0.95, caution=_CARE),),
    "mount-loose": (_C("Snug the mount", "its mount snugged", "By hand and key, no force.", 1, "stands", share=0.9),),
    # what is heard
    "rattle": (_C("Press part by part until it stops, snug it", "a rattle found and snugged", "A bit of cloth tape holds a loose lug.", 2, "noise"),),
    "casing-loose": (_C("Snug the casing, cloth tape where it lifts", "a loose casing snugged", "A lifted casing rattles and lets its rod go.", 1.5, "noise", share=0.9, stop_gap=True),),
    "vent-blocked": (_C("Snug the vent", "its vent snugged", "It ticks at every stroke.", 0.5, "noise", share=0.7),),
    "muffler-loose": (_C("Move the muffling off the head", "loose muffling moved", "What lies on the head chokes it.", 1, "sounds", Phase.FIRST, share=0.8),),
    # claws and threads
    "claw-missing": (_C("Claw from the bag", "a claw fitted", "Without it the hoop lifts there.", 1.5, "rods", parts=("claw",)),),
    "rod-bent": (_C("Straight rod from the bag", "a bent rod replaced", "A bent rod binds and tells nothing.", 1.5, "rods", parts=("tension rod",), share=0.6),),
    "thread-over-oiled": (_C("Wipe the rod dry, draw it up", "an oily rod wiped and drawn up", "An oily rod walks loose in a song.", 1, "sounds", share=0.5),),
    # wires and strainer
    "wires-slow": (_C("Knob a quarter, then bed rods even", "wires brought to answer", "Slow wires are most often loose.", 1.5, "sounds", Phase.WIRES, share=0.8),),
    "wires-off-centre": (_C("Set the wires again at the butt end", "wires set again", "Off the bed they choke and buzz.", 1.5, "sounds", Phase.WIRES),),
    "wires-not-level": (_C("Level the wires at the butt end", "wires levelled", "One side hanging buzzes alone.", 1.5, "sounds", Phase.WIRES),),
    "wires-stay-on": (_C("Knob back, clamp again", "wires let go again", "They sound with the lever off.", 1, "sounds", Phase.WIRES),),
    "wires-buzz": (_C("Ease the bed rods a hair", "wires kept from buzzing along", "The wires answer another drum’s note.", 1, "noise", Phase.WIRES),),
    "strap-frayed": (_C("Renew the strap or cord", "a strap renewed", "It parts under the lever.", 3, "plays", Phase.WIRES, parts=("strap or cord",)),),
    "strap-stretched": (_C("Take the slack out at the butt clamp", "a stretched strap taken in", "The knob alone no longer reaches.", 1, "sounds", Phase.WIRES, share=0.7, stop_gap=True),),
    "strand-missing": (_C("New set of wires", "new wires fitted", "Too few strands whisper.", 4, "sounds", Phase.WIRES, parts=("snare wires",)),),
    "strand-broken": (_C("New set of wires", "new wires fitted", "A broken strand scratches the head.", 4, "sounds", Phase.WIRES, parts=("snare wires",)),),
    "end-plate-bent": (_C("New set of wires", "new wires fitted", "A bent plate never lies flat.", 4, "sounds", Phase.WIRES, parts=("snare wires",)),),
    "strainer-slips": (_C("Snug the strainer, tape the lever up", "its strainer snugged, the lever taped", "It lets go under hard strokes.", 1, "plays", Phase.WIRES, stop_gap=True, share=0.8),),
    "strainer-wont-drop": (_C("Knob back, free the lever", "its lever freed", "No force: the knob takes the pull off.", 1, "noise", Phase.WIRES, share=0.6),),
    "knob-stripped": (_C("Set the wires at the butt clamp", "wires set at the butt clamp", "The knob does nothing any more.", 2, "sounds", Phase.WIRES, stop_gap=True, share=0.9),),
    "butt-clamp-loose": (_C("Snug the butt clamp", "its butt clamp snugged", "The strap creeps out of it.", 1, "plays", Phase.WIRES, share=0.8),),
    # rope
    "ear-slips": (_C("Set the ear again", "a leather ear set again", "A slipping ear slackens its pair.", 1, "sounds"),),
    "rope-slack-pair": (_C("Carry the slack on", "the rope’s slack carried on", "One slack pair and the head is lost.", 2, "sounds"),),
    # stands
    "felt-missing": (_C("Felt on the stand", "a felt put on", "Metal on metal cracks a cymbal.", 0.5, "beside", Phase.STANDS, parts=("felt",)),),
    "sleeve-missing": (_C("Sleeve on the post", "a sleeve put on", "A bare post wears the hole.", 0.5, "beside", Phase.STANDS, parts=("sleeve",)),),
    "wing-nut-missing": (_C("Wing nut on the stand", "a wing nut put on", "It flies off without.", 0.5, "beside", Phase.STANDS, parts=("wing nut",)),),
    "hat-post-bent": (_C("Turn the post to its smooth spot", "a bent post turned to its smooth spot", "It sticks at one spot only.", 0.5, "beside", Phase.STANDS, stop_gap=True),),
}  # fmt: skip
"""By finding; best first. Heads and missing rods have steps of their own."""

_USUAL_HEAD: Final = (("split", 2), ("dents", 3), ("pitch-lost", 2))
_USUAL: Final = ("leg-missing", "leg-slips", "mount-stripped", "rattle", "slides", "wires-slow", "wires-buzz", "strainer-slips", "rope-slack-pair")  # fmt: skip
STAND_TICKS: Final = tuple(
    TickAsked(row.id, "", LOOKS[row.id].short, rod=False, usual=True)
    for row in FINDINGS.values()
    if row.where is Where.STAND
)


def head_named(kind: DrumKind, side: Side) -> str:
    """'bottom head' of a tom, 'snare side', 'front head' of a bass drum."""
    if side is Side.BATTER:
        return "batter"
    traits = traits_of(kind)
    return "snare side" if traits.wires else "front head" if traits.pedal else "bottom head"


def _head_words(row: FindingKind, kind: DrumKind, side: Side) -> str:
    named = head_named(kind, side)
    short = {"split": "torn", "dents": "cratered", "pitch-lost": "out of tune"}.get(row.id, LOOKS[row.id].short)
    return f"{named} {short}"


def _usual(kind: DrumKind, there: Mapping[str, FindingKind]) -> Iterator[TickAsked]:
    for side in (Side.RESONANT, Side.BATTER):
        if "rod-missing" in there:
            yield TickAsked("rod-missing", side.value, f"rod missing, {head_named(kind, side)}", rod=True, usual=True)
        for known, degree in _USUAL_HEAD:
            if known in there:
                yield TickAsked(
                    known, side.value, _head_words(there[known], kind, side), rod=False, usual=True, degree=degree
                )
    for known in _USUAL:
        if known in there:
            yield TickAsked(known, "", LOOKS[known].short, rod=False, usual=True)


def ticks_of(kind: DrumKind) -> tuple[TickAsked, ...]:
    """What can be ticked at such a drum: what is usual before a show, then all the rest of the vocabulary."""
    there = {row.id: row for row in findings_for(kind) if row.where is not Where.STAND}
    usual = list(_usual(kind, there))
    said = {(each.finding, each.side) for each in usual}
    rest = []
    for row in there.values():
        sided = row.where in (Where.HEAD, Where.ROD, Where.HOOP, Where.EDGE)
        for side in (Side.BATTER, Side.RESONANT) if sided else (None,):
            if (row.id, side.value if side else "") in said:
                continue
            words = _head_words(row, kind, side) if side else LOOKS[row.id].short
            rest.append(TickAsked(row.id, side.value if side else "", words, rod=row.where is Where.ROD, usual=False))
    return (*usual, *rest)
