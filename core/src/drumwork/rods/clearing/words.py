"""The why of a proposal, in the words of a colleague at the bench."""

from __future__ import annotations

from collections.abc import Mapping
from statistics import fmean
from typing import Final

from drumwork.quantities import Turns, cents_words
from drumwork.rods.clearing.readings import Means
from drumwork.rods.clearing.task import ClearingTask
from drumwork.rods.clearing.tension import SPOKEN_OF, EdgeTension

__all__ = ["against_its_reading", "explain_rod", "explain_round"]

_LEVEL_CENTS: Final = 5  # smaller differences are not worth a sentence


def _stands(task: ClearingTask, cents: float) -> str:
    low = "low" if cents < 0 else "high"
    match task.means:
        case Means.EAR:
            return f"much too {low}" if abs(cents) > 45 else f"too {low}"
        case Means.GAUGE | Means.TORQUE:
            return f"{abs(2 ** (cents / 600) - 1):.0%} {'slack' if cents < 0 else 'tight'}"
        case _:
            return f"{cents_words(cents)} {low}"


def explain_rod(
    task: ClearingTask,
    rod: int,
    read: Mapping[int, float],
    turns: Mapping[int, Turns],
    predicted_cents: float,
    sd_cents: float,
    tension: EdgeTension | None = None,
) -> str:
    """Why this rod gets what it gets; where that goes against its own reading, that first. `read` is cents from wanted by rod, for the
    rods that were read."""
    because = _because(task, rod, read, turns[rod])
    if against_its_reading(read, rod, turns[rod]):
        because = _although(task, rod, read, turns, tension)
    deed = f"{because} {_comes_to(task, predicted_cents, sd_cents)}"
    if rod in task.offsets:
        deed += (
            f" It is wanted {cents_words(task.offsets[rod])} {'below' if task.offsets[rod] < 0 else 'above'} the rest."
        )
    return deed


def against_its_reading(read: Mapping[int, float], rod: int, amount: Turns) -> bool:
    """Whether a low rod is turned down, or a high one up. What is within a cent is neither."""
    return round(abs(read.get(rod, 0.0))) >= 1 and read[rod] * amount.thirtyseconds > 0


def _although(
    task: ClearingTask, rod: int, read: Mapping[int, float], turns: Mapping[int, Turns], tension: EdgeTension | None
) -> str:
    """A turn against the rod's own reading: said so in the first words, and why."""
    own, up = read[rod], turns[rod].thirtyseconds > 0
    pull = tension.unheard_of(task.layout.rods, rod) if tension and tension.told_by else 0.0
    first = f"{'Up' if up else 'Down'} although rod {rod} reads {_stands(task, own)}:"
    if tension and abs(pull) >= float(SPOKEN_OF.fraction) and (pull < 0) is up:
        by = f"by {tension.told_words()} it pulls {Turns(round(abs(pull) * 32)).amount()} turn {'less' if up else 'more'} than the others"
        return f"{first} {by}, which pitch does not hear."
    if any(each.thirtyseconds * turns[rod].thirtyseconds < 0 for each in turns.values()):
        return f"{first} what the others are turned moves it {'down' if up else 'up'} by more than that."
    beside = sorted(
        each for each in _beside(task, rod) if each in read and read[each] * own < 0 and round(abs(read[each])) >= 1
    )
    if beside:
        names = " and ".join(str(each) for each in beside)
        one = "s" if len(beside) == 1 else ""
        return f"{first} {names} beside it read{one} {'low' if up else 'high'}, and come{one} {'up' if up else 'down'} with it."
    return f"{first} by all that was read together it is {'lower' if up else 'higher'} than its own tap says."


def _beside(task: ClearingTask, rod: int) -> tuple[int, ...]:
    """The next rods to the left and right that take turns."""
    rods = task.layout.rods
    at = rods.index(rod)
    return rods[at - 1], rods[(at + 1) % len(rods)]


