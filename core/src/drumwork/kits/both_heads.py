"""A kit of two-headed drums: where both heads of every drum go so that the kit sounds as wanted and no two drums sing at each other.

The place of a drum is its batter's lug pitch on a grid of whole cents; the resonant lug pitch stands to it by the drum's school, and the drum's
note follows from both heads and the air between (`membrane.two_heads`). All wishes are hard; where they cannot all hold, as few steps as possible
are dropped and named, then the shape is met as nearly as it can be, then as few turns as possible are made. Exact, by constraint programming on
that grid: how far the note lies from the batter hardly changes along it, so the kit is solved with that distance as it is at the last answer,
again and again until it stays the same to the cent. The bound is the least number of turns with the notes standing to their batters so.

References
----------
Schools of two heads, and drums that excite each other: trade §7, N11 (common practice, no published source). Intervals: twelve equal steps (ISO 16).
"""

from __future__ import annotations

import math
import time
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property
from itertools import combinations, pairwise
from typing import Any, Final

from drumwork.errors import BadQuantity, BadRequest
from drumwork.exact import Solved, keep_out, new_model, solve
from drumwork.membrane import Head
from drumwork.membrane.modes import fundamental_hz, tension_for_edge
from drumwork.membrane.two_heads import coupled_pair, lowest_clean
from drumwork.quantities import HIGHEST_HZ, Length, Pitch, cents_of, ratio_of

__all__ = ["Apart", "HeadMove", "KitDrum", "KitPlan", "KitWish", "Place", "Shape", "crowded", "plan_kit"]

MOST_DRUMS: Final = 16
SECONDS: Final = 4.0
USUAL_APART: Final = 50.0
"""How far two drums' notes keep from each other where nobody says: half a semitone. Our own figure, no published source."""
_FROM_HZ: Final = 20.0
"""Cents are counted from here, so that all are positive."""
_ROUNDED: Final = 2
"""Cents that rounding may cost between two notes; kept as room."""
_TRIES: Final = ((0, _ROUNDED), (0, _ROUNDED), (0, _ROUNDED), (100, 4), (40, 6), (15, 8), (15, 12))
"""A kit is solved anew until it settles; two or three times do. After that only so many cents round the last answer, with so many kept as room."""
_NEAR_NOW: Final = (60, 250)
"""Cents round where the drums stand in which a plan is looked for first."""
HEARD: Final = 6
"""Cents a head must move for it to be worth anybody's while; our own figure, no published source."""
_WIDEST: Final = 9_000
"""Cents no head is ever away from where it goes."""
_FINEST: Final = 10_000
"""Turns are weighed to this part of one."""
_OPEN, _TIGHT = 0.15, 0.75
"""Where in a batter's range, in cents from its lowest clean pitch to its highest safe one, “low and open” and “high and tight” lie. Our own figures."""


def _cents(pitch_hz: float) -> float:
    return cents_of(pitch_hz / _FROM_HZ)


def _hz(cents: float) -> float:
    return _FROM_HZ * ratio_of(cents)


class Shape(StrEnum):
    """How the kit should be."""

    AS_IT_IS = "as-it-is"
    """Only clean: as little moved as can be."""
    LOW_AND_OPEN = "low-and-open"
    HIGH_AND_TIGHT = "high-and-tight"


