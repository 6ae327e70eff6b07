"""A head cleared round after round, remembering what was read and turned."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Final

from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing.propose import Proposal, propose
from drumwork.rods.clearing.task import ClearingTask, EvenRule, Round
from drumwork.rods.layout import RodLayout

__all__ = ["STRICT", "ClearingSession", "Step"]

STRICT: Final = EvenRule(spread_hz=2.0, spread_ratio=0.01, mean_ratio=0.01)
"""Within 1 % and 2 Hz of even, the mean within 1 % of wanted."""
SURE: Final = 0.98
FEWEST_ROUNDS: Final = 2


@dataclass(frozen=True, slots=True)
class Step:
    """What to do after a round: these turns, or nothing more because the head is done."""

    done: bool
    turns: Mapping[int, Turns]
    proposal: Proposal


@dataclass
class ClearingSession:
    """One head and one wanted pitch; readings in, turns out.

    Done means that, by all rounds so far, the true pitches lie within the rule with a chance of at least 98 in a hundred:
    a single noisy round that happens to look even does not end it.
    """

    layout: RodLayout
    target: Pitch
    step: Turns
    prior_hz_per_turn: float | None = None
    even: EvenRule = STRICT
    rounds: list[Round] = field(default_factory=list)

    def turned(self, turns: Mapping[int, Turns]) -> None:
        """What was really turned since the last reading, when it differs from what was asked."""
        if self.rounds:
            self.rounds[-1] = replace(self.rounds[-1], turned=turns)

    def read(self, readings: Mapping[int, Pitch]) -> Step:
        """Take in a round of pitches; the turns proposed count as made until `turned` says otherwise."""
        return self.take(Round(readings))

    def take(self, heard: Round) -> Step:
        """The same for a round as it was heard, with what rang at its rods."""
        self.rounds.append(heard)
        task = ClearingTask(
            self.layout,
            tuple(self.rounds),
            self.step,
            self.target,
            self.even,
            self.prior_hz_per_turn,
        )
        found = propose(task, stop_when_read_clear=False)
        done = found.chance_now >= SURE and len(self.rounds) >= FEWEST_ROUNDS
        turns = {rod: Turns(0) for rod in self.layout.rods} if done else dict(found.turns)
        self.turned(turns)
        return Step(done, turns, found)
