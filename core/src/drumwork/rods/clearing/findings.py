"""Readings that contradict the turns: a rod that does not answer, a wrong rod turned, a round tapped in another order, a pair that fights.

What the rounds before foretold is held against what was read. Where they disagree beyond chance, each mishap that could explain it is
tried, and the one that explains it best is named; where two explain it alike, both are.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Interval, Turns, cents_words
from drumwork.rods.clearing.belief import Belief
from drumwork.rods.clearing.observe import observe
from drumwork.rods.clearing.readings import Means
from drumwork.rods.clearing.task import ClearingTask, Round, Tap

__all__ = [
    "Finding",
    "FindingKind",
    "as_of_tap",
    "finding_of_tap",
    "findings_of",
    "hardly_moved",
    "turned_by",
    "as_it_went",
]

Array = NDArray[np.float64]

SURPRISING: Final = 2.2
"""Mean squared surprise per reading, in standard deviations, from which a mishap is looked for."""
MISHAP_ODDS: Final = 0.02  # how often a round has a mishap of one kind, beforehand
TELLING: Final = 20.0  # how much better than "nothing amiss" an explanation must be
WORTH_A_LOOK: Final = 3.0  # the same for a tap between turns, where the rod is still in hand and looked at in a moment
HARDLY: Final = 0.5  # of what a turn should have done is missing from where an earlier tap is asked about again
ALIKE: Final = 4.0  # explanations within this factor of the best are named beside it
FIGHT_CENTS: Final = 18.0


class FindingKind(StrEnum):
    """What may have happened."""

    NOT_ANSWERING = "not-answering"
    WRONG_WAY = "wrong-way"
    WRONG_ROD = "wrong-rod"
    WRONG_ORDER = "wrong-order"
    READINGS_SWAPPED = "readings-swapped"
    FIGHTING_PAIR = "fighting-pair"
    UNEXPLAINED = "unexplained"


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing to look at. `certain` is False where other rods or mishaps explain the readings as well."""

    kind: FindingKind
    rods: tuple[int, ...]
    words: str
    certain: bool


@dataclass(frozen=True, slots=True)
class _Story:
    """A mishap: what was then really turned, and which rod each reading really belongs to."""

    kind: FindingKind
    rods: tuple[int, ...]
    turns: Array
    order: NDArray[np.intp] | None
    among: int


