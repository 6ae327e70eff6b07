"""Fold a job's log into where the work stands, by asking each kind of entry. The same log always gives the same state."""

from __future__ import annotations

from collections.abc import Iterable

from drumwork.errors import BadEvent
from drumwork.work.kinds.clear import open_next_rounds
from drumwork.work.kinds.finding import mark_gone
from drumwork.work.kinds.registry import KINDS
from drumwork.work.log import Entry, Logged, Rule, Standing, counting
from drumwork.work.otherwise import begun_steps
from drumwork.work.plan import Plan
from drumwork.work.state import BenchState

__all__ = ["advance", "begin", "fold", "require_fits", "standing_of", "where"]

_AT_LOG = ("undo", "settle")
"""Kinds that change which entries count; the log sees to them, not the state."""


def begin(plan: Plan) -> BenchState:
    """A job nothing was entered on."""
    state = BenchState(plan)
    for step in plan.steps:
        KINDS[step.kind].begin(state, step)
    return state


def fold(plan: Plan, log: Iterable[Logged]) -> BenchState:
    """The state after this log."""
    log = list(log)
    state = begin(plan)
    for each in counting(log):
        advance(state, each)
    state.last_seq = max((each.seq for each in log), default=0)
    return state


def advance(state: BenchState, each: Logged) -> None:
    """One more entry that counts, in place. Not for undo or settle, which change what counted before."""
    state.last_seq = max(state.last_seq, each.seq)
    if each.entry.kind in _AT_LOG:
        raise BadEvent("An undo or a decision changes what counted before: fold the log again.", kind=each.entry.kind)
    before = state.plan
    state.live.append(each)
    for slot in each.entry.slots():
        state.slots[slot] = each
    each.entry.apply(state, each)
    if state.plan is not before:
        _begin_what_is_left(state)
    open_next_rounds(state)


def _begin_what_is_left(state: BenchState) -> None:
    """The plan changed: steps in which nothing was entered begin as it has them now."""
    begun = begun_steps(state)
    for step in state.plan.steps:
        if step.id not in begun:
            KINDS[step.kind].begin(state, step)
    mark_gone(state)


def require_fits(state: BenchState, entry: Entry) -> None:
    """Raise BadEvent, BadLayout or BadFinding when an entry cannot belong to this job as it stands."""
    if state.closed:
        raise BadEvent("This job is closed. Start a new one on the drum; what you entered is kept on this device.")
    entry.require(state)


def standing_of(state: BenchState, entry: Entry, seen: int, device: str) -> tuple[Standing, str | None]:
    """How a new entry stands, and against which: another device may have written its slot after the last number this one had seen."""
    last = max((each for slot in entry.slots() if (each := state.slots.get(slot))), key=lambda e: e.seq, default=None)
    if last is None or last.seq <= seen or last.device in (device, "server") or entry.rule is Rule.STANDS:
        return Standing.APPLIED, None
    repeats = entry == last.entry and not (entry.rule is Rule.COUNTS and entry.may_be_both())
    if entry.rule is Rule.ONCE or repeats:
        return Standing.REPEAT, None
    return Standing.CONFLICT, last.id


def where(state: BenchState) -> str:
    """One line for the list of jobs in hand."""
    step = state.now
    if state.closed or step is None:
        return "closed" if state.closed else "ready to close"
    side = step.side.value if step.side else state.plan.part.value
    return f"{side}, {KINDS[step.kind].where(state, step)}"