def _because(task: ClearingTask, rod: int, read: Mapping[int, float], amount: Turns) -> str:
    if rod not in read:
        return f"Rod {rod} was not heard; what it gets follows from the others."
    own = read[rod]
    facing = task.layout.opposite(rod)
    if facing in read and facing is not None:
        other = read[facing]
        if own * other > 0 and min(abs(own), abs(other)) >= _LEVEL_CENTS:
            pair = f"{rod} and {facing} face each other and are {_stands(task, (own + other) / 2)} together."
            return f"{pair} {_deed(amount, read, (own + other) / 2)}"
        if own * other < 0 and min(abs(own), abs(other)) >= _LEVEL_CENTS:
            return (
                f"{rod} is {_stands(task, own)}, {facing} across is {_stands(task, other)}. {_deed(amount, read, own)}"
            )
    if abs(own) < _LEVEL_CENTS:
        return f"Rod {rod} is level. {_leveling(amount)}"
    return f"Rod {rod} is {_stands(task, own)}. {_deed(amount, read, own)}"


def _comes_to(task: ClearingTask, cents: float, sd_cents: float) -> str:
    if task.means is Means.EAR:
        return "It should then sound level." if abs(cents) < 2 * _LEVEL_CENTS else "It should come nearer."
    off, doubt = round(cents), f"give or take {2 * sd_cents:.0f}"
    if not off:
        return f"It should come to what is wanted, {doubt} cents."
    return f"It should come to {cents_words(off)} {'above' if off > 0 else 'below'} wanted, {doubt}."


def _turning(amount: Turns) -> str:
    return f"{'Tightening' if amount.thirtyseconds > 0 else 'Easing'} it {amount.amount()}"


def _leveling(amount: Turns) -> str:
    return f"{_turning(amount)} balances what the others do." if amount.thirtyseconds else "Leave it."


def _deed(amount: Turns, read: Mapping[int, float], own: float) -> str:
    """What the turn does: the head is made even where the rod stands apart from the rest, brought to its pitch where the rest stands there too."""
    if not amount.thirtyseconds:
        return "Leave it; its neighbours bring it along."
    common = fmean(read.values())
    apart, up = own - common, amount.thirtyseconds > 0
    if abs(common) >= _LEVEL_CENTS and (abs(apart) < _LEVEL_CENTS or (apart > 0) is up):
        return f"{_turning(amount)} brings the head {'up' if up else 'down'}."
    return f"{_turning(amount)} evens the head."


def explain_round(
    task: ClearingTask,
    turns: Mapping[int, Turns],
    spread: float,
    mean: float,
    approach: str,
    read: Mapping[int, float] | None = None,
) -> str:
    """What the whole round does; first of all, which rods go against what they read."""
    deed, cents = _deed_of_round(task, turns, spread, mean, approach), read or {}
    against = [
        rod
        for rod, amount in turns.items()
        if abs(cents.get(rod, 0)) >= _LEVEL_CENTS and against_its_reading(cents, rod, amount)
    ]
    if not against or approach == "equal-first":
        return deed
    one = len(against) == 1
    return f"Against {'its reading' if one else 'their readings'}: {'rod' if one else 'rods'} {_list(against)}. {deed}"


def _deed_of_round(task: ClearingTask, turns: Mapping[int, Turns], spread: float, mean: float, approach: str) -> str:
    up = [rod for rod, amount in turns.items() if amount.thirtyseconds > 0]
    down = [rod for rod, amount in turns.items() if amount.thirtyseconds < 0]
    if not up and not down:
        return "No turn in whole steps would make this head more even."
    if approach == "equal-first":
        each = turns[up[0] if up else down[0]]
        return (
            f"Far from where it is wanted: first {each.words()} on every rod alike, in pattern. "
            "Evening comes after; so large a move would undo it."
        )
    deeds = [f"lifting {_list(up)}"] if up else []
    deeds += [f"easing {_list(down)}"] if down else []
    deed = " and ".join(deeds)
    return f"{deed[0].upper()}{deed[1:]} evens the head{_to(task, spread, mean)}."


def _to(task: ClearingTask, spread: float, mean: float) -> str:
    match task.means:
        case Means.EAR:
            return " and keeps the whole of it where it is" if task.rounds[-1].whole is None else ""
        case Means.PITCH:
            read = task.rounds[-1].readings.values()
            kept = abs(sum(pitch.hz for pitch in read) / len(read) / task.wanted - 1) < 0.005
            comes, wanted = f"{mean:.1f}", f"{task.wanted:.1f}"
            where = f"{'keeps it at' if kept else 'brings it to'} {comes} Hz"
            return f" to about {spread:.1f} Hz and {where}" + ("" if comes == wanted else f", wanted {wanted}")
        case _:
            return f" to about {spread:.1f} between highest and lowest, round {mean:.1f}"


def _list(rods: list[int]) -> str:
    names = [str(rod) for rod in rods]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