@dataclass(frozen=True)
class KitDrum:
    """One drum of a kit.

    Attributes
    ----------
    now : lug pitches of batter and resonant as read; None where nobody has, or there is no such head
    above : how many cents the resonant lug pitch stands over the batter's, by the drum's school
    turns_per_cent : what a cent costs in turns of every rod, batter and resonant
    wires : snare wires lie under it: its resonant head's pitch counts too, as the wires answer it
    section : drums of one section play one part and may sound alike; they are not kept apart. Empty for a drum by itself
    in_steps : it is one of those the steps go along (toms)
    usual : the batter's usual pitch: there it goes where nobody read what it stands at and nothing else is wanted
    """

    id: str
    batter: Head
    resonant: Head | None
    depth: Length
    now: tuple[Pitch | None, Pitch | None]
    above: float = 0.0
    turns_per_cent: tuple[float, float] = (0.001, 0.001)
    wires: bool = False
    in_steps: bool = True
    section: str = ""
    usual: Pitch | None = None

    @cached_property
    def grid(self) -> range:
        """Batter lug pitches, whole cents over 20 Hz, at which neither head is slack nor strained."""
        low, high = _cents(lowest_clean(self.batter).hz), _cents(self.batter.highest_safe().hz)
        if self.resonant is not None:
            low = max(low, _cents(lowest_clean(self.resonant).hz) - self.above)
            high = min(high, _cents(self.resonant.highest_safe().hz) - self.above, _cents(HIGHEST_HZ) - self.above)
        return range(math.ceil(low), math.floor(min(high, _cents(HIGHEST_HZ))) + 1)

    def note_hz(self, batter_hz: float, resonant_hz: float | None = None) -> float:
        """The drum's own note with its batter there; the resonant as its school has it, unless said."""
        if self.resonant is None:
            return _alone(self.batter, batter_hz)
        other = resonant_hz if resonant_hz is not None else batter_hz * ratio_of(self.above)
        return coupled_pair((self.batter, self.resonant), (Pitch(batter_hz), Pitch(other)), self.depth)[0]

    def offset(self, batter: float) -> int:
        """How far the drum's note lies from its batter, the batter at so many cents over 20 Hz; whole cents."""
        return round(_cents(self.note_hz(_hz(batter))) - batter)

    @property
    def begins(self) -> int:
        """A place of the grid near where it stands."""
        stands = self.now[0] or self.usual
        now = self.grid.start + len(self.grid) // 3 if stands is None else round(_cents(stands.hz))
        return min(max(now, self.grid.start), self.grid.stop - 1)

    def place(self, batter: float) -> Place:
        """Where its notes lie with the batter at so many cents over 20 Hz."""
        hz = _hz(batter)
        resonant = None if self.resonant is None else hz * ratio_of(self.above)
        return Place(
            self.id,
            Pitch(hz),
            None if resonant is None else Pitch(resonant),
            self.note_hz(hz),
            self.wires,
            self.section,
        )

    @cached_property
    def stands(self) -> Place | None:
        """Where its notes lie now; None where its batter was never read."""
        batter, resonant = self.now
        if batter is None:
            return None
        if self.resonant is None or resonant is None:
            return Place(self.id, batter, None, self.note_hz(batter.hz), self.wires, self.section)
        return Place(self.id, batter, resonant, self.note_hz(batter.hz, resonant.hz), self.wires, self.section)


def _alone(head: Head, lug_hz: float) -> float:
    return fundamental_hz(head.membrane, tension_for_edge(head.membrane, lug_hz))


@dataclass(frozen=True, slots=True)
class Place:
    """Where a drum's heads and its note lie."""

    id: str
    batter: Pitch
    resonant: Pitch | None
    note_hz: float
    wires: bool = False
    section: str = ""

    def sounds_alike(self, other: Place) -> bool:
        """Whether the two play one part, and are meant to."""
        return bool(self.section) and self.section == other.section

    @property
    def strongest(self) -> dict[str, float]:
        """What other drums may answer, in hertz: its note, the batter's lug pitch, and where wires lie, the pitch they answer."""
        told = {"note": self.note_hz, "batter": self.batter.hz}
        return told | ({"wires": self.resonant.hz} if self.wires and self.resonant else {})


@dataclass(frozen=True, slots=True)
class Apart:
    """Two drums' notes that lie too near each other; `other` and `other_which` are empty where it is a note given."""

    one: str
    which: str
    one_hz: float
    other: str
    other_which: str
    other_hz: float
    cents: float


@dataclass(frozen=True, slots=True)
class KitWish:
    """What is wanted.

    Attributes
    ----------
    step : cents from each drum of the steps to the next lower one; None for none
    tolerance : give or take, cents
    fixed : by drum, the note it is to have, hertz
    stays : drums that are not touched
    apart : how many cents every two drums' strongest notes keep from each other
    against : notes of others to keep from as well, hertz (a bass that plays beside it)
    a_head : touching a head counts as so many turns of every rod, beside what it turns: a job is worth more than a hair
    """

    shape: Shape = Shape.AS_IT_IS
    step: float | None = None
    tolerance: float = 10.0
    fixed: Mapping[str, float] = field(default_factory=dict)
    stays: frozenset[str] = frozenset()
    apart: float = USUAL_APART
    against: tuple[float, ...] = ()
    a_head: float = 0.0


@dataclass(frozen=True, slots=True)
class HeadMove:
    """What a head's rods turn: cents, and turns of every rod; None where nobody read what it stands at."""

    wanted: Pitch
    cents: float | None
    turns: float | None


@dataclass(frozen=True, slots=True)
class KitPlan:
    """Where every drum goes. `turns` is the sum over heads of turns of every rod, `bound` the least it could be, with no more heads touched, as far as
    is proved.

    `dropped` are steps that could not be kept, as (upper, lower); `in_the_way` says of what they gave way to: "apart", or "reach" where even
    without that the films do not reach. `impossible` names what stands in the way where nothing holds, with
    `apart_at_most` the largest distance that could be kept; there are no places then.
    """

    places: Mapping[str, Place]
    batter: Mapping[str, HeadMove]
    resonant: Mapping[str, HeadMove | None]
    turns: float
    bound: float
    proved: bool
    dropped: tuple[tuple[str, str], ...] = ()
    in_the_way: str = ""
    impossible: tuple[str, ...] = ()
    apart_at_most: float | None = None


