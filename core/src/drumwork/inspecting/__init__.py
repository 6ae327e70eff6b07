"""Looking at drums: the round of one drum, the walk along a shelf, what was seen and where, and what work follows from a verdict."""

from drumwork.inspecting.carry import Known, Standing, carried, drum_of
from drumwork.inspecting.entries import (
    ENTRIES,
    Again,
    Changed,
    GoesOut,
    Gone,
    Looked,
    NotHere,
    Overruled,
    Seen,
    TakenBack,
    WalkEntry,
)
from drumwork.inspecting.fold import DrumLook, Entered, Mark, fold, require_fits
from drumwork.inspecting.note import Note, note_of
from drumwork.inspecting.record import HeadVisit, falls, turned_again
from drumwork.inspecting.spots import Spot, spot_words
from drumwork.inspecting.works import (
    DUE_DAYS,
    ProposedWork,
    due_days,
    parts_taken,
    takes_new_wires,
    turn_over_for,
    works_for,
)

__all__ = [
    "DUE_DAYS", "ENTRIES", "Again", "Changed", "DrumLook", "Entered", "GoesOut", "Gone", "HeadVisit", "Known", "Looked", "Mark", "NotHere", "Note",
    "Overruled", "ProposedWork", "Seen", "Spot", "Standing", "TakenBack", "WalkEntry", "carried", "drum_of", "due_days", "falls", "fold", "note_of",
    "parts_taken", "require_fits", "spot_words", "takes_new_wires", "turn_over_for", "turned_again", "works_for",
]  # fmt: skip
