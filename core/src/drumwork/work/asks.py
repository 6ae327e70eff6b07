"""Questions a step asks, as data: one of a few, several, a place round the drum, a pitch, a length, or one's own words."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Literal

from drumwork.drums import Side
from drumwork.errors import BadEvent
from drumwork.rods.layout import RodLayout

__all__ = ["CLOCK", "Option", "Question", "Unit", "places_round", "read_and_done"]

Unit = Literal["", "pitch", "length", "count"]


@dataclass(frozen=True, slots=True)
class Option:
    """One answer: its name in storage, and its words."""

    value: str
    words: str


@dataclass(frozen=True, slots=True)
class Question:
    """Something a step asks.

    Parameters
    ----------
    name : told apart by it within a job, and asked for by conditions (`Chose`)
    many : several answers may hold together
    own : one's own words may be the answer
    unit : the answer is typed and read as this
    round : the answers are the places round the drum, rod by rod; filled in when the plan is made
    side : the head it is about, where it is not the step's
    among : the answers are this list of the workshop's; filled in when the plan is made
    needed : the step is not done before it is answered
    keeps : the drum's record keeps the answer under this name when the job closes
    """

    name: str
    words: str
    options: tuple[Option, ...] = ()
    many: bool = False
    own: bool = False
    unit: Unit = ""
    round: bool = False
    side: Side | None = None
    among: str = ""
    needed: bool = False
    keeps: str = ""

    def with_options(self, options: tuple[Option, ...]) -> Question:
        return replace(self, options=(*self.options, *options))

    def words_of(self, values: tuple[str, ...]) -> str:
        """The answers in words; one's own stand as they are."""
        known = {each.value: each.words for each in self.options}
        return ", ".join(known.get(value, value) for value in values)

    def require(self, values: tuple[str, ...], unit: Unit) -> None:
        """Raise BadEvent for answers this question does not take."""
        known = {each.value for each in self.options}
        if unit != self.unit:
            raise BadEvent(f"“{self.words}” is answered otherwise.", question=self.name, unit=self.unit)
        if not self.many and len(values) > 1:
            raise BadEvent(f"“{self.words}” has one answer.", question=self.name)
        strange = [value for value in values if value not in known]
        if strange and not self.own:
            raise BadEvent(
                f"“{strange[0]}” is not among the answers to “{self.words}”.", question=self.name, answers=sorted(known)
            )


def read_and_done(name: str, words: str) -> Question:
    """Where someone can be injured: the caution is read and followed before the step is done."""
    return Question(name, "The caution is read", (Option("yes", words),), needed=True)


CLOCK = tuple(Option(f"hour-{hour}", f"at {hour} o’clock") for hour in (12, *range(1, 12)))
"""Places round a drum without rods, seen from above the head in hand, the badge or the splice at twelve."""


def places_round(layout: RodLayout | None) -> tuple[Option, ...]:
    """Each rod and each gap, going round from rod 1; by the clock where there are no rods."""
    if layout is None:
        return CLOCK
    count = layout.count
    return tuple(
        each
        for rod in range(1, count + 1)
        for each in (
            Option(f"rod-{rod}", f"at rod {rod}"),
            Option(f"gap-{rod}", f"between {rod} and {rod % count + 1}"),
        )
    )
