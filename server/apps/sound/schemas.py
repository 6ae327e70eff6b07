"""What the physics says of one drum: film and rods, turns, settling, two heads."""

from __future__ import annotations

from ninja import Schema
from pydantic import Field

from drumwork.membrane import LugTarget, TwoHeads
from drumwork.quantities import Pitch


class FilmOut(Schema):
    """How a lug pitch sits with a head. `share` is film stress over yield, 0…1."""

    hz: float
    note: str
    share: float
    rod_load_n: float
    highest_hz: float
    allowed: bool
    words: str


class SideSoundOut(Schema):
    """One side. `film` is null where the film is not known; `answer` and `settling` are sentences, empty where there is nothing to say."""

    side: str
    head: str
    assumed: bool
    film: FilmOut | None
    answer: str
    settling: str


class SoundChoice(Schema):
    id: str
    heard: str
    how: str


class SoundOut(Schema):
    sides: list[SideSoundOut]
    choices: list[SoundChoice]


class TwoHeadsOut(Schema):
    """A plan for both heads."""

    batter: FilmOut
    resonant: FilmOut
    fundamental_hz: float
    fundamental_note: str
    fundamental_sd_hz: float
    upper_hz: float
    by_mass_hz: float
    by_air_hz: float
    character: str
    why: str
    assumed: str


class WantedIn(Schema):
    """The wanted lug pitches, as typed; empty for none."""

    batter: str = Field("", max_length=20)
    resonant: str = Field("", max_length=20)


def shape_film(found: LugTarget, a4_hz: float) -> FilmOut:
    return FilmOut(
        hz=round(found.lug.hz, 1),
        note=found.lug.note(a4_hz),
        share=round(found.share_of_yield, 3),
        rod_load_n=round(found.rod_load_n),
        highest_hz=round(found.highest_safe.hz),
        allowed=found.allowed,
        words=found.words,
    )


def shape_two(found: TwoHeads, films: tuple[LugTarget, LugTarget], assumed: str, a4_hz: float) -> TwoHeadsOut:
    return TwoHeadsOut(
        batter=shape_film(films[0], a4_hz),
        resonant=shape_film(films[1], a4_hz),
        fundamental_hz=round(found.fundamental_hz, 1),
        fundamental_note=Pitch(found.fundamental_hz).note(a4_hz),
        fundamental_sd_hz=round(found.fundamental_sd_hz, 1),
        upper_hz=round(found.upper_hz),
        by_mass_hz=round(found.by_mass_hz, 1),
        by_air_hz=round(found.by_air_hz, 1),
        character=found.character,
        why=found.why,
        assumed=assumed,
    )