def _nearest(one: Place, notes: Mapping[str, float], other: str, others: Mapping[str, float]) -> Apart:
    """The two that lie nearest."""
    which, to = min(
        ((a, b) for a in notes for b in others), key=lambda each: abs(cents_of(notes[each[0]] / others[each[1]]))
    )
    return Apart(one.id, which, notes[which], other, to, others[to], abs(cents_of(notes[which] / others[to])))


def crowded(places: Sequence[Place], apart: float, against: Sequence[float] = ()) -> list[Apart]:
    """Every two drums, and every drum and note of others, whose strongest notes lie nearer than `apart` cents; the nearest first."""
    found = []
    for one, other in combinations(places, 2):
        if one.sounds_alike(other):
            continue
        found.append(_nearest(one, one.strongest, other.id, other.strongest))
    found += [_nearest(place, place.strongest, "", {"": note}) for place in places for note in against]
    found = [each for each in found if each.cents < apart - 1e-9]
    return sorted(found, key=lambda each: each.cents)


def _require(drums: Sequence[KitDrum], wish: KitWish) -> None:
    if not 1 <= len(drums) <= MOST_DRUMS:
        raise BadRequest(f"A kit has 1 to {MOST_DRUMS} drums.")
    known = {each.id: each for each in drums}
    if len(known) != len(drums):
        raise BadRequest("Every drum of a kit has an id of its own.")
    for name in {*wish.fixed, *wish.stays} - known.keys():
        raise BadRequest(f"“{name}” is no drum of this kit.", drum=name)
    for name in wish.stays:
        if known[name].stands is None:
            raise BadRequest(f"“{name}” cannot stay where it is: nobody has read its batter.", drum=name)
    for drum in drums:
        if not drum.grid:
            raise BadRequest(
                f"“{drum.id}”: with its resonant head {drum.above:+.0f} cents from the batter one of the two would be slack or strained. Choose another school for it.",
                drum=drum.id,
            )
    for hz in (*wish.fixed.values(), *wish.against):
        if not 0 < hz < math.inf:
            raise BadQuantity("A note is more than nought hertz.", hz=hz)


