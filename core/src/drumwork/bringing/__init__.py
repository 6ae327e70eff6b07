"""Existing drums brought in: a list somebody kept elsewhere, whatever its columns are called, and what each row says of a drum."""

from drumwork.bringing.columns import FIELDS, NEEDED, Field, guess, lacking
from drumwork.bringing.rows import BroughtDrum, Since, kind_named, read_row, since_when

__all__ = [
    "FIELDS",
    "NEEDED",
    "BroughtDrum",
    "Field",
    "Since",
    "guess",
    "kind_named",
    "lacking",
    "read_row",
    "since_when",
]
