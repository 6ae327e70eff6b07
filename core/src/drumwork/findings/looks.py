"""How each finding looks, sounds or feels at its three degrees, the short word on its tick, and on which part of the drum the tick stands.

A degree is told by what can be seen, heard or felt, so that two people call the same dent the same. All of it is common practice, no source.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

from drumwork.drums import DrumKind, Side, traits_of
from drumwork.findings.vocabulary import FindingKind, Where, findings_for

__all__ = ["LOOKS", "PARTS", "Look", "LookedAt", "parts_for", "ticks_for"]

LookedAt = Literal["batter", "resonant", "wires", "shell", "hardware"]
PARTS: Final[tuple[LookedAt, ...]] = ("batter", "resonant", "wires", "shell", "hardware")
"""Where one looks, in the order of the hand: turned over once, then the rest."""


@dataclass(frozen=True, slots=True)
class Look:
    """`short` stands on the tick; `degrees` are three sentences, or one where there is no more or less of it. `usual` ones come first."""

    short: str
    degrees: tuple[str, ...]
    usual: bool = False


_L = Look
LOOKS: Final[Mapping[str, Look]] = {
    # head
    "coat-worn": _L("worn", ("The coat is thinner where the stick lands.", "Film shows through where it is played.", "A bare patch as wide as a hand, or the film under it is scratched."), True),
    "dents": _L("dents", ("Seen against the light, not felt.", "Felt under a finger.", "Craters: the film is pushed in and stays in."), True),
    "creases": _L("creased", ("A fine line that goes when it is tight.", "A line that stays at pitch.", "A fold, or lines from several rods."), True),
    "split": _L("split, hole", ("A split or a hole, however small.",), True),
    "dull": _L("dull", ("A little less ring than its kind.", "Flat and short, wherever it is tapped.", "Choked: a knock, no tone."), True),
    "pitch-lost": _L("loses pitch", ("Lower than it was left, more than others.", "Down again after it was brought back once.", "Down within a day, every time."), True),
    "tear-at-hoop": _L("off its hoop", ("A little glue or film to be seen at the hoop.", "The film has slipped at one place.", "It comes out of the hoop under the hand.")),
    "stretched": _L("slack spot", ("One spot gives more under the thumb.", "A spot stays slack though its rods are up.", "It hangs: no rod brings it to a tone.")),
    "defaced": _L("written on", ("A mark one has to look for.", "Seen from the first row.", "Written over, or stained through.")),
    "wrong-head": _L("wrong kind", ("A head of the wrong kind for this place.",)),
    "run-in-mesh": _L("run in the mesh", ("One thread has gone.", "A run as long as a finger.", "A run across the head, or a hole.")),
    "flesh-hoop-bent": _L("flesh hoop bent", ("It rocks a little on a flat table.", "It stands off the edge at one place.", "Bent so that the hoop does not go over it.")),
    "age": _L("too old", ("Older than this workshop keeps them.",)),
    # wires
    "strand-bent": _L("strands bent", ("One strand out of line.", "Two or three out of line.", "Bent across the whole width.")),
    "strand-broken": _L("strands broken", ("One strand broken.", "Two or three broken.", "More than three, or an end that sticks out.")),
    "strand-missing": _L("strands missing", ("One strand missing.", "Two or three missing.", "More than three missing.")),
    "end-plate-bent": _L("end plate bent", ("A little out of true.", "One corner stands off the film.", "Bent so that half the wires hang.")),
    "strap-stretched": _L("strap stretched", ("The knob has little way left.", "The knob is at its end.", "Knob at its end and the wires still slack.")),
    "strap-frayed": _L("strap frayed", ("A few threads stand out.", "Half its width is frayed.", "It hangs by threads.")),
    "wires-slow": _L("slow to answer", ("Soft strokes are answered late.", "Soft strokes are not answered.", "Dead: they sound only under hard strokes."), True),
    "wires-off-centre": _L("off centre", ("A finger’s width to one side.", "They lie beside the bed’s middle.", "They touch the edge.")),
    "wires-not-level": _L("hang to one side", ("One side a hair lower.", "Light shows under one side.", "One side hangs free.")),
    "wires-stay-on": _L("sound with lever off", ("A whisper with the lever off.", "Plainly there with the lever off.", "No difference between on and off."), True),
    "wires-buzz": _L("buzz at a note", ("At one note, played near.", "When others play.", "Through everything others play."), True),
    # rods
    "rod-missing": _L("rod missing", ("A rod is not there.",), True),
    "rod-bent": _L("rod bent", ("It wobbles a little as it turns.", "It wobbles plainly.", "Bent so that the key cants.")),
    "thread-dry": _L("thread dry", ("A little creak.", "It creaks and sticks.", "It squeals and jumps.")),
    "thread-gritty": _L("thread gritty", ("A little rough.", "Grit is felt all the way.", "It grinds and catches.")),
    "thread-over-oiled": _L("rod walks loose", ("Oil shows at the thread.", "It runs by two fingers under load.", "It is found loose after every use.")),
    "thread-stripped": _L("thread stripped", ("It slips once under load.", "It slips at every turn.", "It does not draw at all.")),
    "rod-seized": _L("rod seized", ("It turns with force only.", "It does not turn with a key.", "It does not turn and its head is worn.")),
    "insert-loose": _L("insert turns", ("It gives a little before it draws.", "It turns with the rod.", "It turns, and is loose in the casing.")),
    "casing-loose": _L("casing loose", ("A screw a little loose.", "The casing moves by hand.", "A screw is missing.")),
    "claw-missing": _L("claw missing", ("A claw is not there.",)),
    "claw-bent": _L("claw bent", ("A little open.", "It sits askew on the hoop.", "It slips off the hoop.")),
    # hoop
    "hoop-bent": _L("hoop bent", ("It rocks a little on a flat table.", "It stands off the head at one place.", "Out of round to the eye.")),
    "hoop-cracked": _L("hoop cracked", ("A hair crack in the finish.", "A crack that opens under tension.", "Cracked through, or nearly.")),
    "gate-wrong": _L("gate not in line", ("The snare gate is not over the bed.",)),
    "hoop-turned": _L("hoop turned", ("It is not in its old place.",)),
    # edge
    "edge-dirty": _L("edge dirty", ("A little dust.", "Old wax or glue felt.", "Lumps that lift the film.")),
    "edge-chipped": _L("edge chipped", ("A nick smaller than a match head.", "A chip the film does not bridge.", "A piece is gone.")),
    "edge-flat": _L("edge flattened", ("A dull spot on the edge.", "Flat for a finger’s length.", "Flat for a hand’s length or more.")),
    "bed-rough": _L("bed rough", ("A little rough.", "Tool marks felt.", "Steps the film lies over.")),
    # shell
    "shell-oval": _L("out of round", ("More play on one side.", "The head goes on only one way.", "The head binds.")),
    "shell-split": _L("shell split", ("A hair line in the finish.", "A split in the wood.", "A split that opens under tension.")),
    "ply-lifting": _L("ply lifting", ("An edge lifts a nail’s width.", "It lifts for a finger’s length.", "Loose for a hand’s length, or it buzzes.")),
    "vent-blocked": _L("vent blocked, loose", ("Dust in it.", "Blocked, or it ticks.", "It rattles through every stroke.")),
    # strainer and butt plate
    "strainer-slips": _L("strainer slips", ("It lets go once an evening.", "It lets go under hard strokes.", "It does not stay up.")),
    "strainer-wont-drop": _L("won’t let go", ("It wants a second push.", "It wants force.", "It does not move.")),
    "knob-stripped": _L("knob stripped", ("It slips at one spot.", "It slips at every turn.", "It does nothing.")),
    "butt-clamp-loose": _L("butt clamp loose", ("A screw a little loose.", "The strap creeps.", "The strap comes out.")),
    # hardware
    "leg-missing": _L("leg missing", ("A leg is not there.",), True),
    "leg-slips": _L("leg slips", ("It sinks over an evening.", "It sinks under hard strokes.", "It does not hold."), True),
    "foot-missing": _L("foot missing", ("A rubber foot is not there.",)),
    "spur-blunt": _L("spur blunt", ("It holds on carpet only.", "It creeps on carpet.", "It does not hold."), True),
    "mount-stripped": _L("mount stripped", ("It wants to be drawn hard.", "It slips under hard strokes.", "It does not hold."), True),
    "mount-loose": _L("mount loose", ("A screw a little loose.", "It moves by hand.", "A screw is missing.")),
    "rattle": _L("rattles", ("Heard close by.", "Heard at every stroke.", "Heard over the drum."), True),
    "slides": _L("slides away", ("A hand’s width in an evening.", "A hand’s width in a song.", "It does not stay.")),
    "muffler-loose": _L("muffling loose", ("It has slipped.", "It lies in the drum.", "It is rotten, or crumbles.")),
    # stand
    "felt-missing": _L("felt missing", ("A felt is not there.",)),
    "sleeve-missing": _L("sleeve missing", ("A sleeve is not there.",)),
    "wing-nut-missing": _L("wing nut missing", ("A wing nut is not there.",)),
    "hat-post-bent": _L("post bent", ("Felt at one spot.", "It sticks at one spot.", "It does not run.")),
    # rope
    "rope-frayed": _L("rope frayed", ("A few fibres stand out.", "A strand is half through.", "A strand has parted."), True),
    "ear-slips": _L("ear slips", ("It creeps over an evening.", "It slips under tension.", "It does not hold."), True),
    "rope-slack-pair": _L("pair slack or tight", ("A little softer or harder than the others.", "Plainly softer or harder.", "It hangs, or it stands like wire."), True),
    # any
    "mould": _L("mould", ("A few spots.", "A patch.", "All over, or it smells of it.")),
    "flaking-coat": _L("old coating flakes", ("It chalks on the finger.", "Flakes at one place.", "It comes off in flakes.")),
}  # fmt: skip
"""By the finding's id; one for every row of the vocabulary."""

_SIDED: Final = (Where.HEAD, Where.ROD, Where.HOOP, Where.EDGE)


def parts_for(kind: DrumKind) -> tuple[LookedAt, ...]:
    """Where such a drum is looked at."""
    return tuple(part for part in PARTS if part != "wires" or traits_of(kind).wires)


def _stands_on(row: FindingKind, part: LookedAt) -> bool:
    if part in (Side.BATTER.value, Side.RESONANT.value):
        below = row.id in ("gate-wrong", "bed-rough")
        return row.where in (*_SIDED, Where.ANY) and not (below and part == Side.BATTER.value)
    if part == "wires":
        return row.where in (Where.WIRES, Where.STRAINER)
    if part == "shell":
        return row.where in (Where.SHELL, Where.INSIDE, Where.ANY)
    return row.where in (Where.HARDWARE, Where.STAND, Where.ROPE)


def ticks_for(kind: DrumKind, part: LookedAt) -> tuple[FindingKind, ...]:
    """What can be ticked on one part of such a drum, what is usual first."""
    rows = [row for row in findings_for(kind) if _stands_on(row, part)]
    order = list(LOOKS)
    return tuple(sorted(rows, key=lambda row: (not LOOKS[row.id].usual, order.index(row.id))))
