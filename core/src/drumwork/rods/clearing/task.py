"""What a clearing needs to know: the head, the rounds so far, and what is wanted."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from drumwork.errors import BadLayout, BadQuantity, TooFewReadings
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing.learned import Learned
from drumwork.rods.clearing.readings import Ear, Means, z_of_cents
from drumwork.rods.layout import RodLayout
from drumwork.sources import common_practice

__all__ = ["ClearingTask", "EvenRule", "PairHeard", "Round", "Tap"]


@dataclass(frozen=True, slots=True)
class EvenRule:
    """When a head counts as even enough: the spread between highest and lowest rod, both ways; and as at pitch: how far its mean may lie
    from the wanted pitch.

    Defaults are common practice, F2: about 2 Hz on a head near 100 Hz.
    """

    spread_hz: float = common_practice.EVEN_ENOUGH_SPREAD_HZ
    spread_ratio: float = common_practice.EVEN_ENOUGH_SPREAD_RATIO
    mean_ratio: float = common_practice.AT_PITCH_RATIO

    def allowed_hz(self, at_hz: float) -> float:
        """The largest spread allowed at this pitch, in hertz."""
        return min(self.spread_hz, self.spread_ratio * at_hz)


@dataclass(frozen=True, slots=True)
class PairHeard:
    """The pair of modes with one diameter as a whole round tells it.

    Attributes
    ----------
    lower_hz, upper_hz
    axis_rad : angle of the lower one's antinode, clockwise from the badge, 0…π
    lower_sd, upper_sd : their standard deviations, as ratios
    axis_sd_rad
    """

    lower_hz: float
    upper_hz: float
    axis_rad: float
    lower_sd: float
    upper_sd: float
    axis_sd_rad: float

    def blend_hz(self, angle_rad: float) -> float:
        """What a rod at this angle hears where the two run into one: the square of pitch goes with tension."""
        share = math.cos(angle_rad - self.axis_rad) ** 2
        return math.sqrt(share * self.lower_hz**2 + (1 - share) * self.upper_hz**2)

    def spans(self, hz: float) -> bool:
        """Whether a reading lies between the two, or within a quarter of their distance beside."""
        beside = 0.25 * (self.upper_hz - self.lower_hz)
        return self.lower_hz - beside <= hz <= self.upper_hz + beside

    def turned(self, by_rad: float, mirrored: bool) -> PairHeard:
        """The same, seen from a badge that sits `by_rad` further round, or in a mirror."""
        axis = -self.axis_rad if mirrored else self.axis_rad
        return replace(self, axis_rad=(axis + by_rad) % math.pi)


@dataclass(frozen=True, slots=True)
class Tap:
    """A rod read while a round's turns were being made.

    Attributes
    ----------
    value : hertz, or a gauge's or key's number
    turned : what every rod had been turned in this round by then
    doubtful : kept, but trusted little
    """

    rod: int
    value: float
    turned: Mapping[int, Turns] = field(default_factory=dict)
    doubtful: bool = False


@dataclass(frozen=True, slots=True)
class Round:
    """One reading per rod (a rod may be missing), then the turns made before the next round.

    Parameters
    ----------
    readings
        pitch by rod.
    turned
        what was really turned afterwards: partial, skipped and wrong-way turns as they were.
    ear, reference
        judgements by rod against the reference rod.
    whole
        the whole head against the wanted tone, where the ear was asked.
    numbers
        a film gauge's or a torque key's number by rod; beside pitch readings they tell what pitch cannot hear.
    doubtful
        rods whose reading is kept but trusted little.
    pair
        the two frequencies that rang at every rod, where the round told them.
    worked_out
        rods whose reading is only what the pair makes of them, and tells nothing more.
    taps
        rods read while the turns were being made, in their order.
    """

    readings: Mapping[int, Pitch] = field(default_factory=dict)
    turned: Mapping[int, Turns] = field(default_factory=dict)
    ear: Mapping[int, Ear] = field(default_factory=dict)
    reference: int | None = None
    whole: Ear | None = None
    numbers: Mapping[int, float] = field(default_factory=dict)
    doubtful: frozenset[int] = frozenset()
    pair: PairHeard | None = None
    worked_out: frozenset[int] = frozenset()
    taps: tuple[Tap, ...] = ()

    @property
    def doubted(self) -> bool:
        """Whether any reading or tap is."""
        return bool(self.doubtful) or any(tap.doubtful for tap in self.taps)

    def at_its_word(self) -> Round:
        """The same with nothing doubted."""
        return replace(self, doubtful=frozenset(), taps=tuple(replace(tap, doubtful=False) for tap in self.taps))

    def heard(self, means: Means) -> frozenset[int]:
        """Rods read by these means."""
        match means:
            case Means.PITCH:
                return frozenset(self.readings)
            case Means.EAR:
                return frozenset(self.ear) | ({self.reference} if self.reference else frozenset())
            case _:
                return frozenset(self.numbers)


@dataclass(frozen=True, slots=True)
class ClearingTask:
    """A head to be brought in tune with itself.

    Parameters
    ----------
    rounds
        in the order they were tapped; the last one's `turned` is ignored, it is what is being asked for.
    made
        what was turned since the last round was tapped, where its turns are under way; its taps go with it.
    target
        wanted lug pitch, or None to hold the mean of the first round. By ear, None holds what is.
    step
        the finest turn the workshop works in.
    prior_hz_per_turn
        how far one turn of every rod is expected to move the pitch, or None when nothing is known.
    tally
        total turns of each rod since finger-tight up to now, when the count is complete.
    meant
        how many of these each rod was meant to have: what the passes asked, less at rods beside a snare bed or eased on purpose. Only
        what was turned beside that is uneven. Without it all rods were meant alike.
    means
        what the rods are read with.
    target_number
        the number wanted of a gauge or key, or None to hold the mean of the first round.
    offsets
        cents by rod above (+) or below (-) the wanted pitch, where unevenness is wanted (trade §17.5).
    learned
        how this head answered on earlier visits.

    Raises
    ------
    TooFewReadings
        when the last round lacks more than a third of its rods.
    BadLayout
        for a reading or a turn of a rod that is lost or does not exist.
    """

    layout: RodLayout
    rounds: tuple[Round, ...]
    step: Turns
    target: Pitch | None = None
    even: EvenRule = field(default_factory=EvenRule)
    prior_hz_per_turn: float | None = None
    tally: Mapping[int, Turns] | None = None
    meant: Mapping[int, Turns] | None = None
    means: Means = Means.PITCH
    target_number: float | None = None
    offsets: Mapping[int, float] = field(default_factory=dict)
    learned: Learned | None = None
    made: Mapping[int, Turns] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if not self.rounds:
            raise TooFewReadings("Tap round the head once and enter a reading for each rod.")
        if self.step.thirtyseconds <= 0:
            raise BadQuantity("The step must be at least a thirty-second of a turn.", step=self.step.thirtyseconds)
        for each in self.rounds:
            tapped = {rod for tap in each.taps for rod in (tap.rod, *tap.turned)}
            for rod in {
                *each.heard(self.means),
                *each.turned,
                *each.numbers,
                *tapped,
                *self.offsets,
                *self.made,
            }.difference(self.layout.rods):
                self.layout.require(rod)
            if each.taps and self.means is Means.EAR:
                raise BadQuantity("Between turns a rod is read by its pitch or a number, not by ear.")
            if any(not math.isfinite(number) or number <= 0 for number in each.numbers.values()):
                raise BadQuantity("A gauge or key reading is a number above nothing.")
            if self.means is Means.EAR and each.reference is None:
                raise BadQuantity("Say which rod the others were compared with.")
        if any(abs(cents) > 300 for cents in self.offsets.values()):
            raise BadQuantity("A rod may be wanted up to 300 cents from the rest.", offsets=dict(self.offsets))
        self._require_enough()
        if self.tally is not None and (gone := set(self.layout.rods) - set(self.tally)):
            raise BadLayout("The tally lacks rods; leave it out when it is not complete.", rods=sorted(gone))
        if self.meant is not None and (gone := set(self.layout.rods) - set(self.meant)):
            raise BadLayout("What was meant lacks rods; leave it out where all were meant alike.", rods=sorted(gone))

    def at_its_word(self) -> ClearingTask | None:
        """The same with every reading taken at its word; None where none is doubted."""
        if not any(each.doubted for each in self.rounds):
            return None
        return replace(self, rounds=tuple(each.at_its_word() for each in self.rounds))

    def _require_enough(self) -> None:
        heard, there = self.rounds[-1].heard(self.means), len(self.layout.rods)
        if len(heard) * 3 < there * 2 or len(heard) < 3:
            missing = [rod for rod in self.layout.rods if rod not in heard]
            raise TooFewReadings(
                f"{len(heard)} of {there} rods have a reading; at least two thirds are needed. "
                f"Still to tap: {', '.join(map(str, missing))}.",
                missing=missing,
            )

    @property
    def wanted(self) -> float:
        """What all rods should come to, in the unit of the means: the target, or the mean of the first round; 0 cents by ear."""
        first = self.rounds[0]
        match self.means:
            case Means.PITCH:
                if self.target is not None:
                    return self.target.hz
                return sum(pitch.hz for pitch in first.readings.values()) / len(first.readings)
            case Means.EAR:
                return 0.0
            case _:
                return self.target_number or sum(first.numbers.values()) / len(first.numbers)

    @property
    def pitch_asked(self) -> bool:
        """Whether somebody asked for a pitch or number, so that the head is to come to it; else what it has is only held."""
        match self.means:
            case Means.PITCH:
                return self.target is not None
            case Means.EAR:
                return self.rounds[-1].whole is not None
            case _:
                return self.target_number is not None

    @property
    def room(self) -> float:
        """How far the mean may lie from what is wanted, as a ratio. What is only held may drift by twice as much."""
        held = 1 if self.pitch_asked else 2
        return held * self.even.mean_ratio * (1 if self.means is Means.PITCH else 2)

    @property
    def under_way(self) -> bool:
        """Whether the last round's turns are being made, so that what is asked for is what is left of them."""
        return bool(self.made or self.rounds[-1].taps)

    def made_in(self, number: int) -> Mapping[int, Turns]:
        """What was turned after the round `number` was tapped."""
        return self.made if number == len(self.rounds) - 1 else self.rounds[number].turned

    @property
    def pair_known(self) -> bool:
        """Whether a pair was heard in any round; then every angle counts, not the rods alone."""
        return any(each.pair is not None for each in self.rounds)

    def held(self) -> ClearingTask:
        """The same task with its wanted pitch or number fixed, whatever rounds it is cut down to."""
        match self.means:
            case Means.PITCH:
                return replace(self, target=Pitch(self.wanted))
            case Means.EAR:
                return self
            case _:
                return replace(self, target_number=self.wanted)

    @property
    def allowed_ratio(self) -> float:
        """The largest spread allowed, as a ratio of pitch (half of it in a gauge's number)."""
        if self.means is Means.PITCH:
            return self.even.allowed_hz(self.wanted) / self.wanted
        return self.even.spread_ratio

    def z_wanted(self, rod: int) -> float:
        """z a rod should come to; other than 1 only where it is wanted uneven."""
        return z_of_cents(self.offsets[rod]) if rod in self.offsets else 1.0
