"""The drum in hand: what it is like at each moment of a job, what a step needs of it, and what it leaves (trade §20).

Common practice, no published source. A plan is walked through with it when it is made: where a step needs another side up, or the lever
the other way, the turn comes in by itself; what nothing can meet is an error of the procedure.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

from drumwork.drums import Side
from drumwork.errors import BadEvent

__all__ = [
    "ANYHOW",
    "AS_BEFORE",
    "HeadIs",
    "InHand",
    "Lacing",
    "Leaves",
    "Lever",
    "Needs",
    "Up",
    "WiresAre",
    "as_it_came",
    "begun_as",
    "done_already",
]


class Up(StrEnum):
    """Which way the drum lies or stands. HAND and OTHER are said of the head a step is about, and never of a drum."""

    BATTER = "batter"
    RESONANT = "resonant"
    EDGE = "edge"
    PLAYED = "played"
    HAND = "the head in hand"
    OTHER = "the other head"


class HeadIs(StrEnum):
    TIGHT = "tight"
    SLACK = "slack"
    ZERO = "zero"
    OFF = "off"


class Lever(StrEnum):
    ON = "on"
    OFF = "off"


class WiresAre(StrEnum):
    """Wires lie on the head, hang at the strainer alone, or are off the drum."""

    ON = "on"
    STRAINER = "strainer"
    NONE = "none"


class Lacing(StrEnum):
    """The rope: its end tied, its end free, or a third of it out."""

    TIED = "tied"
    OPEN = "open"
    UNLACED = "unlaced"


@dataclass(frozen=True, slots=True)
class InHand:
    """A drum at one moment. `lever` and `wires` are None on a drum that carries none, `lacing` on one with rods."""

    up: Up
    batter: HeadIs
    resonant: HeadIs
    lever: Lever | None = None
    wires: WiresAre | None = None
    knob_out: bool = False
    port: bool = False
    lacing: Lacing | None = None
    stick: bool = False
    """A stick lies under the wires."""

    def head(self, side: Side) -> HeadIs:
        return self.batter if side is Side.BATTER else self.resonant

    @property
    def reachable(self) -> bool:
        """Whether a hand comes inside: by a head that is off, or a port in one that is on."""
        return HeadIs.OFF in (self.batter, self.resonant) or self.port

    def told(self) -> Mapping[str, str | None]:
        """As the command line and a stored plan say it."""
        return {
            "up": self.up.value,
            "lever": self.lever.value if self.lever else None,
            "wires": self.wires.value if self.wires else None,
            "batter": self.batter.value,
            "resonant": self.resonant.value,
            "inside": "reachable" if self.reachable else "closed",
            "rope": self.lacing.value if self.lacing else None,
        }


def as_it_came(wires: bool, strainer: bool, port: bool, rope: bool) -> InHand:
    """A drum as a player left it: standing as it is played, both heads tight, its wires on."""
    return InHand(
        Up.PLAYED, HeadIs.TIGHT, HeadIs.TIGHT,
        Lever.ON if strainer else None,
        (WiresAre.ON if wires else WiresAre.NONE) if strainer else None,
        port=port,
        lacing=Lacing.TIED if rope else None,
    )  # fmt: skip


_BEGUN: Final[Mapping[str, tuple[StrEnum, ...]]] = {
    "up": (Up.PLAYED, Up.BATTER, Up.RESONANT, Up.EDGE),
    "batter": (HeadIs.TIGHT, HeadIs.SLACK, HeadIs.OFF),
    "resonant": (HeadIs.TIGHT, HeadIs.SLACK, HeadIs.OFF),
    "wires": tuple(WiresAre),
    "lever": tuple(Lever),
    "rope": tuple(Lacing),
}
"""What can be said of a drum when a job begins."""


def begun_as(came: InHand, said: Mapping[str, str]) -> InHand:
    """The drum as it is said to be when a job begins; what is not said is as a player leaves it.

    Raises
    ------
    BadEvent
        for a word that is not known, and for what cannot be together.
    """
    for name, value in said.items():
        if name not in _BEGUN:
            raise BadEvent(f"Of a drum these can be said: {', '.join(_BEGUN)}.", name=name)
        if value not in [str(each) for each in _BEGUN[name]]:
            raise BadEvent(
                f"“{name}” is one of: {', '.join(str(each) for each in _BEGUN[name])}.", name=name, value=value
            )
    if came.wires is None and {"wires", "lever"} & set(said):
        raise BadEvent("This drum has no snare wires and no lever.")
    if came.lacing is None and "rope" in said:
        raise BadEvent("This drum has rods, not a rope.")
    now = replace(
        came,
        up=Up(said.get("up", came.up)),
        batter=HeadIs(said.get("batter", came.batter)),
        resonant=HeadIs(said.get("resonant", came.resonant)),
        lever=Lever(said["lever"]) if "lever" in said else came.lever,
        wires=WiresAre(said["wires"]) if "wires" in said else came.wires,
        lacing=Lacing(said["rope"]) if "rope" in said else came.lacing,
    )
    if now.wires is WiresAre.ON and now.resonant is HeadIs.OFF:
        if "wires" in said:
            raise BadEvent("Wires cannot lie on a head that is off. Say where they are: at the strainer, or none.")
        now = replace(now, wires=WiresAre.STRAINER)
    if now.lacing in (Lacing.TIED, Lacing.OPEN) and HeadIs.OFF in (now.batter, now.resonant):
        if "rope" in said:
            raise BadEvent("No head comes off a rope drum before its rope is unlaced. Say rope unlaced.")
        now = replace(now, lacing=Lacing.UNLACED)
    if now.lacing is Lacing.UNLACED:  # nothing holds a head any more
        loose = {side: HeadIs.SLACK for side in ("batter", "resonant") if getattr(now, side) is HeadIs.TIGHT}
        now = replace(now, **loose)  # type: ignore[arg-type]
    return now


_OF: Final = {Up.BATTER: Side.BATTER, Up.RESONANT: Side.RESONANT}
_SIDE_UP: Final = {side: up for up, side in _OF.items()}


def _seen(up: Up, side: Side | None) -> Up:
    """The side meant, where it is said of the head in hand."""
    hand = side or Side.BATTER
    return {Up.HAND: _SIDE_UP[hand], Up.OTHER: _SIDE_UP[hand.other]}.get(up, up)


@dataclass(frozen=True, slots=True)
class Needs:
    """What must be so before a step; empty is no matter.

    Parameters
    ----------
    up : any of these up
    head, other : the head in hand, or the other, is any of these
    lever : where there are wires, or they are clamped now, the lever is so
    wires : of a drum that carries them, they are any of these
    free : no wires over the head in hand
    knob_out, reachable : the knob is backed out; a hand comes inside
    lacing : of a rope drum, any of these
    """

    up: tuple[Up, ...] = ()
    head: tuple[HeadIs, ...] = ()
    other: tuple[HeadIs, ...] = ()
    lever: Lever | None = None
    wires: tuple[WiresAre, ...] = ()
    free: bool = False
    knob_out: bool = False
    reachable: bool = False
    lacing: tuple[Lacing, ...] = ()

    def way_up(self, at: InHand, side: Side | None) -> Up | None:
        """The side that must come up first; None where it lies well."""
        wanted = [_seen(each, side) for each in self.up]
        return None if not wanted or at.up in wanted else wanted[0]

    def lever_to(self, at: InHand) -> Lever | None:
        """Where the lever must go first; where there are no wires it is no matter, unless they are clamped now."""
        matters = at.wires is not WiresAre.NONE or self.knob_out
        return self.lever if self.lever and at.lever and at.lever is not self.lever and matters else None

    def unmet(self, at: InHand, side: Side | None) -> tuple[str, ...]:
        """What no turn of the drum or its lever can meet, in words."""
        hand = side or Side.BATTER
        wrong = []
        if self.head and at.head(hand) not in self.head:
            wrong.append(f"the {hand.value} head is {at.head(hand).value}")
        if self.other and at.head(hand.other) not in self.other:
            wrong.append(f"the {hand.other.value} head is {at.head(hand.other).value}")
        if self.wires and at.wires and at.wires not in self.wires:
            wrong.append(f"the wires are {at.wires.value}")
        if self.free and hand is Side.RESONANT and at.wires is WiresAre.ON:
            wrong.append("the wires lie over the head")
        if self.knob_out and not at.knob_out:
            wrong.append("the knob is not backed out")
        if self.reachable and not at.reachable:
            wrong.append("the drum is closed")
        if at.stick and self.way_up(at, side):
            wrong.append("a stick lies under the wires")
        if self.lacing and at.lacing and at.lacing not in self.lacing:
            wrong.append(f"the rope is {at.lacing.value}")
        return tuple(wrong)


ANYHOW: Final = Needs()
"""Needs nothing."""


@dataclass(frozen=True, slots=True)
class Leaves:
    """What a step changes; what is not said stays as it was."""

    up: Up | None = None
    head: HeadIs | None = None
    other: HeadIs | None = None
    lever: Lever | None = None
    wires: WiresAre | None = None
    knob_out: bool | None = None
    lacing: Lacing | None = None
    stick: bool | None = None

    def after(self, at: InHand, side: Side | None) -> InHand:
        hand = side or Side.BATTER
        heads = {hand: self.head or at.head(hand), hand.other: self.other or at.head(hand.other)}
        return replace(
            at,
            up=_seen(self.up, side) if self.up else at.up,
            batter=heads[Side.BATTER],
            resonant=heads[Side.RESONANT],
            lever=self.lever if self.lever and at.lever else at.lever,
            wires=self.wires if self.wires and at.wires else at.wires,
            knob_out=at.knob_out if self.knob_out is None else self.knob_out,
            lacing=self.lacing if self.lacing and at.lacing else at.lacing,
            stick=at.stick if self.stick is None else self.stick,
        )


AS_BEFORE: Final = Leaves()
"""Changes nothing."""

_ON_THE_WAY: Final[tuple[tuple[StrEnum, ...], ...]] = (
    (HeadIs.OFF, HeadIs.SLACK, HeadIs.ZERO, HeadIs.TIGHT),
    (WiresAre.NONE, WiresAre.STRAINER, WiresAre.ON),
    (Lacing.UNLACED, Lacing.OPEN, Lacing.TIED),
)
"""From bare to whole."""


def done_already(needs: Needs, leaves: Leaves, at: InHand, side: Side | None) -> bool:
    """Whether the drum is already where such a step would bring its head, its wires or its rope, or beyond; of a step that brings them nowhere,
    whether it is barer than the step needs."""
    hand = side or Side.BATTER
    for way, wants, to, now in zip(
        _ON_THE_WAY,
        (needs.head, needs.wires, needs.lacing),
        (leaves.head, leaves.wires, leaves.lacing),
        (at.head(hand), at.wires, at.lacing),
        strict=True,
    ):
        if not (wants and now) or now in wants:
            continue
        begins, stands = way.index(wants[0]), way.index(now)
        ends = way.index(to) if to else begins - 1
        if stands <= ends < begins or stands >= ends > begins:
            return True
    return False
