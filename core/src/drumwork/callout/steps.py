"""What a call-out's plan is made of: ticks, the steps that answer them, and what each is worth to this workshop."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import IntEnum
from typing import Annotated, Final

from drumwork.drums import DrumKind, Side
from drumwork.kits.roles import Role
from drumwork.work.log import Between

__all__ = ["OWN_SNARE", "BookDrum", "Book", "Given", "Phase", "Step", "TickAsked", "Weights", "tick_key"]

OWN_SNARE: Final = "own snare"
"""In the bag, it plays instead of the kit's snare."""


class Phase(IntEnum):
    """The order of the hand (trade §13, common practice): the pillow first, resonant heads before any batter, drums before stands."""

    FIRST = 0
    DRUMS = 1
    RESONANT = 2
    BATTER = 3
    WIRES = 4
    STANDS = 5


@dataclass(frozen=True, slots=True)
class Weights:
    """What a workshop thinks each kind of trouble is worth, 0 to 10. The usual ones are our own, no source."""

    plays: Annotated[float, Between(0, 10)] = 10
    """It cannot be played, or not all evening."""
    stands: Annotated[float, Between(0, 10)] = 8
    """It falls, sinks or slides away under the player."""
    rods: Annotated[float, Between(0, 10)] = 7
    """A rod is gone."""
    sounds: Annotated[float, Between(0, 10)] = 6
    """It sounds wrong."""
    noise: Annotated[float, Between(0, 10)] = 4
    """It rattles or buzzes."""
    beside: Annotated[float, Between(0, 10)] = 2
    """Felts, sleeves and wing nuts of stands."""


def tick_key(drum: str, finding: str, side: str = "", rod: int | None = None) -> str:
    """One name for one thing found at one place, so that said twice it counts once."""
    return f"{drum}|{finding}|{side}|{rod or ''}"


@dataclass(frozen=True, slots=True)
class Given:
    """A rod that goes from a batter to another head, with how many rods each has."""

    giver: str
    giver_name: str
    giver_rods: int
    giver_rod: int
    taker: str
    taker_side: Side
    taker_rods: int
    taker_rod: int


@dataclass(frozen=True, slots=True)
class Step:
    """One thing that can be done in minutes. What different ticks may ask for stands in the book once for each, with the same id.

    Attributes
    ----------
    title, beside : what to do, and with what or from where
    did : the same as it is told to the owner
    when : it is on the list while all of these are so; `unless` none of these
    after : steps that must be chosen and stand before it, where they are on the list
    uses : parts it uses up; `one:…` and `giver:…` are there once
    mends : ticks it answers; `stop_gap`: for tonight only, so that they stay owed
    """

    id: str
    drum: str
    title: str
    beside: str
    did: str
    why: str
    minutes: float
    worth: float
    phase: Phase
    when: tuple[str, ...]
    unless: tuple[str, ...] = ()
    after: tuple[str, ...] = ()
    uses: tuple[str, ...] = ()
    mends: tuple[str, ...] = ()
    stop_gap: bool = False
    gives: Given | None = None
    caution: str = ""


@dataclass(frozen=True, slots=True)
class TickAsked:
    """A tick of the walk: what it says, where, and whether it asks for a rod. `usual` ones stand first."""

    finding: str
    side: str
    words: str
    rod: bool
    usual: bool
    degree: int = 2


@dataclass(frozen=True, slots=True)
class BookDrum:
    """A drum of the kit as the call-out has it; tag "" for the stands."""

    tag: str
    name: str
    kind: DrumKind | None
    role: Role | None
    rods_batter: int
    rods_resonant: int
    bed_rods: tuple[int, ...]
    ticks: tuple[TickAsked, ...]
    size: str = ""
    thread: str = ""
    note: str = ""


@dataclass(frozen=True, slots=True)
class Book:
    """Everything that may be needed once there is no network: the drums, their ticks, what stands on their record, and every step."""

    drums: tuple[BookDrum, ...]
    known: tuple[str, ...]
    steps: tuple[Step, ...]
    refused: tuple[str, ...] = field(default=())
