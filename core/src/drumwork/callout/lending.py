"""A rod is missing: who gives one, which, and what the neighbours of the gap turn.

How much a head minds a gap is told by the pull left in the film there, against what keeps the film from wrinkling. Each rod presses the hoop onto
the film for some way to both sides: a hoop is a beam lying on springs, the springs being the film that is drawn over the edge. Where a rod is
gone its neighbours reach the better the nearer they stand; where the head is low there is little to lose.

References
----------
Beam on an elastic foundation: M. Hetényi, *Beams on Elastic Foundation*, ch. 2 (the line of a single force, from memory). Stiffness of hoops: our
own figures from their section, no published source. Who may give, and from where: trade §13 (common practice).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from drumwork.drums import DrumKind
from drumwork.membrane import Head
from drumwork.membrane.modes import tension_for_edge
from drumwork.membrane.two_heads import CLEAN_ROD_N
from drumwork.quantities import Pitch, Turns
from drumwork.rods.layout import RodLayout
from drumwork.sources.materials import PET_MODULUS_PA, PET_POISSON

__all__ = ["Donor", "Gap", "Offer", "Refusal", "gap_at", "who_lends"]

HOOP_EI: Final = {"die-cast": 900.0, "triple-flanged": 420.0, "wood": 650.0, "claw hoop": 650.0}
USUAL_EI: Final = 420.0
"""Bending stiffness of a hoop out of its plane, N m²."""
MOST_EXTRA: Final = Turns.of(1, 8)
"""“A little extra”: more would be heard at the neighbours themselves."""
HARDLY: Final = 0.55
SUFFERS: Final = 0.7
"""Shares of its pull lost at a gap: below the first it is hardly noticed, from the second on the head suffers. Our own figures."""
LOW: Final = 1.3
"""So few times what keeps the film smooth are left, and it suffers whatever its share."""
SMOOTH: Final = 1.0
"""Under this the film may wrinkle at the gap."""


@dataclass(frozen=True, slots=True)
class Gap:
    """A head with one rod gone.

    Attributes
    ----------
    lost : share of its pull the film loses at the gap
    left : pull left there, in times of what keeps the film from wrinkling
    extra : what each neighbour turns so that pull is made up as evenly as two rods can
    """

    rod: int
    lost: float
    left: float
    extra: Turns

    @property
    def words(self) -> str:
        if self.lost >= SUFFERS or self.left < LOW:
            return "suffers"
        return "hardly notices" if self.lost < HARDLY else "notices"


@dataclass(frozen=True, slots=True)
class Donor:
    """A head that might give a rod: where it stands, what holds it, and whether it is needed tonight."""

    id: str
    head: Head
    layout: RodLayout
    lug: Pitch
    thread: str
    hoops: str = ""
    turns_per_cent: float = 0.001
    plays_tonight: bool = False
    snare_side: bool = False
    kind: DrumKind = DrumKind.SNARE


@dataclass(frozen=True, slots=True)
class Offer:
    """One rod of one donor, and what its head is like without it."""

    donor: str
    gap: Gap
    plays_tonight: bool
    why: str


@dataclass(frozen=True, slots=True)
class Refusal:
    donor: str
    why: str


def _reach(head: Head, hoops: str) -> float:
    """One over the distance along the hoop in which a rod's press dies away, 1/m."""
    radius = head.diameter.metres / 2
    spring = PET_MODULUS_PA * head.film.thickness_m / (1 - PET_POISSON) / radius
    return float((spring / (4 * HOOP_EI.get(hoops, USUAL_EI))) ** 0.25)


def _press(distance: float, beta: float) -> float:
    """How much of a rod's press is felt so far along the hoop, 1 under the rod itself."""
    x = beta * abs(distance)
    return math.exp(-x) * (math.cos(x) + math.sin(x))


def _along(layout: RodLayout, one: int, other: int, radius: float) -> float:
    turn = abs(layout.angle_rad(one) - layout.angle_rad(other))
    return min(turn, math.tau - turn) * radius


