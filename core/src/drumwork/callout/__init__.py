"""Call-outs: what helps most in the minutes there are, which drum gives a rod to which, and the note to the owner."""

from drumwork.callout.bag import BagLine, PastCallout, bag_for, parts_of
from drumwork.callout.book import DrumThere, HeadThere, bag_part, make_book
from drumwork.callout.entries import CALLOUT_ENTRIES, CalloutEntry
from drumwork.callout.fold import (
    Entered,
    Now,
    Standing,
    fold_callout,
    minutes_left,
    open_steps,
    parts_left,
    plan_now,
)
from drumwork.callout.lending import Donor, Gap, Offer, Refusal, gap_at, who_lends
from drumwork.callout.letter import (
    DrumNote,
    Letter,
    LetterForm,
    TickNoted,
    letter_form,
    letter_of,
    open_keys,
    words_of,
)
from drumwork.callout.order import Planned, Task, plan_callout, worst_first
from drumwork.callout.steps import OWN_SNARE, Book, BookDrum, Given, Phase, Step, TickAsked, Weights, tick_key

__all__ = [
    "CALLOUT_ENTRIES", "OWN_SNARE", "BagLine", "Book", "BookDrum", "CalloutEntry", "Donor", "DrumNote", "DrumThere", "Entered", "Gap", "Given",
    "HeadThere", "Letter", "LetterForm", "Now", "Offer", "PastCallout", "Phase", "Planned", "Refusal", "Standing", "Step", "Task", "TickAsked", "TickNoted", "Weights", "bag_for",
    "bag_part", "fold_callout", "gap_at", "letter_form", "letter_of", "make_book", "minutes_left", "open_keys", "open_steps", "parts_left", "parts_of",
    "plan_callout", "plan_now", "tick_key", "who_lends", "words_of", "worst_first",
]  # fmt: skip
