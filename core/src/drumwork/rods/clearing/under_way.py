"""Turn and tap: while a round's turns are being made, a tap at the rod just turned says what it did, and what is left is planned again.

A whole round costs a tap at every rod; a turn with its tap costs two. Another round is asked for only where no turn that is left wins enough by what
is known.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np

from drumwork.rods.clearing.belief import Belief, believe
from drumwork.rods.clearing.findings import (
    Finding,
    as_it_went,
    as_of_tap,
    finding_of_tap,
    hardly_moved,
    turned_by,
)
from drumwork.rods.clearing.propose import Proposal, Worked, at_rest, compose, work_out
from drumwork.rods.clearing.readings import Means, cents_of_z
from drumwork.rods.clearing.recent import recent
from drumwork.rods.clearing.relabel import Numbering, agreed_numbering, places, relabel
from drumwork.rods.clearing.sample import Heads, draw_heads
from drumwork.rods.clearing.task import ClearingTask
from drumwork.rods.clearing.verdict import Verdict

__all__ = ["Ask", "GoOn", "go_on"]

LEAST_Z: Final = 1e-6
WORTH_A_TURN: Final = 0.03
"""Of the spread allowed: what each turn that is left should win of it on the average; below that another round tells more. Our own figure."""
CHANCE_IN_SPREADS: Final = 2.0
"""A chance won counts as so much of the spread allowed; our own figure."""


class Ask(StrEnum):
    """What comes next: another turn and its tap, a whole round, or nothing."""

    TURN = "turn"
    ROUND = "round"
    DONE = "done"


@dataclass(frozen=True, slots=True)
class GoOn:
    """What is left to turn, and what is asked for next."""

    ask: Ask
    proposal: Proposal


def go_on(task: ClearingTask, sure: float) -> GoOn:
    """Plan what is left of a round whose turns are under way. Done is said where the chance that the head is even is at least `sure`."""
    to = agreed_numbering(task)
    counted, plain = _counted(task, to), task.at_its_word()
    trusted = {to[rod]: turns for rod, turns in go_on(plain, sure).proposal.turns.items()} if plain else None
    task, belief = counted.task, counted.belief
    order, agreed, dead = places(task, to), relabel(task, to), frozenset(to[rod] for rod in counted.idle)
    heads = draw_heads(agreed, belief)
    chance = heads.chance(agreed, np.zeros(len(task.layout.rods)))
    done = chance >= sure
    found = work_out(agreed, belief, done, dead, trusted)  # doubt makes no bolder than trust
    ask = Ask.DONE if done else Ask.TURN if _worth_turning(agreed, heads, found) else Ask.ROUND
    if ask is Ask.ROUND:
        found = at_rest(agreed, belief, found)
    worked = found.seen_from(task, to)
    z = {rod: max(float(belief.z[place]), LEAST_Z) for rod, place in zip(task.layout.rods, order, strict=True)}
    read = {rod: cents_of_z(each) for rod, each in z.items()}
    return GoOn(ask, compose(task, worked, _by_belief(task, z, done, chance), counted.findings, read))


@dataclass(frozen=True, slots=True)
class _Counted:
    """A round under way with the turns that for certain did nothing, or went the other way, taken for what they were; and what is believed of it so."""

    task: ClearingTask
    belief: Belief
    idle: tuple[int, ...]
    """Rods to be left until they were looked at, or read otherwise."""
    findings: tuple[Finding, ...]
    """What the tap just made says comes first."""


def _counted(task: ClearingTask, to: Numbering) -> _Counted:
    def belief_of(some: ClearingTask) -> Belief:
        return believe(recent(relabel(some, to)))

    taps, order, belief = task.rounds[-1].taps, places(task, to), belief_of(task)
    answer = dict(zip(task.layout.rods, np.diag(belief.answer)[order], strict=True))
    idle: dict[int, Finding] = {}
    told: tuple[Finding, ...] = ()
    for number, tap in enumerate(taps):
        last = number == len(taps) - 1
        if any(each.rod == tap.rod and turned_by(each) == turned_by(tap) for each in taps[number + 1 :]):
            continue  # it was read again since
        idle.pop(tap.rod, None)
        if not last and not hardly_moved(task, number, float(answer[tap.rod])):
            continue
        now = task if last else as_of_tap(task, number)
        finding = finding_of_tap(now, belief if last else belief_of(now), order)
        if finding and finding.certain:
            task, idle[tap.rod] = as_it_went(task, number, finding.kind), finding
            belief = belief_of(task)
        elif finding and last:
            told = (finding,)
    return _Counted(task, belief, tuple(idle), (*told, *reversed(idle.values())))


def _worth_turning(task: ClearingTask, heads: Heads, found: Worked) -> bool:
    """Whether what is left to turn wins enough for the turns and taps it takes."""
    made = np.array([[float(found.turns[rod].fraction) for rod in task.layout.rods]])
    turns = int(np.count_nonzero(made))
    now, then = (float(heads.spread(heads.after(each)).mean()) / task.allowed_ratio for each in (0 * made, made))
    won = max(now - then, CHANCE_IN_SPREADS * (found.chance_even - found.chance_now))
    return turns > 0 and won >= WORTH_A_TURN * turns


def _by_belief(task: ClearingTask, z: Mapping[int, float], done: bool, chance: float) -> Verdict:
    """The head as it is believed to be now, rods wanted apart from the rest judged by what is wanted of them."""
    pitch = task.means is Means.PITCH
    values = [task.wanted * (each**0.5 if pitch else each) for each in z.values()]
    spread, mean = max(values) - min(values), sum(values) / len(values)
    allowed = task.even.allowed_hz(task.wanted) if pitch else 2 * task.allowed_ratio * task.wanted
    unit = f" {task.means.unit}" if task.means.unit else ""
    words = (
        f"By the taps between turns about {spread:.1f}{unit} between highest and lowest; up to {allowed:.1f}{unit} counts as even. "
        f"{'Even and at pitch' if task.pitch_asked else 'Even'} with a chance of {min(chance, 0.99):.0%}."
    )
    on_pitch = done or abs(mean / task.wanted - 1) <= task.room
    return Verdict(done, on_pitch, task.pitch_asked, True, spread, allowed, mean, task.means.unit, words)