def gap_at(head: Head, layout: RodLayout, rod: int, lug: Pitch, hoops: str = "", turns_per_cent: float = 0.001) -> Gap:
    """What this head is like without that rod.

    Parameters
    ----------
    lug : the pitch it stands at
    turns_per_cent : turns of every rod a cent takes, for what the neighbours turn
    """
    radius, beta = head.diameter.metres / 2, _reach(head, hoops)
    others = [each for each in layout.rods if each != rod]
    felt = {each: _press(_along(layout, rod, each, radius), beta) for each in others}
    lost = min(1.0, 1 / (1 + sum(felt.values())))  # far from any other rod the hoop lifts a little
    tension = tension_for_edge(head.membrane, lug.hz)
    clean = CLEAN_ROD_N * head.rods / (math.pi * head.diameter.metres)
    left = (1 - lost) * tension / clean
    return Gap(rod, lost, left, _extra(layout, rod, felt, lost, radius, beta, turns_per_cent))


def _neighbours(layout: RodLayout, rod: int) -> list[int]:
    there = [each for each in layout.rods if each != rod]
    before = next(each for step in range(1, layout.count) if (each := layout.nth_on(rod, -step)) in there)
    after = next(each for step in range(1, layout.count) if (each := layout.nth_on(rod, step)) in there)
    return list(dict.fromkeys((before, after)))


def _extra(
    layout: RodLayout,
    rod: int,
    felt: dict[int, float],
    lost: float,
    radius: float,
    beta: float,
    turns_per_cent: float,
) -> Turns:
    """Least squares of what is missing at the gap and too much at the neighbours, in sixteenths; never so much that it would be uneven there."""
    beside = _neighbours(layout, rod)
    whole = 1 + sum(felt.values())
    places = [rod, *beside]
    gains = [sum(_press(_along(layout, place, each, radius), beta) for each in beside) / whole for place in places]
    lacks = [lost, *(_press(_along(layout, place, rod, radius), beta) / whole for place in beside)]
    share = sum(g * w for g, w in zip(gains, lacks, strict=True)) / sum(g * g for g in gains)
    # A rod that carries so much more turns as all would for so much more pull.
    cents = 600 * math.log2(1 + max(0.0, share))
    turns = cents * turns_per_cent
    return min(MOST_EXTRA, Turns(2 * max(1, round(turns * 16))))


def _why_not(donor: Donor, thread: str) -> str:
    if thread and donor.thread and donor.thread != thread:
        return f"its thread is {donor.thread}, not {thread}"
    if donor.layout.lost:
        return "it lacks a rod itself"
    if donor.snare_side:
        return "rods of a snare side stay where they are"
    if donor.layout.count <= 4:
        return "four rods are too few to give one"
    return ""


def _spare(donor: Donor) -> int:
    """The rod it misses least by place: beside neither bed nor port, and nearest the badge, away from the player and rim shots."""
    layout = donor.layout
    free = [each for each in layout.rods if each not in layout.beside_bed | layout.beside_port] or list(layout.rods)
    return min(free, key=lambda each: (round(min(layout.angle_rad(each), math.tau - layout.angle_rad(each)), 6), each))


def who_lends(donors: Sequence[Donor], thread: str = "") -> tuple[list[Offer], list[Refusal]]:
    """Who could give a rod of this thread, best first: drums that rest tonight, then those whose film has most to spare; and who could not, and why."""
    offers, refusals = [], []
    for donor in donors:
        if why := _why_not(donor, thread):
            refusals.append(Refusal(donor.id, why))
            continue
        gap = gap_at(donor.head, donor.layout, _spare(donor), donor.lug, donor.hoops, donor.turns_per_cent)
        if gap.left < SMOOTH:
            refusals.append(Refusal(donor.id, "its film would wrinkle at the gap"))
            continue
        rest = "plays tonight" if donor.plays_tonight else "rests tonight"
        why = f"{rest}; with {donor.layout.count} rods it {gap.words}"
        offers.append(Offer(donor.id, gap, donor.plays_tonight, why))
    return sorted(offers, key=lambda each: (each.plays_tonight, -each.gap.left)), refusals
