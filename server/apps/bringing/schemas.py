"""A list of drums, looked at and taken."""

from __future__ import annotations

from ninja import Schema


class ColumnSeen(Schema):
    """A column of the file: its heading, what the first rows say, and which field it is read as; empty for none."""

    heading: str
    sample: list[str]
    field: str


class FieldKnown(Schema):
    name: str
    words: str


class RowBad(Schema):
    line: int
    because: str
    shown: str


class DrumsSeen(Schema):
    """What a file comes to. `lacking`: what is needed for new drums and no column says; then nothing was read yet. `shown` are the first good rows
    in words."""

    columns: list[ColumnSeen]
    fields: list[FieldKnown]
    lacking: list[str]
    good: int
    new: int
    changed: int
    same: int
    bad: int
    problems: list[RowBad]
    shown: list[str]
    taken: bool
