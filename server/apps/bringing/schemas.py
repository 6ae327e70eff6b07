"""A list of drums, looked at and taken."""

from __future__ import annotations

from ninja import Schema

from apps.sheets.tally import ListSeen


class ColumnSeen(Schema):
    """A column of the file: its heading, what the first rows say, and which field it is read as; empty for none."""

    heading: str
    sample: list[str]
    field: str


class FieldKnown(Schema):
    name: str
    words: str


class DrumsSeen(ListSeen):
    """What a list of drums comes to. `lacking`: what is needed for new drums and no column says; then nothing was read yet."""

    columns: list[ColumnSeen]
    fields: list[FieldKnown]
    lacking: list[str]
