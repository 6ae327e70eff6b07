"""The thirteen things the trade disagrees about (§17), each choice with what speaks for it and what against: common practice, no source.

A workshop chooses, and each job may choose otherwise. `way` is the name in `Ways`.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final, Literal

__all__ = ["SCHOOLS", "Choice", "Moment", "School", "school_choice"]

Moment = Literal["before", "fitting", "tension", "clearing", "sound", "after"]


@dataclass(frozen=True, slots=True)
class Choice:
    """One answer to a quarrel."""

    value: str
    words: str
    speaks_for: str
    against: str


@dataclass(frozen=True, slots=True)
class School:
    """One quarrel: `number` in trade §17, `moment` of the work at which it is decided."""

    number: int
    way: str
    moment: Moment
    question: str
    choices: tuple[Choice, ...]


SCHOOLS: Final = (
    School(1, "first_head", "before", "Of two new heads, which goes on first?", (
        Choice("usual", "as the drum wants it", "Bass and snare batter first, toms resonant first.", "Not one rule for all."),
        Choice("resonant", "the resonant", "It is the culprit nobody looks at; done first, it is done.", "The batter’s note is chosen blind."),
        Choice("batter", "the batter", "It gives the note; the other is set against it.", "The resonant is then hurried, being last."),
    )),
    School(13, "old_heads", "before", "What becomes of an old head?", (
        Choice("keep", "kept as a spare", "In an emergency it is better than none.", "A seated film does not sit on another edge."),
        Choice("never", "never kept", "Nothing worn comes back into use.", "On a Sunday night there is no spare."),
    )),
    School(4, "logo", "fitting", "Where does the logo go?", (
        Choice("badge", "at the badge", "Found at a glance; marks rod 1.", "On a floor tom a leg may stand there."),
        Choice("between-lugs", "between two lugs", "Looks even, and is quick to line up.", "Not the same place on every drum."),
        Choice("twelve-oclock", "at twelve o’clock", "The player reads it upright.", "Turns with the drum on its stand."),
        Choice("throw-off", "at the throw-off", "Shows the bed’s line from above.", "Only snares have one; elsewhere it goes to the badge."),
        Choice("opposite-leg", "away from a leg", "Seen from the front of a floor tom.", "Says nothing of rod 1."),
    )),
    School(2, "stretch", "fitting", "How is a new head seated?", (
        Choice("palm", "by palm pressure", "Gentle, quick, and felt in the hand.", "Stretches the middle more than the edge."),
        Choice("over-tension", "over-tension and rest", "Seats the flesh hoop evenly by the rods.", "Takes a rest, and stays within film and rods only with care."),
        Choice("barely", "barely", "The film keeps its whole life.", "It drops more in its first days."),
    )),
    School(3, "after_stretch", "fitting", "After over-tension and rest?", (
        Choice("back", "back to finger-loose, start again", "Turns are counted from an even zero.", "Every rod is turned twice."),
        Choice("up", "straight on from there", "Saves a round.", "The tally no longer starts from fingers."),
    )),
    School(8, "grease", "fitting", "Grease on the threads?", (
        Choice("when-dry", "a spot when dry or gritty", "Only what is needed.", "Dry threads are felt only when turned."),
        Choice("always", "a spot at every rod", "Torque reads true, rods draw alike.", "Too much lets rods walk loose."),
        Choice("never-on-new", "when dry, never on new ones", "New threads come greased enough.", "Some come bone dry."),
        Choice("never", "none", "Nothing to catch dust.", "Dry threads gall and mislead the torque key."),
    )),
    School(9, "pattern", "tension", "In which order are the rods turned?", (
        Choice("star", "star", "The hoop comes down flat from the first turn.", "Hands cross the drum every time."),
        Choice("neighbour-star", "neighbour star", "Every second reach is next door.", "Leans a little within a pass."),
        Choice("plus-cross", "plus, then cross", "Four quarters first: the hoop cannot rock.", "Made for eight rods; ten have no such pairs."),
        Choice("every-third", "every third rod", "Reaches all in three laps without remembering the start.", "Fails where three divides the rods."),
        Choice("every-second", "every second rod", "Good for small even raises.", "Not from slack."),
    )),
    School(7, "means", "clearing", "What are the rods read with?", (
        Choice("pitch", "microphone", "A number anyone can trust and keep.", "Needs a quiet room and the other head muted."),
        Choice("ear", "ear", "Nothing to fetch; trains the ear.", "Small differences are hard to judge."),
        Choice("gauge", "film gauge", "Reads without a sound, beside a running kit.", "Reads the film at one place only."),
        Choice("torque", "torque key", "Fast, and good for a rough set.", "Dirty threads mislead it."),
    )),
    School(5, "evenness", "clearing", "Is even always wanted?", (
        Choice("even", "even everywhere", "A clear note, and a state one can come back to.", "A tom may sing with its neighbours."),
        Choice("some-down", "some rods down on purpose", "Stops a tom singing, deadens a floor tom.", "Nobody else knows it was meant unless it is written down."),
    )),
    School(6, "resonant", "sound", "How does the resonant stand to the batter?", (
        Choice("equal", "the same", "Longest note; where every search begins.", "Can boom in a small room."),
        Choice("higher", "a little higher", "Shorter and punchier; about a minor third for articulation.", "Two notes show if it is too much."),
        Choice("lower", "lower or slack", "Flat and thuddy, falls away fast.", "Little tone at a distance."),
    )),
    School(10, "snare_note", "sound", "Has a snare a note of its own?", (
        Choice("none", "no definite note", "Other instruments do not wake the wires.", "Harder to set again the same."),
        Choice("definite", "a chosen note", "Sits where the music wants it.", "Wires answer whoever else plays that note."),
    )),
    School(11, "bed_rods", "sound", "The rods beside the snare bed?", (
        Choice("matched", "all four matched", "Best answer at a whisper.", "Wires may buzz at another drum’s note."),
        Choice("eased", "eased against buzz", "Less sympathetic buzz.", "Slower at soft strokes, and the head is no longer even there."),
    )),
    School(12, "bass_pitch", "sound", "Where does a bass drum stand?", (
        Choice("lowest", "its lowest clean pitch", "Found by wrinkles, without an ear.", "May be too slack for quick feet."),
        Choice("chosen", "a chosen note", "Fits the kit and comes back the same.", "Hard to hear; the gauge or a mallet helps."),
    )),
)  # fmt: skip


def school_choice(way: str, value: str) -> Choice | None:
    """The answer of this name to a quarrel of this name; None where there is none."""
    school = next((each for each in SCHOOLS if each.way == way), None)
    return next((each for each in school.choices if each.value == value), None) if school else None
