"""The shelf: what lies there and how it came and went, what planned work takes of it, what is to be bought, and all of it as a sheet."""

from drumwork.shelf.allot import Allotted, Buy, Kept, Need, Readiness, allot
from drumwork.shelf.arrival import ARRIVALS, Arrival, arrivals_for
from drumwork.shelf.lines import LENGTHS, Sort, fits_wires, sort_of
from drumwork.shelf.movements import EXPLAINED, MOST, WAYS, BelowNought, Move, Way, Why, moves
from drumwork.shelf.sheet import COLUMNS, BadRow, BadSheet, SheetRow, read_sheet

__all__ = [
    "ARRIVALS", "COLUMNS", "EXPLAINED", "LENGTHS", "MOST", "WAYS", "Allotted", "Arrival", "BadRow", "BadSheet", "BelowNought", "Buy", "Kept", "Move", "Need",
    "Readiness", "SheetRow", "Sort", "Way", "Why", "allot", "arrivals_for", "fits_wires", "moves", "read_sheet", "sort_of",
]  # fmt: skip
