"""A workshop's ways, in and out."""

from __future__ import annotations

from typing import Literal

from ninja import Schema
from pydantic import Field

from apps.workshops.models import Workshop
from drumwork.deciding import Lives
from drumwork.quantities import Turns
from drumwork.rods.clearing import EvenRule, Means
from drumwork.rods.patterns import Pattern
from drumwork.work.units import LengthUnit
from drumwork.work.ways import (
    AfterStretch,
    BassPitch,
    BedRods,
    Cadence,
    Evenness,
    FirstHead,
    Grease,
    LogoPlace,
    OldHeads,
    ResonantPitch,
    SnareNote,
    Stretch,
    Ways,
)

TighteningPattern = Literal["star", "neighbour-star", "plus-cross", "every-third", "every-second"]


class WaysIn(Schema):
    """Everything a workshop chooses for itself."""

    length_unit: Literal["in", "mm"]
    a4_hz: float = Field(ge=400, le=480)
    pattern: TighteningPattern
    step_32: Literal[1, 2, 4]
    stretch: Stretch
    logo: LogoPlace
    grease: Grease = Grease.DRY
    after_stretch: AfterStretch = AfterStretch.BACK
    evenness: Evenness = Evenness.EVEN
    resonant: ResonantPitch = ResonantPitch.EQUAL
    means: Means = Means.PITCH
    snare_note: SnareNote = SnareNote.NONE
    bed_rods: BedRods = BedRods.MATCHED
    bass_pitch: BassPitch = BassPitch.LOWEST
    old_heads: OldHeads = OldHeads.NEVER
    rest_minutes: int = Field(ge=5, le=24 * 60)
    check_after_days: int = Field(ge=1, le=60)
    leave_above: bool = True
    first_head: FirstHead = FirstHead.USUAL
    cadence: Cadence = Cadence.ROD
    slacken_by: Cadence = Cadence.PASS
    tap_round: bool = True
    batter_life_months: int = Field(ge=1, le=240)
    resonant_life_months: int = Field(ge=1, le=240)
    batter_life_hours: int = Field(0, ge=0, le=20_000)
    """Hours of playing a batter stands; 0 where the workshop does not count them."""
    falls_times: float = Field(2.0, ge=1.2, le=6)
    turned_visits: int = Field(3, ge=2, le=8)
    even_spread_hz: float = Field(gt=0, le=20)
    callout_plays: float = Field(10, ge=0, le=10)
    callout_stands: float = Field(8, ge=0, le=10)
    callout_rods: float = Field(7, ge=0, le=10)
    callout_sounds: float = Field(6, ge=0, le=10)
    callout_noise: float = Field(4, ge=0, le=10)
    callout_beside: float = Field(2, ge=0, le=10)
    copy_days: int = Field(7, ge=0, le=365)


class WorkshopOut(WaysIn):
    id: int
    name: str
    bench_name: str


def shape_workshop(workshop: Workshop) -> WorkshopOut:
    return WorkshopOut.model_validate(workshop, from_attributes=True)


def to_lives(workshop: Workshop) -> Lives:
    """How long this workshop keeps heads, and from when it calls a record bad."""
    return Lives(
        workshop.batter_life_months,
        workshop.resonant_life_months,
        hours=float(workshop.batter_life_hours) or None,
        falls_times=workshop.falls_times,
        turned_visits=workshop.turned_visits,
    )


def to_ways(workshop: Workshop) -> Ways:
    """The core's view of the workshop's choices."""
    return Ways(
        pattern=Pattern(workshop.pattern),
        step=Turns(workshop.step_32),
        stretch=Stretch(workshop.stretch),
        logo=LogoPlace(workshop.logo),
        grease=Grease(workshop.grease),
        after_stretch=AfterStretch(workshop.after_stretch),
        evenness=Evenness(workshop.evenness),
        resonant=ResonantPitch(workshop.resonant),
        means=Means(workshop.means),
        snare_note=SnareNote(workshop.snare_note),
        bed_rods=BedRods(workshop.bed_rods),
        bass_pitch=BassPitch(workshop.bass_pitch),
        old_heads=OldHeads(workshop.old_heads),
        rest_minutes=workshop.rest_minutes,
        tap_round=workshop.tap_round,
        first_head=FirstHead(workshop.first_head),
        lengths=LengthUnit(workshop.length_unit),
        cadence=Cadence(workshop.cadence),
        slacken_by=Cadence(workshop.slacken_by),
        a4_hz=workshop.a4_hz,
        even=EvenRule(spread_hz=workshop.even_spread_hz),
    )