class _Model:
    """Variables and hard limits of one kit."""

    def __init__(
        self, drums: Sequence[KitDrum], wish: KitWish, apart: float, at: Mapping[str, int], room: int = _ROUNDED
    ) -> None:
        self.drums, self.wish, self.model, self.offsets = drums, wish, new_model(), {}
        self.batter: dict[str, Any] = {}
        self.strong: dict[str, list[int]] = {}
        """By drum, its strongest notes in cents over its batter."""
        self.turns: list[Any] = []
        self.touched: list[Any] = []
        self.shape: list[Any] = []
        for drum in drums:
            self.offsets[drum.id] = drum.offset(at[drum.id])
            self._drum(drum)
        if apart > 0:
            self._keep_apart(math.ceil(apart - 1e-9) + room)
        self.steps = self._steps()

    def _drum(self, drum: KitDrum) -> None:
        model, grid = self.model, drum.grid
        if drum.id in self.wish.stays and drum.stands is not None:
            place = drum.stands
            self.batter[drum.id] = at = round(_cents(place.batter.hz))
            self.strong[drum.id] = [round(_cents(hz)) - at for hz in place.strongest.values()]
            return
        batter = model.new_int_var(grid.start, grid.stop - 1, drum.id)
        wires = [round(drum.above)] if drum.wires and drum.resonant else []
        self.batter[drum.id], self.strong[drum.id] = batter, [self.offsets[drum.id], 0, *wires]
        if (hz := self.wish.fixed.get(drum.id)) is not None:
            wanted = round(_cents(hz))
            model.add(batter + self.offsets[drum.id] >= wanted - 1)
            model.add(batter + self.offsets[drum.id] <= wanted + 1)
        for now, above, cost in zip(drum.now, (0.0, drum.above), drum.turns_per_cent, strict=True):
            if now is not None:
                self._turn(batter, round(_cents(now.hz) - above), round(cost * _FINEST))
        if drum.now == (None, None):
            self.turns.append(self._distance(batter, drum.begins))
        if self.wish.shape is not Shape.AS_IT_IS and drum.in_steps:
            share = _OPEN if self.wish.shape is Shape.LOW_AND_OPEN else _TIGHT
            self.shape.append(self._distance(batter, round(grid.start + share * (len(grid) - 1))))

    def keep_near(self, at: Mapping[str, int], near: int) -> None:
        for name, batter in self.batter.items():
            if not isinstance(batter, int):
                self.model.add_linear_constraint(batter, at[name] - near, at[name] + near)

    def near_now(self, goal: Any, ends: float) -> Solved | None:
        """The best for this goal that lies near where the drums stand, or None: found fast, and seldom far from the best there is."""
        for window in _NEAR_NOW:
            model = self.model.clone()
            for drum in self.drums:
                where = self.batter[drum.id]
                if not isinstance(where, int):
                    same = model.get_int_var_from_proto_index(where.index)
                    model.add_linear_constraint(same, drum.begins - window, drum.begins + window)
            if found := solve(model, min(0.5, max(0.05, (ends - time.monotonic()) / 4))):
                return found
        return None

    def at(self, drum: str, found: Solved) -> int:
        where = self.batter[drum]
        return where if isinstance(where, int) else found.of(where)

    def _turn(self, batter: Any, stands: int, cost: int) -> None:
        """What a head turns, and that it is touched at all where it moves by what can be heard."""
        away = self._distance(batter, stands)
        self.turns.append(away * cost)
        if self.wish.a_head > 0:
            self.touched.append(touched := self.model.new_bool_var(""))
            self.model.add(away <= HEARD - 1 + _WIDEST * touched)
            self.turns.append(touched * round(self.wish.a_head * _FINEST))

    def _distance(self, variable: Any, to: int) -> Any:
        away = self.model.new_int_var(0, _WIDEST, "")
        self.model.add_abs_equality(away, variable - to)
        return away

    def _keep_apart(self, least: int) -> None:
        """Of two drums only the distance between their batters counts: every note that may not meet bans a stretch of it."""
        others = [round(_cents(hz)) for hz in self.wish.against]
        for one, other in combinations(self.drums, 2):
            if one.section and one.section == other.section:
                continue
            meet = [b - a for a in self.strong[one.id] for b in self.strong[other.id]]
            between = self.batter[one.id] - self.batter[other.id]
            keep_out(self.model, between, [(each - least, each + least) for each in meet])
        for name, mine in self.strong.items():
            meet = [other - a for a in mine for other in others]
            keep_out(self.model, self.batter[name], [(each - least, each + least) for each in meet])

    def _note(self, drum: str) -> Any:
        return self.batter[drum] + self.strong[drum][0]

    def _steps(self) -> dict[tuple[str, str], Any]:
        """By upper and lower drum, whether their step is kept."""
        if self.wish.step is None:
            return {}
        toms = [drum.id for drum in self.drums if drum.in_steps]
        room = max(1.0, self.wish.tolerance - _ROUNDED)
        low, high = math.ceil(self.wish.step - room), math.floor(self.wish.step + room)
        kept = {}
        for upper, lower in pairwise(toms):
            kept[upper, lower] = held = self.model.new_bool_var("")
            between = self._note(upper) - self._note(lower)
            self.model.add(between >= low).only_enforce_if(held)
            self.model.add(between <= high).only_enforce_if(held)
        return kept


def plan_kit(drums: Sequence[KitDrum], wish: KitWish, seconds: float = SECONDS) -> KitPlan:
    """Where both heads of every drum go. Drums stand in order, the highest first: steps go from each to the next.

    Raises
    ------
    BadRequest
        for drums or wishes that do not fit together as told; not for wishes that cannot all hold.
    """
    _require(drums, wish)
    ends = time.monotonic() + seconds
    at = {drum.id: drum.begins for drum in drums}
    least, kept = math.inf, None
    for near, room in _TRIES:
        kit = _Model(drums, wish, wish.apart, at, room)
        if near:  # answers as good as each other: one of them is kept to, with more room
            kit.keep_near(at, near)
        solved = _solved(kit, ends)
        if solved is None:
            break
        found, proved = solved
        least = least if near else min(least, found.bound)
        at = {drum.id: kit.at(drum.id, found) for drum in drums}
        settled = all(abs(drum.offset(at[drum.id]) - kit.offsets[drum.id]) <= 1 for drum in drums)
        plan = _told(kit, found, proved and settled and not near, least)
        kept = plan if _is_kept(drums, wish, plan) else kept
        if kept is plan and (settled or near):
            break
    if kept is None:
        return _nothing_holds(drums, wish, at)
    return replace(kept, in_the_way=_in_the_way(drums, wish, at)) if kept.dropped else kept


