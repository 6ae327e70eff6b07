"""Every kind of step and every kind of entry, each named once."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Final

from drumwork.work.kinds import ask, clear, common, finding, loan, once_more, passes, rest, school
from drumwork.work.kinds.steps import StepKind
from drumwork.work.log import Entry
from drumwork.work.plan import StepPlan
from drumwork.work.state import BenchState

__all__ = ["ENTRIES", "ENTRY_KINDS", "KINDS", "Behaviour"]


def _nothing(state: BenchState, step: StepPlan) -> None:
    """Such a step keeps nothing of its own."""


def _title(state: BenchState, step: StepPlan) -> str:
    return step.title.lower()


@dataclass(frozen=True, slots=True)
class Behaviour:
    """How a kind of step begins, and where it stands in words."""

    begin: Callable[[BenchState, StepPlan], None] = _nothing
    where: Callable[[BenchState, StepPlan], str] = _title


KINDS: Final[Mapping[StepKind, Behaviour]] = {
    "tick": Behaviour(),
    "passes": Behaviour(passes.begin_passes, passes.where_in_passes),
    "clear": Behaviour(clear.begin_clearing, clear.where_in_clearing),
    "rest": Behaviour(),
    "close": Behaviour(),
    "stop": Behaviour(where=lambda state, step: "stopped, with a qualified person"),
}

ENTRIES: Final[tuple[type[Entry], ...]] = (
    common.StepDone,
    passes.Turned,
    passes.PassAdded,
    passes.CadenceChosen,
    clear.ReadingTaken,
    clear.RodTapped,
    clear.ReadingsMoved,
    clear.CentreRead,
    clear.MeansChosen,
    clear.WholeJudged,
    clear.LeftUneven,
    clear.TargetChosen,
    clear.RoundPlanned,
    clear.StepSizeChosen,
    rest.RestStarted,
    once_more.OnceMore,
    finding.FindingMade,
    finding.PutRight,
    loan.Lent,
    ask.Answered,
    school.SchoolChosen,
    common.Noted,
    common.Undone,
    common.Settled,
    common.Closed,
)
ENTRY_KINDS: Final[Mapping[str, type[Entry]]] = {each.kind: each for each in ENTRIES}
