"""A head cleared round after round, remembering what was read and turned."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Final

from drumwork.errors import TooFewReadings
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing.propose import Approach, Proposal, propose
from drumwork.rods.clearing.task import ClearingTask, EvenRule, Round, Tap
from drumwork.rods.clearing.under_way import Ask, go_on
from drumwork.rods.layout import RodLayout

__all__ = ["STRICT", "ClearingSession", "Step"]

STRICT: Final = EvenRule(spread_hz=2.0, spread_ratio=0.01, mean_ratio=0.01)
"""Within 1 % and 2 Hz of even, the mean within 1 % of wanted."""
SURE: Final = 0.98
FEWEST_ROUNDS: Final = 2
NO_TURN: Final = Turns(0)


@dataclass(frozen=True, slots=True)
class Step:
    """What to do after a round: these turns, or nothing more because the head is done."""

    done: bool
    turns: Mapping[int, Turns]
    proposal: Proposal
    ask: Ask = Ask.TURN


@dataclass
class ClearingSession:
    """One head and one wanted pitch; readings in, turns out.

    Done means that, by all rounds so far, the true pitches lie within the rule with a chance of at least 98 in a hundred:
    a single noisy round that happens to look even does not end it. `tally` is what each rod had been turned since finger-tight before the
    first round, where all of it was counted; it is carried on. `meant` is how many of these each rod was meant to have.
    """

    layout: RodLayout
    target: Pitch
    step: Turns
    prior_hz_per_turn: float | None = None
    even: EvenRule = STRICT
    tally: Mapping[int, Turns] | None = None
    meant: Mapping[int, Turns] | None = None
    rounds: list[Round] = field(default_factory=list)
    made: dict[int, Turns] = field(default_factory=dict)
    planned: Proposal | None = None
    left: dict[int, Turns] = field(default_factory=dict)
    """What is still to be turned of the last round."""

    def turned(self, turns: Mapping[int, Turns]) -> None:
        """What was really turned since the last reading, when it differs from what was asked."""
        if self.rounds:
            self.rounds[-1] = replace(self.rounds[-1], turned=turns)

    def turned_unread(self, rod: int, turned: Turns) -> Mapping[int, Turns]:
        """A rod turned by so much, and not read, or not so that it could be used: what is left goes on as it was planned."""
        self.layout.require(rod)
        self.made[rod] = self.made.get(rod, NO_TURN) + turned
        self.turned(dict(self.made))
        self.left[rod] = self.left.get(rod, NO_TURN) + -turned
        return self.left

    def tapped(self, rod: int, pitch: Pitch, turned: Turns = NO_TURN, doubtful: bool = False) -> Step:
        """A rod turned by so much and then tapped: what is left is planned again. Without a turn it is only read.

        Raises
        ------
        TooFewReadings
            before the first round.
        """
        if not self.rounds:
            raise TooFewReadings("Tap round the head once first, and enter a reading for each rod.")
        self.turned_unread(rod, turned)
        last = self.rounds[-1]
        tap = Tap(rod, pitch.hz, dict(self.made), doubtful)
        self.rounds[-1] = replace(last, taps=(*last.taps, tap))
        if self.planned and self.planned.approach is Approach.EQUAL_FIRST:  # all alike, before anything is evened
            return Step(False, self.left, self.planned, Ask.TURN if any(self.left.values()) else Ask.ROUND)
        found = go_on(replace(self._task(), made=dict(self.made)), SURE)
        self.left = dict(found.proposal.turns)
        return Step(found.ask is Ask.DONE, dict(found.proposal.turns), found.proposal, found.ask)

    def read(self, readings: Mapping[int, Pitch]) -> Step:
        """Take in a round of pitches; the turns proposed count as made until `turned` says otherwise."""
        return self.take(Round(readings))

    def take(self, heard: Round) -> Step:
        """The same for a round as it was heard, with what rang at its rods."""
        self.rounds.append(heard)
        self.made = {}
        found = self.planned = propose(self._task(), stop_when_read_clear=False)
        done = found.chance_now >= SURE and len(self.rounds) >= FEWEST_ROUNDS
        turns = {rod: Turns(0) for rod in self.layout.rods} if done else dict(found.turns)
        self.turned(turns)
        self.left = dict(turns)
        return Step(done, turns, found, Ask.DONE if done else Ask.TURN)

    def _task(self) -> ClearingTask:
        return ClearingTask(
            self.layout, tuple(self.rounds), self.step, self.target, self.even, self.prior_hz_per_turn, self._counted(),
            self.meant,
        )  # fmt: skip

    def _counted(self) -> Mapping[int, Turns] | None:
        """Turns of each rod since finger-tight up to now; what is only proposed is not made yet."""
        if self.tally is None:
            return None
        made = [each.turned for each in self.rounds[:-1]] + [self.made]
        return {
            rod: sum((each.get(rod, NO_TURN) for each in made), start=self.tally.get(rod, NO_TURN))
            for rod in self.layout.rods
        }