def _in_the_way(drums: Sequence[KitDrum], wish: KitWish, at: Mapping[str, int]) -> str:
    """What steps gave way to."""
    alone = _Model(drums, wish, 0.0, at)
    for held in alone.steps.values():
        alone.model.add(held == 1)
    return "reach" if solve(alone.model, 0.5) is None else "apart"


def _is_kept(drums: Sequence[KitDrum], wish: KitWish, plan: KitPlan) -> bool:
    """Whether every wish holds for the notes as they are there, none rounded."""
    places = plan.places
    toms = [each.id for each in drums if each.in_steps] if wish.step is not None else []
    between = {
        pair: cents_of(places[pair[0]].note_hz / places[pair[1]].note_hz)
        for pair in pairwise(toms)
        if pair not in plan.dropped
    }
    room = max(1.0, wish.tolerance) + _ROUNDED
    return (
        not crowded(list(places.values()), wish.apart, wish.against)
        and all(abs(cents - (wish.step or 0.0)) <= room for cents in between.values())
        and all(
            abs(cents_of(places[name].note_hz / hz)) <= _ROUNDED
            for name, hz in wish.fixed.items()
            if name not in wish.stays
        )
    )


def _solved(kit: _Model, ends: float) -> tuple[Solved, bool] | None:
    """One goal after the other, each kept while the next is pursued."""
    goals = [-sum(kit.steps.values())] if kit.steps else []
    goals += [sum(kit.shape)] if kit.shape else []
    found, proved = None, True
    for goal in [*goals, sum(kit.turns)]:
        kit.model.minimize(goal)
        if (near := kit.near_now(goal, ends)) is not None:
            found = near
            kit.model.add(goal <= near.value)  # what lies too far to be worth it is no question any more
        free = [each for each in kit.batter.values() if not isinstance(each, int)]
        hints: list[tuple[Any, int]] = [(each, found.of(each)) for each in free] if found else []
        better = solve(kit.model, max(0.3, (ends - time.monotonic()) / 2), hints)
        if better is None:
            return (found, False) if found else None
        found, proved = better, proved and better.proved
        kit.model.add(goal <= found.value)
    return None if found is None else (found, proved)


def _move(head: Head | None, now: Pitch | None, wanted: Pitch | None, cost: float) -> HeadMove | None:
    if head is None or wanted is None:
        return None
    cents = None if now is None else cents_of(wanted.hz / now.hz)
    return HeadMove(wanted, cents, None if cents is None else cents * cost)


def _told(kit: _Model, found: Solved, proved: bool, least: float) -> KitPlan:
    places, batter, resonant = {}, {}, {}
    for drum in kit.drums:
        place = drum.stands if drum.id in kit.wish.stays and drum.stands else drum.place(kit.at(drum.id, found))
        places[drum.id] = place
        moved = _move(drum.batter, drum.now[0], place.batter, drum.turns_per_cent[0])
        assert moved is not None
        batter[drum.id] = moved
        resonant[drum.id] = _move(drum.resonant, drum.now[1], place.resonant, drum.turns_per_cent[1])
    every = [*batter.values(), *(each for each in resonant.values() if each)]
    turns = sum(abs(each.turns) for each in every if each.turns is not None)
    touched = sum(found.of(each) for each in kit.touched) * kit.wish.a_head
    bound = max(0.0, min(turns, least / _FINEST - touched)) if kit.turns else 0.0
    dropped = tuple(pair for pair, held in kit.steps.items() if not found.of(held))
    return KitPlan(places, batter, resonant, turns, bound, proved, dropped)


def _nothing_holds(drums: Sequence[KitDrum], wish: KitWish, at: Mapping[str, int]) -> KitPlan:
    """What stands in the way: a note one drum alone cannot have, else how far apart the notes can be kept at most."""

    def holds(some: Sequence[KitDrum], apart: float) -> bool:
        ids = {drum.id for drum in some}
        fixed = {name: hz for name, hz in wish.fixed.items() if name in ids}
        free = KitWish(Shape.AS_IT_IS, None, wish.tolerance, fixed, wish.stays & ids, apart, wish.against)
        return solve(_Model(some, free, apart, at).model, 0.5) is not None

    alone = tuple(f"fixed: {drum.id}" for drum in drums if not holds([drum], 0))
    if alone:
        return KitPlan({}, {}, {}, 0.0, 0.0, True, impossible=alone)
    low, high = 0, math.ceil(wish.apart)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if holds(drums, middle) else (low, middle)
    return KitPlan(
        {}, {}, {}, 0.0, 0.0, False, impossible=("apart",), apart_at_most=float(low)
    )  # found by trying, each for a while
