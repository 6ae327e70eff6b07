"""A kit's plan in words: how good it is, what it does, what stands in the way, and what every head turns."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from drumwork.kits.both_heads import HEARD, Apart, HeadMove, KitDrum, KitPlan, KitWish, Place, crowded
from drumwork.quantities import Turns, cents_of
from drumwork.quantities.intervals import INTERVALS

__all__ = ["Told", "head_words", "interval_words", "is_turned", "step_turns", "tell"]

_NEAR: Final = 12.0
"""A step so near to an interval is called by its name."""
_AT_LIMIT: Final = 3.0
"""So many cents from the end of its range a drum is at its limit."""
_NAMES: Final = {round(cents): name for name, cents in INTERVALS.items()}
_COUNT: Final = ("no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten")


@dataclass(frozen=True, slots=True)
class Told:
    """`headline` says how good the plan is, `sum` what it takes; `notes` are the few things to know, the weightiest first."""

    headline: str
    sum: str
    notes: tuple[str, ...]


def _count(number: int) -> str:
    return _COUNT[number] if number < len(_COUNT) else str(number)


def interval_words(cents: float) -> str:
    """A distance as a musician says it.

    >>> interval_words(498), interval_words(1702), interval_words(351)
    ('a fourth', 'an octave and a fourth', '351 cents')
    """
    octaves, rest = divmod(round(abs(cents)), 1200)
    if rest > 1200 - _NEAR:
        octaves, rest = octaves + 1, 0
    near = min(_NAMES, key=lambda each: abs(each - rest))
    if abs(near - rest) > _NEAR or octaves > 1:
        return f"{abs(cents):.0f} cents"
    name = _NAMES[near]
    with_article = f"an {name}" if name == "octave" else "unison" if name == "unison" else f"a {name}"
    if not octaves:
        return with_article
    return "an octave" if near == 0 else f"an octave and {with_article}"


def is_turned(move: HeadMove | None) -> bool:
    """Whether a head has work to be done: it is to move by what can be heard, or nobody read it."""
    return move is not None and (move.cents is None or abs(move.cents) >= HEARD - 0.5)


def step_turns(move: HeadMove, step_32: int = 1) -> Turns | None:
    """What every rod of a head turns, in whole steps of the workshop, finer where that would be none; None where nobody read what it stands at."""
    if move.turns is None:
        return None
    if not is_turned(move):
        return Turns(0)
    return Turns(round(move.turns * 32 / step_32) * step_32 or round(move.turns * 32))


def head_words(move: HeadMove, step_32: int = 1) -> str:
    """What a head does: 'up 3/16', 'down a hair', 'stays', 'to be read first'."""
    turns = step_turns(move, step_32)
    if turns is None or move.cents is None:
        return "to be read first"
    if not is_turned(move):
        return "stays"
    return turns.words() if turns else f"{'up' if move.cents > 0 else 'down'} a hair"


def _between(one: Place, other: Place) -> float:
    return min(
        abs(cents_of(a / b)) for a in one.strongest.values() for b in other.strongest.values()
    )  # fmt: skip


_WHICH: Final = {"note": "", "batter": "’s batter", "wires": "’s wires"}


def _too_near(near: Apart, names: Mapping[str, str], after: Mapping[str, Place]) -> str:
    one, other = names[near.one], names.get(near.other, "")
    if not other:
        return f"{one}{_WHICH[near.which]} lies {_cents(near.cents)} from {near.other_hz:.1f} Hz now."
    then = f" After it: {_between(after[near.one], after[near.other]):.0f}." if after else ""
    answers = "wires" in (near.which, near.other_which)
    if answers:
        wires, drum, of = (one, other, near.other_which) if near.which == "wires" else (other, one, near.which)
        return f"{wires}’s wires answer {drum}{_WHICH[of]} now: {_cents(near.cents)}.{then}"
    pair = f"{one}{_WHICH[near.which]} and {other}{_WHICH[near.other_which]}"
    return f"{pair} sing at each other now: {_cents(near.cents)}.{then}"


_GIVES_WAY: Final = {
    "": "beside the other wishes",
    "reach": "their films and rods do not reach so far",
    "apart": "or one drum’s note would lie on another’s",
}


def _cents(number: float) -> str:
    return f"{number:.0f} cent{'' if round(number) == 1 else 's'}"


def _headline(plan: KitPlan, moved: int) -> str:
    if plan.impossible:
        return "It cannot all be"
    if plan.dropped:
        return f"All but {_count(len(plan.dropped))} step{'s' if len(plan.dropped) > 1 else ''}"
    if not moved:
        return "Leave it as it is"
    if plan.proved:
        return "Best there is"
    return f"Within {max(0.0, plan.turns - plan.bound):.2f} turns of the best there is"


def _wishes(wish: KitWish) -> str:
    parts = []
    if wish.step is not None:
        parts.append(f"{interval_words(wish.step)} from drum to drum")
    if wish.fixed:
        parts.append("the note" + ("s" if len(wish.fixed) > 1 else "") + " you gave")
    if wish.apart > 0:
        parts.append(f"every two notes {wish.apart:.0f} cents apart")
    return " and ".join(parts) if len(parts) < 3 else f"{parts[0]}, {parts[1]} and {parts[2]}"


def _impossible(plan: KitPlan, wish: KitWish, names: Mapping[str, str]) -> str:
    for each in plan.impossible:
        if each.startswith("fixed: "):
            return f"{names[each.removeprefix('fixed: ')]} cannot have that note: its film and rods end before it. Choose another note, or let it go where it will."
    told = "" if plan.apart_at_most is None else f"{plan.apart_at_most:.0f} cents apart can be kept. "
    free = "or let one of the drums that stay move" if wish.stays or wish.fixed else "or take a drum out of the kit"
    return f"{told}The smallest wish to drop is the distance of {wish.apart:.0f}: ask for less, {free}."


def _sum(plan: KitPlan, wish: KitWish, heads: Sequence[HeadMove], drums: int) -> str:
    if not heads:
        return "Nothing needs turning: it holds every wish." if not plan.dropped else "Nothing needs turning."
    rods = f"{plan.turns:.1f} turns of every rod in all" if plan.turns >= 0.1 else "hardly a turn of anything"
    said = f"{_count(len(heads)).capitalize()} head{'s' if len(heads) != 1 else ''} on {_count(drums)} drum{'s' if drums != 1 else ''}, {rods}"
    kept = _wishes(wish)
    return f"{said}. Nothing nearer would hold {kept}." if plan.proved and kept else f"{said}."


def _limits(drums: Sequence[KitDrum], plan: KitPlan, names: Mapping[str, str], stays: frozenset[str]) -> list[str]:
    found = []
    for drum in drums:
        place = plan.places.get(drum.id)
        if place is None or drum.id in stays:
            continue
        at = cents_of(place.batter.hz / 20.0)
        if at - drum.grid.start < _AT_LIMIT:
            found.append(f"{names[drum.id]} comes to its lowest clean pitch: lower, a film of it wrinkles.")
        elif drum.grid.stop - 1 - at < _AT_LIMIT:
            found.append(f"{names[drum.id]} comes to the highest its film or rods should carry.")
    return found


def tell(drums: Sequence[KitDrum], wish: KitWish, plan: KitPlan, names: Mapping[str, str]) -> Told:
    """The plan in words, with `names` by drum."""
    every = {
        drum.id: [each for each in (plan.batter.get(drum.id), plan.resonant.get(drum.id)) if each] for drum in drums
    }
    turned = {name: [each for each in heads if is_turned(each)] for name, heads in every.items()}
    moved = [each for heads in turned.values() for each in heads]
    if plan.impossible:
        return Told(_headline(plan, 0), _impossible(plan, wish, names), ())
    now = crowded([each.stands for each in drums if each.stands], wish.apart, wish.against)
    notes = [
        f"From {names[upper]} to {names[lower]} it cannot be {interval_words(wish.step or 0.0)}, {_GIVES_WAY[plan.in_the_way]}; "
        f"it is {interval_words(cents_of(plan.places[upper].note_hz / plan.places[lower].note_hz))}."
        for upper, lower in plan.dropped
    ]
    notes += [_too_near(each, names, plan.places) for each in now]
    notes += _limits(drums, plan, names, wish.stays)
    for drum in drums:
        unread = [
            side
            for side, head, at in zip(("batter", "resonant"), (drum.batter, drum.resonant), drum.now, strict=True)
            if head is not None and at is None
        ]
        if unread:
            notes.append(f"Nobody has read {names[drum.id]}’s {' and '.join(unread)}: its job begins with a round.")
    return Told(_headline(plan, len(moved)), _sum(plan, wish, moved, sum(map(bool, turned.values()))), tuple(notes))
