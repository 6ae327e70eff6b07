"""Wanted pitches for a kit: every wish kept, as little moved as can be, and proved to be so.

One note per drum, in whole cents above 55 Hz. The wishes are hard; where all cannot hold, as few steps as possible are dropped, and then as
little as possible is moved. Exact, by constraint programming on the grid of cents.
"""

from __future__ import annotations

import math
import time
from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from itertools import combinations
from typing import Final

from drumwork.errors import BadRequest
from drumwork.exact import Model, Solved, new_model, solve

__all__ = ["MOST_DRUMS", "Drum", "Plan", "Step", "Wish", "plan_pitches"]

MOST_DRUMS: Final = 40
SECONDS: Final = 8.0
_FINEST: Final = 1000
"""Where a drum stands now is taken to a thousandth of a cent."""


@dataclass(frozen=True, slots=True)
class Drum:
    """One drum's note: where it is, between what it can be brought, and what a cent costs in turns of each rod (nought where unknown)."""

    id: str
    now: float
    lowest: float
    highest: float
    turns_per_cent: float = 0.0
    role: str = ""


@dataclass(frozen=True, slots=True)
class Step:
    """`above` sounds so many cents over `below`, give or take the tolerance."""

    above: str
    below: str
    cents: float
    tolerance: float = 0.0


@dataclass(frozen=True, slots=True)
class Wish:
    """What is wanted of a kit: steps, drums that stay where they are told, and how far notes keep from each other and from other notes."""

    steps: tuple[Step, ...] = ()
    fixed: Mapping[str, int] | None = None
    at_least: float = 0.0
    against: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True)
class Plan:
    """Targets by drum, the sum of all moves, the least it could be by proof so far, and the steps that had to be dropped.

    `impossible` names what cannot hold even without any step; there are no targets then.
    """

    targets: Mapping[str, int]
    moved: float
    bound: float
    proved: bool
    dropped: tuple[Step, ...] = ()
    impossible: tuple[str, ...] = ()
    turns: Mapping[str, float] | None = None


def _up(value: float) -> int:
    return math.ceil(value - 1e-9)


def _down(value: float) -> int:
    return math.floor(value + 1e-9)


def _require(drums: tuple[Drum, ...], wish: Wish) -> None:
    if not 1 <= len(drums) <= MOST_DRUMS:
        raise BadRequest(f"A kit has 1 to {MOST_DRUMS} drums.")
    known = {each.id for each in drums}
    if len(known) != len(drums):
        raise BadRequest("Every drum of a kit has an id of its own.")
    for drum in drums:
        if drum.lowest > drum.highest:
            raise BadRequest(f"“{drum.id}”: its lowest pitch lies above its highest.", drum=drum.id)
    for step in wish.steps:
        for each in (step.above, step.below):
            if each not in known:
                raise BadRequest(f"A step names “{each}”, which is no drum of this kit.", drum=each)
        if step.above == step.below:
            raise BadRequest(
                f"A step goes from one drum to another, not from “{step.above}” to itself.", drum=step.above
            )
    for each in wish.fixed or {}:
        if each not in known:
            raise BadRequest(f"“{each}” is to stay, but is no drum of this kit.", drum=each)


