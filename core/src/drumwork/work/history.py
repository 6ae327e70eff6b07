"""A closed job in one line for the drum's history, and its outcome in a few words."""

from __future__ import annotations

from collections.abc import Mapping

from drumwork.drums import Side
from drumwork.quantities import Turns, cents_of, cents_words
from drumwork.rods.clearing import at_pitch
from drumwork.work.state import BenchState

__all__ = ["checked_words", "cleared_words", "done_words", "fitted_words", "new_head_words"]


def cleared_words(state: BenchState, side: Side) -> str:
    """How evenly a head was left, and by what that was judged."""
    rounds = state.rounds(side)
    read = [lap for lap in rounds if lap.readings]
    first, last = (read[0].mean_and_spread_hz(), read[-1].left_hz()) if read else (None, None)
    if first and last:
        return f"spread {first[1]:.1f} → {last[1]:.1f} Hz{_at_pitch(state, side, last[0])}"
    if any(lap.ear for lap in rounds):
        return "by ear"
    return f"by {state.means}" if any(lap.numbers for lap in rounds) else "not tapped round"


def _at_pitch(state: BenchState, side: Side, mean_hz: float) -> str:
    """Where a pitch was asked for: whether it came to it."""
    wanted = state.target(side)
    if wanted is None:
        return ""
    if at_pitch(mean_hz, wanted.hz):
        return ", at pitch"
    cents, aim = cents_of(mean_hz / wanted.hz), state.aim(side)
    settles = " to settle" if aim and aim != wanted and at_pitch(mean_hz, aim.hz) else ""
    return f", left {cents_words(cents)} {'above' if cents > 0 else 'below'} {wanted.hz:.1f} Hz{settles}"


def _each(state: BenchState, side: Side) -> str:
    tally = state.tally(side)
    each = Turns(round(sum(t.thirtyseconds for t in tally.values()) / len(tally))) if tally else None
    return f"{each.amount()} turns each" if each else ""


def new_head_words(side: Side, new: str, old: str, reason: str) -> str:
    """What went on, and why the old one came off.

    >>> new_head_words(Side.BATTER, "double 7+7 clear", "single 10 coated", "coating worn through")
    'New batter head: double 7+7 clear. The old one, single 10 coated, came off: coating worn through.'
    """
    off = f" The old one, {old}, came off: {reason}." if old and reason else ""
    return f"New {side.value} head: {new or 'not from the shelf'}.{off}"


def fitted_words(state: BenchState, reasons: Mapping[Side, str]) -> tuple[str, str]:
    """New heads: what went on, what came off and why, how they were cleared; the outcome is the turns each rod was given."""
    texts, outcomes = [], []
    for side in state.plan.sides:
        head, reason = state.plan.heads[side], reasons.get(side, "")
        texts.append(f"{new_head_words(side, head.new, head.old, reason)} Cleared, {cleared_words(state, side)}")
        if each := _each(state, side):
            outcomes.append(each if len(state.plan.sides) == 1 else f"{side.value} {each}")
    return ". ".join(texts), "; ".join(outcomes)


def checked_words(state: BenchState, title: str) -> tuple[str, str]:
    """A head looked after: how even it was and is; the outcome is how many rods were turned."""
    (side,) = state.plan.sides
    turned = {rod for lap in state.rounds(side) for rod, mark in lap.turned.items() if mark.value}
    text = f"{title}, {side.value}: {cleared_words(state, side)}"
    return text, f"{len(turned)} rods turned" if turned else "nothing to turn"


def done_words(state: BenchState, title: str) -> tuple[str, str]:
    """Any other work: what it was, how heads it read were left, and what was written down; the outcome is what was found."""
    read = [
        side for side in state.plan.sides if any(lap.readings or lap.ear or lap.numbers for lap in state.rounds(side))
    ]
    cleared = [f"{side.value} {cleared_words(state, side)}" for side in read]
    said = [mark.value.rstrip(".") for mark in state.notes]
    text = f"{title}{': ' if cleared or said else ''}{'. '.join([*cleared, *said])}"
    found, right = len(state.found), sum(mark.put_right for mark in state.found.values())
    return text, f"{found} found, {right} put right" if found else "nothing found"
