"""The why of a proposal, in the words of a colleague at the bench."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

from drumwork.quantities import Turns
from drumwork.rods.clearing.readings import Means
from drumwork.rods.clearing.task import ClearingTask

__all__ = ["explain_rod", "explain_round"]

_LEVEL_CENTS: Final = 5  # smaller differences are not worth a sentence


def _stands(task: ClearingTask, cents: float) -> str:
    low = "low" if cents < 0 else "high"
    match task.means:
        case Means.EAR:
            return f"much too {low}" if abs(cents) > 45 else f"too {low}"
        case Means.GAUGE | Means.TORQUE:
            return f"{abs(2 ** (cents / 600) - 1):.0%} {'slack' if cents < 0 else 'tight'}"
        case _:
            return f"{abs(cents):.0f} cents {low}"


def explain_rod(
    task: ClearingTask,
    rod: int,
    read: Mapping[int, float],
    turns: Mapping[int, Turns],
    predicted_cents: float,
    sd_cents: float,
) -> str:
    """Why this rod gets what it gets. `read` is cents from wanted by rod, for the rods that were read."""
    deed = f"{_because(task, rod, read, turns[rod])} {_comes_to(task, predicted_cents, sd_cents)}"
    if rod in task.offsets:
        deed += f" It is wanted {abs(task.offsets[rod]):.0f} cents {'below' if task.offsets[rod] < 0 else 'above'} the rest."
    return deed


def _because(task: ClearingTask, rod: int, read: Mapping[int, float], amount: Turns) -> str:
    if rod not in read:
        return f"Rod {rod} was not heard; what it gets follows from the others."
    own = read[rod]
    facing = task.layout.opposite(rod)
    if facing in read and facing is not None:
        other = read[facing]
        if own * other > 0 and min(abs(own), abs(other)) >= _LEVEL_CENTS:
            pair = f"{rod} and {facing} face each other and are {_stands(task, (own + other) / 2)} together."
            return f"{pair} {_deed(amount)}"
        if own * other < 0 and min(abs(own), abs(other)) >= _LEVEL_CENTS:
            return f"{rod} is {_stands(task, own)}, {facing} across is {_stands(task, other)}. {_deed(amount)}"
    if abs(own) < _LEVEL_CENTS:
        return f"Rod {rod} is level. {_deed(amount, level=True)}"
    return f"Rod {rod} is {_stands(task, own)}. {_deed(amount)}"


def _comes_to(task: ClearingTask, cents: float, sd_cents: float) -> str:
    if task.means is Means.EAR:
        return "It should then sound level." if abs(cents) < 2 * _LEVEL_CENTS else "It should come nearer."
    off, doubt = round(cents), f"give or take {2 * sd_cents:.0f}"
    if not off:
        return f"It should come to what is wanted, {doubt} cents."
    cents_off = "1 cent" if abs(off) == 1 else f"{abs(off)} cents"
    return f"It should come to {cents_off} {'above' if off > 0 else 'below'} wanted, {doubt}."


def _deed(amount: Turns, level: bool = False) -> str:
    if not amount.thirtyseconds:
        return "Leave it; its neighbours bring it along." if not level else "Leave it."
    turned = "Tightening" if amount.thirtyseconds > 0 else "Easing"
    return f"{turned} it {amount.amount()} {'balances what the others do' if level else 'evens the head'}."


def explain_round(task: ClearingTask, turns: Mapping[int, Turns], spread: float, mean: float, approach: str) -> str:
    """What the whole round does."""
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
            where = f"{'keeps it at' if kept else 'brings it to'} {task.wanted:.1f} Hz"
            return f" to about {spread:.1f} Hz and {where}"
        case _:
            return f" to about {spread:.1f} between highest and lowest, round {mean:.1f}"


def _list(rods: list[int]) -> str:
    names = [str(rod) for rod in rods]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
