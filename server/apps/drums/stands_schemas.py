"""What stands on a drum now, on the wire."""

from __future__ import annotations

from datetime import date
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel, Field

from apps.drums.sheet_schemas import Dated
from apps.workshops.typed import Line, Name

Readings = Annotated[Line, Field(max_length=200)]


class FoundOn(BaseModel):
    """A head on one side, or a set of wires: `on` the day where it is known, `months` about how long ago where it is guessed."""

    what: Annotated[Name, Field(max_length=60)]
    dated: Dated = "unknown"
    on: date | None = None
    months: float | None = Field(None, ge=0, le=600, allow_inf_nan=False)


class StandsIn(BaseModel):
    """What a person found on a drum. A pitch is one reading, or one for each rod parted by blanks. `id` is made by the device."""

    id: UUID
    batter: FoundOn | None = None
    resonant: FoundOn | None = None
    wires: FoundOn | None = None
    batter_pitch: Readings = ""
    resonant_pitch: Readings = ""


class StandsOut(Schema):
    """What may be on it, by the workshop's own lines."""

    batter: list[str]
    resonant: list[str]
    wires: list[str]