def _stories(turns: Array, turned: list[int], rods: tuple[int, ...]) -> Iterator[_Story]:
    """Every mishap that could lie behind the last round."""
    n, plain = len(turns), np.arange(len(turns))
    for place in turned:
        dead, back = turns.copy(), turns.copy()
        dead[place], back[place] = 0.0, -turns[place]
        yield _Story(FindingKind.NOT_ANSWERING, (rods[place],), dead, None, len(turned))
        yield _Story(FindingKind.WRONG_WAY, (rods[place],), back, None, len(turned))
        for other in range(n):
            if turns[other] != turns[place] and (other not in turned or other > place):
                swapped = turns.copy()
                swapped[place], swapped[other] = turns[other], turns[place]
                yield _Story(FindingKind.WRONG_ROD, (rods[place], rods[other]), swapped, None, len(turned) * n // 2)
    for shift in range(1, n):
        yield _Story(FindingKind.WRONG_ORDER, (rods[n - shift],), turns, np.roll(plain, -shift), n)
    yield _Story(FindingKind.WRONG_ORDER, (), turns, plain[::-1], n)
    for one in range(n):
        for other in range(one + 1, n):
            order = plain.copy()
            order[one], order[other] = other, one
            yield _Story(FindingKind.READINGS_SWAPPED, (rods[one], rods[other]), turns, order, n * (n - 1) // 2)


class _Last:
    """The last round against what the rounds before foretold. Turns are reckoned beyond those entered, which belief knows of."""

    def __init__(self, task: ClearingTask, belief: Belief, order: NDArray[np.intp]) -> None:
        seen = observe(replace(task.held(), rounds=task.rounds[-1:]))
        self.before = belief.before_last(len(seen.z)).ordered(order)
        self.at, self.z, self.variance = seen.at, seen.z, seen.variance
        self.by_rod = self.at.shape[0] == self.at.shape[1]

    def log_likelihood(self, beyond: Array, order: NDArray[np.intp] | None = None) -> float:
        """How well these turns, and readings belonging to rods in this order, agree with what was read."""
        return self.before.log_likelihood(self.at, self.z if order is None else self.z[order], self.variance, beyond)

    def surprise(self) -> float:
        """Mean squared surprise per reading."""
        mean, covariance = self.before.outcome(np.zeros(self.at.shape[1]))
        spread = self.at @ covariance @ self.at.T + np.diag(self.variance)
        off = self.z - self.at @ mean
        return float(off @ np.linalg.solve(spread, off)) / len(off)


def findings_of(task: ClearingTask, belief: Belief, order: NDArray[np.intp]) -> tuple[Finding, ...]:
    """What the last round says of the turns before it, the most telling first.

    `belief` is over all rounds, the last one whole; `order` are the places its rods have in the task's own numbering.
    """
    if len(task.rounds) < 2:
        return ()
    rods, made = task.layout.rods, task.rounds[-2].turned
    turns = np.array([float(made[rod].fraction) if rod in made else 0.0 for rod in rods])
    fights = _fights(task, belief)
    everywhere = all(each.heard(task.means) == frozenset(rods) for each in task.rounds[-2:])
    if not turns.any() or not everywhere or task.rounds[-1].taps:
        return fights
    last = _Last(task, belief, order)
    if last.surprise() < SURPRISING:
        return fights
    return (_explain(task, last, turns), *fights)


def finding_of_tap(task: ClearingTask, belief: Belief, order: NDArray[np.intp]) -> Finding | None:
    """Whether the rod tapped last, between turns, answered the turn it was given just before; None where it did, or where that cannot be told.

    `belief` is over everything, this tap too; `order` are the places its rods have in the task's own numbering.
    """
    turned = _turned_just_before(task)
    if not turned:
        return None
    tap, made = task.rounds[-1].taps[-1], float(turned.fraction)
    seen, before = observe(task), belief.before_last(1).ordered(order)
    at, z, variance = seen.at[-1:], seen.z[-1:], seen.variance[-1:]

    def log_likelihood(share: float) -> float:
        """How well the tap agrees with so much of the turn having been made."""
        return before.log_likelihood(at, z, variance, at[0] * ((share - 1) * made))

    told = {FindingKind.NOT_ANSWERING: log_likelihood(0.0), FindingKind.WRONG_WAY: log_likelihood(-1.0)}
    kind = max(told, key=lambda each: told[each])
    better = told[kind] + np.log(MISHAP_ODDS) - log_likelihood(1.0)
    if better < np.log(WORTH_A_LOOK):
        return None
    unlike = all(told[kind] - told[each] >= np.log(ALIKE) for each in told if each is not kind)
    certain = bool(better >= np.log(TELLING)) and unlike
    return Finding(kind, (tap.rod,), _words_of_tap(kind, tap.rod, certain), certain)


def _words_of_tap(kind: FindingKind, rod: int, certain: bool) -> str:
    reads = f"Rod {rod} {'reads' if certain else 'may read'} as if it "
    if kind is FindingKind.WRONG_WAY:
        return reads + "went the other way. Look, and correct the entry if it did."
    return reads + "had not been turned. Look for a stripped thread, a seized rod or an insert that turns with it."


def _turned_just_before(task: ClearingTask) -> Turns:
    """What the rod tapped last was turned since it was last read otherwise; nothing where another turn came after the tap."""
    taps = task.rounds[-1].taps
    if not taps or _really_turned(taps[-1].turned) != _really_turned(task.made):
        return Turns(0)
    rod = taps[-1].rod
    now, earlier = turned_by(taps[-1]), [turned_by(tap) for tap in taps[:-1] if tap.rod == rod]
    return now + -next((each for each in reversed(earlier) if each != now), Turns(0))


def _really_turned(turned: Mapping[int, Turns]) -> dict[int, Turns]:
    """Without rods that are named and were not turned, or were turned back."""
    return {rod: turns for rod, turns in turned.items() if turns.thirtyseconds}


def turned_by(tap: Tap) -> Turns:
    """What the rod of a tap had been turned in its round by then."""
    return tap.turned.get(tap.rod, Turns(0))


def as_of_tap(task: ClearingTask, number: int) -> ClearingTask:
    """The task as it stood when this tap of the last round had been made."""
    last = task.rounds[-1]
    until = replace(last, taps=last.taps[: number + 1])
    return replace(task, rounds=(*task.rounds[:-1], until), made=last.taps[number].turned)


def as_it_went(task: ClearingTask, number: int, kind: FindingKind) -> ClearingTask:
    """The task with what the rod of this tap of the last round was turned just before taken for what it was: for nothing where the rod does not
    answer, for as much the other way where it went wrong. What came after it stays."""
    last, turned = task.rounds[-1], _turned_just_before(as_of_tap(task, number))
    rod, first, amount = last.taps[number].rod, number, turned_by(last.taps[number])
    amiss = turned + turned if kind is FindingKind.WRONG_WAY else turned
    while first and last.taps[first - 1].turned.get(rod, Turns(0)) == amount:
        first -= 1

    def less(made: Mapping[int, Turns]) -> dict[int, Turns]:
        return {**made, rod: made.get(rod, Turns(0)) + -amiss}

    later = tuple(replace(tap, turned=less(tap.turned)) for tap in last.taps[first:])
    round_without = replace(last, taps=(*last.taps[:first], *later))
    return replace(task, rounds=(*task.rounds[:-1], round_without), made=less(task.made))


def hardly_moved(task: ClearingTask, number: int, answer: float) -> bool:
    """Whether a rod read less than half of what its turn just before this tap should have done; `answer` in z, per turn of it, of its own reading."""
    now = as_of_tap(task, number)
    tap, turned = now.rounds[-1].taps[-1], float(_turned_just_before(now).fraction)
    readings = {rod: pitch.hz for rod, pitch in now.rounds[-1].readings.items()} or now.rounds[-1].numbers
    power = 2 if task.means is Means.PITCH else 1
    moved = (tap.value / task.wanted) ** power - (readings.get(tap.rod, tap.value) / task.wanted) ** power
    return bool(turned) and (float(turned_by(tap).fraction) * answer - moved) * np.sign(turned) > HARDLY * abs(
        turned * answer
    )


def _explain(task: ClearingTask, last: _Last, turns: Array) -> Finding:
    """The mishap that explains the last round best, or that none does."""
    rods = task.layout.rods
    turned = [place for place, amount in enumerate(turns) if amount]
    plain = last.log_likelihood(np.zeros(len(rods)))
    told = [
        (last.log_likelihood(story.turns - turns, story.order) + np.log(MISHAP_ODDS / max(story.among, 1)), story)
        for story in _stories(turns, turned, rods)
        if story.order is None or last.by_rod
    ]
    best, story = max(told, key=lambda each: each[0])
    if best - plain < np.log(TELLING):
        return Finding(FindingKind.UNEXPLAINED, (), _UNEXPLAINED, False)
    alike = [s for value, s in told if value > best - np.log(ALIKE) and s is not story]
    return Finding(story.kind, story.rods, _words(story, alike), not alike)


_UNEXPLAINED: Final = (
    "These readings do not follow from the turns made, more than chance allows. Tap the rods that surprise you again, at the same "
    "distance in, before you turn anything."
)


def _say(story: _Story) -> str:
    names = [str(rod) for rod in story.rods]
    match story.kind:
        case FindingKind.NOT_ANSWERING:
            return f"rod {names[0]} did not answer its turn"
        case FindingKind.WRONG_WAY:
            return f"rod {names[0]} went the other way"
        case FindingKind.WRONG_ROD:
            return f"rods {names[0]} and {names[1]} got each other’s turns"
        case FindingKind.READINGS_SWAPPED:
            return f"the readings of {names[0]} and {names[1]} were taken for each other’s"
        case _:
            return f"the round was tapped from rod {names[0]} on" if names else "the round was tapped backwards"


def _words(story: _Story, alike: list[_Story]) -> str:
    others = "; ".join(_say(each) for each in alike[:3])
    said = f"It looks as if {_say(story)}" + (f" (or {others})" if others else "") + "."
    if story.kind is FindingKind.NOT_ANSWERING:
        said += " Look for a stripped thread, a seized rod or an insert that turns with it, before you turn it further."
    else:
        said += " Check before you turn anything; correct the entry if it was so."
    return said


def _fights(task: ClearingTask, belief: Belief) -> tuple[Finding, ...]:
    """Facing rods that stay apart although they were turned toward each other, on a head whose facing rods should read alike."""
    if task.means is not Means.PITCH or belief.modal < 0.5:
        return ()
    before, now = task.rounds[-2], task.rounds[-1]
    found = []
    for rod in task.layout.rods:
        facing = task.layout.opposite(rod)
        if facing is None or facing < rod or not {rod, facing} <= set(before.readings) & set(now.readings):
            continue
        then, still = _apart(before, rod, facing), _apart(now, rod, facing)
        made = [float(before.turned[each].fraction) if each in before.turned else 0.0 for each in (rod, facing)]
        toward = (made[0] - made[1]) * then < 0
        if toward and min(abs(then), abs(still)) >= FIGHT_CENTS and then * still > 0 and abs(still) > 0.7 * abs(then):
            found.append(Finding(FindingKind.FIGHTING_PAIR, (rod, facing), _fight_words(rod, facing, still), True))
    return tuple(found)


def _apart(each: Round, rod: int, facing: int) -> float:
    return Interval.from_ratio(each.readings[rod].hz / each.readings[facing].hz).cents


def _fight_words(rod: int, facing: int, cents: float) -> str:
    high, low = (rod, facing) if cents > 0 else (facing, rod)
    return (
        f"{rod} and {facing} face each other and stay {cents_words(cents)} apart although they were turned together. "
        f"Look whether the head sits even at {low} and whether {high} binds, before you go on."
    )
