"""The why of a proposal, in the words of a colleague at the bench."""

from __future__ import annotations

from collections.abc import Mapping

from drumwork.quantities import Interval, Pitch, Turns
from drumwork.rods.layout import RodLayout

__all__ = ["explain_rod", "explain_round"]

_LEVEL_CENTS = 5  # smaller differences are not worth a sentence


def _cents(readings: Mapping[int, Pitch], rod: int, wanted_hz: float) -> float:
    return Interval.from_ratio(readings[rod].hz / wanted_hz).cents


def _stands(cents: float) -> str:
    return f"{abs(cents):.0f} cents {'low' if cents < 0 else 'high'}"


def explain_rod(
    layout: RodLayout, rod: int, readings: Mapping[int, Pitch], turns: Mapping[int, Turns], wanted_hz: float
) -> str:
    """Why this rod gets what it gets."""
    amount = turns[rod]
    if rod not in readings:
        return f"Rod {rod} was not heard; what it gets follows from the others."
    own = _cents(readings, rod, wanted_hz)
    facing = layout.opposite(rod)
    if facing in readings and facing is not None:
        other = _cents(readings, facing, wanted_hz)
        if own * other > 0 and min(abs(own), abs(other)) >= _LEVEL_CENTS:
            pair = f"{rod} and {facing} face each other and are {_stands((own + other) / 2)} together."
            return f"{pair} {_deed(amount)}"
        if own * other < 0 and min(abs(own), abs(other)) >= _LEVEL_CENTS:
            return f"{rod} is {_stands(own)}, {facing} across is {_stands(other)}. {_deed(amount)}"
    if abs(own) < _LEVEL_CENTS:
        return f"Rod {rod} is level. {_deed(amount, level=True)}"
    return f"Rod {rod} is {_stands(own)}. {_deed(amount)}"


def _deed(amount: Turns, level: bool = False) -> str:
    if not amount.thirtyseconds:
        return "Leave it; its neighbours bring it along." if not level else "Leave it."
    turned = "Tightening" if amount.thirtyseconds > 0 else "Easing"
    return f"{turned} it {amount.amount()} {'balances what the others do' if level else 'evens the head'}."


def explain_round(
    readings: Mapping[int, Pitch], turns: Mapping[int, Turns], wanted_hz: float, predicted_spread_hz: float
) -> str:
    """What the whole round does."""
    up = [rod for rod, amount in turns.items() if amount.thirtyseconds > 0]
    down = [rod for rod, amount in turns.items() if amount.thirtyseconds < 0]
    if not up and not down:
        return "No turn in whole steps would make this head more even."
    mean = sum(pitch.hz for pitch in readings.values()) / len(readings)
    kept = "keeps" if abs(mean / wanted_hz - 1) < 0.005 else "brings"
    deeds = [f"lifting {_list(up)}"] if up else []
    deeds += [f"easing {_list(down)}"] if down else []
    deed = " and ".join(deeds)
    where = f"{kept} it {'at' if kept == 'keeps' else 'to'} {wanted_hz:.1f} Hz"
    return f"{deed[0].upper()}{deed[1:]} evens the head to about {predicted_spread_hz:.1f} Hz and {where}."


def _list(rods: list[int]) -> str:
    names = [str(rod) for rod in rods]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
