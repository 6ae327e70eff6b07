"""A workshop's own choices where the trade disagrees (trade §17). A job keeps those it began with."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from drumwork.drums import Side, Traits
from drumwork.quantities import Turns
from drumwork.rods.clearing import EvenRule, Means
from drumwork.rods.patterns import Pattern
from drumwork.sources import iso16
from drumwork.work.units import LengthUnit

__all__ = [
    "AfterStretch", "BassPitch", "BedRods", "Cadence", "Evenness", "Grease", "LogoPlace", "OldHeads", "ResonantPitch", "SnareNote", "Stretch",
    "Ways",
]  # fmt: skip


class Stretch(StrEnum):
    """Schools of seating (trade §17.2)."""

    PALM = "palm"
    OVER_TENSION = "over-tension"
    BARELY = "barely"


class AfterStretch(StrEnum):
    """After over-tension and rest: back to finger-loose and start again, or straight on up (trade §17.3)."""

    BACK = "back"
    UP = "up"


class Grease(StrEnum):
    """Grease on threads (trade §17.8)."""

    ALWAYS = "always"
    DRY = "when-dry"
    NOT_ON_NEW = "never-on-new"
    NEVER = "never"


class Evenness(StrEnum):
    """Even everywhere, or some rods down on purpose (trade §17.5)."""

    EVEN = "even"
    SOME_DOWN = "some-down"


class ResonantPitch(StrEnum):
    """The resonant head against the batter (trade §7, §17.6)."""

    EQUAL = "equal"
    HIGHER = "higher"
    LOWER = "lower"


class SnareNote(StrEnum):
    """A snare with a definite note, or without one (trade §17.10)."""

    DEFINITE = "definite"
    NONE = "none"


class BedRods(StrEnum):
    """The rods beside the snare bed: all matched, or eased against buzz (trade §17.11, P18)."""

    MATCHED = "matched"
    EASED = "eased"


class BassPitch(StrEnum):
    """A bass drum's lowest clean pitch, or a chosen note (trade §17.12)."""

    LOWEST = "lowest"
    CHOSEN = "chosen"


class OldHeads(StrEnum):
    """Old heads kept as spares, or not (trade §17.13, C10)."""

    KEEP = "keep"
    NEVER = "never"


class FirstHead(StrEnum):
    """Of two heads, which goes first (trade §17.1); as the drum wants it: of a bass drum the batter, which chooses the note, of a snare too, since
    wires and thin film come last, of others the resonant (§7)."""

    USUAL = "usual"
    RESONANT = "resonant"
    BATTER = "batter"

    def on(self, traits: Traits) -> Side:
        """The head a job on both begins with."""
        if self is not FirstHead.USUAL:
            return Side(self.value)
        return Side.BATTER if traits.wires or not (traits.mount or traits.legs) else Side.RESONANT


class LogoPlace(StrEnum):
    """Where this workshop puts the head's logo (trade §17.4)."""

    BADGE = "badge"
    BETWEEN_LUGS = "between-lugs"
    TWELVE = "twelve-oclock"
    THROW_OFF = "throw-off"
    OPPOSITE_LEG = "opposite-leg"


class Cadence(StrEnum):
    """How turns are confirmed: each rod, two facing rods together (P8: two keys), or a whole pass."""

    ROD = "rod"
    PAIR = "pair"
    PASS = "pass"


@dataclass(frozen=True, slots=True)
class Ways:
    """Choices of trade §17, and the figures a job is judged by: its reference A and when it counts as even."""

    pattern: Pattern = Pattern.STAR
    step: Turns = field(default_factory=lambda: Turns.of(1, 16))
    stretch: Stretch = Stretch.PALM
    logo: LogoPlace = LogoPlace.BADGE
    grease: Grease = Grease.DRY
    rest_minutes: int = 30
    tap_round: bool = True
    first_head: FirstHead = FirstHead.USUAL
    after_stretch: AfterStretch = AfterStretch.BACK
    evenness: Evenness = Evenness.EVEN
    resonant: ResonantPitch = ResonantPitch.EQUAL
    means: Means = Means.PITCH
    snare_note: SnareNote = SnareNote.NONE
    bed_rods: BedRods = BedRods.MATCHED
    bass_pitch: BassPitch = BassPitch.LOWEST
    old_heads: OldHeads = OldHeads.NEVER
    lengths: LengthUnit = LengthUnit.MM
    cadence: Cadence = Cadence.ROD
    slacken_by: Cadence = Cadence.PASS
    a4_hz: float = iso16.A4_HZ
    even: EvenRule = field(default_factory=EvenRule)