class _Kit:
    """The model of one kit: its notes, its hard limits, and for every step whether it is kept."""

    def __init__(self, drums: tuple[Drum, ...], wish: Wish, apart: bool = True, fixed: bool = True) -> None:
        self.drums, self.wish, self.model = drums, wish, new_model()
        model, stays = self.model, (wish.fixed or {}) if fixed else {}
        self.notes, moves = {}, []
        for drum in drums:
            low, high = _up(drum.lowest), _down(drum.highest)
            if drum.id in stays:
                low = high = stays[drum.id] if low <= stays[drum.id] <= high else low - 1
            if low > high or (drum.id in stays and low < _up(drum.lowest)):
                model.add_bool_or([])  # no note at all: nothing holds
                low, high = min(low, high), max(low, high)
            self.notes[drum.id] = note = model.new_int_var(low, high, drum.id)
            now = round(Fraction(drum.now) * _FINEST)
            move = model.new_int_var(0, max(abs(low * _FINEST - now), abs(high * _FINEST - now)), "")
            model.add_abs_equality(move, note * _FINEST - now)
            moves.append(move)
        self.moved = sum(moves)
        if apart and wish.at_least > 0:
            self._keep_apart(model)
        self.kept = [model.new_bool_var("") for _ in wish.steps]
        for step, kept in zip(wish.steps, self.kept, strict=True):
            between = self.notes[step.above] - self.notes[step.below]
            low, high = _up(step.cents - step.tolerance), _down(step.cents + step.tolerance)
            model.add(between >= low).only_enforce_if(kept)
            model.add(between <= high).only_enforce_if(kept)

    def _keep_apart(self, model: Model) -> None:
        least = _up(self.wish.at_least)
        for one, other in combinations(self.notes.values(), 2):
            over = model.new_bool_var("")
            model.add(one - other >= least).only_enforce_if(over)
            model.add(other - one >= least).only_enforce_if(~over)
        for note in self.notes.values():
            for against in self.wish.against:
                over = model.new_bool_var("")
                model.add(note >= _up(against + self.wish.at_least)).only_enforce_if(over)
                model.add(note <= _down(against - self.wish.at_least)).only_enforce_if(~over)


def plan_pitches(drums: tuple[Drum, ...], wish: Wish, seconds: float = SECONDS) -> Plan:
    """The targets that keep every wish and move least.

    Raises
    ------
    BadRequest
        for drums or wishes that do not fit together as told; not for wishes that cannot all hold.
    """
    _require(drums, wish)
    began = time.monotonic()
    kit = _Kit(drums, wish)
    first = None
    proved_least_dropped = True
    if wish.steps:
        kit.model.maximize(sum(kit.kept))
        first = solve(kit.model, seconds / 2)
        if first is None:
            return _nothing_holds(drums, wish, seconds / 4)
        proved_least_dropped = first.proved
        kit.model.add(sum(kit.kept) == first.value)
    kit.model.minimize(kit.moved)
    hints = [(note, first.of(note)) for note in kit.notes.values()] if first else []
    found = solve(kit.model, seconds - (time.monotonic() - began), hints)
    if found is None:
        if first is None:
            return _nothing_holds(drums, wish, seconds / 4)
        raise BadRequest("No plan was found in the time there is; wish for less.")
    return _told(kit, found, proved_least_dropped)


def _told(kit: _Kit, found: Solved, least_dropped: bool) -> Plan:
    targets = {drum: found.of(note) for drum, note in kit.notes.items()}
    dropped = tuple(step for step, kept in zip(kit.wish.steps, kit.kept, strict=True) if not found.of(kept))
    turns = {each.id: round((targets[each.id] - each.now) * each.turns_per_cent, 4) for each in kit.drums}
    return Plan(
        targets,
        round(sum(abs(targets[each.id] - each.now) for each in kit.drums), 6),
        found.bound / _FINEST,
        found.proved and least_dropped,
        dropped,
        (),
        turns,
    )


def _nothing_holds(drums: tuple[Drum, ...], wish: Wish, seconds: float) -> Plan:
    """What stands in the way when even dropping every step does not help."""
    alone = Wish((), wish.fixed, wish.at_least, wish.against)
    blamed: list[str] = []
    if (fixed := [each for each in drums if wish.fixed and each.id in wish.fixed]) and any(
        not each.lowest <= (wish.fixed or {})[each.id] <= each.highest for each in fixed
    ):
        blamed += [
            f"fixed: {each.id}" for each in fixed if not each.lowest <= (wish.fixed or {})[each.id] <= each.highest
        ]
    blamed += [f"limits: {each.id}" for each in drums if _up(each.lowest) > _down(each.highest)]
    if not blamed:
        kit = _Kit(drums, alone, fixed=False)
        kit.model.minimize(kit.moved)
        blamed = ["apart"] if solve(kit.model, seconds) is None else [f"fixed: {each.id}" for each in fixed]
    return Plan({}, 0.0, 0.0, True, wish.steps, tuple(blamed))
